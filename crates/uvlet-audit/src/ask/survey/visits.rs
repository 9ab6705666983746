//! What comes from other hosts, and what routes add that an entry's code opens.

use uvlet_record::{Entry, FileId, When};

use crate::{
    ask::survey::rows::{AfterRow, ElsewhereRow, Moment, Part, VisitRow},
    graph::{reach::Reach, visits::Visit},
    lens::Lens,
};

/// What is asked of other hosts, by URL and file.
#[must_use]
pub fn elsewhere(lens: &Lens<'_>) -> Vec<ElsewhereRow> {
    let record = lens.record;
    let mut rows = Vec::new();
    let asking = record.files.iter().enumerate().filter(|(_, file)| !file.elsewhere.is_empty());
    for (at, file) in asking {
        let id = FileId::new(at);
        let reach = || record.entries.iter().zip(&lens.reach);
        let starts = |(entry, reach): &(&Entry, &Reach)| {
            reach.startup.contains(&id) || entry.pages.contains(&file.path)
        };
        let is_startup = reach().any(|entry| starts(&entry));
        let entries = reach().filter(|entry| starts(entry) || entry.1.deferred.contains(&id));
        let entries: Vec<String> = entries.map(|(entry, _)| entry.name.clone()).collect();
        rows.extend(file.elsewhere.iter().map(|asked| ElsewhereRow {
            url: asked.url.clone(),
            by: file.path.clone(),
            entries: entries.clone(),
            when: match asked.when {
                When::AtOnce if is_startup => Moment::Startup,
                _ => Moment::Later,
            },
        }));
    }
    rows.sort_by(|a, b| (a.when, &a.url, &a.by).cmp(&(b.when, &b.url, &b.by)));
    rows
}

pub(super) fn visits(lens: &Lens<'_>) -> Vec<VisitRow> {
    let opened = || lens.visits.iter().filter(|visit| !visit.is_entry);
    let row = |visit: &Visit| {
        let startup = &lens.reach[visit.entry].startup;
        let all: Vec<FileId> = startup.iter().chain(&visit.adds).copied().collect();
        let Part { sizes, file_count } = Part::of(lens, all.iter().copied());
        let others =
            opened().filter(|other| other.entry == visit.entry && other.route != visit.route);
        let after = others.map(|first| {
            let mut rest = visit.adds.clone();
            rest.retain(|file| !first.adds.contains(file));
            let Part { sizes, file_count } = Part::of(lens, rest.iter().copied());
            AfterRow { route: first.route.clone(), sizes, file_count }
        });
        VisitRow {
            route: visit.route.clone(),
            entry: lens.record.entries[visit.entry].name.clone(),
            sizes,
            file_count,
            adds: Part::of(lens, visit.adds.iter().copied()),
            after: after.collect(),
        }
    };
    opened().map(row).collect()
}
