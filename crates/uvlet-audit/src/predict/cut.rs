//! Where the cells of files go: they stay, go to a file of their own or to one that is there, or nowhere.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, FileId, Kind, ModuleId, Owner};

use crate::{
    bundlers::{Helper, Profile},
    lens::Lens,
    predict::{
        draft::{Draft, Key, When},
        follow::{Followed, Plan},
        step::Step,
    },
};

/// Tells where the cells of files go.
pub struct Cutter<'c, 'r> {
    pub lens: &'c Lens<'r>,
    pub followed: &'c [Followed],
    pub taken: &'c BTreeSet<ModuleId>,
    pub rules: &'c [&'c Step],
    pub brought: BTreeMap<ModuleId, Vec<usize>>,
}

impl Cutter<'_, '_> {
    /// The cells that stay in a file, and where each of the others goes; none where it goes nowhere.
    pub fn cut(
        &self,
        file: FileId,
        loaders: &[(usize, When)],
    ) -> (Vec<CellId>, BTreeMap<CellId, Option<Key>>) {
        let record = self.lens.record;
        let kind = record.file(file).kind;
        let (mut stays, mut leaves) = (Vec::new(), BTreeMap::new());
        let dropped = self.dropped(file, loaders);
        for id in record.file(file).cells.clone().map(CellId::new) {
            let Owner::Module(module) = record.cells[id.at()].owner else {
                stays.push(id);
                continue;
            };
            if !matches!(kind, Kind::Script | Kind::Style)
                || record.cells[id.at()].amount.emitted == 0
            {
                stays.push(id);
                continue;
            }
            if self.taken.contains(&module) {
                leaves.insert(id, None);
                continue;
            }
            let rule = self.rules.iter().position(|rule| rule.subject.cells.has(id));
            if let Some(rule) = rule.filter(|_| kind == Kind::Script) {
                leaves.insert(id, Some(Key::Gather(rule)));
                continue;
            }
            let needed: Vec<(usize, When)> = loaders
                .iter()
                .map(|&(entry, when)| (entry, self.when(entry, module, when, &dropped)))
                .collect();
            if needed == loaders {
                stays.push(id);
            } else if needed.iter().all(|(_, when)| *when == When::Never) {
                leaves.insert(id, None);
            } else {
                let needed = needed.into_iter().filter(|(_, when)| *when != When::Never).collect();
                let brought = self.brought.get(&module).cloned().unwrap_or_default();
                leaves.insert(id, Some(Key::Cut { kind, needed, brought }));
            }
        }
        (stays, leaves)
    }

    fn when(
        &self,
        entry: usize,
        module: ModuleId,
        before: When,
        dropped: &BTreeSet<usize>,
    ) -> When {
        let followed = &self.followed[entry];
        match before {
            When::Startup if followed.leaves_startup(module) => match followed.is_later(module) {
                true => When::Deferred,
                false => When::Never,
            },
            When::Startup if dropped.contains(&entry) => match followed.is_later(module) {
                true => When::Deferred,
                false => When::Never,
            },
            When::Deferred if followed.leaves(module) => When::Never,
            when => when,
        }
    }

    /// Entries that load a file at startup and need nothing in it any more. Where it is not known for
    /// certain who asks for whom, they load it as before.
    fn dropped(&self, file: FileId, loaders: &[(usize, When)]) -> BTreeSet<usize> {
        let record = self.lens.record;
        if !record.has_said_edges() {
            return BTreeSet::new();
        }
        let modules: Vec<ModuleId> = record
            .cells_of(file)
            .iter()
            .filter_map(|cell| match cell.owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let needs = |entry: usize, now: usize| {
            modules.iter().any(|&id| self.followed[entry].starts(id)[now])
        };
        let startup = loaders.iter().filter(|(_, when)| *when == When::Startup);
        startup
            .map(|(entry, _)| *entry)
            .filter(|&entry| needs(entry, 0) && !needs(entry, 1))
            .collect()
    }

    /// The file that a bundler puts such modules into: that of the same kind which exactly those entries
    /// load, where one file is cut for each set of entries.
    pub fn joins(&self, key: &Key, loaders: &[Vec<(usize, When)>]) -> Option<usize> {
        let Key::Cut { kind, needed, brought } = key else { return None };
        let record = self.lens.record;
        let is_cut_so = Profile::of(record.bundler).cuts_by_entries;
        if !is_cut_so || !brought.is_empty() || needed.len() < 2 {
            return None;
        }
        let is_it = |at: &usize| {
            let file = &record.files[*at];
            file.kind == *kind && loaders[*at] == *needed && file.emitted > 0
        };
        (0..record.files.len()).find(is_it)
    }

    /// A new file of some cells, each module once.
    pub fn draft(
        &self,
        plan: &Plan<'_>,
        key: Key,
        cells: Vec<CellId>,
        names: &mut BTreeSet<String>,
    ) -> Draft {
        let record = self.lens.record;
        let mut heaviest: BTreeMap<ModuleId, CellId> = BTreeMap::new();
        for &id in &cells {
            let Owner::Module(module) = record.cells[id.at()].owner else { continue };
            let weight = |id: CellId| record.cells[id.at()].amount.emitted;
            let known = heaviest.entry(module).or_insert(id);
            if weight(id) > weight(*known) {
                *known = id;
            }
        }
        let mut cells: Vec<CellId> = heaviest.into_values().collect();
        cells.sort_unstable();
        let (kind, startup, deferred, wanted) = match &key {
            Key::Gather(rule) => {
                let (startup, deferred) = self.gathered(&cells);
                (Kind::Script, startup, deferred, self.rules[*rule].name.clone())
            }
            Key::Cut { kind, needed, brought } => {
                let of = |wanted: When| -> BTreeSet<usize> {
                    let these = needed.iter().filter(|(_, when)| *when == wanted);
                    these.map(|(entry, _)| *entry).collect()
                };
                let wanted = match brought.as_slice() {
                    [one] => short(plan.name_of(*one)).to_owned(),
                    _ => "shared".to_owned(),
                };
                (*kind, of(When::Startup), of(When::Deferred), wanted)
            }
        };
        let mut name = wanted.clone();
        let mut number = 2;
        while !names.insert(name.clone()) {
            name = format!("{wanted}.{number}");
            number += 1;
        }
        let ending = if kind == Kind::Style { "css" } else { "js" };
        Draft {
            old: None,
            path: format!("{name}.{ending}"),
            kind,
            cells,
            startup,
            deferred,
            helper: Helper::default(),
            name: Some(name),
            is_changed: true,
        }
    }

    /// The entries that need any of some modules at startup, and those that need some later.
    fn gathered(&self, cells: &[CellId]) -> (BTreeSet<usize>, BTreeSet<usize>) {
        let record = self.lens.record;
        let (mut startup, mut deferred) = (BTreeSet::new(), BTreeSet::new());
        for &id in cells {
            let Owner::Module(module) = record.cells[id.at()].owner else { continue };
            for (entry, reach) in self.lens.reach.iter().enumerate() {
                let holds = |file: FileId| {
                    let mut cells = record.cells_of(file).iter();
                    cells.any(|cell| cell.owner == Owner::Module(module))
                };
                let is_early = reach.startup.iter().copied().any(holds);
                let when = match (is_early, reach.deferred.iter().any(holds)) {
                    (true, _) => self.when(entry, module, When::Startup, &BTreeSet::new()),
                    (false, true) => self.when(entry, module, When::Deferred, &BTreeSet::new()),
                    (false, false) => When::Never,
                };
                match when {
                    When::Startup => startup.insert(entry),
                    When::Deferred => deferred.insert(entry),
                    When::Never => false,
                };
            }
        }
        let deferred = deferred.difference(&startup).copied().collect();
        (startup, deferred)
    }
}

/// The last part of a name that is a path, without its ending.
fn short(name: &str) -> &str {
    let last = match name.rsplit_once('/') {
        Some((scope, _)) if scope.starts_with('@') && !scope.contains('/') => name,
        Some((_, last)) => last,
        None => name,
    };
    last.split_once('.').map_or(last, |(stem, _)| stem)
}
