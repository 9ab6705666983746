//! Lets exceptions stand on the rows of a gate, and takes what they accept out of findings.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Texts, sizes::Measure};

use crate::{
    ask::gate::{
        bench::{Judge, Unwaived},
        reason::Reason,
        remark::GateRemark,
        verdict::{BudgetRow, Verdict},
        waiver::About,
    },
    find::{
        kind::Kind,
        waste::{Aids, Wanted, waste},
    },
    lens::Lens,
    select::{evaluate, selection::Missing, selector::SelectorError},
};

impl Judge<'_, '_> {
    /// Finds what of a kind no exception takes.
    pub(crate) fn unwaived(
        &mut self,
        lens: &Lens<'_>,
        texts: &dyn Texts,
        kind: Kind,
        measure: Measure,
    ) -> Unwaived {
        let (waivers, today) = (self.aids.waivers, self.aids.today);
        let mut reasons = Vec::new();
        let mut left = Vec::new();
        let mut over = 0;
        let wanted = Wanted { kinds: vec![kind], ..Wanted::default() };
        let (costs, languages) = (self.aids.costs, self.aids.languages);
        let mut found = waste(lens, Aids { texts, costs, languages, ran: None }, &wanted, measure);
        for finding in std::mem::take(&mut found.findings) {
            let about: Vec<usize> = (0..waivers.len())
                .filter(|&at| matches!(&waivers[at].about, About::Finding(id) if *id == finding.id))
                .collect();
            self.used.extend(&about);
            let is = finding.recoverable.get(measure);
            let takes = |at: &usize| {
                !waivers[*at].has_ended(today)
                    && waivers[*at].at_most().is_none_or(|most| is <= most)
            };
            let Some(&at) = about.iter().find(|at| takes(at)).or(about.first()) else {
                left.push(finding);
                continue;
            };
            let waiver = &waivers[at];
            let ceiling = waiver.at_most().unwrap_or(u64::MAX);
            if waiver.has_ended(today) {
                reasons.push(waiver.ended());
                left.push(finding);
            } else if is > ceiling {
                let id = finding.id.clone();
                reasons.push(Reason::FindingOverWaiver { id, is, ceiling });
                // What exceeds the ceiling counts, and no more.
                over += is - ceiling;
            } else {
                reasons.push(waiver.accepts(Some(finding.id.clone()), today));
            }
        }
        let (cells, besides) = found.together(lens, &left);
        let besides = besides.bytes(measure) + over;
        Unwaived { cells, besides, reasons, judged: found.judged }
    }

    /// Lets the exceptions of budgets stand, and says which were of no use.
    pub(crate) fn waive(&mut self) -> Result<(), (String, SelectorError)> {
        let (waivers, today) = (self.aids.waivers, self.aids.today);
        let mut lacks: BTreeMap<usize, Missing> = BTreeMap::new();
        for (at, waiver) in waivers.iter().enumerate() {
            let About::Budget { name, within } = &waiver.about else { continue };
            let items: Option<BTreeSet<String>> = match within {
                None => None,
                Some(selector) => {
                    let found = evaluate::items(selector, self.lens);
                    let (items, found) = found.map_err(|error| (name.clone(), error))?;
                    lacks.extend(found.missing.into_iter().next().map(|missing| (at, missing)));
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
                    && row
                        .because
                        .iter()
                        .all(|reason| !matches!(reason, Reason::NameMissing { .. }));
                if row.verdict != Verdict::Broken && !is_open {
                    continue;
                }
                self.used.insert(at);
                if waiver.has_ended(today) {
                    row.because.push(waiver.ended());
                } else if row.most <= ceiling {
                    row.verdict = Verdict::Waived;
                    row.because = vec![waiver.accepts(None, today)];
                } else if row.verdict == Verdict::Broken {
                    if row.least > ceiling {
                        row.over_by = row.is.unwrap_or(row.least).max(row.least) - ceiling;
                        row.allowed = Some(ceiling);
                        row.because.push(Reason::OverWaiver);
                    } else {
                        row.verdict = Verdict::Undecided;
                        row.because.push(Reason::WaiverUndecided);
                    }
                }
            }
        }
        for (at, waiver) in waivers.iter().enumerate() {
            if !self.used.contains(&at) {
                let (about, missing) = (waiver.name(), lacks.remove(&at));
                self.remarks.push(GateRemark::WaiverUnused { about, missing });
            }
        }
        Ok(())
    }
}
