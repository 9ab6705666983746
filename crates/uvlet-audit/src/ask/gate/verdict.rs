//! How budgets stand: the rows of a gate, and what they come to.

use std::cmp::Reverse;

use serde::Serialize;
use uvlet_record::sizes::{Measure, Sizes};

use crate::ask::{
    attribute::RowKind,
    gate::{
        budget::{self, Budget, Place},
        limit::{Counted, LimitKind},
        reason::Reason,
        remark::GateRemark,
    },
};

/// The answer.
#[derive(Debug)]
pub struct Gate {
    /// `broken` if any budget is, or if anything else breaks it.
    pub verdict: Verdict,
    /// What breaks it besides budgets.
    pub reasons: Vec<GateReason>,
    /// One row per item and limit: broken first, then undecided, warned, waived, unjudged, held.
    pub budgets: Vec<BudgetRow>,
    /// What should be known of how budgets were understood.
    pub remarks: Vec<GateRemark>,
}

/// What breaks a gate besides budgets.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct GateReason {
    /// The app, where there are several.
    pub app: Option<String>,
    /// The reason.
    pub reason: Reason,
}

impl GateReason {
    pub(crate) fn alone(reason: Reason) -> Self {
        Self { app: None, reason }
    }
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
    Met,
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
            Self::Met => "met",
        }
    }
}

/// One limit of one item.
#[derive(Debug)]
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

impl Gate {
    /// What rows and reasons come to.
    pub(crate) fn of(
        reasons: Vec<GateReason>,
        mut budgets: Vec<BudgetRow>,
        remarks: Vec<GateRemark>,
    ) -> Self {
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
            Verdict::Met
        };
        Self { verdict, reasons, budgets, remarks }
    }

    /// The gates of several apps as one.
    #[must_use]
    pub fn join(apps: Vec<(String, Self)>) -> Self {
        let (mut reasons, mut rows, mut remarks) = (Vec::new(), Vec::new(), Vec::new());
        for (app, gate) in apps {
            reasons.extend(
                gate.reasons.into_iter().map(|one| GateReason { app: Some(app.clone()), ..one }),
            );
            let of_app = |row| BudgetRow { app: Some(app.clone()), ..row };
            rows.extend(gate.budgets.into_iter().map(of_app));
            remarks.extend(gate.remarks);
        }
        Self::of(reasons, rows, remarks)
    }

    /// Every promise about a build that could not be read, which leaves it undecided.
    #[must_use]
    pub fn unread(budgets: &[Budget], why: &str) -> Self {
        let because = vec![Reason::NotRead(why.to_owned())];
        let row = |budget: &Budget, limit_kind: LimitKind, allowed: Option<u64>| BudgetRow {
            allowed,
            because: because.clone(),
            verdict: Verdict::Undecided,
            ..budget.row(limit_kind, None)
        };
        let mut rows = Vec::new();
        for budget in budgets {
            rows.extend(budget::limits(budget).map(|(kind, limit)| row(budget, kind, limit)));
            rows.extend(
                budget
                    .limits
                    .get(&LimitKind::GrowAtMost)
                    .map(|_| row(budget, LimitKind::GrowAtMost, None)),
            );
        }
        Self::of(Vec::new(), rows, Vec::new())
    }
}

impl Budget {
    /// A row of it that says nothing yet.
    pub(crate) fn row(&self, limit_kind: LimitKind, item: Option<&str>) -> BudgetRow {
        BudgetRow {
            app: None,
            name: self.name.clone(),
            item: item.map(str::to_owned),
            selector: self.scope.text().to_owned(),
            place: self.place.clone(),
            limit_kind,
            measure: match limit_kind {
                LimitKind::FilesAtMost => Counted::Files,
                LimitKind::RoundsAtMost => Counted::Rounds,
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
