//! Who owns what: modules and packages by the names of sources, cells and runs by the spans.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    path::Path,
};

use globset::GlobSet;
use uvlet_ledger::{shares::apportion, walk::Span};
use uvlet_record::{
    Basis, Cell, CellId, File, FileId, Form, Kind, Module, ModuleId, Owner, Package, PackageId,
    Run,
    path::{self, Installed, Location, Named},
    sizes::{Amount, Coded, Coding},
};

use crate::{
    examine::Examined,
    folder::{Listed, Listing},
    packages,
    sourcemaps::{Owned, Source},
};

/// Modules and packages of a build, and who each source of each file is.
pub struct Names {
    /// By path, then by package.
    pub modules: Vec<Module>,
    /// By name, then by place.
    pub packages: Vec<Package>,
    /// Per module, if texts are kept.
    pub texts: Vec<Option<String>>,
    /// Per file and source of its map.
    owners: Vec<Vec<Owner>>,
}

/// What tells a module from all others: its path, and the place of its package.
type Key = (String, Option<String>);

/// Names every source of every map.
pub fn names(examined: &[Examined], root: Option<&Path>, own: &GlobSet) -> Names {
    let maps: Vec<Option<&Owned>> = examined.iter().map(|file| file.owned.as_ref()).collect();
    let project = project(&maps, root);
    let mut named: Vec<Vec<Option<Named>>> = maps
        .iter()
        .map(|map| {
            let Some(map) = map else { return Vec::new() };
            let name = |source: &Source| {
                let location =
                    Location { source_root: &source.root, folder: &map.folder, project: &project };
                source.raw.as_deref().map(|raw| path::name(raw, &location))
            };
            map.sources.iter().map(name).collect()
        })
        .collect();
    let workspaces = root.map(|root| place_in_workspaces(&mut named, root)).unwrap_or_default();
    let clashing = clashing(&named);
    let key = |named: &Named| -> Key {
        let place = named.package.as_ref().map(|package| package.place.clone());
        if place.is_none() && clashing.contains(&named.path) {
            return (format!("{}{}", named.above, named.path), place);
        }
        (named.path.clone(), place)
    };
    let mut installed: BTreeMap<(&str, &str), &Installed> = BTreeMap::new();
    for package in named.iter().flatten().flatten().filter_map(|named| named.package.as_ref()) {
        installed.entry((&package.name, &package.place)).or_insert(package);
    }
    let packages: Vec<Package> = installed
        .values()
        .map(|package| Package {
            name: package.name.clone(),
            place: package.place.clone(),
            version: packages::version(package, root),
            own: own.is_match(&package.name) || workspaces.contains(&package.place),
        })
        .collect();
    let package_ids: HashMap<&str, PackageId> =
        packages.iter().enumerate().map(|(at, p)| (p.place.as_str(), PackageId::new(at))).collect();
    let mut found: BTreeMap<Key, (bool, Option<u64>)> = BTreeMap::new();
    for (map, named) in maps.iter().zip(&named) {
        let sources = map.map_or(&[][..], |map| &map.sources);
        for (source, named) in sources.iter().zip(named) {
            if let Some(named) = named.as_ref().filter(|named| is_module(named)) {
                let (ignored, bytes) = found.entry(key(named)).or_default();
                *ignored |= source.ignored;
                *bytes = (*bytes).max(source.bytes);
            }
        }
    }
    let ids: HashMap<&Key, ModuleId> =
        found.keys().enumerate().map(|(at, key)| (key, ModuleId::new(at))).collect();
    let mut texts = vec![None; found.len()];
    for (map, named) in maps.iter().zip(&named) {
        let sources = map.map_or(&[][..], |map| &map.sources);
        for (source, named) in sources.iter().zip(named) {
            let id = named.as_ref().and_then(|named| ids.get(&key(named)));
            if let (Some(id), Some(text)) = (id, &source.text) {
                texts[id.at()] = Some(text.clone());
            }
        }
    }
    let owner = |named: &Option<Named>| match named {
        Some(named) if named.glue => Owner::Glue,
        Some(named) => ids.get(&key(named)).map_or(Owner::Unattributed, |&id| Owner::Module(id)),
        None => Owner::Unattributed,
    };
    let owners = named.iter().map(|sources| sources.iter().map(owner).collect()).collect();
    let modules = found
        .iter()
        .map(|((path, place), &(ignored, source_bytes))| {
            let package = place.as_deref().and_then(|place| package_ids.get(place).copied());
            let third_party = package.map_or(ignored, |id| !packages[id.at()].own);
            Module { path: path.clone(), package, third_party, source_bytes }
        })
        .collect();
    Names { modules, packages, texts, owners }
}

/// Gives own modules the workspace package around them; returns the places of these.
fn place_in_workspaces(named: &mut [Vec<Option<Named>>], root: &Path) -> BTreeSet<String> {
    let mut workspaces = packages::Workspaces::under(root);
    let mut places = BTreeSet::new();
    for named in named.iter_mut().flatten().flatten() {
        if named.package.is_none() && is_module(named) {
            named.package = workspaces.around(&named.path);
            places.extend(named.package.iter().map(|package| package.place.clone()));
        }
    }
    places
}

fn is_module(named: &Named) -> bool {
    !named.glue && !named.path.is_empty()
}

fn project(maps: &[Option<&Owned>], root: Option<&Path>) -> String {
    let sources = maps.iter().flatten().flat_map(|map| &map.sources);
    let absolutes: BTreeSet<String> =
        sources.filter_map(|source| path::absolute(source.raw.as_deref()?)).collect();
    let stated = root.and_then(|root| root.canonicalize().ok());
    let stated = stated.map(|root| root.to_string_lossy().into_owned());
    match stated {
        Some(root) if absolutes.iter().any(|path| path.starts_with(&format!("{root}/"))) => root,
        _ => path::project_of(absolutes.iter().map(String::as_str)).unwrap_or_default(),
    }
}

/// Own paths that two different files would share without their `../`.
fn clashing(named: &[Vec<Option<Named>>]) -> BTreeSet<String> {
    let mut above: BTreeMap<&str, BTreeSet<&str>> = BTreeMap::new();
    for named in named.iter().flatten().flatten() {
        if named.package.is_none() && is_module(named) {
            above.entry(&named.path).or_default().insert(&named.above);
        }
    }
    above
        .into_iter()
        .filter(|(_, above)| above.len() > 1)
        .map(|(path, _)| path.to_owned())
        .collect()
}

/// The files of the record, with their cells and runs.
#[derive(Default)]
pub struct Ledger {
    /// By path.
    pub files: Vec<File>,
    /// In the order of files.
    pub cells: Vec<Cell>,
    /// In the order of files.
    pub runs: Vec<Run>,
}

/// Charges every byte of every file to its owner.
pub fn ledger(listing: &Listing, examined: &[Examined], names: &Names) -> Ledger {
    let mut ledger = Ledger::default();
    for (at, ((listed, kind), examined)) in listing.counted.iter().zip(examined).enumerate() {
        let spans = examined.owned.as_ref().map(|owned| owned.spans.as_slice());
        ledger.charge(FileId::new(at), listed, *kind, examined, spans, &names.owners[at]);
    }
    ledger
}

impl Ledger {
    fn charge(
        &mut self,
        id: FileId,
        listed: &Listed,
        kind: Kind,
        examined: &Examined,
        spans: Option<&[Span]>,
        owners: &[Owner],
    ) {
        let first_cell = self.cells.len();
        let first_run = self.runs.len();
        let whole = [Span { start: 0, source: None }];
        let (spans, nobody) = match (spans, kind.is_asset()) {
            (_, true) => (&whole[..], Owner::Asset),
            (Some(spans), false) => (spans, Owner::Glue),
            (None, false) => (&whole[..], Owner::Unattributed),
        };
        let mut cell_of: HashMap<Owner, usize> = HashMap::new();
        for (at, span) in spans.iter().enumerate() {
            let start = span.start as u64;
            let end = spans.get(at + 1).map_or(listed.bytes, |next| next.start as u64);
            let owner = span
                .source
                .map_or(nobody, |source| owners.get(source as usize).copied().unwrap_or(nobody));
            let cell = *cell_of.entry(owner).or_insert_with(|| {
                self.cells.push(Cell {
                    file: id,
                    owner,
                    amount: Amount::default(),
                    basis: Basis::Mapped,
                });
                self.cells.len() - 1
            });
            let length = end - start;
            self.cells[cell].amount.emitted += length;
            if length > 0 {
                self.extend(first_run, Run { start, length, cell: CellId::new(cell) });
            }
        }
        let weights: Vec<u64> =
            self.cells[first_cell..].iter().map(|cell| cell.amount.emitted).collect();
        // An empty file has a coded size all the same; its one cell bears it.
        let weights =
            if weights.iter().all(|&w| w == 0) { vec![1; weights.len()] } else { weights };
        let bits = apportion(8 * examined.gzip, &weights);
        for (cell, bits) in self.cells[first_cell..].iter_mut().zip(bits) {
            cell.amount.bits.set(Coding::Gzip, bits);
        }
        let mut coded = Coded::default();
        coded.set(Coding::Gzip, examined.gzip);
        let form = match kind {
            Kind::Script => examined.code.as_ref().map_or(Form::Classic, |code| code.form),
            Kind::Style => Form::Style,
            _ => Form::Other,
        };
        self.files.push(File {
            path: listed.path.clone(),
            kind,
            digest: examined.digest.clone(),
            emitted: listed.bytes,
            coded,
            form,
            source: None,
            loads: Vec::new(),
            names: Vec::new(),
            externals: Vec::new(),
            cells: index(first_cell)..index(self.cells.len()),
            runs: index(first_run)..index(self.runs.len()),
        });
    }

    /// Adds a run, joined to the one before it where both are one owner's.
    fn extend(&mut self, first_run: usize, run: Run) {
        match self.runs[first_run..].last_mut() {
            Some(last) if last.cell == run.cell => last.length += run.length,
            _ => self.runs.push(run),
        }
    }

    /// The module that owns a byte of a file.
    pub fn module_at(&self, id: FileId, byte: u64) -> Option<ModuleId> {
        let range = &self.files[id.at()].runs;
        let runs = &self.runs[range.start as usize..range.end as usize];
        let at = runs.partition_point(|run| run.start <= byte).checked_sub(1)?;
        match self.cells[runs[at].cell.at()].owner {
            Owner::Module(module) => Some(module),
            _ => None,
        }
    }
}

fn index(at: usize) -> u32 {
    u32::try_from(at).unwrap_or(u32::MAX)
}
