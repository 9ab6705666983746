//! What only adds to a declaration, and namespace objects.

use super::getters::export_name;
use std::collections::HashMap;

use oxc_ast::ast::{
    Argument, AssignmentTarget, CallExpression, Expression, ModuleExportName, ObjectExpression,
    ObjectPropertyKind,
};
use oxc_span::{GetSpan, Span};
use oxc_syntax::{operator::AssignmentOperator, symbol::SymbolId};

use crate::{
    declarations::{
        collector::Collector,
        effects::is_enum,
        getters::{is_getters, is_module_literal, returned},
        layout::Item,
        node::{NodeKind, Use},
    },
    functions::function_body,
    span::range,
};

enum Definer {
    Here,
    Imported(SymbolId),
}

impl<'e, 'a> Collector<'e, 'a> {
    /// Joins statements to what they only add to.
    pub(super) fn attach(&mut self) {
        for statement in std::mem::take(&mut self.statements) {
            let parts: Vec<&'e Expression<'a>> = match statement.expression.get_inner_expression() {
                Expression::SequenceExpression(list) => list.expressions.iter().collect(),
                _ => vec![&statement.expression],
            };
            let mut items = Vec::new();
            for part in parts {
                let place = range(part.span());
                let node = self.attached(part).or_else(|| self.called(part));
                if let Some(node) = node {
                    self.out.owned.push((place.clone(), node));
                }
                items.push(Item { range: place, node });
            }
            if items.iter().any(|item| item.node.is_some()) {
                self.list(items, Some(range(statement.span)), None);
            }
        }
    }

    /// A call whose value nobody takes.
    pub(super) fn called(&mut self, part: &'e Expression<'a>) -> Option<usize> {
        let expression = part.get_inner_expression();
        let is_function = |callee| function_body(callee).is_some();
        match expression {
            Expression::CallExpression(call) if !is_function(&call.callee) => {}
            Expression::NewExpression(_) => {}
            _ => return None,
        }
        let effect = self.effects.of(expression)?;
        Some(self.node(NodeKind::Statement, "", range(part.span()), Some(effect)))
    }

    pub(super) fn attached(&mut self, part: &'e Expression<'a>) -> Option<usize> {
        match part.get_inner_expression() {
            Expression::AssignmentExpression(assignment)
                if assignment.operator == AssignmentOperator::Assign =>
            {
                let AssignmentTarget::StaticMemberExpression(member) = &assignment.left else {
                    return None;
                };
                let node = self.fresh_object(&member.object)?;
                let is_own = member.property.name != "__proto__";
                (is_own && self.effects.of(&assignment.right).is_none()).then_some(node)
            }
            Expression::CallExpression(call) => self.attached_call(call),
            _ => None,
        }
    }

    /// `X`, or `X.prototype`, of a fresh and steady name.
    pub(super) fn fresh_object(&self, object: &Expression<'a>) -> Option<usize> {
        let object = match object.get_inner_expression() {
            Expression::StaticMemberExpression(inner) if inner.property.name == "prototype" => {
                &inner.object
            }
            _ => object,
        };
        let (node, symbol) = self.node_of(object)?;
        (self.fresh.contains(&node) && self.is_steady(symbol)).then_some(node)
    }

    pub(super) fn attached_call(&mut self, call: &'e CallExpression<'a>) -> Option<usize> {
        let arguments = call.arguments.as_slice();
        let value = |at: usize| arguments.get(at).and_then(Argument::as_expression);
        // The function of an enum.
        if let (Some(Expression::LogicalExpression(logical)), 1) = (value(0), arguments.len()) {
            let (node, symbol) = self.node_of(&logical.left)?;
            let begins = self.empty.contains(&node) || self.fresh.contains(&node);
            // `X = {}` in the argument is the one write there may be.
            let references = self.semantic.scoping().get_resolved_references(symbol);
            let at = range(call.span);
            let is_inside = |span: Span| at.contains(&range(span).start);
            let is_steady = references
                .filter(|reference| reference.is_write())
                .all(|reference| is_inside(self.semantic.reference_span(reference)));
            let is_it = begins && is_steady && is_enum(call, &self.effects);
            return is_it.then_some(node);
        }
        let is_of = |method: &str| match call.callee.get_inner_expression() {
            Expression::StaticMemberExpression(member) => {
                member.property.name == method
                    && matches!(&member.object, Expression::Identifier(name)
                        if name.name != "Object" || !self.effects.is_global(name))
            }
            _ => false,
        };
        // `n.r(ns)` marks a namespace object.
        if is_of("r") && arguments.len() == 1 {
            let (node, _) = self.node_of(value(0)?)?;
            let is_it = self.empty.contains(&node);
            self.out.ignored.extend(is_it.then(|| value(0).map(|v| v.span().start)).flatten());
            return is_it.then_some(node);
        }
        if let Expression::StaticMemberExpression(member) = call.callee.get_inner_expression()
            && matches!(&member.object, Expression::Identifier(name) if name.name == "Object" && self.effects.is_global(name))
            && member.property.name == "defineProperty"
            && arguments.len() == 3
        {
            let node = self.fresh_object(value(0)?)?;
            let is_key =
                matches!(value(1)?, Expression::StringLiteral(key) if key.value != "__proto__");
            let Expression::ObjectExpression(descriptor) = value(2)?.get_inner_expression() else {
                return None;
            };
            return (is_key && self.effects.of_object(descriptor).is_none()).then_some(node);
        }
        // `define(ns, { a: () => a })`.
        let [_, Argument::ObjectExpression(table)] = arguments else { return None };
        let (node, symbol) = self.node_of(value(0)?)?;
        let is_new = self.empty.contains(&node) && !self.out.members.contains_key(&node);
        if !is_new || !self.is_steady(symbol) || !is_getters(table) {
            return None;
        }
        if !is_of("d") {
            match self.definer(&call.callee)? {
                Definer::Here => {}
                Definer::Imported(helper) => self.out.made_by.push((node, helper)),
            }
        }
        self.out.ignored.extend(value(0).map(|value| value.span().start));
        self.members(node, table);
        Some(node)
    }

    /// A function that defines getters on an object.
    fn definer(&self, callee: &Expression<'a>) -> Option<Definer> {
        let Expression::Identifier(name) = callee.get_inner_expression() else { return None };
        let symbol = self.symbol(name)?;
        let node = self.out.by_symbol.get(&symbol)?;
        if matches!(self.out.declared.nodes[*node].kind, NodeKind::Import { .. }) {
            return Some(Definer::Imported(symbol));
        }
        self.out.declared.nodes[*node].is_definer.then_some(Definer::Here)
    }

    /// `make({ a: () => a })`, or a literal without a prototype that is frozen.
    pub(super) fn namespace_value(
        &self,
        init: &'e Expression<'a>,
    ) -> Option<(&'e ObjectExpression<'a>, Option<SymbolId>)> {
        let Expression::CallExpression(call) = init.get_inner_expression() else { return None };
        if let Some(Argument::ObjectExpression(table)) = call.arguments.first()
            && call.arguments.len() <= 2
            && is_getters(table)
        {
            return match self.definer(&call.callee)? {
                Definer::Here => Some((table, None)),
                Definer::Imported(helper) => Some((table, Some(helper))),
            };
        }
        let mut inner = call;
        loop {
            let Expression::StaticMemberExpression(member) = inner.callee.get_inner_expression()
            else {
                return None;
            };
            let is_object = matches!(&member.object, Expression::Identifier(name)
                if name.name == "Object" && self.effects.is_global(name));
            if !is_object || !matches!(member.property.name.as_str(), "freeze" | "defineProperty") {
                return None;
            }
            match inner.arguments.first()? {
                Argument::CallExpression(next) => inner = next,
                Argument::ObjectExpression(table) if is_module_literal(table) => {
                    return Some((table, None));
                }
                _ => return None,
            }
        }
    }

    pub(super) fn members(&mut self, of: usize, table: &'e ObjectExpression<'a>) {
        let mut members = HashMap::new();
        let mut items = Vec::new();
        for property in &table.properties {
            let ObjectPropertyKind::ObjectProperty(property) = property else { continue };
            let place = range(property.span);
            let Some(key) = property.key.static_name().map(|key| key.to_string()) else { continue };
            if key == "__proto__" {
                items.push(Item { range: place, node: None });
                continue;
            }
            let kind = NodeKind::Member { of, key: key.clone() };
            let node = self.node(kind, &key, place.clone(), None);
            let value = returned(&property.value).unwrap_or(&property.value);
            if let Expression::Identifier(name) = value.get_inner_expression()
                && let Some(symbol) = self.symbol(name)
            {
                self.out.values.insert(node, symbol);
            }
            self.out.inner.push((place.clone(), node));
            items.push(Item { range: place, node: Some(node) });
            members.insert(key, node);
        }
        self.out.members.insert(of, members);
        self.list(items, None, Some(of));
    }

    /// Ties exported names to nodes.
    pub(super) fn export(&mut self) {
        for (specifiers, span) in std::mem::take(&mut self.exported) {
            let mut items = Vec::new();
            for specifier in specifiers {
                let node = match &specifier.local {
                    ModuleExportName::IdentifierReference(name) => {
                        self.out.ignored.insert(name.span.start);
                        let symbol = self.symbol(name);
                        symbol.and_then(|symbol| self.out.by_symbol.get(&symbol).copied())
                    }
                    _ => None,
                };
                if let Some(node) = node {
                    let exported = export_name(&specifier.exported);
                    self.out.declared.exports.push((exported, Use::Node(node)));
                }
                items.push(Item { range: range(specifier.span), node });
            }
            self.list(items, Some(range(span)), None);
        }
    }
}
