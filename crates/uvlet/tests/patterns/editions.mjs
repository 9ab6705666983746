// A page that has code twice: a package with a copy of it in an own folder, and a helper that three
// modules have each for themselves. `mended` has each once.

import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { buildSync } from "esbuild";

const packages = join(dirname(fileURLToPath(import.meta.url)), "../packages");

const helper = (name) => `function ${name}(low, high) {
  const found = {};
  for (const key of Object.keys(low)) if (!high.includes(key)) found[key] = low[key];
  for (const key of Object.getOwnPropertySymbols(low)) if (!high.includes(key)) found[key] = low[key];
  return found;
}`;

/** Writes the page into a folder. */
function page(folder, { mkdirSync, writeFileSync, cpSync }, isMended) {
  mkdirSync(join(folder, "vendor"), { recursive: true });
  cpSync(join(packages, "tidecalc@3.0.4"), join(folder, "node_modules/tidecalc"), { recursive: true });
  cpSync(join(packages, "sounding-math@0.9.1"), join(folder, "node_modules/sounding-math"), { recursive: true });
  cpSync(join(packages, "pelorus-geo@1.2.0"), join(folder, "node_modules/pelorus-geo"), { recursive: true });
  writeFileSync(join(folder, "package.json"), JSON.stringify({ name: "page", type: "module" }));
  const entry = join(folder, "node_modules/tidecalc/src/index.js");
  buildSync({ entryPoints: [entry], bundle: true, format: "esm", external: ["sounding-math"], outfile: join(folder, "vendor/tides.js") });
  writeFileSync(join(folder, "rest.js"), `export ${helper("rest")}`);
  for (const name of ["bow", "keel", "stern"]) {
    const own = isMended ? `import { rest } from "./rest.js";` : helper("rest");
    writeFileSync(join(folder, `${name}.js`), `${own}\nconsole.log(rest(globalThis.${name}, ["${name}"]), rest(globalThis.hull, []));`);
  }
  const copy = isMended ? "tidecalc" : "./vendor/tides.js";
  writeFileSync(join(folder, "main.js"), `import { predict, series, extremes, nextHighWater, nextLowWater, loadStation, stationNames, toDatum, DATUMS, springNeap, clearance, CONSTITUENTS } from "tidecalc"; import * as copy from "${copy}"; import * as geo from "pelorus-geo";
import "./bow.js"; import "./keel.js"; import "./stern.js"; console.log(predict, copy.predict, series, copy.series, extremes, copy.extremes, nextHighWater, copy.nextHighWater, nextLowWater, copy.nextLowWater, loadStation, copy.loadStation, stationNames, copy.stationNames, toDatum, copy.toDatum, DATUMS, copy.DATUMS, springNeap, copy.springNeap, clearance, copy.clearance, CONSTITUENTS, copy.CONSTITUENTS, geo);`);
}

export const write = (folder, fs) => page(folder, fs, false);
export const mended = (folder, fs) => page(folder, fs, true);
