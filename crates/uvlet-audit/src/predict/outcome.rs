//! The build as it would be: a record of the files that the bundler would write, and what entries load.
//!
//! A module stays in its file unless some entry needs it at another time than before. Those that move are
//! put together by which entries need them when, and by which deferred thing brings them, as bundlers cut;
//! gather rules come first. With no step the files are as they are.

use std::collections::{BTreeMap, BTreeSet};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    Bundler, CellId, Entry, FileId, Kind, LoadKind, ModuleId, Owner, Record, Texts, sizes::Coding,
};

use crate::{
    bundlers::{Helper, Profile},
    graph::{network::Network, reach::Reach},
    lens::Lens,
    parts::cells::CellSet,
    predict::{
        assemble::Assembly,
        build::{Built, scales},
        cascade::{Move, cascade, without_helpers},
        cut::Cutter,
        draft::{Draft, Key, When, drafts},
        follow::{Followed, Plan},
        step::{Change, Step},
    },
    select::{nearest::Known, selection::Lack, selector::SelectorError},
};

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
        .chain(steps.iter().flat_map(|step| step.rest.modules.iter().copied()))
        .collect();
    let rules: Vec<&Step> = steps.iter().filter(|step| step.change == Change::Gather).collect();
    let cutter = Cutter { lens, followed, taken: &taken, rules: &rules, brought: plan.brought() };
    let (groups, gone) = leave(lens, &cutter, &loaders, &mut drafts);
    let mut moved = Vec::new();
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
    for draft in &mut drafts {
        draft.is_changed |= draft.cells.iter().any(|id| assembly.cut_of(*id) > 0);
    }
    bring_helpers(lens, plan, &mut drafts);
    let scales = scales(lens.record, steps);
    let touched: CellSet = steps
        .iter()
        .filter(|step| step.change == Change::Touch)
        .flat_map(|step| step.subject.cells.iter())
        .collect();
    let mut edited = plan.edited_files();
    edited.extend(cut_files(lens.record, &plan.brought()));
    edited.extend(without_helpers(lens.record, &moved));
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

/// Cells that leave their files: by the file that they go to, and those that are left out.
type Leaving = (BTreeMap<Key, Vec<CellId>>, Vec<(CellId, FileId)>);

/// Takes out of every file what leaves it.
fn leave(
    lens: &Lens<'_>,
    cutter: &Cutter<'_, '_>,
    loaders: &[Vec<(usize, When)>],
    drafts: &mut [Draft],
) -> Leaving {
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
    (groups, gone)
}

/// Files that esbuild cuts at what is deferred: it has one file for each set of entries and deferred things
/// that reach a module, so that a file of which only a part is reached from a new one becomes two.
fn cut_files(record: &Record, brought: &BTreeMap<ModuleId, Vec<usize>>) -> Vec<FileId> {
    let scripts = || record.files.iter().filter(|file| file.kind == Kind::Script);
    let splits = scripts().any(|file| !file.loads.is_empty());
    if record.bundler != Some(Bundler::Esbuild) || !splits || brought.is_empty() {
        return Vec::new();
    }
    let is_brought = |file: FileId| {
        let cells = record.cells_of(file).iter().filter(|cell| cell.amount.emitted > 0);
        let modules = cells.filter_map(|cell| match cell.owner {
            Owner::Module(id) => Some(brought.contains_key(&id)),
            _ => None,
        });
        modules.collect::<BTreeSet<bool>>()
    };
    let of_files: Vec<BTreeSet<bool>> =
        (0..record.files.len()).map(FileId::new).map(is_brought).collect();
    // What nothing of it is taken from but helpers: these are reached, too.
    let helps: BTreeSet<FileId> = of_files
        .iter()
        .zip(&record.files)
        .filter(|(brought, _)| brought.contains(&true))
        .flat_map(|(_, file)| file.loads.iter().copied())
        .filter(|file| record.file(*file).loads.is_empty())
        .collect();
    let is_cut = |&file: &FileId| {
        let brought = &of_files[file.at()];
        brought.len() > 1 || (brought.contains(&false) && helps.contains(&file))
    };
    (0..record.files.len()).map(FileId::new).filter(is_cut).collect()
}

fn moved_cell(lens: &Lens<'_>, cell: CellId, to: Option<&str>) -> Option<Move> {
    let known = &lens.record.cells[cell.at()];
    let Owner::Module(module) = known.owner else { return None };
    let to = to.map(str::to_owned);
    Some(Move { module, from: known.file, to, amount: known.amount })
}

/// A page's first load on demand brings what the bundler needs for it, into the file that holds the call.
fn bring_helpers(lens: &Lens<'_>, plan: &Plan<'_>, drafts: &mut [Draft]) {
    let record = lens.record;
    let helper = Profile::of(record.bundler).helper(record);
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

/// Why there is no answer.
#[derive(Debug)]
pub enum WhatIfError {
    /// It is where an entry begins.
    Root {
        /// The step.
        change: Change,
        /// What was named.
        subject: String,
        /// The entry.
        entry: String,
    },
    /// A visit of nothing.
    Visit {
        /// As written.
        name: String,
        /// What there is instead.
        known: Known,
    },
    /// What is weighed means nothing.
    Within(Lack),
    /// What is weighed cannot be read.
    Selector(SelectorError),
    /// Nobody knows who asks for whom.
    NoEdges,
}

/// The record of a build as it would be, with what entries load of it: what budgets are held against.
///
/// # Errors
/// When a step would leave nothing of an entry, or no edge is known.
pub fn as_it_would_be(
    lens: &Lens<'_>,
    steps: &[Step],
    texts: &dyn Texts,
    sizer: &dyn Sizer,
    codings: &[Coding],
) -> Result<(Record, Vec<Reach>), WhatIfError> {
    let record = lens.record;
    let assembly = Assembly::new(record, texts, sizer, codings).without(steps);
    let network = Network::of(record);
    let plan = Plan::new(record, &network, steps, texts);
    let Predicted { record, reach, .. } = predicted(lens, &plan, steps, &assembly)?;
    Ok((record, reach))
}

pub(crate) fn predicted(
    lens: &Lens<'_>,
    plan: &Plan<'_>,
    steps: &[Step],
    assembly: &Assembly<'_>,
) -> Result<Predicted, WhatIfError> {
    let record = lens.record;
    let asks_for_edges = |step: &Step| {
        !matches!(step.change, Change::Narrow | Change::Gather | Change::Resize | Change::Touch)
    };
    if record.edges.is_empty() && steps.iter().any(asks_for_edges) {
        return Err(WhatIfError::NoEdges);
    }
    for step in steps.iter().filter(|step| asks_for_edges(step)) {
        let ends = |entry: &&Entry| {
            step.change == Change::Bypass && step.is_on_root(entry) || step.ends(record, entry)
        };
        if let Some(entry) = record.entries.iter().find(ends) {
            return Err(WhatIfError::Root {
                change: step.change,
                subject: step.subject.text.clone(),
                entry: entry.name.clone(),
            });
        }
    }
    let followed: Vec<Followed> =
        record.entries.par_iter().map(|entry| plan.follow(entry)).collect();
    Ok(predict(lens, plan, steps, &followed, assembly))
}

impl From<SelectorError> for WhatIfError {
    fn from(error: SelectorError) -> Self {
        Self::Selector(error)
    }
}
