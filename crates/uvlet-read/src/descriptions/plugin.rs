//! The file of Uvlet's own plugin, for Rollup, Rolldown and Vite: chunks with the modules
//! rendered into them, and who imports whom.
//!
//! Rendered lengths are from before minification, so that without a source map they only give
//! shares of a file.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use serde::{Deserialize, Serialize};
use uvlet_record::{AsideKind, Bundler, EdgeKind, Mode, ModeBasis, Target, TargetBasis, Used};

use super::{
    described::{
        Described, DescribedEdge, DescribedEntry, DescribedFile, DescribedId, DescribedModule, Slot,
    },
    description::{Description, DescriptionError, damaged, is_script},
    outline::Outline,
};

/// Version of the form that is read.
const FORM: u32 = 1;

/// What the plugin writes.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PluginFile {
    /// Version of this form.
    pub uvlet_build: u32,
    /// Who bundled.
    pub bundler: Bundler,
    /// The bundler's version.
    pub version: Option<String>,
    /// Production or development, where the bundler knows.
    pub mode: Option<Mode>,
    /// Where the build runs, where the bundler knows.
    pub target: Option<Target>,
    /// The output folder, from the folder that modules are named from.
    pub folder: String,
    /// Every module that the bundler met.
    pub modules: Vec<PluginModule>,
    /// What was written into this folder in one run.
    pub outputs: Vec<PluginOutput>,
}

/// A module.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PluginModule {
    /// Its path, from the project's folder.
    pub path: String,
    /// Loaded from elsewhere.
    pub external: bool,
    /// Whether it must be kept for what it does.
    pub has_effects: bool,
    /// Names that it exports.
    pub exports: Option<Vec<String>>,
    /// Modules that it imports.
    pub needs: Vec<String>,
    /// Modules that it imports on demand.
    pub defers: Vec<String>,
}

/// One output of a run: a bundler may write several formats.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PluginOutput {
    /// Format of the scripts, as the bundler calls it.
    pub format: Option<String>,
    /// The scripts.
    pub scripts: Vec<PluginChunk>,
    /// Other files.
    pub assets: Vec<PluginAsset>,
}

/// A script.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PluginChunk {
    /// Its path in the output folder.
    pub file: String,
    /// Its name.
    pub name: Option<String>,
    /// It is an entry.
    pub entry: bool,
    /// An `import()` asks for it.
    pub deferred_entry: bool,
    /// The module that it stands for.
    pub stands_for: Option<String>,
    /// Files that it imports.
    pub needs: Vec<String>,
    /// Files that it imports on demand.
    pub defers: Vec<String>,
    /// Styles that belong to it.
    pub styles: Vec<String>,
    /// Assets that its code names.
    pub assets: Vec<String>,
    /// Modules in it, in order.
    pub modules: Vec<RenderedModule>,
}

/// A module as it stands in a script.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RenderedModule {
    /// Its path.
    pub path: String,
    /// UTF-16 code units of its code before minification.
    pub length: Option<u64>,
    /// Exports that were kept.
    pub kept_exports: Option<Vec<String>>,
    /// Exports that were taken out.
    pub dropped_exports: Option<Vec<String>>,
}

/// A file that is no script.
#[derive(Debug, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PluginAsset {
    /// Its path in the output folder.
    pub file: String,
    /// What it was made of.
    pub sources: Vec<String>,
}

/// The file of the plugin.
pub struct Plugin;

impl Description for Plugin {
    fn kind(&self) -> AsideKind {
        AsideKind::Plugin
    }

    fn is(&self, outline: &Outline) -> bool {
        outline.has_number("uvlet_build")
            && (outline.has_list("modules") || outline.has_list("outputs"))
    }

    fn richness(&self) -> u8 {
        2
    }

    fn read(&self, json: &str) -> Result<Vec<Described>, DescriptionError> {
        let file: PluginFile = serde_json::from_str(json).map_err(|error| damaged(&error))?;
        if file.uvlet_build > FORM {
            return Err(DescriptionError::Newer { form: file.uvlet_build, known: FORM });
        }
        Ok(vec![described(&file)])
    }
}

fn described(file: &PluginFile) -> Described {
    let mut described = Described {
        bundler: Some(file.bundler),
        version: file.version.clone(),
        mode: file.mode.map(|mode| (mode, ModeBasis::Declared)),
        target: file.target.map(|target| (target, TargetBasis::Declared)),
        ..Described::default()
    };
    let ids = modules(file, &mut described);
    let mut exports = Exports::default();
    for output in &file.outputs {
        for chunk in &output.scripts {
            add_chunk(&mut described, chunk, &ids, &mut exports);
            if chunk.entry && is_script(&chunk.file) {
                described.entries.push(DescribedEntry {
                    name: chunk.name.clone().unwrap_or_default(),
                    files: closure(chunk, output),
                    roots: chunk
                        .stands_for
                        .iter()
                        .filter_map(|id| ids.get(id.as_str()).copied())
                        .collect(),
                });
            }
        }
        for asset in &output.assets {
            let source = asset.sources.iter().find_map(|source| ids.get(source.as_str()).copied());
            let path = asset.file.clone();
            described.files.push(DescribedFile { path, source, ..DescribedFile::default() });
        }
    }
    // Source maps name sources from the output folder.
    described.rebase(&file.folder);
    for (module, names) in exports.kept {
        described.modules[module.0].used = Some(match names.is_empty() {
            true => Used::Nothing,
            false => Used::Names(names.into_iter().collect()),
        });
    }
    for (module, names) in exports.dropped {
        described.modules[module.0].dropped = Some(names.into_iter().collect());
    }
    described
}

/// Exports by module, over all scripts that hold it.
#[derive(Default)]
struct Exports {
    kept: BTreeMap<DescribedId, BTreeSet<String>>,
    dropped: BTreeMap<DescribedId, BTreeSet<String>>,
}

fn modules<'f>(file: &'f PluginFile, described: &mut Described) -> HashMap<&'f str, DescribedId> {
    let mut ids: HashMap<&str, DescribedId> = HashMap::new();
    for module in &file.modules {
        let id = described.add(DescribedModule {
            raw: module.path.clone(),
            external: module.external,
            provides: module.exports.clone(),
            side_effects: Some(module.has_effects).filter(|_| !module.external),
            ..DescribedModule::default()
        });
        ids.insert(&module.path, id);
    }
    for (from, module) in file.modules.iter().enumerate() {
        let from = DescribedId(from);
        let asked = [(EdgeKind::Static, &module.needs), (EdgeKind::Dynamic, &module.defers)];
        for (kind, names) in asked {
            let targets = names.iter().filter_map(|name| ids.get(name.as_str()));
            let edge = |&to| DescribedEdge { from, to, kind, request: None, names: None };
            described.edges.extend(targets.map(edge));
        }
    }
    ids
}

fn add_chunk(
    described: &mut Described,
    chunk: &PluginChunk,
    ids: &HashMap<&str, DescribedId>,
    exports: &mut Exports,
) {
    let mut rendered = Vec::new();
    for module in &chunk.modules {
        let Some(&at) = ids.get(module.path.as_str()) else { continue };
        rendered.push((at, module.length.unwrap_or(0)));
        if let Some(kept) = &module.kept_exports {
            exports.kept.entry(at).or_default().extend(kept.iter().cloned());
        }
        if let Some(dropped) = &module.dropped_exports {
            exports.dropped.entry(at).or_default().extend(dropped.iter().cloned());
        }
    }
    described.files.push(DescribedFile {
        path: chunk.file.clone(),
        slots: rendered.iter().map(|&(at, _)| Slot { id: None, modules: vec![at] }).collect(),
        rendered: Some(rendered),
        entry: chunk.stands_for.as_deref().and_then(|id| ids.get(id).copied()),
        loads: chunk.needs.clone(),
        opens: chunk.defers.clone(),
        names: chunk.assets.clone(),
        styles: chunk.styles.clone(),
        name: chunk.name.clone(),
        ..DescribedFile::default()
    });
}

/// An entry's file, what it statically imports, and the styles of all these.
fn closure(entry: &PluginChunk, output: &PluginOutput) -> Vec<String> {
    let by_file: HashMap<&str, &PluginChunk> =
        output.scripts.iter().map(|chunk| (chunk.file.as_str(), chunk)).collect();
    let mut files = vec![entry.file.clone()];
    let mut styles = Vec::new();
    let mut next = 0;
    while let Some(chunk) = files.get(next).and_then(|file| by_file.get(file.as_str())) {
        styles.extend(chunk.styles.iter().cloned());
        for import in chunk.needs.iter().filter(|import| by_file.contains_key(import.as_str())) {
            if !files.contains(import) {
                files.push(import.clone());
            }
        }
        next += 1;
    }
    files.extend(styles);
    files
}
