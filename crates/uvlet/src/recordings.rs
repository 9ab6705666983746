//! Recordings of a browser, as they are named on a command line.

use std::path::{Path, PathBuf};

use uvlet_audit::parts::recordings::{Ran, ran};
use uvlet_read::recordings;
use uvlet_record::{Record, Recording, Texts};
use uvlet_view::words::remarks;

use crate::failure::Failure;

/// Refuses recordings of which nothing is of the build: whatever they told would be of another one.
pub fn check_build(ran: &Ran, recordings: &[Recording]) -> Result<(), Failure> {
    if !ran.files.is_empty() || recordings.is_empty() {
        return Ok(());
    }
    let labels: Vec<&str> = recordings.iter().map(|one| one.label.as_str()).collect();
    let why = ran.unmatched.iter().next();
    let why = why
        .map(|one| format!("; {}: {}", one.url, remarks::unknown_script(one.reason)))
        .unwrap_or_default();
    Err(Failure::Usage(format!(
        "{}: no script or style in it is a file of this build{why}; record the build that you ask about",
        labels.join(", ")
    )))
}

/// What ran in recordings of a build; none without recordings.
pub fn ran_in(
    record: &Record,
    texts: &dyn Texts,
    recordings: &[Recording],
) -> Result<Option<Ran>, Failure> {
    if recordings.is_empty() {
        return Ok(None);
    }
    let ran = ran(record, recordings, texts);
    check_build(&ran, recordings)?;
    Ok(Some(ran))
}

/// Recordings as they are named on a command line.
pub fn read(named: &[String]) -> Result<Vec<Recording>, Failure> {
    let one = |text: &String| {
        let (label, path) = self::named(text);
        recordings::read(&path, &label)
            .map_err(|error| Failure::Usage(format!("{}: {error}", path.display())))
    };
    named.iter().map(one).collect()
}

/// `load=a.json`, else the file's own name.
fn named(text: &str) -> (String, PathBuf) {
    let whole = Path::new(text);
    match text.split_once('=') {
        Some((label, path)) if !label.is_empty() && !whole.exists() => {
            (label.to_owned(), path.into())
        }
        _ => {
            let label = whole.file_stem().unwrap_or(whole.as_os_str());
            (label.to_string_lossy().into_owned(), whole.to_owned())
        }
    }
}
