//! What `package.json` files under the project's folder say: versions of installed packages, and
//! the workspace packages of a monorepo, which are own code under a name of their own.
//!
//! Nothing above the project's folder is opened, whatever a map claims.

use std::{collections::HashMap, path::Path};

use serde::Deserialize;
use serde_json::Value;
use uvlet_record::{Package, SideEffects};

use super::{locks::Locked, read_file, source_names::Installed};

/// Bytes of a `package.json` that are read; none is longer.
const LONGEST: u64 = 4 << 20;

/// What is known of a package, but for whether it is own: the version from its path where the package
/// manager writes it there, else from `package.json` at its place under `root`, else from the lock file there.
pub fn package(installed: &Installed, root: Option<&Path>, locked: &Locked) -> Package {
    let manifest = root.and_then(|root| manifest(root, &installed.place));
    let side_effects = manifest.as_ref().map(|manifest| match &manifest.side_effects {
        Some(Value::Bool(false)) => SideEffects::None,
        Some(Value::String(glob)) => SideEffects::In(vec![glob.clone()]),
        Some(Value::Array(globs)) => {
            let globs = globs.iter().filter_map(Value::as_str);
            SideEffects::In(globs.map(str::to_owned).collect())
        }
        _ => SideEffects::Undeclared,
    });
    let version = installed.version.clone();
    let (name, said) = manifest.map_or((None, None), |manifest| (manifest.name, manifest.version));
    Package {
        name: installed.name.clone(),
        alias_of: name.filter(|name| *name != installed.name),
        place: installed.place.clone(),
        version: version.or(said).or_else(|| locked.version(installed)),
        own: false,
        side_effects,
    }
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Manifest {
    name: Option<String>,
    version: Option<String>,
    side_effects: Option<Value>,
}

fn manifest(root: &Path, folder: &str) -> Option<Manifest> {
    if folder.split('/').any(|part| part == "..") {
        return None;
    }
    let text = read_file(&root.join(folder).join("package.json"), LONGEST)?;
    serde_json::from_slice(&text).ok()
}

/// Bytes of a path beyond which none is looked up.
const LONGEST_PATH: usize = 4096;

/// Finds the workspace package of an own module: that of the nearest `package.json` below the
/// project's folder.
pub struct Workspaces<'r> {
    root: &'r Path,
    known: HashMap<String, Option<Installed>>,
}

impl<'r> Workspaces<'r> {
    pub fn under(root: &'r Path) -> Self {
        Self { root, known: HashMap::new() }
    }

    /// The package around a module, by the module's path from the project's folder.
    pub fn around(&mut self, module: &str) -> Option<Installed> {
        let mut passed = Vec::new();
        let mut at = module;
        let found = loop {
            let Some((folder, _)) = at.rsplit_once('/') else { break None };
            at = folder;
            // No folder of a disk has so long a path.
            if folder.len() > LONGEST_PATH {
                continue;
            }
            if let Some(known) = self.known.get(folder) {
                break known.clone();
            }
            passed.push(folder);
            let Some(Manifest { name, version, .. }) = manifest(self.root, folder) else {
                continue;
            };
            if let Some(name) = name {
                let (place, above) = (folder.to_owned(), String::new());
                break Some(Installed { name, place, above, version });
            }
        };
        for folder in passed {
            self.known.insert(folder.to_owned(), found.clone());
        }
        found
    }
}
