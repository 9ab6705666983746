//! Next.js: the output folder of `next build`, with the App Router, the Pages Router, or both, bundled
//! by Turbopack or by webpack; and the folder that a static export writes.
//!
//! Of the output folder, `static` is served under `/_next/static`, with the documents and payloads that
//! were rendered into `server`. What a route loads at startup is noted route by route: by the App
//! Router in a script beside each page, by the Pages Router in one manifest.

mod app;

use std::{
    collections::BTreeMap,
    path::{Path, PathBuf},
};

use serde::Deserialize;
use uvlet_record::Bundler;

use super::{
    CACHE, DATA, Framework, Output, Part, SERVER, SaidRoute, Seen, around, read_json,
    route_of_page, routes_of_pages, stands_in,
};

/// Next.js.
pub struct Next;

impl Framework for Next {
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>> {
        around(folder).find_map(|root| built(&root).or_else(|| exported(&root)))
    }
}

fn built(root: &Path) -> Option<Box<dyn Output>> {
    let manifest: BuildManifest = read_json(&root.join("build-manifest.json"))?;
    let is_it = root.join("BUILD_ID").is_file() && root.join("server").is_dir();
    is_it.then(|| Box::new(Built { root: root.to_owned(), manifest }) as Box<dyn Output>)
}

fn exported(root: &Path) -> Option<Box<dyn Output>> {
    let chunks = root.join("_next/static/chunks");
    if !chunks.is_dir() {
        return None;
    }
    let is_turbopack = std::fs::read_dir(chunks).ok()?.flatten().any(|file| {
        let name = file.file_name();
        name.to_str().is_some_and(|name| name.starts_with("turbopack-"))
    });
    Some(Box::new(Exported { root: root.to_owned(), is_turbopack }))
}

/// `build-manifest.json`.
#[derive(Deserialize, Default)]
#[serde(rename_all = "camelCase")]
struct BuildManifest {
    pages: BTreeMap<String, Vec<String>>,
    #[serde(default)]
    root_main_files: Vec<String>,
    #[serde(default)]
    low_priority_files: Vec<String>,
}

/// The output folder of `next build`.
struct Built {
    root: PathBuf,
    manifest: BuildManifest,
}

impl Output for Built {
    fn root(&self) -> &Path {
        &self.root
    }

    fn name(&self) -> &'static str {
        "Next.js"
    }

    fn package(&self) -> &'static str {
        "next"
    }

    fn version(&self) -> Option<String> {
        #[derive(Deserialize)]
        struct Itself {
            version: String,
        }
        let said: Itself = read_json(&self.root.join("diagnostics/framework.json"))?;
        Some(said.version)
    }

    fn bundler(&self) -> Option<Bundler> {
        let is_turbopack = self.root.join("turbopack").exists();
        Some(if is_turbopack { Bundler::Turbopack } else { Bundler::Webpack })
    }

    fn part(&self, path: &str) -> Part {
        let (folder, rest) = path.split_once('/').unwrap_or(("", path));
        match folder {
            "static" => Part::Served,
            "cache" | "dev" => CACHE,
            "server" if rest.starts_with("route-cache/") => CACHE,
            "server" if self.is_rendered(rest) => Part::Served,
            "server" | "standalone" | "node_modules" => SERVER,
            _ => DATA,
        }
    }

    fn writes(&self, path: &str) -> bool {
        is_own(path)
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        vec![("static/", "_next/static/"), ("server/app/", ""), ("server/pages/", "")]
    }

    fn route_of(&self, path: &str) -> Option<String> {
        let inside = path.strip_prefix("server/app/").or(path.strip_prefix("server/pages/"))?;
        route_of_rendered(inside)
    }

    fn routes(&self, _: &Seen<'_>) -> Vec<SaidRoute> {
        [app::routes(&self.root, &self.manifest.root_main_files), self.pages()].concat()
    }
}

impl Built {
    /// Whether a file of the server's folder is a document or payload that visitors get: a payload of
    /// the Pages Router stands beside its document.
    fn is_rendered(&self, path: &str) -> bool {
        let ending = path.rsplit_once('.').map_or("", |(_, ending)| ending);
        let is_beside = || {
            let document = self.root.join("server").join(path).with_extension("html");
            path.starts_with("pages/") && document.is_file()
        };
        match ending {
            "html" | "rsc" => path.starts_with("app/") || path.starts_with("pages/"),
            "json" => is_beside(),
            _ => false,
        }
    }

    /// Routes of the Pages Router.
    fn pages(&self) -> Vec<SaidRoute> {
        let BuildManifest { pages, low_priority_files, .. } = &self.manifest;
        let shared = pages.get("/_app").map(Vec::as_slice).unwrap_or_default();
        let routes = pages.iter().filter(|(route, _)| *route != "/_app");
        let routes = routes.filter(|(_, files)| !files.is_empty() || !shared.is_empty());
        let said = routes.map(|(route, files)| SaidRoute {
            is_typed: !stands_in(route) && route != "/_error",
            pattern: route.clone(),
            files: [shared, files, low_priority_files].concat(),
            opens: Vec::new(),
        });
        said.collect()
    }
}

/// A static export: a plain site, with payloads as texts.
struct Exported {
    root: PathBuf,
    is_turbopack: bool,
}

impl Output for Exported {
    fn root(&self) -> &Path {
        &self.root
    }

    fn name(&self) -> &'static str {
        "Next.js"
    }

    fn package(&self) -> &'static str {
        "next"
    }

    fn bundler(&self) -> Option<Bundler> {
        Some(if self.is_turbopack { Bundler::Turbopack } else { Bundler::Webpack })
    }

    fn writes(&self, path: &str) -> bool {
        is_own(path)
    }

    fn route_of(&self, path: &str) -> Option<String> {
        if path.starts_with("_next/") {
            return None;
        }
        // `reports.txt` is the payload of `/reports`, and so is all in `reports/__next.…txt`.
        match path.strip_suffix(".txt") {
            Some(stem) => {
                let (folder, name) = stem.rsplit_once('/').unwrap_or(("", stem));
                let is_part = name.starts_with("__next");
                let page = if is_part { folder } else { stem };
                let is_nested = page.split('/').any(|part| part.starts_with("__next"));
                (!is_nested).then(|| route_of_page(&format!("{page}.html")))?
            }
            None => route_of_page(path),
        }
    }

    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute> {
        routes_of_pages(self, seen)
    }
}

/// `reports.html`, `reports.rsc`, `reports.segments/…`, `reports.json` belong to `/reports`.
fn route_of_rendered(inside: &str) -> Option<String> {
    let stem = match inside.split_once(".segments/") {
        Some((stem, _)) => stem,
        None => inside.rsplit_once('.')?.0,
    };
    route_of_page(&format!("{stem}.html"))
}

/// Lists of files that the framework's own code asks for.
fn is_own(path: &str) -> bool {
    let name = path.rsplit('/').next().unwrap_or(path);
    path.contains("static/")
        && matches!(
            name,
            "_buildManifest.js"
                | "_ssgManifest.js"
                | "_clientMiddlewareManifest.js"
                | "_middlewareManifest.js"
                | "_clientMiddlewareManifest.json"
        )
}
