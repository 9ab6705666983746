//! What a prediction does not know.

use serde::Serialize;
use std::collections::BTreeSet;

use uvlet_record::{Bundler, ModuleId, Record};

use crate::{
    bundlers::{loading_helper, splits},
    predict::{
        assemble::Assembly,
        follow::Plan,
        outcome::Move,
        step::{Change, Step},
    },
};

/// Something that the prediction does not know.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Doubt {
    /// A stable word.
    pub code: &'static str,
    /// One sentence.
    pub message: String,
}

pub(crate) fn doubts(
    record: &Record,
    plan: &Plan<'_>,
    steps: &[Step],
    assembly: &Assembly<'_>,
    moved: &[Move],
) -> Vec<Doubt> {
    let mut doubts = Vec::new();
    let mut say = |code: &'static str, message: String| doubts.push(Doubt { code, message });
    let defers = steps.iter().any(|step| step.change == Change::Defer);
    let has_loads = !record.dynamic_loads.is_empty();
    if defers && !has_loads {
        let helper = loading_helper(record.bundler);
        say(
            "loading-helper",
            format!(
                "the build loads nothing on demand yet: what the bundler needs for that is taken from its habit, {helper}"
            ),
        );
    }
    if defers && !splits(record) {
        say(
            "no-splitting",
            "esbuild puts what is loaded on demand into the same file unless it is asked to split; this is told as if it were, for this alone".to_owned(),
        );
    }
    let gathers = steps.iter().any(|step| step.change == Change::Gather);
    if gathers && matches!(record.bundler, Some(Bundler::Webpack | Bundler::Rspack)) {
        say(
            "gathered-apart",
            "modules that are merged into one function now are wrapped one by one where several entries share their file: 1% to 3.5% more was seen in real builds".to_owned(),
        );
    }
    for id in plan.unknown_barrels() {
        say(
            "no-barrel",
            format!(
                "{} does more than hand on names, or it is not known what it hands on: who asks for it still does",
                record.module(id).path
            ),
        );
    }
    let are_moved: BTreeSet<ModuleId> = moved.iter().map(|one| one.module).collect();
    for step in steps.iter().filter(|step| step.change.takes_away()) {
        let is_moved = step.subject.modules.iter().any(|id| are_moved.contains(id));
        if !is_moved && step.subject.cells.iter().next().is_some() {
            let text = &step.subject.text;
            let message = match step.change {
                Change::Defer => format!(
                    "{text} is not at startup of any entry by imports that could be deferred"
                ),
                _ => format!("{text} is at startup of no entry"),
            };
            say("nothing-moves", message);
        }
        if step.change == Change::External {
            let bytes: u64 =
                step.subject.cells.iter().map(|id| record.cells[id.at()].amount.emitted).sum();
            say(
                "elsewhere",
                format!(
                    "{} is fetched from elsewhere then: {bytes} B as emitted here, which are no gain for who has not got it",
                    step.subject.text
                ),
            );
        }
    }
    if !assembly.has_texts() {
        say(
            "no-texts",
            "texts are not at hand: shares of streams are summed, which may be off by 1%"
                .to_owned(),
        );
    }
    if plan.has_inferred() {
        say(
            "edges",
            "who asks for whom is read from the sources in part, and may lack some".to_owned(),
        );
    }
    if !record.unresolved_requests.is_empty() {
        let number = record.unresolved_requests.len();
        say("requests", format!("{number} requests of sources could not be followed"));
    }
    doubts.sort();
    doubts
}
