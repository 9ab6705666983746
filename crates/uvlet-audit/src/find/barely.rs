//! Code that comes whole, of whose names the program uses few.

use std::collections::BTreeSet;

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{ModuleId, PackageId};
use uvlet_script::declarations::{own_exports, re_exported};

use crate::{
    find::{
        about::{About, Smaller},
        context::Ground,
        finding::{Bound, Found},
    },
    graph::{
        few::{Few, Narrow, Whole},
        own_paths::own_paths,
    },
    select::overlap::cells_of_modules,
};

/// Names below which a package is small anyway.
const LEAST: usize = 4;

/// Of so many names one is used at most.
const ONE_OF: usize = 4;

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let cells = cells_of_modules(record, &ground.apart);
    let few = Few::new(record, &ground.network, ground.texts, cells);
    let wholes: Vec<(Whole, Vec<ModuleId>)> = few.wholes().into_iter().collect();
    wholes.par_iter().filter_map(|(whole, ids)| finding(ground, &few, *whole, ids)).collect()
}

fn finding(ground: &Ground<'_>, few: &Few<'_>, whole: Whole, ids: &[ModuleId]) -> Option<Found> {
    let record = ground.record();
    let narrow = few.narrow(whole, ids, LEAST).ok()?;
    if narrow.given.len() < LEAST || narrow.used.len() * ONE_OF > narrow.given.len() {
        return None;
    }
    let modules: Vec<ModuleId> =
        ids.iter().copied().filter(|id| few.cells.contains_key(id)).collect();
    let (name, smaller) = match whole {
        Whole::Package(package) => {
            let smaller = smaller(ground, package, &narrow, &modules)?;
            (record.packages[package.at()].name.clone(), smaller)
        }
        Whole::Own(id) => (record.module(id).path.clone(), Smaller::OwnExports),
    };
    let cells = narrow.gone.iter().filter_map(|id| few.cells.get(id));
    Some(Found {
        names: BTreeSet::from([name.clone()]),
        cells: cells.flatten().copied().collect(),
        spans: narrow.spans,
        with_wrappers: true,
        bound: Bound::AtMost,
        ..Found::of(About::BarelyUsed {
            of: name,
            used: narrow.used.into_iter().collect(),
            names: narrow.given.len(),
            modules: modules.len(),
            is_module: narrow.is_module,
            smaller,
        })
    })
}

/// How a program would get less of a package; none where it has no way that is known to be one.
fn smaller(
    ground: &Ground<'_>,
    package: PackageId,
    narrow: &Narrow,
    modules: &[ModuleId],
) -> Option<Smaller> {
    let record = ground.record();
    let name = &record.packages[package.at()].name;
    // Of one file nobody knows whether there are others.
    let unknown = (!narrow.is_module && modules.len() > 1).then_some(Smaller::Unknown);
    let Some(project) = ground.texts.project() else { return unknown };
    let asker = ground.network.askers(narrow.asked).next()?.from;
    let path = record.location_of(asker);
    let folder = path.rsplit_once('/').map_or("", |(folder, _)| folder);
    let is_inert = || project.resolve(folder, name).is_some_and(|main| project.is_inert(&main));
    if narrow.is_module && gives_each(ground, narrow) && is_inert() {
        return Some(Smaller::Names);
    }
    let Some(own) = own_paths(project, folder, name, &narrow.used) else { return unknown };
    Some(Smaller::OwnPaths { request: own.request, files: own.files })
}

/// The file that is asked for exports each of the names, too.
fn gives_each(ground: &Ground<'_>, narrow: &Narrow) -> bool {
    let Some(text) = ground.texts.source(narrow.asked) else { return false };
    let mut names: BTreeSet<String> =
        own_exports(&text).unwrap_or_default().into_iter().map(|(name, _)| name).collect();
    let handed = re_exported(&text).ok().flatten();
    names.extend(handed.into_iter().flat_map(|handed| handed.names.into_keys()));
    narrow.used.iter().all(|name| names.contains(name))
}
