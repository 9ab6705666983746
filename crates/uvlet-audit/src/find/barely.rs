//! CommonJS packages that come whole, of whose names the program uses few.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, EdgeKind, ModuleFormat, ModuleId, PackageId};
use uvlet_script::declarations::{given_out, names_read};

use crate::{
    find::{
        about::About,
        context::Ground,
        finding::{Bound, Found},
    },
    select::overlap::cells_of_modules,
};

/// Names below which a package is small anyway.
const LEAST: usize = 8;

/// Of so many names one is used at most.
const ONE_OF: usize = 4;

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let cells = cells_of_modules(record, &ground.apart);
    let mut modules: BTreeMap<PackageId, Vec<ModuleId>> = BTreeMap::new();
    for (at, module) in record.modules.iter().enumerate() {
        let id = ModuleId::new(at);
        let is_installed = record.package_of(id).is_some_and(|package| !package.own);
        if let Some(package) = module.package.filter(|_| is_installed && cells.contains_key(&id)) {
            modules.entry(package).or_default().push(id);
        }
    }
    modules
        .into_iter()
        .filter_map(|(package, ids)| package_finding(ground, package, &ids, &cells))
        .collect()
}

fn package_finding(
    ground: &Ground<'_>,
    package: PackageId,
    ids: &[ModuleId],
    cells: &BTreeMap<ModuleId, Vec<CellId>>,
) -> Option<Found> {
    let record = ground.record();
    let is_its = |id: ModuleId| record.module(id).package == Some(package);
    // One module gives everything out, and everybody asks for that one by `import`.
    let asked: Vec<_> = ids
        .iter()
        .flat_map(|&id| ground.network.askers(id))
        .filter(|edge| !is_its(edge.from))
        .collect();
    let main = asked.first()?.to;
    let is_plain = asked.iter().all(|edge| edge.to == main && edge.kind == EdgeKind::Static);
    if !is_plain || record.module(main).format != Some(ModuleFormat::CommonJs) {
        return None;
    }
    let given = given_out(&ground.texts.source(main)?).ok()??;
    let mut used: BTreeSet<String> = BTreeSet::new();
    for edge in &asked {
        let read = names_read(&ground.texts.source(edge.from)?).ok()?;
        used.extend(read.get(edge.request.as_ref()?)?.clone()?);
    }
    used.retain(|name| given.contains_key(name));
    if given.len() < LEAST || used.is_empty() || used.len() * ONE_OF > given.len() {
        return None;
    }
    // What the used names are made of stays; where one is made in the main module, that stays, too.
    let mut kept: Vec<ModuleId> = Vec::new();
    for name in &used {
        let request = given.get(name)?.as_ref();
        let target = request.and_then(|request| {
            ground.network.asked(main).find(|edge| edge.request.as_ref() == Some(request))
        });
        kept.push(target.map_or(main, |edge| edge.to));
    }
    let needed = ground.network.reach(&kept, &|edge| !edge.kind.is_deferred(), &|_| false);
    let is_whole = kept.contains(&main);
    let gone: Vec<CellId> = ids
        .iter()
        .filter(|id| is_whole || !needed[id.at()])
        .flat_map(|id| cells[id].iter().copied())
        .collect();
    let name = &record.packages[package.at()].name;
    Some(Found {
        names: BTreeSet::from([name.clone()]),
        cells: gone.into_iter().collect(),
        with_wrappers: true,
        bound: Bound::AtMost,
        ..Found::of(About::BarelyUsed {
            package: name.clone(),
            used: used.into_iter().collect(),
            names: given.len(),
            modules: ids.len(),
        })
    })
}
