//! Declarations that nothing uses, by package; of own code by module.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::ModuleId;
use uvlet_script::declarations::Effect;

use crate::{
    find::{
        context::Ground,
        finding::{Bound, Found, Part, counted},
        liveness::{dead::Dead, follow::What},
    },
    parts::spans::Spans,
};

/// Declarations that a title names.
const NAMED: usize = 3;

/// Bytes below which what is kept for an effect is not worth a word.
const LEAST: u64 = 100;

/// Characters of emitted text that are shown of each.
const EXCERPT: usize = 160;

/// What nothing uses.
pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let groups = groups(ground, ground.liveness().dead.iter(), |dead| dead);
    let found = groups.into_iter().filter_map(|(name, dead)| {
        let declared = declared(&dead)?;
        Some(Found {
            title: title(&name, "that nothing uses", &declared),
            cause: cause(ground, &dead),
            advice: advice(&dead),
            names: BTreeSet::from([name]),
            spans: spans(&dead),
            parts: parts(ground, &dead),
            bound: Bound::Exact,
            ..Found::default()
        })
    });
    found.collect()
}

/// What nothing uses and is kept for what its evaluation may do.
pub fn find_kept(ground: &Ground<'_>) -> Vec<Found> {
    let groups = groups(ground, ground.liveness().kept.iter(), |kept| &kept.declaration);
    let found = groups.into_iter().filter_map(|(name, kept)| {
        let dead: Vec<&Dead> = kept.iter().map(|kept| &kept.declaration).collect();
        let declared = declared(&dead)?;
        let bytes: u64 = spans(&dead).iter().map(|(_, range)| range.end - range.start).sum();
        if bytes < LEAST {
            return None;
        }
        let mut effects: Vec<String> =
            kept.iter().filter_map(|kept| Some(kept.effect?.to_string())).collect();
        effects.sort();
        effects.dedup();
        let calls = kept.iter().any(|kept| matches!(kept.effect, Some(Effect::Call | Effect::Construct)));
        Some(Found {
            title: title(&name, "that nothing uses, kept for what they may do", &declared),
            cause: format!("evaluating them is {}, which may do something", effects.join(" or ")),
            advice: match calls {
                true => "take them out; where the call does nothing else, mark it `/*#__PURE__*/` and the bundler takes it out".to_owned(),
                false => "take them out if nothing else comes of it".to_owned(),
            },
            names: BTreeSet::from([name]),
            spans: spans(&dead),
            parts: parts(ground, &dead),
            bound: Bound::AtMost,
            ..Found::default()
        })
    });
    found.collect()
}

/// By package; own code by module. What cannot be tied to a module is named by nobody.
fn groups<'l, T>(
    ground: &Ground<'_>,
    all: impl Iterator<Item = &'l T>,
    dead: impl Fn(&T) -> &Dead,
) -> BTreeMap<String, Vec<&'l T>> {
    let record = ground.record();
    let mut groups: BTreeMap<String, Vec<&T>> = BTreeMap::new();
    for one in all {
        let is_apart = ground.apart.contains(&dead(one).file);
        let Some(module) = dead(one).module.filter(|_| !is_apart) else { continue };
        let name = match record.package_of(module).filter(|package| !package.own) {
            Some(package) => package.name.clone(),
            None => record.module(module).path.clone(),
        };
        groups.entry(name).or_default().push(one);
    }
    groups
}

fn is_declared(dead: &Dead) -> bool {
    !matches!(dead.what, What::Import | What::Member)
}

/// The declarations among them; none where there are mere names.
fn declared<'d>(dead: &[&'d Dead]) -> Option<Vec<&'d Dead>> {
    let declared: Vec<&Dead> = dead.iter().copied().filter(|one| is_declared(one)).collect();
    (!declared.is_empty()).then_some(declared)
}

fn spans(dead: &[&Dead]) -> Spans {
    let mut spans = Spans::default();
    for one in dead {
        one.ranges.iter().for_each(|range| spans.add(one.file, range.clone()));
    }
    spans.joined()
}

/// Each declaration with the start of its text, the largest first.
fn parts(ground: &Ground<'_>, dead: &[&Dead]) -> Vec<Part> {
    let mut parts: Vec<Part> = Vec::new();
    let mut file = None;
    for one in dead.iter().filter(|one| is_declared(one)) {
        if file.as_ref().is_none_or(|(known, _)| *known != one.file) {
            file = Some((one.file, ground.texts.emitted(one.file)));
        }
        let text = file.as_ref().and_then(|(_, text)| text.as_deref()).unwrap_or_default();
        let Some(range) = one.ranges.first() else { continue };
        let at = |byte: u64| usize::try_from(byte).unwrap_or(usize::MAX).min(text.len());
        let start = String::from_utf8_lossy(&text[at(range.start)..at(range.end)]);
        parts.push(Part {
            name: one.name.clone(),
            module: one.module.map(|id| ground.record().module(id).path.clone()),
            emitted: one.ranges.iter().map(|range| range.end - range.start).sum(),
            text: start.trim().chars().take(EXCERPT).collect(),
            ..Part::default()
        });
    }
    parts.sort_by(|a, b| b.emitted.cmp(&a.emitted).then_with(|| a.name.cmp(&b.name)));
    parts
}

fn title(name: &str, why: &str, declared: &[&Dead]) -> String {
    let mut largest: Vec<(u64, &str)> = declared
        .iter()
        .map(|one| {
            (one.ranges.iter().map(|range| range.end - range.start).sum(), one.name.as_str())
        })
        .collect();
    largest.sort_by_key(|(bytes, name)| (std::cmp::Reverse(*bytes), *name));
    let names: BTreeSet<&str> = largest.iter().map(|(_, name)| *name).collect();
    let mut shown: Vec<&str> = Vec::new();
    for (_, name) in &largest {
        if !shown.contains(name) && shown.len() < NAMED {
            shown.push(name);
        }
    }
    let more = match names.len() - shown.len() {
        0 => String::new(),
        more => format!(" and {more} more"),
    };
    format!(
        "{} of {name} {why}: {}{more}",
        counted(declared.len(), "declaration"),
        shown.join(", ")
    )
}

fn cause(ground: &Ground<'_>, dead: &[&Dead]) -> String {
    let record = ground.record();
    let mut parts = Vec::new();
    let is_added_to = |one: &&Dead| one.what != What::Import && one.ranges.len() > 1;
    if dead.iter().any(|one| one.what == What::Member) {
        parts.push(
            "they are members of an object that stands for a module, and is kept whole".to_owned(),
        );
    } else if dead.iter().any(is_added_to) {
        parts.push("statements that only add to them keep them".to_owned());
    } else if dead.iter().any(|one| one.what == What::Import) {
        parts.push("other scripts import them and do not use them".to_owned());
    } else {
        parts.push(
            "the bundler did not see that only they use each other, or was not asked to look"
                .to_owned(),
        );
    }
    let modules: BTreeSet<ModuleId> = dead.iter().filter_map(|one| one.module).collect();
    let notes = modules.iter().flat_map(|&id| record.module(id).bailouts.iter());
    if let Some(note) = notes.min() {
        parts.push(format!("the bundler says: {note}"));
    }
    if dead.iter().any(|one| one.is_believed) {
        parts.push("a comment in their source says that what they call has no effect".to_owned());
    }
    parts.join("; ")
}

fn advice(dead: &[&Dead]) -> String {
    if dead.iter().any(|one| one.what == What::Member) {
        "import the names that are used, not the object of all of them (`import { a }`, not `import * as`), or from the paths of their own modules"
            .to_owned()
    } else {
        "take them out of the source, or turn on the bundler's tree shaking and minifier".to_owned()
    }
}
