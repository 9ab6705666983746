//! The builds before: records of the folders that were looked at, a few of each, in the user's
//! cache folder. Nothing depends on them: what cannot be written or read is left.

use crate::args::build::Build;
use std::{
    env, fs,
    path::{Path, PathBuf},
    time::{Duration, SystemTime, UNIX_EPOCH},
};

use uvlet_record::{Record, sizes::Measure};

use crate::{output, reading};

/// Records per folder and target.
const BUILDS: usize = 8;
/// Folders that records are kept of.
const FOLDERS: usize = 32;
/// Level of zstd: keeping must not be felt.
const ZSTD_LEVEL: i32 = 3;
const ENDING: &str = ".json.zst";

/// A kept record.
pub struct Kept {
    pub path: PathBuf,
    pub age: Duration,
}

impl Kept {
    /// How long ago that build was looked at last, in the largest unit that fits.
    pub fn said(&self) -> String {
        let seconds = self.age.as_secs();
        let units = [(86_400, "day"), (3_600, "hour"), (60, "minute"), (1, "second")];
        let fitting = units.into_iter().find(|(length, _)| seconds >= *length);
        let (length, word) = fitting.unwrap_or((1, "second"));
        let count = (seconds / length).max(1);
        format!("{count} {word}{} ago", if count == 1 { "" } else { "s" })
    }
}

/// Where the records of a folder are; none for what is a file itself, or where nothing is kept.
fn room(build: &Build, path: &Path, record: &Record) -> Option<PathBuf> {
    let is_kept = !build.no_cache && env::var_os("CI").is_none() && path.is_dir();
    let full = path.canonicalize().ok().filter(|_| is_kept)?;
    let key = blake3::hash(format!("{}\0{}", full.display(), record.target.name()).as_bytes());
    Some(reading::cache_folder()?.join("uvlet").join("builds").join(&key.to_hex()[..32]))
}

/// Tells builds apart by what they emitted, and how they were measured.
fn names(record: &Record) -> (String, String) {
    let mut hasher = blake3::Hasher::new();
    for file in &record.files {
        hasher.update(format!("{}\0{}\n", file.path, file.digest).as_bytes());
    }
    let measures: Vec<&str> = record.measures().map(Measure::name).collect();
    (hasher.finalize().to_hex()[..16].to_owned(), measures.join("+"))
}

/// The kept records of a room: time, files, measures, path; newest first.
fn list(room: &Path) -> Vec<(u64, String, String, PathBuf)> {
    let read = |path: PathBuf| {
        let name = path.file_name()?.to_str()?.strip_suffix(ENDING)?.to_owned();
        let mut parts = name.splitn(3, '-');
        let (time, files, measures) = (parts.next()?, parts.next()?, parts.next()?);
        Some((time.parse().ok()?, files.to_owned(), measures.to_owned(), path))
    };
    let entries = fs::read_dir(room).into_iter().flatten().flatten();
    let mut found: Vec<_> = entries.filter_map(|entry| read(entry.path())).collect();
    found.sort_by(|a, b| b.cmp(a));
    found
}

fn now() -> u64 {
    let since = SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default();
    u64::try_from(since.as_millis()).unwrap_or(u64::MAX)
}

/// The newest record kept of this folder and target whose files differ, with sizes in a measure.
pub fn before(build: &Build, path: &Path, record: &Record, measure: Measure) -> Option<Kept> {
    let (files, _) = names(record);
    let holds = |measures: &str| measures.split('+').any(|name| name == measure.name());
    let known = list(&room(build, path, record)?);
    let (time, _, _, path) =
        known.into_iter().find(|(_, other, measures, _)| *other != files && holds(measures))?;
    Some(Kept { path, age: Duration::from_millis(now().saturating_sub(time)) })
}

/// Keeps a record, and drops those that are one too many.
pub fn keep(build: &Build, path: &Path, record: &Record) {
    let Some(room) = room(build, path, record) else { return };
    let (files, measures) = names(record);
    let Ok(text) = record.to_json(env!("CARGO_PKG_VERSION")) else { return };
    let Ok(packed) = zstd::encode_all(text.as_bytes(), ZSTD_LEVEL) else { return };
    let known = list(&room);
    let path = room.join(format!("{:013}-{files}-{measures}{ENDING}", now()));
    if fs::create_dir_all(&room).is_err() || output::replace(&path, &packed).is_err() {
        return;
    }
    // The same build is there once; it is the newest now.
    let (same, others): (Vec<_>, Vec<_>) =
        known.into_iter().partition(|(_, other, taken, _)| (other, taken) == (&files, &measures));
    for (.., old) in same.into_iter().chain(others.into_iter().skip(BUILDS - 1)) {
        if old != path {
            let _ = fs::remove_file(old);
        }
    }
    if let Some(all) = room.parent() {
        drop_folders(all);
    }
}

/// Drops the records of the folders that were not looked at for longest.
fn drop_folders(all: &Path) {
    let entries = fs::read_dir(all).into_iter().flatten().flatten();
    let mut rooms: Vec<(SystemTime, PathBuf)> = entries
        .filter_map(|entry| Some((entry.metadata().ok()?.modified().ok()?, entry.path())))
        .collect();
    rooms.sort_by(|a, b| b.cmp(a));
    for (_, room) in rooms.into_iter().skip(FOLDERS) {
        let _ = fs::remove_dir_all(room);
    }
}
