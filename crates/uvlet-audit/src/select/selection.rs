//! What a selector names in a record, and what it names that is not there.

use std::collections::BTreeSet;

use uvlet_record::OtherName;

use crate::{
    parts::{cells::CellSet, sets::Sets},
    select::words::Named,
};

/// What a selector names in a record.
#[derive(Clone, Debug, Default)]
pub struct Selection {
    /// What is in as far as is known, which is what tables show.
    pub cells: CellSet,
    /// What is in for certain.
    pub least: CellSet,
    /// What is in, and what may be.
    pub most: CellSet,
    /// Names in the selector that the build does not have.
    pub missing: Vec<Missing>,
    /// Entries whose startup it speaks of, by their places in the record.
    pub startup_of: BTreeSet<usize>,
    /// Chunks that go by names which do not last.
    pub renamed: Vec<Renamed>,
    /// Marks that it speaks of and that the build is not looked at for.
    pub unmarked: BTreeSet<Unmarked>,
}

/// A mark that is not known of a build.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Unmarked {
    /// What nothing uses is found in texts, which are not at hand.
    Leftovers,
    /// What never ran is told by recordings, none of which was named.
    NeverRan,
}

impl Selection {
    /// Why it does not tell what was asked: a name that is not there, or a mark that is not known.
    #[must_use]
    pub fn lack(&self) -> Option<Lack> {
        let missing = self.missing.first().cloned().map(Lack::Name);
        missing.or_else(|| self.unmarked.first().copied().map(Lack::Mark))
    }
}

/// Why a selection does not tell what was asked.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Lack {
    /// A name is not there.
    Name(Missing),
    /// A mark is not known.
    Mark(Unmarked),
}

/// A chunk that a selector names by a name which does not last.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Renamed {
    /// What kind of name that is.
    pub by: OtherName,
    /// The name.
    pub name: String,
    /// The name that lasts.
    pub lasting: String,
}

/// A name or glob that means nothing in a record.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Missing {
    /// The set.
    pub set: Named,
    /// As written.
    pub name: String,
    /// It holds wildcards.
    pub is_pattern: bool,
    /// Names that are there and close to it.
    pub near: Vec<String>,
    /// Chunks that go by this name, where that is why it means nothing.
    pub several: Vec<String>,
    /// The entry whose code opens a route of this name, where an entry was meant.
    pub route_of: Option<String>,
    /// Where it stands in the selector, in bytes.
    pub at: usize,
}

/// One match of a selector's first set.
#[derive(Clone, Debug)]
pub struct Item {
    /// Its name.
    pub name: String,
    /// What is in it.
    pub sets: Sets,
}

impl Item {
    pub(crate) fn of(name: &str, sets: Sets) -> Self {
        Self { name: name.to_owned(), sets }
    }
}
