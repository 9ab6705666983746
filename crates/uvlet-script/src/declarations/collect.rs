//! What stands at the level of modules, statement by statement.

use super::getters::export_name;
use std::{
    cell::Cell,
    collections::{HashMap, HashSet},
    ops::Range,
};

use oxc_ast::ast::{
    Argument, ArrayExpressionElement, BindingIdentifier, BindingPattern, Class, Declaration,
    Expression, Function, FunctionBody, ImportDeclaration, ImportDeclarationSpecifier,
    ObjectPropertyKind, PropertyKind, Statement, VariableDeclaration,
};
use oxc_ast_visit::Visit;
use oxc_semantic::Semantic;
use oxc_span::{GetSpan, Span};

use crate::{
    declarations::{
        collector::{Collected, Collector},
        effects::{Effects, is_fresh, is_fresh_class},
        getters::{defines_getters, uses_this},
        layout::Item,
        node::{Declared, NodeKind, Use},
        opaque::Opaque,
    },
    functions::function_body,
    parse::Script,
    span::range,
};

/// Collects what a script declares.
pub(super) fn collect<'e, 'a>(
    script: &'e Script<'a>,
    semantic: &'e Semantic<'a>,
    top_is_level: bool,
) -> Collected {
    let effects = Effects { scoping: semantic.scoping(), believed: Cell::new(false) };
    let mut collector = Collector {
        text: script.text,
        semantic,
        effects,
        fresh: HashSet::new(),
        empty: HashSet::new(),
        statements: Vec::new(),
        exported: Vec::new(),
        out: Collected {
            declared: Declared::default(),
            by_symbol: HashMap::new(),
            owned: Vec::new(),
            inner: Vec::new(),
            members: HashMap::new(),
            values: HashMap::new(),
            made_by: Vec::new(),
            ignored: HashSet::new(),
            with_this: HashSet::new(),
            starts: Vec::new(),
            kept: Vec::new(),
        },
    };
    collector.level(&script.program.body, top_is_level);
    collector.attach();
    collector.export();
    let mut opaque = Opaque { found: false, semantic };
    opaque.visit_program(&script.program);
    collector.out.declared.is_opaque = opaque.found;
    collector.out.owned.sort_by_key(|(range, _)| range.start);
    collector.out.inner.sort_by_key(|(range, _)| range.start);
    collector.out
}

impl<'e, 'a> Collector<'e, 'a> {
    pub(super) fn level(&mut self, statements: &'e [Statement<'a>], is_level: bool) {
        for statement in statements {
            match statement {
                Statement::ExpressionStatement(one) => {
                    self.expression(&one.expression);
                    if is_level {
                        self.statements.push(one);
                    }
                }
                Statement::FunctionDeclaration(function) if is_level => {
                    self.function(function, range(function.span));
                }
                Statement::ClassDeclaration(class) if is_level => {
                    self.class(class, range(class.span));
                }
                Statement::VariableDeclaration(variables) => {
                    for declarator in &variables.declarations {
                        declarator.init.iter().for_each(|init| self.tables(init));
                    }
                    if is_level {
                        self.variables(variables, range(variables.span));
                    }
                }
                Statement::ImportDeclaration(import) => self.import(import),
                Statement::ExportNamedDeclaration(export) => {
                    self.exported.push((export.specifiers.as_slice(), export.span));
                }
                Statement::ExportFromDeclaration(export) => {
                    let request = export.source.value.to_string();
                    let mut items = Vec::new();
                    for specifier in &export.specifiers {
                        let name = Some(export_name(&specifier.local));
                        let kind = NodeKind::Import { request: request.clone(), name };
                        let node = self.node(kind, "", range(specifier.span), None);
                        items.push(Item { range: range(specifier.span), node: Some(node) });
                        let exported = export_name(&specifier.exported);
                        self.out.declared.exports.push((exported, Use::Node(node)));
                    }
                    self.list(items, None, None);
                }
                Statement::ExportAllDeclaration(export) => {
                    let request = export.source.value.to_string();
                    match &export.exported {
                        None => self.out.declared.hands_on.push(request),
                        Some(_) => {
                            let kind = NodeKind::Import { request, name: None };
                            let node = self.node(kind, "", range(export.span), None);
                            self.out.kept.push(node);
                        }
                    }
                }
                Statement::ExportDeclaration(export) => {
                    self.exported_declaration(export.span, &export.declaration)
                }
                _ => {}
            }
        }
    }

    /// A declaration that is exported where it stands.
    pub(super) fn exported_declaration(&mut self, span: Span, declaration: &'e Declaration<'a>) {
        let before = self.out.declared.nodes.len();
        match declaration {
            Declaration::FunctionDeclaration(function) => self.function(function, range(span)),
            Declaration::ClassDeclaration(class) => self.class(class, range(span)),
            Declaration::VariableDeclaration(variables) => self.variables(variables, range(span)),
            _ => {}
        }
        for node in before..self.out.declared.nodes.len() {
            let name = self.out.declared.nodes[node].name.clone();
            self.out.declared.exports.push((name, Use::Node(node)));
        }
    }

    pub(super) fn function(&mut self, function: &'e Function<'a>, place: Range<usize>) {
        let Some(id) = function.id.as_ref().filter(|_| function.body.is_some()) else { return };
        let start = range(function.span).start;
        if let Some(node) = self.named(NodeKind::Function, id, start, None) {
            self.out.declared.nodes[node].is_definer = defines_getters(&self.text[place.clone()]);
            if uses_this(function) {
                self.out.with_this.insert(node);
            }
            self.fresh.insert(node);
            self.single(node, place);
        }
    }

    pub(super) fn class(&mut self, class: &'e Class<'a>, place: Range<usize>) {
        let Some(id) = &class.id else { return };
        let effect = self.effects.of_class(class);
        let start = range(class.span).start;
        if let Some(node) = self.named(NodeKind::Class, id, start, effect) {
            if is_fresh_class(class) {
                self.fresh.insert(node);
            }
            self.single(node, place);
        }
    }

    pub(super) fn variables(
        &mut self,
        variables: &'e VariableDeclaration<'a>,
        whole: Range<usize>,
    ) {
        if variables.kind.is_using() || variables.declare {
            return;
        }
        let mut items = Vec::new();
        for declarator in &variables.declarations {
            let place = range(declarator.span);
            let node = match &declarator.id {
                BindingPattern::BindingIdentifier(id) => {
                    self.variable(id, declarator.init.as_ref(), &place)
                }
                _ => None,
            };
            items.push(Item { range: place, node });
        }
        self.list(items, Some(whole), None);
    }

    pub(super) fn variable(
        &mut self,
        id: &BindingIdentifier<'a>,
        init: Option<&'e Expression<'a>>,
        place: &Range<usize>,
    ) -> Option<usize> {
        if init.is_some_and(|init| self.is_table(init)) {
            return None;
        }
        let table = init.and_then(|init| self.namespace_value(init));
        let effect = match &table {
            Some(_) => None,
            None => init.and_then(|init| self.effects.of(init)),
        };
        let node = self.named(NodeKind::Variable, id, place.start, effect)?;
        self.out.owned.push((place.clone(), node));
        match (init.map(Expression::get_inner_expression), table) {
            (_, Some((table, helper))) => {
                self.members(node, table);
                self.out.made_by.extend(helper.map(|helper| (node, helper)));
            }
            (None, None) => {
                self.empty.insert(node);
            }
            (Some(init), None) => {
                self.out.declared.nodes[node].is_definer = crate::functions::is_function(init)
                    && defines_getters(&self.text[place.clone()]);
                if let Expression::FunctionExpression(function) = init
                    && uses_this(function)
                {
                    self.out.with_this.insert(node);
                }
                if matches!(init, Expression::ObjectExpression(object) if object.properties.is_empty())
                {
                    self.empty.insert(node);
                }
                if is_fresh(init) {
                    self.fresh.insert(node);
                }
            }
        }
        Some(node)
    }

    pub(super) fn import(&mut self, import: &'e ImportDeclaration<'a>) {
        let request = import.source.value.to_string();
        if import.specifiers.is_none() {
            self.out.declared.bare.push(request);
            return;
        }
        let specifiers = import.specifiers.as_ref().map(|list| list.as_slice()).unwrap_or_default();
        let is_like = specifiers
            .iter()
            .all(|one| matches!(one, ImportDeclarationSpecifier::ImportSpecifier(_)));
        let mut items = Vec::new();
        for specifier in specifiers {
            let (id, name) = match specifier {
                ImportDeclarationSpecifier::ImportSpecifier(one) => {
                    (&one.local, Some(export_name(&one.imported)))
                }
                ImportDeclarationSpecifier::ImportDefaultSpecifier(one) => {
                    (&one.local, Some("default".to_owned()))
                }
                ImportDeclarationSpecifier::ImportNamespaceSpecifier(one) => (&one.local, None),
            };
            let kind = NodeKind::Import { request: request.clone(), name };
            let place = range(specifier.span());
            let Some(node) = self.named(kind, id, place.start, None) else { continue };
            // Of lists in two parts none is cut.
            if !is_like && specifiers.len() > 1 {
                self.out.kept.push(node);
            }
            items.push(Item { range: place, node: Some(node) });
        }
        const IMPORT: usize = "import".len();
        let from = range(import.span).start + IMPORT..range(import.source.span).start;
        self.list(items, Some(from), None);
    }

    /// What runs as the script does: bodies of functions that are called where they stand, and tables.
    pub(super) fn expression(&mut self, expression: &'e Expression<'a>) {
        match expression.get_inner_expression() {
            Expression::SequenceExpression(list) => {
                list.expressions.iter().for_each(|one| self.expression(one));
            }
            Expression::UnaryExpression(unary) => self.expression(&unary.argument),
            Expression::CallExpression(call) => {
                if let Some(body) = function_body(&call.callee) {
                    self.level(&body.statements, true);
                }
                for argument in &call.arguments {
                    if let Argument::ArrayExpression(list) = argument {
                        for element in &list.elements {
                            element.as_expression().into_iter().for_each(|one| self.tables(one));
                        }
                    }
                }
            }
            Expression::AssignmentExpression(assignment) => self.tables(&assignment.right),
            _ => {}
        }
    }

    /// Bodies of the functions that are rows of a table of modules.
    pub(super) fn tables(&mut self, expression: &'e Expression<'a>) {
        let rows: Vec<&'e FunctionBody<'a>> = match expression.get_inner_expression() {
            Expression::ObjectExpression(object) => object
                .properties
                .iter()
                .filter_map(|property| match property {
                    ObjectPropertyKind::ObjectProperty(property) => function_body(&property.value),
                    ObjectPropertyKind::SpreadProperty(_) => None,
                })
                .collect(),
            Expression::ArrayExpression(list) => list
                .elements
                .iter()
                .filter_map(|element| function_body(element.as_expression()?))
                .collect(),
            // One row of a flat list.
            row => function_body(row).into_iter().collect(),
        };
        if self.is_table(expression)
            || !matches!(
                expression.get_inner_expression(),
                Expression::ObjectExpression(_) | Expression::ArrayExpression(_)
            )
        {
            for body in rows {
                self.level(&body.statements, true);
            }
        }
    }

    /// An object or a list of functions with bodies.
    pub(super) fn is_table(&self, expression: &Expression<'a>) -> bool {
        match expression.get_inner_expression() {
            Expression::ObjectExpression(object) => {
                !object.properties.is_empty()
                    && object.properties.iter().all(|property| match property {
                        ObjectPropertyKind::ObjectProperty(property) => {
                            property.kind == PropertyKind::Init
                                && function_body(&property.value).is_some()
                        }
                        ObjectPropertyKind::SpreadProperty(_) => false,
                    })
            }
            Expression::ArrayExpression(list) => {
                let is_row = |element: &ArrayExpressionElement<'a>| match element {
                    ArrayExpressionElement::Elision(_) => true,
                    element => {
                        element.as_expression().is_some_and(|one| function_body(one).is_some())
                    }
                };
                !list.elements.is_empty() && list.elements.iter().all(is_row)
            }
            _ => false,
        }
    }
}
