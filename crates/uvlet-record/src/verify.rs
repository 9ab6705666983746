//! The record's invariants: exact sums, references that exist, normalised paths.

use std::collections::HashSet;

use crate::{Cell, FileId, Owner, Record, sizes::Measure};

/// What is wrong with a record.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum Flaw {
    /// Cells of a file do not add up to the file.
    #[error("{path}: cells hold {cells} {measure} units, the file has {file}")]
    Sum {
        /// The file.
        path: String,
        /// The measure that is off.
        measure: Measure,
        /// Sum over the cells.
        cells: u64,
        /// The file's own.
        file: u64,
    },
    /// Runs of a file overlap, leave gaps, or disagree with the cells.
    #[error("{path}: runs do not cover the file")]
    Runs {
        /// The file.
        path: String,
    },
    /// An index that names nothing.
    #[error("{what} names {of} {index}, which does not exist")]
    Reference {
        /// Who refers.
        what: String,
        /// To what kind of thing.
        of: &'static str,
        /// By which index.
        index: usize,
    },
    /// Two of a kind have one name.
    #[error("two {of} are called `{name}`")]
    Twice {
        /// What is listed.
        of: &'static str,
        /// The name.
        name: String,
    },
    /// Ranges of files that leave gaps or overlap: what they leave out would be in no total.
    #[error("{path}: its {of} do not follow those of the file before")]
    Gap {
        /// The file, or the end of the list.
        path: String,
        /// Cells or runs.
        of: &'static str,
    },
    /// A page that is no file.
    #[error("entry `{entry}` names the page `{page}`, which is no file")]
    Page {
        /// The entry.
        entry: String,
        /// The page.
        page: String,
    },
    /// A module path that is not normalised.
    #[error("module path `{path}` is not normalised")]
    Path {
        /// The path.
        path: String,
    },
    /// Files, modules or packages out of order.
    #[error("{of} are not in order at `{at}`")]
    Order {
        /// What is listed.
        of: &'static str,
        /// The first that stands wrong.
        at: String,
    },
}

impl Record {
    /// Checks every invariant.
    ///
    /// # Errors
    /// The first flaw found.
    pub fn verify(&self) -> Result<(), Flaw> {
        self.verify_references()?;
        self.verify_order()?;
        self.verify_ranges()?;
        self.verify_names()?;
        for at in 0..self.files.len() {
            self.verify_file(FileId::new(at))?;
        }
        Ok(())
    }

    fn verify_file(&self, id: FileId) -> Result<(), Flaw> {
        let file = self.file(id);
        let cells = self.cells_of(id);
        for measure in self.measures() {
            let sum = cells
                .iter()
                .fold(0_u64, |sum, cell| sum.saturating_add(cell.amount.units(measure)));
            let own = match measure {
                Measure::Emitted => file.emitted,
                Measure::Coded(coding) => file.encoded.get(coding).unwrap_or(&0).saturating_mul(8),
            };
            if sum != own {
                let path = file.path.clone();
                return Err(Flaw::Sum { path, measure, cells: sum, file: own });
            }
        }
        let flaw = || Flaw::Runs { path: file.path.clone() };
        let mut owners = HashSet::new();
        let is_wrong = |cell: &Cell| cell.file != id || !owners.insert(cell.owner);
        if cells.is_empty() || cells.iter().any(is_wrong) {
            return Err(flaw());
        }
        let runs = &self.runs[file.runs.start as usize..file.runs.end as usize];
        if runs.is_empty() {
            return Ok(());
        }
        let mut position = 0;
        let mut charged = vec![0_u64; cells.len()];
        for run in runs {
            let cell = run.cell.at().checked_sub(file.cells.start as usize).ok_or_else(flaw)?;
            if run.start != position {
                return Err(flaw());
            }
            position = run.start.checked_add(run.length).ok_or_else(flaw)?;
            let charged = charged.get_mut(cell).ok_or_else(flaw)?;
            *charged = charged.checked_add(run.length).ok_or_else(flaw)?;
        }
        let agrees = charged.iter().zip(cells).all(|(sum, cell)| *sum == cell.amount.emitted);
        if position == file.emitted && agrees { Ok(()) } else { Err(flaw()) }
    }

    /// The cells and runs of files stand in the order of files, without gaps.
    fn verify_ranges(&self) -> Result<(), Flaw> {
        let (mut cells, mut runs) = (0, 0);
        let gap = |path: &str, of| Flaw::Gap { path: path.to_owned(), of };
        for file in &self.files {
            if file.cells.start != cells {
                return Err(gap(&file.path, "cells"));
            }
            if file.runs.start != runs {
                return Err(gap(&file.path, "runs"));
            }
            (cells, runs) = (file.cells.end, file.runs.end);
        }
        if cells as usize != self.cells.len() {
            return Err(gap("the end", "cells"));
        }
        if runs as usize != self.runs.len() {
            return Err(gap("the end", "runs"));
        }
        Ok(())
    }

    fn verify_names(&self) -> Result<(), Flaw> {
        let twice = |of: &'static str, names: Vec<&String>| {
            let mut seen = HashSet::new();
            match names.into_iter().find(|name| !seen.insert(*name)) {
                Some(name) => Err(Flaw::Twice { of, name: name.clone() }),
                None => Ok(()),
            }
        };
        twice("entries", self.entries.iter().map(|entry| &entry.name).collect())?;
        twice("chunks", self.chunks.iter().map(|chunk| &chunk.name).collect())?;
        for entry in &self.entries {
            for page in &entry.pages {
                let is_file = self.files.binary_search_by(|file| file.path.cmp(page)).is_ok();
                if !is_file {
                    let (entry, page) = (entry.name.clone(), page.clone());
                    return Err(Flaw::Page { entry, page });
                }
            }
        }
        Ok(())
    }

    fn verify_references(&self) -> Result<(), Flaw> {
        let check = |what: &str, of: &'static str, index: usize, length: usize| {
            if index < length {
                return Ok(());
            }
            Err(Flaw::Reference { what: what.to_owned(), of, index })
        };
        let files = self.files.len();
        if let Some(texts) = &self.texts {
            check("the texts", "file", texts.emitted.len(), files + 1)?;
            check("the texts", "module", texts.sources.len(), self.modules.len() + 1)?;
        }
        for file in &self.files {
            check(&file.path, "cell", file.cells.end as usize, self.cells.len() + 1)?;
            check(&file.path, "run", file.runs.end as usize, self.runs.len() + 1)?;
            check(&file.path, "cell", file.cells.start as usize, file.cells.end as usize + 1)?;
            check(&file.path, "run", file.runs.start as usize, file.runs.end as usize + 1)?;
            for id in file.loads.iter().chain(&file.names) {
                check(&file.path, "file", id.at(), files)?;
            }
            if let Some(module) = file.source {
                check(&file.path, "module", module.at(), self.modules.len())?;
            }
        }
        for cell in &self.cells {
            check("a cell", "file", cell.file.at(), files)?;
            if let Owner::Module(id) = cell.owner {
                check("a cell", "module", id.at(), self.modules.len())?;
            }
        }
        for run in &self.runs {
            check("a run", "cell", run.cell.at(), self.cells.len())?;
        }
        for module in &self.modules {
            if let Some(package) = module.package {
                check(&module.path, "package", package.at(), self.packages.len())?;
            }
        }
        for chunk in &self.chunks {
            for id in chunk.files() {
                check(&chunk.name, "file", id.at(), files)?;
            }
            if let Some(module) = chunk.stands_for {
                check(&chunk.name, "module", module.at(), self.modules.len())?;
            }
        }
        for entry in &self.entries {
            for id in entry.files.iter().chain(&entry.prefetched) {
                check(&entry.name, "file", id.at(), files)?;
            }
            for id in &entry.roots {
                check(&entry.name, "module", id.at(), self.modules.len())?;
            }
        }
        for edge in &self.edges {
            check("an edge", "module", edge.from.at().max(edge.to.at()), self.modules.len())?;
        }
        for load in &self.unresolved {
            check("a load that leads nowhere", "file", load.file.at(), files)?;
            if let Some(module) = load.module {
                check("a load that leads nowhere", "module", module.at(), self.modules.len())?;
            }
        }
        for load in &self.dynamic_loads {
            for id in load.files.iter().chain([&load.file]) {
                check(&load.request, "file", id.at(), files)?;
            }
            if let Some(module) = load.module {
                check(&load.request, "module", module.at(), self.modules.len())?;
            }
        }
        Ok(())
    }

    fn verify_order(&self) -> Result<(), Flaw> {
        if let Some(pair) = self.files.windows(2).find(|pair| pair[0].path >= pair[1].path) {
            return Err(Flaw::Order { of: "files", at: pair[1].path.clone() });
        }
        let key = |at: usize| (&self.modules[at].path, self.modules[at].package);
        if let Some(at) = (1..self.modules.len()).find(|&at| key(at - 1) >= key(at)) {
            return Err(Flaw::Order { of: "modules", at: self.modules[at].path.clone() });
        }
        if let Some(pair) = self.packages.windows(2).find(|pair| pair[0] >= pair[1]) {
            return Err(Flaw::Order { of: "packages", at: pair[1].name.clone() });
        }
        if let Some(at) = (1..self.edges.len()).find(|&at| self.edges[at - 1] >= self.edges[at]) {
            return Err(Flaw::Order { of: "edges", at: at.to_string() });
        }
        let normalised = |path: &str| {
            !path.is_empty()
                && !path.starts_with("./")
                && !path.starts_with('/')
                && !path.contains('\\')
                && !path.contains('\0')
        };
        match self.modules.iter().find(|module| !normalised(&module.path)) {
            Some(module) => Err(Flaw::Path { path: module.path.clone() }),
            None => Ok(()),
        }
    }
}
