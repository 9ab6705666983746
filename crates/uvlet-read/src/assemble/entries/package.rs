//! Entries of a library: the files that the `package.json` around its output offers to those who
//! install it (Node.js documentation, sections "main" and "exports"; `module` as bundlers read it).

use std::{
    collections::{BTreeMap, BTreeSet},
    path::Path,
};
use uvlet_record::Edition;

use serde::Deserialize;
use serde_json::Value;
use uvlet_record::{Entry, File, FileId, Kind, Origin, path};

use super::numbered;
use crate::{assemble::chunk_names::Unique, project::read_file};

/// Bytes of a `package.json` that are read.
const LONGEST: u64 = 4 << 20;

/// Conditions within conditions that are followed.
const DEEPEST: usize = 8;

#[derive(Deserialize)]
struct Manifest {
    #[serde(default)]
    name: String,
    main: Option<String>,
    module: Option<String>,
    exports: Option<Value>,
}

/// The entries that the package around the folder `build` offers, if any of them is in the folder.
pub fn of_package(build: &Path, root: Option<&Path>, files: &[File]) -> Vec<Entry> {
    let read = || {
        let (build, root) = (build.canonicalize().ok()?, root?.canonicalize().ok()?);
        let below = build.strip_prefix(&root).ok()?.to_string_lossy().replace('\\', "/");
        let text = read_file(&root.join("package.json"), LONGEST)?;
        Some((below, serde_json::from_slice::<Manifest>(&text).ok()?))
    };
    let Some((below, manifest)) = read() else { return Vec::new() };
    let mut taken = Unique::default();
    let mut seen: BTreeSet<FileId> = BTreeSet::new();
    let mut entries: Vec<Entry> = Vec::new();
    for (name, condition, target) in manifest.offers() {
        let target = path::resolve(&target);
        let inside = match below.is_empty() {
            true => Some(target.as_str()),
            false => target.strip_prefix(&below).and_then(|rest| rest.strip_prefix('/')),
        };
        let Some(inside) = inside else { continue };
        let Ok(at) = files.binary_search_by(|file| file.path.as_str().cmp(inside)) else {
            continue;
        };
        let id = FileId::new(at);
        if files[at].kind != Kind::Script || !seen.insert(id) {
            continue;
        }
        let is_second = entries.iter().any(|entry| entry.name == name);
        let name = if is_second { format!("{name} ({condition})") } else { name };
        entries.push(Entry {
            name: numbered(&mut taken, &name),
            aliases: Vec::new(),
            pages: Vec::new(),
            routes: Vec::new(),
            origin: Origin::Package,
            requested: vec![id],
            later: Vec::new(),
            roots: Vec::new(),
            has_said_roots: false,
            edition: Edition::default(),
        });
    }
    entries.sort_by(|a, b| a.name.cmp(&b.name));
    entries
}

impl Manifest {
    /// What is offered: a name, the condition under which, and the file.
    fn offers(&self) -> Vec<(String, String, String)> {
        let own = self.name.rsplit('/').next().unwrap_or_default().to_owned();
        let mut offers = Vec::new();
        match &self.exports {
            Some(Value::Object(paths)) if paths.keys().all(|key| key.starts_with('.')) => {
                for (subpath, target) in paths {
                    let name = subpath.trim_start_matches("./").trim_start_matches('.');
                    let name = if name.is_empty() { own.as_str() } else { name };
                    targets(target, "default", DEEPEST, &mut |condition, file| {
                        offers.push((name.to_owned(), condition.to_owned(), file.to_owned()));
                    });
                }
            }
            Some(target) => targets(target, "default", DEEPEST, &mut |condition, file| {
                offers.push((own.clone(), condition.to_owned(), file.to_owned()));
            }),
            None => {}
        }
        let plain = [(&self.module, "import"), (&self.main, "require")];
        offers.extend(plain.into_iter().filter_map(|(file, condition)| {
            Some((own.clone(), condition.to_owned(), file.clone()?))
        }));
        offers
    }
}

/// The files under conditions, as they are nested; those of types are met by no program.
fn targets(target: &Value, condition: &str, depth: usize, found: &mut dyn FnMut(&str, &str)) {
    match target {
        Value::String(file) => found(condition, file),
        Value::Array(list) if depth > 1 => {
            list.iter()
                .for_each(|target| targets(target, condition, depth.saturating_sub(1), found));
        }
        Value::Object(conditions) if depth > 1 => {
            let conditions: BTreeMap<&String, &Value> = conditions.iter().collect();
            for (key, target) in conditions.into_iter().filter(|(key, _)| *key != "types") {
                let condition = if key == "default" { condition } else { key };
                targets(target, condition, depth - 1, found);
            }
        }
        _ => {}
    }
}
