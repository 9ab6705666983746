//! One package in several installs, of one version or of several.

use crate::find::about;
use std::{cmp::Reverse, collections::BTreeMap};

use semver::Version;
use uvlet_record::{CellId, ModuleId, Package, PackageId};

use crate::{
    find::{
        about::About,
        context::Ground,
        finding::{Bound, Found},
    },
    parts::{byte_set::stocks, cells::CellSet},
    select::overlap::cells_of_modules,
};

/// One install, with its bytes.
struct Install {
    package: PackageId,
    cells: CellSet,
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let (lens, record) = (ground.lens, ground.record());
    let mut installs: BTreeMap<PackageId, Vec<CellId>> = BTreeMap::new();
    for (id, cells) in cells_of_modules(record, &ground.apart) {
        if let Some(package) = record.module(id).package {
            installs.entry(package).or_default().extend(cells);
        }
    }
    let mut by_name: BTreeMap<&str, Vec<Install>> = BTreeMap::new();
    for (package, cells) in installs {
        let install = Install { package, cells: cells.into_iter().collect() };
        let package = &record.packages[package.at()];
        let name = package.alias_of.as_ref().unwrap_or(&package.name);
        by_name.entry(name).or_default().push(install);
    }
    by_name.retain(|_, installs| installs.len() > 1);
    // The newest version serves all; where none is known, the one that is not inside another package.
    let rank = |install: &Install| {
        let package = &record.packages[install.package.at()];
        let version = package.version.as_deref().and_then(|version| Version::parse(version).ok());
        let depth = package.place.matches("node_modules/").count();
        (version, Reverse(depth), Reverse(lens.amount(&install.cells).emitted))
    };
    let found = by_name.into_iter().map(|(name, mut installs)| {
        installs.sort_by_key(|install| Reverse(rank(install)));
        let cells = installs.iter().skip(1).flat_map(|install| install.cells.iter()).collect();
        let mut by_entry = BTreeMap::new();
        for (entry, reach) in lens.reach.iter().enumerate() {
            let startup = lens.files(reach.startup.iter().copied());
            let here = installs.iter().map(|install| install.cells.clone().and(&startup));
            // One of them has to stay.
            let here = here.filter(|cells| cells.iter().next().is_some());
            let rest: CellSet =
                here.skip(1).flat_map(|cells| cells.iter().collect::<Vec<_>>()).collect();
            if rest.iter().next().is_some() {
                by_entry.insert(entry, rest);
            }
        }
        let packages = || installs.iter().map(|install| &record.packages[install.package.at()]);
        let about = About::SeveralVersions {
            name: name.to_owned(),
            versions: packages().filter_map(|package| package.version.clone()).collect(),
            installs: installs.iter().map(|install| described(ground, install)).collect(),
        };
        Found {
            names: packages().map(|package| package.place.clone()).collect(),
            cells,
            bound: Bound::AtMost,
            by_entry: Some(stocks(by_entry)),
            ..Found::of(about)
        }
    });
    found.collect()
}

/// An install with who imports it: a module outside it, the nearest to an entry.
fn described(ground: &Ground<'_>, install: &Install) -> about::Install {
    let record = ground.record();
    let Package { place, version, .. } = &record.packages[install.package.at()];
    // A module that left no byte may be the one that is asked for.
    let modules = (0..record.modules.len()).map(ModuleId::new);
    let modules = modules.filter(|id| record.module(*id).package == Some(install.package));
    let askers = modules.flat_map(|id| ground.network.askers(id)).map(|edge| edge.from);
    let outside = askers.filter(|id| record.module(*id).package != Some(install.package));
    about::Install {
        place: place.clone(),
        version: version.clone(),
        asked_by: ground.first_of(outside),
    }
}
