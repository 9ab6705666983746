// Makes the npm tarballs: one package per platform that holds the program, and a main one whose
// small script finds it. Nothing is downloaded when they are installed, and no install script runs.
//
//   node npm/pack.mjs --into FOLDER PLATFORM=PROGRAM…
//   node npm/pack.mjs --into tarballs linux-x64=target/release/uvlet darwin-arm64=uvlet-mac
//
// The manual and the completions come from the program of this machine's platform.

import { execFileSync } from "node:child_process";
import { chmodSync, copyFileSync, cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const here = dirname(fileURLToPath(import.meta.url));
const root = dirname(here);
const PLATFORMS = ["linux-x64", "linux-arm64", "darwin-x64", "darwin-arm64", "win32-x64", "win32-arm64"];
const SHELLS = { bash: "uvlet.bash", zsh: "_uvlet", fish: "uvlet.fish", powershell: "uvlet.ps1" };
const LICENCES = ["LICENSE-APACHE", "LICENSE-MIT"];

function fail(message) {
  process.stderr.write(`pack.mjs: ${message}\n`);
  process.exit(2);
}

function read(words) {
  const programs = new Map();
  let into = "tarballs";
  for (let at = 0; at < words.length; at++) {
    if (words[at] === "--into") {
      into = words[++at] ?? fail("--into takes a folder");
      continue;
    }
    const [platform, program] = words[at].split("=");
    if (!PLATFORMS.includes(platform)) fail(`${platform} is none of ${PLATFORMS.join(", ")}`);
    if (!program || !existsSync(program)) fail(`${words[at]}: name the program, as in ${platform}=target/release/uvlet`);
    programs.set(platform, resolve(program));
  }
  const own = programs.get(`${process.platform}-${process.arch}`);
  if (!own) fail(`the program of this machine is needed, as ${process.platform}-${process.arch}=PROGRAM`);
  return { into: resolve(into), programs, own };
}

const { into, programs, own } = read(process.argv.slice(2));
const workspace = readFileSync(join(root, "Cargo.toml"), "utf8");
const version = /^version = "([^"]+)"/m.exec(workspace)?.[1] ?? fail("Cargo.toml names no version");
const common = { version, license: "MIT OR Apache-2.0" };
const description = "Accounts for every byte that a web application makes its visitors download";
const scratch = mkdtempSync(join(tmpdir(), "uvlet-npm-"));

function pack(folder, manifest) {
  writeFileSync(join(folder, "package.json"), `${JSON.stringify({ ...manifest, ...common }, null, 2)}\n`);
  for (const licence of LICENCES) copyFileSync(join(root, licence), join(folder, licence));
  const shell = process.platform === "win32";
  execFileSync("npm", ["pack", "--silent", "--ignore-scripts", "--pack-destination", into], { cwd: folder, shell, stdio: ["ignore", "inherit", "inherit"] });
}

mkdirSync(into, { recursive: true });
try {
  for (const [platform, program] of programs) {
    const folder = join(scratch, platform);
    mkdirSync(folder);
    const [os, cpu] = platform.split("-");
    const file = os === "win32" ? "uvlet.exe" : "uvlet";
    copyFileSync(program, join(folder, file));
    chmodSync(join(folder, file), 0o755);
    const name = `@uvlet/${platform}`;
    pack(folder, { name, description: `${description}: the program for ${platform}`, os: [os], cpu: [cpu], files: [file] });
  }
  const main = join(scratch, "uvlet");
  cpSync(join(here, "bin"), join(main, "bin"), { recursive: true });
  execFileSync(own, ["manual", "--into", join(main, "man")]);
  mkdirSync(join(main, "completions"));
  for (const [shell, file] of Object.entries(SHELLS)) {
    writeFileSync(join(main, "completions", file), execFileSync(own, ["completions", shell]));
  }
  copyFileSync(join(root, "README.md"), join(main, "README.md"));
  pack(main, {
    name: "uvlet",
    description,
    bin: { uvlet: "bin/uvlet.cjs" },
    man: ["man/uvlet.1"],
    files: ["bin", "man", "completions"],
    engines: { node: ">=18" },
    optionalDependencies: Object.fromEntries([...programs.keys()].map((platform) => [`@uvlet/${platform}`, version])),
  });
} finally {
  rmSync(scratch, { recursive: true, force: true });
}
