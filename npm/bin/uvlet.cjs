#!/usr/bin/env node
// Runs the program of the platform's own package, which npm installed beside this one.
"use strict";

const { spawn } = require("node:child_process");
const { closeSync, openSync, readSync } = require("node:fs");

const { name, optionalDependencies } = require("../package.json");
const own = `@${name}/${process.platform}-${process.arch}`;
const file = process.platform === "win32" ? "uvlet.exe" : "uvlet";
// First bytes of programs (ELF, Mach-O; those of Windows begin with MZ).
const STARTS = ["\x7fELF", "\xcf\xfa\xed\xfe", "\xca\xfe\xba\xbe"];

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
// A shell takes an empty file for a script that does nothing, and does it well.
const opened = openSync(program);
const bytes = Buffer.alloc(4);
readSync(opened, bytes, 0, 4, 0);
closeSync(opened);
const start = bytes.toString("latin1");
if (!STARTS.includes(start) && !start.startsWith("MZ")) {
  fail(`${program} is not a whole program; install ${name} again`);
}

const child = spawn(program, process.argv.slice(2), { stdio: "inherit" });
child.on("error", (error) => fail(`${program} cannot be run: ${error.message}`));
// Who ends this ends the program, which would otherwise go on by itself.
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => child.kill(signal));
child.on("exit", (status, signal) => {
  if (signal) {
    process.removeAllListeners(signal);
    process.kill(process.pid, signal);
  } else {
    process.exitCode = status;
  }
});
