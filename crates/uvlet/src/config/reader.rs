//! Tables of the configuration with their places in the file.

use std::{borrow::Cow, fmt::Display, ops::RangeInclusive, str::FromStr};

use jiff::civil::Date;
use toml::{
    Spanned,
    de::{DeTable, DeValue},
};
use uvlet_audit::nearest::remedy;

/// What is wrong, at which byte of the file.
pub type Wrong = (usize, String);

/// The tree of a file.
pub fn parse(text: &str) -> Result<Spanned<DeTable<'_>>, Wrong> {
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

/// A table, by the name that messages give it.
pub struct Table<'t> {
    /// The whole file.
    text: &'t str,
    name: Cow<'t, str>,
    at: usize,
    entries: &'t DeTable<'t>,
}

impl<'t> Table<'t> {
    pub fn new(name: &'t str, text: &'t str, tree: &'t Spanned<DeTable<'t>>) -> Self {
        Self { text, name: name.into(), at: tree.span().start, entries: tree.get_ref() }
    }

    /// Complains about the table as a whole.
    pub fn wrong(&self, message: &str) -> Wrong {
        (self.at, message.to_owned())
    }

    /// Complains about the value of a key.
    pub fn wrong_at(&self, key: &str, message: &str) -> Wrong {
        (self.value(key).map_or(self.at, |value| value.span().start), message.to_owned())
    }

    /// Line and column of a key's value, from 1.
    pub fn place(&self, key: &str) -> (usize, usize) {
        line_and_column(self.text, self.value(key).map_or(self.at, |value| value.span().start))
    }

    /// Refuses keys that mean nothing here.
    pub fn only(&self, keys: &[&str]) -> Result<(), Wrong> {
        match self.entries.iter().find(|(key, _)| !keys.contains(&key.get_ref().as_ref())) {
            None => Ok(()),
            Some((key, _)) => {
                let wrong = key.get_ref();
                let message = format!(
                    "unknown key `{wrong}` in {}, {}",
                    self.name,
                    remedy(wrong, keys.iter().copied())
                );
                Err((key.span().start, message))
            }
        }
    }

    fn value(&self, key: &str) -> Option<&'t Spanned<DeValue<'t>>> {
        self.entries.iter().find(|(name, _)| name.get_ref() == key).map(|(_, value)| value)
    }

    pub fn string(&self, key: &str) -> Result<Option<&'t str>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(None) };
        match value.get_ref() {
            DeValue::String(text) => Ok(Some(text.as_ref())),
            _ => Err((value.span().start, format!("`{key}` takes a text in quotes"))),
        }
    }

    pub fn flag(&self, key: &str) -> Result<Option<bool>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(None) };
        match value.get_ref() {
            DeValue::Boolean(flag) => Ok(Some(*flag)),
            _ => Err((value.span().start, format!("`{key}` takes true or false"))),
        }
    }

    /// A whole number within bounds.
    pub fn number(&self, key: &str, bounds: RangeInclusive<u32>) -> Result<Option<u32>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(None) };
        let number = match value.get_ref() {
            DeValue::Integer(number) => u32::from_str_radix(number.as_str(), number.radix()).ok(),
            _ => None,
        };
        number.filter(|number| bounds.contains(number)).map(Some).ok_or_else(|| {
            let (least, most) = bounds.into_inner();
            (value.span().start, format!("`{key}` takes a whole number from {least} to {most}"))
        })
    }

    /// A text that stands for something else.
    pub fn with<T>(
        &self,
        key: &str,
        parse: impl FnOnce(&str) -> Result<T, String>,
    ) -> Result<Option<T>, Wrong> {
        let Some(text) = self.string(key)? else { return Ok(None) };
        let at = self.value(key).map_or(self.at, |value| value.span().start);
        parse(text).map(Some).map_err(|message| (at, format!("`{key}`: {message}")))
    }

    pub fn parsed<T: FromStr<Err: Display>>(&self, key: &str) -> Result<Option<T>, Wrong> {
        self.with(key, |text| text.parse().map_err(|error: T::Err| error.to_string()))
    }

    pub fn strings(&self, key: &str) -> Result<Vec<String>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(Vec::new()) };
        let wrong = |at| (at, format!("`{key}` takes a list of texts in quotes"));
        let DeValue::Array(list) = value.get_ref() else { return Err(wrong(value.span().start)) };
        list.iter()
            .map(|item| match item.get_ref() {
                DeValue::String(text) => Ok(text.to_string()),
                _ => Err(wrong(item.span().start)),
            })
            .collect()
    }

    /// A day, as TOML writes it, or in quotes.
    pub fn date(&self, key: &str) -> Result<Option<Date>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(None) };
        let text = match value.get_ref() {
            DeValue::String(text) => text.to_string(),
            DeValue::Datetime(date) => date.to_string(),
            _ => String::new(),
        };
        // A time of day would be left out silently.
        let day = (text.len() == 10).then(|| text.parse().ok()).flatten();
        let wrong = || (value.span().start, format!("`{key}` takes a day, as in 2027-03-31"));
        day.map(Some).ok_or_else(wrong)
    }

    /// The tables of a list, as `[[key]]` writes them.
    pub fn list(&self, key: &'t str) -> Result<Vec<Self>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(Vec::new()) };
        let name = format!("[[{key}]]");
        match value.get_ref() {
            DeValue::Array(items) => {
                items.iter().map(|item| self.of(name.clone().into(), item)).collect()
            }
            _ => Err((value.span().start, format!("`{key}` is written as {name}"))),
        }
    }

    pub fn table(&self, key: &'t str) -> Result<Option<Self>, Wrong> {
        let Some(value) = self.value(key) else { return Ok(None) };
        self.of(format!("[{key}]").into(), value).map(Some)
    }

    /// The keys, in the order of the file.
    pub fn names(&self) -> Vec<&'t str> {
        let keys = self.entries.iter().map(|(key, _)| (key.span().start, key.get_ref().as_ref()));
        let mut keys: Vec<(usize, &str)> = keys.collect();
        keys.sort_unstable();
        keys.into_iter().map(|(_, name)| name).collect()
    }

    /// Every entry as a table, in the order of the file.
    pub fn tables(&self) -> Result<Vec<(&'t str, Self)>, Wrong> {
        let mut tables = Vec::new();
        for (key, value) in self.entries {
            let name = key.get_ref().as_ref();
            let prefix = self.name.trim_matches(['[', ']']);
            tables.push((
                key.span().start,
                name,
                self.of(format!("[{prefix}.{name}]").into(), value)?,
            ));
        }
        tables.sort_by_key(|(at, ..)| *at);
        Ok(tables.into_iter().map(|(_, name, table)| (name, table)).collect())
    }

    fn of(&self, name: Cow<'t, str>, value: &'t Spanned<DeValue<'t>>) -> Result<Self, Wrong> {
        let at = value.span().start;
        match value.get_ref() {
            DeValue::Table(entries) => Ok(Self { text: self.text, name, at, entries }),
            _ => Err((at, format!("{name} is a table of its own, not a value"))),
        }
    }
}
