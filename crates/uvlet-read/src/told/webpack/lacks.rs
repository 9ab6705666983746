//! What stats leave out, and which of the bundler's options adds it.

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
    /// Modules that were filtered.
    pub hidden: u64,
    pub has_runtime: bool,
    pub unnamed: bool,
}

impl Lacks {
    /// In words, with the options.
    pub fn told(&self) -> Vec<String> {
        let lacks = [
            (self.assets, "assets", "`assets: true`"),
            (self.entries, "entries", "`entrypoints: true`"),
            (self.chunks, "chunks and what opens them", "`chunks: true, chunkOrigins: true`"),
            (self.origins, "what opens a chunk", "`chunkOrigins: true`"),
            (self.modules && !self.unnamed, "modules", "`modules: true`"),
            (self.unnamed, "names of modules", "`ids: true`"),
            (
                !self.modules && self.reasons && !self.some_reason,
                "why a module is there",
                "`reasons: true`",
            ),
            (
                self.merged,
                "modules merged into others",
                "`nestedModules: true, nestedModulesSpace: Infinity`",
            ),
            (
                self.hidden > 0,
                "some modules",
                "`modulesSpace: Infinity, nestedModulesSpace: Infinity`",
            ),
        ];
        let lacks = lacks.into_iter().filter(|(is_lacking, ..)| *is_lacking);
        lacks.map(|(_, what, adds)| format!("{what} ({adds})")).collect()
    }
}
