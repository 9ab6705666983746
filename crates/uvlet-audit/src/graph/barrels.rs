//! Files that only hand on names: what they hand on, and from where.

use std::collections::{BTreeMap, BTreeSet};

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use uvlet_record::{Edge, ModuleId, Owner, Record, Texts};
use uvlet_script::declarations::{HandedOn, exported_names, handed_on, re_exported};

use crate::graph::network::Network;

/// Bytes of a source beyond which it is no mere list of names.
const LONGEST: usize = 200_000;

/// What is looked at.
#[derive(Clone, Copy)]
pub struct Sight<'a> {
    /// The record.
    pub record: &'a Record,
    /// Who asks for whom in it.
    pub network: &'a Network<'a>,
    /// Sources, where they are at hand.
    pub texts: &'a dyn Texts,
}

/// Names that are wanted of a file.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Names {
    /// These.
    These(BTreeSet<String>),
    /// Any.
    All,
}

/// Files that only hand on, and what others export.
pub struct Barrels {
    /// By the file.
    pub handed: BTreeMap<ModuleId, HandedOn>,
    /// Names that the modules export which such files ask for; none where it may be any.
    exports: BTreeMap<ModuleId, Option<BTreeSet<String>>>,
    /// Those of which it is inferred what they hand on, by the paths of modules where no request is known.
    inferred: BTreeSet<ModuleId>,
}

/// Files that only hand on, with what they hand on. One whose source is not at hand is followed whole:
/// it may ask for others for what they do.
pub fn barrels(sight: Sight<'_>) -> Barrels {
    let record = sight.record;
    let asked = |id: ModuleId| -> BTreeSet<ModuleId> {
        sight.network.asked(id).map(|edge| edge.to).collect()
    };
    let modules: Vec<ModuleId> =
        (0..record.modules.len()).map(ModuleId::new).filter(|&id| !asked(id).is_empty()).collect();
    let read = |id: ModuleId| {
        let text = sight.texts.source(id)?;
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
    let vanished = vanished(sight);
    let of_all = handed.iter().filter(|(_, handed)| !handed.all.is_empty()).map(|(&id, _)| id);
    let asked: BTreeSet<ModuleId> =
        of_all.chain(vanished.iter().copied()).flat_map(asked).collect();
    let names = |id: ModuleId| {
        let names = sight.texts.source(id).and_then(|text| exported_names(&text).ok().flatten());
        (id, names.map(|names| names.into_iter().collect()))
    };
    let asked: Vec<ModuleId> = asked.into_iter().filter(|id| !handed.contains_key(id)).collect();
    let exports: Vec<_> = asked.into_par_iter().map(names).collect();
    let mut barrels =
        Barrels { handed, exports: exports.into_iter().collect(), inferred: BTreeSet::new() };
    barrels.infer(sight, &vanished);
    barrels
}

/// Modules that left no byte and no source, and ask for others: all they can do is hand on.
fn vanished(sight: Sight<'_>) -> BTreeSet<ModuleId> {
    let record = sight.record;
    let owners = record.cells.iter().filter(|cell| cell.amount.emitted > 0);
    let left: BTreeSet<ModuleId> = owners
        .filter_map(|cell| match cell.owner {
            Owner::Module(id) => Some(id),
            _ => None,
        })
        .collect();
    let modules = (0..record.modules.len()).map(ModuleId::new);
    let is_gone = |id: &ModuleId| {
        !left.contains(id)
            && !record.module(*id).external
            && sight.network.asked(*id).next().is_some()
            && sight.texts.source(*id).is_none()
    };
    modules.filter(is_gone).collect()
}

/// The request of an edge; where it is not known, the path of what it leads to.
fn asked_as<'a>(sight: Sight<'a>, edge: &'a Edge) -> &'a str {
    edge.request.as_deref().unwrap_or_else(|| &sight.record.module(edge.to).path)
}

impl Barrels {
    /// What files hand on whose source is not at hand, by the names that others take of them: a name
    /// that one alone of the modules that they ask for exports is handed on from there. Whatever no
    /// such name shows to be handed on may be asked for for what it does.
    fn infer(&mut self, sight: Sight<'_>, vanished: &BTreeSet<ModuleId>) {
        let network = sight.network;
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
                            && self.gives(edge.to, name, sight, vanished, &mut BTreeSet::from([id]))
                    })
                };
                let several = givers().map(|edge| edge.to).collect::<BTreeSet<_>>().len() > 1;
                if let Some(request) = givers().next().map(|edge| asked_as(sight, edge))
                    && !several
                {
                    handed.names.insert(name.clone(), (request.to_owned(), Some(name.clone())));
                }
            }
            let is_handed = |request: &str| handed.names.values().any(|(from, _)| from == request);
            let requests: BTreeSet<&str> =
                network.asked(id).map(|edge| asked_as(sight, edge)).collect();
            let bare = requests.into_iter().filter(|one| !is_handed(one)).map(str::to_owned);
            handed.bare = bare.collect();
            if !handed.names.is_empty() {
                found.insert(id, handed);
            }
        }
        self.inferred.extend(found.keys());
        self.handed.extend(found);
    }

    /// Adds what a file re-exports of which it is known that it does nothing else that matters.
    pub fn add_free(&mut self, id: ModuleId, sight: Sight<'_>) {
        if self.handed.contains_key(&id) {
            return;
        }
        let text = sight.texts.source(id);
        if let Some(handed) = text.and_then(|text| re_exported(&text).ok()?) {
            self.handed.insert(id, HandedOn { bare: BTreeSet::new(), ..handed });
        }
    }

    /// What a file that hands on calls what it asks for; none where that is not known.
    fn request<'a>(&self, edge: &'a Edge, sight: Sight<'a>) -> Option<&'a str> {
        match self.inferred.contains(&edge.from) {
            true => Some(asked_as(sight, edge)),
            false => edge.request.as_deref(),
        }
    }

    /// Whether a module may export a name, past those whose source is not at hand.
    fn gives(
        &self,
        id: ModuleId,
        name: &str,
        sight: Sight<'_>,
        vanished: &BTreeSet<ModuleId>,
        seen: &mut BTreeSet<ModuleId>,
    ) -> bool {
        if !vanished.contains(&id) {
            return self.may_export(id, name, sight, 0);
        }
        seen.insert(id)
            && sight.network.asked(id).any(|edge| self.gives(edge.to, name, sight, vanished, seen))
    }

    /// Whether a module may export a name, by way of others or itself.
    fn may_export(&self, id: ModuleId, name: &str, sight: Sight<'_>, depth: usize) -> bool {
        const DEEPEST: usize = 8;
        match (self.handed.get(&id), self.exports.get(&id)) {
            (Some(handed), _) if depth < DEEPEST => {
                handed.names.contains_key(name)
                    || sight.network.asked(id).any(|edge| {
                        edge.request.as_ref().is_none_or(|request| handed.all.contains(request))
                            && self.may_export(edge.to, name, sight, depth + 1)
                    })
            }
            (None, Some(Some(names))) => names.contains(name),
            _ => true,
        }
    }

    /// What a file that hands on takes of the modules that it asks for, for names that are wanted of it.
    pub fn taken<'a>(
        &self,
        id: ModuleId,
        wanted: &Names,
        sight: Sight<'a>,
    ) -> Vec<(&'a Edge, Names)> {
        let edges = || sight.network.asked(id).filter(|edge| !edge.kind.is_deferred());
        let all = || edges().map(|edge| (edge, Names::All)).collect();
        let (Some(handed), Names::These(wanted)) = (self.handed.get(&id), wanted) else {
            return all();
        };
        let is_bare = |edge: &&Edge| {
            self.request(edge, sight).is_some_and(|request| handed.bare.contains(request))
        };
        let mut taken: Vec<(&Edge, Names)> =
            edges().filter(is_bare).map(|edge| (edge, Names::All)).collect();
        for name in wanted {
            let before = taken.len();
            for edge in edges() {
                // Where the request is not known, the edge may be any.
                let Some(request) = self.request(edge, sight) else {
                    taken.push((edge, Names::All));
                    continue;
                };
                match handed.names.get(name) {
                    Some((from, Some(theirs))) if *from == request => {
                        taken.push((edge, Names::These(BTreeSet::from([theirs.clone()]))));
                    }
                    Some((from, None)) if *from == request => taken.push((edge, Names::All)),
                    Some(_) => {}
                    None if handed.all.contains(request)
                        && self.may_export(edge.to, name, sight, 0) =>
                    {
                        taken.push((edge, Names::These(BTreeSet::from([name.clone()]))));
                    }
                    None => {}
                }
            }
            // A name that comes from nowhere comes from what cannot be seen, unless the file that it is said
            // to come from left nothing.
            let has_left_nothing = || {
                handed.names.get(name).is_some_and(|(from, _)| {
                    let lost = &sight.record.unresolved_requests;
                    !lost.iter().any(|lost| lost.from == id && lost.request == *from)
                })
            };
            if taken.len() == before && !has_left_nothing() {
                return all();
            }
        }
        taken
    }
}

/// Adds to the names that are wanted of a file; whether these are more.
pub fn add(wanted: &mut BTreeMap<ModuleId, Names>, id: ModuleId, names: Names) -> bool {
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
