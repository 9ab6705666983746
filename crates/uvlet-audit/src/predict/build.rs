//! The record of files as they would be.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_ledger::shares::apportion;
use uvlet_record::{
    Basis, Cell, CellId, Chunk, DynamicLoad, Entry, File, FileId, FileList, FileSet, Format, Kind,
    ModuleId, NamedBy, Owner, Record, Shares,
    sizes::{Amount, Measure, Sizes},
};

use crate::{
    graph::reach::Reach,
    lens::Lens,
    parts::cells::CellSet,
    predict::{
        assemble::Assembly,
        draft::Draft,
        step::{Change, Step},
    },
};

/// By how much the cells of some modules grow or shrink, in thousandths of a percent.
pub type Scales = HashMap<CellId, u128>;

const WHOLE: u128 = 1_000_000;

pub fn scales(record: &Record, steps: &[Step]) -> Scales {
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
pub struct Built {
    pub record: Record,
    pub reach: Vec<Reach>,
    pub changed: BTreeSet<FileId>,
    pub vanished: Vec<String>,
    /// Per file of the record, the draft.
    drafts: Vec<Draft>,
}

impl Built {
    pub fn new(
        lens: &Lens<'_>,
        assembly: &Assembly<'_>,
        scales: &Scales,
        drafts: Vec<Draft>,
    ) -> Self {
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
            add_file(old, &mut record, FileId::new(at), draft, *sizes, (scales, assembly), &places);
        }
        let drafts: Vec<Draft> = sized.into_iter().map(|(draft, _)| draft).collect();
        let reach = refer(lens, &mut record, &drafts, &places);
        Self { record, reach, changed: BTreeSet::new(), vanished, drafts }
    }

    pub fn adds_up(&self) -> bool {
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

    pub fn mark(&mut self, is_changed: impl Fn(&Draft, Option<FileId>) -> bool) {
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
                true if !assembly.cuts(id) => assembly.whole(id),
                true => assembly.changed(id, &[], &[]),
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
    (scales, assembly): (&Scales, &Assembly<'_>),
    places: &HashMap<FileId, FileId>,
) {
    let first = record.cells.len();
    let is_scaled = draft.cells.iter().any(|id| scales.contains_key(id));
    let as_it_was = draft.old.filter(|_| !draft.is_changed && !is_scaled);
    for cell in &draft.cells {
        let known = old.cells[cell.at()];
        let mut amount = known.amount;
        amount.emitted -= assembly.cut_of(*cell).min(amount.emitted);
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
        let startup = FileList::from(ordered(&before.startup, new(|draft| &draft.startup)));
        let deferred: FileSet = new(|draft| &draft.deferred).into_iter().collect();
        let earlier: Vec<FileId> = before.at_once.iter().collect();
        let at_once = mapped(&earlier).into_iter().filter(|file| deferred.contains(file)).collect();
        let loads = before.loads.iter().filter_map(|load| loads.get(&load).copied()).collect();
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
