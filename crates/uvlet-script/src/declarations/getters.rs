//! Names of exports, and shapes of functions and tables that bundlers make namespace objects with.

use oxc_ast::ast::{
    ArrowFunctionBody, Class, Expression, Function, ModuleExportName, ObjectExpression,
    ObjectPropertyKind, Statement, ThisExpression,
};
use oxc_ast_visit::{Visit, walk};
use oxc_syntax::scope::ScopeFlags;

/// Whether a function's text gives an object a getter for each key of another.
pub(super) fn defines_getters(text: &str) -> bool {
    let text: String = text.chars().filter(|c| *c != ' ' && *c != '\n' && *c != '\t').collect();
    text.contains("get:") && text.contains("for(") && text.len() < 600
}

/// Every value is a function without parameters that gives something.
pub(super) fn is_getters(table: &ObjectExpression<'_>) -> bool {
    !table.properties.is_empty()
        && table.properties.iter().all(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                property.key.static_name().is_some() && returned(&property.value).is_some()
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        })
}

/// `{ __proto__: null, a, b: c }`: names alone.
pub(super) fn is_module_literal(table: &ObjectExpression<'_>) -> bool {
    let mut properties = table.properties.iter();
    let is_bare = properties.next().is_some_and(|first| match first {
        ObjectPropertyKind::ObjectProperty(property) => {
            property.key.static_name().is_some_and(|name| name == "__proto__")
                && matches!(property.value, Expression::NullLiteral(_))
        }
        ObjectPropertyKind::SpreadProperty(_) => false,
    });
    is_bare
        && properties.all(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                property.key.static_name().is_some()
                    && matches!(property.value, Expression::Identifier(_))
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        })
}

/// What `() => a` gives.
pub(super) fn returned<'e, 'a>(value: &'e Expression<'a>) -> Option<&'e Expression<'a>> {
    let body = match value.get_inner_expression() {
        Expression::ArrowFunctionExpression(arrow) if arrow.params.items.is_empty() => {
            match &arrow.body {
                ArrowFunctionBody::FunctionBody(body) => body,
                body => return body.as_expression(),
            }
        }
        Expression::FunctionExpression(function) if function.params.items.is_empty() => {
            function.body.as_ref()?
        }
        _ => return None,
    };
    match body.statements.as_slice() {
        [Statement::ReturnStatement(one)] => one.argument.as_ref(),
        _ => None,
    }
}

pub(super) fn uses_this(function: &Function<'_>) -> bool {
    struct Finder(bool);
    impl<'a> Visit<'a> for Finder {
        fn visit_this_expression(&mut self, _: &ThisExpression) {
            self.0 = true;
        }
        fn visit_function(&mut self, _: &Function<'a>, _: ScopeFlags) {}
        fn visit_class(&mut self, _: &Class<'a>) {}
    }
    let mut finder = Finder(false);
    walk::walk_formal_parameters(&mut finder, &function.params);
    function.body.iter().for_each(|body| finder.visit_function_body(body));
    finder.0
}

/// `a` of `export { a as b }`, as a name.
pub(super) fn export_name(name: &ModuleExportName<'_>) -> String {
    name.name().to_string()
}
