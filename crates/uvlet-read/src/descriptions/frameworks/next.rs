//! Next.js: the output folder of `next build`, with the App Router, the Pages Router, or both, bundled
//! by Turbopack or by webpack; and the folder that a static export writes.
//!
//! Of the output folder, `static` is served under `/_next/static`, with the documents and payloads that
//! were rendered into `server`. What a route loads at startup is noted route by route: by the App
//! Router in a script beside each page, by the Pages Router in one manifest.

pub(crate) mod app;
mod flight;

use std::{collections::BTreeMap, path::Path};

use serde::Deserialize;
use serde_json::Value;
use uvlet_record::Bundler;
use uvlet_script::drawing::Drawn;

use crate::{
    descriptions::frameworks::framework::{
        About, CACHE, DATA, Framework, Output, SERVER, SaidRoute, Seen, Written, around, assigned,
        read_json, read_text, route_of_page, routes_of_pages, stands_in,
    },
    files::page::Page,
    folder::list::Part,
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
    is_it.then(|| Box::new(Built { about: about(root), manifest }) as Box<dyn Output>)
}

fn exported(root: &Path) -> Option<Box<dyn Output>> {
    let chunks = std::fs::read_dir(root.join("_next/static/chunks")).ok()?;
    let is_turbopack = chunks.flatten().any(|file| {
        let name = file.file_name();
        name.to_str().is_some_and(|name| name.starts_with("turbopack-"))
    });
    let about = About::of(root, "Next.js", "next", bundler(is_turbopack));
    Some(Box::new(Exported { about, polyfills: polyfills_of(root) }))
}

fn about(root: &Path) -> About {
    #[derive(Deserialize)]
    struct Itself {
        version: String,
    }
    let said: Option<Itself> = read_json(&root.join("diagnostics/framework.json"));
    let bundler = bundler(root.join("turbopack").exists());
    let about = About::of(root, "Next.js", "next", bundler);
    About { version: said.map(|said| said.version), ..about }
}

fn bundler(is_turbopack: bool) -> Bundler {
    if is_turbopack { Bundler::Turbopack } else { Bundler::Webpack }
}

/// Where the script of fallbacks for old browsers comes from: it has no map of its name.
const POLYFILLS: &str = "node_modules/next/dist/build/polyfills/polyfill-nomodule.js";

/// Scripts that the page for what is not found asks old browsers alone to load.
fn polyfills_of(root: &Path) -> Vec<String> {
    let text = read_text(&root.join("404.html")).or_else(|| read_text(&root.join("index.html")));
    let text = text.unwrap_or_default();
    let tags = text.split("<script").skip(1).filter_map(|rest| rest.split('>').next());
    let tags = tags.filter(|tag| tag.to_ascii_lowercase().contains("nomodule"));
    let urls = tags.filter_map(|tag| tag.split_once("src=\"")?.1.split('"').next());
    urls.map(|url| url.split('?').next().unwrap_or(url).to_owned()).collect()
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
    #[serde(default)]
    polyfill_files: Vec<String>,
}

/// The output folder of `next build`.
struct Built {
    about: About,
    manifest: BuildManifest,
}

impl Output for Built {
    fn about(&self) -> &About {
        &self.about
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

    fn writes(&self, path: &str) -> Option<Written> {
        let is_polyfill = self.manifest.polyfill_files.iter().any(|file| file == path);
        if is_polyfill { Some(Written::From(POLYFILLS)) } else { own(path) }
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        vec![("static/", "_next/static/"), ("server/app/", ""), ("server/pages/", "")]
    }

    fn route_of(&self, path: &str) -> Option<String> {
        let inside = path.strip_prefix("server/app/").or(path.strip_prefix("server/pages/"))?;
        route_of_rendered(inside)
    }

    fn drawn(&self, page: &Page) -> Vec<Drawn> {
        flight::of_page(page)
    }

    fn routes(&self, _: &Seen<'_>) -> Vec<SaidRoute> {
        [app::routes(&self.about.root, &self.manifest.root_main_files), self.pages()].concat()
    }
}

impl Built {
    /// Whether a file of the server's folder is a document or payload that visitors get: a payload of
    /// the Pages Router stands beside its document.
    fn is_rendered(&self, path: &str) -> bool {
        let ending = path.rsplit_once('.').map_or("", |(_, ending)| ending);
        let is_beside = || {
            let document = self.about.root.join("server").join(path).with_extension("html");
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
        let mut visits = self.visits();
        let said = routes.map(|(route, files)| SaidRoute {
            is_typed: !stands_in(route),
            pattern: route.clone(),
            files: [shared, files, low_priority_files].concat(),
            opens: Vec::new(),
            later: visits.remove(route).unwrap_or_default(),
        });
        said.collect()
    }

    /// What a page that is open asks for to go to another one, by route.
    fn visits(&self) -> BTreeMap<String, Vec<String>> {
        let lists = self.manifest.low_priority_files.iter();
        let list = lists.filter(|file| file.ends_with("/_buildManifest.js")).find_map(|file| {
            let text = read_text(&self.about.root.join(file))?;
            assigned::<BTreeMap<String, Value>>(&text)
        });
        let files = |files: Value| serde_json::from_value::<Vec<String>>(files).ok();
        let list = list.unwrap_or_default().into_iter();
        list.filter_map(|(route, said)| Some((route, files(said)?))).collect()
    }
}

/// A static export: a plain site, with payloads as texts.
struct Exported {
    about: About,
    /// URLs of fallbacks for old browsers.
    polyfills: Vec<String>,
}

impl Output for Exported {
    fn about(&self) -> &About {
        &self.about
    }

    fn writes(&self, path: &str) -> Option<Written> {
        let is_polyfill = self.polyfills.iter().any(|url| url.ends_with(&format!("/{path}")));
        if is_polyfill { Some(Written::From(POLYFILLS)) } else { own(path) }
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

    fn drawn(&self, page: &Page) -> Vec<Drawn> {
        flight::of_page(page)
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
fn own(path: &str) -> Option<Written> {
    let name = path.rsplit('/').next().unwrap_or(path);
    let is_own = path.contains("static/")
        && matches!(
            name,
            "_buildManifest.js"
                | "_ssgManifest.js"
                | "_clientMiddlewareManifest.js"
                | "_middlewareManifest.js"
                | "_clientMiddlewareManifest.json"
        );
    is_own.then_some(Written::Itself)
}
