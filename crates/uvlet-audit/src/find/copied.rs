//! One module in several scripts, or in several styles.
//!
//! The copy in the heaviest file stays, all others are repeats. Copies that one page loads together are
//! paid in one visit; copies on different pages are lost to the cache alone.

use std::collections::BTreeMap;

use uvlet_record::{Bundler, FileId, Kind, Record};

use crate::{
    find::{
        context::Ground,
        finding::{Bound, Found, counted},
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
        let kind = if record.file(files[0]).kind == Kind::Style { "style" } else { "script" };
        let modules = counted(group.len(), "module");
        let in_one_visit = !by_entry.is_empty();
        Found {
            title: format!("{modules} of {kin} in {}", counted(files.len(), kind)),
            names: group.iter().map(|copies| record.module(copies.module).path.clone()).collect(),
            cells,
            bound: Bound::Exact,
            cause: cause(record, &files, in_one_visit),
            by_entry: Some(by_entry),
            advice: advice(record),
            ..Found::default()
        }
    });
    found.collect()
}

fn cause(record: &Record, files: &[FileId], in_one_visit: bool) -> String {
    let names: Vec<&str> =
        files.iter().take(3).map(|&file| record.file(file).path.as_str()).collect();
    let more = if files.len() > 3 { " and others" } else { "" };
    let names = format!("{}{more}", names.join(", "));
    if in_one_visit {
        format!("{names} each hold them, and one page loads several of these")
    } else {
        format!("{names} each hold them: who loads several of these files downloads them again")
    }
}

fn advice(record: &Record) -> String {
    match record.bundler {
        Some(Bundler::Esbuild) => "`splitting: true` with `format: \"esm\"` puts what entries share into scripts of its own",
        Some(Bundler::Webpack | Bundler::Rspack) => "`optimization.splitChunks.chunks: \"all\"` puts what entries share into chunks of its own; small shared modules it leaves where they are",
        _ => "let the bundler put what entries share into files of its own",
    }
    .to_owned()
}
