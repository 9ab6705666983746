//! What an entry can load on demand, load by load.

use std::collections::{BTreeMap, HashMap};

use uvlet_record::{DynamicLoad, FileId, ModuleId, Record, When};

use crate::{
    ask::survey::rows::{Deferred, LoadRow, Part},
    graph::reach::Reach,
    lens::Lens,
};

/// Dynamic loads that are listed of all entries together: thousands of pages may each reach thousands.
const MOST_LOADS: usize = 200_000;

/// Those that are listed of each entry, however many entries there are.
const LEAST_LOADS: usize = 20;

/// What each dynamic load of a record opens, with all that this statically needs.
pub(super) struct Opened<'r> {
    files: Vec<Vec<FileId>>,
    requests: Requests<'r>,
    /// Loads of an entry that are listed.
    most: usize,
}

impl<'r> Opened<'r> {
    pub(super) fn new(record: &'r Record) -> Self {
        let files = record.dynamic_loads.iter().map(|load| record.closure(&load.files));
        let most = (MOST_LOADS / record.entries.len().max(1)).max(LEAST_LOADS);
        Self { files: files.collect(), requests: requests(record), most }
    }
}

pub(super) fn deferred(lens: &Lens<'_>, reach: &Reach, opened: &Opened<'_>) -> Deferred {
    let record = lens.record;
    let Part { sizes, file_count } = Part::of(lens, reach.deferred.iter());
    let when = |at: usize| {
        let mut added = opened.files[at].iter().filter(|file| !reach.startup.contains(file));
        let comes = added.all(|file| reach.at_once.contains(file));
        if comes { record.dynamic_loads[at].when } else { When::Later }
    };
    let mut listed: Vec<usize> = reach.loads.iter().collect();
    // Of very many, those that count most are looked at; several calls may ask for the same.
    if listed.len() > 2 * opened.most {
        listed.sort_by_cached_key(|&at| {
            let added = opened.files[at].iter().filter(|file| !reach.startup.contains(file));
            (when(at), std::cmp::Reverse(lens.weight(added.copied()).emitted), at)
        });
        listed.truncate(2 * opened.most);
    }
    let mut loads: BTreeMap<Vec<FileId>, LoadRow> = BTreeMap::new();
    for &at in &listed {
        let load = &record.dynamic_loads[at];
        let mut added = opened.files[at].clone();
        added.retain(|file| !reach.startup.contains(file));
        let when = when(at);
        if let Some(known) = loads.get_mut(&added) {
            known.when = known.when.min(when);
        } else if !added.is_empty() {
            let kin = record.kin_of_files(added.iter().copied());
            let row = LoadRow {
                request: request(lens, load, &opened.requests),
                route: load.routes.first().cloned(),
                by: load.module.map(|module| record.module(module).path.clone()),
                when,
                sizes: Part::of(lens, added.iter().copied()).sizes,
                files: added.iter().map(|&file| record.file(file).path.clone()).collect(),
                mostly: kin.first().map(|kin| (*kin).to_owned()),
                others: kin.len().saturating_sub(1),
            };
            loads.insert(added, row);
        }
    }
    let mut loads: Vec<LoadRow> = loads.into_values().collect();
    loads.sort_by(|a, b| {
        let size = |row: &LoadRow| std::cmp::Reverse(row.sizes.emitted);
        (a.when, size(a), &a.request).cmp(&(b.when, size(b), &b.request))
    });
    let unlisted = reach.loads.len() - listed.len();
    loads.truncate(if unlisted == 0 { usize::MAX } else { opened.most });
    Deferred { sizes, file_count, loads, unlisted }
}

/// What modules ask others for on demand.
type Requests<'r> = HashMap<(ModuleId, ModuleId), &'r str>;

fn requests(record: &Record) -> Requests<'_> {
    let deferred = record.edges.iter().filter(|edge| edge.kind.is_deferred());
    deferred.filter_map(|edge| Some(((edge.from, edge.to), edge.request.as_deref()?))).collect()
}

/// What a load asks for: as its source says, where edges tell; else the module that it opens; else
/// as the emitted code says.
fn request(lens: &Lens<'_>, load: &DynamicLoad, requests: &Requests<'_>) -> String {
    let record = lens.record;
    let opened = load.files.first().and_then(|&file| lens.chunk_of(file)?.opened_for);
    let said = load.module.zip(opened).and_then(|edge| requests.get(&edge).copied());
    said.map(str::to_owned)
        .or_else(|| opened.map(|module| record.module(module).path.clone()))
        .unwrap_or_else(|| {
            // Of several chunks the first may be one that others load, too.
            let is_id = load.request.bytes().all(|byte| byte.is_ascii_digit());
            let lead = load.files.first().filter(|_| is_id && load.files.len() > 1);
            let chunk = lead.and_then(|&file| lens.chunk_of(file));
            chunk.map_or_else(|| load.request.clone(), |chunk| chunk.name.clone())
        })
}
