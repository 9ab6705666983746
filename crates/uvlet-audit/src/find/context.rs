//! What findings are made from, each part of it read once for all kinds.

use std::{collections::BTreeSet, sync::OnceLock};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{Basis, Cell, FileId, ModuleId, Owner, Record, Texts};
use uvlet_script::{Dialect, read, shapes::Shapes};

use crate::{
    find::liveness::dead::{Liveness, liveness},
    graph::{barrels::Sight, network::Network},
    lens::Lens,
};

/// What is looked at.
pub struct Ground<'a> {
    /// The record.
    pub lens: &'a Lens<'a>,
    /// Emitted texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// Languages that are wanted; none are named where all may be.
    pub languages: &'a [String],
    pub(crate) network: Network<'a>,
    pub(crate) apart: BTreeSet<FileId>,
    pub(crate) liveness: OnceLock<Liveness>,
    pub(crate) shapes: OnceLock<Vec<(FileId, Shapes)>>,
}

impl Ground<'_> {
    pub(crate) fn record(&self) -> &Record {
        self.lens.record
    }

    pub(crate) fn sight(&self) -> Sight<'_> {
        Sight { record: self.record(), network: &self.network, texts: self.texts }
    }

    /// The path of the module that tells most of some: an own one, else the first by its path.
    pub(crate) fn first_of(&self, modules: impl Iterator<Item = ModuleId>) -> Option<String> {
        let record = self.record();
        let told = |&id: &ModuleId| (record.module(id).third_party, &record.module(id).path);
        modules.min_by_key(told).map(|id| record.module(id).path.clone())
    }

    pub(crate) fn liveness(&self) -> &Liveness {
        self.liveness.get_or_init(|| liveness(self.record(), self.texts))
    }

    /// What scripts look like, by file; of those that stand apart nothing is said.
    pub(crate) fn shapes(&self) -> &[(FileId, Shapes)] {
        self.shapes.get_or_init(|| {
            let files = (0..self.record().files.len()).map(FileId::new);
            let scripts = files.filter(|&id| {
                self.record().file(id).kind == uvlet_record::Kind::Script
                    && !self.apart.contains(&id)
            });
            let scripts: Vec<FileId> = scripts.collect();
            let shapes = |&id: &FileId| {
                let text = self.texts.emitted(id)?;
                let text = std::str::from_utf8(&text).ok()?;
                Some((id, read(text, Dialect::Emitted, Shapes::of).ok()?))
            };
            scripts.par_iter().filter_map(shapes).collect()
        })
    }
}

/// Whether every entry that loads a file has its page in the build: else a page may say anything.
pub(crate) fn has_pages(lens: &Lens<'_>, file: FileId) -> bool {
    let loads = lens.record.entries.iter().zip(&lens.reach);
    let mut loads = loads
        .filter(|(_, reach)| reach.startup.contains(&file) || reach.deferred.contains(&file))
        .map(|(entry, _)| !entry.pages.is_empty())
        .peekable();
    loads.peek().is_some() && loads.all(|has_page| has_page)
}

/// The module that a byte of a file belongs to.
pub(crate) fn module_at(record: &Record, file: FileId, at: u64) -> Option<ModuleId> {
    let runs = &record.runs[record.file(file).runs.clone()];
    let before = runs.partition_point(|run| run.start <= at);
    let run = runs.get(before.checked_sub(1)?).filter(|run| at < run.start + run.length)?;
    match record.cells[run.cell.at()] {
        Cell { owner: Owner::Module(id), basis, .. } if basis != Basis::Estimated => Some(id),
        _ => None,
    }
}
