//! A record cut finer: each cell becomes parts by the labels that lie on it, with exact shares.

use std::{collections::BTreeMap, ops::Range};

use uvlet_ledger::shares::apportion;
use uvlet_record::{
    Cell, CellId, Costs, FileId, Record, Run,
    sizes::{Amount, Coding},
};

/// Layers of labelled stretches that cells are cut by.
pub const LAYERS: usize = 3;

/// What a stretch is labelled with in each layer; 0 where nothing is.
pub type Labels = [u32; LAYERS];

/// Labelled stretches of files, in order and apart.
pub type Layer = BTreeMap<FileId, Vec<(Range<u64>, u32)>>;

/// Cuts every cell by the labels that lie on it: a record of the parts, and the labels of each.
pub fn cut(
    record: &Record,
    layers: &[Layer; LAYERS],
    costs: Option<&dyn Costs>,
) -> (Record, Vec<Labels>) {
    let mut fine = Record { cells: Vec::new(), runs: Vec::new(), ..record.clone() };
    let mut labels: Vec<Labels> = Vec::new();
    for at in 0..record.files.len() {
        let id = FileId::new(at);
        let pieces = pieces(record, id, layers);
        let first = fine.cells.len();
        let parts = parts(record, id, &pieces, costs);
        let mut places: BTreeMap<(CellId, Labels), CellId> = BTreeMap::new();
        for (key, amount) in parts {
            let (whole, carried) = key;
            places.insert(key, CellId::new(fine.cells.len()));
            fine.cells.push(Cell { amount, ..record.cells[whole.at()] });
            labels.push(carried);
        }
        fine.files[at].cells = first..fine.cells.len();
        let first = fine.runs.len();
        for (range, cell, bits) in pieces {
            let cell = places[&(cell, bits)];
            fine.runs.push(Run { start: range.start, length: range.end - range.start, cell });
        }
        fine.files[at].runs = first..fine.runs.len();
    }
    (fine, labels)
}

/// The runs of a file, cut where labels begin and end.
fn pieces(
    record: &Record,
    file: FileId,
    layers: &[Layer; LAYERS],
) -> Vec<(Range<u64>, CellId, Labels)> {
    let here = layers.each_ref().map(|layer| layer.get(&file).map_or(&[][..], Vec::as_slice));
    let mut ends: Vec<u64> =
        here.iter().flat_map(|one| one.iter()).flat_map(|(one, _)| [one.start, one.end]).collect();
    ends.sort_unstable();
    ends.dedup();
    let label = |layer: &[(Range<u64>, u32)], at: u64| {
        let before = layer.partition_point(|(range, _)| range.start <= at);
        let known = layer[..before].last().filter(|(range, _)| at < range.end);
        known.map_or(0, |(_, label)| *label)
    };
    let mut pieces = Vec::new();
    for run in &record.runs[record.file(file).runs.clone()] {
        let end = run.start + run.length;
        let mut start = run.start;
        let next = ends.partition_point(|one| *one <= start);
        for &cut in ends[next..].iter().take_while(|one| **one < end).chain([&end]) {
            if cut > start {
                pieces.push((start..cut, run.cell, here.map(|layer| label(layer, start))));
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
    pieces: &[(Range<u64>, CellId, Labels)],
    costs: Option<&dyn Costs>,
) -> Vec<((CellId, Labels), Amount)> {
    let mut lengths: BTreeMap<(CellId, Labels), u64> = BTreeMap::new();
    for (range, cell, bits) in pieces {
        *lengths.entry((*cell, *bits)).or_default() += range.end - range.start;
    }
    let mut by_cell: BTreeMap<CellId, Vec<(Labels, u64)>> = BTreeMap::new();
    for ((cell, bits), length) in lengths {
        by_cell.entry(cell).or_default().push((bits, length));
    }
    let is_cut = by_cell.values().any(|parts| parts.len() > 1);
    let codings: Vec<Coding> = record.encoders.keys().copied().collect();
    // The bits of each part, by coding.
    let mut traced: BTreeMap<(CellId, Labels, Coding), u64> = BTreeMap::new();
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
            let bits = parts.first().map_or([0; LAYERS], |(labels, _)| *labels);
            found.push(((id, bits), whole));
            continue;
        };
        let mut amounts: Vec<Amount> =
            parts.iter().map(|(_, length)| Amount { emitted: *length, ..record.zero() }).collect();
        for coding in whole.bits.codings() {
            let spent = |bits: &Labels| traced.get(&(id, *bits, coding)).copied().unwrap_or(0);
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
