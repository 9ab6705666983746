//! What each entry loads before its own code runs, and what it can load later.

use std::collections::VecDeque;

use uvlet_record::{Entry, FileId, Record};

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
    for (at, opening) in record.openings.iter().enumerate() {
        openings[opening.file.at()].push(at);
    }
    record.entries.iter().map(|entry| reach_of(record, entry, &openings)).collect()
}

fn reach_of(record: &Record, entry: &Entry, openings: &[Vec<usize>]) -> Reach {
    let mut seen = vec![false; record.files.len()];
    let startup = closure(record, &entry.asks, &mut seen);
    let mut deferred: Vec<FileId> = Vec::new();
    let mut open: VecDeque<FileId> = startup.iter().copied().collect();
    deferred.extend(closure(record, &entry.later, &mut seen));
    open.extend(&deferred);
    while let Some(file) = open.pop_front() {
        let opened = openings[file.at()].iter().flat_map(|&at| &record.openings[at].files);
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
