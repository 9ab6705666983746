//! What a page was rendered to by React's server components: the payload that stands in its scripts.
//!
//! `self.__next_f.push([1,"…"])` carry a text of rows, `ID:VALUE` each to the end of its line, or
//! `ID:T…` with the length of a text. `I[module,chunks,name]` is a component of the browser's; elements are
//! `["$",type,key,props]`, whose type is the name of an element, or `$L7`, what row 7 is.

use std::collections::BTreeMap;

use serde_json::Value;
use uvlet_script::drawing::{CHILDREN, Drawn};

use crate::files::page::Page;

/// Rows and elements that are followed one inside another.
const DEEPEST: usize = 200;

/// Components of the framework's own that draw what they are given.
const OPEN: [&str; 5] = [
    "OutletBoundary",
    "ViewportBoundary",
    "MetadataBoundary",
    "ClientPageRoot",
    "ClientSegmentRoot",
];

/// The components that a page draws.
pub fn of_page(page: &Page) -> Vec<Drawn> {
    let scripts = page.inline.iter().filter(|inline| inline.script_after.is_some());
    drawn(scripts.map(|script| script.text.as_str()))
}

fn drawn<'t>(scripts: impl Iterator<Item = &'t str>) -> Vec<Drawn> {
    let mut text = String::new();
    for script in scripts {
        let Some(pushed) = script.trim().strip_prefix("self.__next_f.push(") else { continue };
        let mut values = serde_json::Deserializer::from_str(pushed).into_iter::<Value>();
        if let Some(Ok(Value::Array(pushed))) = values.next()
            && let [_, Value::String(part), ..] = pushed.as_slice()
        {
            text.push_str(part);
        }
    }
    let rows = Rows::of(&text);
    rows.values.get("0").map_or_else(Vec::new, |root| rows.drawn(root, DEEPEST))
}

/// What is in the rows of a payload.
struct Rows {
    values: BTreeMap<String, Value>,
    /// Components: module and export.
    components: BTreeMap<String, (String, String)>,
}

impl Rows {
    fn of(text: &str) -> Self {
        let (mut values, mut components) = (BTreeMap::new(), BTreeMap::new());
        let mut rest = text;
        while let Some((id, row)) = rest.split_once(':') {
            if let Some((length, after)) = row.strip_prefix('T').and_then(|row| row.split_once(','))
                && let Ok(length) = usize::from_str_radix(length, 16)
            {
                rest = after.get(length..).unwrap_or_default();
                continue;
            }
            let (row, after) = row.split_once('\n').unwrap_or((row, ""));
            rest = after;
            match row.strip_prefix('I') {
                Some(component) => {
                    if let Ok(Value::Array(list)) = serde_json::from_str(component)
                        && let [module, _, Value::String(name), ..] = list.as_slice()
                    {
                        let module =
                            module.as_str().map_or_else(|| module.to_string(), str::to_owned);
                        components.insert(id.to_owned(), (module, name.clone()));
                    }
                }
                None => {
                    if let Ok(value) = serde_json::from_str(row) {
                        values.insert(id.to_owned(), value);
                    }
                }
            }
        }
        Self { values, components }
    }

    /// What is drawn of a value: its elements, wherever they are in it.
    fn drawn(&self, value: &Value, depth: usize) -> Vec<Drawn> {
        let Some(depth) = depth.checked_sub(1) else { return Vec::new() };
        match value {
            Value::String(text) => match row_of(text) {
                Some(row) => {
                    self.values.get(row).map_or_else(Vec::new, |value| self.drawn(value, depth))
                }
                None => Vec::new(),
            },
            Value::Array(list) => match list.as_slice() {
                [Value::String(mark), Value::String(of), _, properties, ..] if mark == "$" => {
                    self.element(of, properties, depth)
                }
                list => list.iter().flat_map(|value| self.drawn(value, depth)).collect(),
            },
            Value::Object(object) => {
                object.values().flat_map(|value| self.drawn(value, depth)).collect()
            }
            _ => Vec::new(),
        }
    }

    fn element(&self, of: &str, properties: &Value, depth: usize) -> Vec<Drawn> {
        let children = || match properties.get("children") {
            Some(children) => self.drawn(children, depth),
            None => Vec::new(),
        };
        let Some(row) = row_of(of) else { return children() };
        let Some((module, name)) = self.components.get(row) else {
            // A row that is a symbol stands for a fragment, or what draws all that it is given.
            return match self.values.get(row) {
                Some(Value::String(_)) => children(),
                _ => Vec::new(),
            };
        };
        let said = row_of(name).and_then(|row| self.values.get(row)).and_then(Value::as_str);
        if !OPEN.contains(&said.unwrap_or(name)) {
            let given = vec![(CHILDREN.to_owned(), children())];
            return vec![Drawn::Imported { request: module.clone(), name: name.clone(), given }];
        }
        // A page that is a component itself is passed on by name.
        let page = properties.get("Component").and_then(Value::as_str).and_then(row_of);
        let page = page.and_then(|row| self.components.get(row)).map(|(module, name)| {
            Drawn::Imported { request: module.clone(), name: name.clone(), given: Vec::new() }
        });
        children().into_iter().chain(page).collect()
    }
}

/// The row that a text refers to: `$7`; `$L7` and `$@7`, that may come late; `$Q7` and `$W7`, lists.
fn row_of(text: &str) -> Option<&str> {
    let row = text.strip_prefix('$')?;
    let row = row.strip_prefix(['L', 'Q', 'W', '@']).unwrap_or(row);
    (!row.is_empty() && row.bytes().all(|byte| byte.is_ascii_hexdigit())).then_some(row)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_page_draws_what_its_elements_are_of() {
        let rows = r#"1:\"$Sreact.fragment\"\n2:I[10,[],\"OutletBoundary\"]\n3:I[20,[\"7\"],\"Board\"]\n4:I[30,[],\"Shell\"]\n5:T3,a:b0:{\"f\":[[\"$\",\"main\",null,{\"children\":[\"$\",\"$1\",\"c\",{\"children\":[\"$\",\"$L4\",null,{\"children\":\"$L6\",\"notFound\":[\"$\",\"$L3\",null,{}]}]}]}]]}\n6:[\"$\",\"$L2\",null,{\"children\":[\"$\",\"$L3\",null,{\"rows\":3}]}]\n"#;
        let script = format!("self.__next_f.push([1,\"{rows}\"])");
        let one = |module: &str, name: &str, children: Vec<Drawn>| Drawn::Imported {
            request: module.to_owned(),
            name: name.to_owned(),
            given: vec![(CHILDREN.to_owned(), children)],
        };
        let board = one("20", "Board", Vec::new());
        let all = ["self.__next_f=[]", &script].into_iter();
        assert_eq!(drawn(all), [one("30", "Shell", vec![board])]);
    }
}
