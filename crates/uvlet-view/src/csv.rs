//! Tables for spreadsheets (RFC 4180): exact bytes, every measure that was taken, no units chosen.
//!
//! Names come from outside, and a spreadsheet takes a cell that begins with `=` for a formula: such
//! a name gets an apostrophe in front.

use std::borrow::Cow;

use csv::Writer;
use uvlet_audit::{
    attribute::Attribution,
    gate::{BudgetRow, Gate},
    survey::Survey,
};
use uvlet_record::{
    Record,
    sizes::{Measure, Sizes},
};

use crate::{name::plain, table::measures_said};

/// A table that is being written.
struct Table(Writer<Vec<u8>>);

impl Table {
    fn new(heads: &[&str]) -> Self {
        let mut table = Self(Writer::from_writer(Vec::new()));
        table.row(heads.iter().map(|head| (*head).to_owned()).collect());
        table
    }

    fn row(&mut self, cells: Vec<String>) {
        // Writing to memory does not fail, and every row has the length of the first.
        let _ = self.0.write_record(cells);
    }

    fn text(self) -> String {
        let bytes = self.0.into_inner().unwrap_or_default();
        String::from_utf8(bytes).unwrap_or_default()
    }
}

/// A name as a cell.
fn cell(name: &str) -> String {
    let name: Cow<'_, str> = plain(name);
    if name.starts_with(['=', '+', '-', '@']) { format!("'{name}") } else { name.into_owned() }
}

fn bytes(sizes: &Sizes, measures: &[Measure]) -> Vec<String> {
    measures.iter().map(|&measure| sizes.get(measure).to_string()).collect()
}

fn measures(sizes: &Sizes) -> Vec<Measure> {
    sizes.measures().collect()
}

/// The encoders behind the coded sizes of a line.
fn encoders(record: &Record) -> String {
    measures_said(record.measures().filter(|&measure| measure != Measure::Emitted), record)
}

/// One line per entry and part of it: startup and its owners, deferred.
#[must_use]
pub fn survey(survey: &Survey, record: &Record) -> String {
    let measures = measures(&survey.totals.sizes);
    let names: Vec<&str> = measures.iter().map(|measure| measure.name()).collect();
    let mut table =
        Table::new(&[&["entry", "part", "file_count"][..], &names, &["encoders"]].concat());
    for entry in &survey.entries {
        let startup = &entry.startup;
        let parts = [
            ("startup", Some(startup.file_count), &startup.sizes),
            ("own", None, &startup.own),
            ("third-party", None, &startup.third_party),
            ("glue", None, &startup.glue),
            ("assets", None, &startup.assets),
            ("unattributed", None, &startup.unattributed),
            ("exclusive", None, &startup.exclusive),
            ("shared", None, &startup.shared),
            ("deferred", Some(entry.deferred.file_count), &entry.deferred.sizes),
        ];
        for (part, files, sizes) in parts {
            let files = files.map(|files| files.to_string()).unwrap_or_default();
            let mut row = vec![cell(&entry.name), part.to_owned(), files];
            row.extend(bytes(sizes, &measures));
            row.push(encoders(record));
            table.row(row);
        }
    }
    table.text()
}

/// One line per row; the total is left to the reader's own sum.
#[must_use]
pub fn attribute(answer: &Attribution, record: &Record) -> String {
    let measures = measures(&answer.total.sizes);
    let names: Vec<&str> = measures.iter().map(|measure| measure.name()).collect();
    let heads =
        [&[answer.by.name(), "version", "place"][..], &names, &["source", "chunks", "encoders"]]
            .concat();
    let mut table = Table::new(&heads);
    for row in &answer.rows {
        let text = |text: &Option<String>| text.as_deref().map(cell).unwrap_or_default();
        let source = row.source.map(|source| source.to_string()).unwrap_or_default();
        table.row(
            [
                vec![cell(&row.name), text(&row.version), text(&row.place)],
                bytes(&row.sizes, &measures),
                vec![source, cell(&row.chunks.join(" ")), encoders(record)],
            ]
            .concat(),
        );
    }
    table.text()
}

fn because(row: &BudgetRow) -> String {
    let because: Vec<&str> = row.because.iter().map(|reason| reason.message.as_str()).collect();
    because.join("; ")
}

/// One line per item and limit.
#[must_use]
pub fn gate(gate: &Gate, record: &Record) -> String {
    let mut table = Table::new(&[
        "name",
        "item",
        "selector",
        "limit_kind",
        "measure",
        "allowed",
        "is",
        "over_by",
        "least",
        "most",
        "verdict",
        "because",
        "encoders",
    ]);
    let number = |bytes: Option<u64>| bytes.map(|bytes| bytes.to_string()).unwrap_or_default();
    for row in &gate.budgets {
        table.row(vec![
            cell(&row.name),
            row.item.as_deref().map(cell).unwrap_or_default(),
            cell(&row.selector),
            row.limit_kind.name().to_owned(),
            row.measure.to_string(),
            number(row.allowed),
            number(row.is),
            row.over_by.to_string(),
            row.least.to_string(),
            row.most.to_string(),
            row.verdict.name().to_owned(),
            cell(&because(row)),
            encoders(record),
        ]);
    }
    table.text()
}
