//! Sets of cells by three-valued logic (Kleene's strong logic): what is in, what is out, what may be in.

use crate::parts::cells::CellSet;

/// What is in as far as is known, what is in for certain, and what is in or may be.
#[derive(Clone, Debug, Default)]
pub struct Sets {
    /// What is in as far as is known.
    pub cells: CellSet,
    /// What is in for certain.
    pub least: CellSet,
    /// What is in, and what may be.
    pub most: CellSet,
}

impl Sets {
    /// Cells that are in for certain, and no others.
    #[must_use]
    pub fn certain(cells: CellSet) -> Self {
        Self { cells: cells.clone(), least: cells.clone(), most: cells }
    }

    /// Cells that are in for certain, with others that may be.
    #[must_use]
    pub fn with(cells: CellSet, maybe: &CellSet) -> Self {
        let most = cells.clone().or(maybe);
        Self { least: cells.clone(), cells, most }
    }

    /// What is in both.
    #[must_use]
    pub fn and(self, other: &Self) -> Self {
        Self {
            cells: self.cells.and(&other.cells),
            least: self.least.and(&other.least),
            most: self.most.and(&other.most),
        }
    }

    /// What is in any of some sets.
    pub fn any<'s>(sets: impl Iterator<Item = &'s Self> + Clone) -> Self {
        let all = |pick: fn(&Self) -> &CellSet| {
            sets.clone().flat_map(|sets| pick(sets).iter()).collect::<CellSet>()
        };
        Self {
            cells: all(|sets| &sets.cells),
            least: all(|sets| &sets.least),
            most: all(|sets| &sets.most),
        }
    }

    /// What is in this set and not in the other: at least what cannot be in the other.
    #[must_use]
    pub fn except(self, other: &Self) -> Self {
        Self {
            cells: self.cells.except(&other.cells),
            least: self.least.except(&other.most),
            most: self.most.except(&other.least),
        }
    }
}
