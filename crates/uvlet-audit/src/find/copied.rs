//! One module in several scripts, or in several styles.
//!
//! The copy in the heaviest file stays, all others are repeats. Copies that one page loads together are
//! paid in one visit; copies on different pages are lost to the cache alone.

use std::collections::BTreeMap;

use uvlet_record::FileId;

use crate::{
    bundlers::Profile,
    find::{
        about::About,
        context::Ground,
        finding::{Bound, Found},
    },
    parts::{byte_set::Stock, cells::CellSet},
    select::overlap::{Copies, again, copies, further},
};

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let (lens, record) = (ground.lens, ground.record());
    // Those of one package or folder that are in the same files are one finding.
    let mut groups: BTreeMap<(&str, Vec<FileId>), Vec<Copies>> = BTreeMap::new();
    for copies in copies(record, &ground.apart) {
        let files = copies.cells.iter().map(|(file, _)| *file).collect();
        groups.entry((record.kin_of(copies.module), files)).or_default().push(copies);
    }
    let found = groups.into_iter().map(|((kin, files), group)| {
        let cells = group.iter().flat_map(|copies| further(record, copies)).collect();
        let mut by_entry = BTreeMap::new();
        for (entry, reach) in lens.reach.iter().enumerate() {
            let again = group.iter().flat_map(|copies| again(copies, &reach.startup));
            let again: CellSet = again.collect();
            if again.iter().next().is_some() {
                by_entry.insert(entry, Stock::of_cells(again));
            }
        }
        let about = About::CopiedModule {
            modules: group.len(),
            kin: kin.to_owned(),
            files: files.iter().map(|&file| record.file(file).path.clone()).collect(),
            of: record.file(files[0]).kind,
            in_one_visit: !by_entry.is_empty(),
            sharing: Profile::of(record.bundler).sharing,
        };
        Found {
            names: group.iter().map(|copies| record.module(copies.module).path.clone()).collect(),
            cells,
            bound: Bound::Exact,
            by_entry: Some(by_entry),
            ..Found::of(about)
        }
    });
    found.collect()
}
