//! Versions of installed packages, from their own `package.json` under the project's folder.

use std::{fs, path::Path};

use serde::Deserialize;
use uvlet_record::path::Installed;

/// The version of a package: from its path where the package manager writes it there, else from
/// `package.json` at its place under `root`.
pub fn version(installed: &Installed, root: Option<&Path>) -> Option<String> {
    #[derive(Deserialize)]
    struct Manifest {
        version: Option<String>,
    }
    if let Some(version) = &installed.version {
        return Some(version.clone());
    }
    // Nothing above the project's folder is opened, whatever a map claims.
    if installed.place.split('/').any(|part| part == "..") {
        return None;
    }
    let text = fs::read(root?.join(&installed.place).join("package.json")).ok()?;
    serde_json::from_slice::<Manifest>(&text).ok()?.version
}
