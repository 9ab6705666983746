//! Which files a change reaches: those whose names are made of their contents are named anew, and so is
//! whatever names them.

use std::collections::BTreeSet;

use uvlet_record::{
    Chunk, FileId, Format, Kind, ModuleFormat, ModuleId, Owner, Record, sizes::Amount,
};

use crate::parts::names::is_named_by_contents;

/// A module that is elsewhere then.
pub struct Move {
    /// The module.
    pub module: ModuleId,
    /// The file that it leaves.
    pub from: FileId,
    /// The chunk that it is in then; none where it is in none.
    pub to: Option<String>,
    /// Its weight as it is.
    pub amount: Amount,
}

/// Files that change as some do: a file that names one which goes by its contents changes, too.
pub fn cascade(record: &Record, mut changed: BTreeSet<FileId>) -> BTreeSet<FileId> {
    let mut chunk_of: Vec<Option<&Chunk>> = vec![None; record.files.len()];
    for chunk in &record.chunks {
        chunk.files().for_each(|file| chunk_of[file.at()] = Some(chunk));
    }
    loop {
        let before = changed.len();
        let renamed: BTreeSet<FileId> = changed
            .iter()
            .copied()
            .filter(|&id| is_named_by_contents(record, id, chunk_of[id.at()]) == Some(true))
            .collect();
        for at in 0..record.files.len() {
            let file = &record.files[at];
            if file.loads.iter().chain(&file.asset_loads).any(|one| renamed.contains(one)) {
                changed.insert(FileId::new(at));
            }
        }
        for load in &record.dynamic_loads {
            if !load.files.iter().any(|one| renamed.contains(one)) {
                continue;
            }
            match record.file(load.file).format {
                // The names of such files stand in the runtime, which comes first.
                Format::Registry => {
                    let entries = record
                        .entries
                        .iter()
                        .filter(|entry| record.closure(&entry.requested).contains(&load.file));
                    changed.extend(entries.filter_map(|entry| {
                        let mut files = entry.requested.iter().copied();
                        files.find(|&id| record.file(id).kind == Kind::Script)
                    }));
                }
                _ => {
                    changed.insert(load.file);
                }
            }
        }
        for entry in &record.entries {
            if entry.requested.iter().any(|one| renamed.contains(one)) {
                let pages = entry.pages.iter().filter_map(|page| {
                    record.files.iter().position(|file| file.path == *page).map(FileId::new)
                });
                changed.extend(pages);
            }
        }
        if changed.len() == before {
            return changed;
        }
    }
}

/// Files that no longer hand out the helpers which wrap CommonJS modules: the last file that takes them from
/// there, and holds such a module, is left without one.
pub fn without_helpers(record: &Record, moved: &[Move]) -> BTreeSet<FileId> {
    let is_wrapped = |id: ModuleId| record.module(id).format == Some(ModuleFormat::CommonJs);
    let gone: BTreeSet<(FileId, ModuleId)> = moved
        .iter()
        .filter(|one| one.to.is_none() && is_wrapped(one.module))
        .map(|one| (one.from, one.module))
        .collect();
    let keeps = |file: FileId| {
        record.cells_of(file).iter().any(|cell| match cell.owner {
            Owner::Module(id) => {
                cell.amount.emitted > 0 && is_wrapped(id) && !gone.contains(&(file, id))
            }
            _ => false,
        })
    };
    let files: BTreeSet<FileId> = gone.iter().map(|(file, _)| *file).collect();
    let is_left = |file: &FileId| record.file(*file).format == Format::Es && !keeps(*file);
    // Of several files that it loads it is not known which one has them.
    let shared = files.into_iter().filter(is_left).filter_map(|file| {
        let [shared] = record.file(file).loads.as_slice() else { return None };
        let mut others = (0..record.files.len()).map(FileId::new).filter(|other| *other != file);
        let is_taken =
            others.any(|other| record.file(other).loads.contains(shared) && keeps(other));
        (!is_taken).then_some(*shared)
    });
    shared.collect()
}
