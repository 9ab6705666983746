// Vite: the pages are its entries. It always splits what pages share; what differs after the faults
// are mended is the site itself. Its manifest and our plugin say what it knows. *After* is also
// built for a browser and a server, side by side.
import { mkdir, readFile, writeFile } from "node:fs/promises";
import path from "node:path";
import { build } from "vite";
import uvletPlugin from "../../crates/uvlet/plugin/uvlet-plugin.mjs";

/** Kinds of builds per state: what is added to the build's name, and what differs. */
export const variants = {
  before: { "": {} },
  after: { "": {}, "-two-targets": { server: true } },
};

/** Builds `site` (laid out in a folder) into `out`; `page(title, head)` makes a page's HTML. */
export async function bundle({ site, out, pages, page, server = false }) {
  for (const name of pages) {
    const head = [`    <script type="module" src="/src/${name}/main.js"></script>`];
    await writeFile(path.join(site, `${name}.html`), page(name, head));
  }
  const common = { root: site, configFile: false, logLevel: "warn" };
  await build({
    ...common,
    plugins: [uvletPlugin()],
    build: {
      outDir: server ? path.join(out, "client") : out,
      emptyOutDir: true,
      sourcemap: true,
      manifest: true,
      // Small pictures would else stand inside the code.
      assetsInlineLimit: 0,
      rollupOptions: { input: pages.map((name) => path.join(site, `${name}.html`)) },
    },
  });
  if (!server) return;
  await mkdir(path.join(site, "server"), { recursive: true });
  await writeFile(path.join(site, "server/main.js"), await readFile(new URL("../server.js", import.meta.url)));
  await build({
    ...common,
    publicDir: false,
    plugins: [uvletPlugin()],
    ssr: { noExternal: true },
    build: { outDir: path.join(out, "server"), sourcemap: true, ssr: path.join(site, "server/main.js") },
  });
}
