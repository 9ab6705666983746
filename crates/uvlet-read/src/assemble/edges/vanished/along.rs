//! What comes along with a file that left no byte, though nobody takes its names: a module that must be
//! kept for what it does.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{FileId, ModuleId, PackageId, SideEffects};

use super::{
    super::{graph::Graph, placement::With},
    handing::Handing,
    requests::{Givers, Vanished},
    walk::{Files, Step, Target, Walk},
};

impl Vanished<'_> {
    /// Adds what files at hand draw in beyond the names that are taken of them: what is loaded wherever a
    /// module is that asks for the file, and what nothing else there asks for.
    pub(super) fn come_along(
        &self,
        files: &Files,
        givers: &Givers<'_>,
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
        let ids = (0..self.record.modules.len()).map(ModuleId::new);
        let orphans = ids.filter(|id| self.placement.is_there(*id) && !askers.contains_key(id));
        let orphaned: BTreeSet<PackageId> =
            orphans.filter_map(|id| self.record.module(id).package).collect();
        for (place, named) in handing.asked().filter(|(place, _)| !self.is_free(place, &orphaned)) {
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

    /// Whether a file is of a package that says that none of its files does anything, and all of which is
    /// asked for by name.
    fn is_free(&self, place: &str, orphaned: &BTreeSet<PackageId>) -> bool {
        let mut packages = self.record.packages.iter().enumerate();
        packages.any(|(at, package)| {
            package.side_effects == Some(SideEffects::None)
                && !orphaned.contains(&PackageId::new(at))
                && place.strip_prefix(&package.place).is_some_and(|rest| rest.starts_with('/'))
        })
    }
}
