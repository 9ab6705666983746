//! Which of the bytes a browser ran, whose they are, and what they cost.
//!
//! A byte ran at load if the first recording saw it run, later if another one did, and never otherwise.
//! Never ran in a few recordings is not dead: another visitor may need it.

use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_record::{
    Costs, FileId, Kind, Recording, Texts,
    sizes::{Measure, Sizes},
};

use crate::{
    ask::{
        attribute::{self, By, RowKind, Sort, attribute},
        functions::{Function, functions},
    },
    lens::Lens,
    parts::{
        cells::CellSet,
        prices::Prices,
        recordings::{Ran, TiedRecordings, Unmatched},
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
    /// TiedRecordings files, by path.
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
    /// Where its package is installed.
    pub place: Option<String>,
    /// All of it that was recorded.
    pub sizes: Sizes,
    /// What the first recording saw run.
    pub ran_at_load: Sizes,
    /// What only another one saw run.
    pub ran_later: Sizes,
    /// What none saw run.
    pub never_ran: Sizes,
}

/// What ran of a build, and what stretches of it cost.
struct Told<'t, 'r> {
    lens: &'t Lens<'r>,
    ran: &'t Ran,
    prices: Prices,
    measure: Measure,
}

impl Told<'_, '_> {
    fn amount(&self, spans: &Spans) -> Sizes {
        self.prices.amount(self.lens.record, spans, &CellSet::default()).sizes()
    }

    /// What some stretches have of some cells.
    fn of(&self, spans: &Spans, cells: &CellSet) -> Sizes {
        self.amount(&spans.within(self.lens.record, cells))
    }

    fn file(&self, id: FileId, within: &BTreeSet<usize>, recordings: &[Recording]) -> FileRow {
        let of = |spans: &Spans| self.amount(&spans.of(|file| file == id));
        let missing = recordings.iter().enumerate().filter(|(at, _)| !within.contains(at));
        FileRow {
            path: self.lens.record.file(id).path.clone(),
            ran_at_load: of(&self.ran.load),
            ran_later: of(&self.ran.later),
            never_ran: of(&self.ran.never),
            missing_in: missing.map(|(_, recording)| recording.label.clone()).collect(),
        }
    }

    /// A row for each owner, the one with most that never ran first.
    fn owners(&self, by: By, cells: &CellSet) -> Vec<Row> {
        let rows = attribute(self.lens, by, cells, None, Sort::Heaviest(self.measure)).rows;
        let row = |row: attribute::Row| {
            let cells: CellSet = row.cells.iter().copied().collect();
            Row {
                row: row.row,
                name: row.name,
                version: row.version,
                place: row.place,
                sizes: row.sizes,
                ran_at_load: self.of(&self.ran.load, &cells),
                ran_later: self.of(&self.ran.later, &cells),
                never_ran: self.of(&self.ran.never, &cells),
            }
        };
        self.sorted(rows.into_iter().map(row).collect())
    }

    fn function(&self, function: &Function, cells: &CellSet) -> Row {
        let of = |spans: &Spans| self.of(spans, cells);
        Row {
            row: RowKind::Function,
            name: function.name.clone(),
            version: None,
            place: None,
            sizes: of(&function.spans),
            ran_at_load: of(&function.spans.and(&self.ran.load)),
            ran_later: of(&function.spans.and(&self.ran.later)),
            never_ran: of(&function.spans.and(&self.ran.never)),
        }
    }

    fn sorted(&self, mut rows: Vec<Row>) -> Vec<Row> {
        let never = |row: &Row| row.never_ran.get(self.measure);
        rows.sort_by(|a, b| never(b).cmp(&never(a)).then_with(|| a.name.cmp(&b.name)));
        rows
    }

    /// Entries with a recorded script at startup, the one with most that never ran first.
    fn entries(&self, recorded: &BTreeSet<FileId>, within: &CellSet) -> Vec<EntryRow> {
        let record = self.lens.record;
        let mut entries = Vec::new();
        for (entry, reach) in record.entries.iter().zip(&self.lens.reach) {
            let (startup, other): (Vec<FileId>, Vec<FileId>) =
                reach.startup.iter().partition(|file| recorded.contains(file));
            if startup.is_empty() {
                continue;
            }
            let cells = self.lens.files(startup.iter().copied()).and(within);
            let unrecorded = other.iter().filter(|file| record.file(**file).kind == Kind::Script);
            let heaviest = self.owners(By::Package, &cells).into_iter();
            entries.push(EntryRow {
                name: entry.name.clone(),
                startup: EntryStartup {
                    sizes: self.lens.amount(&cells).sizes(),
                    never_ran: self.of(&self.ran.never, &cells),
                    heaviest: heaviest.map(|row| (row.name, row.never_ran)).collect(),
                    unrecorded: unrecorded.map(|file| record.file(*file).path.clone()).collect(),
                },
            });
        }
        let never = |row: &EntryRow| row.startup.never_ran.get(self.measure);
        entries.sort_by(|a, b| never(b).cmp(&never(a)).then_with(|| a.name.cmp(&b.name)));
        entries
    }
}

/// Tells whose bytes ran when.
#[must_use]
pub fn coverage(
    lens: &Lens<'_>,
    TiedRecordings { recordings, ran }: &TiedRecordings<'_>,
    texts: &dyn Texts,
    costs: Option<&dyn Costs>,
    by: CoveredBy,
    within: &CellSet,
    measure: Measure,
) -> Coverage {
    let record = lens.record;
    let functions = match by {
        CoveredBy::Package | CoveredBy::Module => Vec::new(),
        CoveredBy::Function => functions(record, recordings, texts),
    };
    let kinds = [&ran.load, &ran.later, &ran.never];
    let parts: Vec<Spans> = functions.iter().map(|function| function.spans.clone()).collect();
    let prices = Prices::new(record, costs, kinds.into_iter().chain(&parts));
    let told = Told { lens, ran, prices, measure };
    let recorded: BTreeSet<FileId> = ran.files.keys().copied().collect();
    let all = lens.files(recorded.iter().copied()).and(within);
    let files = ran.files.iter().map(|(&id, within)| told.file(id, within, recordings));
    Coverage {
        recordings: recordings.iter().map(|recording| recording.label.clone()).collect(),
        entries: told.entries(&recorded, within),
        files: files.collect(),
        rows: match by {
            CoveredBy::Package => told.owners(By::Package, &all),
            CoveredBy::Module => told.owners(By::Module, &all),
            CoveredBy::Function => {
                let rows = functions.iter().map(|function| told.function(function, &all));
                told.sorted(rows.filter(|row| row.sizes.emitted > 0).collect())
            }
        },
        unmatched: ran.unmatched.iter().cloned().collect(),
    }
}
