// Vite: the pages are its entries. It always splits what pages share; what differs after the faults
// are mended is the site itself.
import { writeFile } from "node:fs/promises";
import path from "node:path";
import { build } from "vite";

/** Builds `site` (laid out in a folder) into `out`; `page(title, head)` makes a page's HTML. */
export async function bundle({ site, out, pages, page }) {
  for (const name of pages) {
    const head = [`    <script type="module" src="/src/${name}/main.js"></script>`];
    await writeFile(path.join(site, `${name}.html`), page(name, head));
  }
  await build({
    root: site,
    configFile: false,
    logLevel: "warn",
    build: {
      outDir: out,
      emptyOutDir: true,
      manifest: true,
      sourcemap: true,
      // Small pictures would else stand inside the code.
      assetsInlineLimit: 0,
      rollupOptions: { input: pages.map((name) => path.join(site, `${name}.html`)) },
    },
  });
}
