//! Looks into every file once: digest, loads, and whose bytes they are.
//!
//! Files are independent, so they are looked into in parallel, the costliest first: one large script
//! would else leave cores idle at the end. A script is parsed at most once.

use std::{
    collections::{BTreeSet, HashMap, HashSet},
    ops::Range,
    path::Path,
    str,
};

use rayon::iter::{ParallelBridge, ParallelIterator};
use uvlet_record::{Format, Kind, Notice, Remark, sizes::Coded};
use uvlet_script::{Script, Statement, drawing::Drawing};

use crate::{
    assemble::{
        described_sources::DescribedSources,
        module_spans::{self, Contents, ModuleSpan, Spans},
    },
    coded::CodedFile,
    descriptions::{
        described::{DescribedFile, DescribedId},
        find::Candidate,
        frameworks::framework::Written,
    },
    files::{
        marks::CodeMarks,
        page::{self, Inline, Page},
        source_map::{self, MapSources, MapSpans},
        style::{self, StyleUrls},
    },
    folder::{
        self,
        list::{Listed, Listing},
        text::Text,
    },
    formats::{self, ScriptFacts, format::DynamicCall},
    project::glue,
};

/// What one file holds.
#[derive(Debug, Default)]
pub struct Inspected {
    /// Half of the BLAKE3 hash of the bytes, in hexadecimal digits.
    pub digest: String,
    /// Itself in every coding that is taken.
    pub coded: Coded<CodedFile>,
    /// A script's loads; not looked for where the bundler says them.
    pub code: Option<ScriptFacts>,
    /// Where it asks for chunks by id, if the bundler says what these are.
    pub chunk_calls: Vec<DynamicCall>,
    /// The modules of its table, if the bundler says what it loads.
    pub modules: BTreeSet<String>,
    /// What it draws first, where it has components that load.
    pub drawing: Option<Drawing>,
    /// How a script is put together.
    pub format: Format,
    /// How a script was made.
    pub marks: CodeMarks,
    /// A style's URLs.
    pub urls: StyleUrls,
    /// Where code stands in a page, and whether a tool wrote it for itself.
    pub inline: Vec<(Range<usize>, bool)>,
    /// Where fonts and pictures stand in a style.
    pub inlined: Vec<Range<usize>>,
    /// A page's asks.
    pub page: Option<Page>,
    /// What a page's inline code asks for on demand.
    pub page_imports: Vec<DynamicCall>,
    /// URLs of other hosts that code gives to elements.
    pub hosts: Vec<DynamicCall>,
    /// Whose bytes they are, where a map says so.
    pub mapped: Option<MapSpans>,
    /// Whose bytes they are without a map, as far as the code tells: by modules of the description
    /// at this place among the candidates.
    pub apart: Option<(usize, Vec<ModuleSpan>)>,
    /// Without a map or a description, its text or name shows that the bundler wrote all of it.
    pub is_glue: bool,
    /// What went wrong.
    pub notices: Vec<Notice>,
}

impl Inspected {
    /// Takes in what a framework says of the file; a map knows better.
    pub fn written_by(&mut self, written: Option<Written>) {
        match written {
            Some(Written::From(source)) if self.mapped.is_none() => {
                self.mapped = Some(MapSpans::whole(source));
            }
            Some(Written::Itself) => self.is_glue = true,
            _ => {}
        }
    }
}

/// What is known before files are looked into.
pub struct Inspector<'a> {
    listing: &'a Listing,
    maps: MapSources<'a>,
    /// Names of files that code may hold in strings.
    names: HashSet<&'a str>,
    candidates: &'a [Candidate],
    sources: Vec<DescribedSources<'a>>,
    /// Per path, the description that tells most of it.
    by_path: HashMap<&'a str, Said<'a>>,
    /// Modules that load something on demand, as the descriptions say.
    asking: Vec<HashSet<DescribedId>>,
}

/// What is said of a file: by which candidate, and what.
#[derive(Clone, Copy)]
struct Said<'a> {
    by: usize,
    file: &'a DescribedFile,
}

impl<'a> Inspector<'a> {
    pub fn new(
        listing: &'a Listing,
        maps: MapSources<'a>,
        candidates: &'a [Candidate],
        root: Option<&Path>,
    ) -> Self {
        let names = listing
            .counted
            .iter()
            .filter(|(_, kind)| kind.is_asset() || *kind == Kind::Style)
            .filter_map(|(file, _)| file.path.rsplit('/').next())
            .collect();
        let mut order: Vec<usize> = (0..candidates.len()).collect();
        order.sort_by_key(|&by| candidates[by].rank());
        let mut by_path = HashMap::new();
        for by in order {
            let files = candidates[by].described.files.iter();
            by_path.extend(files.map(|file| (file.path.as_str(), Said { by, file })));
        }
        let asking = |candidate: &Candidate| {
            candidate.described.loads.iter().map(|load| load.module).collect()
        };
        Self {
            listing,
            maps,
            names,
            candidates,
            sources: candidates.iter().map(|one| DescribedSources::of(one, root)).collect(),
            by_path,
            asking: candidates.iter().map(asking).collect(),
        }
    }

    /// Looks into every counted file but for its coded sizes; results stand in the same order.
    pub fn inspect(&self) -> Vec<Inspected> {
        each(self.listing, |file, kind| {
            let mut part = Inspected::default();
            match Text::of(file) {
                Ok(text) => self.read(&mut part, file, kind, &text),
                Err(error) => part.notices.push(folder::unreadable(&file.path, &error)),
            }
            part
        })
    }

    fn read(&self, part: &mut Inspected, file: &Listed, kind: Kind, bytes: &[u8]) {
        part.digest = blake3::hash(bytes).to_hex()[..32].to_owned();
        if !matches!(kind, Kind::Script | Kind::Style | Kind::Page) {
            return;
        }
        let decoded;
        let text = match str::from_utf8(bytes) {
            Ok(text) => text,
            // Tags and URLs read the same in the older encodings of pages and styles.
            Err(_) if kind != Kind::Script => {
                decoded = bytes.iter().map(|&byte| char::from(byte)).collect::<String>();
                &decoded
            }
            Err(error) => {
                let remark = Remark::NotUtf8 { at: error.valid_up_to() as u64 };
                part.notices.push(Notice::at(&file.path, remark));
                return;
            }
        };
        match kind {
            Kind::Page => Self::page(part, text, bytes.len()),
            Kind::Style => {
                part.urls = style::urls(text);
                part.inlined = style::inlined(text);
                part.mapped = self.map(file, bytes, &[], &mut part.notices);
                self.soften(part, file);
            }
            _ => self.script(part, file, text),
        }
    }

    fn page(part: &mut Inspected, text: &str, length: usize) {
        let mut page = page::read(text);
        part.inline = places(text, length, &page.inline);
        let mut loads = Vec::new();
        for (at, inline) in page.inline.iter().enumerate() {
            if inline.script_after.is_some()
                && let Ok((facts, ())) = formats::read(&inline.text, &|_| false, |_, _| ())
            {
                loads.push((at, facts.found.loads));
                part.page_imports.extend(facts.found.imports);
                part.hosts.extend(facts.found.hosts);
            }
        }
        page.take_loads(loads);
        part.page = Some(page);
    }

    fn script(&self, part: &mut Inspected, file: &Listed, text: &str) {
        let said = self.by_path.get(file.path.as_str()).copied();
        match said {
            Some(said) if self.says_loads(said) => self.described_script(part, file, text, said),
            _ => self.plain_script(part, file, text, said),
        }
        self.soften(part, file);
    }

    fn says_loads(&self, said: Said<'_>) -> bool {
        self.candidates[said.by].described.can.says_loads && !said.file.ids.is_empty()
    }

    /// A script whose loads are said. It is parsed only for when a chunk is asked for, whether bodies
    /// are evaluated, and which module stands where.
    fn described_script(&self, part: &mut Inspected, file: &Listed, text: &str, said: Said<'_>) {
        part.format = Format::Registry;
        part.marks = CodeMarks::of(text.as_bytes());
        part.mapped = self.map(file, text.as_bytes(), &[], &mut part.notices);
        let mut modules = said.file.slots.iter().flat_map(|slot| &slot.modules);
        let is_asking = modules.any(|module| self.asking[said.by].contains(module));
        let evaluates = || memchr::memmem::find(text.as_bytes(), b"//# sourceURL=").is_some();
        let is_open = part.mapped.is_none();
        if !is_asking && !is_open && !evaluates() && !names_a_host(text) {
            return;
        }
        let apart = |script: &Script<'_>| is_open.then(|| self.apart(script, said)).flatten();
        if let Ok((facts, apart)) = formats::read(text, &|_| false, |script, _| apart(script)) {
            part.marks = facts.marks;
            part.chunk_calls = facts.found.chunks;
            part.drawing = facts.found.drawing;
            part.modules = facts.chunks.modules;
            part.hosts = facts.found.hosts;
            Self::take(part, file, said.by, apart);
        }
    }

    fn plain_script(
        &self,
        part: &mut Inspected,
        file: &Listed,
        text: &str,
        said: Option<Said<'_>>,
    ) {
        let is_file = |name: &str| self.names.contains(name);
        let more = |script: &Script<'_>, facts: &ScriptFacts| {
            let mut notices = Vec::new();
            let mapped = self.map(file, text.as_bytes(), &facts.statements, &mut notices);
            let said = said.filter(|_| mapped.is_none());
            let apart = said.and_then(|said| self.apart(script, said));
            (mapped, apart, notices)
        };
        match formats::read(text, &is_file, more) {
            Ok((mut facts, (mapped, apart, notices))) => {
                part.format = facts.format;
                part.marks = facts.marks.clone();
                part.is_glue = said.is_none() && is_bundlers(&file.path, text, &facts);
                part.hosts = std::mem::take(&mut facts.found.hosts);
                part.drawing = facts.found.drawing.take();
                part.code = Some(facts);
                part.mapped = mapped;
                part.notices = notices;
                if let Some(said) = said.filter(|_| part.mapped.is_none()) {
                    let has_lengths =
                        said.file.rendered.as_ref().is_some_and(|lengths| lengths.len() > 1);
                    if has_lengths && apart.is_none() {
                        let remark = Remark::LengthsBeforeMinification;
                        part.notices.push(Notice::at(&file.path, remark));
                    }
                    Self::take(part, file, said.by, apart);
                }
            }
            Err(error) => {
                let remark = Remark::ScriptUnparsed { reason: error.to_string() };
                part.notices.push(Notice::at(&file.path, remark));
                part.mapped = self.map(file, text.as_bytes(), &[], &mut part.notices);
            }
        }
    }

    fn map(
        &self,
        file: &Listed,
        text: &[u8],
        statements: &[Statement],
        notices: &mut Vec<Notice>,
    ) -> Option<MapSpans> {
        source_map::spans(file, text, statements, &self.maps, notices)
    }

    /// Which module stands where, as far as description and code tell.
    fn apart(&self, script: &Script<'_>, said: Said<'_>) -> Option<Spans> {
        let described = &self.candidates[said.by].described;
        let source_of = |module: DescribedId| self.sources[said.by].text(module);
        let contents = Contents { described, file: said.file, source_of: &source_of };
        if described.can.has_tables {
            return module_spans::of_table(script, contents);
        }
        let lengths = said.file.rendered.as_ref().filter(|lengths| lengths.len() > 1)?;
        module_spans::of_row(script, lengths, contents)
    }

    fn take(part: &mut Inspected, file: &Listed, by: usize, apart: Option<Spans>) {
        let Some(Spans { list, by_size }) = apart else { return };
        if by_size {
            part.notices.push(Notice::at(&file.path, Remark::MergedBySize));
        }
        part.apart = Some((by, list));
    }

    /// Without its map, a file may have owners all the same: by what the bundler says of it.
    fn soften(&self, part: &mut Inspected, file: &Listed) {
        let said = self.by_path.get(file.path.as_str());
        let has_owners = said.is_some_and(|said| {
            let file = said.file;
            file.counted.is_some() || file.rendered.is_some() || !file.slots.is_empty()
        });
        for notice in &mut part.notices {
            if let Remark::MapMissing { is_described, .. } = &mut notice.remark {
                *is_described = has_owners;
            }
        }
    }
}

/// Whether an element is given a URL with a host, as far as the text alone tells.
fn names_a_host(text: &str) -> bool {
    memchr::memmem::find_iter(text.as_bytes(), b".src=").any(|at| {
        let given = text[at + 5..].trim_start_matches(['"', '\'', '`']);
        given.starts_with("https://") || given.starts_with("http://") || given.starts_with("//")
    })
}

/// Whether a script is a runtime or a helper alone, which bundlers write without a map.
fn is_bundlers(path: &str, text: &str, code: &ScriptFacts) -> bool {
    /// Bytes of the largest helper, not minified.
    const HELPER: usize = 6000;
    /// Bytes of the largest runtime.
    const RUNTIME: usize = 16_000;
    let chunks = &code.chunks;
    let is_bare = !chunks.has_table && !chunks.starts && !chunks.registers;
    let name = path.rsplit('/').next().unwrap_or(path);
    let is_named = ["rolldown-runtime", "preload-helper", "commonjsHelpers", "_commonjsHelpers"]
        .iter()
        .any(|helper| name.starts_with(helper));
    let preloads = || memchr::memmem::find(text.as_bytes(), b"vite:preloadError").is_some();
    (chunks.runtime && is_bare && text.len() < RUNTIME)
        || (text.len() < HELPER && code.found.loads.is_empty() && (is_named || preloads()))
}

/// Where the scripts and styles of a page stand in it. Text that is not found as it was read, since
/// line ends or the encoding are others, is looked for no further.
fn places(text: &str, length: usize, parts: &[Inline]) -> Vec<(Range<usize>, bool)> {
    if text.len() != length {
        return Vec::new();
    }
    let mut found = Vec::new();
    let mut from = 0;
    for Inline { text: part, script_after } in parts {
        if let Some(at) = memchr::memmem::find(&text.as_bytes()[from..], part.as_bytes()) {
            let start = from + at;
            from = start + part.len();
            found.push((start..from, script_after.is_some() && glue::is_inline_glue(part)));
        }
    }
    found
}

/// Does something for every counted file, in parallel, the largest first.
fn each<T: Send>(listing: &Listing, work: impl Fn(&Listed, Kind) -> T + Sync) -> Vec<T> {
    let mut order: Vec<usize> = (0..listing.counted.len()).collect();
    order.sort_by_key(|&at| (std::cmp::Reverse(listing.counted[at].0.bytes), at));
    let mut done: Vec<(usize, T)> = order
        .into_iter()
        .par_bridge()
        .map(|at| {
            let (file, kind) = &listing.counted[at];
            (at, work(file, *kind))
        })
        .collect();
    done.sort_unstable_by_key(|&(at, _)| at);
    done.into_iter().map(|(_, result)| result).collect()
}
