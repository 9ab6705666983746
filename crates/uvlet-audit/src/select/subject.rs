//! What a question is about: a package, a module, or what a selector names.

use crate::select::words;
use std::collections::BTreeSet;

use uvlet_record::{CellId, ModuleId, Owner, Record};

use crate::{
    lens::Lens,
    parts::cells::CellSet,
    select::{
        byteless, evaluate,
        nearest::nearest,
        selection::Lack,
        selector::{Selector, SelectorError},
    },
};

/// What is asked about.
#[derive(Debug)]
pub struct Subject {
    /// As it is called.
    pub text: String,
    /// What it is.
    pub kind: SubjectKind,
    /// Its modules, in order.
    pub modules: Vec<ModuleId>,
    /// Its bytes.
    pub cells: CellSet,
}

/// What a subject is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SubjectKind {
    /// All installs of a package, or those of a version.
    Package,
    /// A module, in all places that it is installed at.
    Module,
    /// What a selector names.
    Selector,
}

/// Why there is no answer.
#[derive(Debug)]
pub enum SubjectError {
    /// Several modules go by that name.
    Ambiguous {
        /// As written.
        text: String,
        /// Their paths.
        candidates: Vec<String>,
    },
    /// There is none.
    Unknown {
        /// As written.
        text: String,
        /// Names that are close.
        near: Vec<String>,
        /// Percent of the script bytes that may be its, as they have no known owner.
        unattributed_percent: u64,
    },
    /// A name in the selector means nothing in the build.
    Missing {
        /// As written.
        text: String,
        /// What is missing.
        missing: Box<Lack>,
    },
    /// It is none.
    Selector(SelectorError),
}

impl SubjectKind {
    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Package => "package",
            Self::Module => "module",
            Self::Selector => "selector",
        }
    }
}

impl Subject {
    /// Finds out what a text means: a selector if it begins with a set's name and a parenthesis, else a
    /// package, else a module by its path or the end of it.
    ///
    /// # Errors
    /// When it means nothing, or several modules.
    pub fn find(text: &str, lens: &Lens<'_>) -> Result<Self, SubjectError> {
        let text = text.trim();
        if begins_with_set(text) && package(text, lens.record).is_empty() {
            let selector: Selector = text.parse()?;
            let selection = evaluate::select(&selector, lens)?;
            if let Some(missing) = selection.lack() {
                let (text, missing) = (text.to_owned(), Box::new(missing));
                return Err(SubjectError::Missing { text, missing });
            }
            let modules = modules_of(&selector, &selection.cells, lens);
            let (text, kind, cells) = (text.to_owned(), SubjectKind::Selector, selection.cells);
            return Ok(Self { text, kind, modules, cells });
        }
        let record = lens.record;
        let of_package = package(text, record);
        if !of_package.is_empty() {
            return Ok(Self::of(text, SubjectKind::Package, of_package, lens));
        }
        let found = modules(text, record);
        let paths: BTreeSet<&str> =
            found.iter().map(|&id| record.module(id).path.as_str()).collect();
        match paths.len() {
            0 => Err(unknown(text, record)),
            1 => Ok(Self::of(paths.first().unwrap_or(&text), SubjectKind::Module, found, lens)),
            _ => Err(SubjectError::Ambiguous {
                text: text.to_owned(),
                candidates: paths.into_iter().map(str::to_owned).collect(),
            }),
        }
    }

    /// All of some modules, in order.
    #[must_use]
    pub fn of(text: &str, kind: SubjectKind, modules: Vec<ModuleId>, lens: &Lens<'_>) -> Self {
        let has = |id: ModuleId| modules.binary_search(&id).is_ok();
        let cells = lens.cells(|_, owner| module(owner).is_some_and(has));
        Self { text: text.to_owned(), kind, modules, cells }
    }

    /// Whether a module is of it.
    #[must_use]
    pub fn has(&self, id: ModuleId) -> bool {
        self.modules.binary_search(&id).is_ok()
    }
}

/// The modules of a selection, with those that left no byte and are meant. Where marks cut modules, those that it holds whole: of the others some
/// part has to stay.
fn modules_of(selector: &Selector, cells: &CellSet, lens: &Lens<'_>) -> Vec<ModuleId> {
    let record = lens.record;
    let has_bytes = {
        let mut has_bytes = vec![false; record.modules.len()];
        let owners = record.cells.iter().filter_map(|cell| module(cell.owner));
        owners.for_each(|id| has_bytes[id.at()] = true);
        has_bytes
    };
    let owners = cells.iter().map(|id| record.cells[id.at()].owner);
    let mut modules: BTreeSet<ModuleId> = owners.filter_map(module).collect();
    if lens.marks.leftovers.is_some() || lens.marks.never_ran.is_some() {
        let others = (0..record.cells.len()).map(CellId::new).filter(|id| !cells.has(*id));
        for id in others.filter(|id| record.cells[id.at()].amount.emitted > 0) {
            let has_part = |id: CellId| {
                let cell = record.cells[id.at()];
                let mut same = record.file(cell.file).cells.clone();
                same.any(|at| record.cells[at].owner == cell.owner && cells.has(CellId::new(at)))
            };
            if let Some(module) = module(record.cells[id.at()].owner).filter(|_| has_part(id)) {
                modules.remove(&module);
            }
        }
    }
    let meant = byteless::meant(selector, record).into_iter().zip(has_bytes).enumerate();
    modules.extend(meant.filter(|(_, (is, has))| *is && !has).map(|(at, _)| ModuleId::new(at)));
    modules.into_iter().collect()
}

fn module(owner: Owner) -> Option<ModuleId> {
    match owner {
        Owner::Module(id) => Some(id),
        _ => None,
    }
}

fn begins_with_set(text: &str) -> bool {
    let is_set =
        |name: &str| text.strip_prefix(name).is_some_and(|rest| rest.trim_start().starts_with('('));
    let is_plain = |name: &str| {
        text.strip_prefix(name).is_some_and(|rest| rest.is_empty() || rest.starts_with(' '))
    };
    text.starts_with('(')
        || words::all().any(|word| match word.argument {
            Some(_) => is_set(word.text),
            None => is_plain(word.text),
        })
}

/// The modules of a package, or of a version of it (`name@1.10`).
fn package(text: &str, record: &Record) -> Vec<ModuleId> {
    let (name, version) = match text.rsplit_once('@') {
        Some((name, version)) if !name.is_empty() => (name, Some(version)),
        _ => (text, None),
    };
    let is_it = |id: &ModuleId| {
        record.package_of(*id).is_some_and(|package| {
            let fits = |version| {
                package.version.as_deref().is_some_and(|v| byteless::is_version(v, version))
            };
            package.name == text || (package.name == name && version.is_some_and(fits))
        })
    };
    (0..record.modules.len()).map(ModuleId::new).filter(is_it).collect()
}

/// The modules that a path, or the end of one, means: one that is written the same, else those that end
/// in it, else those that do but for the ending.
fn modules(text: &str, record: &Record) -> Vec<ModuleId> {
    let text = text.trim_start_matches("./");
    let stem = |path: &str| {
        let name = path.rfind('/').map_or(0, |at| at + 1);
        path[name..].rfind('.').map_or(path.len(), |at| name + at)
    };
    let ends = |path: &str| {
        path.strip_suffix(text).is_some_and(|before| before.is_empty() || before.ends_with('/'))
    };
    let tests: [&dyn Fn(&str) -> bool; 3] =
        [&|path| path == text, &|path| ends(path), &|path| ends(&path[..stem(path)])];
    let ids = || (0..record.modules.len()).map(ModuleId::new);
    for test in tests {
        let found: Vec<ModuleId> = ids().filter(|&id| test(&record.module(id).path)).collect();
        if !found.is_empty() {
            return found;
        }
    }
    Vec::new()
}

fn unknown(text: &str, record: &Record) -> SubjectError {
    let packages = record.packages.iter().map(|package| package.name.as_str());
    let mut near = nearest(text, packages);
    if near.is_empty() {
        near = nearest(text, record.modules.iter().map(|module| module.path.as_str()));
    }
    let near = near.into_iter().map(str::to_owned).collect();
    let unattributed_percent = record.unattributed_percent();
    SubjectError::Unknown { text: text.to_owned(), near, unattributed_percent }
}

impl From<SelectorError> for SubjectError {
    fn from(error: SelectorError) -> Self {
        Self::Selector(error)
    }
}
