//! Requests for packages by their names: by what is installed where, and by plain subpaths.

use uvlet_record::{ModuleId, PackageId, path};
use uvlet_script::requests::Request;

use crate::assemble::edges::{
    resolve::{Gone, Meant, Resolver, folder, tail, without_ending},
    sources::SourceFacts,
};

/// Folders of a package that hold an edition of all of it, rather than a part.
const ROOMS: [&str; 28] = [
    "",
    "src",
    "source",
    "lib",
    "libs",
    "dist",
    "es",
    "esm",
    "es5",
    "es6",
    "es2015",
    "esnext",
    "mjs",
    "cjs",
    "commonjs",
    "umd",
    "js",
    "build",
    "out",
    "module",
    "modules",
    "modern",
    "legacy",
    "browser",
    "production",
    "packages",
    "bundles",
    "fesm2022",
];

impl Resolver<'_> {
    /// A request for a package, by the places of packages and plain subpaths.
    pub(super) fn bare(&self, folder: &str, specifier: &str, ask: &Request) -> Meant {
        let parts = if specifier.starts_with('@') { 2 } else { 1 };
        let end = specifier.match_indices('/').nth(parts - 1).map_or(specifier.len(), |(at, _)| at);
        let (name, inside) = specifier.split_at(end);
        let inside = inside.trim_matches('/');
        let Some(places) = self.packages.get(name) else { return Meant::Elsewhere };
        let Some(package) = self.nearest(folder, name, places) else { return Meant::Unknown };
        let place = self.record.packages[package.at()].place.as_str();
        if inside.is_empty() {
            return self.main(package, ask).map_or_else(
                || {
                    Meant::Gone(Gone {
                        location: None,
                        package: Some(package),
                        stem: place.into(),
                        instead: None,
                    })
                },
                Meant::Module,
            );
        }
        let stem = format!("{place}/{inside}");
        if let Some(id) = self.at(&stem) {
            return Meant::Module(id);
        }
        // What `exports` leads elsewhere mostly ends alike.
        let tails = [format!("/{}", without_ending(inside)), format!("/{inside}/index")];
        let mut ends = self.modules_of[package.at()].iter().filter(|id| {
            let stem = without_ending(self.path(**id));
            tails.iter().any(|tail| stem.ends_with(tail))
        });
        match (ends.next(), ends.next()) {
            (Some(only), None) => Meant::Module(*only),
            _ => {
                let stem = without_ending(&stem).to_owned();
                Meant::Gone(Gone { location: None, package: Some(package), stem, instead: None })
            }
        }
    }

    /// The install of a package that a folder sees.
    fn nearest(&self, folder: &str, name: &str, places: &[PackageId]) -> Option<PackageId> {
        if let [only] = places {
            return Some(*only);
        }
        let ends = folder.rmatch_indices('/').map(|(at, _)| &folder[..at]);
        let around = std::iter::once(folder).chain(ends).chain([""]);
        let place_of = |id: &PackageId| self.record.packages[id.at()].place.as_str();
        around.into_iter().find_map(|around| {
            let place = match around {
                "" => format!("node_modules/{name}"),
                around => format!("{around}/node_modules/{name}"),
            };
            places.iter().copied().find(|id| place_of(id) == place)
        })
    }

    /// Whether files of a folder see the package of a module, by where it is installed.
    pub(super) fn sees(&self, folder: &str, id: ModuleId) -> bool {
        let Some(package) = self.record.package_of(id) else { return true };
        let around = package.place.rfind("node_modules/").map_or("", |at| &package.place[..at]);
        folder.starts_with(around)
    }

    /// The module that a package is asked for by its name alone.
    fn main(&self, package: PackageId, ask: &Request) -> Option<ModuleId> {
        let name = &self.record.packages[package.at()].name;
        let modules = &self.modules_of[package.at()];
        if let [only] = modules.as_slice() {
            return Some(*only);
        }
        let last = name.rsplit('/').next().unwrap_or(name);
        let place = self.record.packages[package.at()].place.as_str();
        let is_usual = |id: &&ModuleId| {
            let path = self.path(**id);
            let inside = path.strip_prefix(place).map(|inside| inside.trim_start_matches('/'));
            let mut folders = folder(inside.unwrap_or_default()).split('/');
            let stem = tail(path);
            let plain = stem.split('.').next().unwrap_or(stem);
            ["index", "main", "module", last].contains(&plain)
                && folders.all(|folder| folder == last || ROOMS.contains(&folder))
        };
        let heads = &self.heads[package.at()];
        let mut usual = heads.iter().filter(is_usual);
        match (usual.next(), usual.next()) {
            (Some(only), None) => Some(*only),
            // A side effect is asked of what alone nobody else asks for.
            (None, None) if ask.names.as_ref().is_some_and(Vec::is_empty) => match heads.as_slice()
            {
                [only] => Some(*only),
                _ => None,
            },
            _ => None,
        }
    }

    /// Per package, the modules that no other module of it asks for by a relative request.
    pub(super) fn find_heads(&self, facts: &[Option<SourceFacts>]) -> Vec<Vec<ModuleId>> {
        let mut is_asked = vec![false; facts.len()];
        for (at, facts) in facts.iter().enumerate() {
            let from = ModuleId::new(at);
            for ask in facts.iter().flat_map(|facts| &facts.requests.asks) {
                if ask.specifier.starts_with('.') {
                    let stem =
                        path::resolve(&format!("{}/{}", folder(self.path(from)), ask.specifier));
                    if let Some(to) = self.at(&stem).filter(|to| *to != from) {
                        is_asked[to.at()] = true;
                    }
                }
            }
        }
        let heads = |modules: &Vec<ModuleId>| {
            modules.iter().copied().filter(|id| !is_asked[id.at()]).collect()
        };
        self.modules_of.iter().map(heads).collect()
    }

    /// Packages that the modules of a package ask for by name.
    pub fn asked_by(&self, package: PackageId, facts: &[Option<SourceFacts>]) -> Vec<PackageId> {
        let modules = self.modules_of[package.at()].iter();
        let asks = modules.flat_map(|id| facts[id.at()].iter());
        let asks = asks.flat_map(|facts| &facts.requests.asks);
        let mut found: Vec<PackageId> = asks
            .filter_map(|ask| self.packages.get(ask.specifier.as_str()))
            .flatten()
            .copied()
            .filter(|other| *other != package)
            .collect();
        found.sort_unstable();
        found.dedup();
        found
    }
}
