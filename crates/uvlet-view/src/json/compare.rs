//! Two builds side by side, with findings and causes in words.

use serde::Serialize;
use uvlet_audit::{
    ask::compare::{
        Comparison as Compared, ElsewhereChange, Side,
        chunks::{self, ChunkChange},
        entries::EntryRow,
        rows::{ModuleRow, Row},
        sides::OwnersKnown,
    },
    find::kind::Kind,
};
use uvlet_record::sizes::Sizes;

use crate::words::{changes::because, findings::title};

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Comparison<'a> {
    /// The earlier build.
    before: &'a Side,
    /// The later build.
    after: &'a Side,
    /// By the change of their startup, the most first.
    entries: &'a [EntryRow],
    /// Hundredths of the script bytes of either build with a known owner, where these shares differ so much
    /// that rows tell what is known rather than what changed.
    owners_known: Option<OwnersKnown>,
    /// Kinds of findings that are not compared, as one of the builds could not judge them.
    not_compared: &'a [Kind],
    /// Packages, and what is none, that changed; by their change, the most first.
    packages: &'a [Row],
    /// Modules that changed; by their change, the most first.
    modules: &'a [ModuleRow],
    /// Chunks, those that changed first.
    chunks: Vec<ChunkRow<'a>>,
    /// What need not be there and was not there before, is no longer, or weighs otherwise.
    waste: Vec<WasteRow<'a>>,
    /// What is asked of other hosts, whose bytes are in no row, and was not, or no longer is.
    elsewhere: &'a [ElsewhereChange],
}

/// A chunk, before and after.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct ChunkRow<'a> {
    /// Its name before; none if it is new.
    before: Option<&'a str>,
    /// Its name after; none if it is gone.
    after: Option<&'a str>,
    /// Its size before.
    sizes_before: Option<Sizes>,
    /// Its size after.
    sizes_after: Option<Sizes>,
    /// What became of it.
    change: ChunkChange,
    /// Why it changed though no module of it did; of what is new or gone, where most of it was or is.
    because: Option<String>,
}

/// A finding that is not as it was.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct WasteRow<'a> {
    /// Its id.
    id: &'a str,
    /// What it is.
    title: String,
    /// What could go, as it was; none if it is new.
    before: Option<Sizes>,
    /// What could go, as it is; none if it is gone.
    after: Option<Sizes>,
}

impl<'a> From<&'a Compared> for Comparison<'a> {
    fn from(answer: &'a Compared) -> Self {
        let waste = answer.waste.iter().map(|row| WasteRow {
            id: &row.id,
            title: title(&row.about),
            before: row.before,
            after: row.after,
        });
        Self {
            before: &answer.before,
            after: &answer.after,
            entries: &answer.entries,
            owners_known: answer.owners_known,
            not_compared: &answer.not_compared,
            packages: &answer.packages,
            modules: &answer.modules,
            chunks: answer.chunks.iter().map(ChunkRow::from).collect(),
            waste: waste.collect(),
            elsewhere: &answer.elsewhere,
        }
    }
}

impl<'a> From<&'a chunks::ChunkRow> for ChunkRow<'a> {
    fn from(row: &'a chunks::ChunkRow) -> Self {
        Self {
            before: row.before.as_deref(),
            after: row.after.as_deref(),
            sizes_before: row.sizes_before,
            sizes_after: row.sizes_after,
            change: row.change,
            because: row.because.as_ref().map(because),
        }
    }
}
