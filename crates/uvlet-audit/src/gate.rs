//! Holds budgets: what was promised, what is, and whose bytes make the difference.
//!
//! A limit is judged only as far as the build is known: it is broken if even the least that the
//! selection can weigh is over it, held if even the most is within, and undecided between.

mod growth;
mod judge;
mod waivers;

use std::{cmp::Reverse, collections::BTreeSet};

use jiff::civil::Date;
use serde::Serialize;
use uvlet_record::{
    Costs, Mode, Notice, Texts,
    sizes::{Measure, Sizes},
};

use judge::Judge;
pub use waivers::{About, Waiver, accept};

use crate::{
    attribute::RowKind,
    lens::Lens,
    selector::{Selector, SelectorError},
    waste,
};

/// Where something stands in the files of settings.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Place {
    /// The file, as it was named.
    pub file: String,
    /// From 1.
    pub line: usize,
    /// In characters, from 1.
    pub column: usize,
}

/// A promise about a set of bytes.
#[derive(Clone, Debug)]
pub struct Budget {
    /// Its name.
    pub name: String,
    /// What it is about.
    pub scope: Scope,
    /// Where that stands.
    pub place: Place,
    /// Bytes that must not be exceeded.
    pub at_most: Option<u64>,
    /// Bytes above which a warning is given.
    pub warn_above: Option<u64>,
    /// Number of files that must not be exceeded.
    pub files_at_most: Option<u64>,
    /// How much more than in the build before there may be.
    pub grow_at_most: Option<Growth>,
    /// What the bytes are counted in.
    pub measure: Measure,
}

/// How much something may grow.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Growth {
    /// Bytes.
    Bytes(u64),
    /// Thousandths of a percent of what there was.
    Milli(u64),
}

impl Growth {
    /// So much of what there was.
    fn bytes_of(self, base: u64) -> u64 {
        match self {
            Self::Bytes(bytes) => bytes,
            Self::Milli(milli) => {
                let bytes = u128::from(base) * u128::from(milli) / 100_000;
                u64::try_from(bytes).unwrap_or(u64::MAX)
            }
        }
    }
}

/// What a budget is about.
#[derive(Clone, Debug)]
pub enum Scope {
    /// The selection as a whole, each byte once.
    Total(Selector),
    /// Each match of the selector's first set on its own.
    Each(Selector),
    /// Nothing of the selection may be there.
    Absent(Selector),
    /// What findings of a kind come to together.
    Waste(waste::Kind),
}

impl Scope {
    /// What it speaks of, in words.
    fn text(&self) -> &str {
        match self {
            Self::Total(selector) | Self::Each(selector) | Self::Absent(selector) => {
                selector.text()
            }
            Self::Waste(kind) => kind.name(),
        }
    }

    /// The selector, where it is about one.
    #[must_use]
    pub fn selector(&self) -> Option<&Selector> {
        match self {
            Self::Total(selector) | Self::Each(selector) | Self::Absent(selector) => Some(selector),
            Self::Waste(_) => None,
        }
    }

    /// Whether it can only be judged, or said, with who asks for whom.
    #[must_use]
    pub fn asks_for_edges(&self) -> bool {
        matches!(self, Self::Absent(_) | Self::Waste(_))
    }
}

/// What budgets are judged by besides the record.
#[derive(Clone, Copy)]
pub struct Aids<'a> {
    /// Texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// What stretches of files cost on the wire.
    pub costs: Option<&'a dyn Costs>,
    /// Languages that are wanted.
    pub languages: &'a [String],
    /// Texts of the build that growth is held against.
    pub texts_of_base: &'a dyn Texts,
    /// The build that growth is held against.
    pub base: Option<&'a Lens<'a>>,
    /// Exceptions.
    pub waivers: &'a [Waiver],
    /// The day, in UTC, that they are held against.
    pub today: Date,
}

/// How strictly budgets are held.
#[derive(Clone, Copy, Debug)]
pub struct Strictness {
    /// A development build is taken.
    pub allow_development: bool,
    /// Estimates are taken as they stand.
    pub allow_estimated: bool,
    /// Bytes that nobody owns and that are not held against a budget.
    pub allow_unattributed: u64,
    /// Share of the bytes that a kind of finding must have judged for a budget on it, in thousandths of a
    /// percent.
    pub judged_at_least: u64,
}

impl Default for Strictness {
    fn default() -> Self {
        Self {
            allow_development: false,
            allow_estimated: false,
            allow_unattributed: 0,
            judged_at_least: 95_000,
        }
    }
}

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Gate {
    /// `broken` if any budget is, or if anything else breaks it.
    pub verdict: Verdict,
    /// What breaks it besides budgets.
    pub reasons: Vec<Reason>,
    /// One row per item and limit: broken first, then undecided, warned, waived, unjudged, held.
    pub budgets: Vec<BudgetRow>,
    /// What should be known of how budgets were understood.
    #[serde(skip)]
    pub notices: Vec<Notice>,
}

/// What breaks a gate, or leaves a limit undecided.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Reason {
    /// A stable word.
    pub code: String,
    /// One sentence.
    pub message: String,
}

/// How it stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Verdict {
    /// A limit is exceeded.
    Broken,
    /// What is known does not tell.
    Undecided,
    /// A warning limit is exceeded.
    Warned,
    /// A limit is exceeded, and that is accepted for a while.
    Waived,
    /// There is nothing to judge.
    Unjudged,
    /// Within its limits.
    Held,
}

impl Verdict {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Broken => "broken",
            Self::Undecided => "undecided",
            Self::Warned => "warned",
            Self::Waived => "waived",
            Self::Unjudged => "unjudged",
            Self::Held => "held",
        }
    }
}

/// Which limit a row is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[expect(missing_docs, reason = "each is the key of the configuration")]
pub enum LimitKind {
    AtMost,
    WarnAbove,
    Absent,
    GrowAtMost,
    FilesAtMost,
}

impl LimitKind {
    /// The key of the configuration.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::AtMost => "at_most",
            Self::WarnAbove => "warn_above",
            Self::Absent => "absent",
            Self::GrowAtMost => "grow_at_most",
            Self::FilesAtMost => "files_at_most",
        }
    }
}

/// What the numbers of a limit count.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Counted {
    /// Bytes.
    Bytes(Measure),
    /// Files.
    Files,
}

impl Counted {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Bytes(measure) => measure.name(),
            Self::Files => "files",
        }
    }
}

impl Serialize for Counted {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(self.name())
    }
}

#[cfg(feature = "schema")]
impl schemars::JsonSchema for Counted {
    fn schema_name() -> std::borrow::Cow<'static, str> {
        "Counted".into()
    }

    fn json_schema(_: &mut schemars::SchemaGenerator) -> schemars::Schema {
        let names = Measure::ALL.map(Self::Bytes).into_iter().chain([Self::Files]).map(Self::name);
        schemars::json_schema!({"type": "string", "enum": names.collect::<Vec<_>>()})
    }
}

/// One limit of one item.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BudgetRow {
    /// The app, where there are several.
    pub app: Option<String>,
    /// The budget.
    pub name: String,
    /// The match of an `each`.
    pub item: Option<String>,
    /// The selector as written.
    pub selector: String,
    /// Where that stands in the settings.
    #[serde(skip)]
    pub place: Place,
    /// Which limit.
    pub limit_kind: LimitKind,
    /// What the numbers count.
    pub measure: Counted,
    /// The same in the build that it is held against.
    pub base: Option<u64>,
    /// The limit.
    pub allowed: Option<u64>,
    /// What there is; unknown where that decides nothing.
    pub is: Option<u64>,
    /// How much is beyond the limit; 0 if held.
    pub over_by: u64,
    /// What there is at least.
    pub least: u64,
    /// What there is at most, as far as can be told.
    pub most: u64,
    /// How it stands.
    pub verdict: Verdict,
    /// Why it is undecided, unjudged or waived; of what is banned, what brings it in.
    pub because: Vec<Reason>,
    /// The heaviest contributors, at most five.
    pub heaviest: Vec<Heavy>,
    /// Of what grew too much, what did most, at most three.
    pub grew: Vec<Grew>,
    /// Sources that findings are about, the heaviest first, at most ten.
    #[serde(skip)]
    pub sources: Vec<String>,
}

/// Something that grew since the build before.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Grew {
    /// Package, or `(own)` and the like.
    pub name: String,
    /// By so many bytes of the row's measure.
    pub by: u64,
}

/// One contributor.
#[derive(Clone, Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Heavy {
    /// What it is.
    pub row: RowKind,
    /// Package, or `(own)` and the like.
    pub name: String,
    /// What it has in the selection.
    pub sizes: Sizes,
}

/// A budget whose selector cannot be evaluated.
#[derive(Debug, thiserror::Error)]
#[error("budget `{budget}`: {source}")]
pub struct GateError {
    /// The budget.
    pub budget: String,
    /// What is wrong with its selector.
    pub source: SelectorError,
}

/// Holds every budget against a build. A development build breaks the gate, as its sizes are not
/// those that visitors get, unless it is allowed.
///
/// # Errors
/// When a selector cannot be evaluated.
pub fn gate(
    lens: &Lens<'_>,
    budgets: &[Budget],
    strictness: Strictness,
    aids: Aids<'_>,
) -> Result<Gate, GateError> {
    let record = lens.record;
    let mut reasons = Vec::new();
    if record.mode == Mode::Development && !strictness.allow_development {
        let evidence = record.mode_evidence.first().map_or("", String::as_str);
        let message = format!(
            "this is a development build ({evidence}); its sizes are not what visitors get"
        );
        reasons.push(Reason { code: "development-build".to_owned(), message });
    }
    let mut judge = Judge {
        lens,
        aids,
        strictness,
        rows: Vec::new(),
        notices: Vec::new(),
        used: BTreeSet::new(),
    };
    for budget in budgets {
        judge.budget(budget).map_err(|source| GateError { budget: budget.name.clone(), source })?;
    }
    judge.waive().map_err(|(budget, source)| GateError { budget, source })?;
    let Judge { rows, notices, .. } = judge;
    Ok(Gate::of(reasons, rows, notices))
}

impl Gate {
    /// What rows and reasons come to.
    fn of(reasons: Vec<Reason>, mut budgets: Vec<BudgetRow>, notices: Vec<Notice>) -> Self {
        budgets.sort_by(|a, b| {
            let order = |row: &BudgetRow| (row.verdict, Reverse(row.over_by));
            let name = |row: &'_ BudgetRow| (row.app.clone(), row.name.clone(), row.item.clone());
            order(a)
                .cmp(&order(b))
                .then_with(|| name(a).cmp(&name(b)))
                .then(a.limit_kind.cmp(&b.limit_kind))
        });
        let any = |verdict| budgets.iter().any(|row| row.verdict == verdict);
        let verdict = if !reasons.is_empty() || any(Verdict::Broken) {
            Verdict::Broken
        } else if any(Verdict::Undecided) {
            Verdict::Undecided
        } else if budgets.iter().all(|row| row.verdict == Verdict::Unjudged) {
            Verdict::Unjudged
        } else {
            Verdict::Held
        };
        Self { verdict, reasons, budgets, notices }
    }

    /// The gates of several apps as one.
    #[must_use]
    pub fn join(apps: Vec<(String, Self)>) -> Self {
        let (mut reasons, mut rows, mut notices) = (Vec::new(), Vec::new(), Vec::new());
        for (app, gate) in apps {
            reasons.extend(
                gate.reasons.into_iter().map(|reason| Reason {
                    message: format!("{app}: {}", reason.message),
                    ..reason
                }),
            );
            let of_app = |row| BudgetRow { app: Some(app.clone()), ..row };
            rows.extend(gate.budgets.into_iter().map(of_app));
            notices.extend(gate.notices);
        }
        Self::of(reasons, rows, notices)
    }

    /// Every promise about a build that could not be read, which leaves it undecided.
    #[must_use]
    pub fn unread(budgets: &[Budget], why: &str) -> Self {
        let because = vec![Reason { code: "not-read".to_owned(), message: why.to_owned() }];
        let row = |budget: &Budget, limit_kind: LimitKind, allowed: Option<u64>| BudgetRow {
            allowed,
            because: because.clone(),
            verdict: Verdict::Undecided,
            ..budget.row(limit_kind, None)
        };
        let mut rows = Vec::new();
        for budget in budgets {
            rows.extend(judge::limits(budget).map(|(kind, limit)| row(budget, kind, limit)));
            rows.extend(budget.grow_at_most.map(|_| row(budget, LimitKind::GrowAtMost, None)));
        }
        Self::of(Vec::new(), rows, Vec::new())
    }
}

impl Budget {
    /// A row of it that says nothing yet.
    fn row(&self, limit_kind: LimitKind, item: Option<&str>) -> BudgetRow {
        BudgetRow {
            app: None,
            name: self.name.clone(),
            item: item.map(str::to_owned),
            selector: self.scope.text().to_owned(),
            place: self.place.clone(),
            limit_kind,
            measure: match limit_kind {
                LimitKind::FilesAtMost => Counted::Files,
                LimitKind::Absent => Counted::Bytes(Measure::Emitted),
                _ => Counted::Bytes(self.measure),
            },
            base: None,
            allowed: None,
            is: None,
            over_by: 0,
            least: 0,
            most: 0,
            verdict: Verdict::Unjudged,
            because: Vec::new(),
            heaviest: Vec::new(),
            grew: Vec::new(),
            sources: Vec::new(),
        }
    }
}
