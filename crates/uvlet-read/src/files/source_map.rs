//! The source map of an emitted file: where it is, and whose bytes it says they are.
//!
//! A map belongs to a file by the file's own comment (ECMA-426, section "Linking generated code to
//! source maps"), else by `NAME.map` beside it, else by its name in another folder; never by the
//! map's `file` field, which some bundlers fill before the final name is known.

pub(crate) mod error;
pub(crate) mod find;

use std::{
    borrow::Cow,
    collections::HashSet,
    path::{Path, PathBuf},
};

use find::{Located, locate};
use uvlet_ledger::{
    sourcemap::SourceMap,
    walk::{Shape, Span, Statement, walk},
};
use uvlet_record::{Notice, Remark};

use crate::{
    files::source_map::error::{MOST, MapError},
    folder::list::{Listed, Listing},
};

pub use find::comment;

/// A source as a map names it.
#[derive(Debug, Default)]
pub struct Source {
    /// Its name, with the map's `sourceRoot` apart; `None` where the map has none.
    pub raw: Option<String>,
    /// The map's `sourceRoot`.
    pub root: String,
    /// Marked as third-party code.
    pub ignored: bool,
    /// UTF-8 bytes of its text, where the map holds it.
    pub bytes: Option<u64>,
}

/// Where maps may be found.
pub struct MapSources<'a> {
    /// The folder's files.
    pub listing: &'a Listing,
    /// Another folder with maps.
    pub maps: Option<&'a Path>,
}

/// Whose bytes a file's are, by its map.
#[derive(Debug)]
pub struct MapSpans {
    /// Spans over the file's text.
    pub spans: Vec<Span>,
    /// The sources that the spans name.
    pub sources: Vec<Source>,
    /// The map's folder in the output folder.
    pub folder: String,
    /// Where the map is on disk; none where it stands in the file itself.
    pub disk: Option<PathBuf>,
}

impl MapSpans {
    /// A file that is one source, all of it.
    pub fn whole(source: &str) -> Self {
        let source = Source { raw: Some(source.to_owned()), ..Source::default() };
        let span = Span { start: 0, source: Some(0) };
        Self { spans: vec![span], sources: vec![source], folder: String::new(), disk: None }
    }
}

/// What a file's map says; `None` without a map. A damaged one becomes a notice.
pub fn spans(
    file: &Listed,
    text: &[u8],
    statements: &[uvlet_script::Statement],
    maps: &MapSources<'_>,
    notices: &mut Vec<Notice>,
) -> Option<MapSpans> {
    let comment = comment(text);
    let statement =
        |s: &uvlet_script::Statement| Statement { range: s.range.clone(), list: s.is_list };
    let shape = Shape {
        statements: statements.iter().map(statement).collect(),
        comment: comment.as_ref().map(|comment| comment.start),
    };
    let damaged = |place: &str, error: &MapError| {
        let (file_path, bytes) = (file.path.clone(), file.bytes);
        let reason = error.to_string();
        Notice::at(place, Remark::MapDamaged { file: file_path, reason, bytes })
    };
    let located = match locate(file, comment.as_ref(), maps.listing, maps.maps) {
        Ok(Some(located)) => located,
        Ok(None) => {
            notices.extend(comment.map(|comment| {
                let map = shortened(comment.url);
                let remark = Remark::MapMissing { map, bytes: file.bytes, is_described: false };
                Notice::at(&file.path, remark)
            }));
            return None;
        }
        Err(error) => {
            notices.push(damaged(&file.path, &error));
            return None;
        }
    };
    let read = read(text, &located, &shape);
    read.map_err(|error| notices.push(damaged(&located.path, &error))).ok()
}

/// A name from outside in a sentence, which must not be flooded by it.
pub fn shortened(name: &str) -> String {
    const MOST: usize = 120;
    if name.chars().count() <= MOST {
        return name.to_owned();
    }
    format!("{}…", name.chars().take(MOST).collect::<String>())
}

fn read(text: &[u8], located: &Located, shape: &Shape) -> Result<MapSpans, MapError> {
    let json = std::str::from_utf8(&located.json)
        .map_err(|error| MapError::NotUtf8(error.valid_up_to()))?;
    let map = SourceMap::parse(json)?;
    if map.source_count() > MOST {
        return Err(MapError::TooMany);
    }
    let walked = walk(text, &map, shape)?;
    let mut sources = Vec::with_capacity(map.source_count());
    for section in &map.sections {
        let root = section.source_root.as_deref().unwrap_or_default();
        let ignored: HashSet<usize> = section.ignored.iter().map(|&index| index as usize).collect();
        for (at, source) in section.sources.iter().enumerate() {
            let content = section.contents.get(at).copied().flatten();
            let bytes = content.and_then(|content| text_bytes(content.get()));
            sources.push(Source {
                raw: source.as_deref().map(Cow::from).map(Cow::into_owned),
                root: root.to_owned(),
                ignored: ignored.contains(&at),
                bytes,
            });
        }
    }
    let (folder, disk) = (located.folder.clone(), located.disk.clone());
    Ok(MapSpans { spans: walked.spans, sources, folder, disk })
}

/// UTF-8 bytes that a JSON string stands for, without unescaping it; `None` for other JSON.
fn text_bytes(json: &str) -> Option<u64> {
    let body = json.trim().strip_prefix('"')?.strip_suffix('"')?.as_bytes();
    let mut bytes = body.len() as u64;
    let mut rest = body;
    let mut high = false;
    while let Some(at) = memchr::memchr(b'\\', rest) {
        high &= at == 0;
        let escape = rest.get(at + 1)?;
        if *escape != b'u' {
            bytes -= 1;
            high = false;
            rest = &rest[at + 2..];
            continue;
        }
        let digits = std::str::from_utf8(rest.get(at + 2..at + 6)?).ok()?;
        let unit = u32::from_str_radix(digits, 16).ok()?;
        bytes = bytes
            + match unit {
                0..0x80 => 1,
                0x80..0x800 => 2,
                // The second half of a pair adds one byte to the three charged for the first.
                0xDC00..0xE000 if high => 1,
                _ => 3,
            }
            - 6;
        high = (0xD800..0xDC00).contains(&unit);
        rest = &rest[at + 6..];
    }
    Some(bytes)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::text_bytes;

    #[rstest]
    #[case(r#""plain""#)]
    #[case(r#""a\n\"\\ \/ \t""#)]
    #[case(r#""é \u00e9 \u20ac \ud83d\ude00 😀""#)]
    fn text_sizes_agree_with_a_json_reader(#[case] json: &str) {
        let text: String = serde_json::from_str(json).unwrap();
        assert_eq!(text_bytes(json), Some(text.len() as u64), "{json}");
    }
}
