//! What a browser recorded of code that ran: JavaScript coverage as the DevTools protocol gives it
//! (`Profiler.takePreciseCoverage`, and the files that V8 writes to a folder), and the array of
//! `{url, ranges, text}` that browsers export; rule usage of styles (`CSS.stopRuleUsageTracking`), beside the
//! sheets that `CSS.styleSheetAdded` told of.

use std::{collections::HashMap, fs, io, path::Path};

use serde::Deserialize;
use uvlet_record::{Recording, Seen, fault};

use crate::folder::text::Unfit;

/// Bytes of a recording that are read.
const LARGEST: u64 = 1 << 30;

/// Why a recording cannot be read.
#[derive(Debug, thiserror::Error)]
pub enum RecordingError {
    /// The file cannot be read.
    #[error("cannot be read: {}", fault::reason(.0))]
    Io(#[from] io::Error),
    /// It is no recording.
    #[error(
        "is no recording of a browser: {message} at line {line} column {column}; it is JSON with `result`, with `ruleUsage` and `styleSheets`, or an array of url, ranges and text"
    )]
    Form {
        /// What the JSON reader says.
        message: String,
        /// Line, from 1.
        line: usize,
        /// Column, from 1.
        column: usize,
    },
}

#[derive(Deserialize)]
#[serde(untagged)]
enum Form {
    /// The protocol's answer, or a file of V8.
    Protocol { result: Vec<ProtocolScript> },
    /// The protocol's answer for styles, with the sheets that it names.
    #[serde(rename_all = "camelCase")]
    Styles { rule_usage: Vec<Rule>, style_sheets: Vec<Sheet> },
    /// What browsers export.
    Export(Vec<Export>),
}

/// A rule of a style sheet.
#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Rule {
    style_sheet_id: String,
    start_offset: u64,
    end_offset: u64,
    used: bool,
}

/// A style sheet, as `CSS.styleSheetAdded` tells of it.
#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Sheet {
    style_sheet_id: String,
    #[serde(rename = "sourceURL")]
    source_url: String,
    #[serde(default)]
    length: Option<u64>,
}

#[derive(Deserialize)]
#[serde(untagged)]
enum Export {
    Ranges { url: String, ranges: Vec<ExportRange>, text: String },
    Protocol(ProtocolScript),
}

#[derive(Deserialize)]
struct ExportRange {
    start: u64,
    end: u64,
}

#[derive(Deserialize)]
struct ProtocolScript {
    url: String,
    #[serde(default)]
    source: Option<String>,
    functions: Vec<Function>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Function {
    #[serde(default)]
    function_name: String,
    ranges: Vec<Range>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Range {
    start_offset: u64,
    end_offset: u64,
    count: u64,
}

/// Reads a recording.
///
/// # Errors
/// When the file cannot be read, or is none.
pub fn read(path: &Path, label: &str) -> Result<Recording, RecordingError> {
    let metadata = fs::metadata(path)?;
    if !metadata.is_file() || metadata.len() > LARGEST {
        return Err(io::Error::other(Unfit::NotPlain).into());
    }
    let text = fs::read(path)?;
    let form: Form = serde_json::from_slice(&text).map_err(|error| {
        // What an untagged form says of itself tells nothing; where the JSON ends does.
        let wrong = serde_json::from_slice::<serde_json::Value>(&text).err();
        let error = wrong.unwrap_or(error);
        let full = error.to_string();
        let message = full.rsplit_once(" at line ").map_or(full.as_str(), |(text, _)| text);
        RecordingError::Form {
            message: message.to_owned(),
            line: error.line(),
            column: error.column(),
        }
    })?;
    let seen = match form {
        Form::Protocol { result } => result.into_iter().map(of_protocol).collect(),
        Form::Styles { rule_usage, style_sheets } => {
            let mut rules: HashMap<&str, Vec<&Rule>> = HashMap::new();
            for rule in rule_usage.iter().filter(|rule| rule.used) {
                rules.entry(&rule.style_sheet_id).or_default().push(rule);
            }
            let of = |sheet: Sheet| {
                let used = rules.get(sheet.style_sheet_id.as_str());
                let used = used.map_or(&[][..], Vec::as_slice);
                of_sheet(sheet, used)
            };
            style_sheets.into_iter().map(of).collect()
        }
        Form::Export(list) => list
            .into_iter()
            .map(|one| match one {
                Export::Protocol(script) => of_protocol(script),
                Export::Ranges { url, ranges, text } => {
                    let length = text.encode_utf16().count() as u64;
                    let mut all = vec![(0, length, false)];
                    all.extend(ranges.into_iter().map(|range| (range.start, range.end, true)));
                    Seen {
                        url,
                        text: Some(text),
                        length: Some(length),
                        ranges: all,
                        functions: Vec::new(),
                    }
                }
            })
            .collect(),
    };
    Ok(Recording { label: label.to_owned(), seen })
}

/// Functions stand in no order; the innermost range of all says whether a byte ran.
fn of_protocol(script: ProtocolScript) -> Seen {
    let mut ranges: Vec<(u64, u64, bool)> = script
        .functions
        .iter()
        .flat_map(|function| &function.ranges)
        .map(|range| (range.start_offset, range.end_offset, range.count > 0))
        .collect();
    ranges.sort_by(|a, b| a.0.cmp(&b.0).then(b.1.cmp(&a.1)));
    let whole = ranges.iter().filter(|(start, ..)| *start == 0).map(|(_, end, _)| *end).max();
    let text = script.source;
    let length = text.as_ref().map(|text| text.encode_utf16().count() as u64).or(whole);
    let functions = script.functions.into_iter().filter_map(|function| {
        let whole = function.ranges.first()?;
        Some((whole.start_offset, whole.end_offset, function.function_name))
    });
    Seen { url: script.url, text, length, ranges, functions: functions.collect() }
}

/// Rules that were used ran, and the rest of a sheet did not.
fn of_sheet(sheet: Sheet, used: &[&Rule]) -> Seen {
    let used = used.iter().map(|rule| (rule.start_offset, rule.end_offset, true));
    let mut ranges = vec![(0, sheet.length.unwrap_or(u64::MAX), false)];
    ranges.extend(used);
    let functions = Vec::new();
    Seen { url: sheet.source_url, text: None, length: sheet.length, ranges, functions }
}
