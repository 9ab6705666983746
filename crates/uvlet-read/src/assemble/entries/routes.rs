//! Entries of a framework's output: the routes that a visitor types, each with the pages that were
//! rendered for it.
//!
//! Every route is an entry, whatever it shares with others. Of a pattern with many pages the heaviest
//! stands for all, as a visitor opens one of them.

use std::collections::{BTreeMap, BTreeSet};
use uvlet_record::Edition;

use uvlet_record::{DynamicLoad, Entry, File, FileId, Kind, Origin};

use crate::{
    assemble::{
        chunk_names::Unique,
        entries::{numbered, pages::PageAsks},
        loads::once_each,
    },
    descriptions::frameworks::{
        framework::{Output, SaidRoute, stands_in},
        pattern::Pattern,
    },
    folder::urls::{Meant, Urls},
};

/// What entries are made of.
pub struct Routes<'a> {
    pub output: &'a dyn Output,
    pub said: &'a [SaidRoute],
    pub files: &'a [File],
    pub urls: &'a Urls<'a>,
    pub loads: &'a [DynamicLoad],
}

/// A route, with what was rendered for it.
struct Rendered<'a> {
    said: &'a SaidRoute,
    pattern: Pattern,
    /// Paths that were rendered, with the page of each.
    pages: Vec<(String, PageAsks)>,
    /// Payloads.
    data: Vec<FileId>,
}

impl<'a> Rendered<'a> {
    fn of(said: &'a SaidRoute) -> Self {
        let pattern = Pattern::new(&said.pattern);
        Self { said, pattern, pages: Vec::new(), data: Vec::new() }
    }
}

impl Routes<'_> {
    /// The entries, by name.
    pub fn entries(&self, pages: Vec<PageAsks>) -> Vec<Entry> {
        let mut legacy: BTreeMap<BTreeSet<FileId>, Vec<(String, PageAsks)>> = BTreeMap::new();
        let pages: Vec<(String, PageAsks)> = pages
            .into_iter()
            .map(|page| {
                let path = self.output.route_of(&self.files[page.id.at()].path);
                (path.unwrap_or_else(|| "/".to_owned()), page)
            })
            .collect();
        let unsaid = self.unsaid(&pages);
        let said = || self.said.iter().chain(&unsaid);
        let mut routes: Vec<Rendered<'_>> = said().map(Rendered::of).collect();
        let by_name: BTreeMap<&str, usize> =
            said().enumerate().map(|(at, said)| (said.pattern.as_str(), at)).collect();
        for (path, page) in pages {
            if !page.legacy.is_empty() {
                let key = page.legacy.iter().copied().collect();
                legacy.entry(key).or_default().push((path.clone(), page.clone()));
            }
            if let Some(at) = find(&path, &routes, &by_name) {
                routes[at].pages.push((path, page));
            }
        }
        for (at, file) in self.files.iter().enumerate().filter(|(_, file)| file.kind == Kind::Data)
        {
            let route = self.output.route_of(&file.path);
            if let Some(route) = route.and_then(|path| find(&path, &routes, &by_name)) {
                routes[route].data.push(FileId::new(at));
            }
        }
        let mut entries: Vec<Entry> =
            routes.into_iter().filter_map(|route| self.entry(route)).collect();
        entries.extend(legacy.into_values().filter_map(|pages| self.legacy(pages)));
        let mut taken = Unique::default();
        for entry in &mut entries {
            entry.name = numbered(&mut taken, &entry.name);
        }
        entries.sort_by(|a, b| a.name.cmp(&b.name));
        entries
    }

    /// Pages that are of no route that is said: error pages, and what was put beside the app.
    fn unsaid(&self, pages: &[(String, PageAsks)]) -> Vec<SaidRoute> {
        let patterns: Vec<Pattern> =
            self.said.iter().map(|said| Pattern::new(&said.pattern)).collect();
        let is_said = |path: &str| {
            let mut said = self.said.iter().zip(&patterns);
            said.any(|(said, pattern)| said.pattern == path || pattern.is_match(path))
        };
        let paths: BTreeSet<&String> =
            pages.iter().map(|(path, _)| path).filter(|path| !is_said(path)).collect();
        let route = |path: &String| SaidRoute {
            is_typed: !stands_in(path),
            pattern: path.clone(),
            ..SaidRoute::default()
        };
        paths.into_iter().map(route).collect()
    }

    fn entry(&self, route: Rendered<'_>) -> Option<Entry> {
        let Rendered { said, pattern, mut pages, data } = route;
        let weight = |page: &PageAsks| self.files[page.id.at()].emitted;
        pages.sort_by_key(|(path, page)| (std::cmp::Reverse(weight(page)), path.clone()));
        let heaviest = pages.first().map(|(_, page)| page);
        let html = heaviest.iter().map(|page| page.id);
        let asks = heaviest.iter().flat_map(|page| page.asks.iter().copied());
        let said_files = said.files.iter().filter_map(|path| self.file(path));
        let opened = said.opens.iter().flat_map(|(script, request)| self.opened(script, request));
        let requested = once_each(html.chain(asks).chain(said_files).chain(opened).collect());
        // What a shell or an error page has no trace of starts nothing.
        let is_script = |id: &FileId| self.files[id.at()].kind == Kind::Script;
        if requested.is_empty() || (!said.is_typed && !requested.iter().any(is_script)) {
            return None;
        }
        let visits = said.later.iter().filter_map(|path| self.file(path));
        let later = heaviest.iter().flat_map(|page| page.later.iter().copied());
        let later = later.chain(visits).chain(data);
        let mut later = once_each(later.collect());
        later.retain(|file| !requested.contains(file));
        let paths = |page: &PageAsks| self.files[page.id.at()].path.clone();
        let mut rendered: Vec<String> = pages.iter().map(|(_, page)| paths(page)).collect();
        rendered.sort();
        let names = pages.iter().map(|(path, _)| path.trim_start_matches('/').to_owned());
        let names = names.map(|name| if name.is_empty() { "index".to_owned() } else { name });
        let typed = pages.iter().map(|(path, _)| path.clone()).filter(|_| !pattern.is_plain());
        let mut aliases: Vec<String> = names.chain(typed).collect();
        aliases.sort();
        aliases.dedup();
        aliases.retain(|alias| *alias != said.pattern);
        Some(Entry {
            name: said.pattern.clone(),
            aliases,
            pages: rendered,
            routes: if said.is_typed { vec![said.pattern.clone()] } else { Vec::new() },
            origin: Origin::Framework,
            requested,
            later,
            roots: Vec::new(),
            has_said_roots: false,
            edition: Edition::default(),
        })
    }

    /// What only old browsers fetch, once for all pages that have the same.
    fn legacy(&self, mut pages: Vec<(String, PageAsks)>) -> Option<Entry> {
        pages.sort_by_key(|(path, _)| (path.len(), path.clone()));
        let mut names = pages.iter().map(|(path, _)| format!("{path} (legacy)"));
        let name = names.next()?;
        let aliases = names.collect();
        let (_, first) = pages.first()?;
        let path = |page: &PageAsks| self.files[page.id.at()].path.clone();
        Some(Entry {
            name,
            aliases,
            pages: pages.iter().map(|(_, page)| path(page)).collect(),
            routes: Vec::new(),
            origin: Origin::Page,
            requested: once_each([vec![first.id], first.legacy.clone()].concat()),
            later: Vec::new(),
            roots: Vec::new(),
            has_said_roots: false,
            edition: Edition::Legacy,
        })
    }

    /// A file as the framework names it: by its path in the output, or by its URL.
    fn file(&self, path: &str) -> Option<FileId> {
        let plain = path.trim_start_matches('/');
        let found = self.files.binary_search_by(|file| file.path.as_str().cmp(plain));
        found.ok().map(FileId::new).or_else(|| match self.urls.url(&format!("/{plain}"), "") {
            Meant::File(id) => Some(id),
            _ => None,
        })
    }

    /// The files of a dynamic load.
    fn opened(&self, script: &str, request: &str) -> Vec<FileId> {
        let Some(script) = self.file(script) else { return Vec::new() };
        let mut loads = self.loads.iter();
        let load = loads.find(|load| load.file == script && load.request == request);
        load.map(|load| load.files.clone()).unwrap_or_default()
    }
}

/// The route that a path is of.
fn find(path: &str, routes: &[Rendered<'_>], by_name: &BTreeMap<&str, usize>) -> Option<usize> {
    if let Some(&at) = by_name.get(path) {
        return Some(at);
    }
    let fitting = routes.iter().enumerate().filter(|(_, route)| route.pattern.is_match(path));
    let best = fitting.max_by_key(|(_, route)| route.pattern.rank());
    best.map(|(at, _)| at)
}
