//! What the change of a package or module comes from.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{Basis, FileId, ModuleId, Owner, Record, sizes::Sizes};

use crate::ask::{
    attribute::{By, RowKind, Sort, attribute},
    compare::sides::{Half, OwnersKnown},
};

/// Modules of a row.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Modules {
    /// Came.
    pub new: usize,
    /// Went.
    pub gone: usize,
    /// Of another source than before.
    pub edited: usize,
    /// Of the same source, and another length.
    pub other: usize,
    /// Copies that came of modules that were there, less those that went.
    pub copies: i64,
    /// What these come to in emitted bytes, and what other lengths do.
    #[serde(skip)]
    by_copies: i64,
    #[serde(skip)]
    by_output: i64,
}

/// What a change comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Cause {
    /// It was not there before.
    New,
    /// It is no longer there.
    Gone,
    /// Owners are known of one of the builds alone, so that it may be in both.
    Owners,
    /// Another version of the package.
    Version,
    /// Its source was edited.
    Edited,
    /// Modules of it came or went.
    Modules,
    /// Its source is the same: another compiler, option or minifier made other text of it.
    Output,
    /// From startup to on demand.
    MovedLater,
    /// From on demand to startup.
    MovedEarlier,
    /// More or fewer copies of the same.
    Copies,
    /// Whole files, or bytes that nobody owns, are others.
    Files,
    /// The bundler's own code.
    Glue,
    /// Only what stands around it compresses otherwise.
    Compression,
    /// It is not known.
    Unknown,
}

/// What a side has under one name.
#[derive(Default)]
pub(crate) struct Held {
    pub(crate) sizes: Option<Sizes>,
    pub(crate) modules: BTreeSet<ModuleId>,
    /// Emitted bytes at startup of some entry, and only on demand.
    startup: u64,
    deferred: u64,
    pub(crate) versions: BTreeSet<String>,
    pub(crate) is_estimated: bool,
}

type Key = (RowKind, String);

/// What is under each name; the sizes add up to those of all that is looked at.
pub(crate) fn held(half: &Half<'_>, by: By) -> BTreeMap<Key, Held> {
    let (lens, record) = (half.lens, half.lens.record);
    let startup: BTreeSet<FileId> =
        lens.reach.iter().flat_map(|reach| reach.startup.iter().copied()).collect();
    let mut held: BTreeMap<Key, Held> = BTreeMap::new();
    for row in attribute(lens, by, &half.cells, None, Sort::Name).rows {
        // Several places of a package, or of a module, are one.
        let one = held.entry((row.row, row.name)).or_default();
        one.sizes = Some(match &one.sizes {
            Some(sizes) => sum(sizes, &row.sizes),
            None => row.sizes,
        });
        one.versions.extend(row.version);
        for id in &row.cells {
            let cell = &record.cells[id.at()];
            if let Owner::Module(module) = cell.owner {
                one.modules.insert(module);
            }
            one.is_estimated |= cell.basis == Basis::Estimated;
            match startup.contains(&cell.file) {
                true => one.startup += cell.amount.emitted,
                false => one.deferred += cell.amount.emitted,
            }
        }
    }
    held
}

fn sum(a: &Sizes, b: &Sizes) -> Sizes {
    let mut sum = *a;
    for measure in a.measures() {
        sum.set(measure, a.get(measure) + b.get(measure));
    }
    sum
}

pub(crate) fn pairs(
    mut before: BTreeMap<Key, Held>,
    after: BTreeMap<Key, Held>,
) -> impl Iterator<Item = (Key, Held, Held)> {
    let mut pairs: Vec<(Key, Held, Held)> = after
        .into_iter()
        .map(|(key, later)| {
            let earlier = before.remove(&key).unwrap_or_default();
            (key, earlier, later)
        })
        .collect();
    pairs.extend(before.into_iter().map(|(key, earlier)| (key, earlier, Held::default())));
    pairs.into_iter()
}

/// What became of the modules of a row: they match by path.
pub(crate) fn modules_of(
    before: &Weights<'_>,
    earlier: &Held,
    after: &Weights<'_>,
    later: &Held,
) -> Modules {
    type Shipped<'r> = (Option<&'r str>, u64, i64);
    fn by_path<'r>(weights: &Weights<'r>, held: &Held) -> BTreeMap<&'r str, Shipped<'r>> {
        let modules = held.modules.iter().filter_map(|&id| {
            let (weight, copies) = weights.get(id)?;
            let module = weights.record.module(id);
            Some((module.path.as_str(), (module.source_digest.as_deref(), weight, copies)))
        });
        modules.collect()
    }
    let (old, new) = (by_path(before, earlier), by_path(after, later));
    let mut modules = Modules {
        new: new.keys().filter(|path| !old.contains_key(*path)).count(),
        gone: old.keys().filter(|path| !new.contains_key(*path)).count(),
        ..Modules::default()
    };
    let signed = |bytes: u64| i64::try_from(bytes).unwrap_or(i64::MAX);
    for (path, (digest, weight, copies)) in &new {
        let Some((old_digest, old_weight, old_copies)) = old.get(path) else { continue };
        modules.copies += copies - old_copies;
        modules.by_copies += signed(*old_weight) * (copies - old_copies);
        modules.by_output += (signed(*weight) - signed(*old_weight)) * copies;
        match (old_digest, digest) {
            (Some(a), Some(b)) if a != b => modules.edited += 1,
            _ if weight != old_weight => modules.other += 1,
            _ => {}
        }
    }
    modules
}

/// Emitted bytes of every module in the file that holds most of it, and how many files hold some.
pub(crate) struct Weights<'r> {
    record: &'r Record,
    by_module: Vec<(u64, i64)>,
}

impl<'r> Weights<'r> {
    pub(crate) fn of(record: &'r Record) -> Self {
        let mut by_module = vec![(0, 0); record.modules.len()];
        for cell in &record.cells {
            if let Owner::Module(id) = cell.owner {
                let (weight, copies) = &mut by_module[id.at()];
                *weight = cell.amount.emitted.max(*weight);
                *copies += i64::from(cell.amount.emitted > 0);
            }
        }
        Self { record, by_module }
    }

    fn get(&self, id: ModuleId) -> Option<(u64, i64)> {
        Some(self.by_module[id.at()]).filter(|(weight, _)| *weight > 0)
    }
}

/// What a change comes from; none if nothing changed.
pub(crate) fn cause(
    key: &Key,
    earlier: &Held,
    later: &Held,
    modules: Modules,
    known: Option<OwnersKnown>,
) -> Option<Cause> {
    let emitted = |held: &Held| held.startup + held.deferred;
    let is_same = earlier.sizes == later.sizes
        && modules == Modules::default()
        && earlier.versions == later.versions
        && (earlier.startup, earlier.deferred) == (later.startup, later.deferred);
    if is_same {
        return None;
    }
    let cause = match (&earlier.sizes, &later.sizes) {
        (None, _) => Cause::New,
        (_, None) => Cause::Gone,
        // An estimate moves with all that shares its file.
        _ if earlier.is_estimated || later.is_estimated => Cause::Unknown,
        _ if key.0 == RowKind::Glue => Cause::Glue,
        _ if !earlier.versions.is_empty()
            && !later.versions.is_empty()
            && earlier.versions != later.versions =>
        {
            Cause::Version
        }
        _ if has_moved(earlier.startup, later.startup, earlier.deferred, later.deferred) => {
            Cause::MovedLater
        }
        _ if has_moved(earlier.deferred, later.deferred, earlier.startup, later.startup) => {
            Cause::MovedEarlier
        }
        _ if matches!(key.0, RowKind::Assets | RowKind::Unattributed | RowKind::File) => {
            Cause::Files
        }
        _ if modules.by_copies.abs() > modules.by_output.abs()
            && 2 * modules.by_copies.unsigned_abs() > emitted(earlier).abs_diff(emitted(later)) =>
        {
            Cause::Copies
        }
        _ if modules.edited > 0 => Cause::Edited,
        _ if modules.new + modules.gone > 0 => Cause::Modules,
        _ if modules.other > 0 => Cause::Output,
        _ if emitted(earlier) == emitted(later) => Cause::Compression,
        _ => Cause::Unknown,
    };
    Some(by_sight(key.0, cause, known))
}

/// A cause that is none where only the owners of one build are known.
fn by_sight(row: RowKind, cause: Cause, known: Option<OwnersKnown>) -> Cause {
    let is_unsure = match (known, cause) {
        (Some(known), Cause::New) => row == RowKind::Unattributed || known.before < known.after,
        (Some(known), Cause::Gone) => row == RowKind::Unattributed || known.after < known.before,
        (Some(_), Cause::Files) => row == RowKind::Unattributed,
        (Some(_), Cause::Modules) => true,
        _ => false,
    };
    if is_unsure { Cause::Owners } else { cause }
}

/// Whether most of what one place lost is what another gained.
fn has_moved(from_before: u64, from_after: u64, to_before: u64, to_after: u64) -> bool {
    let lost = from_before.saturating_sub(from_after);
    let gained = to_after.saturating_sub(to_before);
    lost > 0 && 2 * lost.min(gained) > lost.max(gained)
}
