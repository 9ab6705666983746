//! Files of an installed package that hold one name each, as the project has them.

use std::collections::{BTreeSet, HashSet};

use uvlet_record::Project;
use uvlet_script::{
    Dialect, read,
    requests::{Kind, Request, requests},
};

/// Where packages keep a file for each name; `*` is the name.
const PATTERNS: [&str; 10] = [
    "*",
    "*.js",
    "lib/*",
    "lib/*.js",
    "es/*.js",
    "esm/*.js",
    "modules/*.js",
    "dist/*.js",
    "dist/esm/*.js",
    "dist/es/*.js",
];

/// Files that are followed at most.
const MOST: usize = 2_000;

/// The files that names of a package have of their own.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OwnPaths {
    /// What the first name would be imported by.
    pub request: String,
    /// Files that the names need.
    pub files: usize,
}

/// Looks for a file for each name, from a folder of the project.
pub(crate) fn own_paths(
    project: &dyn Project,
    folder: &str,
    package: &str,
    names: &BTreeSet<String>,
) -> Option<OwnPaths> {
    let request = |pattern: &str, name: &str| format!("{package}/{}", pattern.replace('*', name));
    let found = |pattern: &&str| -> Option<Vec<String>> {
        names.iter().map(|name| project.resolve(folder, &request(pattern, name))).collect()
    };
    let (pattern, files) = PATTERNS.iter().find_map(|pattern| Some((pattern, found(pattern)?)))?;
    let mut known: HashSet<String> = files.iter().cloned().collect();
    let mut open = files;
    while let Some(file) = open.pop() {
        let text = project.text(&file)?;
        let folder = file.rsplit_once('/').map_or("", |(folder, _)| folder);
        let asked = read(&text, Dialect::Source, |script| requests(script, false)).ok()?.asks;
        let is_now =
            |one: &Request| matches!(one.kind, Kind::Import | Kind::Reexport | Kind::Require);
        for asked in asked.into_iter().filter(is_now) {
            let Some(to) = project.resolve(folder, &asked.specifier) else { continue };
            if known.insert(to.clone()) {
                open.push(to);
            }
        }
        if known.len() > MOST {
            return None;
        }
    }
    let request = request(pattern, names.first()?);
    Some(OwnPaths { request, files: known.len() })
}
