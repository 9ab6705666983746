//! What the bundler itself puts around modules, and what of it goes with them.

use std::{collections::BTreeSet, ops::Range};

use uvlet_record::{Cell, FileId, Kind, ModuleFormat, Owner, Record};

use crate::{
    bundlers::Profile,
    parts::{cells::CellSet, spans::Spans},
};

/// Glue before the text of some cells, which wraps them or joins them to others; with the last CommonJS
/// modules of a file, what lets others import such modules.
pub fn wrappers(record: &Record, cells: &CellSet) -> Spans {
    let files: BTreeSet<FileId> = cells.iter().map(|id| record.cells[id.at()].file).collect();
    let mut spans = Spans::default();
    for &file in &files {
        let mut before: Option<Range<u64>> = None;
        for run in &record.runs[record.file(file).runs.clone()] {
            if record.cells[run.cell.at()].owner == Owner::Glue {
                let start = before.map_or(run.start, |before| before.start);
                before = Some(start..run.start + run.length);
            } else if let Some(glue) = before.take()
                && (cells.has(run.cell) || (glue.start == 0 && is_last(record, &[file], cells)))
            {
                spans.add(file, glue);
            }
        }
    }
    if Profile::of(record.bundler).has_import_helpers {
        let scripts = (0..record.files.len()).map(FileId::new);
        let shared = scripts.filter(|&id| {
            let is_glue = |cell: &Cell| cell.owner == Owner::Glue;
            record.file(id).kind == Kind::Script && record.cells_of(id).iter().all(is_glue)
        });
        for id in shared {
            let users: Vec<FileId> = (0..record.files.len())
                .map(FileId::new)
                .filter(|user| record.file(*user).loads.contains(&id))
                .collect();
            if users.iter().any(|user| files.contains(user)) && is_last(record, &users, cells) {
                spans.add(id, 0..record.file(id).emitted);
            }
        }
    }
    spans.joined()
}

/// All CommonJS modules of some files are among the cells, and there are some.
fn is_last(record: &Record, files: &[FileId], cells: &CellSet) -> bool {
    if !Profile::of(record.bundler).has_import_helpers {
        return false;
    }
    let mut any = false;
    for &file in files {
        for at in record.file(file).cells.clone() {
            let Owner::Module(module) = record.cells[at].owner else { continue };
            if record.module(module).format == Some(ModuleFormat::CommonJs) {
                any = true;
                if !cells.has(uvlet_record::CellId::new(at)) {
                    return false;
                }
            }
        }
    }
    any
}
