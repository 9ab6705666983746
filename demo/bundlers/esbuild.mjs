// esbuild: one run over the three pages. Without splitting, as *before* has it, whatever pages
// share is copied into each of them.
import { build } from "esbuild";
import { writeFile } from "node:fs/promises";
import path from "node:path";

/** Builds `site` (laid out in a folder) into `out`; `page(title, head)` makes a page's HTML. */
export async function bundle({ site, out, pages, state, page }) {
  const result = await build({
    absWorkingDir: site,
    entryPoints: Object.fromEntries(pages.map((page) => [page, `src/${page}/main.js`])),
    outdir: out,
    bundle: true,
    format: "esm",
    minify: true,
    splitting: state === "after",
    sourcemap: true,
    sourcesContent: true,
    metafile: true,
    target: "es2022",
    entryNames: "[name]-[hash]",
    chunkNames: "[name]-[hash]",
    assetNames: "[name]-[hash]",
    loader: { ".svg": "file" },
    logLevel: "warning",
  });
  await writeFile(path.join(out, "metafile.json"), JSON.stringify(result.metafile));
  const inside = (file) => path.relative(out, path.resolve(site, file));
  for (const [file, output] of Object.entries(result.metafile.outputs)) {
    const name = pages.find((name) => output.entryPoint === `src/${name}/main.js`);
    if (!name) continue;
    const imports = output.imports.filter(({ kind }) => kind === "import-statement");
    const styles = output.cssBundle ? [output.cssBundle] : [];
    const head = [
      ...styles.map((style) => `    <link rel="stylesheet" href="/${inside(style)}">`),
      ...imports.map((chunk) => `    <link rel="modulepreload" href="/${inside(chunk.path)}">`),
      `    <script type="module" src="/${inside(file)}"></script>`,
    ];
    await writeFile(path.join(out, `${name}.html`), page(name, head));
  }
}
