//! Files that left no byte and hand on what others give: they become modules, so that what they draw in
//! can be told, and gone past.

use std::{
    collections::{BTreeMap, BTreeSet},
    path::Path,
};

use uvlet_record::{
    Edge, EdgeBasis, EdgeKind, Module, ModuleFormat, ModuleId, PackageId, Record, path,
};
use uvlet_script::requests::Request;

use crate::{
    assemble::{
        edges::{
            graph::{Graph, kind},
            places::Places,
            sources::declared,
            vanished::walk::{Step, Target},
        },
        numbers::Numbers,
    },
    project::{
        locks::Locked,
        packages,
        source_names::{self, Installed},
    },
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
        if !is_place(place) {
            return;
        }
        let (kind, request) = (kind(ask.kind), ask.specifier.clone());
        let file = self.0.entry(place.to_owned()).or_default();
        file.named.entry(from).or_default().extend(modules);
        file.asked_by.insert(Ask { from, kind, request, names: ask.names.clone() });
        self.lead(steps);
    }

    /// Takes down what such files lead to.
    pub fn lead(&mut self, steps: impl IntoIterator<Item = Step>) {
        for step in steps.into_iter().filter(|step| is_place(&step.from)) {
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

    /// Adds the files to the record as modules, with the edges from and to them. How the modules that
    /// were there are numbered now.
    pub fn add_to(self, record: &mut Record, graph: &mut Graph, root: Option<&Path>) -> Numbers {
        let kept = self.leading();
        add_packages(&kept, record, root);
        let places = Places::of(&record.packages);
        let packages: BTreeMap<&str, Option<PackageId>> =
            kept.iter().map(|&place| (place, places.around(place))).collect();
        let module = |place: &&str| {
            let package = packages.get(place).copied().flatten();
            let known = package.map(|id| &record.packages[id.at()]);
            Module {
                path: path_of(place).to_owned(),
                package,
                third_party: known.map_or(path_of(place) != *place, |package| !package.own),
                format: Some(ModuleFormat::Es),
                side_effects: known.and_then(|package| declared(package, place)),
                ..Module::default()
            }
        };
        let modules = kept.iter().map(module).collect();
        let numbers = Numbers::with(record, modules);
        graph.renumber(&numbers);
        let number = |place: &str| {
            let (path, package) = (path_of(place), packages.get(place).copied().flatten());
            let found = record
                .modules
                .binary_search_by(|module| (&*module.path, module.package).cmp(&(path, package)));
            found.ok().map(ModuleId::new)
        };
        for place in kept.iter().copied() {
            let Some(id) = number(place) else { continue };
            for ask in &self.0[place].asked_by {
                let (from, kind) = (numbers.now(ask.from), ask.kind);
                let (request, names) = (Some(ask.request.clone()), ask.names.clone());
                let basis = EdgeBasis::Read;
                graph.edges.insert(Edge { from, to: id, kind, request, names, basis });
            }
            for step in &self.0[place].steps {
                let to = match &step.to {
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

    /// The files that lead to a module, themselves or by others.
    fn leading(&self) -> BTreeSet<&str> {
        let mut before: BTreeMap<&str, Vec<&str>> = BTreeMap::new();
        let mut open: Vec<&str> = Vec::new();
        for (place, step) in
            self.0.iter().flat_map(|(place, file)| file.steps.iter().map(move |step| (place, step)))
        {
            match &step.to {
                Target::Module(_) => open.push(place),
                Target::File(next) => before.entry(next).or_default().push(place),
            }
        }
        let mut kept: BTreeSet<&str> = BTreeSet::new();
        while let Some(place) = open.pop() {
            if kept.insert(place) {
                open.extend(before.get(place).into_iter().flatten());
            }
        }
        kept
    }
}

/// Characters beyond which no path of a disk goes.
const LONGEST: usize = 4096;

/// Whether a file may become a module: what requests name may be no path at all.
pub fn is_place(place: &str) -> bool {
    place.len() <= LONGEST && path::is_normal(place) && path::resolve(place) == place
}

/// The path of the module that a file becomes: of what is installed, from the first such folder on.
fn path_of(place: &str) -> &str {
    const FOLDER: &str = "node_modules/";
    let starts = place.match_indices(FOLDER).map(|(at, _)| at);
    let first = starts.into_iter().find(|&at| at == 0 || place.as_bytes()[at - 1] == b'/');
    first.map_or(place, |at| &place[at..])
}

/// Puts packages into a record that left no byte but are led through; the others are numbered anew.
fn add_packages(kept: &BTreeSet<&str>, record: &mut Record, root: Option<&Path>) {
    let places = Places::of(&record.packages);
    let lost = kept.iter().filter(|place| places.around(place).is_none());
    let lost: BTreeMap<String, Installed> = lost
        .filter_map(|place| source_names::installed(place))
        .map(|installed| (installed.place.clone(), installed))
        .collect();
    if lost.is_empty() {
        return;
    }
    let locked = root.map(Locked::under).unwrap_or_default();
    let lost = lost.values().map(|one| (None, packages::package(one, root, &locked)));
    let known = std::mem::take(&mut record.packages).into_iter().enumerate();
    let mut all: Vec<_> = known.map(|(at, package)| (Some(at), package)).chain(lost).collect();
    all.sort_by(|(_, one), (_, other)| (&one.name, &one.place).cmp(&(&other.name, &other.place)));
    let now: BTreeMap<usize, PackageId> = all
        .iter()
        .enumerate()
        .filter_map(|(at, (before, _))| Some(((*before)?, PackageId::new(at))))
        .collect();
    for package in record.modules.iter_mut().filter_map(|module| module.package.as_mut()) {
        *package = now[&package.at()];
    }
    record.packages = all.into_iter().map(|(_, package)| package).collect();
}
