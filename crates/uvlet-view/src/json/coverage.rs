//! What ran, with why recorded scripts are none of the build's in words.

use serde::Serialize;
use uvlet_audit::ask::{
    self,
    coverage::{EntryRow, FileRow, Row},
};

use crate::words::remarks::unknown_script;

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Coverage<'a> {
    /// What recordings are called; the first is that of the load.
    recordings: &'a [String],
    /// Entries with a recorded script at startup, the one with most that never ran first.
    entries: &'a [EntryRow],
    /// Recorded files, by path.
    files: &'a [FileRow],
    /// Whose bytes they are, most that never ran first.
    rows: &'a [Row],
    /// Scripts of recordings that are no files of the build.
    unmatched: Vec<Unmatched<'a>>,
}

/// A script of a recording that is none of the build's.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Unmatched<'a> {
    /// Where it was loaded from.
    url: &'a str,
    /// Why.
    reason: &'static str,
}

impl<'a> From<&'a ask::coverage::Coverage> for Coverage<'a> {
    fn from(answer: &'a ask::coverage::Coverage) -> Self {
        let unmatched = answer.unmatched.iter();
        Self {
            recordings: &answer.recordings,
            entries: &answer.entries,
            files: &answer.files,
            rows: &answer.rows,
            unmatched: unmatched
                .map(|one| Unmatched { url: &one.url, reason: unknown_script(one.reason) })
                .collect(),
        }
    }
}
