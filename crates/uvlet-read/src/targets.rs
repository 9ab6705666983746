//! Outputs for several targets in one folder: which files a visitor never downloads.
//!
//! A bundler may say where its build runs, which then holds for the folder of its output. Else a script that loads what only Node.js has runs on a server, unless a page loads it. So does all
//! that only such scripts load, and the folder around them as far up as no page reaches into it.

use std::collections::{BTreeSet, HashMap};

use uvlet_record::{FileId, Kind, Target};

use crate::{
    describe::Said,
    examine::Examined,
    folder::Listing,
    judge::is_node_builtin,
    resolve::{Meant, Resolver, folder_of},
};

/// Where each counted file runs: as a bundler says of its build, else as the code shows.
pub fn of_files(
    listing: &Listing,
    examined: &[Examined],
    resolver: &Resolver<'_>,
    said: &[Said],
) -> Vec<Target> {
    let servers = server_files(listing, examined, resolver);
    let by_code = |at: usize| match servers.as_ref().is_some_and(|servers| servers[at]) {
        true => Target::Server,
        false => Target::Browser,
    };
    let mut of_file: HashMap<&str, Target> = HashMap::new();
    for build in said {
        of_file.extend(build.files.iter().map(|path| (path.as_str(), build.target)));
    }
    let of_folder = |path: &str| {
        let around = said.iter().filter(|build| path.starts_with(build.place.as_str()));
        around.max_by_key(|build| build.place.len()).map(|build| build.target)
    };
    let files = listing.counted.iter().enumerate();
    files
        .map(|(at, (file, _))| {
            let path = file.path.as_str();
            of_file.get(path).copied().or_else(|| of_folder(path)).unwrap_or_else(|| by_code(at))
        })
        .collect()
}

/// Whether the code shows each counted file to be a server's; `None` where none is.
fn server_files(
    listing: &Listing,
    examined: &[Examined],
    resolver: &Resolver<'_>,
) -> Option<Vec<bool>> {
    let marked: Vec<usize> = (0..examined.len()).filter(|&at| is_marked(&examined[at])).collect();
    if marked.is_empty() {
        return None;
    }
    let path = |at: usize| listing.counted[at].0.path.as_str();
    let loads: Vec<Vec<usize>> =
        (0..examined.len()).map(|at| loads(&examined[at], path(at), resolver)).collect();
    let pages = (0..examined.len()).filter(|&at| examined[at].page.is_some());
    let mut browser = closure(pages.collect(), &loads, &|_| true);
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
    let servers = closure(seeds, &loads, &|at| !browser.contains(&at));
    let is_server = |at: usize| {
        servers.contains(&at)
            || folders.iter().any(|folder| path(at).starts_with(&format!("{folder}/")))
    };
    Some((0..examined.len()).map(is_server).collect())
}

/// Its code loads what only Node.js has.
fn is_marked(file: &Examined) -> bool {
    file.code.as_ref().is_some_and(|code| {
        let imports = code.loads.iter().any(|load| is_node_builtin(load));
        imports || !code.node_requires.is_empty()
    })
}

fn loads(file: &Examined, path: &str, resolver: &Resolver<'_>) -> Vec<usize> {
    let folder = folder_of(path);
    let code = file.code.iter().flat_map(|code| {
        let opened = code.openings.iter().chain(&code.workers).map(|opened| &opened.request);
        code.loads.iter().chain(opened)
    });
    let page = file.page.iter().flat_map(|page| {
        let asks = page.asks.iter().chain(&page.legacy).chain(&page.later).map(|ask| &ask.url);
        asks.chain(&page.openings)
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
