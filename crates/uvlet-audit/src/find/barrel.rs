//! Files that only hand on names, and so draw modules into pages that use none of their names.
//!
//! From each entry on, a file that hands on is followed for the names alone that are taken of it, and any
//! other file for all that it asks for. What is reached otherwise and not so was drawn in for nothing.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Edge, ModuleId, Owner};

use crate::{
    find::{
        about::About,
        context::Ground,
        finding::{Bound, Found},
    },
    graph::barrels::{Barrels, Names, Sight, add, barrels},
    parts::{byte_set::stocks, cells::CellSet},
};

/// Emitted bytes below which an entry is not worth a word.
const LEAST: u64 = 2000;

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let sight = ground.sight();
    let barrels = barrels(sight);
    if barrels.handed.is_empty() {
        return Vec::new();
    }
    let is_now = |edge: &Edge| !edge.kind.is_deferred();
    // By barrel: what each entry could start without.
    let mut drawn: BTreeMap<ModuleId, BTreeMap<usize, BTreeSet<ModuleId>>> = BTreeMap::new();
    let mut needed: Vec<Option<Vec<bool>>> = Vec::new();
    for (at, entry) in record.entries.iter().enumerate() {
        if entry.roots.is_empty() {
            needed.push(None);
            continue;
        }
        let all = ground.network.reach(&entry.roots, &is_now, &|_| false);
        let kept = needed_of(sight, &barrels, &entry.roots, &is_now);
        for (&barrel, _) in barrels.handed.iter().filter(|(id, _)| kept[id.at()]) {
            let cut: Vec<ModuleId> = ground
                .network
                .asked(barrel)
                .filter(|edge| is_now(edge) && !kept[edge.to.at()])
                .map(|edge| edge.to)
                .collect();
            if cut.is_empty() {
                continue;
            }
            let below = ground.network.reach(&cut, &is_now, &|id| kept[id.at()]);
            let modules = (0..below.len()).filter(|&id| below[id] && all[id]).map(ModuleId::new);
            drawn.entry(barrel).or_default().entry(at).or_default().extend(modules);
        }
        needed.push(Some(needed_of(sight, &barrels, &entry.roots, &|_| true)));
    }
    let found = drawn
        .into_iter()
        .filter_map(|(barrel, entries)| barrel_finding(ground, barrel, &entries, &needed));
    found.collect()
}

/// Which modules an entry needs over edges that are followed, where files that hand on are followed by name.
fn needed_of(
    sight: Sight<'_>,
    barrels: &Barrels,
    roots: &[ModuleId],
    follows: &dyn Fn(&Edge) -> bool,
) -> Vec<bool> {
    let mut reached = vec![false; sight.record.modules.len()];
    let mut wanted: BTreeMap<ModuleId, Names> = BTreeMap::new();
    let mut open: Vec<ModuleId> = Vec::new();
    for &root in roots {
        reached[root.at()] = true;
        wanted.insert(root, Names::All);
        open.push(root);
    }
    while let Some(id) = open.pop() {
        let next: Vec<(ModuleId, Names)> = match wanted.get(&id) {
            Some(names) if barrels.handed.contains_key(&id) => {
                let taken = barrels.taken(id, names, sight).into_iter();
                taken.map(|(edge, names)| (edge.to, names)).collect()
            }
            _ => {
                let edges = sight.network.asked(id).filter(|edge| follows(edge));
                let names = |edge: &Edge| match &edge.names {
                    Some(names) => Names::These(names.iter().cloned().collect()),
                    None => Names::All,
                };
                edges.map(|edge| (edge.to, names(edge))).collect()
            }
        };
        for (to, names) in next {
            let is_new = !std::mem::replace(&mut reached[to.at()], true);
            let is_more = barrels.handed.contains_key(&to) && add(&mut wanted, to, names);
            if is_new || is_more {
                open.push(to);
            }
        }
    }
    reached
}

fn barrel_finding(
    ground: &Ground<'_>,
    barrel: ModuleId,
    entries: &BTreeMap<usize, BTreeSet<ModuleId>>,
    needed: &[Option<Vec<bool>>],
) -> Option<Found> {
    let (record, lens) = (ground.record(), ground.lens);
    let mut by_entry: BTreeMap<usize, CellSet> = BTreeMap::new();
    let mut modules: BTreeSet<ModuleId> = BTreeSet::new();
    for (&entry, drawn) in entries {
        let startup: BTreeSet<_> = lens.reach[entry].startup.iter().copied().collect();
        let cells = lens.cells(|file, owner| {
            startup.contains(&file) && matches!(owner, Owner::Module(id) if drawn.contains(&id))
        });
        if lens.amount(&cells).emitted >= LEAST {
            modules.extend(drawn);
            by_entry.insert(entry, cells);
        }
    }
    // A file that an entry needs it in, at startup or later, keeps it.
    let is_needed = |id: ModuleId, file| {
        lens.reach.iter().zip(needed).any(|(reach, needed)| {
            (reach.startup.contains(&file) || reach.deferred.contains(&file))
                && needed.as_ref().is_none_or(|needed| needed[id.at()])
        })
    };
    let drawn: CellSet = by_entry.values().flat_map(CellSet::iter).collect();
    let cells: CellSet = drawn
        .iter()
        .filter(|id| {
            let cell = &record.cells[id.at()];
            !matches!(cell.owner, Owner::Module(module) if is_needed(module, cell.file))
        })
        .collect();
    let path = record.module(barrel).path.as_str();
    let mut kin: BTreeMap<Option<&str>, u64> = BTreeMap::new();
    for id in by_entry.values().flat_map(CellSet::iter) {
        let cell = &record.cells[id.at()];
        if let Owner::Module(module) = cell.owner {
            let name = record.package_of(module).map(|package| package.name.as_str());
            *kin.entry(name).or_default() += cell.amount.emitted;
        }
    }
    let (mostly, _) =
        kin.into_iter().max_by_key(|(name, bytes)| (*bytes, std::cmp::Reverse(*name)))?;
    let entries = by_entry.keys().map(|&at| record.entries[at].name.clone());
    let about = About::BarrelPull {
        barrel: path.to_owned(),
        modules: modules.len(),
        entries: entries.collect(),
        mostly: mostly.map(str::to_owned),
    };
    Some(Found {
        with_wrappers: true,
        names: BTreeSet::from([path.to_owned()]),
        cells,
        bound: Bound::AtMost,
        by_entry: Some(stocks(by_entry)),
        ..Found::of(about)
    })
}
