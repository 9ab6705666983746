//! Who needs whom: what the URLs, specifiers and chunk ids in a file mean.

use std::collections::BTreeSet;

use uvlet_record::{DynamicLoad, Elsewhere, FileId, LoadKind, Notice, Remark, Unresolved, When};

use crate::assemble::{
    cells::Accounts,
    chunk_files::{ChunkFiles, Keyed},
    drawn::DrawnLoads,
    inspect::Inspected,
};
use crate::{
    files::{page::Imports, source_map::shortened, style::StyleUrls},
    folder::urls::{Meant, Urls, folder_of},
    formats::{
        classic::names_host,
        format::{DynamicCall, Found},
    },
};

/// What the meaning of a load depends on.
pub struct LoadResolver<'a> {
    urls: &'a Urls<'a>,
    chunks: &'a ChunkFiles,
    /// Styles that arrive with a script because they share its name.
    styles_of: &'a (dyn Fn(FileId) -> Vec<FileId> + Sync),
    /// Bare specifiers that an import map ties to URLs.
    imports: Imports,
    /// Loads that the first screen draws.
    drawn: DrawnLoads,
}

/// What one file needs.
#[derive(Default)]
struct FileLoads {
    loads: Vec<FileId>,
    assets: Vec<FileId>,
    externals: Vec<String>,
    /// What other hosts are asked for.
    elsewhere: Vec<Elsewhere>,
    /// By place.
    dynamic: Vec<(u64, DynamicLoad)>,
    lost: Vec<String>,
    /// Places of dynamic loads that bring a table of routes below their own.
    tables: BTreeSet<u64>,
    /// Dynamic loads that lead nowhere, by place.
    nowhere: Vec<(u64, Option<String>)>,
}

impl<'a> LoadResolver<'a> {
    pub fn new(
        urls: &'a Urls<'a>,
        chunks: &'a ChunkFiles,
        styles_of: &'a (dyn Fn(FileId) -> Vec<FileId> + Sync),
        inspected: &'a [Inspected],
    ) -> Self {
        let pages = inspected.iter().filter_map(|file| file.page.as_ref());
        let mut imports = Imports::default();
        pages.for_each(|page| imports.extend(&page.imports));
        Self { urls, chunks, styles_of, imports, drawn: DrawnLoads::new() }
    }

    /// With specifiers that only a server gives a meaning.
    pub fn with_specifiers<'s>(
        mut self,
        specifiers: impl Iterator<Item = &'s (String, String)>,
    ) -> Self {
        for (specifier, path) in specifiers {
            self.imports.add(specifier, &format!("/{path}"));
        }
        self
    }

    /// With loads that the first screen draws.
    pub fn with_drawn(mut self, drawn: DrawnLoads) -> Self {
        self.drawn = drawn;
        self
    }

    /// The file that a specifier means in a file of a folder.
    pub fn file_of(&self, specifier: &str, folder: &str) -> Option<FileId> {
        match self.specifier(specifier, folder) {
            Meant::File(file) => Some(file),
            _ => None,
        }
    }

    /// The loads that the first screen draws.
    pub fn drawn(&self) -> &DrawnLoads {
        &self.drawn
    }

    /// Ties every file to what it needs; returns what is loaded on demand, and what leads nowhere.
    pub fn connect(
        &self,
        accounts: &mut Accounts,
        inspected: &[Inspected],
        notices: &mut Vec<Notice>,
    ) -> (Vec<DynamicLoad>, Vec<Unresolved>) {
        let mut loads = Vec::new();
        let mut unresolved = Vec::new();
        let mut tables = BTreeSet::new();
        for (at, file) in inspected.iter().enumerate() {
            let id = FileId::new(at);
            let path = accounts.files[at].path.clone();
            let mut tied = self.file(id, file, folder_of(&path));
            for (position, mut load) in tied.dynamic.drain(..) {
                load.module = accounts.module_at(id, position);
                if self.drawn.contains(&(id, position)) {
                    load.when = When::AtOnce;
                }
                if tied.tables.contains(&position) {
                    tables.insert(loads.len());
                }
                loads.push(load);
            }
            for (position, request) in tied.nowhere.drain(..) {
                let module = accounts.module_at(id, position);
                unresolved.push(Unresolved { file: id, module, request });
            }
            notices.extend(
                tied.lost
                    .iter()
                    .map(|what| Notice::at(&path, Remark::FileMissing { asked: shortened(what) })),
            );
            let record = &mut accounts.files[at];
            record.loads = once_each(tied.loads);
            record.asset_loads = once_each(tied.assets);
            record.asset_loads.retain(|file| !record.loads.contains(file) && *file != id);
            let placed = file.hosts.iter().map(|call| elsewhere(&call.request, call.at_once));
            let asked = std::mem::take(&mut tied.elsewhere).into_iter().chain(placed);
            record.elsewhere.extend(asked);
            record.elsewhere = once_each(std::mem::take(&mut record.elsewhere));
            record.externals = once_each(tied.externals);
        }
        unresolved.sort();
        unresolved.dedup();
        join_tables(&mut loads, &tables);
        (loads, unresolved)
    }

    fn file(&self, id: FileId, file: &Inspected, folder: &str) -> FileLoads {
        let mut tied = FileLoads::default();
        if let Some(code) = &file.code {
            self.script(&mut tied, id, &code.found, folder);
        }
        self.style(&mut tied, &file.urls, folder);
        for call in &file.page_imports {
            if let Meant::File(file) = self.specifier(&call.request, folder) {
                tied.open(id, call, LoadKind::Import, vec![file]);
            }
        }
        tied
    }

    fn script(&self, tied: &mut FileLoads, id: FileId, found: &Found, folder: &str) {
        for load in &found.loads {
            let meant = self.specifier(load, folder);
            if let Some(file) = tied.found(meant, load, true) {
                tied.loads.push(file);
            }
        }
        let imports = found.imports.iter();
        let imports =
            imports.map(|call| (call, LoadKind::Import, self.specifier(&call.request, folder)));
        let workers = found.workers.iter();
        let workers =
            workers.map(|call| (call, LoadKind::Worker, self.urls.url(&call.request, folder)));
        for (call, kind, meant) in imports.chain(workers) {
            if meant == Meant::Missing {
                tied.nowhere.push((call.at, Some(call.request.clone())));
            }
            if let Some(first) = tied.found(meant, &call.request, call.at_once) {
                tied.open(id, call, kind, self.group(first, call, folder));
            }
        }
        tied.nowhere.extend(found.unknown.iter().map(|&at| (at, None)));
        for call in &found.chunks {
            // What merely looks like a chunk's id is none that any script registers.
            let files = call.requests().flat_map(|chunk| self.chunks.files(chunk)).copied();
            let mut files: Vec<FileId> = files.filter(|file| *file != id).collect();
            self.chunks.lead_with(call.opens.as_deref(), &mut files);
            if !files.is_empty() {
                let with_styles = files
                    .iter()
                    .flat_map(|&file| std::iter::once(file).chain((self.styles_of)(file)));
                tied.open(id, call, LoadKind::Import, once_each(with_styles.collect()));
            }
        }
        self.keyed(tied, id, found);
        for name in &found.assets {
            let here = self.urls.url(name, folder);
            let meant = if matches!(here, Meant::File(_)) { here } else { self.urls.url(name, "") };
            if let Meant::File(file) = meant {
                tied.assets.push(file);
            }
        }
    }

    /// What is asked for by keys: of several at once, those that are none are other texts.
    fn keyed(&self, tied: &mut FileLoads, id: FileId, found: &Found) {
        for call in &found.keyed {
            let mut known = call.requests().filter_map(|key| self.chunks.keyed(key)).peekable();
            if known.peek().is_none() && !found.keys_are_guessed {
                tied.nowhere.push((call.at, Some(call.request.clone())));
            }
            let mut files = Vec::new();
            let mut opened = call.opens.as_ref();
            for Keyed { files: known, others, opens } in known {
                files.extend(known);
                files.extend(others.iter().filter_map(|name| self.imported(name)));
                opened = opened.or(opens.as_ref());
            }
            self.chunks.lead_with(opened.map(String::as_str), &mut files);
            files.retain(|file| *file != id);
            if !files.is_empty() {
                tied.open(id, call, LoadKind::Import, once_each(files));
            }
        }
    }

    /// All files of a dynamic load: what it asks for, what a preload wrapper fetches along with it, and
    /// styles of its name.
    fn group(&self, first: FileId, call: &DynamicCall, folder: &str) -> Vec<FileId> {
        let mut files = vec![first];
        for name in &call.along {
            // Preload lists are relative to the site's root unless they say otherwise.
            let from = if name.starts_with('.') { folder } else { "" };
            if let Meant::File(file) = self.urls.url(name, from) {
                files.push(file);
            }
        }
        files.extend((self.styles_of)(first));
        once_each(files)
    }

    fn style(&self, tied: &mut FileLoads, urls: &StyleUrls, folder: &str) {
        for url in &urls.needed {
            let meant = self.urls.url(url, folder);
            if let Some(file) = tied.found(meant, url, true) {
                tied.loads.push(file);
            }
        }
        for url in &urls.perhaps {
            match self.urls.url(url, folder) {
                Meant::File(file) => tied.assets.push(file),
                Meant::External if names_host(url) => tied.elsewhere.push(elsewhere(url, false)),
                _ => {}
            }
        }
    }

    /// The file that an import map ties a name to.
    fn imported(&self, name: &str) -> Option<FileId> {
        match self.urls.url(&self.imports.url(name)?, "") {
            Meant::File(file) => Some(file),
            _ => None,
        }
    }

    fn specifier(&self, text: &str, folder: &str) -> Meant {
        match self.imports.url(text) {
            Some(url) => self.urls.url(&url, ""),
            None => self.urls.specifier(text, folder),
        }
    }
}

impl FileLoads {
    /// The file that was meant; else takes note of what it is instead.
    fn found(&mut self, meant: Meant, written: &str, is_at_once: bool) -> Option<FileId> {
        match meant {
            Meant::File(file) => return Some(file),
            Meant::External => {
                self.externals.push(written.to_owned());
                if names_host(written) {
                    self.elsewhere.push(elsewhere(written, is_at_once));
                }
            }
            Meant::Missing => self.lost.push(written.to_owned()),
            Meant::Nothing => {}
        }
        None
    }

    fn open(&mut self, file: FileId, call: &DynamicCall, kind: LoadKind, files: Vec<FileId>) {
        let when = if call.at_once { When::AtOnce } else { When::Later };
        let (request, routes) = (call.request.clone(), call.routes.clone());
        if call.key.as_deref() == Some(TABLE) {
            self.tables.insert(call.at);
        }
        let load = DynamicLoad { file, module: None, kind, when, request, files, routes };
        self.dynamic.push((call.at, load));
    }
}

fn elsewhere(url: &str, is_at_once: bool) -> Elsewhere {
    let when = if is_at_once { When::AtOnce } else { When::Later };
    Elsewhere { url: shortened(url), when }
}

/// The property that brings a table of routes, in Angular's router.
const TABLE: &str = "loadChildren";

/// Joins the routes of tables that are loaded on demand to the routes that these stand below, and tells
/// the loads of the tables which routes need them. `tables` are places of such loads.
fn join_tables(loads: &mut [DynamicLoad], tables: &BTreeSet<usize>) {
    let lead = |at: usize| loads[at].files.first().copied();
    let inner: BTreeSet<FileId> = tables.iter().filter_map(|&at| lead(at)).collect();
    let outermost = tables.iter().copied().filter(|&at| !inner.contains(&loads[at].file));
    let mut seen = BTreeSet::new();
    for at in outermost.collect::<Vec<_>>() {
        join_table(loads, tables, at, &mut seen);
    }
}

/// Joins one table, whose own routes are known from the start.
fn join_table(
    loads: &mut [DynamicLoad],
    tables: &BTreeSet<usize>,
    at: usize,
    seen: &mut BTreeSet<FileId>,
) {
    let above = loads[at].routes.clone();
    let Some(lead) = loads[at].files.first().copied().filter(|lead| seen.insert(*lead)) else {
        return;
    };
    let inside = (0..loads.len()).filter(|&inner| inner != at && loads[inner].file == lead);
    for inner in inside.collect::<Vec<_>>() {
        let own = std::mem::take(&mut loads[inner].routes);
        let joined = above.iter().flat_map(|above| {
            own.iter().map(move |own| match own.as_str() {
                "/" => above.clone(),
                own => format!("{}{own}", above.trim_end_matches('/')),
            })
        });
        loads[inner].routes = joined.collect();
        if tables.contains(&inner) {
            join_table(loads, tables, inner, seen);
        }
        let below = loads[inner].routes.clone();
        loads[at].routes.extend(below);
    }
    loads[at].routes = once_each(std::mem::take(&mut loads[at].routes));
}

/// The first of each, in order.
pub fn once_each<T: Clone + Ord>(items: Vec<T>) -> Vec<T> {
    let mut seen = BTreeSet::new();
    items.into_iter().filter(|item| seen.insert(item.clone())).collect()
}
