//! Requests that lead past modules which left no byte, such as files that only hand on what others
//! give.
//!
//! Such a file becomes a module ([`handing`]).
//!
//! Where such a file lies under the project's folder it is read, and the names that are taken are
//! followed through it. Else a module is meant that gives a name which is taken, in the same package
//! or folder, and that is loaded wherever the asking module is; what stands behind an `export *` is
//! what nobody else asks for.

pub(crate) mod along;
pub(crate) mod handing;
pub(crate) mod lead;
pub(crate) mod lost;
pub(crate) mod requests;
pub(crate) mod walk;

use std::collections::{BTreeSet, HashMap, HashSet};

use handing::Handing;
use lead::{is_handing, lead};
use uvlet_record::{EdgeBasis, ModuleFormat, ModuleId};
use uvlet_script::requests::{Kind, Request};
use walk::{Files, Walk};

use super::{
    placement::With,
    resolve::{Gone, Meant, folder, tail},
};
use crate::assemble::edges::{
    graph::{Graph, is_style},
    vanished::requests::{Asked, Built, Givers, TELLING, Vanished, spells},
};

impl Vanished<'_> {
    /// Adds what requests lead to past what is gone; the files of one's own that they lead through.
    pub fn follow(&self, asked: &Asked<'_>, graph: &mut Graph) -> Handing {
        let givers = self.givers();
        let files = Files::default();
        let mut handing = Handing::default();
        let mut built = Built::new();
        let mut open: Vec<Open<'_>> = Vec::new();
        for (from, asks) in asked {
            for (ask, meant) in asks {
                match meant {
                    Meant::Unknown => graph.unresolved(*from, ask),
                    Meant::Gone(gone) => {
                        let one = Open { from: *from, ask, gone, missing: Vec::new() };
                        let ways = (&mut *graph, &mut handing, &mut built);
                        open.extend(self.one(one, &givers, &files, ways));
                    }
                    Meant::Lost(place) => {
                        let walk = self.on_disk(place, ask.names.as_deref(), &files, &givers);
                        self.lost((*from, ask), place, walk, (graph, &mut handing));
                    }
                    Meant::Module(_) | Meant::Elsewhere => {}
                }
            }
        }
        // Where nothing stands behind a file that left no byte, nothing is lost with it.
        open.retain(|open| match &open.gone.location {
            Some(location) => {
                let is_own = open.ask.specifier.starts_with('.');
                let is_shaken = is_own && self.are_given(location, &open.missing, &files, &givers);
                let leads = self.on_disk(location, None, &files, &givers).found;
                !is_shaken && !leads.is_empty()
            }
            None => true,
        });
        self.parts(&built, graph, &mut handing);
        self.orphans(&open, graph, &mut handing);
        self.come_along((&files, &givers), &built, graph, &mut handing);
        self.through_lost_packages(asked, &givers, graph, &mut handing);
        handing
    }

    /// Follows one request; what is left of it is open.
    fn one<'o>(
        &self,
        mut open: Open<'o>,
        givers: &Givers<'_>,
        files: &Files,
        (graph, handing, built): (&mut Graph, &mut Handing, &mut Built),
    ) -> Option<Open<'o>> {
        let Open { from, ask, gone, .. } = open;
        let walk = match &gone.location {
            Some(place) => self.on_disk(place, ask.names.as_deref(), files, givers),
            None => Walk::new(self, files, givers),
        };
        let Walk { mut found, mut steps, built: files, .. } = walk;
        // A file that is installed may itself be built, of sources that its own map names.
        if found.is_empty() {
            found = self.by_names(from, ask, gone, givers);
            steps.clear();
        }
        found.retain(|(to, _)| *to != from && self.placement.is_there(*to));
        if let Some(to) = gone.instead.filter(|to| found.is_empty() && *to != from) {
            graph.add(from, to, ask, ask.names.clone(), EdgeBasis::Read);
            return None;
        }
        let names = ask.names.iter().flatten();
        let is_missing =
            |name: &&String| !found.iter().any(|(_, taken)| taken.as_ref() == Some(*name));
        open.missing = names.filter(is_missing).cloned().collect();
        let is_done = match &ask.names {
            Some(names) => names.is_empty() || open.missing.is_empty(),
            None => !found.is_empty(),
        };
        // Where disk may hold another edition than the build, only its own files tell what it leads to.
        let is_sure = gone.instead.is_none() || !steps.is_empty();
        let place = self.place(ask, gone).filter(|_| is_sure);
        if let Some(place) = place.as_deref().filter(|place| files.contains(*place)) {
            handing.add(place, (from, ask), [], []);
        }
        for file in files {
            built.entry(file).or_default().insert(from);
        }
        lead((from, ask), place, found, steps, (graph, handing));
        (!is_done).then_some(open)
    }

    /// Where a file lies that left no byte and is asked for before anything runs; without its ending
    /// where it is not at hand.
    fn place(&self, ask: &Request, gone: &Gone) -> Option<String> {
        if !is_handing(ask) {
            return None;
        }
        Some(match (&gone.location, self.resolver.is_folder(&gone.stem)) {
            (Some(location), _) => location.clone(),
            (None, true) => format!("{}/index", gone.stem),
            (None, false) => gone.stem.clone(),
        })
    }

    fn givers(&self) -> Givers<'_> {
        let mut givers: Givers<'_> = HashMap::new();
        for (at, facts) in self.facts.iter().enumerate() {
            let id = ModuleId::new(at);
            let Some(facts) = facts.as_ref().filter(|_| self.placement.is_there(id)) else {
                continue;
            };
            for give in facts.requests.gives.iter().filter(|give| give.from.is_none()) {
                let names = givers.entry(&give.name).or_default();
                if names.last() != Some(&id) {
                    names.push(id);
                }
            }
        }
        givers
    }

    /// Through files on disk.
    fn on_disk<'w>(
        &'w self,
        location: &str,
        names: Option<&[String]>,
        files: &'w Files,
        givers: &'w Givers<'w>,
    ) -> Walk<'w, 'w> {
        let mut walk = Walk::new(self, files, givers);
        match names {
            Some(names) => {
                names.iter().for_each(|name| _ = walk.name(location, name, name, 0));
                walk.effects(location, 0);
            }
            None => walk.all(location, 0),
        }
        walk
    }

    /// Whether a file gives names itself, or it is known who does: left out are names that were shaken.
    fn are_given(
        &self,
        location: &str,
        names: &[String],
        files: &Files,
        givers: &Givers<'_>,
    ) -> bool {
        let mut walk = Walk::new(self, files, givers);
        !names.is_empty() && names.iter().all(|name| walk.name(location, name, name, 0))
    }

    /// By the names that are taken, among what is loaded wherever the asking module is.
    fn by_names(
        &self,
        from: ModuleId,
        ask: &Request,
        gone: &Gone,
        givers: &Givers<'_>,
    ) -> BTreeSet<(ModuleId, Option<String>)> {
        let mut found = BTreeSet::new();
        for name in ask.names.iter().flatten() {
            let of_name = |name: &str| {
                let givers = givers.get(name).into_iter().flatten().copied();
                self.surest(from, givers.filter(|id| self.may_be(from, *id, gone)), ask)
            };
            let stem = gone.stem.strip_suffix("/index").unwrap_or(&gone.stem);
            let wanted = if name == "default" { tail(stem) } else { name };
            let mut candidates = match name.len() >= TELLING && name != "default" {
                true => of_name(name),
                false => Vec::new(),
            };
            if candidates.len() > 1 {
                let best = self.called(&candidates, wanted);
                candidates = if best.is_empty() { self.nearest(candidates, gone) } else { best };
            }
            if candidates.is_empty() {
                candidates = self.called(&of_name("default"), wanted);
                // A file that is named stands for no file of that name elsewhere.
                if ask.specifier.starts_with('.') && name == "default" {
                    candidates.retain(|id| self.is_near(*id, gone));
                }
            }
            if candidates.is_empty() && !ask.specifier.starts_with('.') && name.len() >= TELLING {
                candidates = self.handed_on(from, name, ask, gone, givers);
            }
            // A file that gives one name of another as its default is called after that name.
            if candidates.is_empty() && name == "default" && wanted.len() >= TELLING {
                candidates = self.called(&of_name(wanted), wanted);
                if candidates.len() > 1 {
                    // Of several, the one below a folder that the request names.
                    let inside: Vec<String> =
                        ask.specifier.split('/').map(|part| format!("/{part}/")).collect();
                    let is_below = |id: &ModuleId| {
                        let path = self.resolver.path(*id);
                        inside
                            .iter()
                            .skip(1)
                            .take(inside.len().saturating_sub(2))
                            .all(|folder| path.contains(folder))
                    };
                    candidates.retain(is_below);
                }
            }
            if candidates.is_empty() && name == "default" && wanted.len() >= TELLING {
                let theirs = self.handed_on(from, "default", ask, gone, givers);
                candidates = self.called(&theirs, wanted);
            }
            if let [only] = candidates.as_slice() {
                found.insert((*only, Some(name.clone())));
            }
        }
        found
    }

    /// What a package hands on of packages that its modules ask for.
    fn handed_on(
        &self,
        from: ModuleId,
        name: &str,
        ask: &Request,
        gone: &Gone,
        givers: &Givers<'_>,
    ) -> Vec<ModuleId> {
        let Some(package) = gone.package else { return Vec::new() };
        let others = self.resolver.asked_by(package, self.facts);
        let givers = givers.get(name).into_iter().flatten().copied();
        let is_theirs = |id: &ModuleId| {
            self.record.module(*id).package.is_some_and(|package| others.contains(&package))
        };
        self.surest(from, givers.filter(is_theirs), ask)
    }

    /// Those that are most surely loaded where a module is.
    pub(super) fn surest(
        &self,
        from: ModuleId,
        ids: impl Iterator<Item = ModuleId>,
        ask: &Request,
    ) -> Vec<ModuleId> {
        if !matches!(ask.kind, Kind::Import | Kind::Reexport | Kind::Require) {
            return ids.collect();
        }
        let with: Vec<(ModuleId, With)> =
            ids.map(|id| (id, self.placement.with(id, from))).collect();
        let best = with.iter().map(|(_, with)| *with).max().filter(|best| *best > With::Never);
        with.into_iter().filter(|(_, with)| Some(*with) == best).map(|(id, _)| id).collect()
    }

    /// Those whose files, or whose folders where they are the index, are called so: exactly, else but
    /// for the way of writing it.
    pub(super) fn called(&self, ids: &[ModuleId], name: &str) -> Vec<ModuleId> {
        let plain = |text: &str| text.replace(['-', '_', '.'], "").to_ascii_lowercase();
        let own_name = |id: &ModuleId| {
            let path = self.resolver.path(*id);
            let stem = tail(path);
            if stem == "index" { tail(folder(path)) } else { stem }
        };
        let exactly: Vec<ModuleId> =
            ids.iter().copied().filter(|id| own_name(id) == name).collect();
        if !exactly.is_empty() {
            return exactly;
        }
        ids.iter().copied().filter(|id| plain(own_name(id)) == plain(name)).collect()
    }

    /// Whether a module may stand behind one that is gone.
    fn may_be(&self, from: ModuleId, id: ModuleId, gone: &Gone) -> bool {
        let module = self.record.module(id);
        id != from && module.package == gone.package && module.format != Some(ModuleFormat::Style)
    }

    /// Those below the folder of what is gone, if any are; else those beside it; else all.
    fn nearest(&self, ids: Vec<ModuleId>, gone: &Gone) -> Vec<ModuleId> {
        let stem = gone.stem.strip_suffix("/index").unwrap_or(&gone.stem);
        for folder in [stem, folder(stem)] {
            let below = |id: &&ModuleId| self.is_below(**id, folder);
            let near: Vec<ModuleId> = ids.iter().filter(below).copied().collect();
            if !near.is_empty() {
                return near;
            }
        }
        ids
    }

    fn is_near(&self, id: ModuleId, gone: &Gone) -> bool {
        self.is_below(id, folder(gone.stem.strip_suffix("/index").unwrap_or(&gone.stem)))
    }

    fn is_below(&self, id: ModuleId, folder: &str) -> bool {
        self.resolver.path(id).strip_prefix(folder).is_some_and(|rest| rest.starts_with('/'))
    }

    /// What nobody asks for stands behind a request whose names were not all found: the only one that
    /// there is, else the one whose names it is called by, else one that takes everything. What is
    /// left is not told.
    fn orphans(&self, open: &[Open<'_>], graph: &mut Graph, handing: &mut Handing) {
        let asked = graph.edges.iter().map(|edge| edge.to);
        let asked: HashSet<ModuleId> = asked.chain(handing.modules()).collect();
        let roots: HashSet<ModuleId> =
            self.record.entries.iter().flat_map(|entry| entry.roots.iter().copied()).collect();
        let ids = (0..self.record.modules.len()).map(ModuleId::new);
        let is_orphan = |id: &ModuleId| {
            self.placement.is_there(*id)
                && !asked.contains(id)
                && !roots.contains(id)
                && !is_style(self.record, *id)
        };
        let mut is_told = vec![false; open.len()];
        for orphan in ids.filter(is_orphan) {
            let may = |open: &Open<'_>| {
                let stem = open.gone.stem.strip_suffix("/index").unwrap_or(&open.gone.stem);
                let is_below = || self.is_below(orphan, stem);
                open.gone.location.is_none()
                    && self.may_be(open.from, orphan, open.gone)
                    && (open.gone.package.is_some() || is_below())
                    && self.placement.with(orphan, open.from) > With::Never
            };
            let candidates: Vec<usize> = (0..open.len()).filter(|&at| may(&open[at])).collect();
            let path = self.resolver.path(orphan).to_ascii_lowercase();
            let is_named = |at: &&usize| {
                open[**at]
                    .missing
                    .iter()
                    .any(|name| self.is_named(orphan, &path, name, open[**at].ask))
            };
            let takes_all = |at: &&usize| open[**at].ask.names.is_none();
            let named: Vec<usize> = candidates.iter().filter(is_named).copied().collect();
            let chosen = match (candidates.as_slice(), named.is_empty()) {
                ([only], _) => vec![*only],
                (_, false) => named,
                _ => candidates.iter().filter(takes_all).copied().collect(),
            };
            for at in chosen {
                is_told[at] = true;
                let Open { from, ask, gone, .. } = open[at];
                let found = BTreeSet::from([(orphan, None)]);
                let place = self.place(ask, gone);
                lead((from, ask), place, found, BTreeSet::new(), (graph, handing));
            }
        }
        for (open, is_told) in open.iter().zip(is_told) {
            if !is_told {
                graph.unresolved(open.from, open.ask);
            }
        }
    }
}

impl Vanished<'_> {
    /// Whether a module is called by a name that a request takes; where only members of the name are
    /// used, whether it gives one of these or is called so.
    fn is_named(&self, id: ModuleId, path: &str, name: &str, ask: &Request) -> bool {
        let Some(members) = ask.members.get(name) else { return spells(path, name) };
        let gives = self.facts[id.at()].iter().flat_map(|facts| &facts.requests.gives);
        let gives = gives.filter(|give| give.name != "default");
        let mut names: HashSet<&str> = gives.map(|give| give.name.as_str()).collect();
        names.insert(tail(self.resolver.path(id)));
        members.iter().any(|member| names.contains(member.as_str()))
    }
}

/// A request of which something was not found.
struct Open<'o> {
    from: ModuleId,
    ask: &'o Request,
    gone: &'o Gone,
    /// Names of which it is not known who gives them.
    missing: Vec<String>,
}
