//! Whose bytes they are: the cells of a selection, grouped.

mod rows;

use std::collections::{BTreeMap, BTreeSet};

pub use rows::{Attribution, By, Removal, Row, RowKind, Sort, Total};
use uvlet_record::{
    Basis, CellId, FileId, Kind, ModuleId, Owner, PackageId, Record,
    sizes::{Amount, Coding, Sizes},
};

use crate::{
    lens::Lens,
    parts::{cells::CellSet, prices::apportion_sizes},
};

/// Who a row is; the order is that of rows that weigh the same.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
enum Who {
    Package(PackageId),
    Module(ModuleId),
    File(FileId),
    Folder(String),
    Chunk(String),
    Entry(String),
    Kind(Kind),
    Group(String),
    /// By its place among the exported names.
    Export(u32),
    /// Installed code of no package that could be told.
    ThirdParty,
    Own,
    Glue,
    Assets,
    Unattributed,
    /// Files that more than one entry loads.
    SeveralEntries,
    NoEntry,
}

/// Groups the cells of a selection.
#[must_use]
pub fn attribute(
    lens: &Lens<'_>,
    by: By,
    cells: &CellSet,
    within: Option<&str>,
    sort: Sort,
) -> Attribution {
    let record = lens.record;
    let entries = if by == By::Entry { entries_of_files(lens) } else { Vec::new() };
    let mut groups: BTreeMap<Who, Vec<CellId>> = BTreeMap::new();
    for id in cells.iter() {
        let cell = &record.cells[id.at()];
        let who = match by {
            By::Entry => entries[cell.file.at()].clone(),
            By::Group => {
                let group = lens.groups.iter().find(|group| group.sets.cells.has(id));
                // What is in no group stands by its package.
                match group {
                    Some(group) => Who::Group(group.name.clone()),
                    None => who(lens, By::Package, cell.file, cell.owner),
                }
            }
            By::Export => match lens.marks.exports.as_ref().and_then(|one| one.of_cells[id.at()]) {
                Some(export) => Who::Export(export),
                None => who(lens, By::Module, cell.file, cell.owner),
            },
            _ => who(lens, by, cell.file, cell.owner),
        };
        groups.entry(who).or_default().push(id);
    }
    if by == By::Export {
        gone(lens, &mut groups);
    }
    let total = lens.amount(cells);
    let amounts: Vec<Amount> =
        groups.values().map(|ids| lens.amount(&ids.iter().copied().collect::<CellSet>())).collect();
    let sizes = apportion_sizes(&total.sizes(), &amounts);
    let mut rows: Vec<(Who, Row)> = groups
        .into_iter()
        .zip(sizes)
        .map(|((who, ids), sizes)| {
            let row = row(lens, &who, &ids, sizes);
            (who, row)
        })
        .collect();
    rows.sort_by(|(who_a, a), (who_b, b)| {
        let order = match sort {
            Sort::Heaviest(measure) => b.sizes.get(measure).cmp(&a.sizes.get(measure)),
            Sort::Name => a.name.cmp(&b.name),
        };
        order.then_with(|| who_a.cmp(who_b))
    });
    Attribution {
        by,
        within: within.map(str::to_owned),
        rows: rows.into_iter().map(|(_, row)| row).collect(),
        unseen_percent: match total.emitted {
            0 => lens.record.unattributed_percent(),
            _ => 0,
        },
        total: Total { sizes: total.sizes() },
    }
}

/// Exported names of which nothing is left, of modules that are looked at.
fn gone(lens: &Lens<'_>, groups: &mut BTreeMap<Who, Vec<CellId>>) {
    let Some(exports) = &lens.marks.exports else { return };
    let modules: BTreeSet<ModuleId> = groups
        .values()
        .flatten()
        .filter_map(|id| match lens.record.cells[id.at()].owner {
            Owner::Module(id) => Some(id),
            _ => None,
        })
        .collect();
    for (at, export) in exports.list.iter().enumerate() {
        if export.state.is_absent() && modules.contains(&export.module) {
            groups.entry(Who::Export(u32::try_from(at).unwrap_or(u32::MAX))).or_default();
        }
    }
}

fn who(lens: &Lens<'_>, by: By, file: FileId, owner: Owner) -> Who {
    let record = lens.record;
    let source = record.file(file).source;
    match (by, owner) {
        (By::File, _) => Who::File(file),
        (By::Kind, _) => Who::Kind(record.file(file).kind),
        (By::Chunk, _) => {
            lens.chunk_of(file).map_or(Who::Assets, |chunk| Who::Chunk(chunk.name.clone()))
        }
        (_, Owner::Glue) => Who::Glue,
        (_, Owner::Unattributed) => Who::Unattributed,
        (By::Module, Owner::Module(id)) => Who::Module(id),
        (By::Module, Owner::Asset) => source.map_or(Who::File(file), Who::Module),
        (By::Folder, Owner::Module(id)) => Who::Folder(folder(record, id)),
        (_, Owner::Asset) => Who::Assets,
        (_, Owner::Module(id)) => match record.module(id).package {
            Some(package) => Who::Package(package),
            None if record.is_third_party(owner) => Who::ThirdParty,
            None => Who::Own,
        },
    }
}

/// The folder of an own module; of an installed one, the place of its package, since nobody can
/// move code about below that.
fn folder(record: &Record, id: ModuleId) -> String {
    match record.package_of(id) {
        Some(package) if !package.own => package.place.clone(),
        _ => {
            let path = &record.module(id).path;
            path.rsplit_once('/').map_or_else(|| ".".to_owned(), |(folder, _)| folder.to_owned())
        }
    }
}

/// Per file, the one entry that loads it, at startup or later.
fn entries_of_files(lens: &Lens<'_>) -> Vec<Who> {
    let mut entries = vec![Who::NoEntry; lens.record.files.len()];
    for (entry, reach) in lens.record.entries.iter().zip(&lens.reach) {
        for file in reach.startup.iter().copied().chain(reach.deferred.iter()) {
            let who = &mut entries[file.at()];
            *who = match who {
                Who::NoEntry => Who::Entry(entry.name.clone()),
                _ => Who::SeveralEntries,
            };
        }
        // Pages that start the same are one entry, of which a visitor opens one.
        for page in &entry.pages {
            let files = &lens.record.files;
            if let Ok(at) = files.binary_search_by(|file| file.path.cmp(page))
                && entries[at] == Who::NoEntry
            {
                entries[at] = Who::Entry(entry.name.clone());
            }
        }
    }
    entries
}

impl Who {
    fn kind(&self) -> RowKind {
        match self {
            Self::Package(_) => RowKind::Package,
            Self::Module(_) => RowKind::Module,
            Self::File(_) => RowKind::File,
            Self::Folder(_) => RowKind::Folder,
            Self::Chunk(_) => RowKind::Chunk,
            Self::Entry(_) => RowKind::Entry,
            Self::Kind(_) => RowKind::Kind,
            Self::Group(_) => RowKind::Group,
            Self::Export(_) => RowKind::Export,
            Self::SeveralEntries => RowKind::Several,
            Self::NoEntry => RowKind::None,
            Self::ThirdParty => RowKind::ThirdParty,
            Self::Own => RowKind::Own,
            Self::Glue => RowKind::Glue,
            Self::Assets => RowKind::Assets,
            Self::Unattributed => RowKind::Unattributed,
        }
    }

    fn name(&self, lens: &Lens<'_>) -> String {
        let record = lens.record;
        let said = match self {
            Self::Package(id) => &record.packages[id.at()].name,
            Self::Module(id) => &record.module(*id).path,
            Self::File(id) => &record.file(*id).path,
            Self::Folder(name) | Self::Chunk(name) | Self::Entry(name) | Self::Group(name) => name,
            Self::Kind(kind) => kind.name(),
            Self::Export(at) => {
                return lens.export(*at).map_or_else(String::new, |export| {
                    format!("{}#{}", record.module(export.module).path, export.name)
                });
            }
            Self::SeveralEntries => "(several entries)",
            Self::NoEntry => "(no entry)",
            Self::ThirdParty => "(third-party)",
            Self::Own => "(own)",
            Self::Glue => "(glue)",
            Self::Assets => "(assets)",
            Self::Unattributed => "(unattributed)",
        };
        said.to_owned()
    }
}

fn row(lens: &Lens<'_>, who: &Who, ids: &[CellId], sizes: Sizes) -> Row {
    let record = lens.record;
    let export = match who {
        Who::Export(at) => lens.export(*at),
        _ => None,
    };
    let package = match who {
        Who::Package(id) => Some(&record.packages[id.at()]),
        Who::Module(id) => record.package_of(*id),
        _ => None,
    };
    let (row, name) = (who.kind(), who.name(lens));
    let cells = || ids.iter().map(|id| &record.cells[id.at()]);
    let modules: BTreeSet<Option<ModuleId>> = cells()
        .map(|cell| match cell.owner {
            Owner::Module(id) => Some(id),
            _ => None,
        })
        .collect();
    let mut sources = modules.iter().map(|id| record.module((*id)?).source_bytes);
    let source = sources.try_fold(0_u64, |sum, bytes| sum.checked_add(bytes?));
    let chunks: BTreeSet<&str> =
        cells().filter_map(|cell| Some(lens.chunk_of(cell.file)?.name.as_str())).collect();
    Row {
        row,
        name,
        version: package.and_then(|package| package.version.clone()),
        place: package.map(|package| package.place.clone()),
        sizes,
        source,
        basis: cells().map(|cell| cell.basis).max().unwrap_or(Basis::Mapped),
        shared_out: record
            .encoders
            .keys()
            .copied()
            .filter(|&coding| shares_files(record, ids, coding))
            .collect(),
        chunks: chunks.into_iter().map(str::to_owned).collect(),
        state: export.map(|export| export.state),
        removal: None,
        cells: ids.to_owned(),
    }
}

/// Whether a row has only part of some file whose bits are shared out in proportion.
fn shares_files(record: &Record, ids: &[CellId], coding: Coding) -> bool {
    let mut held: BTreeMap<FileId, u64> = BTreeMap::new();
    for id in ids {
        let cell = &record.cells[id.at()];
        *held.entry(cell.file).or_default() += cell.amount.emitted;
    }
    let is_part = |file: FileId, bytes| bytes < record.file(file).emitted;
    held.into_iter().any(|(file, bytes)| is_part(file, bytes) && !record.is_traced(file, coding))
}
