//! A prediction: what it wins and for whom, then entry by entry, then what moves.

use crate::words::quote;
use crate::words::{
    doubts::sentences,
    steps::{besides, typed_all},
};
use uvlet_audit::ask::{
    plan_text::PlanText,
    suggest::Suggestions,
    what_if::{EntryRow, Part, WhatIf},
};
use uvlet_audit::{ask::what_if::Basis, predict::step::Change};
use uvlet_record::Record;

use super::{compare::lines::signed, waste::unchecked};
use crate::name::{fitted, plain, width};
use crate::screen::{Screen, bold, count, dim, in_measure, measures_said, wrapped};

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

/// What each visit adds to those before it.
fn visits(answer: &WhatIf, screen: &Screen) -> String {
    if answer.visits.is_empty() {
        return String::new();
    }
    let size = |part: &Part| screen.units.size(part.sizes.get(screen.measure));
    let mut text = format!("\n{}\n", bold("One visit after the other fetches:"));
    for row in &answer.visits {
        let files = count(row.after.file_count, "file");
        let line = format!(
            "  {:>9}  then {} in {files}  {}",
            size(&row.before),
            size(&row.after),
            plain(&row.entry)
        );
        text.push_str(&format!("{}\n", wrapped(&line, screen.columns(), 13)));
    }
    text
}

/// The answer in a sentence.
pub(crate) fn sentence(answer: &WhatIf, screen: &Screen) -> String {
    let rough = if answer.basis == Basis::Shares { "≈ " } else { "" };
    if answer.steps.is_empty() && !answer.visits.is_empty() {
        return one_after_the_other(answer, screen);
    }
    let is_same = answer.entries.iter().all(|row| by(row, screen, startup) == 0);
    if is_same && answer.steps.iter().any(|step| step.change == Change::Touch) {
        return fetched_again(answer, screen);
    }
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

/// What visits fetch as the build is.
fn one_after_the_other(answer: &WhatIf, screen: &Screen) -> String {
    let size = |part: &Part| screen.units.size(part.sizes.get(screen.measure));
    let parts: Vec<String> = answer
        .visits
        .iter()
        .enumerate()
        .map(|(at, row)| {
            let more = if at == 0 { "" } else { " more" };
            format!("{} fetches {}{more}", plain(&row.entry), size(&row.before))
        })
        .collect();
    format!("{} ({}).", parts.join(", then "), screen.measure)
}

/// What a change of contents makes returning visitors fetch.
fn fetched_again(answer: &WhatIf, screen: &Screen) -> String {
    let size = |part: &Part| screen.units.size(part.sizes.get(screen.measure));
    let mut rows: Vec<&EntryRow> =
        answer.entries.iter().filter(|row| row.return_visit.file_count > 0).collect();
    rows.sort_by_key(|row| std::cmp::Reverse(row.return_visit.sizes.get(screen.measure)));
    let said: Vec<String> = rows
        .iter()
        .take(NAMED)
        .map(|row| {
            let files = count(row.return_visit.file_count, "file");
            format!("{} {} in {files}", plain(&row.name), size(&row.return_visit))
        })
        .collect();
    let more = match rows.len().saturating_sub(NAMED) {
        0 => String::new(),
        more => format!(" and {more} more"),
    };
    match said.is_empty() {
        true => "No entry fetches anything again at startup.".to_owned(),
        false => format!(
            "A returning visitor fetches again at startup ({}): {}{more}.",
            screen.measure,
            said.join(", ")
        ),
    }
}

/// What is worth trying: the best together, then each with the command that repeats it.
#[must_use]
pub fn suggestions(answer: &Suggestions, build: &str, record: &Record, screen: &Screen) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n", bold(&wrapped(&suggested(answer, screen), columns, 0)));
    let command = |steps: &str| format!("uvlet what-if {} {steps}", quote::shell(build));
    if answer.together.len() > 1 {
        let line = format!("  {}", plain(&command(&typed_all(&answer.together))));
        text.push_str(&format!("{}\n", wrapped(&line, columns, 4)));
    }
    if !answer.each.is_empty() {
        text.push_str(&format!(
            "\n{}\n",
            bold("Each by itself, at startup of the entry that gains most:")
        ));
    }
    for one in &answer.each {
        let size = screen.units.size(one.saved.get(screen.measure));
        let line = format!(
            "  {size:>9}  {}  {}",
            plain(&one.entry),
            plain(&command(&typed_all(&one.steps)))
        );
        text.push_str(&format!("{}\n", wrapped(&line, columns, 13)));
    }
    if answer.prediction.iter().any(|one| !one.doubts.is_empty()) {
        text.push('\n');
    }
    for (_, doubt) in answer.prediction.iter().flat_map(|one| sentences(&one.doubts)) {
        let line = format!("doubt: {}", plain(&doubt));
        text.push_str(&format!("{}\n", wrapped(&line, columns, 7)));
    }
    let said = format!(
        "Candidates: startup code used only after interaction, modules pulled in by barrels (files that re-export others), code that comes whole for a few of its names, and folders of locales imported as a whole. Sizes are {}.",
        measures_said(screen.measures(), record)
    );
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

/// The best together, in a sentence.
pub(crate) fn suggested(answer: &Suggestions, screen: &Screen) -> String {
    match &answer.prediction {
        Some(prediction) => {
            let changes = count(answer.together.len(), "step");
            let with = if answer.together.len() > 1 { " together" } else { "" };
            format!("With {changes}{with}: {}", sentence(prediction, screen))
        }
        None => {
            let none = "No change found that makes a startup smaller";
            match unchecked(&answer.judged) {
                Some(unchecked) => format!("{none} in what could be checked. {unchecked}"),
                None => format!("{none}."),
            }
        }
    }
}

/// What each entry starts with and loads later, now and then.
fn entries(answer: &WhatIf, screen: &Screen) -> String {
    let mut text = String::new();
    let size = |part: &Part| screen.units.size(part.sizes.get(screen.measure));
    let wide = answer.entries.iter().map(|row| width(&plain(&row.name))).max().unwrap_or(5);
    let wide = wide.clamp(5, screen.columns().saturating_sub(62).max(12));
    let head = format!(
        "{:<wide$}  {:>9}  {:>9}  {:>9}  {:>9}  {:>9}",
        "entry", "starts", "then", "later", "then", "fetched"
    );
    text.push_str(&format!("{}\n", bold(&head)));
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
    text
}

/// A plan as configuration, with what that cannot say as comments.
#[must_use]
pub fn plan_text(plan: &PlanText, record: &Record) -> String {
    let bundler = record.bundler.map_or("the bundler", uvlet_record::Bundler::name);
    let mut text = format!("// For {bundler}:\n");
    for line in &plan.lines {
        text.push_str(&format!("{}\n", plain(line)));
    }
    for line in &plan.besides {
        text.push_str(&format!("// not as configuration: {}\n", plain(&besides(line))));
    }
    if plan.lines.is_empty() && plan.besides.is_empty() {
        text.push_str("// nothing of the plan is a matter of configuration\n");
    }
    text
}

/// Shows a prediction.
#[must_use]
pub fn what_if(answer: &WhatIf, record: &Record, screen: &Screen) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n", bold(&wrapped(&sentence(answer, screen), columns, 0)));
    let steps = typed_all(&answer.steps);
    text.push_str(&format!("{}\n\n", wrapped(&plain(&steps), columns, 2)));
    text.push_str(&entries(answer, screen));
    for other in screen.others() {
        text.push_str(&format!("\n{}:\n{}", in_measure(other.measure), entries(answer, &other)));
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
            Some(to) => format!("moves with {}", plain(to)),
            None => "is removed".to_owned(),
        };
        let line = format!("  {size:>9}  {}: {to}", plain(module));
        text.push_str(&format!("{}\n", wrapped(&line, columns, 13)));
    }
    if let Some(more) = moved.len().checked_sub(LISTED).filter(|more| *more > 0) {
        text.push_str(&dim(&format!("             and {}\n", count(more, "more module"))));
    }
    text.push_str(&visits(answer, screen));
    let new: Vec<_> = answer.new_chunks.iter().map(|name| plain(name)).collect();
    if !new.is_empty() {
        let line = format!("New: {}.", new.join(", "));
        text.push_str(&format!("\n{}\n", wrapped(&line, columns, 2)));
    }
    let gone: Vec<_> = answer.vanished_files.iter().map(|name| plain(name)).collect();
    if !gone.is_empty() {
        let line = format!("No more: {}.", gone.join(", "));
        text.push_str(&format!("\n{}\n", wrapped(&line, columns, 2)));
    }
    for (_, doubt) in sentences(&answer.doubts) {
        text.push_str(&format!("{}\n", wrapped(&format!("doubt: {}", plain(&doubt)), columns, 7)));
    }
    let said = format!(
        "“Fetched” is what a returning visitor fetches again at startup. Sizes are {}.",
        measures_said(screen.measures(), record)
    );
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}
