//! Which module of the build a request means.
//!
//! Relative ones with the endings and index files that bundlers try; packages by what is installed,
//! else by a plain subpath; aliases by the longest tail that exactly one module has.

use std::{
    borrow::Cow,
    collections::{HashMap, HashSet},
    path::Path,
};

use uvlet_record::{ModuleFormat, ModuleId, PackageId, Record, path};
use uvlet_script::requests::{Kind, Request};

use super::{
    installed::{ENDINGS, Installed},
    places::Places,
    sources::SourceFacts,
};

/// What a request means.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Meant {
    /// A module of the build.
    Module(ModuleId),
    /// A module that left nothing in the build.
    Gone(Gone),
    /// A file on disk of a package that left nothing in the build.
    Lost(String),
    /// Something that is loaded from elsewhere, or of which no trace is in the build.
    Elsewhere,
    /// It cannot be told.
    Unknown,
}

impl Meant {
    /// The file on disk that is meant and left nothing in the build.
    pub fn vanished_file(&self) -> Option<&str> {
        match self {
            Self::Gone(gone) => gone.location.as_deref(),
            Self::Lost(location) => Some(location),
            Self::Module(_) | Self::Elsewhere | Self::Unknown => None,
        }
    }
}

/// A module that left nothing in the build.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Gone {
    /// Where it lies in the project, if that is known from disk.
    pub location: Option<String>,
    /// The package that it is in; none of own code.
    pub package: Option<PackageId>,
    /// Its path without an ending, or the folder that it is the index of.
    pub stem: String,
    /// The module that is meant if disk holds another edition than the build.
    pub instead: Option<ModuleId>,
}

/// Finds modules by request.
pub struct Resolver<'r> {
    pub(super) record: &'r Record,
    locations: Vec<Cow<'r, str>>,
    by_location: HashMap<&'r str, ModuleId>,
    extra: HashMap<String, ModuleId>,
    /// Folders that hold modules, themselves or below them.
    folders: HashSet<String>,
    places: Places<'r>,
    pub(super) packages: HashMap<&'r str, Vec<PackageId>>,
    pub(super) modules_of: Vec<Vec<ModuleId>>,
    /// Own modules by the last part of their path, without its ending.
    own: HashMap<String, Vec<ModuleId>>,
    /// Per package, the modules that no other module of it asks for.
    pub(super) heads: Vec<Vec<ModuleId>>,
    installed: Option<Installed>,
}

impl<'r> Resolver<'r> {
    pub fn new(record: &'r Record, facts: &[Option<SourceFacts>], root: Option<&Path>) -> Self {
        let ids = || (0..record.modules.len()).map(ModuleId::new);
        let locations: Vec<Cow<'r, str>> = ids().map(|id| record.location_of(id)).collect();
        let mut by_location = HashMap::new();
        let mut extra = HashMap::new();
        let mut modules_of = vec![Vec::new(); record.packages.len()];
        let mut own: HashMap<String, Vec<ModuleId>> = HashMap::new();
        for id in ids().filter(|id| !record.module(*id).external) {
            match &locations[id.at()] {
                Cow::Borrowed(location) => _ = by_location.insert(*location, id),
                Cow::Owned(location) => _ = extra.insert(location.clone(), id),
            }
            match record.module(id).package {
                Some(package) => modules_of[package.at()].push(id),
                None => own.entry(tail(&locations[id.at()]).to_owned()).or_default().push(id),
            }
        }
        let mut packages: HashMap<&str, Vec<PackageId>> = HashMap::new();
        for (at, package) in record.packages.iter().enumerate() {
            packages.entry(&package.name).or_default().push(PackageId::new(at));
        }
        let mut folders: HashSet<String> = HashSet::new();
        for location in &locations {
            let mut around = folder(location);
            while !around.is_empty() && folders.insert(around.to_owned()) {
                around = folder(around);
            }
        }
        let heads = vec![Vec::new(); record.packages.len()];
        let installed = Installed::under(root);
        let mut resolver = Self {
            record,
            locations,
            by_location,
            extra,
            folders,
            places: Places::of(&record.packages),
            packages,
            modules_of,
            own,
            heads,
            installed,
        };
        resolver.heads = resolver.find_heads(facts);
        resolver
    }

    /// The innermost package around a file.
    pub fn package_around(&self, location: &str) -> Option<PackageId> {
        self.places.around(location)
    }

    /// Whether modules lie in a folder.
    pub fn is_folder(&self, path: &str) -> bool {
        self.folders.contains(path)
    }

    /// Where a module lies, from the project's folder.
    pub fn path(&self, id: ModuleId) -> &str {
        &self.locations[id.at()]
    }

    /// What a request of a module means.
    pub fn resolve(&self, from: ModuleId, ask: &Request) -> Meant {
        self.resolve_in(folder(self.path(from)), self.record.module(from).package, ask)
    }

    /// What a request means that stands in a file of this folder and package.
    pub fn resolve_in(&self, folder: &str, package: Option<PackageId>, ask: &Request) -> Meant {
        let specifier = plain(&ask.specifier);
        if specifier.is_empty() || has_scheme(specifier) {
            return Meant::Elsewhere;
        }
        if specifier.starts_with('.') {
            let stem = path::resolve(&format!("{folder}/{specifier}"));
            let stem = stem.trim_start_matches("../").trim_start_matches('/');
            if let Some(id) = self.at(stem) {
                return Meant::Module(id);
            }
            if let Some(meant) = self.on_disk(folder, specifier, ask.kind) {
                return meant;
            }
            // A folder for Node.js often has one for browsers beside it, which stands in for it.
            let is_node = stem.ends_with("/node") || stem.ends_with("/node/index.js");
            let swapped = is_node.then(|| stem.replace("/node", "/browser"));
            if let Some(id) = swapped.and_then(|stem| self.at(&stem)) {
                return Meant::Module(id);
            }
            let stem = without_ending(stem).to_owned();
            return Meant::Gone(Gone { location: None, package, stem, instead: None });
        }
        let on_disk = self.on_disk(folder, specifier, ask.kind);
        if let Some(Meant::Module(_)) = on_disk {
            return on_disk.unwrap_or(Meant::Unknown);
        }
        match (self.bare(folder, specifier, ask), on_disk) {
            (Meant::Module(id), Some(Meant::Gone(gone))) => {
                Meant::Gone(Gone { instead: Some(id), ..gone })
            }
            // Another install of it, which the asking file does not see, is in the build.
            (Meant::Module(id), Some(Meant::Lost(location))) if !self.sees(folder, id) => {
                Meant::Lost(location)
            }
            (Meant::Gone(gone), on_disk) => on_disk.unwrap_or(Meant::Gone(gone)),
            (Meant::Elsewhere | Meant::Unknown, on_disk) => {
                let aliased = self.aliased(specifier);
                aliased.or(on_disk).unwrap_or(Meant::Elsewhere)
            }
            (meant, _) => meant,
        }
    }

    /// The library that elements become calls of, if it is in the build.
    pub fn elements(&self, from: ModuleId, library: Option<&str>) -> Option<ModuleId> {
        let usual = ["react", "preact", "solid-js", "@emotion/react"];
        let libraries = library.map_or_else(|| usual.to_vec(), |library| vec![library]);
        libraries.iter().find_map(|library| {
            let specifier = format!("{library}/jsx-runtime");
            let ask = Request::plain(specifier, Kind::Import);
            match self.resolve(from, &ask) {
                Meant::Module(id) => Some(id),
                _ => None,
            }
        })
    }

    /// The library that a component's compiler has its script import, if it is in the build.
    pub fn of_component(&self, from: ModuleId) -> Option<ModuleId> {
        let library = match self.path(from).rsplit_once('.')?.1 {
            "vue" => "vue",
            "svelte" => "svelte/internal/client",
            _ => return None,
        };
        match self.resolve(from, &Request::plain(library.to_owned(), Kind::Import)) {
            Meant::Module(id) => Some(id),
            _ => None,
        }
    }

    /// What disk says; a file that the build does not hold is gone.
    fn on_disk(&self, folder: &str, specifier: &str, kind: Kind) -> Option<Meant> {
        let location = self.installed.as_ref()?.resolve(folder, specifier, kind)?;
        Some(match self.exactly(&location) {
            Some(id) => Meant::Module(id),
            None => {
                let package = self.places.around(&location);
                if package.is_none() && location.contains("node_modules/") {
                    return Some(Meant::Lost(location));
                }
                let stem = without_ending(&location).to_owned();
                Meant::Gone(Gone { location: Some(location), package, stem, instead: None })
            }
        })
    }

    /// A file of the project on disk.
    pub fn disk(&self, location: &str) -> Option<std::path::PathBuf> {
        self.installed.as_ref()?.disk(location)
    }

    fn exactly(&self, location: &str) -> Option<ModuleId> {
        self.by_location.get(location).or_else(|| self.extra.get(location)).copied()
    }

    /// The module at a path to which an ending or an index may be added, or whose ending stands for
    /// that of the source.
    pub(super) fn at(&self, stem: &str) -> Option<ModuleId> {
        let is_module = |id: &ModuleId| self.record.module(*id).format != Some(ModuleFormat::Style);
        if let Some(id) = self.exactly(stem) {
            return Some(id);
        }
        let added =
            |stem: &str| ENDINGS.iter().find_map(|ending| self.exactly(&format!("{stem}{ending}")));
        let swapped = || {
            let (stem, ending) = stem.rsplit_once('.')?;
            let sources: &[&str] = match ending {
                "js" => &["ts", "tsx"],
                "jsx" => &["tsx"],
                "mjs" => &["mts"],
                "cjs" => &["cts"],
                _ => return None,
            };
            sources.iter().find_map(|ending| self.exactly(&format!("{stem}.{ending}")))
        };
        let stem = stem.trim_end_matches('/');
        let found = added(stem).or_else(swapped);
        found.or_else(|| added(&format!("{stem}/index")).filter(is_module))
    }

    /// The own module, or the own folder whose index is gone, that the longest tail of an aliased path
    /// is the tail of, if exactly one is.
    fn aliased(&self, specifier: &str) -> Option<Meant> {
        let is_marked = specifier.starts_with(['@', '~', '#']);
        let mut rest = specifier.trim_start_matches(['@', '~', '#', '/']);
        loop {
            let stem = without_ending(rest);
            for stem in [stem.to_owned(), format!("{stem}/index")] {
                let last = stem.rsplit('/').next().unwrap_or(&stem);
                let ends = |id: &&ModuleId| ends_with(without_ending(self.path(**id)), &stem);
                let mut found = self.own.get(last).into_iter().flatten().filter(ends);
                match (found.next(), found.next()) {
                    (Some(only), None) => return Some(Meant::Module(*only)),
                    (Some(_), Some(_)) => return None,
                    _ => {}
                }
            }
            if is_marked && let Some(folder) = self.own_folder(stem) {
                let stem = folder.to_owned();
                return Some(Meant::Gone(Gone {
                    location: None,
                    package: None,
                    stem,
                    instead: None,
                }));
            }
            // One word alone is a package's name more often than a file's.
            rest = rest.split_once('/')?.1;
            if !rest.contains('/') && !is_marked {
                return None;
            }
        }
    }

    /// The one folder of own code with this tail.
    fn own_folder(&self, tail: &str) -> Option<&str> {
        let own = self.own.values().flatten().map(|id| self.path(*id));
        let folders = own.flat_map(|path| {
            std::iter::successors(Some(folder(path)), |around| {
                Some(folder(around)).filter(|around| !around.is_empty())
            })
        });
        let mut found: Vec<&str> = folders.filter(|folder| ends_with(folder, tail)).collect();
        found.sort_unstable();
        found.dedup();
        match found.as_slice() {
            [only] => Some(only),
            _ => None,
        }
    }
}

/// Whether a path has a tail of whole parts.
fn ends_with(path: &str, tail: &str) -> bool {
    path.strip_suffix(tail).is_some_and(|before| before.is_empty() || before.ends_with('/'))
}

/// The folder part of a path.
pub fn folder(path: &str) -> &str {
    path.rsplit_once('/').map_or("", |(folder, _)| folder)
}

/// The last part of a path, without its ending.
pub fn tail(path: &str) -> &str {
    let file = path.rsplit('/').next().unwrap_or(path);
    without_ending(file)
}

/// A path without the ending of a source.
pub fn without_ending(path: &str) -> &str {
    ENDINGS.iter().find_map(|ending| path.strip_suffix(ending)).unwrap_or(path)
}

/// What is requested, without loaders before it and a query behind it.
pub fn plain(specifier: &str) -> &str {
    let specifier = specifier.rsplit('!').next().unwrap_or_default();
    specifier.split('?').next().unwrap_or_default()
}

fn has_scheme(specifier: &str) -> bool {
    specifier.split_once(':').is_some_and(|(scheme, _)| {
        scheme.len() > 1 && scheme.bytes().all(|byte| byte.is_ascii_alphanumeric())
    })
}
