//! Which files a change reaches: those whose names are made of their contents are named anew, and so is
//! whatever names them.

use std::collections::BTreeSet;

use uvlet_record::{FileId, Format, Kind, Record};

/// Files that change as some do: a file that names one which goes by its contents changes, too.
pub fn cascade(record: &Record, mut changed: BTreeSet<FileId>) -> BTreeSet<FileId> {
    loop {
        let before = changed.len();
        let renamed: BTreeSet<FileId> =
            changed.iter().copied().filter(|&id| is_named_by_contents(record, id)).collect();
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

/// The name of a file holds more than the name of its chunk: a digest of its contents.
fn is_named_by_contents(record: &Record, id: FileId) -> bool {
    let path = record.file(id).path.as_str();
    let name = path.rsplit('/').next().unwrap_or(path);
    let stem = name.rsplit_once('.').map_or(name, |(stem, _)| stem);
    let chunk = record.chunks.iter().find(|chunk| chunk.files().any(|file| file == id));
    chunk.is_some_and(|chunk| stem != chunk.stem && stem.starts_with(&chunk.stem))
}
