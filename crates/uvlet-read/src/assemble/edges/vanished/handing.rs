//! Files of one's own that left no byte and hand on what others give: they become modules, so that what
//! they draw in can be told, and gone past.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Edge, EdgeBasis, EdgeKind, Module, ModuleFormat, ModuleId, PackageId, Record};
use uvlet_script::requests::Request;

use crate::assemble::{
    edges::{
        graph::{Graph, kind},
        vanished::walk::{Step, Target},
    },
    numbers::Numbers,
};

/// A file that left no byte.
#[derive(Default)]
struct File {
    /// Who asks for it.
    asked_by: BTreeSet<Ask>,
    /// Modules of the build that each of these asks it for by name.
    named: BTreeMap<ModuleId, BTreeSet<ModuleId>>,
    /// What it leads to, and by which request.
    steps: BTreeSet<Step>,
}

/// How a module of the build asks for such a file.
#[derive(PartialEq, Eq, PartialOrd, Ord)]
struct Ask {
    from: ModuleId,
    kind: EdgeKind,
    request: String,
    names: Option<Vec<String>>,
}

/// Files that left no byte, by where they lie.
#[derive(Default)]
pub struct Handing(BTreeMap<String, File>);

impl Handing {
    /// Takes down that a module asks for such a file, and what its names lead to.
    pub fn add(
        &mut self,
        place: &str,
        (from, ask): (ModuleId, &Request),
        modules: impl IntoIterator<Item = ModuleId>,
        steps: impl IntoIterator<Item = Step>,
    ) {
        let (kind, request) = (kind(ask.kind), ask.specifier.clone());
        let file = self.0.entry(place.to_owned()).or_default();
        file.named.entry(from).or_default().extend(modules);
        file.asked_by.insert(Ask { from, kind, request, names: ask.names.clone() });
        self.lead(steps);
    }

    /// Takes down what such files lead to.
    pub fn lead(&mut self, steps: impl IntoIterator<Item = Step>) {
        for step in steps {
            self.0.entry(step.from.clone()).or_default().steps.insert(step);
        }
    }

    /// Files that modules ask for, with the modules that do and what each asks for by name.
    pub fn asked(&self) -> impl Iterator<Item = (&str, &BTreeMap<ModuleId, BTreeSet<ModuleId>>)> {
        let files = self.0.iter().filter(|(_, file)| !file.named.is_empty());
        files.map(|(place, file)| (place.as_str(), &file.named))
    }

    /// Modules of the build that the files lead to.
    pub fn modules(&self) -> impl Iterator<Item = ModuleId> {
        self.0.values().flat_map(|file| &file.steps).filter_map(|step| match step.to {
            Target::Module(id) => Some(id),
            Target::File(_) => None,
        })
    }

    /// Where a step of a file leads: to modules, or to a file that becomes one.
    fn leads(&self, step: &Step) -> BTreeSet<Target> {
        let mut found = BTreeSet::new();
        let mut seen: BTreeSet<&str> = BTreeSet::new();
        let mut open = vec![step];
        while let Some(step) = open.pop() {
            match &step.to {
                Target::File(place) if !is_own(place) => {
                    let next = self.0.get(place).filter(|_| seen.insert(place));
                    open.extend(next.into_iter().flat_map(|file| &file.steps));
                }
                target => _ = found.insert(target.clone()),
            }
        }
        found
    }

    /// Adds the files to the record as modules, with the edges from and to them. How the modules that
    /// were there are numbered now.
    pub fn add_to(self, record: &mut Record, graph: &mut Graph) -> Numbers {
        let edges: BTreeMap<&str, Vec<(&Step, Target)>> = self
            .0
            .iter()
            .filter(|(place, _)| is_own(place))
            .map(|(place, file)| {
                let leads = file
                    .steps
                    .iter()
                    .flat_map(|step| self.leads(step).into_iter().map(move |to| (step, to)));
                (place.as_str(), leads.collect())
            })
            .collect();
        let kept = leading(&edges);
        let mut packages: BTreeMap<&str, Option<PackageId>> = BTreeMap::new();
        for place in &kept {
            let around = record.packages.iter().enumerate().filter(|(_, package)| {
                place.strip_prefix(&package.place).is_some_and(|rest| rest.starts_with('/'))
            });
            let around = around.max_by_key(|(_, package)| package.place.len());
            packages.insert(place, around.map(|(at, _)| PackageId::new(at)));
        }
        let module = |place: &&str| Module {
            path: (*place).to_owned(),
            package: packages.get(place).copied().flatten(),
            format: Some(ModuleFormat::Es),
            ..Module::default()
        };
        let numbers = Numbers::with(record, kept.iter().map(module).collect());
        graph.renumber(&numbers);
        let number = |place: &str| {
            let package = packages.get(place).copied().flatten();
            let found = record
                .modules
                .binary_search_by(|module| (&*module.path, module.package).cmp(&(place, package)));
            found.ok().map(ModuleId::new)
        };
        for place in kept.iter().copied() {
            let Some(id) = number(place) else { continue };
            for ask in &self.0[place].asked_by {
                let (from, kind) = (numbers.now(ask.from), ask.kind);
                let (request, names) = (Some(ask.request.clone()), ask.names.clone());
                let basis = EdgeBasis::Parsed;
                graph.edges.insert(Edge { from, to: id, kind, request, names, basis });
            }
            for (step, target) in &edges[place] {
                let to = match target {
                    Target::Module(to) => Some(numbers.now(*to)),
                    Target::File(place) => number(place).filter(|_| kept.contains(place.as_str())),
                };
                let Some(to) = to.filter(|to| *to != id) else { continue };
                let (request, names) = (step.request.clone(), step.names.clone());
                let (kind, basis) = (EdgeKind::Reexport, EdgeBasis::Inferred);
                graph.edges.insert(Edge { from: id, to, kind, request, names, basis });
            }
        }
        numbers
    }
}

/// The files that lead to a module, themselves or by others.
fn leading<'p>(edges: &BTreeMap<&'p str, Vec<(&Step, Target)>>) -> BTreeSet<&'p str> {
    let mut kept: BTreeSet<&str> = BTreeSet::new();
    loop {
        let leads = |place: &&&'p str| {
            !kept.contains(**place)
                && edges[**place].iter().any(|(_, to)| match to {
                    Target::Module(_) => true,
                    Target::File(next) => kept.contains(next.as_str()),
                })
        };
        let more: Vec<&'p str> = edges.keys().filter(leads).copied().collect();
        if more.is_empty() {
            return kept;
        }
        kept.extend(more);
    }
}

/// Whether a file is no installed one.
pub fn is_own(place: &str) -> bool {
    !place.split('/').any(|part| part == "node_modules")
}
