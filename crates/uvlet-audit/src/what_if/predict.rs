//! The build as it would be: a record of the files that the bundler would write, and what entries load.
//!
//! A module stays in its file unless some entry needs it at another time than before. Those that move are
//! put together by which entries need them when, and by which deferred thing brings them, as bundlers cut;
//! gather rules come first. With no step the files are as they are.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_ledger::shares::apportion;
use uvlet_record::{
    Basis, Bundler, Cell, CellId, Chunk, DynamicLoad, Entry, File, FileId, Format, Kind, LoadKind,
    ModuleId, NamedBy, Owner, Record, Shares,
    sizes::{Amount, Measure, Sizes},
};

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
        for file in &reach.deferred {
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

/// Tells where the cells of files go.
struct Cutter<'c, 'r> {
    lens: &'c Lens<'r>,
    followed: &'c [Followed],
    taken: &'c BTreeSet<ModuleId>,
    rules: &'c [&'c Step],
    brought: BTreeMap<ModuleId, Vec<usize>>,
}

impl Cutter<'_, '_> {
    /// The cells that stay in a file, and where each of the others goes; none where it goes nowhere.
    fn cut(
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
    fn joins(&self, key: &Key, loaders: &[Vec<(usize, When)>]) -> Option<usize> {
        let Key::Cut { kind, needed, brought } = key else { return None };
        let record = self.lens.record;
        let is_cut_so = matches!(
            record.bundler,
            Some(Bundler::Esbuild | Bundler::Rollup | Bundler::Rolldown | Bundler::Vite)
        );
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
    fn draft(
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
                let holds = |files: &[FileId]| {
                    files.iter().any(|file| {
                        record
                            .cells_of(*file)
                            .iter()
                            .any(|cell| cell.owner == Owner::Module(module))
                    })
                };
                let when = match (holds(&reach.startup), holds(&reach.deferred)) {
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

/// A page's first load on demand brings what the bundler needs for it, into the file that holds the call.
fn bring_helpers(lens: &Lens<'_>, plan: &Plan<'_>, drafts: &mut [Draft]) {
    let record = lens.record;
    let helper = helper(record);
    let edited = plan.edited_files();
    for (entry, reach) in lens.reach.iter().enumerate() {
        let is_import = |at: &usize| record.dynamic_loads[*at].kind == LoadKind::Import;
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

/// By how much the cells of some modules grow or shrink, in thousandths of a percent.
type Scales = HashMap<CellId, u128>;

const WHOLE: u128 = 1_000_000;

fn scales(record: &Record, steps: &[Step]) -> Scales {
    let mut scales = Scales::new();
    for step in steps.iter().filter(|step| step.change == Change::Resize) {
        // A module that is copied counts once.
        let mut heaviest: BTreeMap<ModuleId, u64> = BTreeMap::new();
        for id in step.subject.cells.iter() {
            let cell = &record.cells[id.at()];
            if let Owner::Module(module) = cell.owner {
                let known = heaviest.entry(module).or_default();
                *known = (*known).max(cell.amount.emitted);
            }
        }
        let whole: u64 = heaviest.values().sum();
        if whole > 0 {
            let scale = u128::from(step.bytes) * WHOLE / u128::from(whole);
            scales.extend(step.subject.cells.iter().map(|id| (id, scale)));
        }
    }
    scales
}

fn scaled(bytes: u64, scale: u128) -> u64 {
    u64::try_from(u128::from(bytes) * scale / WHOLE).unwrap_or(u64::MAX)
}

/// The record while it is put together.
struct Built {
    record: Record,
    reach: Vec<Reach>,
    changed: BTreeSet<FileId>,
    vanished: Vec<String>,
    /// Per file of the record, the draft.
    drafts: Vec<Draft>,
}

impl Built {
    fn new(lens: &Lens<'_>, assembly: &Assembly<'_>, scales: &Scales, drafts: Vec<Draft>) -> Self {
        let old = lens.record;
        let mut sized: Vec<(Draft, Sizes)> = Vec::new();
        let mut vanished = Vec::new();
        for draft in drafts {
            let sizes = sizes(old, assembly, scales, &draft);
            let was_empty = draft.old.is_some_and(|id| old.file(id).emitted == 0);
            if sizes.emitted == 0 && !was_empty {
                vanished.push(draft.path);
            } else {
                sized.push((draft, sizes));
            }
        }
        sized.sort_by(|a, b| a.0.path.cmp(&b.0.path));
        let mut places: HashMap<FileId, FileId> = HashMap::new();
        for (at, (draft, _)) in sized.iter().enumerate() {
            places.extend(draft.old.map(|old| (old, FileId::new(at))));
        }
        let mut record = Record {
            files: Vec::new(),
            cells: Vec::new(),
            runs: Vec::new(),
            texts: None,
            ..old.clone()
        };
        for (at, (draft, sizes)) in sized.iter().enumerate() {
            add_file(old, &mut record, FileId::new(at), draft, *sizes, scales, &places);
        }
        let drafts: Vec<Draft> = sized.into_iter().map(|(draft, _)| draft).collect();
        let reach = refer(lens, &mut record, &drafts, &places);
        Self { record, reach, changed: BTreeSet::new(), vanished, drafts }
    }

    fn adds_up(&self) -> bool {
        let files = (0..self.record.files.len()).map(FileId::new);
        self.record.measures().all(|measure| {
            files.clone().all(|id| {
                let file = self.record.file(id);
                let cells = self.record.cells_of(id).iter();
                let sum: u64 = cells.map(|cell| cell.amount.units(measure)).sum();
                match measure {
                    Measure::Emitted => sum == file.emitted,
                    Measure::Coded(coding) => {
                        sum == file.encoded.get(coding).copied().unwrap_or(0) * 8
                    }
                }
            })
        })
    }

    fn mark(&mut self, is_changed: impl Fn(&Draft, Option<FileId>) -> bool) {
        for (at, draft) in self.drafts.iter().enumerate() {
            if is_changed(draft, draft.old) {
                self.changed.insert(FileId::new(at));
            }
        }
    }
}

/// What a file weighs then.
fn sizes(old: &Record, assembly: &Assembly<'_>, scales: &Scales, draft: &Draft) -> Sizes {
    let mut sizes = match draft.old {
        None => assembly.alone(&draft.cells),
        Some(id) => {
            let stays: CellSet = draft.cells.iter().copied().collect();
            let own = old.file(id).cells.clone().map(CellId::new);
            let leaves: Vec<CellId> = own.filter(|cell| !stays.has(*cell)).collect();
            let is_other = |cell: &CellId| old.cells[cell.at()].file != id;
            let joins: Vec<CellId> = draft.cells.iter().copied().filter(is_other).collect();
            match leaves.is_empty() && joins.is_empty() {
                true => assembly.whole(id),
                false => assembly.changed(id, &leaves, &joins),
            }
        }
    };
    for measure in sizes.measures().collect::<Vec<_>>() {
        let mut bytes = sizes.get(measure);
        for id in &draft.cells {
            if let Some(&scale) = scales.get(id) {
                let share = old.cells[id.at()].amount.bytes(measure);
                bytes = bytes.saturating_sub(share).saturating_add(scaled(share, scale));
            }
        }
        bytes += match measure {
            Measure::Emitted => draft.helper.emitted,
            Measure::Coded(_) => draft.helper.coded,
        };
        sizes.set(measure, bytes);
    }
    sizes
}

/// Adds a file with its cells, which share its coded sizes in proportion if it changes.
fn add_file(
    old: &Record,
    record: &mut Record,
    id: FileId,
    draft: &Draft,
    sizes: Sizes,
    scales: &Scales,
    places: &HashMap<FileId, FileId>,
) {
    let first = record.cells.len();
    let is_scaled = draft.cells.iter().any(|id| scales.contains_key(id));
    let as_it_was = draft.old.filter(|_| !draft.is_changed && !is_scaled);
    for cell in &draft.cells {
        let known = old.cells[cell.at()];
        let mut amount = known.amount;
        if let Some(&scale) = scales.get(cell) {
            amount.emitted = scaled(amount.emitted, scale);
        }
        record.cells.push(Cell { file: id, amount, ..known });
    }
    if as_it_was.is_none() {
        settle(record, id, first, sizes.emitted);
    }
    if as_it_was.is_none() {
        let weights: Vec<u64> =
            record.cells[first..].iter().map(|cell| cell.amount.emitted).collect();
        for &coding in old.encoders.keys() {
            let bits = sizes.get(Measure::Coded(coding)).saturating_mul(8);
            for (cell, bits) in record.cells[first..].iter_mut().zip(apportion(bits, &weights)) {
                cell.amount.bits.set(coding, bits);
            }
        }
    }
    let mut file = match draft.old {
        Some(old_id) => old.file(old_id).clone(),
        None => File {
            path: draft.path.clone(),
            kind: draft.kind,
            digest: String::new(),
            emitted: 0,
            encoded: Default::default(),
            shares: Default::default(),
            format: if draft.kind == Kind::Style { Format::Style } else { Format::Es },
            source: None,
            loads: Vec::new(),
            asset_loads: Vec::new(),
            externals: Vec::new(),
            elsewhere: Vec::new(),
            cells: 0..0,
            runs: 0..0,
        },
    };
    if as_it_was.is_none() {
        let parts: Vec<String> = draft.cells.iter().map(|id| id.at().to_string()).collect();
        let text = format!("{} {}", parts.join(" "), sizes.emitted);
        file.digest = blake3::hash(text.as_bytes()).to_hex()[..32].to_owned();
        for &coding in old.encoders.keys() {
            file.shares.set(coding, Shares::Proportional);
            file.encoded.set(coding, sizes.get(Measure::Coded(coding)));
        }
    }
    let mapped = |files: &[FileId]| files.iter().filter_map(|id| places.get(id).copied()).collect();
    file.loads = mapped(&file.loads);
    file.asset_loads = mapped(&file.asset_loads);
    file.emitted = sizes.emitted;
    file.cells = first..record.cells.len();
    // Positions would be those of another text.
    file.runs = 0..0;
    record.files.push(file);
}

/// Lets the cells of a file add up to it: wrappers that leave, or come along, are the bundler's.
fn settle(record: &mut Record, id: FileId, first: usize, emitted: u64) {
    let is_glue = |cell: &Cell| cell.owner == Owner::Glue;
    let others: u64 = record.cells[first..]
        .iter()
        .filter(|cell| !is_glue(cell))
        .map(|cell| cell.amount.emitted)
        .sum();
    let glue = emitted.saturating_sub(others);
    match record.cells[first..].iter().position(is_glue) {
        Some(at) => record.cells[first + at].amount.emitted = glue,
        None if glue > 0 => {
            let amount = Amount { emitted: glue, ..record.zero() };
            record.cells.push(Cell { file: id, owner: Owner::Glue, amount, basis: Basis::Mapped });
        }
        None => {}
    }
}

/// Lets all that names files name them as they are then, and tells what entries load.
fn refer(
    lens: &Lens<'_>,
    record: &mut Record,
    drafts: &[Draft],
    places: &HashMap<FileId, FileId>,
) -> Vec<Reach> {
    let mapped = |files: &[FileId]| -> Vec<FileId> {
        files.iter().filter_map(|id| places.get(id).copied()).collect()
    };
    let mut loads: HashMap<usize, usize> = HashMap::new();
    let mut dynamic: Vec<DynamicLoad> = Vec::new();
    for (at, load) in std::mem::take(&mut record.dynamic_loads).into_iter().enumerate() {
        let Some(&file) = places.get(&load.file) else { continue };
        loads.insert(at, dynamic.len());
        dynamic.push(DynamicLoad { file, files: mapped(&load.files), ..load });
    }
    record.dynamic_loads = dynamic;
    record.unresolved.retain_mut(|one| match places.get(&one.file) {
        Some(&file) => {
            one.file = file;
            true
        }
        None => false,
    });
    for chunk in &mut record.chunks {
        chunk.script = chunk.script.and_then(|id| places.get(&id).copied());
        chunk.styles = mapped(&chunk.styles);
    }
    record.chunks.retain(|chunk| chunk.files().next().is_some());
    for (at, draft) in drafts.iter().enumerate() {
        let Some(name) = &draft.name else { continue };
        let id = FileId::new(at);
        let is_style = draft.kind == Kind::Style;
        record.chunks.push(Chunk {
            name: name.clone(),
            stem: name.clone(),
            bundler_name: None,
            ids: Vec::new(),
            opened_for: None,
            named_by: NamedBy::Contents,
            script: (!is_style).then_some(id),
            styles: if is_style { vec![id] } else { Vec::new() },
        });
    }
    record.chunks.sort_by(|a, b| a.name.cmp(&b.name));
    let mut all = Vec::new();
    for (at, before) in lens.reach.iter().enumerate() {
        let new = |wanted: fn(&Draft) -> &BTreeSet<usize>| {
            let these =
                drafts.iter().enumerate().filter(move |(_, draft)| wanted(draft).contains(&at));
            these.map(|(at, _)| FileId::new(at)).collect::<Vec<FileId>>()
        };
        // In the order of request as it was, what is new behind it.
        let ordered = |before: &[FileId], now: Vec<FileId>| {
            let kept: Vec<FileId> =
                mapped(before).into_iter().filter(|file| now.contains(file)).collect();
            let rest: Vec<FileId> = now.into_iter().filter(|file| !kept.contains(file)).collect();
            [kept, rest].concat()
        };
        let startup = ordered(&before.startup, new(|draft| &draft.startup));
        let deferred = ordered(&before.deferred, new(|draft| &draft.deferred));
        let at_once: Vec<FileId> =
            mapped(&before.at_once).into_iter().filter(|file| deferred.contains(file)).collect();
        let loads = before.loads.iter().filter_map(|load| loads.get(load).copied()).collect();
        let entry: &mut Entry = &mut record.entries[at];
        let requested = mapped(&entry.requested);
        entry.requested = requested.into_iter().filter(|file| startup.contains(file)).collect();
        let added = startup.iter().filter(|file| drafts[file.at()].old.is_none());
        entry.requested.extend(added.copied().collect::<Vec<_>>());
        entry.later = mapped(&entry.later);
        all.push(Reach { startup, deferred, at_once, loads });
    }
    all
}
