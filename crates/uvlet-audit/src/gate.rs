//! Holds budgets: what was promised, what is, and whose bytes make the difference.
//!
//! A limit is judged only as far as the build is known: it is broken if even the least that the
//! selection can weigh is over it, held if even the most is within, and undecided between.

mod growth;
mod judge;
mod waivers;

use std::{borrow::Cow, collections::BTreeSet};

use jiff::civil::Date;
use schemars::{JsonSchema, Schema, SchemaGenerator, json_schema};
use serde::Serialize;
use uvlet_record::{
    Mode, Notice, Texts,
    sizes::{Measure, Sizes},
};

use judge::Judge;
pub use waivers::{About, Waiver};

use crate::{
    attribute::RowKind,
    lens::Lens,
    selector::{Selector, SelectorError},
    waste,
};

/// A promise about a set of bytes.
#[derive(Clone, Debug)]
pub struct Budget {
    /// Its name.
    pub name: String,
    /// What it is about.
    pub scope: Scope,
    /// Where that stands in the file of settings: line and column, from 1.
    pub place: (usize, usize),
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
#[derive(Clone, Copy, Debug, Default)]
pub struct Strictness {
    /// A development build is taken.
    pub allow_development: bool,
    /// Estimates are taken as they stand.
    pub allow_estimated: bool,
    /// Bytes that nobody owns and that are not held against a budget.
    pub allow_unattributed: u64,
}

/// The answer.
#[derive(Debug, Serialize, JsonSchema)]
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
#[derive(Clone, Debug, PartialEq, Eq, Serialize, JsonSchema)]
pub struct Reason {
    /// A stable word.
    pub code: String,
    /// One sentence.
    pub message: String,
}

/// How it stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, JsonSchema)]
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
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, JsonSchema)]
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

impl JsonSchema for Counted {
    fn schema_name() -> Cow<'static, str> {
        "Counted".into()
    }

    fn json_schema(_: &mut SchemaGenerator) -> Schema {
        let names = Measure::ALL.map(Self::Bytes).into_iter().chain([Self::Files]).map(Self::name);
        json_schema!({"type": "string", "enum": names.collect::<Vec<_>>()})
    }
}

/// One limit of one item.
#[derive(Debug, Serialize, JsonSchema)]
pub struct BudgetRow {
    /// The app, where there are several.
    pub app: Option<String>,
    /// The budget.
    pub name: String,
    /// The match of an `each`.
    pub item: Option<String>,
    /// The selector as written.
    pub selector: String,
    /// Where that stands in the file of settings: line and column, from 1.
    #[serde(skip)]
    pub place: (usize, usize),
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
}

/// Something that grew since the build before.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, JsonSchema)]
pub struct Grew {
    /// Package, or `(own)` and the like.
    pub name: String,
    /// By so many bytes of the row's measure.
    pub by: u64,
}

/// One contributor.
#[derive(Clone, Debug, Serialize, JsonSchema)]
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
    let Judge { mut rows, notices, .. } = judge;
    rows.sort_by(|a, b| {
        (a.verdict, std::cmp::Reverse(a.over_by), &a.name, &a.item, a.limit_kind).cmp(&(
            b.verdict,
            std::cmp::Reverse(b.over_by),
            &b.name,
            &b.item,
            b.limit_kind,
        ))
    });
    let any = |verdict| rows.iter().any(|row| row.verdict == verdict);
    let verdict = if !reasons.is_empty() || any(Verdict::Broken) {
        Verdict::Broken
    } else if any(Verdict::Undecided) {
        Verdict::Undecided
    } else if rows.iter().all(|row| row.verdict == Verdict::Unjudged) {
        Verdict::Unjudged
    } else {
        Verdict::Held
    };
    Ok(Gate { verdict, reasons, budgets: rows, notices })
}
