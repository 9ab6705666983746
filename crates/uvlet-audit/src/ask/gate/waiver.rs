//! Exceptions: what is over a limit and accepted, up to a ceiling and until a day.

use jiff::{Unit, civil::Date};
use uvlet_record::sizes::Measure;

use crate::{
    ask::gate::{
        limit::{LimitKind, Limits, Written},
        reason::Reason,
        verdict::BudgetRow,
    },
    find::finding::{Accepted, Finding},
    select::selector::Selector,
};

/// An exception.
#[derive(Clone, Debug)]
pub struct Waiver {
    /// What it is about.
    pub about: About,
    /// The ceilings; that of `at_most` is also the one of what a finding could save.
    pub limits: Limits,
    /// Why it is accepted.
    pub reason: String,
    /// The last day that it holds, in UTC.
    pub until: Date,
}

/// What an exception is about.
#[derive(Clone, Debug)]
pub enum About {
    /// A budget, or those of its items that a selector names.
    Budget {
        /// The budget.
        name: String,
        /// The items of an `each`; all without one.
        within: Option<Selector>,
    },
    /// A finding, by its id.
    Finding(String),
}

impl Waiver {
    /// What it is called in sentences.
    #[must_use]
    pub fn name(&self) -> String {
        match &self.about {
            About::Finding(id) => id.clone(),
            About::Budget { name, within: None } => name.clone(),
            About::Budget { name, within: Some(within) } => format!("{name} {}", within.text()),
        }
    }

    /// The ceiling of what a finding could save, in bytes.
    pub(crate) fn at_most(&self) -> Option<u64> {
        Some(self.limits.get(&LimitKind::AtMost)?.of(0))
    }

    pub(crate) fn has_ended(&self, today: Date) -> bool {
        today > self.until
    }

    /// It accepts something on a day.
    pub(crate) fn accepts(&self, finding: Option<String>, today: Date) -> Reason {
        let days_left = today.until((Unit::Day, self.until)).map_or(0, |span| span.get_days());
        Reason::Waived { finding, until: self.until, days_left, reason: self.reason.clone() }
    }

    pub(crate) fn ended(&self) -> Reason {
        Reason::WaiverEnded { waiver: self.name(), until: self.until }
    }

    /// The ceiling of a limit, in bytes.
    pub(crate) fn ceiling(&self, row: &BudgetRow) -> Option<u64> {
        let ceiling = self.limits.get(&row.limit_kind)?;
        match row.limit_kind.written() {
            Written::Growth => {
                let base = row.base?;
                Some(base.saturating_add(ceiling.of(base)))
            }
            _ => Some(ceiling.of(0)),
        }
    }
}

/// Marks findings that waivers accept on a day.
pub fn accept(findings: &mut [Finding], waivers: &[Waiver], today: Date, measure: Measure) {
    for finding in findings {
        let is = finding.recoverable.get(measure);
        let accepting = waivers.iter().find(|waiver| {
            matches!(&waiver.about, About::Finding(id) if *id == finding.id)
                && !waiver.has_ended(today)
                && waiver.at_most().is_none_or(|most| is <= most)
        });
        finding.waived = accepting.map(|waiver| Accepted {
            until: waiver.until.to_string(),
            reason: waiver.reason.clone(),
        });
    }
}
