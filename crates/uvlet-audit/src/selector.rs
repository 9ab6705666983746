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
mod named;
mod parse;

pub use evaluate::{Item, Missing, Renamed, Selection, Unmarked, items, select};
pub(crate) use named::is_version;

use std::ops::Range;

/// A set that takes an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "the words of the language explain themselves")]
pub enum Named {
    Startup,
    AtOnce,
    Deferred,
    Entry,
    Route,
    Repeats,
    Carried,
    Group,
    Chunk,
    File,
    Kind,
    Package,
    Module,
    Folder,
}

impl Named {
    const ALL: [(&'static str, Self); 14] = [
        ("startup", Self::Startup),
        ("at-once", Self::AtOnce),
        ("deferred", Self::Deferred),
        ("entry", Self::Entry),
        ("route", Self::Route),
        ("repeats", Self::Repeats),
        ("carried", Self::Carried),
        ("group", Self::Group),
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
    Repeats,
    Leftovers,
    NeverRan,
}

impl Plain {
    const ALL: [(&'static str, Self); 11] = [
        ("everything", Self::Everything),
        ("own", Self::Own),
        ("third-party", Self::ThirdParty),
        ("glue", Self::Glue),
        ("assets", Self::Assets),
        ("unattributed", Self::Unattributed),
        ("scripts", Self::Scripts),
        ("styles", Self::Styles),
        ("repeats", Self::Repeats),
        ("leftovers", Self::Leftovers),
        ("never-ran", Self::NeverRan),
    ];
}

impl Plain {
    /// The words of all.
    pub fn names() -> impl Iterator<Item = &'static str> {
        Self::ALL.iter().map(|(name, _)| *name)
    }
}

/// The kind of source maps, which stand aside.
const MAPS: &str = "map";

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

    /// Whether it speaks of named groups.
    #[must_use]
    pub fn names_groups(&self) -> bool {
        self.tree.has(&|tree| matches!(tree, Tree::Named { set: Named::Group, .. }))
    }

    /// Whether it speaks of what is marked: of what nothing uses, or of what never ran.
    #[must_use]
    pub fn names(&self, set: Plain) -> bool {
        self.tree.has(&|tree| matches!(tree, Tree::Plain(one) if *one == set))
    }

    /// Whether it is `kind(map)` and nothing else: the maps beside the files, which are in no set.
    #[must_use]
    pub fn is_of_maps(&self) -> bool {
        matches!(&self.tree, Tree::Named { set: Named::Kind, argument, .. } if argument == MAPS)
    }

    /// Whether its items can be told apart: it begins with a set of names, which only `and` and
    /// `except` filter.
    ///
    /// # Errors
    /// What it begins with instead.
    pub fn check_items(&self) -> Result<(), SelectorError> {
        let error = |message: &str| Err(SelectorError::new(&self.text, 0, message.to_owned()));
        let mut first = &self.tree;
        loop {
            first = match first {
                Tree::Named { .. } => return Ok(()),
                Tree::And(parts) | Tree::Except(parts) => match parts.first() {
                    Some(first) => first,
                    None => return Ok(()),
                },
                Tree::Or(_) => {
                    return error(
                        "`each` takes one set of names, filtered by `and` or `except`, not `or`",
                    );
                }
                Tree::Plain(_) | Tree::Holding(_) => {
                    return error(
                        "`each` begins with a set of names, such as chunk(*) or startup(*)",
                    );
                }
            };
        }
    }
}

impl Named {
    /// The words of all.
    pub fn names() -> impl Iterator<Item = &'static str> {
        Self::ALL.iter().map(|(name, _)| *name)
    }

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        Self::ALL.iter().find(|(_, set)| *set == self).map_or("", |(name, _)| name)
    }

    /// What one of it is called, in sentences.
    #[must_use]
    pub fn noun(self) -> &'static str {
        match self {
            Self::Startup
            | Self::AtOnce
            | Self::Deferred
            | Self::Entry
            | Self::Repeats
            | Self::Carried => "entry",
            Self::Route => "route",
            Self::Group => "group",
            Self::Chunk => "chunk",
            Self::File => "file",
            Self::Kind => "kind",
            Self::Package => "package",
            Self::Module => "module",
            Self::Folder => "folder",
        }
    }

    /// It names files, which a build must have for the question to mean anything; the others name
    /// owners, which it may well not have.
    #[must_use]
    pub fn is_of_files(self) -> bool {
        !matches!(self, Self::Package | Self::Module | Self::Folder)
    }
}

#[derive(Clone, Debug, PartialEq, Eq)]
enum Tree {
    Plain(Plain),
    Named {
        set: Named,
        argument: String,
        at: Range<usize>,
    },
    Holding(Box<Self>),
    /// Lists, so that a long chain is no deep tree.
    And(Vec<Self>),
    Or(Vec<Self>),
    /// The first without all others.
    Except(Vec<Self>),
}

impl Tree {
    /// Whether a part of it passes a test.
    fn has(&self, test: &dyn Fn(&Self) -> bool) -> bool {
        test(self)
            || match self {
                Self::Plain(_) | Self::Named { .. } => false,
                Self::Holding(inner) => inner.has(test),
                Self::And(parts) | Self::Or(parts) | Self::Except(parts) => {
                    parts.iter().any(|part| part.has(test))
                }
            }
    }
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
