//! A finding: what need not be there, what it would save, what it comes from and what to do.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::sizes::Sizes;

use crate::{
    find::kind::Kind,
    parts::{byte_set::Stock, cells::CellSet, spans::Spans},
};

/// Parts that a finding lists at most.
pub(crate) const PARTS: usize = 1000;

/// A finding as it is made.
#[derive(Default)]
pub(crate) struct Found {
    pub(crate) title: String,
    /// What tells it from all others, in whatever build: paths of modules, or names of packages.
    pub(crate) names: BTreeSet<String>,
    pub(crate) cells: CellSet,
    /// What is less than a cell.
    pub(crate) spans: Spans,
    pub(crate) parts: Vec<Part>,
    pub(crate) bound: Bound,
    /// The bundler's wrappers around what goes would go with it.
    pub(crate) with_wrappers: bool,
    /// What an entry would start without; none where that is the cells in its startup.
    pub(crate) by_entry: Option<BTreeMap<usize, Stock>>,
    pub(crate) cause: String,
    pub(crate) advice: String,
}

/// How sure a saving is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Bound {
    /// These bytes, neither more nor fewer.
    Exact,
    /// These bytes, or fewer.
    #[default]
    AtMost,
}

impl Bound {
    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Exact => "exact",
            Self::AtMost => "at most",
        }
    }
}

/// One finding.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Finding {
    /// Its kind with eight digits that last from build to build.
    pub id: String,
    /// What it is.
    pub kind: Kind,
    /// One line.
    pub title: String,
    /// Paths of modules, or places of packages.
    #[serde(rename = "where")]
    pub paths: Vec<String>,
    /// How sure the saving is.
    pub bound: Bound,
    /// What could go from the build.
    pub recoverable: Sizes,
    /// The entry that gains most at startup; none where none does.
    pub at: Option<String>,
    /// What could go at startup of each entry that gains, the most first.
    pub by_entry: Vec<EntryShare>,
    /// What it comes from.
    pub cause: String,
    /// What to do.
    pub advice: String,
    /// What the entry that gains most would start without, by a prediction, where one was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub predicted: Option<EntryShare>,
    /// The waiver that accepts it, if it is no larger than that allows and the day has not passed.
    pub waived: Option<Accepted>,
    /// Of what is less than a module, each part, the largest first.
    pub parts: Vec<Part>,
    /// Where it stands in emitted files, where positions are known.
    pub places: Vec<Span>,
    /// The bytes themselves: whole cells, and stretches that are less.
    #[serde(skip)]
    pub cells: CellSet,
    /// Stretches.
    #[serde(skip)]
    pub spans: Spans,
}

/// What a finding stands on: a declaration, or a use of a name.
#[derive(Clone, Debug, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Part {
    /// Its name in the source.
    pub name: String,
    /// The module that it comes from.
    pub module: Option<String>,
    /// Of a use, the line in the source, from 1.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line: Option<usize>,
    /// Of a use, what it waits for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub why: Option<String>,
    /// The bytes of a declaration in the emitted file.
    pub emitted: u64,
    /// The start of its text there; of a use, the text around it in the source.
    pub text: String,
}

/// For how long a finding is accepted, and why.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Accepted {
    /// The last day, in UTC.
    pub until: String,
    /// Why.
    pub reason: String,
}

/// What an entry would start without.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryShare {
    /// The entry.
    pub entry: String,
    /// The bytes.
    pub sizes: Sizes,
}

/// A stretch of an emitted file.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Span {
    /// The file.
    pub file: String,
    /// First byte.
    pub start: u64,
    /// Bytes.
    pub length: u64,
}

/// `3 modules`, `1 module`.
pub(crate) fn counted(number: usize, noun: &str) -> String {
    if number == 1 { format!("1 {noun}") } else { format!("{number} {noun}s") }
}
