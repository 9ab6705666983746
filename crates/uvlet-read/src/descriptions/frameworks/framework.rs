//! What a framework tells of its output: how it is known, what of it is served, which files each route loads.

use crate::{
    files::page::Page,
    folder::list::{Listing, Part},
    formats::ScriptFacts,
    project::read_file,
};
use serde::de::DeserializeOwned;
use std::path::{Path, PathBuf};
use uvlet_record::{Bundler, Reason, Target};
use uvlet_script::drawing::Drawn;

/// One framework.
pub(crate) trait Framework: Sync {
    /// The output that a folder is, is a part of, or holds.
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>>;
}

/// The output of a framework.
pub trait Output: Send + Sync {
    /// What it is.
    fn about(&self) -> &About;

    /// What a file of the folder is there for, by its path.
    fn part(&self, _path: &str) -> Part {
        Part::Served
    }

    /// What a file is that no map speaks of, where it is the framework's.
    fn writes(&self, _path: &str) -> Option<Written> {
        None
    }

    /// The path that a visitor types to get a page, or what its data belongs to.
    fn route_of(&self, path: &str) -> Option<String> {
        route_of_page(path)
    }

    /// Folders of the output, with a slash behind each, and the site's folders that they are served as.
    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        Vec::new()
    }

    /// Specifiers that only the server's import map would give a meaning, with the files they mean.
    fn specifiers(&self, _seen: &Seen<'_>) -> Vec<(String, String)> {
        Vec::new()
    }

    /// What a page was rendered to: components of the browser's that it draws.
    fn drawn(&self, _page: &Page) -> Vec<Drawn> {
        Vec::new()
    }

    /// Routes and their files.
    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute>;
}

/// What an output is.
pub struct About {
    /// The folder that holds all of it.
    pub root: PathBuf,
    /// What the framework is called.
    pub name: &'static str,
    /// The package that it is installed as.
    pub package: &'static str,
    /// Its version, where the output says so.
    pub version: Option<String>,
    /// Who bundles for it.
    pub bundler: Bundler,
}

impl About {
    pub(crate) fn of(
        root: &Path,
        name: &'static str,
        package: &'static str,
        bundler: Bundler,
    ) -> Self {
        Self { root: root.to_owned(), name, package, version: None, bundler }
    }
}

/// What a file of a framework is that no map speaks of.
#[derive(Clone, Copy)]
pub enum Written {
    /// Written by the framework for this build.
    Itself,
    /// A copy of this source.
    From(&'static str),
}

/// Code for a server.
pub(crate) const SERVER: Part = Part::Apart(Some(Target::Server), Reason::OtherTarget);

/// Kept to be faster the next time.
pub(crate) const CACHE: Part = Part::Apart(None, Reason::Cache);

/// Notes of the build.
pub(crate) const DATA: Part = Part::Apart(None, Reason::BuildData);

/// One route.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct SaidRoute {
    /// Its path or pattern, as the framework writes it.
    pub pattern: String,
    /// A visitor can type it; an error page is shown in the place of others.
    pub is_typed: bool,
    /// Files that it loads at startup, in the order said.
    pub files: Vec<String>,
    /// Dynamic loads that are part of its startup: the script that asks, and what it asks for.
    pub opens: Vec<(String, String)>,
    /// Files that an open page fetches to go there.
    pub later: Vec<String>,
}

/// What is known of the files once they have been looked into.
pub struct Seen<'a> {
    /// The files.
    pub listing: &'a Listing,
    /// What a script says by itself.
    pub script: &'a dyn Fn(&str) -> Option<&'a ScriptFacts>,
}

impl Seen<'_> {
    /// The paths of all files that count.
    pub(crate) fn paths(&self) -> impl Iterator<Item = &str> {
        self.listing.counted.iter().map(|(file, _)| file.path.as_str())
    }

    /// The text of a counted file.
    pub(crate) fn text(&self, path: &str) -> Option<String> {
        let at = self.listing.counted_at(path)?;
        read_text(&self.listing.counted[at].0.disk)
    }
}

/// Bytes of the longest file that a framework writes of its build.
pub(crate) const LONGEST: u64 = 64 << 20;

pub(crate) fn read_text(path: &Path) -> Option<String> {
    String::from_utf8(read_file(path, LONGEST)?).ok()
}

pub(crate) fn read_json<T: DeserializeOwned>(path: &Path) -> Option<T> {
    serde_json::from_slice(&read_file(path, LONGEST)?).ok()
}

/// The object that a script assigns, as in `window.x={…};`.
pub(crate) fn assigned<T: DeserializeOwned>(text: &str) -> Option<T> {
    let (_, value) = text.split_once('=')?;
    let mut values = serde_json::Deserializer::from_str(value).into_iter::<T>();
    values.next()?.ok()
}

/// The folder, and those around it: the output may be named by a part of it.
pub(crate) fn around(folder: &Path) -> impl Iterator<Item = PathBuf> {
    /// Folders that an output is deep, where it is named by a part.
    const DEPTH: usize = 3;
    let full = folder.canonicalize().ok();
    let above = full.into_iter().flat_map(|full| {
        let above: Vec<PathBuf> =
            full.ancestors().skip(1).take(DEPTH).map(Path::to_owned).collect();
        above
    });
    std::iter::once(folder.to_owned()).chain(above)
}

/// `reports/index.html` and `reports.html` are `/reports`, `index.html` is `/`.
pub(crate) fn route_of_page(path: &str) -> Option<String> {
    let stem = path.strip_suffix(".html").or_else(|| path.strip_suffix(".htm"))?;
    let stem = match stem {
        "index" => "",
        stem => stem.strip_suffix("/index").unwrap_or(stem),
    };
    Some(format!("/{stem}"))
}

/// Pages that are shown in the place of others: for what is not found, for what failed, or for what is
/// rendered in the browser.
pub fn stands_in(route: &str) -> bool {
    matches!(route, "/200" | "/404" | "/500" | "/_error" | "/_not-found" | "/_global-error")
}

/// One route for every page that is served from a folder of the output, given with its slash.
pub(crate) fn routes_of_pages(output: &dyn Output, seen: &Seen<'_>) -> Vec<SaidRoute> {
    let routes = seen.paths().filter(|path| path.ends_with(".html"));
    let mut routes: Vec<String> = routes.filter_map(|path| output.route_of(path)).collect();
    routes.sort();
    routes.dedup();
    let route = |pattern: String| SaidRoute {
        is_typed: !stands_in(&pattern),
        pattern,
        ..SaidRoute::default()
    };
    routes.into_iter().map(route).collect()
}
