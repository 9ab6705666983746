//! One bar per entry on one scale: what it starts with by package, and what loads on demand.

use std::collections::BTreeMap;

use maud::{Markup, html};
use uvlet_audit::{
    ask::{
        attribute::{By, Row, RowKind, Sort, attribute},
        compare::Comparison,
        coverage::Coverage,
        gate::{
            limit::{Counted, LimitKind},
            verdict::Gate,
        },
        survey::{EntryRow, Survey},
    },
    lens::Lens,
};
use uvlet_record::sizes::Measure;

use crate::{
    name::plain,
    page::parts::{class, width},
    screen::{Screen, count},
    words::places::twice,
};

/// Entries that are drawn without being asked for.
const SHOWN: usize = 10;
/// Hundredths of a percent of the scale below which packages are one segment.
const LEAST: u64 = 60;
/// The same, from which on a segment has room for its name.
const NAMED: u64 = 500;

/// A piece of a bar.
struct Segment {
    /// Its place among the packages, where it is one.
    name: String,
    class: &'static str,
    bytes: u64,
    /// Of that, what no recording saw run, where there are recordings.
    idle: u64,
    /// What it stands for, as a selector; none of several together.
    selector: Option<String>,
    key: Option<String>,
}

/// An entry's bar.
struct Stratum<'s> {
    entry: &'s EntryRow,
    segments: Vec<Segment>,
    startup: u64,
    later: u64,
    limit: Option<u64>,
    earlier: Option<u64>,
}

fn order(row: &Row, own: bool) -> u8 {
    match class(row.row, own) {
        "own" if row.row == RowKind::Own => 0,
        "own" => 1,
        "third" => 2,
        "assets" => 3,
        "glue" => 4,
        _ => 5,
    }
}

/// A name as a selector takes it.
fn quoted(name: &str) -> String {
    if !name.contains(['(', ')', '"', '\'']) {
        return name.to_owned();
    }
    if name.contains('"') { format!("'{name}'") } else { format!("\"{name}\"") }
}

/// What never ran of an entry's packages, by name.
fn idle_of<'c>(
    coverage: Option<&'c Coverage>,
    entry: &EntryRow,
    measure: Measure,
) -> BTreeMap<&'c str, u64> {
    let row = coverage.and_then(|all| all.entries.iter().find(|row| row.name == entry.name));
    let mut idle: BTreeMap<&str, u64> = BTreeMap::new();
    for (name, sizes) in row.iter().flat_map(|row| &row.startup.heaviest) {
        *idle.entry(name).or_default() += sizes.get(measure);
    }
    idle
}

fn segments(
    lens: &Lens<'_>,
    entry: &EntryRow,
    at: usize,
    scale: u64,
    measure: Measure,
    coverage: Option<&Coverage>,
) -> Vec<Segment> {
    let idle = idle_of(coverage, entry, measure);
    let cells = lens.files(lens.reach[at].startup.iter().copied());
    let is_own = |name: &str| lens.record.packages.iter().any(|one| one.own && one.name == name);
    let mut rows = attribute(lens, By::Package, &cells, None, Sort::Heaviest(measure)).rows;
    rows.sort_by_key(|row| order(row, is_own(&row.name)));
    let twice = twice(rows.iter().map(|row| row.name.as_str()));
    let twice: Vec<String> = twice.into_iter().map(str::to_owned).collect();
    let startup = format!("startup({})", quoted(&entry.name));
    let mut segments: Vec<Segment> = Vec::new();
    let (mut few, mut rest, mut rest_idle) = (0, 0, 0);
    let mut after = Vec::new();
    for row in rows {
        let bytes = row.sizes.get(measure);
        let class = class(row.row, is_own(&row.name));
        let idle = idle.get(row.name.as_str()).copied().unwrap_or(0).min(bytes);
        if class == "third" && bytes.saturating_mul(10_000) / scale.max(1) < LEAST {
            few += 1;
            rest += bytes;
            rest_idle += idle;
            continue;
        }
        if bytes == 0 {
            continue;
        }
        let of = match row.row {
            RowKind::Package => {
                Some(match row.place.as_ref().filter(|_| twice.contains(&row.name)) {
                    Some(place) => format!("folder({})", quoted(place)),
                    None => format!("package({})", quoted(&row.name)),
                })
            }
            RowKind::Own | RowKind::ThirdParty => None,
            other => Some(other.name().to_owned()),
        };
        let key = match row.row {
            RowKind::Package => {
                let mut packages = lens.record.packages.iter();
                packages
                    .position(|one| Some(&one.place) == row.place.as_ref() && one.name == row.name)
                    .map(|at| at.to_string())
            }
            _ => Some(row.name.clone()),
        };
        // Own code that is no package has no selector of its own beside packages that count as own.
        let own = lens.record.packages.iter().filter(|one| one.own).map(|one| quoted(&one.name));
        let own: Vec<String> = own.map(|name| format!("package({name})")).collect();
        let selector = match (row.row, of) {
            (_, Some(of)) => Some(format!("{startup} and {of}")),
            (RowKind::Own, None) if own.is_empty() => Some(format!("{startup} and own")),
            (RowKind::Own, None) => Some(format!("{startup} and own except {}", own.join(" or "))),
            _ => None,
        };
        let segment = Segment { name: row.name, class, bytes, idle, selector, key };
        if order_of(class) > 2 { after.push(segment) } else { segments.push(segment) }
    }
    if few > 0 && rest > 0 {
        let name = count(few, "more package");
        segments.push(Segment {
            name,
            class: "third",
            bytes: rest,
            idle: rest_idle,
            selector: None,
            key: None,
        });
    }
    segments.extend(after);
    segments
}

fn order_of(class: &str) -> u8 {
    match class {
        "own" | "third" => 0,
        _ => 3,
    }
}

fn all<'s>(
    lens: &Lens<'_>,
    survey: &'s Survey,
    gate: Option<&Gate>,
    compare: Option<&Comparison>,
    coverage: Option<&Coverage>,
    measure: Measure,
) -> (Vec<Stratum<'s>>, u64) {
    let size =
        |entry: &EntryRow| (entry.startup.sizes.get(measure), entry.deferred.sizes.get(measure));
    let scale = survey.entries.iter().map(size).map(|(at, later)| at + later).max().unwrap_or(0);
    let limit = |entry: &EntryRow| {
        let selector = format!("startup({})", quoted(&entry.name));
        let rows = gate.into_iter().flat_map(|gate| &gate.budgets);
        rows.filter(|row| {
            row.limit_kind == LimitKind::AtMost
                && row.measure == Counted::Bytes(measure)
                && (row.selector == selector
                    || row.item.as_deref() == Some(&entry.name) && row.selector == "startup(*)")
        })
        .filter_map(|row| row.allowed)
        .min()
    };
    let earlier = |entry: &EntryRow| {
        let row = compare?.entries.iter().find(|row| row.name == entry.name)?;
        Some(row.before.as_ref()?.startup.sizes.get(measure))
    };
    let scale = survey.entries.iter().filter_map(earlier).chain([scale]).max().unwrap_or(0);
    let mut strata: Vec<Stratum<'_>> = survey
        .entries
        .iter()
        .filter_map(|entry| {
            let at = lens.record.entries.iter().position(|one| one.name == entry.name)?;
            let (startup, later) = size(entry);
            Some(Stratum {
                entry,
                segments: segments(lens, entry, at, scale, measure, coverage),
                startup,
                later,
                limit: limit(entry),
                earlier: earlier(entry),
            })
        })
        .collect();
    strata.sort_by(|a, b| b.startup.cmp(&a.startup).then_with(|| a.entry.name.cmp(&b.entry.name)));
    (strata, scale)
}

/// The bars of a page.
pub fn strata(
    lens: &Lens<'_>,
    survey: &Survey,
    gate: Option<&Gate>,
    compare: Option<&Comparison>,
    coverage: Option<&Coverage>,
    screen: &Screen,
) -> Markup {
    let (strata, scale) = all(lens, survey, gate, compare, coverage, screen.measure);
    // Room for the gap before what comes later.
    let scale = scale + scale / 50;
    let (first, rest) = strata.split_at(SHOWN.min(strata.len()));
    html! {
        @if strata.is_empty() { p { "No page and no entry was found in this build." } }
        @for stratum in first { (bar(stratum, scale, screen)) }
        @if !rest.is_empty() {
            details { summary { (count(rest.len(), "more entry").replace("entrys", "entries")) }
                @for stratum in rest { (bar(stratum, scale, screen)) }
            }
        }
        ul.key aria-label="Patterns" {
            @for (class, name) in [("own", "own"), ("third", "third-party"), ("assets", "assets"), ("glue", "glue"), ("none", "unattributed"), ("later", "loads on demand")] {
                li { span class={ "chip " (class) } aria-hidden="true" {} (name) }
            }
            @if coverage.is_some() { li { span.chip.never aria-hidden="true" {} "never ran in the recordings" } }
            @if compare.is_some() { li { span.chip.before aria-hidden="true" {} "before" } }
            @if first.iter().any(|one| one.limit.is_some()) { li { span.chip.mark aria-hidden="true" {} "limit (red where it is broken)" } }
        }
    }
}

fn bar(stratum: &Stratum<'_>, scale: u64, screen: &Screen) -> Markup {
    let Stratum { entry, segments, startup, later, limit, earlier } = stratum;
    let size = |bytes: u64| screen.units.size(bytes);
    let is_wide = |segment: &Segment| segment.bytes.saturating_mul(10_000) / scale.max(1) >= NAMED;
    let over = limit.and_then(|limit| startup.checked_sub(limit)).filter(|over| *over > 0);
    html! {
        div.stratum {
            header {
                h3 { (plain(&entry.name)) }
                span {
                    (size(*startup)) " in " (count(entry.startup.file_count, "file"))
                    @if *later > 0 { ", " (size(*later)) " loads on demand" }
                    @if let Some(earlier) = earlier { @if earlier != startup { ", was " (size(*earlier)) } }
                }
            }
            div.bar role="group" aria-label={ "What " (plain(&entry.name)) " starts with" } {
                @for segment in segments {
                    @let wide = is_wide(segment);
                    @let never = if segment.idle > 0 { format!(", {} of it never ran", size(segment.idle)) } else { String::new() };
                    @let said = format!("{}, {}{never}", plain(&segment.name), size(segment.bytes));
                    @let class = format!("seg {}{}", segment.class, if wide { " wide" } else { "" });
                    @let style = format!("width:{}%", width(segment.bytes, scale));
                    @match &segment.selector {
                        Some(selector) => button type="button" class=(class) style=(style) title=(said) aria-pressed="false" data-in=(selector) data-key=[segment.key.as_deref()] {
                            @if wide { span aria-hidden="true" { (plain(&segment.name)) } }
                            @if segment.idle > 0 { i.never aria-hidden="true" style={ "width:" (width(segment.idle, segment.bytes)) "%" } {} }
                            span.hush { (said) }
                        },
                        None => div class=(class) style=(style) title=(said) {
                            @if segment.idle > 0 { i.never aria-hidden="true" style={ "width:" (width(segment.idle, segment.bytes)) "%" } {} }
                            @if wide { span { (plain(&segment.name)) } } @else { span.hush { (said) } }
                        },
                    }
                }
                @if *later > 0 { div.later style={ "width:" (width(*later, scale)) "%" } title={ "loads on demand, " (size(*later)) } {} }
                @if let Some(limit) = limit { @if *limit <= scale { div class={ "limit" @if over.is_some() { " over" } } style={ "left:" (width(*limit, scale)) "%" } {} } }
                @if let Some(earlier) = earlier { div.earlier style={ "width:" (width(*earlier, scale)) "%" } {} }
            }
            @if let Some(limit) = limit {
                div class={ "limits" @if over.is_some() { " over" } } { "limit " (size(*limit)) @if let Some(over) = over { ": " (size(over)) " over" } @else { ": met" } }
            }
        }
    }
}

/// The bars alone, as SVG 1.1 with its texts as texts.
#[must_use]
pub fn strata_figure(lens: &Lens<'_>, survey: &Survey, screen: &Screen) -> String {
    const WIDTH: u64 = 1180;
    const ROW: u64 = 64;
    let (strata, scale) = all(lens, survey, None, None, None, screen.measure);
    let height = 40 + ROW * strata.len() as u64;
    let x = |bytes: u64| {
        let tenths =
            u128::from(bytes) * u128::from(WIDTH) * 10 / u128::from((scale + scale / 50).max(1));
        format!("{}.{}", tenths / 10, tenths % 10)
    };
    let size = |bytes: u64| screen.units.size(bytes);
    let title = format!("{}: what each page fetches before it runs", plain(&lens.record.label));
    let said: Vec<String> = strata
        .iter()
        .map(|one| format!("{} {}", plain(&one.entry.name), size(one.startup)))
        .collect();
    let markup = html! {
        svg xmlns="http://www.w3.org/2000/svg" viewBox={ "0 0 " (WIDTH) " " (height) } role="img" aria-labelledby="title desc" font-family="system-ui, 'Noto Sans', 'DejaVu Sans', sans-serif" {
            title id="title" { (title) }
            desc id="desc" { (said.join(", ")) " (" (screen.measure.name()) ")" }
            style { (maud::PreEscaped(FIGURE)) }
            defs {
                pattern id="third" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)" { rect class="a" width="7" height="7" {} path class="b" d="M0 0V7" {} }
                pattern id="assets" width="6" height="6" patternUnits="userSpaceOnUse" { rect class="c" width="6" height="6" {} circle class="d" cx="2" cy="2" r="1" {} }
            }
            @for (at, one) in strata.iter().enumerate() {
                @let top = ROW * at as u64;
                text class="name" x="0" y=(top + 16) { (plain(&one.entry.name)) }
                text class="size" x=(WIDTH) y=(top + 16) text-anchor="end" { (size(one.startup)) " in " (count(one.entry.startup.file_count, "file")) @if one.later > 0 { ", " (size(one.later)) " loads on demand" } }
                @for (start, segment) in placed(&one.segments) {
                    g { title { (plain(&segment.name)) ", " (size(segment.bytes)) }
                        rect class=(segment.class) x=(x(start)) y=(top + 22) width=(x(segment.bytes)) height="30" {}
                        @if segment.bytes.saturating_mul(10_000) / scale.max(1) >= 2 * NAMED {
                            text class={ "label " (segment.class) } x=(x(start + scale / 200)) y=(top + 42) { (plain(&segment.name)) }
                        }
                    }
                }
                @if one.later > 0 { rect class="later" x=(x(one.startup + scale / 200)) y=(top + 32) width=(x(one.later)) height="10" {} }
            }
            @let top = ROW * strata.len() as u64 + 18;
            @for (at, (class, name)) in [("own", "own"), ("third", "third-party"), ("assets", "assets"), ("glue", "glue"), ("later", "loads on demand")].into_iter().enumerate() {
                @let left = 130 * at as u64;
                rect class=(class) x=(left + 1) y=(top) width="14" height="12" {}
                text class="size" x=(left + 22) y=(top + 11) { (name) }
            }
        }
    };
    format!("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{}\n", markup.into_string())
}

/// Segments with where they begin.
fn placed(segments: &[Segment]) -> impl Iterator<Item = (u64, &Segment)> {
    segments.iter().scan(0, |left, segment| {
        let start = *left;
        *left += segment.bytes;
        Some((start, segment))
    })
}

/// Readable on light and on dark paper, whichever the document has.
const FIGURE: &str = ".name{font-size:15px;font-weight:650;fill:#1b2530}.size{font-size:13px;fill:#55606b}.own{fill:#0e6a70}.third{fill:url(#third);stroke:#8a5f14}.assets{fill:url(#assets);stroke:#6f757c}.glue{fill:none;stroke:#6f757c;stroke-dasharray:3 2}.none{fill:none;stroke:#6f757c;stroke-dasharray:1 2}.later{fill:none;stroke:#1b2530;stroke-width:1.5}.label{font-size:13px;stroke:none}.label.own{fill:#fff}.label.third,.label.assets,.label.glue,.label.none{fill:#3d2c05}.a{fill:#f3e3bd}.b{stroke:#dfbd79;stroke-width:2.4}.c{fill:#eef0ee}.d{fill:#8aa0a0}@media (prefers-color-scheme:dark){.name{fill:#e8e6df}.size{fill:#a9b1b8}.own{fill:#2f9aa1}.label.own{fill:#04191b}.a{fill:#4a3913}.b{stroke:#6d5520}.third{stroke:#d8a94e}.label.third,.label.assets,.label.glue,.label.none{fill:#fbecc9}.c{fill:#232b30}.d{fill:#6f8585}.later{stroke:#e8e6df}}";
