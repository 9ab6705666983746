//! What names, flags and reasons of the stats mean.

use serde_json::value::RawValue;
use uvlet_record::{EdgeKind, Used};

use super::json::{Module, Text, whole};

pub fn group<'s, 'a>(module: &'s Module<'a>) -> Option<&'s [Module<'a>]> {
    group_of(module).map(Vec::as_slice)
}

/// The members of a group. A module of its own says that it is one, or has an identifier.
pub fn group_of<'s, 'a>(module: &'s Module<'a>) -> Option<&'s Vec<Module<'a>>> {
    let is_module = module.r#type.as_ref().is_some_and(|kind| kind.0 == "module");
    module.children.as_ref().filter(|_| !is_module && module.identifier.is_none())
}

/// A module's name without the note of what was merged into it.
pub fn name_of<'s>(module: &'s Module<'_>) -> Option<&'s str> {
    let name = module.name.as_ref().or(module.name_for_condition.as_ref());
    let name = name.or(module.identifier.as_ref()).map(|name| whole(&name.0));
    name.filter(|name| !name.is_empty())
}

/// Whether a module stands for others too. Rspack calls those that were merged by the name of all;
/// only the whole has a digest behind its path.
pub fn is_merged(module: &Module<'_>) -> bool {
    let counts = module.name.as_ref().is_some_and(|name| whole(&name.0) != name.0);
    let whole = module.identifier.as_ref().is_none_or(|identifier| is_of_whole(&identifier.0));
    module.modules.is_some() || (counts && whole)
}

/// The path on the disk of whoever bundled, in a module's identifier: what stands behind its loaders
/// and its type. None for the whole of several, which has a digest behind its path.
pub fn path_in(identifier: &str) -> Option<&str> {
    if is_of_whole(identifier) {
        return None;
    }
    let bare = identifier.rsplit('!').next()?;
    let path = bare.split('|').find(|part| uvlet_record::path::is_absolute(part))?;
    path.split('?').next()
}

fn is_of_whole(identifier: &str) -> bool {
    let digest = |text: &str| text.len() >= 16 && text.bytes().all(|b| b.is_ascii_hexdigit());
    identifier.rsplit_once('|').is_some_and(|(_, last)| digest(last))
}

/// The folder that names of modules are relative to, as the first module tells that has both a name
/// and a path.
pub fn context<'s>(modules: &'s [Module<'_>]) -> Option<&'s str> {
    modules.iter().find_map(|module| {
        let (name, path) = (module.name.as_ref()?, module.name_for_condition.as_ref()?);
        let inside = whole(&name.0).strip_prefix("./")?;
        let above = path.0.strip_suffix(inside).filter(|above| above.ends_with('/'));
        let inner =
            || [&module.children, &module.modules].into_iter().flatten().find_map(|m| context(m));
        above.or_else(inner)
    })
}

/// `react` of `external "React"`, `external commonjs "react"` and the like.
pub fn external_name(name: &str) -> &str {
    name.split('"').nth(1).unwrap_or(name)
}

/// A file's path without the query that some configurations append.
pub fn plain(name: &str) -> String {
    name.split(['?', '#']).next().unwrap_or(name).to_owned()
}

pub fn owned(text: &Text<'_>) -> String {
    text.0.clone().into_owned()
}

pub fn parsed(raw: Option<&RawValue>) -> Option<Vec<String>> {
    serde_json::from_str(raw?.get()).ok()
}

pub fn used(raw: Option<&RawValue>) -> Option<Used> {
    match raw?.get() {
        "true" => Some(Used::All),
        "false" => Some(Used::Nothing),
        text => serde_json::from_str(text).ok().map(Used::Names),
    }
}

/// How a reason's module asks; `None` for reasons that are no request of a module.
pub fn edge_kind(reason: &str, is_style: bool) -> Option<EdgeKind> {
    let kind = match reason {
        "entry"
        | "single entry"
        | "loader import"
        | "loader"
        | "cjs self exports reference"
        | "module decorator"
        | "from origin"
        | "amd define" => return None,
        _ if is_style => EdgeKind::Style,
        // Nearly all are one of these; there may be a hundred thousand.
        "harmony side effect evaluation"
        | "harmony import specifier"
        | "esm import"
        | "esm import specifier" => EdgeKind::Static,
        "new URL()" | "css url()" | "url()" | "asset url" => EdgeKind::Url,
        "import() eager" | "import() weak" => EdgeKind::Static,
        _ if reason.starts_with("import()") => EdgeKind::Dynamic,
        _ if reason.contains("worker") || reason.contains("Worker") => EdgeKind::Worker,
        _ if reason.contains("export import") || reason == "cjs export require" => {
            EdgeKind::Reexport
        }
        _ if reason.starts_with("css") => EdgeKind::Style,
        _ if reason.starts_with("cjs")
            || reason.starts_with("amd")
            || reason.starts_with("require") =>
        {
            EdgeKind::Require
        }
        _ => EdgeKind::Static,
    };
    Some(kind)
}
