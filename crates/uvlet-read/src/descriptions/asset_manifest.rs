//! The list of files that webpack apps write for servers that make their pages: `asset-manifest.json`,
//! with the files of the first page under `entrypoints`.

use std::collections::BTreeMap;

use serde::Deserialize;
use serde_json::Value;
use uvlet_record::AsideKind;

use super::{
    described::{Described, DescribedEntry, DescribedFile},
    description::{Description, DescriptionError, damaged, is_code, is_script},
    outline::Outline,
};

#[derive(Deserialize)]
struct Json {
    /// Names, with the URLs that they stand for.
    files: BTreeMap<String, Value>,
    entrypoints: Value,
}

/// The list.
pub struct AssetManifest;

impl Description for AssetManifest {
    fn kind(&self) -> AsideKind {
        AsideKind::AssetManifest
    }

    fn is(&self, outline: &Outline) -> bool {
        let has_entries = outline.has_list("entrypoints") || outline.has_object("entrypoints");
        outline.has_object("files") && has_entries && outline.len() == 2
    }

    fn richness(&self) -> u8 {
        0
    }

    fn read(&self, json: &str) -> Result<Vec<Described>, DescriptionError> {
        let json: Json = serde_json::from_str(json).map_err(|error| damaged(&error))?;
        let mut described = Described::default();
        let paths = json.files.values().filter_map(Value::as_str).map(plain);
        for path in paths.filter(|path| is_code(path)) {
            described.files.push(DescribedFile { path, ..DescribedFile::default() });
        }
        match &json.entrypoints {
            // Of one entry, whose name is that of its script.
            list @ Value::Array(_) => {
                let files = files(list);
                let is_last = |url: &Value| files.last() == url.as_str().map(plain).as_ref();
                let name = json.files.iter().find(|(_, url)| is_last(url));
                let name = name.map(|(name, _)| name.trim_end_matches(".js").to_owned());
                let name = name.unwrap_or_else(|| "main".to_owned());
                described.entries.push(DescribedEntry { name, files, roots: Vec::new() });
            }
            Value::Object(entries) => {
                described.entries.extend(entries.iter().map(|(name, list)| DescribedEntry {
                    name: name.clone(),
                    files: files(list),
                    roots: Vec::new(),
                }));
            }
            _ => {}
        }
        described.entries.retain(|entry| entry.files.iter().any(|file| is_script(file)));
        Ok(vec![described])
    }
}

/// The files in a list, or in lists by kind.
fn files(list: &Value) -> Vec<String> {
    match list {
        Value::String(url) if is_code(url) => vec![plain(url)],
        Value::Array(list) => list.iter().flat_map(files).collect(),
        Value::Object(kinds) => kinds.values().flat_map(files).collect(),
        _ => Vec::new(),
    }
}

/// A URL as a path: without a host, a query, and the slash before it.
fn plain(url: &str) -> String {
    let path = url.split(['?', '#']).next().unwrap_or(url);
    let path = match path.split_once("//") {
        Some((_, rest)) => rest.split_once('/').map_or("", |(_, path)| path),
        None => path,
    };
    path.trim_start_matches("./").trim_start_matches('/').to_owned()
}
