//! What comes along with a file that left no byte, though nobody takes its names: a module that must be
//! kept for what it does.

use std::collections::{BTreeMap, BTreeSet, HashSet};

use uvlet_record::{FileId, ModuleId, PackageId, SideEffects};

use super::{
    super::{
        graph::{Graph, is_style},
        placement::With,
    },
    handing::Handing,
    requests::{Built, Givers, Vanished},
    walk::{Files, Step, Target, Walk},
};

impl Vanished<'_> {
    /// Adds what files at hand draw in beyond the names that are taken of them: what is loaded wherever a
    /// module is that asks for the file, and what nothing else there asks for.
    pub(super) fn come_along(
        &self,
        (files, givers): (&Files, &Givers<'_>),
        built: &Built,
        graph: &Graph,
        handing: &mut Handing,
    ) {
        let mut askers: BTreeMap<ModuleId, BTreeSet<ModuleId>> = BTreeMap::new();
        let direct = graph.edges.iter().map(|edge| (edge.from, edge.to));
        let named = handing.asked().flat_map(|(_, named)| named);
        let named = named.flat_map(|(from, modules)| modules.iter().map(move |to| (*from, *to)));
        for (from, to) in direct.chain(named) {
            askers.entry(to).or_default().insert(from);
        }
        let is_asked = |to: ModuleId, with: ModuleId| {
            let mut askers = askers.get(&to).into_iter().flatten();
            askers.any(|asker| *asker == with || self.placement.with(*asker, with) == With::Always)
        };
        let mut along: BTreeSet<Step> = BTreeSet::new();
        let orphaned = self.orphaned(graph, handing);
        let may_bring = |place: &str| built.contains_key(place) || !self.is_free(place, &orphaned);
        for (place, named) in handing.asked().filter(|(place, _)| may_bring(place)) {
            let mut walk = Walk::new(self, files, givers);
            walk.all(place, 0);
            // Askers that lie in the same files are loaded alike.
            let alike: BTreeMap<&[FileId], ModuleId> =
                named.keys().map(|from| (self.placement.holders(*from), *from)).collect();
            let comes = |to: &ModuleId| {
                self.placement.is_there(*to)
                    && alike.values().any(|from| {
                        to != from
                            && self.placement.with(*to, *from) == With::Always
                            && !is_asked(*to, *from)
                    })
            };
            let modules = walk.steps.iter().filter_map(|step| match step.to {
                Target::Module(to) => Some(to),
                Target::File(_) => None,
            });
            let modules: BTreeSet<ModuleId> = modules.collect();
            let coming: BTreeSet<ModuleId> = modules.into_iter().filter(comes).collect();
            let mut kept: BTreeSet<Step> = BTreeSet::new();
            let mut leading: BTreeSet<&str> = BTreeSet::new();
            loop {
                let leads = |step: &&Step| match &step.to {
                    Target::Module(to) => coming.contains(to),
                    Target::File(next) => leading.contains(next.as_str()),
                };
                let found: Vec<&Step> = walk.steps.iter().filter(leads).collect();
                if found.len() == kept.len() {
                    break;
                }
                leading.extend(found.iter().map(|step| step.from.as_str()));
                kept.extend(found.into_iter().cloned());
            }
            along.extend(kept.into_iter().map(|step| Step { names: Some(Vec::new()), ..step }));
        }
        handing.lead(along);
    }

    /// Adds to files that are built of modules of their packages those that nobody asks for: they stay with
    /// what is taken. The files come with the modules that lead to them.
    pub(super) fn parts(&self, built: &Built, graph: &Graph, handing: &mut Handing) {
        let orphaned = self.orphaned(graph, handing);
        for (place, askers) in built {
            let parts = self.installed_around(place).and_then(|package| orphaned.get(&package));
            let comes = |part: &&ModuleId| {
                askers.iter().any(|from| self.placement.with(**part, *from) == With::Always)
            };
            let step = |part: &ModuleId| {
                let (from, names) = (place.clone(), Some(Vec::new()));
                Step { from, request: None, names, to: Target::Module(*part) }
            };
            handing.lead(parts.into_iter().flatten().filter(comes).map(step));
        }
    }

    /// By package, its modules that nothing is known to ask for.
    fn orphaned(&self, graph: &Graph, handing: &Handing) -> BTreeMap<PackageId, Vec<ModuleId>> {
        let asked = graph.edges.iter().map(|edge| edge.to).chain(handing.modules());
        let asked: HashSet<ModuleId> = asked.collect();
        let mut orphaned: BTreeMap<PackageId, Vec<ModuleId>> = BTreeMap::new();
        for id in (0..self.record.modules.len()).map(ModuleId::new) {
            let package = self.record.module(id).package.filter(|_| self.placement.is_there(id));
            if let Some(package) = package
                && !asked.contains(&id)
                && !is_style(self.record, id)
            {
                orphaned.entry(package).or_default().push(id);
            }
        }
        orphaned
    }

    /// Whether a file is of a package that says that none of its files does anything, and all of which is
    /// asked for by name.
    fn is_free(&self, place: &str, orphaned: &BTreeMap<PackageId, Vec<ModuleId>>) -> bool {
        self.installed_around(place).is_some_and(|id| {
            let package = &self.record.packages[id.at()];
            package.side_effects == Some(SideEffects::None) && !orphaned.contains_key(&id)
        })
    }

    /// The installed package that a file lies in.
    fn installed_around(&self, place: &str) -> Option<PackageId> {
        let around = self.resolver.package_around(place);
        around.filter(|id| !self.record.packages[id.at()].own)
    }
}
