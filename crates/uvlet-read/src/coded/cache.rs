//! Coded streams of earlier runs, one file each in a folder of the user's.
//!
//! A file is named by the digest of all that its stream depends on: the text, the coding, the encoder
//! and its level. It is written beside and renamed, so runs at the same time never see half of one;
//! it holds a digest of its own, so what is damaged is taken for nothing. Nothing here can fail a
//! run: a folder that cannot be written to is a cache that is empty.

use std::{
    fs::{self, File},
    io::{Read, Write},
    path::{Path, PathBuf},
    sync::atomic::{AtomicBool, Ordering},
    time::{Duration, SystemTime},
};

use uvlet_ledger::coding::Encoder;
use uvlet_record::sizes::Coding;

/// Streams of earlier runs.
#[derive(Debug)]
pub struct Cache {
    folder: PathBuf,
    /// Bytes that its files may take together.
    limit: u64,
    wrote: AtomicBool,
}

/// First bytes of an entry; another form of entries has others.
const MARK: &[u8; 16] = b"uvlet stream  1\n";
/// Bytes before the stream: mark, key, digest of the stream.
const HEAD: usize = MARK.len() + 32 + 32;
/// Bytes that a cache may take.
const LIMIT: u64 = 256 << 20;
/// An entry that is being written for longer than this was left behind.
const STALE: Duration = Duration::from_secs(3600);
/// How names of entries that are being written begin.
const UNFINISHED: &str = ".new-";

/// What a stream depends on.
pub struct Key([u8; 32]);

impl Key {
    pub fn new(text: &[u8], coding: Coding, encoder: &Encoder) -> Self {
        let mut hasher = blake3::Hasher::new();
        hasher.update(blake3::hash(text).as_bytes());
        hasher.update(format!("{coding} {} {}", encoder.level, encoder.name).as_bytes());
        Self(hasher.finalize().into())
    }

    fn name(&self) -> String {
        self.0.iter().take(16).map(|byte| format!("{byte:02x}")).collect()
    }
}

impl Cache {
    /// The cache in a folder, which is made when it is first written to.
    #[must_use]
    pub fn new(folder: PathBuf) -> Self {
        Self { folder, limit: LIMIT, wrote: AtomicBool::new(false) }
    }

    /// The stream of a text of so many bytes.
    pub fn get(&self, key: &Key, text: usize) -> Option<Vec<u8>> {
        let path = self.folder.join(key.name());
        // A pipe of that name must not be waited for.
        let is_file = fs::symlink_metadata(&path).is_ok_and(|metadata| metadata.is_file());
        let file = is_file.then(|| File::open(&path).ok()).flatten()?;
        let mut entry = Vec::new();
        // No stream is much longer than its text.
        let most = (HEAD + text + text / 8 + 1024) as u64;
        (&file).take(most).read_to_end(&mut entry).ok()?;
        let rest = entry.strip_prefix(MARK)?.strip_prefix(&key.0)?;
        let (digest, stream) = rest.split_first_chunk::<32>()?;
        if blake3::hash(stream).as_bytes() != digest {
            return None;
        }
        // What was used last is dropped last.
        let _ = file.set_modified(SystemTime::now());
        Some(entry.split_off(HEAD))
    }

    /// Keeps a stream, if that is possible.
    pub fn put(&self, key: &Key, stream: &[u8]) {
        let _ = fs::create_dir_all(&self.folder);
        let beside = tempfile::Builder::new().prefix(UNFINISHED).tempfile_in(&self.folder);
        let Ok(mut beside) = beside else { return };
        let digest = blake3::hash(stream);
        let parts = [&MARK[..], &key.0, digest.as_bytes(), stream];
        let written = parts.iter().try_for_each(|part| beside.write_all(part));
        if written.is_ok() && beside.persist(self.folder.join(key.name())).is_ok() {
            self.wrote.store(true, Ordering::Relaxed);
        }
    }

    /// Drops what was not used for longest until the rest is within the limit.
    fn trim(&self) {
        let Ok(entries) = fs::read_dir(&self.folder) else { return };
        let mut kept: Vec<(SystemTime, u64, PathBuf)> = Vec::new();
        for entry in entries.flatten() {
            let Ok(metadata) = entry.metadata() else { continue };
            let used = metadata.modified().unwrap_or(SystemTime::UNIX_EPOCH);
            let name = entry.file_name().to_string_lossy().into_owned();
            let is_new = name.starts_with(UNFINISHED);
            if !is_new && !is_entry(&name, &entry.path()) {
                continue;
            }
            if !is_new {
                kept.push((used, metadata.len(), entry.path()));
            } else if used.elapsed().is_ok_and(|age| age > STALE) {
                let _ = fs::remove_file(entry.path());
            }
        }
        let mut bytes: u64 = kept.iter().map(|(_, bytes, _)| bytes).sum();
        kept.sort();
        for (_, size, path) in kept {
            if bytes <= self.limit {
                break;
            }
            let _ = fs::remove_file(path);
            bytes -= size;
        }
    }
}

/// Whether a file is one that this program keeps: the folder may be a link to somebody else's.
fn is_entry(name: &str, path: &Path) -> bool {
    let mut start = [0; MARK.len()];
    name.len() == 32
        && name.bytes().all(|byte| byte.is_ascii_hexdigit())
        && File::open(path).is_ok_and(|mut file| file.read_exact(&mut start).is_ok())
        && &start == MARK
}

impl Drop for Cache {
    fn drop(&mut self) {
        if self.wrote.load(Ordering::Relaxed) {
            self.trim();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn key(text: &[u8], level: u32) -> Key {
        Key::new(text, Coding::Br, &Encoder { name: "one".to_owned(), level })
    }

    #[test]
    fn keeps_within_its_limit_what_was_used_last() {
        let folder = tempfile::tempdir().unwrap();
        let foreign = [folder.path().join("letter.txt"), folder.path().join("0".repeat(32))];
        foreign.iter().for_each(|path| fs::write(path, [b'x'; 9000]).unwrap());
        let entry = |at: u8| folder.path().join(key(&[at], 11).name());
        let mut cache = Cache::new(folder.path().to_owned());
        for at in 0..8 {
            cache.put(&key(&[at], 11), &[at; 1000]);
            let age = Duration::from_secs(100 - u64::from(at));
            let file = File::options().append(true).open(entry(at)).unwrap();
            file.set_modified(SystemTime::now() - age).unwrap();
        }
        assert_eq!(cache.get(&key(&[0], 11), 1000), Some(vec![0; 1000]));
        assert_eq!(cache.get(&key(&[0], 10), 1000), None);
        cache.limit = 3 * (HEAD as u64 + 1000);
        drop(cache);
        let left: Vec<u8> = (0..8).filter(|&at| entry(at).exists()).collect();
        assert_eq!(left, [0, 6, 7]);
        assert!(foreign.iter().all(|path| path.exists()), "what is not ours was dropped");
    }

    #[test]
    fn what_is_damaged_is_taken_for_nothing() {
        let folder = tempfile::tempdir().unwrap();
        let cache = Cache::new(folder.path().to_owned());
        let key = key(b"tide", 11);
        cache.put(&key, b"stream");
        let path = folder.path().join(key.name());
        let whole = fs::read(&path).unwrap();
        for at in 0..whole.len() {
            let mut damaged = whole.clone();
            damaged[at] ^= 1;
            fs::write(&path, &damaged).unwrap();
            assert_eq!(cache.get(&key, 4), None);
            fs::write(&path, &whole[..at]).unwrap();
            assert_eq!(cache.get(&key, 4), None);
        }
        cache.put(&key, b"stream");
        assert_eq!(cache.get(&key, 4).as_deref(), Some(&b"stream"[..]));
    }
}
