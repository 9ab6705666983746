//! What entries start with, to be shown beside a verdict.

use std::collections::{BTreeMap, BTreeSet, VecDeque};

use uvlet_record::{EdgeKind, ModuleId, Owner, Record, sizes::Measure};

use crate::{
    ask::attribute::{By, RowKind, Sort, attribute},
    graph::network::Network,
    lens::Lens,
    parts::cells::CellSet,
};

/// What an entry starts with.
#[derive(Clone, Debug)]
pub struct EntryStart {
    /// The entry.
    pub entry: String,
    /// What the bytes are counted in.
    pub measure: Measure,
    /// What arrives before its code can run.
    pub bytes: u64,
    /// The same in the build before.
    pub base: Option<u64>,
    /// Whose bytes they are, heaviest first.
    pub parts: Vec<StartPart>,
    /// Of whom there is more than in the build before, the most first.
    pub grown: Vec<Grown>,
}

/// Whose bytes an entry starts with.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct StartPart {
    /// What it is.
    pub row: RowKind,
    /// The package, or what is none in parentheses.
    pub name: String,
    /// Where it is installed.
    pub place: Option<String>,
    /// How much of it.
    pub bytes: u64,
}

/// Somebody of whom an entry starts with more than before.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Grown {
    /// The package, or what is none in parentheses.
    pub name: String,
    /// By how many bytes.
    pub by: u64,
    /// Nothing of it was in this startup before.
    pub is_new: bool,
    /// Of a new package, the own module that imports it, or what imports it.
    pub brought_in_by: Option<String>,
}

/// What there is of one package in a startup.
#[derive(Default)]
struct Held {
    bytes: u64,
    modules: BTreeSet<ModuleId>,
}

fn held(lens: &Lens<'_>, cells: &CellSet, measure: Measure) -> BTreeMap<(RowKind, String), Held> {
    let mut held: BTreeMap<(RowKind, String), Held> = BTreeMap::new();
    for row in attribute(lens, By::Package, cells, None, Sort::Name).rows {
        let one = held.entry((row.row, row.name)).or_default();
        one.bytes += row.sizes.get(measure);
        let owners = row.cells.iter().map(|id| lens.record.cells[id.at()].owner);
        one.modules.extend(owners.filter_map(|owner| match owner {
            Owner::Module(module) => Some(module),
            _ => None,
        }));
    }
    held
}

/// What there is more of than before.
fn grown(
    (lens, cells): (&Lens<'_>, &CellSet),
    (base, then): (&Lens<'_>, &CellSet),
    network: &Network<'_>,
    measure: Measure,
) -> Vec<Grown> {
    let before = held(base, then, measure);
    let now = held(lens, cells, measure);
    let here: BTreeSet<ModuleId> =
        now.values().flat_map(|held| held.modules.iter().copied()).collect();
    let mut grown = Vec::new();
    for (key, now) in now {
        let was = before.get(&key).map_or(0, |was| was.bytes);
        if now.bytes <= was {
            continue;
        }
        let is_new = was == 0;
        let brought_in_by = (is_new && key.0 == RowKind::Package)
            .then(|| own_importer(lens.record, network, &now.modules, &here))
            .flatten();
        grown.push(Grown { name: key.1, by: now.bytes - was, is_new, brought_in_by });
    }
    grown.sort_by(|a, b| b.by.cmp(&a.by).then_with(|| a.name.cmp(&b.name)));
    grown
}

/// The own module of a startup from which the fewest imports lead to some of its modules.
fn own_importer(
    record: &Record,
    network: &Network<'_>,
    modules: &BTreeSet<ModuleId>,
    here: &BTreeSet<ModuleId>,
) -> Option<String> {
    let mut seen = modules.clone();
    let mut open: VecDeque<ModuleId> = modules.iter().copied().collect();
    while let Some(id) = open.pop_front() {
        let edges = network.askers(id).filter(|edge| edge.kind != EdgeKind::Dynamic);
        for from in edges.map(|edge| edge.from) {
            // What left no byte, or loads elsewhere, is only passed on the way.
            if !record.module(from).third_party && here.contains(&from) {
                return Some(record.module(from).path.clone());
            }
            if seen.insert(from) {
                open.push_back(from);
            }
        }
    }
    None
}

/// What entries start with, the heaviest first; nothing in a measure that was not taken.
#[must_use]
pub fn starts(lens: &Lens<'_>, base: Option<&Lens<'_>>, measure: Measure) -> Vec<EntryStart> {
    let holds = |lens: &Lens<'_>| lens.record.measures().any(|held| held == measure);
    if !holds(lens) {
        return Vec::new();
    }
    let startup = |lens: &Lens<'_>, at: usize| {
        let cells = lens.files(lens.reach[at].startup.iter().copied());
        (lens.amount(&cells).bytes(measure), cells)
    };
    let network = Network::of(lens.record);
    let mut folds = Vec::new();
    for (at, entry) in lens.record.entries.iter().enumerate() {
        let (bytes, cells) = startup(lens, at);
        let base = base.filter(|base| holds(base)).and_then(|base| {
            let then = base.record.entries.iter().position(|one| one.name == entry.name)?;
            Some((base, startup(base, then)))
        });
        let grown = match &base {
            Some((base, (was, then))) if *was < bytes => {
                grown((lens, &cells), (base, then), &network, measure)
            }
            _ => Vec::new(),
        };
        let base = base.map(|(_, (was, _))| was);
        let rows = attribute(lens, By::Package, &cells, None, Sort::Heaviest(measure)).rows;
        let parts = rows.into_iter().map(|row| StartPart {
            row: row.row,
            bytes: row.sizes.get(measure),
            name: row.name,
            place: row.place,
        });
        let parts = parts.filter(|part| part.bytes > 0).collect();
        folds.push(EntryStart { entry: entry.name.clone(), measure, bytes, base, parts, grown });
    }
    folds.sort_by(|a, b| b.bytes.cmp(&a.bytes).then_with(|| a.entry.cmp(&b.entry)));
    folds
}
