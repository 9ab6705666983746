// Builds the sample site: lays its packages out as real folders, runs a bundler, writes the pages.
//   node build.mjs [--bundler NAME] [--into DIR]
// Real folders, no links: bundlers follow links, and every package would look like own code.
import { cp, mkdir, readFile, rm } from "node:fs/promises";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { layout } from "./layout.mjs";

const here = path.dirname(fileURLToPath(import.meta.url));
const PAGES = ["timetable", "booking", "crew"];
const BUNDLERS = ["esbuild", "rollup", "rspack", "vite", "webpack"];

const { values } = parseArgs({ options: { bundler: { type: "string", multiple: true }, into: { type: "string" } } });
const into = path.resolve(values.into ?? path.join(here, "builds"));

async function layOut(state) {
  const site = path.join(here, ".site", state);
  await rm(site, { recursive: true, force: true });
  await cp(path.join(here, "site", "before"), site, { recursive: true });
  if (state !== "before") await cp(path.join(here, "site", state), site, { recursive: true });
  for (const { place, from } of layout[state]) {
    await cp(path.join(here, "packages", from), path.join(site, place), { recursive: true });
  }
  return site;
}

/** Every state of the site, in the kinds that a bundler is built in. */
function builds(variants) {
  return Object.keys(layout).flatMap((state) =>
    Object.entries(variants?.[state] ?? { "": {} }).map(([suffix, differs]) => [state, suffix, differs]),
  );
}

for (const name of values.bundler ?? BUNDLERS) {
  const { bundle, variants } = await import(`./bundlers/${name}.mjs`);
  for (const [state, suffix, differs] of builds(variants)) {
    const site = await layOut(state);
    // Built inside the site, as anyone would: the maps then name sources as `../src/…`.
    const out = path.join(site, "dist");
    await mkdir(out, { recursive: true });
    const template = await readFile(path.join(site, "page.html"), "utf8");
    const page = (title, head) => template.replace("{{title}}", title).replace("{{head}}", head.join("\n"));
    await bundle({ site, out, pages: PAGES, state, page, ...differs });
    if (!differs.server) await cp(path.join(site, "public"), out, { recursive: true });
    const kept = path.join(into, `${name}-${state}${suffix}`);
    await rm(kept, { recursive: true, force: true });
    await cp(out, kept, { recursive: true });
    console.log(`${name}, ${state}${suffix}: ${path.relative(process.cwd(), kept)}`);
  }
}
