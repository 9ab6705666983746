//! Looks into every file once: digest, loads, and whose bytes they are.
//!
//! Files are independent, so they are examined in parallel, the costliest first: one large script
//! would else leave cores idle at the end.

use std::{
    collections::{HashMap, HashSet},
    ops::Range,
    str,
};

use rayon::iter::{ParallelBridge, ParallelIterator};
use uvlet_ledger::walk::Statement;
use uvlet_record::{Bundler, Form, Kind, Notice, sizes::Coded};

use crate::{
    bodies::{self, Body, Texts},
    emitted::{self, Emitted, Opened},
    folder::{self, Listed, Listing, Text},
    html::{self, Page},
    judge::Look,
    sourcemaps::{self, MapSources, Owned},
    styles::{self, Urls},
    told::{Told, ToldFile},
    wire::Packed,
};

/// What one file holds.
#[derive(Debug, Default)]
pub struct Examined {
    /// Half of the BLAKE3 hash of the bytes, in hexadecimal digits.
    pub digest: String,
    /// Itself in every coding that is taken.
    pub packed: Coded<Packed>,
    /// A script's loads; not looked for where the bundler says them.
    pub code: Option<Emitted>,
    /// Where it asks for chunks by id, if the bundler says what these are.
    pub chunk_requests: Vec<Opened>,
    /// How a script is put together.
    pub form: Form,
    /// How a script looks.
    pub look: Look,
    /// A style's URLs.
    pub urls: Urls,
    /// Where code stands in a page.
    pub inline: Vec<Range<usize>>,
    /// A page's asks.
    pub page: Option<Page>,
    /// Whose bytes they are, where a map says so.
    pub owned: Option<Owned>,
    /// Whose bytes they are without a map, as far as the code tells.
    pub bodies: Option<Vec<Body>>,
    /// Without a map or a description, its text or name shows that the bundler wrote all of it.
    pub is_glue: bool,
    /// Its text, if texts are kept.
    pub text: Option<String>,
    /// What went wrong.
    pub notices: Vec<Notice>,
}

const MERGED: &str = "modules merged into one function are told apart by their sizes alone, which \
may be far off; --root DIR, with the sources, or `source: true` in the stats tells better";

const LENGTHS: &str = "has no source map, and only lengths from before minification are known: its \
modules may be off by tens of percent; a source map tells exactly, --root DIR with the sources better";

/// What is known before files are looked into.
pub struct Examiner<'a> {
    listing: &'a Listing,
    sources: MapSources<'a>,
    /// Names of files that code may hold in strings.
    names: HashSet<&'a str>,
    told: Option<&'a Told>,
    by_path: HashMap<&'a str, &'a ToldFile>,
    /// Modules that load something on demand, as the bundler says.
    asking: HashSet<usize>,
    texts: &'a Texts<'a>,
}

impl<'a> Examiner<'a> {
    pub fn new(
        listing: &'a Listing,
        sources: MapSources<'a>,
        told: Option<&'a Told>,
        texts: &'a Texts<'a>,
    ) -> Self {
        let names = listing
            .counted
            .iter()
            .filter(|(_, kind)| kind.is_asset() || *kind == Kind::Style)
            .filter_map(|(file, _)| file.path.rsplit('/').next())
            .collect();
        let by_path = told.map(Told::by_path).unwrap_or_default();
        let asking = told.iter().flat_map(|told| &told.openings);
        let asking = asking.map(|opening| opening.module).collect();
        Self { listing, sources, names, told, by_path, asking, texts }
    }

    /// Examines every counted file but for its coded sizes; results stand in the same order.
    pub fn examine(&self) -> Vec<Examined> {
        each(self.listing, |file, kind| {
            let mut part = Examined::default();
            match Text::of(file) {
                Ok(text) => self.read(&mut part, file, kind, &text),
                Err(error) => part.notices.push(folder::unreadable(&file.path, &error)),
            }
            part
        })
    }

    fn read(&self, part: &mut Examined, file: &Listed, kind: Kind, bytes: &[u8]) {
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
                let message = format!(
                    "is not UTF-8 at byte {}: what it loads is unknown",
                    error.valid_up_to()
                );
                part.notices.push(Notice::new("not-utf8", message, Some(&file.path)));
                return;
            }
        };
        part.text = self.sources.texts.then(|| text.to_owned());
        match kind {
            Kind::Page => {
                let page = html::read(text);
                part.inline = inline(text, bytes.len(), &page.inline);
                part.page = Some(page);
            }
            Kind::Style => {
                part.urls = styles::urls(text);
                self.own(part, file, bytes, Vec::new());
            }
            _ => self.script(part, file, text),
        }
    }

    fn script(&self, part: &mut Examined, file: &Listed, text: &str) {
        let said = self.told.and_then(|told| Some((told, *self.by_path.get(file.path.as_str())?)));
        let mut statements = Vec::new();
        let connected = said.is_some_and(|(told, file)| told.connected && !file.ids.is_empty());
        if connected {
            part.form = Form::Registry;
            part.look = Look::of(text.as_bytes());
            // The stats say all but when a chunk is asked for, and whether bodies are evaluated.
            let is_asking = said.is_some_and(|(_, file)| self.is_asking(file));
            let evaluates = || memchr::memmem::find(text.as_bytes(), b"//# sourceURL=").is_some();
            if (is_asking || evaluates())
                && let Ok(code) = emitted::read(text, &|_| false)
            {
                part.look = Look::at(text.as_bytes(), &code);
                part.chunk_requests = code.chunk_requests;
            }
        } else {
            match emitted::read(text, &|name| self.names.contains(name)) {
                Ok(mut code) => {
                    part.form = code.form;
                    part.look = Look::at(text.as_bytes(), &code);
                    part.is_glue = said.is_none() && is_bundlers(&file.path, text, &code);
                    statements = std::mem::take(&mut code.statements);
                    part.code = Some(code);
                }
                Err(error) => {
                    let message = format!("{error}: what it loads is unknown");
                    part.notices.push(Notice::new("script-unparsed", message, Some(&file.path)));
                }
            }
        }
        let units: Vec<Range<usize>> = statements.iter().map(|s| s.range.clone()).collect();
        self.own(part, file, text.as_bytes(), statements);
        if let (None, Some((told, described))) = (&part.owned, said)
            && let Some(lengths) = described.rendered.as_ref().filter(|lengths| lengths.len() > 1)
        {
            part.bodies = bodies::tell_apart(text, &units, lengths, told, self.texts);
            if part.bodies.is_none() {
                part.notices.push(Notice::new("lengths-by-plugin", LENGTHS, Some(&file.path)));
            }
        }
        Self::soften(part, said.map(|(_, file)| file));
        if let (None, Some((told, file))) = (&part.owned, said)
            && matches!(told.bundler, Some(Bundler::Webpack | Bundler::Rspack))
        {
            let parts = bodies::take_apart(text, file, told, self.texts);
            if parts.as_ref().is_some_and(|parts| parts.by_size) {
                part.notices.push(Notice::new("merged-by-size", MERGED, Some(&file.path)));
            }
            part.bodies = parts.map(|parts| parts.bodies);
        }
    }

    /// Without its map, a file may have owners all the same: by what the bundler says of it.
    fn soften(part: &mut Examined, said: Option<&ToldFile>) {
        let is_described = said.is_some_and(|file| {
            file.counted.is_some() || file.rendered.is_some() || !file.slots.is_empty()
        });
        for notice in part.notices.iter_mut().filter(|notice| notice.code == "map-missing") {
            if let Some((what, _)) = notice.message.split_once(": its ").filter(|_| is_described) {
                notice.message = format!("{what}: what the bundler says stands in for it");
            }
        }
    }

    /// Whether the bundler says that a module of a file loads something on demand.
    fn is_asking(&self, file: &ToldFile) -> bool {
        let mut modules = file.slots.iter().flat_map(|slot| &slot.modules);
        modules.any(|module| self.asking.contains(module))
    }

    fn own(&self, part: &mut Examined, file: &Listed, bytes: &[u8], statements: Vec<Statement>) {
        part.owned = sourcemaps::owned(file, bytes, statements, &self.sources, &mut part.notices);
    }
}

/// Whether a script is a runtime or a helper alone, which bundlers write without a map.
fn is_bundlers(path: &str, text: &str, code: &Emitted) -> bool {
    /// Bytes of the largest helper, not minified.
    const HELPER: usize = 6000;
    /// Bytes of the largest runtime.
    const RUNTIME: usize = 16_000;
    let registry = &code.registry;
    let is_bare = !registry.has_table && !registry.starts && !registry.registers;
    let name = path.rsplit('/').next().unwrap_or(path);
    let is_named = ["rolldown-runtime", "preload-helper", "commonjsHelpers", "_commonjsHelpers"]
        .iter()
        .any(|helper| name.starts_with(helper));
    let preloads = || memchr::memmem::find(text.as_bytes(), b"vite:preloadError").is_some();
    (registry.runtime && is_bare && text.len() < RUNTIME)
        || (text.len() < HELPER && code.loads.is_empty() && (is_named || preloads()))
}

/// Where the scripts and styles of a page stand in it. Text that is not found as it was read, since
/// line ends or the encoding are others, is looked for no further.
fn inline(text: &str, length: usize, parts: &[String]) -> Vec<Range<usize>> {
    if text.len() != length {
        return Vec::new();
    }
    let mut found = Vec::new();
    let mut from = 0;
    for part in parts {
        if let Some(at) = memchr::memmem::find(&text.as_bytes()[from..], part.as_bytes()) {
            let start = from + at;
            from = start + part.len();
            found.push(start..from);
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
