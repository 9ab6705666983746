//! What every kind of description can do, and what may be wrong with one.

use std::{collections::BTreeSet, path::Path};

use uvlet_record::AsideKind;

use super::{described::Described, outline::Outline};

/// One kind of description.
pub trait Description: Sync {
    /// What a file of it is.
    fn kind(&self) -> AsideKind;

    /// Whether JSON with these keys is of it: several keys with values of the right kinds, never one
    /// key or a name alone.
    fn is(&self, outline: &Outline) -> bool;

    /// Whether JSON that is cut short within the value of `key` would have been of it.
    fn would_be(&self, _outline: &Outline, _key: &str) -> bool {
        false
    }

    /// Whether JSON of which all keys were seen is of it; `paths` are the files of the folder.
    fn is_all_in_all(&self, _outline: &Outline, _paths: &BTreeSet<String>) -> bool {
        false
    }

    /// How much it can tell: of several that fit, the one that tells most is taken.
    fn richness(&self) -> u8;

    /// Reads it: every build that it speaks of.
    ///
    /// # Errors
    /// When it is damaged, or newer than this program.
    fn read(&self, json: &str) -> Result<Vec<Described>, DescriptionError>;
}

/// Why a description cannot be used.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum DescriptionError {
    /// It cannot be read at all.
    #[error("cannot be read ({0})")]
    Io(String),
    /// Its JSON is damaged.
    #[error("{0}")]
    Damaged(String),
    /// It is JSON of something else.
    #[error("is no stats, metafile, manifest or plugin file of a bundler")]
    Foreign,
    /// Its form is newer than this program.
    #[error("is of form {form}, newer than {known}, which this version reads")]
    Newer {
        /// The file's form.
        form: u32,
        /// The newest form that is known.
        known: u32,
    },
    /// It names no script at all.
    #[error("names no script")]
    Empty,
    /// None of its scripts is in the folder.
    #[error("is of another build: none of its {0} scripts is in the folder")]
    Elsewhere(usize),
}

/// A text without the mark that some editors put before UTF-8.
pub fn without_mark(text: &[u8]) -> &[u8] {
    text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text)
}

/// What the JSON reader complains of, with line and column.
pub fn damaged(error: &serde_json::Error) -> DescriptionError {
    let full = error.to_string();
    let message = full.rsplit_once(" at line ").map_or(full.as_str(), |(text, _)| text);
    let what = if error.is_eof() { "ends too early" } else { "is damaged" };
    DescriptionError::Damaged(format!(
        "{what} at line {} column {} ({message})",
        error.line(),
        error.column()
    ))
}

/// Whether a visitor runs it or is shown by it.
pub fn is_code(path: &str) -> bool {
    is_script(path) || Path::new(path).extension().is_some_and(|ending| ending == "css")
}

/// Whether it is code that runs.
pub fn is_script(path: &str) -> bool {
    Path::new(path)
        .extension()
        .is_some_and(|ending| ending == "js" || ending == "mjs" || ending == "cjs")
}
