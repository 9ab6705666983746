//! What of code that comes whole a few of its names are made of: of packages in CommonJS form, and of objects
//! that hold all that a library or a file of one's own can do.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    sync::{Arc, Mutex},
};

use uvlet_record::{CellId, Edge, EdgeKind, ModuleFormat, ModuleId, PackageId, Record, Texts};
use uvlet_script::{
    declarations::{own_exports, re_exported},
    members::{Members, Read, members, names_read},
};

use crate::{
    graph::network::Network,
    parts::{
        lines::{At, Lines},
        spans::Spans,
    },
};

/// Files that lead to the one that gives a value out.
const WAY: usize = 4;

/// What comes as a whole.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Whole {
    /// An installed package.
    Package(PackageId),
    /// A module of own code.
    Own(ModuleId),
}

/// What of it a program reads.
#[derive(Debug)]
pub struct Narrow {
    /// The module that others ask for.
    pub asked: ModuleId,
    /// It is an object in an ES module; else code in CommonJS form.
    pub is_module: bool,
    /// Names that are read.
    pub used: BTreeSet<String>,
    /// Names that there are.
    pub given: BTreeSet<String>,
    /// Modules that only other names are made of.
    pub gone: BTreeSet<ModuleId>,
    /// Of modules that stay in part, the bytes that only other names are made of.
    pub spans: Spans,
}

/// Why it is not told what of it is read.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Wide {
    /// No importer is known.
    NotAsked,
    /// Somebody asks for it in another way than by `import` of one file.
    OtherWays,
    /// It gives out no value with members, or their names are not written out.
    NoMembers,
    /// Its names are imported one by one, and it is an ES module: bundlers leave out the others.
    Apart,
    /// Somebody hands on all of it, or reads names that are made at run time.
    Open,
    /// A name is read that it does not have.
    Strange(String),
    /// Where its text stands in the source is not known.
    NoPlaces,
}

/// What is looked at.
pub(crate) struct Few<'a> {
    pub(crate) record: &'a Record,
    pub(crate) network: &'a Network<'a>,
    pub(crate) texts: &'a dyn Texts,
    pub(crate) cells: BTreeMap<ModuleId, Vec<CellId>>,
    /// What modules read of others.
    read: Mutex<HashMap<ModuleId, Arc<BTreeMap<String, Read>>>>,
    /// What modules give out.
    members: Mutex<HashMap<ModuleId, Option<Arc<Members>>>>,
}

/// What must stay: parts of modules by the members that are read of them, and whole modules.
#[derive(Default)]
struct Stays {
    parts: BTreeMap<ModuleId, Part>,
    whole: Vec<ModuleId>,
}

/// What stays of a module.
#[derive(Default)]
struct Part {
    /// Members of its value.
    names: BTreeSet<String>,
    /// What these ask others for.
    requests: BTreeSet<String>,
}

impl<'a> Few<'a> {
    pub(crate) fn new(
        record: &'a Record,
        network: &'a Network<'a>,
        texts: &'a dyn Texts,
        cells: BTreeMap<ModuleId, Vec<CellId>>,
    ) -> Self {
        let (read, members) = (Mutex::default(), Mutex::default());
        Self { record, network, texts, cells, read, members }
    }

    /// What could be narrowed, each with its modules, those that left no byte among them.
    pub(crate) fn wholes(&self) -> BTreeMap<Whole, Vec<ModuleId>> {
        let mut wholes: BTreeMap<Whole, Vec<ModuleId>> = BTreeMap::new();
        for id in (0..self.record.modules.len()).map(ModuleId::new) {
            match self.whole_of(id) {
                Whole::Own(_) if !self.cells.contains_key(&id) => {}
                whole => wholes.entry(whole).or_default().push(id),
            }
        }
        wholes
    }

    pub(crate) fn whole_of(&self, id: ModuleId) -> Whole {
        let is_installed = self.record.package_of(id).is_some_and(|package| !package.own);
        match self.record.module(id).package.filter(|_| is_installed) {
            Some(package) => Whole::Package(package),
            None => Whole::Own(id),
        }
    }

    /// What of a whole a program reads, where it has at least so many names.
    pub(crate) fn narrow(
        &self,
        whole: Whole,
        ids: &[ModuleId],
        least: usize,
    ) -> Result<Narrow, Wide> {
        let asked = ids.iter().flat_map(|&id| self.network.askers(id));
        let asked: Vec<&Edge> = asked.filter(|edge| self.whole_of(edge.from) != whole).collect();
        let first = self.first_asked(whole, &asked).ok_or(Wide::NotAsked)?;
        // Others may ask for parts of a package by their own paths: these stay as they are.
        let (asked, apart): (Vec<&Edge>, Vec<&Edge>) =
            asked.into_iter().partition(|edge| edge.to == first);
        // What importers say is known before the library itself is read.
        if asked.iter().any(|edge| edge.kind != EdgeKind::Static) {
            return Err(Wide::OtherWays);
        }
        let is_es = self.record.module(first).format == Some(ModuleFormat::Es);
        if is_es && self.are_apart(&asked) {
            return Err(Wide::Apart);
        }
        let many = |id: ModuleId, members: &Members| self.names(id, members).len() >= least.max(1);
        let Some((main, members)) = self.given_by(first, many) else {
            return Err(if self.are_apart(&asked) { Wide::Apart } else { Wide::NoMembers });
        };
        let used = self.used(&asked, members.is_module)?;
        let given = self.names(main, &members);
        if let Some(name) = used.iter().find(|name| !given.contains(*name)) {
            return Err(Wide::Strange(name.clone()));
        }
        let mut stays = self.stays(main, &used);
        stays.whole.extend(apart.iter().map(|edge| edge.to));
        let needed = self.network.reach(&stays.whole, &|edge| !edge.kind.is_deferred(), &|_| false);
        let mut spans = Spans::default();
        stays.parts.retain(|id, _| !needed[id.at()]);
        for (id, part) in &stays.parts {
            spans = spans.or(&self.unread(*id, &part.names).ok_or(Wide::NoPlaces)?);
        }
        let mut gone: BTreeSet<ModuleId> = ids.iter().copied().collect();
        gone.retain(|id| !needed[id.at()] && !stays.parts.contains_key(id));
        gone.extend(self.along(&gone, &stays));
        Ok(Narrow { asked: first, is_module: members.is_module, used, given, gone, spans })
    }

    /// The module that gives everything out: the one that all ask for, else what the package's name means.
    fn first_asked(&self, whole: Whole, asked: &[&Edge]) -> Option<ModuleId> {
        let first = asked.first()?.to;
        let Whole::Package(package) = whole else { return Some(first) };
        let name = self.record.packages[package.at()].name.as_str();
        let mut by_name = asked.iter().filter(|edge| edge.request.as_deref() == Some(name));
        match asked.iter().all(|edge| edge.to == first) {
            true => Some(first),
            false => by_name.next().map(|edge| edge.to),
        }
    }

    /// What only modules that go ask for, or parts of others that go.
    fn along(&self, gone: &BTreeSet<ModuleId>, stays: &Stays) -> Vec<ModuleId> {
        let roots = self.record.entries.iter().flat_map(|entry| entry.roots.iter().copied());
        let roots: Vec<ModuleId> = roots.collect();
        let before = self.network.reach(&roots, &|_| true, &|_| false);
        let follows = |edge: &Edge| match stays.parts.get(&edge.from) {
            Some(part) => edge.request.as_ref().is_some_and(|one| part.requests.contains(one)),
            None => true,
        };
        let kept = stays.whole.iter().chain(stays.parts.keys());
        let starts: Vec<ModuleId> = roots.iter().chain(kept).copied().collect();
        let after = self.network.reach(&starts, &follows, &|id| gone.contains(&id));
        let all = (0..self.record.modules.len()).map(ModuleId::new);
        all.filter(|id| before[id.at()] && !after[id.at()] && !gone.contains(id)).collect()
    }

    /// What a module reads of another by a request.
    fn read(&self, edge: &Edge) -> Option<Read> {
        let request = edge.request.as_ref()?;
        let known = self.read.lock().ok()?.get(&edge.from).cloned();
        let read = known.unwrap_or_else(|| {
            let text = self.texts.source(edge.from);
            Arc::new(text.and_then(|text| names_read(&text).ok()).unwrap_or_default())
        });
        let found = read.get(request).cloned();
        self.read.lock().ok()?.insert(edge.from, read);
        found
    }

    /// The members of the value that a module gives out.
    fn members(&self, id: ModuleId) -> Option<Arc<Members>> {
        if let Some(known) = self.members.lock().ok()?.get(&id) {
            return known.clone();
        }
        let text = self.texts.source(id);
        let read = text.and_then(|text| members(&text).ok().flatten()).map(Arc::new);
        self.members.lock().ok()?.insert(id, read.clone());
        read
    }

    /// Every importer takes names alone.
    fn are_apart(&self, asked: &[&Edge]) -> bool {
        let is_apart = |edge: &&Edge| {
            self.read(edge).is_some_and(|read| {
                let is_none = |names: &Option<BTreeSet<String>>| {
                    names.as_ref().is_some_and(BTreeSet::is_empty)
                };
                is_none(&read.of_default) && read.of_namespace.is_some()
            })
        };
        asked.iter().all(is_apart)
    }

    /// The names that a program uses; none where it may be any.
    fn used(&self, asked: &[&Edge], is_module: bool) -> Result<BTreeSet<String>, Wide> {
        let mut used: BTreeSet<String> = BTreeSet::new();
        for edge in asked {
            let read = self.read(edge).ok_or(Wide::OtherWays)?;
            used.extend(read.of_default.ok_or(Wide::Open)?);
            let others = read.named.into_iter().chain(read.of_namespace.ok_or(Wide::Open)?);
            match is_module {
                false => used.extend(others),
                // Names that are imported are told apart by bundlers.
                true if others.count() > 0 => return Err(Wide::Apart),
                true => {}
            }
        }
        used.remove("default");
        match used.is_empty() {
            true => Err(Wide::Open),
            false => Ok(used),
        }
    }

    /// The module whose value is looked for, past files that hand it on.
    fn given_by(
        &self,
        mut id: ModuleId,
        is_it: impl Fn(ModuleId, &Members) -> bool,
    ) -> Option<(ModuleId, Arc<Members>)> {
        for _ in 0..WAY {
            let members = self.members(id)?;
            if is_it(id, &members) {
                return Some((id, members));
            }
            let handed = re_exported(&self.texts.source(id)?).ok()??;
            let (request, _) = handed.names.get("default")?;
            id = self.asked(id, request)?;
        }
        None
    }

    fn asked(&self, from: ModuleId, request: &str) -> Option<ModuleId> {
        let mut asked = self.network.asked(from);
        asked.find(|edge| edge.request.as_deref() == Some(request)).map(|edge| edge.to)
    }

    /// All names, those of namespaces among them that it is made of.
    fn names(&self, id: ModuleId, members: &Members) -> BTreeSet<String> {
        let mut names: BTreeSet<String> = members.names().map(str::to_owned).collect();
        for request in &members.made_of {
            let Some(text) = self.asked(id, request).and_then(|to| self.texts.source(to)) else {
                continue;
            };
            let handed = re_exported(&text).ok().flatten();
            names.extend(handed.into_iter().flat_map(|handed| handed.names.into_keys()));
            let own = own_exports(&text).unwrap_or_default();
            names.extend(own.into_iter().map(|(name, _)| name));
        }
        names.remove("default");
        names
    }

    /// What members of a value are made of, over all modules.
    fn stays(&self, main: ModuleId, used: &BTreeSet<String>) -> Stays {
        let mut stays = Stays::default();
        let mut open = vec![(main, used.clone())];
        while let Some((id, names)) = open.pop() {
            let part = stays.parts.entry(id).or_default();
            let before = part.names.len();
            part.names.extend(names);
            if part.names.len() == before {
                continue;
            }
            let Some(members) = self.members(id) else {
                stays.whole.push(id);
                continue;
            };
            for name in part.names.iter().filter(|name| !members.has(name)) {
                stays.whole.push(self.of_namespace(id, &members, name).unwrap_or(id));
                part.requests.extend(members.made_of.iter().cloned());
            }
            for (request, wanted) in members.without_others(&part.names).requests {
                part.requests.insert(request.clone());
                let Some(to) = self.asked(id, &request) else { continue };
                let part = wanted.and_then(|names| {
                    let has_all = |_, members: &Members| names.iter().all(|one| members.has(one));
                    let (to, _) = self.given_by(to, has_all)?;
                    Some((to, names))
                });
                match part {
                    Some(part) => open.push(part),
                    None => stays.whole.push(to),
                }
            }
        }
        stays
    }

    /// The module that gives a name of the namespaces that a value is made of.
    fn of_namespace(&self, id: ModuleId, members: &Members, name: &str) -> Option<ModuleId> {
        members.made_of.iter().find_map(|request| {
            let of = self.asked(id, request)?;
            let text = self.texts.source(of)?;
            let handed = re_exported(&text).ok()?;
            match handed.and_then(|mut handed| handed.names.remove(name)) {
                Some((request, _)) => self.asked(of, &request),
                None => Some(of),
            }
        })
    }

    /// Emitted bytes of a module that only other members are made of; none where positions are not known.
    fn unread(&self, id: ModuleId, names: &BTreeSet<String>) -> Option<Spans> {
        let mut spans = Spans::default();
        let Some(cells) = self.cells.get(&id) else { return Some(spans) };
        let text = self.texts.source(id)?;
        let lines = Lines::new(&text);
        let rest = self.members(id)?.without_others(names);
        let gone: Vec<(At, At)> = rest
            .gone
            .iter()
            .map(|range| (lines.place(range.start), lines.place(range.end)))
            .collect();
        let is_gone = |at: At| {
            let before = gone.partition_point(|(start, _)| *start <= at);
            before.checked_sub(1).is_some_and(|last| at < gone[last].1)
        };
        let files: BTreeSet<_> =
            cells.iter().map(|cell| self.record.cells[cell.at()].file).collect();
        for file in files {
            let origins = self.texts.origins(file)?;
            for (at, segment) in origins.iter().enumerate() {
                let end =
                    origins.get(at + 1).map_or(self.record.file(file).emitted, |next| next.start);
                let place = segment.origin.filter(|place| place.module == id);
                if place.is_some_and(|place| is_gone((place.line, place.column))) {
                    spans.add(file, segment.start..end);
                }
            }
        }
        Some(spans.joined().within(self.record, &cells.iter().copied().collect()))
    }
}
