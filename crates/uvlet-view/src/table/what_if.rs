//! A prediction: what it wins and for whom, then entry by entry, then what moves.

use uvlet_audit::what_if::{EntryRow, Part, WhatIf};
use uvlet_record::Record;

use super::{Screen, bold, compare::signed, count, dim, measures_said, wrapped};
use crate::name::{fitted, plain, width};

/// Modules that are listed.
const LISTED: usize = 12;
/// Entries that the first sentence names as unchanged.
const NAMED: usize = 3;

fn by(row: &EntryRow, screen: &Screen, part: impl Fn(&EntryRow) -> (&Part, &Part)) -> i64 {
    let (before, after) = part(row);
    let bytes = |part: &Part| i64::try_from(part.sizes.get(screen.measure)).unwrap_or(i64::MAX);
    bytes(after) - bytes(before)
}

fn startup(row: &EntryRow) -> (&Part, &Part) {
    (&row.before.startup, &row.after.startup)
}

/// The answer in a sentence.
pub(crate) fn sentence(answer: &WhatIf, screen: &Screen) -> String {
    let rough = if answer.basis == "shares" { "≈ " } else { "" };
    let Some(first) = answer.entries.first().filter(|row| by(row, screen, startup) != 0) else {
        return "No entry would start with less.".to_owned();
    };
    let moved = by(first, screen, startup);
    let size = screen.units.size(moved.unsigned_abs());
    let way = if moved < 0 { "less" } else { "more" };
    let (before, after) = (&first.before.startup, &first.after.startup);
    let files = match (before.file_count, after.file_count) {
        (before, after) if before == after => String::new(),
        (before, after) => format!(", in {} instead of {before}", count(after, "file")),
    };
    let others: Vec<&EntryRow> = answer.entries[1..].iter().collect();
    let more: Vec<String> = others
        .iter()
        .filter(|row| by(row, screen, startup) != 0)
        .take(NAMED)
        .map(|row| {
            format!("{} {}", plain(&row.name), signed(by(row, screen, startup), screen.units))
        })
        .collect();
    let same: Vec<&&EntryRow> = others.iter().filter(|row| by(row, screen, startup) == 0).collect();
    let same = match same.len() {
        0 => String::new(),
        1..=NAMED => {
            let names: Vec<_> = same.iter().map(|row| plain(&row.name)).collect();
            format!("; {} unchanged", names.join(", "))
        }
        more => format!("; {more} entries unchanged"),
    };
    let more = if more.is_empty() { String::new() } else { format!("; {}", more.join(", ")) };
    format!(
        "{} would start with {rough}{size} {way} ({}, {} now){files}{more}{same}.",
        plain(&first.name),
        screen.measure,
        screen.units.size(before.sizes.get(screen.measure))
    )
}

/// Shows a prediction.
#[must_use]
pub fn what_if(answer: &WhatIf, record: &Record, screen: &Screen) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n", bold(&wrapped(&sentence(answer, screen), columns, 0)));
    let steps: Vec<_> = answer.steps.iter().map(|step| plain(step)).collect();
    text.push_str(&format!("{}\n\n", wrapped(&steps.join(" "), columns, 2)));
    let size = |part: &Part| screen.units.size(part.sizes.get(screen.measure));
    let wide = answer.entries.iter().map(|row| width(&plain(&row.name))).max().unwrap_or(5);
    let wide = wide.clamp(5, columns.saturating_sub(62).max(12));
    let head = format!(
        "{:<wide$}  {:>9}  {:>9}  {:>9}  {:>9}  {:>9}",
        "entry", "starts", "then", "later", "then", "fetched"
    );
    text.push_str(&format!("{}\n", dim(&head)));
    for row in &answer.entries {
        let name = fitted(&row.name, wide);
        let gap = " ".repeat(wide - width(&name));
        text.push_str(&format!(
            "{name}{gap}  {:>9}  {:>9}  {:>9}  {:>9}  {:>9}\n",
            size(&row.before.startup),
            size(&row.after.startup),
            size(&row.before.deferred),
            size(&row.after.deferred),
            size(&row.return_visit)
        ));
    }
    if !answer.moved.is_empty() {
        text.push_str(&format!("\n{}\n", bold("What moves:")));
    }
    // A module may leave several files.
    let mut moved: Vec<(&str, Option<&str>, u64)> = Vec::new();
    for row in &answer.moved {
        let bytes = row.sizes.get(screen.measure);
        match moved.iter_mut().find(|(module, ..)| *module == row.module) {
            Some((.., sum)) => *sum += bytes,
            None => moved.push((&row.module, row.to.as_deref(), bytes)),
        }
    }
    moved.sort_by(|a, b| b.2.cmp(&a.2).then_with(|| a.0.cmp(b.0)));
    for (module, to, bytes) in moved.iter().take(LISTED) {
        let size = screen.units.size(*bytes);
        let to = match to {
            Some(to) => format!("comes with {}", plain(to)),
            None => "is there no more".to_owned(),
        };
        let line = format!("  {size:>9}  {}: {to}", plain(module));
        text.push_str(&format!("{}\n", wrapped(&line, columns, 13)));
    }
    if let Some(more) = moved.len().checked_sub(LISTED).filter(|more| *more > 0) {
        text.push_str(&dim(&format!("             and {}\n", count(more, "more module"))));
    }
    for doubt in &answer.doubts {
        text.push_str(&format!(
            "{}\n",
            wrapped(&format!("doubt: {}", plain(&doubt.message)), columns, 7)
        ));
    }
    let said = format!(
        "“Fetched” is what a returning visitor fetches again at startup. Sizes are {}.",
        measures_said(screen.measures(), record)
    );
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}
