//! Decides what a path holds and makes one record of it.

use std::{
    collections::BTreeSet,
    io,
    path::{Path, PathBuf},
};

use uvlet_record::{
    Aside, FileId, Flaw, Kind, Mode, ModuleId, Notice, Owner, Record, SCHEMA, SavedError,
    SavedTexts, Target, Texts,
    glob::{Glob, TooLong},
    sizes::{Coded, Coding},
};

use crate::{
    accounts::{self, Ledger},
    coder::Coder,
    connect::Connector,
    describe, emitted,
    entries::{self, Scripts},
    examine::Examined,
    folder::{self, Listed, Listing, Text},
    hashes::Hashes,
    judge,
    look::{Looked, look},
    names,
    naming::Names,
    project,
    registry::{Chunks, Registry},
    resolve::Resolver,
    said, saved,
    texts::FolderTexts,
    told::{Told, Untold},
    twins::{self, Twin},
    wire,
};

/// Stack of a reading thread. Parsing recurses as deep as an expression nests, and minified code
/// nests deep; pages of the stack that are not touched cost nothing.
const STACK: usize = 512 << 20;

/// How to read a build.
#[derive(Clone, Debug, Default)]
pub struct Options {
    /// Name of the build for people; else the folder's own.
    pub label: Option<String>,
    /// What the bundler says of the build, if it is not in the folder.
    pub description: Option<PathBuf>,
    /// Where source maps are kept that are not in the folder.
    pub maps: Option<PathBuf>,
    /// The project's folder, for versions of packages.
    pub root: Option<PathBuf>,
    /// URL under which the files will stand.
    pub base: Option<String>,
    /// Globs over names of packages that count as own code.
    pub own: Vec<String>,
    /// Take the sizes of precompressed twins where there are good ones.
    pub precompressed: bool,
    /// Keep the texts in the record.
    pub texts: bool,
    /// How coded sizes are taken.
    pub coder: Coder,
    /// Which target's output is looked at where there are several; the browser's if not said.
    pub target: Option<Target>,
}

/// Why no record can be made.
#[derive(Debug, thiserror::Error)]
pub enum ReadError {
    /// There is nothing at the path, or it cannot be listed.
    #[error("{}: cannot be read: {}", path.display(), plain(source))]
    Io {
        /// The path.
        path: PathBuf,
        /// What the system says.
        source: io::Error,
    },
    /// A file that holds no record which could stand for a build.
    #[error("{}: {source}; name an output folder, or what `uvlet record` wrote", path.display())]
    Saved {
        /// The file.
        path: PathBuf,
        /// What is wrong with it.
        source: SavedError,
    },
    /// What the bundler says of the build cannot be used.
    #[error("{}: {source}", path.display())]
    Stats {
        /// The file.
        path: PathBuf,
        /// What is wrong with it.
        source: Untold,
    },
    /// A description of a build whose files are not beside it.
    #[error("{}: its scripts are not beside it; name the folder that the bundler wrote, and this file with --description", .0.display())]
    StatsAlone(PathBuf),
    /// The folder holds sources instead of what a bundler makes of them.
    #[error("{}: holds sources, such as {example}, and no build; name the folder that the bundler wrote", path.display())]
    Sources {
        /// The path.
        path: PathBuf,
        /// One of them.
        example: String,
    },
    /// The files of an installed package.
    #[error("{}: is inside node_modules, where packages are installed; name the folder that the bundler wrote", .0.display())]
    Installed(PathBuf),
    /// The folder holds nothing that a visitor would download as code.
    #[error("{}: holds no script, style or page; name the folder that the bundler wrote", .0.display())]
    NothingCounted(PathBuf),
    /// A file could not be encoded: a size made of that would be a lie.
    #[error("{}: cannot be encoded in {coding}: {source}", path.display())]
    Encode {
        /// The file.
        path: PathBuf,
        /// The coding.
        coding: Coding,
        /// What the encoder says.
        source: io::Error,
    },
    /// The target that was asked for is not there.
    #[error("{}: holds no output for the {}; leave --target out", path.display(), target.name())]
    NoTarget {
        /// The path.
        path: PathBuf,
        /// The target.
        target: Target,
    },
    /// A glob over package names.
    #[error("own package `{glob}`: {source}")]
    Glob {
        /// The glob.
        glob: String,
        /// What is wrong with it.
        source: TooLong,
    },
    /// The record breaks its own rules: a fault of this program.
    #[error("{}: the accounts do not add up ({flaw}); please report this", path.display())]
    Flaw {
        /// The path.
        path: PathBuf,
        /// The rule.
        flaw: Flaw,
    },
}

/// What the system says, without its error number.
fn plain(error: &io::Error) -> String {
    let text = error.to_string();
    text.split(" (os error").next().unwrap_or_default().to_lowercase()
}

/// Reads the build at `path`.
///
/// # Errors
/// When nothing can be answered of it; what is merely damaged becomes a notice in the record.
pub fn open(path: &Path, options: &Options) -> Result<Record, ReadError> {
    open_with_texts(path, options).map(|(record, _)| record)
}

/// Reads the build at `path`, and says where its texts are: in the folder, or in the record if it was
/// saved with them.
///
/// # Errors
/// As [`open`].
pub fn open_with_texts(
    path: &Path,
    options: &Options,
) -> Result<(Record, Box<dyn Texts>), ReadError> {
    let io_error = |source| ReadError::Io { path: path.to_owned(), source };
    let metadata = std::fs::metadata(path).map_err(io_error)?;
    if metadata.is_file() && is_description(path, metadata.len()) {
        return beside(path, options);
    }
    if !metadata.is_dir() {
        let mut record = saved::read(path)?;
        if let Some(target) = options.target.filter(|&target| target != record.target) {
            return Err(ReadError::NoTarget { path: path.to_owned(), target });
        }
        declare_own(&mut record, &globs(&options.own)?);
        record.notices.extend(unused(options));
        record.notices.sort();
        record.label = options.label.clone().unwrap_or(record.label);
        let texts = record.texts.clone().unwrap_or_default();
        return Ok((record, Box::new(texts)));
    }
    std::fs::read_dir(path).map_err(io_error)?;
    let own = globs(&options.own)?;
    if path.canonicalize().is_ok_and(|full| full.iter().any(|part| part == "node_modules")) {
        return Err(ReadError::Installed(path.to_owned()));
    }
    let root = options.root.clone().or_else(|| project::root_of(path));
    let options = &Options { root, ..options.clone() };
    let (record, texts) = match rayon::ThreadPoolBuilder::new().stack_size(STACK).build() {
        Ok(pool) => pool.install(|| read_folder(path, options, &own)),
        // With little memory or no threads allowed, this thread does all of it.
        Err(_) => {
            emitted::narrow();
            let alone = rayon::ThreadPoolBuilder::new().num_threads(1).use_current_thread();
            // Where there is a pool already, it can be used.
            let _ = alone.build_global();
            read_folder(path, options, &own)
        }
    }?;
    let counts = |kind| matches!(kind, Kind::Script | Kind::Style | Kind::Page);
    if !record.files.iter().any(|file| counts(file.kind)) {
        return Err(ReadError::NothingCounted(path.to_owned()));
    }
    record.verify().map_err(|flaw| ReadError::Flaw { path: path.to_owned(), flaw })?;
    Ok((record, Box::new(texts)))
}

fn is_description(path: &Path, bytes: u64) -> bool {
    let file = Listed { path: String::new(), disk: path.to_owned(), bytes };
    // A manifest is known by the files beside it, or in the folder around.
    let here = path.parent().filter(|here| !here.as_os_str().is_empty()).unwrap_or(Path::new("."));
    let around = if here.ends_with(".vite") { here.join("..") } else { here.to_owned() };
    let may_be_manifest = path.to_string_lossy().ends_with("manifest.json");
    let paths = if may_be_manifest { folder::paths(&around) } else { BTreeSet::new() };
    Text::of(&file)
        .ok()
        .and_then(|text| folder::described_by(&text, &paths))
        .is_some_and(|kind| describe::KINDS.contains(&kind))
}

/// A description in place of the folder: the build is in its own folder, or in the one around it,
/// as with Vite's `.vite/manifest.json`.
fn beside(path: &Path, options: &Options) -> Result<(Record, Box<dyn Texts>), ReadError> {
    let options = Options { description: Some(path.to_owned()), ..options.clone() };
    let here = path.parent().filter(|here| !here.as_os_str().is_empty());
    let here = here.unwrap_or(Path::new("."));
    let above = here.file_name().and_then(|_| here.parent()).filter(|_| here.ends_with(".vite"));
    match open_with_texts(above.unwrap_or(here), &options) {
        Err(
            ReadError::Stats { source: Untold::Elsewhere(_), .. } | ReadError::NothingCounted(_),
        ) => Err(ReadError::StatsAlone(path.to_owned())),
        read => read,
    }
}

fn globs(texts: &[String]) -> Result<Vec<Glob>, ReadError> {
    let glob = |text: &String| {
        Glob::new(text, false).map_err(|source| ReadError::Glob { glob: text.clone(), source })
    };
    texts.iter().map(glob).collect()
}

/// Packages that are declared own count so in a record, too.
fn declare_own(record: &mut Record, own: &[Glob]) {
    for package in &mut record.packages {
        package.own |= own.iter().any(|glob| glob.is_match(&package.name));
    }
    for module in &mut record.modules {
        if let Some(package) = module.package {
            module.third_party &= !record.packages[package.at()].own;
        }
    }
}

/// What was asked for and changes nothing of a build that was read before.
fn unused(options: &Options) -> Vec<Notice> {
    let asked = [
        (options.description.is_some(), "a description"),
        (options.maps.is_some(), "a folder of source maps"),
        (options.root.is_some(), "a project's folder"),
        (options.base.is_some(), "a base URL"),
    ];
    let asked = asked.into_iter().filter(|(is_asked, _)| *is_asked);
    asked
        .map(|(_, what)| {
            let message = format!("{what} changes nothing of a record, which was read before");
            Notice::new("setting-unused", message, None)
        })
        .collect()
}

fn read_folder(
    path: &Path,
    options: &Options,
    own: &[Glob],
) -> Result<(Record, FolderTexts), ReadError> {
    let whole = folder::list(path);
    if let Some(example) = source_in(&whole) {
        return Err(ReadError::Sources { path: path.to_owned(), example });
    }
    let mut notices = Vec::new();
    let mut twins = twins::check(&whole, &mut notices);
    twins.retain(|twin| options.precompressed && options.coder.levels.contains_key(&twin.coding));
    let (looked, packed) = rayon::join(
        || look(path, whole.clone(), options, own),
        || wire::packed(&whole, &twins, &options.coder),
    );
    let Looked {
        listing,
        mut examined,
        told: all_told,
        mut names,
        edges,
        target: (target, target_basis),
        set_aside,
        notices: more,
    } = looked?.with(
        &whole,
        packed.map_err(|failed| ReadError::Encode {
            path: path.join(failed.path),
            coding: failed.coding,
            source: failed.source,
        })?,
    );
    let twin_counts = measured_by_twin(&twins, &whole, &listing, options);
    notices.extend(more);
    let told = all_told.as_ref();
    let paths: Vec<&str> = listing.counted.iter().map(|(file, _)| file.path.as_str()).collect();
    let mut ledger = accounts::ledger(&listing, &examined, &names, told);
    let resolver = Resolver::new(paths.iter().copied(), options.base.as_deref());
    let hashes = Hashes::find(paths.iter().copied());
    let mut entries = entries::of_pages(&ledger.files, &examined, &resolver, &mut notices);
    let asked: BTreeSet<FileId> =
        entries.iter().flat_map(|entry| entry.files.iter().copied()).collect();
    let styles_of = entries::styles_of(&ledger.files, &hashes, told);
    let own_styles = |script: FileId| styles_of.get(&script).cloned().unwrap_or_default();
    let unasked_styles = |script: FileId| {
        let mut styles = own_styles(script);
        styles.retain(|style| !asked.contains(style));
        styles
    };
    let registries: Vec<Option<&Registry>> =
        examined.iter().map(|file| file.code.as_ref().map(|code| &code.registry)).collect();
    let asked = examined.iter().filter_map(|file| file.code.as_ref());
    let asked = asked.flat_map(|code| &code.chunk_requests).map(|one| one.request.as_str());
    let chunk_files = Chunks::find(&ledger.files, &registries, asked);
    let connector = Connector::new(&resolver, &chunk_files, &unasked_styles, &examined);
    let (mut openings, unresolved) = connector.connect(&mut ledger, &examined, &mut notices);
    if let Some(told) = told {
        said::connect(told, &names, &examined, &mut ledger, &mut openings);
        let bundled = entries::of_bundler(told, &names, &ledger.files, &hashes);
        entries = entries::tied(entries, bundled, &ledger.files);
    }
    if entries.is_empty() {
        let scripts =
            Scripts { files: &ledger.files, registries: &registries, chunks: &chunk_files };
        entries = entries::inferred(&scripts, &openings, &hashes, &own_styles, &mut notices);
    }
    let mut chunks = entries::chunks(&ledger.files, &openings, &own_styles);
    if let Some(told) = told {
        said::name(told, &names, &ledger.files, &mut chunks);
    }
    let (mode, mode_evidence) = mode(told, &listing, &examined, &ledger, &names);
    notices.sort();
    notices.dedup();
    let texts = options.texts.then(|| SavedTexts {
        emitted: examined.iter_mut().map(|file| file.text.take()).collect(),
        sources: std::mem::take(&mut names.texts),
    });
    let disk = listing.counted.into_iter().map(|(file, _)| file.disk).collect();
    let mut record = Record {
        schema: SCHEMA,
        label: options.label.clone().unwrap_or_else(|| label_of(path)),
        bundler: told.and_then(|told| told.bundler),
        bundler_version: told.and_then(|told| told.version.clone()),
        mode,
        mode_evidence,
        target,
        target_basis,
        set_aside,
        precompressed: twin_counts,
        encoders: options
            .coder
            .levels
            .iter()
            .map(|(&coding, &level)| (coding, coding.encoder(level)))
            .collect(),
        files: ledger.files,
        cells: ledger.cells,
        runs: ledger.runs,
        edges,
        unresolved,
        modules: names.modules,
        packages: names.packages,
        chunks,
        entries,
        dynamic_loads: openings,
        aside: listing
            .aside
            .into_iter()
            .map(|(file, kind)| Aside { path: file.path, kind, bytes: file.bytes })
            .collect(),
        notices,
        texts,
    };
    names::give(&mut record, &hashes);
    // A great many small things, which another thread can give back while the answer is made.
    rayon::spawn(move || drop((examined, all_told)));
    Ok((record, FolderTexts(disk)))
}

/// A file that no browser reads and every bundler does, where there are more of these than of files
/// that a bundler writes, and no page or description.
fn source_in(listing: &Listing) -> Option<String> {
    const SOURCES: [&str; 7] = ["tsx", "jsx", "vue", "svelte", "scss", "sass", "less"];
    if listing.counted.iter().any(|(_, kind)| *kind == Kind::Page) {
        return None;
    }
    let described = listing.aside.iter().any(|(_, kind)| describe::KINDS.contains(kind));
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
    let mut sources = files().filter(|_| sources > code && !described);
    sources.find(|(path, _)| is_source(path)).map(|(path, _)| path.to_owned())
}

/// How many of the files that are kept each coding measures by their twin.
fn measured_by_twin(
    twins: &[Twin],
    whole: &Listing,
    kept: &Listing,
    options: &Options,
) -> Coded<u64> {
    let is_kept = |twin: &&Twin| {
        let path = &whole.counted[twin.file].0.path;
        kept.counted.binary_search_by(|(file, _)| file.path.cmp(path)).is_ok()
    };
    let mut counts = Coded::default();
    for &coding in options.coder.levels.keys().filter(|_| options.precompressed) {
        let of_coding = twins.iter().filter(|twin| twin.coding == coding).filter(is_kept);
        counts.set(coding, of_coding.count() as u64);
    }
    counts
}

fn mode(
    told: Option<&Told>,
    listing: &Listing,
    examined: &[Examined],
    ledger: &Ledger,
    names: &Names,
) -> (Mode, Vec<String>) {
    let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
    let looks: Vec<_> = paths.zip(examined.iter().map(|file| file.look)).collect();
    let shipped: BTreeSet<ModuleId> = ledger
        .cells
        .iter()
        .filter(|cell| cell.amount.emitted > 0)
        .filter_map(|cell| match cell.owner {
            Owner::Module(id) => Some(id),
            _ => None,
        })
        .collect();
    let said = told.and_then(|told| told.mode.as_ref());
    judge::mode(&looks, shipped.iter().map(|id| &names.modules[id.at()]), said)
}

/// The folder's own name; `.` and `..` are looked up, since they name nothing.
fn label_of(path: &Path) -> String {
    let name = path.file_name().map(ToOwned::to_owned).or_else(|| {
        let full = path.canonicalize().ok()?;
        full.file_name().map(ToOwned::to_owned)
    });
    name.map_or_else(|| "build".to_owned(), |name| name.to_string_lossy().into_owned())
}
