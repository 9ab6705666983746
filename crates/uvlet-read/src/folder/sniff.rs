//! What a JSON file describes instead of being shipped, told by its form: several keys with values of
//! the right kinds, never one key or a name alone. Reading stops where that is settled, as
//! descriptions may be huge.

use std::{collections::BTreeSet, fmt};

use serde::{
    Deserialize, Deserializer,
    de::{Error, IgnoredAny, MapAccess, SeqAccess, Visitor},
};
use uvlet_record::AsideKind;

/// The kind of description, if the text is one. `paths` are the files of the folder, of which a
/// manifest names some.
pub fn described_by(text: &[u8], paths: &BTreeSet<String>) -> Option<AsideKind> {
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text);
    let mut found = Found::default();
    let whole = serde_json::Deserializer::from_slice(text).deserialize_map(Top(&mut found));
    match found.settled {
        Some(kind) => Some(kind),
        // One that ends within what would have settled it.
        None if whole.is_err() => found.open,
        None => found.is_manifest(paths).then_some(AsideKind::Manifest),
    }
}

/// Files of a manifest that are looked for.
const LOOKED_FOR: usize = 64;

#[derive(Default)]
struct Found {
    settled: Option<AsideKind>,
    /// What it is if the value that is being read is of the right kind.
    open: Option<AsideKind>,
    version: Option<u64>,
    mappings: bool,
    inputs: bool,
    assets: bool,
    children: bool,
    is_plugins: bool,
    /// Values that name a file, and those among them that say where it comes from or what it needs.
    built: usize,
    marked: usize,
    others: usize,
    files: Vec<String>,
}

/// A value, as far as its kind tells.
enum Shape {
    Object(Inner),
    List,
    Text,
    Number(u64),
    Other,
}

/// What an object holds that tells.
#[derive(Default)]
struct Inner {
    file: Option<String>,
    command: Option<String>,
    is_marked: bool,
}

impl Found {
    /// What the keys so far and this one amount to.
    fn take(&mut self, key: &str, value: Shape) -> Option<AsideKind> {
        use AsideKind::{Map, Metafile, Plugin, Record, Stats};
        match (key, &value) {
            ("uvlet", Shape::Object(inner)) if inner.command.as_deref() == Some("record") => {
                return Some(Record);
            }
            ("uvlet_build", Shape::Number(_)) => self.is_plugins = true,
            ("modules" | "outputs", Shape::List) if self.is_plugins => return Some(Plugin),
            ("version", Shape::Number(number)) => self.version = Some(*number),
            ("mappings", Shape::Text) | ("sections", Shape::List) => self.mappings = true,
            ("outputs", Shape::Object(_)) if self.inputs => return Some(Metafile),
            ("chunks" | "modules", Shape::List) if self.assets => return Some(Stats),
            ("entrypoints", Shape::Object(_)) if self.assets => return Some(Stats),
            ("errorsCount" | "warningsCount", Shape::Number(_)) if self.children => {
                return Some(Stats);
            }
            ("rspackVersion", Shape::Text) | ("assetsByChunkName", Shape::Object(_)) => {
                return Some(Stats);
            }
            ("inputs", Shape::Object(_)) => self.inputs = true,
            ("assets", Shape::List) => self.assets = true,
            ("children", Shape::List) => self.children = true,
            _ => {}
        }
        match value {
            Shape::Object(Inner { file: Some(file), is_marked, .. }) => {
                self.built += 1;
                self.marked += usize::from(is_marked);
                if self.files.len() < LOOKED_FOR {
                    self.files.push(file);
                }
            }
            _ => self.others += 1,
        }
        (self.version == Some(3) && self.mappings).then_some(Map)
    }

    /// Every value names a file, some say what it comes from or needs, and the folder holds them.
    fn is_manifest(&self, paths: &BTreeSet<String>) -> bool {
        let is_there = |file: &&String| {
            paths.contains(*file)
                || paths.iter().any(|path| {
                    path.strip_suffix(file.as_str()).is_some_and(|before| before.ends_with('/'))
                })
        };
        let there = self.files.iter().filter(is_there).count();
        self.others == 0 && self.marked > 0 && there > 0 && there * 2 >= self.files.len()
    }
}

struct Top<'f>(&'f mut Found);

impl<'de> Visitor<'de> for Top<'_> {
    type Value = ();

    fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        formatter.write_str("an object")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<(), A::Error> {
        while let Some(key) = map.next_key::<String>()? {
            self.0.open = match key.as_str() {
                "inputs" | "outputs" if self.0.built + self.0.others < 2 => {
                    Some(AsideKind::Metafile)
                }
                "chunks" | "modules" | "entrypoints" if self.0.assets => Some(AsideKind::Stats),
                _ => None,
            };
            let value = map.next_value::<Shape>()?;
            self.0.open = None;
            self.0.settled = self.0.take(&key, value);
            if self.0.settled.is_some() {
                return Err(A::Error::custom("settled"));
            }
        }
        Ok(())
    }
}

impl<'de> Deserialize<'de> for Shape {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct Look;

        impl<'de> Visitor<'de> for Look {
            type Value = Shape;

            fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
                formatter.write_str("any value")
            }

            fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Shape, A::Error> {
                let mut inner = Inner::default();
                while let Some(key) = map.next_key::<Key>()? {
                    match key {
                        Key::File => inner.file = map.next_value::<Text>()?.0,
                        Key::Command => inner.command = map.next_value::<Text>()?.0,
                        Key::Mark => {
                            inner.is_marked = true;
                            map.next_value::<IgnoredAny>()?;
                        }
                        Key::Other => {
                            map.next_value::<IgnoredAny>()?;
                        }
                    }
                }
                Ok(Shape::Object(inner))
            }

            fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<Shape, A::Error> {
                while list.next_element::<IgnoredAny>()?.is_some() {}
                Ok(Shape::List)
            }

            fn visit_str<E>(self, _: &str) -> Result<Shape, E> {
                Ok(Shape::Text)
            }

            fn visit_u64<E>(self, number: u64) -> Result<Shape, E> {
                Ok(Shape::Number(number))
            }

            fn visit_i64<E>(self, _: i64) -> Result<Shape, E> {
                Ok(Shape::Other)
            }

            fn visit_f64<E>(self, _: f64) -> Result<Shape, E> {
                Ok(Shape::Other)
            }

            fn visit_bool<E>(self, _: bool) -> Result<Shape, E> {
                Ok(Shape::Other)
            }

            fn visit_unit<E>(self) -> Result<Shape, E> {
                Ok(Shape::Other)
            }
        }

        deserializer.deserialize_any(Look)
    }
}

/// A key of an inner object.
enum Key {
    File,
    Command,
    Mark,
    Other,
}

impl<'de> Deserialize<'de> for Key {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct Look;

        impl Visitor<'_> for Look {
            type Value = Key;

            fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
                formatter.write_str("a key")
            }

            fn visit_str<E>(self, key: &str) -> Result<Key, E> {
                Ok(match key {
                    "file" => Key::File,
                    "command" => Key::Command,
                    "src" | "isEntry" | "isDynamicEntry" | "imports" | "dynamicImports" | "css" => {
                        Key::Mark
                    }
                    _ => Key::Other,
                })
            }
        }

        deserializer.deserialize_identifier(Look)
    }
}

/// A text, or nothing where the value is something else.
struct Text(Option<String>);

impl<'de> Deserialize<'de> for Text {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let value = serde_json::Value::deserialize(deserializer)?;
        Ok(Self(value.as_str().map(str::to_owned)))
    }
}
