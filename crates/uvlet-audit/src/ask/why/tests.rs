//! What leaves, held against a second way to tell it, on graphs made up at random.

use std::collections::BTreeSet;

use proptest::prelude::*;
use uvlet_record::{ModuleId, Record};

use super::{Moment, Wanted, why};
use crate::lens::Lens;
use crate::select::subject::Subject;

/// Kinds of edges, of which the last is deferred.
const KINDS: [&str; 3] = ["static", "require", "dynamic"];

/// A build of one script with a module of `1 << n` bytes for every n, two entries, and these edges.
fn record(modules: usize, edges: &BTreeSet<(usize, usize, usize)>, roots: [usize; 2]) -> Record {
    let cell = |at: usize| serde_json::json!({"file": 0, "owner": {"module": at}, "emitted": 1_u64 << at, "basis": "mapped"});
    let module = |at: usize| {
        serde_json::json!({"path": format!("src/{at:02}.js"), "package": null,
        "third_party": false, "source_bytes": null})
    };
    let entry = |name: &str, root: usize| {
        serde_json::json!({"name": name, "aliases": [], "pages": [],
        "origin": "bundler", "requested": [0], "later": [], "roots": [root], "has_said_roots": true})
    };
    let edges: Vec<_> = edges
        .iter()
        .map(|(from, to, kind)| {
            serde_json::json!({"from": from, "to": to, "kind": KINDS[*kind],
            "request": null, "basis": "said"})
        })
        .collect();
    let record = serde_json::json!({
        "schema": 5, "label": "tiny", "bundler": null, "bundler_version": null, "mode": "unclear",
        "mode_evidence": [], "target": "browser", "target_basis": {"mark": "page"}, "set_aside": [], "encoders": {},
        "precompressed": {},
        "files": [{"path": "a.js", "kind": "script", "digest": "", "emitted": (1_u64 << modules) - 1,
            "format": "es", "loads": [], "cells": {"start": 0, "end": modules}, "runs": {"start": 0, "end": 0}}],
        "cells": (0..modules).map(cell).collect::<Vec<_>>(),
        "runs": [],
        "modules": (0..modules).map(module).collect::<Vec<_>>(),
        "packages": [],
        "chunks": [{"name": "a", "stem": "a", "named_by": "entry", "script": 0, "styles": []}],
        "entries": [entry("one", roots[0]), entry("two", roots[1])],
        "dynamic_loads": [], "edges": edges, "aside": [], "notices": [],
    });
    let record: Record = serde_json::from_value(record).unwrap();
    record.verify().unwrap();
    record
}

/// All that is reached from a module, by adding the end of every edge until nothing changes.
fn closure(
    roots: &[usize],
    edges: &BTreeSet<(usize, usize, usize)>,
    is_static: bool,
    without: usize,
) -> BTreeSet<usize> {
    let mut reached: BTreeSet<usize> = roots.iter().copied().filter(|at| *at != without).collect();
    loop {
        let before = reached.len();
        for (from, to, kind) in edges {
            if reached.contains(from) && *to != without && !(is_static && *kind == 2) {
                reached.insert(*to);
            }
        }
        if reached.len() == before {
            return reached;
        }
    }
}

fn weight(modules: &BTreeSet<usize>) -> u64 {
    modules.iter().map(|at| 1_u64 << at).sum()
}

proptest! {
    #[test]
    fn what_leaves_is_the_difference_of_two_searches(
        modules in 2_usize..12,
        edges in prop::collection::vec((0_usize..12, 0_usize..12, 0_usize..3), 0..40),
        roots in [0_usize..12, 0_usize..12],
        target in 0_usize..12,
    ) {
        let inside = |at: usize| at % modules;
        let edges: BTreeSet<_> =
            edges.into_iter().map(|(from, to, kind)| (inside(from), inside(to), kind)).collect();
        let (roots, target) = (roots.map(inside), inside(target));
        let record = record(modules, &edges, roots);
        let lens = Lens::new(&record);
        let subject = Subject::find(&format!("src/{target:02}.js"), &lens).unwrap();
        let answer = why(&lens, &subject, &Wanted::default());
        let nothing = usize::MAX;
        let leaves = |roots: &[usize], is_static: bool| {
            let before = closure(roots, &edges, is_static, nothing);
            let after = closure(roots, &edges, is_static, target);
            let mut leaves: BTreeSet<usize> = before.difference(&after).copied().collect();
            leaves.insert(target);
            weight(&leaves)
        };
        prop_assert_eq!(answer.leaves_with_it.sizes.emitted, leaves(&roots, false));
        for (name, root) in ["one", "two"].into_iter().zip(roots) {
            let row = answer.at_startup.iter().find(|row| row.entry == name).unwrap();
            prop_assert_eq!(row.sizes.emitted, leaves(&[root], true));
        }
        // A chain is one of edges, and begins where its entry does.
        for chain in answer.chains.iter().filter(|chain| !chain.steps.is_empty()) {
            let root = if chain.entry == "one" { roots[0] } else { roots[1] };
            prop_assert_eq!(chain.when, Moment::Startup);
            let steps: Vec<usize> = chain
                .steps
                .iter()
                .map(|step| step.module[4..step.module.len() - 3].parse().unwrap())
                .collect();
            prop_assert_eq!((steps.first(), steps.last()), (Some(&root), Some(&target)));
            for pair in steps.windows(2) {
                prop_assert!((0..3).any(|kind| edges.contains(&(pair[0], pair[1], kind))));
            }
        }
        let reached = closure(&roots, &edges, false, nothing).contains(&target);
        prop_assert_eq!(answer.chains.iter().any(|chain| !chain.steps.is_empty()), reached);
    }
}

#[test]
fn own_modules_are_preferred_at_equal_length() {
    let edges = [(0, 1, 0), (0, 2, 0), (1, 3, 0), (2, 3, 0)].into();
    let mut record = record(4, &edges, [0, 0]);
    record.modules[1].third_party = true;
    let lens = Lens::new(&record);
    let subject = Subject::of(
        "x",
        crate::select::subject::SubjectKind::Module,
        vec![ModuleId::new(3)],
        &lens,
    );
    let answer = why(&lens, &subject, &Wanted::default());
    assert_eq!(answer.chains[0].steps[1].module, "src/02.js");
}
