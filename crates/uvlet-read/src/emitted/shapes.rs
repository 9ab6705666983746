//! Forms of code that tell something: constant texts and lists of them, what a worker is made of, what
//! only Node.js has, a module body that is evaluated.

use oxc_ast::ast::{
    Argument, ArrayExpression, ArrayExpressionElement, CallExpression, Expression, FunctionBody,
    Statement as Syntax, StringLiteral, TemplateLiteral,
};
use oxc_ast_visit::{Visit, walk};

use crate::{judge::is_node_builtin, registry::chunk_request};

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

/// A file as AMD and its kin name it: without its ending.
pub fn script_named(name: &str) -> String {
    let file = name.rsplit('/').next().unwrap_or(name);
    let has_ending = [".js", ".mjs", ".cjs"].iter().any(|ending| file.ends_with(ending));
    if has_ending { name.to_owned() } else { format!("{name}.js") }
}

/// The module that only Node.js has in `require("fs")`.
pub fn node_require(call: &CallExpression<'_>) -> Option<String> {
    match (&call.callee, call.arguments.as_slice()) {
        (Expression::Identifier(callee), [Argument::StringLiteral(name)])
            if callee.name == "require" && is_node_builtin(&name.value) =>
        {
            Some(name.value.to_string())
        }
        _ => None,
    }
}

/// Whether a module's body is one `eval(text)` whose text says which module it is, as webpack and
/// Rspack write it in development mode.
pub fn is_evaluated(body: Option<&FunctionBody<'_>>) -> bool {
    let Some([Syntax::ExpressionStatement(only)]) = body.map(|body| body.statements.as_slice())
    else {
        return false;
    };
    let Expression::CallExpression(call) = &only.expression else { return false };
    let is_eval = matches!(&call.callee, Expression::Identifier(name) if name.name == "eval");
    let text = match call.arguments.as_slice() {
        [Argument::StringLiteral(text)] => &text.value,
        // `eval(n.ts(text))`, where a policy of trusted types holds.
        [Argument::CallExpression(call)] => match call.arguments.as_slice() {
            [Argument::StringLiteral(text)] => &text.value,
            _ => return false,
        },
        _ => return false,
    };
    // Newer versions put the body into a block.
    let body = text.trim_end();
    let body = body.strip_suffix('}').unwrap_or(body).trim_end();
    let last = body.rsplit('\n').next().unwrap_or_default();
    let names = last.strip_prefix("//# sourceURL=");
    is_eval && names.is_some_and(|url| url.starts_with("webpack") || url.starts_with("rspack"))
}
