// @ts-check
// Writes what the bundler knows of its own build beside the output, for `uvlet` to read.
// For Rollup 4, Rolldown and Vite 6 to 8; printed by `uvlet plugin`. No dependencies.
//
//   import uvletPlugin from "./uvlet-plugin.mjs";
//   export default { plugins: [uvletPlugin()] };
//
// The file holds names, lengths and who imports whom: no source text, no absolute path, no time.
import { mkdir, writeFile } from "node:fs/promises";
import path from "node:path";

/** Version of the file's form. */
const FORM = 1;

/**
 * @typedef {object} Settings
 * @property {string} [file] Name of the file, in the output folder.
 * @property {string} [root] Folder that modules are named from; the project's by default.
 */

/**
 * @param {Settings} [settings]
 */
export default function uvletPlugin({ file = "uvlet-build.json", root } = {}) {
  let from = root ?? process.cwd();
  /** @type {{ version?: string, mode: string | null, target: string | null }} */
  const vite = { mode: null, target: null };
  let isVite = false;
  /** Outputs of this run, by the folder that they were written to. @type {Map<string, object[]>} */
  let written = new Map();

  /** A module's name: virtual ones as they are, others from the project's folder. @param {string} id */
  const name = (id) => {
    const [, virtual, bare, query] = /** @type {string[]} */ (/^(\0?)([^?]*)(.*)$/s.exec(id));
    return path.isAbsolute(bare) ? virtual + path.relative(from, bare).replaceAll("\\", "/") + query : id;
  };

  /** Vite tells each environment apart. @param {any} context @param {any} options */
  const target = (context, options) => {
    const consumer = context.environment?.config?.consumer;
    if (consumer === "client") return "browser";
    return consumer === "server" && vite.target !== "edge" ? "server" : (vite.target ?? platform(options));
  };

  return {
    name: "uvlet-plugin",

    /** Vite only. @param {any} config */
    configResolved(config) {
      isVite = true;
      from = root ?? config.root;
      vite.mode = config.isProduction ? "production" : "development";
      const ssr = config.build?.ssr;
      vite.target = ssr ? (config.ssr?.target === "webworker" ? "edge" : "server") : "browser";
    },

    /** In watch mode every run starts anew. */
    buildStart() {
      written = new Map();
    },

    /**
     * @this {any}
     * @param {any} options
     * @param {Record<string, any>} bundle
     */
    async writeBundle(options, bundle) {
      try {
        const folder = path.resolve(options.dir ?? path.dirname(options.file ?? "."));
        const outputs = written.get(folder) ?? [];
        written.set(folder, outputs);
        outputs.push(output(options, bundle, name));
        const meta = this.meta ?? {};
        const description = {
          uvlet_build: FORM,
          bundler: isVite ? "vite" : meta.rolldownVersion ? "rolldown" : "rollup",
          version: (isVite ? meta.viteVersion : (meta.rolldownVersion ?? meta.rollupVersion)) ?? null,
          mode: vite.mode,
          target: target(this, options),
          folder: path.relative(from, folder).replaceAll("\\", "/"),
          modules: modules(this, name),
          outputs,
        };
        await mkdir(folder, { recursive: true });
        await writeFile(path.join(folder, file), `${JSON.stringify(description)}\n`);
      } catch (error) {
        // A build is worth more than what is known of it.
        this.warn(`uvlet-plugin wrote nothing: ${error instanceof Error ? error.message : error}`);
      }
    },
  };
}

/** Rolldown's own word for where the code runs. @param {any} options */
function platform(options) {
  return options.platform === "node" ? "server" : options.platform === "browser" ? "browser" : null;
}

/** @param {any} context @param {(id: string) => string} name */
function modules(context, name) {
  return [...context.getModuleIds()].sort().flatMap((id) => {
    const info = context.getModuleInfo(id);
    if (!info) return [];
    return {
      path: name(id),
      external: Boolean(info.isExternal),
      has_effects: info.moduleSideEffects !== false,
      exports: info.exports ?? null,
      needs: (info.importedIds ?? []).map(name),
      defers: (info.dynamicallyImportedIds ?? []).map(name),
    };
  });
}

/** @param {any} options @param {Record<string, any>} bundle @param {(id: string) => string} name */
function output(options, bundle, name) {
  const items = Object.values(bundle);
  const chunks = items.filter((item) => item.type === "chunk");
  return {
    format: options.format ?? null,
    scripts: chunks.map((chunk) => ({
      file: chunk.fileName,
      name: chunk.name ?? null,
      entry: Boolean(chunk.isEntry),
      deferred_entry: Boolean(chunk.isDynamicEntry),
      stands_for: chunk.facadeModuleId ? name(chunk.facadeModuleId) : null,
      needs: chunk.imports,
      defers: chunk.dynamicImports,
      styles: [...(chunk.viteMetadata?.importedCss ?? [])],
      assets: [...(chunk.viteMetadata?.importedAssets ?? [])],
      modules: Object.entries(chunk.modules).map(([id, module]) => ({
        path: name(id),
        length: module.renderedLength ?? null,
        kept_exports: module.renderedExports ?? null,
        dropped_exports: module.removedExports ?? null,
      })),
    })),
    assets: items
      .filter((item) => item.type === "asset")
      .map((asset) => ({
        file: asset.fileName,
        // A bundler that works in parallel may list one of them any number of times.
        sources: [...new Set(asset.originalFileNames ?? [])].map(name).sort(),
      })),
  };
}
