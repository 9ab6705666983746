//! States that are false at first, and where they are written.

use oxc_ast::{
    AstKind,
    ast::{ArrowFunctionBody, BindingPattern, Expression, ObjectPropertyKind, Statement},
};
use oxc_semantic::NodeId;
use oxc_span::GetSpan;
use oxc_syntax::{operator::LogicalOperator, symbol::SymbolId};

use super::tree::{Tree, block, is_false, is_first_false, name_called, property_name, returns};

/// Functions that make a state of a first value.
const MAKERS: [&str; 6] = ["useState", "ref", "shallowRef", "signal", "useSignal", "createSignal"];

/// Levels of a test's conjunctions that are looked at.
const DEEPEST: usize = 64;

/// A way in which a state is read.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Read {
    Itself,
    Value,
}

impl<'a> Tree<'_, 'a> {
    /// The states that a test needs to be true: each makes it false as long as it is false itself.
    pub fn states_tested(self, test: &Expression<'a>) -> Vec<SymbolId> {
        let mut found = Vec::new();
        let mut open = vec![(test, 0)];
        while let Some((test, depth)) = open.pop() {
            if depth > DEEPEST {
                continue;
            }
            match test.get_inner_expression() {
                Expression::LogicalExpression(both) if both.operator == LogicalOperator::And => {
                    open.push((&both.right, depth + 1));
                    open.push((&both.left, depth + 1));
                }
                Expression::UnaryExpression(not) if not.operator.is_not() => {
                    if let Expression::UnaryExpression(twice) = not.argument.get_inner_expression()
                        && twice.operator.is_not()
                    {
                        open.push((&twice.argument, depth + 1));
                    }
                }
                test => found.extend(self.state_read(test)),
            }
        }
        found
    }

    /// The states whose falsehood ends a function early: `if (!open) return null`. Each with the end
    /// of its statement, which what follows stands behind.
    pub fn early_returns(self, statements: &[Statement<'a>]) -> Vec<(u32, SymbolId)> {
        let mut found = Vec::new();
        for statement in statements {
            if let Statement::IfStatement(test) = statement
                && test.alternate.is_none()
                && returns(&test.consequent)
                && let Expression::UnaryExpression(not) = test.test.get_inner_expression()
                && not.operator.is_not()
                && let Some(state) = self.state_read(&not.argument)
            {
                found.push((test.span.end, state));
            }
        }
        found
    }

    fn state_read(self, test: &Expression<'a>) -> Option<SymbolId> {
        let (name, read) = match test.get_inner_expression() {
            Expression::Identifier(name) => (name, Read::Itself),
            Expression::StaticMemberExpression(member) if member.property.name == "value" => {
                match member.object.get_inner_expression() {
                    Expression::Identifier(name) => (name, Read::Value),
                    _ => return None,
                }
            }
            Expression::CallExpression(call) if call.arguments.is_empty() => {
                match call.callee.get_inner_expression() {
                    Expression::Identifier(name) => (name, Read::Itself),
                    _ => return None,
                }
            }
            _ => return None,
        };
        let symbol = self.symbol(name)?;
        let symbol = self.returned_value(symbol).unwrap_or(symbol);
        self.is_false_at_first(symbol, read).then_some(symbol)
    }

    /// Tells whether a name is a state whose first value is false.
    fn is_false_at_first(self, symbol: SymbolId, read: Read) -> bool {
        let AstKind::VariableDeclarator(variable) = self.kind(self.declaration(symbol)) else {
            return false;
        };
        let Some(Expression::CallExpression(call)) =
            variable.init.as_ref().map(Expression::get_inner_expression)
        else {
            return false;
        };
        let is_state = name_called(&call.callee).is_some_and(|maker| MAKERS.contains(&maker))
            && is_first_false(&call.arguments);
        is_state
            && match &variable.id {
                BindingPattern::ArrayPattern(pair) => {
                    read == Read::Itself
                        && pair.rest.is_none()
                        && matches!(pair.elements.as_slice(),
                            [Some(BindingPattern::BindingIdentifier(first))]
                            | [Some(BindingPattern::BindingIdentifier(first)), Some(BindingPattern::BindingIdentifier(_))]
                            if first.symbol_id() == symbol)
                }
                BindingPattern::BindingIdentifier(_) => read == Read::Value,
                _ => false,
            }
    }

    /// The places where a state may become true; none where they cannot be told.
    pub fn writes(self, state: SymbolId) -> Option<Vec<NodeId>> {
        let AstKind::VariableDeclarator(variable) = self.kind(self.declaration(state)) else {
            return None;
        };
        if let BindingPattern::ArrayPattern(pair) = &variable.id {
            let Some(Some(BindingPattern::BindingIdentifier(setter))) = pair.elements.get(1) else {
                return Some(Vec::new());
            };
            let setters = self.references(setter.symbol_id());
            return Some(setters.into_iter().filter(|&id| !self.sets_false(id)).collect());
        }
        let mut writes = Vec::new();
        for id in self.references(state) {
            let member = self.parent(id)?;
            let AstKind::StaticMemberExpression(read) = self.kind(member) else { return None };
            if read.property.name != "value" {
                return None;
            }
            match self.kind(self.parent(member)?) {
                AstKind::AssignmentExpression(write)
                    if write.left.span() == read.span && !is_false(&write.right) =>
                {
                    writes.push(id);
                }
                AstKind::UpdateExpression(_) => writes.push(id),
                _ => {}
            }
        }
        Some(writes)
    }

    /// `setOpen(false)` leaves a state as false as it was.
    fn sets_false(self, setter: NodeId) -> bool {
        let Some(parent) = self.parent(setter) else { return false };
        matches!(self.kind(parent), AstKind::CallExpression(call)
            if call.callee.span() == self.span(setter) && is_first_false(&call.arguments))
    }

    /// The function and the property under which it returns a value: `return { open, show }` or
    /// `return [open, show]` at its end.
    pub fn returned_from(self, value: NodeId) -> Option<(SymbolId, String)> {
        let span = self.span(value);
        let mut holder = self.holder(value)?;
        let key = match self.kind(holder) {
            AstKind::ObjectProperty(property) if property.value.span().contains_inclusive(span) => {
                holder = self.parent(holder)?;
                property_name(&property.key)?
            }
            AstKind::ArrayExpression(array) => {
                let place =
                    array.elements.iter().position(|one| one.span().contains_inclusive(span));
                place?.to_string()
            }
            _ => return None,
        };
        let literal = self.span(holder);
        let mut at = self.holder(holder)?;
        if matches!(self.kind(at), AstKind::ReturnStatement(_)) {
            at = self.parent(at)?;
        }
        while matches!(self.kind(at), AstKind::FunctionBody(_) | AstKind::ExpressionStatement(_)) {
            at = self.parent(at)?;
        }
        let function = self.name_of(at)?;
        let returned = self.returned_literal(function)?;
        (returned.span() == literal).then_some((function, key))
    }

    /// The literal that a named function always returns.
    fn returned_literal(self, function: SymbolId) -> Option<&'a Expression<'a>> {
        let literal = match self.function(function)? {
            AstKind::ArrowFunctionExpression(arrow)
                if !matches!(arrow.body, ArrowFunctionBody::FunctionBody(_)) =>
            {
                arrow.body.as_expression()?
            }
            kind => {
                let body = block(kind)?;
                let (last, before) = body.split_last()?;
                let is_plain = |statement: &Statement<'_>| {
                    matches!(
                        statement,
                        Statement::VariableDeclaration(_)
                            | Statement::FunctionDeclaration(_)
                            | Statement::ExpressionStatement(_)
                    )
                };
                let Statement::ReturnStatement(last) = last else { return None };
                if !before.iter().all(is_plain) {
                    return None;
                }
                last.argument.as_ref()?
            }
        };
        let literal = literal.get_inner_expression();
        matches!(literal, Expression::ObjectExpression(_) | Expression::ArrayExpression(_))
            .then_some(literal)
    }

    /// The name inside an own hook of what is taken of its result under a name here.
    fn returned_value(self, symbol: SymbolId) -> Option<SymbolId> {
        let AstKind::VariableDeclarator(variable) = self.kind(self.declaration(symbol)) else {
            return None;
        };
        let Expression::CallExpression(call) = variable.init.as_ref()?.get_inner_expression()
        else {
            return None;
        };
        let Expression::Identifier(name) = call.callee.get_inner_expression() else { return None };
        let function = self.symbol(name)?;
        let key = taken(&variable.id)?.into_iter().find(|(_, taken)| *taken == symbol)?.0;
        let value = match self.returned_literal(function)? {
            Expression::ObjectExpression(object) => {
                object.properties.iter().find_map(|property| match property {
                    ObjectPropertyKind::ObjectProperty(property)
                        if property_name(&property.key).as_ref() == Some(&key) =>
                    {
                        Some(&property.value)
                    }
                    _ => None,
                })?
            }
            Expression::ArrayExpression(array) => {
                array.elements.get(key.parse::<usize>().ok()?)?.as_expression()?
            }
            _ => return None,
        };
        match value.get_inner_expression() {
            Expression::Identifier(name) => self.symbol(name),
            _ => None,
        }
    }

    /// The names that all uses of an own hook take of its result, by property; none where a use takes
    /// the result whole.
    pub fn results(self, hook: SymbolId) -> Option<Vec<(String, SymbolId)>> {
        if self.is_exported(hook) || self.semantic.scoping().symbol_is_mutated(hook) {
            return None;
        }
        let mut found = Vec::new();
        for reference in self.references(hook) {
            let call = self.parent(reference)?;
            let AstKind::CallExpression(called) = self.kind(call) else { return None };
            if called.callee.span() != self.span(reference) {
                return None;
            }
            let AstKind::VariableDeclarator(variable) = self.kind(self.holder(call)?) else {
                return None;
            };
            found.extend(taken(&variable.id)?);
        }
        Some(found)
    }
}

/// The names that a pattern takes, by property; none where it takes the rest or goes deeper.
fn taken(pattern: &BindingPattern<'_>) -> Option<Vec<(String, SymbolId)>> {
    let plain = |pattern: &BindingPattern<'_>| match pattern {
        BindingPattern::BindingIdentifier(name) => Some(name.symbol_id()),
        _ => None,
    };
    match pattern {
        BindingPattern::ObjectPattern(object) if object.rest.is_none() => object
            .properties
            .iter()
            .map(|one| Some((property_name(&one.key)?, plain(&one.value)?)))
            .collect(),
        BindingPattern::ArrayPattern(array) if array.rest.is_none() => array
            .elements
            .iter()
            .enumerate()
            .filter_map(|(at, one)| Some((at, one.as_ref()?)))
            .map(|(at, one)| Some((at.to_string(), plain(one)?)))
            .collect(),
        _ => None,
    }
}
