//! The language that names sets of bytes.
//!
//! ```text
//! expr  = union { "except" union }
//! union = inter { "or" inter }
//! inter = atom { "and" atom }
//! atom  = SET | SET "(" argument ")" | "(" expr ")"
//! ```
//!
//! File sets pick whole files and owner sets pick owners, so every set is a set of cells and each
//! byte counts once, however the sets overlap.

mod evaluate;
mod parse;

pub use evaluate::{Item, Selection, items, select};

use std::ops::Range;

/// A set that takes an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "the words of the language explain themselves")]
pub enum Named {
    Startup,
    Deferred,
    Entry,
    Chunk,
    File,
    Kind,
    Package,
    Module,
    Folder,
}

impl Named {
    const ALL: [(&'static str, Self); 9] = [
        ("startup", Self::Startup),
        ("deferred", Self::Deferred),
        ("entry", Self::Entry),
        ("chunk", Self::Chunk),
        ("file", Self::File),
        ("kind", Self::Kind),
        ("package", Self::Package),
        ("module", Self::Module),
        ("folder", Self::Folder),
    ];
}

/// A set without an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "the words of the language explain themselves")]
pub enum Plain {
    Everything,
    Own,
    ThirdParty,
    Glue,
    Assets,
    Unattributed,
    Scripts,
    Styles,
}

impl Plain {
    const ALL: [(&'static str, Self); 8] = [
        ("everything", Self::Everything),
        ("own", Self::Own),
        ("third-party", Self::ThirdParty),
        ("glue", Self::Glue),
        ("assets", Self::Assets),
        ("unattributed", Self::Unattributed),
        ("scripts", Self::Scripts),
        ("styles", Self::Styles),
    ];
}

/// A parsed selector.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Selector {
    text: String,
    tree: Tree,
}

impl Selector {
    /// The text it was read from.
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }
}

#[derive(Clone, Debug, PartialEq, Eq)]
enum Tree {
    Plain(Plain),
    Named { set: Named, argument: String, at: Range<usize> },
    Holding(Box<Self>),
    And(Box<Self>, Box<Self>),
    Or(Box<Self>, Box<Self>),
    Except(Box<Self>, Box<Self>),
}

/// Why a selector means nothing.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("selector `{text}` column {column}: {message}")]
pub struct SelectorError {
    /// The selector.
    pub text: String,
    /// Column in characters, from 1.
    pub column: usize,
    /// What is wrong, and what to do.
    pub message: String,
}

impl SelectorError {
    fn new(text: &str, byte: usize, message: String) -> Self {
        let column = text.get(..byte).unwrap_or(text).chars().count() + 1;
        Self { text: text.to_owned(), column, message }
    }
}

#[cfg(test)]
mod tests;
