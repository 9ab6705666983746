//! What the bundler says outright of loads, openings and names, put into the record's terms.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap, HashSet},
    path::{Path, PathBuf},
};

use uvlet_record::{Chunk, DynamicLoad, EdgeKind, File, FileId, Kind, ModuleId, When};

use crate::{
    accounts::Ledger,
    connect::once_each,
    emitted::Opened,
    examine::Examined,
    folder::{Listed, Text},
    naming::Names,
    project::read_file,
    told::Told,
};

/// Bytes of a source that are read.
const LONGEST: u64 = 64 << 20;

/// Adds the bundler's openings, and the modules behind openings whose place is not known.
pub fn connect(
    told: &Told,
    names: &Names,
    examined: &[Examined],
    ledger: &mut Ledger,
    openings: &mut Vec<DynamicLoad>,
) {
    let ids: HashMap<String, FileId> = ledger
        .files
        .iter()
        .enumerate()
        .map(|(at, file)| (file.path.clone(), FileId::new(at)))
        .collect();
    let ids_of = |paths: &[String]| -> Vec<FileId> {
        once_each(paths.iter().filter_map(|path| ids.get(path).copied()).collect())
    };
    let mut holders: BTreeMap<usize, BTreeSet<FileId>> = BTreeMap::new();
    let mut requested: Vec<(FileId, FileId)> = Vec::new();
    let known: HashSet<(FileId, FileId)> = openings
        .iter()
        .flat_map(|opening| opening.files.iter().map(|&file| (opening.file, file)))
        .collect();
    for file in &told.files {
        let Some(&id) = ids.get(&file.path) else { continue };
        for &module in file.slots.iter().flat_map(|slot| &slot.modules) {
            holders.entry(module).or_default().insert(id);
        }
        let record = &mut ledger.files[id.at()];
        // Scripts of older formats load in ways of their own.
        for load in ids_of(&file.loads) {
            if !record.loads.contains(&load) {
                record.loads.push(load);
            }
        }
        for opened in ids_of(&file.opens) {
            if !known.contains(&(id, opened)) {
                requested.push((id, opened));
            }
        }
        let known = [record.loads.as_slice(), record.names.as_slice(), &[id]].concat();
        record.names.extend(ids_of(&file.names).into_iter().filter(|name| !known.contains(name)));
    }
    for (file, opened) in requested {
        let request = ledger.files[opened.at()].path.clone();
        let (kind, when) = (EdgeKind::Dynamic, When::Later);
        openings.push(DynamicLoad { file, module: None, kind, when, request, files: vec![opened] });
    }
    let calls = calls(told, examined, &ids);
    for opening in &told.openings {
        let files = ids_of(&opening.files);
        let module = names.module(opening.module);
        for &file in holders.get(&opening.module).into_iter().flatten() {
            if ledger.files[file.at()].kind == Kind::Script && !files.is_empty() {
                let request = opening.request.clone();
                let mut asked =
                    files.iter().filter_map(|&asked| calls.get(&(file, asked))).flatten();
                let is_its = |at: u64| ledger.module_at(file, at).is_none_or(|m| Some(m) == module);
                let at_once = asked.any(|one| one.at_once && is_its(one.at));
                let when = if at_once { When::AtOnce } else { When::Later };
                let (kind, files) = (EdgeKind::Dynamic, files.clone());
                openings.push(DynamicLoad { file, module, kind, when, request, files });
            }
        }
    }
    attribute(told, names, &ids, &holders, openings);
}

/// The calls that ask for files by the ids of their chunks, by asking and asked file.
type Calls<'e> = HashMap<(FileId, FileId), Vec<&'e Opened>>;

fn calls<'e>(told: &Told, examined: &'e [Examined], ids: &HashMap<String, FileId>) -> Calls<'e> {
    let mut of_chunk: HashMap<&str, Vec<FileId>> = HashMap::new();
    for file in &told.files {
        for chunk in file.ids.iter().filter(|_| ids.contains_key(&file.path)) {
            of_chunk.entry(chunk).or_default().extend(ids.get(&file.path));
        }
    }
    let mut calls = Calls::new();
    for (at, file) in examined.iter().enumerate() {
        for request in &file.chunk_requests {
            for &asked in of_chunk.get(request.request.as_str()).into_iter().flatten() {
                calls.entry((FileId::new(at), asked)).or_default().push(request);
            }
        }
    }
    calls
}

/// Finds the modules behind openings that no source map places: those in the file that ask, on
/// demand, for the module that the opened file stands for.
fn attribute(
    told: &Told,
    names: &Names,
    ids: &HashMap<String, FileId>,
    holders: &BTreeMap<usize, BTreeSet<FileId>>,
    openings: &mut Vec<DynamicLoad>,
) {
    let mut asking: BTreeMap<(FileId, FileId), Vec<ModuleId>> = BTreeMap::new();
    let stands_for: BTreeMap<usize, FileId> =
        told.files.iter().filter_map(|file| Some((file.entry?, *ids.get(&file.path)?))).collect();
    for edge in told.edges.iter().filter(|edge| edge.kind == EdgeKind::Dynamic) {
        let (Some(&opened), Some(module)) = (stands_for.get(&edge.to), names.module(edge.from))
        else {
            continue;
        };
        for &file in holders.get(&edge.from).into_iter().flatten() {
            asking.entry((file, opened)).or_default().push(module);
        }
    }
    let unplaced = std::mem::take(openings);
    for opening in unplaced {
        let asked = opening.files.first().and_then(|&first| asking.get(&(opening.file, first)));
        match (opening.module, asked) {
            (None, Some(modules)) => {
                let with = |&module| DynamicLoad { module: Some(module), ..opening.clone() };
                openings.extend(modules.iter().map(with));
            }
            _ => openings.push(opening),
        }
    }
}

/// Gives chunks the bundler's names and ids.
pub fn name(told: &Told, names: &Names, files: &[File], chunks: &mut [Chunk]) {
    let by_path = told.by_path();
    for chunk in chunks {
        let lead = chunk.files().next();
        if let Some(said) = lead.and_then(|id| by_path.get(files[id.at()].path.as_str())) {
            chunk.bundler_name.clone_from(&said.name);
            chunk.ids.clone_from(&said.ids);
            chunk.stands_for = said.entry.and_then(|module| names.module(module));
        }
    }
}

/// Source texts of modules: in the description itself, else under the project's folder.
pub struct Sources<'t> {
    told: Option<&'t Told>,
    description: Option<Text>,
    root: Option<PathBuf>,
}

impl<'t> Sources<'t> {
    pub fn new(told: Option<&'t Told>, description: Option<Listed>, root: Option<&Path>) -> Self {
        let holds = told.is_some_and(|told| told.modules.iter().any(|m| m.text.is_some()));
        let description = description.filter(|_| holds).and_then(|file| Text::of(&file).ok());
        Self { told, description, root: root.map(Path::to_owned) }
    }

    /// The text of a module, by its place among those that the bundler names.
    pub fn text(&self, at: usize) -> Option<String> {
        let module = self.told?.modules.get(at)?;
        if let (Some(range), Some(description)) = (&module.text, &self.description) {
            return serde_json::from_slice(description.get(range.clone())?).ok();
        }
        let name = module.source.as_ref().unwrap_or(&module.raw);
        let path = name.rsplit('!').next()?.split('?').next()?;
        let is_inside = !path.starts_with('/') && !path.split('/').any(|part| part == "..");
        let read = || String::from_utf8(read_file(&self.root.as_ref()?.join(path), LONGEST)?).ok();
        is_inside.then(read).flatten()
    }
}
