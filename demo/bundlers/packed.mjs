// What webpack and Rspack have in common: the configuration, the stats, the pages.
import { writeFile } from "node:fs/promises";
import path from "node:path";

export const rules = [{ test: /\.svg$/, type: "asset/resource" }];

// All that helps to read the build; no texts, and nothing twice.
const STATS = {
  all: false,
  assets: true,
  chunks: true,
  chunkOrigins: true,
  entrypoints: true,
  errors: true,
  hash: true,
  ids: true,
  modules: true,
  nestedModules: true,
  orphanModules: true,
  runtimeModules: true,
  cachedModules: true,
  reasons: true,
  usedExports: true,
  providedExports: true,
  optimizationBailout: true,
  version: true,
  modulesSpace: Infinity,
  nestedModulesSpace: Infinity,
  assetsSpace: Infinity,
  groupModulesByType: false,
  groupAssetsByChunk: false,
};

export async function compile(bundler, { site, out, pages, state, page, maps = true, mode = "production", module, plugins, css = {} }) {
  const compiler = bundler({
    context: site,
    mode,
    entry: Object.fromEntries(pages.map((page) => [page, `./src/${page}/main.js`])),
    devtool: mode === "development" ? "eval" : maps && "source-map",
    output: {
      path: out,
      publicPath: "/",
      filename: "[name].[contenthash:8].js",
      chunkFilename: "[id].[contenthash:8].js",
      assetModuleFilename: "[name].[contenthash:8][ext]",
      ...css,
    },
    // Its advice on sizes is not asked for.
    performance: false,
    optimization: { splitChunks: state === "after" ? { chunks: "all", minSize: 1000 } : { chunks: "async" } },
    module,
    plugins,
  });
  const stats = await new Promise((resolve, reject) => compiler.run((error, stats) => (error ? reject(error) : resolve(stats))));
  await new Promise((resolve) => compiler.close(resolve));
  if (stats.hasErrors()) throw new Error(stats.toString({ all: false, errors: true }));
  const told = stats.toJson(STATS);
  // Where the site was laid out, and where the tools stand, is nobody's business.
  const tools = path.resolve(import.meta.dirname, "..");
  // Who asked for a module first differs from run to run.
  const lasting = (key, value) => (key.startsWith("issuer") ? undefined : value);
  const text = JSON.stringify(told, lasting).replaceAll(site, "/kelpwick").replaceAll(tools, "/tools");
  await writeFile(path.join(out, "stats.json"), text);
  for (const name of pages) {
    const files = told.entrypoints[name].assets.map((asset) => asset.name);
    const head = files.map((file) =>
      file.endsWith(".css") ? `    <link rel="stylesheet" href="/${file}">` : `    <script defer src="/${file}"></script>`,
    );
    await writeFile(path.join(out, `${name}.html`), page(name, head));
  }
}
