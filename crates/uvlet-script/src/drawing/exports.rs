//! The components that a script gives to others.

use std::collections::BTreeMap;

use oxc_ast::{
    AstKind,
    ast::{
        Argument, ArrayExpressionElement, CallExpression, Declaration,
        ExportDefaultDeclarationKind, Expression, IdentifierReference, ModuleExportName,
        ObjectPropertyKind, Program, Statement,
    },
};
use oxc_semantic::NodeId;
use oxc_span::GetSpan;

use super::{
    components::{Components, Scope, returned},
    drawn::{Drawn, Export, passed_on},
    values::Value,
};

impl<'a> Components<'_, 'a> {
    /// What every exported component draws, where that is anything.
    pub fn exports(&self) -> BTreeMap<Export, Vec<Drawn>> {
        let mut exports = BTreeMap::new();
        for node in self.values.semantic.nodes() {
            match node.kind() {
                AstKind::Program(program) => self.of_module(program, &mut exports),
                AstKind::CallExpression(call) => {
                    for (name, value) in given_out(call) {
                        let module = self.module_around(node.id());
                        if let Some(module) = module
                            && let Some(draws) = self.component(value, Scope::outermost())
                        {
                            exports.insert((Some(module), name), draws);
                        }
                    }
                }
                _ => {}
            }
        }
        exports.retain(|_, draws: &mut Vec<Drawn>| !draws.is_empty());
        exports
    }

    fn of_module(&self, program: &'a Program<'a>, exports: &mut BTreeMap<Export, Vec<Drawn>>) {
        let scope = Scope::outermost();
        let mut add = |name: &str, draws: Option<Vec<Drawn>>| {
            exports.insert((None, name.to_owned()), draws.unwrap_or_default());
        };
        for statement in &program.body {
            match statement {
                Statement::ExportDefaultDeclaration(one) => match &one.declaration {
                    ExportDefaultDeclarationKind::FunctionDeclaration(function) => {
                        add("default", self.of_value(Value::Function(function), scope));
                    }
                    ExportDefaultDeclarationKind::ClassDeclaration(class) => {
                        add("default", self.of_value(Value::Class(class), scope));
                    }
                    value => {
                        let value = value.as_expression();
                        add("default", value.and_then(|value| self.component(value, scope)));
                    }
                },
                Statement::ExportNamedDeclaration(list) => {
                    for specifier in &list.specifiers {
                        if let ModuleExportName::IdentifierReference(local) = &specifier.local {
                            let name = specifier.exported.name();
                            let value = self.values.value(local);
                            let imported = || self.of_import(local);
                            let draws = value.and_then(|value| self.of_value(value, scope));
                            add(name.as_str(), draws.or_else(imported));
                        }
                    }
                }
                Statement::ExportFromDeclaration(list) => {
                    for specifier in &list.specifiers {
                        let (name, outside) = (specifier.local.name(), specifier.exported.name());
                        let request = list.source.value.to_string();
                        let name = name.to_string();
                        let one = Drawn::Imported { request, name, given: passed_on() };
                        add(outside.as_str(), Some(vec![one]));
                    }
                }
                Statement::ExportDeclaration(one) => match &one.declaration {
                    Declaration::FunctionDeclaration(function) => {
                        if let Some(name) = &function.id {
                            add(
                                name.name.as_str(),
                                self.of_value(Value::Function(function), scope),
                            );
                        }
                    }
                    Declaration::ClassDeclaration(class) => {
                        if let Some(name) = &class.id {
                            add(name.name.as_str(), self.of_value(Value::Class(class), scope));
                        }
                    }
                    Declaration::VariableDeclaration(list) => {
                        for variable in &list.declarations {
                            if let Some(name) = variable.id.get_binding_identifier() {
                                let value = variable.init.as_ref();
                                let draws = value.and_then(|value| self.component(value, scope));
                                add(name.name.as_str(), draws);
                            }
                        }
                    }
                    _ => {}
                },
                _ => {}
            }
        }
    }

    /// A name that is imported and given on.
    fn of_import(&self, name: &IdentifierReference<'a>) -> Option<Vec<Drawn>> {
        let (request, name) = self.values.imported_name(name)?;
        let (request, name) = (request.to_owned(), name.to_owned());
        Some(vec![Drawn::Imported { request, name, given: passed_on() }])
    }

    /// The id of the module of a table that a place is in.
    fn module_around(&self, id: NodeId) -> Option<String> {
        let nodes = self.values.semantic.nodes();
        let mut ancestors = nodes.ancestors(id).peekable();
        let mut found = None;
        while let Some(node) = ancestors.next() {
            let (AstKind::Function(_) | AstKind::ArrowFunctionExpression(_)) = node.kind() else {
                continue;
            };
            let function = node.kind().span();
            match ancestors.peek().map(|parent| parent.kind()) {
                Some(AstKind::ObjectProperty(property)) if property.value.span() == function => {
                    found = property.key.static_name().map(std::borrow::Cow::into_owned);
                }
                // A flat list: ids, each before its function.
                Some(AstKind::ArrayExpression(list)) => {
                    let place = list.elements.iter().position(|one| one.span() == function);
                    let before = place.and_then(|place| list.elements.get(place.checked_sub(1)?));
                    if let Some(ArrayExpressionElement::NumericLiteral(id)) = before {
                        found = id.raw.as_ref().map(|raw| raw.to_string());
                    }
                }
                _ => {}
            }
        }
        found
    }
}

/// What a call gives out of a module of a table: `n.d(t,{name:()=>value})`, or
/// `e.s(["name",0,value])`, `e.s(["name",()=>value])`.
fn given_out<'a>(call: &'a CallExpression<'a>) -> Vec<(String, &'a Expression<'a>)> {
    let Expression::StaticMemberExpression(member) = &call.callee else { return Vec::new() };
    match (member.property.name.as_str(), call.arguments.as_slice()) {
        ("d", [_, Argument::ObjectExpression(table)]) => {
            let rows = table.properties.iter().filter_map(|row| match row {
                ObjectPropertyKind::ObjectProperty(row) => {
                    Some((row.key.static_name()?.into_owned(), returned(&row.value)?))
                }
                ObjectPropertyKind::SpreadProperty(_) => None,
            });
            rows.collect()
        }
        ("s", [Argument::ArrayExpression(rows), ..]) => {
            let mut given = Vec::new();
            let mut rest = rows.elements.as_slice();
            while let [ArrayExpressionElement::StringLiteral(name), after @ ..] = rest {
                let value;
                (value, rest) = match after {
                    [ArrayExpressionElement::NumericLiteral(_), value, after @ ..] => {
                        (value.as_expression(), after)
                    }
                    [getter, after @ ..] => (getter.as_expression().and_then(returned), after),
                    [] => break,
                };
                given.extend(value.map(|value| (name.value.to_string(), value)));
            }
            given
        }
        _ => Vec::new(),
    }
}
