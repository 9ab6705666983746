//! One documented object per answer, for programs.
//!
//! Most answers are written as they are; those that hold causes, reasons or doubts are written with these in
//! words, in the forms below.

pub mod compare;
pub mod coverage;
pub mod gate;
pub mod requests;
pub mod survey;
pub mod waste;
pub mod what_if;

use std::collections::BTreeMap;

use serde::Serialize;
use uvlet_record::{Record, sizes::Coding};

use crate::{name::is_hostile, notice::Notice};

/// Version of the outputs' JSON form.
const SCHEMA: u32 = 1;

#[derive(Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Envelope<'a, A> {
    uvlet: About<'a>,
    encoders: BTreeMap<Coding, Encoder<'a>>,
    notices: &'a [Notice],
    #[serde(flatten)]
    answer: &'a A,
}

#[derive(Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct About<'a> {
    schema: u32,
    version: &'a str,
    command: &'a str,
}

#[derive(Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Encoder<'a> {
    name: &'a str,
    level: u32,
    shares: &'static str,
    /// Files measured by their precompressed twin.
    precompressed: u64,
}

/// The JSON Schema (draft 2020-12) of an answer's object.
#[cfg(feature = "schema")]
#[must_use]
pub fn schema<A: schemars::JsonSchema + 'static>() -> String {
    plain_schema::<Envelope<'static, A>>()
}

/// The JSON Schema of a value that stands by itself.
#[cfg(feature = "schema")]
#[must_use]
pub fn plain_schema<A: schemars::JsonSchema>() -> String {
    let schema = schemars::schema_for!(A);
    let mut text = serde_json::to_string_pretty(&schema).unwrap_or_default();
    text.push('\n');
    text
}

/// JSON text in which characters that steer a terminal or hide what is written are spelt out, which
/// means the same (RFC 8259, section 7); so is a `#` behind another, by which commands to continuous
/// integration systems begin.
#[must_use]
pub fn spelt(json: &str) -> String {
    // Outside strings there are none of these but line feeds.
    let is_raw = |c: char| is_hostile(c) && !c.is_ascii();
    if !json.contains(is_raw) && !json.contains("##") {
        return json.to_owned();
    }
    let mut text = String::with_capacity(json.len() + 64);
    let mut before = '\0';
    for c in json.chars() {
        let is_second = c == '#' && before == '#';
        before = c;
        match is_raw(c) || c == '\u{7f}' || is_second {
            true => {
                let mut units = [0; 2];
                for unit in c.encode_utf16(&mut units) {
                    text.push_str(&format!("\\u{unit:04x}"));
                }
            }
            false => text.push(c),
        }
    }
    text
}

/// An answer as JSON, with the program that gave it, the encoders behind its sizes and the notices.
///
/// # Errors
/// None in practice: answers hold nothing that JSON cannot.
pub fn answer<A: Serialize>(
    command: &str,
    version: &str,
    record: &Record,
    notices: &[Notice],
    answer: &A,
) -> Result<String, serde_json::Error> {
    let encoders = record.encoders.iter().map(|(&coding, encoder)| {
        let precompressed = record.precompressed.get(coding).copied().unwrap_or(0);
        let (name, level) = (encoder.name.as_str(), encoder.level);
        (coding, Encoder { name, level, shares: record.shares(coding).name(), precompressed })
    });
    let envelope = Envelope {
        uvlet: About { schema: SCHEMA, version, command },
        encoders: encoders.collect(),
        notices,
        answer,
    };
    let mut text = spelt(&serde_json::to_string_pretty(&envelope)?);
    text.push('\n');
    Ok(text)
}
