//! What the page is made of, and how its parts are drawn.

use uvlet_audit::{
    ask::{
        attribute::RowKind, compare::Comparison, coverage::Coverage, gate::verdict::Gate,
        survey::Survey, why::Why,
    },
    find::waste::Waste,
    lens::Lens,
};
use uvlet_record::{Record, sizes::Measure};

use crate::{notice::Notice, screen::measures_said};

/// What the page is made of.
pub struct Report<'a> {
    /// The build.
    pub lens: &'a Lens<'a>,
    /// What each page makes a visitor download.
    pub survey: &'a Survey,
    /// Why each package is here, the heaviest first.
    pub whys: &'a [(String, Why)],
    /// What need not be there.
    pub waste: &'a Waste,
    /// How promises stand, where there are any.
    pub gate: Option<&'a Gate>,
    /// What moved, where there is a build to hold it against.
    pub compare: Option<&'a Comparison>,
    /// What ran in recordings of a browser, where there are any.
    pub coverage: Option<&'a Coverage>,
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
