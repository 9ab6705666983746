//! One record of all that was read, step by step: where each file runs and which target is looked
//! at, modules, cells and runs, loads, entries, chunks and their names, edges.

mod cells;
mod chunk_files;
mod chunk_names;
mod chunks;
mod costs;
mod described_loads;
mod described_sources;
mod edges;
mod entries;
mod inspect;
mod loads;
mod mode;
mod module_spans;
mod modules;
mod older_sources;
mod roots;
mod targets;
mod texts;

use std::{collections::BTreeSet, path::Path};

use uvlet_record::{
    Aside, DynamicLoad, Entry, FileId, Kind, Mode, ModuleId, Notice, Owner, Record, Remark, SCHEMA,
    SetAside, Unresolved, glob::Glob, sizes::Coded,
};

use crate::{
    Options, ReadError,
    coded::{self, PrecompressedCopy},
    descriptions::{self, Candidate, Described},
    files::{marks::CodeMarks, source_map::MapSources},
    folder::{self, Listing, Urls, hashes::Hashes},
    formats::Chunks,
};
use cells::{Accounts, Evidence};
use chunk_files::ChunkFiles;
pub use costs::TracedCosts;
use described_loads::DescribedLoads;
use entries::inferred::Scripts;
use inspect::{Inspected, Inspector};
use loads::LoadResolver;
use modules::{Modules, Naming};
use targets::Targets;
pub use texts::FolderTexts;

/// Reads a folder. The texts are where its files lie.
///
/// # Errors
/// When nothing can be answered of it.
pub fn of_folder(
    path: &Path,
    options: &Options,
    own: &[Glob],
) -> Result<(Record, FolderTexts), ReadError> {
    let whole = folder::list(path, &descriptions::sniff);
    if let Some(example) = source_in(&whole) {
        return Err(ReadError::Sources { path: path.to_owned(), example });
    }
    let mut notices = whole.notices.clone();
    let mut copies = coded::precompressed_copies(&whole, &mut notices);
    copies.retain(|copy| options.precompressed && options.coder.levels.contains_key(&copy.coding));
    let (read, coded) = rayon::join(
        || inspected(path, &whole, options),
        || coded::all(&whole, &copies, &options.coder),
    );
    let (found, mut inspected) = read?;
    let coded = coded.map_err(|failed| {
        let coded::Failed { path: file, coding, source } = failed;
        ReadError::Encode { path: path.join(file), coding, source }
    })?;
    for (file, coded) in inspected.iter_mut().zip(coded) {
        file.coded = coded;
    }
    notices.extend(found.notices.iter().cloned());
    let mut listing = whole.clone();
    let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
    let urls = Urls::new(paths, options.base.as_deref());
    let candidates = &found.candidates;
    let targets = Targets::decide(&listing, &inspected, &urls, candidates, options.target);
    let targets = targets.ok_or_else(|| ReadError::NoTarget {
        path: path.to_owned(),
        target: options.target.unwrap_or(uvlet_record::Target::Browser),
    })?;
    let set_aside = targets.keep(&mut listing, &mut inspected);
    notices.extend(set_aside.iter().map(|part| {
        let SetAside { target, file_count, bytes } = *part;
        Notice::of_build(Remark::TargetSetAside { target, file_count, bytes })
    }));
    let chosen = found.choose(targets.chosen, &listing, &mut notices);
    for file in &mut inspected {
        notices.append(&mut file.notices);
    }
    let precompressed = counts(&copies, &whole, &listing, options);
    let build = Build { path, options, own, listing, inspected, candidates, chosen, precompressed };
    Ok(build.record(targets, set_aside, notices))
}

/// Reads descriptions, and looks into the files with them.
fn inspected(
    path: &Path,
    listing: &Listing,
    options: &Options,
) -> Result<(descriptions::Found, Vec<Inspected>), ReadError> {
    let found = descriptions::find(listing, options.description.as_deref());
    let found = found.map_err(|(place, source)| {
        let place = if options.description.is_some() { place.into() } else { path.join(place) };
        ReadError::Description { path: place, source }
    })?;
    let maps = MapSources { listing, maps: options.maps.as_deref() };
    let root = options.root.as_deref();
    let inspected = Inspector::new(listing, maps, &found.candidates, root).inspect();
    Ok((found, inspected))
}

/// A file that no browser reads and every bundler does, where there are more of these than of files
/// that a bundler writes, and no page or description.
fn source_in(listing: &Listing) -> Option<String> {
    const SOURCES: [&str; 7] = ["tsx", "jsx", "vue", "svelte", "scss", "sass", "less"];
    if listing.counted.iter().any(|(_, kind)| *kind == Kind::Page) {
        return None;
    }
    let mut aside = listing.aside.iter();
    let is_described = aside.any(|(_, kind)| descriptions::of_kind(*kind).is_some());
    let is_source = |path: &str| match path.rsplit_once('.') {
        // Films are cut into files of that ending, and libraries ship declarations.
        Some((stem, "ts")) => {
            !stem.ends_with(".d") && stem.ends_with(|c: char| !c.is_ascii_digit())
        }
        Some((_, ending)) => SOURCES.contains(&ending),
        None => false,
    };
    let files = || listing.counted.iter().map(|(file, kind)| (file.path.as_str(), *kind));
    let sources = files().filter(|(path, _)| is_source(path)).count();
    let code = files().filter(|(_, kind)| matches!(kind, Kind::Script | Kind::Style)).count();
    let mut sources = files().filter(|_| sources > code && !is_described);
    sources.find(|(path, _)| is_source(path)).map(|(path, _)| path.to_owned())
}

/// How many of the files that are kept each coding measures by their precompressed copy.
fn counts(
    copies: &[PrecompressedCopy],
    whole: &Listing,
    kept: &Listing,
    options: &Options,
) -> Coded<u64> {
    let is_kept =
        |copy: &&PrecompressedCopy| kept.counted_at(&whole.counted[copy.file].0.path).is_some();
    let mut counts = Coded::default();
    for &coding in options.coder.levels.keys().filter(|_| options.precompressed) {
        let of_coding = copies.iter().filter(|copy| copy.coding == coding).filter(is_kept);
        counts.set(coding, of_coding.count() as u64);
    }
    counts
}

/// All that a record is made of, once it is known which files are looked at.
struct Build<'a> {
    path: &'a Path,
    options: &'a Options,
    own: &'a [Glob],
    listing: Listing,
    inspected: Vec<Inspected>,
    candidates: &'a [Candidate],
    /// The description that is taken, by its place among the candidates.
    chosen: Option<usize>,
    precompressed: Coded<u64>,
}

/// What is known of the build as a whole.
struct Head {
    mode: Mode,
    mode_evidence: Vec<String>,
    targets: Targets,
    set_aside: Vec<SetAside>,
    notices: Vec<Notice>,
}

/// Who needs whom.
struct Connected {
    loads: Vec<DynamicLoad>,
    unresolved: Vec<Unresolved>,
    entries: Vec<Entry>,
    chunks: Vec<uvlet_record::Chunk>,
}

impl Build<'_> {
    fn record(
        self,
        targets: Targets,
        set_aside: Vec<SetAside>,
        mut notices: Vec<Notice>,
    ) -> (Record, FolderTexts) {
        let described = self.described();
        let paths: Vec<&str> = self.paths().collect();
        let hashes = Hashes::find(paths.iter().copied());
        let inspected = self.inspected.as_slice();
        let (root, own) = (self.options.root.as_deref(), self.own);
        let modules = Naming { inspected, described, paths: &paths, root, own }.modules();
        let mut accounts = cells::accounts(Evidence {
            listing: &self.listing,
            inspected,
            modules: &modules,
            described: self.chosen.zip(described),
        });
        let Connected { loads, unresolved, entries, chunks } =
            self.connected(&modules, &hashes, &mut accounts, &mut notices);
        let (mode, mode_evidence) = self.mode(&accounts, &modules);
        let head = Head { mode, mode_evidence, targets, set_aside, notices };
        let mut record = self.head(head);
        record.edges = described.map(|d| edges::said(d, &modules)).unwrap_or_default();
        (record.files, record.cells, record.runs) = (accounts.files, accounts.cells, accounts.runs);
        (record.modules, record.packages) = (modules.list, modules.packages);
        (record.entries, record.chunks) = (entries, chunks);
        (record.dynamic_loads, record.unresolved) = (loads, unresolved);
        let names_are_given = described.is_some_and(|described| described.can.gives_names);
        chunk_names::give(&mut record, &hashes, names_are_given);
        let texts = self.texts(&record, &modules.sources, &modules.described);
        if self.options.sources {
            edges::look_into_sources(&mut record, &texts, root);
        }
        roots::give(&mut record);
        record.notices.sort();
        record.notices.dedup();
        // A great many small things, which another thread can give back while the answer is made.
        let inspected = self.inspected;
        rayon::spawn(move || drop(inspected));
        (record, texts)
    }

    /// A record that says what the build is, and holds nothing yet.
    fn head(&self, head: Head) -> Record {
        let described = self.described();
        let said_target = described.and_then(|described| described.target.clone());
        let basis = said_target.filter(|(said, _)| *said == head.targets.chosen);
        let levels = self.options.coder.levels.iter();
        let aside = self.listing.aside.iter();
        Record {
            schema: SCHEMA,
            label: self.options.label.clone().unwrap_or_else(|| label_of(self.path)),
            bundler: described.and_then(|described| described.bundler),
            bundler_version: described.and_then(|described| described.version.clone()),
            mode: head.mode,
            mode_evidence: head.mode_evidence,
            target: head.targets.chosen,
            target_basis: basis.map_or(head.targets.basis, |(_, basis)| basis),
            set_aside: head.set_aside,
            precompressed: self.precompressed,
            encoders: levels.map(|(&coding, &level)| (coding, coding.encoder(level))).collect(),
            files: Vec::new(),
            cells: Vec::new(),
            runs: Vec::new(),
            modules: Vec::new(),
            packages: Vec::new(),
            chunks: Vec::new(),
            entries: Vec::new(),
            dynamic_loads: Vec::new(),
            unresolved: Vec::new(),
            edges: Vec::new(),
            unresolved_requests: Vec::new(),
            aside: aside
                .map(|(file, kind)| Aside {
                    path: file.path.clone(),
                    kind: *kind,
                    bytes: file.bytes,
                })
                .collect(),
            notices: head.notices,
            texts: None,
        }
    }

    fn described(&self) -> Option<&Described> {
        self.chosen.map(|at| &self.candidates[at].described)
    }

    fn paths(&self) -> impl Iterator<Item = &str> {
        self.listing.counted.iter().map(|(file, _)| file.path.as_str())
    }

    /// Ties files to what they load, finds entries and chunks.
    fn connected(
        &self,
        modules: &Modules,
        hashes: &Hashes,
        accounts: &mut Accounts,
        notices: &mut Vec<Notice>,
    ) -> Connected {
        let (inspected, described) = (self.inspected.as_slice(), self.described());
        let urls = Urls::new(self.paths(), self.options.base.as_deref());
        let mut entries = entries::pages::of_pages(&accounts.files, inspected, &urls, notices);
        let asked: BTreeSet<FileId> =
            entries.iter().flat_map(|entry| entry.requested.iter().copied()).collect();
        let styles_of = chunks::styles_of(&accounts.files, hashes, described);
        let own_styles = |script: FileId| styles_of.get(&script).cloned().unwrap_or_default();
        let unasked_styles = |script: FileId| {
            let mut styles = own_styles(script);
            styles.retain(|style| !asked.contains(style));
            styles
        };
        let said: Vec<Option<&Chunks>> =
            inspected.iter().map(|file| file.code.as_ref().map(|code| &code.chunks)).collect();
        let calls = inspected.iter().filter_map(|file| file.code.as_ref());
        let calls = calls.flat_map(|code| &code.found.chunks).map(|call| call.request.as_str());
        let chunk_files = ChunkFiles::find(&accounts.files, &said, calls);
        let resolver = LoadResolver::new(&urls, &chunk_files, &unasked_styles, inspected);
        let (mut loads, unresolved) = resolver.connect(accounts, inspected, notices);
        if let Some(described) = described {
            DescribedLoads { described, modules, inspected, accounts }.add_to(&mut loads);
            let files = &accounts.files;
            let bundled = entries::described::of_bundler(described, modules, files, hashes);
            entries = entries::described::tied(entries, bundled, files);
        }
        if entries.is_empty() {
            let scripts = Scripts { files: &accounts.files, said: &said, chunks: &chunk_files };
            entries = entries::inferred::inferred(&scripts, &loads, hashes, &own_styles, notices);
        }
        let mut chunks = chunks::chunks(&accounts.files, &loads, &own_styles);
        if let Some(described) = described {
            chunks::name(described, modules, &accounts.files, &mut chunks);
        }
        Connected { loads, unresolved, entries, chunks }
    }

    fn mode(&self, accounts: &Accounts, modules: &Modules) -> (Mode, Vec<String>) {
        let marks: Vec<(&str, &CodeMarks)> =
            self.paths().zip(self.inspected.iter().map(|file| &file.marks)).collect();
        let shipped = accounts.cells.iter().filter(|cell| cell.amount.emitted > 0);
        let shipped: BTreeSet<ModuleId> = shipped
            .filter_map(|cell| match cell.owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let said = self.described().and_then(|described| described.mode.as_ref());
        mode::judge(&marks, shipped.iter().map(|id| &modules.list[id.at()]), said)
    }

    /// Where the texts of files and modules are.
    fn texts(&self, record: &Record, sources: &[Vec<Owner>], described: &[Owner]) -> FolderTexts {
        let module = |owner: &Owner| match owner {
            Owner::Module(id) => Some(*id),
            _ => None,
        };
        let ids = (0..record.modules.len()).map(ModuleId::new);
        let locations = ids.map(|id| record.location_of(id).into_owned());
        let mut texts = FolderTexts::new(self.options.root.as_deref(), locations);
        let files = self.listing.counted.iter().zip(&self.inspected);
        for (at, ((file, _), inspected)) in files.enumerate() {
            let map = inspected.mapped.as_ref().map(|map| {
                let owners = sources.get(at).into_iter().flatten();
                (map.disk.clone(), owners.map(module).collect())
            });
            texts.add_file(file, map);
        }
        if let Some(candidate) = self.chosen.map(|at| &self.candidates[at]) {
            let modules = candidate.described.modules.iter();
            let places = modules
                .zip(described)
                .filter_map(|(said, owner)| Some((module(owner), described_sources::place(said)?)));
            texts.add_described(&candidate.file, places);
        }
        texts
    }
}

/// The folder's own name; `.` and `..` are looked up, since they name nothing.
fn label_of(path: &Path) -> String {
    let name = path.file_name().map(ToOwned::to_owned).or_else(|| {
        let full = path.canonicalize().ok()?;
        full.file_name().map(ToOwned::to_owned)
    });
    name.map_or_else(|| "build".to_owned(), |name| name.to_string_lossy().into_owned())
}
