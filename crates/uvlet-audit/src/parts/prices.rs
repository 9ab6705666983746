//! What stretches of files cost in every measure.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_ledger::shares::apportion;
use uvlet_record::{
    Costs, FileId, Record,
    sizes::{Amount, Sizes},
};

use crate::parts::{
    cells::CellSet,
    spans::{Spans, pieces},
};

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

/// Whole bytes of parts that add up to the bytes of their total, measure by measure: by largest
/// remainder over their bits.
#[must_use]
pub fn apportion_sizes(total: &Sizes, parts: &[Amount]) -> Vec<Sizes> {
    let mut split = vec![Sizes::default(); parts.len()];
    for measure in total.measures() {
        let units: Vec<u64> = parts.iter().map(|part| part.units(measure)).collect();
        for (sizes, bytes) in split.iter_mut().zip(apportion(total.get(measure), &units)) {
            sizes.set(measure, bytes);
        }
    }
    split
}
