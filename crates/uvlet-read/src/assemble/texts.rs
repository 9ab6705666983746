//! Texts of a build that was read from its folder: they are read again where they lie, when a
//! question needs them.

use std::{
    borrow::Cow,
    ops::Range,
    path::{Path, PathBuf},
    sync::OnceLock,
};

use uvlet_ledger::sourcemap::SourceMap;
use uvlet_record::{
    FileId, ModuleId, Project, Record, SavedMap, SavedSection, Segment, Texts, segments,
};
use uvlet_script::requests::Kind;

use crate::{
    assemble::{described_sources::SourcePlace, edges::installed::Installed, numbers::Numbers},
    files::source_map::find::{comment, inline},
    folder::{list::Listed, text::Text},
    project::{read_file, source_names::installed},
};

/// Characters of a package's description that are read.
const DESCRIPTION: usize = 300;

/// Bytes of a source that are read.
const LONGEST: u64 = 64 << 20;

/// Where the texts of files and modules are, in the order of the record's.
#[derive(Debug, Default)]
pub struct FolderTexts {
    files: Vec<PlacedFile>,
    /// Per module.
    holders: Vec<Holder>,
    description: Option<Listed>,
    root: Option<PathBuf>,
    installed: OnceLock<Option<Installed>>,
}

/// An emitted file, and its map.
#[derive(Debug)]
struct PlacedFile {
    listed: Listed,
    map: Option<PlacedMap>,
}

#[derive(Debug)]
struct PlacedMap {
    /// Where it lies; none where it stands in the file itself.
    disk: Option<PathBuf>,
    /// Per source, over all sections.
    modules: Vec<Option<ModuleId>>,
    text: OnceLock<Option<MapText>>,
}

/// A map that was read again.
#[derive(Debug)]
struct MapText {
    json: String,
    /// Per source, the JSON string of its text.
    contents: Vec<Option<Range<usize>>>,
}

/// Who holds the source text of a module.
#[derive(Clone, Debug, Default)]
enum Holder {
    #[default]
    Nobody,
    Map {
        file: FileId,
        source: usize,
    },
    Described(SourcePlace),
    /// The project, at this path.
    Project(String),
}

impl FolderTexts {
    pub fn new(root: Option<&Path>, locations: impl Iterator<Item = String>) -> Self {
        let root = root.map(Path::to_owned);
        let holder = |path: String| match root {
            Some(_) => Holder::Project(path),
            None => Holder::Nobody,
        };
        let holders = locations.map(holder).collect();
        Self { holders, root, ..Self::default() }
    }

    /// Adds the next file, with its map's place and the modules of its sources.
    pub fn add_file(
        &mut self,
        listed: &Listed,
        map: Option<(Option<PathBuf>, Vec<Option<ModuleId>>)>,
    ) {
        let map = map.map(|(disk, modules)| {
            let file = FileId::new(self.files.len());
            for (source, module) in modules.iter().enumerate() {
                if let Some(holder) = module.and_then(|id| self.holders.get_mut(id.at()))
                    && !matches!(holder, Holder::Map { .. })
                {
                    *holder = Holder::Map { file, source };
                }
            }
            PlacedMap { disk, modules, text: OnceLock::new() }
        });
        self.files.push(PlacedFile { listed: listed.clone(), map });
    }

    /// Adds where a description's sources are, of modules that no map holds.
    pub fn add_described(
        &mut self,
        description: &Listed,
        places: impl Iterator<Item = (Option<ModuleId>, SourcePlace)>,
    ) {
        self.description = Some(description.clone());
        for (module, place) in places {
            if let Some(holder) = module.and_then(|id| self.holders.get_mut(id.at()))
                && !matches!(holder, Holder::Map { .. })
            {
                *holder = Holder::Described(place);
            }
        }
    }

    /// Follows how modules are numbered after others were put among them.
    pub fn renumber(&mut self, numbers: &Numbers, record: &Record) {
        if numbers.new_ones().is_empty() {
            return;
        }
        let mut holders = vec![Holder::Nobody; record.modules.len()];
        for (before, holder) in std::mem::take(&mut self.holders).into_iter().enumerate() {
            holders[numbers.now(ModuleId::new(before)).at()] = holder;
        }
        if self.root.is_some() {
            for id in numbers.new_ones() {
                holders[id.at()] = Holder::Project(record.location_of(*id).into_owned());
            }
        }
        self.holders = holders;
        let maps = self.files.iter_mut().filter_map(|file| file.map.as_mut());
        for id in maps.flat_map(|map| &mut map.modules).flatten() {
            *id = numbers.now(*id);
        }
    }

    fn map_of(&self, file: FileId) -> Option<(&PlacedMap, &MapText)> {
        let placed = self.files.get(file.at())?;
        let map = placed.map.as_ref()?;
        let text = map.text.get_or_init(|| map_text(placed, map.disk.as_deref()));
        Some((map, text.as_ref()?))
    }

    /// The package.json of the package that an installed file is of.
    fn said_by_package(&self, path: &str) -> Option<serde_json::Value> {
        let package = installed(path)?;
        let said = self.in_project(&format!("{}/package.json", package.place))?;
        serde_json::from_str(&said).ok()
    }

    fn in_project(&self, path: &str) -> Option<String> {
        let is_inside = !path.starts_with('/') && !path.split('/').any(|part| part == "..");
        let file = self.root.as_ref().filter(|_| is_inside)?.join(path);
        String::from_utf8(read_file(&file, LONGEST)?).ok()
    }
}

fn map_text(placed: &PlacedFile, disk: Option<&Path>) -> Option<MapText> {
    let json = match disk {
        Some(disk) => {
            let bytes = std::fs::metadata(disk).ok()?.len();
            let listed = Listed { path: String::new(), disk: disk.to_owned(), bytes };
            Text::of(&listed).ok()?.into_bytes()
        }
        None => {
            let text = Text::of(&placed.listed).ok()?;
            inline(comment(&text)?.url)?.ok()?
        }
    };
    let json = String::from_utf8(json).ok()?;
    let map = SourceMap::parse(&json).ok()?;
    let mut contents = Vec::with_capacity(map.source_count());
    for section in &map.sections {
        contents.extend((0..section.sources.len()).map(|at| {
            let content = section.contents.get(at).copied().flatten()?.get();
            let start = content.as_ptr() as usize - json.as_ptr() as usize;
            Some(start..start + content.len())
        }));
    }
    drop(map);
    Some(MapText { json, contents })
}

impl Texts for FolderTexts {
    fn emitted(&self, file: FileId) -> Option<Cow<'_, [u8]>> {
        let text = Text::of(&self.files.get(file.at())?.listed).ok()?;
        Some(Cow::Owned(text.into_bytes()))
    }

    fn source(&self, module: ModuleId) -> Option<Cow<'_, str>> {
        let text = match self.holders.get(module.at())? {
            Holder::Nobody => None,
            Holder::Map { file, source } => {
                let (_, text) = self.map_of(*file)?;
                let range = text.contents.get(*source)?.clone()?;
                serde_json::from_str(&text.json[range]).ok()
            }
            Holder::Described(SourcePlace::InDescription(range)) => {
                let text = Text::of(self.description.as_ref()?).ok()?;
                serde_json::from_slice(text.get(range.clone())?).ok()
            }
            Holder::Described(SourcePlace::InProject(path)) | Holder::Project(path) => {
                self.in_project(path)
            }
        };
        text.map(Cow::Owned)
    }

    fn project(&self) -> Option<&dyn Project> {
        self.root.is_some().then_some(self)
    }

    fn map(&self, file: FileId) -> Option<SavedMap> {
        let (map, text) = self.map_of(file)?;
        let parsed = SourceMap::parse(&text.json).ok()?;
        let mut first = 0;
        let sections = parsed.sections.iter().map(|section| {
            let sources = first..first + section.sources.len();
            first = sources.end;
            SavedSection {
                line: section.line,
                column: section.column,
                modules: map.modules.get(sources).unwrap_or_default().to_vec(),
                mappings: section.mappings.clone().into_owned(),
            }
        });
        Some(SavedMap { sections: sections.collect() })
    }

    fn origins(&self, file: FileId) -> Option<Vec<Segment>> {
        let emitted = self.emitted(file)?;
        let (map, text) = self.map_of(file)?;
        let parsed = SourceMap::parse(&text.json).ok()?;
        segments(&emitted, &parsed, &|source| map.modules.get(source).copied().flatten())
    }
}

impl Project for FolderTexts {
    fn text(&self, path: &str) -> Option<String> {
        self.in_project(path)
    }

    fn resolve(&self, folder: &str, request: &str) -> Option<String> {
        let installed = self.installed.get_or_init(|| Installed::under(self.root.as_deref()));
        installed.as_ref()?.resolve(folder, request, Kind::Import)
    }

    fn is_inert(&self, path: &str) -> bool {
        self.said_by_package(path).is_some_and(|said| said["sideEffects"] == false)
    }

    fn description(&self, path: &str) -> Option<String> {
        let said = self.said_by_package(path)?;
        let text = said["description"].as_str()?.split_whitespace().collect::<Vec<_>>().join(" ");
        (!text.is_empty()).then(|| text.chars().take(DESCRIPTION).collect())
    }
}

#[cfg(test)]
mod tests {
    use std::path::Path;

    use rstest::rstest;
    use uvlet_record::{FileId, ModuleId, Owner, Texts};

    use crate::{Options, open};

    #[rstest]
    #[case("esbuild-before")]
    #[case("webpack-before")]
    #[case("rollup-after")]
    fn texts_that_are_saved_are_those_of_the_folder(#[case] sample: &str) {
        let builds = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/builds");
        let (record, texts) = open(&builds.join(sample), &Options::default()).unwrap();
        let saved = texts.save(&record);
        let mut segments = 0;
        for id in (0..record.files.len()).map(FileId) {
            let origins = texts.origins(id);
            assert_eq!(saved.origins(id), origins, "{}", record.file(id).path);
            let cells = record.cells_of(id);
            for segment in origins.iter().flatten().filter_map(|segment| segment.origin) {
                // Whoever a segment names has a part of the file, unless nothing is left of it.
                let owner = Owner::Module(segment.module);
                segments += usize::from(cells.iter().any(|cell| cell.owner == owner));
            }
        }
        assert!(segments > 1000, "{segments}");
        let sources = (0..record.modules.len()).map(ModuleId);
        let sources = sources.filter_map(|id| texts.source(id).map(|text| (id, text)));
        let mut known = 0;
        for (id, text) in sources {
            assert_eq!(saved.source(id).as_deref(), Some(&*text));
            assert_eq!(record.module(id).source_bytes, Some(text.len() as u64));
            known += 1;
        }
        assert!(known > 50, "{known}");
    }
}
