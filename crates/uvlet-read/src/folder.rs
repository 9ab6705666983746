//! The files of an output folder: what each is, and its text.
//!
//! Files are listed by path, hidden folders included; links are not followed. What describes the
//! build instead of being shipped is set aside by its content.

mod sniff;

use std::{
    collections::BTreeSet,
    fs::File,
    io::{self, Read},
    ops::Deref,
    path::{Path, PathBuf},
};

use uvlet_record::{AsideKind, Kind, Notice};
use walkdir::WalkDir;

pub use sniff::described_by;

use crate::twins;

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
    /// What could not be listed.
    pub notices: Vec<Notice>,
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

/// Lists a folder.
pub fn list(folder: &Path) -> Listing {
    let mut listing = Listing::default();
    let mut files = Vec::new();
    for found in WalkDir::new(folder).min_depth(1) {
        match found {
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
                let message = "a link, which is not followed: its bytes are not counted";
                listing.notices.push(Notice::new("link", message, Some(&path)));
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
        let twin = twins::stands_for(&file.path).filter(|(plain, _)| paths.contains(*plain));
        match twin.map(|_| AsideKind::Precompressed).or_else(|| aside_kind(&file, &paths)) {
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
    let reason = error.to_string();
    let reason = reason.split(" (os error").next().unwrap_or_default().to_lowercase();
    Notice::new("unreadable", format!("cannot be read ({reason}): not counted"), Some(path))
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
fn aside_kind(file: &Listed, paths: &BTreeSet<String>) -> Option<AsideKind> {
    let name = file.path.rsplit('/').next().unwrap_or(&file.path);
    if name.ends_with(".LICENSE.txt") || name.ends_with(".LEGAL.txt") {
        return Some(AsideKind::Licence);
    }
    let ending = extension(name);
    // Beside the file that it is named after, even a damaged map is one.
    if ending == "map" && file.path.strip_suffix(".map").is_some_and(|of| paths.contains(of)) {
        return Some(AsideKind::Map);
    }
    if ending != "map" && ending != "json" {
        return None;
    }
    match described_by(&Text::of(file).ok()?, paths) {
        // A map has that ending, or is somebody's data.
        Some(AsideKind::Map) if ending != "map" && !name.contains(".map.") => None,
        kind => kind,
    }
}

/// The bytes of a file as they were when it was read.
pub struct Text(Vec<u8>);

/// Bytes of the largest file that is read.
const LARGEST: u64 = 1 << 30;

impl Text {
    /// Reads a file: a copy that nobody else can change meanwhile, as a memory map could be.
    ///
    /// # Errors
    /// When it cannot be read, is larger than 1 GiB, or is no longer as long as it was listed.
    pub fn of(file: &Listed) -> io::Result<Self> {
        let wrong = |message: &str| Err(io::Error::other(message));
        if file.bytes > LARGEST {
            return wrong("it is larger than 1 GiB");
        }
        let mut text = Vec::with_capacity(usize::try_from(file.bytes).unwrap_or(0));
        File::open(&file.disk)?.take(file.bytes + 1).read_to_end(&mut text)?;
        if text.len() as u64 != file.bytes {
            return wrong(
                "it was changed while it was read; measure again when the build has ended",
            );
        }
        Ok(Self(text))
    }
}

impl Deref for Text {
    type Target = [u8];

    fn deref(&self) -> &[u8] {
        &self.0
    }
}
