//! A record with what every question derives from it, and sets of its cells.

use uvlet_record::{CellId, Chunk, FileId, Owner, Record, sizes::Amount};

use crate::graph::{self, Reach};

/// A record, looked at: closures are derived once.
pub struct Lens<'r> {
    /// The record.
    pub record: &'r Record,
    /// Per entry of the record.
    pub reach: Vec<Reach>,
    /// Per file of the record: the chunk it belongs to.
    chunk_of: Vec<Option<usize>>,
}

impl<'r> Lens<'r> {
    /// Looks at a record.
    #[must_use]
    pub fn new(record: &'r Record) -> Self {
        let mut chunk_of = vec![None; record.files.len()];
        for (at, chunk) in record.chunks.iter().enumerate() {
            for file in chunk.files() {
                chunk_of[file.at()] = Some(at);
            }
        }
        Self { record, reach: graph::reach(record), chunk_of }
    }

    /// The chunk that a file belongs to.
    #[must_use]
    pub fn chunk_of(&self, file: FileId) -> Option<&'r Chunk> {
        self.chunk_of[file.at()].map(|at| &self.record.chunks[at])
    }

    /// The cells of some files.
    pub fn files(&self, files: impl IntoIterator<Item = FileId>) -> CellSet {
        let ranges = files.into_iter().map(|file| self.record.file(file).cells.clone());
        ranges.flatten().map(CellId).collect()
    }

    /// The cells whose file and owner pass a test.
    pub fn cells(&self, test: impl Fn(FileId, Owner) -> bool) -> CellSet {
        let cells = self.record.cells.iter().enumerate();
        cells.filter(|(_, c)| test(c.file, c.owner)).map(|(at, _)| CellId::new(at)).collect()
    }

    /// What a set weighs.
    #[must_use]
    pub fn amount(&self, set: &CellSet) -> Amount {
        let mut sum = self.record.zero();
        for id in set.iter() {
            sum += self.record.cells[id.at()].amount;
        }
        sum
    }
}

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
