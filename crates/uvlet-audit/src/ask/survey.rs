//! What each page makes a visitor download before it can run, and what loads on demand.

mod deferred;
mod rows;
mod visits;

use std::collections::BTreeSet;

use deferred::{Opened, deferred};
pub use rows::{
    AfterRow, ApartRow, ChunkRow, Deferred, ElsewhereRow, EntryRow, Holds, KindRow, LoadRow,
    Moment, Part, RequestRow, Startup, VisitRow,
};
use serde::Serialize;
use uvlet_record::{
    Aside, Bundler, Chunk, FileId, Kind, Mode, ModeBasis, NamedBy, Owner, Record, Target,
    TargetBasis, sizes::Amount,
};
pub use visits::elsewhere;
use visits::visits;

use crate::{
    graph::reach::Reach,
    lens::Lens,
    parts::{cells::CellSet, prices::apportion_sizes},
    select::overlap,
    time::rounds,
};

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Survey {
    /// What the build says of itself.
    pub build: Build,
    /// By name.
    pub entries: Vec<EntryRow>,
    /// What routes add that an entry's code opens, by entry and route.
    pub visits: Vec<VisitRow>,
    /// What is asked of other hosts, in no total.
    pub elsewhere: Vec<ElsewhereRow>,
    /// By size of the largest measure taken, then by name.
    pub chunks: Vec<ChunkRow>,
    /// Kinds that occur.
    pub kinds: Vec<KindRow>,
    /// All files that count.
    pub totals: Part,
    /// What is not served to visitors, in no total.
    pub set_aside: Vec<ApartRow>,
    /// Files that do not count.
    pub aside: Vec<Aside>,
    /// Counted files that no entry reaches.
    pub unplaced: Vec<String>,
}

/// The build as a whole.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Build {
    /// A name for people.
    pub label: String,
    /// Who bundled.
    pub bundler: Option<Bundler>,
    /// Its version.
    pub bundler_version: Option<String>,
    /// The framework whose output it is.
    pub framework: Option<String>,
    /// Its version.
    pub framework_version: Option<String>,
    /// Production or development.
    pub mode: Mode,
    /// Why.
    pub mode_evidence: Vec<ModeBasis>,
    /// Where it runs.
    pub target: Target,
    /// Why.
    pub target_basis: TargetBasis,
}

/// Names of entries that are listed of all chunks together, of each at least a hundred.
const MOST_NAMES: usize = 1_000_000;

/// Surveys a build.
#[must_use]
pub fn survey(lens: &Lens<'_>) -> Survey {
    let record = lens.record;
    let mut startup_count = vec![0_u32; record.files.len()];
    let mut placed = vec![false; record.files.len()];
    for reach in &lens.reach {
        for &file in &reach.startup {
            startup_count[file.at()] += 1;
            placed[file.at()] = true;
        }
        for file in reach.deferred.iter() {
            placed[file.at()] = true;
        }
    }
    // The pages of one entry are alternatives, of which a visitor opens one; all have their place.
    let pages: BTreeSet<&String> = record.entries.iter().flat_map(|entry| &entry.pages).collect();
    for (placed, file) in placed.iter_mut().zip(&record.files) {
        *placed |= pages.contains(&file.path);
    }
    let opened = Opened::new(record);
    let all = |file: &FileId| startup_count[file.at()] == 1;
    let unreached = overlap::unreached(lens);
    let entries = record.entries.iter().zip(&lens.reach).enumerate();
    let entries = entries.map(|(at, (entry, reach))| {
        let requests = rounds::startup(record, entry, reach);
        let at_once = rounds::at_once(record, &requests, reach);
        EntryRow {
            name: entry.name.clone(),
            aliases: entry.aliases.clone(),
            routes: entry.routes.clone(),
            pages: entry.pages.clone(),
            found_by: entry.origin,
            startup: startup(lens, &reach.startup, &requests, &all),
            at_once: Part::of(lens, reach.startup.iter().copied().chain(reach.at_once.iter())),
            at_once_rounds: rounds::last(&requests).max(rounds::last(&at_once)),
            deferred: deferred(lens, reach, &opened),
            carried: unreached.get(&at).map(|cells| lens.amount(cells).sizes()),
        }
    });
    let every: Vec<FileId> = (0..record.files.len()).map(FileId::new).collect();
    let kinds = Kind::ALL.into_iter().filter_map(|kind| {
        let files: Vec<FileId> =
            every.iter().copied().filter(|&file| record.file(file).kind == kind).collect();
        let Part { sizes, file_count } = Part::of(lens, files.iter().copied());
        (file_count > 0).then_some(KindRow { kind, sizes, file_count })
    });
    let unplaced = every.iter().filter(|file| !placed[file.at()]);
    Survey {
        build: build(record),
        entries: entries.collect(),
        visits: visits(lens),
        elsewhere: elsewhere(lens),
        chunks: chunks(lens),
        kinds: kinds.collect(),
        totals: Part::of(lens, every.iter().copied()),
        set_aside: record.set_aside.iter().map(ApartRow::of).collect(),
        aside: record.aside.clone(),
        unplaced: unplaced.map(|&file| record.file(file).path.clone()).collect(),
    }
}

fn build(record: &Record) -> Build {
    Build {
        label: record.label.clone(),
        bundler: record.bundler,
        bundler_version: record.bundler_version.clone(),
        framework: record.framework.as_ref().map(|framework| framework.name.clone()),
        framework_version: record.framework.as_ref().and_then(|f| f.version.clone()),
        mode: record.mode,
        mode_evidence: record.mode_evidence.clone(),
        target: record.target,
        target_basis: record.target_basis.clone(),
    }
}

fn startup(
    lens: &Lens<'_>,
    files: &[FileId],
    requests: &[rounds::Request],
    is_exclusive: &dyn Fn(&FileId) -> bool,
) -> Startup {
    let record = lens.record;
    let path = |id: FileId| record.file(id).path.clone();
    let request = |one: &rounds::Request| RequestRow {
        path: path(one.file),
        round: one.round,
        by: one.by.map(path),
        hint: one.is_hint,
    };
    let cells = lens.files(files.iter().copied());
    let part = |test: &dyn Fn(Owner) -> bool| -> Amount {
        let of_owner = cells.iter().filter(|id| test(record.cells[id.at()].owner));
        lens.amount(&of_owner.collect::<CellSet>())
    };
    let parts = [
        part(&|owner| matches!(owner, Owner::Module(_)) && !record.is_third_party(owner)),
        part(&|owner| record.is_third_party(owner)),
        part(&|owner| owner == Owner::Glue),
        part(&|owner| owner == Owner::Asset),
        part(&|owner| owner == Owner::Unattributed),
    ];
    let sizes = lens.amount(&cells).sizes();
    let split = apportion_sizes(&sizes, &parts);
    let (exclusive, shared): (Vec<FileId>, Vec<FileId>) =
        files.iter().copied().partition(is_exclusive);
    Startup {
        sizes,
        file_count: files.len(),
        files: files.iter().map(|&file| path(file)).collect(),
        rounds: rounds::last(requests),
        requests: requests.iter().map(request).collect(),
        own: split[0],
        third_party: split[1],
        glue: split[2],
        assets: split[3],
        unattributed: split[4],
        exclusive: Part::of(lens, exclusive).sizes,
        shared: Part::of(lens, shared).sizes,
    }
}

fn chunks(lens: &Lens<'_>) -> Vec<ChunkRow> {
    let record = lens.record;
    let entries = || record.entries.iter().zip(&lens.reach);
    let most = (MOST_NAMES / record.chunks.len().max(1)).max(100);
    let mut rows: Vec<ChunkRow> = record
        .chunks
        .iter()
        .map(|chunk| {
            let files: Vec<FileId> = chunk.files().collect();
            let lead = files.first();
            let named = |is_in: &dyn Fn(&Reach, &FileId) -> bool| -> Vec<String> {
                let loaders = entries().filter(|(_, reach)| lead.is_some_and(|l| is_in(reach, l)));
                loaders.map(|(entry, _)| entry.name.clone()).take(most).collect()
            };
            ChunkRow {
                name: chunk.name.clone(),
                holds: holds(record, chunk),
                files: files.iter().map(|&file| record.file(file).path.clone()).collect(),
                sizes: Part::of(lens, files.iter().copied()).sizes,
                startup_of: named(&|reach, file| reach.startup.contains(file)),
                deferred_of: named(&|reach, file| reach.deferred.contains(file)),
            }
        })
        .collect();
    rows.sort_by(|a, b| b.sizes.emitted.cmp(&a.sizes.emitted).then_with(|| a.name.cmp(&b.name)));
    rows
}

fn holds(record: &Record, chunk: &Chunk) -> Option<Holds> {
    let kin = record.kin_in(chunk);
    let heaviest = kin.first().filter(|_| chunk.named_by == NamedBy::Contents)?;
    Some(Holds { heaviest: (*heaviest).to_owned(), more: kin.len() - 1 })
}
