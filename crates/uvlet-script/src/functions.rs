//! Functions as values: what is in them, and whether they are called where they stand.

use oxc_ast::ast::{ArrayExpressionElement, ArrowFunctionBody, Expression, FunctionBody};

/// The statements of a function; none of an arrow that is a mere expression.
#[must_use]
pub fn function_body<'e, 'a>(value: &'e Expression<'a>) -> Option<&'e FunctionBody<'a>> {
    match value.get_inner_expression() {
        Expression::FunctionExpression(function) => function.body.as_deref(),
        Expression::ArrowFunctionExpression(arrow) => match &arrow.body {
            ArrowFunctionBody::FunctionBody(body) => Some(body),
            _ => None,
        },
        _ => None,
    }
}

/// The body of `(() => {…})()` and the like.
#[must_use]
pub fn called_at_once<'e, 'a>(expression: &'e Expression<'a>) -> Option<&'e FunctionBody<'a>> {
    match expression.get_inner_expression() {
        Expression::CallExpression(call) if call.arguments.is_empty() => {
            function_body(&call.callee)
        }
        Expression::UnaryExpression(unary) => called_at_once(&unary.argument),
        _ => None,
    }
}

/// Whether a value is a function that is written out.
#[must_use]
pub fn is_function(expression: &Expression<'_>) -> bool {
    matches!(
        expression.get_inner_expression(),
        Expression::ArrowFunctionExpression(_) | Expression::FunctionExpression(_)
    )
}

/// What an element of a list is, or those of the list that it is itself.
pub fn unnested<'e, 'a>(
    element: &'e ArrayExpressionElement<'a>,
) -> &'e [ArrayExpressionElement<'a>] {
    match element {
        ArrayExpressionElement::ArrayExpression(list) => &list.elements,
        element => std::slice::from_ref(element),
    }
}
