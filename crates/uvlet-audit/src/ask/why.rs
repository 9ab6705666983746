//! Why is it here: who asks for it, from which entry on, and what would leave with it.
//!
//! The saving is never the size of the thing itself: its modules are taken out of the graph, and what
//! no entry reaches any more is what leaves.

mod rows;

use std::collections::{BTreeMap, BTreeSet};

pub use rows::{
    Chain, Edges, Importer, Leaving, LeavingAtStartup, Moment, Place, Staying, Step, Why,
};
use uvlet_record::{Edge, EdgeKind, FileId, ModuleId, Owner, Record, Texts};

use crate::{
    graph::{cut::Cut, network::Network},
    lens::Lens,
    parts::cells::CellSet,
    select::subject::{Subject, SubjectKind},
};

/// Which chains are asked for.
#[derive(Clone, Debug, Default)]
pub struct Wanted {
    /// Entries that chains begin at; all where none is named.
    pub from: Vec<String>,
}

/// What the package that a subject is says of itself, where the project is at hand.
#[must_use]
pub fn description(lens: &Lens<'_>, subject: &Subject, texts: &dyn Texts) -> Option<String> {
    let first = subject.modules.first().filter(|_| subject.kind == SubjectKind::Package)?;
    texts.project()?.description(&lens.record.location_of(*first))
}

/// Answers for a subject.
#[must_use]
pub fn why(lens: &Lens<'_>, subject: &Subject, wanted: &Wanted) -> Why {
    let record = lens.record;
    let network = Network::of(record);
    let taken = |id: ModuleId| subject.has(id);
    let cut = Cut::of(record, &network, subject);
    let roots: Vec<ModuleId> =
        record.entries.iter().flat_map(|entry| entry.roots.iter().copied()).collect();
    let before = network.reach(&roots, &|_| true, &|_| false);
    let after = network.reach(&roots, &|edge| !cut.has(edge), &taken);
    let leaves = |id: ModuleId| taken(id) || (before[id.at()] && !after[id.at()]);
    let leaving = lens.cells(|_, owner| matches!(owner, Owner::Module(id) if leaves(id)));
    Why {
        subject: subject.text.clone(),
        subject_kind: subject.kind.name(),
        description: None,
        sizes: lens.amount(&subject.cells).sizes(),
        modules: subject.modules.len(),
        chains: chains(lens, &network, subject, wanted),
        importers: importers(record, &network, subject, &before),
        leaves_with_it: Leaving {
            sizes: lens.amount(&leaving).sizes(),
            modules: modules_in(record, &leaving).len(),
            packages: whole_packages(record, &leaving, subject),
        },
        at_startup: at_startup(lens, &network, &cut, subject, wanted),
        stays: stays(lens, &network, subject, &after),
        lies_in: places(lens, subject),
        edges: Edges {
            basis: record.edges.iter().map(|edge| edge.basis).max(),
            unresolved: record.unresolved_requests.len(),
        },
    }
}

/// Modules that own some of a set.
fn modules_in(record: &Record, cells: &CellSet) -> BTreeSet<ModuleId> {
    let owners = cells.iter().map(|id| record.cells[id.at()].owner);
    let modules = owners.filter_map(|owner| match owner {
        Owner::Module(id) => Some(id),
        _ => None,
    });
    modules.collect()
}

/// Packages other than the subject's own of which every byte leaves.
fn whole_packages(record: &Record, leaving: &CellSet, subject: &Subject) -> Vec<String> {
    let mut stays: BTreeSet<&str> = BTreeSet::new();
    let mut leaves: BTreeSet<&str> = BTreeSet::new();
    for (at, cell) in record.cells.iter().enumerate().filter(|(_, c)| c.amount.emitted > 0) {
        let Owner::Module(id) = cell.owner else { continue };
        let Some(package) = record.package_of(id).filter(|_| !subject.has(id)) else { continue };
        let list =
            if leaving.has(uvlet_record::CellId::new(at)) { &mut leaves } else { &mut stays };
        list.insert(&package.name);
    }
    leaves.difference(&stays).map(|name| (*name).to_owned()).collect()
}

fn is_wanted(wanted: &Wanted, name: &str) -> bool {
    wanted.from.is_empty() || wanted.from.iter().any(|from| from == name)
}

fn chains(
    lens: &Lens<'_>,
    network: &Network<'_>,
    subject: &Subject,
    wanted: &Wanted,
) -> Vec<Chain> {
    let record = lens.record;
    let ways = network.toward(&subject.modules);
    let mut chains = Vec::new();
    for (entry, reach) in record.entries.iter().zip(&lens.reach) {
        let holds = |is_in: &dyn Fn(&FileId) -> bool| {
            subject.cells.iter().any(|id| is_in(&record.cells[id.at()].file))
        };
        let when = if holds(&|file| reach.startup.contains(file)) {
            Moment::Startup
        } else if holds(&|file| reach.deferred.contains(file)) {
            Moment::Deferred
        } else if subject.cells.iter().next().is_none() {
            // What has no bytes is where those are that ask for it.
            match entry.roots.iter().filter_map(|root| ways.cost(*root)).min() {
                Some(cost) if cost.deferred == 0 => Moment::Startup,
                Some(_) => Moment::Deferred,
                None => continue,
            }
        } else {
            continue;
        };
        if !is_wanted(wanted, &entry.name) {
            continue;
        }
        let nearest = |roots: &[ModuleId]| {
            roots.iter().filter_map(|root| Some((ways.cost(*root)?, *root))).min()
        };
        let known = nearest(&record.first_modules(entry));
        let found = known.or_else(|| nearest(&entry.roots));
        let has_lost_start = known.is_none() && found.is_some();
        let steps = found.map(|(_, root)| ways.from(root)).unwrap_or_default();
        let steps = steps.into_iter().map(|(id, edge)| step(record, id, edge)).collect();
        chains.push(Chain { entry: entry.name.clone(), when, steps, has_lost_start });
    }
    chains.sort_by(|a, b| {
        let length = |chain: &Chain| (chain.when, chain.steps.is_empty(), chain.steps.len());
        length(a).cmp(&length(b)).then_with(|| a.entry.cmp(&b.entry))
    });
    chains
}

fn step(record: &Record, id: ModuleId, edge: Option<&Edge>) -> Step {
    Step {
        module: record.module(id).path.clone(),
        package: record.package_of(id).map(|package| package.name.clone()),
        by: edge.map(|edge| edge.kind),
        names: edge.and_then(|edge| edge.names.clone()),
    }
}

fn importers(
    record: &Record,
    network: &Network<'_>,
    subject: &Subject,
    reached: &[bool],
) -> Vec<Importer> {
    let mut found: BTreeMap<ModuleId, (BTreeSet<EdgeKind>, Option<BTreeSet<String>>)> =
        BTreeMap::new();
    for &id in &subject.modules {
        for edge in network.askers(id).filter(|edge| !subject.has(edge.from)) {
            let (kinds, names) =
                found.entry(edge.from).or_insert_with(|| (BTreeSet::new(), Some(BTreeSet::new())));
            kinds.insert(edge.kind);
            match (&edge.names, names.as_mut()) {
                (Some(more), Some(names)) => names.extend(more.iter().cloned()),
                _ => *names = None,
            }
        }
    }
    let mut importers: Vec<(bool, bool, ModuleId)> =
        found.keys().map(|&id| (!reached[id.at()], record.module(id).third_party, id)).collect();
    // Those that an entry reaches come first, then own ones.
    importers.sort_by_key(|&(is_lost, is_third, id)| (is_lost, is_third, &record.module(id).path));
    let importer = |(_, _, id): (bool, bool, ModuleId)| {
        let (kinds, names) = found.remove(&id).unwrap_or_default();
        Importer {
            module: record.module(id).path.clone(),
            package: record.package_of(id).map(|package| package.name.clone()),
            by: kinds.into_iter().collect(),
            names: names.map(|names| names.into_iter().collect()),
        }
    };
    importers.into_iter().map(importer).collect()
}

fn at_startup(
    lens: &Lens<'_>,
    network: &Network<'_>,
    cut: &Cut<'_>,
    subject: &Subject,
    wanted: &Wanted,
) -> Vec<LeavingAtStartup> {
    let record = lens.record;
    let mut rows = Vec::new();
    for (entry, reach) in record.entries.iter().zip(&lens.reach) {
        if !is_wanted(wanted, &entry.name) {
            continue;
        }
        let startup = lens.files(reach.startup.iter().copied());
        let is_here = subject.cells.iter().any(|id| startup.has(id));
        let is_static = |edge: &Edge| !edge.kind.is_deferred();
        let before = network.reach(&entry.roots, &is_static, &|_| false);
        if !is_here && !subject.modules.iter().any(|id| before[id.at()]) {
            continue;
        }
        let after = network
            .reach(&entry.roots, &|edge| is_static(edge) && !cut.has(edge), &|id| subject.has(id));
        let leaves = |id: ModuleId| subject.has(id) || (before[id.at()] && !after[id.at()]);
        let cells: CellSet = startup
            .iter()
            .filter(|id| matches!(record.cells[id.at()].owner, Owner::Module(m) if leaves(m)))
            .collect();
        rows.push(LeavingAtStartup {
            entry: entry.name.clone(),
            sizes: lens.amount(&cells).sizes(),
            modules: modules_in(record, &cells).len(),
        });
    }
    rows.retain(|row| row.modules > 0);
    rows.sort_by(|a, b| b.sizes.emitted.cmp(&a.sizes.emitted).then_with(|| a.entry.cmp(&b.entry)));
    rows
}

/// What the subject reaches and somebody else too, by package or own folder.
fn stays(
    lens: &Lens<'_>,
    network: &Network<'_>,
    subject: &Subject,
    after: &[bool],
) -> Vec<Staying> {
    let record = lens.record;
    let is_static = |edge: &Edge| !edge.kind.is_deferred();
    let needs = network.reach(&subject.modules, &is_static, &|_| false);
    let stays = |id: ModuleId| needs[id.at()] && after[id.at()] && !subject.has(id);
    let mut groups: BTreeMap<&str, Vec<ModuleId>> = BTreeMap::new();
    for id in (0..record.modules.len()).map(ModuleId::new).filter(|id| stays(*id)) {
        groups.entry(record.kin_of(id)).or_default().push(id);
    }
    let mut rows: Vec<Staying> = groups
        .into_iter()
        .map(|(kin, ids)| {
            let cells = lens.cells(
                |_, owner| matches!(owner, Owner::Module(id) if ids.binary_search(&id).is_ok()),
            );
            let askers = ids.iter().flat_map(|&id| network.askers(id)).map(|edge| edge.from);
            let mut askers = askers
                .filter(|id| after[id.at()] && !subject.has(*id) && record.kin_of(*id) != kin);
            // One that needs nothing of the subject tells more.
            let free = askers.clone().find(|id| !needs[id.at()]);
            let holder = free.or_else(|| askers.next());
            Staying {
                name: kin.to_owned(),
                sizes: lens.amount(&cells).sizes(),
                held_by: holder.map(|id| record.module(id).path.clone()),
            }
        })
        .filter(|row| row.sizes.emitted > 0)
        .collect();
    rows.sort_by(|a, b| b.sizes.emitted.cmp(&a.sizes.emitted).then_with(|| a.name.cmp(&b.name)));
    rows
}

fn places(lens: &Lens<'_>, subject: &Subject) -> Vec<Place> {
    let record = lens.record;
    let mut files: BTreeMap<FileId, Vec<uvlet_record::CellId>> = BTreeMap::new();
    for id in subject.cells.iter() {
        files.entry(record.cells[id.at()].file).or_default().push(id);
    }
    let names = |holds: &dyn Fn(&crate::graph::reach::Reach) -> bool| -> Vec<String> {
        let entries = record.entries.iter().zip(&lens.reach);
        entries.filter(|(_, reach)| holds(reach)).map(|(entry, _)| entry.name.clone()).collect()
    };
    let mut places: Vec<Place> = files
        .into_iter()
        .map(|(file, cells)| Place {
            file: record.file(file).path.clone(),
            sizes: lens.amount(&cells.into_iter().collect()).sizes(),
            startup_of: names(&|reach| reach.startup.contains(&file)),
            deferred_of: names(&|reach| reach.deferred.contains(&file)),
        })
        .collect();
    places.sort_by(|a, b| b.sizes.emitted.cmp(&a.sizes.emitted).then_with(|| a.file.cmp(&b.file)));
    places
}

#[cfg(test)]
mod tests;
