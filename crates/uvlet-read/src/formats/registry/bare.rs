//! Entry modules that stand without a function of their own, behind the runtime.

use uvlet_script::{
    GetSpan, Span,
    ast::{
        AssignmentTarget, BindingPattern, Expression, ObjectExpression, ObjectPropertyKind,
        Program, Statement,
    },
    functions::called_at_once,
    visit::Visit,
};

use super::units::{own_parts, split, units_of};

/// What stands behind the runtime in the function around the table, or in the whole script where
/// there is no table.
pub fn bare_units(program: &Program<'_>, table: Option<Span>) -> Vec<Span> {
    let statements = around(program, table);
    let first = table.map_or(0, |table| {
        let at = statements.iter().position(|s| s.span().contains_inclusive(table));
        at.unwrap_or(0)
    });
    let behind = &statements[first..];
    let require = behind.iter().find_map(require_name);
    // A table that is handed to a runtime elsewhere is all there is.
    if table.is_some() && require.is_none() {
        return Vec::new();
    }
    let require = require.as_deref();
    let units: Vec<(Span, bool)> =
        behind.iter().flat_map(|statement| units(statement, table, require)).collect();
    // The runtime ends with the last part that gives the require function something; without a
    // require function there is no runtime.
    let end = units.iter().rposition(|(_, runs)| *runs).map_or(0, |at| at + 1);
    let spans: Vec<Span> = units[end..].iter().map(|(span, _)| *span).collect();
    match (spans.as_slice(), behind.last()) {
        // An entry that stands in a function of its own.
        ([only], Some(Statement::ExpressionStatement(statement))) => {
            let last = match &statement.expression {
                Expression::SequenceExpression(sequence) => sequence.expressions.last(),
                expression => Some(expression),
            };
            match last.and_then(called_at_once) {
                Some(body) if only.contains_inclusive(body.span) => units_of(body, require),
                _ => spans,
            }
        }
        _ => spans,
    }
}

/// The statements of the innermost function around the table that is called where it stands; without
/// a table, of the function that is all of the script.
fn around<'p, 'a>(program: &'p Program<'a>, table: Option<Span>) -> &'p [Statement<'a>] {
    let mut statements: &[Statement<'_>] = &program.body;
    loop {
        let around = statements.iter().find(|statement| match table {
            Some(table) => statement.span().contains_inclusive(table),
            None => statements.len() == 1,
        });
        let inner = match around {
            Some(Statement::ExpressionStatement(statement)) => {
                called_at_once(&statement.expression)
            }
            _ => None,
        };
        match inner {
            Some(inner) => statements = &inner.statements,
            None => return statements,
        }
    }
}

/// The parts of a statement behind the runtime, each with whether it is the runtime's.
fn units(
    statement: &Statement<'_>,
    table: Option<Span>,
    require: Option<&str>,
) -> Vec<(Span, bool)> {
    let runs = |expression: &Expression<'_>| require.is_some_and(|name| extends(expression, name));
    if let Statement::ExpressionStatement(statement) = statement {
        return match &statement.expression {
            Expression::SequenceExpression(sequence) => {
                sequence.expressions.iter().map(|part| (part.span(), runs(part))).collect()
            }
            expression => vec![(statement.span, runs(expression))],
        };
    }
    let is_require = matches!(statement, Statement::FunctionDeclaration(function)
        if function.id.as_ref().map(|id| id.name.as_str()) == require);
    let holds_table = |span: &Span| table.is_some_and(|table| span.contains_inclusive(table));
    split(statement)
        .into_iter()
        .flat_map(|(span, value)| own_parts(span, value, require))
        .map(|span| (span, is_require || holds_table(&span)))
        .collect()
}

/// The name of the runtime's require function, if this declares it: the one that makes a module's
/// `exports` object.
fn require_name(statement: &Statement<'_>) -> Option<String> {
    let Statement::FunctionDeclaration(function) = statement else { return None };
    let mut finder = MakesExports(false);
    finder.visit_function_body(function.body.as_deref()?);
    let name = function.id.as_ref()?.name.to_string();
    finder.0.then_some(name)
}

struct MakesExports(bool);

impl<'a> Visit<'a> for MakesExports {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        self.0 |= object.properties.iter().any(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                property.key.is_specific_static_name("exports")
                    && matches!(&property.value, Expression::ObjectExpression(object) if object.properties.is_empty())
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        });
    }
}

/// Whether an expression gives the require function a property, by itself or in a function that is
/// called at once.
fn extends(expression: &Expression<'_>, require: &str) -> bool {
    match expression.get_inner_expression() {
        Expression::AssignmentExpression(assignment) => {
            let target = match &assignment.left {
                AssignmentTarget::StaticMemberExpression(member) => is_of(&member.object, require),
                _ => false,
            };
            target || extends(&assignment.right, require)
        }
        Expression::SequenceExpression(sequence) => {
            sequence.expressions.iter().any(|part| extends(part, require))
        }
        expression => called_at_once(expression).is_some_and(|body| {
            body.statements.iter().any(|statement| match statement {
                Statement::ExpressionStatement(statement) => {
                    extends(&statement.expression, require)
                }
                Statement::VariableDeclaration(variables) => variables
                    .declarations
                    .iter()
                    .filter(|variable| matches!(variable.id, BindingPattern::BindingIdentifier(_)))
                    .filter_map(|variable| variable.init.as_ref())
                    .any(|init| extends(init, require)),
                _ => false,
            })
        }),
    }
}

/// Whether an expression is the require function, or a property of it.
fn is_of(object: &Expression<'_>, require: &str) -> bool {
    match object {
        Expression::Identifier(object) => object.name == require,
        Expression::StaticMemberExpression(member) => is_of(&member.object, require),
        _ => false,
    }
}
