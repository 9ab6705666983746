//! Exported names, each with the stretches of its declaration.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use uvlet_record::{ModuleId, Owner, Record, Texts};
use uvlet_script::declarations::own_exports;

use crate::{
    find::liveness::declarations::declarations,
    parts::{atoms::Layer, marks::Export},
};

/// The names that modules with bytes export of their own, and where their declarations stand.
pub fn exported(record: &Record, texts: &dyn Texts) -> (Layer, Vec<Export>) {
    let modules: BTreeSet<ModuleId> = record
        .cells
        .iter()
        .filter_map(|cell| match cell.owner {
            Owner::Module(id) if cell.amount.emitted > 0 => Some(id),
            _ => None,
        })
        .collect();
    let modules: Vec<ModuleId> = modules.into_iter().collect();
    let read = |id: ModuleId| Some((id, own_exports(&texts.source(id)?).ok()?));
    let names: BTreeMap<ModuleId, Vec<(String, Option<String>)>> =
        modules.into_par_iter().filter_map(read).collect::<Vec<_>>().into_iter().collect();
    let declared = declarations(record, texts);
    let mut list: Vec<Export> = Vec::new();
    let mut places: HashMap<(ModuleId, String), usize> = HashMap::new();
    for (&module, names) in &names {
        for (outside, inside) in names {
            // One declaration under two names is told of once.
            let Some(inside) = inside else { continue };
            places.entry((module, inside.clone())).or_insert_with(|| {
                let state = declared.absence(module);
                list.push(Export { module, name: outside.clone(), state });
                list.len() - 1
            });
        }
    }
    let mut layer = Layer::new();
    for one in declared.list {
        let Some(&at) = places.get(&(one.module, one.name)) else { continue };
        let known = &mut list[at].state;
        // Of several copies one may be used.
        *known = (*known).min(one.state);
        let label = u32::try_from(at + 1).unwrap_or(u32::MAX);
        let stretches = layer.entry(one.file).or_default();
        stretches.extend(one.ranges.into_iter().map(|range| (range, label)));
    }
    for stretches in layer.values_mut() {
        stretches.sort_by_key(|(range, _)| range.start);
    }
    (layer, list)
}
