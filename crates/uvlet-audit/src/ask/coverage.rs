//! Which of the bytes a browser ran, whose they are, and what they cost.
//!
//! A byte ran at load if the first recording saw it run, later if another one did, and never otherwise.
//! Never ran in a few recordings is not dead: another visitor may need it.

use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_record::{
    Costs, FileId, Kind, Recording, Texts,
    sizes::{Amount, Measure, Sizes},
};

use crate::{
    ask::{
        attribute::{By, RowKind, Sort, attribute},
        functions::{Function, functions},
    },
    lens::Lens,
    parts::{
        cells::CellSet,
        prices::Prices,
        recordings::{Unmatched, ran},
        spans::Spans,
    },
};

/// What rows stand for.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, strum::EnumMessage, strum::IntoStaticStr, strum::VariantArray,
)]
#[strum(serialize_all = "lowercase")]
pub enum CoveredBy {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// A function, as the recordings tell them apart, without those inside it.
    Function,
}

/// The answer.
#[derive(Debug)]
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
        CoveredBy::Package | CoveredBy::Module => Vec::new(),
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
            CoveredBy::Package => rows_of(By::Package, &all),
            CoveredBy::Module => rows_of(By::Module, &all),
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
