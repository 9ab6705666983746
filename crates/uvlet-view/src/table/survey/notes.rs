//! What is said of each file beside its name.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_audit::ask::survey::{EntryRow, Survey};
use uvlet_record::{File, Kind, Record, sizes::Measure};

use crate::name::plain;

/// Columns that a file's name needs to be told from others.
pub(super) const READABLE: usize = 20;

/// What is said of each file beside its name.
pub(super) struct Notes<'a> {
    pub(super) files: BTreeMap<&'a str, &'a File>,
    /// Of files whose name says nothing: what they hold.
    pub(super) holds: BTreeMap<&'a str, String>,
}

impl<'a> Notes<'a> {
    pub(super) fn of(survey: &'a Survey, record: &'a Record) -> Self {
        let files = record.files.iter().map(|file| (file.path.as_str(), file)).collect();
        let named = survey.chunks.iter().filter_map(|chunk| {
            let (holds, file) = (chunk.holds.as_ref()?, chunk.files.first()?);
            Some((file.as_str(), mostly(&holds.heaviest, holds.more)))
        });
        Self { files, holds: named.collect() }
    }

    /// The scripts and styles that an entry loads at startup.
    pub(super) fn code<'e>(&self, entry: &'e EntryRow) -> BTreeSet<&'e str> {
        let is_code = |path: &&str| {
            let kind = self.files.get(path).map(|file| file.kind);
            matches!(kind, Some(Kind::Script | Kind::Style))
        };
        entry.startup.files.iter().map(String::as_str).filter(is_code).collect()
    }

    pub(super) fn size(&self, path: &str, measure: Measure) -> u64 {
        let Some(file) = self.files.get(path) else { return 0 };
        match measure {
            Measure::Emitted => file.emitted,
            Measure::Coded(coding) => file.encoded.get(coding).copied().unwrap_or(0),
        }
    }
}

/// `mostly burgee-plot, 5 more`.
pub(crate) fn mostly(heaviest: &str, others: usize) -> String {
    let more = if others > 0 { format!(", {others} more") } else { String::new() };
    format!("mostly {}{more}", plain(heaviest))
}
