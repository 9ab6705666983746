//! esbuild's metafile, which Bun writes too: inputs with their imports, outputs with what each input has in them.
//!
//! Paths are relative to the folder that esbuild ran in. `bytesInOutput` is its own count of a
//! module's bytes in a file, so no source map is needed for exact sizes. Bun's outputs begin with `./`,
//! and its dynamic imports name the chunk, with the module that it stands for beside it.

use std::{
    borrow::Cow,
    collections::{HashMap, HashSet},
};

use serde::Deserialize;
use uvlet_record::{AsideKind, Bundler, EdgeKind, ModuleFormat};

use super::{
    described::{
        Described, DescribedEdge, DescribedEntry, DescribedFile, DescribedId, DescribedModule, Slot,
    },
    description::{Description, DescriptionError, damaged, is_code, is_script},
    outline::{Outline, Shape},
};

#[derive(Deserialize)]
struct Json<'a> {
    #[serde(borrow)]
    inputs: HashMap<Text<'a>, Input<'a>>,
    #[serde(borrow)]
    outputs: HashMap<Text<'a>, Output<'a>>,
}

/// A string that borrows where nothing is escaped in it.
#[derive(Deserialize, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[serde(transparent)]
struct Text<'a>(#[serde(borrow)] Cow<'a, str>);

#[derive(Deserialize)]
struct Input<'a> {
    bytes: u64,
    #[serde(borrow, default)]
    imports: Vec<Import<'a>>,
    #[serde(borrow)]
    format: Option<Text<'a>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Import<'a> {
    #[serde(borrow)]
    path: Text<'a>,
    #[serde(borrow)]
    kind: Text<'a>,
    #[serde(borrow)]
    original: Option<Text<'a>>,
    #[serde(borrow)]
    entry_point: Option<Text<'a>>,
    #[serde(default)]
    external: bool,
}

impl Import<'_> {
    /// The module that is asked for.
    fn module(&self) -> &str {
        &self.entry_point.as_ref().unwrap_or(&self.path).0
    }
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Output<'a> {
    bytes: u64,
    #[serde(borrow, default)]
    inputs: HashMap<Text<'a>, Share>,
    #[serde(borrow)]
    entry_point: Option<Text<'a>>,
    #[serde(borrow)]
    css_bundle: Option<Text<'a>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Share {
    bytes_in_output: u64,
}

/// The metafile.
pub struct Metafile;

impl Description for Metafile {
    fn kind(&self) -> AsideKind {
        AsideKind::Metafile
    }

    fn is(&self, outline: &Outline) -> bool {
        outline.has_object("inputs") && outline.has_object("outputs")
    }

    fn would_be(&self, outline: &Outline, key: &str) -> bool {
        let is_named =
            |shape: Option<&Shape>| matches!(shape, None | Some(Shape::Object { file: None, .. }));
        matches!(key, "inputs" | "outputs") && outline.len() < 2 && is_named(outline.get("inputs"))
    }

    fn richness(&self) -> u8 {
        1
    }

    fn read(&self, json: &str) -> Result<Vec<Described>, DescriptionError> {
        let json: Json<'_> = serde_json::from_str(json).map_err(|error| damaged(&error))?;
        let is_bun =
            !json.outputs.is_empty() && json.outputs.keys().all(|path| path.0.starts_with("./"));
        let bundler = Some(if is_bun { Bundler::Bun } else { Bundler::Esbuild });
        let mut described = Described { bundler, ..Described::default() };
        let ids = modules(&json, &mut described);
        outputs(&json, &ids, &mut described);
        Ok(vec![described])
    }
}

/// Modules by path.
type Ids<'j> = HashMap<&'j str, DescribedId>;

fn modules<'j>(json: &'j Json<'_>, described: &mut Described) -> Ids<'j> {
    let mut inputs: Vec<_> = json.inputs.iter().collect();
    inputs.sort_by(|a, b| a.0.cmp(b.0));
    let mut ids = Ids::new();
    for (path, input) in &inputs {
        let raw = path.0.clone().into_owned();
        let format = match input.format.as_ref().map(|format| &*format.0) {
            Some("esm") => Some(ModuleFormat::Es),
            Some("cjs") => Some(ModuleFormat::CommonJs),
            _ => None,
        };
        let bytes = Some(input.bytes);
        let module = DescribedModule { raw, bytes, format, ..DescribedModule::default() };
        ids.insert(&path.0, described.add(module));
    }
    for (path, input) in &inputs {
        for import in &input.imports {
            let Some(kind) = edge_kind(&import.kind.0) else { continue };
            let to = match ids.get(import.module()) {
                Some(&to) => to,
                None if import.external && !import.path.0.contains(':') => {
                    let to = described.add(DescribedModule {
                        raw: import.path.0.clone().into_owned(),
                        external: true,
                        ..DescribedModule::default()
                    });
                    ids.insert(&import.path.0, to);
                    to
                }
                None => continue,
            };
            let request = import.original.as_ref().map(|text| text.0.clone().into_owned());
            let from = ids[&*path.0];
            described.edges.push(DescribedEdge { from, to, kind, request, names: None });
        }
    }
    ids
}

fn outputs(json: &Json<'_>, ids: &Ids<'_>, described: &mut Described) {
    let mut outputs: Vec<_> = json.outputs.iter().collect();
    outputs.sort_by(|a, b| a.0.cmp(b.0));
    let imports = json.inputs.values().flat_map(|input| &input.imports);
    let is_deferred =
        |import: &&Import<'_>| edge_kind(&import.kind.0).is_some_and(EdgeKind::is_deferred);
    let opened: HashSet<&str> = imports.filter(is_deferred).map(Import::module).collect();
    for (path, output) in outputs {
        if path.0.ends_with(".map") {
            continue;
        }
        let mut counted: Vec<(DescribedId, u64)> = output
            .inputs
            .iter()
            .filter_map(|(input, share)| Some((*ids.get(&*input.0)?, share.bytes_in_output)))
            .collect();
        counted.sort_unstable();
        let style = output.css_bundle.as_ref().map(|style| style.0.clone().into_owned());
        let root = output.entry_point.as_ref().and_then(|input| ids.get(&*input.0).copied());
        described.files.push(DescribedFile {
            path: path.0.clone().into_owned(),
            bytes: Some(output.bytes),
            slots: counted.iter().map(|&(at, _)| Slot { id: None, modules: vec![at] }).collect(),
            source: match counted.as_slice() {
                [(module, _)] if !is_code(&path.0) => Some(*module),
                _ => None,
            },
            counted: Some(counted),
            entry: root,
            styles: style.iter().cloned().collect(),
            ..DescribedFile::default()
        });
        let (Some(root), Some(entry)) = (root, &output.entry_point) else { continue };
        // What only an `import()` asks for is a chunk of its own, and no entry.
        if opened.contains(&*entry.0) || !is_script(&path.0) {
            continue;
        }
        described.entries.push(DescribedEntry {
            // A stem, which is made a name once the hashes of the build are known.
            name: String::new(),
            files: std::iter::once(path.0.clone().into_owned()).chain(style).collect(),
            roots: vec![root],
        });
    }
}

fn edge_kind(kind: &str) -> Option<EdgeKind> {
    Some(match kind {
        "import-statement" => EdgeKind::Static,
        "require-call" | "require-resolve" => EdgeKind::Require,
        "dynamic-import" => EdgeKind::Dynamic,
        "import-rule" | "composes-from" => EdgeKind::Style,
        "url-token" => EdgeKind::Url,
        _ => return None,
    })
}
