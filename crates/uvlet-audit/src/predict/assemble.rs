//! Files as they would be: put together from the texts of what stays, and encoded.

use std::{collections::BTreeMap, ops::Range, sync::Mutex};

use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    CellId, FileId, Owner, Record, Texts,
    sizes::{Coding, Measure, Sizes},
};

use crate::parts::{cells::CellSet, wrappers::wrappers};

/// A file, the cells that leave it, and those that join it.
type Changed = (FileId, Vec<CellId>, Vec<CellId>);

/// Sizes of files and of parts of them.
pub struct Assembly<'a> {
    record: &'a Record,
    texts: &'a dyn Texts,
    sizer: &'a dyn Sizer,
    codings: &'a [Coding],
    has_texts: bool,
    /// Several entries load the same file without the same cells.
    known: Mutex<BTreeMap<Changed, Sizes>>,
}

impl<'a> Assembly<'a> {
    pub fn new(
        record: &'a Record,
        texts: &'a dyn Texts,
        sizer: &'a dyn Sizer,
        codings: &'a [Coding],
    ) -> Self {
        // Pictures are not cut, and records do not hold them.
        let is_code = |id: &FileId| {
            let file = record.file(*id);
            !file.runs.is_empty() && !file.kind.is_asset()
        };
        let code = (0..record.files.len()).map(FileId::new).filter(is_code);
        let has_texts =
            code.clone().next().is_some() && code.clone().all(|id| texts.emitted(id).is_some());
        Self { record, texts, sizer, codings, has_texts, known: Mutex::default() }
    }

    pub fn has_texts(&self) -> bool {
        self.has_texts
    }

    /// A file as it is.
    pub fn whole(&self, file: FileId) -> Sizes {
        let file = self.record.file(file);
        let mut sizes = Sizes { emitted: file.emitted, ..Sizes::default() };
        for &coding in self.codings {
            if let Some(&bytes) = file.encoded.get(coding) {
                sizes.set(Measure::Coded(coding), bytes);
            }
        }
        sizes
    }

    /// A file without some of its cells, and with some of others.
    pub fn changed(&self, file: FileId, cells: &[CellId], joins: &[CellId]) -> Sizes {
        let key = (file, cells.to_owned(), joins.to_owned());
        let known = self.known.lock().ok().and_then(|known| known.get(&key).copied());
        if let Some(known) = known {
            return known;
        }
        let whole = self.whole(file);
        let sizes = self.assembled(file, whole, cells, joins);
        let sizes = sizes.unwrap_or_else(|| {
            let mut sizes = whole;
            let gone = self.shares(cells.iter().copied());
            let comes = self.shares(joins.iter().copied());
            for measure in whole.measures() {
                let rest = whole.get(measure).saturating_sub(gone.get(measure));
                sizes.set(measure, rest + comes.get(measure));
            }
            sizes
        });
        if let Ok(mut known) = self.known.lock() {
            known.insert(key, sizes);
        }
        sizes
    }

    /// A file of its own that holds some cells, with what the bundler puts before each.
    pub fn alone(&self, cells: &[CellId]) -> Sizes {
        let text = self.texts_of(cells);
        text.and_then(|text| self.encoded(&text))
            .unwrap_or_else(|| self.shares(cells.iter().copied()))
    }

    /// The emitted text of some cells, each piece with what the bundler puts before it; none where texts are
    /// not at hand.
    fn texts_of(&self, cells: &[CellId]) -> Option<Vec<u8>> {
        let mut text = Vec::new();
        let mut files: Vec<FileId> =
            cells.iter().map(|id| self.record.cells[id.at()].file).collect();
        files.dedup();
        let cells: CellSet = cells.iter().copied().collect();
        for file in files {
            let all = self.texts.emitted(file).filter(|_| self.has_texts)?;
            let mut before = 0..0;
            for run in &self.record.runs[self.record.file(file).runs.clone()] {
                let range = run.start..run.start + run.length;
                if self.record.cells[run.cell.at()].owner == Owner::Glue {
                    // What stands at the head of a file is its own.
                    before = if range.start == 0 { 0..0 } else { range };
                    continue;
                }
                if cells.has(run.cell) {
                    text.extend_from_slice(slice(&all, &before));
                    text.extend_from_slice(slice(&all, &range));
                }
                before = 0..0;
            }
        }
        Some(text)
    }

    /// A file without some cells and what the bundler put before them, encoded as the whole was; none
    /// where places are not known.
    fn assembled(
        &self,
        file: FileId,
        whole: Sizes,
        leaves: &[CellId],
        joins: &[CellId],
    ) -> Option<Sizes> {
        let all = self.texts.emitted(file).filter(|_| self.has_texts)?;
        let runs = &self.record.runs[self.record.file(file).runs.clone()];
        if runs.is_empty() {
            return None;
        }
        let leaves: CellSet = leaves.iter().copied().collect();
        let wrapped = wrappers(self.record, &leaves);
        let wrapped = wrapped.in_file(file);
        let is_wrapped = |start: u64| wrapped.iter().any(|range| range.contains(&start));
        let mut rest = Vec::with_capacity(all.len());
        for run in runs.iter().filter(|run| !leaves.has(run.cell) && !is_wrapped(run.start)) {
            rest.extend_from_slice(slice(&all, &(run.start..run.start + run.length)));
        }
        rest.extend(self.texts_of(joins)?);
        let (before, after) = (self.encoded(&all)?, self.encoded(&rest)?);
        // A file that was measured by a precompressed copy is another encoder's.
        let mut sizes = after;
        for measure in whole.measures() {
            let changed = whole.get(measure).saturating_add(after.get(measure));
            sizes.set(measure, changed.saturating_sub(before.get(measure)));
        }
        Some(sizes)
    }

    fn encoded(&self, text: &[u8]) -> Option<Sizes> {
        let mut sizes = Sizes { emitted: text.len() as u64, ..Sizes::default() };
        for &coding in self.codings {
            let bytes = if text.is_empty() { 0 } else { self.sizer.size(text, coding)? };
            sizes.set(Measure::Coded(coding), bytes);
        }
        Some(sizes)
    }

    fn shares(&self, cells: impl Iterator<Item = CellId>) -> Sizes {
        let mut sum = self.record.zero();
        for id in cells {
            sum += self.record.cells[id.at()].amount;
        }
        sum.sizes()
    }
}

fn slice<'t>(text: &'t [u8], range: &Range<u64>) -> &'t [u8] {
    let at = |byte: u64| usize::try_from(byte).unwrap_or(usize::MAX).min(text.len());
    &text[at(range.start)..at(range.end)]
}
