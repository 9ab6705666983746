//! CommonJS modules, as libraries ship them: `require("./a.cjs")` between files; on demand where a
//! promise comes first, `Promise.resolve().then(function(){return require("./a.cjs")})`.

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{
        Argument, AssignmentTarget, CallExpression, Expression, Program, Statement,
        VariableDeclaration,
    },
};

use super::format::{Found, ScriptFormat};

/// Modules that are required.
#[derive(Default)]
pub struct CommonJs {
    is_it: bool,
    /// Where the last callback of a promise ends.
    deferred_end: u32,
}

impl ScriptFormat for CommonJs {
    fn format(&self) -> Format {
        Format::CommonJs
    }

    fn recognises(&self, script: &Script<'_>) -> bool {
        self.is_it && !script.is_module
    }

    /// Only what stands at the top level tells: a script for browsers may know several ways.
    fn program(&mut self, program: &Program<'_>, _: &mut Found) {
        self.is_it = program.body.iter().any(|statement| match statement {
            Statement::VariableDeclaration(variables) => requires(variables),
            Statement::ExpressionStatement(statement) => exports(&statement.expression),
            _ => false,
        });
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        if !self.is_it {
            return;
        }
        if let Expression::StaticMemberExpression(callee) = &call.callee
            && callee.property.name == "then"
        {
            self.deferred_end = self.deferred_end.max(call.span.end);
            return;
        }
        let Some(request) = required(call).filter(|request| request.starts_with('.')) else {
            return;
        };
        if found.is_in_function() && call.span.start < self.deferred_end {
            found.imports.push(found.asked(request.to_owned(), call.span));
        } else {
            found.load(request);
        }
    }
}

fn required<'e>(call: &'e CallExpression<'_>) -> Option<&'e str> {
    match (&call.callee, call.arguments.as_slice()) {
        (Expression::Identifier(name), [Argument::StringLiteral(text)])
            if name.name == "require" =>
        {
            Some(text.value.as_str())
        }
        _ => None,
    }
}

fn requires(variables: &VariableDeclaration<'_>) -> bool {
    variables.declarations.iter().any(|variable| {
        matches!(&variable.init, Some(Expression::CallExpression(call)) if required(call).is_some())
    })
}

/// `exports.a = …`, `module.exports = …`, `Object.defineProperty(exports, …)`, one of these among
/// others in a sequence, or a bare `require("./a.cjs")`.
fn exports(expression: &Expression<'_>) -> bool {
    let is_name = |expression: &Expression<'_>| match expression {
        Expression::Identifier(name) => matches!(name.name.as_str(), "exports" | "module"),
        _ => false,
    };
    match expression {
        Expression::SequenceExpression(sequence) => sequence.expressions.iter().any(exports),
        Expression::AssignmentExpression(assignment) => match &assignment.left {
            AssignmentTarget::StaticMemberExpression(member) => match &member.object {
                Expression::StaticMemberExpression(inner) => is_name(&inner.object),
                object => is_name(object),
            },
            _ => false,
        },
        Expression::CallExpression(call) => {
            let first = call.arguments.first().and_then(Argument::as_expression);
            required(call).is_some_and(|request| request.starts_with('.'))
                || first.is_some_and(is_name)
        }
        _ => false,
    }
}
