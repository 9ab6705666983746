//! What could be removed: the answer in a sentence, then each finding with what it would save, what it
//! comes from and what to do.

use crate::words::judged::missing;
use std::collections::BTreeMap;

use uvlet_audit::{
    ask::why::{Chain, Why},
    find::{
        about::Awaited,
        finding::{Accepted, Bound, EntryShare, Finding, Part, Together},
        judged::Judged,
        kind::Kind,
        waste::Waste,
    },
};
use uvlet_record::{Record, sizes::Sizes};

use super::why::one_chain;
use crate::screen::{Screen, bold, count, dim, measures_said, wrapped};
use crate::{
    name::{fitted, plain, width},
    words::findings::{advice, awaited, cause, part_text, title},
};

/// Share of the bytes, in thousandths of a percent, beyond which nothing is said of the rest.
const NEARLY_ALL: u64 = 95_000;
/// Entries that are named after a finding.
const NAMED: usize = 3;
/// Names of a finding that its evidence lists.
const LISTED: usize = 40;

/// The findings that are worth a paragraph: those that save less are counted.
pub(crate) fn worth<'w>(waste: &'w Waste, least: u64, screen: &Screen) -> Vec<&'w Finding> {
    let saves = |finding: &Finding| {
        let shares = finding.by_entry.iter().map(|share| share.sizes.get(screen.measure));
        shares.max().unwrap_or(0).max(finding.recoverable.get(screen.measure))
    };
    waste.findings.iter().filter(|finding| saves(finding) >= least).collect()
}

/// How many findings are not listed, and what lists them.
pub(crate) fn more(
    waste: &Waste,
    shown: usize,
    worth: usize,
    least: u64,
    screen: &Screen,
) -> Option<String> {
    let hidden = waste.findings.len() - shown;
    if hidden == 0 {
        return None;
    }
    let more = match shown {
        0 => count(hidden, "finding"),
        _ => format!("and {}", count(hidden, "more finding")),
    };
    let them = if hidden == 1 { "it" } else { "them" };
    Some(match shown < worth {
        true => format!("{more}; --top 0 --min 0 lists {them}"),
        false => {
            let least = screen.units.size(least);
            let each = if hidden == 1 { "" } else { " each" };
            format!("{more} of less than {least}{each}; --min 0 lists {them}")
        }
    })
}

/// Shows what need not be there; `top` limits the findings, as `least` does, which they save at least.
#[must_use]
pub fn waste(
    waste: &Waste,
    record: &Record,
    screen: &Screen,
    top: Option<usize>,
    least: u64,
) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n", bold(&wrapped(&sentence(waste, screen), columns, 0)));
    if let Some(whole) = whole(waste, screen) {
        text.push_str(&format!("{}\n", wrapped(&whole, columns, 0)));
    }
    if let Some(unseen) = unseen(waste, screen).filter(|_| !waste.findings.is_empty()) {
        text.push_str(&format!("{}\n", wrapped(&unseen, columns, 0)));
    }
    let worth = worth(waste, least, screen);
    let shown = top.unwrap_or(usize::MAX).min(worth.len());
    let mut before: Option<&Finding> = None;
    for &finding in &worth[..shown] {
        let is_like = |before: &Finding| {
            before.kind == finding.kind
                && cause(before) == cause(finding)
                && advice(&before.about) == advice(&finding.about)
        };
        // What is said alike is said once.
        match before.is_some_and(is_like) {
            true => text.push_str(&brief(finding, screen)),
            false => text.push_str(&format!("\n{}", one(finding, screen))),
        }
        before = Some(finding);
    }
    if let Some(more) = more(waste, shown, worth.len(), least, screen) {
        text.push_str(&dim(&format!("\n{}\n", wrapped(&more, columns, 2))));
    }
    let said = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

fn size(sizes: &Sizes, screen: &Screen) -> String {
    screen.units.size(sizes.get(screen.measure))
}

/// The answer.
pub(crate) fn sentence(waste: &Waste, screen: &Screen) -> String {
    let Some(first) = waste.findings.first() else {
        return match unseen(waste, screen) {
            Some(unseen) => format!("No waste found in what could be checked. {unseen}"),
            None => "No waste found.".to_owned(),
        };
    };
    let is_sure = waste.findings.iter().all(|finding| finding.bound == Bound::Exact);
    let up_to = if is_sure { "" } else { "up to " };
    let title = title(&first.about);
    let title = plain(&title);
    let largest = format!("Largest: {}, {title}.", first.id);
    let units = screen.units;
    match waste.at_startup.first() {
        Some(most) if !first.by_entry.is_empty() => {
            let entry = plain(&most.entry);
            let all = most.sizes.get(screen.measure);
            let removable = waste.removable_at_startup.iter().find(|one| one.entry == most.entry);
            let removable = removable.map_or(0, |one| one.sizes.get(screen.measure));
            let how = match (removable, all.saturating_sub(removable)) {
                (_, 0) => String::new(),
                (0, _) => ", by loading code on demand".to_owned(),
                (removed, later) => format!(
                    ": {} by removing code, {} by loading code on demand",
                    units.size(removed),
                    units.size(later)
                ),
            };
            let all = units.size(all);
            match &waste.together {
                Some(together) => format!("{} {largest}", predicted(together, waste, screen)),
                None => format!(
                    "{entry} could start with {up_to}{all} ({}) less{how}. {largest}",
                    screen.measure
                ),
            }
        }
        _ => format!(
            "The build could save {up_to}{} ({}), but no entry's startup would shrink. {largest}",
            size(&waste.recoverable, screen),
            screen.measure
        ),
    }
}

/// What the largest findings really save together, and what all of them may.
fn predicted(together: &Together, waste: &Waste, screen: &Screen) -> String {
    let Together { share, findings } = together;
    let mended = match findings {
        1 if waste.findings.first().is_some_and(|first| first.predicted.is_some()) => {
            "if the largest finding were fixed".to_owned()
        }
        1 => "if one finding were fixed".to_owned(),
        more => format!("if {more} findings were fixed"),
    };
    // A bound is of what may go by itself; what a prediction takes with it may be more.
    let of = |sizes: &Sizes| sizes.get(screen.measure);
    let reads_alike = |all: &Sizes| size(all, screen) == size(&share.sizes, screen);
    let all = waste.at_startup.iter().find(|all| all.entry == share.entry);
    let all = all.filter(|all| of(&all.sizes) > of(&share.sizes) && !reads_alike(&all.sizes));
    let all = all.map(|all| format!("; all findings come to {} at most", size(&all.sizes, screen)));
    let all = all.unwrap_or_default();
    format!(
        "{} would start with {} ({}) less {mended}, by a prediction{all}.",
        plain(&share.entry),
        size(&share.sizes, screen),
        screen.measure
    )
}

/// What of the build was not looked at; none where that is next to nothing.
pub(crate) fn unseen(waste: &Waste, screen: &Screen) -> Option<String> {
    let is_by_map = waste.judged.iter().any(|one| one.kind.is_of_scripts());
    let has_rules = waste.judged.iter().any(|one| !one.kind.is_of_scripts() && one.bytes > 0);
    let styles = (waste.unjudged_styles > 0 && is_by_map).then(|| {
        let bytes = screen.units.size(waste.unjudged_styles);
        let but = if has_rules { ", but for rules" } else { "" };
        format!("{bytes} (emitted) of styles could not be checked{but}: they have no source maps.")
    });
    let parts: Vec<String> = unchecked(&waste.judged).into_iter().chain(styles).collect();
    (!parts.is_empty()).then(|| parts.join(" "))
}

/// How much of the build the kinds could judge; none where that is nearly all.
pub(crate) fn unchecked(judged: &[Judged]) -> Option<String> {
    let is_unseen = |one: &&Judged| !one.is_at_least(NEARLY_ALL);
    let of_styles = judged.iter().find(|one| is_unseen(one) && !one.kind.is_of_scripts());
    let of_styles = of_styles.map(|one| {
        let (percent, why) = (one.percent(), missing(&one.lacks));
        format!("Rules were looked at in {percent}% of the style bytes{why}.")
    });
    let of_scripts = unchecked_scripts(judged);
    let both: Vec<String> = of_scripts.into_iter().chain(of_styles).collect();
    (!both.is_empty()).then(|| both.join(" "))
}

fn unchecked_scripts(judged: &[Judged]) -> Option<String> {
    let is_unseen = |one: &&Judged| !one.is_at_least(NEARLY_ALL) && one.kind.is_of_scripts();
    let unseen: Vec<&Judged> = judged.iter().filter(is_unseen).collect();
    let failed: Vec<&str> =
        unseen.iter().filter(|one| one.has_failed).map(|one| one.kind.name()).collect();
    if !failed.is_empty() {
        return Some(format!("A fault of uvlet kept it from judging {}.", failed.join(", ")));
    }
    let worst = unseen.iter().min_by_key(|one| one.percent())?;
    let best = unseen.iter().max_by_key(|one| one.percent())?;
    let share = match (worst.percent(), best.percent()) {
        (worst, best) if worst == best => format!("{worst}%"),
        (worst, best) => format!("{worst}% to {best}%"),
    };
    let of = match unseen.iter().any(|one| one.kind.is_of_styles()) {
        true => "script and mapped style bytes",
        false => "script bytes",
    };
    let kinds = match unseen.len() == judged.len() {
        true => "All kinds".to_owned(),
        false => format!("{} of {} kinds", unseen.len(), judged.len()),
    };
    Some(format!("{kinds} of waste could check only {share} of the {of}{}.", missing(&worst.lacks)))
}

/// All findings together.
pub(crate) fn whole(waste: &Waste, screen: &Screen) -> Option<String> {
    let of = |sizes: &Sizes| sizes.get(screen.measure);
    let gone = || waste.findings.iter().filter(|finding| !finding.kind.stays());
    let findings = gone().count();
    let sum: u64 = gone().map(|finding| of(&finding.recoverable)).sum();
    let overlap = match of(&waste.recoverable) < sum {
        true => " They overlap, so this is less than their sum.",
        false => "",
    };
    let later = match waste.findings.len() - findings {
        0 => String::new(),
        1 => " 1 more finding could be deferred.".to_owned(),
        more => format!(" {more} more findings could be deferred."),
    };
    (findings > 1).then(|| {
        format!(
            "{} together: {} of the build.{overlap}{later}",
            count(findings, "finding"),
            size(&waste.recoverable, screen)
        )
    })
}

/// `at most 12.0 kB of the build; at startup of timetable 12.0 kB, booking 3.1 kB`.
pub(crate) fn saving(finding: &Finding, screen: &Screen) -> String {
    let bound = if finding.bound == Bound::AtMost { "at most " } else { "" };
    let shares: Vec<String> = finding
        .by_entry
        .iter()
        .take(NAMED)
        .map(|EntryShare { entry, sizes }| format!("{} {}", plain(entry), size(sizes, screen)))
        .collect();
    let more = match finding.by_entry.len().saturating_sub(NAMED) {
        0 => String::new(),
        more => format!(" and {more} more"),
    };
    let startup = format!("at startup of {}{more}", shares.join(", "));
    let whole = size(&finding.recoverable, screen);
    let leaves = match finding.kind.stays() {
        true => "to load later",
        false => "of the build",
    };
    match (shares.is_empty(), finding.recoverable.get(screen.measure)) {
        (true, _) => format!("{bound}{whole} {leaves}, no entry's startup among it"),
        (false, 0) => {
            format!("{startup} {bound}").trim_end().to_owned() + "; the build keeps it for others"
        }
        (false, _) => format!("{bound}{whole} {leaves}; {startup}"),
    }
}

fn one(finding: &Finding, screen: &Screen) -> String {
    let mut text = brief(finding, screen);
    for line in [
        format!("because {}", plain(&cause(finding))),
        format!("do      {}", plain(&advice(&finding.about))),
    ] {
        text.push_str(&format!("{}\n", wrapped(&format!("  {line}"), screen.columns(), 10)));
    }
    text
}

/// What it is, and what it would save.
fn brief(finding: &Finding, screen: &Screen) -> String {
    let title = format!("{}  {}", finding.id, plain(&title(&finding.about)));
    let title = bold(&wrapped(&title, screen.columns(), 2));
    let saving = format!("  {}", saving(finding, screen));
    let mut text = format!("{title}\n{}\n", wrapped(&saving, screen.columns(), 2));
    if let Some(EntryShare { entry, sizes }) = &finding.predicted {
        let saved = size(sizes, screen);
        let line = format!("  by a prediction, {} would start with {saved} less", plain(entry));
        text.push_str(&format!("{}\n", wrapped(&line, screen.columns(), 2)));
    }
    if let Some(Accepted { until, reason }) = &finding.waived {
        let waived = format!("  waived  until {until}: {}", plain(reason));
        text.push_str(&format!("{}\n", wrapped(&waived, screen.columns(), 10)));
    }
    text
}

/// The start of a text, in so many columns.
fn shortened(text: &str, columns: usize) -> String {
    let text = plain(text);
    if width(&text) <= columns {
        return text.into_owned();
    }
    let mut shown = String::new();
    for c in text.chars() {
        if width(&shown) + 2 > columns {
            break;
        }
        shown.push(c);
    }
    format!("{shown}…")
}

/// A declaration: its bytes, its name, the start of its text.
fn declared(part: &Part, screen: &Screen) -> String {
    let size = screen.units.size(part.emitted);
    let from = part.module.as_deref().unwrap_or_default();
    let head = format!("  {size:>9}  {}  {}", plain(&part.name), dim(&plain(from)));
    let start = part_text(&part.text).split_whitespace().collect::<Vec<_>>().join(" ");
    format!("{head}\n             {}\n", shortened(&start, screen.columns().saturating_sub(13)))
}

/// A use: where it stands, what it waits for, the text around it.
fn used(part: &Part, line: usize, event: &Awaited, screen: &Screen) -> String {
    let from = part.module.as_deref().unwrap_or_default();
    let head = format!(
        "  {}:{line}  {} waits for {}",
        plain(from),
        plain(&part.name),
        plain(&awaited(event))
    );
    let quoted = shortened(&part_text(&part.text), screen.columns().saturating_sub(6));
    format!("{}\n      {}\n", wrapped(&head, screen.columns(), 4), dim(&quoted))
}

/// Shows one finding with all that it stands on: the paths, how the entry that gains most comes to the
/// first of them, and where their bytes are.
#[must_use]
pub fn evidence(finding: &Finding, why: Option<&Why>, record: &Record, screen: &Screen) -> String {
    let mut text = one(finding, screen);
    text.push_str(&format!("\n{}\n", bold("What it is:")));
    let shown = LISTED.min(finding.paths.len());
    for path in &finding.paths[..shown] {
        text.push_str(&format!("  {}\n", fitted(path, screen.columns() - 2)));
    }
    if shown < finding.paths.len() {
        let more = finding.paths.len() - shown;
        text.push_str(&dim(&format!("  and {more} more; --format json lists them\n")));
    }
    let chain = why.and_then(|why| {
        let its = |chain: &&Chain| Some(&chain.entry) == finding.at.as_ref();
        Some((why, why.chains.iter().find(its).or(why.chains.first())?))
    });
    if let Some((why, chain)) = chain.filter(|(_, chain)| !chain.steps.is_empty()) {
        text.push_str(&format!("\n{}\n", bold("How it gets there:")));
        text.push_str(&one_chain(chain, why, screen));
    }
    if !finding.parts.is_empty() {
        let head = match finding.kind {
            Kind::Deferrable => "Where it is used, with the line in the source:",
            Kind::CopiedHelper => "Each of them, with the start of its text:",
            _ => "What nothing uses, with the start of its text:",
        };
        text.push_str(&format!("\n{}\n", bold(head)));
    }
    for part in finding.parts.iter().take(LISTED) {
        text.push_str(&match (part.line, &part.waits_for) {
            (Some(line), Some(event)) => used(part, line, event, screen),
            _ => declared(part, screen),
        });
    }
    if finding.parts.len() > LISTED {
        let more = finding.parts.len() - LISTED;
        text.push_str(&dim(&format!("  and {more} more; --format json lists them\n")));
    }
    let mut files: BTreeMap<&str, (u64, usize)> = BTreeMap::new();
    for place in &finding.places {
        let (bytes, stretches) = files.entry(&place.file).or_default();
        *bytes += place.length;
        *stretches += 1;
    }
    if !files.is_empty() {
        text.push_str(&format!("\n{}\n", bold("What of it could go, in emitted bytes:")));
        let wide = files.keys().map(|file| width(&plain(file))).max().unwrap_or(0);
        let wide = wide.min(screen.columns().saturating_sub(34));
        for (file, (bytes, stretches)) in files {
            let name = fitted(file, wide);
            let gap = " ".repeat(wide - width(&name));
            let size = screen.units.size(bytes);
            text.push_str(&format!("  {name}{gap}  {size:>9} in {}\n", count(stretches, "place")));
        }
    }
    let said = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", wrapped(&said, screen.columns(), 0)));
    text
}
