//! What each page makes a visitor download, with what mode and target are judged by in words.

use serde::Serialize;
use uvlet_audit::ask::{
    self,
    survey::{ApartRow, ChunkRow, ElsewhereRow, EntryRow, KindRow, Part, VisitRow},
};
use uvlet_record::{Aside, Bundler, Mode, Target};

use crate::words::bases;

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Survey<'a> {
    /// What the build says of itself.
    build: Build<'a>,
    /// By name.
    entries: &'a [EntryRow],
    /// What routes add that an entry's code opens, by entry and route.
    visits: &'a [VisitRow],
    /// What is requested of other hosts, in no total.
    elsewhere: &'a [ElsewhereRow],
    /// By size of the largest measure taken, then by name.
    chunks: &'a [ChunkRow],
    /// Kinds that occur.
    kinds: &'a [KindRow],
    /// All files that count.
    totals: &'a Part,
    /// What is not served to visitors, in no total.
    set_aside: &'a [ApartRow],
    /// Files that do not count.
    aside: &'a [Aside],
    /// Counted files that no entry reaches.
    unplaced: &'a [String],
}

/// The build as a whole.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Build<'a> {
    /// A name for people.
    label: &'a str,
    /// Who bundled.
    bundler: Option<Bundler>,
    /// Its version.
    bundler_version: Option<&'a str>,
    /// The framework whose output it is.
    framework: Option<&'a str>,
    /// Its version.
    framework_version: Option<&'a str>,
    /// Production or development.
    mode: Mode,
    /// Why.
    mode_evidence: Vec<String>,
    /// Where it runs.
    target: Target,
    /// Why.
    target_basis: String,
}

impl<'a> From<&'a ask::survey::Survey> for Survey<'a> {
    fn from(answer: &'a ask::survey::Survey) -> Self {
        let build = &answer.build;
        Self {
            build: Build {
                label: &build.label,
                bundler: build.bundler,
                bundler_version: build.bundler_version.as_deref(),
                framework: build.framework.as_deref(),
                framework_version: build.framework_version.as_deref(),
                mode: build.mode,
                mode_evidence: build.mode_evidence.iter().map(bases::of_mode).collect(),
                target: build.target,
                target_basis: bases::of_target(&build.target_basis),
            },
            entries: &answer.entries,
            visits: &answer.visits,
            elsewhere: &answer.elsewhere,
            chunks: &answer.chunks,
            kinds: &answer.kinds,
            totals: &answer.totals,
            set_aside: &answer.set_aside,
            aside: &answer.aside,
            unplaced: &answer.unplaced,
        }
    }
}
