//! From tree to a set of cells of one record.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{CellId, FileId, Kind, ModuleId, Owner, Record, glob::Glob};

use super::{Named, Plain, Selector, SelectorError, Tree};
use crate::{
    lens::{CellSet, Lens},
    nearest::remedy,
};

/// What a selector names in a record.
#[derive(Clone, Debug)]
pub struct Selection {
    /// The cells.
    pub cells: CellSet,
    /// Packages, modules and folders that the selector names and the build does not have.
    pub unmatched: Vec<String>,
}

/// One match of a selector's first set.
#[derive(Clone, Debug)]
pub struct Item {
    /// Its name.
    pub name: String,
    /// Its cells.
    pub cells: CellSet,
}

/// Evaluates a selector.
///
/// # Errors
/// When an entry, chunk or file that it names does not exist.
pub fn select(selector: &Selector, lens: &Lens<'_>) -> Result<Selection, SelectorError> {
    let mut evaluation = Evaluation { lens, text: &selector.text, unmatched: Vec::new() };
    let cells = evaluation.tree(&selector.tree)?;
    Ok(Selection { cells, unmatched: evaluation.unmatched })
}

/// The items of a selector that begins with a set of names: each match of that set on its own,
/// filtered by the `and` and `except` that follow.
///
/// # Errors
/// When the selector begins otherwise, holds an `or` at its top, or names what does not exist.
pub fn items(selector: &Selector, lens: &Lens<'_>) -> Result<Vec<Item>, SelectorError> {
    let mut evaluation = Evaluation { lens, text: &selector.text, unmatched: Vec::new() };
    evaluation.items(&selector.tree)
}

struct Evaluation<'l, 'r, 't> {
    lens: &'l Lens<'r>,
    text: &'t str,
    unmatched: Vec<String>,
}

impl Evaluation<'_, '_, '_> {
    fn tree(&mut self, tree: &Tree) -> Result<CellSet, SelectorError> {
        Ok(match tree {
            Tree::Plain(set) => self.plain(*set),
            Tree::Named { set, argument, at } => union(&self.named(*set, argument, at)?),
            Tree::Holding(inner) => {
                let inner = self.tree(inner)?;
                self.holding(&inner)
            }
            Tree::And(a, b) => self.tree(a)?.and(&self.tree(b)?),
            Tree::Or(a, b) => self.tree(a)?.or(&self.tree(b)?),
            Tree::Except(a, b) => self.tree(a)?.except(&self.tree(b)?),
        })
    }

    fn items(&mut self, tree: &Tree) -> Result<Vec<Item>, SelectorError> {
        let error = |message: &str| SelectorError::new(self.text, 0, message.to_owned());
        let (mut items, filter, keep) = match tree {
            Tree::Named { set, argument, at } => return self.named(*set, argument, at),
            Tree::And(a, b) => (self.items(a)?, self.tree(b)?, true),
            Tree::Except(a, b) => (self.items(a)?, self.tree(b)?, false),
            Tree::Or(..) => {
                return Err(error(
                    "`each` takes one set of names, filtered by `and` or `except`, not `or`",
                ));
            }
            Tree::Plain(_) | Tree::Holding(_) => {
                return Err(error(
                    "`each` begins with a set of names, such as chunk(*) or startup(*)",
                ));
            }
        };
        for item in &mut items {
            let cells = item.cells.clone();
            item.cells = if keep { cells.and(&filter) } else { cells.except(&filter) };
        }
        Ok(items)
    }

    fn plain(&self, set: Plain) -> CellSet {
        let record = self.lens.record;
        let kind = |wanted: Kind| self.lens.cells(move |file, _| record.file(file).kind == wanted);
        let owned = |test: &dyn Fn(Owner) -> bool| self.lens.cells(|_, owner| test(owner));
        match set {
            Plain::Everything => self.lens.cells(|_, _| true),
            Plain::Own => {
                owned(&|owner| matches!(owner, Owner::Module(_)) && !record.is_third_party(owner))
            }
            Plain::ThirdParty => owned(&|owner| record.is_third_party(owner)),
            Plain::Glue => owned(&|owner| owner == Owner::Glue),
            Plain::Assets => owned(&|owner| owner == Owner::Asset),
            Plain::Unattributed => owned(&|owner| owner == Owner::Unattributed),
            Plain::Scripts => kind(Kind::Script),
            Plain::Styles => kind(Kind::Style),
        }
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

    fn named(
        &mut self,
        set: Named,
        argument: &str,
        at: &Range<usize>,
    ) -> Result<Vec<Item>, SelectorError> {
        let record = self.lens.record;
        let paths = matches!(set, Named::Module | Named::File);
        let glob = Glob::new(argument, paths)
            .map_err(|error| SelectorError::new(self.text, at.start, error.to_string()))?;
        let matches = |name: &str| name == argument || glob.is_match(name);
        let items = match set {
            Named::Startup | Named::Deferred | Named::Entry => self.entries(set, &matches),
            Named::Chunk => {
                let chunks = record.chunks.iter().filter(|chunk| matches(&chunk.name));
                chunks.map(|chunk| self.of_files(&chunk.name, chunk.files())).collect()
            }
            Named::File => {
                let files = files_where(record, |path, _| matches(path));
                files.map(|id| self.of_files(&record.file(id).path, [id])).collect()
            }
            Named::Kind => self.kinds(&matches),
            Named::Package => self.packages(&matches),
            Named::Module => self.modules(&matches),
            Named::Folder => {
                let folder = format!("{}/", argument.trim_end_matches('/'));
                let inside = self.modules(&|path: &str| path.starts_with(&folder));
                let whole = Item { name: argument.to_owned(), cells: union(&inside) };
                (!inside.is_empty()).then_some(whole).into_iter().collect()
            }
        };
        if items.is_empty() {
            self.missing(set, argument, at)?;
        }
        Ok(items)
    }

    fn of_files(&self, name: &str, files: impl IntoIterator<Item = FileId>) -> Item {
        Item { name: name.to_owned(), cells: self.lens.files(files) }
    }

    fn entries(&self, set: Named, matches: &dyn Fn(&str) -> bool) -> Vec<Item> {
        let entries = self.lens.record.entries.iter().zip(&self.lens.reach);
        let named = entries.filter(|(entry, _)| {
            matches(&entry.name) || entry.aliases.iter().any(|alias| matches(alias))
        });
        named
            .map(|(entry, reach)| {
                let (startup, deferred) = match set {
                    Named::Startup => (&reach.startup[..], &[][..]),
                    Named::Deferred => (&[][..], &reach.deferred[..]),
                    _ => (&reach.startup[..], &reach.deferred[..]),
                };
                self.of_files(&entry.name, startup.iter().chain(deferred).copied())
            })
            .collect()
    }

    fn kinds(&self, matches: &dyn Fn(&str) -> bool) -> Vec<Item> {
        let kinds = Kind::ALL.into_iter().filter(|kind| matches(kind.name()));
        kinds
            .map(|wanted| {
                let files = files_where(self.lens.record, |_, kind| kind == wanted);
                self.of_files(wanted.name(), files)
            })
            .collect()
    }

    fn packages(&self, matches: &dyn Fn(&str) -> bool) -> Vec<Item> {
        let record = self.lens.record;
        let named = |id: ModuleId| record.package_of(id).map(|package| package.name.as_str());
        let names: BTreeSet<&str> =
            record.packages.iter().map(|p| p.name.as_str()).filter(|name| matches(name)).collect();
        self.grouped(names, |_, owner| match owner {
            Owner::Module(id) => named(id),
            _ => None,
        })
    }

    /// Modules by path, and assets by their source, or by their own path where that is unknown.
    fn modules(&self, matches: &dyn Fn(&str) -> bool) -> Vec<Item> {
        let record = self.lens.record;
        let path = |id: ModuleId| record.module(id).path.as_str();
        let path_of = |file: FileId, owner: Owner| match owner {
            Owner::Module(id) => Some(path(id)),
            Owner::Asset => {
                let file = record.file(file);
                Some(file.source.map_or(file.path.as_str(), path))
            }
            _ => None,
        };
        let assets =
            record.files.iter().filter(|file| file.kind.is_asset() && file.source.is_none());
        let modules = record.modules.iter().map(|module| module.path.as_str());
        let names =
            modules.chain(assets.map(|file| file.path.as_str())).filter(|path| matches(path));
        self.grouped(names.collect(), path_of)
    }

    /// One item per name, of the cells that go by it.
    fn grouped<'n>(
        &self,
        names: BTreeSet<&'n str>,
        name_of: impl Fn(FileId, Owner) -> Option<&'n str>,
    ) -> Vec<Item> {
        let mut cells: BTreeMap<&str, Vec<CellId>> =
            names.into_iter().map(|name| (name, Vec::new())).collect();
        for (at, cell) in self.lens.record.cells.iter().enumerate() {
            let named = name_of(cell.file, cell.owner).and_then(|name| cells.get_mut(name));
            if let Some(named) = named {
                named.push(CellId::new(at));
            }
        }
        let item = |(name, cells): (&str, Vec<CellId>)| Item {
            name: name.to_owned(),
            cells: cells.into_iter().collect(),
        };
        cells.into_iter().map(item).collect()
    }

    fn missing(
        &mut self,
        set: Named,
        argument: &str,
        at: &Range<usize>,
    ) -> Result<(), SelectorError> {
        let record = self.lens.record;
        let (what, names): (&str, Vec<&str>) = match set {
            Named::Package | Named::Module | Named::Folder => {
                self.unmatched.push(argument.to_owned());
                return Ok(());
            }
            Named::Startup | Named::Deferred | Named::Entry => {
                let entries = record.entries.iter();
                let aliases = entries.clone().flat_map(|entry| &entry.aliases);
                (
                    "entry",
                    entries.map(|entry| &entry.name).chain(aliases).map(String::as_str).collect(),
                )
            }
            Named::Chunk => {
                ("chunk", record.chunks.iter().map(|chunk| chunk.name.as_str()).collect())
            }
            Named::File => ("file", record.files.iter().map(|file| file.path.as_str()).collect()),
            Named::Kind => ("kind", Kind::ALL.iter().map(|kind| kind.name()).collect()),
        };
        let renamed =
            record.chunks.iter().find(|chunk| set == Named::Chunk && chunk.stem == argument);
        let remedy = match renamed {
            Some(chunk) => format!("that file's chunk goes by `{}`", chunk.name),
            None => remedy(argument, names.into_iter()),
        };
        let message = format!("no {what} is called `{argument}`, {remedy}");
        Err(SelectorError::new(self.text, at.start, message))
    }
}

fn union(items: &[Item]) -> CellSet {
    items.iter().flat_map(|item| item.cells.iter()).collect()
}

fn files_where<'r>(
    record: &'r Record,
    test: impl Fn(&str, Kind) -> bool + 'r,
) -> impl Iterator<Item = FileId> + 'r {
    let files = record.files.iter().enumerate();
    files.filter(move |(_, file)| test(&file.path, file.kind)).map(|(at, _)| FileId::new(at))
}
