//! Outputs for several targets in one folder: which files a visitor never downloads.
//!
//! What a page loads runs in browsers. A bundler may say where its build runs, which holds for the
//! files that it names. Any other script that loads what only Node.js has as it starts runs on a
//! server, and so does all that only such scripts load, and the folder around them as far up as no
//! page reaches into it. What is left runs where the output that it lies in runs.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_record::{Kind, Reason, SetAside, Target, TargetBasis};

use crate::assemble::inspect::Inspected;
use crate::{
    descriptions::find::Candidate,
    files::marks::is_node_builtin,
    folder::{
        list::Listing,
        urls::{Meant, Urls, folder_of},
    },
};

/// Where the files run, and which of them are looked at.
pub struct Targets {
    /// Per counted file.
    of_file: Vec<Target>,
    /// The target that is looked at.
    pub chosen: Target,
    /// What says so.
    pub basis: TargetBasis,
}

impl Targets {
    /// Decides where every file runs, and which target is looked at: the one asked for, else that of
    /// a description that was named, else the browser's, unless nothing runs there.
    ///
    /// # Errors
    /// With the target that was asked for, where it is not there.
    pub fn decide(
        listing: &Listing,
        inspected: &[Inspected],
        urls: &Urls<'_>,
        candidates: &[Candidate],
        asked: Option<Target>,
    ) -> Result<Self, Target> {
        let Shown { by_page, servers } = shown(listing, inspected, urls);
        let said: Vec<(&Candidate, Target)> =
            candidates.iter().filter_map(|one| Some((one, one.target()?))).collect();
        let mut named: HashMap<&str, Target> = HashMap::new();
        for (candidate, target) in &said {
            let files = candidate.described.files.iter();
            named.extend(files.map(|file| (file.path.as_str(), *target)));
        }
        let of_folder = |path: &str| {
            let place = |candidate: &Candidate| candidate.described.place.clone();
            let around = said.iter().filter(|(one, _)| path.starts_with(&place(one)));
            around.max_by_key(|(one, _)| place(one).len()).map(|(_, target)| *target)
        };
        let target_of = |at: usize, path: &str| match named.get(path) {
            _ if by_page.contains(&at) => Target::Browser,
            Some(target) => *target,
            None if servers.contains(&at) => Target::Server,
            None => of_folder(path).unwrap_or(Target::Browser),
        };
        let files = listing.counted.iter().enumerate();
        let of_file: Vec<Target> = files.map(|(at, (file, _))| target_of(at, &file.path)).collect();
        // Pictures and data alone are no output of their own.
        let is_code = |at: usize| matches!(listing.counted[at].1, Kind::Script | Kind::Page);
        let found = of_file.iter().enumerate();
        let there: BTreeSet<Target> =
            found.filter(|(at, _)| is_code(*at)).map(|(_, target)| *target).collect();
        let by_name = said.iter().find(|(one, _)| one.is_named).map(|(_, target)| *target);
        let chosen = match asked {
            Some(target) if there.contains(&target) => target,
            Some(target) => return Err(target),
            None => by_name
                .filter(|target| there.contains(target))
                .or(there.first().copied())
                .unwrap_or(Target::Browser),
        };
        let is_started_by_page = by_page.iter().any(|&at| listing.counted[at].1 == Kind::Script);
        let basis = match (chosen, inspected.iter().find_map(builtin)) {
            (Target::Browser, _) if is_started_by_page => TargetBasis::Page,
            (Target::Server, Some(name)) => TargetBasis::Imports { module: name.to_owned() },
            (Target::Browser, _) => TargetBasis::NoNodeImport,
            (..) => TargetBasis::Output,
        };
        Ok(Self { of_file, chosen, basis })
    }

    /// Where a framework says what is served to whom, all files that were listed run at one place.
    ///
    /// # Errors
    /// With the target that was asked for, where it is not there.
    pub fn of_framework(
        listing: &Listing,
        framework: &str,
        asked: Option<Target>,
    ) -> Result<Self, Target> {
        let chosen = asked.unwrap_or(Target::Browser);
        let has_code = listing.counted.iter().any(|(_, kind)| *kind == Kind::Script);
        if !has_code && asked.is_some() {
            return Err(chosen);
        }
        let basis = TargetBasis::Framework { name: framework.to_owned() };
        Ok(Self { of_file: vec![chosen; listing.counted.len()], chosen, basis })
    }

    /// Keeps only what runs where it is looked at; returns what was set aside.
    pub fn keep(&self, listing: &mut Listing, inspected: &mut Vec<Inspected>) -> Vec<SetAside> {
        let mut aside: BTreeMap<(Option<Target>, Reason), SetAside> = BTreeMap::new();
        for (&(target, reason), &(file_count, bytes)) in &listing.apart {
            aside.insert((target, reason), SetAside { target, reason, file_count, bytes });
        }
        let is_code = |kind: Kind| matches!(kind, Kind::Script | Kind::Page);
        let mut others = self.of_file.iter().zip(&listing.counted);
        if !others.any(|(target, (_, kind))| *target != self.chosen && is_code(*kind)) {
            return aside.into_values().collect();
        }
        let reason = Reason::OtherTarget;
        for ((file, _), &target) in listing.counted.iter().zip(&self.of_file) {
            if target != self.chosen {
                let target = Some(target);
                let part = SetAside { target, reason, file_count: 0, bytes: 0 };
                let part = aside.entry((target, reason)).or_insert(part);
                part.file_count += 1;
                part.bytes += file.bytes;
            }
        }
        let is_kept = || self.of_file.iter().map(|&target| target == self.chosen);
        let mut kept = is_kept();
        listing.counted.retain(|_| kept.next().unwrap_or(true));
        let mut kept = is_kept();
        inspected.retain(|_| kept.next().unwrap_or(true));
        aside.into_values().collect()
    }
}

/// What the code shows.
struct Shown {
    /// Files that pages load, at whatever time.
    by_page: BTreeSet<usize>,
    /// Files that only a server can run.
    servers: BTreeSet<usize>,
}

fn shown(listing: &Listing, inspected: &[Inspected], urls: &Urls<'_>) -> Shown {
    let path = |at: usize| listing.counted[at].0.path.as_str();
    let loads: Vec<Vec<usize>> =
        (0..inspected.len()).map(|at| loads(&inspected[at], path(at), urls)).collect();
    let pages = (0..inspected.len()).filter(|&at| inspected[at].page.is_some());
    let by_page = closure(pages.collect(), &loads, &|_| true);
    let marked: Vec<usize> =
        (0..inspected.len()).filter(|&at| builtin(&inspected[at]).is_some()).collect();
    if marked.is_empty() {
        return Shown { by_page, servers: BTreeSet::new() };
    }
    let mut browser = by_page.clone();
    if !browser.iter().any(|&at| listing.counted[at].1 == Kind::Script) {
        // Without pages, scripts that nothing loads and that bear no mark are a browser's.
        let loaded: BTreeSet<usize> = loads.iter().flatten().copied().collect();
        let roots = (0..inspected.len()).filter(|at| {
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
    servers.extend((0..inspected.len()).filter(is_inside));
    Shown { by_page, servers }
}

/// What only Node.js has, of what a file's code loads as it starts.
fn builtin(file: &Inspected) -> Option<&str> {
    let code = file.code.as_ref()?;
    let names = code.found.loads.iter().chain(&code.marks.node_requires).map(String::as_str);
    names.into_iter().find(|name| is_node_builtin(name))
}

fn loads(file: &Inspected, path: &str, urls: &Urls<'_>) -> Vec<usize> {
    let folder = folder_of(path);
    let code = file.code.iter().flat_map(|code| {
        let found = &code.found;
        let asked = found.imports.iter().chain(&found.workers).map(|call| &call.request);
        found.loads.iter().chain(asked)
    });
    let page = file.page.iter().flat_map(|page| {
        page.asks.iter().chain(&page.legacy).chain(&page.later).map(|ask| &ask.url)
    });
    let inline = file.page_imports.iter().map(|call| &call.request);
    let files =
        code.chain(page).chain(inline).chain(&file.urls.needed).filter_map(|url| {
            match urls.url(url, folder) {
                Meant::File(id) => Some(id.at()),
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
