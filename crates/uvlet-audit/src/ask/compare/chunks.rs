//! Chunks, before and after: by their lasting names, then by what they hold.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{
    Chunk, FileId, ModuleId, Owner, Record,
    sizes::{Measure, Sizes},
};

use crate::{
    ask::compare::matches::{contents, digests, holder, matched},
    lens::Lens,
};

/// A chunk, before and after.
#[derive(Debug)]
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
    pub because: Option<Because>,
}

/// Why a chunk changed, or where what is new or gone was or is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Because {
    /// Most of it was in this one.
    SplitFrom(String),
    /// Most of it is in this one.
    MergedInto(String),
    /// Its modules stand in another order.
    OtherOrder,
    /// A file that it names is called otherwise.
    OtherName,
    /// Ids, or the bundler's own code in it, are others.
    OtherIds,
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

pub(crate) fn chunks(before: &Lens<'_>, after: &Lens<'_>, measure: Measure) -> Vec<ChunkRow> {
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
                let because = from.map(|name| Because::SplitFrom(name.to_owned()));
                return row(None, Some((after, chunk)), ChunkChange::New, because);
            };
            let other = &old[was];
            match digests(before.record, other) == digests(after.record, chunk) {
                true => row(Some((before, other)), Some((after, chunk)), ChunkChange::Same, None),
                false => {
                    let because = because(before.record, other, after.record, chunk);
                    let change = ChunkChange::Changed;
                    row(Some((before, other)), Some((after, chunk)), change, because)
                }
            }
        })
        .collect();
    let gone = old.iter().enumerate().filter(|(at, _)| !seen.contains(at));
    rows.extend(gone.map(|(_, chunk)| {
        let to = holder((before.record, chunk), after.record);
        let because = to.map(|name| Because::MergedInto(name.to_owned()));
        row(Some((before, chunk)), None, ChunkChange::Gone, because)
    }));
    rows.sort_by(|a, b| {
        let weight = |row: &ChunkRow| {
            crate::ask::compare::sides::change(
                row.sizes_before.as_ref(),
                row.sizes_after.as_ref(),
                measure,
            )
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
    because: Option<Because>,
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

/// Why a chunk changed though it holds the same of the same modules.
fn because(before: &Record, old: &Chunk, after: &Record, new: &Chunk) -> Option<Because> {
    if contents(before, old) != contents(after, new) || is_edited(before, old, after, new) {
        return None;
    }
    if order(before, old) != order(after, new) {
        return Some(Because::OtherOrder);
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
        false => Some(Because::OtherName),
        true => Some(Because::OtherIds),
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
