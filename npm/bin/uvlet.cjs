#!/usr/bin/env node
// Runs the program of the platform's own package, which npm installed beside this one.
"use strict";

const { spawnSync } = require("node:child_process");

const { name, optionalDependencies } = require("../package.json");
const own = `@${name}/${process.platform}-${process.arch}`;
const file = process.platform === "win32" ? "uvlet.exe" : "uvlet";

function fail(message) {
  process.stderr.write(`uvlet: ${message}\n`);
  process.exit(2);
}

let program;
try {
  program = require.resolve(`${own}/${file}`);
} catch {
  fail(
    own in optionalDependencies
      ? `the package ${own} is not installed; install ${name} again with optional packages`
      : `there is no package for ${process.platform} on ${process.arch}; build it with cargo`,
  );
}
const ended = spawnSync(program, process.argv.slice(2), { stdio: "inherit" });
if (ended.error) fail(`${program} cannot be run: ${ended.error.message}`);
// A program that a signal ended ends this one in the same way.
if (ended.signal) process.kill(process.pid, ended.signal);
process.exitCode = ended.status ?? 2;
