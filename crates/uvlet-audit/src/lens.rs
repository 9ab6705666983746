//! A record with what every question derives from it, and sets of its cells.

use std::collections::BTreeSet;

use uvlet_record::{
    Basis, CellId, Chunk, EdgeKind, FileId, FileSet, Kind, ModuleId, Owner, Record,
    sizes::{Amount, Measure},
};

use crate::{
    graph::{
        reach::{self, Reach},
        visits::{self, Visit},
    },
    parts::{
        cells::CellSet,
        marks::{Export, Marks},
        sets::Sets,
    },
};

/// What is made of parts that are only estimated.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Estimates {
    /// They may be off by whatever their file allows.
    AreDoubted,
    /// They are taken as they stand.
    AreTaken,
}

/// What a selection weighs, in bytes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Bounds {
    /// At least.
    pub least: u64,
    /// At most.
    pub most: u64,
    /// Of the difference, what nobody owns.
    pub nobodys: u64,
    /// Files in which only estimates tell how much of it there is.
    pub doubted: Vec<FileId>,
}

/// A record, looked at: closures are derived once.
pub struct Lens<'r> {
    /// The record.
    pub record: &'r Record,
    /// Per entry of the record.
    pub reach: Vec<Reach>,
    /// What a visit of each route fetches.
    pub visits: Vec<Visit>,
    /// Named groups of bytes, in the order given.
    pub groups: Vec<Group>,
    /// What is marked in the record.
    pub marks: Marks,
    /// Per file of the record: all its cells together.
    file_amounts: Vec<Amount>,
    /// Per file of the record: the chunk it belongs to.
    chunk_of: Vec<Option<usize>>,
    /// Cells that nobody owns: in scripts and pages, and in styles besides.
    unattributed: [CellSet; 2],
    /// Modules that styles are made of, where the edges tell.
    style_modules: Option<Vec<ModuleId>>,
    /// Scripts and styles that no entry is known to load.
    unplaced_code: Vec<FileId>,
}

/// A named group of bytes.
pub struct Group {
    /// Its name.
    pub name: String,
    /// What is in it.
    pub sets: Sets,
}

/// Endings of the sources of styles.
const STYLES: [&str; 5] = [".css", ".scss", ".sass", ".less", ".styl"];

impl<'r> Lens<'r> {
    /// Looks at a record.
    #[must_use]
    pub fn new(record: &'r Record) -> Self {
        Self::with_reach(record, reach::reach(record))
    }

    /// Looks at a record of which it is known what each entry loads.
    #[must_use]
    pub fn with_reach(record: &'r Record, reach: Vec<Reach>) -> Self {
        let mut chunk_of = vec![None; record.files.len()];
        for (at, chunk) in record.chunks.iter().enumerate() {
            for file in chunk.files() {
                chunk_of[file.at()] = Some(at);
            }
        }
        let visits = visits::visits(record, &reach);
        let mut placed = FileSet::default();
        for reach in &reach {
            placed.add(&reach.deferred);
            reach.startup.iter().for_each(|file| {
                placed.insert(*file);
            });
        }
        let is_code = |id: &FileId| matches!(record.file(*id).kind, Kind::Script | Kind::Style);
        let files = (0..record.files.len()).map(FileId::new);
        let unplaced_code = files.filter(|id| is_code(id) && !placed.contains(id)).collect();
        let style_modules = style_modules(record);
        let mut lens = Self {
            record,
            reach,
            visits,
            groups: Vec::new(),
            marks: Marks::default(),
            file_amounts: (0..record.files.len()).map(|at| whole(record, at)).collect(),
            chunk_of,
            unattributed: Default::default(),
            style_modules,
            unplaced_code,
        };
        lens.unattributed = [false, true].map(|in_styles| {
            lens.cells(|file, owner| {
                owner == Owner::Unattributed && (in_styles || record.file(file).kind != Kind::Style)
            })
        });
        lens
    }

    /// With what is marked in the record.
    #[must_use]
    pub fn with_marks(self, marks: Marks) -> Self {
        Self { marks, ..self }
    }

    /// Cells that nobody owns, with those of styles or without.
    #[must_use]
    pub fn unattributed(&self, in_styles: bool) -> &CellSet {
        &self.unattributed[usize::from(in_styles)]
    }

    /// Modules that styles are made of; none where no edge is known.
    #[must_use]
    pub fn style_modules(&self) -> Option<&[ModuleId]> {
        self.style_modules.as_deref()
    }

    /// Scripts and styles that no entry is known to load.
    pub fn unplaced_code(&self) -> impl Iterator<Item = FileId> + '_ {
        self.unplaced_code.iter().copied()
    }

    /// Whether code of an entry asks for something on demand that cannot be told.
    #[must_use]
    pub fn leads_nowhere(&self, reach: &Reach) -> bool {
        let unresolved = &self.record.unresolved;
        !unresolved.is_empty()
            && unresolved.iter().any(|load| {
                reach.startup.contains(&load.file) || reach.deferred.contains(&load.file)
            })
    }

    /// What a selection weighs at least, and at most: what may be in it, and what is only estimated,
    /// makes the difference. Bytes; the bits of a coding are rounded up once.
    ///
    /// An estimated part is taken for at least a byte and at most all that is estimated in its file,
    /// unless the whole of that is meant.
    #[must_use]
    pub fn bounds(
        &self,
        least: &CellSet,
        most: &CellSet,
        measure: Measure,
        estimates: Estimates,
    ) -> Bounds {
        let unit = if measure == Measure::Emitted { 1 } else { 8 };
        let (mut low, mut high, mut nobodys) = (0_u64, 0_u64, 0_u64);
        let mut estimated: BTreeSet<FileId> = BTreeSet::new();
        for id in most.iter() {
            let cell = &self.record.cells[id.at()];
            let units = cell.amount.units(measure);
            if cell.basis == Basis::Estimated && estimates == Estimates::AreDoubted {
                estimated.insert(cell.file);
                continue;
            }
            high = high.saturating_add(units);
            if least.has(id) {
                low = low.saturating_add(units);
            } else if cell.owner == Owner::Unattributed {
                nobodys = nobodys.saturating_add(units);
            }
        }
        let mut doubted = Vec::new();
        for file in estimated {
            let (mut all, mut within, mut parts, mut is_whole) = (0_u64, 0_u64, 0_u64, true);
            for at in self.record.file(file).cells.clone() {
                let cell = &self.record.cells[at];
                if cell.basis != Basis::Estimated {
                    continue;
                }
                let units = cell.amount.units(measure);
                all = all.saturating_add(units);
                if least.has(CellId(at)) {
                    within = within.saturating_add(units);
                    parts += u64::from(cell.amount.emitted > 0);
                } else {
                    is_whole &= units == 0;
                }
            }
            if is_whole {
                low = low.saturating_add(within);
            } else {
                low = low.saturating_add(parts.saturating_mul(unit).min(all));
                doubted.push(file);
            }
            high = high.saturating_add(all);
        }
        let bytes = |units: u64| units.div_ceil(unit);
        Bounds { least: bytes(low), most: bytes(high), nobodys: bytes(nobodys), doubted }
    }

    /// An exported name by its place in the list, where those are looked at.
    pub(crate) fn export(&self, at: u32) -> Option<&Export> {
        self.marks.exports.as_ref()?.list.get(at as usize)
    }

    /// The chunk that a file belongs to.
    #[must_use]
    pub fn chunk_of(&self, file: FileId) -> Option<&'r Chunk> {
        self.chunk_of[file.at()].map(|at| &self.record.chunks[at])
    }

    /// The cells of some files.
    pub fn files(&self, files: impl IntoIterator<Item = FileId>) -> CellSet {
        let ranges = files.into_iter().map(|file| self.record.file(file).cells.clone());
        ranges.flatten().map(CellId).collect()
    }

    /// What whole files weigh together.
    pub fn weight(&self, files: impl IntoIterator<Item = FileId>) -> Amount {
        let mut sum = self.record.zero();
        files.into_iter().for_each(|file| sum += self.file_amounts[file.at()]);
        sum
    }

    /// The cells whose file and owner pass a test.
    pub fn cells(&self, test: impl Fn(FileId, Owner) -> bool) -> CellSet {
        let cells = self.record.cells.iter().enumerate();
        cells.filter(|(_, c)| test(c.file, c.owner)).map(|(at, _)| CellId::new(at)).collect()
    }

    /// What a set weighs.
    #[must_use]
    pub fn amount(&self, set: &CellSet) -> Amount {
        let mut sum = self.record.zero();
        for id in set.iter() {
            sum += self.record.cells[id.at()].amount;
        }
        sum
    }
}

fn whole(record: &Record, file: usize) -> Amount {
    let mut sum = record.zero();
    record.cells_of(FileId::new(file)).iter().for_each(|cell| sum += cell.amount);
    sum
}

fn style_modules(record: &Record) -> Option<Vec<ModuleId>> {
    if record.edges.is_empty() {
        return None;
    }
    let asked = record.edges.iter().filter(|edge| edge.kind == EdgeKind::Style).map(|edge| edge.to);
    let mut modules: BTreeSet<ModuleId> = asked.collect();
    let is_style = |path: &str| STYLES.iter().any(|ending| path.ends_with(ending));
    let by_path = record.modules.iter().enumerate().filter(|(_, module)| is_style(&module.path));
    modules.extend(by_path.map(|(at, _)| ModuleId::new(at)));
    Some(modules.into_iter().collect())
}
