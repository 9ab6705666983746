//! Which file of the build a recorded script is.

use std::collections::HashMap;

use uvlet_record::{FileId, Kind, Record, Seen, Texts};

/// Why a recorded script is no file of the build.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Unknown {
    /// It stands inside a page.
    InPage,
    /// No file is called so.
    NoName,
    /// The build's texts are not at hand.
    NoTexts,
    /// The file that is called so has another text.
    Other,
}

/// A file's text, with its length in UTF-16 code units.
struct Text {
    text: String,
    units: u64,
}

/// The scripts and styles of a build, by the last part of their paths.
pub(crate) struct Files<'r> {
    record: &'r Record,
    texts: &'r dyn Texts,
    by_name: HashMap<&'r str, Vec<FileId>>,
    read: HashMap<FileId, Option<Text>>,
}

impl<'r> Files<'r> {
    pub fn new(record: &'r Record, texts: &'r dyn Texts) -> Self {
        let mut by_name: HashMap<&str, Vec<FileId>> = HashMap::new();
        for (at, file) in record.files.iter().enumerate() {
            if matches!(file.kind, Kind::Script | Kind::Style) {
                by_name.entry(last_part(&file.path)).or_default().push(FileId::new(at));
            }
        }
        Self { record, texts, by_name, read: HashMap::new() }
    }

    /// The file that a script is: of its text, else of the end of its address and its length.
    pub fn matching(&mut self, seen: &Seen) -> Result<FileId, Unknown> {
        let path = seen.url.split(['?', '#']).next().unwrap_or_default();
        let path = path
            .split_once("://")
            .map_or(path, |(_, rest)| rest.split_once('/').map_or("", |(_, path)| path));
        if path.is_empty() || path.ends_with(".html") {
            return Err(Unknown::InPage);
        }
        let Some(named) = self.by_name.get(last_part(path)) else { return Err(Unknown::NoName) };
        let mut named = named.clone();
        // The longest end of the address that is a path of the build.
        named.sort_by_cached_key(|id| {
            let known = self.record.file(*id).path.rsplit('/').zip(path.rsplit('/'));
            std::cmp::Reverse(known.take_while(|(a, b)| a == b).count())
        });
        for id in named {
            let texts = self.texts;
            let read = self.read.entry(id).or_insert_with(|| {
                let text = String::from_utf8(texts.emitted(id)?.into_owned()).ok()?;
                let units = text.encode_utf16().count() as u64;
                Some(Text { text, units })
            });
            let Some(read) = read else { return Err(Unknown::NoTexts) };
            let is_it = match (&seen.text, seen.length) {
                (Some(theirs), _) => *theirs == read.text,
                (None, Some(length)) => read.units == length,
                (None, None) => false,
            };
            if is_it {
                return Ok(id);
            }
        }
        Err(Unknown::Other)
    }

    /// The text of a file that was found.
    pub fn text(&self, id: FileId) -> &str {
        self.read.get(&id).and_then(Option::as_ref).map_or("", |read| &read.text)
    }
}

fn last_part(path: &str) -> &str {
    path.rsplit('/').next().unwrap_or(path)
}
