//! Sources that the maps of packages name, not the bundler.
//!
//! A package may ship source maps of its own, whose names are relative to its own folders. A bundler
//! that follows such a map writes the name as it stands below the project's root
//! (`webpack://site/../../src/client/index.tsx`), from where it climbs out. Such a source is never the
//! project's, unless it is a file beside the project's folder. Its package is the one among those
//! installed that ships a map with this name and a text of this length; else the one that the code
//! before and behind it in the file is of, or its neighbours by name are; else it stays third-party
//! code of no known package.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    path::{Path, PathBuf},
};

use uvlet_record::path::resolve;
use walkdir::WalkDir;

use super::{
    inspect::Inspected,
    package_maps::{self, ShippedSource, stem},
};
use crate::project::{
    dependencies_of,
    source_names::{Installed, Named},
};

/// Tells the package of every source that climbs out of the project.
pub fn place(named: &mut [Vec<Option<Named>>], inspected: &[Inspected], root: Option<&Path>) {
    let is_foreign = |named: &Named| named.climbs && named.package.is_none();
    if !named.iter().flatten().flatten().any(is_foreign) {
        return;
    }
    let mut shipped = root.map(|root| Shipped::of(root, named));
    for (at, sources) in named.iter_mut().enumerate() {
        let map = inspected.get(at).and_then(|file| file.mapped.as_ref());
        for (index, source) in sources.iter_mut().enumerate() {
            let Some(source) = source.as_mut().filter(|source| is_foreign(source)) else {
                continue;
            };
            let written = format!("{}{}", source.above, source.path);
            if root.is_some_and(|root| root.join(&written).is_file()) {
                (source.climbs, source.third_party) = (false, false);
                continue;
            }
            let bytes = map.and_then(|map| map.sources.get(index)?.bytes);
            if let Some(shipped) = &mut shipped
                && let Some((package, path)) = shipped.find(&source.above, &source.path, bytes)
            {
                (source.package, source.path) = (Some(package), path);
                source.above.clear();
            }
        }
    }
    // By folder: what all of it that is placed is of.
    let mut kin: HashMap<String, Option<Installed>> = HashMap::new();
    for (sources, file) in named.iter_mut().zip(inspected) {
        for (index, package) in between(sources, file) {
            let Some(source) = &mut sources[index] else { continue };
            let known = kin.entry(folder(source)).or_insert_with(|| Some(package.clone()));
            known.take_if(|known| known.place != package.place);
            source.package = Some(package);
        }
    }
    for source in named.iter_mut().flatten().flatten().filter(|source| is_foreign(source)) {
        source.package = kin.get(&folder(source)).cloned().flatten();
    }
}

/// The two upper folders of a source as its map writes it; of one in a single folder, all of its
/// name, as many packages have a folder `src`.
fn folder(source: &Named) -> String {
    let path = match source.path.match_indices('/').nth(1) {
        Some((end, _)) => &source.path[..end],
        None => &source.path,
    };
    format!("{}{path}", source.above)
}

/// The package that the code on both sides of each unplaced source is of, wherever it stands.
fn between(sources: &[Option<Named>], file: &Inspected) -> Vec<(usize, Installed)> {
    let Some(map) = &file.mapped else { return Vec::new() };
    let source = |at: usize| sources.get(at).and_then(Option::as_ref);
    let spans = map.spans.iter().filter_map(|span| span.source).map(|source| source as usize);
    let spans: Vec<usize> = spans.filter(|&at| source(at).is_some_and(|s| !s.glue)).collect();
    let is_open = |at: usize| source(at).is_some_and(|s| s.climbs && s.package.is_none());
    let package = |at: usize| source(at).and_then(|source| source.package.as_ref());
    // Which packages stand around each; a source that others than one stand around is nobody's.
    let mut around: BTreeMap<usize, BTreeSet<Option<&str>>> = BTreeMap::new();
    let mut of_place: HashMap<&str, &Installed> = HashMap::new();
    let mut open: Vec<usize> = Vec::new();
    let mut before: Option<&str> = None;
    for &at in &spans {
        if is_open(at) {
            around.entry(at).or_default().insert(before);
            open.push(at);
            continue;
        }
        before = package(at).map(|package| package.place.as_str());
        of_place.extend(package(at).map(|package| (package.place.as_str(), package)));
        for at in open.drain(..) {
            around.entry(at).or_default().insert(before);
        }
    }
    for at in open {
        around.entry(at).or_default().insert(None);
    }
    let sure = around.into_iter().filter_map(|(at, packages)| {
        let only = packages.first().copied().flatten().filter(|_| packages.len() == 1)?;
        Some((at, (*of_place.get(only)?).clone()))
    });
    sure.collect()
}

/// The maps that installed packages ship.
struct Shipped<'r> {
    root: &'r Path,
    /// The likeliest first.
    packages: Vec<PackageMaps>,
}

struct PackageMaps {
    name: String,
    /// Paths in the package, by how many folders deep they lie; none until they are asked for.
    maps: Option<BTreeMap<usize, Vec<String>>>,
    read: HashMap<String, Vec<ShippedSource>>,
}

impl<'r> Shipped<'r> {
    /// Packages that sources are of, then those that the project depends on, and what these do.
    fn of(root: &'r Path, named: &[Vec<Option<Named>>]) -> Self {
        /// Packages that are looked into.
        const MOST: usize = 1000;
        let seen = named.iter().flatten().flatten().filter_map(|named| named.package.as_ref());
        let seen: BTreeSet<&str> = seen.map(|package| package.name.as_str()).collect();
        let mut names: Vec<String> = seen.into_iter().map(str::to_owned).collect();
        names.extend(dependencies_of(root));
        let mut known = BTreeSet::new();
        names.retain(|name| known.insert(name.clone()));
        let mut next = 0;
        while let Some(name) = names.get(next).filter(|_| names.len() < MOST) {
            let more = dependencies_of(&root.join("node_modules").join(name));
            names.extend(more.into_iter().filter(|name| known.insert(name.clone())));
            next += 1;
        }
        let package = |name| PackageMaps { name, maps: None, read: HashMap::new() };
        Self { root, packages: names.into_iter().map(package).collect() }
    }

    /// The package that ships a map with this source, and the source's path below the project.
    fn find(&mut self, above: &str, path: &str, bytes: Option<u64>) -> Option<(Installed, String)> {
        let root = self.root;
        let found = self.packages.iter_mut().enumerate();
        let mut found =
            found.filter_map(|(at, package)| Some((at, package.find(root, above, path, bytes)?)));
        let (at, path) = found.next()?;
        drop(found);
        // The next one is likely to be of the same package.
        self.packages[..=at].rotate_right(1);
        let name = self.packages[0].name.clone();
        let place = format!("node_modules/{name}");
        Some((Installed { name, place, above: String::new(), version: None }, path))
    }
}

impl PackageMaps {
    fn find(&mut self, root: &Path, above: &str, path: &str, bytes: Option<u64>) -> Option<String> {
        /// Maps without a like name that are read for one source.
        const MOST: usize = 40;
        let folder = root.join("node_modules").join(&self.name);
        let maps = self.maps.get_or_insert_with(|| listed(&folder));
        let ups = above.len() / 3;
        let deep = || maps.range(ups..).flat_map(|(_, maps)| maps);
        let alike = deep().filter(|map| stem(map) == stem(path));
        let here = maps.get(&ups).filter(|maps| maps.len() <= MOST);
        let all: Vec<String> = alike.chain(here.into_iter().flatten()).cloned().collect();
        let written = format!("{above}{path}");
        all.into_iter().find_map(|map| {
            let sources = self
                .read
                .entry(map.clone())
                .or_insert_with(|| package_maps::sources(&folder.join(&map)));
            let is_it = sources.iter().any(|source| {
                let is_text = bytes.is_none() || source.bytes.is_none() || bytes == source.bytes;
                source.written == written && is_text
            });
            let inside = map.rsplit_once('/').map_or("", |(inside, _)| inside);
            let place = format!("node_modules/{}/{inside}/{written}", self.name);
            is_it.then(|| resolve(&place))
        })
    }
}

/// The maps of a package, not those of packages inside it.
fn listed(folder: &Path) -> BTreeMap<usize, Vec<String>> {
    let mut maps: BTreeMap<usize, Vec<String>> = BTreeMap::new();
    let files = WalkDir::new(folder).sort_by_file_name().into_iter();
    let files =
        files.filter_entry(|entry| entry.depth() == 0 || entry.file_name() != "node_modules");
    for file in files.flatten().filter(|file| file.file_type().is_file()) {
        let path: PathBuf = file.path().strip_prefix(folder).unwrap_or(file.path()).to_owned();
        if path.extension().is_some_and(|ending| ending == "map") {
            let path = path.to_string_lossy().replace('\\', "/");
            maps.entry(file.depth() - 1).or_default().push(path);
        }
    }
    maps
}
