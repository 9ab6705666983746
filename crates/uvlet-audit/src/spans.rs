//! Stretches of files: what a finding names that is less than a module, and what that costs.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_ledger::shares::apportion;
use uvlet_record::{CellId, Costs, FileId, Record, sizes::Amount};

use crate::lens::CellSet;

/// Stretches by file, in order and apart.
#[derive(Clone, Debug, Default)]
pub struct Spans(BTreeMap<FileId, Vec<Range<u64>>>);

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
fn pieces(
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

/// What stretches cost.
#[derive(Debug, Default)]
pub struct Prices {
    /// Per file: ends of stretches, and what each costs.
    files: BTreeMap<FileId, (Vec<u64>, Vec<Amount>)>,
}

impl Prices {
    /// Of all that is asked for later; without costs bits are shared out in proportion.
    pub fn new<'s>(
        record: &Record,
        costs: Option<&dyn Costs>,
        spans: impl Iterator<Item = &'s Spans>,
    ) -> Self {
        let mut ends: BTreeMap<FileId, BTreeSet<u64>> = BTreeMap::new();
        for (file, ranges) in spans.flat_map(|spans| &spans.0) {
            let ends = ends.entry(*file).or_default();
            for (range, _) in pieces(record, *file, ranges) {
                ends.extend([range.start, range.end]);
            }
        }
        let files = ends.into_iter().map(|(id, mut ends)| {
            let file = record.file(id);
            ends.remove(&0);
            ends.insert(file.emitted);
            let ends: Vec<u64> = ends.into_iter().collect();
            let starts = std::iter::once(&0).chain(&ends);
            let lengths: Vec<u64> = starts.zip(&ends).map(|(start, end)| end - start).collect();
            let mut amounts: Vec<Amount> =
                lengths.iter().map(|&emitted| Amount { emitted, ..Amount::default() }).collect();
            for &coding in record.encoders.keys() {
                let traced = costs.and_then(|costs| costs.spent(id, coding, &ends));
                let bits = match (traced, file.encoded.get(coding)) {
                    (Some(charges), _) => charges.stretches,
                    (None, Some(bytes)) => apportion(bytes.saturating_mul(8), &lengths),
                    (None, None) => continue,
                };
                for (amount, bits) in amounts.iter_mut().zip(bits) {
                    amount.add_bits(coding, bits);
                }
            }
            (id, (ends, amounts))
        });
        Self { files: files.collect() }
    }

    /// What stretches cost that no cell of a set holds.
    pub fn amount(&self, record: &Record, spans: &Spans, except: &CellSet) -> Amount {
        let mut sum = record.zero();
        for (file, ranges) in &spans.0 {
            let Some((ends, amounts)) = self.files.get(file) else { continue };
            for (range, cell) in pieces(record, *file, ranges) {
                if cell.is_some_and(|cell| except.has(cell)) {
                    continue;
                }
                let first = ends.partition_point(|end| *end <= range.start);
                let last = ends.partition_point(|end| *end < range.end);
                for amount in amounts.iter().take(last + 1).skip(first) {
                    sum += *amount;
                }
            }
        }
        sum
    }
}
