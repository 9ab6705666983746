//! Decides what a path holds and makes one record of it.

use std::{
    collections::BTreeSet,
    io,
    path::{Path, PathBuf},
};

use globset::{Glob, GlobSet, GlobSetBuilder};
use uvlet_ledger::coding;
use uvlet_record::{
    Aside, FileId, Flaw, Kind, Notice, Record, SCHEMA, SavedError, SetAside, Target, Texts,
    sizes::{Coded, Coding},
};

use crate::{
    assemble,
    connect::Connector,
    entries::{self, Scripts},
    examine::{Examined, examine},
    folder::{self, Listing},
    hashes::Hashes,
    judge, names,
    registry::{Chunks, Registry},
    resolve::Resolver,
    saved, targets, twins,
};

/// Stack of a reading thread. Parsing recurses as deep as an expression nests, and minified code
/// nests deep; pages of the stack that are not touched cost nothing.
const STACK: usize = 512 << 20;

/// How to read a build.
#[derive(Clone, Debug, Default)]
pub struct Options {
    /// Name of the build for people; else the folder's own.
    pub label: Option<String>,
    /// Where source maps are kept that are not in the folder.
    pub maps: Option<PathBuf>,
    /// The project's folder, for versions of packages.
    pub root: Option<PathBuf>,
    /// URL under which the files will stand.
    pub base: Option<String>,
    /// Globs over names of packages that count as own code.
    pub own: Vec<String>,
    /// Take the sizes of precompressed twins where there are good ones.
    pub twins: bool,
    /// Keep the texts in the record.
    pub texts: bool,
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
    /// The folder holds nothing that a visitor would download as code.
    #[error("{}: holds no script, style or page; name the folder that the bundler wrote", .0.display())]
    NothingCounted(PathBuf),
    /// The target that was asked for is not there.
    #[error("{}: holds no output for the {}; leave --target out", path.display(), target.name())]
    NoTarget {
        /// The path.
        path: PathBuf,
        /// The target.
        target: Target,
    },
    /// A glob over package names.
    #[error("own package `{glob}`: {message}")]
    Glob {
        /// The glob.
        glob: String,
        /// What is wrong with it.
        message: String,
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
    let io_error = |source| ReadError::Io { path: path.to_owned(), source };
    let metadata = std::fs::metadata(path).map_err(io_error)?;
    if !metadata.is_dir() {
        let mut record = saved::read(path)?;
        if let Some(target) = options.target.filter(|&target| target != record.target) {
            return Err(ReadError::NoTarget { path: path.to_owned(), target });
        }
        record.label = options.label.clone().unwrap_or(record.label);
        return Ok(record);
    }
    std::fs::read_dir(path).map_err(io_error)?;
    let own = globs(&options.own)?;
    let record = read_folder(path, options, &own)?;
    let counts = |kind| matches!(kind, Kind::Script | Kind::Style | Kind::Page);
    if !record.files.iter().any(|file| counts(file.kind)) {
        return Err(ReadError::NothingCounted(path.to_owned()));
    }
    record.verify().map_err(|flaw| ReadError::Flaw { path: path.to_owned(), flaw })?;
    Ok(record)
}

fn globs(texts: &[String]) -> Result<GlobSet, ReadError> {
    let mut set = GlobSetBuilder::new();
    for text in texts {
        let glob = Glob::new(text).map_err(|error| ReadError::Glob {
            glob: text.clone(),
            message: error.kind().to_string(),
        })?;
        set.add(glob);
    }
    set.build().map_err(|error| ReadError::Glob {
        glob: error.glob().unwrap_or_default().to_owned(),
        message: error.kind().to_string(),
    })
}

fn read_folder(path: &Path, options: &Options, own: &GlobSet) -> Result<Record, ReadError> {
    let mut listing = folder::list(path);
    let look = || {
        let mut notices = Vec::new();
        let twins = twins::check(&listing, &mut notices);
        (
            examine(&listing, options.maps.as_deref(), coding::GZIP_LEVEL, options.texts),
            twins,
            notices,
        )
    };
    let (mut examined, twins, mut notices) =
        match rayon::ThreadPoolBuilder::new().stack_size(STACK).build() {
            Ok(pool) => pool.install(look),
            Err(_) => look(),
        };
    notices.append(&mut listing.notices);
    let mut measured_by_twin = Coded::default();
    if options.twins {
        let used = twins.iter().filter(|twin| twin.coding == Coding::Gzip);
        measured_by_twin.set(Coding::Gzip, used.clone().count() as u64);
        used.for_each(|twin| examined[twin.file].gzip = twin.bytes);
    }
    let set_aside = set_aside(path, options, &mut listing, &mut examined, &mut notices)?;
    for file in &mut examined {
        notices.append(&mut file.notices);
    }
    let mut owners = assemble::names(&examined, options.root.as_deref(), own);
    let mut ledger = assemble::ledger(&listing, &examined, &owners);
    let paths = || listing.counted.iter().map(|(file, _)| file.path.as_str());
    let resolver = Resolver::new(paths(), options.base.as_deref());
    let hashes = Hashes::find(paths());
    let mut pages = entries::of_pages(&ledger.files, &examined, &resolver, &mut notices);
    let asked: BTreeSet<FileId> =
        pages.iter().flat_map(|entry| entry.asks.iter().copied()).collect();
    let by_stem = entries::styles_by_stem(&ledger.files, &hashes);
    let stem_styles = |script: FileId| by_stem.get(&script).cloned().unwrap_or_default();
    let unasked_styles = |script: FileId| {
        let mut styles = stem_styles(script);
        styles.retain(|style| !asked.contains(style));
        styles
    };
    let registries: Vec<Option<&Registry>> =
        examined.iter().map(|file| file.code.as_ref().map(|code| &code.registry)).collect();
    let chunk_files = Chunks::find(&ledger.files, &registries);
    let connector = Connector::new(&resolver, &chunk_files, &unasked_styles, &examined);
    let openings = connector.connect(&mut ledger, &examined, &mut notices);
    if pages.is_empty() {
        let scripts =
            Scripts { files: &ledger.files, registries: &registries, chunks: &chunk_files };
        pages = entries::inferred(&scripts, &openings, &hashes, &stem_styles, &mut notices);
    }
    let chunks = entries::chunks(&ledger.files, &openings, &stem_styles);
    let looks: Vec<_> = paths().zip(examined.iter().map(|file| file.look)).collect();
    let (mode, mode_evidence) = judge::mode(&looks, &owners.modules);
    let required = examined.iter().filter_map(|file| file.code.as_ref());
    let required = required.flat_map(|code| code.node_requires.iter());
    let externals = ledger.files.iter().flat_map(|file| &file.externals).chain(required);
    let externals = externals.map(String::as_str);
    let (target, target_basis) = judge::target(externals);
    notices.sort();
    notices.dedup();
    let texts = options.texts.then(|| Texts {
        emitted: examined.iter_mut().map(|file| file.text.take()).collect(),
        sources: std::mem::take(&mut owners.texts),
    });
    let mut record = Record {
        schema: SCHEMA,
        label: options.label.clone().unwrap_or_else(|| label_of(path)),
        bundler: None,
        bundler_version: None,
        mode,
        mode_evidence,
        target,
        target_basis,
        set_aside,
        twins: measured_by_twin,
        encoders: [(Coding::Gzip, coding::gzip_encoder(coding::GZIP_LEVEL))].into(),
        files: ledger.files,
        cells: ledger.cells,
        runs: ledger.runs,
        modules: owners.modules,
        packages: owners.packages,
        chunks,
        entries: pages,
        openings,
        aside: listing
            .aside
            .into_iter()
            .map(|(file, kind)| Aside { path: file.path, kind, bytes: file.bytes })
            .collect(),
        notices,
        texts,
    };
    names::give(&mut record, &hashes);
    Ok(record)
}

/// Where the folder holds output for browser and server, keeps that of the target asked for.
fn set_aside(
    path: &Path,
    options: &Options,
    listing: &mut Listing,
    examined: &mut Vec<Examined>,
    notices: &mut Vec<Notice>,
) -> Result<Vec<SetAside>, ReadError> {
    let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
    let resolver = Resolver::new(paths, options.base.as_deref());
    let wanted = options.target.unwrap_or(Target::Browser);
    let Some(servers) = targets::server_files(listing, examined, &resolver) else {
        let externals = examined
            .iter()
            .filter_map(|file| file.code.as_ref())
            .flat_map(|code| code.loads.iter().chain(&code.node_requires).map(String::as_str));
        let (only, _) = judge::target(externals);
        return match options.target {
            Some(target) if target != only => {
                Err(ReadError::NoTarget { path: path.to_owned(), target })
            }
            _ => Ok(Vec::new()),
        };
    };
    let other = match wanted {
        Target::Browser => Target::Server,
        Target::Server => Target::Browser,
        target => return Err(ReadError::NoTarget { path: path.to_owned(), target }),
    };
    let keep = |at: usize| servers[at] == (wanted == Target::Server);
    let (mut file_count, mut bytes) = (0, 0);
    for (at, (file, _)) in listing.counted.iter().enumerate().filter(|(at, _)| !keep(*at)) {
        file_count += 1;
        bytes += file.bytes;
        examined[at].notices.clear();
    }
    let mut at = 0;
    listing.counted.retain(|_| (keep(at), at += 1).0);
    at = 0;
    examined.retain(|_| (keep(at), at += 1).0);
    let message = format!(
        "{file_count} files of {} output ({bytes} B emitted) are set aside, in no total; --target {} looks at them",
        other.name(),
        other.name(),
    );
    notices.push(Notice::new("target-set-aside", message, None));
    Ok(vec![SetAside { target: other, file_count, bytes }])
}

/// The folder's own name; `.` and `..` are looked up, since they name nothing.
fn label_of(path: &Path) -> String {
    let name = path.file_name().map(ToOwned::to_owned).or_else(|| {
        let full = path.canonicalize().ok()?;
        full.file_name().map(ToOwned::to_owned)
    });
    name.map_or_else(|| "build".to_owned(), |name| name.to_string_lossy().into_owned())
}
