//! Walks over the graph of modules and of files: the one set of helpers for every question.
//!
//! What each entry loads before its own code runs, and what it can load later, is told by files. An
//! `import()` opens something for an entry only if the file that holds it is loaded and, where the
//! bundler says who asks for whom, the module that holds it is reached from the entry's own modules: a
//! chunk that two entries share may hold a module that only one of them uses.

use uvlet_record::{EdgeKind, Entry, FileId, FileList, FileSet, IdSet, ModuleId, Record, When};

use crate::graph::network::Network;

/// The files of one entry. A file is in at most one of `startup` and `deferred`.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Reach {
    /// All that must arrive before the entry's own code can run, in the order of request: as the
    /// entry asks for it, then static loads breadth-first as written.
    pub startup: FileList,
    /// What can be loaded later, on demand.
    pub deferred: FileSet,
    /// Of what is deferred, what code asks for as it starts.
    pub at_once: FileSet,
    /// The dynamic loads that the entry's code can run, by their places in the record.
    pub loads: IdSet<usize>,
}

/// The reach of every entry, in the record's order.
#[must_use]
pub fn reach(record: &Record) -> Vec<Reach> {
    let mut loads: Vec<Vec<usize>> = vec![Vec::new(); record.files.len()];
    for (at, load) in record.dynamic_loads.iter().enumerate() {
        loads[load.file.at()].push(at);
    }
    let modules = record.has_said_edges().then(|| Network::of(record));
    let files = Files { record, loads, modules };
    record.entries.iter().map(|entry| files.reach(entry)).collect()
}

struct Files<'r> {
    record: &'r Record,
    /// Per file, the dynamic loads in it.
    loads: Vec<Vec<usize>>,
    /// Where the bundler says who asks for whom: edges that were parsed may lack some.
    modules: Option<Network<'r>>,
}

impl Files<'_> {
    fn reach(&self, entry: &Entry) -> Reach {
        let record = self.record;
        let modules = self.modules_of(entry, |_| true);
        let runs = |module: Option<ModuleId>| match (module, &modules) {
            (Some(module), Some(reached)) => reached[module.at()],
            _ => true,
        };
        let mut seen = vec![false; record.files.len()];
        let startup = record.closure_beyond(&entry.requested, &mut seen);
        let mut loads: Vec<usize> = Vec::new();
        let mut open: Vec<FileId> = startup.clone();
        open.extend(record.closure_beyond(&entry.later, &mut seen));
        let mut next = 0;
        while let Some(&file) = open.get(next) {
            next += 1;
            let here = self.loads[file.at()].iter().copied();
            let here: Vec<usize> =
                here.filter(|&at| runs(record.dynamic_loads[at].module)).collect();
            let opened = here.iter().flat_map(|&at| &record.dynamic_loads[at].files);
            let asked: Vec<FileId> =
                opened.chain(&record.file(file).asset_loads).copied().collect();
            open.extend(record.closure_beyond(&asked, &mut seen));
            loads.extend(here);
        }
        let deferred = open[startup.len()..].iter().copied().collect();
        let at_once = self.at_once(entry, &startup, &loads).into_iter().collect();
        Reach { startup: startup.into(), deferred, at_once, loads: loads.into_iter().collect() }
    }

    /// All modules that an entry's own ones reach over some edges; `None` where that is not known.
    fn modules_of(&self, entry: &Entry, follows: impl Fn(EdgeKind) -> bool) -> Option<Vec<bool>> {
        let modules = self.modules.as_ref().filter(|_| entry.has_said_roots)?;
        let mut reached = vec![false; self.record.modules.len()];
        modules.extend_reach(&mut reached, &entry.roots, &follows);
        Some(reached)
    }

    /// What code asks for as it starts, besides what it needs to start. A load that comes at once
    /// may bring code that asks for more at once.
    fn at_once(&self, entry: &Entry, startup: &[FileId], loads: &[usize]) -> Vec<FileId> {
        let record = self.record;
        let is_static = |kind: EdgeKind| !kind.is_deferred();
        let mut modules = self.modules_of(entry, is_static);
        let mut seen = vec![false; record.files.len()];
        startup.iter().for_each(|file| seen[file.at()] = true);
        let mut rest: Vec<usize> = loads
            .iter()
            .copied()
            .filter(|&at| record.dynamic_loads[at].when == When::AtOnce)
            .collect();
        let mut found = Vec::new();
        loop {
            let before = rest.len();
            rest.retain(|&at| {
                let load = &record.dynamic_loads[at];
                let runs = match (load.module, &modules) {
                    (Some(module), Some(reached)) => reached[module.at()],
                    _ => true,
                };
                if !runs || !seen[load.file.at()] {
                    return true;
                }
                found.extend(record.closure_beyond(&load.files, &mut seen));
                if let (Some(module), Some(reached), Some(graph)) =
                    (load.module, &mut modules, &self.modules)
                {
                    let opened: Vec<ModuleId> = graph.deferred(module).collect();
                    graph.extend_reach(reached, &opened, &is_static);
                }
                false
            });
            if rest.len() == before {
                return found;
            }
        }
    }
}
