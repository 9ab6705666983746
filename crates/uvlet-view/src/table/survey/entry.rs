//! One entry in full: its bar, its files, its loads, its routes.

use uvlet_audit::ask::survey::{EntryRow, LoadRow, Survey, VisitRow};
use uvlet_record::sizes::Measure;

use super::{
    bars::parts,
    notes::{Notes, READABLE, mostly},
};
use crate::{
    bar::{PARTS, draw},
    name::{fitted, plain, width},
    screen::{Screen, bold, count, dim, wrapped},
};

/// Files of an entry that are listed; the rest is one line.
const LISTED: usize = 12;

/// Late files of an entry that are named.
const LATE: usize = 3;

/// Loads of an entry that are listed; the rest is one line.
const LOADS: usize = 8;

/// Routes that an entry's code opens and that are named.
const ROUTES: usize = 10;

pub(super) fn one_entry(
    entry: &EntryRow,
    survey: &Survey,
    screen: &Screen,
    scale: u64,
    notes: &Notes<'_>,
    all: bool,
) -> String {
    let units = screen.units;
    let measure = screen.measure;
    let parts = parts(entry, screen);
    let aliases = match entry.pages.len().saturating_sub(1) {
        0 => String::new(),
        more => format!(" and {}", count(more, "page") + " like it"),
    };
    let startup = &entry.startup;
    let at_once = entry.at_once.sizes.get(measure).saturating_sub(startup.sizes.get(measure));
    let early = entry.at_once.file_count.saturating_sub(startup.file_count);
    let deferred = match entry.deferred.file_count.saturating_sub(early) {
        0 if early > 0 => "nothing later".to_owned(),
        0 => "nothing deferred".to_owned(),
        files => {
            let later = units.size(parts[5].saturating_sub(at_once));
            format!("{later} deferred in {}", count(files, "file"))
        }
    };
    let deferred = match early {
        0 => deferred,
        files => {
            format!("{} more at once in {}, {deferred}", units.size(at_once), count(files, "file"))
        }
    };
    let columns = screen.columns();
    let name = plain(&entry.name);
    let startup = units.size(entry.startup.sizes.get(measure));
    let rounds = match entry.startup.rounds {
        0 | 1 => String::new(),
        rounds => format!(" in {}", count(rounds, "round")),
    };
    let head = format!("{name}{aliases}: {startup} at startup{rounds}, {deferred}");
    let head = wrapped(&head, columns, 4);
    // Styles would count as columns, so they come after wrapping.
    let mut text = match head.strip_prefix(&*name) {
        Some(rest) => format!("{}{rest}\n", bold(&name)),
        None => format!("{head}\n"),
    };
    text.push_str(&format!("  {}\n", draw(&parts, scale, columns - 4)));
    let split = PARTS.iter().zip(parts).take(5).filter(|(_, bytes)| *bytes > 0);
    let split: Vec<String> =
        split.map(|(part, bytes)| format!("{} {}", part.word, units.size(bytes))).collect();
    let shared = match entry.startup.shared.get(measure) {
        0 => String::new(),
        shared => format!("; {} of it shared with other entries", units.size(shared)),
    };
    text.push_str(&wrapped(&format!("  {}{shared}", split.join(", ")), columns, 2));
    text.push('\n');
    for &measure in &screen.also {
        let line = format!(
            "  {measure}: {} at startup, {} deferred",
            units.size(entry.startup.sizes.get(measure)),
            units.size(entry.deferred.sizes.get(measure)),
        );
        text.push_str(&wrapped(&line, columns, 4));
        text.push('\n');
    }
    let carried = entry.carried.as_ref().map_or(0, |sizes| sizes.get(measure));
    if carried > 0 {
        let line = format!(
            "  {} of it is unused by {} (it shares a chunk)",
            units.size(carried),
            plain(&entry.name)
        );
        text.push_str(&format!("{}\n", wrapped(&line, columns, 4)));
    }
    text.push_str(&files(entry, screen, notes, all));
    text.push_str(&late(entry, screen));
    text.push_str(&loads(entry, screen, all));
    text.push_str(&visits(entry, survey, screen));
    text
}

/// What an entry can load on demand: when, what is asked for, what it adds, and what that mostly is.
fn loads(entry: &EntryRow, screen: &Screen, all: bool) -> String {
    let loads = &entry.deferred.loads;
    if loads.is_empty() {
        return String::new();
    }
    let shown = if all || loads.len() <= LOADS + 1 { loads.len() } else { LOADS };
    let line = |load: &LoadRow| {
        let mostly = load.mostly.as_deref().map(|kin| mostly(kin, load.others));
        [
            load.when.name().to_owned(),
            plain(&load.request).into_owned(),
            format!("+{}", screen.units.size(load.sizes.get(screen.measure))),
            mostly.unwrap_or_default(),
        ]
    };
    let lines: Vec<[String; 4]> = loads[..shown].iter().map(line).collect();
    let wide = |at: usize| lines.iter().map(|line| width(&line[at])).max().unwrap_or(0);
    let (sizes, room) = (wide(2), screen.columns().saturating_sub(wide(2) + 17));
    // Names give way first, but not below what tells them apart.
    let mostly = wide(3).min(room / 2);
    let names = wide(1).min(room.saturating_sub(mostly + 2));
    let head = "  On demand (size added to what is loaded):";
    let mut text = format!("{}\n", wrapped(head, screen.columns(), 4));
    for [when, request, size, holds] in &lines {
        let request = fitted(request, names);
        let gap = " ".repeat(names - width(&request));
        let line =
            format!("    {when:<7}  {request}{gap}  {size:>sizes$}  {}", fitted(holds, mostly));
        text.push_str(line.trim_end());
        text.push('\n');
    }
    if shown < loads.len() {
        let more = count(loads.len() - shown, "more load");
        text.push_str(&dim(&format!("    and {more}; --all lists them\n")));
    }
    text
}

/// What the routes add that the entry's code opens, the heaviest first.
fn visits(entry: &EntryRow, survey: &Survey, screen: &Screen) -> String {
    let mut rows: Vec<&VisitRow> =
        survey.visits.iter().filter(|visit| visit.entry == entry.name).collect();
    if rows.is_empty() {
        return String::new();
    }
    let size = |row: &VisitRow| row.adds.sizes.get(screen.measure);
    rows.sort_by(|a, b| size(b).cmp(&size(a)).then_with(|| a.route.cmp(&b.route)));
    let adds = |row: &&VisitRow| format!("{}: {}", plain(&row.route), screen.units.size(size(row)));
    let mut said: Vec<String> = rows.iter().take(ROUTES).map(adds).collect();
    if rows.len() > ROUTES {
        said.push(format!("and {} less each", count(rows.len() - ROUTES, "more route")));
    }
    let line = format!("  what its routes add: {}", said.join(", "));
    format!("{}\n", wrapped(&line, screen.columns(), 4))
}

/// Scripts and styles that are asked for only once another file has arrived that the page names.
fn late(entry: &EntryRow, screen: &Screen) -> String {
    let is_code = |path: &str| [".js", ".mjs", ".css"].iter().any(|ending| path.ends_with(ending));
    let late: Vec<String> = entry
        .startup
        .requests
        .iter()
        .filter(|one| one.round > 2 && is_code(&one.path))
        .map(|one| {
            let by = one.by.as_deref().unwrap_or_default();
            format!("{} in round {}, named by {}", plain(&one.path), one.round, plain(by))
        })
        .collect();
    if late.is_empty() {
        return String::new();
    }
    let more = match late.len().saturating_sub(LATE) {
        0 => String::new(),
        more => format!("; and {more} more"),
    };
    let shown = late.iter().take(LATE).cloned().collect::<Vec<_>>().join("; ");
    format!("{}\n", wrapped(&format!("  late: {shown}{more}"), screen.columns(), 4))
}

/// The entry's files in the order they load, with their sizes in every measure of the screen that
/// there is room for beside readable names.
fn files(entry: &EntryRow, screen: &Screen, notes: &Notes<'_>, all: bool) -> String {
    let measures: Vec<Measure> = screen.measures().collect();
    let lines = file_lines(entry, screen, notes, &measures, all);
    lines.or_else(|| file_lines(entry, screen, notes, &measures[..1], all)).unwrap_or_default()
}

/// The lines, unless too little room is left for names; of one measure there are always lines.
fn file_lines(
    entry: &EntryRow,
    screen: &Screen,
    notes: &Notes<'_>,
    measures: &[Measure],
    every: bool,
) -> Option<String> {
    let all = &entry.startup.files;
    let shown = if !every && all.len() > LISTED + 1 { LISTED } else { all.len() };
    let sum = |paths: &[String], measure| -> u64 {
        paths.iter().map(|path| notes.size(path, measure)).sum()
    };
    let said = |paths: &[String]| -> Vec<String> {
        let one = |&measure: &Measure| {
            let size = screen.units.size(sum(paths, measure));
            // One measure alone is named in the first sentence.
            if measures.len() == 1 { size } else { format!("{size} {measure}") }
        };
        measures.iter().map(one).collect()
    };
    let mut lines: Vec<(String, String, Vec<String>)> = Vec::new();
    for (at, path) in all[..shown].iter().enumerate() {
        let name = match notes.holds.get(path.as_str()) {
            Some(holds) => format!("{}  {holds}", plain(path)),
            None => plain(path).into_owned(),
        };
        lines.push(((at + 1).to_string(), name, said(std::slice::from_ref(path))));
    }
    if shown < all.len() {
        let name = format!("and {}", count(all.len() - shown, "more file"));
        lines.push((String::new(), name, said(&all[shown..])));
    }
    let column = |at: usize| {
        lines.iter().filter_map(|(.., sizes)| Some(width(sizes.get(at)?))).max().unwrap_or(0)
    };
    let columns: Vec<usize> = (0..measures.len()).map(column).collect();
    let taken = columns.iter().map(|wide| wide + 2).sum::<usize>() + 8;
    let longest = lines.iter().map(|(_, name, _)| width(name)).max().unwrap_or(0);
    let room = screen.columns().saturating_sub(taken);
    if measures.len() > 1 && room < longest.min(READABLE) {
        return None;
    }
    let names = longest.max(24).min(room.max(12));
    let mut text = String::new();
    for (number, name, sizes) in &lines {
        // Where there is no room for both, what a file holds tells more than its hash.
        let holds = name.split_once("  ").map(|(_, holds)| holds);
        let name = match holds.filter(|_| width(name) > names) {
            Some(holds) => match holds.rsplit_once(", ").filter(|_| width(holds) > names) {
                Some((heaviest, _)) => fitted(heaviest, names),
                None => fitted(holds, names),
            },
            None => fitted(name, names),
        };
        let mut line = format!("  {number:>4}  {name}{}", " ".repeat(names - width(&name)));
        for (size, column) in sizes.iter().zip(&columns) {
            line.push_str(&format!("  {size:>column$}"));
        }
        line.push('\n');
        text.push_str(&if number.is_empty() { dim(&line) } else { line });
    }
    Some(text)
}
