//! The record's invariants: exact sums, references that exist, normalised paths.

use std::collections::HashSet;

use crate::{
    build::Record,
    cell::{Cell, Owner},
    ids::FileId,
    path::is_normal,
    sizes::Measure,
};

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
    /// A saved text that is not as long as its file.
    #[error("{path}: the saved text is not that of the file")]
    Text {
        /// The file.
        path: String,
    },
    /// A digest that is none.
    #[error("{path}: the digest of its source is none")]
    Digest {
        /// The module.
        path: String,
    },
    /// A module that is merged into itself.
    #[error("{path}: is merged into itself")]
    Itself {
        /// The module.
        path: String,
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
        let runs = &self.runs[file.runs.clone()];
        if runs.is_empty() {
            return Ok(());
        }
        let mut position = 0;
        let mut charged = vec![0_u64; cells.len()];
        for run in runs {
            let cell = run.cell.at().checked_sub(file.cells.start).ok_or_else(flaw)?;
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
        if cells != self.cells.len() {
            return Err(gap("the end", "cells"));
        }
        if runs != self.runs.len() {
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

    /// Every index names something: of files and cells here, of modules and the graph below.
    fn verify_references(&self) -> Result<(), Flaw> {
        let (files, modules) = (self.files.len(), self.modules.len());
        for file in &self.files {
            exists(&file.path, "cell", file.cells.end, self.cells.len() + 1)?;
            exists(&file.path, "run", file.runs.end, self.runs.len() + 1)?;
            exists(&file.path, "cell", file.cells.start, file.cells.end + 1)?;
            exists(&file.path, "run", file.runs.start, file.runs.end + 1)?;
            for id in file.loads.iter().chain(&file.asset_loads) {
                exists(&file.path, "file", id.at(), files)?;
            }
            if let Some(module) = file.source {
                exists(&file.path, "module", module.at(), modules)?;
            }
        }
        for cell in &self.cells {
            exists("a cell", "file", cell.file.at(), files)?;
            if let Owner::Module(id) = cell.owner {
                exists("a cell", "module", id.at(), modules)?;
            }
        }
        for run in &self.runs {
            exists("a run", "cell", run.cell.at(), self.cells.len())?;
        }
        self.verify_modules()?;
        self.verify_loads()?;
        self.verify_texts()
    }

    fn verify_modules(&self) -> Result<(), Flaw> {
        let modules = self.modules.len();
        for (at, module) in self.modules.iter().enumerate() {
            if let Some(package) = module.package {
                exists(&module.path, "package", package.at(), self.packages.len())?;
            }
            if let Some(other) = module.merged_into {
                exists(&module.path, "module", other.at(), modules)?;
                if other.at() == at {
                    return Err(Flaw::Itself { path: module.path.clone() });
                }
            }
            let is_hash =
                |digest: &str| digest.len() == 32 && digest.bytes().all(|b| b.is_ascii_hexdigit());
            if module.source_digest.as_deref().is_some_and(|digest| !is_hash(digest)) {
                return Err(Flaw::Digest { path: module.path.clone() });
            }
        }
        for edge in &self.edges {
            exists("an edge", "module", edge.from.at().max(edge.to.at()), modules)?;
        }
        for request in &self.unresolved_requests {
            exists("a request", "module", request.from.at(), modules)?;
        }
        Ok(())
    }

    fn verify_loads(&self) -> Result<(), Flaw> {
        let (files, modules) = (self.files.len(), self.modules.len());
        for chunk in &self.chunks {
            for id in chunk.files() {
                exists(&chunk.name, "file", id.at(), files)?;
            }
            if let Some(module) = chunk.opened_for {
                exists(&chunk.name, "module", module.at(), modules)?;
            }
        }
        for entry in &self.entries {
            for id in entry.requested.iter().chain(&entry.later) {
                exists(&entry.name, "file", id.at(), files)?;
            }
            for id in &entry.roots {
                exists(&entry.name, "module", id.at(), modules)?;
            }
        }
        for load in &self.unresolved {
            exists("unresolved load", "file", load.file.at(), files)?;
            if let Some(module) = load.module {
                exists("unresolved load", "module", module.at(), modules)?;
            }
        }
        for load in &self.dynamic_loads {
            for id in load.files.iter().chain([&load.file]) {
                exists(&load.request, "file", id.at(), files)?;
            }
            if let Some(module) = load.module {
                exists(&load.request, "module", module.at(), modules)?;
            }
        }
        Ok(())
    }

    fn verify_texts(&self) -> Result<(), Flaw> {
        let (files, modules) = (self.files.len(), self.modules.len());
        let Some(texts) = &self.texts else { return Ok(()) };
        exists("the texts", "file", texts.emitted.len().max(texts.maps.len()), files + 1)?;
        exists("the texts", "module", texts.sources.len(), modules + 1)?;
        for map in texts.maps.iter().flatten() {
            for id in map.sections.iter().flat_map(|section| &section.modules).flatten() {
                exists("saved map", "module", id.at(), modules)?;
            }
        }
        for (file, text) in self.files.iter().zip(&texts.emitted) {
            if text.as_ref().is_some_and(|text| text.len() as u64 != file.emitted) {
                return Err(Flaw::Text { path: file.path.clone() });
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
        let requests = &self.unresolved_requests;
        if let Some(at) = (1..requests.len()).find(|&at| requests[at - 1] >= requests[at]) {
            return Err(Flaw::Order { of: "requests", at: requests[at].request.clone() });
        }
        match self.modules.iter().find(|module| !is_normal(&module.path)) {
            Some(module) => Err(Flaw::Path { path: module.path.clone() }),
            None => Ok(()),
        }
    }
}

fn exists(what: &str, of: &'static str, index: usize, length: usize) -> Result<(), Flaw> {
    match index < length {
        true => Ok(()),
        false => Err(Flaw::Reference { what: what.to_owned(), of, index }),
    }
}
