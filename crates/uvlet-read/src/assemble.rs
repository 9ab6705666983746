//! One record of all that was read, step by step: where each file runs and which target is looked
//! at, modules, cells and runs, loads, entries, chunks and their names, edges.

pub(crate) mod cells;
pub(crate) mod chunk_files;
pub(crate) mod chunk_names;
pub(crate) mod chunks;
pub(crate) mod costs;
pub(crate) mod described_loads;
pub(crate) mod described_sources;
pub(crate) mod edges;
pub(crate) mod entries;
pub(crate) mod foreign_sources;
pub(crate) mod inspect;
pub(crate) mod loads;
pub(crate) mod mode;
pub(crate) mod module_spans;
pub(crate) mod modules;
pub(crate) mod older_sources;
pub(crate) mod package_maps;
pub(crate) mod roots;
pub(crate) mod site;
pub(crate) mod targets;
pub(crate) mod texts;

use std::{collections::BTreeSet, path::Path};

use cells::{Accounts, Evidence};
use chunk_files::ChunkFiles;
use described_loads::DescribedLoads;
use entries::{inferred::Scripts, routes::Routes};
use inspect::{Inspected, Inspector};
use loads::LoadResolver;
use modules::{Modules, Naming};
use site::Site;
use targets::Targets;
use uvlet_record::{
    Aside, Bundler, DynamicLoad, Edge, Entry, FileId, Format, Kind, Mode, ModeBasis, ModuleId,
    Notice, Owner, Reason, Record, Remark, SCHEMA, SetAside, Target, Unresolved, glob::Glob,
    sizes::Coded,
};

use crate::{
    coded::{self, CodedFile, precompressed::PrecompressedCopy},
    descriptions::{self, described::Described, frameworks::framework::Output},
    error::ReadError,
    files::{marks::CodeMarks, source_map::MapSources},
    folder::{
        self,
        hashes::Hashes,
        list::{Listing, Part},
        urls::Urls,
    },
    formats::format::Chunks,
    options::Options,
};

pub use costs::TracedCosts;
pub use texts::FolderTexts;

/// Reads a folder. The texts are where its files lie.
///
/// # Errors
/// When nothing can be answered of it.
pub fn of_folder(
    path: &Path,
    options: &Options,
    own: &[Glob],
    output: Option<Box<dyn Output>>,
) -> Result<(Record, FolderTexts), ReadError> {
    let part = |file: &str| part(output.as_deref(), options.target, file);
    let whole = folder::list(path, &descriptions::sniff, &part);
    if let Some(example) = source_in(&whole) {
        return Err(ReadError::Sources { path: path.to_owned(), example });
    }
    let mut notices = whole.notices.clone();
    let mut copies = coded::precompressed_copies(&whole, &mut notices);
    copies.retain(|copy| options.precompressed && options.coder.levels.contains_key(&copy.coding));
    // Encoding is most of the work; all that needs no streams goes beside it.
    let (read, coded) = rayon::join(
        || Read::of(path, &whole, options, own, output),
        || coded::all(&whole, &copies, &options.coder),
    );
    let mut read = read?;
    let coded = coded.map_err(|failed| {
        let coded::Failed { path: file, coding, source } = failed;
        ReadError::Encode { path: path.join(file), coding, source }
    })?;
    read.take(&whole, coded);
    notices.append(&mut read.notices);
    let precompressed = counts(&copies, &whole, &read.listing, options);
    Ok(Build { path, options, read, precompressed }.record(notices))
}

/// What a file of a framework's output is there for, when a target is looked at.
fn part(output: Option<&dyn Output>, target: Option<Target>, file: &str) -> Part {
    let said = output.map_or(Part::Served, |output| output.part(file));
    let browser = Part::Apart(Some(Target::Browser), Reason::OtherTarget);
    match (target.filter(|_| output.is_some()), said) {
        (None | Some(Target::Browser), part) => part,
        (Some(target), Part::Apart(Some(its), _)) if its == target => Part::Served,
        (Some(_), Part::Served) => browser,
        (Some(_), part) => part,
    }
}

/// All that is known before it is known what files cost.
struct Read {
    found: descriptions::Found,
    /// The description that is taken, by its place among the candidates.
    chosen: Option<usize>,
    /// The files that are looked at.
    listing: Listing,
    /// What each of them holds.
    inspected: Vec<Inspected>,
    targets: Targets,
    set_aside: Vec<SetAside>,
    modules: Modules,
    /// Edges that the bundler says.
    edges: Vec<Edge>,
    /// What a framework says of it.
    site: Option<Site>,
    notices: Vec<Notice>,
}

impl Read {
    fn of(
        path: &Path,
        whole: &Listing,
        options: &Options,
        own: &[Glob],
        output: Option<Box<dyn Output>>,
    ) -> Result<Self, ReadError> {
        let (mut found, mut inspected) = inspected(path, whole, options)?;
        if let Some(output) = &output {
            for ((file, _), inspected) in whole.counted.iter().zip(&mut inspected) {
                inspected.written_by(output.writes(&file.path));
            }
        }
        let mut notices = found.notices.clone();
        let mut listing = whole.clone();
        let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
        let urls = Urls::new(paths, options.base.as_deref());
        let candidates = &found.candidates;
        let no_target = |target| ReadError::NoTarget { path: path.into(), target };
        let targets = match &output {
            Some(output) => Targets::of_framework(&listing, output.about().name, options.target),
            None => Targets::decide(&listing, &inspected, &urls, candidates, options.target),
        };
        let targets = targets.map_err(no_target)?;
        let set_aside = targets.keep(&mut listing, &mut inspected);
        notices.extend(set_aside.iter().filter_map(|part| {
            let SetAside { target, reason, file_count, bytes } = *part;
            let target = target.filter(|_| reason == Reason::OtherTarget)?;
            Some(Notice::of_build(Remark::TargetSetAside { target, file_count, bytes }))
        }));
        let chosen = found.choose(targets.chosen, &listing, &mut notices);
        for file in &mut inspected {
            notices.append(&mut file.notices);
        }
        let described = chosen.map(|at| &candidates[at].described);
        let paths: Vec<&str> = listing.counted.iter().map(|(file, _)| file.path.as_str()).collect();
        let root = options.root.as_deref();
        let naming = Naming { inspected: &inspected, described, paths: &paths, root, own };
        let modules = naming.modules();
        let described = chosen.map(|at| &mut found.candidates[at].described);
        let edges = described.map(|described| edges::said(described, &modules));
        let edges = edges.unwrap_or_default();
        let output = output.filter(|_| targets.chosen == Target::Browser);
        let site = output.map(|output| Site::read(output, &listing, &inspected));
        Ok(Self {
            found,
            chosen,
            listing,
            inspected,
            targets,
            set_aside,
            modules,
            edges,
            site,
            notices,
        })
    }

    /// Takes in what the files of the whole folder cost on the wire.
    fn take(&mut self, whole: &Listing, coded: Vec<Coded<CodedFile>>) {
        let mut kept = self.listing.counted.iter().zip(&mut self.inspected).peekable();
        for ((file, _), coded) in whole.counted.iter().zip(coded) {
            if let Some((_, inspected)) = kept.next_if(|((kept, _), _)| kept.path == file.path) {
                inspected.coded = coded;
            }
        }
    }

    fn described(&self) -> Option<&Described> {
        self.chosen.map(|at| &self.found.candidates[at].described)
    }

    fn paths(&self) -> impl Iterator<Item = &str> {
        self.listing.counted.iter().map(|(file, _)| file.path.as_str())
    }
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

/// All that a record is made of.
struct Build<'a> {
    path: &'a Path,
    options: &'a Options,
    read: Read,
    precompressed: Coded<u64>,
}

/// Who needs whom.
struct Connected {
    loads: Vec<DynamicLoad>,
    unresolved: Vec<Unresolved>,
    entries: Vec<Entry>,
    chunks: Vec<uvlet_record::Chunk>,
}

impl Build<'_> {
    fn record(mut self, mut notices: Vec<Notice>) -> (Record, FolderTexts) {
        let read = &self.read;
        let described = read.described();
        let hashes = Hashes::find(read.paths());
        let mut accounts = cells::accounts(Evidence {
            listing: &read.listing,
            inspected: &read.inspected,
            modules: &read.modules,
            described: read.chosen.zip(described),
        });
        let Connected { loads, unresolved, entries, chunks } =
            self.connected(&hashes, &mut accounts, &mut notices);
        let (mode, mode_evidence) = self.mode(&accounts);
        let names_are_given = described.is_some_and(|described| described.can.gives_names);
        let mut record = self.head(mode, mode_evidence);
        record.notices = notices;
        (record.files, record.cells, record.runs) = (accounts.files, accounts.cells, accounts.runs);
        (record.entries, record.chunks) = (entries, chunks);
        (record.dynamic_loads, record.unresolved) = (loads, unresolved);
        let read = &mut self.read;
        record.set_aside = std::mem::take(&mut read.set_aside);
        record.edges = std::mem::take(&mut read.edges);
        record.modules = std::mem::take(&mut read.modules.list);
        record.packages = std::mem::take(&mut read.modules.packages);
        chunk_names::give(&mut record, &hashes, names_are_given);
        let texts = self.texts(&record);
        if self.options.sources {
            edges::look_into_sources(&mut record, &texts, self.options.root.as_deref());
        }
        roots::give(&mut record);
        record.notices.sort();
        record.notices.dedup();
        // A great many small things, which another thread can give back while the answer is made.
        let read = self.read;
        rayon::spawn(move || drop(read));
        (record, texts)
    }

    /// A record that says what the build is, and holds nothing yet.
    fn head(&self, mode: Mode, mode_evidence: Vec<ModeBasis>) -> Record {
        let described = self.read.described();
        let targets = &self.read.targets;
        let said_target = described.and_then(|described| described.target.as_ref());
        let basis = said_target.filter(|(said, _)| *said == targets.chosen);
        let levels = self.options.coder.levels.iter();
        let aside = self.read.listing.aside.iter();
        Record {
            schema: SCHEMA,
            label: self.options.label.clone().unwrap_or_else(|| label_of(self.path)),
            bundler: described.and_then(|described| described.bundler).or_else(|| self.bundler()),
            bundler_version: described.and_then(|described| described.version.clone()),
            framework: self
                .read
                .site
                .as_ref()
                .map(|site| site.framework(self.options.root.as_deref())),
            mode,
            mode_evidence,
            target: targets.chosen,
            target_basis: basis.map_or(&targets.basis, |(_, basis)| basis).clone(),
            set_aside: Vec::new(),
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
            notices: Vec::new(),
            texts: None,
        }
    }

    /// Who bundled, where no description says so: as the framework or the format of scripts tells.
    fn bundler(&self) -> Option<Bundler> {
        let by_site = self.read.site.as_ref().map(|site| site.output.about().bundler);
        by_site.or_else(|| {
            let mut formats = self.read.inspected.iter().map(|file| file.format);
            formats.find_map(|format| match format {
                Format::Turbopack => Some(Bundler::Turbopack),
                Format::Parcel => Some(Bundler::Parcel),
                _ => None,
            })
        })
    }

    /// Ties files to what they load, finds entries and chunks.
    fn connected(
        &self,
        hashes: &Hashes,
        accounts: &mut Accounts,
        notices: &mut Vec<Notice>,
    ) -> Connected {
        let read = &self.read;
        let (inspected, modules) = (read.inspected.as_slice(), &read.modules);
        let described = read.described();
        let mut urls = Urls::new(read.paths(), self.options.base.as_deref());
        if let Some(site) = &read.site {
            urls = urls.served(&site.served);
        }
        for id in entries::pages::modules(&accounts.files, inspected, &urls) {
            let format = &mut accounts.files[id.at()].format;
            if *format == Format::Classic {
                *format = Format::Es;
            }
        }
        let mut pages = entries::pages::asked(&accounts.files, inspected, &urls, notices);
        for page in &mut pages {
            accounts.files[page.id.at()].elsewhere = std::mem::take(&mut page.elsewhere);
        }
        let asked = pages.iter().flat_map(|page| page.asks.iter().chain(&page.legacy));
        let asked: BTreeSet<FileId> = asked.copied().collect();
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
        let calls = calls.flat_map(|code| &code.found.chunks);
        let chunk_files = ChunkFiles::find(&accounts.files, &said, calls);
        let specifiers = read.site.iter().flat_map(|site| &site.specifiers);
        let resolver = LoadResolver::new(&urls, &chunk_files, &unasked_styles, inspected);
        let resolver = resolver.with_specifiers(specifiers);
        let (mut loads, unresolved) = resolver.connect(accounts, inspected, notices);
        let mut bundled = Vec::new();
        if let Some(described) = described {
            DescribedLoads { described, modules, inspected, accounts }.add_to(&mut loads);
            let files = &accounts.files;
            bundled = entries::described::of_bundler(described, modules, files, hashes);
        }
        let files = &accounts.files;
        let mut entries = match &read.site {
            Some(Site { output, routes, .. }) => {
                let (output, loads) = (output.as_ref(), &loads);
                let routes = Routes { output, said: routes, files, urls: &urls, loads };
                let mut entries = routes.entries(pages);
                entries::described::give_roots(&mut entries, &bundled, files);
                entries
            }
            None => {
                let entries = entries::pages::of_pages(files, pages);
                entries::described::tied(entries, bundled, files)
            }
        };
        if entries.is_empty() {
            let root = self.options.root.as_deref();
            entries = entries::package::of_package(self.path, root, &accounts.files);
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

    fn mode(&self, accounts: &Accounts) -> (Mode, Vec<ModeBasis>) {
        let read = &self.read;
        let marks: Vec<(&str, &CodeMarks)> =
            read.paths().zip(read.inspected.iter().map(|file| &file.marks)).collect();
        let shipped = accounts.cells.iter().filter(|cell| cell.amount.emitted > 0);
        let shipped: BTreeSet<ModuleId> = shipped
            .filter_map(|cell| match cell.owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let said = read.described().and_then(|described| described.mode.as_ref());
        mode::judge(&marks, shipped.iter().map(|id| &read.modules.list[id.at()]), said)
    }

    /// Where the texts of files and modules are.
    fn texts(&self, record: &Record) -> FolderTexts {
        let read = &self.read;
        let Modules { sources, described, .. } = &read.modules;
        let module = |owner: &Owner| match owner {
            Owner::Module(id) => Some(*id),
            _ => None,
        };
        let ids = (0..record.modules.len()).map(ModuleId::new);
        let locations = ids.map(|id| record.location_of(id).into_owned());
        let mut texts = FolderTexts::new(self.options.root.as_deref(), locations);
        let files = read.listing.counted.iter().zip(&read.inspected);
        for (at, ((file, _), inspected)) in files.enumerate() {
            let map = inspected.mapped.as_ref().map(|map| {
                let owners = sources.get(at).into_iter().flatten();
                (map.disk.clone(), owners.map(module).collect())
            });
            texts.add_file(file, map);
        }
        if let Some(candidate) = read.chosen.map(|at| &read.found.candidates[at]) {
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
