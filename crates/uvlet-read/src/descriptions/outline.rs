//! The outline of a JSON text: its keys and what kind of value each has. Reading stops where that
//! settles what the text describes, as descriptions may be huge.

use std::{
    collections::{BTreeMap, BTreeSet},
    fmt,
};

use serde::{
    Deserialize, Deserializer,
    de::{DeserializeSeed, Error, IgnoredAny, MapAccess, SeqAccess, Visitor},
};
use uvlet_record::AsideKind;

/// Tells what an outline is, so far or as a whole.
pub type Tell<'t> = dyn Fn(&Outline) -> Option<AsideKind> + 't;

/// Tells what JSON that is cut short within the value of a key would have been.
pub type TellOpen<'t> = dyn Fn(&Outline, &str) -> Option<AsideKind> + 't;

/// What a JSON text describes, if that is more than itself.
pub struct Kinds {
    /// Its keys settle it, wherever the text ends.
    pub settled: Option<AsideKind>,
    /// What it is if the text ends there.
    pub likely: Option<AsideKind>,
}

/// What a JSON text describes. `so_far` tells it by the keys up to a place, `cut_short` by a key whose
/// value does not end, `whole` by all keys.
pub fn kinds(text: &[u8], so_far: &Tell<'_>, cut_short: &TellOpen<'_>, whole: &Tell<'_>) -> Kinds {
    let (outline, settled, open) = (Outline::default(), None, None);
    let mut reading = Reading { outline, settled, open, so_far, cut_short };
    let read = serde_json::Deserializer::from_slice(text).deserialize_map(Top(&mut reading));
    // One that ends within what would have settled it.
    let likely = if read.is_err() { reading.open } else { whole(&reading.outline) };
    Kinds { settled: reading.settled, likely }
}

/// Keys that are remembered; descriptions have some dozens.
const KEYS: usize = 256;

/// Files of a manifest that are looked for.
const LOOKED_FOR: usize = 64;

struct Reading<'t> {
    outline: Outline,
    settled: Option<AsideKind>,
    /// What it is if the value that is being read is of the right kind.
    open: Option<AsideKind>,
    so_far: &'t Tell<'t>,
    cut_short: &'t TellOpen<'t>,
}

/// The keys so far, with the kinds of their values.
#[derive(Default)]
pub struct Outline {
    keys: BTreeMap<String, Shape>,
    /// Values that name a file, and those among them that say where it comes from or what it needs.
    built: usize,
    marked: usize,
    others: usize,
    files: Vec<String>,
}

/// What kind of value a key has.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Shape {
    /// An object, with what it holds that tells.
    Object {
        /// The text under `file`.
        file: Option<String>,
        /// The text under `command`.
        command: Option<String>,
        /// It says where its file comes from or what that needs.
        is_marked: bool,
    },
    List,
    Text,
    Number(u64),
    Other,
}

impl Outline {
    /// The value of a key.
    pub fn get(&self, key: &str) -> Option<&Shape> {
        self.keys.get(key)
    }

    pub fn has_object(&self, key: &str) -> bool {
        matches!(self.get(key), Some(Shape::Object { .. }))
    }

    pub fn has_list(&self, key: &str) -> bool {
        self.get(key) == Some(&Shape::List)
    }

    pub fn has_text(&self, key: &str) -> bool {
        self.get(key) == Some(&Shape::Text)
    }

    pub fn has_number(&self, key: &str) -> bool {
        matches!(self.get(key), Some(Shape::Number(_)))
    }

    /// Keys so far.
    pub fn len(&self) -> usize {
        self.built + self.others
    }

    /// Whether every value names a file, some say what it comes from or needs, and the folder holds
    /// most of the files.
    pub fn lists_built_files(&self, paths: &BTreeSet<String>) -> bool {
        let is_there = |file: &&String| {
            paths.contains(*file)
                || paths.iter().any(|path| {
                    path.strip_suffix(file.as_str()).is_some_and(|before| before.ends_with('/'))
                })
        };
        let there = self.files.iter().filter(is_there).count();
        self.others == 0 && self.marked > 0 && there > 0 && there * 2 >= self.files.len()
    }

    fn add(&mut self, key: String, value: Shape) {
        match &value {
            Shape::Object { file: Some(file), is_marked, .. } => {
                self.built += 1;
                self.marked += usize::from(*is_marked);
                if self.files.len() < LOOKED_FOR {
                    self.files.push(file.clone());
                }
            }
            _ => self.others += 1,
        }
        if self.keys.len() < KEYS {
            self.keys.insert(key, value);
        }
    }

    /// A record of this program, or a source map.
    fn kind(&self) -> Option<AsideKind> {
        let is_record = matches!(self.get("uvlet"), Some(Shape::Object { command: Some(command), .. }) if command == "record");
        if is_record {
            return Some(AsideKind::Record);
        }
        let maps = self.has_text("mappings") || self.has_list("sections");
        if maps && self.get("version") == Some(&Shape::Number(3)) {
            return Some(AsideKind::Map);
        }
        None
    }
}

/// An object of which nothing is known.
const OBJECT: Shape = Shape::Object { file: None, command: None, is_marked: false };

impl Reading<'_> {
    /// What the keys so far amount to.
    fn kind(&self) -> Option<AsideKind> {
        self.outline.kind().or_else(|| (self.so_far)(&self.outline))
    }

    /// What the keys would amount to with one more.
    fn with(&mut self, key: &str, value: Shape) -> Option<AsideKind> {
        let is_new = self.outline.keys.len() < KEYS && !self.outline.keys.contains_key(key);
        if !is_new {
            return None;
        }
        self.outline.keys.insert(key.to_owned(), value);
        let kind = self.kind();
        self.outline.keys.remove(key);
        kind
    }
}

struct Top<'r, 't>(&'r mut Reading<'t>);

impl<'de> Visitor<'de> for Top<'_, '_> {
    type Value = ();

    fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        formatter.write_str("an object")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<(), A::Error> {
        while let Some(key) = map.next_key::<String>()? {
            let reading = &mut *self.0;
            reading.open = (reading.cut_short)(&reading.outline, &key);
            // A list or an object of a telling name settles it where it begins.
            let (list, object) = (reading.with(&key, Shape::List), reading.with(&key, OBJECT));
            let value =
                map.next_value_seed(Look { list, object, settled: &mut reading.settled })?;
            reading.open = None;
            reading.outline.add(key, value);
            reading.settled = reading.kind();
            if reading.settled.is_some() {
                return Err(A::Error::custom("settled"));
            }
        }
        Ok(())
    }
}

/// Reads what kind of value it is; nothing more where a list or an object settles all.
struct Look<'s> {
    list: Option<AsideKind>,
    object: Option<AsideKind>,
    settled: &'s mut Option<AsideKind>,
}

impl<'de> DeserializeSeed<'de> for Look<'_> {
    type Value = Shape;

    fn deserialize<D: Deserializer<'de>>(self, deserializer: D) -> Result<Shape, D::Error> {
        deserializer.deserialize_any(self)
    }
}

impl<'de> Visitor<'de> for Look<'_> {
    type Value = Shape;

    fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        formatter.write_str("any value")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Shape, A::Error> {
        if self.object.is_some() {
            *self.settled = self.object;
            return Err(A::Error::custom("settled"));
        }
        let (mut file, mut command, mut is_marked) = (None, None, false);
        while let Some(key) = map.next_key::<Key>()? {
            match key {
                Key::File => file = map.next_value::<Text>()?.0,
                Key::Command => command = map.next_value::<Text>()?.0,
                Key::Mark => {
                    is_marked = true;
                    map.next_value::<IgnoredAny>()?;
                }
                Key::Other => {
                    map.next_value::<IgnoredAny>()?;
                }
            }
        }
        Ok(Shape::Object { file, command, is_marked })
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<Shape, A::Error> {
        if self.list.is_some() {
            *self.settled = self.list;
            return Err(A::Error::custom("settled"));
        }
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
