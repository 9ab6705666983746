//! What ran: the entry with most that never did in a sentence, then rows by owner.

use crate::words::remarks::unknown_script;
use uvlet_audit::ask::coverage::{Coverage, Row};
use uvlet_record::{Record, sizes::Sizes};

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

/// Shows what ran.
#[must_use]
pub fn coverage(answer: &Coverage, record: &Record, screen: &Screen, top: Option<usize>) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n\n", bold(&wrapped(&sentence(answer, screen), columns, 0)));
    let shown: Vec<&Row> = answer.rows.iter().take(top.unwrap_or(usize::MAX)).collect();
    let wide = shown.iter().map(|row| width(&plain(&row.name))).max().unwrap_or(4);
    let wide = wide.clamp(4, columns.saturating_sub(52).max(12));
    let unit = format!("{}, {}", screen.measure, screen.units.symbol());
    let head = format!(
        "{:<wide$}  {:>12}  {:>11}  {:>9}  {:>9}",
        "what", unit, "ran at load", "ran later", "never ran"
    );
    text.push_str(&format!("{}\n", dim(&head)));
    let number = |sizes: &Sizes| screen.units.number(sizes.get(screen.measure));
    for row in &shown {
        let name = fitted(&row.name, wide);
        let gap = " ".repeat(wide - width(&name));
        text.push_str(&format!(
            "{name}{gap}  {:>12}  {:>11}  {:>9}  {:>9}\n",
            number(&row.sizes),
            number(&row.ran_at_load),
            number(&row.ran_later),
            number(&row.never_ran)
        ));
    }
    if let Some(more) = answer.rows.len().checked_sub(shown.len()).filter(|more| *more > 0) {
        text.push_str(&dim(&format!("and {}; --top 0 lists them\n", count(more, "more row"))));
    }
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
