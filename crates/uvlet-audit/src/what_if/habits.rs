//! What bundlers do of their own accord, as far as predictions need it. Measured on real builds.

use uvlet_record::Bundler;

/// What a page's first load on demand brings along, in words.
#[must_use]
pub fn loading_helper(bundler: Option<Bundler>) -> &'static str {
    match bundler {
        Some(Bundler::Vite | Bundler::Rolldown) => "some 1.6 kB in a page's first load on demand",
        Some(Bundler::Webpack | Bundler::Rspack) => "some 2 kB to 5 kB of the runtime",
        Some(Bundler::Esbuild) => "its option `splitting` and a few hundred bytes",
        _ => "a few hundred bytes at most",
    }
}
