//! esbuild's metafile: inputs with their imports, outputs with what each input has in them.
//!
//! Paths are relative to the folder that esbuild ran in. `bytesInOutput` is its own count of a
//! module's bytes in a file, so no source map is needed for exact sizes.

use std::{borrow::Cow, collections::HashMap};

use serde::Deserialize;
use uvlet_record::{Bundler, EdgeKind};

use super::{Slot, Told, ToldEdge, ToldEntry, ToldFile, ToldModule, Untold, damaged, is_script};

#[derive(Deserialize)]
struct Metafile<'a> {
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
}

#[derive(Deserialize)]
struct Import<'a> {
    #[serde(borrow)]
    path: Text<'a>,
    #[serde(borrow)]
    kind: Text<'a>,
    #[serde(borrow)]
    original: Option<Text<'a>>,
    #[serde(default)]
    external: bool,
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

pub fn read(json: &str) -> Result<Told, Untold> {
    let metafile: Metafile<'_> = serde_json::from_str(json).map_err(|error| damaged(&error))?;
    let mut told = Told { bundler: Some(Bundler::Esbuild), ..Told::default() };
    let mut inputs: Vec<_> = metafile.inputs.iter().collect();
    inputs.sort_by(|a, b| a.0.cmp(b.0));
    let mut ids: HashMap<&str, usize> = HashMap::new();
    for (path, input) in &inputs {
        ids.insert(&path.0, told.modules.len());
        let raw = path.0.clone().into_owned();
        told.modules.push(ToldModule { raw, bytes: Some(input.bytes), ..ToldModule::default() });
    }
    for (path, input) in &inputs {
        for import in &input.imports {
            let Some(kind) = edge_kind(&import.kind.0) else { continue };
            let to = match ids.get(&*import.path.0) {
                Some(&to) => to,
                None if import.external && !import.path.0.contains(':') => {
                    told.modules.push(ToldModule {
                        raw: import.path.0.clone().into_owned(),
                        external: true,
                        ..ToldModule::default()
                    });
                    ids.insert(&import.path.0, told.modules.len() - 1);
                    told.modules.len() - 1
                }
                None => continue,
            };
            let request = import.original.as_ref().map(|text| text.0.clone().into_owned());
            told.edges.push(ToldEdge { from: ids[&*path.0], to, kind, request });
        }
    }
    let mut outputs: Vec<_> = metafile.outputs.iter().collect();
    outputs.sort_by(|a, b| a.0.cmp(b.0));
    let opened: Vec<&str> = metafile
        .inputs
        .values()
        .flat_map(|input| &input.imports)
        .filter(|import| edge_kind(&import.kind.0).is_some_and(EdgeKind::is_deferred))
        .map(|import| &*import.path.0)
        .collect();
    for (path, output) in outputs {
        if path.0.ends_with(".map") {
            continue;
        }
        let mut counted: Vec<(usize, u64)> = output
            .inputs
            .iter()
            .filter_map(|(input, share)| Some((*ids.get(&*input.0)?, share.bytes_in_output)))
            .collect();
        counted.sort_unstable();
        let style = output.css_bundle.as_ref().map(|style| style.0.clone().into_owned());
        let root = output.entry_point.as_ref().and_then(|input| ids.get(&*input.0).copied());
        told.files.push(ToldFile {
            path: path.0.clone().into_owned(),
            bytes: Some(output.bytes),
            slots: counted.iter().map(|&(at, _)| Slot { id: None, modules: vec![at] }).collect(),
            source: match counted.as_slice() {
                [(module, _)] if !super::is_code(&path.0) => Some(*module),
                _ => None,
            },
            counted: Some(counted),
            entry: root,
            styles: style.iter().cloned().collect(),
            ..ToldFile::default()
        });
        let (Some(root), Some(entry)) = (root, &output.entry_point) else { continue };
        // What only an `import()` asks for is a chunk of its own, and no entry.
        if opened.contains(&&*entry.0) || !is_script(&path.0) {
            continue;
        }
        told.entries.push(ToldEntry {
            // A stem, which is made a name once the hashes of the build are known.
            name: String::new(),
            files: std::iter::once(path.0.clone().into_owned()).chain(style).collect(),
            roots: vec![root],
        });
    }
    Ok(told)
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
