//! Whether evaluating an expression can matter to anybody who does not use its value.

use std::cell::Cell;

use oxc_ast::ast::{
    Argument, ArrayExpressionElement, ArrowFunctionBody, AssignmentTarget, BinaryExpression,
    BindingPattern, CallExpression, Class, ClassElement, Expression, IdentifierReference,
    NewExpression, ObjectExpression, ObjectPropertyKind, PropertyKey, PropertyKind, Statement,
};
use oxc_semantic::Scoping;
use oxc_syntax::operator::{AssignmentOperator, BinaryOperator, UnaryOperator};

/// What evaluating something may do besides giving its value.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Effect {
    /// A function is called.
    Call,
    /// An object is made by a constructor.
    Construct,
    /// A property is read, which may be a getter.
    PropertyRead,
    /// Something is assigned, counted or deleted.
    Assignment,
    /// A class runs code of its own as it is made.
    StaticCode,
    /// A decorator is called.
    Decorator,
    /// An iterator is run, or getters by a spread.
    Spread,
    /// A value is turned into a number, a text or a key.
    Conversion,
    /// A global name may not be there.
    Global,
    /// Something is waited for, or loaded.
    Wait,
}

/// Globals of the language whose mere reading, and the reading of their own properties, does nothing.
const CONSTANT: [&str; 39] = [
    "Array",
    "ArrayBuffer",
    "BigInt",
    "Boolean",
    "DataView",
    "Date",
    "Error",
    "EvalError",
    "Float32Array",
    "Float64Array",
    "Function",
    "Infinity",
    "Int16Array",
    "Int32Array",
    "Int8Array",
    "JSON",
    "Map",
    "Math",
    "NaN",
    "Number",
    "Object",
    "Promise",
    "Proxy",
    "RangeError",
    "ReferenceError",
    "Reflect",
    "RegExp",
    "Set",
    "String",
    "Symbol",
    "SyntaxError",
    "TypeError",
    "Uint16Array",
    "Uint32Array",
    "Uint8Array",
    "Uint8ClampedArray",
    "WeakMap",
    "WeakSet",
    "undefined",
];

/// Looks for effects in a tree with resolved names.
pub(super) struct Effects<'s> {
    pub(super) scoping: &'s Scoping,
    /// A `/*#__PURE__*/` comment was believed.
    pub(super) believed: Cell<bool>,
}

/// The first effect of several parts.
fn first(parts: impl IntoIterator<Item = Option<Effect>>) -> Option<Effect> {
    parts.into_iter().flatten().next()
}

impl Effects<'_> {
    pub(super) fn is_global(&self, name: &IdentifierReference<'_>) -> bool {
        let reference = name.reference_id.get();
        reference.is_none_or(|id| self.scoping.get_reference(id).symbol_id().is_none())
    }

    fn is_constant(&self, expression: &Expression<'_>) -> bool {
        match expression {
            Expression::Identifier(name) => {
                CONSTANT.contains(&name.name.as_str()) && self.is_global(name)
            }
            _ => false,
        }
    }

    /// The first effect of evaluating an expression; none where there is none.
    pub(super) fn of(&self, expression: &Expression<'_>) -> Option<Effect> {
        match expression.get_inner_expression() {
            Expression::BooleanLiteral(_)
            | Expression::NullLiteral(_)
            | Expression::NumericLiteral(_)
            | Expression::BigIntLiteral(_)
            | Expression::RegExpLiteral(_)
            | Expression::StringLiteral(_)
            | Expression::FunctionExpression(_)
            | Expression::ArrowFunctionExpression(_)
            | Expression::ThisExpression(_)
            | Expression::ImportMeta(_)
            | Expression::NewTarget(_) => None,
            Expression::TemplateLiteral(text) => {
                first(text.expressions.iter().map(|part| self.of_primitive(part)))
            }
            Expression::Identifier(name) => {
                let is_known = CONSTANT.contains(&name.name.as_str());
                (self.is_global(name) && !is_known).then_some(Effect::Global)
            }
            Expression::ArrayExpression(list) => {
                first(list.elements.iter().map(|element| match element {
                    ArrayExpressionElement::SpreadElement(spread) => {
                        self.of_spread(&spread.argument)
                    }
                    ArrayExpressionElement::Elision(_) => None,
                    other => other.as_expression().and_then(|value| self.of(value)),
                }))
            }
            Expression::ObjectExpression(object) => self.of_object(object),
            Expression::ClassExpression(class) => self.of_class(class),
            Expression::ConditionalExpression(choice) => {
                first([&choice.test, &choice.consequent, &choice.alternate].map(|one| self.of(one)))
            }
            Expression::LogicalExpression(logical) => {
                first([&logical.left, &logical.right].map(|one| self.of(one)))
            }
            Expression::SequenceExpression(list) => {
                first(list.expressions.iter().map(|one| self.of(one)))
            }
            Expression::UnaryExpression(unary) => match unary.operator {
                UnaryOperator::LogicalNot | UnaryOperator::Void => self.of(&unary.argument),
                // Asking for the type of a name that is not there is no error.
                UnaryOperator::Typeof => match unary.argument.get_inner_expression() {
                    Expression::Identifier(_) => None,
                    argument => self.of(argument),
                },
                UnaryOperator::Delete => Some(Effect::Assignment),
                _ => self.of_primitive(&unary.argument),
            },
            Expression::BinaryExpression(binary) => self.of_binary(binary),
            Expression::StaticMemberExpression(member) => {
                let is_known = self.is_constant(&member.object);
                (!is_known).then_some(Effect::PropertyRead)
            }
            Expression::ComputedMemberExpression(_)
            | Expression::PrivateFieldExpression(_)
            | Expression::ChainExpression(_) => Some(Effect::PropertyRead),
            Expression::CallExpression(call) => self.of_call(call),
            Expression::NewExpression(new) => self.of_new(new),
            Expression::AwaitExpression(_)
            | Expression::YieldExpression(_)
            | Expression::ImportExpression(_) => Some(Effect::Wait),
            Expression::AssignmentExpression(_) | Expression::UpdateExpression(_) => {
                Some(Effect::Assignment)
            }
            Expression::PrivateInExpression(_) => Some(Effect::Conversion),
            _ => Some(Effect::Call),
        }
    }

    /// Of a value that is turned into a text or a number: an object would run its own code for it.
    fn of_primitive(&self, expression: &Expression<'_>) -> Option<Effect> {
        match expression.get_inner_expression() {
            Expression::BooleanLiteral(_)
            | Expression::NullLiteral(_)
            | Expression::NumericLiteral(_)
            | Expression::BigIntLiteral(_)
            | Expression::StringLiteral(_) => None,
            Expression::UnaryExpression(unary) if unary.operator == UnaryOperator::Typeof => {
                self.of(expression)
            }
            Expression::TemplateLiteral(_) => self.of(expression),
            Expression::BinaryExpression(binary) => self.of_binary(binary),
            Expression::UnaryExpression(_) => self.of(expression),
            _ => Some(Effect::Conversion),
        }
    }

    fn of_binary(&self, binary: &BinaryExpression<'_>) -> Option<Effect> {
        let sides = [&binary.left, &binary.right];
        match binary.operator {
            BinaryOperator::StrictEquality | BinaryOperator::StrictInequality => {
                first(sides.map(|side| self.of(side)))
            }
            BinaryOperator::In | BinaryOperator::Instanceof => Some(Effect::Conversion),
            _ => first(sides.map(|side| self.of_primitive(side))),
        }
    }

    /// Of a spread into a list: only a list that is written out has an iterator that does nothing.
    fn of_spread(&self, argument: &Expression<'_>) -> Option<Effect> {
        match argument.get_inner_expression() {
            list @ Expression::ArrayExpression(_) => self.of(list),
            _ => Some(Effect::Spread),
        }
    }

    fn of_key(&self, key: &PropertyKey<'_>) -> Option<Effect> {
        match key {
            PropertyKey::StaticIdentifier(_) | PropertyKey::PrivateIdentifier(_) => None,
            // `Symbol.iterator`, and what is a key already.
            key => match key.as_expression().map(Expression::get_inner_expression) {
                Some(Expression::StaticMemberExpression(member)) => {
                    (!self.is_constant(&member.object)).then_some(Effect::PropertyRead)
                }
                Some(value) => self.of_primitive(value),
                None => Some(Effect::Conversion),
            },
        }
    }

    pub(super) fn of_object(&self, object: &ObjectExpression<'_>) -> Option<Effect> {
        first(object.properties.iter().map(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                self.of_key(&property.key).or_else(|| self.of(&property.value))
            }
            ObjectPropertyKind::SpreadProperty(spread) => {
                match spread.argument.get_inner_expression() {
                    Expression::ObjectExpression(inner) if !has_accessors(inner) => {
                        self.of_object(inner)
                    }
                    _ => Some(Effect::Spread),
                }
            }
        }))
    }

    pub(super) fn of_class(&self, class: &Class<'_>) -> Option<Effect> {
        if !class.decorators.is_empty() {
            return Some(Effect::Decorator);
        }
        let heritage = class.heritage.as_ref().and_then(|heritage| {
            match heritage.expression.get_inner_expression() {
                // A class that is extended was there when the build was tried.
                Expression::Identifier(_) | Expression::NullLiteral(_) => None,
                expression => self.of(expression),
            }
        });
        let elements = class.body.body.iter().map(|element| match element {
            ClassElement::StaticBlock(_) => Some(Effect::StaticCode),
            ClassElement::MethodDefinition(method) => {
                let decorated = (!method.decorators.is_empty()).then_some(Effect::Decorator);
                decorated.or_else(|| self.of_key(&method.key))
            }
            ClassElement::PropertyDefinition(field) => {
                let decorated = (!field.decorators.is_empty()).then_some(Effect::Decorator);
                let value = field.value.as_ref().filter(|_| field.r#static);
                decorated.or_else(|| self.of_key(&field.key)).or_else(|| {
                    // `this` is the class, whose superclass may have setters.
                    value.and_then(|value| self.of(value)).map(|_| Effect::StaticCode)
                })
            }
            ClassElement::AccessorProperty(_) => Some(Effect::StaticCode),
            ClassElement::TSIndexSignature(_) => None,
        });
        heritage.or_else(|| first(elements))
    }

    fn of_arguments(&self, arguments: &[Argument<'_>]) -> Option<Effect> {
        first(arguments.iter().map(|argument| match argument {
            Argument::SpreadElement(spread) => self.of_spread(&spread.argument),
            other => other.as_expression().and_then(|value| self.of(value)),
        }))
    }

    fn of_call(&self, call: &CallExpression<'_>) -> Option<Effect> {
        if call.pure {
            self.believed.set(true);
            return self.of_arguments(&call.arguments);
        }
        let arguments = || self.of_arguments(&call.arguments);
        match call.callee.get_inner_expression() {
            Expression::Identifier(name)
                if name.name == "Symbol" && self.is_global(name) && is_text(&call.arguments) =>
            {
                None
            }
            Expression::StaticMemberExpression(member) if self.is_constant(&member.object) => {
                let Expression::Identifier(object) = &member.object else {
                    return Some(Effect::Call);
                };
                match (object.name.as_str(), member.property.name.as_str()) {
                    ("Symbol", "for") if is_text(&call.arguments) => None,
                    // Freezing what nobody else has.
                    ("Object", "freeze") => match call.arguments.as_slice() {
                        [one] if one.as_expression().is_some_and(is_fresh) => arguments(),
                        _ => Some(Effect::Call),
                    },
                    ("Object", "create") => match call.arguments.as_slice() {
                        [Argument::NullLiteral(_)] => None,
                        _ => Some(Effect::Call),
                    },
                    _ => Some(Effect::Call),
                }
            }
            _ if is_enum(call, self) => None,
            _ => Some(Effect::Call),
        }
    }

    fn of_new(&self, new: &NewExpression<'_>) -> Option<Effect> {
        if new.pure {
            self.believed.set(true);
            return self.of_arguments(&new.arguments);
        }
        let Expression::Identifier(name) = new.callee.get_inner_expression() else {
            return Some(Effect::Construct);
        };
        let is_collection = matches!(name.name.as_str(), "Map" | "Set" | "WeakMap" | "WeakSet");
        match (is_collection && self.is_global(name), new.arguments.as_slice()) {
            (true, [] | [Argument::NullLiteral(_)]) => None,
            // A set of primitive values; a map asks each element for its parts.
            (true, [Argument::ArrayExpression(list)]) if name.name == "Set" => {
                first(list.elements.iter().map(|element| match element.as_expression() {
                    Some(value) => self.of_primitive(value).map(|_| Effect::Construct),
                    None => Some(Effect::Construct),
                }))
            }
            _ => Some(Effect::Construct),
        }
    }
}

fn is_text(arguments: &[Argument<'_>]) -> bool {
    matches!(arguments, [] | [Argument::StringLiteral(_)])
}

/// Whether a value is made right here, so that nobody else has it.
pub(super) fn is_fresh(expression: &Expression<'_>) -> bool {
    match expression.get_inner_expression() {
        Expression::FunctionExpression(_)
        | Expression::ArrowFunctionExpression(_)
        | Expression::ArrayExpression(_) => true,
        Expression::ClassExpression(class) => is_fresh_class(class),
        Expression::ObjectExpression(object) => !has_accessors(object),
        _ => false,
    }
}

/// Whether nothing that is assigned to a class is caught by a setter.
pub(super) fn is_fresh_class(class: &Class<'_>) -> bool {
    let is_plain = |element: &ClassElement<'_>| match element {
        ClassElement::MethodDefinition(method) => !method.kind.is_accessor(),
        ClassElement::PropertyDefinition(_) | ClassElement::TSIndexSignature(_) => true,
        ClassElement::StaticBlock(_) | ClassElement::AccessorProperty(_) => false,
    };
    class.heritage.is_none() && class.body.body.iter().all(is_plain)
}

/// Accessors, a prototype of its own, or what a spread may bring of them.
fn has_accessors(object: &ObjectExpression<'_>) -> bool {
    object.properties.iter().any(|property| match property {
        ObjectPropertyKind::SpreadProperty(_) => true,
        ObjectPropertyKind::ObjectProperty(property) => {
            property.kind != PropertyKind::Init
                || property.computed
                || property.key.static_name().is_some_and(|name| name == "__proto__")
        }
    })
}

/// `(e => (e[e.A = 0] = "A", e))(X || {})`, as enums are written: names and numbers into an object that
/// only this knows.
pub(super) fn is_enum(call: &CallExpression<'_>, effects: &Effects<'_>) -> bool {
    let [argument] = call.arguments.as_slice() else { return false };
    let is_own = match argument.as_expression().map(Expression::get_inner_expression) {
        Some(Expression::ObjectExpression(object)) => object.properties.is_empty(),
        Some(Expression::LogicalExpression(logical)) => {
            let is_name =
                matches!(&logical.left, Expression::Identifier(name) if !effects.is_global(name));
            let right = match logical.right.get_inner_expression() {
                Expression::AssignmentExpression(assignment) => &assignment.right,
                _ => &logical.right,
            };
            is_name
                && matches!(right.get_inner_expression(), Expression::ObjectExpression(object) if object.properties.is_empty())
        }
        _ => false,
    };
    let (params, statements, value) = match call.callee.get_inner_expression() {
        Expression::FunctionExpression(function) => {
            let body = function.body.as_ref();
            (&function.params, body.map_or(&[][..], |body| body.statements.as_slice()), None)
        }
        Expression::ArrowFunctionExpression(arrow) => match &arrow.body {
            ArrowFunctionBody::FunctionBody(body) => {
                (&arrow.params, body.statements.as_slice(), None)
            }
            body => (&arrow.params, &[][..], body.as_expression()),
        },
        _ => return false,
    };
    let [param] = params.items.as_slice() else { return false };
    let BindingPattern::BindingIdentifier(name) = &param.pattern else { return false };
    let name = name.name.as_str();
    let is_part = |expression: &Expression<'_>| is_member_of(expression, name, effects);
    let all_parts = |expression: &Expression<'_>| match expression.get_inner_expression() {
        Expression::SequenceExpression(list) => list.expressions.iter().all(is_part),
        one => is_part(one),
    };
    let are_parts = statements.iter().all(|statement| match statement {
        Statement::ExpressionStatement(one) => all_parts(&one.expression),
        Statement::ReturnStatement(one) => one.argument.as_ref().is_some_and(all_parts),
        _ => false,
    });
    is_own
        && are_parts
        && value.is_none_or(all_parts)
        && (value.is_some() || !statements.is_empty())
}

/// `e.A = "A"`, `e[e.A = 0] = "A"`, or `e` itself.
fn is_member_of(expression: &Expression<'_>, name: &str, effects: &Effects<'_>) -> bool {
    let is_it = |one: &Expression<'_>| matches!(one, Expression::Identifier(id) if id.name == name);
    match expression.get_inner_expression() {
        Expression::AssignmentExpression(assignment) => {
            let is_target = match &assignment.left {
                AssignmentTarget::StaticMemberExpression(member) => {
                    is_it(&member.object) && member.property.name != "__proto__"
                }
                AssignmentTarget::ComputedMemberExpression(member) => {
                    let key = member.expression.get_inner_expression();
                    is_it(&member.object)
                        && (matches!(key, Expression::StringLiteral(key) if key.value != "__proto__")
                            || matches!(key, Expression::NumericLiteral(_))
                            || is_member_of(key, name, effects) && !is_it(key))
                }
                _ => false,
            };
            let is_plain = assignment.operator == AssignmentOperator::Assign;
            is_target && is_plain && effects.of_primitive(&assignment.right).is_none()
        }
        one => is_it(one),
    }
}
