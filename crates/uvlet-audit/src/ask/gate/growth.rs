//! Growth against the build before.
//!
//! What is known of both builds only within bounds grew by anything between the least now less the most
//! before, and the most now less the least before. What nobody owns in files that are the same in both
//! cancels.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Owner, sizes::Measure};

use crate::{
    ask::{
        attribute::{By, Sort, attribute},
        gate::{
            bench::{Judge, Unwaived},
            budget::{Budget, Scope},
            limit::{Ceiling, LimitKind},
            reason::Reason,
            verdict::{BudgetRow, Grew, Verdict},
        },
    },
    lens::{Bounds, Estimates, Lens},
    parts::{cells::CellSet, sets::Sets},
    select::{
        evaluate,
        selection::{Item, Selection},
        selector::SelectorError,
    },
};

/// What grew that is named.
const NAMED: usize = 3;

/// What there was; `is_new` where the build before has nothing of that name.
struct Earlier {
    sets: Sets,
    is_new: bool,
}

impl Judge<'_, '_> {
    /// Judges how much a selection, or an item of one, grew.
    pub(crate) fn grow(
        &mut self,
        budget: &Budget,
        item: Option<&str>,
        sets: &Sets,
    ) -> Result<(), SelectorError> {
        let Some(growth) = budget.limits.get(&LimitKind::GrowAtMost) else { return Ok(()) };
        let mut row = budget.row(LimitKind::GrowAtMost, item);
        let Some(base) = self.aids.base else {
            // Of every item the same would be said.
            let is_said = |known: &BudgetRow| {
                known.name == row.name && known.limit_kind == LimitKind::GrowAtMost
            };
            if self.rows.iter().any(is_said) {
                return Ok(());
            }
            row.item = None;
            row.because.push(Reason::NoBase);
            self.rows.push(row);
            return Ok(());
        };
        let earlier = self.earlier(budget, item, base)?;
        let estimates = match self.strictness.allow_estimated {
            true => Estimates::AreTaken,
            false => Estimates::AreDoubted,
        };
        let measure = budget.measure;
        let same = same_files(base, self.lens);
        let now = bounds(self.lens, &sets.least, &sets.most, measure, estimates, &same);
        let then = bounds(base, &earlier.sets.least, &earlier.sets.most, measure, estimates, &same);
        let is = self.lens.amount(&sets.cells).bytes(measure);
        let was = base.amount(&earlier.sets.cells).bytes(measure);
        (row.is, row.base) = (Some(is), Some(was));
        (row.least, row.most) = (now.least, now.most);
        let limit = match growth {
            Ceiling::Milli(_) if earlier.is_new || was == 0 => {
                row.because.push(Reason::New { of_percentage: true });
                self.rows.push(row);
                return Ok(());
            }
            _ => growth.of(was),
        };
        let allowed = was.saturating_add(limit);
        row.allowed = Some(allowed);
        let (grew_least, grew_most) = (
            i128::from(now.least) - i128::from(then.most),
            i128::from(now.most) - i128::from(then.least),
        );
        row.verdict = if grew_least > i128::from(limit) {
            row.over_by = is.saturating_sub(allowed);
            if earlier.is_new {
                row.because.push(Reason::New { of_percentage: false });
            }
            row.grew = grown(self.lens, &sets.cells, base, &earlier.sets.cells, measure);
            Verdict::Broken
        } else if grew_most <= i128::from(limit) {
            Verdict::Met
        } else {
            row.because.push(Reason::GrewBetween { least: grew_least, most: grew_most });
            Verdict::Undecided
        };
        self.rows.push(row);
        Ok(())
    }

    fn earlier(
        &mut self,
        budget: &Budget,
        item: Option<&str>,
        base: &Lens<'_>,
    ) -> Result<Earlier, SelectorError> {
        Ok(match &budget.scope {
            Scope::Total(selector) | Scope::Absent(selector) => {
                let found = evaluate::select(selector, base)?;
                let is_new = found.missing.iter().any(|missing| missing.set.is_of_files());
                let Selection { cells, least, most, .. } = found;
                Earlier { sets: Sets { cells, least, most }, is_new }
            }
            Scope::Each(selector) => {
                let (items, _) = evaluate::items(selector, base)?;
                let known = items.into_iter().find(|known| Some(known.name.as_str()) == item);
                match known {
                    Some(Item { sets, .. }) => Earlier { sets, is_new: false },
                    None => Earlier { sets: Sets::default(), is_new: true },
                }
            }
            Scope::Waste(kind) => {
                let texts = self.aids.texts_of_base;
                let Unwaived { cells, .. } = self.unwaived(base, texts, *kind, budget.measure);
                Earlier { sets: Sets::certain(cells), is_new: false }
            }
        })
    }
}

/// Digests of files that both builds have.
fn same_files(before: &Lens<'_>, after: &Lens<'_>) -> BTreeSet<String> {
    let digests = |lens: &Lens<'_>| -> BTreeSet<String> {
        lens.record.files.iter().map(|file| file.digest.clone()).collect()
    };
    digests(before).intersection(&digests(after)).cloned().collect()
}

fn bounds(
    lens: &Lens<'_>,
    least: &CellSet,
    most: &CellSet,
    measure: Measure,
    estimates: Estimates,
    same: &BTreeSet<String>,
) -> Bounds {
    let record = lens.record;
    let most: CellSet = most
        .iter()
        .filter(|id| {
            let cell = &record.cells[id.at()];
            let cancels = cell.owner == Owner::Unattributed
                && !least.has(*id)
                && same.contains(&record.file(cell.file).digest);
            !cancels
        })
        .collect();
    lens.bounds(least, &most, measure, estimates)
}

/// What grew most, by package.
fn grown(
    after: &Lens<'_>,
    cells: &CellSet,
    before: &Lens<'_>,
    earlier: &CellSet,
    measure: Measure,
) -> Vec<Grew> {
    let sizes = |lens: &Lens<'_>, cells: &CellSet| {
        let mut sizes: BTreeMap<String, u64> = BTreeMap::new();
        for row in attribute(lens, By::Package, cells, None, Sort::Name).rows {
            *sizes.entry(row.name).or_default() += row.sizes.get(measure);
        }
        sizes
    };
    let (old, new) = (sizes(before, earlier), sizes(after, cells));
    let mut grown: Vec<Grew> = new
        .into_iter()
        .map(|(name, bytes)| {
            let by = bytes.saturating_sub(old.get(&name).copied().unwrap_or(0));
            Grew { name, by }
        })
        .filter(|grew| grew.by > 0)
        .collect();
    grown.sort_by(|a, b| b.by.cmp(&a.by).then_with(|| a.name.cmp(&b.name)));
    grown.truncate(NAMED);
    grown
}
