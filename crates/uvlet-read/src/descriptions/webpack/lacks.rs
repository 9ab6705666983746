//! What stats leave out.

use uvlet_record::Lack;

/// Found while reading.
#[derive(Default)]
#[expect(clippy::struct_excessive_bools, reason = "each is one thing that may be missing")]
pub struct Lacks {
    pub assets: bool,
    pub entries: bool,
    pub chunks: bool,
    pub origins: bool,
    pub modules: bool,
    /// Some module has no reasons, and some other has.
    pub reasons: bool,
    pub some_reason: bool,
    /// A module counts others that are not listed.
    pub merged: bool,
    /// Modules without a chunk of their own are only counted: those that were merged into others.
    pub orphans: bool,
    /// Modules that were filtered.
    pub hidden: u64,
    pub has_runtime: bool,
    pub unnamed: bool,
}

impl Lacks {
    /// What is left out.
    pub fn list(&self) -> Vec<Lack> {
        let lacks = [
            (self.assets, Lack::Assets),
            (self.entries, Lack::Entries),
            (self.chunks, Lack::Chunks),
            (self.origins, Lack::Origins),
            (self.modules && !self.unnamed, Lack::Modules),
            (self.unnamed, Lack::ModuleNames),
            (!self.modules && self.reasons && !self.some_reason, Lack::Reasons),
            (self.merged, Lack::MergedModules),
            (self.orphans, Lack::OrphanModules),
            (self.hidden > 0, Lack::SomeModules),
        ];
        lacks.into_iter().filter(|(is_lacking, _)| *is_lacking).map(|(_, lack)| lack).collect()
    }
}
