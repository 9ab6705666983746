//! Small records for tests, said in a few words: files of modules, who imports whom, where entries start.

use std::collections::{BTreeMap, BTreeSet};

use serde_json::{Value, json};
use uvlet_record::{Record, SavedTexts};

/// That one module imports another.
struct Import {
    from: String,
    to: String,
    request: String,
    /// The name that it takes, where that is known.
    name: Option<String>,
}

/// A build in the making: everything by its path, as a record has it in order.
#[derive(Default)]
pub struct Small {
    /// Per file: its modules, of which that without a path is of nobody, each with its text.
    files: BTreeMap<String, Vec<(String, String)>>,
    versions: BTreeMap<String, String>,
    edges: Vec<Import>,
    entries: Vec<(String, Vec<String>, String)>,
}

impl Small {
    /// A script with these modules, one after the other; what nobody owns has no path. An installed
    /// package is one by its place in the path.
    pub fn file(mut self, path: &str, modules: &[(&str, &str)]) -> Self {
        let owned = |(path, text): &(&str, &str)| ((*path).to_owned(), (*text).to_owned());
        self.files.insert(path.to_owned(), modules.iter().map(owned).collect());
        self
    }

    /// The version of what is installed at a place.
    pub fn version(mut self, place: &str, version: &str) -> Self {
        self.versions.insert(place.to_owned(), version.to_owned());
        self
    }

    /// One module imports another by this request.
    pub fn import(mut self, from: &str, to: &str, request: &str) -> Self {
        let (from, to, request) = (from.to_owned(), to.to_owned(), request.to_owned());
        self.edges.push(Import { from, to, request, name: None });
        self
    }

    /// One module imports one name of another.
    pub fn import_name(self, from: &str, to: &str, name: &str) -> Self {
        let mut build = self.import(from, to, "./it");
        if let Some(import) = build.edges.last_mut() {
            import.name = Some(name.to_owned());
        }
        build
    }

    /// An entry that requests files, and starts with a module.
    pub fn entry(mut self, name: &str, files: &[&str], root: &str) -> Self {
        let files = files.iter().map(|&file| file.to_owned()).collect();
        self.entries.push((name.to_owned(), files, root.to_owned()));
        self
    }

    /// The record, with all texts.
    pub fn build(self) -> Record {
        let pieces = || self.files.values().flatten().filter(|(module, _)| !module.is_empty());
        let sources: BTreeMap<&str, &str> =
            pieces().map(|(module, text)| (module.as_str(), text.as_str())).collect();
        let ends = self.edges.iter().flat_map(|edge| [edge.from.as_str(), edge.to.as_str()]);
        let modules: Vec<&str> =
            sources.keys().copied().chain(ends).collect::<BTreeSet<_>>().into_iter().collect();
        let module_at = |path: &str| modules.binary_search(&path).expect("a module");
        let packages: Vec<(&str, &str)> = modules
            .iter()
            .filter_map(|path| package(path))
            .collect::<BTreeSet<_>>()
            .into_iter()
            .collect();
        let module = |path: &&str| {
            let package = package(path).map(|one| packages.binary_search(&one).expect("sorted"));
            json!({
                "path": path, "package": package, "third_party": package.is_some(),
                "source_bytes": null
            })
        };
        let packages_json = packages.iter().map(|(name, place)| {
            json!({"name": name, "place": place, "version": self.versions.get(*place), "own": false})
        });
        let (mut files, mut cells, mut runs) = (Vec::new(), Vec::<Value>::new(), Vec::new());
        for (at, (path, pieces)) in self.files.iter().enumerate() {
            let (first_cell, first_run) = (cells.len(), runs.len());
            let mut start = 0;
            for (module, text) in pieces {
                let owner = match module.as_str() {
                    "" => json!("unattributed"),
                    path => json!({"module": module_at(path)}),
                };
                let (length, cell) = (text.len(), cells.len());
                runs.push(json!({"start": start, "length": length, "cell": cell}));
                cells.push(
                    json!({"file": at, "owner": owner, "emitted": length, "basis": "mapped"}),
                );
                start += length;
            }
            files.push(json!({
                "path": path, "kind": "script", "digest": "", "emitted": start, "format": "es",
                "cells": {"start": first_cell, "end": cells.len()},
                "runs": {"start": first_run, "end": runs.len()}
            }));
        }
        let chunks = self.files.keys().enumerate().map(|(at, path)| {
            json!({"name": path, "stem": path, "named_by": "file", "script": at, "styles": []})
        });
        let edges = self.edges.iter().map(|Import { from, to, request, name }| {
            json!({
                "from": module_at(from), "to": module_at(to), "kind": "static", "request": request,
                "names": name.as_ref().map(|name| [name]), "basis": "said"
            })
        });
        let entries = self.entries.iter().map(|(name, requested, root)| {
            let file_at = |path: &String| self.files.keys().position(|file| file == path);
            json!({
                "name": name, "aliases": [], "pages": [], "origin": "bundler",
                "requested": requested.iter().map(file_at).collect::<Vec<_>>(), "later": [],
                "roots": [module_at(root)], "has_said_roots": true
            })
        });
        let record = json!({
            "schema": uvlet_record::SCHEMA, "label": "small", "bundler": null,
            "bundler_version": null, "mode": "production", "mode_evidence": [],
            "target": "browser", "target_basis": {"mark": "page"}, "set_aside": [],
            "encoders": {}, "precompressed": {}, "files": files, "cells": cells, "runs": runs,
            "modules": modules.iter().map(module).collect::<Vec<_>>(),
            "packages": packages_json.collect::<Vec<_>>(),
            "chunks": chunks.collect::<Vec<_>>(), "entries": entries.collect::<Vec<_>>(),
            "dynamic_loads": [], "edges": edges.collect::<Vec<_>>(), "aside": [], "notices": [],
        });
        let mut record: Record = serde_json::from_value(record).expect("a record");
        let text =
            |pieces: &Vec<(String, String)>| pieces.iter().map(|(_, text)| &**text).collect();
        record.texts = Some(SavedTexts {
            emitted: self.files.values().map(|pieces| Some(text(pieces))).collect(),
            maps: Vec::new(),
            sources: modules
                .iter()
                .map(|path| sources.get(path).map(|&text| text.into()))
                .collect(),
        });
        record.edges.sort();
        record.verify().expect("a record without flaw");
        record
    }
}

/// The name and the place of the package that a path is inside of.
fn package(path: &str) -> Option<(&str, &str)> {
    const FOLDER: &str = "node_modules/";
    let start = path.rfind(FOLDER)? + FOLDER.len();
    let length = path[start..].find('/').unwrap_or(path.len() - start);
    Some((&path[start..start + length], &path[..start + length]))
}
