//! Packages and modules, before and after, each with the cause of its change.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{
    Basis, FileId, ModuleId, Owner, Record,
    sizes::{Measure, Sizes},
};

use super::{Half, Mover, change};
use crate::{
    attribute::{By, RowKind, Sort, attribute},
    lens::Lens,
    why::Network,
};

/// A package, or what is none, before and after.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Row {
    /// What it is.
    pub row: RowKind,
    /// Its name; of what has none a word in parentheses.
    pub name: String,
    /// As it was; none if it is new.
    pub before: Option<Sizes>,
    /// As it is; none if it is gone.
    pub after: Option<Sizes>,
    /// Of a package, its versions.
    pub versions: Option<Versions>,
    /// What the change comes from.
    pub cause: Cause,
    /// Modules that came, went, and changed.
    pub modules: Modules,
    /// Of what is new, the module that asks for it first.
    pub asked_by: Option<String>,
    /// In one of the builds its size is an estimate.
    pub estimated: bool,
}

/// Versions of a package.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Versions {
    /// As they were.
    pub before: Vec<String>,
    /// As they are.
    pub after: Vec<String>,
}

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

/// A module, before and after.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ModuleRow {
    /// What it is.
    pub row: RowKind,
    /// Its path; of what is none a word in parentheses.
    pub name: String,
    /// As it was; none if it is new.
    pub before: Option<Sizes>,
    /// As it is; none if it is gone.
    pub after: Option<Sizes>,
    /// What the change comes from.
    pub cause: Cause,
    /// In one of the builds its size is an estimate.
    pub estimated: bool,
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

impl Cause {
    /// The words for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::New => "new",
            Self::Gone => "gone",
            Self::Version => "version",
            Self::Edited => "source edited",
            Self::Modules => "modules came or went",
            Self::Output => "same source, other output",
            Self::MovedLater => "moved to on demand",
            Self::MovedEarlier => "moved to startup",
            Self::Copies => "copies",
            Self::Files => "other files",
            Self::Glue => "the bundler's own",
            Self::Compression => "compressed otherwise",
            Self::Unknown => "not known",
        }
    }
}

/// What a side has under one name.
#[derive(Default)]
struct Held {
    sizes: Option<Sizes>,
    modules: BTreeSet<ModuleId>,
    /// Emitted bytes at startup of some entry, and only on demand.
    startup: u64,
    deferred: u64,
    versions: BTreeSet<String>,
    is_estimated: bool,
}

type Key = (RowKind, String);

/// What is under each name; the sizes add up to those of all that is looked at.
fn held(half: &Half<'_>, by: By) -> BTreeMap<Key, Held> {
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

/// Packages that changed.
pub fn packages(before: &Half<'_>, after: &Half<'_>, measure: Measure) -> Vec<Row> {
    let network = Network::of(after.lens.record);
    let mut rows = Vec::new();
    let (old, new) = (Weights::of(before.lens.record), Weights::of(after.lens.record));
    for (key, earlier, later) in pairs(held(before, By::Package), held(after, By::Package)) {
        let modules = modules_of(&old, &earlier, &new, &later);
        let Some(cause) = cause(&key, &earlier, &later, modules) else { continue };
        let list = |held: &Held| held.versions.iter().cloned().collect::<Vec<_>>();
        let versions = (key.0 == RowKind::Package)
            .then(|| Versions { before: list(&earlier), after: list(&later) });
        let asked_by = (cause == Cause::New)
            .then(|| asked_by(after.lens.record, &network, &later.modules))
            .flatten();
        let (row, name) = key;
        rows.push(Row {
            row,
            name,
            before: earlier.sizes,
            after: later.sizes,
            versions,
            cause,
            modules,
            asked_by,
            estimated: earlier.is_estimated || later.is_estimated,
        });
    }
    let moved = |row: &Row| change(row.before.as_ref(), row.after.as_ref(), measure);
    rows.sort_by(|a, b| {
        moved(b).unsigned_abs().cmp(&moved(a).unsigned_abs()).then_with(|| a.name.cmp(&b.name))
    });
    rows
}

/// Modules that changed.
pub fn modules(before: &Half<'_>, after: &Half<'_>, measure: Measure) -> Vec<ModuleRow> {
    let mut rows = Vec::new();
    let (old, new) = (Weights::of(before.lens.record), Weights::of(after.lens.record));
    for (key, earlier, later) in pairs(held(before, By::Module), held(after, By::Module)) {
        let modules = modules_of(&old, &earlier, &new, &later);
        let Some(cause) = cause(&key, &earlier, &later, modules) else { continue };
        let (row, name) = key;
        let estimated = earlier.is_estimated || later.is_estimated;
        let (before, after) = (earlier.sizes, later.sizes);
        rows.push(ModuleRow { row, name, before, after, cause, estimated });
    }
    let moved = |row: &ModuleRow| change(row.before.as_ref(), row.after.as_ref(), measure);
    rows.sort_by(|a, b| {
        moved(b).unsigned_abs().cmp(&moved(a).unsigned_abs()).then_with(|| a.name.cmp(&b.name))
    });
    rows
}

fn pairs(
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
fn modules_of(before: &Weights<'_>, earlier: &Held, after: &Weights<'_>, later: &Held) -> Modules {
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
struct Weights<'r> {
    record: &'r Record,
    by_module: Vec<(u64, i64)>,
}

impl<'r> Weights<'r> {
    fn of(record: &'r Record) -> Self {
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
fn cause(key: &Key, earlier: &Held, later: &Held, modules: Modules) -> Option<Cause> {
    let emitted = |held: &Held| held.startup + held.deferred;
    let is_same = earlier.sizes == later.sizes
        && modules == Modules::default()
        && earlier.versions == later.versions
        && (earlier.startup, earlier.deferred) == (later.startup, later.deferred);
    if is_same {
        return None;
    }
    Some(match (&earlier.sizes, &later.sizes) {
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
    })
}

/// Whether most of what one place lost is what another gained.
fn has_moved(from_before: u64, from_after: u64, to_before: u64, to_after: u64) -> bool {
    let lost = from_before.saturating_sub(from_after);
    let gained = to_after.saturating_sub(to_before);
    lost > 0 && 2 * lost.min(gained) > lost.max(gained)
}

/// The module outside that asks for some, an own one if there is one.
fn asked_by(
    record: &Record,
    network: &Network<'_>,
    modules: &BTreeSet<ModuleId>,
) -> Option<String> {
    let edges = modules.iter().flat_map(|&id| network.askers(id));
    let askers = edges.map(|edge| edge.from).filter(|id| !modules.contains(id));
    let first = askers.min_by_key(|&id| (record.module(id).third_party, &record.module(id).path));
    first.map(|id| record.module(id).path.clone())
}

/// The package whose change at startup of an entry tells most of the entry's, with its change.
#[must_use]
pub fn heaviest_at_startup(
    before: (&Lens<'_>, usize),
    after: (&Lens<'_>, usize),
    measure: Measure,
) -> Option<Mover> {
    let mut estimated: BTreeSet<String> = BTreeSet::new();
    let mut sizes = |(lens, entry): (&Lens<'_>, usize)| {
        let cells = lens.files(lens.reach[entry].startup.iter().copied());
        let rows = attribute(lens, By::Package, &cells, None, Sort::Name).rows;
        let mut sizes: BTreeMap<String, i64> = BTreeMap::new();
        for row in rows {
            let bytes = i64::try_from(row.sizes.get(measure)).unwrap_or(i64::MAX);
            if row.basis == Basis::Estimated {
                estimated.insert(row.name.clone());
            }
            *sizes.entry(row.name).or_default() += bytes;
        }
        sizes
    };
    let (old, new) = (sizes(before), sizes(after));
    let names: BTreeSet<&String> = old.keys().chain(new.keys()).collect();
    let whole: i64 = new.values().sum::<i64>() - old.values().sum::<i64>();
    let moved = names.into_iter().map(|name| {
        let of = |sizes: &BTreeMap<String, i64>| sizes.get(name).copied().unwrap_or(0);
        (name.clone(), of(&new) - of(&old))
    });
    moved
        .filter(|(_, moved)| moved.signum() == whole.signum() && whole != 0)
        .max_by_key(|(_, m)| m.abs())
        .map(|(name, by)| Mover { is_estimated: estimated.contains(&name), name, by })
}
