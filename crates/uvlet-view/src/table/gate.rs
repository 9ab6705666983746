//! The gate: one sentence per promise that is broken or near, the held ones folded into a count.

use anstyle::{AnsiColor, Color, Style};
use uvlet_audit::gate::{BudgetRow, Gate, LimitKind, Verdict};
use uvlet_record::{Record, sizes::Measure};

use super::{Screen, bold, count, measures_said, styled, wrapped};
use crate::name::plain;

/// Contributors that a sentence names.
const NAMED: usize = 3;

/// The rows as a person wants them.
pub(crate) struct Standing<'g> {
    pub broken: Vec<&'g BudgetRow>,
    /// A promise that is broken need not be said to be near as well.
    pub near: Vec<&'g BudgetRow>,
    pub held: usize,
}

impl<'g> Standing<'g> {
    pub fn of(gate: &'g Gate) -> Self {
        let of = |verdict| gate.budgets.iter().filter(move |row| row.verdict == verdict);
        let broken: Vec<&BudgetRow> = of(Verdict::Broken).collect();
        let is_new =
            |row: &&BudgetRow| !broken.iter().any(|b| b.name == row.name && b.item == row.item);
        let near = of(Verdict::Warned).filter(is_new).collect();
        Self { near, held: of(Verdict::Held).count(), broken }
    }
}

/// Shows how the budgets stand.
#[must_use]
pub fn gate(gate: &Gate, record: &Record, screen: &Screen) -> String {
    let Standing { broken: is_broken, near, held } = Standing::of(gate);
    let label = plain(&record.label);
    let total = count(gate.budgets.len(), "limit");
    let mut text = String::new();
    let first = match gate.verdict {
        Verdict::Broken => {
            let style = Style::new().bold().fg_color(Some(Color::Ansi(AnsiColor::Red)));
            styled(style, &format!("BROKEN: {label} {}.", broken_by(gate, is_broken.len(), &total)))
        }
        Verdict::Warned | Verdict::Held => bold(&format!("HELD: {label} keeps to {total}.")),
    };
    text.push_str(&first);
    text.push('\n');
    for reason in &gate.reasons {
        text.push_str(&wrapped(&format!("  {}", plain(&reason.message)), screen.columns(), 4));
        text.push('\n');
    }
    if !is_broken.is_empty() || !near.is_empty() {
        text.push('\n');
    }
    for (word, rows) in [("broken", &is_broken), ("near  ", &near)] {
        for row in rows {
            let line = format!("  {word}  {}", sentence(row, screen));
            text.push_str(&wrapped(&line, screen.columns(), 10));
            text.push('\n');
        }
    }
    if held > 0 {
        text.push_str(&format!("  held    {}\n", count(held, "limit")));
    }
    text.push('\n');
    text.push_str(&wrapped(&sizes_said(gate, record), screen.columns(), 0));
    text.push('\n');
    text
}

/// The measures that limits are in, with their encoders.
pub(crate) fn sizes_said(gate: &Gate, record: &Record) -> String {
    let judged = |measure: &Measure| gate.budgets.iter().any(|row| row.measure == measure.name());
    format!("Sizes are {}.", measures_said(Measure::ALL.into_iter().filter(judged), record))
}

/// What broke it, for the first sentence.
pub(crate) fn broken_by(gate: &Gate, exceeded: usize, total: &str) -> String {
    match (gate.reasons.is_empty(), exceeded) {
        (false, 0) => "is not taken".to_owned(),
        (false, _) => format!("is not taken, and exceeds {exceeded} of {total}"),
        (true, _) => format!("exceeds {exceeded} of {total}"),
    }
}

pub(crate) fn sentence(row: &BudgetRow, screen: &Screen) -> String {
    let measure = row.measure.parse().unwrap_or(Measure::Emitted);
    let units = screen.units;
    let item = row.item.as_ref().map(|item| format!(", {},", plain(item))).unwrap_or_default();
    let limit = match row.limit_kind {
        LimitKind::AtMost => "its",
        LimitKind::WarnAbove => "the warning line of its",
    };
    let heaviest =
        row.heaviest.iter().take(NAMED).map(|heavy| {
            format!("{} {}", plain(&heavy.name), units.size(heavy.sizes.get(measure)))
        });
    let heaviest: Vec<String> = heaviest.collect();
    format!(
        "{}{item} is {} over {limit} {} ({measure}) at {}. Heaviest: {}.",
        plain(&row.name),
        units.size(row.over_by),
        units.size(row.allowed),
        units.size(row.is),
        heaviest.join(", "),
    )
}
