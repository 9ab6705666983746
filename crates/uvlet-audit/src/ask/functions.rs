//! The functions that recordings tell apart, by where they begin in the sources.

use std::collections::BTreeMap;

use uvlet_record::{FileId, Record, Recording, Texts};

use crate::{
    find::liveness::{follow::segment_at, sources::Sources},
    parts::{ranges::bytes_of, recorded_files::Files, spans::Spans},
};

/// Names of functions by where each begins and, the other way round, ends: outer ones first.
type InOrder = BTreeMap<(u64, u64), String>;

/// A function of a recorded script.
pub(crate) struct Function {
    pub(crate) name: String,
    /// Its bytes, without functions inside it.
    pub(crate) spans: Spans,
}

/// The functions that recordings tell apart, by where they begin in the sources.
pub(crate) fn functions(
    record: &Record,
    recordings: &[Recording],
    texts: &dyn Texts,
) -> Vec<Function> {
    let mut by_file: BTreeMap<FileId, InOrder> = BTreeMap::new();
    let mut files = Files::new(record, texts);
    for seen in recordings.iter().flat_map(|recording| &recording.seen) {
        let Ok(file) = files.matching(seen) else { continue };
        let known = by_file.entry(file).or_default();
        for (start, end, name) in &seen.functions {
            known.insert((*start, u64::MAX - end), name.clone());
        }
    }
    let sources = Sources::new(texts);
    let mut found: Vec<Function> = Vec::new();
    for (file, functions) in by_file {
        let text = files.text(file);
        let origins = texts.origins(file).unwrap_or_default();
        let ends = functions.keys().flat_map(|(start, end)| [*start, u64::MAX - end]);
        let bytes = bytes_of(text, ends.collect());
        let at = |unit: u64| bytes.get(&unit).copied().unwrap_or(text.len()) as u64;
        // In the order of the text, outer ones first: each ends what the one around it has so far.
        let mut open: Vec<(u64, usize)> = Vec::new();
        let mut cursor = 0;
        let close = |open: &mut Vec<(u64, usize)>,
                     upto: u64,
                     cursor: &mut u64,
                     found: &mut Vec<Function>| {
            while let Some(&(end, function)) = open.last().filter(|(end, _)| *end <= upto) {
                found[function].spans.add(file, *cursor..end);
                *cursor = end.max(*cursor);
                open.pop();
            }
        };
        for ((start, end), name) in functions {
            let (start, end) = (at(start), at(u64::MAX - end));
            close(&mut open, start, &mut cursor, &mut found);
            if let Some(&(_, around)) = open.last() {
                found[around].spans.add(file, cursor..start);
            }
            cursor = start;
            let place = segment_at(&origins, start).and_then(|segment| segment.origin);
            let declared = place.and_then(|place| sources.declaration(place));
            let name = declared.map_or(name, |declared| declared.name);
            let name = match (place, name.as_str(), start) {
                (_, "", 0) => format!("(top level) of {}", record.file(file).path),
                (Some(place), name, _) => {
                    let name = if name.is_empty() { "(nameless)" } else { name };
                    format!("{}:{} {name}", record.module(place.module).path, place.line + 1)
                }
                (None, name, _) => {
                    let name = if name.is_empty() { "(nameless)" } else { name };
                    format!("{} byte {start} {name}", record.file(file).path)
                }
            };
            open.push((end, found.len()));
            found.push(Function { name, spans: Spans::default() });
        }
        close(&mut open, u64::MAX, &mut cursor, &mut found);
    }
    found.into_iter().map(|one| Function { spans: one.spans.joined(), ..one }).collect()
}
