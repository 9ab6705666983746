//! What an entry downloads at startup though nothing in it reaches it, since a file was cut so.
//!
//! Told only where the bundler says who asks for whom and with what the entry starts: edges that are
//! read in sources may lack some.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, FileId, ModuleId, Owner};

use crate::{
    find::{
        about::About,
        context::Ground,
        finding::{Bound, Found},
    },
    lens::Lens,
    parts::{byte_set::stocks, cells::CellSet},
    select::overlap::all,
};

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let mut by_file: BTreeMap<FileId, BTreeMap<usize, CellSet>> = BTreeMap::new();
    for (entry, cells) in all(ground.lens, &ground.network) {
        let mut files: BTreeMap<FileId, Vec<CellId>> = BTreeMap::new();
        for id in cells.iter() {
            files.entry(record.cells[id.at()].file).or_default().push(id);
        }
        for (file, cells) in files {
            by_file.entry(file).or_default().insert(entry, cells.into_iter().collect());
        }
    }
    let found = by_file.into_iter().map(|(file, by_entry)| {
        let cells: CellSet = by_entry.values().flat_map(CellSet::iter).collect();
        let modules: BTreeSet<ModuleId> = cells
            .iter()
            .filter_map(|id| match record.cells[id.at()].owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let entries = by_entry.keys().map(|&entry| record.entries[entry].name.clone());
        let about = About::UnreachedInEntry {
            file: record.file(file).path.clone(),
            entries: entries.collect(),
            mostly: heaviest(ground.lens, &cells).to_owned(),
        };
        Found {
            names: modules.iter().map(|&id| record.module(id).path.clone()).collect(),
            cells,
            bound: Bound::Exact,
            by_entry: Some(stocks(by_entry)),
            ..Found::of(about)
        }
    });
    found.collect()
}

/// The package or own folder that most of a set is.
fn heaviest<'r>(lens: &Lens<'r>, cells: &CellSet) -> &'r str {
    let record = lens.record;
    let mut weights: BTreeMap<&str, u64> = BTreeMap::new();
    for id in cells.iter() {
        let cell = &record.cells[id.at()];
        if let Owner::Module(module) = cell.owner {
            *weights.entry(record.kin_of(module)).or_default() += cell.amount.emitted;
        }
    }
    weights.into_iter().max_by_key(|(_, weight)| *weight).map_or("", |(kin, _)| kin)
}
