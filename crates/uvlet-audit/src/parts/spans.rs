//! Stretches of files: what a finding names that is less than a module, and what that costs.

use std::{collections::BTreeMap, ops::Range};

use uvlet_record::{CellId, FileId, Record};

use crate::parts::cells::CellSet;

/// Stretches by file, in order and apart.
#[derive(Clone, Debug, Default)]
pub struct Spans(pub(crate) BTreeMap<FileId, Vec<Range<u64>>>);

impl Spans {
    /// Adds a stretch.
    pub fn add(&mut self, file: FileId, range: Range<u64>) {
        self.0.entry(file).or_default().push(range);
    }

    /// Those in a file.
    #[must_use]
    pub fn in_file(&self, file: FileId) -> &[Range<u64>] {
        self.0.get(&file).map_or(&[], Vec::as_slice)
    }

    /// Joins what overlaps or touches.
    #[must_use]
    pub fn joined(mut self) -> Self {
        for ranges in self.0.values_mut() {
            ranges.sort_by_key(|range| range.start);
            let mut joined: Vec<Range<u64>> = Vec::with_capacity(ranges.len());
            for range in ranges.drain(..).filter(|range| !range.is_empty()) {
                match joined.last_mut().filter(|last| last.end >= range.start) {
                    Some(last) => last.end = last.end.max(range.end),
                    None => joined.push(range),
                }
            }
            *ranges = joined;
        }
        self
    }

    /// These and those.
    #[must_use]
    pub fn or(mut self, other: &Self) -> Self {
        for (file, ranges) in &other.0 {
            self.0.entry(*file).or_default().extend(ranges.iter().cloned());
        }
        self.joined()
    }

    /// What both hold.
    #[must_use]
    pub fn and(&self, other: &Self) -> Self {
        let mut both = Self::default();
        for (file, range) in self.iter() {
            let theirs = other.in_file(file);
            let first = theirs.partition_point(|one| one.end <= range.start);
            for one in theirs[first..].iter().take_while(|one| one.start < range.end) {
                both.add(file, range.start.max(one.start)..range.end.min(one.end));
            }
        }
        both.joined()
    }

    /// Those in some files.
    #[must_use]
    pub fn of(&self, is_wanted: impl Fn(FileId) -> bool) -> Self {
        let kept = self.0.iter().filter(|(file, _)| is_wanted(**file));
        Self(kept.map(|(file, ranges)| (*file, ranges.clone())).collect())
    }

    /// Those parts that cells hold.
    #[must_use]
    pub fn within(&self, record: &Record, cells: &CellSet) -> Self {
        let mut kept = Self::default();
        for (file, ranges) in &self.0 {
            for (range, cell) in pieces(record, *file, ranges) {
                if cell.is_some_and(|cell| cells.has(cell)) {
                    kept.add(*file, range);
                }
            }
        }
        kept.joined()
    }

    /// There are none.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.0.values().all(Vec::is_empty)
    }

    /// Each with its file.
    pub fn iter(&self) -> impl Iterator<Item = (FileId, &Range<u64>)> {
        self.0.iter().flat_map(|(file, ranges)| ranges.iter().map(|range| (*file, range)))
    }
}

/// Stretches cut where the runs of a file meet, each with the cell that it is of.
pub(crate) fn pieces(
    record: &Record,
    file: FileId,
    ranges: &[Range<u64>],
) -> Vec<(Range<u64>, Option<CellId>)> {
    let runs = &record.runs[record.file(file).runs.clone()];
    let mut pieces = Vec::new();
    for range in ranges {
        let mut at = range.start;
        let first = runs.partition_point(|run| run.start + run.length <= at);
        for run in &runs[first..] {
            if run.start >= range.end {
                break;
            }
            let end = range.end.min(run.start + run.length);
            pieces.push((at.max(run.start)..end, Some(run.cell)));
            at = end;
        }
        if at < range.end {
            pieces.push((at..range.end, None));
        }
    }
    pieces
}
