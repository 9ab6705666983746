//! The gate: one sentence per promise that is broken or near, the held ones folded into a count.

use anstyle::{AnsiColor, Color, Style};
use uvlet_audit::gate::{BudgetRow, Gate, LimitKind, Verdict};
use uvlet_record::{Record, sizes::Measure};

use super::{Screen, bold, count, styled, wrapped};
use crate::name::plain;

/// Contributors that a sentence names.
const NAMED: usize = 3;

/// Shows how the budgets stand.
#[must_use]
pub fn gate(gate: &Gate, record: &Record, screen: &Screen) -> String {
    let broken = |row: &&BudgetRow| row.verdict == Verdict::Broken;
    let is_broken: Vec<&BudgetRow> = gate.budgets.iter().filter(broken).collect();
    // A promise that is broken need not be said to be near as well.
    let near = gate.budgets.iter().filter(|row| {
        row.verdict == Verdict::Near
            && !is_broken.iter().any(|b| b.name == row.name && b.item == row.item)
    });
    let near: Vec<&BudgetRow> = near.collect();
    let held = gate.budgets.iter().filter(|row| row.verdict == Verdict::Held).count();
    let label = plain(&record.label);
    let total = count(gate.budgets.len(), "limit");
    let mut text = String::new();
    let first = match gate.verdict {
        Verdict::Broken => {
            let style = Style::new().bold().fg_color(Some(Color::Ansi(AnsiColor::Red)));
            styled(style, &format!("BROKEN: {label} exceeds {} of {total}.", is_broken.len()))
        }
        Verdict::Near | Verdict::Held => bold(&format!("HELD: {label} keeps to {total}.")),
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
    text
}

fn sentence(row: &BudgetRow, screen: &Screen) -> String {
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
