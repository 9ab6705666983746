//! Scripts that hand a table of modules to a runtime, as webpack and Rspack write them.
//!
//! A chunk says its ids where it registers itself: `(self["x"]=self["x"]||[]).push([[ids],{…},r=>…])`.
//! What must be there before its own code runs stands in the start-up call of its last function,
//! `r.O(0,[ids],…)`; what it opens later are calls `n.e(id)`. The runtime turns ids into file names
//! by the functions `u` (scripts) and `miniCssF` (styles).

pub(crate) mod bare;
pub(crate) mod table;
pub(crate) mod units;

use std::collections::BTreeSet;

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{
        Argument, ArrayExpression, ArrayExpressionElement, AssignmentExpression, AssignmentTarget,
        BindingPattern, CallExpression, Expression, ObjectExpression, ObjectPropertyKind,
        PropertyKey, VariableDeclarator,
    },
    functions::is_function,
    visit::Visit,
};

use super::{
    constants::{id, is_method, used},
    file_names::{self, FileName},
    format::{Chunks, Found, ScriptFormat, Walk},
};
use crate::formats::constants::chunk_request;

/// Scripts that register modules by webpack's or Rspack's runtime.
#[derive(Default)]
pub struct Registry {
    said: Chunks,
    /// Where the last group of chunks ends that were asked for together.
    group_end: u32,
    /// The call that was last found to be awaited, by its first byte, and the module used then.
    awaited: Option<(u32, String)>,
}

impl ScriptFormat for Registry {
    fn format(&self) -> Format {
        Format::Registry
    }

    fn recognises(&self, _: &Script<'_>) -> bool {
        self.said.registers
    }

    fn finish(self: Box<Self>, chunks: &mut Chunks) {
        let openers = std::mem::take(&mut chunks.openers);
        let modules = std::mem::take(&mut chunks.modules);
        *chunks = Chunks { openers, ..self.said };
        chunks.modules.extend(modules);
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        self.note_call(call);
        self.note_awaited(call);
        let mut requests = requests(call).into_iter();
        let Some(first) = requests.next().filter(|_| call.span.start >= self.group_end) else {
            return;
        };
        let mut asked = found.asked(first, call.span);
        asked.along = requests.collect();
        asked.opens = self.awaited.take_if(|(at, _)| *at == call.span.start).map(|(_, id)| id);
        found.chunks.push(asked);
        self.group_end = call.span.end;
    }

    fn variable(&mut self, variable: &VariableDeclarator<'_>, _: &mut Found) {
        self.note_variable(variable);
    }

    fn object(&mut self, object: &ObjectExpression<'_>, _: &mut Found) {
        self.note_object(object);
    }

    fn assignment(&mut self, assignment: &AssignmentExpression<'_>, _: &mut Found) -> Walk {
        self.note_assignment(assignment);
        Walk::Inside
    }
}

impl Registry {
    /// Takes note of a call, if it is one of those above.
    fn note_call(&mut self, call: &CallExpression<'_>) {
        let Expression::StaticMemberExpression(callee) = &call.callee else { return };
        match (callee.property.name.as_str(), call.arguments.as_slice()) {
            ("push", [Argument::ArrayExpression(pushed)]) => {
                let [ArrayExpressionElement::ArrayExpression(ids), table, rest @ ..] =
                    pushed.elements.as_slice()
                else {
                    return;
                };
                let is_table = matches!(
                    table,
                    ArrayExpressionElement::ObjectExpression(_)
                        | ArrayExpressionElement::ArrayExpression(_)
                );
                if let (true, Some(ids)) = (is_table, chunk_ids(ids)) {
                    self.said.registers = true;
                    self.said.ids.extend(ids);
                    self.said.starts |= !rest.is_empty();
                }
            }
            // Only a whole list of ids beside a function is the start-up call of the runtime.
            ("O", [_, Argument::ArrayExpression(ids), start, ..])
                if start.as_expression().is_some_and(is_function) =>
            {
                if let Some(ids) = chunk_ids(ids) {
                    self.said.starts = true;
                    self.said.startup.extend(ids);
                }
            }
            _ => {}
        }
    }

    /// Takes note of what comes after a load, `n.e(7).then(n.bind(n,2940))` or `.then(()=>n(2940))`.
    fn note_awaited(&mut self, call: &CallExpression<'_>) {
        let Expression::StaticMemberExpression(then) = &call.callee else { return };
        let is_then = then.property.name == "then";
        let [first, ..] = call.arguments.as_slice() else { return };
        if let Expression::CallExpression(load) = &then.object
            && let Some(id) = first.as_expression().filter(|_| is_then).and_then(used)
        {
            self.awaited = Some((load.span.start, id));
        }
    }

    /// Takes note of a variable, if it holds the ids of a chunk that is an ES module:
    /// `export const __webpack_ids__=["7"]`.
    fn note_variable(&mut self, variable: &VariableDeclarator<'_>) {
        if let (BindingPattern::BindingIdentifier(name), Some(Expression::ArrayExpression(ids))) =
            (&variable.id, &variable.init)
            && name.name.contains("webpack_ids")
        {
            self.said.ids.extend(chunk_ids(ids).into_iter().flatten());
        }
    }

    /// Takes note of an object, if it is a table of modules.
    fn note_object(&mut self, object: &ObjectExpression<'_>) {
        let is_row = |property: &ObjectPropertyKind<'_>| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                let is_keyed = matches!(
                    property.key,
                    PropertyKey::NumericLiteral(_) | PropertyKey::StringLiteral(_)
                );
                is_keyed && is_function(&property.value)
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        };
        if !object.properties.is_empty() && object.properties.iter().all(is_row) {
            self.said.has_table = true;
            let ids = object.properties.iter().filter_map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property) => file_names::key(&property.key),
                ObjectPropertyKind::SpreadProperty(_) => None,
            });
            self.said.modules.extend(ids);
        }
    }

    /// Takes note of an assignment to the runtime's functions.
    fn note_assignment(&mut self, assignment: &AssignmentExpression<'_>) {
        let AssignmentTarget::StaticMemberExpression(member) = &assignment.left else { return };
        if !is_function(&assignment.right) {
            return;
        }
        match member.property.name.as_str() {
            "u" => self.said.scripts = Some(FileName::of(&assignment.right)),
            "miniCssF" => self.said.styles = Some(FileName::of(&assignment.right)),
            "miniCss" => {
                let mut flags = Flags(BTreeSet::new());
                flags.visit_expression(&assignment.right);
                self.said.styled.extend(flags.0);
                return;
            }
            "O" => {}
            _ => return,
        }
        self.said.runtime = true;
    }
}

/// The chunks that a call asks for: `n.e(id)`, or several in one `Promise.all([…])`.
fn requests(call: &CallExpression<'_>) -> Vec<String> {
    if let Some(id) = chunk_request(call, "e") {
        return vec![id];
    }
    match call.arguments.as_slice() {
        [Argument::ArrayExpression(list)] if is_method(call, "Promise", "all") => {
            let calls = list.elements.iter().filter_map(|element| match element {
                ArrayExpressionElement::CallExpression(call) => chunk_request(call, "e"),
                _ => None,
            });
            calls.collect()
        }
        _ => Vec::new(),
    }
}

fn chunk_ids(list: &ArrayExpression<'_>) -> Option<Vec<String>> {
    let ids = list.elements.iter().map(|element| element.as_expression().and_then(id));
    ids.collect()
}

/// Keys of object literals that hold nothing but ones: the chunks that something is true of.
struct Flags(BTreeSet<String>);

impl<'a> Visit<'a> for Flags {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let keys: Option<Vec<String>> = object
            .properties
            .iter()
            .map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property)
                    if matches!(property.value, Expression::NumericLiteral(_)) =>
                {
                    file_names::key(&property.key)
                }
                _ => None,
            })
            .collect();
        self.0.extend(keys.into_iter().flatten());
    }
}
