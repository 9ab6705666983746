//! One record of all that was read, step by step: where each file runs and which target is looked
//! at, modules, cells and runs, loads, entries, chunks and their names, edges.

mod build;
pub(crate) mod cells;
pub(crate) mod chunk_files;
pub(crate) mod chunk_names;
pub(crate) mod chunks;
pub(crate) mod costs;
pub(crate) mod described_loads;
pub(crate) mod described_sources;
pub(crate) mod drawn;
pub(crate) mod edges;
pub(crate) mod entries;
pub(crate) mod foreign_sources;
pub(crate) mod inspect;
pub(crate) mod loads;
pub(crate) mod mode;
pub(crate) mod module_spans;
pub(crate) mod modules;
pub(crate) mod numbers;
pub(crate) mod older_sources;
pub(crate) mod package_maps;
mod read;
pub(crate) mod roots;
pub(crate) mod site;
pub(crate) mod targets;
pub(crate) mod texts;

use std::path::Path;

use build::Build;
use read::Read;
use uvlet_record::{Kind, Reason, Record, Target, glob::Glob, sizes::Coded};

use crate::{
    coded::{self, precompressed::PrecompressedCopy},
    descriptions::{self, frameworks::framework::Output},
    error::ReadError,
    folder::{
        self,
        list::{Listing, Part},
    },
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
