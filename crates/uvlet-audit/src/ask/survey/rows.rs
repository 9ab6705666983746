//! The rows of the answer.

use serde::Serialize;
use uvlet_record::{FileId, Kind, Origin, Reason, SetAside, Target, When, sizes::Sizes};

use crate::lens::Lens;

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
    pub(super) fn of(part: &SetAside) -> Self {
        let SetAside { target, reason, file_count, bytes } = *part;
        let target = target.map_or("none", Target::name);
        let reason = if reason == Reason::OtherTarget { target } else { reason.name() };
        Self { target, reason, file_count, bytes }
    }
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
    /// Rounds of requests until all of that has arrived.
    pub at_once_rounds: usize,
    /// What loads on demand.
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
    /// Rounds of requests: a file can be asked for once what names it has arrived. The page's own is the
    /// first.
    pub rounds: usize,
    /// Its files, round by round.
    pub requests: Vec<RequestRow>,
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

/// A file that is asked for.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RequestRow {
    /// Its path.
    pub path: String,
    /// The round in which it can be asked for, from 1.
    pub round: usize,
    /// The file that names it first; none of the page, and of what a page names that a server makes.
    pub by: Option<String>,
    /// The page names it ahead of a file that needs it.
    pub hint: bool,
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

impl Part {
    /// The sizes of some files together.
    pub(super) fn of(lens: &Lens<'_>, files: impl IntoIterator<Item = FileId>) -> Self {
        let mut file_count = 0;
        let counted = files.into_iter().inspect(|_| file_count += 1);
        let sizes = lens.weight(counted).sizes();
        Self { sizes, file_count }
    }
}
