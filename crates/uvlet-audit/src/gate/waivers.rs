//! Exceptions: what is over a limit and accepted, up to a ceiling and until a day.

use std::collections::BTreeSet;

use jiff::{Unit, civil::Date};
use uvlet_record::{Notice, Remark, Texts, sizes::Measure};

use super::{BudgetRow, Growth, LimitKind, Reason, Verdict, judge::Judge};
use crate::{
    lens::{CellSet, Lens},
    selector::{self, Selector, SelectorError},
    waste::{self, Accepted, Finding, Judged, Wanted, waste},
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

    fn has_ended(&self, today: Date) -> bool {
        today > self.until
    }

    /// `until 2027-03-31 (124 days left): the chart needs its atlas`.
    fn said(&self, today: Date) -> String {
        let days = today.until((Unit::Day, self.until)).map_or(0, |span| span.get_days());
        let left = match days {
            0 => "its last day".to_owned(),
            1 => "1 day left".to_owned(),
            days => format!("{days} days left"),
        };
        format!("until {} ({left}): {}", self.until, self.reason)
    }

    fn ended(&self) -> Reason {
        let message = format!("the waiver of {} ended on {}", self.name(), self.until);
        Reason { code: "waiver-ended".to_owned(), message }
    }

    /// The ceiling of a limit, in bytes.
    fn ceiling(&self, row: &BudgetRow) -> Option<u64> {
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

/// What the findings of a kind that no exception takes come to together in a build.
pub(super) struct Unwaived {
    pub cells: CellSet,
    /// Bytes of what is less than a cell.
    pub besides: u64,
    /// What is to be said of the others.
    pub reasons: Vec<Reason>,
    /// What could be judged.
    pub judged: Vec<Judged>,
}

impl Judge<'_, '_> {
    /// Finds what of a kind no exception takes.
    pub(super) fn unwaived(
        &mut self,
        lens: &Lens<'_>,
        texts: &dyn Texts,
        kind: waste::Kind,
        measure: Measure,
    ) -> Unwaived {
        let (waivers, today) = (self.aids.waivers, self.aids.today);
        let mut reasons = Vec::new();
        let mut left = Vec::new();
        let mut over = 0;
        let wanted = Wanted { kinds: vec![kind], ..Wanted::default() };
        let (costs, languages) = (self.aids.costs, self.aids.languages);
        let mut found =
            waste(lens, waste::Aids { texts, costs, languages, ran: None }, &wanted, measure);
        for finding in std::mem::take(&mut found.findings) {
            let about: Vec<usize> = (0..waivers.len())
                .filter(|&at| matches!(&waivers[at].about, About::Finding(id) if *id == finding.id))
                .collect();
            self.used.extend(&about);
            let is = finding.recoverable.get(measure);
            let takes = |at: &usize| {
                !waivers[*at].has_ended(today) && waivers[*at].at_most.is_none_or(|most| is <= most)
            };
            let Some(&at) = about.iter().find(|at| takes(at)).or(about.first()) else {
                left.push(finding);
                continue;
            };
            let waiver = &waivers[at];
            let ceiling = waiver.at_most.unwrap_or(u64::MAX);
            if waiver.has_ended(today) {
                reasons.push(waiver.ended());
                left.push(finding);
            } else if is > ceiling {
                let message = format!(
                    "of {} there are {is} B, over the {ceiling} B of its waiver",
                    finding.id
                );
                reasons.push(Reason { code: "over-waiver".to_owned(), message });
                // What exceeds the ceiling counts, and no more.
                over += is - ceiling;
            } else {
                let message = format!("without {}, waived {}", finding.id, waiver.said(today));
                reasons.push(Reason { code: "waived".to_owned(), message });
            }
        }
        let (cells, besides) = found.together(lens, &left);
        let besides = besides.bytes(measure) + over;
        Unwaived { cells, besides, reasons, judged: found.judged }
    }

    /// Lets the exceptions of budgets stand, and says which were of no use.
    pub(super) fn waive(&mut self) -> Result<(), (String, SelectorError)> {
        let (waivers, today) = (self.aids.waivers, self.aids.today);
        for (at, waiver) in waivers.iter().enumerate() {
            let About::Budget { name, within } = &waiver.about else { continue };
            let items: Option<BTreeSet<String>> = match within {
                None => None,
                Some(selector) => {
                    let found = selector::items(selector, self.lens);
                    let (items, _) = found.map_err(|error| (name.clone(), error))?;
                    Some(items.into_iter().map(|item| item.name).collect())
                }
            };
            let is_meant = |row: &BudgetRow| {
                let item = row.item.as_ref();
                row.name == *name
                    && items.as_ref().is_none_or(|items| item.is_some_and(|it| items.contains(it)))
            };
            for row in self.rows.iter_mut().filter(|row| is_meant(row)) {
                let Some(ceiling) = waiver.ceiling(row) else { continue };
                // What a name that is not there would weigh is not known.
                let is_open = row.verdict == Verdict::Undecided
                    && row.because.iter().all(|reason| reason.code != "name-missing");
                if row.verdict != Verdict::Broken && !is_open {
                    continue;
                }
                self.used.insert(at);
                if waiver.has_ended(today) {
                    row.because.push(waiver.ended());
                } else if row.most <= ceiling {
                    row.verdict = Verdict::Waived;
                    let message = waiver.said(today);
                    row.because = vec![Reason { code: "waived".to_owned(), message }];
                } else if row.verdict == Verdict::Broken {
                    if row.least > ceiling {
                        row.over_by = row.is.unwrap_or(row.least).max(row.least) - ceiling;
                        row.allowed = Some(ceiling);
                        let message = "even its waiver ends there".to_owned();
                        row.because.push(Reason { code: "over-waiver".to_owned(), message });
                    } else {
                        row.verdict = Verdict::Undecided;
                        let message = "its waiver may hold, or may not".to_owned();
                        row.because.push(Reason { code: "waiver-undecided".to_owned(), message });
                    }
                }
            }
        }
        for (at, waiver) in waivers.iter().enumerate() {
            if !self.used.contains(&at) {
                let remark = Remark::WaiverUnused { about: waiver.name() };
                self.notices.push(Notice::of_build(remark));
            }
        }
        Ok(())
    }
}
