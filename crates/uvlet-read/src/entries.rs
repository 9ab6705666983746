//! What pages start from, and the chunks by name.
//!
//! Entries come from the pages that load scripts; without any, from the scripts that no other one
//! loads. Pages that ask for the same files are one entry.

use std::collections::{BTreeMap, BTreeSet};

use url::Url;
use uvlet_record::{Chunk, DynamicLoad, Entry, File, FileId, Form, FoundBy, Kind, NamedBy, Notice};

use crate::{
    connect::once_each,
    examine::Examined,
    hashes::Hashes,
    html::{Ask, Page},
    names::Unique,
    naming::Names,
    registry::{Chunks, Registry},
    resolve::{Meant, Resolver, folder_of},
    sourcemaps::shortened,
    told::Told,
};

/// Entries of the pages.
pub fn of_pages(
    files: &[File],
    examined: &[Examined],
    resolver: &Resolver<'_>,
    notices: &mut Vec<Notice>,
) -> Vec<Entry> {
    // Keyed by what is asked for, so that pages with equal sets fall together.
    let mut groups: BTreeMap<(BTreeSet<FileId>, BTreeSet<FileId>, bool), Vec<PageAsks>> =
        BTreeMap::new();
    for (at, (file, page)) in files.iter().zip(examined).enumerate() {
        let Some(page) = page.page.as_ref().filter(|page| page.has_script) else { continue };
        let mut tie = |asks: &[Ask]| resolve(file, page, asks, resolver, notices);
        let (asks, later) = (tie(&page.asks), tie(&page.later));
        let legacy = tie(&page.legacy);
        let id = FileId::new(at);
        let found = |asks: Vec<FileId>, later: Vec<FileId>| PageAsks { id, asks, later };
        let set = |ids: &[FileId]| ids.iter().copied().collect::<BTreeSet<_>>();
        let scripts = |ids: &[FileId]| ids.iter().any(|id| files[id.at()].kind == Kind::Script);
        if scripts(&asks) || !scripts(&legacy) {
            let key = (set(&asks), set(&later), false);
            groups.entry(key).or_default().push(found(asks, later));
        }
        if !legacy.is_empty() {
            let key = (set(&legacy), BTreeSet::new(), true);
            groups.entry(key).or_default().push(found(legacy, Vec::new()));
        }
    }
    let mut pages_by_name: BTreeMap<&str, u32> = BTreeMap::new();
    for page in files.iter().filter(|file| file.kind == Kind::Page) {
        *pages_by_name.entry(page_name(&page.path)).or_default() += 1;
    }
    let mut entries = Vec::new();
    for ((_, _, legacy), mut group) in groups {
        group.sort_by_key(|page| (files[page.id.at()].path.len(), page.id));
        let pages: Vec<String> =
            group.iter().map(|page| files[page.id.at()].path.clone()).collect();
        let suffix = if legacy { " (legacy)" } else { "" };
        let mut names = pages.iter().map(|page| {
            let short = page_name(page);
            // `shop.html` beside `shop/index.html`.
            let is_taken = pages_by_name.get(short).is_some_and(|pages| *pages > 1);
            let name = if is_taken { stem(page) } else { short };
            format!("{name}{suffix}")
        });
        let name = names.next().unwrap_or_default();
        let first = group.swap_remove(0);
        entries.push(Entry {
            name,
            aliases: names.collect(),
            pages,
            found_by: FoundBy::Page,
            files: once_each([vec![first.id], first.asks].concat()),
            prefetched: first.later,
            roots: Vec::new(),
        });
    }
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    entries
}

/// The host that pages are taken to stand on; no real one has the name (RFC 2606).
const HERE: &str = "here.invalid";

struct PageAsks {
    id: FileId,
    asks: Vec<FileId>,
    later: Vec<FileId>,
}

fn resolve(
    file: &File,
    page: &Page,
    asks: &[Ask],
    resolver: &Resolver<'_>,
    notices: &mut Vec<Notice>,
) -> Vec<FileId> {
    let mut files = Vec::new();
    let page_url = Url::parse(&format!("https://{HERE}/{}", file.path)).ok();
    // No real one is longer, and it is joined with every URL of the page.
    let stated = page.base.as_ref().filter(|base| base.len() < 4096);
    let base = page_url.zip(stated).and_then(|(url, base)| url.join(base).ok());
    for ask in asks {
        let mapped = page.imports.url(&ask.url).filter(|_| ask.specifier);
        let url = mapped.as_deref().unwrap_or(&ask.url);
        // `<base href>` moves relative URLs, by a path or to another host.
        let is_relative = !url.starts_with('/') && !url.contains(':');
        let moved = base.as_ref().filter(|_| is_relative).and_then(|base| base.join(url).ok());
        let folder = folder_of(&file.path);
        let meant = match moved {
            Some(moved) if moved.host_str() == Some(HERE) => resolver.url(moved.path(), folder),
            Some(moved) => resolver.url(moved.as_str(), folder),
            None if ask.specifier => resolver.specifier(url, folder),
            None => resolver.url(url, folder),
        };
        match meant {
            Meant::File(id) => files.push(id),
            Meant::Missing if ask.needed => {
                let url = shortened(url);
                let message = format!("asks for {url}, which the folder does not hold");
                notices.push(Notice::new("file-missing", message, Some(&file.path)));
            }
            Meant::External if ask.needed => {
                let url = shortened(url);
                let message = format!("loads {url} from elsewhere: its bytes are not counted");
                notices.push(Notice::new("external", message, Some(&file.path)));
            }
            _ => {}
        }
    }
    once_each(files)
}

/// A page's name: its path without the ending; `index` stands for its folder.
fn page_name(path: &str) -> &str {
    let stem = stem(path);
    stem.strip_suffix("/index").unwrap_or(stem)
}

fn stem(path: &str) -> &str {
    path.strip_suffix(".html").or_else(|| path.strip_suffix(".htm")).unwrap_or(path)
}

/// Entries that the bundler names, by the files that the folder holds of them.
pub fn of_bundler(told: &Told, names: &Names, files: &[File], hashes: &Hashes) -> Vec<Entry> {
    let ids: BTreeMap<&str, FileId> =
        files.iter().enumerate().map(|(at, file)| (file.path.as_str(), FileId::new(at))).collect();
    let mut taken = Unique::default();
    let mut entries = Vec::new();
    for entry in &told.entries {
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
            found_by: FoundBy::Bundler,
            files: asks,
            prefetched: Vec::new(),
            roots: entry.roots.iter().filter_map(|&root| names.module(root)).collect(),
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
        if let Some(&entry) = alone.get(&at) {
            let bundled = &bundled[entry];
            listed[entry] = false;
            if page.name != bundled.name {
                page.aliases.insert(0, std::mem::replace(&mut page.name, bundled.name.clone()));
            }
            page.found_by = FoundBy::Bundler;
            let html = page.files.iter().take(1).copied();
            let rest = page.files.iter().skip(1).copied();
            page.files = once_each(html.chain(bundled.files.iter().copied()).chain(rest).collect());
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
            .map(|entry| entry.files.iter().copied().filter(is_script).collect())
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
        let asked: BTreeSet<FileId> = page.files.iter().copied().collect();
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

/// The files, with what their scripts say of chunks.
pub struct Scripts<'a> {
    pub files: &'a [File],
    pub registries: &'a [Option<&'a Registry>],
    pub chunks: &'a Chunks,
}

/// Without pages: every script that nothing else loads, with the styles of its name. A script that
/// registers modules starts something only if it has a start-up function of its own; the runtime
/// and the chunks that this names come before it.
pub fn inferred(
    scripts: &Scripts<'_>,
    openings: &[DynamicLoad],
    hashes: &Hashes,
    stem_styles: &dyn Fn(FileId) -> Vec<FileId>,
    notices: &mut Vec<Notice>,
) -> Vec<Entry> {
    let Scripts { files, registries, chunks } = scripts;
    let loaded: BTreeSet<FileId> = files
        .iter()
        .flat_map(|file| file.loads.iter())
        .chain(openings.iter().flat_map(|opening| opening.files.iter()))
        .copied()
        .collect();
    let mut entries = Vec::new();
    let mut taken = Unique::default();
    for (at, file) in files.iter().enumerate() {
        let id = FileId::new(at);
        let registry = registries[at].cloned().unwrap_or_default();
        let starts = match file.form {
            Form::Registry => registry.starts,
            _ => file.kind == Kind::Script && !chunks.runtimes.contains(&id),
        };
        if !starts || loaded.contains(&id) {
            continue;
        }
        let runtimes = chunks.runtimes.iter().filter(|_| registry.registers);
        let before = registry.startup.iter().flat_map(|chunk| chunks.files(chunk));
        let scripts: Vec<FileId> = runtimes.chain(before).chain([&id]).copied().collect();
        let styles = scripts.iter().flat_map(|&script| stem_styles(script)).collect();
        let name = numbered(&mut taken, hashes.split(&file.path).0);
        entries.push(Entry {
            name,
            aliases: Vec::new(),
            pages: Vec::new(),
            found_by: FoundBy::Inferred,
            files: once_each([scripts, styles].concat()),
            prefetched: Vec::new(),
            roots: Vec::new(),
        });
    }
    if !entries.is_empty() {
        let names: Vec<_> = entries.iter().map(|entry| entry.name.as_str()).collect();
        let message = format!(
            "no page names what it starts from; scripts that nothing else loads are taken as entries: {}",
            names.join(", ")
        );
        notices.push(Notice::new("entries-inferred", message, None));
    }
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    entries
}

/// `name`, or `name.2`, `name.3` where it is taken already.
fn numbered(taken: &mut Unique, stem: &str) -> String {
    taken.name(if stem.is_empty() { "chunk" } else { stem })
}

/// Chunks without names yet: each script with the styles that belong to it, and styles that belong
/// to none.
pub fn chunks(
    files: &[File],
    openings: &[DynamicLoad],
    stem_styles: &dyn Fn(FileId) -> Vec<FileId>,
) -> Vec<Chunk> {
    let chunk = |script, styles| Chunk {
        name: String::new(),
        stem: String::new(),
        bundler_name: None,
        ids: Vec::new(),
        stands_for: None,
        named_by: NamedBy::File,
        script,
        styles,
    };
    let of_kind = |kind| {
        let ids = (0..files.len()).map(FileId::new);
        ids.filter(move |id| files[id.at()].kind == kind)
    };
    let mut chunks: Vec<Chunk> = Vec::new();
    let mut placed: BTreeSet<FileId> = BTreeSet::new();
    let mut of_script: BTreeMap<FileId, usize> = BTreeMap::new();
    for id in of_kind(Kind::Script) {
        let mut styles = stem_styles(id);
        styles.retain(|&style| placed.insert(style));
        of_script.insert(id, chunks.len());
        chunks.push(chunk(Some(id), styles));
    }
    // A style that only an opening ties to a script belongs to the first by path.
    let mut opened: Vec<(FileId, FileId)> = openings
        .iter()
        .filter_map(|opening| Some((opening.files.first()?, &opening.files)))
        .flat_map(|(&first, files)| files.iter().map(move |&file| (first, file)))
        .filter(|(_, file)| files[file.at()].kind == Kind::Style)
        .collect();
    opened.sort();
    for (script, style) in opened {
        if let Some(&at) = of_script.get(&script)
            && placed.insert(style)
        {
            chunks[at].styles.push(style);
        }
    }
    chunks.extend(
        of_kind(Kind::Style).filter(|&id| placed.insert(id)).map(|id| chunk(None, vec![id])),
    );
    chunks
}

/// Styles that belong to a script: as the bundler says, else those that share folder and stem with
/// it, as some bundlers write no other link.
pub fn styles_of(
    files: &[File],
    hashes: &Hashes,
    told: Option<&Told>,
) -> BTreeMap<FileId, Vec<FileId>> {
    let mut styles = styles_by_stem(files, hashes);
    // Not every bundler says whose a style is.
    let told = told.filter(|told| told.files.iter().any(|file| !file.styles.is_empty()));
    let by_path = told.map(Told::by_path).unwrap_or_default();
    let ids: BTreeMap<&str, FileId> =
        files.iter().enumerate().map(|(at, file)| (file.path.as_str(), FileId::new(at))).collect();
    for (at, file) in files.iter().enumerate() {
        if let Some(said) = by_path.get(file.path.as_str()) {
            let own = said.styles.iter().filter_map(|path| ids.get(path.as_str()).copied());
            styles.insert(FileId::new(at), once_each(own.collect()));
        }
    }
    styles
}

fn styles_by_stem(files: &[File], hashes: &Hashes) -> BTreeMap<FileId, Vec<FileId>> {
    let key = |file: &File| {
        let stem = hashes.split(&file.path).0.to_owned();
        (folder_of(&file.path).to_owned(), stem)
    };
    let mut scripts: BTreeMap<(String, String), Vec<FileId>> = BTreeMap::new();
    for (at, file) in files.iter().enumerate().filter(|(_, file)| file.kind == Kind::Script) {
        scripts.entry(key(file)).or_default().push(FileId::new(at));
    }
    let mut styles: BTreeMap<FileId, Vec<FileId>> = BTreeMap::new();
    for (at, file) in files.iter().enumerate().filter(|(_, file)| file.kind == Kind::Style) {
        // Several scripts of one stem leave it open whose style it is.
        if let Some([script]) = scripts.get(&key(file)).map(Vec::as_slice) {
            styles.entry(*script).or_default().push(FileId::new(at));
        }
    }
    styles
}
