//! Names of chunks that outlive a build.
//!
//! A bundler numbers shared chunks, or calls them after one of their modules, and the name changes
//! with the next build. Such a chunk is called after what it mostly holds: `mostly-burgee-plot`.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Bundler, Chunk, FileId, Owner, Record};

use crate::hashes::Hashes;

/// Stems that say nothing, but for a script that a page itself asks for.
const GENERIC: [&str; 12] = [
    "index", "main", "shared", "common", "vendor", "vendors", "bundle", "module", "src", "lib",
    "dist", "esm",
];

/// Gives every chunk its lasting name; chunks then stand by name.
pub fn give(record: &mut Record, hashes: &Hashes) {
    let loaded: BTreeSet<FileId> =
        record.files.iter().flat_map(|file| file.loads.clone()).collect();
    let asked: BTreeSet<FileId> =
        record.entries.iter().flat_map(|entry| entry.files.clone()).collect();
    let mut chunks = std::mem::take(&mut record.chunks);
    for chunk in &mut chunks {
        let Some(lead) = chunk.files().next() else { continue };
        let stem = hashes.split(&record.file(lead).path).0;
        stem.clone_into(&mut chunk.stem);
        let is_root = asked.contains(&lead) && !loaded.contains(&lead);
        let holds = record.kin_in(chunk);
        // Bundlers that number their chunks have a name only where somebody gave it.
        let given = chunk
            .bundler_name
            .clone()
            .filter(|_| matches!(record.bundler, Some(Bundler::Webpack | Bundler::Rspack)));
        chunk.name = match holds.first() {
            _ if given.is_some() => given.unwrap_or_default(),
            Some(heaviest) if says_nothing(record, chunk, is_root, loaded.contains(&lead)) => {
                format!("~{heaviest}")
            }
            _ if stem.is_empty() => "~unattributed".to_owned(),
            _ => stem.to_owned(),
        };
    }
    let weight = |chunk: &Chunk| -> u64 { chunk.files().map(|id| record.file(id).emitted).sum() };
    // A lasting name goes by size where two tie; a name of the bundler by path.
    chunks.sort_by_cached_key(|chunk| {
        let size = if chunk.is_renamed() { weight(chunk) } else { 0 };
        (chunk.name.clone(), std::cmp::Reverse(size), chunk.files().next())
    });
    let mut taken: BTreeMap<String, u32> = BTreeMap::new();
    for chunk in &mut chunks {
        let count = taken.entry(chunk.name.clone()).or_default();
        *count += 1;
        if *count > 1 {
            chunk.name = format!("{}.{count}", chunk.name);
        }
    }
    chunks.sort_by(|a, b| a.name.cmp(&b.name));
    record.chunks = chunks;
}

fn says_nothing(record: &Record, chunk: &Chunk, is_root: bool, is_shared: bool) -> bool {
    let stem = chunk.stem.as_str();
    if stem.is_empty() || stem == "chunk" || stem.chars().all(|c| c.is_ascii_digit()) {
        return true;
    }
    if is_root {
        return false;
    }
    GENERIC.contains(&stem) || (is_shared && is_a_modules(record, chunk, stem))
}

/// Whether a stem is that of one of the chunk's modules, or of the folder of an index: the name
/// that ES bundlers give a shared chunk by accident.
fn is_a_modules(record: &Record, chunk: &Chunk, stem: &str) -> bool {
    let owners = chunk.files().flat_map(|id| record.cells_of(id)).map(|cell| cell.owner);
    let mut paths = owners.filter_map(|owner| match owner {
        Owner::Module(id) => Some(record.module(id).path.as_str()),
        _ => None,
    });
    // Helpers of the bundler name chunks too, and are glue.
    let lower = stem.to_ascii_lowercase();
    lower.contains("helper")
        || lower.contains("runtime")
        || paths.any(|path| {
            let (folder, file) = path.rsplit_once('/').unwrap_or(("", path));
            let name = file.split('.').next().unwrap_or(file);
            name == stem || (name == "index" && folder.rsplit('/').next() == Some(stem))
        })
}
