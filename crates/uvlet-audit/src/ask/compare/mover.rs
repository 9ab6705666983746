//! What tells most of the change of an entry's startup.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uvlet_record::{Basis, sizes::Measure};

use crate::{
    ask::attribute::{By, Sort, attribute},
    lens::Lens,
};

/// What moved most at startup.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Mover {
    /// The package, or what is none.
    pub name: String,
    /// By so many bytes.
    pub by: i64,
    /// In one of the builds its size is an estimate.
    pub is_estimated: bool,
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
