//! Entries, before and after, and what somebody fetches again.

use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_record::{
    FileId,
    sizes::{Measure, Sizes},
};

use crate::{ask::compare::sides::change, lens::Lens};

/// An entry, before and after.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryRow {
    /// Its name.
    pub name: String,
    /// As it was; none if it is new.
    pub before: Option<Loads>,
    /// As it is; none if it is gone.
    pub after: Option<Loads>,
    /// What somebody fetches again who has the build before in the cache; none for a new entry.
    pub return_visit: Option<ReturnVisit>,
}

/// What an entry loads.
#[derive(Clone, Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Loads {
    /// Before its own code can run.
    pub startup: Part,
    /// On demand.
    pub deferred: Part,
}

/// Some files.
#[derive(Clone, Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Part {
    /// Their sizes.
    pub sizes: Sizes,
    /// Their number.
    pub file_count: usize,
}

/// What is fetched again.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ReturnVisit {
    /// Its sizes.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
    /// Paths in the order of request.
    pub files: Vec<String>,
}

pub(crate) fn entries(before: &Lens<'_>, after: &Lens<'_>, measure: Measure) -> Vec<EntryRow> {
    let find = |lens: &Lens<'_>, name: &str| {
        let entries = &lens.record.entries;
        let by_name = entries.iter().position(|entry| entry.name == name);
        by_name.or_else(|| {
            entries.iter().position(|entry| entry.aliases.iter().any(|alias| alias == name))
        })
    };
    let mut rows = Vec::new();
    let mut seen = BTreeSet::new();
    for (at, entry) in after.record.entries.iter().enumerate() {
        let earlier = find(before, &entry.name).filter(|earlier| seen.insert(*earlier));
        rows.push(EntryRow {
            name: entry.name.clone(),
            before: earlier.map(|earlier| loads(before, earlier)),
            after: Some(loads(after, at)),
            return_visit: earlier.map(|earlier| return_visit(before, earlier, after, at)),
        });
    }
    for (at, entry) in before.record.entries.iter().enumerate() {
        if !seen.contains(&at) {
            let (name, before) = (entry.name.clone(), Some(loads(before, at)));
            rows.push(EntryRow { name, before, after: None, return_visit: None });
        }
    }
    let moved = |row: &EntryRow| {
        let sizes = |loads: &Option<Loads>| loads.as_ref().map(|loads| loads.startup.sizes);
        change(sizes(&row.before).as_ref(), sizes(&row.after).as_ref(), measure)
    };
    rows.sort_by(|a, b| {
        moved(b).unsigned_abs().cmp(&moved(a).unsigned_abs()).then_with(|| a.name.cmp(&b.name))
    });
    rows
}

fn part(lens: &Lens<'_>, files: impl Iterator<Item = FileId> + Clone) -> Part {
    Part { sizes: lens.weight(files.clone()).sizes(), file_count: files.count() }
}

fn loads(lens: &Lens<'_>, entry: usize) -> Loads {
    let reach = &lens.reach[entry];
    Loads {
        startup: part(lens, reach.startup.iter().copied()),
        deferred: part(lens, reach.deferred.iter()),
    }
}

/// Startup files whose URL or content differs from those of the entry before.
fn return_visit(before: &Lens<'_>, earlier: usize, after: &Lens<'_>, at: usize) -> ReturnVisit {
    let cached: BTreeSet<(&str, &str)> = before.reach[earlier]
        .startup
        .iter()
        .map(|&file| before.record.file(file))
        .map(|file| (file.path.as_str(), file.digest.as_str()))
        .collect();
    let is_new = |file: &&FileId| {
        let file = after.record.file(**file);
        !cached.contains(&(file.path.as_str(), file.digest.as_str()))
    };
    let files: Vec<FileId> = after.reach[at].startup.iter().filter(is_new).copied().collect();
    let Part { sizes, file_count } = part(after, files.iter().copied());
    let files = files.iter().map(|&file| after.record.file(file).path.clone()).collect();
    ReturnVisit { sizes, file_count, files }
}
