//! What `package.json` files under the project's folder say: versions of installed packages, and
//! the workspace packages of a monorepo, which are own code under a name of their own.
//!
//! Nothing above the project's folder is opened, whatever a map claims.

use std::{collections::HashMap, path::Path};

use serde::Deserialize;
use uvlet_record::path::Installed;

use crate::{locks::Locked, project::read_file};

/// Bytes of a `package.json` that are read; none is longer.
const LONGEST: u64 = 4 << 20;

/// The version of a package: from its path where the package manager writes it there, else from
/// `package.json` at its place under `root`, else from the lock file there.
pub fn version(installed: &Installed, root: Option<&Path>, locked: &Locked) -> Option<String> {
    if let Some(version) = &installed.version {
        return Some(version.clone());
    }
    let manifest = manifest(root?, &installed.place);
    manifest.and_then(|manifest| manifest.version).or_else(|| locked.version(installed))
}

#[derive(Deserialize)]
struct Manifest {
    name: Option<String>,
    version: Option<String>,
}

fn manifest(root: &Path, folder: &str) -> Option<Manifest> {
    if folder.split('/').any(|part| part == "..") {
        return None;
    }
    let text = read_file(&root.join(folder).join("package.json"), LONGEST)?;
    serde_json::from_slice(&text).ok()
}

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
        let folder = module.rsplit_once('/')?.0;
        if let Some(known) = self.known.get(folder) {
            return known.clone();
        }
        let here = manifest(self.root, folder).and_then(|manifest| {
            let Manifest { name, version } = manifest;
            Some(Installed { name: name?, place: folder.to_owned(), above: String::new(), version })
        });
        let found = here.or_else(|| self.around(folder));
        self.known.insert(folder.to_owned(), found.clone());
        found
    }
}
