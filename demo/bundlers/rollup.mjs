// Rollup: pages as entries, shared chunks as it finds them. It knows neither styles nor pictures:
// esbuild bundles the styles and minifies the scripts, a small plugin of ours writes the pictures.
import commonjs from "@rollup/plugin-commonjs";
import { nodeResolve } from "@rollup/plugin-node-resolve";
import { build, transform } from "esbuild";
import { readFile, writeFile } from "node:fs/promises";
import path from "node:path";
import { rollup } from "rollup";
import uvletPlugin from "../../crates/uvlet/plugin/uvlet-plugin.mjs";

/** Builds `site` (laid out in a folder) into `out`; `page(title, head)` makes a page's HTML. */
export async function bundle({ site, out, pages, page }) {
  const bundle = await rollup({
    input: Object.fromEntries(pages.map((page) => [page, path.join(site, `src/${page}/main.js`)])),
    plugins: [files(), nodeResolve(), commonjs(), minified(), uvletPlugin({ root: site })],
    onwarn(warning) {
      throw new Error(warning.message);
    },
  });
  const { output } = await bundle.write({
    dir: out,
    format: "es",
    sourcemap: true,
    hashCharacters: "base36",
    entryFileNames: "[name]-[hash].js",
    chunkFileNames: "[name]-[hash].js",
    assetFileNames: "[name]-[hash][extname]",
  });
  await bundle.close();
  const { metafile } = await build({
    entryPoints: pages.map((page) => path.join(site, `src/${page}/${page}.css`)),
    outdir: out,
    bundle: true,
    minify: true,
    sourcemap: true,
    metafile: true,
    entryNames: "[name]-[hash]",
    assetNames: "[name]-[hash]",
    publicPath: "/",
    loader: { ".svg": "file" },
  });
  const styles = Object.keys(metafile.outputs).filter((file) => file.endsWith(".css")).map((file) => path.basename(file));
  const chunks = new Map(output.map((item) => [item.fileName, item]));
  for (const name of pages) {
    const entry = output.find((item) => item.isEntry && item.name === name);
    const style = styles.find((file) => file.startsWith(`${name}-`));
    const head = [
      `    <link rel="stylesheet" href="/${style}">`,
      ...closure(entry, chunks).map((file) => `    <link rel="modulepreload" href="/${file}">`),
      `    <script type="module" src="/${entry.fileName}"></script>`,
    ];
    await writeFile(path.join(out, `${name}.html`), page(name, head));
  }
}

/** Pictures that scripts import become files of their own; styles are left to esbuild. */
function files() {
  return {
    name: "files",
    async load(id) {
      if (id.endsWith(".css")) return { code: "", moduleSideEffects: true };
      if (!id.endsWith(".svg")) return null;
      const source = await readFile(id);
      const file = this.emitFile({ type: "asset", name: path.basename(id), originalFileName: id, source });
      return `export default import.meta.ROLLUP_FILE_URL_${file};`;
    },
    // Addresses from the site's root.
    resolveFileUrl: ({ fileName }) => JSON.stringify(`/${fileName}`),
  };
}

function minified() {
  return {
    name: "minified",
    renderChunk: (code) => transform(code, { minify: true, sourcemap: "external", format: "esm", target: "es2022" }),
  };
}

/** Files that a chunk statically imports. */
function closure(entry, chunks) {
  const found = [...entry.imports];
  for (const file of found) found.push(...chunks.get(file).imports.filter((next) => !found.includes(next)));
  return found;
}
