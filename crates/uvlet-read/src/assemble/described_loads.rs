//! What the bundler says outright of static and dynamic loads, put into the record's terms.

use std::collections::{BTreeMap, BTreeSet, HashMap, HashSet};

use uvlet_record::{DynamicLoad, EdgeKind, FileId, Kind, LoadKind, ModuleId, When};

use crate::assemble::{
    cells::Accounts, drawn::DrawnLoads, inspect::Inspected, loads::once_each, modules::Modules,
};
use crate::{
    descriptions::described::{Described, DescribedId},
    formats::format::DynamicCall,
};

/// What is said, and what it is put into.
pub struct DescribedLoads<'a> {
    pub described: &'a Described,
    pub modules: &'a Modules,
    pub inspected: &'a [Inspected],
    pub accounts: &'a mut Accounts,
    pub drawn: &'a DrawnLoads,
}

/// Files by path.
type Ids = HashMap<String, FileId>;

/// Files that hold a module of the description.
type Holders = BTreeMap<DescribedId, BTreeSet<FileId>>;

impl DescribedLoads<'_> {
    /// Adds the bundler's static loads to files and its dynamic ones to `loads`, with the modules
    /// behind loads whose place is not known.
    pub fn add_to(mut self, loads: &mut Vec<DynamicLoad>) {
        let files = self.accounts.files.iter().enumerate();
        let ids: Ids = files.map(|(at, file)| (file.path.clone(), FileId::new(at))).collect();
        let mut holders = Holders::new();
        for file in &self.described.files {
            let Some(&id) = ids.get(&file.path) else { continue };
            for &module in file.slots.iter().flat_map(|slot| &slot.modules) {
                holders.entry(module).or_default().insert(id);
            }
        }
        self.add_files(&ids, loads);
        self.add_groups(&ids, &holders, loads);
        self.place(&ids, &holders, loads);
    }

    /// What is said file by file.
    fn add_files(&mut self, ids: &Ids, loads: &mut Vec<DynamicLoad>) {
        let known: HashSet<(FileId, FileId)> = loads
            .iter()
            .flat_map(|load| load.files.iter().map(|&file| (load.file, file)))
            .collect();
        let mut asked: Vec<(FileId, FileId)> = Vec::new();
        for file in &self.described.files {
            let Some(&id) = ids.get(&file.path) else { continue };
            let record = &mut self.accounts.files[id.at()];
            // Scripts of older formats load in ways of their own.
            for load in ids_of(&file.loads, ids) {
                if !record.loads.contains(&load) {
                    record.loads.push(load);
                }
            }
            let opens = ids_of(&file.opens, ids).into_iter().map(|opened| (id, opened));
            asked.extend(opens.filter(|pair| !known.contains(pair)));
            let assets = ids_of(&file.names, ids);
            let known = [record.loads.as_slice(), record.asset_loads.as_slice(), &[id]].concat();
            record.asset_loads.extend(assets.into_iter().filter(|name| !known.contains(name)));
        }
        for (file, opened) in asked {
            let request = self.accounts.files[opened.at()].path.clone();
            let (kind, when) = (LoadKind::Import, When::Later);
            let files = vec![opened];
            let routes = Vec::new();
            loads.push(DynamicLoad { file, module: None, kind, when, request, files, routes });
        }
    }

    /// Groups of files that arrive together, by the module that asks.
    fn add_groups(&self, ids: &Ids, holders: &Holders, loads: &mut Vec<DynamicLoad>) {
        let calls = self.calls(ids);
        for said in &self.described.loads {
            let files = ids_of(&said.files, ids);
            if files.is_empty() {
                continue;
            }
            let module = self.modules.module(said.module);
            let here = holders.get(&said.module).into_iter().flatten().copied();
            let is_script = |file: &FileId| self.accounts.files[file.at()].kind == Kind::Script;
            for file in here.filter(is_script) {
                let mut asked =
                    files.iter().filter_map(|&asked| calls.get(&(file, asked))).flatten();
                let is_its =
                    |at| self.accounts.module_at(file, at).is_none_or(|m| Some(m) == module);
                let at_once = asked.any(|one| {
                    (one.at_once || self.drawn.contains(&(file, one.at))) && is_its(one.at)
                });
                let when = if at_once { When::AtOnce } else { When::Later };
                let (kind, files) = (LoadKind::Import, files.clone());
                let (request, routes) = (said.request.clone(), Vec::new());
                loads.push(DynamicLoad { file, module, kind, when, request, files, routes });
            }
        }
    }

    /// The calls that ask for files by the ids of their chunks, by asking and asked file.
    fn calls(&self, ids: &Ids) -> HashMap<(FileId, FileId), Vec<&DynamicCall>> {
        let mut of_chunk: HashMap<&str, Vec<FileId>> = HashMap::new();
        for file in &self.described.files {
            for chunk in file.ids.iter().filter(|_| ids.contains_key(&file.path)) {
                of_chunk.entry(chunk).or_default().extend(ids.get(&file.path));
            }
        }
        let mut calls: HashMap<(FileId, FileId), Vec<&DynamicCall>> = HashMap::new();
        for (at, file) in self.inspected.iter().enumerate() {
            for call in &file.chunk_calls {
                let chunks = call.requests().filter_map(|id| of_chunk.get(id));
                for &asked in chunks.flatten() {
                    calls.entry((FileId::new(at), asked)).or_default().push(call);
                }
            }
        }
        calls
    }

    /// Finds the modules behind loads that no source map places: those in the file that ask, on
    /// demand, for the module that the loaded file stands for.
    fn place(&self, ids: &Ids, holders: &Holders, loads: &mut Vec<DynamicLoad>) {
        let files = self.described.files.iter();
        let stands_for: BTreeMap<DescribedId, FileId> =
            files.filter_map(|file| Some((file.entry?, *ids.get(&file.path)?))).collect();
        let mut asking: BTreeMap<(FileId, FileId), Vec<ModuleId>> = BTreeMap::new();
        let edges = self.described.edges.iter();
        for edge in edges.filter(|edge| edge.kind == EdgeKind::Dynamic) {
            let (Some(&opened), Some(module)) =
                (stands_for.get(&edge.to), self.modules.module(edge.from))
            else {
                continue;
            };
            for &file in holders.get(&edge.from).into_iter().flatten() {
                asking.entry((file, opened)).or_default().push(module);
            }
        }
        for load in std::mem::take(loads) {
            let asked = load.files.first().and_then(|&first| asking.get(&(load.file, first)));
            match (load.module, asked) {
                (None, Some(modules)) => {
                    let with = |&module| DynamicLoad { module: Some(module), ..load.clone() };
                    loads.extend(modules.iter().map(with));
                }
                _ => loads.push(load),
            }
        }
    }
}

fn ids_of(paths: &[String], ids: &Ids) -> Vec<FileId> {
    once_each(paths.iter().filter_map(|path| ids.get(path).copied()).collect())
}
