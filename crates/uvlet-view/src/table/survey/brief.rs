//! Many entries, a line for each.

use std::collections::{BTreeSet, HashMap};

use uvlet_audit::ask::survey::EntryRow;
use uvlet_record::sizes::Sizes;

use super::{bars::parts, notes::Notes};
use crate::{
    bar::draw,
    name::{fitted, plain, width},
    screen::{Screen, count, dim, wrapped},
};

/// Lines for entries that are listed; the rest is one line.
const BRIEF: usize = 40;

/// A line for each of many entries, the heaviest first; those that load the same code stand together.
pub(super) fn lines(
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
