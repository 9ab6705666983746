//! React Router in framework mode: `client` is served, `server` renders.
//!
//! A script lists every route with its module, what that imports, and its styles; a route's startup is
//! the first script with the chain of its parents. With lazy discovery of routes no page asks for the
//! list.

use std::{collections::BTreeMap, path::Path};

use serde::Deserialize;
use uvlet_record::Bundler;

use crate::{
    descriptions::frameworks::framework::{
        About, Framework, Output, SERVER, SaidRoute, Seen, Written, around, assigned, read_text,
        route_of_page, routes_of_pages,
    },
    folder::list::Part,
};

/// React Router.
pub struct ReactRouter;

impl Framework for ReactRouter {
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>> {
        around(folder).find_map(|root| {
            let is_client = root.file_name().is_some_and(|name| name == "client");
            let (root, served) = match root.parent() {
                Some(above) if is_client && above.join("server").is_dir() => {
                    (above.to_owned(), "client/")
                }
                _ if root.join("client").is_dir() => (root, "client/"),
                _ => (root, ""),
            };
            let list = list_in(&root.join(served))?;
            let about = About::of(&root, "React Router", "react-router", Bundler::Vite);
            Some(Box::new(Built { about, served, list }) as Box<dyn Output>)
        })
    }
}

/// The list of routes among the scripts of a folder.
fn list_in(folder: &Path) -> Option<Listed> {
    let assets = std::fs::read_dir(folder.join("assets")).ok()?.flatten();
    let mut lists = assets
        .filter(|file| file.file_name().to_str().is_some_and(|name| name.starts_with("manifest-")));
    lists.find_map(|file| {
        let text = read_text(&file.path())?;
        text.starts_with("window.__reactRouterManifest=").then(|| assigned(&text))?
    })
}

#[derive(Deserialize)]
struct Listed {
    entry: Files,
    routes: BTreeMap<String, Route>,
}

#[derive(Deserialize, Default)]
#[serde(default)]
struct Files {
    module: String,
    imports: Vec<String>,
    css: Vec<String>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Route {
    parent_id: Option<String>,
    path: Option<String>,
    #[serde(default)]
    index: bool,
    #[serde(flatten)]
    files: Files,
}

struct Built {
    about: About,
    /// The folder of what is served, with its slash.
    served: &'static str,
    list: Listed,
}

impl Output for Built {
    fn about(&self) -> &About {
        &self.about
    }

    fn part(&self, path: &str) -> Part {
        if path.starts_with(self.served) { Part::Served } else { SERVER }
    }

    fn writes(&self, path: &str) -> Option<Written> {
        let is_list = path.contains("assets/manifest-") && path.ends_with(".js");
        is_list.then_some(Written::Itself)
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        vec![(self.served, "")]
    }

    fn route_of(&self, path: &str) -> Option<String> {
        let inside = path.strip_prefix(self.served)?;
        match inside.strip_suffix(".data") {
            Some("_root" | "_") => Some("/".to_owned()),
            Some(page) => Some(format!("/{page}")),
            None if inside == "__spa-fallback.html" => Some("/200".to_owned()),
            None => route_of_page(inside),
        }
    }

    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute> {
        let routes = &self.list.routes;
        let is_index = |id: &str| {
            let mut children = routes.values();
            children.any(|route| route.index && route.parent_id.as_deref() == Some(id))
        };
        let is_parent = |id: &str| {
            let mut children = routes.values();
            children.any(|route| route.parent_id.as_deref() == Some(id))
        };
        let is_typed = |id: &str, route: &Route| {
            let has_path = route.path.as_deref().is_some_and(|path| !path.is_empty());
            // The parent of an index is typed as that.
            route.index || (has_path && !is_index(id)) || (id == "root" && !is_parent(id))
        };
        let typed = routes.iter().filter(|(id, route)| is_typed(id, route));
        let mut said: Vec<SaidRoute> = typed.map(|(id, _)| self.route(id)).collect();
        let pages = routes_of_pages(self, seen);
        said.extend(pages.into_iter().filter(|page| !page.is_typed));
        said
    }
}

impl Built {
    fn route(&self, id: &str) -> SaidRoute {
        let mut chain: Vec<&Route> = Vec::new();
        let mut next = self.list.routes.get(id);
        while let Some(route) = next.filter(|_| chain.len() < 100) {
            chain.push(route);
            next = route.parent_id.as_ref().and_then(|id| self.list.routes.get(id));
        }
        chain.reverse();
        let paths = chain.iter().filter_map(|route| route.path.as_deref());
        let paths = paths.map(|path| path.trim_matches('/')).filter(|path| !path.is_empty());
        let pattern = format!("/{}", paths.collect::<Vec<_>>().join("/"));
        let files = [&self.list.entry].into_iter().chain(chain.iter().map(|route| &route.files));
        let files = files
            .flat_map(|files| [&files.module].into_iter().chain(&files.imports).chain(&files.css));
        let files = files.filter(|file| !file.is_empty()).cloned().collect();
        SaidRoute { pattern, is_typed: true, files, ..SaidRoute::default() }
    }
}
