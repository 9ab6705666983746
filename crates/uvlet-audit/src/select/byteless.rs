//! Modules that left no byte, as bundlers leave of files that only re-export, and that a selector means all
//! the same: steps are taken on them, too.

use std::collections::BTreeSet;

use uvlet_record::{ModuleId, Record, glob::Glob};

use crate::select::{
    selector::{Selector, Tree},
    words::{Named, Plain},
};

/// The modules of a folder, by their place in the record.
pub(crate) fn in_folder(record: &Record, folder: &str) -> Vec<bool> {
    let is_inside = |path: &str| is_in_folder(path, folder);
    // The paths of several installs read the same; their places do not.
    let mut seen = BTreeSet::new();
    let several: BTreeSet<&str> = record
        .packages
        .iter()
        .map(|package| package.name.as_str())
        .filter(|name| !seen.insert(*name))
        .collect();
    let inside = |id: ModuleId| {
        let package = record.package_of(id).map(|package| package.name.as_str());
        let is_one = package.is_none_or(|name| !several.contains(name));
        is_inside(&record.location_of(id)) || (is_one && is_inside(&record.module(id).path))
    };
    (0..record.modules.len()).map(ModuleId::new).map(inside).collect()
}

/// Whether a path is below a folder.
pub(crate) fn is_in_folder(path: &str, folder: &str) -> bool {
    path.strip_prefix(folder.trim_end_matches('/')).is_some_and(|rest| rest.starts_with('/'))
}

/// The modules that a selector means by its sets of owners; what it says of files says nothing of them.
/// What leads to something that is excepted stays for that.
pub(crate) fn meant(selector: &Selector, record: &Record) -> Vec<bool> {
    let meant = of_tree(&selector.tree, record);
    let mut meant = meant.unwrap_or_else(|| vec![false; record.modules.len()]);
    if selector.tree.has(&|tree| matches!(tree, Tree::Except(_))) {
        let now = || record.edges.iter().filter(|edge| !edge.kind.is_deferred());
        while let Some(edge) = now().find(|edge| meant[edge.from.at()] && !meant[edge.to.at()]) {
            meant[edge.from.at()] = false;
        }
    }
    meant
}

fn of_tree(tree: &Tree, record: &Record) -> Option<Vec<bool>> {
    let join = |list: &[Tree], how: fn(bool, bool) -> bool| {
        let parts = list.iter().filter_map(|part| of_tree(part, record));
        parts.reduce(|one, other| one.iter().zip(other).map(|(a, b)| how(*a, b)).collect())
    };
    match tree {
        Tree::Plain(Plain::Own) => {
            Some(record.modules.iter().map(|module| !module.third_party).collect())
        }
        Tree::Plain(Plain::ThirdParty) => {
            Some(record.modules.iter().map(|module| module.third_party).collect())
        }
        Tree::Named { set: Named::Folder, argument, .. } => Some(in_folder(record, argument)),
        Tree::Named { set: Named::Module, argument, .. } => {
            let glob = Glob::new(argument, true);
            let is_it = |path: &str| path == argument || glob.is_match(path);
            Some(record.modules.iter().map(|module| is_it(&module.path)).collect())
        }
        Tree::Named { set: Named::Package, argument, .. } => Some(of_package(argument, record)),
        Tree::And(list) => join(list, |a, b| a && b),
        Tree::Or(list) => join(list, |a, b| a || b),
        // Nothing is left where nothing is known of what it is taken from.
        Tree::Except(list) => {
            of_tree(list.first()?, record)?;
            join(list, |a, b| a && !b)
        }
        Tree::Plain(_) | Tree::Named { .. } | Tree::Holding(_) => None,
    }
}

fn of_package(argument: &str, record: &Record) -> Vec<bool> {
    let (name, version) = match argument.rsplit_once('@') {
        Some((name, version)) if !name.is_empty() => (name, Some(version)),
        _ => (argument, None),
    };
    let (whole, before) = (Glob::new(argument, false), Glob::new(name, false));
    let is_it = |id: ModuleId| {
        record.package_of(id).is_some_and(|package| {
            let fits = |version| package.version.as_deref().is_some_and(|v| is_version(v, version));
            whole.is_match(&package.name)
                || (before.is_match(&package.name) && version.is_some_and(fits))
        })
    };
    (0..record.modules.len()).map(ModuleId::new).map(is_it).collect()
}

/// `1.10.4` is a version 1.10 and a version 1.10.4, and no version 1.1.
pub(crate) fn is_version(version: &str, wanted: &str) -> bool {
    version
        .strip_prefix(wanted)
        .is_some_and(|rest| rest.is_empty() || rest.starts_with('.') || rest.starts_with('-'))
}
