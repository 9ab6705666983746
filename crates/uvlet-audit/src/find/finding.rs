//! A finding: what need not be there, what it would save, what it comes from and what to do.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use serde::Serialize;
use uvlet_record::sizes::Sizes;

use crate::{
    find::{
        about::{About, Awaited},
        kind::Kind,
    },
    parts::{byte_set::Stock, cells::CellSet, spans::Spans},
};

/// Parts that a finding lists at most.
pub(crate) const PARTS: usize = 1000;

/// A finding as it is made.
pub(crate) struct Found {
    pub(crate) about: About,
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
}

impl Found {
    /// A finding of nothing yet.
    pub(crate) fn of(about: About) -> Self {
        Self {
            about,
            names: BTreeSet::new(),
            cells: CellSet::default(),
            spans: Spans::default(),
            parts: Vec::new(),
            bound: Bound::default(),
            with_wrappers: false,
            by_entry: None,
        }
    }
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
#[derive(Debug)]
pub struct Finding {
    /// Its kind with eight digits that last from build to build.
    pub id: String,
    /// Its kind.
    pub kind: Kind,
    /// What was found, and what it comes from.
    pub about: About,
    /// Paths of modules, or places of packages.
    pub paths: Vec<String>,
    /// How sure the saving is.
    pub bound: Bound,
    /// What could go from the build.
    pub recoverable: Sizes,
    /// The entry that gains most at startup; none where none does.
    pub at: Option<String>,
    /// What could go at startup of each entry that gains, the most first.
    pub by_entry: Vec<EntryShare>,
    /// Of what recordings hold all of, how much they never saw run.
    pub never_ran: Option<NeverRan>,
    /// What the entry that gains most would start without, by a prediction, where one was asked for.
    pub predicted: Option<EntryShare>,
    /// The waiver that accepts it, if it is no larger than that allows and the day has not passed.
    pub waived: Option<Accepted>,
    /// Of what is less than a module, each part, the largest first.
    pub parts: Vec<Part>,
    /// Where it stands in emitted files, where positions are known.
    pub places: Vec<Span>,
    /// The bytes themselves: whole cells, and stretches that are less.
    pub cells: CellSet,
    /// Stretches.
    pub spans: Spans,
}

/// What mending several findings saves together, by a prediction.
#[derive(Debug)]
pub struct Together {
    /// The entry that gains most, and what it would start without.
    pub share: EntryShare,
    /// The number of findings.
    pub findings: usize,
}

/// How much of something no recording saw run.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct NeverRan {
    /// Hundredths of it.
    pub percent: u64,
    /// In so many recordings.
    pub recordings: usize,
}

/// What a finding stands on: a declaration, or a use of a name.
#[derive(Clone, Debug, Default)]
pub struct Part {
    /// Its name in the source.
    pub name: String,
    /// The module that it comes from.
    pub module: Option<String>,
    /// Of a use, the line in the source, from 1.
    pub line: Option<usize>,
    /// Of a use, what it waits for.
    pub waits_for: Option<Awaited>,
    /// The bytes of a declaration in the emitted file.
    pub emitted: u64,
    /// What is shown of it.
    pub text: PartText,
}

/// What is shown of a part.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum PartText {
    /// The start of its emitted text; of a use, the text around it in the source.
    Excerpt(String),
    /// Where it stands a second time.
    Copy {
        /// Its bytes.
        here: Range<u64>,
        /// The bytes of the other copy.
        there: Range<u64>,
        /// The file that holds the other.
        of: String,
    },
}

impl Default for PartText {
    fn default() -> Self {
        Self::Excerpt(String::new())
    }
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
