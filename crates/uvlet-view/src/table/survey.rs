//! The survey: the answer as a sentence, then each entry with its bar and its files.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_audit::ask::survey::{EntryRow, LoadRow, Moment, Startup, Survey, VisitRow};
use uvlet_record::{
    File, Kind, Mode, Record,
    sizes::{Measure, Sizes},
};

use crate::screen::{Screen, bold, count, dim, measures_said, styled, wrapped};
use crate::{
    bar::{PARTS, draw},
    name::{fitted, plain, width},
    words::bases,
};

/// Entries that the first sentence names.
const SAID: usize = 4;
/// What is said first of a build that visitors never get.
pub(crate) const DEVELOPMENT: &str =
    "A DEVELOPMENT BUILD: these are not the sizes that visitors get.";
/// Columns that a file's name needs to be told from others.
const READABLE: usize = 20;
/// Files of an entry that are listed; the rest is one line.
const LISTED: usize = 12;
/// Loads of an entry that are listed; the rest is one line.
const LOADS: usize = 8;
/// Requests of other hosts that are listed; the rest is one line.
const ELSEWHERE: usize = 8;
/// Routes that an entry's code opens and that are named.
const ROUTES: usize = 10;
/// So many entries get a full account; of more, each is a line.
const FULL: usize = 12;
/// Lines for entries that are listed; the rest is one line.
const BRIEF: usize = 40;

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
    text.push_str(&bold(&wrapped(&sentence(survey, screen), screen.columns(), 0)));
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
    let head =
        format!("From elsewhere, not counted: {} of other hosts.", count(urls.len(), "request"));
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

/// What is said of each file beside its name.
struct Notes<'a> {
    files: BTreeMap<&'a str, &'a File>,
    /// Of files whose name says nothing: what they hold.
    holds: BTreeMap<&'a str, String>,
}

impl<'a> Notes<'a> {
    fn of(survey: &'a Survey, record: &'a Record) -> Self {
        let files = record.files.iter().map(|file| (file.path.as_str(), file)).collect();
        let named = survey.chunks.iter().filter_map(|chunk| {
            let (holds, file) = (chunk.holds.as_ref()?, chunk.files.first()?);
            Some((file.as_str(), mostly(&holds.heaviest, holds.more)))
        });
        Self { files, holds: named.collect() }
    }

    /// The scripts and styles that an entry loads at startup.
    fn code<'e>(&self, entry: &'e EntryRow) -> BTreeSet<&'e str> {
        let is_code = |path: &&str| {
            let kind = self.files.get(path).map(|file| file.kind);
            matches!(kind, Some(Kind::Script | Kind::Style))
        };
        entry.startup.files.iter().map(String::as_str).filter(is_code).collect()
    }

    fn size(&self, path: &str, measure: Measure) -> u64 {
        let Some(file) = self.files.get(path) else { return 0 };
        match measure {
            Measure::Emitted => file.emitted,
            Measure::Coded(coding) => file.encoded.get(coding).copied().unwrap_or(0),
        }
    }
}

/// What each page costs before it runs.
pub(crate) fn sentence(survey: &Survey, screen: &Screen) -> String {
    let units = screen.units;
    let mut entries: Vec<&EntryRow> = survey.entries.iter().collect();
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
            (more, 0) => format!(", and {} at once besides", units.size(more)),
            (more, _) => format!(" and {} at once", units.size(more)),
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

/// The parts that occur, each with its pattern.
fn legend(entries: &[&EntryRow], screen: &Screen) -> String {
    let mut sums = [0; PARTS.len()];
    for entry in entries {
        for (sum, bytes) in sums.iter_mut().zip(parts(entry, screen)) {
            *sum += bytes;
        }
    }
    let mut text = String::new();
    let mut used = 0;
    for (part, _) in PARTS.iter().zip(sums).filter(|(_, sum)| *sum > 0) {
        let wide = 2 + 1 + part.word.len();
        let gap = if used == 0 { 0 } else { 2 };
        if used + gap + wide > screen.columns() {
            text.push('\n');
            used = wide;
        } else {
            text.push_str(&" ".repeat(gap));
            used += gap + wide;
        }
        text.push_str(&styled(part.style, &part.pattern.to_string().repeat(2)));
        text.push_str(&format!(" {}", part.word));
    }
    text
}

/// Bytes of an entry in the order of [`PARTS`].
fn parts(entry: &EntryRow, screen: &Screen) -> [u64; PARTS.len()] {
    let Startup { own, third_party, glue, assets, unattributed, .. } = &entry.startup;
    let parts = [own, third_party, glue, assets, unattributed, &entry.deferred.sizes];
    parts.map(|sizes| sizes.get(screen.measure))
}

/// `mostly burgee-plot, 5 more`.
pub(crate) fn mostly(heaviest: &str, others: usize) -> String {
    let more = if others > 0 { format!(", {others} more") } else { String::new() };
    format!("mostly {}{more}", plain(heaviest))
}

/// A line for each of many entries, the heaviest first; those that load the same code stand together.
fn lines(
    entries: &[&EntryRow],
    notes: &Notes<'_>,
    screen: &Screen,
    scale: u64,
    all: bool,
) -> String {
    let mut groups: Vec<(BTreeSet<&str>, Vec<&EntryRow>)> = Vec::new();
    let mut known: HashMap<BTreeSet<&str>, usize> = HashMap::new();
    for entry in entries {
        let code = notes.code(entry);
        let at = *known.entry(code.clone()).or_insert(groups.len());
        if at == groups.len() {
            groups.push((code, Vec::new()));
        }
        groups[at].1.push(entry);
    }
    let shown = if all { groups.len() } else { BRIEF.min(groups.len()) };
    let names = groups[..shown].iter().map(|(_, group)| width(&plain(&group[0].name)));
    let wide = names.max().unwrap_or(0).max("entry".len()).min(screen.columns() / 3);
    let bar = screen.columns().saturating_sub(wide + 36);
    let mut text = format!("{}    startup   deferred        own\n", pad("entry", wide));
    for (_, group) in &groups[..shown] {
        let entry = group[0];
        let size = |sizes: &Sizes| screen.units.size(sizes.get(screen.measure));
        let startup = &entry.startup;
        text.push_str(&format!(
            "{}  {:>9}  {:>9}  {:>9}  {}\n",
            pad(&fitted(&entry.name, wide), wide),
            size(&startup.sizes),
            size(&entry.deferred.sizes),
            size(&startup.own),
            draw(&parts(entry, screen), scale, bar)
        ));
        if group.len() > 1 {
            let names: Vec<_> = group[1..].iter().map(|entry| plain(&entry.name)).collect();
            let same = format!("  the same code: {}", names.join(", "));
            text.push_str(&dim(&format!("{}\n", wrapped(&same, screen.columns(), 4))));
        }
    }
    if shown < groups.len() {
        let rest: usize = groups[shown..].iter().map(|(_, group)| group.len()).sum();
        let more = count(rest, "more entry");
        text.push_str(&dim(&format!("and {more}; --all lists them\n")));
    }
    let hint = "--entry NAME shows an entry with its files and what it can load later.";
    text.push_str(&format!("\n{}\n", wrapped(hint, screen.columns(), 0)));
    text
}

fn pad(text: &str, wide: usize) -> String {
    format!("{text}{}", " ".repeat(wide.saturating_sub(width(text))))
}

fn one_entry(
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
    let head = wrapped(&format!("{name}{aliases}: {startup} at startup, {deferred}"), columns, 4);
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
            "  {} of it is carried along: nothing in {} reaches it",
            units.size(carried),
            plain(&entry.name)
        );
        text.push_str(&format!("{}\n", wrapped(&line, columns, 4)));
    }
    text.push_str(&files(entry, screen, notes, all));
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
    let head = "  and on demand, each beside what is there already:";
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
        let kinds: Vec<String> =
            aside.iter().map(|(kind, files)| format!("{files} {kind}")).collect();
        text.push_str(&format!(" Set aside, in no total: {}.", kinds.join(", ")));
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
        1 => text.push_str(" 1 dynamic load leads nowhere that can be told."),
        loads => text.push_str(&format!(" {loads} dynamic loads lead nowhere that can be told.")),
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
