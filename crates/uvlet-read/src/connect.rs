//! Who needs whom: what the URLs, specifiers and chunk ids in a file mean.

use std::collections::BTreeSet;

use uvlet_record::{DynamicLoad, EdgeKind, FileId, Notice, Unresolved, When};

use crate::{
    accounts::Ledger,
    emitted::{Emitted, Opened},
    examine::Examined,
    html::Imports,
    registry::Chunks,
    resolve::{Meant, Resolver, folder_of},
    sourcemaps::shortened,
    styles::Urls,
};

/// What the meaning of a load depends on.
pub struct Connector<'a> {
    resolver: &'a Resolver<'a>,
    chunks: &'a Chunks,
    /// Styles that arrive with a script because they share its name.
    styles_of: &'a dyn Fn(FileId) -> Vec<FileId>,
    /// Bare specifiers that an import map ties to URLs.
    imports: Imports,
}

/// What one file needs.
#[derive(Default)]
struct Tied {
    loads: Vec<FileId>,
    names: Vec<FileId>,
    externals: Vec<String>,
    openings: Vec<(u64, DynamicLoad)>,
    lost: Vec<String>,
    /// Dynamic loads that lead nowhere, by place.
    nowhere: Vec<(u64, Option<String>)>,
}

impl<'a> Connector<'a> {
    pub fn new(
        resolver: &'a Resolver<'a>,
        chunks: &'a Chunks,
        styles_of: &'a dyn Fn(FileId) -> Vec<FileId>,
        examined: &'a [Examined],
    ) -> Self {
        let pages = examined.iter().filter_map(|file| file.page.as_ref());
        let mut imports = Imports::default();
        pages.for_each(|page| imports.extend(&page.imports));
        Self { resolver, chunks, styles_of, imports }
    }

    /// Ties every file to what it needs; returns what is loaded on demand, and what leads nowhere.
    pub fn connect(
        &self,
        ledger: &mut Ledger,
        examined: &[Examined],
        notices: &mut Vec<Notice>,
    ) -> (Vec<DynamicLoad>, Vec<Unresolved>) {
        let mut openings = Vec::new();
        let mut unresolved = Vec::new();
        for (at, file) in examined.iter().enumerate() {
            let id = FileId::new(at);
            let path = ledger.files[at].path.clone();
            let mut tied = self.file(id, file, folder_of(&path));
            for (position, mut opening) in tied.openings.drain(..) {
                opening.module = ledger.module_at(id, position);
                openings.push(opening);
            }
            for (position, request) in tied.nowhere.drain(..) {
                let module = ledger.module_at(id, position);
                unresolved.push(Unresolved { file: id, module, request });
            }
            notices.extend(tied.lost.iter().map(|what| {
                let what = shortened(what);
                let message = format!("asks for {what}, which the folder does not hold");
                Notice::new("file-missing", message, Some(&path))
            }));
            let record = &mut ledger.files[at];
            record.loads = once_each(tied.loads);
            record.names = once_each(tied.names);
            record.names.retain(|file| !record.loads.contains(file) && *file != id);
            record.externals = once_each(tied.externals);
        }
        unresolved.sort();
        unresolved.dedup();
        (openings, unresolved)
    }

    fn file(&self, id: FileId, file: &Examined, folder: &str) -> Tied {
        let mut tied = Tied::default();
        if let Some(code) = &file.code {
            self.script(&mut tied, id, code, folder);
        }
        self.style(&mut tied, &file.urls, folder);
        for opened in file.page.iter().flat_map(|page| &page.openings) {
            if let Meant::File(file) = self.specifier(&opened.request, folder) {
                tied.open(id, opened, EdgeKind::Dynamic, vec![file]);
            }
        }
        tied
    }

    fn script(&self, tied: &mut Tied, id: FileId, code: &Emitted, folder: &str) {
        for load in &code.loads {
            let meant = self.specifier(load, folder);
            if let Some(file) = tied.found(meant, load) {
                tied.loads.push(file);
            }
        }
        let imports = code
            .openings
            .iter()
            .map(|opened| (opened, EdgeKind::Dynamic, self.specifier(&opened.request, folder)));
        let workers = code
            .workers
            .iter()
            .map(|opened| (opened, EdgeKind::Worker, self.resolver.url(&opened.request, folder)));
        for (opened, kind, meant) in imports.chain(workers) {
            if meant == Meant::Missing {
                tied.nowhere.push((opened.at, Some(opened.request.clone())));
            }
            if let Some(first) = tied.found(meant, &opened.request) {
                tied.open(id, opened, kind, self.opened(first, opened, folder));
            }
        }
        tied.nowhere.extend(code.unknown.iter().map(|&at| (at, None)));
        for request in &code.chunk_requests {
            let files = self.chunks.files(&request.request);
            // What merely looks like a chunk's id is none that any script registers.
            if !files.is_empty() && !files.contains(&id) {
                let with_styles = files
                    .iter()
                    .flat_map(|&file| std::iter::once(file).chain((self.styles_of)(file)));
                tied.open(id, request, EdgeKind::Dynamic, once_each(with_styles.collect()));
            }
        }
        for name in &code.names {
            let here = self.resolver.url(name, folder);
            let meant =
                if matches!(here, Meant::File(_)) { here } else { self.resolver.url(name, "") };
            if let Meant::File(file) = meant {
                tied.names.push(file);
            }
        }
    }

    /// All files of an opening: what it asks for, what a preload wrapper fetches along with it, and
    /// styles of its name.
    fn opened(&self, first: FileId, opened: &Opened, folder: &str) -> Vec<FileId> {
        let mut files = vec![first];
        for name in &opened.along {
            // Preload lists are relative to the site's root unless they say otherwise.
            let from = if name.starts_with('.') { folder } else { "" };
            if let Meant::File(file) = self.resolver.url(name, from) {
                files.push(file);
            }
        }
        files.extend((self.styles_of)(first));
        once_each(files)
    }

    fn style(&self, tied: &mut Tied, urls: &Urls, folder: &str) {
        for url in &urls.needed {
            let meant = self.resolver.url(url, folder);
            if let Some(file) = tied.found(meant, url) {
                tied.loads.push(file);
            }
        }
        for url in &urls.perhaps {
            if let Meant::File(file) = self.resolver.url(url, folder) {
                tied.names.push(file);
            }
        }
    }

    fn specifier(&self, text: &str, folder: &str) -> Meant {
        match self.imports.url(text) {
            Some(url) => self.resolver.url(&url, ""),
            None => self.resolver.specifier(text, folder),
        }
    }
}

impl Tied {
    /// The file that was meant; else takes note of what it is instead.
    fn found(&mut self, meant: Meant, written: &str) -> Option<FileId> {
        match meant {
            Meant::File(file) => return Some(file),
            Meant::External => self.externals.push(written.to_owned()),
            Meant::Missing => self.lost.push(written.to_owned()),
            Meant::Nothing => {}
        }
        None
    }

    fn open(&mut self, file: FileId, opened: &Opened, kind: EdgeKind, files: Vec<FileId>) {
        let when = if opened.at_once { When::AtOnce } else { When::Later };
        let request = opened.request.clone();
        self.openings
            .push((opened.at, DynamicLoad { file, module: None, kind, when, request, files }));
    }
}

/// The first of each, in order.
pub fn once_each<T: Clone + Ord>(items: Vec<T>) -> Vec<T> {
    let mut seen = BTreeSet::new();
    items.into_iter().filter(|item| seen.insert(item.clone())).collect()
}
