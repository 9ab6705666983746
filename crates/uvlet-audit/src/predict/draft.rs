//! Files before they are some: which cells they hold, and which entries load them when.

use std::collections::BTreeSet;

use uvlet_record::{CellId, FileId, Kind};

use crate::{bundlers::Helper, lens::Lens};

/// When an entry needs something of a file that it loads.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum When {
    Startup,
    Deferred,
    Never,
}

/// What tells new files apart.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum Key {
    /// By its place among the rules.
    Gather(usize),
    /// By which entries need it when, and which deferred things bring it.
    Cut { kind: Kind, needed: Vec<(usize, When)>, brought: Vec<usize> },
}

/// A file before it is one.
pub(crate) struct Draft {
    pub(crate) old: Option<FileId>,
    pub(crate) path: String,
    pub(crate) kind: Kind,
    pub(crate) cells: Vec<CellId>,
    pub(crate) startup: BTreeSet<usize>,
    pub(crate) deferred: BTreeSet<usize>,
    /// What the bundler adds to it.
    pub(crate) helper: Helper,
    /// Its name as a chunk, if it is new.
    pub(crate) name: Option<String>,
    pub(crate) is_changed: bool,
}

/// The files as they are.
pub(crate) fn drafts(lens: &Lens<'_>) -> Vec<Draft> {
    let record = lens.record;
    let mut drafts: Vec<Draft> = record
        .files
        .iter()
        .enumerate()
        .map(|(at, file)| Draft {
            old: Some(FileId::new(at)),
            path: file.path.clone(),
            kind: file.kind,
            cells: file.cells.clone().map(CellId::new).collect(),
            startup: BTreeSet::new(),
            deferred: BTreeSet::new(),
            helper: Helper::default(),
            name: None,
            is_changed: false,
        })
        .collect();
    for (entry, reach) in lens.reach.iter().enumerate() {
        for file in &reach.startup {
            drafts[file.at()].startup.insert(entry);
        }
        for file in reach.deferred.iter() {
            drafts[file.at()].deferred.insert(entry);
        }
    }
    drafts
}

impl Draft {
    pub(crate) fn loaders(&self) -> Vec<(usize, When)> {
        let startup = self.startup.iter().map(|&entry| (entry, When::Startup));
        let deferred = self.deferred.iter().map(|&entry| (entry, When::Deferred));
        let mut all: Vec<(usize, When)> = startup.chain(deferred).collect();
        all.sort_unstable();
        all
    }

    /// It is needed by other entries, or at other times.
    pub(crate) fn load(&mut self, needed: &[(usize, When)]) {
        let of = |when: When| needed.iter().filter(move |(_, one)| *one == when);
        self.startup = of(When::Startup).map(|(entry, _)| *entry).collect();
        self.deferred = of(When::Deferred).map(|(entry, _)| *entry).collect();
    }
}
