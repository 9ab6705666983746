//! Names of chunks that outlive a build.
//!
//! A bundler numbers chunks, or calls them after one of their modules, and the name changes with the
//! next build. So a chunk goes by what will still be true then, in this order: the entry whose own
//! chunk it is, the name that somebody gave it, the module whose dynamic load opens it
//! (`routes/Reports`), what it mostly holds (`mostly-burgee-plot`). Where none of these is known,
//! the file's name must do.

use std::{
    collections::{BTreeMap, BTreeSet},
    iter::successors,
};

use uvlet_record::{Chunk, EdgeKind, FileId, FileSet, Kind, ModuleId, NamedBy, Owner, Record};

use crate::folder::hashes::Hashes;

/// Stems that bundlers fall back on, which nobody gave.
const GENERIC: [&str; 13] = [
    "index", "main", "shared", "common", "vendor", "vendors", "bundle", "module", "src", "lib",
    "dist", "esm", "chunk",
];

/// Gives every chunk its lasting name; chunks then stand by name. `gives_names` tells that the bundler's
/// names for them were given by somebody.
pub fn give(record: &mut Record, hashes: &Hashes, gives_names: bool) {
    let mut chunks = std::mem::take(&mut record.chunks);
    let entry_of = own_chunks(record, &chunks);
    let opened = DynamicCall::of(record);
    for chunk in &mut chunks {
        let Some(lead) = chunk.files().next() else { continue };
        hashes.split(&record.file(lead).path).0.clone_into(&mut chunk.stem);
        chunk.opened_for = chunk.opened_for.or_else(|| opened.module(record, chunk));
        (chunk.name, chunk.named_by) = match chunk.script.and_then(|id| entry_of.get(&id)) {
            Some(&entry) => (record.entries[entry].name.clone(), NamedBy::Entry),
            None => name(record, chunk, opened.any.contains(&lead), gives_names),
        };
    }
    let weight = |chunk: &Chunk| -> u64 { chunk.files().map(|id| record.file(id).emitted).sum() };
    // Where two names tie, an entry's comes first, then the heavier chunk.
    chunks.sort_by_cached_key(|chunk| {
        let weight = std::cmp::Reverse(weight(chunk));
        (chunk.named_by, chunk.name.clone(), weight, chunk.files().next())
    });
    let mut unique = Unique::default();
    for chunk in &mut chunks {
        chunk.name = unique.name(&chunk.name);
    }
    chunks.sort_by(|a, b| a.name.cmp(&b.name));
    record.chunks = chunks;
}

/// Names of one list, each given once.
#[derive(Default)]
pub struct Unique(BTreeSet<String>);

impl Unique {
    /// `name`, or `name.2`, `name.3`, the first that is free.
    pub fn name(&mut self, name: &str) -> String {
        let numbered = successors(Some(2_u32), |number| number.checked_add(1))
            .map(|number| format!("{name}.{number}"));
        let mut names = std::iter::once(name.to_owned()).chain(numbered);
        names.find(|name| self.0.insert(name.clone())).unwrap_or_default()
    }
}

/// The script that is an entry's own, of each entry that has one: of those that it asks for, what
/// none of its other files needs and no other entry has too.
fn own_chunks(record: &Record, chunks: &[Chunk]) -> BTreeMap<FileId, usize> {
    let mut claims: BTreeMap<FileId, Vec<usize>> = BTreeMap::new();
    for (at, entry) in record.entries.iter().enumerate() {
        let is_script = |id: &FileId| record.file(*id).kind == Kind::Script;
        let scripts: Vec<FileId> = entry.requested.iter().copied().filter(is_script).collect();
        let closure = record.closure(&scripts);
        let others =
            closure.iter().flat_map(|id| record.file(*id).loads.iter().filter(move |to| *to != id));
        let needed: FileSet = others.copied().collect();
        let mut roots: Vec<FileId> =
            scripts.iter().copied().filter(|id| !needed.contains(id)).collect();
        if roots.is_empty() {
            roots.extend(scripts.first());
        }
        for root in roots {
            claims.entry(root).or_default().push(at);
        }
    }
    let mut own: BTreeMap<usize, Vec<FileId>> = BTreeMap::new();
    for (file, entries) in claims {
        if let [entry] = entries.as_slice() {
            own.entry(*entry).or_default().push(file);
        }
    }
    let by_script: BTreeMap<FileId, &Chunk> =
        chunks.iter().rev().filter_map(|chunk| Some((chunk.script?, chunk))).collect();
    let given = |file: &FileId| by_script.get(file)?.bundler_name.as_deref();
    own.into_iter()
        .filter_map(|(at, files)| {
            let entry = &record.entries[at];
            let same = files.iter().find(|file| given(file) == Some(entry.name.as_str()));
            let last = entry.requested.iter().rev().find(|file| files.contains(file));
            Some((*same.or(last)?, at))
        })
        .collect()
}

/// What dynamic loads open.
struct DynamicCall {
    any: BTreeSet<FileId>,
    /// Of each load the file that it asks for, without those that it needs besides.
    first: BTreeSet<FileId>,
    /// Per script, the modules that other modules ask for on demand.
    modules: BTreeMap<FileId, BTreeSet<ModuleId>>,
}

impl DynamicCall {
    fn of(record: &Record) -> Self {
        let loads = || record.dynamic_loads.iter();
        let any = loads().flat_map(|load| load.files.iter().copied()).collect();
        let first = loads().filter_map(|load| load.files.first().copied()).collect();
        let deferred = |kind: EdgeKind| kind.is_deferred();
        let asked: BTreeSet<ModuleId> =
            record.edges.iter().filter(|edge| deferred(edge.kind)).map(|edge| edge.to).collect();
        let mut modules: BTreeMap<FileId, BTreeSet<ModuleId>> = BTreeMap::new();
        for cell in &record.cells {
            if let Owner::Module(id) = cell.owner
                && asked.contains(&id)
            {
                modules.entry(cell.file).or_default().insert(id);
            }
        }
        Self { any, first, modules }
    }

    /// The one module that a chunk is opened for: as the edges say, else the one that its file is
    /// called after, else the last of its own ones.
    fn module(&self, record: &Record, chunk: &Chunk) -> Option<ModuleId> {
        let script = chunk.script.filter(|script| self.any.contains(script))?;
        if let Some(modules) = self.modules.get(&script) {
            let mut modules = modules.iter();
            return modules.next().copied().filter(|_| modules.next().is_none());
        }
        if !self.first.contains(&script) {
            return None;
        }
        let in_order = {
            let range = &record.file(script).runs;
            let runs = &record.runs[range.clone()];
            runs.iter().map(|run| record.cells[run.cell.at()].owner)
        };
        let modules: Vec<ModuleId> = in_order
            .filter_map(|owner| match owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let named = modules.iter().find(|id| is_called(&record.module(**id).path, &chunk.stem));
        let own = || modules.iter().rev().filter(|id| !record.module(**id).third_party);
        // A script holds the names of a style's classes, too.
        let is_code = |id: &&ModuleId| !is_style(&record.module(**id).path);
        named.or_else(|| own().find(is_code)).or_else(|| own().next()).copied()
    }
}

fn name(record: &Record, chunk: &Chunk, is_opened: bool, gives_names: bool) -> (String, NamedBy) {
    if let Some(given) = given(record, chunk, gives_names) {
        return (given, NamedBy::Given);
    }
    if let Some(module) = chunk.opened_for.filter(|_| is_opened) {
        return (called_after(record, module), NamedBy::Module);
    }
    match record.kin_in(chunk).first() {
        Some(heaviest) => (format!("mostly-{heaviest}"), NamedBy::Contents),
        None if chunk.stem.is_empty() => ("unattributed".to_owned(), NamedBy::File),
        None => (chunk.stem.clone(), NamedBy::File),
    }
}

/// The name that somebody gave the chunk: as the bundler says, or a stem that is neither a number
/// nor one of its modules' names.
fn given(record: &Record, chunk: &Chunk, gives_names: bool) -> Option<String> {
    if gives_names {
        return chunk.bundler_name.clone();
    }
    let stem = chunk.stem.as_str();
    let lower = stem.to_ascii_lowercase();
    let says_nothing = stem.is_empty()
        || GENERIC.contains(&stem)
        || stem.bytes().all(|byte| byte.is_ascii_digit())
        // Helpers of the bundler name chunks too.
        || lower.contains("helper")
        || lower.contains("runtime");
    let owners = chunk.files().flat_map(|id| record.cells_of(id)).map(|cell| cell.owner);
    let modules = owners.filter_map(|owner| match owner {
        Owner::Module(id) => Some(record.module(id).path.as_str()),
        _ => None,
    });
    let modules: Vec<&str> = modules.collect();
    let is_a_modules = || modules.iter().any(|path| is_called(path, stem));
    let is_given = !says_nothing && !modules.is_empty() && !is_a_modules();
    is_given.then(|| stem.to_owned())
}

fn is_style(path: &str) -> bool {
    let ending = path.rsplit_once('.').map_or("", |(_, ending)| ending);
    matches!(ending, "css" | "scss" | "sass" | "less" | "styl")
}

/// Whether a stem is that of a module, or of the folder of an index: the name that ES bundlers give
/// a chunk by accident.
fn is_called(path: &str, stem: &str) -> bool {
    let (folder, file) = path.rsplit_once('/').unwrap_or(("", path));
    let name = file.split('.').next().unwrap_or(file);
    !stem.is_empty()
        && (name == stem || (name == "index" && folder.rsplit('/').next() == Some(stem)))
}

/// `routes/Reports` of `src/routes/Reports.jsx`; of installed code, its package.
fn called_after(record: &Record, module: ModuleId) -> String {
    if let Some(package) = record.package_of(module).filter(|package| !package.own) {
        return package.name.clone();
    }
    let path = record.module(module).path.as_str();
    let path = path.strip_prefix("src/").or(path.strip_prefix("app/")).unwrap_or(path);
    let (folder, file) = path.rsplit_once('/').unwrap_or(("", path));
    let stem = file.rsplit_once('.').map_or(file, |(stem, _)| stem);
    match (folder, stem) {
        ("", stem) => stem.to_owned(),
        (folder, "index") => folder.to_owned(),
        (folder, stem) => format!("{folder}/{stem}"),
    }
}
