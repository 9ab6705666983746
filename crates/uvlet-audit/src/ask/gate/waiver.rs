//! Exceptions: what is over a limit and accepted, up to a ceiling and until a day.

use jiff::{Unit, civil::Date};
use uvlet_record::sizes::Measure;

use crate::{
    ask::gate::{
        limit::{Growth, LimitKind},
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
    /// Ceiling of an `at_most`, or of what a finding could save.
    pub at_most: Option<u64>,
    /// Ceiling of a `files_at_most`.
    pub files_at_most: Option<u64>,
    /// Ceiling of a `grow_at_most`.
    pub grow_at_most: Option<Growth>,
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
        match row.limit_kind {
            LimitKind::AtMost => self.at_most,
            LimitKind::GrowAtMost => {
                let base = row.base?;
                Some(base.saturating_add(self.grow_at_most?.bytes_of(base)))
            }
            LimitKind::FilesAtMost => self.files_at_most,
            LimitKind::WarnAbove | LimitKind::Absent => None,
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
                && waiver.at_most.is_none_or(|most| is <= most)
        });
        finding.waived = accepting.map(|waiver| Accepted {
            until: waiver.until.to_string(),
            reason: waiver.reason.clone(),
        });
    }
}
