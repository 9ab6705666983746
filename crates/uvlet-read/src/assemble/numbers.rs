//! New modules among those of a record, which stand in order: the others are numbered anew.

use std::collections::HashSet;

use uvlet_record::{Module, ModuleId, Owner, Record};

/// How modules are numbered after others were put among them.
pub struct Numbers {
    /// By the number before.
    now: Vec<ModuleId>,
    /// Where modules stand that were put in.
    new: Vec<ModuleId>,
}

impl Numbers {
    /// Puts modules into a record; one that is there already is left out.
    pub fn with(record: &mut Record, more: Vec<Module>) -> Self {
        if more.is_empty() {
            return Self {
                now: (0..record.modules.len()).map(ModuleId::new).collect(),
                new: Vec::new(),
            };
        }
        let old = std::mem::take(&mut record.modules);
        let known: HashSet<_> =
            old.iter().map(|module| (module.path.clone(), module.package)).collect();
        let is_new = |module: &Module| !known.contains(&(module.path.clone(), module.package));
        let more = more.into_iter().filter(is_new);
        let mut all: Vec<(Option<usize>, Module)> = old
            .into_iter()
            .enumerate()
            .map(|(at, module)| (Some(at), module))
            .chain(more.map(|module| (None, module)))
            .collect();
        all.sort_by(|(_, one), (_, other)| {
            (&one.path, one.package).cmp(&(&other.path, other.package))
        });
        let mut now = vec![ModuleId::new(0); all.iter().filter(|(at, _)| at.is_some()).count()];
        let mut new = Vec::new();
        for (at, (before, _)) in all.iter().enumerate() {
            match before {
                Some(before) => now[*before] = ModuleId::new(at),
                None => new.push(ModuleId::new(at)),
            }
        }
        record.modules = all.into_iter().map(|(_, module)| module).collect();
        let numbers = Self { now, new };
        if !numbers.new.is_empty() {
            numbers.give_to(record);
        }
        numbers
    }

    /// A module's number now.
    pub fn now(&self, before: ModuleId) -> ModuleId {
        self.now[before.at()]
    }

    /// The modules that were put in.
    pub fn new_ones(&self) -> &[ModuleId] {
        &self.new
    }

    /// Numbers anew all that a record says of modules, but for its edges.
    fn give_to(&self, record: &mut Record) {
        for cell in &mut record.cells {
            if let Owner::Module(id) = &mut cell.owner {
                *id = self.now(*id);
            }
        }
        let named = record.files.iter_mut().map(|file| &mut file.source);
        let named = named.chain(record.chunks.iter_mut().map(|chunk| &mut chunk.opened_for));
        let named = named.chain(record.modules.iter_mut().map(|module| &mut module.merged_into));
        let named = named.chain(record.dynamic_loads.iter_mut().map(|load| &mut load.module));
        let named = named.chain(record.unresolved.iter_mut().map(|load| &mut load.module));
        for id in named.flatten() {
            *id = self.now(*id);
        }
        for id in record.entries.iter_mut().flat_map(|entry| &mut entry.roots) {
            *id = self.now(*id);
        }
    }
}
