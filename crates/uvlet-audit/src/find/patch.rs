//! Edits that mend findings and change no behaviour by construction: what a package says of its modules'
//! effects, where it says nothing, and imports that go past files which only hand names on.
//!
//! Only what is read on disk is edited, and only if all modules that an edit could let go, or evaluate in
//! another order, do nothing as they are evaluated.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Edge, EdgeKind, ModuleId, Record, SideEffects};
use uvlet_script::inert::{Import, imports, is_inert};

use crate::{
    find::{finding::Finding, kind::Kind},
    graph::barrels::{Barrels, Names, Sight, barrels},
};

/// Endings of scripts that a package may hold.
const SCRIPTS: [&str; 8] = [".js", ".mjs", ".cjs", ".jsx", ".ts", ".mts", ".cts", ".tsx"];

/// Endings of styles.
const STYLES: [&str; 4] = [".css", ".scss", ".sass", ".less"];

/// The files of a project.
pub trait Project {
    /// The text of a file; none where it is not there.
    fn read(&self, path: &str) -> Option<String>;
    /// The files below a folder, installed packages left out, by paths from the project's folder.
    fn list(&self, folder: &str) -> Vec<String>;
}

/// An edit of a file.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Edit {
    /// The file.
    pub path: String,
    /// As it is.
    pub before: String,
    /// As it would be.
    pub after: String,
    /// The findings that it mends, in part at least.
    pub findings: Vec<String>,
    /// What it does.
    pub what: Does,
}

/// What an edit does.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Does {
    /// It says which scripts of a package do something as they are evaluated.
    DeclaresEffects {
        /// Number of scripts that the package has.
        scripts: usize,
        /// The package.
        package: String,
        /// Those that do something, as patterns; none where none does.
        active: Vec<String>,
    },
    /// It imports from the modules that declare the names.
    ImportsFromDeclarers,
}

/// The edits that some findings allow.
pub(crate) fn patch(sight: Sight<'_>, findings: &[Finding], project: &dyn Project) -> Vec<Edit> {
    let mut edits = declared_effects(sight.record, findings, project);
    edits.extend(past_barrels(sight, findings, project));
    edits.sort_by(|a, b| a.path.cmp(&b.path));
    edits
}

/// `sideEffects` for in-house packages that say nothing.
fn declared_effects(record: &Record, findings: &[Finding], project: &dyn Project) -> Vec<Edit> {
    let mut edits = Vec::new();
    let in_house = record.packages.iter().filter(|package| {
        package.own && matches!(package.side_effects, None | Some(SideEffects::Undeclared))
    });
    for package in in_house {
        let folder = format!("{}/", package.place);
        let about: Vec<String> = findings
            .iter()
            .filter(|finding| finding.paths.iter().any(|path| path.starts_with(&folder)))
            .map(|finding| finding.id.clone())
            .collect();
        let path = format!("{}/package.json", package.place);
        let Some(before) = project.read(&path).filter(|_| !about.is_empty()) else { continue };
        if before.contains("\"sideEffects\"") || !before.trim_start().starts_with('{') {
            continue;
        }
        let files = project.list(&package.place);
        let scripts: Vec<&String> =
            files.iter().filter(|file| SCRIPTS.iter().any(|end| file.ends_with(end))).collect();
        let does_something = |file: &&&String| {
            !project.read(file).is_some_and(|text| is_inert(&text).unwrap_or(false))
        };
        let active: Vec<&&String> = scripts.iter().filter(does_something).collect();
        if active.len() == scripts.len() {
            continue;
        }
        let mut list: Vec<String> = active
            .iter()
            .filter_map(|file| Some(format!("./{}", file.strip_prefix(&folder)?)))
            .collect();
        let has = |ending: &str| files.iter().any(|file| file.ends_with(ending));
        list.extend(STYLES.iter().filter(|end| has(end)).map(|ending| format!("**/*{ending}")));
        let others = [".vue", ".svelte"];
        list.extend(others.iter().filter(|end| has(end)).map(|ending| format!("**/*{ending}")));
        let value = match list.as_slice() {
            [] => "false".to_owned(),
            list => {
                let names: Vec<String> = list.iter().map(|name| format!("\"{name}\"")).collect();
                format!("[{}]", names.join(", "))
            }
        };
        edits.push(Edit {
            after: with_key(&before, "sideEffects", &value),
            path,
            before,
            findings: about,
            what: Does::DeclaresEffects {
                scripts: scripts.len(),
                package: package.name.clone(),
                active: list,
            },
        });
    }
    edits
}

/// A JSON object with a key at its head, laid out as it is.
fn with_key(text: &str, key: &str, value: &str) -> String {
    let Some(open) = text.find('{') else { return text.to_owned() };
    let rest = &text[open + 1..];
    let indent: String = rest.chars().take_while(|c| c.is_whitespace()).collect();
    let is_empty = rest.trim_start().starts_with('}');
    let comma = if is_empty { "" } else { "," };
    format!("{}{{{indent}\"{key}\": {value}{comma}{rest}", &text[..open])
}

/// Imports of own code that go past a file which only hands on.
fn past_barrels(sight: Sight<'_>, findings: &[Finding], project: &dyn Project) -> Vec<Edit> {
    let record = sight.record;
    let found: Vec<(&Finding, ModuleId)> = findings
        .iter()
        .filter(|finding| finding.kind == Kind::BarrelPull)
        .filter_map(|finding| {
            let at =
                record.modules.iter().position(|module| finding.paths.contains(&module.path))?;
            Some((finding, ModuleId::new(at)))
        })
        // Of an installed package only its own paths are offered to others.
        .filter(|(_, id)| record.module(*id).package.is_none())
        .collect();
    if found.is_empty() {
        return Vec::new();
    }
    let barrels = barrels(sight);
    let mut edits: BTreeMap<String, Edit> = BTreeMap::new();
    for (finding, barrel) in found {
        if !is_all_inert(sight, barrel) {
            continue;
        }
        let askers: BTreeSet<ModuleId> = sight
            .network
            .askers(barrel)
            .filter(|edge| edge.kind == EdgeKind::Static && !record.module(edge.from).third_party)
            .map(|edge| edge.from)
            .collect();
        for asker in askers {
            let path = record.module(asker).path.clone();
            let before = match edits.get(&path) {
                Some(edit) => edit.after.clone(),
                None => match project.read(&path) {
                    Some(text) if sight.texts.source(asker).is_some_and(|known| known == text) => {
                        text
                    }
                    _ => continue,
                },
            };
            let Some(after) = rewritten(sight, &barrels, asker, barrel, &before) else { continue };
            let edit = edits.entry(path.clone()).or_insert_with(|| Edit {
                path,
                before: before.clone(),
                after: String::new(),
                findings: Vec::new(),
                what: Does::ImportsFromDeclarers,
            });
            edit.after = after;
            edit.findings.push(finding.id.clone());
        }
    }
    edits.into_values().collect()
}

/// Whether all that a file reaches at once does nothing as it is evaluated, and its source is at hand.
fn is_all_inert(sight: Sight<'_>, barrel: ModuleId) -> bool {
    let is_now = |edge: &Edge| !edge.kind.is_deferred();
    let reached = sight.network.reach(&[barrel], &is_now, &|_| false);
    (0..reached.len()).filter(|&at| reached[at]).all(|at| {
        let text = sight.texts.source(ModuleId::new(at));
        text.is_some_and(|text| is_inert(&text).unwrap_or(false))
    })
}

/// A source whose imports of a file that hands on are those of what it hands on.
fn rewritten(
    sight: Sight<'_>,
    barrels: &Barrels,
    asker: ModuleId,
    barrel: ModuleId,
    text: &str,
) -> Option<String> {
    let requests: BTreeSet<&str> = sight
        .network
        .asked(asker)
        .filter(|edge| edge.to == barrel)
        .filter_map(|edge| edge.request.as_deref())
        .collect();
    let mut lines: Vec<Import> = imports(text).ok()?;
    lines.retain(|import| requests.contains(import.request.as_str()));
    let mut after = text.to_owned();
    for import in lines.iter().rev() {
        let mut by_request: BTreeMap<String, Vec<String>> = BTreeMap::new();
        for (name, local) in &import.names {
            let (request, theirs) = barrels.handed.get(&barrel)?.names.get(name)?;
            let theirs = theirs.as_ref()?;
            // It must be known to lead somewhere, and to one place.
            let wanted = Names::These(BTreeSet::from([name.clone()]));
            if barrels.taken(barrel, &wanted, sight).len() != 1 {
                return None;
            }
            let request = match request.starts_with('.') {
                true => between(
                    &sight.record.module(asker).path,
                    &joined(&sight.record.module(barrel).path, request),
                ),
                false => request.clone(),
            };
            let name = match theirs == local {
                true => local.clone(),
                false => format!("{theirs} as {local}"),
            };
            by_request.entry(request).or_default().push(name);
        }
        let quote = import.quote;
        let lines: Vec<String> = by_request
            .into_iter()
            .map(|(request, names)| {
                format!("import {{ {} }} from {quote}{request}{quote};", names.join(", "))
            })
            .collect();
        after.replace_range(import.range.clone(), &lines.join("\n"));
    }
    (after != text).then_some(after)
}

/// A relative request of a file, as a path.
fn joined(from: &str, request: &str) -> String {
    let folder = from.rsplit_once('/').map_or("", |(folder, _)| folder);
    let mut parts: Vec<&str> = folder.split('/').filter(|part| !part.is_empty()).collect();
    for part in request.split('/') {
        match part {
            "." | "" => {}
            ".." => {
                parts.pop();
            }
            part => parts.push(part),
        }
    }
    parts.join("/")
}

/// A path as a file of another folder asks for it.
fn between(from: &str, to: &str) -> String {
    let folder = from.rsplit_once('/').map_or("", |(folder, _)| folder);
    let from: Vec<&str> = folder.split('/').filter(|part| !part.is_empty()).collect();
    let to: Vec<&str> = to.split('/').collect();
    let shared = from.iter().zip(&to).take_while(|(a, b)| a == b).count();
    let up = "../".repeat(from.len() - shared);
    let up = if up.is_empty() { "./".to_owned() } else { up };
    format!("{up}{}", to[shared..].join("/"))
}
