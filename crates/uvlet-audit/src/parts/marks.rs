//! What is marked in a record whose cells are cut by the marks: what nothing uses, what never ran, which
//! exported name is which.

use serde::Serialize;
use uvlet_record::{CellId, ModuleId};

use crate::parts::cells::CellSet;

/// What is marked in a record.
#[derive(Clone, Debug, Default)]
pub struct Marks {
    /// What nothing uses; none where it was not looked for, or could not be.
    pub leftovers: Option<Marked>,
    /// What never ran; none without recordings.
    pub never_ran: Option<Marked>,
    /// Which cells are which exported name.
    pub exports: Option<Exports>,
}

impl Marks {
    /// Whether a cell could carry a mark, if more were known.
    #[must_use]
    pub fn may_carry(&self, cell: CellId) -> bool {
        let marked = [&self.leftovers, &self.never_ran];
        marked.into_iter().flatten().any(|marked| marked.maybe.has(cell))
    }
}

/// Marked bytes.
#[derive(Clone, Debug, Default)]
pub struct Marked {
    /// What is marked.
    pub cells: CellSet,
    /// What could be, if more were known.
    pub maybe: CellSet,
}

/// The exported names of a build.
#[derive(Clone, Debug, Default)]
pub struct Exports {
    /// Per cell of the record, the name that it is of, by its place in the list.
    pub of_cells: Vec<Option<u32>>,
    /// All of them.
    pub list: Vec<Export>,
}

/// An exported name.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Export {
    /// The module.
    pub module: ModuleId,
    /// The name outside.
    pub name: String,
    /// Whether it is used.
    pub state: State,
}

/// Whether something is used.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub enum State {
    /// By code that runs, or that may run.
    #[serde(rename = "used")]
    Used,
    /// By nobody; its evaluation may do something.
    #[serde(rename = "kept for an effect")]
    ForEffect,
    /// By nobody.
    #[serde(rename = "unused")]
    Unused,
    /// By nobody, and the bundler took it out.
    #[serde(rename = "removed")]
    Removed,
    /// Its text was not followed.
    #[serde(rename = "not told")]
    NotTold,
}

impl State {
    /// Nothing of it is known to be there.
    #[must_use]
    pub fn is_absent(self) -> bool {
        matches!(self, Self::Removed | Self::NotTold)
    }
}
