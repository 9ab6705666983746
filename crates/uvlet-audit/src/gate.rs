//! Holds budgets: what was promised, what is, and whose bytes make the difference.

use schemars::JsonSchema;
use serde::Serialize;
use uvlet_record::{
    Mode,
    sizes::{Measure, Sizes},
};

use crate::{
    attribute::{By, Sort, attribute},
    lens::{CellSet, Lens},
    selector::{self, Selector, SelectorError},
};

/// A promise about a set of bytes.
#[derive(Clone, Debug)]
pub struct Budget {
    /// Its name.
    pub name: String,
    /// What it is about.
    pub scope: Scope,
    /// Bytes that must not be exceeded.
    pub at_most: Option<u64>,
    /// Bytes above which it is near its limit.
    pub warn_above: Option<u64>,
    /// What the bytes are counted in.
    pub measure: Measure,
}

/// What a budget is about.
#[derive(Clone, Debug)]
pub enum Scope {
    /// The selection as a whole, each byte once.
    Total(Selector),
    /// Each match of the selector's first set on its own.
    Each(Selector),
}

/// The answer.
#[derive(Debug, Serialize, JsonSchema)]
pub struct Gate {
    /// `broken` if any budget is, or if anything else breaks it.
    pub verdict: Verdict,
    /// What breaks it besides budgets.
    pub reasons: Vec<Reason>,
    /// One row per item and limit: broken first, then near, then held.
    pub budgets: Vec<BudgetRow>,
    /// Names in budgets that the build does not have.
    #[serde(skip)]
    pub unmatched: Vec<(String, String)>,
}

/// What breaks a gate besides budgets.
#[derive(Debug, Serialize, JsonSchema)]
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
    /// A warning limit is exceeded.
    Warned,
    /// Within its limits.
    Held,
}

impl Verdict {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Broken => "broken",
            Self::Warned => "warned",
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
}

impl LimitKind {
    /// The key of the configuration.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::AtMost => "at_most",
            Self::WarnAbove => "warn_above",
        }
    }
}

/// One limit of one item.
#[derive(Debug, Serialize, JsonSchema)]
pub struct BudgetRow {
    /// The budget.
    pub name: String,
    /// The match of an `each`.
    pub item: Option<String>,
    /// The selector as written.
    pub selector: String,
    /// Which limit.
    pub limit_kind: LimitKind,
    /// What the numbers count.
    pub measure: String,
    /// The limit in bytes.
    pub allowed: u64,
    /// What there is, in bytes.
    pub is: u64,
    /// Bytes beyond the limit; 0 if held.
    pub over_by: u64,
    /// How it stands.
    pub verdict: Verdict,
    /// The heaviest contributors, at most five.
    pub heaviest: Vec<Heavy>,
}

/// One contributor.
#[derive(Clone, Debug, Serialize, JsonSchema)]
pub struct Heavy {
    /// Package, or `(own)` and the like.
    pub name: String,
    /// What it has in the selection.
    pub sizes: Sizes,
}

/// Contributors that are named.
const HEAVIEST: usize = 5;

/// A budget whose selector means nothing in this build.
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
/// When a selector names an entry, chunk or file that does not exist.
pub fn gate(
    lens: &Lens<'_>,
    budgets: &[Budget],
    allow_development: bool,
) -> Result<Gate, GateError> {
    let record = lens.record;
    let mut reasons = Vec::new();
    if record.mode == Mode::Development && !allow_development {
        let evidence = record.mode_evidence.first().map_or("", String::as_str);
        let message = format!(
            "this is a development build ({evidence}); its sizes are not what visitors get"
        );
        reasons.push(Reason { code: "development-build".to_owned(), message });
    }
    let mut rows = Vec::new();
    let mut unmatched = Vec::new();
    for budget in budgets {
        let wrong = |source| GateError { budget: budget.name.clone(), source };
        match &budget.scope {
            Scope::Total(selector) => {
                let found = selector::select(selector, lens).map_err(wrong)?;
                unmatched
                    .extend(found.unmatched.into_iter().map(|name| (budget.name.clone(), name)));
                hold(lens, budget, selector, None, &found.cells, &mut rows);
            }
            Scope::Each(selector) => {
                for item in selector::items(selector, lens).map_err(wrong)? {
                    hold(lens, budget, selector, Some(item.name), &item.cells, &mut rows);
                }
            }
        }
    }
    rows.sort_by(|a, b| {
        (a.verdict, std::cmp::Reverse(a.over_by), &a.name, &a.item, a.limit_kind).cmp(&(
            b.verdict,
            std::cmp::Reverse(b.over_by),
            &b.name,
            &b.item,
            b.limit_kind,
        ))
    });
    let broken = !reasons.is_empty() || rows.iter().any(|row| row.verdict == Verdict::Broken);
    let verdict = if broken { Verdict::Broken } else { Verdict::Held };
    Ok(Gate { verdict, reasons, budgets: rows, unmatched })
}

fn hold(
    lens: &Lens<'_>,
    budget: &Budget,
    selector: &Selector,
    item: Option<String>,
    cells: &CellSet,
    rows: &mut Vec<BudgetRow>,
) {
    let is = lens.amount(cells).bytes(budget.measure);
    let limits = [
        (LimitKind::AtMost, budget.at_most, Verdict::Broken),
        (LimitKind::WarnAbove, budget.warn_above, Verdict::Warned),
    ];
    let heaviest: Vec<Heavy> =
        attribute(lens, By::Package, cells, None, Sort::Heaviest(budget.measure))
            .rows
            .into_iter()
            .take(HEAVIEST)
            .map(|row| Heavy { name: row.name, sizes: row.sizes })
            .collect();
    for (limit_kind, allowed, exceeded) in limits {
        let Some(allowed) = allowed else { continue };
        let over_by = is.saturating_sub(allowed);
        rows.push(BudgetRow {
            name: budget.name.clone(),
            item: item.clone(),
            selector: selector.text().to_owned(),
            limit_kind,
            measure: budget.measure.to_string(),
            allowed,
            is,
            over_by,
            verdict: if over_by > 0 { exceeded } else { Verdict::Held },
            heaviest: heaviest.clone(),
        });
    }
}
