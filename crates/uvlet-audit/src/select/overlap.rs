//! Bytes that a visitor downloads in vain: copies of one module, and what a file brings along to an entry
//! that does not reach it.

use std::collections::{BTreeMap, BTreeSet};
use uvlet_record::Edition;

use uvlet_record::{CellId, FileId, Kind, LoadKind, ModuleId, Owner, Record};

use crate::{graph::network::Network, lens::Lens, parts::cells::CellSet};

/// Files that are copies on purpose: for old browsers, and for workers, which share nothing.
pub(crate) fn apart(record: &Record) -> BTreeSet<FileId> {
    let requested = |edition: Edition| -> BTreeSet<FileId> {
        let entries = record.entries.iter().filter(|entry| entry.edition == edition);
        entries.flat_map(|entry| record.closure(&entry.requested)).collect()
    };
    let (old, new) = (requested(Edition::Legacy), requested(Edition::Usual));
    let loads = |kind: LoadKind| -> BTreeSet<FileId> {
        let loads = record.dynamic_loads.iter().filter(|load| load.kind == kind);
        loads.flat_map(|load| record.closure(&load.files)).collect()
    };
    let (workers, pages) = (loads(LoadKind::Worker), loads(LoadKind::Import));
    let apart = old.union(&workers).copied();
    apart.filter(|file| !new.contains(file) && !pages.contains(file)).collect()
}

/// The cells of modules outside files that stand apart.
pub(crate) fn cells_of_modules(
    record: &Record,
    apart: &BTreeSet<FileId>,
) -> BTreeMap<ModuleId, Vec<CellId>> {
    let mut found: BTreeMap<ModuleId, Vec<CellId>> = BTreeMap::new();
    for (at, cell) in record.cells.iter().enumerate() {
        if let Owner::Module(id) = cell.owner
            && cell.amount.emitted > 0
            && !apart.contains(&cell.file)
        {
            found.entry(id).or_default().push(CellId::new(at));
        }
    }
    found
}

/// The copies of one module: a cell in each of several files of a kind.
pub(crate) struct Copies {
    pub(crate) module: ModuleId,
    pub(crate) cells: Vec<(FileId, CellId)>,
}

/// The modules that several files of one kind hold.
pub(crate) fn copies(record: &Record, apart: &BTreeSet<FileId>) -> Vec<Copies> {
    let mut found = Vec::new();
    for (module, cells) in cells_of_modules(record, apart) {
        for kind in [Kind::Script, Kind::Style] {
            let of_kind = cells.iter().map(|&cell| (record.cells[cell.at()].file, cell));
            let cells: Vec<(FileId, CellId)> =
                of_kind.filter(|(file, _)| record.file(*file).kind == kind).collect();
            // A record that is cut finer has several cells of a module in one file.
            let is_in_several = cells.iter().any(|(file, _)| *file != cells[0].0);
            if is_in_several && !are_facets(record, module, &cells) {
                found.push(Copies { module, cells });
            }
        }
    }
    found
}

/// Whether what files have of a module are parts of it under one path, as where a tool splits one source in
/// halves: these differ in size.
fn are_facets(record: &Record, module: ModuleId, cells: &[(FileId, CellId)]) -> bool {
    if record.module(module).facets.is_empty() {
        return false;
    }
    let mut sizes: BTreeMap<FileId, u64> = BTreeMap::new();
    for (file, cell) in cells {
        *sizes.entry(*file).or_default() += record.cells[cell.at()].amount.emitted;
    }
    let (least, most) = (sizes.values().min(), sizes.values().max());
    // Minifiers call things otherwise from file to file.
    least.zip(most).is_some_and(|(least, most)| most * 9 > least * 10)
}

/// All copies but that in the heaviest file.
pub(crate) fn further<'c>(
    record: &Record,
    copies: &'c Copies,
) -> impl Iterator<Item = CellId> + 'c {
    let weight = |(file, _): &&(FileId, CellId)| {
        let file = record.file(*file);
        (file.emitted, std::cmp::Reverse(&file.path))
    };
    let kept = copies.cells.iter().max_by_key(weight).map(|(file, _)| *file);
    copies.cells.iter().filter(move |(file, _)| Some(*file) != kept).map(|(_, cell)| *cell)
}

/// Of the copies that are loaded together, all but the first.
pub(crate) fn again<'c>(
    copies: &'c Copies,
    startup: &[FileId],
) -> impl Iterator<Item = CellId> + 'c {
    let place = |file: FileId| startup.iter().position(|loaded| *loaded == file);
    let mut loaded: Vec<(usize, CellId)> =
        copies.cells.iter().filter_map(|&(file, cell)| Some((place(file)?, cell))).collect();
    loaded.sort_unstable();
    let first = loaded.first().map(|(place, _)| *place);
    loaded.into_iter().filter(move |(place, _)| Some(*place) != first).map(|(_, cell)| cell)
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

/// What each entry carries along, by its place; entries of which that is not known are left out.
pub(crate) fn all(lens: &Lens<'_>, network: &Network<'_>) -> BTreeMap<usize, CellSet> {
    let record = lens.record;
    let mut found = BTreeMap::new();
    if !record.has_said_edges() {
        return found;
    }
    let reached: Vec<Option<Vec<bool>>> = record
        .entries
        .iter()
        .map(|entry| {
            entry.has_said_roots.then(|| network.reach(&entry.roots, &|_| true, &|_| false))
        })
        .collect();
    for (at, (reach, mine)) in lens.reach.iter().zip(&reached).enumerate() {
        let Some(mine) = mine else { continue };
        // What no entry reaches came in on another way, which is not known.
        let others = || reached.iter().flatten();
        let is_unreached =
            |id: ModuleId| !mine[id.at()] && others().any(|reached| reached[id.at()]);
        let scripts = reach.startup.iter().filter(|file| record.file(**file).kind == Kind::Script);
        let cells = lens.files(scripts.copied());
        let cells: CellSet = cells
            .iter()
            .filter(|id| {
                let cell = &record.cells[id.at()];
                cell.amount.emitted > 0
                    && matches!(cell.owner, Owner::Module(module) if is_unreached(module))
            })
            .collect();
        found.insert(at, cells);
    }
    found
}

/// What entries carry along at startup, by their places; those of which that is not known are left out.
#[must_use]
pub fn unreached(lens: &Lens<'_>) -> BTreeMap<usize, CellSet> {
    all(lens, &Network::of(lens.record))
}
