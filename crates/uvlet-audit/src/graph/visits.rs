//! What a visit of a route fetches: the startup of its entry, with what its own dynamic loads add where
//! one entry serves many routes.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{FileId, Record};

use crate::graph::reach::Reach;

/// A visit of one route.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Visit {
    /// The route, as its framework or router writes it.
    pub route: String,
    /// The entry that serves it, by its place in the record.
    pub entry: usize,
    /// What comes after the entry's startup, in the order of request.
    pub adds: Vec<FileId>,
    /// The entry is this route's alone, so that its startup is all there is.
    pub is_entry: bool,
}

/// The routes of a build, by entry and route.
#[must_use]
pub fn visits(record: &Record, reach: &[Reach]) -> Vec<Visit> {
    let mut visits = Vec::new();
    // Where every route is an entry, its page's code is only asked for from others.
    let has_entry: BTreeSet<&str> =
        record.entries.iter().flat_map(|entry| &entry.routes).map(String::as_str).collect();
    for (at, (entry, reach)) in record.entries.iter().zip(reach).enumerate() {
        let mut loads: BTreeMap<&str, Vec<FileId>> = BTreeMap::new();
        for load in reach.loads.iter() {
            let load = &record.dynamic_loads[load];
            let is_here = |route: &&String| {
                !has_entry.contains(route.as_str()) || entry.routes.contains(route)
            };
            for route in load.routes.iter().filter(is_here) {
                loads.entry(route).or_default().extend(&load.files);
            }
        }
        for route in entry.routes.iter().filter(|route| !loads.contains_key(route.as_str())) {
            let (route, adds) = (route.clone(), Vec::new());
            visits.push(Visit { route, entry: at, adds, is_entry: true });
        }
        let mut startup = vec![false; record.files.len()];
        reach.startup.iter().for_each(|file| startup[file.at()] = true);
        for (route, files) in loads {
            let adds = record.closure_beyond(&files, &mut startup.clone());
            visits.push(Visit { route: route.to_owned(), entry: at, adds, is_entry: false });
        }
    }
    visits
}
