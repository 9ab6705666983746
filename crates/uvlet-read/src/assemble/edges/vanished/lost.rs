//! Requests for packages that left no byte of their own.

use std::collections::{BTreeSet, HashMap, HashSet};

use uvlet_record::ModuleId;
use uvlet_script::requests::Request;

use super::{
    super::{
        graph::{Graph, is_style},
        resolve::{Meant, plain, tail},
    },
    handing::Handing,
    lead::{is_handing, lead},
    requests::{Asked, Givers, TELLING, Vanished},
    walk::Walk,
};

impl Vanished<'_> {
    /// Takes down what a request leads to by a file on disk of such a package, which was walked.
    pub(super) fn lost(
        &self,
        (from, ask): (ModuleId, &Request),
        place: &str,
        walk: Walk<'_, '_>,
        ways: (&mut Graph, &mut Handing),
    ) {
        let Walk { mut found, steps, .. } = walk;
        found.retain(|(to, _)| *to != from && self.placement.is_there(*to));
        let place = is_handing(ask).then(|| place.to_owned());
        lead((from, ask), place, found, steps, ways);
    }

    /// Requests for packages that left no module, as where one only re-exports others: what they lead to is
    /// told by the names that they take, or by the package that they are called after, among installed
    /// modules that nothing else asks for.
    pub(super) fn through_lost_packages(
        &self,
        asked: &Asked<'_>,
        givers: &Givers<'_>,
        graph: &mut Graph,
        handing: &mut Handing,
    ) {
        let known = graph.edges.iter().map(|edge| edge.to);
        let known: HashSet<ModuleId> = known.chain(handing.modules()).collect();
        let is_orphan = |id: &ModuleId| {
            self.record.module(*id).third_party
                && self.placement.is_there(*id)
                && !known.contains(id)
                && !is_style(self.record, *id)
        };
        let ids = (0..self.record.modules.len()).map(ModuleId::new);
        let orphans: HashSet<ModuleId> = ids.filter(is_orphan).collect();
        let mut of_package: HashMap<&str, Vec<ModuleId>> = HashMap::new();
        for &id in &orphans {
            if let Some(package) = self.record.package_of(id) {
                of_package.entry(tail(&package.name)).or_default().push(id);
            }
        }
        let lost = asked.iter().flat_map(|(from, asks)| asks.iter().map(move |one| (*from, one)));
        let is_lost = |meant: &Meant| matches!(meant, Meant::Elsewhere | Meant::Lost(_));
        for (from, (ask, meant)) in lost.filter(|(_, (_, meant))| is_lost(meant)) {
            let called = of_package.get(tail(&ask.specifier)).map_or(&[][..], Vec::as_slice);
            let called = self.surest(from, called.iter().copied(), ask);
            let mut found: BTreeSet<(ModuleId, Option<String>)> = BTreeSet::new();
            let tells = |name: &&String| name.len() >= TELLING && *name != "default";
            for name in ask.names.iter().flatten().filter(tells) {
                let of_name = givers.get(name.as_str()).into_iter().flatten().copied();
                let mut of_name = self.surest(from, of_name.filter(|id| orphans.contains(id)), ask);
                match of_name.len() {
                    0 => of_name = self.called(&called, name),
                    1 => {}
                    _ => of_name.retain(|id| called.contains(id)),
                }
                if let [only] = of_name.as_slice() {
                    found.insert((*only, Some(name.clone())));
                }
            }
            if found.is_empty() {
                found.extend(called.into_iter().map(|id| (id, None)));
            }
            found.retain(|(to, _)| *to != from);
            let place = match meant {
                Meant::Lost(location) => Some(location.clone()),
                _ => placed(&ask.specifier),
            };
            let place = place.filter(|_| is_handing(ask));
            lead((from, ask), place, found, BTreeSet::new(), (graph, handing));
        }
    }
}

/// Where a package's file would lie that is requested by this name; none if it can be no package's.
fn placed(specifier: &str) -> Option<String> {
    let specifier = plain(specifier);
    let is_name = specifier.starts_with(|first: char| first.is_ascii_alphanumeric())
        || (specifier.starts_with('@') && !specifier.starts_with("@/"));
    (is_name && !specifier.contains(':')).then(|| format!("node_modules/{specifier}"))
}
