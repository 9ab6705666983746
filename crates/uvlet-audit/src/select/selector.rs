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

use std::ops::Range;

use crate::select::{
    nearest::Known,
    words::{MAPS, Named, Plain},
};

/// A parsed selector.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Selector {
    pub(crate) text: String,
    pub(crate) tree: Tree,
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
        let error = |wrong: Wrong| Err(SelectorError::new(&self.text, 0, wrong));
        let mut first = &self.tree;
        loop {
            first = match first {
                Tree::Named { .. } => return Ok(()),
                Tree::And(parts) | Tree::Except(parts) => match parts.first() {
                    Some(first) => first,
                    None => return Ok(()),
                },
                Tree::Or(_) => {
                    return error(Wrong::ItemsJoined);
                }
                Tree::Plain(_) | Tree::Holding(_) => {
                    return error(Wrong::NoItems);
                }
            };
        }
    }
}

#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Tree {
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
    pub(crate) fn has(&self, test: &dyn Fn(&Self) -> bool) -> bool {
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
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SelectorError {
    /// The selector.
    pub text: String,
    /// Column in characters, from 1.
    pub column: usize,
    /// What is wrong.
    pub wrong: Wrong,
}

/// What is wrong with a selector.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Wrong {
    /// Something stands where only a word that joins, or the end, may.
    NoJoin,
    /// Parentheses stand within parentheses beyond what is read.
    TooDeep,
    /// No set stands where one must.
    NoSet,
    /// A set of names stands without a parenthesis.
    NoArgument(String),
    /// A set without names has a parenthesis.
    Argument(String),
    /// There is no set of this name.
    UnknownSet(String, Known),
    /// A quote is not closed.
    OpenQuote,
    /// No name stands in the parentheses.
    NoName,
    /// A parenthesis is not closed.
    OpenParenthesis,
    /// Items are joined by `or`.
    ItemsJoined,
    /// Items are of no set of names.
    NoItems,
}

impl SelectorError {
    pub(crate) fn new(text: &str, byte: usize, wrong: Wrong) -> Self {
        let column = text.get(..byte).unwrap_or(text).chars().count() + 1;
        Self { text: text.to_owned(), column, wrong }
    }
}
