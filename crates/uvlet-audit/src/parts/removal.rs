//! What files would lose without some of their text: leave-one-out, by encoding them anew.
//!
//! A traced share says what a stream spends on a text; what taking the text out saves may differ, as
//! others may have copied from it and as the encoder adapts to what is left.

use std::{
    cmp::Reverse,
    collections::{BTreeMap, BTreeSet},
};

use rayon::iter::{ParallelBridge, ParallelIterator};
use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    CellId, FileId, Record, Texts,
    sizes::{Coded, Coding},
};

use crate::ask::attribute::{Removal, Row};

/// Encodes every file of every row anew without the row's text. The codings are those that `sizer`
/// takes at the record's levels.
pub fn remove(
    rows: &mut [Row],
    record: &Record,
    codings: &[Coding],
    texts: &dyn Texts,
    sizer: &dyn Sizer,
) {
    let mut jobs: Vec<Job> = Vec::new();
    let mut whole: BTreeSet<(FileId, Coding)> = BTreeSet::new();
    for (at, row) in rows.iter().enumerate() {
        for (file, cells) in by_file(record, &row.cells) {
            for &coding in codings {
                let part = Part::of(record, file, &cells);
                if part == Part::Some {
                    whole.insert((file, coding));
                }
                jobs.push(Job { row: at, file, coding, part, cells: cells.clone() });
            }
        }
    }
    let bytes = |file| usize::try_from(record.file(file).emitted).unwrap_or(usize::MAX);
    let parts = jobs.iter().filter(|job| job.part == Part::Some);
    for (file, coding) in whole.iter().copied().chain(parts.map(|job| (job.file, job.coding))) {
        sizer.expect(bytes(file), coding);
    }
    // The costliest first, so that none is left alone at the end.
    let mut order: Vec<(FileId, Coding)> = whole.into_iter().collect();
    order.sort_by_key(|&(file, coding)| (coding != Coding::Br, Reverse(bytes(file))));
    let whole: BTreeMap<(FileId, Coding), u64> = order
        .into_iter()
        .par_bridge()
        .filter_map(|(file, coding)| {
            let text = texts.emitted(file).filter(|text| text.len() == bytes(file))?;
            Some(((file, coding), sizer.size(&text, coding)?))
        })
        .collect();
    jobs.sort_by_key(|job| (job.coding != Coding::Br, Reverse(bytes(job.file))));
    let saved: Vec<(usize, Coding, Option<i64>)> = jobs
        .into_iter()
        .par_bridge()
        .map(|job| {
            let saved = job.saved(record, texts, sizer, &whole);
            (job.row, job.coding, saved)
        })
        .collect();
    for row in &mut *rows {
        let mut zero = Coded::default();
        codings.iter().for_each(|&coding| zero.set(coding, 0));
        row.removal = Some(Removal { if_removed: Some(zero) });
    }
    for (row, coding, saved) in saved {
        let Some(removal) = &mut rows[row].removal else { continue };
        removal.if_removed = removal.if_removed.zip(saved).map(|(mut sums, saved)| {
            let before = sums.get(coding).copied().unwrap_or(0);
            // Only a made-up record comes near the limit.
            sums.set(coding, before.saturating_add(saved));
            sums
        });
    }
}

/// How much of a file a row has.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Part {
    Nothing,
    Some,
    All,
    /// Some, at places that nobody knows.
    Somewhere,
}

impl Part {
    fn of(record: &Record, file: FileId, cells: &[CellId]) -> Self {
        let held: u64 = cells.iter().map(|id| record.cells[id.at()].amount.emitted).sum();
        match record.file(file) {
            file if held == file.emitted && file.cells.len() == cells.len() => Self::All,
            _ if held == 0 => Self::Nothing,
            file if file.runs.is_empty() => Self::Somewhere,
            _ => Self::Some,
        }
    }
}

/// A file to be encoded without some of its cells.
struct Job {
    row: usize,
    file: FileId,
    coding: Coding,
    part: Part,
    cells: Vec<CellId>,
}

impl Job {
    fn saved(
        &self,
        record: &Record,
        texts: &dyn Texts,
        sizer: &dyn Sizer,
        whole: &BTreeMap<(FileId, Coding), u64>,
    ) -> Option<i64> {
        let file = record.file(self.file);
        match self.part {
            Part::Nothing => Some(0),
            Part::All => i64::try_from(*file.encoded.get(self.coding)?).ok(),
            Part::Somewhere => None,
            Part::Some => {
                let before = *whole.get(&(self.file, self.coding))?;
                let text = texts.emitted(self.file)?;
                let mut rest = Vec::with_capacity(text.len());
                for run in &record.runs[file.runs.clone()] {
                    if !self.cells.contains(&run.cell) {
                        let start = usize::try_from(run.start).ok()?;
                        let length = usize::try_from(run.length).ok()?;
                        rest.extend_from_slice(text.get(start..start.checked_add(length)?)?);
                    }
                }
                let after = sizer.size(&rest, self.coding)?;
                Some(i64::try_from(before).ok()? - i64::try_from(after).ok()?)
            }
        }
    }
}

fn by_file(record: &Record, cells: &[CellId]) -> BTreeMap<FileId, Vec<CellId>> {
    let mut files: BTreeMap<FileId, Vec<CellId>> = BTreeMap::new();
    for &id in cells {
        files.entry(record.cells[id.at()].file).or_default().push(id);
    }
    files
}
