// Bundles what a module writes with every bundler that is installed around this file, each into a folder
// of its own below the one that is named, with a page. Prints the folders.
//   node bundle.mjs INTO MODULE FUNCTION

import * as fs from "node:fs";
import { basename, join, resolve } from "node:path";

import { rspack } from "@rspack/core";
import * as esbuild from "esbuild";
import { rollup } from "rollup";
import { build as vite } from "vite";
import webpack from "webpack";

const [, , folder, module, write] = process.argv;
const into = resolve(folder);
const src = join(into, "src");
(await import(module))[write](src, fs);
const main = join(src, "main.js");

function packed(bundler, name, minimize) {
  const options = {
    mode: "production",
    devtool: "source-map",
    entry: main,
    output: { path: join(into, name), filename: "main.js" },
    optimization: { minimize },
  };
  return new Promise((done, fail) => {
    bundler(options, (error, stats) => {
      if (error || stats.hasErrors()) fail(error ?? new Error(stats.toString("errors-only")));
      else done();
    });
  });
}

const esb = (name, options) =>
  esbuild.build({ entryPoints: [main], bundle: true, sourcemap: true, outfile: join(into, name, "main.js"), logLevel: "error", ...options });

const builds = {
  "esbuild": (name) => esb(name, { format: "esm", minify: true }),
  "esbuild-plain": (name) => esb(name, { format: "esm" }),
  "esbuild-iife": (name) => esb(name, { format: "iife", minify: true }),
  "rollup": async (name) => {
    const bundle = await rollup({ input: main, logLevel: "silent" });
    await bundle.write({ file: join(into, name, "main.js"), format: "es", sourcemap: true });
  },
  "vite": (name) => {
    const output = { entryFileNames: "main.js" };
    const build = { outDir: join(into, name), sourcemap: true, rollupOptions: { input: main, output } };
    return vite({ root: src, configFile: false, logLevel: "silent", build: { ...build, emptyOutDir: false } });
  },
  "webpack": (name) => packed(webpack, name, true),
  "webpack-plain": (name) => packed(webpack, name, false),
  "rspack": (name) => packed(rspack, name, true),
};

for (const [name, build] of Object.entries(builds)) {
  await build(name);
  fs.writeFileSync(join(into, name, "index.html"), "<script type=module src=main.js></script>");
  console.log(basename(name));
}
