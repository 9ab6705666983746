//! Sources that are older than the bundler's modules.
//!
//! A package may ship source maps of its own, which bundlers follow: one module of the bundler
//! (`dist/lib.mjs`) then appears in a file's map as several older sources (`src/a.ts`, …). They are
//! tied to the module of the same package that the file holds: the only one that its map does not
//! name, else the one whose own map on disk names the source, else the one of the same stem.

use std::{
    collections::{BTreeMap, HashMap, HashSet},
    path::Path,
};

use uvlet_record::path::resolve;

use crate::assemble::package_maps::{self, stem};
use crate::{descriptions::described::Described, project::source_names::Named};

/// Ties older sources to modules: renames them in `named`, a list per file and the bundler's
/// modules last. Returns the path each had, by file and place.
pub fn tie(
    described: &Described,
    named: &mut [Vec<Option<Named>>],
    paths: &[&str],
    root: Option<&Path>,
) -> HashMap<(usize, usize), String> {
    let mut tied = HashMap::new();
    let Some((modules, files)) = named.split_last_mut() else { return tied };
    let by_path = described.by_path();
    let known: HashSet<&str> = modules.iter().flatten().map(|named| named.path.as_str()).collect();
    let mut maps: BTreeMap<&str, Vec<String>> = BTreeMap::new();
    for (at, sources) in files.iter_mut().enumerate() {
        let Some(file) = paths.get(at).and_then(|path| by_path.get(path)) else { continue };
        let seen: HashSet<String> = sources.iter().flatten().map(|n| n.path.clone()).collect();
        let mut unseen: BTreeMap<&str, Vec<&Named>> = BTreeMap::new();
        for module in file.slots.iter().flat_map(|slot| &slot.modules) {
            if let Some(Some(module)) = modules.get(module.0)
                && let Some(package) = &module.package
                && !seen.contains(&module.path)
            {
                unseen.entry(&package.place).or_default().push(module);
            }
        }
        for (place, source) in sources.iter_mut().enumerate() {
            let Some(source) = source.as_mut().filter(|named| !named.glue) else { continue };
            if known.contains(source.path.as_str()) {
                continue;
            }
            let package = source.package.as_ref().map(|package| package.place.as_str());
            let Some(candidates) = package.and_then(|place| unseen.get(place)) else { continue };
            if let Some(module) = choose(candidates, &source.path, root, &mut maps) {
                let older = std::mem::replace(source, module.clone());
                tied.insert((at, place), older.path);
            }
        }
    }
    tied
}

fn choose<'m>(
    candidates: &[&'m Named],
    source: &str,
    root: Option<&Path>,
    maps: &mut BTreeMap<&'m str, Vec<String>>,
) -> Option<&'m Named> {
    if let [only] = candidates {
        return Some(only);
    }
    let named_by_map = candidates.iter().find(|module| {
        let sources = maps.entry(&module.path).or_insert_with(|| own_sources(&module.path, root));
        sources.iter().any(|own| own == source)
    });
    let mut of_stem = candidates.iter().filter(|module| stem(&module.path) == stem(source));
    named_by_map.or_else(|| of_stem.next().filter(|_| of_stem.next().is_none())).copied()
}

/// The sources that a module's own map beside it names, as paths of the project.
fn own_sources(module: &str, root: Option<&Path>) -> Vec<String> {
    let inside = !module.split('/').any(|part| part == "..");
    let Some(root) = root.filter(|_| inside) else { return Vec::new() };
    let folder = module.rsplit_once('/').map_or("", |(folder, _)| folder);
    let sources = package_maps::sources(&root.join(format!("{module}.map")));
    sources.iter().map(|source| resolve(&format!("{folder}/{}", source.written))).collect()
}
