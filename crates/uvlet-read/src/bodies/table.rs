//! The table of module functions: the outermost literal of functions whose keys are mostly known ids.

use std::collections::{HashMap, HashSet};

use oxc_ast::ast::{
    ArrayExpression, ArrayExpressionElement, BindingPattern, Expression, ObjectExpression,
    ObjectPropertyKind, PropertyKey,
};
use oxc_ast_visit::{Visit, walk};
use oxc_span::{GetSpan, Span};

use super::units::{function_body, units_of};
use crate::told::Slot;

/// A module function in the table.
pub struct Row<'s> {
    pub slot: &'s Slot,
    /// What stands between its brackets.
    pub body: Span,
    /// The parts of its body that are not the bundler's.
    pub units: Vec<Span>,
}

/// Finds the module table: the outermost literal of functions whose keys are mostly known ids.
pub struct Finder<'s> {
    pub by_id: &'s HashMap<&'s str, &'s Slot>,
    /// Modules with `require` calls of their own.
    pub requires: &'s HashSet<usize>,
    pub table: Vec<Row<'s>>,
    pub found: Option<Span>,
}

impl<'s> Finder<'s> {
    fn take<'a, 'e>(
        &mut self,
        span: Span,
        entries: impl Iterator<Item = Option<(String, &'e Expression<'a>)>>,
    ) -> bool
    where
        'a: 'e,
    {
        let mut rows = Vec::new();
        let mut strangers = 0;
        for entry in entries {
            let Some((key, value)) = entry else { return false };
            let inner = value.get_inner_expression();
            if !matches!(
                inner,
                Expression::FunctionExpression(_) | Expression::ArrowFunctionExpression(_)
            ) {
                return false;
            }
            match self.by_id.get(key.as_str()) {
                Some(slot) => {
                    let keeps = slot.modules.iter().any(|module| self.requires.contains(module));
                    rows.push(row(slot, inner, keeps));
                }
                None => strangers += 1,
            }
        }
        if rows.is_empty() || rows.len() < strangers {
            return false;
        }
        self.table.append(&mut rows);
        self.found.get_or_insert(span);
        true
    }
}

impl<'a> Visit<'a> for Finder<'_> {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let entries = object.properties.iter().map(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                let key = match &property.key {
                    PropertyKey::NumericLiteral(id) => id.value.to_string(),
                    PropertyKey::StringLiteral(id) => id.value.to_string(),
                    PropertyKey::StaticIdentifier(id) => id.name.to_string(),
                    _ => return None,
                };
                Some((key, &property.value))
            }
            ObjectPropertyKind::SpreadProperty(_) => None,
        });
        if !self.take(object.span, entries) {
            walk::walk_object_expression(self, object);
        }
    }

    fn visit_array_expression(&mut self, array: &ArrayExpression<'a>) {
        let entries = array
            .elements
            .iter()
            .enumerate()
            .filter(|(_, element)| !matches!(element, ArrayExpressionElement::Elision(_)))
            .map(|(at, element)| Some((at.to_string(), element.as_expression()?)));
        if !self.take(array.span, entries) {
            walk::walk_array_expression(self, array);
        }
    }
}

/// A row of the table. `keeps` tells that `require` calls are the module's own.
fn row<'s>(slot: &'s Slot, function: &Expression<'_>, keeps: bool) -> Row<'s> {
    let Some(body) = function_body(function) else {
        return Row { slot, body: function.span(), units: vec![function.span()] };
    };
    let within = Span::new(body.span.start + 1, body.span.end.saturating_sub(1));
    let require = third_parameter(function).filter(|_| !keeps);
    Row { slot, body: within, units: units_of(body, require) }
}

/// The name that a module function gives the require function.
fn third_parameter<'e>(function: &'e Expression<'_>) -> Option<&'e str> {
    let parameters = match function {
        Expression::FunctionExpression(function) => &function.params,
        Expression::ArrowFunctionExpression(arrow) => &arrow.params,
        _ => return None,
    };
    match &parameters.items.get(2)?.pattern {
        BindingPattern::BindingIdentifier(name) => Some(name.name.as_str()),
        _ => None,
    }
}
