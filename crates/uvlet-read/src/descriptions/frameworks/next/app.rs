//! Routes of the App Router: beside each page stands a script that says which files its client modules
//! are in, page by page and layout by layout.
//!
//! Turbopack notes the files of a page and of each of its layouts outright. webpack notes them for
//! every client module that the page could meet, those of other pages among them, which their own
//! page's script in the list gives away.

use std::{collections::BTreeMap, path::Path};

use percent_encoding::percent_decode_str;
use serde::Deserialize;

use crate::descriptions::frameworks::framework::{
    SaidRoute, assigned, read_json, read_text, stands_in,
};

/// What a page's script says.
#[derive(Deserialize, Default)]
#[serde(rename_all = "camelCase", default)]
struct References {
    client_modules: BTreeMap<String, ClientModule>,
    #[serde(rename = "entryJSFiles")]
    entry_scripts: Option<BTreeMap<String, Vec<String>>>,
    #[serde(rename = "entryCSSFiles")]
    entry_styles: BTreeMap<String, Vec<Style>>,
}

#[derive(Deserialize, Default)]
#[serde(default)]
struct ClientModule {
    chunks: Vec<String>,
}

#[derive(Deserialize)]
#[serde(untagged)]
enum Style {
    Path(String),
    Noted { path: String },
}

#[derive(Deserialize, Default)]
#[serde(rename_all = "camelCase", default)]
struct Main {
    root_main_files: Vec<String>,
}

/// The routes of an output folder.
pub fn routes(root: &Path, main: &[String]) -> Vec<SaidRoute> {
    let paths: Option<BTreeMap<String, String>> =
        read_json(&root.join("app-path-routes-manifest.json"));
    let pages = paths.unwrap_or_default();
    let pages = pages.iter().filter_map(|(key, route)| Some((key.strip_suffix("/page")?, route)));
    let mut routes: Vec<SaidRoute> = Vec::new();
    for (folder, pattern) in pages {
        // Only what stands below the output is read.
        if folder.split('/').any(|part| part == "..") {
            continue;
        }
        if folder == "/_global-error" {
            // Its document says all; what is noted of it is about every page's last resort.
            routes.push(SaidRoute { pattern: pattern.clone(), ..SaidRoute::default() });
            continue;
        }
        let page = root.join(format!("server/app{folder}"));
        let own: Option<Main> = read_json(&page.join("page/build-manifest.json"));
        let mut files = own.map(|own| own.root_main_files).unwrap_or_default();
        if files.is_empty() {
            files.extend(main.iter().cloned());
        }
        let script = read_text(&page.join("page_client-reference-manifest.js"));
        let references = script.and_then(|text| assigned_last(&text)).unwrap_or_default();
        files.extend(references.files(folder));
        // Parallel routes are pages of one route.
        match routes.iter_mut().find(|route| route.pattern == *pattern) {
            Some(route) => route.files.extend(files),
            None => routes.push(SaidRoute {
                pattern: pattern.clone(),
                is_typed: !stands_in(pattern),
                files,
                ..SaidRoute::default()
            }),
        }
    }
    routes
}

/// The script assigns an empty object first, and then the page's.
fn assigned_last(text: &str) -> Option<References> {
    let from = text.find("] =").or_else(|| text.find("]="))?;
    assigned(&text[from..])
}

impl References {
    /// The files of the page in a folder, and of its layouts.
    fn files(&self, folder: &str) -> Vec<String> {
        let is_its = |key: &str| !key.contains("builtin/global-error") && is_of_page(key, folder);
        let scripts: Vec<&String> = match &self.entry_scripts {
            Some(entries) => entries
                .iter()
                .filter(|(key, _)| !key.contains("builtin/global-error"))
                .flat_map(|(_, files)| files)
                .collect(),
            None => {
                let lists = self.client_modules.values().map(|module| &module.chunks);
                lists
                    .filter(|list| !list.iter().any(|file| is_of_other(file, folder)))
                    .flatten()
                    .collect()
            }
        };
        let scripts = scripts.into_iter().filter(|file| file.contains('/'));
        let styles = self.entry_styles.iter().filter(|(key, _)| is_its(key));
        let styles = styles.flat_map(|(_, styles)| styles).map(|style| match style {
            Style::Path(path) | Style::Noted { path } => path,
        });
        let plain = |path: &String| percent_decode_str(path).decode_utf8_lossy().into_owned();
        let served = |path: String| path.trim_start_matches("/_next/").to_owned();
        scripts.chain(styles).map(plain).map(served).collect()
    }
}

/// Whether a script is that of another page, or of a layout that is not around this one:
/// `static/chunks/app/reports/page-5f.js`.
fn is_of_other(file: &str, folder: &str) -> bool {
    let file = percent_decode_str(file).decode_utf8_lossy();
    let Some((_, inside)) = file.split_once("static/chunks/app/") else { return false };
    let (place, name) = inside.rsplit_once('/').unwrap_or(("", inside));
    if name.starts_with("global-error-") {
        return true;
    }
    let place = format!("/{place}");
    let place = place.trim_end_matches('/');
    if name.starts_with("page-") { place != folder } else { !is_around(place, folder) }
}

/// Whether a page or layout, named by a path without its ending, is this page or a layout around it.
fn is_of_page(key: &str, folder: &str) -> bool {
    let Some((place, name)) = key.rsplit_once('/') else { return true };
    let is_app = |place: &str| place.ends_with("/app") || place == "app";
    if name == "page" {
        return place.strip_suffix(folder).is_some_and(is_app);
    }
    let around = std::iter::successors(Some(folder), |folder| Some(folder.rsplit_once('/')?.0));
    let mut around = around.filter_map(|folder| place.strip_suffix(folder));
    around.any(is_app) || !place.contains("/app")
}

fn is_around(place: &str, folder: &str) -> bool {
    folder.strip_prefix(place).is_some_and(|rest| rest.is_empty() || rest.starts_with('/'))
}
