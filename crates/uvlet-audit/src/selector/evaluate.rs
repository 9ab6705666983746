//! From tree to sets of cells of one record, by three-valued logic: a cell is in a set, out of it,
//! or may be in it.
//!
//! What nobody owns may be anybody's: it may be in every set of owners. Two sets carry that: `least`
//! holds what is in, `most` adds what may be (Kleene's strong logic: `a except b` is at least what
//! is in `a` and cannot be in `b`).

use std::{cell::RefCell, collections::BTreeSet};

use uvlet_record::{Kind, Module, OtherName, Owner};

use super::{MAPS, Named, Plain, Selector, SelectorError, Tree};
use crate::{
    lens::{CellSet, Lens},
    marks::Marked,
    waste,
};

/// What a selector names in a record.
#[derive(Clone, Debug, Default)]
pub struct Selection {
    /// What is in as far as is known, which is what tables show.
    pub cells: CellSet,
    /// What is in for certain.
    pub least: CellSet,
    /// What is in, and what may be.
    pub most: CellSet,
    /// Names in the selector that the build does not have.
    pub missing: Vec<Missing>,
    /// Entries whose startup it speaks of, by their places in the record.
    pub startup_of: BTreeSet<usize>,
    /// Chunks that go by names which do not last.
    pub renamed: Vec<Renamed>,
    /// Marks that it speaks of and that the build is not looked at for.
    pub unmarked: BTreeSet<Unmarked>,
}

/// A mark that is not known of a build.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Unmarked {
    /// What nothing uses is found in texts, which are not at hand.
    Leftovers,
    /// What never ran is told by recordings, none of which was named.
    NeverRan,
}

impl Unmarked {
    /// In words: what it lacks.
    #[must_use]
    pub fn said(self) -> &'static str {
        match self {
            Self::Leftovers => {
                "`leftovers` is found in texts, and the record holds none; make it with --with-texts, \
                 or name the build's folder"
            }
            Self::NeverRan => {
                "`never-ran` is told by recordings of a browser; name them with --coverage FILE"
            }
        }
    }
}

impl Selection {
    /// Why it does not tell what was asked: a name that is not there, or a mark that is not known.
    #[must_use]
    pub fn lack(&self) -> Option<String> {
        let missing = self.missing.first().map(Missing::said);
        missing.or_else(|| self.unmarked.first().map(|mark| mark.said().to_owned()))
    }
}

/// A chunk that a selector names by a name which does not last.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Renamed {
    /// What kind of name that is.
    pub by: OtherName,
    /// The name.
    pub name: String,
    /// The name that lasts.
    pub lasting: String,
}

/// A name or glob that means nothing in a record.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Missing {
    /// The set.
    pub set: Named,
    /// As written.
    pub name: String,
    /// It holds wildcards.
    pub is_pattern: bool,
    /// Names that are there and close to it.
    pub near: Vec<String>,
    /// Chunks that go by this name, where that is why it means nothing.
    pub several: Vec<String>,
    /// The entry whose code opens a route of this name, where an entry was meant.
    pub route_of: Option<String>,
    /// Where it stands in the selector, in bytes.
    pub at: usize,
}

/// One match of a selector's first set.
#[derive(Clone, Debug)]
pub struct Item {
    /// Its name.
    pub name: String,
    /// What is in as far as is known.
    pub cells: CellSet,
    /// What is in for certain.
    pub least: CellSet,
    /// What is in, and what may be.
    pub most: CellSet,
}

/// Evaluates a selector.
///
/// # Errors
/// When a glob in it is too long.
pub fn select(selector: &Selector, lens: &Lens<'_>) -> Result<Selection, SelectorError> {
    let evaluation = Evaluation { lens, found: RefCell::default() };
    let Sets { cells, least, most } = evaluation.tree(&selector.tree)?;
    Ok(Selection { cells, least, most, ..evaluation.found.into_inner() })
}

/// The items of a selector that begins with a set of names: each match of that set on its own,
/// filtered by the `and` and `except` that follow. The selection tells what else was found out.
///
/// # Errors
/// When the selector begins otherwise or holds an `or` at its top, or a glob is too long.
pub fn items(
    selector: &Selector,
    lens: &Lens<'_>,
) -> Result<(Vec<Item>, Selection), SelectorError> {
    selector.check_items()?;
    let evaluation = Evaluation { lens, found: RefCell::default() };
    let items = evaluation.items(&selector.tree)?;
    Ok((items, evaluation.found.into_inner()))
}

impl Missing {
    /// In words: what is missing, and what is close.
    #[must_use]
    pub fn said(&self) -> String {
        let Self { set, name, near, several, route_of, .. } = self;
        if let Some(entry) = route_of {
            return format!(
                "no entry is called `{name}`: it is a route that {entry} opens; route({name}) is what \
                 a visit of it fetches"
            );
        }
        if !several.is_empty() {
            return format!("`{name}` is the name of several chunks: {}", several.join(", "));
        }
        if *set == Named::Kind && name == MAPS {
            return "maps count in no set; a budget over kind(map) alone holds those that lie in the \
                    folder"
                .to_owned();
        }
        let near = match near.as_slice() {
            [] => String::new(),
            near => format!(", did you mean {}?", near.join(" or ")),
        };
        format!("no {} is called `{name}`{near}", set.noun())
    }
}

/// What is in as far as is known, what is in for certain, and what is in or may be.
#[derive(Clone, Default)]
pub(super) struct Sets {
    pub(super) cells: CellSet,
    pub(super) least: CellSet,
    pub(super) most: CellSet,
}

impl Sets {
    pub(super) fn certain(cells: CellSet) -> Self {
        Self { cells: cells.clone(), least: cells.clone(), most: cells }
    }

    pub(super) fn with(cells: CellSet, maybe: &CellSet) -> Self {
        let most = cells.clone().or(maybe);
        Self { least: cells.clone(), cells, most }
    }

    fn and(self, other: &Self) -> Self {
        Self {
            cells: self.cells.and(&other.cells),
            least: self.least.and(&other.least),
            most: self.most.and(&other.most),
        }
    }

    fn except(self, other: &Self) -> Self {
        Self {
            cells: self.cells.except(&other.cells),
            least: self.least.except(&other.most),
            most: self.most.except(&other.least),
        }
    }

    pub(super) fn item(self, name: &str) -> Item {
        let Self { cells, least, most } = self;
        Item { name: name.to_owned(), cells, least, most }
    }
}

impl Item {
    fn take(&mut self) -> Sets {
        Sets {
            cells: std::mem::take(&mut self.cells),
            least: std::mem::take(&mut self.least),
            most: std::mem::take(&mut self.most),
        }
    }
}

pub(super) struct Evaluation<'l, 'r> {
    pub(super) lens: &'l Lens<'r>,
    /// What is found out besides the cells.
    pub(super) found: RefCell<Selection>,
}

impl<'r> Evaluation<'_, 'r> {
    fn tree(&self, tree: &Tree) -> Result<Sets, SelectorError> {
        let parts = |parts: &[Tree]| -> Result<Vec<Sets>, SelectorError> {
            parts.iter().map(|part| self.tree(part)).collect()
        };
        Ok(match tree {
            Tree::Plain(set) => self.plain(*set),
            Tree::Named { set, argument, at } => union(&self.named(*set, argument, at)?),
            Tree::Holding(inner) => {
                let inner = self.tree(inner)?;
                Sets {
                    cells: self.holding(&inner.cells),
                    least: self.holding(&inner.least),
                    most: self.holding(&inner.most),
                }
            }
            Tree::And(list) => fold(parts(list)?, |a, b| a.and(&b)),
            Tree::Or(list) => {
                let sets = parts(list)?;
                let all = |pick: fn(&Sets) -> &CellSet| {
                    sets.iter().flat_map(|sets| pick(sets).iter()).collect()
                };
                Sets {
                    cells: all(|sets| &sets.cells),
                    least: all(|sets| &sets.least),
                    most: all(|sets| &sets.most),
                }
            }
            Tree::Except(list) => fold(parts(list)?, |a, b| a.except(&b)),
        })
    }

    fn items(&self, tree: &Tree) -> Result<Vec<Item>, SelectorError> {
        let (list, keep) = match tree {
            Tree::Named { set, argument, at } => {
                let items = self.named(*set, argument, at)?;
                let found = self.found.borrow();
                let missed = found.missing.iter().any(|m| m.at == at.start && m.is_pattern);
                return Ok(if missed { Vec::new() } else { items });
            }
            Tree::And(list) => (list, true),
            Tree::Except(list) => (list, false),
            Tree::Plain(_) | Tree::Holding(_) | Tree::Or(_) => return Ok(Vec::new()),
        };
        let Some((first, filters)) = list.split_first() else { return Ok(Vec::new()) };
        let mut items = self.items(first)?;
        for filter in filters {
            let filter = self.tree(filter)?;
            for item in &mut items {
                let sets = item.take();
                let sets = if keep { sets.and(&filter) } else { sets.except(&filter) };
                *item = sets.item(&item.name);
            }
        }
        Ok(items)
    }

    fn plain(&self, set: Plain) -> Sets {
        let record = self.lens.record;
        let kind = |wanted: Kind| {
            Sets::certain(self.lens.cells(move |file, _| record.file(file).kind == wanted))
        };
        let owned = |test: &dyn Fn(Owner) -> bool| self.lens.cells(|_, owner| test(owner));
        match set {
            Plain::Everything => Sets::certain(self.lens.cells(|_, _| true)),
            Plain::Own => Sets::with(
                owned(&|o| matches!(o, Owner::Module(_)) && !record.is_third_party(o)),
                &self.anybodys(&|module| !module.third_party),
            ),
            Plain::ThirdParty => Sets::with(
                owned(&|owner| record.is_third_party(owner)),
                &self.anybodys(&|module| module.third_party),
            ),
            Plain::Glue => {
                Sets::with(owned(&|owner| owner == Owner::Glue), &self.anybodys(&|_| true))
            }
            Plain::Assets => Sets::certain(owned(&|owner| owner == Owner::Asset)),
            Plain::Unattributed => Sets::certain(owned(&|owner| owner == Owner::Unattributed)),
            Plain::Scripts => kind(Kind::Script),
            Plain::Styles => kind(Kind::Style),
            Plain::Repeats => Sets::with(waste::repeats(self.lens), &self.anybodys(&|_| true)),
            Plain::Leftovers => {
                self.marked(self.lens.marks.leftovers.as_ref(), Unmarked::Leftovers)
            }
            Plain::NeverRan => self.marked(self.lens.marks.never_ran.as_ref(), Unmarked::NeverRan),
        }
    }

    /// Marked cells; where nothing is known of the mark, any code may carry it.
    fn marked(&self, marked: Option<&Marked>, mark: Unmarked) -> Sets {
        match marked {
            Some(marked) => Sets::with(marked.cells.clone(), &marked.maybe),
            None => {
                self.found.borrow_mut().unmarked.insert(mark);
                let code = self.lens.cells(|file, _| {
                    matches!(self.lens.record.file(file).kind, Kind::Script | Kind::Style)
                });
                Sets::with(CellSet::default(), &code)
            }
        }
    }

    /// What nobody owns and a set of owners may hold. A style without a map holds only what some
    /// style was made of, where the edges tell.
    pub(super) fn anybodys(&self, of_style: &dyn Fn(&Module) -> bool) -> CellSet {
        let record = self.lens.record;
        let in_styles = match self.lens.style_modules() {
            None => true,
            Some(modules) => modules.iter().any(|&id| of_style(record.module(id))),
        };
        self.lens.unattributed(in_styles).clone()
    }

    /// All chunks, and files that are no chunk's, that hold any byte of a set.
    fn holding(&self, inner: &CellSet) -> CellSet {
        let record = self.lens.record;
        let mut files = BTreeSet::new();
        for id in inner.iter() {
            let cell = &record.cells[id.at()];
            if cell.amount.emitted == 0 {
                continue;
            }
            match self.lens.chunk_of(cell.file) {
                Some(chunk) => files.extend(chunk.files()),
                None => {
                    files.insert(cell.file);
                }
            }
        }
        self.lens.files(files)
    }
}

fn fold(sets: Vec<Sets>, join: impl Fn(Sets, Sets) -> Sets) -> Sets {
    sets.into_iter().reduce(join).unwrap_or_default()
}

fn union(items: &[Item]) -> Sets {
    let all =
        |pick: fn(&Item) -> &CellSet| items.iter().flat_map(|item| pick(item).iter()).collect();
    Sets {
        cells: all(|item| &item.cells),
        least: all(|item| &item.least),
        most: all(|item| &item.most),
    }
}
