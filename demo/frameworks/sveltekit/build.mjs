// Builds the sample site as an app of SvelteKit into ../../builds/sveltekit-STATE. Needs a newer Node.js
// than the other samples: npm install && node build.mjs
import { cp, mkdir, mkdtemp, rm } from "node:fs/promises";
import { execFileSync } from "node:child_process";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { layout } from "../../layout.mjs";

const here = path.dirname(fileURLToPath(import.meta.url));
const demo = path.join(here, "..", "..");

for (const state of Object.keys(layout)) {
  const app = path.join(await mkdtemp(path.join(tmpdir(), "kelpwick-")), "kelpwick");
  await mkdir(app);
  for (const part of ["src", "package.json", "vite.config.js"]) {
    await cp(path.join(here, part), path.join(app, part), { recursive: true });
  }
  await cp(path.join(here, "node_modules"), path.join(app, "node_modules"), { recursive: true, verbatimSymlinks: true });
  for (const states of new Set(["before", state])) {
    await cp(path.join(demo, "site", states, "src"), path.join(app, "src", "site"), { recursive: true });
  }
  for (const { place, from } of layout[state]) {
    await cp(path.join(demo, "packages", from), path.join(app, place), { recursive: true });
  }
  await cp(path.join(demo, "site", "before", "public"), path.join(app, "static"), { recursive: true });
  execFileSync("npx", ["vite", "build"], { cwd: app, stdio: "inherit" });
  const kept = path.join(demo, "builds", `sveltekit-${state}`);
  await rm(kept, { recursive: true, force: true });
  await cp(path.join(app, "build"), kept, { recursive: true });
  await rm(path.dirname(app), { recursive: true, force: true });
}
