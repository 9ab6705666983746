//! Forms of code that tell something: constant texts and lists of them, what a worker is made of.

use uvlet_script::{
    ast::{
        Argument, ArrayExpression, ArrayExpressionElement, CallExpression, Expression,
        StringLiteral, TemplateLiteral,
    },
    visit::{Visit, walk},
};

/// The texts of a list that holds nothing else.
pub fn strings(list: &ArrayExpression<'_>) -> Option<Vec<String>> {
    list.elements
        .iter()
        .map(|element| match element {
            ArrayExpressionElement::StringLiteral(text) => Some(text.value.to_string()),
            _ => None,
        })
        .collect()
}

/// The text of a string or of a template without holes.
pub fn constant(expression: &Expression<'_>) -> Option<String> {
    match expression {
        Expression::StringLiteral(text) => Some(text.value.to_string()),
        Expression::TemplateLiteral(template) if template.expressions.is_empty() => template
            .quasis
            .first()
            .map(|quasi| quasi.value.cooked.unwrap_or(quasi.value.raw).to_string()),
        _ => None,
    }
}

/// What a worker is made from: the first string, as in `new URL("w.js", import.meta.url).href`, or
/// the chunk in `new URL(n.p + n.u(7), n.b)`.
#[derive(Default)]
pub struct WorkerUrl {
    pub text: Option<String>,
    pub chunk: Option<String>,
}

impl<'a> Visit<'a> for WorkerUrl {
    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        match chunk_request(call, "u") {
            Some(id) => self.chunk = Some(id),
            None => walk::walk_call_expression(self, call),
        }
    }

    fn visit_string_literal(&mut self, text: &StringLiteral<'a>) {
        if self.text.is_none() && !text.value.is_empty() {
            self.text = Some(text.value.to_string());
        }
    }

    fn visit_template_literal(&mut self, template: &TemplateLiteral<'a>) {
        if self.text.is_none() && template.expressions.is_empty() {
            self.text = template.quasis.first().map(|quasi| quasi.value.raw.to_string());
        }
    }
}

/// Whether a call is of a method of a global object, as `Promise.all(…)` is.
pub fn is_method(call: &CallExpression<'_>, object: &str, method: &str) -> bool {
    let Expression::StaticMemberExpression(callee) = &call.callee else { return false };
    callee.property.name == method
        && matches!(&callee.object, Expression::Identifier(name) if name.name == object)
}

/// The module that a callback uses: the id in `n.bind(n,2940)`, `n.t.bind(n,2940,23)`, `()=>n(2940)`.
pub fn used(callback: &Expression<'_>) -> Option<String> {
    let call = match callback.get_inner_expression() {
        Expression::CallExpression(call) => call,
        Expression::ArrowFunctionExpression(arrow) => match arrow.get_expression()? {
            Expression::CallExpression(call) => call,
            _ => return None,
        },
        _ => return None,
    };
    let is_bound = call.arguments.len() > 1;
    call.arguments.get(usize::from(is_bound))?.as_expression().and_then(id)
}

/// A module's or chunk's id, as a minifier may write it.
pub fn id(expression: &Expression<'_>) -> Option<String> {
    match expression {
        Expression::NumericLiteral(id) => Some(id.value.to_string()),
        Expression::StringLiteral(id) => Some(id.value.to_string()),
        _ => None,
    }
}

/// Whether a specifier is made by the runtime's function for names of chunks: `"./" + n.u(e)`.
pub fn names_chunk(source: &Expression<'_>) -> bool {
    match source.get_inner_expression() {
        Expression::BinaryExpression(sum) => names_chunk(&sum.left) || names_chunk(&sum.right),
        Expression::CallExpression(call) => {
            matches!(&call.callee, Expression::StaticMemberExpression(m) if m.property.name == "u")
        }
        _ => false,
    }
}

/// The texts of the first list among the arguments of a call, behind at most a name.
pub fn first_strings(call: &CallExpression<'_>) -> Vec<String> {
    let lists = call.arguments.iter().take(2).find_map(|argument| match argument {
        Argument::ArrayExpression(list) => strings(list),
        _ => None,
    });
    lists.unwrap_or_default()
}

/// The id in `n.e(id)`, or in `n.u(id)` of a worker's URL.
pub fn chunk_request(call: &CallExpression<'_>, function: &str) -> Option<String> {
    let Expression::StaticMemberExpression(callee) = &call.callee else { return None };
    if callee.property.name != function {
        return None;
    }
    match call.arguments.as_slice() {
        [argument] => argument.as_expression().and_then(id),
        _ => None,
    }
}
