//! Two builds side by side: the verdict in a sentence, entries with their return visit, then the causes.

pub(crate) mod lines;

use crate::words::findings::title;
use lines::signed;
pub use lines::{CompareBy, Rows};
pub(crate) use lines::{Lines, lines};
use uvlet_audit::ask::compare::{
    Comparison, Moved,
    chunks::ChunkChange,
    entries::{EntryRow, Loads},
    mover::Mover,
    sides::change,
};
use uvlet_record::{
    Mode, Record,
    sizes::{Measure, Sizes},
};

use super::grid::{Column, lay_out};
use crate::name::{plain, width};
use crate::screen::{Screen, bold, count, dim, in_measure, measures_said, wrapped};

/// Entries that are listed; the rest is one line.
const ENTRIES: usize = 12;
/// URLs of other hosts that are named.
const HOSTED: usize = 3;
/// Findings that are listed.
const FINDINGS: usize = 6;

/// Shows a comparison.
#[must_use]
pub fn compare(answer: &Comparison, record: &Record, screen: &Screen, rows: &Rows) -> String {
    let columns = screen.columns();
    let mut text = String::new();
    if let Some(warning) = warning(answer) {
        text.push_str(&format!("{}\n", bold(&wrapped(&warning, columns, 0))));
    }
    text.push_str(&format!("{}\n", bold(&wrapped(&sentence(answer, screen), columns, 0))));
    text.push_str(&format!("{}\n", wrapped(&whole(answer, screen), columns, 0)));
    if let Some(said) = elsewhere(answer) {
        text.push_str(&format!("{}\n", wrapped(&said, columns, 0)));
    }
    text.push_str(&entries(answer, screen));
    for other in screen.others() {
        let said = format!("{}: {}", in_measure(other.measure), whole(answer, &other));
        text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
        text.push_str(entries(answer, &other).trim_start_matches('\n'));
    }
    let Lines { heads, lines } = lines(answer, screen, rows);
    if !lines.is_empty() {
        text.push_str(&format!("\n{}", lay_out(&heads, &lines, columns)));
    }
    text.push_str(&findings(answer, screen));
    let said = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

/// What is asked of other hosts now, or no longer: what left for another host is no gain.
pub(crate) fn elsewhere(answer: &Comparison) -> Option<String> {
    let said = |change: ChunkChange| {
        let rows: Vec<_> = answer.elsewhere.iter().filter(|row| row.change == change).collect();
        let named: Vec<_> = rows.iter().take(HOSTED).map(|row| plain(&row.url)).collect();
        let more = match rows.len().saturating_sub(HOSTED) {
            0 => String::new(),
            more => format!(" and {more} more"),
        };
        (!rows.is_empty()).then(|| format!("{} {}{more}", change.name(), named.join(", ")))
    };
    let parts: Vec<_> =
        [ChunkChange::New, ChunkChange::Gone].into_iter().filter_map(said).collect();
    (!parts.is_empty())
        .then(|| format!("From elsewhere, in none of these sizes: {}.", parts.join("; ")))
}

/// What moved since a build that was looked at some time ago.
#[must_use]
pub fn since(ago: &str, moved: Option<&Moved>, screen: &Screen) -> String {
    let text = match moved {
        None => format!("Since the build of {ago}: no page starts with more or less."),
        Some(moved) => {
            let mostly = moved.mostly.as_ref().map(|mover| mostly(mover, screen));
            format!(
                "Since the build of {ago}: {} starts with {} {} ({}){}.",
                plain(&moved.entry),
                screen.units.size(moved.by.unsigned_abs()),
                if moved.by > 0 { "more" } else { "less" },
                screen.measure,
                mostly.unwrap_or_default()
            )
        }
    };
    wrapped(&text, screen.columns(), 0)
}

/// What moved most; `≈` where that is an estimate.
fn mostly(mover: &Mover, screen: &Screen) -> String {
    let about = if mover.is_estimated { "≈" } else { "" };
    format!(", most of it by {}: {about}{}", plain(&mover.name), signed(mover.by, screen.units))
}

/// Why rows tell what is known rather than what changed.
fn knowledge(answer: &Comparison) -> Option<String> {
    let known = answer.owners_known?;
    Some(format!(
        "Owners are known of {}% of the script bytes before and of {}% after (source maps added or \
         missing), so rows by package and module show what is known, not what changed.",
        known.before, known.after
    ))
}

fn startup(loads: &Option<Loads>) -> Option<&Sizes> {
    loads.as_ref().map(|loads| &loads.startup.sizes)
}

fn moved(row: &EntryRow, measure: Measure) -> i64 {
    change(startup(&row.before), startup(&row.after), measure)
}

/// What makes the figures doubtful.
pub(crate) fn warning(answer: &Comparison) -> Option<String> {
    let (before, after) = (&answer.before, &answer.after);
    if before.mode != after.mode && [before.mode, after.mode].contains(&Mode::Development) {
        return Some(
            "ONE OF THESE IS A DEVELOPMENT BUILD: the difference is that of two kinds of build."
                .to_owned(),
        );
    }
    match (before.bundler, after.bundler) {
        (Some(a), Some(b)) if a != b => Some(format!(
            "Built by {} before and by {} after: much of the difference may be theirs.",
            a.name(),
            b.name()
        )),
        _ => None,
    }
}

/// The verdict.
pub(crate) fn sentence(answer: &Comparison, screen: &Screen) -> String {
    let said = change_said(answer, screen);
    match knowledge(answer) {
        Some(knowledge) => format!("{knowledge} {said}"),
        None => said,
    }
}

fn change_said(answer: &Comparison, screen: &Screen) -> String {
    let (measure, units) = (screen.measure, screen.units);
    let is_quiet = answer.packages.is_empty()
        && answer.chunks.iter().all(|row| row.change == ChunkChange::Same);
    if is_quiet {
        return "Nothing moved: every file is the same.".to_owned();
    }
    let first = answer.entries.iter().find(|row| moved(row, measure) != 0);
    let Some(entry) = first else {
        let whole = change(Some(&answer.before.sizes), Some(&answer.after.sizes), measure);
        return match whole {
            0 => "No size moved, though files changed.".to_owned(),
            whole => format!(
                "No entry's startup moved; all together it is {} ({measure}).",
                signed(whole, units)
            ),
        };
    };
    let name = plain(&entry.name);
    let by = moved(entry, measure);
    match (&entry.before, &entry.after) {
        (None, Some(after)) => {
            format!(
                "{name} is new and starts with {} ({measure}).",
                units.size(after.startup.sizes.get(measure))
            )
        }
        (Some(before), None) => format!(
            "{name} is gone; it started with {} ({measure}).",
            units.size(before.startup.sizes.get(measure))
        ),
        (Some(before), Some(after)) => {
            let size = units.size(by.unsigned_abs());
            let way = if by > 0 { "more" } else { "less" };
            let cause = answer.moved_most.as_ref().map(|mover| mostly(mover, screen));
            format!(
                "{name} starts with {size} {way} ({measure}, {} before and {} after){}.",
                units.size(before.startup.sizes.get(measure)),
                units.size(after.startup.sizes.get(measure)),
                cause.unwrap_or_default()
            )
        }
        (None, None) => String::new(),
    }
}

/// All that counts, on both sides.
pub(crate) fn whole(answer: &Comparison, screen: &Screen) -> String {
    let (before, after) = (&answer.before, &answer.after);
    let size = |sizes: &Sizes| screen.units.size(sizes.get(screen.measure));
    format!(
        "{} to {}: {} in {} to {} in {}, {}.",
        plain(&before.label),
        plain(&after.label),
        size(&before.sizes),
        count(before.file_count, "file"),
        size(&after.sizes),
        count(after.file_count, "file"),
        signed(change(Some(&before.sizes), Some(&after.sizes), screen.measure), screen.units)
    )
}

fn entries(answer: &Comparison, screen: &Screen) -> String {
    let rows: Vec<&EntryRow> = answer
        .entries
        .iter()
        .filter(|row| {
            moved(row, screen.measure) != 0
                || row.before.is_none()
                || row.after.is_none()
                || row.return_visit.as_ref().is_some_and(|visit| visit.file_count > 0)
        })
        .collect();
    if rows.is_empty() {
        return String::new();
    }
    let size = |sizes: Option<&Sizes>| {
        sizes.map_or_else(|| "–".to_owned(), |sizes| screen.units.size(sizes.get(screen.measure)))
    };
    let heads = [
        Column::name("entry"),
        Column::number("startup from"),
        Column::number("to"),
        Column::number("moved"),
        Column::number("deferred from"),
        Column::number("to"),
        Column::number("fetched again"),
    ];
    let deferred = |loads: &Option<Loads>| loads.as_ref().map(|loads| loads.deferred.sizes);
    let lines = rows.iter().take(ENTRIES).map(|row| {
        let visit = row
            .return_visit
            .as_ref()
            .map(|visit| format!("{} in {}", size(Some(&visit.sizes)), visit.file_count));
        vec![
            plain(&row.name).into_owned(),
            size(startup(&row.before)),
            size(startup(&row.after)),
            signed(moved(row, screen.measure), screen.units),
            size(deferred(&row.before).as_ref()),
            size(deferred(&row.after).as_ref()),
            visit.unwrap_or_else(|| "–".to_owned()),
        ]
    });
    let lines: Vec<Vec<String>> = lines.collect();
    let mut text = format!("\n{}", lay_out(&heads, &lines, screen.columns()));
    if rows.len() > ENTRIES {
        let more = count(rows.len() - ENTRIES, "more entry");
        text.push_str(&dim(&format!("and {more}; --format json holds them\n")));
    }
    text
}

fn findings(answer: &Comparison, screen: &Screen) -> String {
    let kinds: Vec<&str> = answer.not_compared.iter().map(|kind| kind.name()).collect();
    let unseen = match kinds.is_empty() {
        true => String::new(),
        false => {
            let said = format!(
                "Not compared, as only one of the builds could be checked for it: {}.",
                kinds.join(", ")
            );
            format!("\n{}\n", wrapped(&said, screen.columns(), 0))
        }
    };
    if answer.waste.is_empty() {
        return unseen;
    }
    let mut text = format!("\n{}\n", bold("What could be removed:"));
    let shown: Vec<_> = answer
        .waste
        .iter()
        .take(FINDINGS)
        .map(|row| {
            let how = match (&row.before, &row.after) {
                (None, Some(_)) => "new",
                (Some(_), None) => "gone",
                _ => "moved",
            };
            let by = change(row.before.as_ref(), row.after.as_ref(), screen.measure);
            (how, &row.id, signed(by, screen.units), plain(&title(&row.about)).into_owned())
        })
        .collect();
    let ids = shown.iter().map(|(_, id, ..)| width(id)).max().unwrap_or(0);
    let sizes = shown.iter().map(|(.., by, _)| width(by)).max().unwrap_or(0);
    for (how, id, by, title) in shown {
        let line = format!("  {how:<5}  {id:<ids$}  {by:>sizes$}  {title}");
        text.push_str(&format!("{}\n", wrapped(&line, screen.columns(), 9)));
    }
    if answer.waste.len() > FINDINGS {
        let more = count(answer.waste.len() - FINDINGS, "more finding");
        text.push_str(&dim(&format!("  and {more}\n")));
    }
    text + &unseen
}
