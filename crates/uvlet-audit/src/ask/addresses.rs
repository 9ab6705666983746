//! Which file or entry of a build an address of a network log means.

use std::collections::{BTreeMap, BTreeSet, HashMap};
use uvlet_record::Edition;

use uvlet_record::{Entry, FileId, Kind, LogRequest, Record};

use crate::lens::Lens;

/// Files by the last part of their paths.
pub(crate) type Names<'r> = HashMap<&'r str, Vec<FileId>>;

pub(crate) fn host(url: &str) -> String {
    let rest = url.split_once("://").map_or("", |(_, rest)| rest);
    rest.split(['/', '?', '#']).next().unwrap_or_default().to_owned()
}

pub(crate) fn last_part(path: &str) -> &str {
    path.rsplit('/').next().unwrap_or(path)
}

fn path_of(url: &str) -> &str {
    let url = url.split(['?', '#']).next().unwrap_or(url);
    match url.split_once("://") {
        Some((_, rest)) => rest.split_once('/').map_or("", |(_, path)| path),
        None => url.trim_start_matches('/'),
    }
}

/// The file that an address means: one whose path ends it, or is ended by it where a build's public files
/// stand in a folder of their own; of several the one that shares most. A document's may leave out what
/// servers put behind it.
pub(crate) fn file_of(
    record: &Record,
    names: &Names<'_>,
    url: &str,
    is_document: bool,
) -> Option<FileId> {
    let path = path_of(url).trim_end_matches('/');
    let page = |end: &str| match path {
        "" => end.trim_start_matches('/').to_owned(),
        path => format!("{path}{end}"),
    };
    let (index, bare) = (page("/index.html"), format!("{path}.html"));
    let ends = |whole: &str, end: &str| {
        whole == end || whole.strip_suffix(end).is_some_and(|before| before.ends_with('/'))
    };
    let shared = |file: &str, is_page: bool| {
        let is_page = is_page && is_document;
        let asked =
            [Some(path), is_page.then_some(index.as_str()), is_page.then_some(bare.as_str())];
        let asked = asked.into_iter().flatten().filter(|asked| !asked.is_empty());
        asked
            .filter(|asked| ends(asked, file) || ends(file, asked))
            .map(|asked| asked.len().min(file.len()))
            .max()
    };
    let wanted: BTreeSet<&str> = [path, &index, &bare].map(last_part).into_iter().collect();
    let files = wanted.into_iter().filter_map(|last| names.get(last)).flatten();
    let found = files.filter_map(|&id| {
        let file = record.file(id);
        let shared = shared(&file.path, file.kind == Kind::Page)?;
        Some((shared, std::cmp::Reverse(file.path.len()), id))
    });
    found.max().map(|(.., id)| id)
}

/// The entry that a page is: by its file or route, else the one whose startup it asked for the most of.
pub(crate) fn entry_of(
    lens: &Lens<'_>,
    names: &Names<'_>,
    url: &str,
    asked: &BTreeMap<FileId, &LogRequest>,
) -> Option<usize> {
    let record = lens.record;
    let path = path_of(url).trim_matches('/');
    let page = file_of(record, names, url, true).map(|id| record.file(id).path.as_str());
    // Entries for old browsers stand beside those of their pages, and logs are of new ones.
    let entries = || {
        let all = record.entries.iter().enumerate();
        all.filter(|(_, entry)| entry.edition == Edition::Usual)
    };
    let find = |is_it: &dyn Fn(&Entry) -> bool| {
        entries().find(|(_, entry)| is_it(entry)).map(|(at, _)| at)
    };
    let by_page = find(&|entry| page.is_some_and(|page| entry.pages.iter().any(|one| one == page)));
    let by_route = || {
        find(&|entry| {
            let routes = entry.routes.iter().chain(&entry.aliases).chain([&entry.name]);
            routes.into_iter().any(|route| is_of_route(path, route))
        })
    };
    let by_files = || {
        let share = |at: usize| {
            let code =
                lens.reach[at].startup.iter().filter(|id| !record.file(**id).kind.is_asset());
            let code: Vec<_> = code.collect();
            let here = code.iter().filter(|id| asked.contains_key(id)).count();
            (here > 0).then(|| (here * 1000 / code.len(), here))
        };
        let shares = entries().filter_map(|(at, _)| Some((share(at)?, at)));
        shares.max_by_key(|(share, at)| (*share, std::cmp::Reverse(*at))).map(|(_, at)| at)
    };
    by_page.or_else(by_route).or_else(by_files)
}

/// Whether a path is one of a route's: `[id]`, `:id` and `*` stand for any part.
fn is_of_route(path: &str, route: &str) -> bool {
    let mut parts = path.split('/');
    let mut pattern = route.trim_matches('/').split('/');
    loop {
        match (parts.next(), pattern.next()) {
            (None, None) => return true,
            (Some(_), Some(any)) if any.starts_with("[...") || any == "*" => return true,
            (Some(part), Some(one)) => {
                let is_any = one.starts_with('[') || one.starts_with(':');
                if !is_any && part != one {
                    return false;
                }
            }
            _ => return false,
        }
    }
}
