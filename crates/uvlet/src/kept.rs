//! The builds before: records of the folders that were looked at, a few of each, in the user's
//! cache folder. Nothing depends on them: what cannot be written or read is left.

use crate::args::build::Build;
use std::{
    env, fs,
    path::{Path, PathBuf},
    time::{Duration, SystemTime, UNIX_EPOCH},
};

use uvlet_record::{Record, sizes::Measure};

use crate::{failure::Failure, output};

/// Records per folder and target.
const BUILDS: usize = 8;
/// Folders that records are kept of.
const FOLDERS: usize = 32;
/// Level of zstd: keeping must not be felt.
const ZSTD_LEVEL: i32 = 3;
const ENDING: &str = ".json.zst";
/// Letters of a build's name.
const LONGEST: usize = 60;

/// A kept record.
pub struct Kept {
    pub path: PathBuf,
    pub age: Duration,
    /// The name that the build was given.
    pub mark: Option<String>,
}

impl Kept {
    fn of(path: PathBuf, time: u64) -> Self {
        let age = Duration::from_millis(now().saturating_sub(time));
        Self { mark: mark_of(&path), path, age }
    }

    /// The name that it was given, else how long ago it was looked at.
    pub fn label(&self) -> String {
        self.mark.clone().unwrap_or_else(|| self.said())
    }

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

/// The user's folder for what can be made again. A relative `HOME` names none: it would be another
/// one in each folder.
pub fn cache_folder() -> Option<PathBuf> {
    dirs::cache_dir().filter(|folder| folder.is_absolute())
}

/// Where the records of a folder are; none for what is a file itself, or where nothing is kept.
fn room(build: &Build, path: &Path, record: &Record) -> Option<PathBuf> {
    let is_kept = !build.no_cache && env::var_os("CI").is_none() && path.is_dir();
    let full = path.canonicalize().ok().filter(|_| is_kept)?;
    let key = blake3::hash(format!("{}\0{}", full.display(), record.target.name()).as_bytes());
    Some(cache_folder()?.join("uvlet").join("builds").join(&key.to_hex()[..32]))
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
    Some(Kept::of(path, time))
}

/// Records kept of this folder and target whose files differ from those of now, with sizes in a measure:
/// the newest first, back to one that was given a name.
pub fn tries(build: &Build, path: &Path, record: &Record, measure: Measure) -> Vec<Kept> {
    let (files, _) = names(record);
    let holds = |measures: &str| measures.split('+').any(|name| name == measure.name());
    let known = room(build, path, record).map(|room| list(&room)).unwrap_or_default();
    let mut tries = Vec::new();
    for (time, other, measures, path) in known {
        if other == files || !holds(&measures) {
            continue;
        }
        let one = Kept::of(path, time);
        let is_start = one.mark.is_some();
        tries.push(one);
        if is_start {
            break;
        }
    }
    tries
}

/// Keeps a record under a name, which no other of the folder has then.
///
/// # Errors
/// Where nothing is kept.
pub fn mark(build: &Build, path: &Path, record: &Record, name: &str) -> Result<(), Failure> {
    let refused = |why: &str| Failure::Usage(format!("--mark {name}: {why}"));
    let name = name.trim();
    if name.is_empty() || name.chars().count() > LONGEST || name.chars().any(char::is_control) {
        return Err(refused("a name is a few words on one line"));
    }
    let nothing = || {
        refused("no build is kept here: it must be a folder, and neither --no-cache nor CI be set")
    };
    let room = room(build, path, record).ok_or_else(nothing)?;
    keep(build, path, record);
    let (files, _) = names(record);
    let known = list(&room);
    for (.., path) in &known {
        if mark_of(path).as_deref() == Some(name) {
            let _ = fs::remove_file(mark_file(path));
        }
    }
    let kept = known.iter().find(|(_, other, ..)| *other == files).ok_or_else(nothing)?;
    output::replace(&mark_file(&kept.3), name.as_bytes())
}

/// The file beside a kept record that holds its name.
fn mark_file(record: &Path) -> PathBuf {
    record.with_extension("mark")
}

fn mark_of(record: &Path) -> Option<String> {
    let text = fs::read_to_string(mark_file(record)).ok()?;
    (!text.is_empty() && text.chars().count() <= LONGEST).then_some(text)
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
    for (.., old) in &same {
        if *old != path && mark_file(old).exists() {
            let _ = fs::rename(mark_file(old), mark_file(&path));
        }
    }
    // What was given a name is kept beyond the others.
    let (marked, plain): (Vec<_>, Vec<_>) =
        others.into_iter().partition(|(.., old)| mark_file(old).exists());
    let many = marked.into_iter().skip(BUILDS).chain(plain.into_iter().skip(BUILDS - 1));
    for (.., old) in same.into_iter().chain(many) {
        if old != path {
            let _ = fs::remove_file(mark_file(&old));
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
