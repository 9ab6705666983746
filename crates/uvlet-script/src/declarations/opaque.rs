//! What uses names in ways that cannot be seen.

use oxc_ast::ast::{CallExpression, Expression};
use oxc_ast_visit::{Visit, walk};
use oxc_semantic::Semantic;

/// Looks for what uses names in ways that cannot be seen.
pub(super) struct Opaque<'e, 'a> {
    pub(super) found: bool,
    pub(super) semantic: &'e Semantic<'a>,
}

impl<'a> Visit<'a> for Opaque<'_, 'a> {
    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        if let Expression::Identifier(name) = &call.callee
            && name.name == "eval"
            && self.semantic.is_reference_to_global_variable(name)
        {
            self.found = true;
        }
        walk::walk_call_expression(self, call);
    }

    fn visit_with_statement(&mut self, _: &oxc_ast::ast::WithStatement<'a>) {
        self.found = true;
    }
}
