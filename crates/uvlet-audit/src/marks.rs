//! Sets of bytes that are less than what one owner has in a file: what nothing uses, what never ran.
//!
//! Sets are sets of cells, so that a record whose cells are to be told apart by such a mark is cut finer:
//! each cell becomes its marked part and the rest, with positions and exact shares of their own. Such a
//! record answers like the one that it was made of, and is never saved.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_ledger::shares::apportion;
use uvlet_record::{
    Cell, CellId, Costs, FileId, Kind, Record, Run, Texts,
    sizes::{Amount, Coding},
};

use crate::{
    coverage::{Recording, ran},
    lens::CellSet,
    liveness::liveness,
    spans::Spans,
};

/// Which marks are wanted.
#[derive(Clone, Copy, Default)]
pub struct Wanted<'a> {
    /// What nothing uses.
    pub leftovers: bool,
    /// What no recording saw run.
    pub recordings: Option<&'a [Recording]>,
}

/// What is marked in a record.
#[derive(Clone, Debug, Default)]
pub struct Marks {
    /// What nothing uses; none where it was not looked for, or could not be.
    pub leftovers: Option<Marked>,
    /// What never ran; none without recordings.
    pub never_ran: Option<Marked>,
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

/// A mark before it is laid on cells: stretches, and the files that are known.
struct Laid {
    spans: Spans,
    known: BTreeSet<FileId>,
}

/// A record whose cells are cut where marks begin and end, with the marks. Without `costs`, bits are
/// shared out in proportion.
#[must_use]
pub fn marked(
    record: &Record,
    texts: &dyn Texts,
    costs: Option<&dyn Costs>,
    wanted: Wanted<'_>,
) -> (Record, Marks) {
    let has_texts = (0..record.files.len()).any(|at| texts.emitted(FileId::new(at)).is_some());
    let leftovers = (wanted.leftovers && has_texts).then(|| {
        let found = liveness(record, texts);
        let mut spans = Spans::default();
        for dead in &found.dead {
            dead.ranges.iter().for_each(|range| spans.add(dead.file, range.clone()));
        }
        Laid { spans: spans.joined(), known: found.followed }
    });
    let never_ran = wanted.recordings.map(|recordings| {
        let ran = ran(record, recordings, texts);
        Laid { spans: ran.never, known: ran.files.into_keys().collect() }
    });
    let laid = [leftovers, never_ran];
    let (fine, parts) = cut(record, &laid, costs);
    let [leftovers, never_ran] = [0, 1].map(|mark| {
        let known = &laid[mark].as_ref()?.known;
        let all = || fine.cells.iter().enumerate();
        let is_code = |cell: &Cell| matches!(fine.file(cell.file).kind, Kind::Script | Kind::Style);
        let is_script = |cell: &Cell| fine.file(cell.file).kind == Kind::Script;
        // Styles have no declarations, and may well be without a recording.
        let may_be = |cell: &Cell| match mark {
            0 => is_script(cell),
            _ => is_code(cell),
        };
        Some(Marked {
            cells: parts[mark].iter().copied().collect(),
            maybe: all()
                .filter(|(_, cell)| !known.contains(&cell.file) && may_be(cell))
                .map(|(at, _)| CellId::new(at))
                .collect(),
        })
    });
    (fine, Marks { leftovers, never_ran })
}

/// Which marks a stretch carries.
type Bits = [bool; 2];

/// Cuts every cell by the marks that lie on it, and tells which parts carry which.
fn cut(
    record: &Record,
    laid: &[Option<Laid>; 2],
    costs: Option<&dyn Costs>,
) -> (Record, [Vec<CellId>; 2]) {
    let mut fine = Record { cells: Vec::new(), runs: Vec::new(), ..record.clone() };
    let mut marked: [Vec<CellId>; 2] = Default::default();
    for at in 0..record.files.len() {
        let id = FileId::new(at);
        let pieces = pieces(record, id, laid);
        let first = fine.cells.len();
        let parts = parts(record, id, &pieces, costs);
        let mut places: BTreeMap<(CellId, Bits), CellId> = BTreeMap::new();
        for (key, amount) in parts {
            let (whole, bits) = key;
            let part = CellId::new(fine.cells.len());
            places.insert(key, part);
            fine.cells.push(Cell { amount, ..record.cells[whole.at()] });
            for (mark, _) in bits.iter().enumerate().filter(|(_, is_on)| **is_on) {
                marked[mark].push(part);
            }
        }
        fine.files[at].cells = first..fine.cells.len();
        let first = fine.runs.len();
        for (range, cell, bits) in pieces {
            let cell = places[&(cell, bits)];
            fine.runs.push(Run { start: range.start, length: range.end - range.start, cell });
        }
        fine.files[at].runs = first..fine.runs.len();
    }
    (fine, marked)
}

/// The runs of a file, cut where marks begin and end.
fn pieces(
    record: &Record,
    file: FileId,
    laid: &[Option<Laid>; 2],
) -> Vec<(Range<u64>, CellId, Bits)> {
    let ranges: [&[Range<u64>]; 2] =
        [0, 1].map(|mark| laid[mark].as_ref().map_or(&[][..], |laid| laid.spans.in_file(file)));
    let mut ends: Vec<u64> =
        ranges.iter().flat_map(|one| one.iter()).flat_map(|one| [one.start, one.end]).collect();
    ends.sort_unstable();
    ends.dedup();
    let is_on = |mark: usize, at: u64| {
        let before = ranges[mark].partition_point(|range| range.start <= at);
        before > 0 && at < ranges[mark][before - 1].end
    };
    let mut pieces = Vec::new();
    for run in &record.runs[record.file(file).runs.clone()] {
        let end = run.start + run.length;
        let mut start = run.start;
        let next = ends.partition_point(|one| *one <= start);
        for &cut in ends[next..].iter().take_while(|one| **one < end).chain([&end]) {
            if cut > start {
                pieces.push((start..cut, run.cell, [is_on(0, start), is_on(1, start)]));
                start = cut;
            }
        }
    }
    pieces
}

/// What each part of each cell of a file weighs; parts add up to their cell, in every measure.
fn parts(
    record: &Record,
    file: FileId,
    pieces: &[(Range<u64>, CellId, Bits)],
    costs: Option<&dyn Costs>,
) -> Vec<((CellId, Bits), Amount)> {
    let mut lengths: BTreeMap<(CellId, Bits), u64> = BTreeMap::new();
    for (range, cell, bits) in pieces {
        *lengths.entry((*cell, *bits)).or_default() += range.end - range.start;
    }
    let mut by_cell: BTreeMap<CellId, Vec<(Bits, u64)>> = BTreeMap::new();
    for ((cell, bits), length) in lengths {
        by_cell.entry(cell).or_default().push((bits, length));
    }
    let is_cut = by_cell.values().any(|parts| parts.len() > 1);
    let codings: Vec<Coding> = record.encoders.keys().copied().collect();
    // The bits of each part, by coding.
    let mut traced: BTreeMap<(CellId, Bits, Coding), u64> = BTreeMap::new();
    if let Some(costs) = costs.filter(|_| is_cut) {
        let ends: Vec<u64> = pieces.iter().map(|(range, ..)| range.end).collect();
        for &coding in &codings {
            let Some(charges) = costs.spent(file, coding, &ends) else { continue };
            for ((_, cell, bits), spent) in pieces.iter().zip(charges.stretches) {
                *traced.entry((*cell, *bits, coding)).or_default() += spent;
            }
        }
    }
    let mut found = Vec::new();
    for at in record.file(file).cells.clone() {
        let id = CellId::new(at);
        let whole = record.cells[at].amount;
        let parts = by_cell.get(&id).map_or(&[][..], Vec::as_slice);
        let &[_, _, ..] = parts else {
            let bits = parts.first().map_or([false; 2], |(bits, _)| *bits);
            found.push(((id, bits), whole));
            continue;
        };
        let mut amounts: Vec<Amount> =
            parts.iter().map(|(_, length)| Amount { emitted: *length, ..record.zero() }).collect();
        for coding in whole.bits.codings() {
            let spent = |bits: &Bits| traced.get(&(id, *bits, coding)).copied().unwrap_or(0);
            let is_traced = parts.iter().any(|(bits, _)| spent(bits) > 0);
            let weights: Vec<u64> = parts
                .iter()
                .map(|(bits, length)| if is_traced { spent(bits) } else { *length })
                .collect();
            let all = whole.bits.get(coding).copied().unwrap_or(0);
            for (amount, bits) in amounts.iter_mut().zip(apportion(all, &weights)) {
                amount.add_bits(coding, bits);
            }
        }
        found.extend(parts.iter().zip(amounts).map(|((bits, _), amount)| ((id, *bits), amount)));
    }
    found
}
