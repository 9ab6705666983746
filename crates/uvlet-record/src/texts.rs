//! What a record itself need not hold and some questions need: texts, where each piece of emitted text
//! comes from, and what any part of a file costs on the wire.

use std::borrow::Cow;

use uvlet_ledger::{
    charges::Charges,
    coding::Coding,
    sourcemap::{Section, SourceMap},
    walk::origins,
};

use crate::{
    build::Record,
    file::{File, Kind},
    ids::{FileId, ModuleId},
    saved_texts::{SavedMap, SavedTexts},
};

/// Texts of a build, for the questions that need them.
pub trait Texts: Sync {
    /// The emitted text of a file; none where it is not at hand.
    fn emitted(&self, file: FileId) -> Option<Cow<'_, [u8]>>;

    /// The source text of a module; none where it is not at hand.
    fn source(&self, module: ModuleId) -> Option<Cow<'_, str>>;

    /// Where the text of a file comes from: every segment of its source map as written, in order;
    /// none without a map that can be used.
    fn origins(&self, file: FileId) -> Option<Vec<Segment>>;

    /// The project that the build comes from; none where it is not at hand.
    fn project(&self) -> Option<&dyn Project> {
        None
    }

    /// The source map of a file, with modules in the place of sources, for a record to keep.
    fn map(&self, file: FileId) -> Option<SavedMap>;

    /// All texts that are at hand, for a record to keep.
    fn save(&self, record: &Record) -> SavedTexts {
        let files = || record.files.iter().enumerate().map(|(at, file)| (FileId::new(at), file));
        let is_text = |file: &File| matches!(file.kind, Kind::Script | Kind::Style | Kind::Page);
        let emitted = |(id, file): (FileId, &File)| {
            let text = is_text(file).then(|| self.emitted(id)).flatten()?;
            String::from_utf8(text.into_owned()).ok()
        };
        let modules = (0..record.modules.len()).map(ModuleId::new);
        SavedTexts {
            emitted: files().map(emitted).collect(),
            maps: files().map(|(id, _)| self.map(id)).collect(),
            sources: modules.map(|id| self.source(id).map(Cow::into_owned)).collect(),
        }
    }
}

/// A project as it lies on disk, with what is installed in it. Paths are from its folder.
pub trait Project: Sync {
    /// The text of a file; none where there is none, or it is no text.
    fn text(&self, path: &str) -> Option<String>;

    /// The file that an `import` means which stands in a file of a folder; none where it leads nowhere.
    fn resolve(&self, folder: &str, request: &str) -> Option<String>;

    /// Whether the package of an installed file says that loading any file of it has no effect.
    fn is_inert(&self, path: &str) -> bool;

    /// What the package of an installed file says of itself, in a line.
    fn description(&self, path: &str) -> Option<String>;
}

/// A segment of a source map, from a byte of the emitted text on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Segment {
    /// First byte in the emitted file.
    pub start: u64,
    /// Where it comes from; none for text of no module.
    pub origin: Option<Place>,
}

/// A place in a source.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Place {
    /// The module.
    pub module: ModuleId,
    /// Line, from 0.
    pub line: u32,
    /// Column in UTF-16 code units, from 0.
    pub column: u32,
}

/// What any part of a file costs on the wire.
pub trait Costs: Sync {
    /// The bits that a file's coded stream spends on stretches of its text that end at these bytes
    /// (not decreasing, the last one the file's length). Stretches and container together are eight
    /// times the coded size, exactly. None where the stream cannot be had.
    fn spent(&self, file: FileId, coding: Coding, ends: &[u64]) -> Option<Charges>;
}

impl Texts for SavedTexts {
    fn emitted(&self, file: FileId) -> Option<Cow<'_, [u8]>> {
        let text = self.emitted.get(file.at())?.as_ref()?;
        Some(Cow::Borrowed(text.as_bytes()))
    }

    fn source(&self, module: ModuleId) -> Option<Cow<'_, str>> {
        self.sources.get(module.at())?.as_deref().map(Cow::Borrowed)
    }

    fn map(&self, file: FileId) -> Option<SavedMap> {
        self.maps.get(file.at())?.clone()
    }

    fn origins(&self, file: FileId) -> Option<Vec<Segment>> {
        let saved = self.maps.get(file.at())?.as_ref()?;
        let text = self.emitted.get(file.at())?.as_ref()?;
        let sections = saved.sections.iter().map(|section| Section {
            line: section.line,
            column: section.column,
            source_root: None,
            sources: vec![None; section.modules.len()],
            contents: Vec::new(),
            ignored: Vec::new(),
            mappings: Cow::Borrowed(&section.mappings),
        });
        let modules: Vec<Option<ModuleId>> =
            saved.sections.iter().flat_map(|section| section.modules.iter().copied()).collect();
        segments(text.as_bytes(), &SourceMap { sections: sections.collect() }, &|source| {
            modules.get(source).copied().flatten()
        })
    }
}

/// The segments of a map over its text; `module` tells which module a source is, by its place over
/// all sections of the map. None if the map cannot be walked.
#[must_use]
pub fn segments(
    text: &[u8],
    map: &SourceMap<'_>,
    module: &dyn Fn(usize) -> Option<ModuleId>,
) -> Option<Vec<Segment>> {
    let found = origins(text, map).ok()?;
    let segment = |origin: &uvlet_ledger::walk::Origin| Segment {
        start: origin.start as u64,
        origin: origin.source.and_then(|place| {
            let module = module(place.source as usize)?;
            Some(Place { module, line: place.line, column: place.column })
        }),
    };
    Some(found.iter().map(segment).collect())
}
