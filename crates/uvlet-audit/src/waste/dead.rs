//! Declarations that nothing uses, by package; of own code by module.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::ModuleId;

use super::{Bound, Found, Ground, Spans, counted};
use crate::liveness::{Dead, Kept, What};

/// Declarations that a title names.
const NAMED: usize = 3;

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let liveness = ground.liveness();
    let group = |module: ModuleId| -> String {
        match record.package_of(module).filter(|package| !package.own) {
            Some(package) => package.name.clone(),
            None => record.module(module).path.clone(),
        }
    };
    let mut groups: BTreeMap<String, Vec<&Dead>> = BTreeMap::new();
    for dead in &liveness.dead {
        // What cannot be tied to a module is named by nobody.
        let Some(module) = dead.module.filter(|_| !ground.apart.contains(&dead.file)) else {
            continue;
        };
        groups.entry(group(module)).or_default().push(dead);
    }
    let mut kept: BTreeMap<String, Vec<&Kept>> = BTreeMap::new();
    for one in &liveness.kept {
        kept.entry(group(one.module)).or_default().push(one);
    }
    let found = groups.into_iter().filter_map(|(name, dead)| {
        let declared: Vec<&&Dead> =
            dead.iter().filter(|one| !matches!(one.what, What::Import | What::Member)).collect();
        if declared.is_empty() {
            return None;
        }
        let mut spans = Spans::default();
        for one in &dead {
            one.ranges.iter().for_each(|range| spans.add(one.file, range.clone()));
        }
        let kept = kept.get(&name).map(Vec::as_slice).unwrap_or_default();
        Some(Found {
            title: title(&name, &declared),
            cause: cause(ground, &dead, kept),
            advice: advice(&dead),
            names: BTreeSet::from([name]),
            spans: spans.joined(),
            bound: Bound::Exact,
            ..Found::default()
        })
    });
    found.collect()
}

fn title(name: &str, declared: &[&&Dead]) -> String {
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
        "{} of {name} that nothing uses: {}{more}",
        counted(declared.len(), "declaration"),
        shown.join(", ")
    )
}

fn cause(ground: &Ground<'_>, dead: &[&Dead], kept: &[&Kept]) -> String {
    let record = ground.record();
    let mut parts = Vec::new();
    if dead.iter().any(|one| one.what == What::Member) {
        parts.push(
            "they are members of an object that stands for a module, and is kept whole".to_owned(),
        );
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
    if !kept.is_empty() {
        let bytes: u64 = kept.iter().map(|one| one.bytes).sum();
        let mut effects: Vec<String> = kept.iter().map(|one| one.effect.to_string()).collect();
        effects.sort();
        effects.dedup();
        parts.push(format!(
            "{bytes} B more are unused, and kept as {} may do something",
            effects.join(" or ")
        ));
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
