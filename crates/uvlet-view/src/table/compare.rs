//! Two builds side by side: the verdict in a sentence, entries with their return visit, then the causes.

use crate::words::{self, findings::title};
use uvlet_audit::ask::compare::{
    Comparison, Moved,
    causes::Cause,
    chunks::{ChunkChange, ChunkRow},
    entries::{EntryRow, Loads},
    mover::Mover,
    rows::{ModuleRow, Row},
    sides::change,
};
use uvlet_record::{
    Mode, Record,
    sizes::{Measure, Sizes},
};

use super::grid::{Column, lay_out};
use crate::screen::{Screen, bold, count, dim, measures_said, wrapped};
use crate::{
    name::{plain, width},
    units::Units,
};

/// Entries that are listed; the rest is one line.
const ENTRIES: usize = 12;
/// URLs of other hosts that are named.
const HOSTED: usize = 3;
/// Findings that are listed.
const FINDINGS: usize = 6;

/// What rows stand for.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, strum::EnumMessage, strum::IntoStaticStr, strum::VariantArray,
)]
#[strum(serialize_all = "lowercase")]
pub enum CompareBy {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// An emitted script with its styles.
    Chunk,
}

/// Which rows are shown.
#[derive(Clone, Copy, Debug)]
pub struct Rows {
    /// What they stand for.
    pub by: CompareBy,
    /// Rows that moved less are left to the last.
    pub min: u64,
    /// So many, and one for the rest.
    pub top: Option<usize>,
}

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

/// A size with its sign: `+3.1 kB`, `−12 B`.
pub(crate) fn signed(bytes: i64, units: Units) -> String {
    let size = units.size(bytes.unsigned_abs());
    match bytes.signum() {
        1 => format!("+{size}"),
        -1 => format!("−{size}"),
        _ => "±0".to_owned(),
    }
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

/// Rows in columns.
pub(crate) struct Lines {
    pub(crate) heads: Vec<Column>,
    pub(crate) lines: Vec<Vec<String>>,
}

/// One row before it is laid out.
struct One {
    name: String,
    before: Option<Sizes>,
    after: Option<Sizes>,
    because: String,
    is_estimated: bool,
}

/// The causes, which add up to the difference of the totals.
pub(crate) fn lines(answer: &Comparison, screen: &Screen, rows: &Rows) -> Lines {
    let measure = screen.measure;
    let all: Vec<One> = match rows.by {
        CompareBy::Package => answer.packages.iter().map(package).collect(),
        CompareBy::Module => answer.modules.iter().map(module).collect(),
        CompareBy::Chunk => {
            let changed = answer.chunks.iter().filter(|row| row.change != ChunkChange::Same);
            changed.map(chunk).collect()
        }
    };
    let by = |one: &One| change(one.before.as_ref(), one.after.as_ref(), measure);
    let is_shown = |one: &&One| by(one).unsigned_abs() >= rows.min;
    let shown: Vec<&One> =
        all.iter().filter(is_shown).take(rows.top.unwrap_or(usize::MAX)).collect();
    let rest: i64 = all.iter().map(by).sum::<i64>() - shown.iter().map(|one| by(one)).sum::<i64>();
    let hidden = all.len() - shown.len();
    let size = |sizes: Option<&Sizes>| {
        sizes.map_or_else(|| "–".to_owned(), |sizes| screen.units.size(sizes.get(measure)))
    };
    let mut lines: Vec<Vec<String>> = shown
        .into_iter()
        .map(|one| {
            vec![
                one.name.clone(),
                size(one.before.as_ref()),
                size(one.after.as_ref()),
                format!(
                    "{}{}",
                    if one.is_estimated { "≈" } else { "" },
                    signed(by(one), screen.units)
                ),
                one.because.clone(),
            ]
        })
        .collect();
    if hidden > 0 {
        let (none, rest) = (String::new(), signed(rest, screen.units));
        lines.push(vec![format!("(the other {hidden})"), none.clone(), none.clone(), rest, none]);
    }
    let name = match rows.by {
        CompareBy::Package => "package",
        CompareBy::Module => "module",
        CompareBy::Chunk => "chunk",
    };
    let heads = vec![
        Column::name(name),
        Column::number(format!("from, {measure}")),
        Column::number("to"),
        Column::number("moved"),
        Column::extra("because"),
    ];
    Lines { heads, lines }
}

fn package(row: &Row) -> One {
    let because = match (row.cause, &row.versions) {
        (Cause::Version, Some(versions)) => {
            format!("{} → {}", versions.before.join(", "), versions.after.join(", "))
        }
        (Cause::New, _) => match &row.asked_by {
            Some(asker) => format!("new, for {asker}"),
            None => words::changes::cause(Cause::New).to_owned(),
        },
        (Cause::Copies, _) => {
            let copies = usize::try_from(row.modules.copies.unsigned_abs()).unwrap_or(usize::MAX);
            let copies = count(copies, "copy");
            format!("{copies} {}", if row.modules.copies < 0 { "fewer" } else { "more" })
        }
        (Cause::Modules, _) => {
            let ways = [(row.modules.new, "new"), (row.modules.gone, "gone")];
            let said = ways.iter().filter(|(number, _)| *number > 0);
            let said: Vec<_> =
                said.map(|(number, way)| format!("{} {way}", count(*number, "module"))).collect();
            said.join(", ")
        }
        (Cause::Edited, _) => format!("source of {} edited", count(row.modules.edited, "module")),
        (cause, _) => words::changes::cause(cause).to_owned(),
    };
    One {
        name: plain(&row.name).into_owned(),
        before: row.before,
        after: row.after,
        because: plain(&because).into_owned(),
        is_estimated: row.estimated,
    }
}

fn module(row: &ModuleRow) -> One {
    One {
        name: plain(&row.name).into_owned(),
        before: row.before,
        after: row.after,
        because: words::changes::cause(row.cause).to_owned(),
        is_estimated: row.estimated,
    }
}

fn chunk(row: &ChunkRow) -> One {
    let (before, after) = (row.before.as_deref(), row.after.as_deref());
    let name = match (before, after) {
        (Some(a), Some(b)) if a != b => format!("{} (was {})", plain(b), plain(a)),
        (_, Some(name)) | (Some(name), None) => plain(name).into_owned(),
        (None, None) => String::new(),
    };
    let because = row.because.as_ref().map(words::changes::because);
    let because = because.unwrap_or_else(|| row.change.name().to_owned());
    let because = plain(&because).into_owned();
    let (before, after) = (row.sizes_before, row.sizes_after);
    One { name, before, after, because, is_estimated: false }
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
    let mut text = format!("\n{}\n", bold("What need not be there:"));
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
