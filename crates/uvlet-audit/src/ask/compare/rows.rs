//! Packages and modules, before and after, each with the cause of its change.

use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_record::{
    ModuleId, Record,
    sizes::{Measure, Sizes},
};

use crate::{
    ask::{
        attribute::{By, RowKind},
        compare::{
            causes::{Cause, Held, Modules, Weights, cause, held, modules_of, pairs},
            sides::{Half, OwnersKnown, change},
        },
    },
    graph::network::Network,
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

/// Packages that changed.
pub fn packages(
    before: &Half<'_>,
    after: &Half<'_>,
    measure: Measure,
    known: Option<OwnersKnown>,
) -> Vec<Row> {
    let network = Network::of(after.lens.record);
    let mut rows = Vec::new();
    let (old, new) = (Weights::of(before.lens.record), Weights::of(after.lens.record));
    for (key, earlier, later) in pairs(held(before, By::Package), held(after, By::Package)) {
        let modules = modules_of(&old, &earlier, &new, &later);
        let Some(cause) = cause(&key, &earlier, &later, modules, known) else { continue };
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
pub fn modules(
    before: &Half<'_>,
    after: &Half<'_>,
    measure: Measure,
    known: Option<OwnersKnown>,
) -> Vec<ModuleRow> {
    let mut rows = Vec::new();
    let (old, new) = (Weights::of(before.lens.record), Weights::of(after.lens.record));
    for (key, earlier, later) in pairs(held(before, By::Module), held(after, By::Module)) {
        let modules = modules_of(&old, &earlier, &new, &later);
        let Some(cause) = cause(&key, &earlier, &later, modules, known) else { continue };
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
