//! The source map of an emitted file: where it is, and whose bytes it says they are.
//!
//! A map belongs to a file by the file's own comment (ECMA-426, section "Linking generated code to
//! source maps"), else by `NAME.map` beside it, else by its name in another folder; never by the
//! map's `file` field, which some bundlers fill before the final name is known.

use std::{borrow::Cow, collections::HashSet, path::Path};

use base64::{Engine, engine::general_purpose::STANDARD};
use memchr::memmem;
use percent_encoding::percent_decode_str;
use uvlet_ledger::{
    sourcemap::SourceMap,
    walk::{Shape, Span, Statement, walk},
};
use uvlet_record::{Notice, path};

use crate::{
    folder::{Listed, Listing, Text},
    resolve::folder_of,
};

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
    /// The text itself, if texts are kept.
    pub text: Option<String>,
}

/// Where maps may be found, and what is taken from them.
pub struct MapSources<'a> {
    /// The folder's files.
    pub listing: &'a Listing,
    /// Another folder with maps.
    pub maps: Option<&'a Path>,
    /// Keep the sources' texts.
    pub texts: bool,
}

/// Whose bytes a file's are, by its map.
#[derive(Debug)]
pub struct Owned {
    /// Spans over the file's text.
    pub spans: Vec<Span>,
    /// The sources that the spans name.
    pub sources: Vec<Source>,
    /// The map's folder in the output folder.
    pub folder: String,
}

/// The closing comment of a generated file that names its map.
#[derive(Debug, PartialEq, Eq)]
pub struct Comment<'t> {
    /// First byte of the comment.
    pub start: usize,
    /// The URL in it.
    pub url: &'t str,
}

/// Finds the closing comment.
pub fn comment(text: &[u8]) -> Option<Comment<'_>> {
    const WORD: &[u8] = b"sourceMappingURL=";
    let at = memmem::rfind(text, WORD)?;
    let before = &text[..at];
    let start = before.strip_suffix(b"# ").or_else(|| before.strip_suffix(b"@ "))?;
    let block = start.ends_with(b"/*");
    if !block && !start.ends_with(b"//") {
        return None;
    }
    let rest = std::str::from_utf8(&text[at + WORD.len()..]).ok()?;
    let end = rest.find(|c: char| c.is_whitespace() || "\"'`\\".contains(c)).unwrap_or(rest.len());
    let (url, after) = rest.split_at(end);
    let (url, after) = match (block, url.strip_suffix("*/")) {
        (true, Some(url)) => (url, after),
        (true, None) => (url, after.trim_start().strip_prefix("*/")?),
        (false, _) => (url, after),
    };
    // Code after it would make it a comment in the middle, or a string that looks like one.
    (after.trim().is_empty() && !url.is_empty()).then_some(Comment { start: start.len() - 2, url })
}

/// What a file's map says; `None` without a map. A damaged one becomes a notice.
pub fn owned(
    file: &Listed,
    text: &[u8],
    statements: Vec<Statement>,
    maps: &MapSources<'_>,
    notices: &mut Vec<Notice>,
) -> Option<Owned> {
    let comment = comment(text);
    let shape = Shape { statements, comment: comment.as_ref().map(|comment| comment.start) };
    let located = match locate(file, comment.as_ref(), maps.listing, maps.maps) {
        Ok(Some(located)) => located,
        Ok(None) => {
            if let Some(comment) = comment {
                let message = format!(
                    "names the source map {}, which is not there: its {} B have no owner",
                    shortened(comment.url),
                    file.bytes
                );
                notices.push(Notice::new("map-missing", message, Some(&file.path)));
            }
            return None;
        }
        Err(reason) => {
            notices.push(damaged(&file.path, &reason, file));
            return None;
        }
    };
    match read(text, &located, &shape, maps.texts) {
        Ok(owned) => Some(owned),
        Err(reason) => {
            notices.push(damaged(&located.path, &reason, file));
            None
        }
    }
}

/// A name from outside in a sentence, which must not be flooded by it.
pub fn shortened(name: &str) -> String {
    const MOST: usize = 120;
    if name.chars().count() <= MOST {
        return name.to_owned();
    }
    format!("{}…", name.chars().take(MOST).collect::<String>())
}

fn damaged(place: &str, reason: &str, file: &Listed) -> Notice {
    let message = format!("{reason}: the {} B of {} have no owner", file.bytes, file.path);
    Notice::new("map-damaged", message, Some(place))
}

/// A map that was found.
struct Located {
    json: Json,
    /// Where it stands, for messages.
    path: String,
    folder: String,
}

enum Json {
    Beside(Text),
    Inline(Vec<u8>),
}

fn locate(
    file: &Listed,
    comment: Option<&Comment<'_>>,
    listing: &Listing,
    maps: Option<&Path>,
) -> Result<Option<Located>, String> {
    let folder = folder_of(&file.path);
    if let Some(data) = comment.and_then(|comment| comment.url.strip_prefix("data:")) {
        let (head, body) = data.split_once(',').ok_or("the inline source map has no data")?;
        let bytes = if head.ends_with(";base64") {
            STANDARD.decode(body).map_err(|error| format!("the inline source map: {error}"))?
        } else {
            percent_decode_str(body).collect()
        };
        let path = file.path.clone();
        return Ok(Some(Located { json: Json::Inline(bytes), path, folder: folder.to_owned() }));
    }
    let named = comment.map(|comment| {
        let url = comment.url.split(['?', '#']).next().unwrap_or_default();
        percent_decode_str(url).decode_utf8_lossy().into_owned()
    });
    let beside = named.as_deref().map(|url| match url.rsplit_once('/') {
        // A URL of another host or root: the file's name is what can be relied on.
        Some((_, name)) if url.contains("://") || url.starts_with('/') => {
            path::resolve(format!("{folder}/{name}").trim_start_matches('/'))
        }
        _ => path::resolve(format!("{folder}/{url}").trim_start_matches('/')),
    });
    let candidates = [beside, Some(format!("{}.map", file.path))];
    if let Some(map) = candidates.iter().flatten().find_map(|path| listing.aside_at(path)) {
        let text =
            Text::of(map).map_err(|error| format!("the source map cannot be read ({error})"))?;
        let folder = folder_of(&map.path).to_owned();
        return Ok(Some(Located { json: Json::Beside(text), path: map.path.clone(), folder }));
    }
    let Some(maps) = maps else { return Ok(None) };
    let by_comment = named.as_deref().map(|url| url.rsplit('/').next().unwrap_or(url).to_owned());
    let name = file.path.rsplit('/').next().unwrap_or(&file.path);
    let names = [Some(format!("{}.map", file.path)), by_comment, Some(format!("{name}.map"))];
    for name in names.into_iter().flatten() {
        let disk = maps.join(&name);
        if let Ok(metadata) = std::fs::metadata(&disk) {
            let listed = Listed { path: name, disk, bytes: metadata.len() };
            let text = Text::of(&listed)
                .map_err(|error| format!("the source map cannot be read ({error})"))?;
            return Ok(Some(Located {
                json: Json::Beside(text),
                path: listed.path,
                // The map was written beside its file, so its sources are relative to that.
                folder: folder.to_owned(),
            }));
        }
    }
    Ok(None)
}

/// Sources that a map may list: no build has a tenth of it, and each takes far more memory than the
/// two quotes that name it.
const MOST: usize = 1_000_000;

fn read(text: &[u8], located: &Located, shape: &Shape, texts: bool) -> Result<Owned, String> {
    let bytes: &[u8] = match &located.json {
        Json::Beside(text) => text,
        Json::Inline(bytes) => bytes,
    };
    let json = std::str::from_utf8(bytes)
        .map_err(|error| format!("the source map is not UTF-8 at byte {}", error.valid_up_to()))?;
    let map = SourceMap::parse(json).map_err(|error| error.to_string())?;
    if map.source_count() > MOST {
        return Err(format!("the source map lists more than {MOST} sources"));
    }
    let walked = walk(text, &map, shape).map_err(|error| error.to_string())?;
    let mut sources = Vec::with_capacity(map.source_count());
    for section in &map.sections {
        let root = section.source_root.as_deref().unwrap_or_default();
        let ignored: HashSet<usize> = section.ignored.iter().map(|&index| index as usize).collect();
        for (at, source) in section.sources.iter().enumerate() {
            let content = section.contents.get(at).copied().flatten();
            sources.push(Source {
                raw: source.as_deref().map(Cow::from).map(Cow::into_owned),
                root: root.to_owned(),
                ignored: ignored.contains(&at),
                bytes: content.and_then(|content| text_bytes(content.get())),
                text: content
                    .filter(|_| texts)
                    .and_then(|content| serde_json::from_str(content.get()).ok()),
            });
        }
    }
    Ok(Owned { spans: walked.spans, sources, folder: located.folder.clone() })
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

    use super::{Comment, comment, text_bytes};

    #[rstest]
    #[case("a()\n//# sourceMappingURL=a.js.map\n", Some((4, "a.js.map")))]
    #[case(".a{}/*# sourceMappingURL=a.css.map */", Some((4, "a.css.map")))]
    #[case(".a{}/*# sourceMappingURL=a.css.map*/\n", Some((4, "a.css.map")))]
    #[case("//@ sourceMappingURL=old.map", Some((0, "old.map")))]
    #[case("s=\"//# sourceMappingURL=a.map\"", None)]
    #[case("//# sourceMappingURL=a.map\nb()", None)]
    fn closing_comments(#[case] text: &str, #[case] expected: Option<(usize, &str)>) {
        let expected = expected.map(|(start, url)| Comment { start, url });
        assert_eq!(comment(text.as_bytes()), expected, "{text}");
    }

    #[rstest]
    #[case(r#""plain""#)]
    #[case(r#""a\n\"\\ \/ \t""#)]
    #[case(r#""é \u00e9 \u20ac \ud83d\ude00 😀""#)]
    fn text_sizes_agree_with_a_json_reader(#[case] json: &str) {
        let text: String = serde_json::from_str(json).unwrap();
        assert_eq!(text_bytes(json), Some(text.len() as u64), "{json}");
    }
}
