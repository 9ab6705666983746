//! The parts of a function that can belong to different modules, without what the bundler writes for
//! imports and exports.

use uvlet_script::{
    GetSpan, Span,
    ast::{Argument, CallExpression, Expression, FunctionBody, ObjectPropertyKind, Statement},
    functions::called_at_once,
};

/// The parts of a function that can belong to different modules: its statements, with declarations
/// and sequences taken apart, as minifiers join them. What the bundler writes for an ES module's
/// imports and exports, by way of the require function, is left out.
pub fn units_of(body: &FunctionBody<'_>, require: Option<&str>) -> Vec<Span> {
    // A minified body may stand in one more function, called at once.
    if let [Statement::ExpressionStatement(only)] = body.statements.as_slice()
        && let Some(inner) = called_at_once(&only.expression)
    {
        return units_of(inner, require);
    }
    let parts = body.statements.iter().flat_map(split);
    parts.flat_map(|(span, value)| own_parts(span, value, require)).collect()
}

/// What of a part is the module's: all of it, but of a link only what a minifier put in the place of
/// an exported name that is used once.
pub fn own_parts(span: Span, value: Option<&Expression<'_>>, require: Option<&str>) -> Vec<Span> {
    match value {
        Some(Expression::CallExpression(call)) if is_link(call, require) => {
            call.arguments.iter().flat_map(inlined).collect()
        }
        _ => vec![span],
    }
}

/// `n.d(t,{…})`, `n.r(t)`, `n(7)`, `n.n(o)`: a module's exports and imports as the bundler writes
/// them.
fn is_link(call: &CallExpression<'_>, require: Option<&str>) -> bool {
    let Some(require) = require else { return false };
    match &call.callee {
        Expression::Identifier(callee) => {
            let is_id = |argument: &Argument<'_>| {
                matches!(argument, Argument::NumericLiteral(_) | Argument::StringLiteral(_))
            };
            callee.name == require && call.arguments.len() == 1 && is_id(&call.arguments[0])
        }
        Expression::StaticMemberExpression(member) => {
            matches!(&member.object, Expression::Identifier(object) if object.name == require)
                && matches!(member.property.name.as_str(), "d" | "r" | "n")
        }
        _ => false,
    }
}

/// The values of a link that are more than names.
fn inlined(argument: &Argument<'_>) -> Vec<Span> {
    let body = |value: &Expression<'_>| match value {
        Expression::ArrowFunctionExpression(arrow) => arrow.body.span(),
        value => value.span(),
    };
    let values: Vec<Span> = match argument {
        Argument::ObjectExpression(names) => names
            .properties
            .iter()
            .map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property) => body(&property.value),
                ObjectPropertyKind::SpreadProperty(spread) => spread.span,
            })
            .collect(),
        Argument::ArrayExpression(names) => {
            names.elements.iter().filter_map(|element| element.as_expression()).map(body).collect()
        }
        argument => vec![argument.span()],
    };
    values.into_iter().filter(|span| span.size() >= SMALL).collect()
}

/// Bytes below which a value is taken for a name.
const SMALL: u32 = 24;

/// The parts of a statement, with the value of each where it has one.
pub fn split<'e, 'a>(statement: &'e Statement<'a>) -> Vec<(Span, Option<&'e Expression<'a>>)> {
    match statement {
        Statement::VariableDeclaration(variables) => {
            let parts = variables.declarations.iter();
            let mut parts: Vec<_> = parts.map(|part| (part.span, part.init.as_ref())).collect();
            if let Some((first, _)) = parts.first_mut() {
                first.start = variables.span.start;
            }
            parts
        }
        Statement::ExpressionStatement(statement) => match &statement.expression {
            Expression::SequenceExpression(sequence) => {
                sequence.expressions.iter().map(|part| (part.span(), Some(part))).collect()
            }
            expression => vec![(statement.span, Some(expression))],
        },
        _ => vec![(statement.span(), None)],
    }
}
