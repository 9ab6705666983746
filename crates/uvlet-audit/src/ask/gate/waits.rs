//! Budgets on rounds of requests: of one entry's startup, since several have no rounds together.

use uvlet_record::FileId;

use crate::{
    ask::gate::{
        bench::Judge,
        budget::Budget,
        limit::LimitKind,
        reason::Reason,
        verdict::{BudgetRow, Verdict},
    },
    parts::cells::CellSet,
    time::rounds,
};

impl Judge<'_, '_> {
    /// Holds the limit on rounds, where a budget has one, against what it selects.
    pub(super) fn hold_rounds(
        &mut self,
        budget: &Budget,
        item: Option<&str>,
        (cells, obstacles): (&CellSet, &[Reason]),
    ) {
        let Some(limit) = budget.limit(LimitKind::RoundsAtMost) else { return };
        let rounds = self.rounds(cells).filter(|_| obstacles.is_empty());
        let (verdict, because) = match &rounds {
            None if obstacles.is_empty() => (Verdict::Undecided, vec![Reason::NoOneStartup]),
            None => (Verdict::Undecided, obstacles.to_vec()),
            Some((rounds, last)) if *rounds > limit => (Verdict::Broken, last.clone()),
            Some(_) => (Verdict::Met, Vec::new()),
        };
        let is = rounds.map(|(rounds, _)| rounds);
        let known = is.unwrap_or(0);
        self.rows.push(BudgetRow {
            allowed: Some(limit),
            is,
            over_by: known.saturating_sub(limit),
            least: known,
            most: known,
            verdict,
            because,
            ..budget.row(LimitKind::RoundsAtMost, item)
        });
    }

    /// Rounds of the entry whose startup that is, with what comes last; none where it is that of no entry.
    fn rounds(&self, cells: &CellSet) -> Option<(u64, Vec<Reason>)> {
        let record = self.lens.record;
        let entries = record.entries.iter().zip(&self.lens.reach);
        let its = entries.filter(|(_, reach)| {
            let startup = self.lens.files(reach.startup.iter().copied());
            startup.iter().eq(cells.iter())
        });
        let all = its.map(|(entry, reach)| rounds::startup(record, entry, reach));
        let requests = all.max_by_key(|requests| rounds::last(requests))?;
        let rounds = rounds::last(&requests);
        let path = |id: FileId| record.file(id).path.clone();
        let late = requests.iter().find(|one| one.round == rounds);
        let late =
            late.and_then(|one| Some(Reason::Late { file: path(one.file), by: path(one.by?) }));
        Some((rounds as u64, late.into_iter().collect()))
    }
}
