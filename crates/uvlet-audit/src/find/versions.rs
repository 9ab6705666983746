//! One package in several installs, of one version or of several.

use std::{
    cmp::Reverse,
    collections::{BTreeMap, BTreeSet},
};

use semver::Version;
use uvlet_record::{CellId, ModuleId, Package, PackageId};

use crate::{
    find::{
        context::Ground,
        finding::{Bound, Found, counted},
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
        by_name.entry(&record.packages[package.at()].name).or_default().push(install);
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
            let rest: CellSet = here.skip(1).flat_map(|cells| cells.iter().collect::<Vec<_>>()).collect();
            if rest.iter().next().is_some() {
                by_entry.insert(entry, rest);
            }
        }
        let packages = || installs.iter().map(|install| &record.packages[install.package.at()]);
        let versions: BTreeSet<&str> = packages().filter_map(|p| p.version.as_deref()).collect();
        let versions = match versions.len() {
            0 => String::new(),
            1 => format!(", all {}", versions.first().unwrap_or(&"")),
            _ => format!(": {}", versions.into_iter().collect::<Vec<_>>().join(", ")),
        };
        Found {
            title: format!("{name} is there from {}{versions}", counted(installs.len(), "place")),
            names: packages().map(|package| package.place.clone()).collect(),
            cells,
            bound: Bound::AtMost,
            by_entry: Some(stocks(by_entry)),
            cause: installs.iter().map(|install| asked(ground, install)).collect::<Vec<_>>().join("; "),
            advice: format!(
                "ask for one version everywhere (`npm dedupe`, or `overrides` in package.json), and \
                 update what holds {name} back"
            ),
            ..Found::default()
        }
    });
    found.collect()
}

/// Who asks for an install: a module outside it, the nearest to an entry.
fn asked(ground: &Ground<'_>, install: &Install) -> String {
    let record = ground.record();
    let Package { place, version, .. } = &record.packages[install.package.at()];
    let version = version.as_deref().map(|version| format!(" ({version})")).unwrap_or_default();
    // A module that left no byte may be the one that is asked for.
    let modules = (0..record.modules.len()).map(ModuleId::new);
    let modules = modules.filter(|id| record.module(*id).package == Some(install.package));
    let askers = modules.flat_map(|id| ground.network.askers(id));
    let outside = askers
        .map(|edge| edge.from)
        .filter(|id| record.module(*id).package != Some(install.package));
    let asker = outside.min_by_key(|&id| (record.module(id).third_party, &record.module(id).path));
    match asker {
        Some(id) => format!("{place}{version} for {}", record.module(id).path),
        None => format!("{place}{version}"),
    }
}
