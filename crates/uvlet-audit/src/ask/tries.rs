//! Several builds of one folder after each other: what each starts with, and what moved since the one before.

use serde::Serialize;
use uvlet_record::sizes::{Measure, Sizes};

use crate::{
    ask::compare::{self, Moved, sides::CompareError},
    lens::Lens,
};

/// One build.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Try {
    /// The name that it was given, else how long ago it was looked at.
    pub label: String,
    /// What each entry starts with, the heaviest first.
    pub entries: Vec<Start>,
    /// What moved most since the build before; none of the first, or where nothing did.
    pub moved: Option<Moved>,
}

/// The startup of an entry.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Start {
    /// The entry.
    pub entry: String,
    /// What arrives before it can run.
    pub sizes: Sizes,
}

/// Builds in order, the earliest first.
///
/// # Errors
/// When sizes of two of them cannot be subtracted.
pub fn tries(builds: &[(String, Lens<'_>)], measure: Measure) -> Result<Vec<Try>, CompareError> {
    let mut before: Option<&Lens<'_>> = None;
    let mut tries = Vec::new();
    for (label, lens) in builds {
        let moved = before.map(|before| compare::moved(before, lens, measure)).transpose()?;
        let starts = lens.record.entries.iter().zip(&lens.reach).map(|(entry, reach)| {
            let cells = lens.files(reach.startup.iter().copied());
            Start { entry: entry.name.clone(), sizes: lens.amount(&cells).sizes() }
        });
        let mut entries: Vec<Start> = starts.collect();
        entries.sort_by_key(|start| std::cmp::Reverse(start.sizes.get(measure)));
        tries.push(Try { label: label.clone(), entries, moved: moved.flatten() });
        before = Some(lens);
    }
    Ok(tries)
}
