//! Which of the bytes a browser ran, whose they are, and what they cost.
//!
//! A byte ran at load if the first recording saw it run, later if another one did, and never otherwise.
//! Never ran in a few recordings is not dead: another visitor may need it.

mod files;
pub(crate) mod ranges;

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use serde::Serialize;
use uvlet_record::{
    Costs, FileId, Kind, Record, Texts,
    sizes::{Amount, Measure, Sizes},
};

use crate::{
    attribute::{By, RowKind, Sort, attribute},
    lens::{CellSet, Lens},
    liveness::{Sources, segment_at},
    spans::{Prices, Spans},
};
use files::Files;
use ranges::{bytes_of, joined, that_ran, without};

/// A script or style as a recording has it.
#[derive(Clone, Debug)]
pub struct Seen {
    /// Where it was loaded from.
    pub url: String,
    /// Its text, where that is held.
    pub text: Option<String>,
    /// Its length in UTF-16 code units, where that is known.
    pub length: Option<u64>,
    /// Stretches in UTF-16 code units and whether they ran; later ones lie inside earlier ones.
    pub ranges: Vec<(u64, u64, bool)>,
    /// Functions in UTF-16 code units, with their names.
    pub functions: Vec<(u64, u64, String)>,
}

/// What rows stand for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CoveredBy {
    /// An owner.
    Owner(By),
    /// A function, without those inside it.
    Function,
}

/// A recording, and what it is called.
#[derive(Clone, Debug)]
pub struct Recording {
    /// What it is called.
    pub label: String,
    /// What it saw.
    pub seen: Vec<Seen>,
}

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Coverage {
    /// What recordings are called; the first is that of the load.
    pub recordings: Vec<String>,
    /// Entries with a recorded script at startup, the one with most that never ran first.
    pub entries: Vec<EntryRow>,
    /// Recorded files, by path.
    pub files: Vec<FileRow>,
    /// Whose bytes they are, most that never ran first.
    pub rows: Vec<Row>,
    /// Scripts of recordings that are no files of the build.
    pub unmatched: Vec<Unmatched>,
}

/// An entry.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryRow {
    /// Its name.
    pub name: String,
    /// Of its recorded startup files.
    pub startup: EntryStartup,
}

/// Startup of an entry, as far as it was recorded.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryStartup {
    /// All of it.
    pub sizes: Sizes,
    /// What never ran.
    pub never_ran: Sizes,
    /// What of it by package, most first.
    #[serde(skip)]
    pub heaviest: Vec<(String, Sizes)>,
    /// Scripts at startup that no recording has.
    pub unrecorded: Vec<String>,
}

/// A file.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FileRow {
    /// Its path.
    pub path: String,
    /// What the first recording saw run.
    pub ran_at_load: Sizes,
    /// What only another one saw run.
    pub ran_later: Sizes,
    /// What none saw run.
    pub never_ran: Sizes,
    /// Recordings that do not have it.
    pub missing_in: Vec<String>,
}

/// A package, or what is none.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Row {
    /// What it is.
    pub row: RowKind,
    /// Its name.
    pub name: String,
    /// Its version.
    pub version: Option<String>,
    /// All of it that was recorded.
    pub sizes: Sizes,
    /// What the first recording saw run.
    pub ran_at_load: Sizes,
    /// What only another one saw run.
    pub ran_later: Sizes,
    /// What none saw run.
    pub never_ran: Sizes,
}

/// A script of a recording that is none of the build's.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Unmatched {
    /// Where it was loaded from.
    pub url: String,
    /// Why.
    pub reason: String,
}

/// What ran in some recordings.
#[derive(Debug, Default)]
pub struct Ran {
    /// Stretches that the first recording saw run.
    pub load: Spans,
    /// Stretches that only another one saw run.
    pub later: Spans,
    /// Stretches that none saw run.
    pub never: Spans,
    /// Recorded files, with the recordings that they are in, by place.
    pub files: BTreeMap<FileId, BTreeSet<usize>>,
    /// Scripts of recordings that are no files of the build.
    pub unmatched: BTreeSet<Unmatched>,
}

/// Ties recordings to the files of a build.
#[must_use]
pub fn ran(record: &Record, recordings: &[Recording], texts: &dyn Texts) -> Ran {
    let mut ran = Ran::default();
    let mut files = Files::new(record, texts);
    // Per file: in which recordings it is, and which of its UTF-16 code units ran in them. One script
    // that several frames run is one.
    let mut found: BTreeMap<FileId, BTreeMap<usize, Vec<Range<u64>>>> = BTreeMap::new();
    for (at, recording) in recordings.iter().enumerate() {
        for seen in &recording.seen {
            match files.matching(seen) {
                Err(unknown) => {
                    let reason = unknown.reason().to_owned();
                    ran.unmatched.insert(Unmatched { url: seen.url.clone(), reason });
                }
                Ok(file) => {
                    let units = that_ran(&seen.ranges);
                    found.entry(file).or_default().entry(at).or_default().extend(units);
                }
            }
        }
    }
    for (file, by_recording) in found {
        let text = files.text(file);
        let ends = by_recording.values().flatten().flat_map(|range| [range.start, range.end]);
        let bytes = bytes_of(text, ends.collect());
        let in_bytes = |units: &Vec<Range<u64>>| -> Vec<Range<u64>> {
            let byte = |unit| bytes.get(unit).copied().unwrap_or(text.len()) as u64;
            units.iter().map(|range| byte(&range.start)..byte(&range.end)).collect()
        };
        let all: Vec<Range<u64>> = std::iter::once(0..text.len() as u64).collect();
        let load = joined(by_recording.get(&0).map(in_bytes).unwrap_or_default());
        let others = joined(by_recording.values().flat_map(in_bytes).collect());
        ran.files.insert(file, by_recording.into_keys().collect());
        let later = without(&others, &load);
        let never = without(&all, &others);
        let kinds = [(&mut ran.load, load), (&mut ran.later, later), (&mut ran.never, never)];
        for (spans, ranges) in kinds {
            ranges.into_iter().for_each(|range| spans.add(file, range));
        }
    }
    ran
}

/// Ties recordings to a build, and tells whose bytes ran when.
#[must_use]
pub fn coverage(
    lens: &Lens<'_>,
    recordings: &[Recording],
    texts: &dyn Texts,
    costs: Option<&dyn Costs>,
    by: CoveredBy,
    within: &CellSet,
    measure: Measure,
) -> Coverage {
    let record = lens.record;
    let ran = ran(record, recordings, texts);
    let functions = match by {
        CoveredBy::Owner(_) => Vec::new(),
        CoveredBy::Function => functions(record, recordings, texts),
    };
    let kinds = [&ran.load, &ran.later, &ran.never];
    let parts: Vec<Spans> = functions.iter().map(|function| function.spans.clone()).collect();
    let prices = Prices::new(record, costs, kinds.into_iter().chain(&parts));
    let nothing = CellSet::default();
    let amount = |spans: &Spans| -> Amount { prices.amount(record, spans, &nothing) };
    let of = |spans: &Spans, cells: &CellSet| amount(&spans.within(record, cells)).sizes();
    let recorded: BTreeSet<FileId> = ran.files.keys().copied().collect();
    let files = ran
        .files
        .iter()
        .map(|(&id, within)| {
            let is_it = |file: FileId| file == id;
            let missing = recordings.iter().enumerate().filter(|(at, _)| !within.contains(at));
            FileRow {
                path: record.file(id).path.clone(),
                ran_at_load: amount(&ran.load.of(is_it)).sizes(),
                ran_later: amount(&ran.later.of(is_it)).sizes(),
                never_ran: amount(&ran.never.of(is_it)).sizes(),
                missing_in: missing.map(|(_, recording)| recording.label.clone()).collect(),
            }
        })
        .collect();
    let sorted = |mut rows: Vec<Row>| {
        rows.sort_by(|a, b| {
            b.never_ran
                .get(measure)
                .cmp(&a.never_ran.get(measure))
                .then_with(|| a.name.cmp(&b.name))
        });
        rows
    };
    let rows_of = |owner: By, cells: &CellSet| -> Vec<Row> {
        let rows = attribute(lens, owner, cells, None, Sort::Heaviest(measure)).rows;
        let rows = rows
            .into_iter()
            .map(|row| {
                let cells: CellSet = row.cells.iter().copied().collect();
                Row {
                    row: row.row,
                    name: row.name,
                    version: row.version,
                    sizes: row.sizes,
                    ran_at_load: of(&ran.load, &cells),
                    ran_later: of(&ran.later, &cells),
                    never_ran: of(&ran.never, &cells),
                }
            })
            .collect();
        sorted(rows)
    };
    let all = lens.files(recorded.iter().copied()).and(within);
    let mut entries = Vec::new();
    for (entry, reach) in record.entries.iter().zip(&lens.reach) {
        let startup: Vec<FileId> =
            reach.startup.iter().copied().filter(|file| recorded.contains(file)).collect();
        if startup.is_empty() {
            continue;
        }
        let cells = lens.files(startup.iter().copied()).and(within);
        let unrecorded = reach
            .startup
            .iter()
            .filter(|&&file| record.file(file).kind == Kind::Script && !recorded.contains(&file));
        let heaviest =
            rows_of(By::Package, &cells).into_iter().map(|row| (row.name, row.never_ran)).collect();
        entries.push(EntryRow {
            name: entry.name.clone(),
            startup: EntryStartup {
                sizes: lens.amount(&cells).sizes(),
                never_ran: of(&ran.never, &cells),
                heaviest,
                unrecorded: unrecorded.map(|&file| record.file(file).path.clone()).collect(),
            },
        });
    }
    entries.sort_by(|a, b| {
        let never = |row: &EntryRow| row.startup.never_ran.get(measure);
        never(b).cmp(&never(a)).then_with(|| a.name.cmp(&b.name))
    });
    Coverage {
        recordings: recordings.iter().map(|recording| recording.label.clone()).collect(),
        entries,
        files,
        rows: match by {
            CoveredBy::Owner(owner) => rows_of(owner, &all),
            CoveredBy::Function => {
                let row = |function: &Function| Row {
                    row: RowKind::Function,
                    name: function.name.clone(),
                    version: None,
                    sizes: of(&function.spans, &all),
                    ran_at_load: of(&function.spans.and(&ran.load), &all),
                    ran_later: of(&function.spans.and(&ran.later), &all),
                    never_ran: of(&function.spans.and(&ran.never), &all),
                };
                sorted(functions.iter().map(row).filter(|row| row.sizes.emitted > 0).collect())
            }
        },
        unmatched: ran.unmatched.iter().cloned().collect(),
    }
}

/// Names of functions by where each begins and, the other way round, ends: outer ones first.
type InOrder = BTreeMap<(u64, u64), String>;

/// A function of a recorded script.
struct Function {
    name: String,
    /// Its bytes, without functions inside it.
    spans: Spans,
}

/// The functions that recordings tell apart, by where they begin in the sources.
fn functions(record: &Record, recordings: &[Recording], texts: &dyn Texts) -> Vec<Function> {
    let mut by_file: BTreeMap<FileId, InOrder> = BTreeMap::new();
    let mut files = Files::new(record, texts);
    for seen in recordings.iter().flat_map(|recording| &recording.seen) {
        let Ok(file) = files.matching(seen) else { continue };
        let known = by_file.entry(file).or_default();
        for (start, end, name) in &seen.functions {
            known.insert((*start, u64::MAX - end), name.clone());
        }
    }
    let sources = Sources::new(texts);
    let mut found: Vec<Function> = Vec::new();
    for (file, functions) in by_file {
        let text = files.text(file);
        let origins = texts.origins(file).unwrap_or_default();
        let ends = functions.keys().flat_map(|(start, end)| [*start, u64::MAX - end]);
        let bytes = bytes_of(text, ends.collect());
        let at = |unit: u64| bytes.get(&unit).copied().unwrap_or(text.len()) as u64;
        // In the order of the text, outer ones first: each ends what the one around it has so far.
        let mut open: Vec<(u64, usize)> = Vec::new();
        let mut cursor = 0;
        let close = |open: &mut Vec<(u64, usize)>,
                     upto: u64,
                     cursor: &mut u64,
                     found: &mut Vec<Function>| {
            while let Some(&(end, function)) = open.last().filter(|(end, _)| *end <= upto) {
                found[function].spans.add(file, *cursor..end);
                *cursor = end.max(*cursor);
                open.pop();
            }
        };
        for ((start, end), name) in functions {
            let (start, end) = (at(start), at(u64::MAX - end));
            close(&mut open, start, &mut cursor, &mut found);
            if let Some(&(_, around)) = open.last() {
                found[around].spans.add(file, cursor..start);
            }
            cursor = start;
            let place = segment_at(&origins, start).and_then(|segment| segment.origin);
            let declared = place.and_then(|place| sources.declaration(place));
            let name = declared.map_or(name, |declared| declared.name);
            let name = match (place, name.as_str(), start) {
                (_, "", 0) => format!("(top level) of {}", record.file(file).path),
                (Some(place), name, _) => {
                    let name = if name.is_empty() { "(nameless)" } else { name };
                    format!("{}:{} {name}", record.module(place.module).path, place.line + 1)
                }
                (None, name, _) => {
                    let name = if name.is_empty() { "(nameless)" } else { name };
                    format!("{} byte {start} {name}", record.file(file).path)
                }
            };
            open.push((end, found.len()));
            found.push(Function { name, spans: Spans::default() });
        }
        close(&mut open, u64::MAX, &mut cursor, &mut found);
    }
    found.into_iter().map(|one| Function { spans: one.spans.joined(), ..one }).collect()
}
