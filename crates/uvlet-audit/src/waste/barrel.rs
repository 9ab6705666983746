//! Files that only hand on names, and so draw modules into pages that use none of their names.
//!
//! From each entry on, a file that hands on is followed for the names alone that are taken of it, and any
//! other file for all that it asks for. What is reached otherwise and not so was drawn in for nothing.

use std::collections::{BTreeMap, BTreeSet};

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use uvlet_record::{Edge, ModuleId, Owner};
use uvlet_script::declarations::{HandedOn, exported_names, handed_on};

use super::{Bound, Found, Ground, cells_of_modules, counted};
use crate::lens::CellSet;

/// Bytes of a source beyond which it is no mere list of names.
const LONGEST: usize = 200_000;

/// Emitted bytes below which an entry is not worth a word.
const LEAST: u64 = 2000;

/// Names that are wanted of a file.
#[derive(Clone, Debug, PartialEq, Eq)]
enum Names {
    These(BTreeSet<String>),
    All,
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let barrels = barrels(ground);
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
        let kept = needed_of(ground, &barrels, &entry.roots);
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
        needed.push(Some(kept));
    }
    let found =
        drawn.into_iter().filter_map(|(barrel, entries)| one(ground, barrel, &entries, &needed));
    found.collect()
}

/// Files that only hand on, and what others export.
struct Barrels {
    handed: BTreeMap<ModuleId, HandedOn>,
    /// Names that the modules export which such files ask for; none where it may be any.
    exports: BTreeMap<ModuleId, Option<BTreeSet<String>>>,
    /// Those of which it is inferred what they hand on, by the paths of modules where no request is known.
    inferred: BTreeSet<ModuleId>,
}

/// Files that only hand on, with what they hand on. One whose source is not at hand is followed whole:
/// it may ask for others for what they do.
fn barrels(ground: &Ground<'_>) -> Barrels {
    let record = ground.record();
    let asked = |id: ModuleId| -> BTreeSet<ModuleId> {
        ground.network.asked(id).map(|edge| edge.to).collect()
    };
    let modules: Vec<ModuleId> =
        (0..record.modules.len()).map(ModuleId::new).filter(|&id| !asked(id).is_empty()).collect();
    let read = |id: ModuleId| {
        let text = ground.texts.source(id)?;
        if text.len() > LONGEST || !text.contains("export") {
            return None;
        }
        // Most sources do more, which their first words tell without a parse.
        let begins = text.trim_start();
        let is_list =
            ["export", "import", "/", "'use", "\"use"].iter().any(|word| begins.starts_with(word));
        if !is_list {
            return None;
        }
        Some((id, handed_on(&text).ok()??))
    };
    let handed: BTreeMap<ModuleId, HandedOn> = modules
        .into_par_iter()
        .filter_map(read)
        .collect::<Vec<(ModuleId, HandedOn)>>()
        .into_iter()
        .collect();
    let vanished = vanished(ground);
    let of_all = handed.iter().filter(|(_, handed)| !handed.all.is_empty()).map(|(&id, _)| id);
    let asked: BTreeSet<ModuleId> =
        of_all.chain(vanished.iter().copied()).flat_map(asked).collect();
    let names = |id: ModuleId| {
        let names = ground.texts.source(id).and_then(|text| exported_names(&text).ok().flatten());
        (id, names.map(|names| names.into_iter().collect()))
    };
    let asked: Vec<ModuleId> = asked.into_iter().filter(|id| !handed.contains_key(id)).collect();
    let exports: Vec<_> = asked.into_par_iter().map(names).collect();
    let mut barrels =
        Barrels { handed, exports: exports.into_iter().collect(), inferred: BTreeSet::new() };
    barrels.infer(ground, &vanished);
    barrels
}

/// Modules that left no byte and no source, and ask for others: all they can do is hand on.
fn vanished(ground: &Ground<'_>) -> BTreeSet<ModuleId> {
    let record = ground.record();
    let cells = cells_of_modules(record, &BTreeSet::new());
    let modules = (0..record.modules.len()).map(ModuleId::new);
    let is_gone = |id: &ModuleId| {
        !cells.contains_key(id)
            && !record.module(*id).external
            && ground.network.asked(*id).next().is_some()
            && ground.texts.source(*id).is_none()
    };
    modules.filter(is_gone).collect()
}

/// The request of an edge; where it is not known, the path of what it leads to.
fn asked_as(ground: &Ground<'_>, edge: &Edge) -> String {
    let path = || ground.record().module(edge.to).path.clone();
    edge.request.clone().unwrap_or_else(path)
}

impl Barrels {
    /// What files hand on whose source is not at hand, by the names that others take of them: a name
    /// that one alone of the modules that they ask for exports is handed on from there. Whatever no
    /// such name shows to be handed on may be asked for for what it does.
    fn infer(&mut self, ground: &Ground<'_>, vanished: &BTreeSet<ModuleId>) {
        let network = &ground.network;
        let mut wanted: BTreeMap<ModuleId, BTreeSet<String>> = BTreeMap::new();
        let mut open: Vec<(ModuleId, String)> = Vec::new();
        for &id in vanished {
            let taken = network.askers(id).filter_map(|edge| match self.handed.get(&edge.from) {
                Some(handed) => Some(
                    handed
                        .names
                        .values()
                        .filter(|(request, _)| edge.request.as_ref() == Some(request))
                        .filter_map(|(_, name)| name.clone())
                        .collect(),
                ),
                None => edge.names.clone(),
            });
            open.extend(taken.flatten().map(|name| (id, name)));
        }
        // A name that is wanted of one is wanted of those that it asks for, if they vanished, too.
        while let Some((id, name)) = open.pop() {
            if wanted.entry(id).or_default().insert(name.clone()) {
                let next = network.asked(id).filter(|edge| vanished.contains(&edge.to));
                open.extend(next.map(|edge| (edge.to, name.clone())));
            }
        }
        let mut found: BTreeMap<ModuleId, HandedOn> = BTreeMap::new();
        for (&id, names) in &wanted {
            let mut handed = HandedOn::default();
            for name in names {
                let givers = || {
                    network.asked(id).filter(|edge| {
                        !edge.kind.is_deferred()
                            && self.gives(
                                edge.to,
                                name,
                                ground,
                                vanished,
                                &mut BTreeSet::from([id]),
                            )
                    })
                };
                let several = givers().map(|edge| edge.to).collect::<BTreeSet<_>>().len() > 1;
                if let Some(request) = givers().next().map(|edge| asked_as(ground, edge))
                    && !several
                {
                    handed.names.insert(name.clone(), (request, Some(name.clone())));
                }
            }
            let is_handed =
                |request: &String| handed.names.values().any(|(from, _)| from == request);
            let requests: BTreeSet<String> =
                network.asked(id).map(|edge| asked_as(ground, edge)).collect();
            handed.bare = requests.into_iter().filter(|one| !is_handed(one)).collect();
            if !handed.names.is_empty() {
                found.insert(id, handed);
            }
        }
        self.inferred.extend(found.keys());
        self.handed.extend(found);
    }

    /// What a file that hands on calls what it asks for; none where that is not known.
    fn request(&self, edge: &Edge, ground: &Ground<'_>) -> Option<String> {
        match self.inferred.contains(&edge.from) {
            true => Some(asked_as(ground, edge)),
            false => edge.request.clone(),
        }
    }

    /// Whether a module may export a name, past those whose source is not at hand.
    fn gives(
        &self,
        id: ModuleId,
        name: &str,
        ground: &Ground<'_>,
        vanished: &BTreeSet<ModuleId>,
        seen: &mut BTreeSet<ModuleId>,
    ) -> bool {
        if !vanished.contains(&id) {
            return self.may_export(id, name, ground, 0);
        }
        seen.insert(id)
            && ground
                .network
                .asked(id)
                .any(|edge| self.gives(edge.to, name, ground, vanished, seen))
    }

    /// Whether a module may export a name, by way of others or itself.
    fn may_export(&self, id: ModuleId, name: &str, ground: &Ground<'_>, depth: usize) -> bool {
        const DEEPEST: usize = 8;
        match (self.handed.get(&id), self.exports.get(&id)) {
            (Some(handed), _) if depth < DEEPEST => {
                handed.names.contains_key(name)
                    || ground.network.asked(id).any(|edge| {
                        edge.request.as_ref().is_none_or(|request| handed.all.contains(request))
                            && self.may_export(edge.to, name, ground, depth + 1)
                    })
            }
            (None, Some(Some(names))) => names.contains(name),
            _ => true,
        }
    }

    /// What a file that hands on takes of the modules that it asks for, for names that are wanted of it.
    fn taken(&self, id: ModuleId, wanted: &Names, ground: &Ground<'_>) -> Vec<(ModuleId, Names)> {
        let edges = || ground.network.asked(id).filter(|edge| !edge.kind.is_deferred());
        let all = || edges().map(|edge| (edge.to, Names::All)).collect();
        let (Some(handed), Names::These(wanted)) = (self.handed.get(&id), wanted) else {
            return all();
        };
        let is_bare = |edge: &&Edge| {
            self.request(edge, ground).is_some_and(|request| handed.bare.contains(&request))
        };
        let mut taken: Vec<(ModuleId, Names)> =
            edges().filter(is_bare).map(|edge| (edge.to, Names::All)).collect();
        for name in wanted {
            let before = taken.len();
            for edge in edges() {
                // Where the request is not known, the edge may be any.
                let Some(request) = self.request(edge, ground) else {
                    taken.push((edge.to, Names::All));
                    continue;
                };
                match handed.names.get(name) {
                    Some((from, Some(theirs))) if *from == request => {
                        taken.push((edge.to, Names::These(BTreeSet::from([theirs.clone()]))));
                    }
                    Some((from, None)) if *from == request => taken.push((edge.to, Names::All)),
                    Some(_) => {}
                    None if handed.all.contains(&request)
                        && self.may_export(edge.to, name, ground, 0) =>
                    {
                        taken.push((edge.to, Names::These(BTreeSet::from([name.clone()]))));
                    }
                    None => {}
                }
            }
            // A name that comes from nowhere comes from what cannot be seen.
            if taken.len() == before {
                return all();
            }
        }
        taken
    }
}

/// Which modules an entry needs, where files that hand on are followed by name.
fn needed_of(ground: &Ground<'_>, barrels: &Barrels, roots: &[ModuleId]) -> Vec<bool> {
    let mut reached = vec![false; ground.record().modules.len()];
    let mut wanted: BTreeMap<ModuleId, Names> = BTreeMap::new();
    let mut open: Vec<ModuleId> = Vec::new();
    for &root in roots {
        reached[root.at()] = true;
        wanted.insert(root, Names::All);
        open.push(root);
    }
    while let Some(id) = open.pop() {
        let next: Vec<(ModuleId, Names)> = match wanted.get(&id) {
            Some(names) if barrels.handed.contains_key(&id) => barrels.taken(id, names, ground),
            _ => {
                let edges = ground.network.asked(id).filter(|edge| !edge.kind.is_deferred());
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

/// Adds to the names that are wanted of a file; whether these are more.
fn add(wanted: &mut BTreeMap<ModuleId, Names>, id: ModuleId, names: Names) -> bool {
    match (wanted.get_mut(&id), names) {
        (Some(Names::All), _) => false,
        (Some(known @ Names::These(_)), Names::All) => {
            *known = Names::All;
            true
        }
        (Some(Names::These(known)), Names::These(more)) => {
            let before = known.len();
            known.extend(more);
            known.len() > before
        }
        (None, names) => {
            wanted.insert(id, names);
            true
        }
    }
}

fn one(
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
    // A file that another entry needs it in keeps it.
    let is_needed = |id: ModuleId, file| {
        lens.reach.iter().zip(needed).any(|(reach, needed)| {
            (reach.startup.contains(&file) || reach.deferred.contains(&file))
                && needed.as_ref().is_none_or(|needed| needed[id.at()])
        })
    };
    let cells: CellSet = by_entry
        .values()
        .flat_map(CellSet::iter)
        .filter(|id| {
            let cell = &record.cells[id.at()];
            !matches!(cell.owner, Owner::Module(module) if is_needed(module, cell.file))
        })
        .collect();
    let path = record.module(barrel).path.as_str();
    let mut kin: BTreeMap<&str, u64> = BTreeMap::new();
    for id in by_entry.values().flat_map(CellSet::iter) {
        let cell = &record.cells[id.at()];
        if let Owner::Module(module) = cell.owner {
            let name =
                record.package_of(module).map_or("own code", |package| package.name.as_str());
            *kin.entry(name).or_default() += cell.amount.emitted;
        }
    }
    let (mostly, _) =
        kin.into_iter().max_by_key(|(name, bytes)| (*bytes, std::cmp::Reverse(*name)))?;
    let names: Vec<&str> = by_entry.keys().map(|&at| record.entries[at].name.as_str()).collect();
    let named = match names.as_slice() {
        several if several.len() > 3 => format!("{} entries", several.len()),
        few => few.join(", "),
    };
    Some(Found {
        with_wrappers: true,
        title: format!(
            "{path} draws {} into {named} that use none of their names, mostly {mostly}",
            counted(modules.len(), "module")
        ),
        names: BTreeSet::from([path.to_owned()]),
        cells,
        bound: Bound::AtMost,
        by_entry: Some(by_entry),
        cause: format!("{path} hands on names of all of them, and the bundler may not leave out what could have an effect"),
        advice: "import the names from the modules that declare them, or let the package say `sideEffects` in its package.json".to_owned(),
        ..Found::default()
    })
}
