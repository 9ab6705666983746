//! Tables for spreadsheets (RFC 4180): exact bytes, every measure that was taken, no units chosen.
//!
//! Names come from outside, and a spreadsheet takes some for formulas: these get an apostrophe.

use crate::words;
use csv::Writer;
use uvlet_audit::ask::{
    attribute::{Attribution, Row},
    compare::Comparison,
    coverage::Coverage,
    gate::verdict::{BudgetRow, Gate},
    survey::Survey,
};
use uvlet_record::{
    Record,
    sizes::{Coding, Measure, Sizes},
};

use crate::{name::plain, screen::measures_said};

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

/// A name as a cell. Where a spreadsheet would compute, an apostrophe stands in front: at its
/// beginning, behind spaces, and behind what may separate cells elsewhere. A scope's `@` is left, as
/// it calls no function, so that names can be joined with those of other tables.
fn cell(name: &str) -> String {
    let name = plain(name);
    let mut cell = String::with_capacity(name.len() + 1);
    let mut is_start = true;
    for (at, c) in name.char_indices() {
        let computes = match c {
            '=' | '+' | '-' | '\u{ff1d}' | '\u{ff0b}' | '\u{ff0d}' => true,
            '@' | '\u{ff20}' => calls(&name[at + c.len_utf8()..]),
            _ => false,
        };
        if is_start && computes {
            cell.push('\'');
        }
        cell.push(c);
        is_start = matches!(c, ';' | '\t' | '"') || (is_start && c.is_whitespace());
    }
    cell
}

/// Whether a function's name and its bracket stand there.
fn calls(text: &str) -> bool {
    let end = text.find(|c: char| !c.is_alphanumeric() && c != '_' && c != '.');
    end.is_some_and(|end| end > 0 && text[end..].starts_with('('))
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
            ("third_party", None, &startup.third_party),
            ("glue", None, &startup.glue),
            ("assets", None, &startup.assets),
            ("unattributed", None, &startup.unattributed),
            ("exclusive", None, &startup.exclusive),
            ("shared", None, &startup.shared),
            ("at_once", Some(entry.at_once.file_count), &entry.at_once.sizes),
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

/// What a row's files lose without it, if that was asked of it and is known.
fn removed(row: &Row, coding: Coding) -> String {
    let saved = row.removal.and_then(|removal| removal.if_removed);
    saved.and_then(|saved| saved.get(coding).copied()).map(|b| b.to_string()).unwrap_or_default()
}

/// One line per row; the total is left to the reader's own sum.
#[must_use]
pub fn attribute(answer: &Attribution, record: &Record) -> String {
    let measures = measures(&answer.total.sizes);
    let names: Vec<&str> = measures.iter().map(|measure| measure.name()).collect();
    let codings: Vec<Coding> = match answer.rows.first().and_then(|row| row.removal) {
        Some(removal) => removal.if_removed.unwrap_or_default().codings().collect(),
        None => Vec::new(),
    };
    let removals: Vec<String> =
        codings.iter().map(|coding| format!("if_removed_{}", coding.name())).collect();
    let removals: Vec<&str> = removals.iter().map(String::as_str).collect();
    let heads = [
        &["row", "name", "version", "place"][..],
        &names,
        &removals,
        &["basis", "source", "chunks", "encoders"],
    ]
    .concat();
    let mut table = Table::new(&heads);
    for row in &answer.rows {
        let text = |text: &Option<String>| text.as_deref().map(cell).unwrap_or_default();
        let source = row.source.map(|source| source.to_string()).unwrap_or_default();
        table.row(
            [
                vec![
                    row.row.name().to_owned(),
                    cell(&row.name),
                    text(&row.version),
                    text(&row.place),
                ],
                bytes(&row.sizes, &measures),
                codings.iter().map(|&coding| removed(row, coding)).collect(),
                vec![
                    row.basis.name().to_owned(),
                    source,
                    cell(&row.chunks.join(" ")),
                    encoders(record),
                ],
            ]
            .concat(),
        );
    }
    table.text()
}

/// What moved between two builds: a row per package, and per what is none.
#[must_use]
pub fn compare(answer: &Comparison, record: &Record) -> String {
    let taken = measures(&answer.after.sizes);
    let mut heads = vec!["row".to_owned(), "name".to_owned(), "cause".to_owned()];
    for measure in &taken {
        heads.extend(["from", "to"].map(|side| format!("{side} {measure}")));
    }
    heads.extend(["versions from", "versions to", "encoders"].map(str::to_owned));
    let heads: Vec<&str> = heads.iter().map(String::as_str).collect();
    let mut table = Table::new(&heads);
    for row in &answer.packages {
        let mut cells = vec![
            row.row.name().to_owned(),
            cell(&row.name),
            words::changes::cause(row.cause).to_owned(),
        ];
        for &measure in &taken {
            let bytes = |sizes: &Option<Sizes>| {
                sizes.as_ref().map(|sizes| sizes.get(measure).to_string()).unwrap_or_default()
            };
            cells.extend([bytes(&row.before), bytes(&row.after)]);
        }
        let versions =
            |list: Option<&Vec<String>>| list.map(|list| cell(&list.join(" "))).unwrap_or_default();
        cells.push(versions(row.versions.as_ref().map(|versions| &versions.before)));
        cells.push(versions(row.versions.as_ref().map(|versions| &versions.after)));
        cells.push(encoders(record));
        table.row(cells);
    }
    table.text()
}

fn because(row: &BudgetRow) -> String {
    let because: Vec<String> = row.because.iter().map(words::reasons::sentence).collect();
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
            row.measure.name().to_owned(),
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

/// What ran, a line per owner: all of it, ran at load, ran later, never ran.
#[must_use]
pub fn coverage(answer: &Coverage, record: &Record) -> String {
    let taken = answer.rows.first().map(|row| measures(&row.sizes)).unwrap_or_default();
    let mut heads = vec!["row".to_owned(), "name".to_owned(), "version".to_owned()];
    for measure in &taken {
        let parts = ["all", "ran_at_load", "ran_later", "never_ran"];
        heads.extend(parts.map(|part| format!("{part} {measure}")));
    }
    heads.push("encoders".to_owned());
    let heads: Vec<&str> = heads.iter().map(String::as_str).collect();
    let mut table = Table::new(&heads);
    for row in &answer.rows {
        let version = row.version.as_deref().map(cell).unwrap_or_default();
        let mut cells = vec![row.row.name().to_owned(), cell(&row.name), version];
        for &measure in &taken {
            let parts = [&row.sizes, &row.ran_at_load, &row.ran_later, &row.never_ran];
            cells.extend(parts.map(|sizes| sizes.get(measure).to_string()));
        }
        cells.push(encoders(record));
        table.row(cells);
    }
    table.text()
}
