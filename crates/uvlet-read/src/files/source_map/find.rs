//! Finds the source map of a file: by the file's own comment, beside it, or in another folder.

use std::path::{Path, PathBuf};

use base64::{Engine, engine::general_purpose::STANDARD};
use memchr::memmem;
use percent_encoding::percent_decode_str;
use uvlet_record::path;

use crate::{
    files::source_map::error::MapError,
    folder::{
        list::{Listed, Listing},
        text::Text,
        urls::folder_of,
    },
};

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

/// A map that was found.
pub struct Located {
    /// Its text.
    pub json: Vec<u8>,
    /// Where it is on disk; none where it stands in the file itself.
    pub disk: Option<PathBuf>,
    /// Where it stands, for messages.
    pub path: String,
    /// The folder that its sources are relative to.
    pub folder: String,
}

/// The map in a `data:` URL; `None` for another URL.
pub fn inline(url: &str) -> Option<Result<Vec<u8>, MapError>> {
    let data = url.strip_prefix("data:")?;
    let Some((head, body)) = data.split_once(',') else { return Some(Err(MapError::NoData)) };
    Some(match head.ends_with(";base64") {
        true => STANDARD.decode(body).map_err(MapError::from),
        false => Ok(percent_decode_str(body).collect()),
    })
}

/// Finds the map of a file.
///
/// # Errors
/// When there is one, and it cannot be read.
pub fn locate(
    file: &Listed,
    comment: Option<&Comment<'_>>,
    listing: &Listing,
    maps: Option<&Path>,
) -> Result<Option<Located>, MapError> {
    let folder = folder_of(&file.path);
    if let Some(json) = comment.and_then(|comment| inline(comment.url)) {
        let (path, folder) = (file.path.clone(), folder.to_owned());
        return Ok(Some(Located { json: json?, disk: None, path, folder }));
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
        let json = Text::of(map)?.into_bytes();
        let (disk, path) = (Some(map.disk.clone()), map.path.clone());
        return Ok(Some(Located { json, disk, folder: folder_of(&path).to_owned(), path }));
    }
    let Some(maps) = maps else { return Ok(None) };
    let by_comment = named.as_deref().map(|url| url.rsplit('/').next().unwrap_or(url).to_owned());
    let name = file.path.rsplit('/').next().unwrap_or(&file.path);
    let names = [Some(format!("{}.map", file.path)), by_comment, Some(format!("{name}.map"))];
    for name in names.into_iter().flatten() {
        let disk = maps.join(&name);
        if let Ok(metadata) = std::fs::metadata(&disk) {
            let listed = Listed { path: name, disk, bytes: metadata.len() };
            return Ok(Some(Located {
                json: Text::of(&listed)?.into_bytes(),
                disk: Some(listed.disk),
                path: listed.path,
                // The map was written beside its file, so its sources are relative to that.
                folder: folder.to_owned(),
            }));
        }
    }
    Ok(None)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Comment, comment};

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
}
