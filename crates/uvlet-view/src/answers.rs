//! Answers with all that is said of how to show them, each in every form that it has.

use serde::Serialize;
use uvlet_audit::ask::gate::starts::EntryStart;
use uvlet_audit::{
    ask::{
        attribute::Attribution, compare::Comparison, coverage::Coverage,
        declaration::WhyDeclaration, gate::verdict::Gate, requests::Requests, suggest::Suggestions,
        survey::Survey, tries::Try, what_if::WhatIf, why::Why,
    },
    find::waste::Waste,
};
use uvlet_record::Record;

use crate::{
    csv, json, junit, markdown, sarif,
    screen::Screen,
    table::{self, Breadth, Detail, Rows, Shown},
};

/// An answer that can be shown.
pub trait Answer {
    /// What JSON has of it.
    fn json(&self) -> impl Serialize + '_;
    /// For a person at a terminal.
    fn table(&self, record: &Record, screen: &Screen) -> String;
    /// For a pull request.
    fn markdown(&self, record: &Record, screen: &Screen) -> String;
    /// For a spreadsheet, where it is rows.
    fn csv(&self, _record: &Record) -> Option<String> {
        None
    }
    /// For a list of tests, where it is a verdict.
    fn junit(&self, _screen: &Screen) -> Option<String> {
        None
    }
    /// For a list of problems in code, where it is a verdict.
    fn sarif(&self, _screen: &Screen) -> Option<String> {
        None
    }
}

/// What each page makes a visitor download.
#[derive(Debug)]
pub struct Surveyed<'a> {
    /// The answer.
    pub answer: &'a Survey,
    /// How much of it.
    pub detail: &'a Detail,
}

impl Answer for Surveyed<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::survey::Survey::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::survey(self.answer, record, screen, self.detail)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::survey(self.answer, record, screen)
    }

    fn csv(&self, record: &Record) -> Option<String> {
        Some(csv::survey(self.answer, record))
    }
}

/// Whose bytes they are.
#[derive(Debug)]
pub struct Attributed<'a> {
    /// The answer.
    pub answer: &'a Attribution,
    /// So many rows, and one for the rest; all without.
    pub top: Option<usize>,
}

impl Answer for Attributed<'_> {
    fn json(&self) -> impl Serialize + '_ {
        self.answer
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::attribute(self.answer, record, screen, self.top)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::attribute(self.answer, record, screen, self.top)
    }

    fn csv(&self, record: &Record) -> Option<String> {
        Some(csv::attribute(self.answer, record))
    }
}

/// Why something is here.
#[derive(Debug)]
pub struct Explained<'a> {
    /// The answer.
    pub answer: &'a Why,
    /// How much of it.
    pub breadth: Breadth,
}

impl Answer for Explained<'_> {
    fn json(&self) -> impl Serialize + '_ {
        self.answer
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::why(self.answer, record, screen, self.breadth)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::why(self.answer, record, screen)
    }
}

/// Why a declaration is here.
#[derive(Debug)]
pub struct Declared<'a> {
    /// The answer.
    pub answer: &'a WhyDeclaration,
}

impl Answer for Declared<'_> {
    fn json(&self) -> impl Serialize + '_ {
        self.answer
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::declaration(self.answer, record, screen)
    }

    fn markdown(&self, _record: &Record, screen: &Screen) -> String {
        markdown::declaration(self.answer, screen)
    }
}

/// What could be removed.
#[derive(Debug)]
pub struct Found<'a> {
    /// The answer.
    pub answer: &'a Waste,
    /// So many rows, and one for the rest; all without.
    pub top: Option<usize>,
    /// Findings that save less are only counted for people; programs get all.
    pub least: u64,
}

impl Answer for Found<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::waste::Waste::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::waste(self.answer, record, screen, self.top, self.least)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::waste(self.answer, record, screen, self.top, self.least)
    }
}

/// What would win most.
#[derive(Debug)]
pub struct Suggested<'a> {
    /// The answer.
    pub answer: &'a Suggestions,
    /// The build as it was named.
    pub build: &'a str,
}

impl Answer for Suggested<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::what_if::Suggestions::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::suggestions(self.answer, self.build, record, screen)
    }

    fn markdown(&self, _record: &Record, screen: &Screen) -> String {
        markdown::suggestions(self.answer, screen)
    }
}

/// What a plan would win.
#[derive(Debug)]
pub struct Predicted<'a> {
    /// The answer.
    pub answer: &'a WhatIf,
}

impl Answer for Predicted<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::what_if::WhatIf::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::what_if(self.answer, record, screen)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::what_if(self.answer, record, screen)
    }
}

/// What moved between two builds.
#[derive(Debug)]
pub struct Compared<'a> {
    /// The answer.
    pub answer: &'a Comparison,
    /// Which rows.
    pub rows: &'a Rows,
}

impl Answer for Compared<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::compare::Comparison::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::compare(self.answer, record, screen, self.rows)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::compare(self.answer, record, screen, self.rows)
    }

    fn csv(&self, record: &Record) -> Option<String> {
        Some(csv::compare(self.answer, record))
    }
}

/// Several builds after each other.
#[derive(Debug)]
pub struct Tried<'a> {
    /// The answer, the earliest first.
    pub answer: &'a [Try],
}

/// What JSON has of them.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Tries<'a> {
    /// The earliest first.
    tries: &'a [Try],
}

impl Answer for Tried<'_> {
    fn json(&self) -> impl Serialize + '_ {
        Tries { tries: self.answer }
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::tries(self.answer, record, screen)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::tries(self.answer, record, screen)
    }
}

/// Which bytes a browser never ran.
#[derive(Debug)]
pub struct Covered<'a> {
    /// The answer.
    pub answer: &'a Coverage,
    /// So many rows, and one for the rest; all without.
    pub top: Option<usize>,
}

impl Answer for Covered<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::coverage::Coverage::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::coverage(self.answer, record, screen, self.top)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::coverage(self.answer, record, screen, self.top)
    }

    fn csv(&self, record: &Record) -> Option<String> {
        Some(csv::coverage(self.answer, record))
    }
}

/// What was asked for, beside what was foretold.
#[derive(Debug)]
pub struct Requested<'a> {
    /// The answer.
    pub answer: &'a Requests,
}

impl Answer for Requested<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::requests::Requests::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::requests(self.answer, record, screen)
    }

    fn markdown(&self, _record: &Record, screen: &Screen) -> String {
        markdown::requests(self.answer, screen)
    }
}

/// Whether promises are kept.
#[derive(Debug)]
pub struct Judged<'a> {
    /// The answer.
    pub answer: &'a Gate,
    /// What was judged.
    pub label: &'a str,
    /// Which promises.
    pub shown: Shown,
    /// What each entry starts with.
    pub entries: &'a [EntryStart],
}

impl Answer for Judged<'_> {
    fn json(&self) -> impl Serialize + '_ {
        json::gate::Gate::from(self.answer)
    }

    fn table(&self, record: &Record, screen: &Screen) -> String {
        table::gate(self.answer, self.label, record, screen, self.shown)
    }

    fn markdown(&self, record: &Record, screen: &Screen) -> String {
        markdown::gate((self.answer, self.entries), self.label, record, screen, self.shown)
            + &markdown::folds(self.entries, screen)
    }

    fn csv(&self, record: &Record) -> Option<String> {
        Some(csv::gate(self.answer, record))
    }

    fn junit(&self, screen: &Screen) -> Option<String> {
        Some(junit::gate(self.answer, self.label, screen))
    }

    fn sarif(&self, screen: &Screen) -> Option<String> {
        Some(sarif::gate(self.answer, self.label, screen))
    }
}
