//! Vite's build manifest: which file an entry became, what it imports, and its styles and assets.

use std::collections::{BTreeMap, BTreeSet};

use serde::Deserialize;
use uvlet_record::Bundler;

use super::{Told, ToldEntry, ToldFile, ToldModule, Untold, damaged};

/// One file of the manifest.
#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Built {
    file: String,
    src: Option<String>,
    name: Option<String>,
    #[serde(default)]
    is_entry: bool,
    #[serde(default)]
    imports: Vec<String>,
    #[serde(default)]
    css: Vec<String>,
    #[serde(default)]
    assets: Vec<String>,
}

pub fn read(json: &str) -> Result<Told, Untold> {
    let manifest: BTreeMap<String, Built> =
        serde_json::from_str(json).map_err(|error| damaged(&error))?;
    let mut told = Told { bundler: Some(Bundler::Vite), ..Told::default() };
    for built in manifest.values() {
        let is_asset = !super::is_code(&built.file);
        let source = built.src.as_ref().filter(|_| is_asset).map(|src| {
            told.modules.push(ToldModule { raw: src.clone(), ..ToldModule::default() });
            told.modules.len() - 1
        });
        told.files.push(ToldFile {
            path: built.file.clone(),
            source,
            name: built.name.clone(),
            names: built.assets.clone(),
            styles: built.css.clone(),
            ..ToldFile::default()
        });
        if built.is_entry && super::is_script(&built.file) {
            told.entries.push(ToldEntry {
                name: built.name.clone().unwrap_or_default(),
                files: closure(built, &manifest),
                roots: Vec::new(),
            });
        }
    }
    Ok(told)
}

/// The entry's file, what it statically imports, and the styles of all these, in the order that
/// Vite links them from a page.
fn closure(entry: &Built, manifest: &BTreeMap<String, Built>) -> Vec<String> {
    let mut files = vec![entry.file.clone()];
    let mut styles = entry.css.clone();
    let mut seen: BTreeSet<&str> = BTreeSet::new();
    let mut open: Vec<&Built> = vec![entry];
    let mut next = 0;
    while let Some(built) = open.get(next).copied() {
        next += 1;
        for key in &built.imports {
            if let Some(import) = manifest.get(key).filter(|_| seen.insert(key)) {
                files.push(import.file.clone());
                styles.extend(import.css.iter().cloned());
                open.push(import);
            }
        }
    }
    files.extend(styles);
    files
}
