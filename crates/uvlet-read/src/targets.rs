//! Outputs for several targets in one folder: which files a visitor never downloads.
//!
//! What a page loads runs in browsers. A bundler may say where its build runs, which holds for the
//! files that it names. Any other script that loads what only Node.js has as it starts runs on a
//! server, and so does all that only such scripts load, and the folder around them as far up as no
//! page reaches into it. What is left runs where the output that it lies in runs.

use std::collections::{BTreeSet, HashMap};

use uvlet_record::{FileId, Kind, Target};

use crate::{
    describe::Said,
    examine::Examined,
    folder::Listing,
    judge::is_node_builtin,
    resolve::{Meant, Resolver, folder_of},
};

/// Where the files run.
pub struct Targets {
    /// Per counted file.
    pub of_file: Vec<Target>,
    /// A page loads a script.
    is_started_by_page: bool,
    /// What the first script that needs Node.js imports.
    builtin: Option<String>,
}

impl Targets {
    /// What the code shows of a build for this target.
    pub fn basis(&self, target: Target) -> String {
        match (target, &self.builtin) {
            (Target::Browser, _) if self.is_started_by_page => {
                "a page loads its scripts".to_owned()
            }
            (Target::Server, Some(name)) => format!("imports {name}, which only Node.js has"),
            (Target::Browser, _) => {
                "imports no module as it starts that only Node.js has".to_owned()
            }
            (target, _) => format!("its output for the {} is looked at", target.name()),
        }
    }
}

/// Where each counted file runs.
pub fn of_files(
    listing: &Listing,
    examined: &[Examined],
    resolver: &Resolver<'_>,
    said: &[Said],
) -> Targets {
    let Shown { by_page, servers } = shown(listing, examined, resolver);
    let mut named: HashMap<&str, Target> = HashMap::new();
    for build in said {
        named.extend(build.files.iter().map(|path| (path.as_str(), build.target)));
    }
    let of_folder = |path: &str| {
        let around = said.iter().filter(|build| path.starts_with(build.place.as_str()));
        around.max_by_key(|build| build.place.len()).map(|build| build.target)
    };
    let files = listing.counted.iter().enumerate();
    let of_file: Vec<Target> = files
        .map(|(at, (file, _))| {
            let path = file.path.as_str();
            match named.get(path) {
                _ if by_page.contains(&at) => Target::Browser,
                Some(target) => *target,
                None if servers.contains(&at) => Target::Server,
                None => of_folder(path).unwrap_or(Target::Browser),
            }
        })
        .collect();
    let is_started_by_page = by_page.iter().any(|&at| listing.counted[at].1 == Kind::Script);
    let builtin = examined.iter().find_map(builtin).map(str::to_owned);
    Targets { of_file, is_started_by_page, builtin }
}

/// What the code shows.
struct Shown {
    /// Files that pages load, at whatever time.
    by_page: BTreeSet<usize>,
    /// Files that only a server can run.
    servers: BTreeSet<usize>,
}

fn shown(listing: &Listing, examined: &[Examined], resolver: &Resolver<'_>) -> Shown {
    let path = |at: usize| listing.counted[at].0.path.as_str();
    let loads: Vec<Vec<usize>> =
        (0..examined.len()).map(|at| loads(&examined[at], path(at), resolver)).collect();
    let pages = (0..examined.len()).filter(|&at| examined[at].page.is_some());
    let by_page = closure(pages.collect(), &loads, &|_| true);
    let marked: Vec<usize> =
        (0..examined.len()).filter(|&at| builtin(&examined[at]).is_some()).collect();
    if marked.is_empty() {
        return Shown { by_page, servers: BTreeSet::new() };
    }
    let mut browser = by_page.clone();
    if !browser.iter().any(|&at| listing.counted[at].1 == Kind::Script) {
        // Without pages, scripts that nothing loads and that bear no mark are a browser's.
        let loaded: BTreeSet<usize> = loads.iter().flatten().copied().collect();
        let roots = (0..examined.len()).filter(|at| {
            listing.counted[*at].1 == Kind::Script && !loaded.contains(at) && !marked.contains(at)
        });
        browser = closure(roots.collect(), &loads, &|at| !marked.contains(&at));
    }
    let seeds: Vec<usize> = marked.into_iter().filter(|at| !browser.contains(at)).collect();
    let folders: BTreeSet<&str> =
        seeds.iter().filter_map(|&at| own_folder(path(at), &browser, &path)).collect();
    let mut servers = closure(seeds, &loads, &|at| !browser.contains(&at));
    let is_inside = |at: &usize| {
        let mut folders = folders.iter();
        folders.any(|folder| path(*at).strip_prefix(folder).is_some_and(|r| r.starts_with('/')))
    };
    servers.extend((0..examined.len()).filter(is_inside));
    Shown { by_page, servers }
}

/// What only Node.js has, of what a file's code loads as it starts.
fn builtin(file: &Examined) -> Option<&str> {
    let code = file.code.as_ref()?;
    let names = code.loads.iter().chain(&code.node_requires).map(String::as_str);
    names.into_iter().find(|name| is_node_builtin(name))
}

fn loads(file: &Examined, path: &str, resolver: &Resolver<'_>) -> Vec<usize> {
    let folder = folder_of(path);
    let code = file.code.iter().flat_map(|code| {
        let opened = code.openings.iter().chain(&code.workers).map(|opened| &opened.request);
        code.loads.iter().chain(opened)
    });
    let page = file.page.iter().flat_map(|page| {
        let asks = page.asks.iter().chain(&page.legacy).chain(&page.later).map(|ask| &ask.url);
        asks.chain(page.openings.iter().map(|opened| &opened.request))
    });
    let files = code.chain(page).chain(&file.urls.needed).filter_map(|url| {
        match resolver.url(url, folder) {
            Meant::File(FileId(at)) => Some(at as usize),
            _ => None,
        }
    });
    files.collect()
}

fn closure(
    roots: Vec<usize>,
    loads: &[Vec<usize>],
    may: &dyn Fn(usize) -> bool,
) -> BTreeSet<usize> {
    let mut found: BTreeSet<usize> = roots.iter().copied().collect();
    let mut open = roots;
    while let Some(at) = open.pop() {
        for &next in &loads[at] {
            if may(next) && found.insert(next) {
                open.push(next);
            }
        }
    }
    found
}

/// The highest folder around a file that no browser's file is in; never the whole output folder.
fn own_folder<'p>(
    file: &'p str,
    browser: &BTreeSet<usize>,
    path: &dyn Fn(usize) -> &'p str,
) -> Option<&'p str> {
    let ends = file.match_indices('/').map(|(end, _)| end);
    let mut folders = ends.map(|end| &file[..end]);
    folders.find(|folder| {
        !browser
            .iter()
            .any(|&at| path(at).strip_prefix(folder).is_some_and(|rest| rest.starts_with('/')))
    })
}
