//! The build as it would be: a record of the files that the bundler would write, and what entries load.
//!
//! A module stays in its file unless some entry needs it at another time than before. Those that move are
//! put together by which entries need them when, and by which deferred thing brings them, as bundlers cut;
//! gather rules come first. With no step the files are as they are.

mod build;
mod cut;

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, FileId, Kind, LoadKind, ModuleId, Owner, Record, sizes::Amount};

use super::{
    Change, Step,
    assemble::Assembly,
    follow::{Followed, Plan},
    habits::{Helper, helper},
    touch::cascade,
};
use crate::{
    graph::Reach,
    lens::{CellSet, Lens},
};
use build::{Built, scales};
use cut::Cutter;

/// When an entry needs something of a file that it loads.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
enum When {
    Startup,
    Deferred,
    Never,
}

/// What tells new files apart.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
enum Key {
    /// By its place among the rules.
    Gather(usize),
    /// By which entries need it when, and which deferred things bring it.
    Cut { kind: Kind, needed: Vec<(usize, When)>, brought: Vec<usize> },
}

/// A file before it is one.
struct Draft {
    old: Option<FileId>,
    path: String,
    kind: Kind,
    cells: Vec<CellId>,
    startup: BTreeSet<usize>,
    deferred: BTreeSet<usize>,
    /// What the bundler adds to it.
    helper: Helper,
    /// Its name as a chunk, if it is new.
    name: Option<String>,
    is_changed: bool,
}

/// A module that is elsewhere then.
pub struct Move {
    /// The module.
    pub module: ModuleId,
    /// The file that it leaves.
    pub from: FileId,
    /// The chunk that it is in then; none where it is in none.
    pub to: Option<String>,
    /// Its weight as it is.
    pub amount: Amount,
}

/// The build as it would be.
pub struct Predicted {
    /// Its record; of files that change no positions are known.
    pub record: Record,
    /// What each entry loads, in the record's order.
    pub reach: Vec<Reach>,
    /// Files whose contents or name a visitor's cache does not have.
    pub changed: BTreeSet<FileId>,
    /// Modules that are elsewhere.
    pub moved: Vec<Move>,
    /// Chunks that were not there before.
    pub new: Vec<String>,
    /// Files that are there no more.
    pub vanished: Vec<String>,
}

/// Predicts what the steps leave.
pub fn predict(
    lens: &Lens<'_>,
    plan: &Plan<'_>,
    steps: &[Step],
    followed: &[Followed],
    assembly: &Assembly<'_>,
) -> Predicted {
    let mut drafts = drafts(lens);
    let loaders: Vec<Vec<(usize, When)>> = drafts.iter().map(Draft::loaders).collect();
    let taken: BTreeSet<ModuleId> = steps
        .iter()
        .filter(|step| matches!(step.change, Change::Without | Change::External))
        .flat_map(|step| step.subject.modules.iter().copied())
        .collect();
    let rules: Vec<&Step> = steps.iter().filter(|step| step.change == Change::Gather).collect();
    let cutter = Cutter { lens, followed, taken: &taken, rules: &rules, brought: plan.brought() };
    let mut moved = Vec::new();
    let mut groups: BTreeMap<Key, Vec<CellId>> = BTreeMap::new();
    let mut gone: Vec<(CellId, FileId)> = Vec::new();
    for (at, loaders) in loaders.iter().enumerate() {
        let file = FileId::new(at);
        let (stays, leaves) = cutter.cut(file, loaders);
        if leaves.is_empty() {
            continue;
        }
        // A file of which everything goes the same way goes that way as a whole.
        let is_module = |id: &CellId| matches!(lens.record.cells[id.at()].owner, Owner::Module(_));
        let first = leaves.values().next().cloned();
        let is_whole = !stays.iter().any(is_module)
            && leaves.values().all(|fate| Some(fate) == first.as_ref());
        if let (true, Some(Some(Key::Cut { needed, .. }))) = (is_whole, &first) {
            drafts[at].load(needed);
            continue;
        }
        for (cell, fate) in leaves {
            match fate {
                Some(key) => groups.entry(key).or_default().push(cell),
                None => gone.push((cell, file)),
            }
        }
        drafts[at].cells = stays;
        drafts[at].is_changed = true;
    }
    let mut names: BTreeSet<String> =
        lens.record.chunks.iter().map(|chunk| chunk.name.clone()).collect();
    let mut new = Vec::new();
    for (key, cells) in groups {
        // A file that the same entries load at the same time takes them in.
        if let Some(at) = cutter.joins(&key, &loaders) {
            let name = lens.chunk_of(FileId::new(at)).map(|chunk| chunk.name.as_str());
            moved.extend(cells.iter().filter_map(|&cell| moved_cell(lens, cell, name)));
            drafts[at].cells.extend(cells);
            drafts[at].is_changed = true;
            continue;
        }
        let draft = cutter.draft(plan, key, cells, &mut names);
        let name = draft.name.clone().unwrap_or_default();
        for &cell in &draft.cells {
            moved.extend(moved_cell(lens, cell, Some(&name)));
        }
        new.push(name);
        drafts.push(draft);
    }
    moved.extend(gone.into_iter().filter_map(|(cell, _)| moved_cell(lens, cell, None)));
    bring_helpers(lens, plan, &mut drafts);
    let scales = scales(lens.record, steps);
    let touched: CellSet = steps
        .iter()
        .filter(|step| step.change == Change::Touch)
        .flat_map(|step| step.subject.cells.iter())
        .collect();
    let edited = plan.edited_files();
    let mut built = Built::new(lens, assembly, &scales, drafts);
    debug_assert!(built.adds_up(), "the parts of a predicted file add up to it");
    built.mark(|draft, old| {
        draft.is_changed
            || old.is_some_and(|old| edited.contains(&old))
            || draft.cells.iter().any(|id| touched.has(*id))
    });
    let changed = cascade(&built.record, std::mem::take(&mut built.changed));
    let vanished = built.vanished;
    Predicted { record: built.record, reach: built.reach, changed, moved, new, vanished }
}

fn moved_cell(lens: &Lens<'_>, cell: CellId, to: Option<&str>) -> Option<Move> {
    let known = &lens.record.cells[cell.at()];
    let Owner::Module(module) = known.owner else { return None };
    let to = to.map(str::to_owned);
    Some(Move { module, from: known.file, to, amount: known.amount })
}

/// The files as they are.
fn drafts(lens: &Lens<'_>) -> Vec<Draft> {
    let record = lens.record;
    let mut drafts: Vec<Draft> = record
        .files
        .iter()
        .enumerate()
        .map(|(at, file)| Draft {
            old: Some(FileId::new(at)),
            path: file.path.clone(),
            kind: file.kind,
            cells: file.cells.clone().map(CellId::new).collect(),
            startup: BTreeSet::new(),
            deferred: BTreeSet::new(),
            helper: Helper::default(),
            name: None,
            is_changed: false,
        })
        .collect();
    for (entry, reach) in lens.reach.iter().enumerate() {
        for file in &reach.startup {
            drafts[file.at()].startup.insert(entry);
        }
        for file in reach.deferred.iter() {
            drafts[file.at()].deferred.insert(entry);
        }
    }
    drafts
}

impl Draft {
    fn loaders(&self) -> Vec<(usize, When)> {
        let startup = self.startup.iter().map(|&entry| (entry, When::Startup));
        let deferred = self.deferred.iter().map(|&entry| (entry, When::Deferred));
        let mut all: Vec<(usize, When)> = startup.chain(deferred).collect();
        all.sort_unstable();
        all
    }

    /// It is needed by other entries, or at other times.
    fn load(&mut self, needed: &[(usize, When)]) {
        let of = |when: When| needed.iter().filter(move |(_, one)| *one == when);
        self.startup = of(When::Startup).map(|(entry, _)| *entry).collect();
        self.deferred = of(When::Deferred).map(|(entry, _)| *entry).collect();
    }
}

/// A page's first load on demand brings what the bundler needs for it, into the file that holds the call.
fn bring_helpers(lens: &Lens<'_>, plan: &Plan<'_>, drafts: &mut [Draft]) {
    let record = lens.record;
    let helper = helper(record);
    let edited = plan.edited_files();
    for (entry, reach) in lens.reach.iter().enumerate() {
        let is_import = |at: usize| record.dynamic_loads[at].kind == LoadKind::Import;
        let is_new = |draft: &Draft| {
            draft.kind == Kind::Script
                && draft.deferred.contains(&entry)
                && draft.old.is_none_or(|old| !reach.deferred.contains(&old))
        };
        if reach.loads.iter().any(is_import) || !drafts.iter().any(is_new) {
            continue;
        }
        let holder = reach.startup.iter().find(|file| edited.contains(file));
        if let Some(file) = holder {
            drafts[file.at()].helper = helper;
            drafts[file.at()].is_changed |= helper != Helper::default();
        }
    }
}
