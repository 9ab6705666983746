//! What could be removed, promises, what moved, and how it was measured.

use crate::words::{
    findings::{advice, cause, title},
    reasons::of_gate,
};
use maud::{Markup, html};
use uvlet_audit::{
    ask::{
        compare::Comparison,
        gate::verdict::{Gate, Verdict},
    },
    find::waste::Waste,
};
use uvlet_record::Record;

use crate::page::parts::{Report, sizes_said, width};
use crate::{
    name::plain,
    screen::{Screen, count},
    table::{
        compare as moves,
        compare::Rows,
        gate as promises,
        gate::{Shown, Standing},
        waste as found,
    },
};

/// What is over its promise, behind the first sentence.
pub fn broken(gate: &Gate) -> Markup {
    let broken = gate.budgets.iter().filter(|row| row.verdict == Verdict::Broken).count();
    html! { @if broken > 0 { " " span.over { (broken) " of " (gate.budgets.len()) " limits are broken." } } }
}

pub fn waste(waste: &Waste, screen: &Screen) -> Markup {
    html! {
        section #waste aria-labelledby="waste-head" {
            h2 #waste-head { "What could be removed" }
            p { (found::sentence(waste, screen)) }
            @if let Some(whole) = found::whole(waste, screen) { p.sub { (whole) } }
            @if let Some(unseen) = found::unseen(waste, screen).filter(|_| !waste.findings.is_empty()) {
                p.sub { (unseen) }
            }
            @for finding in &waste.findings {
                details {
                    summary { b { (plain(&title(&finding.about))) } " – " (plain(&found::saving(finding, screen))) }
                    p { code { (finding.id) } " " (finding.bound.name()) @if let Some(waived) = &finding.waived { ", waived until " (waived.until) ": " (plain(&waived.reason)) } }
                    p { "because: " (plain(&cause(finding))) }
                    p { "do: " (plain(&advice(&finding.about))) }
                    @if !finding.parts.is_empty() {
                        ul.plain { @for part in finding.parts.iter().take(12) {
                            li { (plain(&part.name)) " " span.sub { (screen.units.size(part.emitted)) " emitted " (part.module.as_deref().map(plain).unwrap_or_default()) } }
                        } }
                    } @else {
                        ul.plain { @for path in finding.paths.iter().take(12) { li { (plain(path)) } } }
                    }
                }
            }
        }
    }
}

pub fn budgets(gate: &Gate, record: &Record, screen: &Screen) -> Markup {
    let capital = |word: &str| {
        let (first, rest) = word.split_at(1);
        format!("{}{rest}", first.to_uppercase())
    };
    html! {
        section #promises aria-labelledby="promises-head" {
            h2 #promises-head { "Budgets" }
            p { (promises::headline(gate, &plain(&record.label), capital)) }
            @for reason in &gate.reasons { p.over { (plain(&of_gate(reason))) } }
            ul.plain {
                @for Standing { verdict, listed, .. } in promises::standing(gate, Shown::All) {
                    @if verdict == Verdict::Met {
                        li { details { summary { span.verdict { (verdict.name()) } " " (count(listed.len(), "limit")) }
                            ul.plain { @for row in listed { li { (promises::sentence(row, screen)) } } }
                        } }
                    } @else { @for row in listed {
                        li { span class={ "verdict" @if verdict == Verdict::Broken { " over" } } { (verdict.name()) } " " (promises::sentence(row, screen)) }
                    } }
                }
            }
        }
    }
}

/// A cause, with what it was and is.
struct Cause {
    name: String,
    before: u64,
    after: u64,
    texts: Vec<String>,
}

fn causes(answer: &Comparison, screen: &Screen) -> (Vec<String>, Vec<Cause>) {
    let rows = Rows { by: crate::table::CompareBy::Package, min: 0, top: None };
    let moves::Lines { heads, lines } = moves::lines(answer, screen, &rows);
    let size = |sizes: Option<&uvlet_record::sizes::Sizes>| {
        sizes.map_or(0, |sizes| sizes.get(screen.measure))
    };
    let causes = answer.packages.iter().zip(lines).map(|(row, texts)| Cause {
        name: row.name.clone(),
        before: size(row.before.as_ref()),
        after: size(row.after.as_ref()),
        texts,
    });
    (heads.into_iter().map(|head| head.heading).collect(), causes.collect())
}

pub fn moved(answer: &Comparison, screen: &Screen) -> Markup {
    let (heads, causes) = causes(answer, screen);
    let most = causes.iter().map(|one| one.after.abs_diff(one.before)).max().unwrap_or(0);
    let size = |sizes: &uvlet_record::sizes::Sizes| screen.units.size(sizes.get(screen.measure));
    html! {
        section #moved aria-labelledby="moved-head" {
            h2 #moved-head { "What moved since " (plain(&answer.before.label)) }
            @if let Some(warning) = moves::warning(answer) { p.warning { (warning) } }
            p { (moves::sentence(answer, screen)) }
            p { (moves::whole(answer, screen)) }
            @if !causes.is_empty() {
                div.scroll role="region" aria-label="Causes" tabindex="0" { table.causes {
                    thead { tr {
                        @for (at, head) in heads.iter().enumerate() { th scope="col" class=[(at > 0).then_some("num")] { (head) } @if at == 0 { th scope="col" { span.hush { "less and more, drawn" } } } }
                    } }
                    tbody { @for cause in &causes {
                        @let less = cause.before.saturating_sub(cause.after);
                        @let more = cause.after.saturating_sub(cause.before);
                        tr {
                            td.what { (plain(&cause.name)) }
                            td.way { div {
                                div.half { @if less > 0 { span.less style={ "width:" (width(less, most)) "%" } {} } }
                                div.half { @if more > 0 { span.grew style={ "width:" (width(more, most)) "%" } {} } }
                            } }
                            @for text in cause.texts.iter().skip(1) { td.num { (plain(text.trim())) } }
                        }
                    } }
                } }
            }
            div.scroll role="region" aria-label="Visits" tabindex="0" { table {
                thead { tr { th scope="col" { "entry" } th.num scope="col" { "first visit before" } th.num scope="col" { "first visit now" } th.num scope="col" { "who was here fetches again" } } }
                tbody { @for row in &answer.entries { tr {
                    td.what { (plain(&row.name)) }
                    td.num { @match &row.before { Some(loads) => (size(&loads.startup.sizes)), None => "–" } }
                    td.num { @match &row.after { Some(loads) => (size(&loads.startup.sizes)), None => "–" } }
                    td.num { @match &row.return_visit { Some(visit) => (size(&visit.sizes)), None => "–" } }
                } } }
            } }
        }
    }
}

/// Causes to the left and right of a line, as SVG.
#[must_use]
pub fn causes_figure(answer: &Comparison, screen: &Screen) -> String {
    const WIDTH: u64 = 1180;
    const MIDDLE: u64 = 700;
    const HALF: u64 = 380;
    const ROW: u64 = 24;
    const SHOWN: usize = 30;
    let (_, causes) = causes(answer, screen);
    let most = causes.iter().map(|one| one.after.abs_diff(one.before)).max().unwrap_or(0).max(1);
    let shown = &causes[..SHOWN.min(causes.len())];
    let height = 34 + ROW * shown.len() as u64;
    let long = |bytes: u64| {
        u64::try_from(u128::from(bytes) * u128::from(HALF) / u128::from(most)).unwrap_or(HALF)
    };
    let markup = html! {
        svg xmlns="http://www.w3.org/2000/svg" viewBox={ "0 0 " (WIDTH) " " (height) } role="img" aria-labelledby="title desc" font-family="system-ui, 'Noto Sans', 'DejaVu Sans', sans-serif" {
            title id="title" { "What moved from " (plain(&answer.before.label)) " to " (plain(&answer.after.label)) }
            desc id="desc" { (moves::sentence(answer, screen)) }
            style { ".n{font-size:13.5px;fill:#1b2530}.s{font-size:12.5px;fill:#55606b}.l{fill:#0e6a70}.m{fill:#9c2f1f}.x{stroke:#1b2530;stroke-width:1.5}@media (prefers-color-scheme:dark){.n{fill:#e8e6df}.s{fill:#a9b1b8}.l{fill:#2f9aa1}.m{fill:#ff9c88}.x{stroke:#e8e6df}}" }
            text.s x=(MIDDLE - 8) y="14" text-anchor="end" { "less" }
            text.s x=(MIDDLE + 8) y="14" { "more (" (screen.measure.name()) ")" }
            @for (at, cause) in shown.iter().enumerate() {
                @let top = 24 + ROW * at as u64;
                @let by = cause.after.abs_diff(cause.before);
                text.n x="0" y=(top + 14) { (plain(&cause.name)) }
                @if cause.after < cause.before {
                    rect.l x=(MIDDLE - long(by)) y=(top + 3) width=(long(by)) height="14" {}
                    text.s x=(MIDDLE + 8) y=(top + 14) { (screen.units.size(by)) " less" }
                } @else {
                    rect.m x=(MIDDLE) y=(top + 3) width=(long(by)) height="14" {}
                    text.s x=(MIDDLE - 8) y=(top + 14) text-anchor="end" { (screen.units.size(by)) " more" }
                }
            }
            path.x d={ "M" (MIDDLE) " 20V" (height) } {}
        }
    };
    format!("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{}\n", markup.into_string())
}

pub fn measured(report: &Report<'_>, screen: &Screen) -> Markup {
    let record = report.lens.record;
    let shell = report.shell;
    let mut commands = vec![
        (format!("uvlet survey {shell}"), "what each page fetches"),
        (format!("uvlet attribute {shell} --by package"), "whose bytes they are"),
        (format!("uvlet waste {shell}"), "what could be removed"),
    ];
    if report.answers.gate.is_some() {
        commands.push((format!("uvlet gate {shell} --show all"), "budgets"));
    }
    if report.answers.compare.is_some() {
        commands.push((format!("uvlet compare BEFORE {shell}"), "what moved"));
    }
    html! {
        section #measured aria-labelledby="measured-head" {
            h2 #measured-head { "How it was measured" }
            p { "Sizes are " (sizes_said(record, screen.measure)) ", 1 kB = 1000 B. Rows are rounded so that they add up. Startup is all that arrives before an entry's own code can run; what loads on demand is loaded on demand." }
            @for notice in report.notices {
                p { "note: " @if let Some(place) = &notice.place { code { (plain(place)) } " " } (plain(&notice.message)) }
            }
            p { "The same answers on a command line:" }
            ul.plain { @for (command, what) in commands { li { code { (plain(&command)) } " " span.sub { (what) } } } }
            p.sub { "Made by uvlet " (report.version) ". In the page: " code { "/" } " searches, arrows walk bars and rows, " code { "Esc" } " shows everything." }
        }
    }
}
