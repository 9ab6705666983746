//! What a prediction does not know.

use std::collections::BTreeSet;

use uvlet_record::{Entry, ModuleId, Record};

use crate::{
    bundlers::{Loading, Profile},
    predict::{
        assemble::Assembly,
        cascade::Move,
        follow::Plan,
        step::{Change, Step},
    },
};

/// Something that the prediction does not know.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Doubt {
    /// What the first load on demand needs is taken from the habit of the bundler.
    LoadingHelper(Loading),
    /// The bundler was not asked to split, and is taken to split all the same.
    NoSplitting,
    /// Merged modules are wrapped one by one where several entries share their file.
    GatheredApart,
    /// A file that is to be bypassed does more than re-export, or it is not known what it re-exports.
    NoBarrel(String),
    /// A step takes away what is at startup of no entry, or by no import that could be deferred.
    NothingMoves {
        /// What the step names.
        subject: String,
        /// What it does.
        change: Change,
    },
    /// What is to be narrowed gives out its names one by one: who takes few gets few.
    Apart(String),
    /// What stays of this is the least: files that names have of their own bring wrappers.
    LeastStays(String),
    /// Something is fetched from another host.
    Elsewhere {
        /// What the step names.
        subject: String,
        /// Its bytes as emitted here.
        bytes: u64,
    },
    /// No importer of it is known at startup of an entry.
    NoAsker {
        /// What the step names.
        subject: String,
        /// The entry.
        entry: String,
    },
    /// Shares of streams are summed, as no texts are at hand.
    NoTexts,
    /// A style goes with a module, and no map says which of its file's bytes are its.
    Styles {
        /// The module that imports it.
        module: String,
        /// What it imports.
        style: String,
    },
    /// Imports are read in sources in part, and may lack some.
    Edges,
    /// So many requests of sources could not be resolved.
    Requests {
        /// How many.
        count: usize,
        /// The first: the module that makes it.
        from: String,
        /// What it asks for.
        request: String,
    },
}

impl Doubt {
    /// A stable word.
    #[must_use]
    pub fn code(&self) -> &'static str {
        match self {
            Self::LoadingHelper(_) => "loading-helper",
            Self::NoSplitting => "no-splitting",
            Self::GatheredApart => "gathered-apart",
            Self::NoBarrel(_) => "no-barrel",
            Self::NothingMoves { .. } => "nothing-moves",
            Self::Elsewhere { .. } => "elsewhere",
            Self::NoAsker { .. } => "no-asker",
            Self::NoTexts => "no-texts",
            Self::Styles { .. } => "styles",
            Self::Apart(_) => "apart",
            Self::LeastStays(_) => "least-stays",
            Self::Edges => "edges",
            Self::Requests { .. } => "requests",
        }
    }
}

pub(crate) fn doubts(
    record: &Record,
    plan: &Plan<'_>,
    steps: &[Step],
    assembly: &Assembly<'_>,
    moved: &[Move],
) -> Vec<Doubt> {
    let mut doubts = Vec::new();
    let profile = Profile::of(record.bundler);
    let does = |change: Change| steps.iter().any(|step| step.change == change);
    if does(Change::Defer) && record.dynamic_loads.is_empty() {
        doubts.push(Doubt::LoadingHelper(profile.loading));
    }
    if does(Change::Defer) && !profile.splits(record) {
        doubts.push(Doubt::NoSplitting);
    }
    if does(Change::Gather) && profile.wraps_gathered {
        doubts.push(Doubt::GatheredApart);
    }
    let barrels = plan.unknown_barrels().into_iter();
    doubts.extend(barrels.map(|id| Doubt::NoBarrel(record.module(id).path.clone())));
    for step in steps.iter().filter(|step| step.change.takes_away()) {
        let begins = |entry: &&Entry| !entry.has_said_roots && step.is_on_root(entry);
        if let Some(entry) = record.entries.iter().find(begins) {
            let (subject, entry) = (step.subject.text.clone(), entry.name.clone());
            doubts.push(Doubt::NoAsker { subject, entry });
        }
    }
    let apart = steps.iter().filter(|step| step.rest.is_apart);
    doubts.extend(apart.map(|step| Doubt::Apart(step.subject.text.clone())));
    let narrowed = steps.iter().filter(|step| step.change == Change::Narrow);
    let in_files =
        narrowed.filter(|step| !step.rest.spans.is_empty() || !step.rest.modules.is_empty());
    doubts.extend(in_files.map(|step| Doubt::LeastStays(step.subject.text.clone())));
    let are_moved: BTreeSet<ModuleId> = moved.iter().map(|one| one.module).collect();
    for step in steps.iter().filter(|step| step.change.takes_away()) {
        let subject = || step.subject.text.clone();
        let is_moved = step.subject.modules.iter().any(|id| are_moved.contains(id));
        // A file that only is loaded at another time holds what it held.
        let leaves = || {
            record.entries.iter().any(|entry| {
                let followed = plan.follow(entry);
                let mut modules = step.subject.modules.iter();
                modules.any(|&id| followed.leaves_startup(id) || followed.leaves(id))
            })
        };
        if !is_moved && !leaves() && step.subject.cells.iter().next().is_some() {
            doubts.push(Doubt::NothingMoves { subject: subject(), change: step.change });
        }
        if step.change == Change::External {
            let cells = step.subject.cells.iter();
            let bytes = cells.map(|id| record.cells[id.at()].amount.emitted).sum();
            doubts.push(Doubt::Elsewhere { subject: subject(), bytes });
        }
    }
    let own = are_moved.iter().filter(|id| !record.module(**id).third_party);
    let mut styles = own.filter_map(|&id| Some((id, plan.unowned_style(id)?)));
    if let Some((id, style)) = styles.next() {
        doubts.push(Doubt::Styles { module: record.module(id).path.clone(), style });
    }
    if !assembly.has_texts() {
        doubts.push(Doubt::NoTexts);
    }
    if plan.has_inferred() {
        doubts.push(Doubt::Edges);
    }
    if let Some(first) = record.unresolved_requests.first() {
        doubts.push(Doubt::Requests {
            count: record.unresolved_requests.len(),
            from: record.module(first.from).path.clone(),
            request: first.request.clone(),
        });
    }
    doubts
}
