//! One page for people who look first: bars on one scale, a table that a selection filters, and what the
//! other commands answer. It asks for nothing, from nowhere; without scripts its tables are all there.

pub(crate) mod data;
pub mod parts;
pub(crate) mod sections;
pub(crate) mod strata;

use std::collections::BTreeSet;

use crate::words::{
    places::{in_place, twice},
    quote,
};
use maud::{DOCTYPE, Markup, PreEscaped, html};
use uvlet_audit::ask::report;
use uvlet_audit::{
    ask::{
        attribute::{By, Row, Sort, attribute},
        survey::Survey,
    },
    lens::Lens,
};
use uvlet_record::{Mode, PackageId, Record, sizes::Measure};

use crate::{
    name::plain,
    page::parts::{Report, class, width},
    screen::{Screen, count},
    table::{coverage as ran, survey as said},
};

pub use sections::causes_figure;
pub use strata::strata_figure;

const STYLE: &str = include_str!("../page/page.css");
const SELECT: &str = include_str!("../page/select.js");
const SCRIPT: &str = include_str!("../page/page.js");

/// Nothing is fetched, sent, framed or evaluated.
const POLICY: &str = "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; base-uri 'none'; form-action 'none'";

/// The page.
#[must_use]
pub fn report(report: &Report<'_>, screen: &Screen) -> String {
    let Report { lens, answers, .. } = report;
    let report::Report { survey, waste, gate, compare, coverage, .. } = answers;
    let record = lens.record;
    let measure = screen.measure;
    let data = data::embedded(lens, measure, &screen.also, &report.answers.whys, report.shell);
    let title = format!("{}: what it makes a visitor download", plain(&record.label));
    let page = html! {
        (DOCTYPE)
        html lang="en" {
            head {
                meta charset="utf-8";
                meta http-equiv="Content-Security-Policy" content=(POLICY);
                meta name="viewport" content="width=device-width, initial-scale=1";
                title { (title) }
                style { (PreEscaped(STYLE)) }
            }
            body {
                main {
                    @if survey.build.mode == Mode::Development {
                        p.warning { (said::DEVELOPMENT) }
                    }
                    h1 { (said::sentence(survey, screen, &[])) @if let Some(gate) = gate { (sections::broken(gate)) } }
                    p.sub { (about(survey, record, screen)) }
                    (navigation(report, screen))
                    section #pages aria-labelledby="pages-head" {
                        h2.hush #pages-head { "What each page fetches before it runs" }
                        @if let Some(coverage) = coverage { p.sub { (ran::sentence(coverage, screen)) } }
                        (strata::strata(lens, survey, gate.as_ref(), compare.as_ref(), coverage.as_ref(), screen))
                    }
                    section #owners aria-labelledby="owners-head" {
                        h2 #owners-head { "Whose bytes they are" }
                        div.cols { div { (search(&screen.also)) (owners(report, screen)) } (why(report, screen)) }
                    }
                    (sections::waste(waste, screen))
                    @if let Some(gate) = gate { (sections::budgets(gate, record, screen)) }
                    @if let Some(compare) = compare { (sections::moved(compare, screen)) }
                    (sections::measured(report, screen))
                }
                script type="application/json" #data { (PreEscaped(data)) }
                script { (PreEscaped(SELECT)) (PreEscaped(SCRIPT)) }
            }
        }
    };
    page.into_string()
}

fn about(survey: &Survey, record: &Record, screen: &Screen) -> String {
    let build = said::build(survey, record, screen);
    let all = screen.units.size(survey.totals.sizes.get(screen.measure));
    format!("{build} {all} in {} altogether.", count(survey.totals.file_count, "file"))
}

fn navigation(report: &Report<'_>, screen: &Screen) -> Markup {
    let Report { lens, answers, .. } = report;
    let report::Report { survey, waste, gate, compare, .. } = answers;
    let could = screen.units.size(waste.recoverable.get(screen.measure));
    html! {
        nav aria-label="Parts of this page" {
            a href="#pages" { "Pages " i { (survey.entries.len()) } }
            a href="#owners" { "Owners " i { (count(lens.record.packages.len(), "package")) } }
            a href="#waste" { "Could be removed " i { (could) " in " (count(waste.findings.len(), "finding")) } }
            @if let Some(gate) = gate { a href="#promises" { "Budgets " i { (gate.verdict.name()) } } }
            @if compare.is_some() { a href="#moved" { "What moved" } }
            a href="#measured" { "How it was measured" }
        }
    }
}

fn search(also: &[Measure]) -> Markup {
    html! {
        div.find #find hidden role="search" {
            label.hush for="search" { "Search by name, or take a selector" }
            input #search type="search" autocomplete="off" spellcheck="false" placeholder="a name, or startup(…) and third-party";
            button #clear type="button" { "Everything" }
        }
        @if !also.is_empty() {
            fieldset.also #also hidden { legend { "more columns" }
                @for measure in also { label { input type="checkbox" value=(measure.name()); " " (measure.name()) } }
            }
        }
        p #stands role="status" {}
        p #trail hidden {}
    }
}

/// Rows of the table as they are without a selection.
fn owners(report: &Report<'_>, screen: &Screen) -> Markup {
    let Report { lens, answers: report::Report { whys, .. }, .. } = report;
    let measure = screen.measure;
    let all = lens.cells(|_, _| true);
    let answer = attribute(lens, By::Package, &all, None, Sort::Heaviest(measure));
    let total = answer.total.sizes.get(measure);
    let most = answer.rows.iter().map(|row| row.sizes.get(measure)).max().unwrap_or(0);
    let is_own = |row: &Row| {
        let mut packages = lens.record.packages.iter();
        packages.any(|one| one.own && one.name == row.name)
    };
    let twice = twice(answer.rows.iter().map(|row| row.name.as_str()));
    let first = |row: &Row| {
        let is_it =
            |id: PackageId| Some(&lens.record.packages[id.at()].place) == row.place.as_ref();
        let known = whys.iter().find(|(id, _)| is_it(*id));
        known.and_then(|(_, why)| why.importers.first()).map(|one| one.module.clone())
    };
    let bases: BTreeSet<&str> = answer.rows.iter().map(|row| row.basis.name()).collect();
    let heads = [("what", "what", false), ("bytes", measure.name(), true)];
    html! {
        div.scroll role="region" aria-label="Owners" tabindex="0" {
            table #owners-table class=[(bases.len() < 2).then_some("one-basis")] {
                thead { tr {
                    @for (sort, name, right) in heads {
                        th scope="col" class=[right.then_some("num")] data-sort=(sort) aria-sort=[(sort == "bytes").then_some("descending")] { button type="button" { (name) } }
                    }
                    th scope="col" class="num" { "share" }
                    th scope="col" { span.hush { "share, drawn" } }
                    th.basis scope="col" { "basis" }
                    th scope="col" data-sort="when" { button type="button" { "at startup of" } }
                    th scope="col" data-sort="chunks" { button type="button" { "chunks" } }
                    th scope="col" data-sort="first" { button type="button" { "first imported by" } }
                } }
                tbody #rows {
                    @for row in &answer.rows {
                        @let bytes = row.sizes.get(measure);
                        @let kind = class(row.row, is_own(row));
                        tr {
                            td.what {
                                span class={ "chip " (kind) } aria-hidden="true" {}
                                b { (plain(&row.name)) }
                                @if let Some(version) = &row.version { span.sub { " " (plain(version)) } }
                                span.sub { (plain(&in_place(row.row, &row.name, row.place.as_deref(), &twice))) }
                            }
                            td.num { (screen.units.size(bytes)) }
                            td.num { (percent(bytes, total)) }
                            td.share { span class=(kind) style={ "width:" (width(bytes, most)) "%" } {} }
                            td.soft.basis { (row.basis.name()) }
                            td.soft { (when(&row.cells, lens)) }
                            td.soft { (chunks(&row.chunks)) }
                            td.soft { @if let Some(first) = first(row) { (plain(&first)) } }
                        }
                    }
                }
                tfoot { tr {
                    th scope="row" #sum-of { "everything" }
                    td.num #sum { (screen.units.size(total)) }
                    td.num { "100%" }
                    td {}
                    td.basis {}
                    td colspan="3" {}
                } }
            }
        }
    }
}

fn percent(bytes: u64, total: u64) -> String {
    let thousandths = (bytes * 1000 + total / 2).checked_div(total).unwrap_or(0);
    format!("{}.{}%", thousandths / 10, thousandths % 10)
}

fn when(cells: &[uvlet_record::CellId], lens: &Lens<'_>) -> String {
    let holds = |is_in: &dyn Fn(&uvlet_record::FileId) -> bool| {
        cells.iter().any(|id| is_in(&lens.record.cells[id.at()].file))
    };
    let (mut at, mut later) = (Vec::new(), Vec::new());
    for (entry, reach) in lens.record.entries.iter().zip(&lens.reach) {
        if holds(&|file| reach.startup.contains(file)) {
            at.push(entry.name.as_str());
        } else if holds(&|file| reach.deferred.contains(file)) {
            later.push(entry.name.as_str());
        }
    }
    let said = |names: &[&str]| match names.len() {
        0 => None,
        1 | 2 => Some(plain(&names.join(", ")).into_owned()),
        more => Some(format!("{more} entries")),
    };
    let parts = [said(&at), said(&later).map(|names| format!("later: {names}"))];
    let parts: Vec<String> = parts.into_iter().flatten().collect();
    if parts.is_empty() { "nobody known".to_owned() } else { parts.join("; ") }
}

fn chunks(names: &[String]) -> String {
    match names.len() {
        0..=2 => plain(&names.join(", ")).into_owned(),
        more => format!("{more} chunks"),
    }
}

/// Why the heaviest package is here; with scripts, any.
fn why(report: &Report<'_>, screen: &Screen) -> Markup {
    let known = report
        .answers
        .whys
        .iter()
        .find(|(_, why)| why.chains.iter().any(|one| !one.steps.is_empty()))
        .map(|(id, why)| (report.lens.record.packages[id.at()].name.as_str(), why));
    html! {
        aside #why aria-live="polite" aria-label="Why something is here" {
            @match known {
                None => { h2 { "Why is it here?" } p { "No import graph is available for this build." } }
                Some((name, why)) => {
                    h2 { "Why is " (plain(name)) " here?" }
                    @if let Some(chain) = data::told_chain(why) {
                        ol {
                            li { (plain(&chain.entry)) i { " starts with" } }
                            @for (module, how) in data::steps(&chain.steps) {
                                li { (plain(&module)) @if !how.is_empty() { i { " " (how) } } }
                            }
                        }
                    }
                    @if let Some(row) = why.at_startup.first() {
                        p { "Without it " (plain(&row.entry)) " would start with " b { (screen.units.size(row.sizes.get(screen.measure))) } " less." }
                    }
                    p { code { "uvlet why " (report.shell) " " (plain(&quote::shell(name))) } }
                }
            }
        }
    }
}
