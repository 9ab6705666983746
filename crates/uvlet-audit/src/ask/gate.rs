//! Holds budgets: what was promised, what is, and whose bytes make the difference.
//!
//! A limit is judged only as far as the build is known: it is broken if even the least that the
//! selection can weigh is over it, held if even the most is within, and undecided between.

pub mod bench;
pub mod budget;
mod growth;
mod judge;
pub mod limit;
pub mod reason;
pub mod remark;
pub mod starts;
pub mod verdict;
mod waits;
pub mod waiver;
mod waivers;

use std::collections::BTreeSet;

use uvlet_record::Mode;

use crate::{
    ask::gate::{
        bench::{Aids, Judge},
        budget::{Budget, Strictness},
        reason::Reason,
        verdict::{Gate, GateReason},
    },
    lens::Lens,
    select::selector::SelectorError,
};

/// A budget whose selector cannot be evaluated.
#[derive(Debug)]
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
        reasons.push(Reason::DevelopmentBuild(record.mode_evidence.first().cloned()));
    }
    let mut judge = Judge {
        lens,
        aids,
        strictness,
        rows: Vec::new(),
        remarks: Vec::new(),
        used: BTreeSet::new(),
    };
    for budget in budgets {
        judge.budget(budget).map_err(|source| GateError { budget: budget.name.clone(), source })?;
    }
    judge.waive().map_err(|(budget, source)| GateError { budget, source })?;
    let Judge { rows, remarks, .. } = judge;
    Ok(Gate::of(reasons.into_iter().map(GateReason::alone).collect(), rows, remarks))
}
