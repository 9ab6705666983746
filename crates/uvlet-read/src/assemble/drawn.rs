//! Which dynamic loads the first screen draws, across scripts.
//!
//! A script says what it draws as it runs, and what its exported components draw ([`uvlet_script::drawing`]);
//! here the two are tied to each other. It begins with the scripts that have components that load, and with
//! those that import these; all others draw nothing that loads.

use std::collections::{BTreeMap, BTreeSet, HashMap, HashSet};

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use uvlet_record::{FileId, Format};
use uvlet_script::{
    Dialect,
    drawing::{CHILDREN, Drawing, Drawn, Given, drawing},
    read,
};

use crate::{
    assemble::inspect::Inspected,
    folder::{list::Listing, text::Text},
    formats::format::DynamicCall,
};

/// Components and slots that are followed one inside another.
const DEEPEST: usize = 100;

/// Steps that are taken for one build.
const STEPS: usize = 1_000_000;

/// Loads by file and place.
pub type DrawnLoads = HashSet<(FileId, u64)>;

/// What components are tied by.
pub struct Ties<'a> {
    /// The files, with their texts.
    pub listing: &'a Listing,
    /// What is in them.
    pub inspected: &'a [Inspected],
    /// The file that a specifier in a file means.
    pub specifier: &'a (dyn Fn(FileId, &str) -> Option<FileId> + Sync),
    /// Pages that a framework rendered: the scripts that they load, and what they draw.
    pub pages: &'a [(Vec<FileId>, Vec<Drawn>)],
}

/// The loads that are drawn first.
pub fn drawn(ties: &Ties<'_>) -> DrawnLoads {
    let mut drawings: HashMap<FileId, Drawing> = HashMap::new();
    for (at, file) in ties.inspected.iter().enumerate() {
        if let Some(drawing) = &file.drawing {
            drawings.insert(FileId::new(at), drawing.clone());
        }
    }
    if drawings.is_empty() {
        return DrawnLoads::new();
    }
    let mut modules: HashMap<&str, FileId> = HashMap::new();
    for (at, file) in ties.inspected.iter().enumerate() {
        for id in file.module_ids() {
            modules.entry(id).or_insert(FileId::new(at));
        }
    }
    let starts = ties.starts(&drawings);
    let missing: Vec<FileId> =
        starts.iter().copied().filter(|file| !drawings.contains_key(file)).collect();
    drawings.extend(
        missing
            .into_par_iter()
            .filter_map(|file| Some((file, ties.read(file)?)))
            .collect::<Vec<_>>(),
    );
    let mut walk = Walk { ties, drawings, modules, loads: DrawnLoads::new(), steps: STEPS };
    // A component that one page draws and another does not is loaded at once on neither, as loads are told
    // of by script.
    let mut all: Vec<(BTreeSet<FileId>, DrawnLoads)> = Vec::new();
    for &file in &starts {
        let at_start = walk.drawings.get(&file).map(|drawing| drawing.at_start.clone());
        let at_start = at_start.unwrap_or_default();
        if !at_start.is_empty() {
            walk.all(file, &at_start, None, DEEPEST);
            all.push((ties.loaded(file), std::mem::take(&mut walk.loads)));
        }
    }
    for (scripts, drawn) in ties.pages {
        let Some(&first) = scripts.first() else { continue };
        walk.all(first, drawn, None, DEEPEST);
        let loaded = scripts.iter().flat_map(|&script| ties.loaded(script)).collect();
        all.push((loaded, std::mem::take(&mut walk.loads)));
    }
    let drawn: DrawnLoads = all.iter().flat_map(|(_, loads)| loads).copied().collect();
    let is_drawn_always = |load: &(FileId, u64)| {
        all.iter().all(|(loaded, loads)| loads.contains(load) || !loaded.contains(&load.0))
    };
    drawn.into_iter().filter(is_drawn_always).collect()
}

impl Ties<'_> {
    /// Scripts whose own code may draw what loads.
    fn starts(&self, drawings: &HashMap<FileId, Drawing>) -> BTreeSet<FileId> {
        let mut starts: BTreeSet<FileId> = drawings.keys().copied().collect();
        let mut importers: BTreeMap<FileId, Vec<FileId>> = BTreeMap::new();
        let has_tables = starts.iter().any(|file| is_of_tables(self.inspected[file.at()].format));
        for (at, file) in self.inspected.iter().enumerate() {
            let id = FileId::new(at);
            for load in file.code.iter().flat_map(|code| &code.found.loads) {
                if let Some(to) = (self.specifier)(id, load) {
                    importers.entry(to).or_default().push(id);
                }
            }
            if has_tables && is_of_tables(file.format) && self.renders(id) {
                starts.insert(id);
            }
        }
        let draws = |file: &FileId| drawings.get(file).is_some_and(|one| !one.exports.is_empty());
        let mut open: Vec<FileId> = starts.iter().copied().filter(draws).collect();
        while let Some(file) = open.pop() {
            let further = importers.get(&file).into_iter().flatten();
            open.extend(further.copied().filter(|importer| starts.insert(*importer)));
        }
        starts
    }

    /// A script with all that it loads before it runs.
    fn loaded(&self, script: FileId) -> BTreeSet<FileId> {
        let mut loaded = BTreeSet::from([script]);
        let mut open = vec![script];
        while let Some(file) = open.pop() {
            let loads = self.inspected[file.at()].code.iter().flat_map(|code| &code.found.loads);
            let loads = loads.filter_map(|load| (self.specifier)(file, load));
            open.extend(loads.filter(|file| loaded.insert(*file)));
        }
        loaded
    }

    /// Whether a text may tell a framework to draw something.
    fn renders(&self, file: FileId) -> bool {
        let Ok(text) = Text::of(&self.listing.counted[file.at()].0) else { return false };
        let text = text.into_bytes();
        [&b".render("[..], b"hydrateRoot)(", b".mount("]
            .iter()
            .any(|call| memchr::memmem::find(&text, call).is_some())
    }

    fn read(&self, file: FileId) -> Option<Drawing> {
        let text = Text::of(&self.listing.counted[file.at()].0).ok()?.into_bytes();
        let text = std::str::from_utf8(&text).ok()?;
        let inspected = &self.inspected[file.at()];
        let calls = inspected.calls().filter_map(|call| u32::try_from(call.at).ok());
        let (loads, tables) = (calls.collect(), is_of_tables(inspected.format));
        read(text, Dialect::Emitted, |script| drawing(script, &loads, tables)).ok()
    }
}

fn is_of_tables(format: Format) -> bool {
    matches!(format, Format::Registry | Format::Turbopack)
}

/// What a component is given, and where that was written.
#[derive(Clone, Copy)]
struct Around<'w> {
    given: &'w Given,
    file: FileId,
    outer: Option<&'w Around<'w>>,
}

struct Walk<'t> {
    ties: &'t Ties<'t>,
    drawings: HashMap<FileId, Drawing>,
    /// Scripts by the modules of their tables.
    modules: HashMap<&'t str, FileId>,
    loads: DrawnLoads,
    steps: usize,
}

impl Walk<'_> {
    fn all(&mut self, file: FileId, drawn: &[Drawn], around: Option<&Around<'_>>, depth: usize) {
        for one in drawn {
            let Some(left) = self.steps.checked_sub(1).filter(|_| depth > 0) else { return };
            self.steps = left;
            self.one(file, one, around, depth - 1);
        }
    }

    fn one(&mut self, file: FileId, drawn: &Drawn, around: Option<&Around<'_>>, depth: usize) {
        match drawn {
            Drawn::Slot(name) => {
                let Some(Around { given, file, outer }) = around.copied() else { return };
                if let Some((_, drawn)) = given.iter().find(|(slot, _)| slot == name) {
                    self.all(file, drawn, outer, depth);
                }
            }
            Drawn::Imported { request, name, given } => {
                let inner = Around { given, file, outer: around };
                // An id is that of a module of some table.
                match self.modules.get(request.as_str()).copied() {
                    Some(of) => self.component(of, Some(request), name, Some(&inner), depth),
                    None => {
                        if let Some(of) = (self.ties.specifier)(file, request) {
                            self.component(of, None, name, Some(&inner), depth);
                        }
                    }
                }
            }
            Drawn::Load { at, name, given } => {
                self.loads.insert((file, u64::from(*at)));
                let inner = Around { given, file, outer: around };
                let inspected = &self.ties.inspected[file.at()];
                let Some(call) = inspected.calls().find(|call| call.at == u64::from(*at)) else {
                    return;
                };
                let module = call.opens.as_deref();
                match module.and_then(|module| self.modules.get(module)).copied() {
                    Some(of) => self.component(of, module, name, Some(&inner), depth),
                    None => {
                        if let Some(of) = (self.ties.specifier)(file, &call.request) {
                            self.component(of, None, name, Some(&inner), depth);
                        }
                    }
                }
            }
        }
    }

    /// Draws an exported component.
    fn component(
        &mut self,
        file: FileId,
        module: Option<&str>,
        name: &str,
        around: Option<&Around<'_>>,
        depth: usize,
    ) {
        let has_given = around.is_some_and(|around| {
            around.given.iter().any(|(slot, drawn)| slot == CHILDREN && !drawn.is_empty())
        });
        if !self.drawings.contains_key(&file) {
            // A script without components that load draws at most what it is given.
            if !has_given && module.is_none() {
                return;
            }
            let drawing = self.ties.read(file).unwrap_or_default();
            self.drawings.insert(file, drawing);
        }
        let export = (module.map(str::to_owned), name.to_owned());
        let Some(draws) = self.drawings[&file].exports.get(&export).cloned() else { return };
        self.all(file, &draws, around, depth);
    }
}

impl Inspected {
    /// What the script asks for on demand.
    fn calls(&self) -> impl Iterator<Item = &DynamicCall> {
        let found = self.code.iter().map(|code| &code.found);
        let calls =
            found.flat_map(|found| found.imports.iter().chain(&found.chunks).chain(&found.keyed));
        calls.chain(&self.chunk_calls)
    }

    /// The modules of its table.
    fn module_ids(&self) -> impl Iterator<Item = &str> {
        let of_code = self.code.iter().flat_map(|code| &code.chunks.modules);
        of_code.chain(&self.modules).map(String::as_str)
    }
}
