//! Answers for pull requests and job summaries (GitHub Flavored Markdown).
//!
//! Names stand in code spans, where nothing is a mention, a link or an element; what would end a
//! span or a cell is replaced by a look-alike.

mod cells;
mod compare;
mod gate;

use cells::{code, harmless, sentence, table};
pub use compare::compare;
pub use gate::{folds, gate};

use crate::words::{
    doubts::sentences,
    findings,
    remarks::fault,
    steps::{typed, typed_all},
};
use uvlet_audit::{
    ask::{
        attribute::Attribution,
        coverage::Coverage,
        declaration::WhyDeclaration,
        requests::Requests,
        suggest::Suggestions,
        survey::{EntryRow, Survey},
        tries::Try,
        what_if::WhatIf,
        why::{Moment, Why},
    },
    find::waste::Waste,
};
use uvlet_record::{Record, sizes::Measure};

use crate::{
    notice::Notice,
    screen::{Screen, measures_said},
    table::{
        attribute as rows, attribute::Rows, coverage as ran, declaration as declared,
        requests as asked, survey as said, tries as tried, waste as found, what_if as predictions,
        why as reasons,
    },
};

/// The survey: the answer, then one fold per entry.
#[must_use]
pub fn survey(survey: &Survey, record: &Record, screen: &Screen) -> String {
    let mut text = format!("**{}**\n\n", sentence(&said::sentence(survey, screen, &[])));
    text.push_str(&format!("{}\n\n", sentence(&said::build(survey, record, screen))));
    // Heaviest first, as in the table.
    let mut entries: Vec<&EntryRow> = survey.entries.iter().collect();
    entries.sort_by_key(|entry| std::cmp::Reverse(entry.startup.sizes.get(screen.measure)));
    for entry in entries {
        text.push_str(&fold(entry, screen));
    }
    text.push_str(&format!("{}\n", sentence(&said::folder(survey, record, screen))));
    text
}

fn fold(entry: &EntryRow, screen: &Screen) -> String {
    let size = |sizes: &uvlet_record::sizes::Sizes| screen.units.size(sizes.get(screen.measure));
    let startup = &entry.startup;
    let mut text = format!(
        "<details><summary>{}: {} at startup, {} deferred</summary>\n\n",
        sentence(&entry.name),
        size(&startup.sizes),
        size(&entry.deferred.sizes),
    );
    let parts = [
        ("own", &startup.own),
        ("third-party", &startup.third_party),
        ("glue", &startup.glue),
        ("assets", &startup.assets),
        ("unattributed", &startup.unattributed),
    ];
    let measures: Vec<Measure> = screen.measures().collect();
    let rows = parts.into_iter().map(|(part, sizes)| {
        let sizes = measures.iter().map(|&measure| screen.units.size(sizes.get(measure)));
        [part.to_owned()].into_iter().chain(sizes).collect()
    });
    let heads = [("startup", false)].into_iter();
    let heads: Vec<_> = heads.chain(measures.iter().map(|m| (m.name(), true))).collect();
    text.push_str(&table(&heads, rows));
    text.push_str("\nIn the order they load:\n\n");
    for path in &startup.files {
        text.push_str(&format!("1. {}\n", code(path)));
    }
    if !entry.deferred.loads.is_empty() {
        text.push_str("\nOn demand (size added to what is loaded):\n\n");
        let rows = entry.deferred.loads.iter().map(|load| {
            let mostly = load.mostly.as_deref().map(|kin| said::mostly(kin, load.others));
            vec![
                load.when.name().to_owned(),
                code(&load.request),
                size(&load.sizes),
                mostly.map(|mostly| harmless(&mostly)).unwrap_or_default(),
            ]
        });
        let heads = [("when", false), ("load", false), ("adds", true), ("what", false)];
        text.push_str(&table(&heads, rows));
    }
    text.push_str("\n</details>\n\n");
    text
}

/// Whether a declaration is used, and by what.
#[must_use]
pub fn declaration(answer: &WhyDeclaration, screen: &Screen) -> String {
    let mut text = format!("**{}**\n", sentence(&declared::sentence(answer, screen)));
    if !answer.used_by.is_empty() {
        text.push('\n');
    }
    for user in &answer.used_by {
        text.push_str(&format!("- {}\n", code(user)));
    }
    text
}

/// What is worth trying, each with its step.
#[must_use]
pub fn suggestions(answer: &Suggestions, screen: &Screen) -> String {
    let mut text = format!("**{}**\n", sentence(&predictions::suggested(answer, screen)));
    for (at, one) in answer.each.iter().enumerate() {
        let size = screen.units.size(one.saved.get(screen.measure));
        let gap = if at == 0 { "\n" } else { "" };
        text.push_str(&format!(
            "{gap}- {size} at startup of {}: {}\n",
            code(&one.entry),
            code(&typed_all(&one.steps))
        ));
    }
    text
}

/// What a network log tells: the answer, then what is to be said of each page.
#[must_use]
pub fn requests(answer: &Requests, screen: &Screen) -> String {
    let mut text = format!("**{}**\n", sentence(&asked::sentence(answer)));
    for page in &answer.pages {
        text.push_str(&format!("\n{}\n\n", code(page.entry.as_deref().unwrap_or(&page.url))));
        for line in asked::lines(page, screen) {
            text.push_str(&format!("- {}\n", sentence(&line)));
        }
    }
    for (at, remark) in answer.remarks.iter().enumerate() {
        let gap = if at == 0 { "\n" } else { "" };
        text.push_str(&format!(
            "{gap}- {}: {}\n",
            code(&remark.path),
            sentence(&fault(remark.fault))
        ));
    }
    text
}

/// Why something is here: the answer, then one fold per entry with its chain.
#[must_use]
pub fn why(why: &Why, record: &Record, screen: &Screen) -> String {
    let mut text = format!("**{}**\n\n", sentence(&reasons::sentence(why, screen)));
    text.push_str(&format!("{}\n\n", sentence(&reasons::extent(why, screen))));
    for chain in &why.chains {
        let when = match chain.when {
            Moment::Startup => "at startup",
            Moment::Deferred => "on demand",
        };
        let name = sentence(&chain.entry);
        text.push_str(&format!("<details><summary>{name}, {when}</summary>\n\n"));
        for step in &chain.steps {
            text.push_str(&format!("1. {}\n", code(&step.module)));
        }
        text.push_str("\n</details>\n\n");
    }
    let rows = why.at_startup.iter().map(|row| {
        let size = screen.units.size(row.sizes.get(screen.measure));
        vec![code(&row.entry), size, row.modules.to_string()]
    });
    let measure = screen.measure.name();
    text.push_str(&table(
        &[("would start without", false), (measure, true), ("modules", true)],
        rows,
    ));
    text.push('\n');
    if let Some(doubt) = reasons::doubt(why) {
        text.push_str(&format!("{}\n\n", sentence(&doubt)));
    }
    let sizes = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("{}\n", sentence(&sizes)));
    text
}

/// What ran: the answer, then whose bytes never did.
#[must_use]
pub fn coverage(answer: &Coverage, record: &Record, screen: &Screen, top: Option<usize>) -> String {
    let mut text = format!("**{}**\n\n", sentence(&ran::sentence(answer, screen)));
    let shown = answer.rows.iter().zip(ran::names(answer)).take(top.unwrap_or(usize::MAX));
    let total = ran::total(answer, screen.measure).map(|bytes| screen.units.size(bytes));
    let rows = shown.map(|(row, name)| {
        let parts = [&row.sizes, &row.ran_at_load, &row.ran_later, &row.never_ran];
        let sizes = parts.map(|sizes| screen.units.size(sizes.get(screen.measure)));
        [code(&name)].into_iter().chain(sizes).collect()
    });
    let rows = rows.chain([["total".to_owned()].into_iter().chain(total).collect()]);
    let measure = screen.measure.name();
    let heads = [
        ("what", false),
        (measure, true),
        ("ran at load", true),
        ("ran later", true),
        ("never ran", true),
    ];
    text.push_str(&table(&heads, rows));
    for remark in ran::remarks(answer) {
        text.push_str(&format!("\n> note: {}\n", sentence(&remark)));
    }
    let sizes = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", sentence(&sizes)));
    text
}

/// Builds after each other: the answer, then a line each.
#[must_use]
pub fn tries(answer: &[Try], record: &Record, screen: &Screen) -> String {
    let mut text = format!("**{}**\n\n", sentence(&tried::sentence(answer, screen)));
    let (heads, lines) = tried::lines(answer, screen);
    let heads: Vec<(&str, bool)> =
        heads.iter().map(|head| (head.heading.as_str(), head.right)).collect();
    let lines = lines.into_iter().map(|cells| cells.iter().map(|cell| sentence(cell)).collect());
    text.push_str(&table(&heads, lines));
    let sizes = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", sentence(&sizes)));
    text
}

/// A prediction: the answer, then what each entry would load.
#[must_use]
pub fn what_if(answer: &WhatIf, record: &Record, screen: &Screen) -> String {
    let mut text = format!("**{}**\n\n", sentence(&predictions::sentence(answer, screen)));
    let steps: Vec<String> = answer.steps.iter().map(|step| code(&typed(step))).collect();
    text.push_str(&format!("{}\n\n", steps.join(" ")));
    for screen in std::iter::once(screen.clone()).chain(screen.others()) {
        let rows = answer.entries.iter().map(|row| {
            let parts = [
                &row.before.startup,
                &row.after.startup,
                &row.before.deferred,
                &row.after.deferred,
                &row.return_visit,
            ];
            let sizes = parts.map(|part| screen.units.size(part.sizes.get(screen.measure)));
            [code(&row.name)].into_iter().chain(sizes).collect()
        });
        let heads = [
            (&*format!("entry, {}", screen.measure), false),
            ("starts", true),
            ("then", true),
            ("later", true),
            ("then", true),
            ("fetched again", true),
        ];
        text.push_str(&table(&heads, rows));
        text.push('\n');
    }
    for (_, doubt) in sentences(&answer.doubts) {
        text.push_str(&format!("- doubt: {}\n", sentence(&doubt)));
    }
    let sizes = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", sentence(&sizes)));
    text
}

/// What could be removed: the answer, then one fold per finding.
#[must_use]
pub fn waste(
    waste: &Waste,
    record: &Record,
    screen: &Screen,
    top: Option<usize>,
    least: u64,
) -> String {
    let mut text = format!("**{}**\n\n", sentence(&found::sentence(waste, screen)));
    if let Some(unseen) = found::unseen(waste, screen).filter(|_| !waste.findings.is_empty()) {
        text.push_str(&format!("{}\n\n", sentence(&unseen)));
    }
    if let Some(whole) = found::whole(waste, screen) {
        text.push_str(&format!("{}\n\n", sentence(&whole)));
    }
    let worth = found::worth(waste, least, screen);
    let shown = top.unwrap_or(usize::MAX).min(worth.len());
    for &finding in &worth[..shown] {
        let saving = sentence(&found::saving(finding, screen));
        text.push_str(&format!(
            "<details><summary>{}: {saving}</summary>\n\n{} {}\n\n{}. {}.\n\n</details>\n\n",
            sentence(&findings::title(&finding.about)),
            code(&finding.id),
            finding.bound.name(),
            sentence(&findings::cause(finding)),
            sentence(&findings::advice(&finding.about))
        ));
    }
    if let Some(more) = found::more(waste, shown, worth.len(), least, screen) {
        text.push_str(&format!("{}\n\n", sentence(&more)));
    }
    let sizes = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("{}\n", sentence(&sizes)));
    text
}

/// The attribution as a table that adds up.
#[must_use]
pub fn attribute(
    answer: &Attribution,
    record: &Record,
    screen: &Screen,
    top: Option<usize>,
) -> String {
    let Rows { sentence: heaviest, heads, lines, .. } = rows::rows(answer, screen, top, code);
    let mut text = format!("**{}**\n\n", sentence(&heaviest));
    // A list of chunks has no place in a comment.
    let kept = heads.iter().filter(|head| !head.optional);
    let heads: Vec<_> = kept.map(|head| (head.heading.as_str(), head.right)).collect();
    let lines = lines.into_iter().map(|mut cells| {
        cells.truncate(heads.len());
        cells
    });
    text.push_str(&table(&heads, lines));
    text.push_str(&format!("\n{}\n", sentence(&rows::footnote(answer, record, screen))));
    text
}

/// Notices as a list.
#[must_use]
pub fn notices(notices: &[Notice]) -> String {
    let mut text = String::new();
    for notice in notices {
        let place = notice.place.as_deref().map(|place| format!("{}: ", code(place)));
        text.push_str(&format!(
            "\n> note: {}{}\n",
            place.unwrap_or_default(),
            sentence(&notice.message)
        ));
    }
    text
}
