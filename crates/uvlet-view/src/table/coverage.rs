//! What ran: the entry with most that never did in a sentence, then rows by owner.

use crate::words::{
    places::{in_place, twice},
    remarks::unknown_script,
};
use uvlet_audit::ask::coverage::{Coverage, Row};
use uvlet_record::{
    Record,
    sizes::{Measure, Sizes},
};

use crate::name::{fitted, plain, width};
use crate::screen::{Screen, bold, count, dim, measures_said, wrapped};

/// Owners that the first sentence names.
const NAMED: usize = 3;
/// Other scripts that are listed.
const LISTED: usize = 8;

/// The answer in a sentence.
pub(crate) fn sentence(answer: &Coverage, screen: &Screen) -> String {
    let Some(entry) = answer.entries.first() else {
        return "No file of the build is in the recordings.".to_owned();
    };
    let size = |sizes: &Sizes| screen.units.size(sizes.get(screen.measure));
    let heaviest: Vec<String> = entry
        .startup
        .heaviest
        .iter()
        .filter(|(_, sizes)| sizes.get(screen.measure) > 0)
        .take(NAMED)
        .map(|(name, sizes)| format!("{} {}", plain(name), size(sizes)))
        .collect();
    let heaviest =
        if heaviest.is_empty() { String::new() } else { format!(": {}", heaviest.join(", ")) };
    format!(
        "Of {} ({}) that {} fetches before it runs and that was recorded, {} never ran in {}{heaviest}.",
        size(&entry.startup.sizes),
        screen.measure,
        plain(&entry.name),
        size(&entry.startup.never_ran),
        count(answer.recordings.len(), "recording")
    )
}

/// What else should be known.
pub(crate) fn remarks(answer: &Coverage) -> Vec<String> {
    let mut remarks = Vec::new();
    for entry in &answer.entries {
        if !entry.startup.unrecorded.is_empty() {
            remarks.push(format!(
                "{}: no recording has {}",
                entry.name,
                some(&entry.startup.unrecorded)
            ));
        }
    }
    for file in answer.files.iter().filter(|file| !file.missing_in.is_empty()) {
        remarks.push(format!(
            "{} is not in {}: it was not fetched there, which saves nothing by itself",
            file.path,
            file.missing_in.join(", ")
        ));
    }
    for other in answer.unmatched.iter().take(LISTED) {
        let url = if other.url.is_empty() { "a script without an address" } else { &other.url };
        remarks.push(format!("{url}: {}", unknown_script(other.reason)));
    }
    if let Some(more) = answer.unmatched.len().checked_sub(LISTED).filter(|more| *more > 0) {
        remarks.push(format!(
            "{} of the recordings are no files of the build",
            count(more, "more script")
        ));
    }
    remarks
}

fn some(names: &[String]) -> String {
    let shown = names.iter().take(NAMED).cloned().collect::<Vec<_>>().join(", ");
    match names.len().saturating_sub(NAMED) {
        0 => shown,
        more => format!("{shown} and {more} more"),
    }
}

/// Names of rows, with their places where several have the same.
pub(crate) fn names(answer: &Coverage) -> Vec<String> {
    let twice = twice(answer.rows.iter().map(|row| row.name.as_str()));
    let name = |row: &Row| {
        format!("{}{}", row.name, in_place(row.row, &row.name, row.place.as_deref(), &twice))
    };
    answer.rows.iter().map(name).collect()
}

/// All rows together: what there is, what ran at load, what ran later, what never ran.
pub(crate) fn total(answer: &Coverage, measure: Measure) -> [u64; 4] {
    let sum = |part: fn(&Row) -> &Sizes| answer.rows.iter().map(|row| part(row).get(measure)).sum();
    [
        sum(|row| &row.sizes),
        sum(|row| &row.ran_at_load),
        sum(|row| &row.ran_later),
        sum(|row| &row.never_ran),
    ]
}

/// Shows what ran.
#[must_use]
pub fn coverage(answer: &Coverage, record: &Record, screen: &Screen, top: Option<usize>) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n\n", bold(&wrapped(&sentence(answer, screen), columns, 0)));
    let shown: Vec<&Row> = answer.rows.iter().take(top.unwrap_or(usize::MAX)).collect();
    let names = names(answer);
    let wide = names.iter().take(shown.len()).map(|name| width(&plain(name))).max().unwrap_or(5);
    let wide = wide.clamp(5, columns.saturating_sub(49).max(12));
    let unit = format!("{}, {}", screen.measure, screen.units.symbol());
    let head = format!(
        "{:<wide$}  {:>12}  {:>11}  {:>9}  {:>9}",
        "what", unit, "ran at load", "ran later", "never ran"
    );
    text.push_str(&format!("{}\n", bold(&head)));
    let line = |name: &str, sizes: [u64; 4]| {
        let name = fitted(name, wide);
        let gap = " ".repeat(wide - width(&name));
        let [all, load, later, never] = sizes.map(|bytes| screen.units.number(bytes));
        format!("{name}{gap}  {all:>12}  {load:>11}  {later:>9}  {never:>9}\n")
    };
    for (row, name) in shown.iter().zip(&names) {
        let sizes = [&row.sizes, &row.ran_at_load, &row.ran_later, &row.never_ran];
        text.push_str(&line(name, sizes.map(|sizes| sizes.get(screen.measure))));
    }
    if let Some(more) = answer.rows.len().checked_sub(shown.len()).filter(|more| *more > 0) {
        text.push_str(&dim(&format!("and {}; --top 0 lists them\n", count(more, "more row"))));
    }
    text.push_str(&line("total", total(answer, screen.measure)));
    text.push('\n');
    for remark in remarks(answer) {
        text.push_str(&format!("{}\n", wrapped(&format!("note: {}", plain(&remark)), columns, 6)));
    }
    let labels: Vec<_> = answer.recordings.iter().map(|label| plain(label)).collect();
    let said = format!(
        "Recordings: {}. What never ran in them may run for another visitor: it is not dead. Sizes are {}.",
        labels.join(", "),
        measures_said(screen.measures(), record)
    );
    text.push_str(&format!("{}\n", wrapped(&said, columns, 0)));
    text
}
