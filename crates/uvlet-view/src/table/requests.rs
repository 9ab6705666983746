//! A build held against a network log: what was asked for otherwise than foretold, in a sentence, then page
//! by page.

use crate::words::remarks::fault;
use uvlet_audit::ask::requests::{Coded, PageRow, Requests};
use uvlet_record::Record;

use crate::name::plain;
use crate::screen::{Screen, bold, count, dim, measures_said, wrapped};

/// Files that a line names.
const NAMED: usize = 4;
/// Remarks that are listed.
const LISTED: usize = 12;

fn some(names: &[String]) -> String {
    let shown: Vec<_> = names.iter().take(NAMED).map(|name| plain(name)).collect();
    match names.len() - shown.len() {
        0 => shown.join(", "),
        more => format!("{} and {more} more", shown.join(", ")),
    }
}

fn name(page: &PageRow) -> String {
    match &page.entry {
        Some(entry) => plain(entry).into_owned(),
        None => plain(&page.url).into_owned(),
    }
}

/// The answer in a sentence.
pub(crate) fn sentence(answer: &Requests) -> String {
    let known: Vec<&PageRow> = answer.pages.iter().filter(|page| page.entry.is_some()).collect();
    if known.is_empty() {
        return "No page of the log is one of the build's.".to_owned();
    }
    let differs = |page: &&&PageRow| !page.not_foretold.is_empty() || !page.not_asked.is_empty();
    match known.iter().find(differs) {
        None if known.len() == 1 => {
            format!("{} requested exactly the predicted files.", name(known[0]))
        }
        None => format!("All {} pages requested exactly the predicted files.", known.len()),
        Some(page) => {
            let mut parts = Vec::new();
            if !page.not_foretold.is_empty() {
                let files = count(page.not_foretold.len(), "unpredicted file");
                parts.push(format!("requested {files} ({})", some(&page.not_foretold)));
            }
            if !page.not_asked.is_empty() {
                let files = count(page.not_asked.len(), "file");
                parts.push(format!(
                    "did not request {files} that {} predicted ({})",
                    if page.not_asked.len() == 1 { "was" } else { "were" },
                    some(&page.not_asked)
                ));
            }
            let others = known.iter().filter(differs).count() - 1;
            let others = match others {
                0 => String::new(),
                1 => "; 1 more page differs, too".to_owned(),
                more => format!("; {more} more pages differ, too"),
            };
            format!("{} {}{others}.", name(page), parts.join(" and "))
        }
    }
}

/// Shows what a log tells.
#[must_use]
pub fn requests(answer: &Requests, record: &Record, screen: &Screen) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n", bold(&wrapped(&sentence(answer), columns, 0)));
    for page in &answer.pages {
        text.push_str(&format!("\n{}\n", bold(&wrapped(&head(page), columns, 2))));
        for line in lines(page, screen) {
            text.push_str(&format!("{}\n", wrapped(&format!("  {line}"), columns, 4)));
        }
    }
    if !answer.remarks.is_empty() {
        text.push_str(&format!("\n{}\n", bold("On the server:")));
        for remark in answer.remarks.iter().take(LISTED) {
            let line = format!(
                "  {}  {}: {}",
                remark.fault.code(),
                plain(&remark.path),
                fault(remark.fault)
            );
            text.push_str(&format!("{}\n", wrapped(&line, columns, 4)));
        }
        if let Some(more) = answer.remarks.len().checked_sub(LISTED).filter(|more| *more > 0) {
            text.push_str(&dim(&format!("  and {more} more; --format json lists them\n")));
        }
    }
    if !answer.elsewhere.is_empty() {
        let hosts: Vec<String> = answer
            .elsewhere
            .iter()
            .map(|host| {
                let requests = count(host.requests, "request");
                format!("{} ({requests}, {})", plain(&host.host), screen.units.size(host.sent))
            })
            .collect();
        let line = format!("From elsewhere: {}.", hosts.join(", "));
        text.push_str(&format!("\n{}\n", wrapped(&line, columns, 2)));
    }
    let said = format!(
        "Wire sizes are those in the log. Sizes are {}.",
        measures_said(screen.measures(), record)
    );
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

fn head(page: &PageRow) -> String {
    let url = plain(&page.url);
    match &page.entry {
        Some(entry) => format!("{}  {url}", plain(entry)),
        None => format!("{url}: no entry of the build"),
    }
}

/// What is to be said of a page.
pub(crate) fn lines(page: &PageRow, screen: &Screen) -> Vec<String> {
    let mut lines = Vec::new();
    if page.entry.is_some() {
        let mut line = format!("{} at startup as predicted", count(page.as_foretold, "file"));
        if page.at_once > 0 {
            line.push_str(&format!(", {} at once", page.at_once));
        }
        if !page.later.is_empty() {
            line.push_str(&format!("; {} on demand", page.later.len()));
        }
        lines.push(line);
        let early = page.later.iter().filter(|late| late.before_load);
        let early: Vec<String> = early.map(|late| late.path.clone()).collect();
        if page.knows_load && !early.is_empty() {
            lines.push(format!("fetched though nobody acted: {}", some(&early)));
        }
    }
    if !page.not_foretold.is_empty() {
        lines.push(format!("not predicted: {}", some(&page.not_foretold)));
    }
    if !page.not_asked.is_empty() {
        lines.push(format!("predicted and not requested: {}", some(&page.not_asked)));
    }
    if page.sent > 0 {
        let (sent, told) = (screen.units.size(page.sent), screen.units.size(page.foretold));
        lines.push(format!(
            "{sent} on the wire, {told} in {}: {}",
            screen.measure,
            page.codings.iter().map(coded).collect::<Vec<_>>().join(", ")
        ));
    }
    if page.cached > 0 {
        lines.push(format!("{} from the cache", count(page.cached, "file")));
    }
    if page.unsized_answers > 0 {
        let files = count(page.unsized_answers, "file");
        lines.push(format!("{files} of which the log says no size"));
    }
    if !page.failed.is_empty() {
        lines.push(format!("failed: {}", some(&page.failed)));
    }
    if !page.differ.is_empty() {
        lines.push(format!(
            "not of the size of the build's: {}; the log is of another build, or the server changes them",
            some(&page.differ)
        ));
    }
    lines
}

fn coded(coded: &Coded) -> String {
    let files = count(coded.files, "file");
    let how = match (coded.coding.as_str(), coded.level) {
        ("identity", _) => "as they stand".to_owned(),
        (coding, Some(level)) => format!("by {} at about level {level}", plain(coding)),
        (coding, None) => format!("by {} at a level that cannot be told", plain(coding)),
    };
    format!("{files} {how}")
}
