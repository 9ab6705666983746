//! Where a request leads past what left no byte.

use std::collections::BTreeSet;

use uvlet_record::{EdgeBasis, ModuleId};
use uvlet_script::requests::{Kind, Request};

use super::{
    super::graph::Graph,
    handing::{Handing, is_place},
    walk::{Step, Target},
};

/// Takes down what a request leads to: by a file that left no byte, where it is known which; else at once.
pub(super) fn lead(
    (from, ask): (ModuleId, &Request),
    place: Option<String>,
    found: BTreeSet<(ModuleId, Option<String>)>,
    mut steps: BTreeSet<Step>,
    (graph, handing): (&mut Graph, &mut Handing),
) {
    let Some(place) = place.filter(|place| is_place(place) && !found.is_empty()) else {
        for (to, name) in found {
            graph.add(from, to, ask, name.map(|name| vec![name]), EdgeBasis::Inferred);
        }
        return;
    };
    if steps.is_empty() {
        steps = by_name(&place, &found);
    }
    steps.retain(|step| match step.to {
        Target::Module(to) => found.iter().any(|(found, _)| *found == to),
        Target::File(_) => true,
    });
    let modules = found.iter().map(|(to, _)| *to);
    handing.add(&place, (from, ask), modules, steps);
}

/// Whether a request is for a file that may hand on what others give.
pub(super) fn is_handing(ask: &Request) -> bool {
    matches!(ask.kind, Kind::Import | Kind::Reexport)
}

/// What a file leads to that is not at hand, by the names that are taken of it.
fn by_name(place: &str, found: &BTreeSet<(ModuleId, Option<String>)>) -> BTreeSet<Step> {
    let step = |(to, name): &(ModuleId, Option<String>)| {
        let (from, to) = (place.to_owned(), Target::Module(*to));
        Step { from, request: None, names: name.clone().map(|name| vec![name]), to }
    };
    found.iter().map(step).collect()
}
