//! What stands at the level of modules: declarations, what is attached to them, namespace objects.

use std::{
    cell::Cell,
    collections::{HashMap, HashSet},
    ops::Range,
};

use oxc_ast::ast::{
    Argument, ArrayExpressionElement, ArrowFunctionBody, AssignmentTarget, BindingIdentifier,
    BindingPattern, CallExpression, Class, Declaration, ExportSpecifier, Expression,
    ExpressionStatement, Function, FunctionBody, IdentifierReference, ImportDeclaration,
    ImportDeclarationSpecifier, ModuleExportName, ObjectExpression, ObjectPropertyKind,
    PropertyKind, Statement, ThisExpression, VariableDeclaration,
};
use oxc_ast_visit::{Visit, walk};
use oxc_semantic::Semantic;
use oxc_span::{GetSpan, Span};
use oxc_syntax::{operator::AssignmentOperator, scope::ScopeFlags, symbol::SymbolId};

use crate::{
    declarations::{
        effects::{Effect, Effects, is_enum, is_fresh, is_fresh_class},
        layout::{Item, List},
        node::{Declared, Node, NodeKind, SourceDeclaration, Use},
    },
    functions::function_body,
    parse::Script,
    span::range,
};

/// What was collected.
pub(super) struct Collected {
    pub declared: Declared,
    pub by_symbol: HashMap<SymbolId, usize>,
    /// Bytes inside which a node is the one that uses. These do not overlap.
    pub owned: Vec<(Range<usize>, usize)>,
    /// The same of members, inside those.
    pub inner: Vec<(Range<usize>, usize)>,
    /// Members of namespace objects by name.
    pub members: HashMap<usize, HashMap<String, usize>>,
    /// The symbol that a member stands for.
    pub values: HashMap<usize, SymbolId>,
    /// Namespace objects that imported helpers make, with the helper.
    pub made_by: Vec<(usize, SymbolId)>,
    /// References that are no uses, by their first bytes.
    pub ignored: HashSet<u32>,
    /// Functions that use `this`.
    pub with_this: HashSet<usize>,
    /// First bytes of declarations, by node.
    starts: Vec<usize>,
    /// Nodes that are used whatever else is true.
    pub kept: Vec<usize>,
}

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

impl Collected {
    pub(super) fn in_source(self) -> Vec<SourceDeclaration> {
        let nodes = self.declared.nodes.into_iter().enumerate();
        let nodes = nodes.filter(|(_, node)| {
            matches!(node.kind, NodeKind::Function | NodeKind::Class | NodeKind::Variable)
        });
        nodes
            .map(|(at, node)| {
                let own = self.owned.iter().find(|(_, of)| *of == at);
                SourceDeclaration {
                    is_variable: node.kind == NodeKind::Variable,
                    head: node.head..node.head + node.name.len(),
                    start: self.starts[at],
                    range: own.map_or(0..0, |(range, _)| range.clone()),
                    name: node.name,
                    effect: node.effect,
                    is_believed: node.is_believed,
                }
            })
            .collect()
    }
}

struct Collector<'e, 'a> {
    text: &'e str,
    semantic: &'e Semantic<'a>,
    effects: Effects<'e>,
    /// Nodes whose value is made where they are declared.
    fresh: HashSet<usize>,
    /// Nodes that begin as `{}`, or as nothing.
    empty: HashSet<usize>,
    /// Expression statements of all levels.
    statements: Vec<&'e ExpressionStatement<'a>>,
    /// Lists of exports.
    exported: Vec<(&'e [ExportSpecifier<'a>], Span)>,
    out: Collected,
}

/// `a` of `export { a as b }`, as a name.
fn export_name(name: &ModuleExportName<'_>) -> String {
    name.name().to_string()
}

impl<'e, 'a> Collector<'e, 'a> {
    fn level(&mut self, statements: &'e [Statement<'a>], is_level: bool) {
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
    fn exported_declaration(&mut self, span: Span, declaration: &'e Declaration<'a>) {
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

    fn node(
        &mut self,
        kind: NodeKind,
        name: &str,
        place: Range<usize>,
        effect: Option<Effect>,
    ) -> usize {
        let is_believed = self.effects.believed.take();
        let head = place.start;
        let name = name.to_owned();
        let uses = Vec::new();
        self.out.declared.nodes.push(Node {
            kind,
            name,
            head,
            effect,
            is_believed,
            is_definer: false,
            is_without_this: false,
            uses,
        });
        self.out.starts.push(head);
        self.out.declared.nodes.len() - 1
    }

    /// A node for a name. One that is declared again is the same node.
    fn named(
        &mut self,
        kind: NodeKind,
        id: &BindingIdentifier<'a>,
        start: usize,
        effect: Option<Effect>,
    ) -> Option<usize> {
        let symbol = id.symbol_id.get()?;
        if let Some(&known) = self.out.by_symbol.get(&symbol) {
            let node = &mut self.out.declared.nodes[known];
            node.effect = node.effect.or(effect);
            self.fresh.remove(&known);
            self.empty.remove(&known);
            return Some(known);
        }
        let node = self.node(kind, id.name.as_str(), range(id.span), effect);
        self.out.starts[node] = start;
        self.out.by_symbol.insert(symbol, node);
        Some(node)
    }

    fn list(&mut self, items: Vec<Item>, whole: Option<Range<usize>>, inside: Option<usize>) {
        self.out.declared.layout.lists.push(List { items, whole, inside });
    }

    /// Something that stands by itself.
    fn single(&mut self, node: usize, place: Range<usize>) {
        self.out.owned.push((place.clone(), node));
        self.list(vec![Item { range: place.clone(), node: Some(node) }], Some(place), None);
    }

    fn function(&mut self, function: &'e Function<'a>, place: Range<usize>) {
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

    fn class(&mut self, class: &'e Class<'a>, place: Range<usize>) {
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

    fn variables(&mut self, variables: &'e VariableDeclaration<'a>, whole: Range<usize>) {
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

    fn variable(
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

    fn import(&mut self, import: &'e ImportDeclaration<'a>) {
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
    fn expression(&mut self, expression: &'e Expression<'a>) {
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
    fn tables(&mut self, expression: &'e Expression<'a>) {
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
    fn is_table(&self, expression: &Expression<'a>) -> bool {
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

    fn symbol(&self, name: &IdentifierReference<'a>) -> Option<SymbolId> {
        self.semantic.scoping().get_reference(name.reference_id.get()?).symbol_id()
    }

    fn node_of(&self, expression: &Expression<'a>) -> Option<(usize, SymbolId)> {
        let Expression::Identifier(name) = expression.get_inner_expression() else { return None };
        let symbol = self.symbol(name)?;
        Some((*self.out.by_symbol.get(&symbol)?, symbol))
    }

    /// Whether a name keeps the value that it is declared with.
    fn is_steady(&self, symbol: SymbolId) -> bool {
        let references = self.semantic.scoping().get_resolved_references(symbol);
        !references.into_iter().any(|reference| reference.is_write())
    }

    /// Joins statements to what they only add to.
    fn attach(&mut self) {
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
    fn called(&mut self, part: &'e Expression<'a>) -> Option<usize> {
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

    fn attached(&mut self, part: &'e Expression<'a>) -> Option<usize> {
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
    fn fresh_object(&self, object: &Expression<'a>) -> Option<usize> {
        let object = match object.get_inner_expression() {
            Expression::StaticMemberExpression(inner) if inner.property.name == "prototype" => {
                &inner.object
            }
            _ => object,
        };
        let (node, symbol) = self.node_of(object)?;
        (self.fresh.contains(&node) && self.is_steady(symbol)).then_some(node)
    }

    fn attached_call(&mut self, call: &'e CallExpression<'a>) -> Option<usize> {
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
    fn namespace_value(
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

    fn members(&mut self, of: usize, table: &'e ObjectExpression<'a>) {
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
    fn export(&mut self) {
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

enum Definer {
    Here,
    Imported(SymbolId),
}

/// Whether a function's text gives an object a getter for each key of another.
fn defines_getters(text: &str) -> bool {
    let text: String = text.chars().filter(|c| *c != ' ' && *c != '\n' && *c != '\t').collect();
    text.contains("get:") && text.contains("for(") && text.len() < 600
}

/// Every value is a function without parameters that gives something.
fn is_getters(table: &ObjectExpression<'_>) -> bool {
    !table.properties.is_empty()
        && table.properties.iter().all(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                property.key.static_name().is_some() && returned(&property.value).is_some()
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        })
}

/// `{ __proto__: null, a, b: c }`: names alone.
fn is_module_literal(table: &ObjectExpression<'_>) -> bool {
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
fn returned<'e, 'a>(value: &'e Expression<'a>) -> Option<&'e Expression<'a>> {
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

fn uses_this(function: &Function<'_>) -> bool {
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

/// Looks for what uses names in ways that cannot be seen.
struct Opaque<'e, 'a> {
    found: bool,
    semantic: &'e Semantic<'a>,
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
