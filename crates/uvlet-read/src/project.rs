//! What a path has to do with a project: the project's folder around a build, and the builds inside a
//! project's folder.
//!
//! A project is a folder with installed packages, or with a `package.json` that describes one; small
//! ones of that name stand in outputs, too.

pub(crate) mod glue;
pub(crate) mod locks;
pub(crate) mod name_forms;
pub(crate) mod packages;
pub(crate) mod source_names;

use std::{
    fs,
    path::{Path, PathBuf},
};

use serde::Deserialize;
use serde::de::IgnoredAny;
use uvlet_record::Bundler;
use walkdir::WalkDir;

/// Folders that bundlers and frameworks write to.
const OUTPUTS: [&str; 9] = [
    "dist",
    "build",
    "out",
    ".next",
    ".output",
    ".svelte-kit",
    "www",
    "public/build",
    "storybook-static",
];

/// Bytes of a `package.json` that are read; none is longer.
const LONGEST: u64 = 4 << 20;

#[derive(Deserialize, Default)]
#[serde(rename_all = "camelCase", default)]
struct Manifest {
    name: Option<IgnoredAny>,
    scripts: Option<IgnoredAny>,
    dependencies: Names,
    dev_dependencies: Names,
}

#[derive(Deserialize, Default)]
#[serde(transparent)]
struct Names(std::collections::BTreeMap<String, IgnoredAny>);

fn manifest(folder: &Path) -> Option<Manifest> {
    serde_json::from_slice(&read_file(&folder.join("package.json"), LONGEST)?).ok()
}

/// A plain file's bytes, if there are no more than so many: a pipe or a device is not waited for.
pub fn read_file(path: &Path, longest: u64) -> Option<Vec<u8>> {
    let metadata = fs::metadata(path).ok()?;
    if !metadata.is_file() || metadata.len() > longest {
        return None;
    }
    fs::read(path).ok()
}

/// Whether a folder is a project's. Some outputs have packages of their own, and are none.
#[must_use]
pub fn is_project(folder: &Path) -> bool {
    let full = folder.canonicalize().unwrap_or_else(|_| folder.to_owned());
    let is_output = OUTPUTS.iter().any(|output| full.ends_with(output));
    if is_output || folder.join("BUILD_ID").is_file() {
        return false;
    }
    folder.join("node_modules").is_dir()
        || manifest(folder).is_some_and(|manifest| {
            let Manifest { name, scripts, dependencies, dev_dependencies } = manifest;
            name.is_some()
                || scripts.is_some()
                || !dependencies.0.is_empty()
                || !dev_dependencies.0.is_empty()
        })
}

/// The output folders of a project that hold something, each build once.
#[must_use]
pub fn outputs(project: &Path) -> Vec<PathBuf> {
    let folders = OUTPUTS.iter().map(|output| project.join(output));
    let found: Vec<PathBuf> = folders.filter(|folder| holds_code(folder)).collect();
    let is_again = |folder: &PathBuf| {
        let mut others = found.iter().filter(|other| *other != folder);
        others.any(|other| is_a_part(folder, other) || is_before(folder, other))
    };
    found.iter().filter(|folder| !is_again(folder)).cloned().collect()
}

/// Whether a folder is a link into another.
fn is_a_part(folder: &Path, other: &Path) -> bool {
    let full = folder.canonicalize().ok().zip(other.canonicalize().ok());
    full.is_some_and(|(folder, other)| folder.starts_with(&other))
}

/// Whether a framework's own folder holds the build as it was before the other was made of it.
fn is_before(folder: &Path, other: &Path) -> bool {
    if folder.ends_with(".svelte-kit") {
        let sites = [other.to_owned(), other.join("client")];
        return sites.iter().any(|site| site.join("_app/immutable").is_dir());
    }
    let id = fs::read_to_string(folder.join("BUILD_ID")).unwrap_or_default();
    let id = id.trim();
    let is_name = !id.is_empty() && !id.contains(['/', '\\', '.']);
    folder.ends_with(".next") && is_name && other.join("_next/static").join(id).is_dir()
}

fn holds_code(folder: &Path) -> bool {
    /// Files that are looked at before a folder is given up.
    const LOOKED_AT: usize = 2000;
    let code = ["js", "mjs", "cjs", "css", "html"];
    WalkDir::new(folder)
        .into_iter()
        .flatten()
        .filter(|entry| entry.file_type().is_file())
        .take(LOOKED_AT)
        .any(|entry| {
            entry.path().extension().is_some_and(|ending| code.iter().any(|c| ending == *c))
        })
}

/// The nearest folder around a build, without itself, that has a `package.json`; not looked for above
/// a repository.
#[must_use]
pub fn root_of(build: &Path) -> Option<PathBuf> {
    let full = build.canonicalize().ok()?;
    for folder in full.ancestors().skip(1) {
        if fs::metadata(folder.join("package.json")).is_ok_and(|metadata| metadata.is_file()) {
            return Some(folder.to_owned());
        }
        if folder.join(".git").exists() {
            break;
        }
    }
    None
}

/// The packages that a package, or a project, needs to run, by its `package.json`.
pub fn dependencies_of(folder: &Path) -> Vec<String> {
    manifest(folder).unwrap_or_default().dependencies.0.into_keys().collect()
}

/// The version of a package that a project has installed.
#[must_use]
pub fn installed_version(project: &Path, package: &str) -> Option<String> {
    #[derive(Deserialize)]
    struct Installed {
        version: String,
    }
    let path = project.join("node_modules").join(package).join("package.json");
    let installed: Installed = serde_json::from_slice(&read_file(&path, LONGEST)?).ok()?;
    Some(installed.version)
}

/// Tells whether a project's `package.json` depends on a package.
#[must_use]
pub fn depends_on(project: &Path, package: &str) -> bool {
    manifest(project).is_some_and(|manifest| {
        manifest.dependencies.0.contains_key(package)
            || manifest.dev_dependencies.0.contains_key(package)
    })
}

/// The bundlers that a project depends on.
#[must_use]
pub fn bundlers_of(project: &Path) -> Vec<Bundler> {
    let known = [
        ("vite", Bundler::Vite),
        ("webpack", Bundler::Webpack),
        ("@rspack/core", Bundler::Rspack),
        ("esbuild", Bundler::Esbuild),
        ("rollup", Bundler::Rollup),
        ("rolldown", Bundler::Rolldown),
    ];
    let its = known.into_iter().filter(|(name, _)| depends_on(project, name));
    its.map(|(_, bundler)| bundler).collect()
}

/// The folder around a build whose pages load what is in it, where a part was named for the whole.
#[must_use]
pub fn whole_of(part: &Path) -> Option<PathBuf> {
    /// Bytes of a page that are looked into.
    const LOOKED_INTO: u64 = 1 << 20;
    let full = part.canonicalize().ok()?;
    let (above, name) = (full.parent()?, full.file_name()?.to_str()?);
    let needle = format!("{name}/");
    let pages = fs::read_dir(above)
        .ok()?
        .flatten()
        .filter(|entry| entry.path().extension().is_some_and(|ending| ending == "html"));
    let loads = pages.take(20).any(|page| {
        read_file(&page.path(), LOOKED_INTO)
            .is_some_and(|text| memchr::memmem::find(&text, needle.as_bytes()).is_some())
    });
    let shown = part.parent().filter(|above| !above.as_os_str().is_empty());
    loads.then(|| shown.map_or_else(|| above.to_owned(), Path::to_owned))
}
