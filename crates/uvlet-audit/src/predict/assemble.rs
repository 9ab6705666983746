//! Files as they would be: put together from the texts of what stays, and encoded.

use std::{
    collections::{BTreeMap, HashMap},
    ops::Range,
    sync::Mutex,
};

use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    CellId, FileId, Owner, Record, Texts,
    sizes::{Coding, Measure, Sizes},
};

use crate::{
    parts::{
        cells::CellSet,
        spans::{Spans, pieces},
        wrappers::wrappers,
    },
    predict::step::Step,
};

/// A file, the cells that leave it, and those that join it.
type Changed = (FileId, Vec<CellId>, Vec<CellId>);

/// Sizes of files and of parts of them.
pub struct Assembly<'a> {
    record: &'a Record,
    texts: &'a dyn Texts,
    sizer: &'a dyn Sizer,
    codings: &'a [Coding],
    has_texts: bool,
    /// What goes of files besides whole cells, and of which cell that is how much.
    spans: Spans,
    cut: HashMap<CellId, u64>,
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
        Self {
            record,
            texts,
            sizer,
            codings,
            has_texts,
            spans: Spans::default(),
            cut: HashMap::new(),
            known: Mutex::default(),
        }
    }

    /// The same without what steps take away that is less than a module.
    pub fn without(mut self, steps: &[Step]) -> Self {
        for step in steps {
            self.spans = self.spans.or(&step.rest.spans);
        }
        for (file, ranges) in &self.spans.0 {
            for (range, cell) in pieces(self.record, *file, ranges) {
                if let Some(cell) = cell {
                    *self.cut.entry(cell).or_default() += range.end - range.start;
                }
            }
        }
        self
    }

    /// Bytes that go of a cell that stays.
    pub fn cut_of(&self, cell: CellId) -> u64 {
        self.cut.get(&cell).copied().unwrap_or(0)
    }

    /// Whether something goes of a file besides whole cells.
    pub fn cuts(&self, file: FileId) -> bool {
        !self.spans.in_file(file).is_empty()
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
            let leaves: CellSet = cells.iter().copied().collect();
            let stays = self.record.file(file).cells.clone().map(CellId::new);
            let stays = stays.filter(|id| !leaves.has(*id));
            let cut = self.part_of_shares(stays);
            let comes = self.shares(joins.iter().copied());
            for measure in whole.measures() {
                let gone = gone.get(measure) + cut.get(measure);
                let rest = whole.get(measure).saturating_sub(gone);
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
                    self.extend(&mut text, &all, file, range);
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
            self.extend(&mut rest, &all, file, run.start..run.start + run.length);
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

    /// Adds a stretch of a file, without what goes of it.
    fn extend(&self, text: &mut Vec<u8>, all: &[u8], file: FileId, range: Range<u64>) {
        let gone = self.spans.in_file(file);
        let first = gone.partition_point(|one| one.end <= range.start);
        let mut at = range.start;
        for one in gone[first..].iter().take_while(|one| one.start < range.end) {
            text.extend_from_slice(slice(all, &(at..one.start.max(at))));
            at = one.end.min(range.end);
        }
        text.extend_from_slice(slice(all, &(at..range.end)));
    }

    fn encoded(&self, text: &[u8]) -> Option<Sizes> {
        let mut sizes = Sizes { emitted: text.len() as u64, ..Sizes::default() };
        for &coding in self.codings {
            let bytes = if text.is_empty() { 0 } else { self.sizer.size(text, coding)? };
            sizes.set(Measure::Coded(coding), bytes);
        }
        Some(sizes)
    }

    /// What goes of cells that stay, by their shares.
    fn part_of_shares(&self, cells: impl Iterator<Item = CellId>) -> Sizes {
        let mut sum = Sizes::default();
        for id in cells.filter(|id| self.cut_of(*id) > 0) {
            let whole = self.record.cells[id.at()].amount;
            let part = |bytes: u64| {
                let part = u128::from(bytes) * u128::from(self.cut_of(id));
                u64::try_from(part / u128::from(whole.emitted.max(1))).unwrap_or(u64::MAX)
            };
            for measure in whole.sizes().measures() {
                sum.set(measure, sum.get(measure) + part(whole.bytes(measure)));
            }
        }
        sum
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
