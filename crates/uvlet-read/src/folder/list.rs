//! The files of an output folder, and what each is.
//!
//! Files are listed by path, hidden folders included; links are not followed. What describes the
//! build instead of being shipped is set aside by its content.

use std::{
    collections::{BTreeMap, BTreeSet},
    fs::File,
    io,
    path::{Path, PathBuf},
};
use uvlet_record::fault;

use uvlet_record::{AsideKind, Kind, Notice, Reason, Remark, Target, sizes::Coding};
use walkdir::WalkDir;

/// A file of the folder.
#[derive(Clone, Debug)]
pub struct Listed {
    /// Path in the folder, with forward slashes.
    pub path: String,
    /// Where it is on disk.
    pub disk: PathBuf,
    /// Its bytes.
    pub bytes: u64,
}

/// The folder's files, told apart.
#[derive(Clone, Debug, Default)]
pub struct Listing {
    /// Files that count, by path.
    pub counted: Vec<(Listed, Kind)>,
    /// Files that count in no total, by path.
    pub aside: Vec<(Listed, AsideKind)>,
    /// What is served to nobody, and not looked into: number of files, and their bytes.
    pub apart: BTreeMap<(Option<Target>, Reason), (usize, u64)>,
    /// What could not be listed.
    pub notices: Vec<Notice>,
}

/// What a file of an output is there for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Part {
    /// Visitors get it.
    Served,
    /// It describes the build.
    Description,
    /// It is served to nobody who visits this target.
    Apart(Option<Target>, Reason),
}

impl Listing {
    /// The place of a counted file among these.
    pub fn counted_at(&self, path: &str) -> Option<usize> {
        self.counted.binary_search_by(|(file, _)| file.path.as_str().cmp(path)).ok()
    }

    /// The file that stands aside under a path.
    pub fn aside_at(&self, path: &str) -> Option<&Listed> {
        let at = self.aside.binary_search_by(|(file, _)| file.path.as_str().cmp(path)).ok()?;
        Some(&self.aside[at].0)
    }
}

/// Tells what a JSON file describes instead of being shipped, given the paths of the folder.
pub type Sniff = dyn Fn(&Listed, &BTreeSet<String>) -> Option<AsideKind>;

/// Lists a folder, of which `part` tells what is served.
pub fn list(folder: &Path, sniff: &Sniff, part: &dyn Fn(&str) -> Part) -> Listing {
    let mut listing = Listing::default();
    let mut files = Vec::new();
    for found in WalkDir::new(folder).min_depth(1) {
        match found {
            Ok(found) if found.file_type().is_dir() => {}
            Ok(found) if let Part::Apart(target, reason) = part(&inside(folder, found.path())) => {
                if let Some(metadata) = found.metadata().ok().filter(std::fs::Metadata::is_file) {
                    let (count, bytes) = listing.apart.entry((target, reason)).or_default();
                    *count += 1;
                    *bytes = bytes.saturating_add(metadata.len());
                }
            }
            Ok(found) if found.file_type().is_file() => {
                let disk = found.into_path();
                let path = inside(folder, &disk);
                // Opened here already: what cannot be read must not enter any total.
                match File::open(&disk).and_then(|opened| opened.metadata()) {
                    Ok(metadata) => files.push(Listed { path, disk, bytes: metadata.len() }),
                    Err(error) => listing.notices.push(unreadable(&path, &error)),
                }
            }
            Ok(found) if found.file_type().is_symlink() => {
                let path = inside(folder, found.path());
                listing.notices.push(Notice::at(&path, Remark::Link));
            }
            Ok(_) => {}
            Err(error) => {
                let path = error.path().map(|path| inside(folder, path)).unwrap_or_default();
                let cause = error.into_io_error().unwrap_or_else(|| io::Error::other("a loop"));
                listing.notices.push(unreadable(&path, &cause));
            }
        }
    }
    files.sort_by(|a, b| a.path.cmp(&b.path));
    tell_apart(&mut files);
    let paths: BTreeSet<String> = files.iter().map(|file| file.path.clone()).collect();
    for file in files {
        let copy = precompressed(&file.path).filter(|(plain, _)| paths.contains(*plain));
        let kind = copy.map(|_| AsideKind::Precompressed);
        let kind = kind.or_else(|| aside_kind(&file, &paths, sniff));
        let is_description = part(&file.path) == Part::Description;
        match kind.or(is_description.then_some(AsideKind::Framework)) {
            Some(kind) => listing.aside.push((file, kind)),
            None => {
                let kind = kind_of(&file.path);
                listing.counted.push((file, kind));
            }
        }
    }
    listing
}

/// A name that is no UTF-8 may read like another file's once its bytes are spelt out.
fn tell_apart(files: &mut [Listed]) {
    let mut known: BTreeSet<String> = BTreeSet::new();
    for file in files.iter_mut() {
        let mut name = file.path.clone();
        while !known.insert(name.clone()) {
            name.push('~');
        }
        file.path = name;
    }
    files.sort_by(|a, b| a.path.cmp(&b.path));
}

/// The paths of a folder's files.
pub fn paths(folder: &Path) -> BTreeSet<String> {
    let files = WalkDir::new(folder).min_depth(1).into_iter().flatten();
    let files = files.filter(|file| file.file_type().is_file());
    files.map(|file| inside(folder, file.path())).collect()
}

fn inside(folder: &Path, path: &Path) -> String {
    let path = path.strip_prefix(folder).unwrap_or(path);
    let parts: Vec<_> = path.iter().map(|part| name(part.as_encoded_bytes())).collect();
    parts.join("/")
}

/// A file's name as text; bytes that are no UTF-8 stand as a URL would hold them, so that two names
/// never become one.
fn name(bytes: &[u8]) -> String {
    let mut name = String::with_capacity(bytes.len());
    for chunk in bytes.utf8_chunks() {
        name.push_str(chunk.valid());
        for byte in chunk.invalid() {
            name.push_str(&format!("%{byte:02X}"));
        }
    }
    name
}

/// The notice for a file that cannot be read.
pub fn unreadable(path: &str, error: &io::Error) -> Notice {
    Notice::at(path, Remark::Unreadable { reason: fault::reason(error) })
}

fn extension(path: &str) -> String {
    let name = path.rsplit('/').next().unwrap_or(path);
    name.rsplit_once('.').map_or_else(String::new, |(_, ext)| ext.to_ascii_lowercase())
}

/// The kind of a shipped file, by its extension as web servers judge it.
fn kind_of(path: &str) -> Kind {
    match extension(path).as_str() {
        "js" | "mjs" | "cjs" => Kind::Script,
        "css" => Kind::Style,
        "html" | "htm" => Kind::Page,
        "png" | "jpg" | "jpeg" | "gif" | "svg" | "webp" | "avif" | "ico" | "bmp" | "apng" => {
            Kind::Image
        }
        "woff" | "woff2" | "ttf" | "otf" | "eot" => Kind::Font,
        "wasm" => Kind::Wasm,
        _ => Kind::Data,
    }
}

/// What a file is that is not shipped, by its form; `paths` are all files of the folder.
fn aside_kind(file: &Listed, paths: &BTreeSet<String>, sniff: &Sniff) -> Option<AsideKind> {
    let name = file.path.rsplit('/').next().unwrap_or(&file.path);
    let licences = [".LICENSE.txt", ".LEGAL.txt", "3rdpartylicenses.txt"];
    if licences.iter().any(|ending| name.ends_with(ending)) {
        return Some(AsideKind::Licence);
    }
    if [".d.ts", ".d.mts", ".d.cts"].iter().any(|ending| name.ends_with(ending)) {
        return Some(AsideKind::Types);
    }
    let ending = extension(name);
    // Beside the file that it is named after, even a damaged map is one.
    if ending == "map" && file.path.strip_suffix(".map").is_some_and(|of| paths.contains(of)) {
        return Some(AsideKind::Map);
    }
    if ending != "map" && ending != "json" {
        return None;
    }
    match sniff(file, paths) {
        // A map has that ending, or is somebody's data.
        Some(AsideKind::Map) if ending != "map" && !name.contains(".map.") => None,
        kind => kind,
    }
}

/// The path that a precompressed copy stands for, and its coding.
pub fn precompressed(path: &str) -> Option<(&str, Coding)> {
    let (plain, ending) = path.rsplit_once('.')?;
    let coding = Coding::ALL.into_iter().find(|coding| coding.ending() == ending)?;
    Some((plain, coding))
}
