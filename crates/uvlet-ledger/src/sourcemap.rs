//! Reading a source map (ECMA-426) without copying it.
//!
//! Everything borrows from the map's text: `mappings` is walked where it stands, and the contents
//! of the sources stay raw JSON until a question needs them, since they are most of a map's bytes.

use std::borrow::Cow;

use serde::Deserialize;
use serde_json::value::RawValue;

/// A source map, plain or indexed: a plain map is one section at the start of the text.
#[derive(Debug)]
pub struct SourceMap<'a> {
    /// The parts, in the order of the generated text.
    pub sections: Vec<Section<'a>>,
}

/// A part of an indexed map, with where it begins in the generated text.
#[derive(Debug)]
pub struct Section<'a> {
    /// Generated line the section begins on, from 0.
    pub line: u32,
    /// Generated column (UTF-16 code units) the section begins at, from 0.
    pub column: u32,
    /// Prefix of every source's name.
    pub source_root: Option<Cow<'a, str>>,
    /// Names of the sources as they are written; `None` for a source that the map leaves unnamed.
    pub sources: Vec<Option<Cow<'a, str>>>,
    /// Raw JSON of each source's text, as far as the map holds it.
    pub contents: Vec<Option<&'a RawValue>>,
    /// Indices of the sources that are third-party code (`ignoreList`).
    pub ignored: Vec<u32>,
    /// The encoded mappings.
    pub mappings: Cow<'a, str>,
}

/// Why a text is no source map.
#[derive(Debug, thiserror::Error)]
pub enum SourceMapError {
    /// The text is not JSON, or not of a source map's form.
    #[error("not a source map: {message} at line {line} column {column}")]
    Form {
        /// What the JSON reader says.
        message: String,
        /// Line in the map, from 1.
        line: usize,
        /// Column in the map, from 1.
        column: usize,
    },
    /// No version, or one other than 3.
    #[error("not a source map: {}", .0.map_or("it has no version".to_owned(), |v| format!("its version is {v}, not 3")))]
    Version(Option<i64>),
    /// A plain map, or a section, without mappings.
    #[error("not a source map: it has no mappings")]
    NoMappings,
    /// A section that names its map by URL, which the standard has dropped.
    #[error("section {0} of the map is a link to another map, which is not supported")]
    Linked(usize),
}

impl<'a> SourceMap<'a> {
    /// Reads the text of a map. A leading `)]}'` line, which servers put before JSON, is skipped.
    ///
    /// # Errors
    /// When the text is not JSON of a source map's form, of another version, or has linked sections.
    pub fn parse(text: &'a str) -> Result<Self, SourceMapError> {
        let body = match text.strip_prefix(")]}'") {
            Some(rest) => rest.split_once('\n').map_or("", |(_, body)| body),
            None => text,
        };
        let raw: RawMap<'a> = serde_json::from_str(body).map_err(|error| {
            let full = error.to_string();
            let message = full.rsplit_once(" at line ").map_or(full.as_str(), |(text, _)| text);
            SourceMapError::Form {
                message: message.to_owned(),
                line: error.line(),
                column: error.column(),
            }
        })?;
        match raw.version {
            Some(3) => {}
            other => return Err(SourceMapError::Version(other)),
        }
        let Some(parts) = raw.sections else {
            return Ok(Self { sections: vec![raw.plain(0, 0)?] });
        };
        let mut sections = Vec::with_capacity(parts.len());
        for (at, part) in parts.into_iter().enumerate() {
            let map = part.map.ok_or(SourceMapError::Linked(at))?;
            sections.push(map.plain(part.offset.line, part.offset.column)?);
        }
        Ok(Self { sections })
    }

    /// Number of sources over all sections: spans name a source by its place in this sequence.
    #[must_use]
    pub fn source_count(&self) -> usize {
        self.sections.iter().map(|section| section.sources.len()).sum()
    }
}

/// A map as it is written. `sections` and the fields of a plain map exclude each other.
#[derive(Deserialize)]
struct RawMap<'a> {
    version: Option<i64>,
    #[serde(borrow, default)]
    sections: Option<Vec<RawSection<'a>>>,
    #[serde(borrow, rename = "sourceRoot", default)]
    source_root: Option<Text<'a>>,
    #[serde(borrow, default)]
    sources: Vec<Option<Text<'a>>>,
    #[serde(borrow, rename = "sourcesContent", default)]
    contents: Option<Vec<Option<&'a RawValue>>>,
    #[serde(rename = "ignoreList", default)]
    ignored: Option<Vec<u32>>,
    #[serde(rename = "x_google_ignoreList", default)]
    ignored_before: Option<Vec<u32>>,
    #[serde(borrow, default)]
    mappings: Option<Text<'a>>,
}

#[derive(Deserialize)]
struct RawSection<'a> {
    offset: Offset,
    #[serde(borrow)]
    map: Option<Box<RawMap<'a>>>,
}

#[derive(Deserialize)]
struct Offset {
    line: u32,
    column: u32,
}

/// serde borrows a `Cow` only where it stands by itself, not inside a list.
#[derive(Deserialize)]
struct Text<'a>(#[serde(borrow)] Cow<'a, str>);

impl<'a> RawMap<'a> {
    fn plain(self, line: u32, column: u32) -> Result<Section<'a>, SourceMapError> {
        Ok(Section {
            line,
            column,
            source_root: self.source_root.map(|text| text.0),
            sources: self.sources.into_iter().map(|source| source.map(|text| text.0)).collect(),
            contents: self.contents.unwrap_or_default(),
            ignored: self.ignored.or(self.ignored_before).unwrap_or_default(),
            mappings: self.mappings.ok_or(SourceMapError::NoMappings)?.0,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::{SourceMap, SourceMapError};

    #[test]
    fn indexed_maps_keep_their_offsets_and_borrow_their_text() {
        let text = r#"{"version":3,"sections":[
            {"offset":{"line":0,"column":0},"map":{"version":3,"sources":["a.js",null],"mappings":"AAAA"}},
            {"offset":{"line":2,"column":7},"map":{"version":3,"sources":["b.js"],"mappings":"",
             "sourcesContent":["x\u0041"],"x_google_ignoreList":[0]}}]}"#;
        let map = SourceMap::parse(text).unwrap();
        assert_eq!(map.source_count(), 3);
        let second = &map.sections[1];
        assert_eq!((second.line, second.column, second.ignored.as_slice()), (2, 7, &[0][..]));
        assert_eq!(second.contents[0].unwrap().get(), r#""x\u0041""#);
        assert!(matches!(second.sources[0], Some(std::borrow::Cow::Borrowed("b.js"))));
    }

    #[test]
    fn says_where_a_map_is_cut_short() {
        let error = SourceMap::parse("{\"version\":3,\n\"sources\":[\"a").unwrap_err();
        assert!(matches!(error, SourceMapError::Form { line: 2, .. }), "{error}");
        assert!(matches!(SourceMap::parse("{}"), Err(SourceMapError::Version(None))));
        assert!(matches!(
            SourceMap::parse(r#"{"version":3,"sources":[]}"#),
            Err(SourceMapError::NoMappings)
        ));
        assert!(SourceMap::parse(")]}'\n{\"version\":3,\"sources\":[],\"mappings\":\"\"}").is_ok());
    }
}
