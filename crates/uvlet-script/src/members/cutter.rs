//! Cuts a source into pieces, in one walk over its tree.

use std::collections::{BTreeMap, HashMap, HashSet};

use oxc_ast::ast::{
    Argument, AssignmentTarget, CallExpression, Class, Expression, ExpressionStatement, Function,
    IdentifierReference, ImportDeclaration, ImportDeclarationSpecifier, ObjectExpression,
    ObjectPropertyKind, Statement, StaticMemberExpression, VariableDeclarator,
};
use oxc_ast_visit::{Visit, walk};
use oxc_semantic::Scoping;
use oxc_span::{GetSpan, Span};
use oxc_syntax::{scope::ScopeFlags, symbol::SymbolId};

use crate::{
    members::{
        object::{Facts, Object, Start, is_exports, required, symbol},
        pieces::{Kind, Piece, Pieces, Use},
    },
    span::range,
};

/// What an assignment is to.
enum Target {
    Member(String),
    Of(SymbolId),
    Any,
}

struct Cutter<'s, 'f> {
    scoping: &'s Scoping,
    facts: &'f Facts<'s>,
    object: &'f Object,
    open: Vec<usize>,
    functions: Vec<Start>,
    out: Pieces,
}

/// Cuts a source.
pub(super) fn cut(
    program: &oxc_ast::ast::Program<'_>,
    scoping: &Scoping,
    facts: &Facts<'_>,
    object: &Object,
) -> Pieces {
    let whole =
        Piece { range: range(program.span), kind: Kind::Declared, parent: None, uses: Vec::new() };
    let mut cutter = Cutter {
        scoping,
        facts,
        object,
        open: vec![0],
        functions: Vec::new(),
        out: Pieces {
            list: vec![whole],
            by_symbol: HashMap::new(),
            by_key: BTreeMap::new(),
            levels: HashSet::from([0]),
            imports: HashMap::new(),
            is_open: false,
        },
    };
    cutter.visit_program(program);
    cutter.out
}

impl Cutter<'_, '_> {
    fn here(&self) -> usize {
        self.open.last().copied().unwrap_or_default()
    }

    fn function(&self) -> Start {
        self.functions.last().copied().unwrap_or_default()
    }

    /// A piece with what `inside` finds in it.
    fn piece(&mut self, kind: Kind, span: Span, inside: impl FnOnce(&mut Self)) -> usize {
        let parent = Some(self.here());
        self.out.list.push(Piece { range: range(span), kind, parent, uses: Vec::new() });
        let at = self.out.list.len() - 1;
        self.open.push(at);
        inside(self);
        self.open.pop();
        at
    }

    fn statement(&mut self, span: Span, inside: impl FnOnce(&mut Self)) {
        let piece = self.piece(Kind::Statement(self.function()), span, inside);
        self.uses(Use::Piece(piece));
    }

    fn uses(&mut self, used: Use) {
        let here = self.here();
        self.out.list[here].uses.push(used);
    }

    fn declared(&mut self, symbol: Option<SymbolId>, piece: usize) {
        let Some(symbol) = symbol else { return };
        self.out.by_symbol.entry(symbol).or_default().push(piece);
        if self.object.symbols.contains(&symbol) {
            self.out.levels.insert(self.function());
        }
    }

    fn member(&mut self, key: String, piece: usize) {
        self.out.levels.insert(self.function());
        self.out.by_key.entry(key).or_default().push(piece);
    }

    fn is_object(&self, expression: &Expression<'_>) -> bool {
        match expression.get_inner_expression() {
            Expression::Identifier(name) => match symbol(self.scoping, name) {
                Some(symbol) => self.object.symbols.contains(&symbol),
                None => is_exports(self.scoping, expression),
            },
            _ => is_exports(self.scoping, expression),
        }
    }

    /// What is added to by an assignment to a member of an expression.
    fn root(&self, of: &Expression<'_>, key: Option<&str>) -> Option<Target> {
        if self.is_object(of) {
            return key.map(|key| Target::Member(key.to_owned()));
        }
        match of.get_inner_expression() {
            Expression::Identifier(name) => symbol(self.scoping, name).map(Target::Of),
            Expression::StaticMemberExpression(inner) => {
                self.root(&inner.object, Some(inner.property.name.as_str()))
            }
            Expression::ComputedMemberExpression(inner) => self.root(&inner.object, None),
            _ => None,
        }
    }

    fn target(&self, target: &AssignmentTarget<'_>) -> Option<Target> {
        match target {
            AssignmentTarget::AssignmentTargetIdentifier(name) => {
                symbol(self.scoping, name).map(Target::Of)
            }
            AssignmentTarget::StaticMemberExpression(member) => {
                self.root(&member.object, Some(member.property.name.as_str()))
            }
            AssignmentTarget::ComputedMemberExpression(member) => {
                let key = match &member.expression {
                    Expression::StringLiteral(key) => Some(key.value.as_str()),
                    _ if is_exports(self.scoping, &member.object) => return Some(Target::Any),
                    _ => None,
                };
                self.root(&member.object, key)
            }
            _ => None,
        }
    }

    /// `a.x = a.y = value`, where that adds to names.
    fn assignment<'a>(&mut self, expression: &Expression<'a>, span: Span) -> bool {
        let mut targets = Vec::new();
        let mut value = expression.get_inner_expression();
        while let Expression::AssignmentExpression(assignment) = value {
            let Some(target) = self.target(&assignment.left) else { return false };
            targets.push(target);
            value = assignment.right.get_inner_expression();
        }
        if targets.is_empty() {
            return false;
        }
        let is_member = targets.iter().any(|target| matches!(target, Target::Member(_)));
        let kind = if is_member { Kind::Member } else { Kind::Declared };
        let piece = self.piece(kind, span, |cutter| cutter.visit_expression(value));
        for target in targets {
            match target {
                Target::Member(key) => self.member(key, piece),
                Target::Of(symbol) => self.declared(Some(symbol), piece),
                Target::Any => self.out.is_open = true,
            }
        }
        true
    }

    /// `assign(value, { a, b })`, and `value.extend({ a, b })`; and what may give out anything.
    fn call<'a>(&mut self, call: &CallExpression<'a>) -> bool {
        let callee = call.callee.get_inner_expression();
        let of = match callee {
            Expression::StaticMemberExpression(member) => Some(&member.object),
            _ => None,
        };
        let arguments: Vec<&Expression<'a>> =
            call.arguments.iter().filter_map(Argument::as_expression).collect();
        let is_on = of.is_some_and(|of| self.is_object(of));
        let is_given = arguments.iter().any(|value| self.is_object(value));
        if !is_on && !is_given {
            return false;
        }
        let mut has_members = false;
        for argument in &arguments {
            if let Expression::ObjectExpression(object) = argument.get_inner_expression()
                && object.properties.iter().all(is_named)
                && object.properties.iter().any(is_method)
            {
                has_members = true;
                self.members(object);
            }
        }
        if let (Some(first), [_, Expression::StringLiteral(key), value]) =
            (arguments.first(), arguments.as_slice())
            && self.is_object(first)
        {
            if key.value != "__esModule" {
                let piece = self.piece(Kind::Member, call.span, |cutter| {
                    cutter.visit_expression(value);
                });
                self.member(key.value.to_string(), piece);
            }
            return true;
        }
        // Helpers may give out anything by `exports`.
        let is_exported = arguments.iter().any(|value| is_exports(self.scoping, value));
        if is_exported && !has_members && !self.facts.is_of_here(callee) {
            self.out.is_open = true;
        }
        has_members
    }

    fn members<'a>(&mut self, object: &ObjectExpression<'a>) {
        for property in &object.properties {
            let ObjectPropertyKind::ObjectProperty(property) = property else {
                self.out.is_open = true;
                continue;
            };
            let piece = self.piece(Kind::Member, property.span, |cutter| {
                cutter.visit_expression(&property.value);
            });
            match property.key.static_name() {
                Some(key) => self.member(key.to_string(), piece),
                None => self.out.is_open = true,
            }
        }
    }
}

fn is_named(property: &ObjectPropertyKind<'_>) -> bool {
    matches!(property, ObjectPropertyKind::ObjectProperty(one) if !one.computed)
}

/// A function, or what a name stands for.
fn is_method(property: &ObjectPropertyKind<'_>) -> bool {
    matches!(property, ObjectPropertyKind::ObjectProperty(one) if
        matches!(one.value.get_inner_expression(),
            Expression::Identifier(_)
                | Expression::FunctionExpression(_)
                | Expression::ArrowFunctionExpression(_)
                | Expression::ClassExpression(_)))
}

impl<'a> Visit<'a> for Cutter<'_, '_> {
    fn visit_statement(&mut self, statement: &Statement<'a>) {
        let does_something = matches!(
            statement,
            Statement::IfStatement(_)
                | Statement::ForStatement(_)
                | Statement::ForInStatement(_)
                | Statement::ForOfStatement(_)
                | Statement::WhileStatement(_)
                | Statement::DoWhileStatement(_)
                | Statement::TryStatement(_)
                | Statement::SwitchStatement(_)
        );
        match does_something {
            true => self.statement(statement.span(), |cutter| {
                walk::walk_statement(cutter, statement);
            }),
            false => walk::walk_statement(self, statement),
        }
    }

    fn visit_expression_statement(&mut self, statement: &ExpressionStatement<'a>) {
        if self.assignment(&statement.expression, statement.span) {
            return;
        }
        self.statement(statement.span, |cutter| {
            let expression = statement.expression.get_inner_expression();
            let is_table =
                matches!(expression, Expression::CallExpression(call) if cutter.call(call));
            if !is_table {
                walk::walk_expression_statement(cutter, statement);
            }
        });
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        let inside = |cutter: &mut Self| {
            cutter.functions.push(function.span.start);
            walk::walk_function(cutter, function, flags);
            cutter.functions.pop();
        };
        if function.is_declaration() {
            let piece = self.piece(Kind::Declared, function.span, inside);
            self.declared(function.id.as_ref().and_then(|id| id.symbol_id.get()), piece);
        } else {
            inside(self);
        }
    }

    fn visit_arrow_function_expression(
        &mut self,
        arrow: &oxc_ast::ast::ArrowFunctionExpression<'a>,
    ) {
        self.functions.push(arrow.span.start);
        walk::walk_arrow_function_expression(self, arrow);
        self.functions.pop();
    }

    fn visit_class(&mut self, class: &Class<'a>) {
        if class.is_declaration() {
            let piece =
                self.piece(Kind::Declared, class.span, |cutter| walk::walk_class(cutter, class));
            self.declared(class.id.as_ref().and_then(|id| id.symbol_id.get()), piece);
        } else {
            walk::walk_class(self, class);
        }
    }

    fn visit_variable_declarator(&mut self, declarator: &VariableDeclarator<'a>) {
        let piece = self.piece(Kind::Declared, declarator.span, |cutter| {
            walk::walk_variable_declarator(cutter, declarator);
        });
        for id in declarator.id.get_binding_identifiers() {
            self.declared(id.symbol_id.get(), piece);
        }
    }

    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        match self.object.literals.contains(&object.span.start) {
            true => self.members(object),
            false => walk::walk_object_expression(self, object),
        }
    }

    fn visit_import_declaration(&mut self, import: &ImportDeclaration<'a>) {
        let request = import.source.value.to_string();
        for specifier in import.specifiers.iter().flatten() {
            let is_whole = match specifier {
                ImportDeclarationSpecifier::ImportSpecifier(one) => {
                    one.imported.name() == "default"
                }
                ImportDeclarationSpecifier::ImportDefaultSpecifier(_) => true,
                ImportDeclarationSpecifier::ImportNamespaceSpecifier(_) => false,
            };
            let piece = self.piece(Kind::Declared, specifier.span(), |_| {});
            if let Some(symbol) = specifier.local().symbol_id.get() {
                self.out.imports.insert(symbol, (request.clone(), is_whole));
                self.declared(Some(symbol), piece);
            }
        }
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        if let Some(request) = required(call) {
            self.uses(Use::Request(request, None));
            return;
        }
        walk::walk_call_expression(self, call);
    }

    fn visit_static_member_expression(&mut self, member: &StaticMemberExpression<'a>) {
        let key = member.property.name.to_string();
        if self.is_object(&member.object) {
            let used = Use::Member(key, self.function());
            self.uses(used);
            return;
        }
        if let Expression::Identifier(name) = &member.object
            && let Some(symbol) = symbol(self.scoping, name)
            && let Some((request, true)) = self.out.imports.get(&symbol)
        {
            let used = Use::Request(request.clone(), Some(key));
            self.uses(used);
            return;
        }
        walk::walk_static_member_expression(self, member);
    }

    fn visit_identifier_reference(&mut self, name: &IdentifierReference<'a>) {
        let Some(symbol) = symbol(self.scoping, name) else { return };
        if self.object.symbols.contains(&symbol) {
            return;
        }
        let used = match self.out.imports.get(&symbol) {
            Some((request, _)) => Use::Request(request.clone(), None),
            None => Use::Symbol(symbol),
        };
        self.uses(used);
    }
}
