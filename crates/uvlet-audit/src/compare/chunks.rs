//! Chunks, before and after: by their lasting names, then by what they hold.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{
    Chunk, FileId, ModuleId, Owner, Record,
    sizes::{Measure, Sizes},
};

use crate::lens::Lens;

/// A chunk, before and after.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ChunkRow {
    /// Its name before; none if it is new.
    pub before: Option<String>,
    /// Its name after; none if it is gone.
    pub after: Option<String>,
    /// Its size before.
    pub sizes_before: Option<Sizes>,
    /// Its size after.
    pub sizes_after: Option<Sizes>,
    /// What became of it.
    pub change: ChunkChange,
    /// Why it changed though no module of it did; of what is new or gone, where most of it was or is.
    pub because: Option<String>,
}

/// What became of a chunk.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum ChunkChange {
    /// It holds other bytes.
    Changed,
    /// It was not there.
    New,
    /// It is no longer there.
    Gone,
    /// Its files have the same bytes, whatever they are called.
    Same,
}

impl ChunkChange {
    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Changed => "changed",
            Self::New => "new",
            Self::Gone => "gone",
            Self::Same => "same",
        }
    }
}

/// Emitted bytes of a chunk by the paths of its modules.
type Contents<'r> = BTreeMap<&'r str, u64>;

pub fn chunks(before: &Lens<'_>, after: &Lens<'_>, measure: Measure) -> Vec<ChunkRow> {
    let pairs = matched(before.record, after.record);
    let (old, new) = (&before.record.chunks, &after.record.chunks);
    let earlier: BTreeMap<usize, usize> = pairs.iter().map(|&(a, b)| (b, a)).collect();
    let seen: BTreeSet<usize> = pairs.iter().map(|&(a, _)| a).collect();
    let mut rows: Vec<ChunkRow> = new
        .iter()
        .enumerate()
        .map(|(at, chunk)| {
            let Some(&was) = earlier.get(&at) else {
                let from = holder((after.record, chunk), before.record);
                let because = from.map(|name| format!("split from {name}"));
                return row(None, Some((after, chunk)), ChunkChange::New, because);
            };
            let other = &old[was];
            match digests(before.record, other) == digests(after.record, chunk) {
                true => row(Some((before, other)), Some((after, chunk)), ChunkChange::Same, None),
                false => {
                    let because = because(before.record, other, after.record, chunk);
                    let because = because.map(str::to_owned);
                    let change = ChunkChange::Changed;
                    row(Some((before, other)), Some((after, chunk)), change, because)
                }
            }
        })
        .collect();
    let gone = old.iter().enumerate().filter(|(at, _)| !seen.contains(at));
    rows.extend(gone.map(|(_, chunk)| {
        let to = holder((before.record, chunk), after.record);
        let because = to.map(|name| format!("merged into {name}"));
        row(Some((before, chunk)), None, ChunkChange::Gone, because)
    }));
    rows.sort_by(|a, b| {
        let weight = |row: &ChunkRow| {
            super::change(row.sizes_before.as_ref(), row.sizes_after.as_ref(), measure)
                .unsigned_abs()
        };
        let key =
            |row: &ChunkRow| (row.change == ChunkChange::Same, std::cmp::Reverse(weight(row)));
        let name = |row: &ChunkRow| row.after.clone().or_else(|| row.before.clone());
        key(a).cmp(&key(b)).then_with(|| name(a).cmp(&name(b)))
    });
    rows
}

type Of<'l, 'r> = (&'l Lens<'r>, &'l Chunk);

fn row(
    before: Option<Of<'_, '_>>,
    after: Option<Of<'_, '_>>,
    change: ChunkChange,
    because: Option<String>,
) -> ChunkRow {
    let sizes = |(lens, chunk): Of<'_, '_>| lens.amount(&lens.files(chunk.files())).sizes();
    ChunkRow {
        before: before.map(|(_, chunk)| chunk.name.clone()),
        after: after.map(|(_, chunk)| chunk.name.clone()),
        sizes_before: before.map(sizes),
        sizes_after: after.map(sizes),
        change,
        because,
    }
}

/// Pairs of chunks, by place: those of one name that share contents, then by the greatest overlap.
fn matched(before: &Record, after: &Record) -> Vec<(usize, usize)> {
    let old: Vec<_> = before.chunks.iter().map(|chunk| contents(before, chunk)).collect();
    let new: Vec<_> = after.chunks.iter().map(|chunk| contents(after, chunk)).collect();
    let mut pairs = Vec::new();
    let (mut free_old, mut free_new) = (vec![true; old.len()], vec![true; new.len()]);
    // The same bytes are the same chunk, and so is what goes by the same name and holds some of it.
    let mut by_digest: BTreeMap<Vec<&str>, Vec<usize>> = BTreeMap::new();
    for (at, chunk) in before.chunks.iter().enumerate() {
        by_digest.entry(digests(before, chunk)).or_default().push(at);
    }
    let by_name: BTreeMap<&str, usize> =
        before.chunks.iter().enumerate().map(|(at, chunk)| (chunk.name.as_str(), at)).collect();
    let mut take = |a: usize, b: usize, free_old: &mut Vec<bool>, free_new: &mut Vec<bool>| {
        if free_old[a] && free_new[b] {
            (free_old[a], free_new[b]) = (false, false);
            pairs.push((a, b));
        }
    };
    for (at, chunk) in after.chunks.iter().enumerate() {
        let same = by_digest.get(&digests(after, chunk)).into_iter().flatten();
        let by_name = |at: &&usize| before.chunks[**at].name == chunk.name;
        let found = same.clone().find(by_name).or_else(|| same.clone().find(|at| free_old[**at]));
        if let Some(&was) = found {
            take(was, at, &mut free_old, &mut free_new);
        }
    }
    for (at, chunk) in after.chunks.iter().enumerate() {
        if let Some(&was) = by_name.get(chunk.name.as_str())
            && (overlap(&old[was], &new[at]) > 0 || old[was].is_empty() || new[at].is_empty())
        {
            take(was, at, &mut free_old, &mut free_new);
        }
    }
    // By contents: at least half of either.
    let mut holders: BTreeMap<&str, Vec<usize>> = BTreeMap::new();
    for (at, contents) in old.iter().enumerate().filter(|(at, _)| free_old[*at]) {
        for path in contents.keys() {
            holders.entry(path).or_default().push(at);
        }
    }
    let mut candidates: BTreeMap<(usize, usize), u64> = BTreeMap::new();
    for (at, contents) in new.iter().enumerate().filter(|(at, _)| free_new[*at]) {
        for (path, bytes) in contents {
            for &was in holders.get(path).into_iter().flatten() {
                *candidates.entry((was, at)).or_default() += (*bytes).min(old[was][path]);
            }
        }
    }
    let weight = |contents: &Contents<'_>| contents.values().sum::<u64>();
    let mut best: Vec<(u64, usize, usize)> = candidates
        .into_iter()
        .filter(|((a, b), shared)| 2 * shared >= weight(&old[*a]).min(weight(&new[*b])))
        .map(|((a, b), shared)| (shared, a, b))
        .collect();
    best.sort_by(|a, b| b.0.cmp(&a.0).then_with(|| (a.1, a.2).cmp(&(b.1, b.2))));
    for (_, a, b) in best {
        take(a, b, &mut free_old, &mut free_new);
    }
    pairs
}

/// The chunk of another build that holds most of one, and at least half.
fn holder<'o>((record, chunk): (&Record, &Chunk), other: &'o Record) -> Option<&'o str> {
    let contents = contents(record, chunk);
    let whole: u64 = contents.values().sum();
    let shared = |candidate: &Chunk| -> u64 {
        let cells = candidate.files().flat_map(|file| other.cells_of(file));
        let modules: BTreeSet<&str> = cells
            .filter_map(|cell| match cell.owner {
                Owner::Module(id) => Some(other.module(id).path.as_str()),
                _ => None,
            })
            .collect();
        contents.iter().filter(|(path, _)| modules.contains(*path)).map(|(_, bytes)| bytes).sum()
    };
    let best = other.chunks.iter().map(|candidate| (shared(candidate), &candidate.name)).max()?;
    (best.0 > 0 && 2 * best.0 >= whole).then_some(best.1.as_str())
}

fn overlap(a: &Contents<'_>, b: &Contents<'_>) -> u64 {
    a.iter().filter_map(|(path, bytes)| Some((*bytes).min(*b.get(path)?))).sum()
}

fn contents<'r>(record: &'r Record, chunk: &Chunk) -> Contents<'r> {
    let mut contents = Contents::new();
    for cell in chunk.files().flat_map(|file| record.cells_of(file)) {
        if let Owner::Module(id) = cell.owner {
            *contents.entry(&record.module(id).path).or_default() += cell.amount.emitted;
        }
    }
    contents
}

fn digests<'r>(record: &'r Record, chunk: &Chunk) -> Vec<&'r str> {
    chunk.files().map(|file| record.file(file).digest.as_str()).collect()
}

/// Why a chunk changed though it holds the same of the same modules.
fn because(before: &Record, old: &Chunk, after: &Record, new: &Chunk) -> Option<&'static str> {
    if contents(before, old) != contents(after, new) || is_edited(before, old, after, new) {
        return None;
    }
    if order(before, old) != order(after, new) {
        return Some("its modules stand in another order");
    }
    let loads = |record: &Record, chunk: &Chunk| -> BTreeSet<String> {
        let files = chunk.files().flat_map(|file| {
            let asked = record.dynamic_loads.iter().filter(move |load| load.file == file);
            let asked = asked.flat_map(|load| load.files.iter().copied());
            record.file(file).loads.iter().copied().chain(asked).collect::<Vec<FileId>>()
        });
        files.map(|file| record.file(file).path.clone()).collect()
    };
    match loads(before, old) == loads(after, new) {
        false => Some("a file that it names is called otherwise"),
        true => Some("ids, or the bundler's own code in it, are others"),
    }
}

fn is_edited(before: &Record, old: &Chunk, after: &Record, new: &Chunk) -> bool {
    let sources = |record: &'_ Record, chunk: &Chunk| -> BTreeMap<String, Option<String>> {
        let owners = chunk.files().flat_map(|file| record.cells_of(file)).map(|cell| cell.owner);
        let modules = owners.filter_map(|owner| match owner {
            Owner::Module(id) => Some(record.module(id)),
            _ => None,
        });
        modules.map(|module| (module.path.clone(), module.source_digest.clone())).collect()
    };
    sources(before, old) != sources(after, new)
}

/// The modules of a chunk as they stand in it.
fn order<'r>(record: &'r Record, chunk: &Chunk) -> Vec<&'r str> {
    let mut order: Vec<&str> = Vec::new();
    for file in chunk.files() {
        let runs = record.file(file).runs.clone();
        for run in &record.runs[runs] {
            if let Owner::Module(id) = record.cells[run.cell.at()].owner {
                let path = path_of(record, id);
                if order.last() != Some(&path) {
                    order.push(path);
                }
            }
        }
    }
    order
}

fn path_of(record: &Record, id: ModuleId) -> &str {
    &record.module(id).path
}
