//! The modules that an entry starts with.

use std::collections::BTreeSet;

use uvlet_record::{FileId, Kind, ModuleId, Owner, Record};

/// Gives entries roots that the bundler says none of: of the modules in its own scripts, those that
/// no other module there asks for. Where a script only gathers others, nothing may be left.
pub fn give(record: &mut Record) {
    if record.edges.is_empty() || record.entries.iter().all(|entry| !entry.roots.is_empty()) {
        return;
    }
    let asked: BTreeSet<(ModuleId, ModuleId)> =
        record.edges.iter().map(|edge| (edge.to, edge.from)).collect();
    let mut has_bytes = vec![false; record.modules.len()];
    for cell in record.cells.iter().filter(|cell| cell.amount.emitted > 0) {
        if let Owner::Module(id) = cell.owner {
            has_bytes[id.at()] = true;
        }
    }
    let roots: Vec<Vec<ModuleId>> = record
        .entries
        .iter()
        .map(|entry| match entry.roots.is_empty() {
            true => roots(record, &entry.requested, &asked, &has_bytes),
            false => entry.roots.clone(),
        })
        .collect();
    for (entry, roots) in record.entries.iter_mut().zip(roots) {
        entry.roots = roots;
    }
}

fn roots(
    record: &Record,
    requested: &[FileId],
    asked: &BTreeSet<(ModuleId, ModuleId)>,
    has_bytes: &[bool],
) -> Vec<ModuleId> {
    let scripts = requested.iter().filter(|id| record.file(**id).kind == Kind::Script);
    let needed: BTreeSet<FileId> =
        scripts.clone().flat_map(|id| record.file(*id).loads.iter().copied()).collect();
    let own = scripts.filter(|id| !needed.contains(id));
    let modules: BTreeSet<ModuleId> = own
        .flat_map(|id| record.cells_of(*id))
        .filter_map(|cell| match cell.owner {
            Owner::Module(id) if cell.amount.emitted > 0 => Some(id),
            _ => None,
        })
        .collect();
    // A file that left no byte, such as one that re-exports others, imports on behalf of its importers.
    let is_asked = |id: &ModuleId| {
        let mut open = vec![*id];
        let mut seen = BTreeSet::from([*id]);
        while let Some(to) = open.pop() {
            let askers = asked.range((to, ModuleId::new(0))..=(to, ModuleId::new(usize::MAX)));
            for &(_, from) in askers {
                if from != *id && modules.contains(&from) {
                    return true;
                }
                if !has_bytes[from.at()] && seen.insert(from) {
                    open.push(from);
                }
            }
        }
        false
    };
    modules.iter().copied().filter(|id| !is_asked(id)).collect()
}
