//! The modules and packages of a build, by the names that source maps and the bundler give them.

use std::{
    borrow::Cow,
    collections::{BTreeMap, BTreeSet, HashMap},
    path::Path,
};

use uvlet_record::{Facet, Module, ModuleId, Owner, Package, PackageId, glob::Glob, path};

use crate::assemble::{foreign_sources, inspect::Inspected, older_sources};
use crate::{
    descriptions::described::{Described, DescribedId, DescribedModule},
    files::source_map::Source,
    project::{
        locks::Locked,
        packages::{self, Workspaces},
        source_names::{self, Installed, Location, Named},
    },
};

/// Modules and packages of a build, and who each source of each file is.
pub struct Modules {
    /// By path, then by package.
    pub list: Vec<Module>,
    /// By name, then by place.
    pub packages: Vec<Package>,
    /// Per module that the bundler names.
    pub described: Vec<Owner>,
    /// Per file and source of its map.
    pub sources: Vec<Vec<Owner>>,
}

impl Modules {
    /// Who a source of a file's map is.
    pub fn source(&self, file: usize, source: usize) -> Owner {
        let owners = self.sources.get(file);
        owners.and_then(|owners| owners.get(source)).copied().unwrap_or(Owner::Glue)
    }

    /// The module that the bundler speaks of by this number.
    pub fn module(&self, described: DescribedId) -> Option<ModuleId> {
        match self.described.get(described.0) {
            Some(Owner::Module(id)) => Some(*id),
            _ => None,
        }
    }
}

/// What modules are named by.
#[derive(Clone, Copy)]
pub struct Naming<'a> {
    pub inspected: &'a [Inspected],
    pub described: Option<&'a Described>,
    /// Paths of the files.
    pub paths: &'a [&'a str],
    /// The project's folder.
    pub root: Option<&'a Path>,
    /// Packages that are declared own.
    pub own: &'a [Glob],
}

/// What tells a module from all others: its path, and the place of its package.
type Key<'n> = (Cow<'n, str>, Option<&'n str>);

/// A list of sources, with the folder that they are relative to.
type Sources<'a> = (&'a [Source], &'a str);

/// What is gathered of a module from all who name it.
#[derive(Default)]
struct Gathered {
    written: Option<String>,
    ignored: bool,
    bytes: Option<u64>,
    older_sources: BTreeSet<String>,
}

impl Naming<'_> {
    /// Names every source of every map, and every module that the bundler names.
    pub fn modules(self) -> Modules {
        let said = self.described.iter().flat_map(|described| &described.modules);
        let said: Vec<Source> = said
            .map(|module| Source { raw: Some(module.raw.clone()), ..Source::default() })
            .collect();
        // The bundler's list comes last.
        let mapped = self.inspected.iter().map(|file| file.mapped.as_ref());
        let lists: Vec<Sources<'_>> = mapped
            .map(|map| {
                map.map_or((&[][..], ""), |map| (map.sources.as_slice(), map.folder.as_str()))
            })
            .chain([(said.as_slice(), "")])
            .collect();
        let mut named = named(&lists, &project(&lists, self.root));
        place_by_project(&lists[..self.inspected.len()], &mut named, self.root);
        let tied = self
            .described
            .map(|described| older_sources::tie(described, &mut named, self.paths, self.root));
        let tied = tied.unwrap_or_default();
        let workspaces =
            self.root.map(|root| place_in_workspaces(&mut named, root)).unwrap_or_default();
        foreign_sources::place(&mut named, self.inspected, self.root);
        tell_installs_apart(&mut named);
        let keys = Keys { clashing: clashing(&named[..self.inspected.len()]) };
        let packages = self.packages(&named, &workspaces);
        let found = gather(&lists, &named, &keys, &tied);
        let ids: HashMap<Key<'_>, ModuleId> =
            found.keys().enumerate().map(|(at, key)| (key.clone(), ModuleId::new(at))).collect();
        let owner = |named: &Option<Named>| match named {
            Some(named) if named.glue => Owner::Glue,
            Some(named) => {
                ids.get(&keys.of(named)).map_or(Owner::Unattributed, |&id| Owner::Module(id))
            }
            None => Owner::Unattributed,
        };
        let mut sources: Vec<Vec<Owner>> =
            named.iter().map(|sources| sources.iter().map(owner).collect()).collect();
        let described = sources.pop().unwrap_or_default();
        let mut list = list(&found, &packages);
        if let Some(said) = self.described {
            add(&mut list, &said.modules, &described);
        }
        Modules { list, packages, described, sources }
    }

    fn packages(
        &self,
        named: &[Vec<Option<Named>>],
        workspaces: &BTreeSet<String>,
    ) -> Vec<Package> {
        let mut installed: BTreeMap<(&str, &str), &Installed> = BTreeMap::new();
        let all = named.iter().flatten().flatten();
        for package in all.filter_map(|named| named.package.as_ref()) {
            installed.entry((&package.name, &package.place)).or_insert(package);
        }
        let locked = self.root.map(Locked::under).unwrap_or_default();
        let package = |package: &&Installed| {
            let is_own = self.own.iter().any(|glob| glob.is_match(&package.name));
            let own = is_own || workspaces.contains(&package.place);
            Package { own, ..packages::package(package, self.root, &locked) }
        };
        installed.values().map(package).collect()
    }
}

fn named(lists: &[Sources<'_>], project: &str) -> Vec<Vec<Option<Named>>> {
    let of_list = |(sources, folder): &Sources<'_>| {
        let name = |source: &Source| {
            let location = Location { source_root: &source.root, folder, project };
            source.raw.as_deref().map(|raw| source_names::name(raw, &location))
        };
        sources.iter().map(name).collect()
    };
    lists.iter().map(of_list).collect()
}

/// Names that stand for the project's files although they are written as if those lay beside the map:
/// `pages/Home.js` of `src/pages/Home.js`, where `../node_modules/…` is the project's.
fn place_by_project(lists: &[Sources<'_>], named: &mut [Vec<Option<Named>>], root: Option<&Path>) {
    let raw = |source: &Source| source.raw.clone().filter(|_| source.root.is_empty());
    let is_beside = |raw: &str| !raw.starts_with("../") && source_names::is_plain(raw);
    // A bundler's runtime is no file: whatever its name climbs out of is no folder of the output.
    let is_off =
        lists.iter().flat_map(|(sources, _)| *sources).filter_map(raw).any(|raw| {
            raw.strip_prefix("../").is_some_and(|inside| inside.starts_with("webpack/"))
        });
    for (source, named) in
        lists.iter().flat_map(|(sources, _)| *sources).zip(named.iter_mut().flatten())
    {
        let (Some(raw), Some(named)) = (raw(source).filter(|raw| is_beside(raw)), named) else {
            continue;
        };
        if named.glue || named.package.is_some() {
            continue;
        }
        let is_file = |path: &str| root.is_some_and(|root| root.join(path).is_file());
        let path = path::resolve(&raw);
        let below = format!("src/{path}");
        let placed = [&named.path, &path, &below].into_iter().find(|path| is_file(path)).cloned();
        if let Some(placed) = placed.or_else(|| is_off.then_some(path)) {
            named.path = placed;
            named.above.clear();
        }
    }
}

/// How modules are told apart.
struct Keys {
    /// The bundler's names may be relative to another folder, which makes no other file of them.
    clashing: BTreeSet<String>,
}

impl Keys {
    fn of<'n>(&self, named: &'n Named) -> Key<'n> {
        let place = named.package.as_ref().map(|package| package.place.as_str());
        if place.is_none() && self.clashing.contains(&named.path) {
            return (format!("{}{}", named.above, named.path).into(), place);
        }
        (named.path.as_str().into(), place)
    }
}

fn gather<'n>(
    lists: &[Sources<'_>],
    named: &'n [Vec<Option<Named>>],
    keys: &Keys,
    tied: &HashMap<(usize, usize), String>,
) -> BTreeMap<Key<'n>, Gathered> {
    let mut found: BTreeMap<Key<'n>, Gathered> = BTreeMap::new();
    for (at, ((sources, _), named)) in lists.iter().zip(named).enumerate() {
        for (index, (source, named)) in sources.iter().zip(named).enumerate() {
            let Some(named) = named.as_ref().filter(|named| is_module(named)) else { continue };
            let module = found.entry(keys.of(named)).or_default();
            module.ignored |= source.ignored || named.third_party;
            if module.written.is_none() {
                let raw = source.raw.as_ref().filter(|raw| raw.contains(['!', '?', '\0']));
                module.written = raw.map(|raw| raw.replace('\0', ""));
            }
            match tied.get(&(at, index)) {
                Some(older) => _ = module.older_sources.insert(older.clone()),
                None => module.bytes = module.bytes.max(source.bytes),
            }
        }
    }
    found
}

fn list(found: &BTreeMap<Key<'_>, Gathered>, packages: &[Package]) -> Vec<Module> {
    let ids: HashMap<&str, PackageId> =
        packages.iter().enumerate().map(|(at, p)| (p.place.as_str(), PackageId::new(at))).collect();
    let module = |((path, place), gathered): (&Key<'_>, &Gathered)| {
        let package = place.and_then(|place| ids.get(place).copied());
        Module {
            path: path.clone().into_owned(),
            written: gathered.written.clone(),
            package,
            third_party: package.map_or(gathered.ignored, |id| !packages[id.at()].own),
            source_bytes: gathered.bytes,
            older_sources: gathered.older_sources.iter().cloned().collect(),
            ..Module::default()
        }
    };
    found.iter().map(module).collect()
}

/// Adds what the bundler says of modules. What it says of a plugin's view on one
/// (`\0lib.js?commonjs-exports`) is kept apart, and stands for the module only where nothing is said
/// of that.
fn add(list: &mut [Module], said: &[DescribedModule], owners: &[Owner]) {
    let is_facet = |module: &DescribedModule| module.raw.contains(['\0', '?']);
    let ids = |said: DescribedId| match owners.get(said.0) {
        Some(Owner::Module(id)) => Some(*id),
        _ => None,
    };
    let mut is_known = vec![false; list.len()];
    for facets in [false, true] {
        for (at, said) in said.iter().enumerate().filter(|(_, said)| is_facet(said) == facets) {
            let Some(id) = ids(DescribedId(at)) else { continue };
            let module = &mut list[id.at()];
            if facets && is_known[id.at()] {
                let name = said.raw.replace('\0', "");
                module.facets.push(Facet { name, exports: said.provides.clone() });
                continue;
            }
            is_known[id.at()] |= !facets;
            take(module, said);
            let merged = said.merged_into.and_then(ids).filter(|other| *other != id);
            module.merged_into = module.merged_into.or(merged);
        }
    }
    for module in list {
        module.facets.sort();
        module.facets.dedup();
    }
}

/// The first that says something counts.
fn take(module: &mut Module, said: &DescribedModule) {
    module.external |= said.external;
    module.format = module.format.or(said.format);
    module.source_bytes = module.source_bytes.or(said.bytes);
    module.exports = module.exports.take().or_else(|| said.provides.clone());
    module.used = module.used.take().or_else(|| said.used.clone());
    module.dropped = module.dropped.take().or_else(|| said.dropped.clone());
    module.side_effects = module.side_effects.or(said.side_effects);
    if module.bailouts.is_empty() {
        module.bailouts.clone_from(&said.bailouts);
    }
}

/// Gives own modules the workspace package around them; returns the places of these.
fn place_in_workspaces(named: &mut [Vec<Option<Named>>], root: &Path) -> BTreeSet<String> {
    let mut workspaces = Workspaces::under(root);
    let mut places = BTreeSet::new();
    for named in named.iter_mut().flatten().flatten() {
        if named.package.is_none() && is_module(named) {
            named.package = workspaces.around(&named.path);
            places.extend(named.package.iter().map(|package| package.place.clone()));
        }
    }
    places
}

/// Where two installs of a package have the same place but for what leads above the project, that
/// becomes a part of their places.
fn tell_installs_apart(named: &mut [Vec<Option<Named>>]) {
    let mut above: BTreeMap<String, BTreeSet<String>> = BTreeMap::new();
    let files = named.len().saturating_sub(1);
    // The bundler's names may be relative to another folder.
    for package in named[..files].iter().flatten().flatten().filter_map(|n| n.package.as_ref()) {
        above.entry(package.place.clone()).or_default().insert(package.above.clone());
    }
    above.retain(|_, above| above.len() > 1);
    if above.is_empty() {
        return;
    }
    for package in named.iter_mut().flatten().flatten().filter_map(|n| n.package.as_mut()) {
        if above.contains_key(&package.place) && !package.above.is_empty() {
            package.place = format!("{}/{}", package.above, package.place);
        }
    }
}

fn is_module(named: &Named) -> bool {
    !named.glue && !named.path.is_empty()
}

fn project(lists: &[Sources<'_>], root: Option<&Path>) -> String {
    let sources = lists.iter().flat_map(|(sources, _)| *sources);
    let absolutes: BTreeSet<String> =
        sources.filter_map(|source| source_names::absolute(source.raw.as_deref()?)).collect();
    let stated = root.and_then(|root| root.canonicalize().ok());
    let stated = stated.map(|root| root.to_string_lossy().into_owned());
    match stated {
        Some(root) if absolutes.iter().any(|path| path.starts_with(&format!("{root}/"))) => root,
        _ => source_names::project_of(absolutes.iter().map(String::as_str)).unwrap_or_default(),
    }
}

/// Own paths that two different files would share without their `../`.
fn clashing(named: &[Vec<Option<Named>>]) -> BTreeSet<String> {
    let mut above: BTreeMap<&str, BTreeSet<&str>> = BTreeMap::new();
    for named in named.iter().flatten().flatten() {
        if named.package.is_none() && is_module(named) {
            above.entry(&named.path).or_default().insert(&named.above);
        }
    }
    above
        .into_iter()
        .filter(|(_, above)| above.len() > 1)
        .map(|(path, _)| path.to_owned())
        .collect()
}
