//! Nuxt: the output folder of its server engine (`.output`), where `public` is served, and a generated
//! site.
//!
//! With a server there is no page. The first script is noted in a list that the server keeps; the
//! table of routes stands in the browser's own code, which asks for each page on demand, and so do the
//! layouts. What the server alone knows is the import map that gives the first script its name.

use std::path::Path;

use serde::Deserialize;
use uvlet_record::Bundler;
use uvlet_script::{
    Dialect,
    ast::{Expression, ObjectExpression, ObjectPropertyKind},
    visit::{Visit, walk},
};

use crate::{
    descriptions::frameworks::framework::{
        About, DATA, Framework, Output, SERVER, SaidRoute, Seen, around, read_json, read_text,
        route_of_page, routes_of_pages, stands_in,
    },
    folder::list::Part,
    formats::format::DynamicCall,
};

/// Nuxt.
pub struct Nuxt;

impl Framework for Nuxt {
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>> {
        around(folder).find_map(|root| {
            let engine: Option<Engine> = read_json(&root.join("nitro.json"));
            let engine = engine.filter(|engine| engine.framework.name == "nuxt");
            let is_generated = root.join("_nuxt").is_dir();
            let is_inside = root.join("../nitro.json").is_file();
            if engine.is_none() && (!is_generated || is_inside) {
                return None;
            }
            let served = if engine.is_some() && !is_generated { "public/" } else { "" };
            let version = engine.and_then(|engine| engine.framework.version);
            let about = About::of(&root, "Nuxt", "nuxt", Bundler::Vite);
            let about = About { version, ..about };
            Some(Box::new(Built { about, served }) as Box<dyn Output>)
        })
    }
}

/// `nitro.json`.
#[derive(Deserialize)]
struct Engine {
    framework: Itself,
}

#[derive(Deserialize)]
struct Itself {
    name: String,
    version: Option<String>,
}

struct Built {
    about: About,
    /// The folder of what is served, with its slash.
    served: &'static str,
}

impl Output for Built {
    fn about(&self) -> &About {
        &self.about
    }

    fn part(&self, path: &str) -> Part {
        if path == "nitro.json" {
            return DATA;
        }
        if path.starts_with(self.served) { Part::Served } else { SERVER }
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        vec![(self.served, "")]
    }

    fn route_of(&self, path: &str) -> Option<String> {
        let inside = path.strip_prefix(self.served)?;
        match inside.strip_suffix("_payload.json").or(inside.strip_suffix("_payload.js")) {
            Some(folder) => Some(format!("/{}", folder.trim_end_matches('/'))),
            None => route_of_page(inside),
        }
    }

    fn specifiers(&self, seen: &Seen<'_>) -> Vec<(String, String)> {
        let first = self.first(seen).map(|path| ("#entry".to_owned(), path));
        first.into_iter().collect()
    }

    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute> {
        let tables = seen.paths().filter_map(|path| {
            let calls = (seen.script)(path)?.found.imports.as_slice();
            let routed = calls.iter().filter(|call| !call.routes.is_empty()).count();
            (routed > 0).then_some((routed, path, calls))
        });
        let Some((_, table, calls)) = tables.max_by_key(|(routed, ..)| *routed) else {
            return routes_of_pages(self, seen);
        };
        let first = self.first(seen).unwrap_or_else(|| table.to_owned());
        let layout = calls.iter().find(|call| call.key.as_deref() == Some("default"));
        let mut patterns: Vec<&String> = calls.iter().flat_map(|call| &call.routes).collect();
        patterns.sort();
        patterns.dedup();
        let route = |pattern: &String| {
            let is_its = |call: &&DynamicCall| call.routes.contains(pattern);
            let pages = calls.iter().filter(is_its);
            let asked = layout.into_iter().chain(pages);
            SaidRoute {
                pattern: pattern.clone(),
                is_typed: !stands_in(pattern),
                files: vec![first.clone()],
                opens: asked.map(|call| (table.to_owned(), call.request.clone())).collect(),
                ..SaidRoute::default()
            }
        };
        let mut routes: Vec<SaidRoute> = patterns.into_iter().map(route).collect();
        let pages = routes_of_pages(self, seen);
        routes.extend(pages.into_iter().filter(|page| !page.is_typed));
        routes
    }
}

impl Built {
    /// The first script, as the server's list says.
    fn first(&self, seen: &Seen<'_>) -> Option<String> {
        let lists = [
            "server/chunks/virtual/precomputed.mjs",
            "server/chunks/build/client.precomputed.mjs",
            "server/chunks/build/client.manifest.mjs",
            "../.nuxt/dist/server/client.manifest.mjs",
        ];
        let name =
            lists.iter().find_map(|list| first_in(&read_text(&self.about.root.join(list))?))?;
        let ending = format!("/{name}");
        seen.paths().find(|path| path.ends_with(&ending)).map(str::to_owned)
    }
}

/// The file in `{file:"SaJgAB3Y.js",isEntry:true}`.
fn first_in(text: &str) -> Option<String> {
    let found = uvlet_script::read(text, Dialect::Emitted, |script| {
        let mut finder = First(None);
        finder.visit_program(&script.program);
        finder.0
    });
    found.ok().flatten()
}

struct First(Option<String>);

impl<'a> Visit<'a> for First {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let value = |name: &str| {
            object.properties.iter().find_map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property)
                    if property.key.is_specific_static_name(name) =>
                {
                    Some(&property.value)
                }
                _ => None,
            })
        };
        if let (Some(flag), Some(Expression::StringLiteral(file))) =
            (value("isEntry"), value("file"))
            && !matches!(flag, Expression::BooleanLiteral(flag) if !flag.value)
            && self.0.is_none()
        {
            self.0 = Some(file.value.to_string());
        }
        walk::walk_object_expression(self, object);
    }
}
