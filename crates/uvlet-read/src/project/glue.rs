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

/// What frameworks write for a build, by the start of the name: tables of routes, settings, wrappers.
const GENERATED: [&str; 7] = [
    "[turbopack]/",
    "virtual:nuxt:",
    "virtual:astro:",
    "virtual:react-router/",
    ".nuxt/",
    ".svelte-kit/generated/",
    ".react-router/",
];

/// What a framework's own scripts in a page begin with, or hold right at their start: data for the
/// browser's side, and what starts that.
const INLINE: [&str; 14] = [
    "self.__next_f",
    "window.__NUXT__",
    "__sveltekit_",
    "window.__reactRouter",
    "window.__remix",
    "import \"/assets/manifest-",
    "window.__staticRouter",
    "astro:load",
    "astro-island",
    "customElements.get(\"astro-island\")",
    "$RC=",
    "$RB=",
    "$RT=",
    "$RS=",
];

/// Whether a script in a page is a framework's own, by what it begins with.
pub fn is_inline_glue(text: &str) -> bool {
    /// Bytes that are looked at.
    const START: usize = 600;
    let end = (0..=START.min(text.len())).rev().find(|&end| text.is_char_boundary(end));
    let start = &text[..end.unwrap_or(0)];
    INLINE.iter().any(|own| start.contains(own))
}

/// Whether a name is one of the bundler's own sources. Its runtime modules are called by words,
/// without the ending that a file has.
pub fn is_glue(rest: &str, is_virtual: bool) -> bool {
    let below = rest.trim_start_matches("../").trim_start_matches("./");
    let runtime = below.strip_prefix("webpack/runtime/").or(below.strip_prefix("rspack/runtime/"));
    GLUE.contains(&below)
        || runtime.is_some_and(|name| !name.contains(['.', '/']))
        || below.starts_with("vite:")
        || GENERATED.iter().any(|own| below.trim_start_matches('/').starts_with(own))
        || (below.starts_with("external ") && below.contains('"'))
        || (is_virtual && HELPERS.iter().any(|helper| below.starts_with(helper)))
}
