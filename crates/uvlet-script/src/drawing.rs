//! What a script draws on the first screen: which components, and which dynamic loads these need.
//!
//! A component is a function that returns elements, an object or a class with such a function, or a dynamic
//! load that is wrapped into one (`lazy(() => import(…))`). An element is drawn if it is part of what a
//! component returns without a condition, or under conditions whose first value the code shows
//! (`useState(false)`, `ref(false)`); what is put inside another component is drawn if that one draws it.
//! What cannot be told is left out, so that whatever is found is drawn in any case.

mod components;
mod drawn;
mod elements;
mod exports;
mod values;

use std::collections::{BTreeMap, HashSet};

use components::Components;
pub use drawn::{CHILDREN, Drawn, Export, Given, fill};
use oxc_ast::AstKind;
use oxc_semantic::SemanticBuilder;
use oxc_span::GetSpan;

use crate::{at_once::Places, parse::Script};

/// What is known of a script's components.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Drawing {
    /// What is drawn as the script runs.
    pub at_start: Vec<Drawn>,
    /// What each exported component draws.
    pub exports: BTreeMap<Export, Vec<Drawn>>,
}

/// Reads what a script draws. `loads` are the first bytes of dynamic loads; `tables` says that object
/// literals of functions are tables of modules.
#[must_use]
#[expect(clippy::implicit_hasher, reason = "no other hasher is in use")]
pub fn drawing(script: &Script<'_>, loads: &HashSet<u32>, tables: bool) -> Drawing {
    let reached = Places::reached(&script.program, tables);
    let semantic = SemanticBuilder::new().with_build_nodes(true).build(&script.program).semantic;
    let components = Components::of(&semantic, loads);
    let mut drawing = Drawing::default();
    for node in semantic.nodes() {
        let AstKind::CallExpression(call) = node.kind() else { continue };
        let started = components.started(call);
        if started.is_empty() {
            continue;
        }
        let mut around = semantic.nodes().ancestor_kinds(node.id());
        let function = around.find(|kind| {
            matches!(kind, AstKind::Function(_) | AstKind::ArrowFunctionExpression(_))
        });
        if function.is_none_or(|kind| reached.has(kind.span().start)) {
            drawing.at_start.extend(started);
        }
    }
    drawing.exports = components.exports();
    drawing
}

#[cfg(test)]
mod tests;
