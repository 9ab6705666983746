//! The gate with its reasons in words.

use serde::Serialize;
use uvlet_audit::ask::gate::{
    self,
    limit::{Counted, LimitKind},
    verdict::{Grew, Heavy, Verdict},
};

use crate::words::reasons::{of_gate, sentence};

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Gate<'a> {
    /// `broken` if any budget is, or if anything else breaks it.
    verdict: Verdict,
    /// What breaks it besides budgets.
    reasons: Vec<Reason>,
    /// One row per item and limit: broken first, then undecided, warned, waived, unjudged, held.
    budgets: Vec<BudgetRow<'a>>,
}

/// What breaks a gate, or leaves a limit undecided.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Reason {
    /// A stable word.
    code: &'static str,
    /// One sentence.
    message: String,
}

/// One limit of one item.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct BudgetRow<'a> {
    /// The app, where there are several.
    app: Option<&'a str>,
    /// The budget.
    name: &'a str,
    /// The match of an `each`.
    item: Option<&'a str>,
    /// The selector as written.
    selector: &'a str,
    /// Which limit.
    limit_kind: LimitKind,
    /// What the numbers count.
    measure: Counted,
    /// The same in the build that it is held against.
    base: Option<u64>,
    /// The limit.
    allowed: Option<u64>,
    /// What there is; unknown where that decides nothing.
    is: Option<u64>,
    /// How much is beyond the limit; 0 if held.
    over_by: u64,
    /// What there is at least.
    least: u64,
    /// What there is at most, as far as can be told.
    most: u64,
    /// How it stands.
    verdict: Verdict,
    /// Why it is undecided, unjudged or waived; of what is banned, what brings it in.
    because: Vec<Reason>,
    /// The heaviest contributors, at most five.
    heaviest: &'a [Heavy],
    /// Of what grew too much, what did most, at most three.
    grew: &'a [Grew],
}

impl<'a> From<&'a gate::verdict::Gate> for Gate<'a> {
    fn from(gate: &'a gate::verdict::Gate) -> Self {
        let reasons = gate.reasons.iter();
        Self {
            verdict: gate.verdict,
            reasons: reasons
                .map(|one| Reason { code: one.reason.code(), message: of_gate(one) })
                .collect(),
            budgets: gate.budgets.iter().map(BudgetRow::from).collect(),
        }
    }
}

impl<'a> From<&'a gate::verdict::BudgetRow> for BudgetRow<'a> {
    fn from(row: &'a gate::verdict::BudgetRow) -> Self {
        let because = row.because.iter();
        Self {
            app: row.app.as_deref(),
            name: &row.name,
            item: row.item.as_deref(),
            selector: &row.selector,
            limit_kind: row.limit_kind,
            measure: row.measure,
            base: row.base,
            allowed: row.allowed,
            is: row.is,
            over_by: row.over_by,
            least: row.least,
            most: row.most,
            verdict: row.verdict,
            because: because
                .map(|reason| Reason { code: reason.code(), message: sentence(reason) })
                .collect(),
            heaviest: &row.heaviest,
            grew: &row.grew,
        }
    }
}
