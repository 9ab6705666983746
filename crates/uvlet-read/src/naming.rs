//! The modules and packages of a build, by the names that source maps and the bundler give them.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    path::Path,
};

use uvlet_record::{
    Edge, Module, ModuleId, Owner, Package, PackageId,
    glob::Glob,
    path::{self, Installed, Location, Named},
};

use crate::{
    examine::Examined,
    locks::Locked,
    older, packages,
    sourcemaps::Source,
    told::{Told, ToldModule},
};

/// Modules and packages of a build, and who each source of each file is.
pub struct Names {
    /// By path, then by package.
    pub modules: Vec<Module>,
    /// By name, then by place.
    pub packages: Vec<Package>,
    /// Per module, if texts are kept.
    pub texts: Vec<Option<String>>,
    /// Per module that the bundler names.
    pub told: Vec<Owner>,
    /// Per file and source of its map.
    owners: Vec<Vec<Owner>>,
}

impl Names {
    /// Who a source of a file's map is.
    pub fn source(&self, file: usize, source: usize) -> Owner {
        let owners = self.owners.get(file);
        owners.and_then(|owners| owners.get(source)).copied().unwrap_or(Owner::Glue)
    }

    /// The module that the bundler speaks of by this number.
    pub fn module(&self, told: usize) -> Option<ModuleId> {
        match self.told.get(told) {
            Some(Owner::Module(id)) => Some(*id),
            _ => None,
        }
    }
}

/// What tells a module from all others: its path, and the place of its package.
type Key = (String, Option<String>);

/// What is gathered of a module from all who name it.
#[derive(Default)]
struct Gathered {
    ignored: bool,
    bytes: Option<u64>,
    parts: BTreeSet<String>,
}

/// Names every source of every map, and every module that the bundler names.
pub fn names(
    examined: &[Examined],
    told: Option<&Told>,
    paths: &[&str],
    root: Option<&Path>,
    own: &[Glob],
) -> Names {
    let said: Vec<Source> = told
        .iter()
        .flat_map(|told| &told.modules)
        .map(|module| Source { raw: Some(module.raw.clone()), ..Source::default() })
        .collect();
    // Every list of sources, with the folder that they are relative to; the bundler's comes last.
    let lists: Vec<(&[Source], &str)> = examined
        .iter()
        .map(|file| file.owned.as_ref())
        .map(|owned| owned.map_or((&[][..], ""), |o| (o.sources.as_slice(), o.folder.as_str())))
        .chain([(said.as_slice(), "")])
        .collect();
    let project = project(&lists, root);
    let mut named: Vec<Vec<Option<Named>>> = lists
        .iter()
        .map(|(sources, folder)| {
            let name = |source: &Source| {
                let location = Location { source_root: &source.root, folder, project: &project };
                source.raw.as_deref().map(|raw| path::name(raw, &location))
            };
            sources.iter().map(name).collect()
        })
        .collect();
    let tied = told.map(|told| older::tie(told, &mut named, paths, root)).unwrap_or_default();
    let workspaces = root.map(|root| place_in_workspaces(&mut named, root)).unwrap_or_default();
    tell_installs_apart(&mut named);
    // The bundler's names may be relative to another folder, which makes no other file of them.
    let clashing = clashing(&named[..examined.len()]);
    let key = |named: &Named| -> Key {
        let place = named.package.as_ref().map(|package| package.place.clone());
        if place.is_none() && clashing.contains(&named.path) {
            return (format!("{}{}", named.above, named.path), place);
        }
        (named.path.clone(), place)
    };
    let mut installed: BTreeMap<(&str, &str), &Installed> = BTreeMap::new();
    for package in named.iter().flatten().flatten().filter_map(|named| named.package.as_ref()) {
        installed.entry((&package.name, &package.place)).or_insert(package);
    }
    let locked = root.map(Locked::under).unwrap_or_default();
    let packages: Vec<Package> = installed
        .values()
        .map(|package| Package {
            name: package.name.clone(),
            place: package.place.clone(),
            version: packages::version(package, root, &locked),
            own: own.iter().any(|glob| glob.is_match(&package.name))
                || workspaces.contains(&package.place),
        })
        .collect();
    let package_ids: HashMap<&str, PackageId> =
        packages.iter().enumerate().map(|(at, p)| (p.place.as_str(), PackageId::new(at))).collect();
    let mut found: BTreeMap<Key, Gathered> = BTreeMap::new();
    for (at, ((sources, _), named)) in lists.iter().zip(&named).enumerate() {
        for (index, (source, named)) in sources.iter().zip(named).enumerate() {
            if let Some(named) = named.as_ref().filter(|named| is_module(named)) {
                let module = found.entry(key(named)).or_default();
                module.ignored |= source.ignored || named.third_party;
                match tied.get(&(at, index)) {
                    Some(part) => _ = module.parts.insert(part.clone()),
                    None => module.bytes = module.bytes.max(source.bytes),
                }
            }
        }
    }
    let ids: HashMap<&Key, ModuleId> =
        found.keys().enumerate().map(|(at, key)| (key, ModuleId::new(at))).collect();
    let mut texts = vec![None; found.len()];
    for (at, ((sources, _), named)) in lists.iter().zip(&named).enumerate() {
        for (index, (source, named)) in sources.iter().zip(named).enumerate() {
            let id = named.as_ref().and_then(|named| ids.get(&key(named)));
            if let (Some(id), Some(text), None) = (id, &source.text, tied.get(&(at, index))) {
                texts[id.at()] = Some(text.clone());
            }
        }
    }
    let owner = |named: &Option<Named>| match named {
        Some(named) if named.glue => Owner::Glue,
        Some(named) => ids.get(&key(named)).map_or(Owner::Unattributed, |&id| Owner::Module(id)),
        None => Owner::Unattributed,
    };
    let mut owners: Vec<Vec<Owner>> =
        named.iter().map(|sources| sources.iter().map(owner).collect()).collect();
    let told_owners = owners.pop().unwrap_or_default();
    let mut modules: Vec<Module> = found
        .iter()
        .map(|((path, place), gathered)| {
            let package = place.as_deref().and_then(|place| package_ids.get(place).copied());
            Module {
                path: path.clone(),
                package,
                third_party: package.map_or(gathered.ignored, |id| !packages[id.at()].own),
                source_bytes: gathered.bytes,
                external: false,
                parts: gathered.parts.iter().cloned().collect(),
                exports: None,
                used: None,
                bailouts: Vec::new(),
            }
        })
        .collect();
    let said = || told.iter().flat_map(|told| &told.modules).zip(&told_owners);
    let mut is_known = vec![false; modules.len()];
    for facets in [false, true] {
        for (said, owner) in said().filter(|(said, _)| is_facet(&said.raw) == facets) {
            if let Owner::Module(id) = *owner
                && !(facets && is_known[id.at()])
            {
                is_known[id.at()] |= !facets;
                add(&mut modules[id.at()], said);
            }
        }
    }
    Names { modules, packages, texts, told: told_owners, owners }
}

/// Whether a name is that of a plugin's view on a module (`\0lib.js?commonjs-exports`): what is said
/// of the view is not said of the module.
fn is_facet(raw: &str) -> bool {
    raw.contains(['\0', '?'])
}

/// Adds what the bundler says of a module, the first that says something.
fn add(module: &mut Module, said: &ToldModule) {
    module.external |= said.external;
    module.source_bytes = module.source_bytes.or(said.bytes);
    module.exports = module.exports.take().or_else(|| said.provides.clone());
    module.used = module.used.take().or_else(|| said.used.clone());
    if module.bailouts.is_empty() {
        module.bailouts.clone_from(&said.bailouts);
    }
}

/// The bundler's edges between modules of the record.
pub fn edges(told: &Told, names: &Names) -> Vec<Edge> {
    let mut edges: Vec<Edge> = told
        .edges
        .iter()
        .filter_map(|edge| {
            let (from, to) = (names.module(edge.from)?, names.module(edge.to)?);
            Some(Edge { from, to, kind: edge.kind, request: edge.request.clone() })
        })
        .filter(|edge| edge.from != edge.to)
        .collect();
    edges.sort_unstable();
    edges.dedup();
    edges
}

/// Gives own modules the workspace package around them; returns the places of these.
fn place_in_workspaces(named: &mut [Vec<Option<Named>>], root: &Path) -> BTreeSet<String> {
    let mut workspaces = packages::Workspaces::under(root);
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

fn project(lists: &[(&[Source], &str)], root: Option<&Path>) -> String {
    let sources = lists.iter().flat_map(|(sources, _)| *sources);
    let absolutes: BTreeSet<String> =
        sources.filter_map(|source| path::absolute(source.raw.as_deref()?)).collect();
    let stated = root.and_then(|root| root.canonicalize().ok());
    let stated = stated.map(|root| root.to_string_lossy().into_owned());
    match stated {
        Some(root) if absolutes.iter().any(|path| path.starts_with(&format!("{root}/"))) => root,
        _ => path::project_of(absolutes.iter().map(String::as_str)).unwrap_or_default(),
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
