//! The graph as the steps change it, and what an entry reaches in it.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, Edge, EdgeBasis, Entry, FileId, ModuleId, Owner, Record, Texts};

use crate::{
    graph::{
        barrels::{Barrels, Names, Sight, barrels},
        cut::Cut,
        network::Network,
    },
    predict::step::{Change, Step},
    select::subject::Subject,
};

/// How far names are followed through files that hand them on.
const DEEPEST: usize = 8;

/// Imports that load on demand then.
struct Later<'r> {
    cut: Cut<'r>,
    subject: &'r Subject,
    /// Of these modules alone; of all where none is named.
    from: Option<&'r Subject>,
}

/// The steps on the graph.
pub struct Plan<'r> {
    record: &'r Record,
    network: &'r Network<'r>,
    /// Requests that are gone.
    gone: Vec<Cut<'r>>,
    later: Vec<Later<'r>>,
    /// Modules that are taken out.
    taken: BTreeSet<ModuleId>,
    /// Files that hand on and are gone past, with what they hand on.
    bypassed: BTreeSet<ModuleId>,
    barrels: Option<Barrels>,
    texts: &'r dyn Texts,
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

    /// At startup, now or then.
    pub fn starts(&self, id: ModuleId) -> [bool; 2] {
        [self.startup_before[id.at()], self.startup[id.at()]]
    }

    /// Not at startup then, but on demand.
    pub fn is_later(&self, id: ModuleId) -> bool {
        !self.startup[id.at()] && self.all[id.at()]
    }

    /// Reached now, and not then.
    pub fn leaves(&self, id: ModuleId) -> bool {
        self.all_before[id.at()] && !self.all[id.at()]
    }
}

fn is_now(edge: &Edge) -> bool {
    !edge.kind.is_deferred()
}

impl<'r> Plan<'r> {
    pub fn new(
        record: &'r Record,
        network: &'r Network<'r>,
        steps: &'r [Step],
        texts: &'r dyn Texts,
    ) -> Self {
        let (mut gone, mut later, mut taken) = (Vec::new(), Vec::new(), BTreeSet::new());
        let mut bypassed = BTreeSet::new();
        for Step { change, subject, from, .. } in steps {
            let cut = Cut::of(record, network, subject);
            match change {
                Change::Defer => later.push(Later { cut, subject, from: from.as_ref() }),
                Change::Without | Change::External => {
                    gone.push(cut);
                    taken.extend(&subject.modules);
                }
                Change::Bypass => bypassed.extend(&subject.modules),
                Change::Gather | Change::Resize | Change::Touch => {}
            }
        }
        let barrels = (!bypassed.is_empty()).then(|| barrels(Sight { record, network, texts }));
        Self { record, network, gone, later, taken, bypassed, barrels, texts }
    }

    fn is_gone(&self, edge: &Edge) -> bool {
        self.gone.iter().any(|cut| cut.has(edge))
    }

    /// The thing that an edge asks for only once its code runs.
    fn deferred(&self, edge: &Edge) -> Option<usize> {
        self.later.iter().position(|Later { cut, subject, from }| {
            (cut.has(edge) || subject.has(edge.to))
                && !subject.has(edge.from)
                && from.is_none_or(|from| from.has(edge.from))
        })
    }

    /// Files that hand on, and of which it is not known what.
    pub fn unknown_barrels(&self) -> Vec<ModuleId> {
        let Some(barrels) = &self.barrels else { return Vec::new() };
        self.bypassed.iter().copied().filter(|id| !barrels.handed.contains_key(id)).collect()
    }

    /// What an edge leads to past files that are gone past.
    fn leads_to(&self, edge: &Edge, found: &mut Vec<ModuleId>) {
        match (&self.barrels, &edge.names) {
            (Some(barrels), Some(names))
                if self.bypassed.contains(&edge.to) && !self.bypassed.contains(&edge.from) =>
            {
                let names = Names::These(names.iter().cloned().collect());
                self.around(barrels, edge.to, &names, 0, found);
            }
            _ => found.push(edge.to),
        }
    }

    fn around(
        &self,
        barrels: &Barrels,
        id: ModuleId,
        names: &Names,
        depth: usize,
        found: &mut Vec<ModuleId>,
    ) {
        if depth > DEEPEST || !barrels.handed.contains_key(&id) || !self.bypassed.contains(&id) {
            found.push(id);
            return;
        }
        let sight = Sight { record: self.record, network: self.network, texts: self.texts };
        for (to, names) in barrels.taken(id, names, sight) {
            self.around(barrels, to, &names, depth + 1, found);
        }
    }

    /// What is reached from some modules over edges that are followed, as the steps leave them.
    fn reach(&self, roots: &[ModuleId], follows: &dyn Fn(&Edge) -> bool) -> Vec<bool> {
        let mut reached = vec![false; self.record.modules.len()];
        let mut open: Vec<ModuleId> = Vec::new();
        let mut next: Vec<ModuleId> = roots.to_vec();
        loop {
            for id in next.drain(..) {
                if !self.taken.contains(&id) && !std::mem::replace(&mut reached[id.at()], true) {
                    open.push(id);
                }
            }
            let Some(id) = open.pop() else { return reached };
            for edge in self.network.asked(id).filter(|edge| follows(edge) && !self.is_gone(edge)) {
                self.leads_to(edge, &mut next);
            }
        }
    }

    /// What an entry begins with then: not what is deferred, whoever it is that asks for it.
    fn first(&self, entry: &Entry) -> Vec<ModuleId> {
        let is_later = |id: &ModuleId| {
            self.later.iter().any(|later| later.from.is_none() && later.subject.has(*id))
        };
        entry.roots.iter().copied().filter(|id| !is_later(id)).collect()
    }

    pub fn follow(&self, entry: &Entry) -> Followed {
        let before =
            |follows: &dyn Fn(&Edge) -> bool| self.network.reach(&entry.roots, follows, &|_| false);
        Followed {
            startup_before: before(&is_now),
            startup: self
                .reach(&self.first(entry), &|edge| is_now(edge) && self.deferred(edge).is_none()),
            all_before: before(&|_| true),
            all: self.reach(&entry.roots, &|_| true),
        }
    }

    /// Per module, the deferred things that bring it, by their places.
    pub fn brought(&self) -> BTreeMap<ModuleId, Vec<usize>> {
        let mut brought: BTreeMap<ModuleId, Vec<usize>> = BTreeMap::new();
        for (at, Later { subject, .. }) in self.later.iter().enumerate() {
            let reached = self.reach(&subject.modules, &|edge| {
                is_now(edge) && self.deferred(edge).is_none_or(|to| to == at)
            });
            for id in (0..reached.len()).filter(|&id| reached[id]).map(ModuleId::new) {
                brought.entry(id).or_default().push(at);
            }
        }
        brought
    }

    /// What a deferred thing is called.
    pub fn name_of(&self, later: usize) -> &str {
        &self.later[later].subject.text
    }

    /// Whether a module is edited: it holds an import that is gone, deferred, or leads elsewhere.
    pub fn edits(&self, module: ModuleId) -> bool {
        let mut edges = self.network.asked(module).filter(|edge| is_now(edge));
        edges.any(|edge| {
            self.is_gone(edge)
                || self.deferred(edge).is_some()
                || (self.bypassed.contains(&edge.to) && !self.bypassed.contains(&module))
        })
    }

    /// Files of which a module is edited.
    pub fn edited_files(&self) -> BTreeSet<FileId> {
        let record = self.record;
        let cells = (0..record.cells.len()).map(CellId::new);
        let edited = cells.filter(|id| match record.cells[id.at()].owner {
            Owner::Module(module) => record.cells[id.at()].amount.emitted > 0 && self.edits(module),
            _ => false,
        });
        edited.map(|id| record.cells[id.at()].file).collect()
    }

    /// Whether edges that matter were read from sources.
    pub fn has_inferred(&self) -> bool {
        self.record.edges.iter().any(|edge| edge.basis != EdgeBasis::Said)
    }
}
