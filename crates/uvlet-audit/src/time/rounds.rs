//! Rounds of requests: a file can be asked for once what names it has arrived.
//!
//! Round 1 is the page's own request. Then comes what the page names (scripts, styles, pictures, and files
//! that its hints name ahead of who needs them), then what those need before they can run or be shown and
//! nobody named before: static imports of scripts, imports and pictures of styles. What code asks for as it
//! runs comes once all that it needs to run is there, with what its bundler's loader asks for along with it
//! in the same round.

use std::collections::{HashMap, HashSet};

use uvlet_record::{Entry, FileId, Record, When};

use crate::graph::reach::Reach;

/// A file that is asked for.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Request {
    /// Which.
    pub file: FileId,
    /// When, from 1.
    pub round: usize,
    /// The file that names it first; none of the page, and of what a server's page names.
    pub by: Option<FileId>,
    /// A page names it ahead of a script that needs it.
    pub is_hint: bool,
}

/// The startup of an entry, round by round; in a round in the order of request.
#[must_use]
pub fn startup(record: &Record, entry: &Entry, reach: &Reach) -> Vec<Request> {
    let mut asked = Asked::default();
    let page = entry.requested.iter().copied().find(|id| is_page(entry, record, *id));
    if let Some(page) = page {
        asked.add(page, 1, None);
    }
    for &file in &entry.requested {
        asked.add(file, 2, page);
    }
    asked.follow(record);
    let mut list = asked.list;
    // Who is asked for because of a file needs it in a circle at most.
    let first: HashMap<FileId, FileId> = list
        .iter()
        .filter_map(|one| Some((one.file, one.by.filter(|by| Some(*by) != page)?)))
        .collect();
    let is_because_of = |mut id: FileId, of: FileId| loop {
        match first.get(&id) {
            _ if id == of => return true,
            Some(by) => id = *by,
            None => return false,
        }
    };
    let others = list.iter().map(|one| one.file).filter(|id| Some(*id) != page);
    let needed: HashSet<FileId> = others
        .flat_map(|from| record.file(from).loads.iter().map(move |to| (from, *to)))
        .filter(|(from, to)| !is_because_of(*from, *to))
        .map(|(_, to)| to)
        .collect();
    for one in &mut list {
        one.is_hint = one.round == 2 && one.by == page && needed.contains(&one.file);
    }
    list.retain(|one| reach.startup.contains(&one.file));
    list
}

/// What code asks for as it starts, behind the startup.
#[must_use]
pub fn at_once(record: &Record, startup: &[Request], reach: &Reach) -> Vec<Request> {
    let mut asked = Asked::default();
    asked.known.extend(startup.iter().map(|one| (one.file, one.round)));
    let mut runs = last(startup);
    loop {
        let loads = reach.loads.iter().map(|at| &record.dynamic_loads[at]);
        let loads = loads.filter(|load| {
            load.when == When::AtOnce
                && asked.known.get(&load.file).is_some_and(|round| *round <= runs)
        });
        let wanted: Vec<(FileId, FileId)> = loads
            .flat_map(|load| load.files.iter().map(|file| (*file, load.file)))
            .filter(|(file, _)| reach.at_once.contains(file) && !asked.known.contains_key(file))
            .collect();
        if wanted.is_empty() {
            break;
        }
        for (file, by) in wanted {
            asked.add(file, runs + 1, Some(by));
        }
        asked.follow(record);
        runs = last(&asked.list);
    }
    asked.list
}

/// The last round of some requests; 0 of none.
#[must_use]
pub fn last(requests: &[Request]) -> usize {
    requests.iter().map(|one| one.round).max().unwrap_or(0)
}

fn is_page(entry: &Entry, record: &Record, id: FileId) -> bool {
    entry.pages.contains(&record.file(id).path)
}

/// Files in the order in which they are asked for, breadth first.
#[derive(Default)]
struct Asked {
    list: Vec<Request>,
    known: HashMap<FileId, usize>,
    next: usize,
}

impl Asked {
    fn add(&mut self, file: FileId, round: usize, by: Option<FileId>) {
        if let std::collections::hash_map::Entry::Vacant(place) = self.known.entry(file) {
            place.insert(round);
            self.list.push(Request { file, round, by, is_hint: false });
        }
    }

    /// Adds what is needed by what was asked for. The list is in the order of rounds, and stays so.
    fn follow(&mut self, record: &Record) {
        while self.next < self.list.len() {
            let Request { file, round, .. } = self.list[self.next];
            self.next += 1;
            for &to in &record.file(file).loads {
                self.add(to, round + 1, Some(file));
            }
        }
    }
}
