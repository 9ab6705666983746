//! The graph as the steps change it, and what an entry reaches in it.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{
    CellId, Edge, EdgeBasis, EdgeKind, Entry, FileId, ModuleId, Owner, PackageId, Record,
    SideEffects, Texts,
};

use crate::{
    bundlers::Profile,
    graph::{
        barrels::{Barrels, Names, Sight, barrels},
        cut::Cut,
        network::Network,
    },
    predict::step::{Change, Step},
    select::subject::Subject,
};

/// Endings of styles that sources import.
const STYLES: [&str; 4] = [".css", ".scss", ".sass", ".less"];

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
    /// Files that re-export, of packages that are free of side effects: what is not taken of them is not
    /// reached through them.
    by_name: BTreeSet<ModuleId>,
    barrels: Option<Barrels>,
    /// Installed modules that nobody is known to ask for.
    orphans: Vec<ModuleId>,
    texts: &'r dyn Texts,
}

/// How modules are walked to.
struct Way<'w> {
    /// Edges that are followed.
    follows: &'w dyn Fn(&Edge) -> bool,
    /// Modules that are taken out.
    taken: &'w BTreeSet<ModuleId>,
    /// Files that are gone around.
    bypassed: &'w BTreeSet<ModuleId>,
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

/// What a file that left no byte draws in though none of its names is taken.
fn is_along(edge: &Edge) -> bool {
    edge.basis == EdgeBasis::Inferred && edge.names.as_ref().is_some_and(Vec::is_empty)
}

/// Bytes that a file may have left that only re-exports: a licence comment.
const LEFT: u64 = 500;

/// Files with next to no bytes of which names are followed: where no bundler says who asks for whom, and those
/// of packages that say that they are free of side effects, which a bundler that names the files of an
/// import and not its names says to import all that they re-export.
fn by_name(record: &Record, network: &Network<'_>, bytes: &[u64]) -> BTreeSet<ModuleId> {
    let is_said = |edge: &Edge| edge.basis == EdgeBasis::Said;
    let says_names = !Profile::of(record.bundler).says_files_only;
    if says_names && record.edges.iter().any(is_said) {
        return BTreeSet::new();
    }
    let is_free = |id: &ModuleId| {
        let package = record.package_of(*id).filter(|package| !package.own);
        match package.and_then(|package| package.side_effects.as_ref()) {
            Some(SideEffects::None) => true,
            Some(SideEffects::In(globs)) => {
                // Lists of styles say nothing of scripts.
                globs.iter().all(|glob| glob.ends_with("css") || glob.ends_with("less"))
            }
            Some(SideEffects::Undeclared) | None => false,
        }
    };
    let is_by_name = |id: &ModuleId| {
        let mut asked = network.asked(*id).peekable();
        match (bytes[id.at()], asked.peek()) {
            (0, Some(edge)) if edge.basis == EdgeBasis::Inferred => true,
            // What it re-exports is left out where neither it nor that does anything else.
            (0, Some(_)) => is_free(id) || asked.all(|edge| is_free(&edge.to)),
            (..=LEFT, Some(_)) => is_free(id) && asked.count() > 1,
            _ => false,
        }
    };
    (0..record.modules.len()).map(ModuleId::new).filter(is_by_name).collect()
}

/// Emitted bytes by module.
fn bytes(record: &Record) -> Vec<u64> {
    let mut bytes = vec![0; record.modules.len()];
    for cell in &record.cells {
        if let Owner::Module(id) = cell.owner {
            bytes[id.at()] += cell.amount.emitted;
        }
    }
    bytes
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
                Change::Narrow | Change::Gather | Change::Resize | Change::Touch => {}
            }
        }
        let bytes = bytes(record);
        let mut by_name = by_name(record, network, &bytes);
        let wants_barrels = !bypassed.is_empty() || !by_name.is_empty();
        let sight = Sight { record, network, texts };
        let mut barrels = wants_barrels.then(|| barrels(sight));
        if let Some(barrels) = &mut barrels {
            let vanished = by_name.iter().filter(|id| bytes[id.at()] == 0);
            vanished.for_each(|&id| barrels.add_free(id, sight));
        }
        by_name.retain(|id| barrels.as_ref().is_some_and(|all| all.handed.contains_key(id)));
        let roots = record.entries.iter().flat_map(|entry| entry.roots.iter().copied());
        let roots: BTreeSet<ModuleId> = roots.collect();
        let is_orphan = |id: &ModuleId| {
            record.module(*id).third_party
                && network.askers(*id).next().is_none()
                && !roots.contains(id)
        };
        let orphans = (0..record.modules.len()).map(ModuleId::new).filter(is_orphan).collect();
        Self { record, network, gone, later, taken, bypassed, by_name, barrels, orphans, texts }
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

    /// What an edge leads to past files that are gone past, where these are told.
    fn leads_to(&self, edge: &Edge, way: &Way<'_>, found: &mut Vec<ModuleId>) {
        let names = edge.names.as_ref().map(|names| Names::These(names.iter().cloned().collect()));
        let is_bypassed = way.bypassed.contains(&edge.to)
            && !way.bypassed.contains(&edge.from)
            && names.is_some();
        let is_by_name = self.by_name.contains(&edge.to) && !self.by_name.contains(&edge.from);
        match &self.barrels {
            Some(barrels) if is_bypassed || is_by_name => {
                self.around(barrels, way, edge.to, &names.unwrap_or(Names::All), 0, found);
            }
            _ => found.push(edge.to),
        }
    }

    fn around(
        &self,
        barrels: &Barrels,
        way: &Way<'_>,
        id: ModuleId,
        names: &Names,
        depth: usize,
        found: &mut Vec<ModuleId>,
    ) {
        let is_bypassed = way.bypassed.contains(&id);
        let is_passed = is_bypassed || self.by_name.contains(&id);
        if depth > DEEPEST || !barrels.handed.contains_key(&id) || !is_passed {
            found.push(id);
            return;
        }
        if self.by_name.contains(&id) {
            found.push(id);
        }
        // What is drawn in whatever is taken.
        let none = Names::These(BTreeSet::new());
        let along = |edge: &&Edge| is_along(edge) && !is_bypassed && (way.follows)(edge);
        for edge in self.network.asked(id).filter(along) {
            self.around(barrels, way, edge.to, &none, depth + 1, found);
        }
        let sight = Sight { record: self.record, network: self.network, texts: self.texts };
        let taken = barrels.taken(id, names, sight).into_iter();
        for (edge, names) in taken.filter(|(edge, _)| (way.follows)(edge)) {
            self.around(barrels, way, edge.to, &names, depth + 1, found);
        }
    }

    /// What is reached from some modules over edges that are followed, as the steps leave them.
    fn reach(&self, roots: &[ModuleId], follows: &dyn Fn(&Edge) -> bool) -> Vec<bool> {
        let follows = |edge: &Edge| follows(edge) && !self.is_gone(edge);
        self.walk(roots, &Way { follows: &follows, taken: &self.taken, bypassed: &self.bypassed })
    }

    /// What is reached from some modules.
    fn walk(&self, roots: &[ModuleId], way: &Way<'_>) -> Vec<bool> {
        let mut reached = vec![false; self.record.modules.len()];
        let mut open: Vec<ModuleId> = Vec::new();
        let mut next: Vec<ModuleId> = roots.to_vec();
        loop {
            for id in next.drain(..) {
                if !way.taken.contains(&id) && !std::mem::replace(&mut reached[id.at()], true) {
                    // What is asked for through a file by name is known where it is asked for.
                    if !self.by_name.contains(&id) || roots.contains(&id) {
                        open.push(id);
                    }
                }
            }
            let Some(id) = open.pop() else { return reached };
            for edge in self.network.asked(id).filter(|edge| (way.follows)(edge)) {
                self.leads_to(edge, way, &mut next);
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
            |roots: &[ModuleId], follows: &dyn Fn(&Edge) -> bool| match self.by_name.is_empty() {
                true => self.network.reach(roots, follows, &|_| false),
                false => {
                    let none = BTreeSet::new();
                    self.walk(roots, &Way { follows, taken: &none, bypassed: &none })
                }
            };
        let is_static = |edge: &Edge| is_now(edge) && self.deferred(edge).is_none();
        Followed {
            startup_before: self.with_kin(&entry.roots, &|roots| before(roots, &is_now)),
            startup: self.with_kin(&self.first(entry), &|roots| self.reach(roots, &is_static)),
            all_before: self.with_kin(&entry.roots, &|roots| before(roots, &|_| true)),
            all: self.with_kin(&entry.roots, &|roots| self.reach(roots, &|_| true)),
        }
    }

    /// What is reached, with modules of packages of which nobody is known to ask for them: they are there
    /// while anything else of their package is.
    fn with_kin(&self, roots: &[ModuleId], reach: &dyn Fn(&[ModuleId]) -> Vec<bool>) -> Vec<bool> {
        let mut reached = reach(roots);
        let packages: BTreeSet<PackageId> = reached
            .iter()
            .enumerate()
            .filter(|(_, is_reached)| **is_reached)
            .filter_map(|(at, _)| self.record.module(ModuleId::new(at)).package)
            .collect();
        for &id in &self.orphans {
            let package = self.record.module(id).package;
            reached[id.at()] |= package.is_some_and(|package| packages.contains(&package));
        }
        reached
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

    /// The style that a source imports, where its bytes are nobody's: what moves with a module is not known.
    pub fn unowned_style(&self, module: ModuleId) -> Option<String> {
        let owned = |id: ModuleId| {
            let mut cells = self.record.cells.iter();
            cells.any(|cell| cell.owner == Owner::Module(id) && cell.amount.emitted > 0)
        };
        let mut styles =
            self.network.asked(module).filter(|edge| edge.kind == EdgeKind::Style).peekable();
        if styles.peek().is_some() {
            let lost = styles.find(|edge| !owned(edge.to))?;
            return Some(self.record.module(lost.to).path.clone());
        }
        let text = self.texts.source(module)?;
        let mut imports = text.match_indices("import").filter_map(|(at, word)| {
            let rest = text[at + word.len()..].trim_start();
            let quote = rest.chars().next().filter(|first| matches!(first, '"' | '\''))?;
            let (request, _) = rest[1..].split_once(quote)?;
            STYLES.iter().any(|ending| request.ends_with(ending)).then(|| request.to_owned())
        });
        imports.next()
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
