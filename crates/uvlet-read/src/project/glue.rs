//! Sources that are a bundler's own, by name: runtimes, helpers of usual plugins, wrappers.

/// Sources that are the bundler's own, whole names.
const GLUE: [&str; 10] = [
    "webpack/bootstrap",
    "webpack/startup",
    "webpack/before-startup",
    "webpack/after-startup",
    "webpack/universalModuleDefinition",
    "rspack/bootstrap",
    "rspack/startup",
    "rolldown:runtime",
    "<runtime>",
    "<anon>",
];

/// Virtual modules that bundlers and their usual plugins write themselves, by the start of the name.
const HELPERS: [&str; 14] = [
    "vite/",
    "vite:",
    "rolldown/",
    "rolldown:",
    "rollup/",
    "commonjsHelpers",
    "_commonjsHelpers",
    "commonjs-dynamic-modules",
    "@oxc-project",
    "rollupPluginBabelHelpers",
    "babelHelpers",
    "tslib",
    "plugin-vue:",
    "plugin-legacy",
];

/// Whether a name is one of the bundler's own sources. Its runtime modules are called by words,
/// without the ending that a file has.
pub fn is_glue(rest: &str, is_virtual: bool) -> bool {
    let below = rest.trim_start_matches("../").trim_start_matches("./");
    let runtime = below.strip_prefix("webpack/runtime/").or(below.strip_prefix("rspack/runtime/"));
    GLUE.contains(&below)
        || runtime.is_some_and(|name| !name.contains(['.', '/']))
        || below.starts_with("vite:")
        || (below.starts_with("external ") && below.contains('"'))
        || (is_virtual && HELPERS.iter().any(|helper| below.starts_with(helper)))
}
