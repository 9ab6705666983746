//! Recordings of a browser, tied to the files of a build: which bytes ran at load, later, never.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{FileId, Record, Recording, Texts};

use crate::parts::{
    ranges::{bytes_of, joined, that_ran, without},
    recorded_files::{Files, Unknown},
    spans::Spans,
};

/// A script of a recording that is none of the build's.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Unmatched {
    /// Where it was loaded from.
    pub url: String,
    /// Why.
    pub reason: Unknown,
}

/// What ran in some recordings.
#[derive(Debug, Default)]
pub struct Ran {
    /// Stretches that the first recording saw run.
    pub load: Spans,
    /// Stretches that only another one saw run.
    pub later: Spans,
    /// Stretches that none saw run.
    pub never: Spans,
    /// TiedRecordings files, with the recordings that they are in, by place.
    pub files: BTreeMap<FileId, BTreeSet<usize>>,
    /// Scripts of recordings that are no files of the build.
    pub unmatched: BTreeSet<Unmatched>,
}

/// Recordings with what ran in them, tied to a build once for all that is asked of them.
#[derive(Debug)]
pub struct TiedRecordings<'r> {
    /// The recordings; the first is that of the load.
    pub recordings: &'r [Recording],
    /// What ran in them.
    pub ran: Ran,
}

impl<'r> TiedRecordings<'r> {
    /// Ties recordings to the files of a build.
    #[must_use]
    pub fn new(record: &Record, recordings: &'r [Recording], texts: &dyn Texts) -> Self {
        Self { recordings, ran: ran(record, recordings, texts) }
    }
}

/// Ties recordings to the files of a build.
#[must_use]
pub fn ran(record: &Record, recordings: &[Recording], texts: &dyn Texts) -> Ran {
    let mut ran = Ran::default();
    let mut files = Files::new(record, texts);
    // Per file: in which recordings it is, and which of its UTF-16 code units ran in them. One script
    // that several frames run is one.
    let mut found: BTreeMap<FileId, BTreeMap<usize, Vec<Range<u64>>>> = BTreeMap::new();
    for (at, recording) in recordings.iter().enumerate() {
        for seen in &recording.seen {
            match files.matching(seen) {
                Err(unknown) => {
                    ran.unmatched.insert(Unmatched { url: seen.url.clone(), reason: unknown });
                }
                Ok(file) => {
                    let units = that_ran(&seen.ranges);
                    found.entry(file).or_default().entry(at).or_default().extend(units);
                }
            }
        }
    }
    for (file, by_recording) in found {
        let text = files.text(file);
        let ends = by_recording.values().flatten().flat_map(|range| [range.start, range.end]);
        let bytes = bytes_of(text, ends.collect());
        let in_bytes = |units: &Vec<Range<u64>>| -> Vec<Range<u64>> {
            let byte = |unit| bytes.get(unit).copied().unwrap_or(text.len()) as u64;
            units.iter().map(|range| byte(&range.start)..byte(&range.end)).collect()
        };
        let all: Vec<Range<u64>> = std::iter::once(0..text.len() as u64).collect();
        let load = joined(by_recording.get(&0).map(in_bytes).unwrap_or_default());
        let others = joined(by_recording.values().flat_map(in_bytes).collect());
        ran.files.insert(file, by_recording.into_keys().collect());
        let later = without(&others, &load);
        let never = without(&all, &others);
        let kinds = [(&mut ran.load, load), (&mut ran.later, later), (&mut ran.never, never)];
        for (spans, ranges) in kinds {
            ranges.into_iter().for_each(|range| spans.add(file, range));
        }
    }
    ran
}
