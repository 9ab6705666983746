//! The record, step by step from what was read.

use std::{collections::BTreeSet, path::Path};

use uvlet_record::{
    Aside, Bundler, DynamicLoad, Entry, FileId, Format, Mode, ModeBasis, ModuleId, Notice, Owner,
    Record, SCHEMA, Unresolved, sizes::Coded,
};

use uvlet_script::drawing::Drawn;

use crate::{
    assemble::{
        cells::{self, Accounts, Evidence},
        chunk_files::ChunkFiles,
        chunk_names, chunks,
        described_loads::DescribedLoads,
        described_sources,
        drawn::{self, Ties},
        edges,
        entries::{self, inferred::Scripts, routes::Routes},
        loads::LoadResolver,
        mode,
        modules::Modules,
        read::Read,
        roots,
        site::Site,
        texts::FolderTexts,
    },
    files::marks::CodeMarks,
    folder::{
        hashes::{self, Hashes},
        urls::{Urls, folder_of},
    },
    formats::format::Chunks,
    options::Options,
};

/// All that a record is made of.
pub(super) struct Build<'a> {
    pub(super) path: &'a Path,
    pub(super) options: &'a Options,
    pub(super) read: Read,
    pub(super) precompressed: Coded<u64>,
}

/// Who needs whom.
struct Connected {
    loads: Vec<DynamicLoad>,
    unresolved: Vec<Unresolved>,
    entries: Vec<Entry>,
    chunks: Vec<uvlet_record::Chunk>,
}

impl Build<'_> {
    pub(super) fn record(mut self, mut notices: Vec<Notice>) -> (Record, FolderTexts) {
        let read = &self.read;
        let described = read.described();
        let hashes = Hashes::find(read.paths());
        let mut accounts = cells::accounts(Evidence {
            listing: &read.listing,
            inspected: &read.inspected,
            modules: &read.modules,
            described: read.chosen.zip(described),
        });
        let Connected { loads, unresolved, entries, chunks } =
            self.connected(&hashes, &mut accounts, &mut notices);
        let (mode, mode_evidence) = self.mode(&accounts);
        let names_are_given = described.is_some_and(|described| described.can.gives_names);
        let mut record = self.head(mode, mode_evidence);
        record.notices = notices;
        (record.files, record.cells, record.runs) = (accounts.files, accounts.cells, accounts.runs);
        (record.entries, record.chunks) = (entries, chunks);
        (record.dynamic_loads, record.unresolved) = (loads, unresolved);
        let read = &mut self.read;
        record.set_aside = std::mem::take(&mut read.set_aside);
        record.edges = std::mem::take(&mut read.edges);
        record.modules = std::mem::take(&mut read.modules.list);
        record.packages = std::mem::take(&mut read.modules.packages);
        chunk_names::give(&mut record, &hashes, names_are_given);
        let mut texts = self.texts(&record);
        if self.options.sources {
            let root = self.options.root.as_deref();
            if let Some(numbers) = edges::look_into_sources(&mut record, &texts, root) {
                texts.renumber(&numbers, &record);
            }
        }
        roots::give(&mut record);
        record.notices.sort();
        record.notices.dedup();
        // A great many small things, which another thread can give back while the answer is made.
        let read = self.read;
        rayon::spawn(move || drop(read));
        (record, texts)
    }

    /// A record that says what the build is, and holds nothing yet.
    fn head(&self, mode: Mode, mode_evidence: Vec<ModeBasis>) -> Record {
        let described = self.read.described();
        let targets = &self.read.targets;
        let said_target = described.and_then(|described| described.target.as_ref());
        let basis = said_target.filter(|(said, _)| *said == targets.chosen);
        let levels = self.options.coder.levels.iter();
        let aside = self.read.listing.aside.iter();
        Record {
            schema: SCHEMA,
            label: self.options.label.clone().unwrap_or_else(|| label_of(self.path)),
            bundler: described.and_then(|described| described.bundler).or_else(|| self.bundler()),
            bundler_version: described.and_then(|described| described.version.clone()),
            framework: self
                .read
                .site
                .as_ref()
                .map(|site| site.framework(self.options.root.as_deref())),
            mode,
            mode_evidence,
            target: targets.chosen,
            target_basis: basis.map_or(&targets.basis, |(_, basis)| basis).clone(),
            set_aside: Vec::new(),
            precompressed: self.precompressed,
            encoders: levels.map(|(&coding, &level)| (coding, coding.encoder(level))).collect(),
            files: Vec::new(),
            cells: Vec::new(),
            runs: Vec::new(),
            modules: Vec::new(),
            packages: Vec::new(),
            chunks: Vec::new(),
            entries: Vec::new(),
            dynamic_loads: Vec::new(),
            unresolved: Vec::new(),
            edges: Vec::new(),
            unresolved_requests: Vec::new(),
            aside: aside
                .map(|(file, kind)| Aside {
                    path: file.path.clone(),
                    kind: *kind,
                    bytes: file.bytes,
                })
                .collect(),
            notices: Vec::new(),
            texts: None,
        }
    }

    /// Who bundled, where no description says so: as the framework or the format of scripts tells.
    fn bundler(&self) -> Option<Bundler> {
        let by_site = self.read.site.as_ref().map(|site| site.output.about().bundler);
        let is_of_vite = || self.read.inspected.iter().any(|file| file.marks.preloads_modules);
        let by_site = by_site.or_else(|| is_of_vite().then_some(Bundler::Vite));
        let is_of_esbuild = || hashes::are_shared_by_esbuild(self.read.paths());
        let by_site = by_site.or_else(|| is_of_esbuild().then_some(Bundler::Esbuild));
        by_site.or_else(|| {
            let mut formats = self.read.inspected.iter().map(|file| file.format);
            formats.find_map(|format| match format {
                Format::Turbopack => Some(Bundler::Turbopack),
                Format::Parcel => Some(Bundler::Parcel),
                _ => None,
            })
        })
    }

    /// Ties files to what they load, finds entries and chunks.
    fn connected(
        &self,
        hashes: &Hashes,
        accounts: &mut Accounts,
        notices: &mut Vec<Notice>,
    ) -> Connected {
        let read = &self.read;
        let (inspected, modules) = (read.inspected.as_slice(), &read.modules);
        let described = read.described();
        let mut urls = Urls::new(read.paths(), self.options.base.as_deref());
        if let Some(site) = &read.site {
            urls = urls.served(&site.served);
        }
        for id in entries::pages::modules(&accounts.files, inspected, &urls) {
            let format = &mut accounts.files[id.at()].format;
            if *format == Format::Classic {
                *format = Format::Es;
            }
        }
        let mut pages = entries::pages::asked(&accounts.files, inspected, &urls, notices);
        for page in &mut pages {
            accounts.files[page.id.at()].elsewhere = std::mem::take(&mut page.elsewhere);
        }
        let asked = pages.iter().flat_map(|page| page.asks.iter().chain(&page.legacy));
        let asked: BTreeSet<FileId> = asked.copied().collect();
        let styles_of = chunks::styles_of(&accounts.files, hashes, described);
        let own_styles = |script: FileId| styles_of.get(&script).cloned().unwrap_or_default();
        let unasked_styles = |script: FileId| {
            let mut styles = own_styles(script);
            styles.retain(|style| !asked.contains(style));
            styles
        };
        let said: Vec<Option<&Chunks>> =
            inspected.iter().map(|file| file.code.as_ref().map(|code| &code.chunks)).collect();
        let calls = inspected.iter().filter_map(|file| file.code.as_ref());
        let calls = calls.flat_map(|code| &code.found.chunks);
        let chunk_files = ChunkFiles::find(&accounts.files, &said, calls);
        let specifiers = read.site.iter().flat_map(|site| &site.specifiers);
        let resolver = LoadResolver::new(&urls, &chunk_files, &unasked_styles, inspected);
        let resolver = resolver.with_specifiers(specifiers);
        let folders: Vec<&str> = read.paths().map(folder_of).collect();
        let specifier = |file: FileId, text: &str| resolver.file_of(text, folders[file.at()]);
        let rendered: Vec<(Vec<FileId>, Vec<Drawn>)> = match &read.site {
            Some(site) => pages
                .iter()
                .filter_map(|page| {
                    let drawn = site.output.drawn(inspected[page.id.at()].page.as_ref()?);
                    Some((page.asks.clone(), drawn))
                })
                .collect(),
            None => Vec::new(),
        };
        let drawn = drawn::drawn(&Ties {
            listing: &read.listing,
            inspected,
            specifier: &specifier,
            pages: &rendered,
        });
        let resolver = resolver.with_drawn(drawn);
        let (mut loads, unresolved) = resolver.connect(accounts, inspected, notices);
        let mut bundled = Vec::new();
        if let Some(described) = described {
            let drawn = resolver.drawn();
            DescribedLoads { described, modules, inspected, accounts, drawn }.add_to(&mut loads);
            let files = &accounts.files;
            bundled = entries::described::of_bundler(described, modules, files, hashes);
        }
        let files = &accounts.files;
        let mut entries = match &read.site {
            Some(Site { output, routes, .. }) => {
                let (output, loads) = (output.as_ref(), &loads);
                let routes = Routes { output, said: routes, files, urls: &urls, loads };
                let mut entries = routes.entries(pages);
                entries::described::give_roots(&mut entries, &bundled, files);
                entries
            }
            None => {
                let entries = entries::pages::of_pages(files, pages);
                entries::described::tied(entries, bundled, files)
            }
        };
        if entries.is_empty() {
            let root = self.options.root.as_deref();
            entries = entries::package::of_package(self.path, root, &accounts.files);
        }
        if entries.is_empty() {
            let scripts = Scripts { files: &accounts.files, said: &said, chunks: &chunk_files };
            entries = entries::inferred::inferred(&scripts, &loads, hashes, &own_styles, notices);
        }
        let mut chunks = chunks::chunks(&accounts.files, &loads, &own_styles);
        if let Some(described) = described {
            chunks::name(described, modules, &accounts.files, &mut chunks);
        }
        Connected { loads, unresolved, entries, chunks }
    }

    fn mode(&self, accounts: &Accounts) -> (Mode, Vec<ModeBasis>) {
        let read = &self.read;
        let marks: Vec<(&str, &CodeMarks)> =
            read.paths().zip(read.inspected.iter().map(|file| &file.marks)).collect();
        let shipped = accounts.cells.iter().filter(|cell| cell.amount.emitted > 0);
        let shipped: BTreeSet<ModuleId> = shipped
            .filter_map(|cell| match cell.owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let said = read.described().and_then(|described| described.mode.as_ref());
        mode::judge(&marks, shipped.iter().map(|id| &read.modules.list[id.at()]), said)
    }

    /// Where the texts of files and modules are.
    fn texts(&self, record: &Record) -> FolderTexts {
        let read = &self.read;
        let Modules { sources, described, .. } = &read.modules;
        let module = |owner: &Owner| match owner {
            Owner::Module(id) => Some(*id),
            _ => None,
        };
        let ids = (0..record.modules.len()).map(ModuleId::new);
        let locations = ids.map(|id| record.location_of(id).into_owned());
        let mut texts = FolderTexts::new(self.options.root.as_deref(), locations);
        let files = read.listing.counted.iter().zip(&read.inspected);
        for (at, ((file, _), inspected)) in files.enumerate() {
            let map = inspected.mapped.as_ref().map(|map| {
                let owners = sources.get(at).into_iter().flatten();
                (map.disk.clone(), owners.map(module).collect())
            });
            texts.add_file(file, map);
        }
        if let Some(candidate) = read.chosen.map(|at| &read.found.candidates[at]) {
            let modules = candidate.described.modules.iter();
            let places = modules
                .zip(described)
                .filter_map(|(said, owner)| Some((module(owner), described_sources::place(said)?)));
            texts.add_described(&candidate.file, places);
        }
        texts
    }
}

/// The folder's own name; `.` and `..` are looked up, since they name nothing.
fn label_of(path: &Path) -> String {
    let name = path.file_name().map(ToOwned::to_owned).or_else(|| {
        let full = path.canonicalize().ok()?;
        full.file_name().map(ToOwned::to_owned)
    });
    name.map_or_else(|| "build".to_owned(), |name| name.to_string_lossy().into_owned())
}
