//! Tables of the configuration with their places, over several files: a later file's value is the one
//! that counts, lists of all files stand one behind the other.

use std::{fmt::Display, ops::RangeInclusive, str::FromStr};

use jiff::civil::Date;
use toml::{
    Spanned,
    de::{DeTable, DeValue},
};
use uvlet_audit::{ask::gate::budget::Place, select::selector::Selector};
use uvlet_view::words::errors;

use super::source::Source;

/// What is wrong, at which byte of which file.
#[derive(Debug)]
pub struct Wrong {
    /// By its place in the order of files.
    pub file: usize,
    pub at: usize,
    pub message: String,
}

type Value<'t> = Spanned<DeValue<'t>>;

/// The tree of a file; else at which byte it is none.
pub fn parse(text: &str) -> Result<Spanned<DeTable<'_>>, (usize, String)> {
    DeTable::parse(text).map_err(|error| {
        let at = error.span().map_or(0, |span| span.start);
        (at, error.message().replace('\n', ", "))
    })
}

/// Line and column of a byte, in characters from 1.
pub fn line_and_column(text: &str, at: usize) -> (usize, usize) {
    let before = text.get(..at).unwrap_or(text);
    let line = before.matches('\n').count() + 1;
    (line, before.rsplit('\n').next().unwrap_or("").chars().count() + 1)
}

/// A table of one file.
#[derive(Clone)]
struct Layer<'t> {
    file: usize,
    source: &'t Source,
    /// What messages call it.
    name: String,
    at: usize,
    entries: &'t DeTable<'t>,
}

impl<'t> Layer<'t> {
    fn value(&self, key: &str) -> Option<&'t Value<'t>> {
        self.entries.iter().find(|(name, _)| name.get_ref() == key).map(|(_, value)| value)
    }

    fn wrong(&self, at: usize, message: String) -> Wrong {
        Wrong { file: self.file, at, message }
    }

    fn place(&self, at: usize) -> Place {
        let (line, column) = line_and_column(&self.source.text, at);
        Place { file: self.source.name(), line, column }
    }

    fn of(&self, name: String, value: &'t Value<'t>) -> Result<Self, Wrong> {
        let at = value.span().start;
        match value.get_ref() {
            DeValue::Table(entries) => {
                Ok(Self { file: self.file, source: self.source, name, at, entries })
            }
            _ => Err(self.wrong(at, format!("{name} is a table of its own, not a value"))),
        }
    }

    /// `[budget.start]` below `[budget]`.
    fn name_of(&self, key: &str) -> String {
        match self.name.strip_prefix('[').and_then(|name| name.strip_suffix(']')) {
            Some(name) => format!("[{name}.{key}]"),
            None => format!("[{key}]"),
        }
    }
}

/// A table as several files make it up, the one that counts most last.
#[derive(Clone)]
pub struct Table<'t> {
    layers: Vec<Layer<'t>>,
}

impl<'t> Table<'t> {
    /// What stands in files, the one that counts most last.
    pub fn root(files: &[(&'t Source, &'t Spanned<DeTable<'t>>)]) -> Self {
        let layer = |(file, (source, tree)): (usize, &(&'t Source, &'t Spanned<DeTable<'t>>))| {
            let (at, entries) = (tree.span().start, tree.get_ref());
            Layer { file, source, name: "the file".to_owned(), at, entries }
        };
        Self { layers: files.iter().enumerate().map(layer).collect() }
    }

    /// This table with another one upon it.
    pub fn under(&self, upper: &Self) -> Self {
        Self { layers: [&self.layers[..], &upper.layers[..]].concat() }
    }

    /// Complains about the table as a whole.
    pub fn wrong(&self, message: &str) -> Wrong {
        match self.layers.last() {
            Some(layer) => layer.wrong(layer.at, message.to_owned()),
            None => Wrong { file: 0, at: 0, message: message.to_owned() },
        }
    }

    /// Complains about the value of a key.
    pub fn wrong_at(&self, key: &str, message: &str) -> Wrong {
        match self.value(key) {
            Some((layer, value)) => layer.wrong(value.span().start, message.to_owned()),
            None => self.wrong(message),
        }
    }

    /// Where a key's value stands.
    pub fn place(&self, key: &str) -> Place {
        match (self.value(key), self.layers.last()) {
            (Some((layer, value)), _) => layer.place(value.span().start),
            (None, Some(layer)) => layer.place(layer.at),
            (None, None) => Place::default(),
        }
    }

    /// The folder of the file that a key's value stands in.
    pub fn folder_of(&self, key: &str) -> Option<&'t std::path::Path> {
        self.value(key).and_then(|(layer, _)| layer.source.path.parent())
    }

    /// Refuses keys that mean nothing here.
    pub fn only(&self, keys: &[&str]) -> Result<(), Wrong> {
        for layer in &self.layers {
            let unknown =
                layer.entries.iter().find(|(key, _)| !keys.contains(&key.get_ref().as_ref()));
            if let Some((key, _)) = unknown {
                let wrong = key.get_ref();
                let remedy = errors::remedy(wrong, keys.iter().copied());
                let message = format!("unknown key `{wrong}` in {}, {remedy}", layer.name);
                return Err(layer.wrong(key.span().start, message));
            }
        }
        Ok(())
    }

    /// The value that counts, with where it stands.
    fn value(&self, key: &str) -> Option<(&Layer<'t>, &'t Value<'t>)> {
        self.layers.iter().rev().find_map(|layer| Some((layer, layer.value(key)?)))
    }

    /// The value of every file, the one that counts most last.
    fn values<'k>(
        &'k self,
        key: &'k str,
    ) -> impl Iterator<Item = (&'k Layer<'t>, &'t Value<'t>)> + 'k {
        self.layers.iter().filter_map(move |layer| Some((layer, layer.value(key)?)))
    }

    pub fn string(&self, key: &str) -> Result<Option<&'t str>, Wrong> {
        let Some((layer, value)) = self.value(key) else { return Ok(None) };
        match value.get_ref() {
            DeValue::String(text) => Ok(Some(text.as_ref())),
            _ => Err(layer.wrong(value.span().start, format!("`{key}` takes a text in quotes"))),
        }
    }

    pub fn flag(&self, key: &str) -> Result<Option<bool>, Wrong> {
        let Some((layer, value)) = self.value(key) else { return Ok(None) };
        match value.get_ref() {
            DeValue::Boolean(flag) => Ok(Some(*flag)),
            _ => Err(layer.wrong(value.span().start, format!("`{key}` takes true or false"))),
        }
    }

    /// A whole number within bounds.
    pub fn number(&self, key: &str, bounds: RangeInclusive<u32>) -> Result<Option<u32>, Wrong> {
        let Some((layer, value)) = self.value(key) else { return Ok(None) };
        let number = match value.get_ref() {
            DeValue::Integer(number) => u32::from_str_radix(number.as_str(), number.radix()).ok(),
            _ => None,
        };
        number.filter(|number| bounds.contains(number)).map(Some).ok_or_else(|| {
            let (least, most) = bounds.into_inner();
            let message = format!("`{key}` takes a whole number from {least} to {most}");
            layer.wrong(value.span().start, message)
        })
    }

    /// A text that stands for something else.
    pub fn with<T, E: Display>(
        &self,
        key: &str,
        parse: impl FnOnce(&str) -> Result<T, E>,
    ) -> Result<Option<T>, Wrong> {
        let Some(text) = self.string(key)? else { return Ok(None) };
        let wrong = |error| self.wrong_at(key, &format!("`{key}`: {error}"));
        parse(text).map(Some).map_err(wrong)
    }

    pub fn parsed<T: FromStr<Err: Display>>(&self, key: &str) -> Result<Option<T>, Wrong> {
        self.with(key, str::parse)
    }

    pub fn selector(&self, key: &str) -> Result<Option<Selector>, Wrong> {
        self.with(key, |text| text.parse().map_err(|error| errors::selector(&error)))
    }

    /// A list of texts, of all files, each text once.
    pub fn strings(&self, key: &str) -> Result<Vec<String>, Wrong> {
        let mut strings: Vec<String> = Vec::new();
        for (layer, value) in self.values(key) {
            let wrong = |at| layer.wrong(at, format!("`{key}` takes a list of texts in quotes"));
            let DeValue::Array(list) = value.get_ref() else {
                return Err(wrong(value.span().start));
            };
            for item in list {
                let DeValue::String(text) = item.get_ref() else {
                    return Err(wrong(item.span().start));
                };
                if !strings.iter().any(|known| known == text.as_ref()) {
                    strings.push(text.to_string());
                }
            }
        }
        Ok(strings)
    }

    /// One text or a list of them, each with its place.
    pub fn texts(&self, key: &str) -> Result<Vec<(usize, String)>, Wrong> {
        let Some((layer, value)) = self.value(key) else { return Ok(Vec::new()) };
        let items: Vec<&Value<'_>> = match value.get_ref() {
            DeValue::Array(list) => list.iter().collect(),
            _ => vec![value],
        };
        let text = |item: &Value<'_>| match item.get_ref() {
            DeValue::String(text) => Ok((item.span().start, text.to_string())),
            _ => Err(layer.wrong(item.span().start, format!("`{key}` takes a text in quotes"))),
        };
        items.into_iter().map(text).collect()
    }

    /// A day, as TOML writes it, or in quotes.
    pub fn date(&self, key: &str) -> Result<Option<Date>, Wrong> {
        let Some((layer, value)) = self.value(key) else { return Ok(None) };
        let text = match value.get_ref() {
            DeValue::String(text) => text.to_string(),
            DeValue::Datetime(date) => date.to_string(),
            _ => String::new(),
        };
        // A time of day would be left out silently.
        let day = (text.len() == 10).then(|| text.parse().ok()).flatten();
        let message = || format!("`{key}` takes a day, as in 2027-03-31");
        day.map(Some).ok_or_else(|| layer.wrong(value.span().start, message()))
    }

    /// The tables of a list, as `[[key]]` writes them, of all files.
    pub fn list(&self, key: &str) -> Result<Vec<Self>, Wrong> {
        let mut tables = Vec::new();
        for (layer, value) in self.values(key) {
            let name = format!("[{}]", layer.name_of(key));
            let DeValue::Array(items) = value.get_ref() else {
                let message = format!("`{key}` is written as {name}");
                return Err(layer.wrong(value.span().start, message));
            };
            for item in items {
                tables.push(Self { layers: vec![layer.of(name.clone(), item)?] });
            }
        }
        Ok(tables)
    }

    pub fn table(&self, key: &str) -> Result<Option<Self>, Wrong> {
        let layers = self.values(key).map(|(layer, value)| layer.of(layer.name_of(key), value));
        let layers = layers.collect::<Result<Vec<_>, _>>()?;
        Ok((!layers.is_empty()).then_some(Self { layers }))
    }

    /// The keys, in the order of the files.
    pub fn names(&self) -> Vec<&'t str> {
        let mut names: Vec<&str> = Vec::new();
        for layer in &self.layers {
            let keys = layer.entries.iter();
            let mut keys: Vec<(usize, &str)> =
                keys.map(|(key, _)| (key.span().start, key.get_ref().as_ref())).collect();
            keys.sort_unstable();
            let keys: Vec<&str> =
                keys.into_iter().map(|(_, key)| key).filter(|key| !names.contains(key)).collect();
            names.extend(keys);
        }
        names
    }

    /// Every entry as a table, in the order of the files.
    pub fn tables(&self) -> Result<Vec<(&'t str, Self)>, Wrong> {
        let mut tables = Vec::new();
        for name in self.names() {
            tables.extend(self.table(name)?.map(|table| (name, table)));
        }
        Ok(tables)
    }

    /// Every value with its key in full, as it is written, and where; lists item by item.
    pub fn leaves(&self, prefix: &str) -> Vec<(String, String, Place)> {
        let mut leaves = Vec::new();
        for name in self.names() {
            let Some((_, value)) = self.value(name) else { continue };
            let key = format!("{prefix}{}", spelt(name));
            match value.get_ref() {
                DeValue::Table(_) => {
                    let table = self.table(name).ok().flatten();
                    leaves.extend(table.iter().flat_map(|table| table.leaves(&format!("{key}."))));
                }
                DeValue::Array(_) => {
                    let mut at = 1;
                    for (layer, value) in self.values(name) {
                        let DeValue::Array(items) = value.get_ref() else { continue };
                        for item in items {
                            let key = format!("{key}[{at}]");
                            at += 1;
                            match layer.of(String::new(), item) {
                                Ok(one) => {
                                    let table = Self { layers: vec![one] };
                                    leaves.extend(table.leaves(&format!("{key}.")));
                                }
                                Err(_) => leaves.push(layer.leaf(key, item)),
                            }
                        }
                    }
                }
                _ => leaves.extend(self.value(name).map(|(layer, value)| layer.leaf(key, value))),
            }
        }
        leaves
    }
}

impl Layer<'_> {
    fn leaf(&self, key: String, value: &Value<'_>) -> (String, String, Place) {
        let span = value.span();
        let text = self.source.text.get(span.clone()).unwrap_or_default();
        (key, text.split_whitespace().collect::<Vec<_>>().join(" "), self.place(span.start))
    }
}

/// A key as TOML writes it.
fn spelt(key: &str) -> String {
    let is_bare = |c: char| c.is_ascii_alphanumeric() || c == '_' || c == '-';
    match !key.is_empty() && key.chars().all(is_bare) {
        true => key.to_owned(),
        false => format!("{key:?}"),
    }
}
