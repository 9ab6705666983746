//! One path for one module, whoever wrote the build.
//!
//! Bundlers name a source in their own ways: relative to the map, under a scheme of their own,
//! behind loader chains, with a query. [`name`] takes all that off. Installed code keeps what
//! follows the first `node_modules/`, with it; own code loses the leading `../`, so that the same
//! file has the same path from any output folder. Names are only compared, never opened.

use std::borrow::Cow;

use uvlet_record::path::{is_absolute, resolve};

use super::{
    glue::is_glue,
    name_forms::{bazel, turbopack},
};

/// Where a source's name was written.
#[derive(Clone, Copy, Debug, Default)]
pub struct Location<'a> {
    /// The map's `sourceRoot`.
    pub source_root: &'a str,
    /// The map's folder inside the output folder, without a closing slash.
    pub folder: &'a str,
    /// The project's absolute folder, which is taken off absolute names.
    pub project: &'a str,
}

/// A source's name, taken apart.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Named {
    /// The normalised path; empty if nothing is left of the name.
    pub path: String,
    /// The `../` that an own path lost.
    pub above: String,
    /// The installed package.
    pub package: Option<Installed>,
    /// The bundler's own code, not a module.
    pub glue: bool,
    /// Installed code, though of no package that the path tells.
    pub third_party: bool,
    /// It leads out of the folder that the name's scheme stands for, as names do that a package's own
    /// map gives.
    pub climbs: bool,
}

/// An installed package, as far as a path tells.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Installed {
    /// npm name, with the scope.
    pub name: String,
    /// Place it is installed at, below the project as far as the path tells.
    pub place: String,
    /// What leads above that: tells two installs apart whose places read the same.
    pub above: String,
    /// Version, where the package manager's layout holds it.
    pub version: Option<String>,
}

/// Names a source. See the module's text for the rules.
pub fn name(raw: &str, location: &Location<'_>) -> Named {
    let virtual_name = raw.rfind('\0').map(|at| &raw[at + 1..]);
    let (bare, query) = split_query(last_loader(virtual_name.unwrap_or(raw)));
    // There are thousands of names, and few hold any of these.
    let mut bare = Cow::Borrowed(bare);
    if bare.contains('\\') {
        bare = bare.replace('\\', "/").into();
    }
    // esbuild's mark of a module that `package.json` switches off for browsers.
    if bare.contains("(disabled):") {
        bare = bare.replacen("(disabled):", "", 1).into();
    }
    let (rest, had_scheme) = strip_scheme(&bare);
    let rest = turbopack::plain(rest);
    let is_module_facet = query.is_some_and(|query| query.starts_with("commonjs"));
    // A virtual name that is a path is a plugin's view on that file.
    let is_virtual = virtual_name.is_some()
        && !is_module_facet
        && !rest.contains("node_modules/")
        && !rest.starts_with(['/', '.']);
    if is_glue(rest, is_virtual) {
        return Named { path: rest.to_owned(), glue: true, ..Named::default() };
    }
    if let Some((place, path)) = bazel::installed(rest) {
        let package = installed(&place);
        return Named { path, package, third_party: true, ..Named::default() };
    }
    if is_virtual {
        let prefix = if is_namespaced(rest) { "" } else { "virtual:" };
        let path = format!("{prefix}{}", resolve(rest));
        return Named { path, ..Named::default() };
    }
    let joined = if had_scheme || is_absolute(rest) || is_namespaced(rest) {
        rest.to_owned()
    } else {
        let (root, from_project) = strip_scheme(location.source_root);
        if from_project || is_absolute(root) {
            format!("{root}/{rest}")
        } else {
            format!("{}/{root}/{rest}", location.folder)
        }
    };
    let inside = strip_project(&joined, location.project);
    // A relative name whose folder is the output folder itself must not turn absolute.
    let inside = if is_absolute(rest) || is_absolute(location.source_root) {
        inside
    } else {
        inside.trim_start_matches('/')
    };
    let resolved = resolve(inside);
    let package = installed(&resolved);
    let kept = match find_folder(&resolved, "node_modules/") {
        Some(at) => &resolved[at..],
        None => &resolved,
    };
    let below = kept.trim_start_matches("../");
    let above = kept[..kept.len() - below.len()].to_owned();
    let path = below.trim_start_matches('/');
    let climbs = had_scheme && !above.is_empty() && package.is_none();
    let third_party = climbs || path.starts_with("node_modules/");
    Named { path: path.to_owned(), above, package, glue: false, third_party, climbs }
}

/// Whether a name is a path and nothing more: without a scheme, a namespace, a loader or a query.
pub fn is_plain(raw: &str) -> bool {
    !is_absolute(raw) && !raw.contains([':', '!', '?', '\0', '\\'])
}

/// The absolute form of a source's name, if it is written as one: what a project's folder can be
/// found from.
pub fn absolute(raw: &str) -> Option<String> {
    let (bare, _) = split_query(last_loader(raw.rsplit('\0').next().unwrap_or(raw)));
    let bare = bare.replace('\\', "/");
    let rest = bare.strip_prefix("file://").unwrap_or(&bare);
    is_absolute(rest).then(|| resolve(rest))
}

/// The project's folder as far as absolute names tell: what stands before the first
/// `node_modules/` where that holds own sources too, else the deepest folder common to all own ones.
pub fn project_of<'a>(absolutes: impl Iterator<Item = &'a str> + Clone) -> Option<String> {
    let own = absolutes.clone().filter(|path| find_folder(path, "node_modules/").is_none());
    let hosts = absolutes.filter_map(|path| Some(&path[..find_folder(path, "node_modules/")?]));
    let common = own
        .map(|path| path.rsplit_once('/').map_or("", |(folder, _)| folder))
        .reduce(common_folder);
    let host = hosts.reduce(common_folder).map(|host| host.trim_end_matches('/'));
    match (common, host) {
        (Some(common), Some(host)) if common == host || common.starts_with(&format!("{host}/")) => {
            Some(host.to_owned())
        }
        // Sources often stand in one folder, whose own name belongs to the path.
        (Some(common), _) => Some(match common.rsplit_once('/') {
            Some((above, "src" | "app" | "lib")) => above.to_owned(),
            _ => common.to_owned(),
        }),
        (None, host) => host.map(str::to_owned),
    }
}

fn common_folder<'a>(a: &'a str, b: &'a str) -> &'a str {
    let mut end = 0;
    for (part_a, part_b) in a.split_inclusive('/').zip(b.split_inclusive('/')) {
        if part_a.trim_end_matches('/') != part_b.trim_end_matches('/') {
            break;
        }
        end += part_a.len();
    }
    a[..end].trim_end_matches('/')
}

fn last_loader(raw: &str) -> &str {
    raw.rsplit('!').next().unwrap_or(raw)
}

fn split_query(raw: &str) -> (&str, Option<&str>) {
    raw.split_once('?').map_or((raw, None), |(path, query)| (path, Some(query)))
}

/// Takes off `scheme://host/`, and says whether there was one that stands for the project's root.
/// A `webpack://` host is the project's package name, which may be scoped.
fn strip_scheme(path: &str) -> (&str, bool) {
    let Some((scheme, rest)) = path.split_once("://") else {
        return (path, false);
    };
    let word = |c: char| c.is_ascii_alphanumeric() || "+-._".contains(c);
    if scheme.is_empty() || !scheme.chars().all(word) {
        return (path, false);
    }
    if scheme == "file" {
        return (rest, false);
    }
    if rest.starts_with("./") || rest.starts_with("../") {
        return (rest, true);
    }
    let hosts = if rest.starts_with('@') { 2 } else { 1 };
    let mut path = rest;
    for _ in 0..hosts {
        path = path.split_once('/').map_or(path, |(_, path)| path);
    }
    (path, true)
}

/// A plugin's own namespace before the name, as in `icons:ferry`; such names are relative to nothing.
fn is_namespaced(path: &str) -> bool {
    path.split_once(':').is_some_and(|(space, _)| {
        space.len() > 1 && space.chars().all(|c| c.is_ascii_alphanumeric() || "-_".contains(c))
    })
}

fn strip_project<'a>(path: &'a str, project: &str) -> &'a str {
    if project.is_empty() {
        return path;
    }
    match path.strip_prefix(project) {
        Some(rest) if rest.starts_with('/') => rest.trim_start_matches('/'),
        _ => path,
    }
}

/// Where a folder of this name (given with its slash) first begins in a path.
fn find_folder(path: &str, folder: &str) -> Option<usize> {
    path.match_indices(folder).map(|(at, _)| at).find(|&at| starts_part(path, at))
}

fn starts_part(path: &str, at: usize) -> bool {
    at == 0 || path.as_bytes()[at - 1] == b'/'
}

/// The package a resolved path belongs to: what follows the last `node_modules/`.
pub fn installed(path: &str) -> Option<Installed> {
    const FOLDER: &str = "node_modules/";
    let at = path.rmatch_indices(FOLDER).map(|(at, _)| at).find(|&at| starts_part(path, at))?;
    let rest = &path[at + FOLDER.len()..];
    let parts = if rest.starts_with('@') { 2 } else { 1 };
    let end = rest.match_indices('/').nth(parts - 1).map_or(rest.len(), |(end, _)| end);
    let name = &rest[..end];
    if name.is_empty() || name.starts_with('.') {
        return None;
    }
    let whole = &path[..at + FOLDER.len() + end];
    let place = whole.trim_start_matches("../").trim_start_matches('/');
    let above = whole[..whole.len() - place.len()].trim_end_matches('/').to_owned();
    let version = version_in(&path[..at], name);
    Some(Installed { name: name.to_owned(), place: place.to_owned(), above, version })
}

/// The version that pnpm (`.pnpm/name@1.2.3_peers/`) and Yarn (`name-npm-1.2.3-hash.zip/`) write
/// into the folder above a package.
fn version_in(above: &str, name: &str) -> Option<String> {
    let folder = above.trim_end_matches('/').rsplit('/').next()?;
    let flat = name.replace('/', "+");
    let text = if let Some(rest) = folder.strip_prefix(&format!("{flat}@")) {
        rest.split(['_', '(']).next()?
    } else {
        let archive = folder.strip_suffix(".zip")?;
        let rest = archive.strip_prefix(&format!("{}-npm-", name.replace('/', "-")))?;
        rest.rsplitn(3, '-').nth(2).or_else(|| rest.split('-').next())?
    };
    text.starts_with(|c: char| c.is_ascii_digit()).then(|| text.to_owned())
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Location, name, project_of};

    #[rstest]
    #[case::esbuild("../src/pages/a.js", "", "src/pages/a.js")]
    #[case::rollup("../../src/pages/a.js", "assets", "src/pages/a.js")]
    #[case::webpack("webpack:///./src/pages/a.js", "js", "src/pages/a.js")]
    #[case::named("webpack://site/./src/pages/a.js", "", "src/pages/a.js")]
    #[case::scoped("webpack://@kelpwick/site/./src/a.js?4f3a", "", "src/a.js")]
    #[case::rspack("rspack://site/../src/a.js", "", "src/a.js")]
    #[case::loaders("webpack:///babel-loader!./b/../src/a.ts?x!=!y", "", "y")]
    #[case::chain("style!css!../src/a.css", "", "src/a.css")]
    #[case::installed("../../../node_modules/p/index.js", "assets", "node_modules/p/index.js")]
    #[case::nested(
        "../app/node_modules/p/node_modules/@s/q/i.js",
        "",
        "node_modules/p/node_modules/@s/q/i.js"
    )]
    #[case::absolute("/home/w/site/src/a.js", "", "src/a.js")]
    #[case::file_url("file:///home/w/site/node_modules/p/a.js", "", "node_modules/p/a.js")]
    #[case::windows("..\\src\\a.js", "", "src/a.js")]
    #[case::facet("\0/home/w/site/node_modules/p/a.js?commonjs-proxy", "", "node_modules/p/a.js")]
    #[case::doubled_slash("webpack://site//src/a.js", "", "src/a.js")]
    #[case::disabled("../(disabled):node_modules/p/node.js", "", "node_modules/p/node.js")]
    #[case::namespaced("icons:ferry/small", "assets", "icons:ferry/small")]
    #[case::brackets("../src/(shop)/[id].tsx", "", "src/(shop)/[id].tsx")]
    #[case::virtual_name("\0virtual:routes", "", "virtual:routes")]
    #[case::turbopack("turbopack:///[project]/src/a.tsx", "", "src/a.tsx")]
    #[case::view(
        "turbopack:///[project]/src/a.module.css [app-client] (css module)",
        "",
        "src/a.module.css"
    )]
    #[case::wrapped(
        "turbopack:///[project]/lib/b.json.[json].cjs/turbopack:///lib/b.json",
        "",
        "lib/b.json"
    )]
    #[case::bazel(
        "../../k8-fastbuild-ST-0a1b/bin/packages/core/primitives/src/graph.ts",
        "",
        "node_modules/@angular/core/primitives/src/graph.ts"
    )]
    #[case::bazel_cdk(
        "../../arm64-fastbuild-ST-0a1b/bin/src/cdk/a11y/focus.ts",
        "",
        "node_modules/@angular/cdk/a11y/focus.ts"
    )]
    #[case::virtual_word("\0harbours", "", "virtual:harbours")]
    fn one_path_for_one_module(#[case] raw: &str, #[case] folder: &str, #[case] path: &str) {
        let location = Location { source_root: "", folder, project: "/home/w/site" };
        let named = name(raw, &location);
        assert_eq!((named.path.as_str(), named.glue), (path, false), "{raw}");
        assert!(named.above.split("../").all(str::is_empty), "{raw}: {}", named.above);
    }

    #[rstest]
    #[case("webpack://site/webpack/bootstrap")]
    #[case("webpack:///webpack/runtime/jsonp chunk loading")]
    #[case("../\0vite/preload-helper.js")]
    #[case("\0commonjsHelpers.js")]
    #[case("../webpack/runtime/css loading")]
    #[case("webpack://site/external var \"React\"")]
    #[case("../../\0rolldown/runtime.js")]
    #[case("turbopack:///[turbopack]/browser/runtime/base/runtime-base.ts")]
    #[case("../../../virtual:nuxt:.nuxt%2Froutes.mjs")]
    #[case("../../../../.svelte-kit/generated/client/app.js")]
    fn the_bundlers_own_sources_are_glue(#[case] raw: &str) {
        assert!(name(raw, &Location::default()).glue, "{raw}");
    }

    #[rstest]
    #[case("../vite/config-page.js")]
    #[case("webpack://site/./webpack/runtime/a.js")]
    #[case("webpack://site/./vite/a.js")]
    #[case("\0virtual:kelpwick/routes")]
    #[case("../src/webpack/bootstrap.js")]
    fn own_sources_with_like_names_are_not(#[case] raw: &str) {
        assert!(!name(raw, &Location::default()).glue, "{raw}");
    }

    #[rstest]
    #[case("node_modules/fairlead-bus/i.js", "fairlead-bus", "node_modules/fairlead-bus", None)]
    #[case(
        "node_modules/.pnpm/@s+q@1.2.3_r@2.0.0/node_modules/@s/q/i.js",
        "@s/q",
        "node_modules/.pnpm/@s+q@1.2.3_r@2.0.0/node_modules/@s/q",
        Some("1.2.3")
    )]
    #[case(
        "../.yarn/cache/q-npm-4.5.6-rc.1-0a1b2c3d4e-5f6071.zip/node_modules/q/i.js",
        "q",
        ".yarn/cache/q-npm-4.5.6-rc.1-0a1b2c3d4e-5f6071.zip/node_modules/q",
        Some("4.5.6-rc.1")
    )]
    fn packages(
        #[case] raw: &str,
        #[case] package: &str,
        #[case] place: &str,
        #[case] version: Option<&str>,
    ) {
        let found = name(raw, &Location::default()).package.unwrap();
        assert_eq!((found.name.as_str(), found.place.as_str()), (package, place), "{raw}");
        assert_eq!(found.version.as_deref(), version, "{raw}");
    }

    #[test]
    fn source_root_and_project() {
        let location = Location { source_root: "../src/", folder: "js", project: "" };
        assert_eq!(name("a.js", &location).path, "src/a.js");
        let rooted = Location { source_root: "webpack:///", folder: "js", project: "" };
        assert_eq!(name("./src/a.js", &rooted).path, "src/a.js");
        let paths = ["/w/site/src/a.js", "/w/site/src/b/c.js", "/w/site/node_modules/p/i.js"];
        assert_eq!(project_of(paths.into_iter()).as_deref(), Some("/w/site"));
        assert_eq!(project_of(paths[..2].iter().copied()).as_deref(), Some("/w/site"));
    }
}
