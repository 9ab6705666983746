//! Two builds whose sizes may be subtracted.

use serde::Serialize;
use uvlet_record::{
    Kind, Owner, Record, Target, Texts,
    sizes::{Coding, Measure, Sizes},
};

use crate::{lens::Lens, parts::cells::CellSet};

/// Why two builds are not compared.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum CompareError {
    /// They run in different places.
    Targets {
        /// The earlier build.
        before: String,
        /// The later one.
        after: String,
        /// Where they run.
        of: (Target, Target),
    },
    /// Their sizes were taken differently.
    Encoders {
        /// The coding.
        coding: Coding,
        /// Names and levels.
        encoders: Box<((String, u32), (String, u32))>,
    },
    /// One holds a measure that the other does not.
    Measure {
        /// The build.
        label: String,
        /// What is missing.
        measure: Measure,
    },
    /// One counts precompressed copies.
    Precompressed,
}

/// A build with what is looked at of it.
pub struct Half<'a> {
    /// The record.
    pub lens: &'a Lens<'a>,
    /// Texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// What is looked at.
    pub cells: CellSet,
}

/// Whether sizes of two builds can be subtracted.
///
/// # Errors
/// Why they cannot.
pub fn check(before: &Record, after: &Record, measures: &[Measure]) -> Result<(), CompareError> {
    if before.target != after.target {
        return Err(CompareError::Targets {
            before: before.label.clone(),
            after: after.label.clone(),
            of: (before.target, after.target),
        });
    }
    for &measure in measures {
        for record in [before, after] {
            if !record.measures().any(|held| held == measure) {
                return Err(CompareError::Measure { label: record.label.clone(), measure });
            }
        }
    }
    for (&coding, encoder) in &before.encoders {
        let Some(other) = after.encoders.get(&coding) else { continue };
        if (&encoder.name, encoder.level) != (&other.name, other.level) {
            let of =
                |encoder: &uvlet_ledger::coding::Encoder| (encoder.name.clone(), encoder.level);
            let encoders = Box::new((of(encoder), of(other)));
            return Err(CompareError::Encoders { coding, encoders });
        }
        let counts = |record: &Record| record.precompressed.get(coding).is_some_and(|n| *n > 0);
        if counts(before) != counts(after) {
            return Err(CompareError::Precompressed);
        }
    }
    Ok(())
}

/// The change of a size.
#[must_use]
pub fn change(before: Option<&Sizes>, after: Option<&Sizes>, measure: Measure) -> i64 {
    let bytes = |sizes: Option<&Sizes>| {
        i64::try_from(sizes.map_or(0, |sizes| sizes.get(measure))).unwrap_or(i64::MAX)
    };
    bytes(after).saturating_sub(bytes(before))
}

/// Hundredths of the script bytes with a known owner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct OwnersKnown {
    /// Of the earlier build.
    pub before: u64,
    /// Of the later build.
    pub after: u64,
}

impl OwnersKnown {
    /// Points between the two from which on rows tell more of what is known than of what changed.
    const APART: u64 = 10;

    pub(crate) fn of(before: &Lens<'_>, after: &Lens<'_>) -> Option<Self> {
        let known = Self { before: owners_known(before), after: owners_known(after) };
        (known.before.abs_diff(known.after) >= Self::APART).then_some(known)
    }
}

fn owners_known(lens: &Lens<'_>) -> u64 {
    let (mut all, mut known) = (0_u64, 0_u64);
    for cell in &lens.record.cells {
        if lens.record.file(cell.file).kind == Kind::Script {
            all += cell.amount.emitted;
            known += if cell.owner == Owner::Unattributed { 0 } else { cell.amount.emitted };
        }
    }
    known.saturating_mul(100).checked_div(all).unwrap_or(100)
}
