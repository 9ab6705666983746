//! What is loaded wherever a file is: what a module needs statically must be, so a guess that breaks
//! that is wrong.

use std::collections::HashSet;

use uvlet_record::{FileId, FileSet, ModuleId, Owner, Record};

/// How surely one module is loaded where another is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum With {
    Never,
    /// Some entry can load both.
    Perhaps,
    /// In some of the files that hold the other.
    Somewhere,
    Always,
}

/// What is loaded together.
pub struct Placement {
    /// Files that hold each module.
    holders: Vec<Vec<FileId>>,
    /// What each file statically loads, with itself.
    closures: Vec<HashSet<FileId>>,
    /// What an entry has at startup, and what it can load besides.
    entries: Vec<(FileSet, FileSet)>,
    /// What arrives with each dynamic load.
    groups: Vec<HashSet<FileId>>,
}

impl Placement {
    pub fn of(record: &Record) -> Self {
        let mut holders = vec![Vec::new(); record.modules.len()];
        for cell in record.cells.iter().filter(|cell| cell.amount.emitted > 0) {
            if let Owner::Module(id) = cell.owner {
                holders[id.at()].push(cell.file);
            }
        }
        let closure =
            |files: &[FileId]| -> HashSet<FileId> { record.closure(files).into_iter().collect() };
        let files = (0..record.files.len()).map(FileId::new);
        let closures = files.map(|file| closure(&[file])).collect();
        let groups: Vec<HashSet<FileId>> =
            record.dynamic_loads.iter().map(|load| closure(&load.files)).collect();
        let mut opened_by: Vec<Vec<usize>> = vec![Vec::new(); record.files.len()];
        for (at, load) in record.dynamic_loads.iter().enumerate() {
            opened_by[load.file.at()].push(at);
        }
        let entries = record.entries.iter().map(|entry| {
            let mut open = record.closure(&entry.requested);
            let startup: FileSet = open.iter().copied().collect();
            let mut reached = startup.clone();
            while let Some(file) = open.pop() {
                for &load in &opened_by[file.at()] {
                    open.extend(groups[load].iter().filter(|file| reached.insert(**file)));
                }
            }
            (startup, reached)
        });
        Self { holders, closures, entries: entries.collect(), groups }
    }

    /// The files that hold a module.
    pub fn holders(&self, id: ModuleId) -> &[FileId] {
        &self.holders[id.at()]
    }

    /// Whether a module has bytes.
    pub fn is_there(&self, id: ModuleId) -> bool {
        !self.holders[id.at()].is_empty()
    }

    /// How surely one module is loaded where another is, as far as files tell.
    pub fn with(&self, module: ModuleId, wherever: ModuleId) -> With {
        let held = &self.holders[module.at()];
        let here = &self.holders[wherever.at()];
        let is_with = |file: &FileId| held.iter().any(|other| self.is_with(*other, *file));
        // Bundlers take out per entry what an entry does not use of a module.
        match here.iter().filter(|file| is_with(file)).count() {
            0 => {}
            count if count == here.len() => return With::Always,
            _ => return With::Somewhere,
        }
        let both = |reached: &FileSet| {
            here.iter().any(|file| reached.contains(file))
                && held.iter().any(|file| reached.contains(file))
        };
        match self.entries.iter().any(|(_, reached)| both(reached)) {
            true => With::Perhaps,
            false => With::Never,
        }
    }

    fn is_with(&self, file: FileId, wherever: FileId) -> bool {
        if self.closures[wherever.at()].contains(&file) {
            return true;
        }
        let groups = self.groups.iter().filter(|group| group.contains(&wherever));
        let is_in_groups =
            groups.clone().next().is_some() && groups.clone().all(|group| group.contains(&file));
        self.entries.iter().all(|(startup, reached)| {
            if startup.contains(&wherever) {
                return startup.contains(&file);
            }
            !reached.contains(&wherever) || startup.contains(&file) || is_in_groups
        })
    }
}
