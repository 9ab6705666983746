//! The graph as the steps change it, and what an entry reaches in it.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, Edge, EdgeBasis, Entry, FileId, ModuleId, Owner, Record};

use super::{Change, Step};
use crate::why::{Cut, Network, subject::Subject};

/// The steps on the graph.
pub struct Plan<'r> {
    record: &'r Record,
    network: Network<'r>,
    /// Requests that are gone.
    gone: Vec<Cut<'r>>,
    /// Requests that load on demand then, each with what it asks for.
    later: Vec<(Cut<'r>, &'r Subject)>,
    /// Modules that are taken out.
    taken: BTreeSet<ModuleId>,
}

/// What an entry reaches, before and after.
pub struct Followed {
    startup_before: Vec<bool>,
    startup: Vec<bool>,
    all_before: Vec<bool>,
    all: Vec<bool>,
}

impl Followed {
    /// At startup now, and not then.
    pub fn leaves_startup(&self, id: ModuleId) -> bool {
        self.startup_before[id.at()] && !self.startup[id.at()]
    }

    /// Not at startup then, but on demand.
    pub fn is_later(&self, id: ModuleId) -> bool {
        !self.startup[id.at()] && self.all[id.at()]
    }

    pub fn is_needed(&self, id: ModuleId) -> bool {
        self.all[id.at()]
    }

    pub fn was_needed(&self, id: ModuleId) -> bool {
        self.all_before[id.at()]
    }
}

fn is_now(edge: &Edge) -> bool {
    !edge.kind.is_deferred()
}

impl<'r> Plan<'r> {
    pub fn new(record: &'r Record, steps: &'r [Step]) -> Self {
        let network = Network::of(record);
        let (mut gone, mut later, mut taken) = (Vec::new(), Vec::new(), BTreeSet::new());
        for Step { change, subject } in steps {
            let cut = Cut::of(record, &network, subject);
            match change {
                Change::Defer => later.push((cut, subject)),
                Change::Without | Change::External => {
                    gone.push(cut);
                    taken.extend(&subject.modules);
                }
            }
        }
        Self { record, network, gone, later, taken }
    }

    fn is_gone(&self, edge: &Edge) -> bool {
        self.gone.iter().any(|cut| cut.has(edge))
    }

    /// The thing that an edge asks for only once its code runs.
    fn deferred(&self, edge: &Edge) -> Option<usize> {
        self.later.iter().position(|(cut, subject)| {
            (cut.has(edge) || subject.has(edge.to)) && !subject.has(edge.from)
        })
    }

    pub fn follow(&self, entry: &Entry) -> Followed {
        let reach = |follows: &dyn Fn(&Edge) -> bool, taken: &dyn Fn(ModuleId) -> bool| {
            self.network.reach(&entry.roots, follows, taken)
        };
        let nothing = |_: ModuleId| false;
        let taken = |id: ModuleId| self.taken.contains(&id);
        Followed {
            startup_before: reach(&is_now, &nothing),
            startup: reach(
                &|edge| is_now(edge) && !self.is_gone(edge) && self.deferred(edge).is_none(),
                &taken,
            ),
            all_before: reach(&|_| true, &nothing),
            all: reach(&|edge| !self.is_gone(edge), &taken),
        }
    }

    /// New files of an entry: modules that leave its startup and can come later, apart by which deferred
    /// things bring them and which entries start with them all the same.
    pub fn chunks(&self, all: &[Followed], entry: &Followed) -> Vec<BTreeSet<ModuleId>> {
        let mut brought: BTreeMap<ModuleId, Vec<usize>> = BTreeMap::new();
        for (at, (_, subject)) in self.later.iter().enumerate() {
            let reached = self.network.reach(
                &subject.modules,
                &|edge| {
                    is_now(edge)
                        && !self.is_gone(edge)
                        && self.deferred(edge).is_none_or(|to| to == at)
                },
                &|id| self.taken.contains(&id),
            );
            for id in (0..reached.len()).filter(|&id| reached[id]).map(ModuleId::new) {
                if entry.leaves_startup(id) && entry.is_later(id) {
                    brought.entry(id).or_default().push(at);
                }
            }
        }
        let mut chunks: BTreeMap<(Vec<usize>, Vec<bool>), BTreeSet<ModuleId>> = BTreeMap::new();
        for (id, by) in brought {
            let starts = all.iter().map(|one| one.startup[id.at()]).collect();
            chunks.entry((by, starts)).or_default().insert(id);
        }
        chunks.into_values().collect()
    }

    /// What a module is in then.
    pub fn name_of(&self, module: ModuleId) -> String {
        let is_brought = |(_, subject): &&(Cut<'r>, &Subject)| {
            let reached = self.network.reach(&subject.modules, &is_now, &|_| false);
            reached[module.at()]
        };
        let by = self.later.iter().find(is_brought);
        by.map_or_else(|| "a new chunk".to_owned(), |(_, subject)| subject.text.clone())
    }

    /// Whether code of a file is edited: it holds an import that is gone or deferred.
    pub fn edits(&self, record: &Record, file: FileId) -> bool {
        let cells = record.file(file).cells.clone().map(CellId::new);
        let mut modules = cells.filter_map(|id| match record.cells[id.at()].owner {
            Owner::Module(module) => Some(module),
            _ => None,
        });
        modules.any(|module| {
            let mut edges = self.network.asked(module);
            edges.any(|edge| is_now(edge) && (self.is_gone(edge) || self.deferred(edge).is_some()))
        })
    }

    /// Whether edges that matter were read from sources.
    pub fn has_inferred(&self) -> bool {
        self.record.edges.iter().any(|edge| edge.basis != EdgeBasis::Said)
    }
}
