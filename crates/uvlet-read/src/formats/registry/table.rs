//! The table of module functions: the outermost literals of functions whose keys are mostly known
//! ids.

use std::collections::HashMap;

use uvlet_script::{
    GetSpan, Script, Span,
    ast::{
        ArrayExpression, ArrayExpressionElement, BindingPattern, Expression, ObjectExpression,
        ObjectPropertyKind,
    },
    functions::{function_body, is_function},
    visit::{Visit, walk},
};

use super::{super::file_names::key, units::units_of};

/// A module function in the table.
pub struct Row {
    /// Its place among the known ids.
    pub known: usize,
    /// What stands between its brackets.
    pub body: Span,
    /// The parts of its body that are not the bundler's.
    pub units: Vec<Span>,
}

/// The rows of a script whose ids are known.
pub struct Table {
    pub rows: Vec<Row>,
    /// Where the first literal stands.
    pub place: Option<Span>,
}

impl Table {
    /// Finds the rows with these ids. `keeps` tells that `require` calls in a row are its module's own.
    pub fn find(
        script: &Script<'_>,
        known: &HashMap<&str, usize>,
        keeps: &dyn Fn(usize) -> bool,
    ) -> Self {
        let table = Self { rows: Vec::new(), place: None };
        let mut finder = Finder { known, keeps, table };
        finder.visit_program(&script.program);
        finder.table
    }
}

struct Finder<'k> {
    known: &'k HashMap<&'k str, usize>,
    keeps: &'k dyn Fn(usize) -> bool,
    table: Table,
}

impl Finder<'_> {
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
            let Some((key, value)) = entry.filter(|(_, value)| is_function(value)) else {
                return false;
            };
            match self.known.get(key.as_str()) {
                Some(&known) => {
                    rows.push(row(known, value.get_inner_expression(), (self.keeps)(known)));
                }
                None => strangers += 1,
            }
        }
        if rows.is_empty() || rows.len() < strangers {
            return false;
        }
        self.table.rows.append(&mut rows);
        self.table.place.get_or_insert(span);
        true
    }
}

impl<'a> Visit<'a> for Finder<'_> {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let entries = object.properties.iter().map(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                Some((key(&property.key)?, &property.value))
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

fn row(known: usize, function: &Expression<'_>, keeps: bool) -> Row {
    let Some(body) = function_body(function) else {
        return Row { known, body: function.span(), units: vec![function.span()] };
    };
    let within = Span::new(body.span.start + 1, body.span.end.saturating_sub(1));
    let require = third_parameter(function).filter(|_| !keeps);
    Row { known, body: within, units: units_of(body, require) }
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
