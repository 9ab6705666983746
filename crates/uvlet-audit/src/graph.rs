//! What each entry loads before its own code runs, and what it can load later.
//!
//! An `import()` opens something for an entry only if the file that holds it is loaded and, where
//! the bundler says who imports whom, the module that holds it is reached from the entry's own
//! modules: a chunk that two entries share may hold a module that only one of them uses.

use std::collections::{HashMap, HashSet, VecDeque};

use uvlet_record::{Entry, FileId, ModuleId, Record, When};

/// The files of one entry. A file is in at most one of `startup` and `deferred`.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Reach {
    /// All that must arrive before the entry's own code can run, in the order of request: as the
    /// entry asks for it, then static loads breadth-first as written.
    pub startup: Vec<FileId>,
    /// What can be loaded later, on demand, in the order found.
    pub deferred: Vec<FileId>,
    /// Of what is deferred, what code asks for as it starts, in the order found.
    pub at_once: Vec<FileId>,
    /// The dynamic loads that the entry's code can run, by their places in the record.
    pub loads: Vec<usize>,
}

/// The reach of every entry, in the record's order.
#[must_use]
pub fn reach(record: &Record) -> Vec<Reach> {
    let mut loads: Vec<Vec<usize>> = vec![Vec::new(); record.files.len()];
    for (at, load) in record.dynamic_loads.iter().enumerate() {
        loads[load.file.at()].push(at);
    }
    let mut graph = Graph { record, loads, needs: HashMap::new(), defers: HashMap::new() };
    for edge in &record.edges {
        let list = if edge.kind.is_deferred() { &mut graph.defers } else { &mut graph.needs };
        list.entry(edge.from).or_default().push(edge.to);
    }
    record.entries.iter().map(|entry| graph.reach(entry)).collect()
}

/// What an entry downloads when it loads some files: these, and all that they statically need, in
/// the order of request.
#[must_use]
pub fn fetched(record: &Record, files: &[FileId]) -> Vec<FileId> {
    let mut seen: HashSet<FileId> = HashSet::new();
    let mut found: Vec<FileId> = files.iter().copied().filter(|file| seen.insert(*file)).collect();
    let mut next = 0;
    while let Some(&file) = found.get(next) {
        found.extend(record.file(file).loads.iter().filter(|load| seen.insert(**load)));
        next += 1;
    }
    found
}

type Edges = HashMap<ModuleId, Vec<ModuleId>>;

struct Graph<'r> {
    record: &'r Record,
    /// Per file, the dynamic loads in it.
    loads: Vec<Vec<usize>>,
    /// Who needs whom before it can run.
    needs: Edges,
    /// Who asks for whom on demand.
    defers: Edges,
}

impl Graph<'_> {
    fn reach(&self, entry: &Entry) -> Reach {
        let record = self.record;
        let modules = self.modules(entry, &[&self.needs, &self.defers]);
        let runs = |module: Option<ModuleId>| match (module, &modules) {
            (Some(module), Some(reached)) => reached.contains(&module),
            _ => true,
        };
        let mut seen = vec![false; record.files.len()];
        let startup = closure(record, &entry.requested, &mut seen);
        let mut deferred: Vec<FileId> = Vec::new();
        let mut loads: Vec<usize> = Vec::new();
        let mut open: VecDeque<FileId> = startup.iter().copied().collect();
        deferred.extend(closure(record, &entry.later, &mut seen));
        open.extend(&deferred);
        while let Some(file) = open.pop_front() {
            let here = self.loads[file.at()].iter().copied();
            let here: Vec<usize> =
                here.filter(|&at| runs(record.dynamic_loads[at].module)).collect();
            let opened = here.iter().flat_map(|&at| &record.dynamic_loads[at].files);
            let asked: Vec<FileId> =
                opened.chain(&record.file(file).asset_loads).copied().collect();
            let found = closure(record, &asked, &mut seen);
            loads.extend(here);
            open.extend(&found);
            deferred.extend(found);
        }
        let at_once = self.at_once(entry, &startup, &loads);
        Reach { startup, deferred, at_once, loads }
    }

    /// All modules that an entry's own ones reach over these edges; `None` where that is not known.
    fn modules(&self, entry: &Entry, over: &[&Edges]) -> Option<HashSet<ModuleId>> {
        if !self.record.has_said_edges() || !entry.has_said_roots {
            return None;
        }
        let mut reached = HashSet::new();
        extend(&mut reached, &entry.roots, over);
        Some(reached)
    }

    /// What code asks for as it starts, besides what it needs to start. A load that comes at once
    /// may bring code that asks for more at once.
    fn at_once(&self, entry: &Entry, startup: &[FileId], loads: &[usize]) -> Vec<FileId> {
        let record = self.record;
        let mut modules = self.modules(entry, &[&self.needs]);
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
                    (Some(module), Some(reached)) => reached.contains(&module),
                    _ => true,
                };
                if !runs || !seen[load.file.at()] {
                    return true;
                }
                found.extend(closure(record, &load.files, &mut seen));
                if let (Some(module), Some(reached)) = (load.module, &mut modules) {
                    let opened = self.defers.get(&module).map_or(&[][..], Vec::as_slice);
                    extend(reached, opened, &[&self.needs]);
                }
                false
            });
            if rest.len() == before {
                return found;
            }
        }
    }
}

/// Adds modules, and all that they reach over some edges.
fn extend(reached: &mut HashSet<ModuleId>, from: &[ModuleId], over: &[&Edges]) {
    let mut open: Vec<ModuleId> =
        from.iter().copied().filter(|module| reached.insert(*module)).collect();
    while let Some(module) = open.pop() {
        let next = over.iter().filter_map(|edges| edges.get(&module)).flatten();
        open.extend(next.filter(|next| reached.insert(**next)));
    }
}

/// What `asks` and their static loads add to what was seen, breadth-first.
fn closure(record: &Record, asks: &[FileId], seen: &mut [bool]) -> Vec<FileId> {
    let mut found = Vec::new();
    let mut take = |file: FileId, found: &mut Vec<FileId>| {
        if !std::mem::replace(&mut seen[file.at()], true) {
            found.push(file);
        }
    };
    for &file in asks {
        take(file, &mut found);
    }
    let mut next = 0;
    while let Some(&file) = found.get(next) {
        for &load in &record.file(file).loads {
            take(load, &mut found);
        }
        next += 1;
    }
    found
}
