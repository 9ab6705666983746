//! The same code in several scripts, told by their texts alone: where no source map says whose it is.
//!
//! Scripts are compared step by step of their structure ([`uvlet_script::shapes`]), which names do not
//! change. Samples that two scripts share are places to begin at; from each the steps are compared in both
//! directions as far as they are equal. What has an owner in both scripts is left to `copied-module`.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    ops::Range,
};

use uvlet_record::{FileId, Owner, Record};
use uvlet_script::shapes::{Mark, Shapes};

use crate::{
    find::{
        about::About,
        context::Ground,
        finding::{Bound, Found, Part, PartText},
    },
    parts::{byte_set::Stock, ranges::joined, spans::Spans},
};

/// Emitted bytes below which a stretch is how everybody writes.
const LEAST: u64 = 2000;

/// Scripts that hold a sample beyond which it is no place to begin at.
const COMMON: usize = 16;

/// A stretch of one script that another has, too.
struct Copy {
    /// Where it stays.
    kept: (FileId, Range<u64>),
    /// Where it is again.
    again: (FileId, Range<u64>),
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let mut by_pair: BTreeMap<(FileId, FileId), Vec<Copy>> = BTreeMap::new();
    for copy in copies(record, ground.shapes()) {
        by_pair.entry((copy.kept.0, copy.again.0)).or_default().push(copy);
    }
    by_pair.into_iter().map(|((kept, again), copies)| one(ground, kept, again, &copies)).collect()
}

/// Stretches that are in more than one script; the copy in the heaviest one stays.
fn copies(record: &Record, shapes: &[(FileId, Shapes)]) -> Vec<Copy> {
    let unowned: HashMap<FileId, Vec<Range<u64>>> =
        shapes.iter().map(|(file, _)| (*file, unowned(record, *file))).collect();
    let mut scripts: Vec<&(FileId, Shapes)> =
        shapes.iter().filter(|(file, _)| !unowned[file].is_empty()).collect();
    scripts.sort_by_key(|(file, _)| (std::cmp::Reverse(record.file(*file).emitted), *file));
    // Places of samples in scripts that were looked at: they stay.
    let mut known: HashMap<u64, Vec<(usize, usize)>> = HashMap::new();
    let mut found = Vec::new();
    for (at, (file, shapes)) in scripts.iter().enumerate() {
        let places: HashMap<usize, usize> =
            shapes.steps.iter().enumerate().map(|(step, mark)| (mark.at, step)).collect();
        let marks: Vec<(usize, u64)> = Shapes::marks(&shapes.steps)
            .into_iter()
            .filter_map(|mark| Some((*places.get(&mark.at)?, mark.digest)))
            .collect();
        let mut done = 0;
        for (step, digest) in &marks {
            if *step < done {
                continue;
            }
            let others = known.get(digest).filter(|others| others.len() <= COMMON);
            let longest = others.into_iter().flatten().map(|&(other, place)| {
                let theirs = &scripts[other].1.steps;
                (alike(&shapes.steps, *step, done, theirs, place), other)
            });
            let Some(((mine, theirs), other)) = longest.max_by_key(|((mine, _), _)| mine.len())
            else {
                continue;
            };
            done = done.max(mine.end);
            let kept = &scripts[other];
            let copy = Copy {
                kept: (kept.0, bytes(record, kept.0, &kept.1.steps, &theirs)),
                again: (*file, bytes(record, *file, &shapes.steps, &mine)),
            };
            let is_unowned = |(file, range): &(FileId, Range<u64>)| {
                let free = unowned[file].iter();
                let free = free
                    .map(|one| one.end.min(range.end).saturating_sub(one.start.max(range.start)));
                free.sum::<u64>() * 2 > range.end - range.start
            };
            let length = copy.again.1.end - copy.again.1.start;
            if length >= LEAST && is_unowned(&copy.kept) && is_unowned(&copy.again) {
                found.push(copy);
            }
        }
        for (step, digest) in marks {
            known.entry(digest).or_default().push((at, step));
        }
    }
    found
}

/// The stretches of a script that nobody owns.
fn unowned(record: &Record, file: FileId) -> Vec<Range<u64>> {
    let cells = record.cells_of(file);
    if cells.iter().all(|cell| cell.owner == Owner::Unattributed) {
        return std::iter::once(0..record.file(file).emitted).collect();
    }
    let runs = record.runs[record.file(file).runs.clone()].iter();
    let runs = runs.filter(|run| record.cells[run.cell.at()].owner == Owner::Unattributed);
    joined(runs.map(|run| run.start..run.start + run.length).collect())
}

/// The steps around two places that are equal, not before `from` in the first script.
fn alike(
    mine: &[Mark],
    at: usize,
    from: usize,
    theirs: &[Mark],
    place: usize,
) -> (Range<usize>, Range<usize>) {
    let is_equal = |(one, other): &(&Mark, &Mark)| one.digest == other.digest;
    let after = mine[at..].iter().zip(&theirs[place..]).take_while(is_equal).count();
    let before = mine[from.min(at)..at].iter().rev().zip(theirs[..place].iter().rev());
    let before = before.take_while(is_equal).count();
    (at - before..at + after, place - before..place + after)
}

/// The bytes of some steps: up to where the next one begins.
fn bytes(record: &Record, file: FileId, steps: &[Mark], range: &Range<usize>) -> Range<u64> {
    let at = |step: usize| steps.get(step).map_or(record.file(file).emitted, |mark| mark.at as u64);
    at(range.start)..at(range.end).max(at(range.start))
}

fn one(ground: &Ground<'_>, kept: FileId, again: FileId, copies: &[Copy]) -> Found {
    let (record, lens) = (ground.record(), ground.lens);
    let mut spans = Spans::default();
    copies.iter().for_each(|copy| spans.add(again, copy.again.1.clone()));
    let spans = spans.joined();
    let path = |file: FileId| record.file(file).path.as_str();
    // Who loads only one of the two has nothing twice.
    let both = lens
        .reach
        .iter()
        .enumerate()
        .filter(|(_, reach)| reach.startup.contains(&kept) && reach.startup.contains(&again));
    let by_entry = both
        .map(|(entry, _)| (entry, Stock { spans: spans.clone(), ..Stock::default() }))
        .collect();
    let stem = |file: FileId| match lens.chunk_of(file) {
        Some(chunk) => chunk.name.clone(),
        None => path(file).to_owned(),
    };
    let parts = copies.iter().map(|copy| {
        let ((_, from), (_, to)) = (&copy.kept, &copy.again);
        Part {
            name: path(again).to_owned(),
            emitted: to.end - to.start,
            text: PartText::Copy {
                here: to.clone(),
                there: from.clone(),
                of: path(kept).to_owned(),
            },
            ..Part::default()
        }
    });
    Found {
        names: BTreeSet::from([stem(kept), stem(again)]),
        parts: parts.collect(),
        spans,
        bound: Bound::AtMost,
        by_entry: Some(by_entry),
        ..Found::of(About::CopiedText {
            kept: path(kept).to_owned(),
            again: path(again).to_owned(),
            parts: copies.len(),
        })
    }
}
