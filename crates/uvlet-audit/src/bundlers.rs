//! What bundlers do of their own accord, as far as predictions need it. Measured on real builds.

use uvlet_record::{Bundler, Kind, Record};

/// Bytes of a helper, as emitted and about as coded.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Helper {
    /// As emitted.
    pub emitted: u64,
    /// Under any coding.
    pub coded: u64,
}

/// What a page's first load on demand brings along, in words.
#[must_use]
pub fn loading_helper(bundler: Option<Bundler>) -> &'static str {
    match bundler {
        Some(Bundler::Vite | Bundler::Rolldown) => "some 1.3 kB in a page's first load on demand",
        Some(Bundler::Webpack | Bundler::Rspack) => {
            "some 2.5 kB of the runtime, 5 kB to 6 kB where styles are taken out of scripts"
        }
        Some(Bundler::Esbuild) => "its option `splitting` and a few hundred bytes",
        _ => "a few hundred bytes at most",
    }
}

/// The same in bytes.
pub fn helper(record: &Record) -> Helper {
    let has_styles = record.files.iter().any(|file| file.kind == Kind::Style);
    match (record.bundler, has_styles) {
        (Some(Bundler::Vite | Bundler::Rolldown), _) => Helper { emitted: 1_330, coded: 600 },
        (Some(Bundler::Webpack | Bundler::Rspack), false) => {
            Helper { emitted: 2_500, coded: 1_050 }
        }
        (Some(Bundler::Webpack), true) => Helper { emitted: 5_200, coded: 1_860 },
        (Some(Bundler::Rspack), true) => Helper { emitted: 6_300, coded: 2_150 },
        _ => Helper::default(),
    }
}

/// Whether the bundler cuts what is loaded on demand into files of its own: esbuild does so only where it
/// is asked to split, which shows in files that load others.
pub fn splits(record: &Record) -> bool {
    let is_esbuild = record.bundler == Some(Bundler::Esbuild);
    !is_esbuild
        || !record.dynamic_loads.is_empty()
        || record.files.iter().any(|file| file.kind == Kind::Script && !file.loads.is_empty())
}
