//! Vite's build manifest: which file an entry became, what it imports, and its styles and assets.

use std::collections::{BTreeMap, BTreeSet};

use serde::Deserialize;
use uvlet_record::{AsideKind, Bundler};

use super::{
    described::{Described, DescribedEntry, DescribedFile, DescribedModule},
    description::{Description, DescriptionError, damaged, is_code, is_script},
    outline::Outline,
};

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

/// The manifest.
pub struct Manifest;

impl Description for Manifest {
    fn kind(&self) -> AsideKind {
        AsideKind::Manifest
    }

    fn is(&self, _: &Outline) -> bool {
        false
    }

    fn is_all_in_all(&self, outline: &Outline, paths: &BTreeSet<String>) -> bool {
        outline.lists_built_files(paths)
    }

    fn richness(&self) -> u8 {
        0
    }

    fn read(&self, json: &str) -> Result<Vec<Described>, DescriptionError> {
        let manifest = serde_json::from_str(json).map_err(|error| damaged(&error))?;
        Ok(vec![described(&manifest)])
    }
}

fn described(manifest: &BTreeMap<String, Built>) -> Described {
    let mut described = Described { bundler: Some(Bundler::Vite), ..Described::default() };
    for built in manifest.values() {
        let is_asset = !is_code(&built.file);
        let source = built.src.as_ref().filter(|_| is_asset).map(|src| {
            described.add(DescribedModule { raw: src.clone(), ..DescribedModule::default() })
        });
        described.files.push(DescribedFile {
            path: built.file.clone(),
            source,
            name: built.name.clone(),
            names: built.assets.clone(),
            styles: built.css.clone(),
            ..DescribedFile::default()
        });
        if built.is_entry && is_script(&built.file) {
            described.entries.push(DescribedEntry {
                name: built.name.clone().unwrap_or_default(),
                files: closure(built, manifest),
                roots: Vec::new(),
            });
        }
    }
    described
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
