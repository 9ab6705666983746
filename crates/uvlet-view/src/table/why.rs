//! Why something is here: the answer in a sentence, the chains that lead to it, what would leave with
//! it, and what would stay.

use uvlet_audit::ask::why::{Chain, Importer, LeavingAtStartup, Moment, Step, Why};
use uvlet_record::{EdgeBasis, EdgeKind, Record, sizes::Sizes};

use crate::name::{fitted, plain, width};
use crate::screen::{Screen, bold, count, dim, measures_said, wrapped};

/// Chains that are shown; the rest is one line.
const CHAINS: usize = 6;
/// Importers, and things that stay, that are shown.
const LISTED: usize = 8;
/// Entries that a sentence names.
const NAMED: usize = 3;
/// Names of a step that are shown.
const TAKEN: usize = 4;

/// How much is shown.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Breadth {
    /// The nearest.
    Some,
    /// Every chain, importer and file.
    All,
}

/// Shows why something is here.
#[must_use]
pub fn why(why: &Why, record: &Record, screen: &Screen, breadth: Breadth) -> String {
    let columns = screen.columns();
    let all = breadth == Breadth::All;
    let mut text = format!("{}\n", bold(&wrapped(&sentence(why, screen), columns, 0)));
    text.push_str(&format!("{}\n", wrapped(&extent(why, screen), columns, 0)));
    for other in screen.others() {
        text.push_str(&format!("{}\n", wrapped(&extent(why, &other), columns, 0)));
    }
    if let Some(said) = &why.description {
        let said = format!("Its package.json says: “{}”", plain(said));
        text.push_str(&format!("{}\n", wrapped(&said, columns, 0)));
    }
    let shown = if all { why.chains.len() } else { CHAINS.min(why.chains.len()) };
    for chain in &why.chains[..shown] {
        text.push_str(&format!("\n{}", one_chain(chain, why, screen)));
    }
    if shown < why.chains.len() {
        let more = count(why.chains.len() - shown, "more entry");
        text.push_str(&dim(&format!("\nand {more}; --all lists them\n")));
    }
    text.push_str(&importers(&why.importers, screen, all));
    text.push_str(&leaving(&why.at_startup, screen));
    text.push_str(&stays(why, screen, all));
    if all || why.chains.iter().any(|chain| chain.steps.is_empty()) {
        text.push_str(&places(why, screen));
    }
    if let Some(doubt) = doubt(why) {
        text.push_str(&format!("\n{}\n", wrapped(&doubt, columns, 0)));
    }
    let said = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

fn size(sizes: &Sizes, screen: &Screen) -> String {
    screen.units.size(sizes.get(screen.measure))
}

/// `booking, crew and 4 more`.
fn some(names: &[&str]) -> String {
    let shown: Vec<_> = names.iter().take(NAMED).map(|name| plain(name)).collect();
    match (names.len().saturating_sub(NAMED), shown.split_last()) {
        (0, Some((last, rest))) if !rest.is_empty() => format!("{} and {last}", rest.join(", ")),
        (0, _) => shown.concat(),
        (more, _) => format!("{} and {more} more", shown.join(", ")),
    }
}

/// The answer.
pub(crate) fn sentence(why: &Why, screen: &Screen) -> String {
    let name = plain(&why.subject);
    let of = |when: Moment| -> Vec<&str> {
        let chains = why.chains.iter().filter(|chain| chain.when == when);
        chains.map(|chain| chain.entry.as_str()).collect()
    };
    let (startup, deferred) = (of(Moment::Startup), of(Moment::Deferred));
    // What the entry that gains most is told by.
    let most = why.at_startup.first();
    let chain = most.and_then(|most| why.chains.iter().find(|chain| chain.entry == most.entry));
    let chain = chain.or_else(|| why.chains.first());
    let cause = chain.map(|chain| cause(chain, why)).unwrap_or_default();
    let is_early = |chain: &Chain| chain.when == Moment::Startup && is_deferred(chain);
    if let (Some(chain), Some(place)) = (
        chain.filter(|chain| is_early(chain)),
        why.lies_in.iter().find(|place| !place.startup_of.is_empty()),
    ) {
        return format!(
            "{name} is in the startup of {}, because it is bundled into {}; {} imports it on demand.",
            some(&startup),
            plain(&place.file),
            plain(&chain.entry)
        );
    }
    if let (false, Some(most)) = (startup.is_empty(), most) {
        return format!(
            "{name} is in the startup of {}{cause}; without it {} would start with {} less.",
            some(&startup),
            plain(&most.entry),
            size(&most.sizes, screen)
        );
    }
    if !startup.is_empty() {
        return format!("{name} is in the startup of {}{cause}.", some(&startup));
    }
    if !deferred.is_empty() {
        return format!(
            "{name} loads on demand in {}{cause}; without it there would be {} less to load.",
            some(&deferred),
            size(&why.leaves_with_it.sizes, screen)
        );
    }
    format!("{name} is in the build, and no entry is known to load it.")
}

/// `, because src/booking/main.js imports it`.
fn cause(chain: &Chain, why: &Why) -> String {
    let [.., asker, last] = chain.steps.as_slice() else {
        return match (chain.steps.first(), why.lies_in.first()) {
            (Some(_), _) if chain.has_lost_start => {
                "; what imports it there is not known".to_owned()
            }
            (Some(_), _) => format!(", because {} starts with it", plain(&chain.entry)),
            (None, Some(place)) => {
                format!(
                    " in {}, though no chain of imports is known that leads to it",
                    plain(&place.file)
                )
            }
            (None, None) => String::new(),
        };
    };
    format!(", because {} {} it", plain(&asker.module), last.by.map_or("imports", verb))
}

/// Whether a chain leads over a load on demand.
fn is_deferred(chain: &Chain) -> bool {
    chain.steps.iter().any(|step| step.by.is_some_and(EdgeKind::is_deferred))
}

/// What a module does to another.
pub(crate) fn verb(kind: EdgeKind) -> &'static str {
    match kind {
        EdgeKind::Static => "imports",
        EdgeKind::Reexport => "re-exports",
        EdgeKind::Require => "requires",
        EdgeKind::Dynamic => "loads",
        EdgeKind::Worker => "starts",
        EdgeKind::Style => "is styled by",
        EdgeKind::Url => "names",
    }
}

/// How much it is, and what leaves with it.
pub(crate) fn extent(why: &Why, screen: &Screen) -> String {
    let own = format!(
        "It is {} ({}) in {}",
        size(&why.sizes, screen),
        screen.measure,
        count(why.modules, "module")
    );
    let with = &why.leaves_with_it;
    if with.modules <= why.modules {
        return format!("{own}; nothing else would leave the build with it.");
    }
    let packages: Vec<&str> = with.packages.iter().map(String::as_str).collect();
    let packages = match packages.as_slice() {
        [] => String::new(),
        names => format!(", all of {} among it", some(names)),
    };
    format!(
        "{own}. {} in {} would leave the build with it{packages}.",
        size(&with.sizes, screen),
        count(with.modules, "module")
    )
}

/// Steps of one package after each other, as one.
struct Folded<'a> {
    first: &'a Step,
    last: &'a Step,
    modules: usize,
}

fn folded(steps: &[Step]) -> Vec<Folded<'_>> {
    let mut folded: Vec<Folded<'_>> = Vec::new();
    for step in steps {
        match folded.last_mut() {
            Some(run) if step.package.is_some() && run.last.package == step.package => {
                run.last = step;
                run.modules += 1;
            }
            _ => folded.push(Folded { first: step, last: step, modules: 1 }),
        }
    }
    folded
}

pub(crate) fn one_chain(chain: &Chain, why: &Why, screen: &Screen) -> String {
    let when = match chain.when {
        Moment::Startup => "at startup",
        Moment::Deferred => "on demand",
    };
    let mut text = format!("{}, {when}:\n", bold(&plain(&chain.entry)));
    if chain.steps.is_empty() {
        let place = why.lies_in.iter().find(|place| {
            place.startup_of.contains(&chain.entry) || place.deferred_of.contains(&chain.entry)
        });
        let file = place.map(|place| plain(&place.file).into_owned()).unwrap_or_default();
        let said = format!("   it is in {file}, which it loads; its importer is not known");
        return format!("{text}{}\n", wrapped(&said, screen.columns(), 3));
    }
    let lines = folded(&chain.steps).into_iter().map(|run| {
        let more = match run.modules {
            1 => String::new(),
            modules => format!("  through {}", count(modules, "module")),
        };
        let name = format!("{}{more}", plain(&run.last.module));
        (name, run.first.by.map(|by| asked(by, run.first.names.as_deref())).unwrap_or_default())
    });
    let lines: Vec<(String, String)> = lines.collect();
    let room = screen.columns().saturating_sub(6);
    let names = lines.iter().map(|(name, _)| width(name)).max().unwrap_or(0).min(room * 3 / 5);
    for (at, (name, by)) in lines.iter().enumerate() {
        let name = fitted(name, names);
        let gap = " ".repeat(names - width(&name));
        let by = cut(by, room.saturating_sub(names + 2));
        text.push_str(format!("  {:>2}  {name}{gap}  {by}", at + 1).trim_end());
        text.push('\n');
    }
    text
}

/// How a step was asked for: `import { h, button }`.
fn asked(by: EdgeKind, names: Option<&[String]>) -> String {
    let word = match by {
        EdgeKind::Static => "import",
        EdgeKind::Reexport => "export from",
        EdgeKind::Require => "require",
        EdgeKind::Dynamic => "import()",
        EdgeKind::Worker => "worker",
        EdgeKind::Style => "style",
        EdgeKind::Url => "url",
    };
    match names {
        Some([]) | None => word.to_owned(),
        Some(names) => format!("{word} {}", taken(names)),
    }
}

fn taken(names: &[String]) -> String {
    let shown: Vec<_> = names.iter().take(TAKEN).map(|name| plain(name)).collect();
    match names.len().saturating_sub(TAKEN) {
        0 => shown.join(", "),
        more => format!("{} and {more} more", shown.join(", ")),
    }
}

/// A text in so many columns: its end goes first.
fn cut(text: &str, columns: usize) -> String {
    if width(text) <= columns {
        return text.to_owned();
    }
    let mut kept = String::new();
    for c in text.chars() {
        if width(&kept) + 2 > columns {
            break;
        }
        kept.push(c);
    }
    format!("{}…", kept.trim_end())
}

fn importers(importers: &[Importer], screen: &Screen, all: bool) -> String {
    if importers.is_empty() {
        return String::new();
    }
    let shown = if all || importers.len() <= LISTED + 1 { importers.len() } else { LISTED };
    let mut text = format!("\n{}\n", bold("Imported by:"));
    let room = screen.columns().saturating_sub(2);
    let lines = importers[..shown].iter().map(|importer| {
        let by = importer.by.first().copied().unwrap_or(EdgeKind::Static);
        (plain(&importer.module).into_owned(), asked(by, importer.names.as_deref()))
    });
    let lines: Vec<(String, String)> = lines.collect();
    let names = lines.iter().map(|(name, _)| width(name)).max().unwrap_or(0).min(room * 3 / 5);
    for (name, by) in &lines {
        let name = fitted(name, names);
        let gap = " ".repeat(names - width(&name));
        let by = cut(by, room.saturating_sub(names + 2));
        text.push_str(format!("  {name}{gap}  {by}").trim_end());
        text.push('\n');
    }
    if shown < importers.len() {
        let more = count(importers.len() - shown, "more module");
        text.push_str(&dim(&format!("  and {more}; --all lists them\n")));
    }
    text
}

fn leaving(rows: &[LeavingAtStartup], screen: &Screen) -> String {
    if rows.is_empty() {
        return String::new();
    }
    let mut text = format!("\n{}\n", bold("Would leave the startup of:"));
    let names = rows.iter().map(|row| width(&plain(&row.entry))).max().unwrap_or(0);
    let names = names.min(screen.columns().saturating_sub(30));
    for row in rows {
        let name = fitted(&row.entry, names);
        let gap = " ".repeat(names - width(&name));
        text.push_str(&format!(
            "  {name}{gap}  {:>9}  {}\n",
            size(&row.sizes, screen),
            count(row.modules, "module")
        ));
    }
    text
}

fn stays(why: &Why, screen: &Screen, all: bool) -> String {
    if why.stays.is_empty() {
        return String::new();
    }
    let shown = if all { why.stays.len() } else { LISTED.min(why.stays.len()) };
    let mut text = format!("\n{}\n", bold("Stays, still needed by others:"));
    let names = why.stays[..shown].iter().map(|row| width(&plain(&row.name))).max().unwrap_or(0);
    let names = names.min(screen.columns() / 3);
    let room = screen.columns().saturating_sub(names + 24);
    for row in &why.stays[..shown] {
        let name = fitted(&row.name, names);
        let gap = " ".repeat(names - width(&name));
        let holder = row.held_by.as_deref().map(|by| format!("needed by {}", fitted(by, room)));
        let line = format!(
            "  {name}{gap}  {:>9}  {}",
            size(&row.sizes, screen),
            holder.unwrap_or_default()
        );
        text.push_str(line.trim_end());
        text.push('\n');
    }
    if shown < why.stays.len() {
        let more = why.stays.len() - shown;
        text.push_str(&dim(&format!("  and {more} more; --all lists them\n")));
    }
    text
}

fn places(why: &Why, screen: &Screen) -> String {
    let mut text = format!("\n{}\n", bold("Bundled into:"));
    for place in &why.lies_in {
        let names = |list: &[String]| some(&list.iter().map(String::as_str).collect::<Vec<_>>());
        let when = match (place.startup_of.is_empty(), place.deferred_of.is_empty()) {
            (false, _) => format!("startup of {}", names(&place.startup_of)),
            (true, false) => format!("on demand in {}", names(&place.deferred_of)),
            (true, true) => "in no entry".to_owned(),
        };
        let line = format!("  {}: {}, {when}", plain(&place.file), size(&place.sizes, screen));
        text.push_str(&format!("{}\n", wrapped(&line, screen.columns(), 4)));
    }
    text
}

/// What the answer is not sure of.
pub(crate) fn doubt(why: &Why) -> Option<String> {
    let unresolved = why.edges.unresolved;
    match why.edges.basis {
        None => Some(
            "No import graph is available: there is no description of the build, and its source maps \
             have no sources."
                .to_owned(),
        ),
        Some(EdgeBasis::Said) => None,
        Some(_) if unresolved == 0 => None,
        Some(_) => Some(format!(
            "The import graph is read from sources; {} could not be resolved.",
            count(unresolved, "request")
        )),
    }
}
