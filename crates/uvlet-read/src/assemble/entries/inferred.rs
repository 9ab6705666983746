//! Entries of a build without pages or a description: scripts that nothing else loads.

use std::collections::BTreeSet;
use uvlet_record::Edition;

use uvlet_record::{DynamicLoad, Entry, File, FileId, Format, Kind, Notice, Origin, Remark};

use crate::assemble::entries::numbered;
use crate::{
    assemble::{chunk_files::ChunkFiles, chunk_names::Unique, loads::once_each},
    folder::hashes::Hashes,
    formats::format::Chunks,
};

/// The files, with what their scripts say of chunks.
pub struct Scripts<'a> {
    pub files: &'a [File],
    pub said: &'a [Option<&'a Chunks>],
    pub chunks: &'a ChunkFiles,
}

/// Without pages: every script that nothing else loads, with the styles of its name. A script that
/// registers modules starts something only if it has a start-up function of its own; the runtime
/// and the chunks that this names come before it.
pub fn inferred(
    scripts: &Scripts<'_>,
    loads: &[DynamicLoad],
    hashes: &Hashes,
    stem_styles: &dyn Fn(FileId) -> Vec<FileId>,
    notices: &mut Vec<Notice>,
) -> Vec<Entry> {
    let Scripts { files, said, chunks } = scripts;
    let loaded: BTreeSet<FileId> = files
        .iter()
        .flat_map(|file| file.loads.iter())
        .chain(loads.iter().flat_map(|load| load.files.iter()))
        .copied()
        .collect();
    let mut entries = Vec::new();
    let mut taken = Unique::default();
    for (at, file) in files.iter().enumerate() {
        let id = FileId::new(at);
        let script = said[at].cloned().unwrap_or_default();
        let starts = match file.format {
            Format::Registry => script.starts,
            _ => file.kind == Kind::Script && !chunks.runtimes.contains(&id),
        };
        if !starts || loaded.contains(&id) {
            continue;
        }
        let runtimes = chunks.runtimes.iter().filter(|_| script.registers);
        let before = script.startup.iter().flat_map(|chunk| chunks.files(chunk));
        let scripts: Vec<FileId> = runtimes.chain(before).chain([&id]).copied().collect();
        let styles = scripts.iter().flat_map(|&script| stem_styles(script)).collect();
        let name = numbered(&mut taken, hashes.split(&file.path).0);
        entries.push(Entry {
            name,
            aliases: Vec::new(),
            pages: Vec::new(),
            routes: Vec::new(),
            origin: Origin::Inferred,
            requested: once_each([scripts, styles].concat()),
            later: Vec::new(),
            roots: Vec::new(),
            has_said_roots: false,
            edition: Edition::default(),
        });
    }
    if !entries.is_empty() {
        let names = entries.iter().map(|entry| entry.name.clone()).collect();
        notices.push(Notice::of_build(Remark::EntriesInferred { names }));
    }
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    entries
}
