//! What the names of a script stand for.

use std::collections::HashMap;

use oxc_ast::{
    AstKind,
    ast::{
        Argument, AssignmentTarget, BindingPattern, BindingProperty, CallExpression, Class,
        Expression, Function, IdentifierReference, ImportDeclarationSpecifier, ObjectExpression,
        ObjectPattern, ObjectPropertyKind, PropertyKey, Statement,
    },
};
use oxc_semantic::Semantic;
use oxc_syntax::symbol::SymbolId;

/// What a name stands for.
#[derive(Clone, Copy)]
pub(super) enum Value<'a> {
    Function(&'a Function<'a>),
    Class(&'a Class<'a>),
    Expression(&'a Expression<'a>),
}

/// A value that the code shows.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Known<'a> {
    Nothing,
    Bool(bool),
    Number(f64),
    Text(&'a str),
}

impl Known<'_> {
    pub fn is_true(&self) -> bool {
        match self {
            Self::Nothing => false,
            Self::Bool(is) => *is,
            Self::Number(number) => *number != 0.0,
            Self::Text(text) => !text.is_empty(),
        }
    }
}

/// The names of a script.
pub(super) struct Values<'e, 'a> {
    pub semantic: &'e Semantic<'a>,
    /// What a name is given, where that is one thing.
    given: HashMap<SymbolId, Option<Value<'a>>>,
    /// Imported names: what is asked for, and the export; the whole has none.
    imports: HashMap<SymbolId, (&'a str, Option<&'a str>)>,
    /// What a hook that keeps a state returns first.
    states: HashMap<SymbolId, Known<'a>>,
    /// Names that take a property out of what they are given: the property, and what that is.
    picked: HashMap<SymbolId, (&'a str, &'a Expression<'a>)>,
    /// Names that take all but some properties, none of which is `children`.
    rests: HashMap<SymbolId, &'a Expression<'a>>,
}

impl<'e, 'a> Values<'e, 'a> {
    pub fn of(semantic: &'e Semantic<'a>) -> Self {
        let (given, imports, states) = (HashMap::new(), HashMap::new(), HashMap::new());
        let (picked, rests) = (HashMap::new(), HashMap::new());
        let mut values = Self { semantic, given, imports, states, picked, rests };
        for node in semantic.nodes() {
            match node.kind() {
                AstKind::Program(program) => values.imports_of(&program.body),
                AstKind::Function(function) if function.is_declaration() => {
                    let name = function.id.as_ref().map(|id| id.symbol_id());
                    values.give(name, Value::Function(function));
                }
                AstKind::Class(class) => {
                    let name = class.id.as_ref().map(|id| id.symbol_id());
                    values.give(name, Value::Class(class));
                }
                AstKind::VariableDeclarator(variable) => {
                    let Some(value) = &variable.init else { continue };
                    match &variable.id {
                        BindingPattern::BindingIdentifier(name) => {
                            values.give(Some(name.symbol_id()), Value::Expression(value));
                        }
                        BindingPattern::ArrayPattern(pattern) => {
                            if let Some(Some(BindingPattern::BindingIdentifier(name))) =
                                pattern.elements.first()
                                && let Some(known) = values.state(value)
                            {
                                values.states.insert(name.symbol_id(), known);
                            }
                        }
                        BindingPattern::ObjectPattern(pattern) => values.pick(pattern, value),
                        BindingPattern::AssignmentPattern(_) => {}
                    }
                }
                AstKind::AssignmentExpression(assignment) => {
                    if let AssignmentTarget::AssignmentTargetIdentifier(name) = &assignment.left {
                        let symbol = values.symbol(name);
                        values.give(symbol, Value::Expression(&assignment.right));
                    }
                }
                _ => {}
            }
        }
        values
    }

    fn pick(&mut self, pattern: &'a ObjectPattern<'a>, value: &'a Expression<'a>) {
        for property in &pattern.properties {
            let local = match &property.value {
                BindingPattern::AssignmentPattern(with_default) => &with_default.left,
                local => local,
            };
            let PropertyKey::StaticIdentifier(key) = &property.key else { continue };
            if let BindingPattern::BindingIdentifier(local) = local {
                self.picked.insert(local.symbol_id(), (key.name.as_str(), value));
            }
        }
        if let Some(rest) = rest_with_children(pattern) {
            self.rests.insert(rest, value);
        }
    }

    fn imports_of(&mut self, body: &'a [Statement<'a>]) {
        for statement in body {
            let Statement::ImportDeclaration(import) = statement else { continue };
            let request = import.source.value.as_str();
            for specifier in import.specifiers.iter().flatten() {
                let (local, name) = match specifier {
                    ImportDeclarationSpecifier::ImportSpecifier(one) => {
                        (&one.local, Some(one.imported.name().as_str()))
                    }
                    ImportDeclarationSpecifier::ImportDefaultSpecifier(one) => {
                        (&one.local, Some("default"))
                    }
                    ImportDeclarationSpecifier::ImportNamespaceSpecifier(one) => (&one.local, None),
                };
                self.imports.insert(local.symbol_id(), (request, name));
            }
        }
    }

    fn give(&mut self, symbol: Option<SymbolId>, value: Value<'a>) {
        if let Some(symbol) = symbol {
            let known = self.given.entry(symbol);
            known.and_modify(|known| *known = None).or_insert(Some(value));
        }
    }

    pub fn symbol(&self, name: &IdentifierReference<'_>) -> Option<SymbolId> {
        self.semantic.scoping().get_reference(name.reference_id()).symbol_id()
    }

    /// The one thing that a name is given.
    pub fn value(&self, name: &IdentifierReference<'_>) -> Option<Value<'a>> {
        *self.given.get(&self.symbol(name)?)?
    }

    /// The property that a name takes out of something, and what that is.
    pub fn picked(&self, name: &IdentifierReference<'_>) -> Option<(&'a str, &'a Expression<'a>)> {
        self.picked.get(&self.symbol(name)?).copied()
    }

    /// What a name takes all of but some properties, none of which is `children`.
    pub fn rest_of(&self, name: &IdentifierReference<'_>) -> Option<&'a Expression<'a>> {
        self.rests.get(&self.symbol(name)?).copied()
    }

    /// What an expression imports: what is asked for, and the export; `t.default` of `t = n(123)` too.
    pub fn imported(&self, expression: &'a Expression<'a>) -> Option<(&'a str, &'a str)> {
        match expression.get_inner_expression() {
            Expression::Identifier(name) => self.imported_name(name),
            Expression::StaticMemberExpression(member) => {
                let Expression::Identifier(name) = member.object.get_inner_expression() else {
                    return None;
                };
                Some((self.whole(name)?, member.property.name.as_str()))
            }
            // `o()` of `o = n.n(t)` is the default of what `t` is.
            Expression::CallExpression(call) if call.arguments.is_empty() => {
                let Expression::Identifier(name) = &call.callee else { return None };
                let Some(Value::Expression(Expression::CallExpression(made))) = self.value(name)
                else {
                    return None;
                };
                let Expression::StaticMemberExpression(member) = &made.callee else { return None };
                let [Argument::Identifier(whole)] = made.arguments.as_slice() else { return None };
                (member.property.name == "n").then_some((self.whole(whole)?, "default"))
            }
            _ => None,
        }
    }

    /// What a name imports: what is asked for, and the export.
    pub fn imported_name(&self, name: &IdentifierReference<'_>) -> Option<(&'a str, &'a str)> {
        let (request, export) = *self.imports.get(&self.symbol(name)?)?;
        Some((request, export?))
    }

    /// The module that a name is the whole of.
    fn whole(&self, name: &IdentifierReference<'_>) -> Option<&'a str> {
        if let Some((request, None)) = self.imports.get(&self.symbol(name)?) {
            return Some(request);
        }
        let Value::Expression(Expression::CallExpression(call)) = self.value(name)? else {
            return None;
        };
        let is_require = match &call.callee {
            Expression::Identifier(_) => true,
            Expression::StaticMemberExpression(member) => member.property.name == "i",
            _ => false,
        };
        match call.arguments.as_slice() {
            [Argument::NumericLiteral(id)] if is_require => Some(id.raw.as_ref()?.as_str()),
            [Argument::StringLiteral(id)] if is_require => Some(id.value.as_str()),
            _ => None,
        }
    }

    /// What a hook is given to begin with.
    fn state(&self, value: &'a Expression<'a>) -> Option<Known<'a>> {
        let Expression::CallExpression(call) = value.get_inner_expression() else { return None };
        let is_plain = called_name(call) == Some("useState");
        match call.arguments.as_slice() {
            [] => is_plain.then_some(Known::Nothing),
            [first] => {
                let known = literal(first.as_expression()?)?;
                // Hooks of other names take texts that are keys.
                (is_plain || matches!(known, Known::Bool(_))).then_some(known)
            }
            _ => None,
        }
    }

    /// The value of an expression on the first screen.
    pub fn known(&self, expression: &'a Expression<'a>, depth: usize) -> Option<Known<'a>> {
        let depth = depth.checked_sub(1)?;
        let expression = expression.get_inner_expression();
        match expression {
            Expression::Identifier(name) => {
                if let Some(known) = self.states.get(&self.symbol(name)?) {
                    return Some(known.clone());
                }
                match self.value(name)? {
                    Value::Expression(value) => self.known(value, depth),
                    _ => None,
                }
            }
            // A reference that keeps a state: `open.value` of `open = ref(false)`.
            Expression::StaticMemberExpression(member) if member.property.name == "value" => {
                let Expression::Identifier(name) = member.object.get_inner_expression() else {
                    return None;
                };
                let Value::Expression(Expression::CallExpression(call)) = self.value(name)? else {
                    return None;
                };
                let [first] = call.arguments.as_slice() else { return None };
                let known = literal(first.as_expression()?)?;
                (!matches!(known, Known::Text(_)) || called_name(call) == Some("ref"))
                    .then_some(known)
            }
            Expression::UnaryExpression(unary) if unary.operator.as_str() == "!" => {
                literal(expression)
                    .or_else(|| Some(Known::Bool(!self.known(&unary.argument, depth)?.is_true())))
            }
            Expression::BinaryExpression(binary) => {
                let is_equal = match binary.operator.as_str() {
                    "===" | "==" => true,
                    "!==" | "!=" => false,
                    _ => return None,
                };
                let (left, right) =
                    (self.known(&binary.left, depth)?, self.known(&binary.right, depth)?);
                // One may be null and the other undefined.
                if left == Known::Nothing
                    && right == Known::Nothing
                    && binary.operator.as_str().len() > 2
                {
                    return None;
                }
                Some(Known::Bool((left == right) == is_equal))
            }
            Expression::LogicalExpression(logical) => {
                let left = self.known(&logical.left, depth);
                match (logical.operator.as_str(), left) {
                    ("&&", Some(left)) if !left.is_true() => Some(left),
                    ("||", Some(left)) if left.is_true() => Some(left),
                    ("??", Some(left)) if left != Known::Nothing => Some(left),
                    // Whatever the left is, the whole is false.
                    ("&&", None) => {
                        self.known(&logical.right, depth).filter(|right| !right.is_true())
                    }
                    (_, Some(_)) => self.known(&logical.right, depth),
                    _ => None,
                }
            }
            other => literal(other),
        }
    }
}

/// The name for all other properties, where `children` is among these.
pub(super) fn rest_with_children(pattern: &ObjectPattern<'_>) -> Option<SymbolId> {
    let takes = |property: &BindingProperty<'_>| property.key.is_specific_static_name("children");
    let BindingPattern::BindingIdentifier(rest) = &pattern.rest.as_ref()?.argument else {
        return None;
    };
    (!pattern.properties.iter().any(takes)).then(|| rest.symbol_id())
}

/// The name that a call calls, where minifying leaves it.
pub(super) fn called_name<'a>(call: &CallExpression<'a>) -> Option<&'a str> {
    let mut callee = call.callee.get_inner_expression();
    if let Expression::SequenceExpression(sequence) = callee {
        callee = sequence.expressions.last()?.get_inner_expression();
    }
    match callee {
        Expression::Identifier(name) => Some(name.name.as_str()),
        Expression::StaticMemberExpression(member) => Some(member.property.name.as_str()),
        _ => None,
    }
}

/// A value that is written out; `!0` and `void 0` are what minifiers write.
fn literal<'a>(expression: &Expression<'a>) -> Option<Known<'a>> {
    match expression.get_inner_expression() {
        Expression::BooleanLiteral(is) => Some(Known::Bool(is.value)),
        Expression::NullLiteral(_) => Some(Known::Nothing),
        Expression::NumericLiteral(number) => Some(Known::Number(number.value)),
        Expression::StringLiteral(text) => Some(Known::Text(text.value.as_str())),
        Expression::TemplateLiteral(text) => Some(Known::Text(text.single_quasi()?.as_str())),
        Expression::Identifier(name) if name.name == "undefined" => Some(Known::Nothing),
        Expression::UnaryExpression(unary) => match (unary.operator.as_str(), &unary.argument) {
            ("void", Expression::NumericLiteral(_)) => Some(Known::Nothing),
            ("!", argument) => match literal(argument)? {
                Known::Text(_) => None,
                known => Some(Known::Bool(!known.is_true())),
            },
            _ => None,
        },
        _ => None,
    }
}

/// The value of a property that is written out, or the method of that name.
pub(super) fn property<'a>(
    object: &'a ObjectExpression<'a>,
    name: &str,
) -> Option<&'a Expression<'a>> {
    object.properties.iter().find_map(|property| match property {
        ObjectPropertyKind::ObjectProperty(one) if one.key.is_specific_static_name(name) => {
            Some(&one.value)
        }
        _ => None,
    })
}
