//! SvelteKit: the folder of its own build (`.svelte-kit/output`), what the adapter for Node.js writes
//! (`client` beside `server`), and a static site.
//!
//! Routes stand in the browser's own code: the script `entry/app` holds a table from route to the
//! number of its page and of its layouts, and asks for each of these on demand (`nodes/N`). All but
//! the root layout, whose number is 0, are listed. The page that is shown for errors (1) is fetched
//! after the start, whatever the route.

use std::{collections::BTreeMap, path::Path};

use uvlet_record::Bundler;
use uvlet_script::{
    Dialect,
    ast::{
        ArrayExpression, ArrayExpressionElement, Expression, ObjectExpression, ObjectPropertyKind,
        PropertyKey,
    },
    operator::UnaryOperator,
    visit::{Visit, walk},
};

use crate::{
    descriptions::frameworks::framework::{
        About, DATA, Framework, Output, SERVER, SaidRoute, Seen, around, read_text, route_of_page,
        routes_of_pages,
    },
    folder::list::Part,
};

/// SvelteKit.
pub struct SvelteKit;

impl Framework for SvelteKit {
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>> {
        around(folder).find_map(|root| {
            let parts = [root.join("output"), root.clone()];
            let split = parts.into_iter().find(|root| is_site(&root.join("client")));
            // A part of an output may be named for the whole.
            let is_part = root.file_name().is_some_and(|name| name == "client");
            let alone = !is_part && is_site(&root);
            let root = split.or_else(|| alone.then_some(root))?;
            let is_split = !is_site(&root);
            let about = About::of(&root, "SvelteKit", "@sveltejs/kit", Bundler::Vite);
            Some(Box::new(Site { about, is_split }) as Box<dyn Output>)
        })
    }
}

/// Whether a folder of what is served holds a folder `immutable/entry` with the two first scripts.
fn is_site(folder: &Path) -> bool {
    let folders = std::fs::read_dir(folder).into_iter().flatten().flatten();
    folders.take(200).any(|inside| {
        let entries = std::fs::read_dir(inside.path().join("immutable/entry"));
        let names = entries.into_iter().flatten().flatten().map(|file| file.file_name());
        let names: Vec<_> = names.collect();
        let starts = |stem: &str| {
            names.iter().any(|name| name.to_str().is_some_and(|name| name.starts_with(stem)))
        };
        starts("start.") && starts("app.")
    })
}

struct Site {
    about: About,
    /// What is served stands in `client` and `prerendered`.
    is_split: bool,
}

impl Output for Site {
    fn about(&self) -> &About {
        &self.about
    }

    fn part(&self, path: &str) -> Part {
        let (folder, rest) = path.split_once('/').unwrap_or(("", path));
        match folder {
            _ if !self.is_split => Part::Served,
            "client" if rest.starts_with(".vite/") => Part::Description,
            "client" | "prerendered" => Part::Served,
            _ if path.ends_with(".json") => DATA,
            _ => SERVER,
        }
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        let folders =
            ["client/", "prerendered/pages/", "prerendered/dependencies/", "prerendered/"];
        match self.is_split {
            true => folders.into_iter().map(|folder| (folder, "")).collect(),
            false => Vec::new(),
        }
    }

    fn route_of(&self, path: &str) -> Option<String> {
        let path = path.strip_prefix("client/").filter(|_| self.is_split).unwrap_or(path);
        let inside = path.strip_prefix("prerendered/").filter(|_| self.is_split).unwrap_or(path);
        let kinds = ["pages/", "data/", "dependencies/"];
        let inside = match self.is_split && inside.len() < path.len() {
            true => kinds.iter().find_map(|kind| inside.strip_prefix(kind)).unwrap_or(inside),
            false => inside,
        };
        match inside.strip_suffix("__data.json") {
            Some(folder) => Some(format!("/{}", folder.trim_end_matches('/'))),
            None => route_of_page(inside),
        }
    }

    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute> {
        let entry = |stem: &str| {
            let needle = format!("/immutable/entry/{stem}.");
            let mut paths = seen.paths().filter(|path| path.ends_with(".js"));
            paths.find(|path| path.contains(&needle)).map(str::to_owned)
        };
        let (Some(start), Some(app)) = (entry("start"), entry("app")) else {
            return routes_of_pages(self, seen);
        };
        let first = self.first().unwrap_or_default();
        let table = seen.text(&app).map(|text| table_in(&text)).unwrap_or_default();
        let asked = (seen.script)(&app).map(|script| script.found.imports.as_slice());
        let asked = asked.unwrap_or_default().iter();
        let nodes: BTreeMap<i64, &str> = asked
            .filter_map(|call| Some((number(&call.request)?, call.request.as_str())))
            .collect();
        let said = table.into_iter().map(|(pattern, numbers)| {
            let requests = [0].iter().chain(&numbers).filter_map(|number| nodes.get(number));
            SaidRoute {
                pattern: without_groups(&pattern),
                is_typed: true,
                files: [&[start.clone(), app.clone()][..], &first].concat(),
                opens: requests.map(|request| (app.clone(), (*request).to_owned())).collect(),
                ..SaidRoute::default()
            }
        });
        let mut routes: Vec<SaidRoute> = said.collect();
        // A shell or an error page is no route of the table.
        let pages = routes_of_pages(self, seen);
        routes.extend(pages.into_iter().filter(|page| !page.is_typed));
        routes
    }
}

impl Site {
    /// What the server tells a page to fetch along with the first two scripts.
    fn first(&self) -> Option<Vec<String>> {
        let lists = ["server/manifest-full.js", "server/manifest.js"];
        lists.iter().find_map(|list| {
            let text = read_text(&self.about.root.join(list))?;
            let found = uvlet_script::read(&text, Dialect::Emitted, |script| {
                let mut finder = First(None);
                finder.visit_program(&script.program);
                finder.0
            });
            found.ok()?
        })
    }
}

/// Looks for the lists in `client:{start:"…",app:"…",imports:[…],stylesheets:[…]}`.
struct First(Option<Vec<String>>);

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
        if value("start").is_some() && value("app").is_some() && self.0.is_none() {
            let lists = ["imports", "stylesheets"].into_iter().filter_map(value);
            let texts = lists.filter_map(|list| match list {
                Expression::ArrayExpression(list) => Some(list.elements.iter()),
                _ => None,
            });
            let texts = texts.flatten().filter_map(|element| match element {
                ArrayExpressionElement::StringLiteral(text) => Some(text.value.to_string()),
                _ => None,
            });
            self.0 = Some(texts.collect());
        }
        walk::walk_object_expression(self, object);
    }
}

/// `/(shop)/cart` is typed as `/cart`.
fn without_groups(pattern: &str) -> String {
    let parts = pattern.split('/').filter(|part| !(part.starts_with('(') && part.ends_with(')')));
    let pattern = parts.collect::<Vec<_>>().join("/");
    if pattern.is_empty() { "/".to_owned() } else { pattern }
}

/// The number in `../nodes/4.Dg3R9NJQ.js`.
fn number(request: &str) -> Option<i64> {
    let (_, name) = request.rsplit_once("nodes/")?;
    name.split('.').next()?.parse().ok()
}

/// From route to the numbers of its page and layouts.
fn table_in(text: &str) -> BTreeMap<String, Vec<i64>> {
    let table = uvlet_script::read(text, Dialect::Emitted, |script| {
        let mut finder = Tables(BTreeMap::new());
        finder.visit_program(&script.program);
        finder.0
    });
    table.unwrap_or_default()
}

/// Looks for an object like `{"/":[2],"/ports/[id]":[~4,[0,3]]}`.
struct Tables(BTreeMap<String, Vec<i64>>);

impl<'a> Visit<'a> for Tables {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let rows = object.properties.iter().map(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                match (&property.key, &property.value) {
                    (PropertyKey::StringLiteral(route), Expression::ArrayExpression(list))
                        if route.value.starts_with('/') =>
                    {
                        Some((route.value.to_string(), numbers(list)))
                    }
                    _ => None,
                }
            }
            ObjectPropertyKind::SpreadProperty(_) => None,
        });
        match rows.collect::<Option<Vec<_>>>() {
            Some(rows) if !rows.is_empty() => self.0.extend(rows),
            _ => walk::walk_object_expression(self, object),
        }
    }
}

/// The page's number, and those of its layouts; a number whose page needs data of the server stands
/// with all bits turned over. Numbers of error pages, which come third, are left out.
fn numbers(list: &ArrayExpression<'_>) -> Vec<i64> {
    let mut elements = list.elements.iter();
    let page = elements.next().and_then(|element| integer(element.as_expression()?));
    let mut numbers: Vec<i64> = match elements.next() {
        Some(ArrayExpressionElement::ArrayExpression(layouts)) => {
            let layouts = layouts.elements.iter();
            layouts.filter_map(|element| integer(element.as_expression()?)).collect()
        }
        _ => Vec::new(),
    };
    numbers.extend(page);
    for number in &mut numbers {
        *number = if *number < 0 { !*number } else { *number };
    }
    numbers
}

fn integer(value: &Expression<'_>) -> Option<i64> {
    match value {
        #[expect(clippy::cast_possible_truncation, reason = "pages are few")]
        Expression::NumericLiteral(number) => Some(number.value as i64),
        Expression::UnaryExpression(unary) => {
            let number = integer(&unary.argument)?;
            match unary.operator {
                UnaryOperator::UnaryNegation => Some(-number),
                UnaryOperator::BitwiseNot => Some(!number),
                _ => None,
            }
        }
        _ => None,
    }
}
