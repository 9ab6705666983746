//! The survey: the answer as a sentence, then each entry with its bar and its files.

mod bars;
mod brief;
mod entry;
mod notes;

use std::collections::{BTreeMap, BTreeSet};

use bars::legend;
use brief::lines;
use entry::one_entry;
pub(crate) use notes::mostly;
use notes::{Notes, READABLE};
use uvlet_audit::ask::survey::{EntryRow, Moment, Survey};
use uvlet_record::{Mode, Record};

use crate::{
    name::{fitted, plain, width},
    screen::{Screen, bold, count, dim, measures_said, wrapped},
    words::bases,
};

/// Entries that the first sentence names.
const SAID: usize = 4;
/// What is said first of a build that visitors never get.
pub(crate) const DEVELOPMENT: &str =
    "A DEVELOPMENT BUILD: these are not the sizes that visitors get.";
/// Requests of other hosts that are listed; the rest is one line.
const ELSEWHERE: usize = 8;
/// So many entries get a full account; of more, each is a line.
const FULL: usize = 12;
/// Which entries get a full account, and how full.
#[derive(Clone, Debug, Default)]
pub struct Detail {
    /// The entries named; where none is, all of them if there are few.
    pub entries: Vec<String>,
    /// List every file and every load.
    pub all: bool,
}

/// Shows a survey.
#[must_use]
pub fn survey(survey: &Survey, record: &Record, screen: &Screen, detail: &Detail) -> String {
    let mut text = String::new();
    if survey.build.mode == Mode::Development {
        text.push_str(&bold(&wrapped(DEVELOPMENT, screen.columns(), 0)));
        text.push('\n');
    }
    text.push_str(&bold(&wrapped(&sentence(survey, screen, &detail.entries), screen.columns(), 0)));
    text.push('\n');
    text.push_str(&wrapped(&build(survey, record, screen), screen.columns(), 0));
    text.push_str("\n\n");
    let mut entries: Vec<&EntryRow> = survey.entries.iter().collect();
    let startup = |entry: &EntryRow| entry.startup.sizes.get(screen.measure);
    let deferred = |entry: &EntryRow| entry.deferred.sizes.get(screen.measure);
    entries.sort_by(|a, b| startup(b).cmp(&startup(a)).then_with(|| a.name.cmp(&b.name)));
    if !entries.is_empty() {
        text.push_str(&legend(&entries, screen));
        text.push('\n');
    }
    let scale = entries.iter().map(|entry| startup(entry) + deferred(entry)).max().unwrap_or(0);
    let notes = Notes::of(survey, record);
    let is_full = |entry: &EntryRow| match detail.entries.is_empty() {
        true => entries.len() <= FULL,
        false => detail.entries.contains(&entry.name),
    };
    let (full, brief): (Vec<&EntryRow>, Vec<&EntryRow>) =
        entries.iter().copied().partition(|entry| is_full(entry));
    for entry in &full {
        text.push('\n');
        text.push_str(&one_entry(entry, survey, screen, scale, &notes, detail.all));
    }
    if full.is_empty() {
        text.push('\n');
        text.push_str(&lines(&brief, &notes, screen, scale, detail.all));
    }
    text.push('\n');
    text.push_str(&wrapped(&folder(survey, record, screen), screen.columns(), 0));
    text.push('\n');
    text.push_str(&elsewhere(survey, screen, detail.all));
    text
}

/// What is asked of other hosts: a URL once, whoever asks.
fn elsewhere(survey: &Survey, screen: &Screen, all: bool) -> String {
    let mut urls: BTreeMap<(Moment, &str), BTreeSet<&str>> = BTreeMap::new();
    for row in &survey.elsewhere {
        let entries = urls.entry((row.when, row.url.as_str())).or_default();
        entries.extend(row.entries.iter().map(String::as_str));
    }
    if urls.is_empty() {
        return String::new();
    }
    let head = format!("Loaded from other hosts, not counted: {}.", count(urls.len(), "request"));
    let mut text = format!("\n{}\n", wrapped(&head, screen.columns(), 0));
    let shown = if all { urls.len() } else { ELSEWHERE.min(urls.len()) };
    let lines = urls.iter().take(shown).map(|((when, url), entries)| {
        let when = if *when == Moment::Startup { "startup" } else { "later" };
        let by = match entries.len() {
            0 => "no entry".to_owned(),
            1 => plain(entries.first().copied().unwrap_or_default()).into_owned(),
            more => count(more, "entry"),
        };
        (when, plain(url), by)
    });
    let lines: Vec<_> = lines.collect();
    let by = lines.iter().map(|(.., by)| width(by)).max().unwrap_or(0);
    let room = screen.columns().saturating_sub(by + 13).max(READABLE);
    let wide = lines.iter().map(|(_, url, _)| width(url)).max().unwrap_or(0).min(room);
    for (when, url, by) in &lines {
        let url = fitted(url, wide);
        let gap = " ".repeat(wide - width(&url));
        text.push_str(&format!("  {when:<7}  {url}{gap}  {by}\n"));
    }
    if shown < urls.len() {
        let more = count(urls.len() - shown, "more request");
        text.push_str(&dim(&format!("  and {more}; --all lists them\n")));
    }
    text
}

/// What each page costs before it runs, or each of those that were asked for.
pub(crate) fn sentence(survey: &Survey, screen: &Screen, asked: &[String]) -> String {
    let units = screen.units;
    let is_asked = |entry: &&EntryRow| asked.is_empty() || asked.contains(&entry.name);
    let mut entries: Vec<&EntryRow> = survey.entries.iter().filter(is_asked).collect();
    entries.sort_by_key(|entry| std::cmp::Reverse(entry.startup.sizes.get(screen.measure)));
    let said = entries.iter().take(SAID).enumerate().map(|(at, entry)| {
        let startup = &entry.startup;
        let size = units.size(startup.sizes.get(screen.measure));
        let files = count(startup.file_count, "file");
        let name = plain(&entry.name);
        let at_once = entry.at_once.sizes.get(screen.measure);
        let more = at_once.saturating_sub(startup.sizes.get(screen.measure));
        let at_once = match (more, at) {
            (0, _) => String::new(),
            (more, 0) => format!(", plus {} immediately after", units.size(more)),
            (more, _) => format!(" plus {} immediately after", units.size(more)),
        };
        match at {
            0 => format!("{name} downloads {size} ({}) in {files}{at_once}", screen.measure),
            _ => format!("{name} {size} in {files}{at_once}"),
        }
    });
    let said: Vec<String> = said.collect();
    if said.is_empty() {
        return "No entry was found: nothing in this folder says what a page starts from."
            .to_owned();
    }
    let more = match entries.len().saturating_sub(SAID) {
        0 => String::new(),
        more => {
            format!(", and {} less each", count(more, "more entry"))
        }
    };
    format!("Before it runs, {}{more}.", said.join(", "))
}

pub(crate) fn build(survey: &Survey, record: &Record, screen: &Screen) -> String {
    let build = &survey.build;
    let evidence =
        build.mode_evidence.first().map(|basis| format!(" ({})", plain(&bases::of_mode(basis))));
    let evidence = evidence.unwrap_or_default();
    let mode = match build.mode {
        Mode::Production => format!("production build{evidence}"),
        Mode::Development => format!("development build{evidence}"),
        Mode::Unclear => format!("unclear whether a production build{evidence}"),
    };
    let bundler = build.bundler.map(|bundler| {
        let version =
            build.bundler_version.as_deref().map(|version| format!(" {}", plain(version)));
        format!("built by {}{}, ", bundler.name(), version.unwrap_or_default())
    });
    let framework = build.framework.as_deref().map(|name| {
        let version =
            build.framework_version.as_deref().map(|version| format!(" {}", plain(version)));
        format!("{}{}, ", plain(name), version.unwrap_or_default())
    });
    format!(
        "{}: {}{}{mode}, for the {}. Sizes are {}.",
        plain(&build.label),
        framework.unwrap_or_default(),
        bundler.unwrap_or_default(),
        survey.build.target.name(),
        measures_said(screen.measures(), record)
    )
}

/// All that the folder holds.
pub(crate) fn folder(survey: &Survey, record: &Record, screen: &Screen) -> String {
    let sizes: Vec<String> = screen
        .measures()
        .map(|measure| {
            let size = screen.units.size(survey.totals.sizes.get(measure));
            if screen.also.is_empty() { size } else { format!("{size} {measure}") }
        })
        .collect();
    let kinds = survey.kinds.iter().map(|row| count(row.file_count, row.kind.name()));
    let kinds = kinds.collect::<Vec<_>>().join(", ");
    let mut text = format!("All files that count: {} in {kinds}.", sizes.join(", "));
    let mut aside: BTreeMap<&str, usize> = BTreeMap::new();
    for file in &survey.aside {
        *aside.entry(file.kind.name()).or_default() += 1;
    }
    if !aside.is_empty() {
        let kinds: Vec<String> = aside.iter().map(|(kind, files)| count(*files, kind)).collect();
        text.push_str(&format!(" Excluded from totals: {}.", kinds.join(", ")));
    }
    let apart = survey.set_aside.iter().filter(|part| part.reason != part.target);
    let apart: Vec<String> = apart
        .map(|part| {
            let size = screen.units.size(part.bytes);
            format!("{}, {size} in {}", part.reason, count(part.file_count, "file"))
        })
        .collect();
    if !apart.is_empty() {
        text.push_str(&format!(" Not served, and not read: {}.", apart.join("; ")));
    }
    match record.unresolved.len() {
        0 => {}
        1 => text.push_str(" 1 dynamic load could not be resolved."),
        loads => text.push_str(&format!(" {loads} dynamic loads could not be resolved.")),
    }
    if !survey.unplaced.is_empty() {
        let named: Vec<_> = survey.unplaced.iter().take(3).map(|path| plain(path)).collect();
        let more = if survey.unplaced.len() > 3 { " and others" } else { "" };
        text.push_str(&format!(
            " In no entry: {} ({}{more}).",
            count(survey.unplaced.len(), "file"),
            named.join(", ")
        ));
    }
    text
}
