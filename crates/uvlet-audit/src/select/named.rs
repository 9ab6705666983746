//! What the sets with names mean: entries, chunks, files, kinds, packages, modules and folders that a
//! name or glob matches, each an item of its own.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{
    CellId, Chunk, FileId, FileSet, Kind, ModuleId, OtherName, Owner,
    glob::{Glob, is_pattern},
};

use crate::{
    lens::{Group, Lens},
    parts::{cells::CellSet, sets::Sets},
    select::{
        byteless::{in_folder, is_in_folder, is_version},
        evaluate::Evaluation,
        nearest::nearest,
        overlap,
        selection::{Item, Missing, Renamed},
        selector::SelectorError,
        words::Named,
    },
};

impl<'r> Evaluation<'_, 'r> {
    pub(crate) fn named(
        &self,
        set: Named,
        argument: &str,
        at: &Range<usize>,
    ) -> Result<Vec<Item>, SelectorError> {
        let paths = matches!(set, Named::Module | Named::File);
        let pattern = Glob::new(argument, paths);
        let name = Name { text: argument, pattern: &pattern };
        let items = match set {
            Named::Startup | Named::AtOnce | Named::Deferred | Named::Entry => {
                self.entries(set, &name)
            }
            Named::Repeats | Named::Unreached => self.in_vain(set, &name),
            Named::Group => {
                let groups = &self.lens.groups;
                let matching = name.matching(groups.iter().map(|group| group.name.as_str()));
                let meant = groups.iter().filter(|group| matching.contains(group.name.as_str()));
                let item = |group: &Group| Item::of(&group.name, group.sets.clone());
                meant.map(item).collect()
            }
            Named::Route => self.routes(&name),
            Named::Chunk => return Ok(self.chunks(&name, at)),
            Named::File => {
                let files = self.lens.record.files.iter().map(|file| file.path.as_str());
                let matching = name.matching(files);
                let files = self.lens.record.files.iter().enumerate();
                let files = files.filter(|(_, file)| matching.contains(file.path.as_str()));
                files.map(|(at, file)| self.of_files(&file.path, [FileId::new(at)])).collect()
            }
            Named::Kind => self.kinds(&name),
            Named::Package => self.packages(&name),
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
        Item::of(name, Sets::with(CellSet::default(), &self.anybodys(&|_| false)))
    }

    fn of_files(&self, name: &str, files: impl IntoIterator<Item = FileId>) -> Item {
        Item::of(name, Sets::certain(self.lens.files(files)))
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
            let none = FileSet::default();
            let (startup, later) = match set {
                Named::Startup => (&reach.startup[..], &none),
                Named::AtOnce => (&reach.startup[..], &reach.at_once),
                Named::Deferred => (&[][..], &reach.deferred),
                _ => (&reach.startup[..], &reach.deferred),
            };
            let mut item = self.of_files(&entry.name, startup.iter().copied().chain(later.iter()));
            if set == Named::Startup {
                self.found.borrow_mut().startup_of.insert(at);
            } else if self.lens.leads_nowhere(reach) {
                // What such a load asks for may be what no entry is known to load.
                let maybe = self.lens.files(self.lens.unplaced_code());
                item.sets.most = std::mem::take(&mut item.sets.most).or(&maybe);
            }
            items.push(item);
        }
        items
    }

    /// What entries download twice, or carry along; where the latter is not known, it may be any of
    /// their scripts.
    fn in_vain(&self, set: Named, name: &Name<'_>) -> Vec<Item> {
        let record = self.lens.record;
        let names =
            record.entries.iter().flat_map(|entry| entry.aliases.iter().chain([&entry.name]));
        let matching = name.matching(names.map(String::as_str));
        let unreached =
            if set == Named::Unreached { overlap::unreached(self.lens) } else { BTreeMap::new() };
        let mut items = Vec::new();
        for (at, entry) in record.entries.iter().enumerate() {
            let mut names = entry.aliases.iter().chain([&entry.name]);
            if !names.any(|name| matching.contains(name.as_str())) {
                continue;
            }
            let startup = self.lens.files(self.lens.reach[at].startup.iter().copied());
            let sets = match (set, unreached.get(&at)) {
                (Named::Repeats, _) => {
                    let maybe = self.anybodys(&|_| true).and(&startup);
                    Sets::with(overlap::repeats_of(self.lens, at), &maybe)
                }
                (_, Some(cells)) => {
                    Sets::with(cells.clone(), &self.anybodys(&|_| true).and(&startup))
                }
                (_, None) => Sets::with(CellSet::default(), &startup),
            };
            items.push(Item::of(&entry.name, sets));
        }
        items
    }

    /// What a visit of each route fetches; of two entries that serve the same, each is told apart.
    fn routes(&self, name: &Name<'_>) -> Vec<Item> {
        let Lens { record, visits, reach, .. } = self.lens;
        let matching = name.matching(visits.iter().map(|visit| visit.route.as_str()));
        let meant = visits.iter().filter(|visit| matching.contains(visit.route.as_str()));
        let items = meant.map(|visit| {
            let is_one = visits.iter().filter(|other| other.route == visit.route).count() == 1;
            let item = match is_one {
                true => visit.route.clone(),
                false => format!("{} ({})", visit.route, record.entries[visit.entry].name),
            };
            let reach = &reach[visit.entry];
            let mut item = self.of_files(&item, reach.startup.iter().chain(&visit.adds).copied());
            if visit.is_entry {
                self.found.borrow_mut().startup_of.insert(visit.entry);
            } else if self.lens.leads_nowhere(reach) {
                let maybe = self.lens.files(self.lens.unplaced_code());
                item.sets.most = std::mem::take(&mut item.sets.most).or(&maybe);
            }
            item
        });
        items.collect()
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
        let others: [(OtherName, Other); 3] = [
            (OtherName::Given, |chunk, name| chunk.bundler_name.as_deref() == Some(name)),
            (OtherName::Stem, |chunk, name| chunk.stem == name),
            (OtherName::Id, |chunk, name| chunk.ids.iter().any(|id| id == name)),
        ];
        for (by, is_called) in others {
            let chunks: Vec<&Chunk> =
                record.chunks.iter().filter(|chunk| is_called(chunk, name.text)).collect();
            match chunks.as_slice() {
                [] => {}
                [one] => {
                    let (by, name, lasting) = (by, name.text.to_owned(), one.name.clone());
                    self.found.borrow_mut().renamed.push(Renamed { by, name, lasting });
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
                Item::of(kind.name(), Sets::certain(cells))
            })
            .collect()
    }

    /// Packages by name, all places together. What follows the last `@`, unless that is the first
    /// character, selects versions: whole, or as a dotted prefix.
    fn packages(&self, name: &Name<'_>) -> Vec<Item> {
        let record = self.lens.record;
        let names = || record.packages.iter().map(|package| package.name.as_str());
        let whole = name.matching(names());
        let split = name.text.rsplit_once('@').filter(|(before, _)| !before.is_empty());
        let (matching, version) = match split {
            Some((before, version)) if whole.is_empty() => {
                let pattern = Glob::new(before, false);
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
            Item::of(&name, Sets::with(certain.into_iter().collect(), &maybe))
        };
        found.into_iter().map(item).collect()
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
            Item::of(name, Sets::with(cells.into_iter().collect(), &maybe))
        };
        cells.into_iter().map(one).collect()
    }

    fn folder(&self, argument: &str) -> Vec<Item> {
        let record = self.lens.record;
        let inside = in_folder(record, argument);
        let is_inside = |path: &str| is_in_folder(path, argument);
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
        vec![Item::of(argument, Sets::with(cells, &maybe))]
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
            Named::Startup
            | Named::AtOnce
            | Named::Deferred
            | Named::Entry
            | Named::Repeats
            | Named::Unreached => texts(
                &mut record
                    .entries
                    .iter()
                    .flat_map(|entry| entry.aliases.iter().chain([&entry.name]))
                    .map(String::as_str),
            ),
            Named::Route => {
                let routes = self.lens.visits.iter().map(|visit| visit.route.as_str());
                nearest(argument, routes).into_iter().map(str::to_owned).collect()
            }
            Named::Group => {
                let groups = self.lens.groups.iter().map(|group| group.name.as_str());
                nearest(argument, groups).into_iter().map(str::to_owned).collect()
            }
            Named::Chunk => texts(&mut record.chunks.iter().map(|chunk| chunk.name.as_str())),
            Named::File => texts(&mut record.files.iter().map(|file| file.path.as_str())),
            Named::Kind => texts(&mut Kind::ALL.iter().map(|kind| kind.name())),
        };
        let is_pattern = is_pattern(argument);
        let name = argument.to_owned();
        let is_of_entries = matches!(set.noun(), "entry");
        let mut visits = self.lens.visits.iter().filter(|_| is_of_entries);
        let route_of = visits.find(|visit| visit.route == argument);
        let route_of = route_of.map(|visit| record.entries[visit.entry].name.clone());
        let missing = Missing { set, name, is_pattern, near, several, route_of, at: at.start };
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
