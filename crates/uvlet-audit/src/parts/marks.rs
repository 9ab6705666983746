//! What is marked in a record whose cells are cut by the marks: what nothing uses, what never ran, which
//! exported name is which.

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
    /// Whether it is used; none where no declaration of it is found.
    pub state: Option<State>,
    /// The word for it.
    pub word: &'static str,
}

/// Whether something is used.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum State {
    /// By code that runs, or that may run.
    Used,
    /// By nobody; its evaluation may do something.
    ForEffect,
    /// By nobody.
    Unused,
}

impl State {
    /// The words for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Used => "used",
            Self::ForEffect => "kept for an effect",
            Self::Unused => "unused",
        }
    }
}
