//! The files that settings stand in: the one of this folder or above it, and those that it extends.

use std::{
    collections::HashSet,
    fs, io,
    path::{Path, PathBuf},
};
use uvlet_record::fault;

use super::{
    error::{ConfigError, FILE},
    reader::{Table, Wrong, line_and_column, parse},
    source::Source,
};

/// Files that may extend one another in a chain.
const DEEPEST: usize = 64;

/// The settings file of the working folder, or of the nearest folder above it that is still in the same
/// repository.
pub fn nearest() -> Option<PathBuf> {
    let above = |levels: usize| -> PathBuf { (0..levels).map(|_| "..").collect() };
    let depth = std::env::current_dir().ok()?.ancestors().count();
    let is_root = |folder: &Path| folder.join(".git").exists();
    let root = (0..depth).find(|&levels| is_root(&above(levels))).unwrap_or(0);
    (0..=root).map(|levels| above(levels).join(FILE)).find(|path| path.is_file())
}

/// A file with all that it extends: what is extended stands before what extends it, each file once.
pub fn gather(path: &Path) -> Result<Vec<Source>, ConfigError> {
    let bytes =
        read_plain(path).map_err(|source| ConfigError::Io { path: path.to_owned(), source })?;
    let mut gathered = Gathered { sources: Vec::new(), done: HashSet::new(), open: Vec::new() };
    gathered.add(path, &bytes)?;
    Ok(gathered.sources)
}

struct Gathered {
    /// Files in the order in which they count.
    sources: Vec<Source>,
    /// Their full paths.
    done: HashSet<PathBuf>,
    /// Full paths from the first file to the one that is being read, each as it was named.
    open: Vec<(PathBuf, PathBuf)>,
}

impl Gathered {
    fn add(&mut self, path: &Path, bytes: &[u8]) -> Result<(), ConfigError> {
        let full = path.canonicalize().unwrap_or_else(|_| path.to_owned());
        // A replacement character in a value is refused where that value is used.
        let text = String::from_utf8_lossy(bytes).into_owned();
        let source = Source { path: path.to_owned(), text };
        self.open.push((full.clone(), path.to_owned()));
        let here = path.parent().unwrap_or(Path::new(""));
        for (at, name) in extended(&source).map_err(|wrong| located(&source, &wrong))? {
            let wrong = |message| located(&source, &Wrong { file: 0, at, message });
            if self.open.len() >= DEEPEST {
                return Err(wrong(format!("is the {DEEPEST}th file of a chain; extend fewer")));
            }
            let next = plain(&here.join(&name));
            let full = next.canonicalize().unwrap_or_else(|_| next.clone());
            if self.done.contains(&full) {
                continue;
            }
            let bytes = read_plain(&next).map_err(|error| {
                let error = fault::reason(&error);
                wrong(format!(
                    "{} cannot be read: {error}; `extends` names a file from this one's folder",
                    next.display()
                ))
            })?;
            if let Some(first) = self.open.iter().position(|(open, _)| *open == full) {
                let names = self.open[first..].iter().map(|(_, path)| path.display().to_string());
                let circle: Vec<String> = names.chain([next.display().to_string()]).collect();
                return Err(wrong(format!(
                    "extends itself: {}; take one `extends` out",
                    circle.join(" → ")
                )));
            }
            self.add(&next, &bytes)?;
        }
        self.open.pop();
        self.done.insert(full);
        self.sources.push(source);
        Ok(())
    }
}

/// The files that a file extends, with the place of that.
fn extended(source: &Source) -> Result<Vec<(usize, String)>, Wrong> {
    let tree = parse(&source.text).map_err(|(at, message)| Wrong { file: 0, at, message })?;
    let table = Table::root(&[(source, &tree)]);
    table.texts("extends")
}

/// Says where something is wrong.
pub fn located(source: &Source, wrong: &Wrong) -> ConfigError {
    let (line, column) = line_and_column(&source.text, wrong.at);
    let message = wrong.message.clone();
    ConfigError::At { path: source.path.clone(), line, column, message }
}

/// `a/../b` as `b`, where `a` is a folder's name: chains of files stay short to read.
fn plain(path: &Path) -> PathBuf {
    use std::path::Component::{Normal, ParentDir};
    let mut plain: Vec<std::path::Component<'_>> = Vec::new();
    for part in path.components() {
        match (part, plain.last()) {
            (ParentDir, Some(Normal(_))) => {
                plain.pop();
            }
            _ => plain.push(part),
        }
    }
    plain.into_iter().collect()
}

/// Settings stand in a plain file: a pipe or a device is not waited for.
fn read_plain(path: &Path) -> io::Result<Vec<u8>> {
    const LONGEST: u64 = 16 << 20;
    let metadata = fs::metadata(path)?;
    if !metadata.is_file() || metadata.len() > LONGEST {
        return Err(io::Error::other("it is no file of settings"));
    }
    fs::read(path)
}
