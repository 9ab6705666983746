//! One module in several scripts, or in several styles.
//!
//! The copy in the heaviest file stays, all others are repeats. Copies that one page loads together are
//! paid in one visit; copies on different pages are lost to the cache alone.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Bundler, CellId, FileId, Kind, ModuleId, Record};

use super::{Bound, Found, Ground, Stock, apart, cells_of_modules, counted};
use crate::lens::{CellSet, Lens};

/// The copies of one module: a cell in each of several files of a kind.
struct Copies {
    module: ModuleId,
    cells: Vec<(FileId, CellId)>,
}

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

/// The modules that several files of one kind hold.
fn copies(record: &Record, apart: &BTreeSet<FileId>) -> Vec<Copies> {
    let mut found = Vec::new();
    for (module, cells) in cells_of_modules(record, apart) {
        for kind in [Kind::Script, Kind::Style] {
            let of_kind = cells.iter().map(|&cell| (record.cells[cell.at()].file, cell));
            let cells: Vec<(FileId, CellId)> =
                of_kind.filter(|(file, _)| record.file(*file).kind == kind).collect();
            // A record that is cut finer has several cells of a module in one file.
            if cells.iter().any(|(file, _)| *file != cells[0].0) {
                found.push(Copies { module, cells });
            }
        }
    }
    found
}

/// All copies but that in the heaviest file.
fn further<'c>(record: &Record, copies: &'c Copies) -> impl Iterator<Item = CellId> + 'c {
    let weight = |(file, _): &&(FileId, CellId)| {
        let file = record.file(*file);
        (file.emitted, std::cmp::Reverse(&file.path))
    };
    let kept = copies.cells.iter().max_by_key(weight).map(|(file, _)| *file);
    copies.cells.iter().filter(move |(file, _)| Some(*file) != kept).map(|(_, cell)| *cell)
}

/// Of the copies that are loaded together, all but the first.
fn again<'c>(copies: &'c Copies, startup: &[FileId]) -> impl Iterator<Item = CellId> + 'c {
    let place = |file: FileId| startup.iter().position(|loaded| *loaded == file);
    let mut loaded: Vec<(usize, CellId)> =
        copies.cells.iter().filter_map(|&(file, cell)| Some((place(file)?, cell))).collect();
    loaded.sort_unstable();
    let first = loaded.first().map(|(place, _)| *place);
    loaded.into_iter().filter(move |(place, _)| Some(*place) != first).map(|(_, cell)| cell)
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

/// All copies of copied modules but one each.
#[must_use]
pub fn repeats(lens: &Lens<'_>) -> CellSet {
    let copies = copies(lens.record, &apart(lens.record));
    copies.iter().flat_map(|copies| further(lens.record, copies)).collect()
}

/// The copies that an entry's startup holds besides the first of each.
#[must_use]
pub fn repeats_of(lens: &Lens<'_>, entry: usize) -> CellSet {
    let copies = copies(lens.record, &apart(lens.record));
    copies.iter().flat_map(|copies| again(copies, &lens.reach[entry].startup)).collect()
}
