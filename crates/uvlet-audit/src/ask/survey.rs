//! What each page makes a visitor download before it can run, and what can come later.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use serde::Serialize;
use uvlet_record::{
    Aside, Bundler, Chunk, DynamicLoad, Entry, FileId, Kind, Mode, ModeBasis, ModuleId, NamedBy,
    Origin, Owner, Reason, Record, SetAside, Target, TargetBasis, When,
    sizes::{Amount, Sizes},
};

use crate::{
    graph::{reach::Reach, visits::Visit},
    lens::Lens,
    parts::{cells::CellSet, prices::apportion_sizes},
    select::overlap,
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

/// Files that are not served to visitors of this target.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ApartRow {
    /// Where they run; `none` for what runs nowhere.
    pub target: &'static str,
    /// Why they do not count: the target, `cache`, `build data` or `copy`.
    pub reason: &'static str,
    /// Number of files.
    pub file_count: usize,
    /// Their emitted bytes.
    pub bytes: u64,
}

impl ApartRow {
    fn of(part: &SetAside) -> Self {
        let SetAside { target, reason, file_count, bytes } = *part;
        let target = target.map_or("none", Target::name);
        let reason = if reason == Reason::OtherTarget { target } else { reason.name() };
        Self { target, reason, file_count, bytes }
    }
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

/// One entry.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryRow {
    /// Its name.
    pub name: String,
    /// Other names.
    pub aliases: Vec<String>,
    /// Paths that a visitor types for it, or their patterns.
    pub routes: Vec<String>,
    /// Its pages.
    pub pages: Vec<String>,
    /// How it was found.
    pub found_by: Origin,
    /// All that must arrive before its own code can run.
    pub startup: Startup,
    /// What comes before anybody does anything: startup, and what code asks for as it starts.
    pub at_once: Part,
    /// What can come later.
    pub deferred: Deferred,
    /// Of startup, what nothing in the entry reaches; none where that is not known.
    pub carried: Option<Sizes>,
}

/// Something that is asked of another host.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ElsewhereRow {
    /// The URL as written; what code puts behind it is left out.
    pub url: String,
    /// The file that asks.
    pub by: String,
    /// The entries that load that file.
    pub entries: Vec<String>,
    /// Whether it is asked for before anybody does anything.
    pub when: Moment,
}

/// When something is asked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Moment {
    /// As the entry starts.
    Startup,
    /// Once somebody does something.
    Later,
}

/// A visit of a route that an entry's code opens.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct VisitRow {
    /// The route.
    pub route: String,
    /// The entry that serves it.
    pub entry: String,
    /// All that the visit fetches: the entry's startup, and what the route adds.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
    /// What the route adds to the entry's startup.
    pub adds: Part,
    /// What it still adds after a visit of another route of the entry.
    pub after: Vec<AfterRow>,
}

/// What a route adds once another was visited.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct AfterRow {
    /// The route that was visited first.
    pub route: String,
    /// What is still to be fetched.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
}

/// What an entry can load on demand.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Deferred {
    /// All of it.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
    /// Load by load, the heaviest first; what two of them bring is in both.
    pub loads: Vec<LoadRow>,
    /// Loads that are not listed, as there are too many.
    pub unlisted: usize,
}

/// One dynamic load of an entry.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct LoadRow {
    /// What is asked for, as the source says where that is known.
    pub request: String,
    /// The route that it opens, where a router's table says so.
    pub route: Option<String>,
    /// The module that asks.
    pub by: Option<String>,
    /// When.
    pub when: When,
    /// What it adds to startup.
    pub sizes: Sizes,
    /// The files that it adds.
    pub files: Vec<String>,
    /// The package or own folder that most of it is.
    pub mostly: Option<String>,
    /// How many others there are in it.
    pub others: usize,
}

/// Startup files of an entry, split twice: by owner, and by who else loads them at startup.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Startup {
    /// All of it.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
    /// Paths in the order of request.
    pub files: Vec<String>,
    /// Bytes of own modules.
    pub own: Sizes,
    /// Bytes of installed modules.
    pub third_party: Sizes,
    /// Bytes of the bundler's own.
    pub glue: Sizes,
    /// Bytes of files that are neither script nor style.
    pub assets: Sizes,
    /// Bytes of nobody known.
    pub unattributed: Sizes,
    /// Bytes of files that no other entry loads at startup.
    pub exclusive: Sizes,
    /// The rest.
    pub shared: Sizes,
}

/// Sizes of a number of files.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Part {
    /// Together.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
}

/// One chunk.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ChunkRow {
    /// Its name.
    pub name: String,
    /// What it holds most of, if its name stands for that, and how much else there is.
    pub holds: Option<Holds>,
    /// The script and its styles.
    pub files: Vec<String>,
    /// Together.
    pub sizes: Sizes,
    /// Entries that load it at startup; of thousands, the first ones.
    pub startup_of: Vec<String>,
    /// Entries that can load it later; of thousands, the first ones.
    pub deferred_of: Vec<String>,
}

/// What a chunk without a name of its own holds.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Holds {
    /// The heaviest package or own folder.
    pub heaviest: String,
    /// How many others there are.
    pub more: usize,
}

/// All files of one kind.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct KindRow {
    /// The kind.
    pub kind: Kind,
    /// Together.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
}

/// Dynamic loads that are listed of all entries together: thousands of pages may each reach thousands.
const MOST_LOADS: usize = 200_000;

/// Those that are listed of each entry, however many entries there are.
const LEAST_LOADS: usize = 20;

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
    let carried = overlap::carried(lens);
    let entries = record.entries.iter().zip(&lens.reach).enumerate();
    let entries = entries.map(|(at, (entry, reach))| EntryRow {
        name: entry.name.clone(),
        aliases: entry.aliases.clone(),
        routes: entry.routes.clone(),
        pages: entry.pages.clone(),
        found_by: entry.origin,
        startup: startup(lens, &reach.startup, &all),
        at_once: of_files(lens, reach.startup.iter().copied().chain(reach.at_once.iter())),
        deferred: deferred(lens, reach, &opened),
        carried: carried.get(&at).map(|cells| lens.amount(cells).sizes()),
    });
    let every: Vec<FileId> = (0..record.files.len()).map(FileId::new).collect();
    let kinds = Kind::ALL.into_iter().filter_map(|kind| {
        let files: Vec<FileId> =
            every.iter().copied().filter(|&file| record.file(file).kind == kind).collect();
        let Part { sizes, file_count } = of_files(lens, files.iter().copied());
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
        totals: of_files(lens, every.iter().copied()),
        set_aside: record.set_aside.iter().map(ApartRow::of).collect(),
        aside: record.aside.clone(),
        unplaced: unplaced.map(|&file| record.file(file).path.clone()).collect(),
    }
}

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

fn visits(lens: &Lens<'_>) -> Vec<VisitRow> {
    let opened = || lens.visits.iter().filter(|visit| !visit.is_entry);
    let row = |visit: &Visit| {
        let startup = &lens.reach[visit.entry].startup;
        let all: Vec<FileId> = startup.iter().chain(&visit.adds).copied().collect();
        let Part { sizes, file_count } = of_files(lens, all.iter().copied());
        let others =
            opened().filter(|other| other.entry == visit.entry && other.route != visit.route);
        let after = others.map(|first| {
            let mut rest = visit.adds.clone();
            rest.retain(|file| !first.adds.contains(file));
            let Part { sizes, file_count } = of_files(lens, rest.iter().copied());
            AfterRow { route: first.route.clone(), sizes, file_count }
        });
        VisitRow {
            route: visit.route.clone(),
            entry: lens.record.entries[visit.entry].name.clone(),
            sizes,
            file_count,
            adds: of_files(lens, visit.adds.iter().copied()),
            after: after.collect(),
        }
    };
    opened().map(row).collect()
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

fn of_files(lens: &Lens<'_>, files: impl IntoIterator<Item = FileId>) -> Part {
    let mut file_count = 0;
    let counted = files.into_iter().inspect(|_| file_count += 1);
    let sizes = lens.weight(counted).sizes();
    Part { sizes, file_count }
}

/// What each dynamic load of a record opens, with all that this statically needs.
struct Opened<'r> {
    files: Vec<Vec<FileId>>,
    requests: Requests<'r>,
    /// Loads of an entry that are listed.
    most: usize,
}

impl<'r> Opened<'r> {
    fn new(record: &'r Record) -> Self {
        let files = record.dynamic_loads.iter().map(|load| record.closure(&load.files));
        let most = (MOST_LOADS / record.entries.len().max(1)).max(LEAST_LOADS);
        Self { files: files.collect(), requests: requests(record), most }
    }
}

fn deferred(lens: &Lens<'_>, reach: &Reach, opened: &Opened<'_>) -> Deferred {
    let record = lens.record;
    let Part { sizes, file_count } = of_files(lens, reach.deferred.iter());
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
                sizes: of_files(lens, added.iter().copied()).sizes,
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
        .unwrap_or_else(|| load.request.clone())
}

fn startup(lens: &Lens<'_>, files: &[FileId], is_exclusive: &dyn Fn(&FileId) -> bool) -> Startup {
    let record = lens.record;
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
        files: files.iter().map(|&file| record.file(file).path.clone()).collect(),
        own: split[0],
        third_party: split[1],
        glue: split[2],
        assets: split[3],
        unattributed: split[4],
        exclusive: of_files(lens, exclusive).sizes,
        shared: of_files(lens, shared).sizes,
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
                sizes: of_files(lens, files.iter().copied()).sizes,
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
