//! What an entry starts with and needs only once somebody acts, with the evidence in the sources.
//!
//! Only own code is read for it, as only there an import can be changed. What a function does with the
//! functions that it is given is read where it is declared, past files that only hand names on.

use std::{
    cell::RefCell,
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{Edge, EdgeKind, ModuleId, Owner};
use uvlet_script::{
    inert::is_inert,
    later::{Import, Later},
};

use crate::{
    bundlers::Profile,
    find::{
        about::{About, Deferrable},
        context::Ground,
        finding::{Bound, Found},
        handlers::{Callees, Waiting, is_now, read_later},
    },
    parts::{byte_set::stocks, cells::CellSet},
    select::overlap::cells_of_modules,
};

/// Emitted bytes below which it is not worth a request of its own.
const LEAST: u64 = 500;

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let entries = || record.entries.iter().enumerate().filter(|(_, entry)| !entry.roots.is_empty());
    let before: BTreeMap<usize, Vec<bool>> = entries()
        .map(|(at, entry)| (at, ground.network.reach(&entry.roots, &is_now, &|_| false)))
        .collect();
    let own: Vec<ModuleId> = (0..record.modules.len())
        .map(ModuleId::new)
        .filter(|id| !record.module(*id).third_party && record.package_of(*id).is_none())
        .filter(|id| before.values().any(|reached| reached[id.at()]))
        .collect();
    let read = |&id: &ModuleId| Some((id, Arc::new(read_later(ground, id)?)));
    let known: BTreeMap<ModuleId, Arc<Later>> =
        own.par_iter().filter_map(read).collect::<Vec<_>>().into_iter().collect();
    let cells = cells_of_modules(record, &BTreeSet::new());
    let callees = Callees { ground, known: RefCell::new(known.clone()), cells };
    // By what is asked for: who can wait for it.
    let mut waiting: BTreeMap<BTreeSet<ModuleId>, Vec<Waiting>> = BTreeMap::new();
    for (&from, later) in &known {
        let mut requests: BTreeMap<&str, Vec<&Import>> = BTreeMap::new();
        for import in &later.imports {
            requests.entry(&import.request).or_default().push(import);
        }
        for (request, imports) in requests {
            let targets: BTreeSet<ModuleId> = ground
                .network
                .asked(from)
                .filter(|edge| asks(edge, request))
                .map(|edge| edge.to)
                .collect();
            if !targets.is_empty()
                && let Some(one) = callees.waiting(from, request, &imports)
            {
                waiting.entry(targets).or_default().push(one);
            }
        }
    }
    let found =
        waiting.iter().filter_map(|(targets, by)| deferrable_finding(ground, &before, targets, by));
    found.collect()
}

/// A request that an `import` makes.
fn asks(edge: &Edge, request: &str) -> bool {
    edge.kind == EdgeKind::Static && edge.request.as_deref() == Some(request)
}

/// Own modules among some whose evaluation may do something, which would come later with them: the first, and
/// how many more.
fn active_modules(ground: &Ground<'_>, modules: &BTreeSet<ModuleId>) -> Option<(String, usize)> {
    let record = ground.record();
    let does_something = |id: &&ModuleId| {
        let text = ground.texts.source(**id);
        !record.module(**id).third_party
            && text.is_none_or(|text| !is_inert(&text).unwrap_or(false))
    };
    let mut active = modules.iter().filter(does_something).map(|&id| &record.module(id).path);
    let first = active.next()?.clone();
    Some((first, active.count()))
}

fn deferrable_finding(
    ground: &Ground<'_>,
    before: &BTreeMap<usize, Vec<bool>>,
    targets: &BTreeSet<ModuleId>,
    by: &[Waiting],
) -> Option<Found> {
    let (record, lens) = (ground.record(), ground.lens);
    let waits =
        |edge: &Edge| by.iter().any(|one| edge.from == one.from && asks(edge, &one.request));
    let mut by_entry: BTreeMap<usize, CellSet> = BTreeMap::new();
    for (&at, reached) in before {
        if !by.iter().any(|one| reached[one.from.at()]) {
            continue;
        }
        let roots = &record.entries[at].roots;
        let after = ground.network.reach(roots, &|edge| is_now(edge) && !waits(edge), &|_| false);
        let startup: BTreeSet<_> = lens.reach[at].startup.iter().copied().collect();
        let cells = lens.cells(|file, owner| {
            startup.contains(&file)
                && matches!(owner, Owner::Module(id) if reached[id.at()] && !after[id.at()])
        });
        if lens.amount(&cells).emitted >= LEAST {
            by_entry.insert(at, cells);
        }
    }
    if by_entry.is_empty() {
        return None;
    }
    let cells: CellSet = by_entry.values().flat_map(CellSet::iter).collect();
    let modules: BTreeSet<ModuleId> = cells
        .iter()
        .filter_map(|id| match record.cells[id.at()].owner {
            Owner::Module(id) => Some(id),
            _ => None,
        })
        .collect();
    let request = &by.first()?.request;
    let name = |id: ModuleId| match record.package_of(id) {
        Some(package) if package.name == *request => package.name.as_str(),
        _ => record.module(id).path.as_str(),
    };
    let names: BTreeSet<&str> = targets.iter().map(|&id| name(id)).collect();
    let first = *names.first()?;
    let askers = by.iter().map(|one| record.module(one.from).path.clone());
    // The entry that gains most may have nothing yet that loads on demand.
    let (&most, _) = by_entry.iter().max_by_key(|(_, cells)| lens.amount(cells).emitted)?;
    let reach = &lens.reach[most];
    let loads = record.dynamic_loads.iter().any(|load| reach.startup.contains(&load.file));
    let about = Deferrable {
        what: first.to_owned(),
        others: modules.len().saturating_sub(targets.len()),
        askers: askers.collect(),
        events: by.iter().flat_map(|one| one.events.iter().cloned()).collect(),
        active: active_modules(ground, &modules),
        request: request.clone(),
        first_load: (!loads)
            .then(|| (record.entries[most].name.clone(), Profile::of(record.bundler).loading)),
    };
    Some(Found {
        names: names.iter().map(|&name| name.to_owned()).collect(),
        cells,
        parts: by.iter().flat_map(|one| one.parts.iter().cloned()).collect(),
        with_wrappers: true,
        bound: Bound::AtMost,
        by_entry: Some(stocks(by_entry)),
        ..Found::of(About::Deferrable(about))
    })
}
