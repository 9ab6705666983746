//! From tree to sets of cells of one record, by three-valued logic: a cell is in a set, out of it,
//! or may be in it.
//!
//! What nobody owns may be anybody's: it may be in every set of owners. Two sets carry that: `least`
//! holds what is in, `most` adds what may be (Kleene's strong logic: `a except b` is at least what
//! is in `a` and cannot be in `b`).

use std::{
    cell::RefCell,
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{
    CellId, Chunk, FileId, Kind, Module, ModuleId, Owner,
    glob::{Glob, is_pattern},
};

use super::{Named, Plain, Selector, SelectorError, Tree};
use crate::{
    lens::{CellSet, Lens},
    nearest::nearest,
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
    /// What should be known of how names were understood.
    pub remarks: Vec<String>,
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
    let evaluation = Evaluation { lens, text: &selector.text, found: RefCell::default() };
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
    let evaluation = Evaluation { lens, text: &selector.text, found: RefCell::default() };
    let items = evaluation.items(&selector.tree)?;
    Ok((items, evaluation.found.into_inner()))
}

impl Missing {
    /// In words: what is missing, and what is close.
    #[must_use]
    pub fn said(&self) -> String {
        let Self { set, name, near, several, .. } = self;
        if !several.is_empty() {
            return format!("`{name}` is the name of several chunks: {}", several.join(", "));
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
struct Sets {
    cells: CellSet,
    least: CellSet,
    most: CellSet,
}

impl Sets {
    fn certain(cells: CellSet) -> Self {
        Self { cells: cells.clone(), least: cells.clone(), most: cells }
    }

    fn with(cells: CellSet, maybe: &CellSet) -> Self {
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

    fn item(self, name: &str) -> Item {
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

struct Evaluation<'l, 'r, 't> {
    lens: &'l Lens<'r>,
    text: &'t str,
    /// What is found out besides the cells.
    found: RefCell<Selection>,
}

impl<'r> Evaluation<'_, 'r, '_> {
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
        }
    }

    /// What nobody owns and a set of owners may hold. A style without a map holds only what some
    /// style was made of, where the edges tell.
    fn anybodys(&self, of_style: &dyn Fn(&Module) -> bool) -> CellSet {
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

    fn named(
        &self,
        set: Named,
        argument: &str,
        at: &Range<usize>,
    ) -> Result<Vec<Item>, SelectorError> {
        let paths = matches!(set, Named::Module | Named::File);
        let glob = |text: &str| {
            Glob::new(text, paths)
                .map_err(|error| SelectorError::new(self.text, at.start, error.to_string()))
        };
        let pattern = glob(argument)?;
        let name = Name { text: argument, pattern: &pattern };
        let items = match set {
            Named::Startup | Named::AtOnce | Named::Deferred | Named::Entry => {
                self.entries(set, &name)
            }
            Named::Chunk => return Ok(self.chunks(&name, at)),
            Named::File => {
                let files = self.lens.record.files.iter().map(|file| file.path.as_str());
                let matching = name.matching(files);
                let files = self.lens.record.files.iter().enumerate();
                let files = files.filter(|(_, file)| matching.contains(file.path.as_str()));
                files.map(|(at, file)| self.of_files(&file.path, [FileId::new(at)])).collect()
            }
            Named::Kind => self.kinds(&name),
            Named::Package => self.packages(&name, &glob)?,
            Named::Module => self.modules(&name),
            Named::Folder => self.folder(argument),
        };
        if items.is_empty() {
            self.miss(set, argument, at, Vec::new());
            if !set.is_of_files() {
                return Ok(vec![self.nothing(argument)]);
            }
        }
        Ok(items)
    }

    /// What a package, module or folder is that the build does not have: perhaps what nobody owns.
    fn nothing(&self, name: &str) -> Item {
        Sets::with(CellSet::default(), &self.anybodys(&|_| false)).item(name)
    }

    fn of_files(&self, name: &str, files: impl IntoIterator<Item = FileId>) -> Item {
        Sets::certain(self.lens.files(files)).item(name)
    }

    fn entries(&self, set: Named, name: &Name<'_>) -> Vec<Item> {
        let record = self.lens.record;
        let names =
            record.entries.iter().flat_map(|entry| entry.aliases.iter().chain([&entry.name]));
        let matching = name.matching(names.map(String::as_str));
        let mut items = Vec::new();
        for (at, (entry, reach)) in record.entries.iter().zip(&self.lens.reach).enumerate() {
            let mut names = entry.aliases.iter().chain([&entry.name]);
            if !names.any(|name| matching.contains(name.as_str())) {
                continue;
            }
            let (startup, later) = match set {
                Named::Startup => (&reach.startup[..], &[][..]),
                Named::AtOnce => (&reach.startup[..], &reach.at_once[..]),
                Named::Deferred => (&[][..], &reach.deferred[..]),
                _ => (&reach.startup[..], &reach.deferred[..]),
            };
            let mut item = self.of_files(&entry.name, startup.iter().chain(later).copied());
            if set == Named::Startup {
                self.found.borrow_mut().startup_of.insert(at);
            } else if self.lens.leads_nowhere(reach) {
                // What such a load asks for may be what no entry is known to load.
                let maybe = self.lens.files(self.lens.unplaced_code());
                item.most = std::mem::take(&mut item.most).or(&maybe);
            }
            items.push(item);
        }
        items
    }

    /// Chunks by their lasting names, or by another name that means one of them.
    fn chunks(&self, name: &Name<'_>, at: &Range<usize>) -> Vec<Item> {
        let record = self.lens.record;
        let items = |chunks: Vec<&Chunk>| -> Vec<Item> {
            chunks.into_iter().map(|chunk| self.of_files(&chunk.name, chunk.files())).collect()
        };
        let lasting = name.matching(record.chunks.iter().map(|chunk| chunk.name.as_str()));
        if !lasting.is_empty() {
            let chunks = record.chunks.iter().filter(|c| lasting.contains(c.name.as_str()));
            return items(chunks.collect());
        }
        type Other = fn(&Chunk, &str) -> bool;
        let others: [(&str, Other); 3] = [
            ("the bundler's name", |chunk, name| chunk.bundler_name.as_deref() == Some(name)),
            ("the file's name", |chunk, name| chunk.stem == name),
            ("the bundler's number", |chunk, name| chunk.ids.iter().any(|id| id == name)),
        ];
        for (what, is_called) in others {
            let chunks: Vec<&Chunk> =
                record.chunks.iter().filter(|chunk| is_called(chunk, name.text)).collect();
            match chunks.as_slice() {
                [] => {}
                [one] => {
                    let remark = format!(
                        "chunk({}) is {what}; the name that lasts is chunk({})",
                        name.text, one.name
                    );
                    self.found.borrow_mut().remarks.push(remark);
                    return items(chunks);
                }
                several => {
                    let names = several.iter().map(|chunk| chunk.name.clone()).collect();
                    self.miss(Named::Chunk, name.text, at, names);
                    return Vec::new();
                }
            }
        }
        self.miss(Named::Chunk, name.text, at, Vec::new());
        Vec::new()
    }

    fn kinds(&self, name: &Name<'_>) -> Vec<Item> {
        let matching = name.matching(Kind::ALL.iter().map(|kind| kind.name()));
        let kinds = Kind::ALL.into_iter().filter(|kind| matching.contains(kind.name()));
        kinds
            .map(|kind| {
                let cells = self.lens.cells(|file, _| self.lens.record.file(file).kind == kind);
                Sets::certain(cells).item(kind.name())
            })
            .collect()
    }

    /// Packages by name, all places together. What follows the last `@`, unless that is the first
    /// character, selects versions: whole, or as a dotted prefix.
    fn packages(
        &self,
        name: &Name<'_>,
        glob: &dyn Fn(&str) -> Result<Glob, SelectorError>,
    ) -> Result<Vec<Item>, SelectorError> {
        let record = self.lens.record;
        let names = || record.packages.iter().map(|package| package.name.as_str());
        let whole = name.matching(names());
        let split = name.text.rsplit_once('@').filter(|(before, _)| !before.is_empty());
        let (matching, version) = match split {
            Some((before, version)) if whole.is_empty() => {
                let pattern = glob(before)?;
                (Name { text: before, pattern: &pattern }.matching(names()), Some(version))
            }
            _ => (whole, None),
        };
        let mut found: BTreeMap<&str, [Vec<CellId>; 2]> =
            matching.into_iter().map(|name| (name, Default::default())).collect();
        for (at, cell) in record.cells.iter().enumerate() {
            let Owner::Module(id) = cell.owner else { continue };
            let Some(package) = record.package_of(id) else { continue };
            let Some([certain, possible]) = found.get_mut(package.name.as_str()) else { continue };
            match (version, &package.version) {
                (None, _) => certain.push(CellId::new(at)),
                (Some(_), None) => possible.push(CellId::new(at)),
                (Some(wanted), Some(is)) if is_version(is, wanted) => certain.push(CellId::new(at)),
                _ => {}
            }
        }
        let in_styles: Option<BTreeSet<&str>> = self.lens.style_modules().map(|modules| {
            modules.iter().filter_map(|&id| Some(record.package_of(id)?.name.as_str())).collect()
        });
        let item = |(package, [certain, possible]): (&str, [Vec<CellId>; 2])| {
            let in_styles = in_styles.as_ref().is_none_or(|names| names.contains(package));
            let possible: CellSet = possible.into_iter().collect();
            let maybe = possible.or(self.lens.unattributed(in_styles));
            let name = version.map_or_else(|| package.to_owned(), |v| format!("{package}@{v}"));
            Sets::with(certain.into_iter().collect(), &maybe).item(&name)
        };
        Ok(found.into_iter().map(item).collect())
    }

    /// Modules by path, and assets by their source, or by their own path where that is unknown.
    fn modules(&self, name: &Name<'_>) -> Vec<Item> {
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
        let names = name.matching(modules.chain(assets.map(|file| file.path.as_str())));
        let mut cells: BTreeMap<&str, Vec<CellId>> =
            names.into_iter().map(|name| (name, Vec::new())).collect();
        for (at, cell) in record.cells.iter().enumerate() {
            let named = path_of(cell.file, cell.owner).and_then(|name| cells.get_mut(name));
            if let Some(named) = named {
                named.push(CellId::new(at));
            }
        }
        let one = |(name, cells): (&str, Vec<CellId>)| {
            let maybe = self.anybodys(&|module| module.path == name);
            Sets::with(cells.into_iter().collect(), &maybe).item(name)
        };
        cells.into_iter().map(one).collect()
    }

    fn folder(&self, argument: &str) -> Vec<Item> {
        let record = self.lens.record;
        let folder = argument.trim_end_matches('/');
        let is_inside =
            |path: &str| path.strip_prefix(folder).is_some_and(|rest| rest.starts_with('/'));
        // The paths of several installs read the same; their places do not.
        let mut seen = BTreeSet::new();
        let several: BTreeSet<&str> = record
            .packages
            .iter()
            .map(|package| package.name.as_str())
            .filter(|name| !seen.insert(*name))
            .collect();
        let inside: Vec<bool> = (0..record.modules.len())
            .map(ModuleId::new)
            .map(|id| {
                let package = record.package_of(id).map(|package| package.name.as_str());
                let is_one = package.is_none_or(|name| !several.contains(name));
                is_inside(&record.location_of(id)) || (is_one && is_inside(&record.module(id).path))
            })
            .collect();
        if !inside.contains(&true) {
            return Vec::new();
        }
        let holds = |id: ModuleId| inside[id.at()];
        let cells = self.lens.cells(|file, owner| match owner {
            Owner::Module(id) => holds(id),
            Owner::Asset => {
                let source = record.file(file).source;
                source.is_some_and(holds)
            }
            _ => false,
        });
        let maybe = self.anybodys(&|module| is_inside(&module.path));
        vec![Sets::with(cells, &maybe).item(argument)]
    }

    fn miss(&self, set: Named, argument: &str, at: &Range<usize>, several: Vec<String>) {
        let record = self.lens.record;
        let texts = |names: &mut dyn Iterator<Item = &'r str>| -> Vec<String> {
            nearest(argument, names).into_iter().map(str::to_owned).collect()
        };
        let near = match set {
            Named::Package => {
                let bare = argument.rsplit_once('@').map_or(argument, |(name, _)| name);
                let name = if bare.is_empty() { argument } else { bare };
                nearest(name, record.packages.iter().map(|package| package.name.as_str()))
                    .into_iter()
                    .map(str::to_owned)
                    .collect()
            }
            Named::Module => texts(&mut record.modules.iter().map(|module| module.path.as_str())),
            Named::Folder => {
                let folders = record
                    .modules
                    .iter()
                    .filter_map(|module| module.path.rsplit_once('/').map(|(folder, _)| folder));
                texts(&mut folders.collect::<BTreeSet<_>>().into_iter())
            }
            Named::Startup | Named::AtOnce | Named::Deferred | Named::Entry => texts(
                &mut record
                    .entries
                    .iter()
                    .flat_map(|entry| entry.aliases.iter().chain([&entry.name]))
                    .map(String::as_str),
            ),
            Named::Chunk => texts(&mut record.chunks.iter().map(|chunk| chunk.name.as_str())),
            Named::File => texts(&mut record.files.iter().map(|file| file.path.as_str())),
            Named::Kind => texts(&mut Kind::ALL.iter().map(|kind| kind.name())),
        };
        let is_pattern = is_pattern(argument);
        let name = argument.to_owned();
        let missing = Missing { set, name, is_pattern, near, several, at: at.start };
        self.found.borrow_mut().missing.push(missing);
    }
}

/// A name or glob as it was written.
struct Name<'t> {
    text: &'t str,
    pattern: &'t Glob,
}

impl Name<'_> {
    /// The names that are meant, in order: one that is written the same means that one alone.
    fn matching<'n>(&self, names: impl Iterator<Item = &'n str>) -> BTreeSet<&'n str> {
        let mut found: BTreeSet<&'n str> =
            names.filter(|name| *name == self.text || self.pattern.is_match(name)).collect();
        if found.contains(self.text) {
            found.retain(|name| *name == self.text);
        }
        found
    }
}

/// `1.10.4` is a version 1.10 and a version 1.10.4, and no version 1.1.
fn is_version(version: &str, wanted: &str) -> bool {
    version
        .strip_prefix(wanted)
        .is_some_and(|rest| rest.is_empty() || rest.starts_with('.') || rest.starts_with('-'))
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
