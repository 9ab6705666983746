//! Sets of cells: what every selection is made of.

use uvlet_record::CellId;

/// A set of cells of one record: their indices in order, so that the sets of many small items
/// together weigh no more than the record's cells.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct CellSet(Vec<CellId>);

impl CellSet {
    /// Whether a cell is in the set.
    #[must_use]
    pub fn has(&self, id: CellId) -> bool {
        self.0.binary_search(&id).is_ok()
    }

    /// The cells of the set, in order.
    pub fn iter(&self) -> impl Iterator<Item = CellId> + '_ {
        self.0.iter().copied()
    }

    /// The cells of both.
    #[must_use]
    pub fn and(mut self, other: &Self) -> Self {
        self.0.retain(|&id| other.has(id));
        self
    }

    /// The cells of either.
    #[must_use]
    pub fn or(self, other: &Self) -> Self {
        self.0.into_iter().chain(other.iter()).collect()
    }

    /// The cells of this set that are not in the other.
    #[must_use]
    pub fn except(mut self, other: &Self) -> Self {
        self.0.retain(|&id| !other.has(id));
        self
    }
}

impl FromIterator<CellId> for CellSet {
    fn from_iter<I: IntoIterator<Item = CellId>>(cells: I) -> Self {
        let mut cells: Vec<CellId> = cells.into_iter().collect();
        cells.sort_unstable();
        cells.dedup();
        Self(cells)
    }
}
