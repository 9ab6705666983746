// webpack: one compilation with the three pages as entries. *Before* shares nothing between them
// but what is loaded on demand; *after* cuts shared chunks. Also built without source maps, and in
// development mode, as it is measured by mistake.
import MiniCssExtractPlugin from "mini-css-extract-plugin";
import webpack from "webpack";
import { compile, rules } from "./packed.mjs";

/** Kinds of builds per state: what is added to the build's name, and what differs. */
export const variants = {
  before: { "": {}, "-no-maps": { maps: false }, "-development": { mode: "development" } },
  after: { "": {} },
};

/** Builds `site` (laid out in a folder) into `out`; `page(title, head)` makes a page's HTML. */
export function bundle(options) {
  return compile(webpack, {
    ...options,
    module: { rules: [{ test: /\.css$/, use: [MiniCssExtractPlugin.loader, "css-loader"] }, ...rules] },
    plugins: [new MiniCssExtractPlugin({ filename: "[name].[contenthash:8].css", chunkFilename: "[id].[contenthash:8].css" })],
  });
}
