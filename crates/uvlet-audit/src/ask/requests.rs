//! A build held against a network log: what was foretold and what was asked for, what it cost on the wire,
//! and what the answers said of caching.

pub mod levels;

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{
    FileId, Kind, LogPage, LogRequest, Record,
    sizes::{Coding, Measure},
};

use crate::{
    ask::addresses::{Names, entry_of, file_of, host, last_part},
    lens::Lens,
    parts::names::is_named_by_contents,
};

/// Seconds from which on an answer is kept for long: a month.
const LONG: u64 = 30 * 24 * 3600;

/// Seconds beyond which a name that stays is kept for too long: a day.
const STALE: u64 = 24 * 3600;

/// Files by whose sizes a level is told.
const TELLING: usize = 6;

/// Bytes below which nobody compresses.
const SMALL: u64 = 1000;

/// The answer.
#[derive(Debug)]
pub struct Requests {
    /// A row per page of the log.
    pub pages: Vec<PageRow>,
    /// What answers say of caching that wastes a return visit, and what came as it stands.
    pub remarks: Vec<Remark>,
    /// Other hosts, the one with most requests first.
    pub elsewhere: Vec<Host>,
}

/// A page.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PageRow {
    /// What was opened.
    pub url: String,
    /// The entry that it is; none where it is none of the build's.
    pub entry: Option<String>,
    /// Files that were foretold at startup and asked for.
    pub as_foretold: usize,
    /// Files of the build that were asked for and are foretold for neither startup nor later.
    pub not_foretold: Vec<String>,
    /// Files that were foretold at startup and not asked for.
    pub not_asked: Vec<String>,
    /// Files that code was predicted to load at once, and that were requested.
    pub at_once: usize,
    /// Files that were predicted on demand, and when they came.
    pub later: Vec<Late>,
    /// Bytes on the wire, of files of the build.
    pub sent: u64,
    /// What the same files weigh in the measure.
    pub foretold: u64,
    /// Files that came from the cache: as the log says, or since a page before had fetched them and nothing
    /// was sent.
    pub cached: usize,
    /// Answers of which the log says no size.
    pub unsized_answers: usize,
    /// Answers whose size is not the file's: another build, or a server that changes them.
    pub differ: Vec<String>,
    /// Answers that failed.
    pub failed: Vec<String>,
    /// Whether it is known when the page had loaded.
    pub knows_load: bool,
    /// Per coding, how many answers had it, and at about which level.
    pub codings: Vec<Coded>,
}

/// A file that was predicted on demand.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Late {
    /// Its path.
    pub path: String,
    /// It came before the page had loaded.
    pub before_load: bool,
}

/// Answers in a coding.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Coded {
    /// The coding; `identity` where there was none.
    pub coding: String,
    /// Number of answers.
    pub files: usize,
    /// Their bytes on the wire.
    pub sent: u64,
    /// The level whose sizes are the nearest.
    pub level: Option<u32>,
}

/// Something to mend on the server.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Remark {
    /// What is wrong.
    pub fault: Fault,
    /// The file.
    pub path: String,
}

/// What is wrong with an answer.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Fault {
    /// Its name stays when its contents change, and it is kept for so many seconds.
    LongLife(u64),
    /// So many bytes came as they stand.
    NotCompressed(u64),
    /// Its name holds its contents' digest, and it is kept for so many seconds only; none where the answer does
    /// not say how long it may be kept.
    ShortLife(Option<u64>),
}

impl Fault {
    /// A stable word.
    #[must_use]
    pub fn code(self) -> &'static str {
        match self {
            Self::LongLife(_) => "long-life",
            Self::NotCompressed(_) => "not-compressed",
            Self::ShortLife(_) => "short-life",
        }
    }
}

/// Another host.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Host {
    /// Its name.
    pub host: String,
    /// Number of requests.
    pub requests: usize,
    /// Bytes on the wire, as far as they are known.
    pub sent: u64,
}

impl Requests {
    /// Every page asked for what was foretold of it, and for nothing else of the build.
    #[must_use]
    pub fn is_as_foretold(&self) -> bool {
        self.pages.iter().all(|page| {
            page.entry.is_some() && page.not_foretold.is_empty() && page.not_asked.is_empty()
        })
    }
}

/// The level at which a coding gives some files about so many bytes; none where that cannot be told.
pub type LevelOf<'a> = dyn Fn(&[(FileId, u64)], Coding) -> Option<u32> + 'a;

/// Holds a log against a build.
#[must_use]
pub fn requests(
    lens: &Lens<'_>,
    pages: &[LogPage],
    measure: Measure,
    level_of: &LevelOf<'_>,
) -> Requests {
    let record = lens.record;
    let mut remarks: Vec<Remark> = Vec::new();
    let mut hosts: BTreeMap<String, (usize, u64)> = BTreeMap::new();
    let mut rows = Vec::new();
    let mut fetched: BTreeSet<FileId> = BTreeSet::new();
    let mut names = Names::new();
    for (at, file) in record.files.iter().enumerate() {
        names.entry(last_part(&file.path)).or_default().push(FileId::new(at));
    }
    for page in pages {
        let home = host(&page.url);
        let mut asked: BTreeMap<FileId, &LogRequest> = BTreeMap::new();
        for request in &page.requests {
            match file_of(record, &names, &request.url, request.url == page.url) {
                Some(file) => {
                    asked.entry(file).or_insert(request);
                    remarks.extend(remarked(lens, file, request));
                }
                None if host(&request.url) != home && !host(&request.url).is_empty() => {
                    let known = hosts.entry(host(&request.url)).or_default();
                    known.0 += 1;
                    known.1 += request.sent.unwrap_or(0);
                }
                None => {}
            }
        }
        let entry = entry_of(lens, &names, &page.url, &asked);
        let visit = Visit { page, asked, entry };
        rows.push(row(lens, &visit, &fetched, measure, level_of));
        let sent =
            visit.asked.iter().filter(|(_, request)| request.sent.is_some_and(|sent| sent > 0));
        fetched.extend(sent.map(|(id, _)| *id));
    }
    let mut elsewhere: Vec<Host> =
        hosts.into_iter().map(|(host, (requests, sent))| Host { host, requests, sent }).collect();
    elsewhere.sort_by(|a, b| b.requests.cmp(&a.requests).then_with(|| a.host.cmp(&b.host)));
    let told = |remark: &Remark| (remark.fault.code(), remark.path.clone());
    remarks.sort_by_key(told);
    remarks.dedup();
    Requests { pages: rows, remarks, elsewhere }
}

/// A page of the log: what it fetched of the build, and which entry it is.
struct Visit<'p> {
    page: &'p LogPage,
    asked: BTreeMap<FileId, &'p LogRequest>,
    entry: Option<usize>,
}

fn row(
    lens: &Lens<'_>,
    visit: &Visit<'_>,
    fetched: &BTreeSet<FileId>,
    measure: Measure,
    level_of: &LevelOf<'_>,
) -> PageRow {
    let record = lens.record;
    let path = |id: FileId| record.file(id).path.clone();
    let Visit { page, asked, entry } = visit;
    let entry = *entry;
    let reach = entry.map(|at| &lens.reach[at]);
    let startup: BTreeSet<FileId> =
        reach.iter().flat_map(|reach| reach.startup.iter().copied()).collect();
    let at_once: BTreeSet<FileId> = reach.iter().flat_map(|reach| reach.at_once.iter()).collect();
    let later: BTreeSet<FileId> = reach.iter().flat_map(|reach| reach.deferred.iter()).collect();
    // Of pages that are one entry any may have been opened.
    let pages: BTreeSet<FileId> = entry
        .iter()
        .flat_map(|&at| &record.entries[at].pages)
        .filter_map(|page| record.files.binary_search_by(|file| file.path.cmp(page)).ok())
        .map(FileId::new)
        .collect();
    let is_page = |id: &FileId| record.file(*id).kind == Kind::Page;
    let not_asked = startup.iter().filter(|id| !is_page(id) && !asked.contains_key(id));
    let is_foretold =
        |id: &FileId| startup.contains(id) || later.contains(id) || pages.contains(id);
    let answered = |request: &LogRequest| request.status == 0 || request.status < 400;
    let of_size = |id: FileId, request: &LogRequest| {
        let bytes = request.decoded.filter(|bytes| *bytes > 0 && request.status == 200);
        bytes.is_none_or(|bytes| bytes == record.file(id).emitted)
    };
    let weight = |id: FileId| {
        let file = record.file(id);
        match measure {
            Measure::Emitted => file.emitted,
            Measure::Coded(coding) => file.encoded.get(coding).copied().unwrap_or(file.emitted),
        }
    };
    let sent: Vec<(FileId, &LogRequest, u64)> = asked
        .iter()
        .filter_map(|(id, request)| Some((*id, *request, request.sent.filter(|sent| *sent > 0)?)))
        .collect();
    let is_cached = |(id, request): &(&FileId, &&LogRequest)| {
        let is_sent = request.sent.is_some_and(|sent| sent > 0);
        request.is_cached || (!is_sent && fetched.contains(*id))
    };
    let cached = asked.iter().filter(is_cached).count();
    PageRow {
        url: page.url.clone(),
        entry: entry.map(|at| record.entries[at].name.clone()),
        as_foretold: asked.keys().filter(|id| startup.contains(id)).count(),
        not_foretold: match entry {
            Some(_) => asked.keys().filter(|id| !is_foretold(id)).map(|&id| path(id)).collect(),
            None => Vec::new(),
        },
        not_asked: not_asked.map(|&id| path(id)).collect(),
        at_once: asked.keys().filter(|id| at_once.contains(id)).count(),
        later: asked
            .iter()
            .filter(|(id, _)| later.contains(id) && !at_once.contains(id))
            .map(|(&id, request)| Late { path: path(id), before_load: !request.is_later })
            .collect(),
        sent: sent.iter().map(|(.., bytes)| bytes).sum(),
        foretold: sent.iter().map(|(id, ..)| weight(*id)).sum(),
        cached,
        unsized_answers: asked.len().saturating_sub(sent.len() + cached),
        differ: asked
            .iter()
            .filter(|(id, request)| !of_size(**id, request))
            .map(|(&id, _)| path(id))
            .collect(),
        failed: asked
            .iter()
            .filter(|(_, request)| !answered(request))
            .map(|(&id, request)| format!("{} ({})", path(id), request.status))
            .collect(),
        knows_load: page.knows_load,
        codings: codings(record, &sent, level_of),
    }
}

/// Answers by coding, with the level that most of their bytes speak for.
fn codings(
    record: &Record,
    sent: &[(FileId, &LogRequest, u64)],
    level_of: &LevelOf<'_>,
) -> Vec<Coded> {
    let mut by_coding: BTreeMap<&str, Vec<(FileId, u64)>> = BTreeMap::new();
    for (id, request, bytes) in sent {
        let coding = request.coding.as_deref().unwrap_or("identity");
        by_coding.entry(coding).or_default().push((*id, *bytes));
    }
    let row = |(coding, files): (&str, Vec<(FileId, u64)>)| {
        let known = Coding::ALL.into_iter().find(|known| known.name() == coding);
        let mut largest = files.clone();
        largest.sort_by_key(|(id, _)| std::cmp::Reverse(record.file(*id).emitted));
        largest.truncate(TELLING);
        let level = known.and_then(|known| level_of(&largest, known));
        Coded {
            coding: coding.to_owned(),
            files: files.len(),
            sent: files.iter().map(|(_, bytes)| bytes).sum(),
            level,
        }
    };
    by_coding.into_iter().map(row).collect()
}

fn remarked(lens: &Lens<'_>, id: FileId, request: &LogRequest) -> Vec<Remark> {
    let record = lens.record;
    let file = record.file(id);
    if !(200..300).contains(&request.status) || request.is_cached {
        return Vec::new();
    }
    let mut found = Vec::new();
    let mut add = |fault: Fault| found.push(Remark { fault, path: file.path.clone() });
    let is_text = matches!(file.kind, Kind::Script | Kind::Style | Kind::Page);
    let is_plain = request.coding.as_deref().is_none_or(|coding| coding == "identity");
    if is_text && is_plain && file.emitted >= SMALL {
        add(Fault::NotCompressed(file.emitted));
    }
    let control = request.cache_control.as_deref().unwrap_or_default().to_ascii_lowercase();
    let kept = kept_for(&control);
    if file.kind == Kind::Page {
        return found;
    }
    match (is_named_by_contents(record, id, lens.chunk_of(id)), kept) {
        (Some(true), None) => add(Fault::ShortLife(None)),
        (Some(true), Some(seconds)) if seconds < LONG => add(Fault::ShortLife(Some(seconds))),
        (Some(false), Some(seconds)) if seconds > STALE => add(Fault::LongLife(seconds)),
        _ => {}
    }
    found
}

/// Seconds that an answer may be kept for without asking (RFC 9111, section 5.2).
fn kept_for(control: &str) -> Option<u64> {
    let mut words = control.split(',').map(str::trim);
    if words.clone().any(|word| word == "no-store" || word == "no-cache") {
        return Some(0);
    }
    words.find_map(|word| word.strip_prefix("max-age=")?.trim_matches('"').parse().ok())
}
