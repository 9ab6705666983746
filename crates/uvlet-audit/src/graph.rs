//! What each entry loads before its own code runs, and what it can load later.
//!
//! An `import()` opens something for an entry only if the file that holds it is loaded and, where
//! the bundler says who imports whom, the module that holds it is reached from the entry's own
//! modules: a chunk that two entries share may hold a module that only one of them uses.

use std::collections::{HashMap, HashSet, VecDeque};

use uvlet_record::{Entry, FileId, ModuleId, Record};

/// The files of one entry. A file is in at most one of the two lists.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Reach {
    /// All that must arrive before the entry's own code can run, in the order of request: as the
    /// entry asks for it, then static loads breadth-first as written.
    pub startup: Vec<FileId>,
    /// What can be loaded later, on demand, in the order found.
    pub deferred: Vec<FileId>,
}

/// The reach of every entry, in the record's order.
#[must_use]
pub fn reach(record: &Record) -> Vec<Reach> {
    let mut openings: Vec<Vec<usize>> = vec![Vec::new(); record.files.len()];
    for (at, opening) in record.dynamic_loads.iter().enumerate() {
        openings[opening.file.at()].push(at);
    }
    let mut asks: HashMap<ModuleId, Vec<ModuleId>> = HashMap::new();
    for edge in &record.edges {
        asks.entry(edge.from).or_default().push(edge.to);
    }
    let reach_of = |entry| reach_of(record, entry, &openings, &asks);
    record.entries.iter().map(reach_of).collect()
}

/// All modules that an entry's own ones reach, over whatever edge; `None` where that is not known.
fn modules_of(entry: &Entry, asks: &HashMap<ModuleId, Vec<ModuleId>>) -> Option<HashSet<ModuleId>> {
    if asks.is_empty() || entry.roots.is_empty() {
        return None;
    }
    let mut reached: HashSet<ModuleId> = entry.roots.iter().copied().collect();
    let mut open = entry.roots.clone();
    while let Some(module) = open.pop() {
        for &next in asks.get(&module).into_iter().flatten() {
            if reached.insert(next) {
                open.push(next);
            }
        }
    }
    Some(reached)
}

fn reach_of(
    record: &Record,
    entry: &Entry,
    openings: &[Vec<usize>],
    asks: &HashMap<ModuleId, Vec<ModuleId>>,
) -> Reach {
    let modules = modules_of(entry, asks);
    let runs = |module: Option<ModuleId>| match (module, &modules) {
        (Some(module), Some(reached)) => reached.contains(&module),
        _ => true,
    };
    let mut seen = vec![false; record.files.len()];
    let startup = closure(record, &entry.files, &mut seen);
    let mut deferred: Vec<FileId> = Vec::new();
    let mut open: VecDeque<FileId> = startup.iter().copied().collect();
    deferred.extend(closure(record, &entry.prefetched, &mut seen));
    open.extend(&deferred);
    while let Some(file) = open.pop_front() {
        let opened = openings[file.at()].iter().map(|&at| &record.dynamic_loads[at]);
        let opened = opened.filter(|opening| runs(opening.module)).flat_map(|o| &o.files);
        let asked: Vec<FileId> = opened.chain(&record.file(file).names).copied().collect();
        let found = closure(record, &asked, &mut seen);
        open.extend(&found);
        deferred.extend(found);
    }
    Reach { startup, deferred }
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
