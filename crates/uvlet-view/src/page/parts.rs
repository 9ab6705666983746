//! What the page is made of, and how its parts are drawn.

use uvlet_audit::{
    ask::{attribute::RowKind, report},
    lens::Lens,
};
use uvlet_record::{Record, sizes::Measure};

use crate::{notice::Notice, screen::measures_said};

/// What the page is made of.
pub struct Report<'a> {
    /// The build.
    pub lens: &'a Lens<'a>,
    /// What was asked of it.
    pub answers: &'a report::Report,
    /// What should be known.
    pub notices: &'a [Notice],
    /// The build as a shell names it.
    pub shell: &'a str,
    /// The program's version.
    pub version: &'a str,
}

/// What a row is, for its pattern.
pub(crate) fn class(row: RowKind, own: bool) -> &'static str {
    match row {
        RowKind::Own => "own",
        RowKind::Package if own => "own",
        RowKind::Package | RowKind::ThirdParty => "third",
        RowKind::Glue => "glue",
        RowKind::Assets => "assets",
        _ => "none",
    }
}

/// Hundredths of a percent, for a width.
pub(crate) fn width(bytes: u64, most: u64) -> String {
    let parts = (u128::from(bytes) * 10_000).checked_div(u128::from(most)).unwrap_or(0);
    format!("{}.{:02}", parts / 100, parts % 100)
}

/// The measures of a screen, with their encoders.
pub(crate) fn sizes_said(record: &Record, measure: Measure) -> String {
    measures_said(std::iter::once(measure), record)
}
