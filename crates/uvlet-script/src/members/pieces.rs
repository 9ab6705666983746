//! A source in pieces: what it declares at any depth, what it gives its value for members, and what only
//! does something; and who of that uses whom.

use std::{
    collections::{BTreeMap, HashMap, HashSet},
    ops::Range,
};

use oxc_syntax::symbol::SymbolId;

use crate::members::object::Start;

/// What a piece of a source is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Kind {
    /// Something with a name.
    Declared,
    /// What others read under names of the value.
    Member,
    /// A statement of a function (of the whole source at 0) that does something.
    Statement(Start),
}

/// A piece of a source.
#[derive(Clone, Debug)]
pub(super) struct Piece {
    pub(super) range: Range<usize>,
    pub(super) kind: Kind,
    /// The piece that it stands in.
    pub(super) parent: Option<usize>,
    pub(super) uses: Vec<Use>,
}

/// What a piece uses.
#[derive(Clone, Debug)]
pub(super) enum Use {
    Piece(usize),
    Symbol(SymbolId),
    /// A member of the value, read in a function.
    Member(String, Start),
    /// Of another file all, or one member of what it gives out as a whole.
    Request(String, Option<String>),
}

/// All pieces, the whole source first.
pub(super) struct Pieces {
    pub(super) list: Vec<Piece>,
    pub(super) by_symbol: HashMap<SymbolId, Vec<usize>>,
    pub(super) by_key: BTreeMap<String, Vec<usize>>,
    /// Functions in which the value is made: what is done there is done for all of it.
    pub(super) levels: HashSet<Start>,
    /// Names of whole other files, and whether it is what they give out as a whole.
    pub(super) imports: HashMap<SymbolId, (String, bool)>,
    /// It may have members that are not written out.
    pub(super) is_open: bool,
}
