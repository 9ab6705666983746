// Rspack: configured like webpack, with its own handling of styles.
import { rspack } from "@rspack/core";
import { compile, rules } from "./packed.mjs";

/** Builds `site` (laid out in a folder) into `out`; `page(title, head)` makes a page's HTML. */
export function bundle(options) {
  return compile(rspack, {
    ...options,
    module: { rules: [{ test: /\.css$/, type: "css/auto" }, ...rules] },
    plugins: [],
    css: { cssFilename: "[name].[contenthash:8].css", cssChunkFilename: "[id].[contenthash:8].css" },
  });
}
