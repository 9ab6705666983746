//! Declarations that nothing uses, by package; of own code by module.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::ModuleId;

use crate::{
    find::{
        about::{About, DeadCause, Declared},
        context::Ground,
        finding::{Bound, Found, Part, PartText},
        liveness::{dead::Dead, follow::What},
    },
    parts::spans::Spans,
};

/// Bytes below which what is kept for an effect is not worth a word.
const LEAST: u64 = 100;

/// Characters of emitted text that are shown of each.
const EXCERPT: usize = 160;

/// What nothing uses.
pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let groups = groups(ground, ground.liveness().dead.iter(), |dead| dead);
    let found = groups.into_iter().filter_map(|(name, dead)| {
        let about = About::DeadDeclaration {
            declared: declared(&name, &dead)?,
            why: cause(&dead),
            bailout: bailout(ground, &dead),
            is_believed: dead.iter().any(|one| one.is_believed),
            is_installed: is_installed(ground, &dead),
        };
        Some(Found {
            names: BTreeSet::from([name]),
            spans: spans(&dead),
            parts: parts(ground, &dead),
            bound: Bound::Exact,
            ..Found::of(about)
        })
    });
    found.collect()
}

/// What nothing uses and is kept for what its evaluation may do.
pub fn find_kept(ground: &Ground<'_>) -> Vec<Found> {
    let groups = groups(ground, ground.liveness().kept.iter(), |kept| &kept.declaration);
    let found = groups.into_iter().filter_map(|(name, kept)| {
        let dead: Vec<&Dead> = kept.iter().map(|kept| &kept.declaration).collect();
        let declared = declared(&name, &dead)?;
        let bytes: u64 = spans(&dead).iter().map(|(_, range)| range.end - range.start).sum();
        if bytes < LEAST {
            return None;
        }
        let effects = kept.iter().filter_map(|kept| kept.effect).collect();
        Some(Found {
            names: BTreeSet::from([name]),
            spans: spans(&dead),
            parts: parts(ground, &dead),
            bound: Bound::AtMost,
            ..Found::of(About::KeptForEffect {
                declared,
                effects,
                is_installed: is_installed(ground, &dead),
            })
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

/// Whether declarations are of an installed package.
fn is_installed(ground: &Ground<'_>, dead: &[&Dead]) -> bool {
    let record = ground.record();
    let mut modules = dead.iter().filter_map(|one| one.module);
    modules.any(|id| record.package_of(id).is_some_and(|package| !package.own))
}

fn is_declared(dead: &Dead) -> bool {
    !matches!(dead.what, What::Import | What::Member)
}

/// The declarations among them, by their names; none where there are mere names.
fn declared(of: &str, dead: &[&Dead]) -> Option<Declared> {
    let bytes = |one: &Dead| one.ranges.iter().map(|range| range.end - range.start).sum::<u64>();
    let declared: Vec<&Dead> = dead.iter().copied().filter(|one| is_declared(one)).collect();
    let mut largest: Vec<(u64, &str)> =
        declared.iter().map(|one| (bytes(one), one.name.as_str())).collect();
    largest.sort_by_key(|(bytes, name)| (std::cmp::Reverse(*bytes), *name));
    let mut names: Vec<String> = Vec::new();
    let mut seen: BTreeSet<&str> = BTreeSet::new();
    for (_, name) in largest {
        if seen.insert(name) {
            names.push(name.to_owned());
        }
    }
    let number = declared.len();
    (number > 0).then(|| Declared { of: of.to_owned(), number, names })
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
            text: PartText::Excerpt(start.trim().chars().take(EXCERPT).collect()),
            ..Part::default()
        });
    }
    parts.sort_by(|a, b| b.emitted.cmp(&a.emitted).then_with(|| a.name.cmp(&b.name)));
    parts
}

fn cause(dead: &[&Dead]) -> DeadCause {
    let is_added_to = |one: &&Dead| one.what != What::Import && one.ranges.len() > 1;
    if dead.iter().any(|one| one.what == What::Member) {
        DeadCause::Members
    } else if dead.iter().any(is_added_to) {
        DeadCause::AddedTo
    } else if dead.iter().any(|one| one.what == What::Import) {
        DeadCause::Imported
    } else {
        DeadCause::Unseen
    }
}

/// What the bundler says of a module of theirs.
fn bailout(ground: &Ground<'_>, dead: &[&Dead]) -> Option<String> {
    let modules: BTreeSet<ModuleId> = dead.iter().filter_map(|one| one.module).collect();
    let notes = modules.iter().flat_map(|&id| ground.record().module(id).bailouts.iter());
    notes.min().cloned()
}
