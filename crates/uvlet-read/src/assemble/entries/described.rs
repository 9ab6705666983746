//! Entries that the bundler names, and the pages that start them.

use std::collections::{BTreeMap, BTreeSet};
use uvlet_record::Edition;

use uvlet_record::{Entry, File, FileId, Kind, Origin};

use crate::assemble::entries::numbered;
use crate::{
    assemble::{chunk_names::Unique, loads::once_each, modules::Modules},
    descriptions::described::Described,
    folder::hashes::Hashes,
};

/// Entries that the bundler names, by the files that the folder holds of them.
pub fn of_bundler(
    described: &Described,
    modules: &Modules,
    files: &[File],
    hashes: &Hashes,
) -> Vec<Entry> {
    let ids: BTreeMap<&str, FileId> =
        files.iter().enumerate().map(|(at, file)| (file.path.as_str(), FileId::new(at))).collect();
    let mut taken = Unique::default();
    let mut entries = Vec::new();
    for entry in &described.entries {
        let asks = entry.files.iter().filter_map(|path| ids.get(path.as_str()).copied());
        let asks = once_each(asks.collect());
        let Some(lead) = asks.iter().find(|id| files[id.at()].kind == Kind::Script) else {
            continue;
        };
        let name = match entry.name.as_str() {
            "" => hashes.split(&files[lead.at()].path).0,
            name => name,
        };
        entries.push(Entry {
            name: numbered(&mut taken, name),
            aliases: Vec::new(),
            pages: Vec::new(),
            routes: Vec::new(),
            origin: Origin::Bundler,
            requested: asks,
            later: Vec::new(),
            roots: entry.roots.iter().filter_map(|&root| modules.module(root)).collect(),
            has_said_roots: !entry.roots.is_empty(),
            edition: Edition::default(),
        });
    }
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    entries
}

/// Ties pages to the bundler's entries. A page that alone holds one, and only that, takes its name
/// and loads what either says; any other page is an entry under its own name.
pub fn tied(pages: Vec<Entry>, bundled: Vec<Entry>, files: &[File]) -> Vec<Entry> {
    let scripts = Scripted::of(&bundled, files);
    let held: Vec<Vec<usize>> = pages.iter().map(|page| scripts.held_by(page, files)).collect();
    let alone: BTreeMap<usize, usize> = (0..bundled.len())
        .filter_map(|entry| {
            let mut holders = (0..held.len()).filter(|&page| held[page] == [entry]);
            Some((holders.next()?, entry)).filter(|_| holders.next().is_none())
        })
        .collect();
    // An entry that only pages with names of their own start would stand twice.
    let mut listed: Vec<bool> = (0..bundled.len())
        .map(|entry| !held.iter().any(|held| held.as_slice() == [entry]))
        .collect();
    let mut entries = Vec::new();
    for (at, mut page) in pages.into_iter().enumerate() {
        let roots = held[at].iter().flat_map(|&entry| bundled[entry].roots.iter().copied());
        page.roots = roots.collect();
        page.roots.sort_unstable();
        page.roots.dedup();
        page.has_said_roots = !page.roots.is_empty();
        if let Some(&entry) = alone.get(&at) {
            let bundled = &bundled[entry];
            listed[entry] = false;
            if page.name != bundled.name {
                page.aliases.insert(0, std::mem::replace(&mut page.name, bundled.name.clone()));
            }
            page.origin = Origin::Bundler;
            let html = page.requested.iter().take(1).copied();
            let rest = page.requested.iter().skip(1).copied();
            page.requested =
                once_each(html.chain(bundled.requested.iter().copied()).chain(rest).collect());
        }
        entries.push(page);
    }
    let pageless = bundled.into_iter().zip(listed).filter(|(_, listed)| *listed);
    entries.extend(pageless.map(|(entry, _)| entry));
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    let mut taken = Unique::default();
    for entry in &mut entries {
        entry.name = numbered(&mut taken, &entry.name);
    }
    entries
}

/// Gives routes the modules that the bundler's entries in them start with.
pub fn give_roots(routes: &mut [Entry], bundled: &[Entry], files: &[File]) {
    let scripts = Scripted::of(bundled, files);
    for route in routes {
        let held = scripts.held_by(route, files);
        let roots = held.iter().flat_map(|&entry| bundled[entry].roots.iter().copied());
        route.roots = roots.collect();
        route.roots.sort_unstable();
        route.roots.dedup();
        route.has_said_roots = !route.roots.is_empty();
    }
}

/// The scripts of the bundler's entries.
struct Scripted {
    all: Vec<Vec<FileId>>,
    /// Those that are no other entry's; all where there are none.
    telling: Vec<Vec<FileId>>,
}

impl Scripted {
    fn of(bundled: &[Entry], files: &[File]) -> Self {
        let is_script = |id: &FileId| files[id.at()].kind == Kind::Script;
        let all: Vec<Vec<FileId>> = bundled
            .iter()
            .map(|entry| entry.requested.iter().copied().filter(is_script).collect())
            .collect();
        let mut owners: BTreeMap<FileId, u32> = BTreeMap::new();
        for &script in all.iter().flatten() {
            *owners.entry(script).or_default() += 1;
        }
        let telling = all
            .iter()
            .map(|scripts| {
                let single = scripts.iter().copied().filter(|script| owners[script] == 1);
                let single: Vec<FileId> = single.collect();
                if single.is_empty() { scripts.clone() } else { single }
            })
            .collect();
        Self { all, telling }
    }

    /// The entries that a page starts. What it merely asks for early because another one needs it
    /// is not started.
    fn held_by(&self, page: &Entry, files: &[File]) -> Vec<usize> {
        let asked: BTreeSet<FileId> = page.requested.iter().copied().collect();
        let held: Vec<usize> = (0..self.all.len())
            .filter(|&entry| self.telling[entry].iter().all(|script| asked.contains(script)))
            .collect();
        let needed_by = |entry: usize, other: usize| {
            let loads = self.all[other].iter().flat_map(|id| &files[id.at()].loads);
            let mut own = self.all[entry].iter();
            entry != other && own.all(|script| loads.clone().any(|load| load == script))
        };
        let is_started = |entry: &usize| !held.iter().any(|&other| needed_by(*entry, other));
        held.iter().copied().filter(is_started).collect()
    }
}
