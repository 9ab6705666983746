//! Sources that give out one value with many members, as utility libraries do: what of such a source a few
//! of the members are made of.
//!
//! The value is what `module.exports`, `exports.default` or `export default` gives out, followed through
//! names, functions that are called where they stand and what those return. A member is what is assigned
//! to it by a name, or stands in the object that is written out. From the members that are read the names
//! in their text are followed, at any depth of functions. What only does something while the value is made
//! (loops over its own members, or aliases made by a computed name) is left out: what is found is the least
//! that must stay.

mod cutter;
mod object;
mod pieces;
mod read;

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use oxc_ast_visit::Visit;
use oxc_semantic::SemanticBuilder;

use crate::{
    members::{
        cutter::cut,
        object::Facts,
        pieces::{Kind, Pieces, Use},
    },
    parse::{Dialect, Unparsed, read},
};

pub use read::{Read, names_read};

/// Names that are no members of one's own.
const NO_MEMBERS: [&str; 3] = ["__esModule", "default", "prototype"];

/// A source that gives out a value with members.
pub struct Members {
    pieces: Pieces,
    /// It is an ES module; else one in CommonJS form, or a script that can be one.
    pub is_module: bool,
    /// Specifiers of files whose exports are members, too.
    pub made_of: BTreeSet<String>,
}

/// What some members are not made of, and what they ask others for.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Rest {
    /// Bytes of the source that could go, in order and apart.
    pub gone: Vec<Range<usize>>,
    /// Specifiers, with the members that are read of what the other gives out; none where all may be used.
    pub requests: BTreeMap<String, Option<BTreeSet<String>>>,
}

/// Reads the members of the value that a source gives out; none where some are not written out.
///
/// # Errors
/// When it cannot be parsed.
pub fn members(text: &str) -> Result<Option<Members>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let semantic = SemanticBuilder::new().build(&script.program).semantic;
        let scoping = semantic.scoping();
        let mut facts = Facts::new(scoping);
        facts.visit_program(&script.program);
        let object = facts.object();
        let pieces = cut(&script.program, scoping, &facts, &object);
        if pieces.is_open {
            return None;
        }
        let namespace = |symbol| pieces.imports.get(symbol).filter(|(_, is_whole)| !is_whole);
        let made_of = object.made_of.iter().filter_map(namespace);
        let made_of = made_of.map(|(request, _)| request.clone()).collect();
        Some(Members { pieces, is_module: script.is_module, made_of })
    })
}

impl Members {
    /// The names that it has.
    pub fn names(&self) -> impl Iterator<Item = &str> {
        let names = self.pieces.by_key.keys().map(String::as_str);
        names.filter(|name| !NO_MEMBERS.contains(name))
    }

    /// It has a member of this name.
    #[must_use]
    pub fn has(&self, name: &str) -> bool {
        self.names().any(|one| one == name)
    }

    /// What members of these names are not made of.
    #[must_use]
    pub fn without_others(&self, names: &BTreeSet<String>) -> Rest {
        let list = &self.pieces.list;
        let mut stays = vec![false; list.len()];
        let mut rest = Rest::default();
        let of_key = |name: &String| self.pieces.by_key.get(name).into_iter().flatten().copied();
        let mut open: Vec<usize> = names.iter().flat_map(of_key).collect();
        while let Some(at) = open.pop() {
            if std::mem::replace(&mut stays[at], true) {
                continue;
            }
            open.extend(list[at].parent);
            for used in &list[at].uses {
                match used {
                    Use::Piece(piece) => match list[*piece].kind {
                        Kind::Statement(function) if self.pieces.levels.contains(&function) => {}
                        _ => open.push(*piece),
                    },
                    Use::Symbol(symbol) => {
                        open.extend(self.pieces.by_symbol.get(symbol).into_iter().flatten());
                    }
                    // As the value is made, its members are there for others.
                    Use::Member(_, function)
                        if list[at].kind != Kind::Member
                            && self.pieces.levels.contains(function) => {}
                    Use::Member(name, _) => open.extend(of_key(name)),
                    Use::Request(request, member) => {
                        let wanted = rest.requests.entry(request.clone());
                        let wanted = wanted.or_insert_with(|| Some(BTreeSet::new()));
                        match (member, wanted.as_mut()) {
                            (Some(member), Some(names)) => _ = names.insert(member.clone()),
                            (None, _) => *wanted = None,
                            (Some(_), None) => {}
                        }
                    }
                }
            }
        }
        let is_first =
            |at: &usize| !stays[*at] && list[*at].parent.is_some_and(|parent| stays[parent]);
        let gone = (0..list.len()).filter(is_first).map(|at| list[at].range.clone());
        rest.gone = gone.collect();
        rest.gone.sort_by_key(|range| range.start);
        rest
    }
}

#[cfg(test)]
mod tests;
