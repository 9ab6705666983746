//! From tree to sets of cells of one record, by three-valued logic: a cell is in a set, out of it,
//! or may be in it.
//!
//! What nobody owns may be anybody's: it may be in every set of owners. Two sets carry that: `least`
//! holds what is in, `most` adds what may be (Kleene's strong logic: `a except b` is at least what
//! is in `a` and cannot be in `b`).

use std::{cell::RefCell, collections::BTreeSet};

use uvlet_record::{Kind, Module, Owner};

use crate::{
    lens::Lens,
    parts::{cells::CellSet, marks::Marked, sets::Sets},
    select::{
        overlap,
        selection::{Item, Selection, Unmarked},
        selector::{Selector, SelectorError, Tree},
        words::Plain,
    },
};

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

pub(crate) struct Evaluation<'l, 'r> {
    pub(crate) lens: &'l Lens<'r>,
    /// What is found out besides the cells.
    pub(crate) found: RefCell<Selection>,
}

impl<'r> Evaluation<'_, 'r> {
    fn tree(&self, tree: &Tree) -> Result<Sets, SelectorError> {
        let parts = |parts: &[Tree]| -> Result<Vec<Sets>, SelectorError> {
            parts.iter().map(|part| self.tree(part)).collect()
        };
        Ok(match tree {
            Tree::Plain(set) => self.plain(*set),
            Tree::Named { set, argument, at } => {
                Sets::any(self.named(*set, argument, at)?.iter().map(|item| &item.sets))
            }
            Tree::Holding(inner) => {
                let inner = self.tree(inner)?;
                Sets {
                    cells: self.holding(&inner.cells),
                    least: self.holding(&inner.least),
                    most: self.holding(&inner.most),
                }
            }
            Tree::And(list) => fold(parts(list)?, |a, b| a.and(&b)),
            Tree::Or(list) => Sets::any(parts(list)?.iter()),
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
                let sets = std::mem::take(&mut item.sets);
                item.sets = if keep { sets.and(&filter) } else { sets.except(&filter) };
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
            Plain::Repeats => Sets::with(overlap::repeats(self.lens), &self.anybodys(&|_| true)),
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
    pub(crate) fn anybodys(&self, of_style: &dyn Fn(&Module) -> bool) -> CellSet {
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
