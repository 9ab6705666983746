//! Two builds side by side: what moved, because of what, and what a visitor who was here before must fetch
//! again.
//!
//! Rows are causes, and add up to the difference of the totals exactly, in every measure.

pub mod causes;
pub mod chunks;
pub mod entries;
mod matches;
pub mod mover;
pub mod rows;
pub mod sides;

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{
    Bundler, FileId, Mode,
    sizes::{Measure, Sizes},
};

use crate::{
    ask::{
        compare::{
            chunks::{ChunkChange, ChunkRow},
            entries::{EntryRow, Loads, entries},
            mover::Mover,
            rows::{ModuleRow, Row},
            sides::{CompareError, Half, OwnersKnown, change, check},
        },
        survey::{self, Moment},
    },
    find::{
        about::About,
        finding::Finding,
        kind::Kind,
        waste::{Aids, Wanted, Waste, waste},
    },
    lens::Lens,
};

/// The answer.
#[derive(Debug)]
pub struct Comparison {
    /// The earlier build.
    pub before: Side,
    /// The later build.
    pub after: Side,
    /// By the change of their startup, the most first.
    pub entries: Vec<EntryRow>,
    /// The package, or what is none, that tells most of the first entry's change, with its own.
    pub moved_most: Option<Mover>,
    /// Hundredths of the script bytes of either build with a known owner, where these shares differ so much
    /// that rows tell what is known rather than what changed.
    pub owners_known: Option<OwnersKnown>,
    /// Kinds of findings that are not compared, as one of the builds could not judge them.
    pub not_compared: Vec<Kind>,
    /// Packages, and what is none, that changed; by their change, the most first.
    pub packages: Vec<Row>,
    /// Modules that changed; by their change, the most first.
    pub modules: Vec<ModuleRow>,
    /// Chunks, those that changed first.
    pub chunks: Vec<ChunkRow>,
    /// What need not be there and was not there before, is no longer, or weighs otherwise.
    pub waste: Vec<WasteRow>,
    /// What is asked of other hosts, whose bytes are in no row, and was not, or no longer is.
    pub elsewhere: Vec<ElsewhereChange>,
}

/// A request of another host that one of the builds makes.
#[derive(Clone, Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ElsewhereChange {
    /// The URL as written.
    pub url: String,
    /// `new` or `gone`.
    pub change: ChunkChange,
    /// The entries that ask.
    pub entries: Vec<String>,
    /// Whether it is asked for before anybody does anything.
    pub when: Moment,
}

/// Share of the bytes, in thousandths of a percent, that a kind must have judged to be compared.
const SEEN: u64 = 50_000;

/// One of the builds.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Side {
    /// Its name.
    pub label: String,
    /// Who bundled.
    pub bundler: Option<Bundler>,
    /// Production or development.
    pub mode: Mode,
    /// All that counts, or all of it that was asked for.
    pub sizes: Sizes,
    /// Number of files.
    pub file_count: usize,
}

/// A finding that is not as it was.
#[derive(Debug)]
pub struct WasteRow {
    /// Its id.
    pub id: String,
    /// What it is about.
    pub about: About,
    /// What could go, as it was; none if it is new.
    pub before: Option<Sizes>,
    /// What could go, as it is; none if it is gone.
    pub after: Option<Sizes>,
}

/// Compares two builds in some measures, the first of which orders rows.
///
/// # Errors
/// When their sizes cannot be subtracted.
pub fn compare(
    before: &Half<'_>,
    after: &Half<'_>,
    languages: &[String],
    measures: &[Measure],
) -> Result<Comparison, CompareError> {
    check(before.lens.record, after.lens.record, measures)?;
    let measure = measures.first().copied().unwrap_or(Measure::Emitted);
    let owners_known = OwnersKnown::of(before.lens, after.lens);
    let (entries, moved_most) = by_entry(before.lens, after.lens, owners_known, measure);
    let (waste, not_compared) = findings(before, after, languages, measure);
    Ok(Comparison {
        moved_most,
        owners_known,
        not_compared,
        before: side(before),
        after: side(after),
        entries,
        packages: rows::packages(before, after, measure, owners_known),
        modules: rows::modules(before, after, measure, owners_known),
        chunks: chunks::chunks(before.lens, after.lens, measure),
        waste,
        elsewhere: elsewhere(before.lens, after.lens),
    })
}

/// Entries by the change of their startup, and what tells most of the first one's; nothing does
/// where owners are known of one build only.
fn by_entry(
    before: &Lens<'_>,
    after: &Lens<'_>,
    known: Option<OwnersKnown>,
    measure: Measure,
) -> (Vec<EntryRow>, Option<Mover>) {
    let entries = entries(before, after, measure);
    let place = |lens: &Lens<'_>, name: &str| {
        lens.record.entries.iter().position(|entry| entry.name == name)
    };
    let moved_most = entries.first().filter(|_| known.is_none()).and_then(|row| {
        let (old, new) = (place(before, &row.name)?, place(after, &row.name)?);
        mover::heaviest_at_startup((before, old), (after, new), measure)
    });
    (entries, moved_most)
}

/// The entry whose startup moved most since a build.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Moved {
    /// Its name.
    pub entry: String,
    /// By so many bytes.
    pub by: i64,
    /// The package, or what is none, that tells most of it.
    pub mostly: Option<Mover>,
}

/// What moved most at startup; none if nothing did.
///
/// # Errors
/// When sizes of the builds cannot be subtracted.
pub fn moved(
    before: &Lens<'_>,
    after: &Lens<'_>,
    measure: Measure,
) -> Result<Option<Moved>, CompareError> {
    check(before.record, after.record, &[measure])?;
    let known = OwnersKnown::of(before, after);
    let (entries, mostly) = by_entry(before, after, known, measure);
    Ok(entries.into_iter().next().and_then(|row| {
        let startup = |loads: &Option<Loads>| loads.as_ref().map(|loads| loads.startup.sizes);
        let by = change(startup(&row.before).as_ref(), startup(&row.after).as_ref(), measure);
        (by != 0).then_some(Moved { entry: row.name, by, mostly })
    }))
}

fn side(half: &Half<'_>) -> Side {
    let record = half.lens.record;
    let files: BTreeSet<FileId> = half.cells.iter().map(|id| record.cells[id.at()].file).collect();
    Side {
        label: record.label.clone(),
        bundler: record.bundler,
        mode: record.mode,
        sizes: half.lens.amount(&half.cells).sizes(),
        file_count: files.len(),
    }
}

/// Requests of other hosts that only one of the builds makes.
fn elsewhere(before: &Lens<'_>, after: &Lens<'_>) -> Vec<ElsewhereChange> {
    type Asked = BTreeMap<(Moment, String), BTreeSet<String>>;
    let asked = |lens: &Lens<'_>| {
        let mut asked = Asked::new();
        for row in survey::elsewhere(lens) {
            asked.entry((row.when, row.url)).or_default().extend(row.entries);
        }
        asked
    };
    let (old, new) = (asked(before), asked(after));
    let only = |these: &Asked, others: &Asked, change| {
        let rows = these.iter().filter(|(asked, _)| !others.contains_key(*asked));
        let rows = rows.map(|((when, url), entries)| ElsewhereChange {
            url: url.clone(),
            change,
            entries: entries.iter().cloned().collect(),
            when: *when,
        });
        rows.collect::<Vec<_>>()
    };
    [only(&new, &old, ChunkChange::New), only(&old, &new, ChunkChange::Gone)].concat()
}

fn findings(
    before: &Half<'_>,
    after: &Half<'_>,
    languages: &[String],
    measure: Measure,
) -> (Vec<WasteRow>, Vec<Kind>) {
    let found = |half: &Half<'_>| {
        let wanted = Wanted { within: Some(half.cells.clone()), ..Wanted::default() };
        let aids = Aids { texts: half.texts, costs: None, languages, ran: None };
        waste(half.lens, aids, &wanted, measure)
    };
    let (mut earlier, mut later) = rayon::join(|| found(before), || found(after));
    // What one side cannot see is compared with nothing.
    let seen = |half: &Waste, kind: Kind| {
        half.judged.iter().any(|one| one.kind == kind && one.is_at_least(SEEN))
    };
    let is_apart = |kind: &Kind| seen(&earlier, *kind) != seen(&later, *kind);
    let not_compared: Vec<Kind> = Kind::ALL.iter().copied().filter(is_apart).collect();
    let keep = |one: &Finding| !not_compared.contains(&one.kind);
    earlier.findings.retain(keep);
    later.findings.retain(keep);
    let (earlier, later) = (earlier.findings, later.findings);
    let mut rows = Vec::new();
    for finding in &later {
        let known = earlier.iter().find(|other| other.id == finding.id);
        if known.is_none_or(|known| known.recoverable != finding.recoverable) {
            rows.push(WasteRow {
                id: finding.id.clone(),
                about: finding.about.clone(),
                before: known.map(|known| known.recoverable),
                after: Some(finding.recoverable),
            });
        }
    }
    for finding in earlier.iter().filter(|one| later.iter().all(|other| other.id != one.id)) {
        rows.push(WasteRow {
            id: finding.id.clone(),
            about: finding.about.clone(),
            before: Some(finding.recoverable),
            after: None,
        });
    }
    rows.sort_by(|a, b| {
        let moved = |row: &WasteRow| {
            change(row.before.as_ref(), row.after.as_ref(), measure).unsigned_abs()
        };
        moved(b).cmp(&moved(a)).then_with(|| a.id.cmp(&b.id))
    });
    (rows, not_compared)
}
