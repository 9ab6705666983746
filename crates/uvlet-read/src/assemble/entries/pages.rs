//! Entries of the pages that load scripts. Pages that ask for the same files are one entry.

use std::collections::{BTreeMap, BTreeSet};
use uvlet_record::Edition;

use url::Url;
use uvlet_record::{Elsewhere, Entry, File, FileId, Kind, Notice, Origin, Remark, When};

use crate::{
    assemble::{inspect::Inspected, loads::once_each},
    files::{
        page::{Ask, Page},
        source_map::shortened,
    },
    folder::urls::{Meant, Urls, folder_of},
    formats::classic::names_host,
};

/// What every page asks for.
pub fn asked(
    files: &[File],
    inspected: &[Inspected],
    urls: &Urls<'_>,
    notices: &mut Vec<Notice>,
) -> Vec<PageAsks> {
    let mut pages = Vec::new();
    for (at, (file, page)) in files.iter().zip(inspected).enumerate() {
        let Some(page) = page.page.as_ref() else { continue };
        let mut elsewhere = Vec::new();
        let mut tie = |asks: &[Ask], when| {
            resolve(file, page, asks, urls, notices, &mut |url| {
                elsewhere.push(Elsewhere { url: shortened(url), when });
            })
        };
        let (id, has_script) = (FileId::new(at), page.has_script);
        let asks = tie(&page.asks, When::AtOnce);
        let (later, legacy) = (tie(&page.later, When::Later), tie(&page.legacy, When::Later));
        pages.push(PageAsks { id, has_script, asks, later, legacy, elsewhere });
    }
    pages
}

/// Scripts that pages run as modules, and no page as a plain script: what they declare is theirs alone.
pub fn modules(files: &[File], inspected: &[Inspected], urls: &Urls<'_>) -> BTreeSet<FileId> {
    let mut found = [BTreeSet::new(), BTreeSet::new()];
    for (file, page) in files.iter().zip(inspected) {
        let Some(page) = page.page.as_ref() else { continue };
        for (asks, found) in [&page.modules, &page.plain].into_iter().zip(&mut found) {
            found.extend(resolve(file, page, asks, urls, &mut Vec::new(), &mut |_| {}));
        }
    }
    let [modules, plain] = found;
    modules.difference(&plain).copied().collect()
}

/// Entries of the pages.
pub fn of_pages(files: &[File], pages: Vec<PageAsks>) -> Vec<Entry> {
    // Keyed by what is asked for, so that pages with equal sets fall together.
    let mut groups: BTreeMap<(BTreeSet<FileId>, BTreeSet<FileId>, bool), Vec<PageAsks>> =
        BTreeMap::new();
    for page in pages.into_iter().filter(|page| page.has_script) {
        let set = |ids: &[FileId]| ids.iter().copied().collect::<BTreeSet<_>>();
        let scripts = |ids: &[FileId]| ids.iter().any(|id| files[id.at()].kind == Kind::Script);
        let PageAsks { id, asks, later, legacy, .. } = page;
        let found = |asks, later| PageAsks {
            id,
            has_script: true,
            asks,
            later,
            legacy: Vec::new(),
            elsewhere: Vec::new(),
        };
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
            routes: Vec::new(),
            origin: Origin::Page,
            requested: once_each([vec![first.id], first.asks].concat()),
            later: first.later,
            roots: Vec::new(),
            has_said_roots: false,
            edition: if legacy { Edition::Legacy } else { Edition::Usual },
        });
    }
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    entries
}

/// The host that pages are taken to stand on; no real one has the name (RFC 2606).
const HERE: &str = "here.invalid";

/// What a page asks for.
#[derive(Clone, Debug)]
pub struct PageAsks {
    /// The page.
    pub id: FileId,
    /// It runs scripts.
    pub has_script: bool,
    /// What arrives at startup, in order.
    pub asks: Vec<FileId>,
    /// What arrives later without being asked for by code.
    pub later: Vec<FileId>,
    /// What only browsers without modules fetch.
    pub legacy: Vec<FileId>,
    /// What is asked of other hosts.
    pub elsewhere: Vec<Elsewhere>,
}

fn resolve(
    file: &File,
    page: &Page,
    asks: &[Ask],
    urls: &Urls<'_>,
    notices: &mut Vec<Notice>,
    elsewhere: &mut dyn FnMut(&str),
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
            Some(moved) if moved.host_str() == Some(HERE) => urls.url(moved.path(), folder),
            Some(moved) => urls.url(moved.as_str(), folder),
            None if ask.specifier => urls.specifier(url, folder),
            None => urls.url(url, folder),
        };
        match meant {
            Meant::File(id) => files.push(id),
            Meant::Missing if ask.needed => {
                let remark = Remark::FileMissing { asked: shortened(url) };
                notices.push(Notice::at(&file.path, remark));
            }
            Meant::External if names_host(url) => elsewhere(url),
            _ => {}
        }
    }
    once_each(files)
}

/// A page's name: its path without the ending; `index` stands for its folder.
pub fn page_name(path: &str) -> &str {
    let stem = stem(path);
    stem.strip_suffix("/index").unwrap_or(stem)
}

fn stem(path: &str) -> &str {
    path.strip_suffix(".html").or_else(|| path.strip_suffix(".htm")).unwrap_or(path)
}
