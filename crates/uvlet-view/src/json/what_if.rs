//! Predictions with their steps and doubts in words.

use serde::Serialize;
use uvlet_audit::{
    ask::{
        self,
        what_if::{Basis, EntryRow, Moved, VisitRow},
    },
    find::judged::Judged,
};
use uvlet_record::sizes::Sizes;

use crate::words::{
    doubts::sentences,
    steps::{typed, typed_all},
};

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WhatIf<'a> {
    /// The steps as they are typed.
    steps: Vec<String>,
    /// The entry that wins most first.
    entries: &'a [EntryRow],
    /// `assembled` where texts were put together and encoded, `shares` where traced shares were summed.
    basis: Basis,
    /// Modules that are elsewhere then, the heaviest first.
    moved: &'a [Moved],
    /// Chunks that were not there before.
    new_chunks: &'a [String],
    /// Files that are there no more.
    vanished_files: &'a [String],
    /// Visits in the order asked for, each with what it adds to those before.
    #[serde(skip_serializing_if = "<[_]>::is_empty")]
    visits: &'a [VisitRow],
    /// What the prediction does not know.
    doubts: Vec<Doubt>,
}

/// Something that the prediction does not know.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Doubt {
    /// A stable word.
    code: &'static str,
    /// One sentence.
    message: String,
}

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Suggestions<'a> {
    /// Each by itself, what wins most at startup of one entry first.
    each: Vec<Suggestion<'a>>,
    /// The steps that win most together, as they are typed.
    together: Vec<String>,
    /// What these come to; none where nothing is won.
    prediction: Option<WhatIf<'a>>,
    /// What of the build the tried kinds of findings could judge.
    judged: &'a [Judged],
}

/// A change that is worth trying.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Suggestion<'a> {
    /// The step as it is typed.
    step: String,
    /// The finding that it mends.
    finding: &'a str,
    /// The entry that wins most.
    entry: &'a str,
    /// What that starts without.
    saved: Sizes,
}

impl<'a> From<&'a ask::what_if::WhatIf> for WhatIf<'a> {
    fn from(answer: &'a ask::what_if::WhatIf) -> Self {
        let doubts = sentences(&answer.doubts).into_iter();
        Self {
            steps: answer.steps.iter().map(typed).collect(),
            entries: &answer.entries,
            basis: answer.basis,
            moved: &answer.moved,
            new_chunks: &answer.new_chunks,
            vanished_files: &answer.vanished_files,
            visits: &answer.visits,
            doubts: doubts.map(|(code, message)| Doubt { code, message }).collect(),
        }
    }
}

impl<'a> From<&'a ask::suggest::Suggestions> for Suggestions<'a> {
    fn from(answer: &'a ask::suggest::Suggestions) -> Self {
        let each = answer.each.iter().map(|one| Suggestion {
            step: typed_all(&one.steps),
            finding: &one.finding,
            entry: &one.entry,
            saved: one.saved,
        });
        Self {
            each: each.collect(),
            together: answer.together.iter().map(typed).collect(),
            prediction: answer.prediction.as_ref().map(WhatIf::from),
            judged: &answer.judged,
        }
    }
}
