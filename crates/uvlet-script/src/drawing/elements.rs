//! Elements: what of an expression is drawn, and what stands inside what.

use oxc_ast::ast::{
    Argument, ArrayExpression, ArrayExpressionElement, BindingPattern, CallExpression, Expression,
    ObjectExpression, ObjectPropertyKind,
};

use super::{
    components::{Components, Scope, in_both, returned},
    drawn::{CHILDREN, Drawn, Given, fill},
    values::{Value, called_name, property, rest_with_children},
};

/// Components of frameworks that draw what stands inside, by names that minifying leaves.
const OPEN: [&str; 5] = ["Suspense", "Fragment", "StrictMode", "Profiler", "Provider"];

/// Flags by which a compiler says that an element is a list of others, or keeps them alive.
const LISTS: [f64; 2] = [64.0, 1024.0];

/// Calls that set up an application before it is mounted, each on what the one before returns.
const SET_UP: [&str; 6] = ["use", "component", "directive", "provide", "mixin", "mount"];

/// What an element is of.
enum Kind {
    /// It draws what stands inside of it, as it does by itself.
    Open,
    /// A component.
    Component(Vec<Drawn>),
    /// Nothing is known of it.
    Unknown,
}

impl<'a> Components<'_, 'a> {
    /// What a call draws that runs as the script does: an element that something is told to render, or an
    /// application that is mounted.
    pub fn started(&self, call: &'a CallExpression<'a>) -> Vec<Drawn> {
        let scope = Scope::outermost();
        if called_name(call) == Some("mount")
            && let Expression::StaticMemberExpression(member) = &call.callee
        {
            return self.mounted(&member.object, scope).unwrap_or_default();
        }
        if self.element(call, scope).is_some() {
            return Vec::new();
        }
        let elements = call.arguments.iter().filter_map(|argument| match argument {
            Argument::CallExpression(element) => self.element(element, scope),
            _ => None,
        });
        elements.flatten().collect()
    }

    /// The component that an application is made of.
    fn mounted(&self, app: &'a Expression<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        let mut app = app.get_inner_expression();
        for _ in 0..scope.depth {
            match app {
                Expression::Identifier(name) => match self.values.value(name)? {
                    Value::Expression(value) => app = value.get_inner_expression(),
                    _ => return None,
                },
                Expression::CallExpression(call) => match &call.callee {
                    Expression::StaticMemberExpression(member)
                        if SET_UP.contains(&member.property.name.as_str()) =>
                    {
                        app = member.object.get_inner_expression();
                    }
                    _ => return self.component(call.arguments.first()?.as_expression()?, scope),
                },
                _ => return None,
            }
        }
        None
    }

    /// What of an expression is drawn on the first screen.
    pub fn drawn(&self, value: &'a Expression<'a>, scope: Scope<'a>) -> Vec<Drawn> {
        let Some(depth) = scope.depth.checked_sub(1) else { return Vec::new() };
        let scope = Scope { depth, ..scope };
        let known = |test| self.values.known(test, depth).map(|known| known.is_true());
        match value.get_inner_expression() {
            Expression::ConditionalExpression(choice) => match known(&choice.test) {
                Some(true) => self.drawn(&choice.consequent, scope),
                Some(false) => self.drawn(&choice.alternate, scope),
                None => in_both(
                    self.drawn(&choice.consequent, scope),
                    self.drawn(&choice.alternate, scope),
                ),
            },
            Expression::LogicalExpression(logical) => {
                match (logical.operator.as_str(), known(&logical.left)) {
                    ("&&", Some(true)) | ("||", Some(false)) => self.drawn(&logical.right, scope),
                    _ => Vec::new(),
                }
            }
            Expression::SequenceExpression(sequence) => {
                sequence.expressions.last().map_or_else(Vec::new, |last| self.drawn(last, scope))
            }
            Expression::ArrayExpression(list) => self.list(list, scope),
            value if self.is_children(value, scope) => vec![Drawn::Slot(CHILDREN.to_owned())],
            Expression::Identifier(name) => match self.values.value(name) {
                Some(Value::Expression(value)) => self.drawn(value, scope),
                _ => Vec::new(),
            },
            Expression::CallExpression(call) => {
                if let Some(slot) = slot_of(call) {
                    return vec![Drawn::Slot(slot.to_owned())];
                }
                // What goes through what it is given, child by child.
                let first = call.arguments.first().and_then(Argument::as_expression);
                if first.is_some_and(|first| self.is_children(first, scope)) {
                    return vec![Drawn::Slot(CHILDREN.to_owned())];
                }
                self.element(call, scope).unwrap_or_default()
            }
            _ => Vec::new(),
        }
    }

    fn list(&self, list: &'a ArrayExpression<'a>, scope: Scope<'a>) -> Vec<Drawn> {
        let values = list.elements.iter().filter_map(ArrayExpressionElement::as_expression);
        values.flat_map(|value| self.drawn(value, scope)).collect()
    }

    /// What the element draws that a call makes; none where it makes none.
    fn element(&self, call: &'a CallExpression<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        let scope = Scope { depth: scope.depth.checked_sub(1)?, ..scope };
        let [of, rest @ ..] = call.arguments.as_slice() else { return None };
        let properties = match rest.first() {
            None | Some(Argument::NullLiteral(_)) => None,
            Some(Argument::ObjectExpression(properties)) => Some(&**properties),
            // Properties that are put together as the page runs.
            Some(Argument::CallExpression(_) | Argument::Identifier(_)) if rest.len() > 1 => None,
            Some(_) => return None,
        };
        // A function alone is given to something else, as to `map`.
        let is_function =
            matches!(of, Argument::FunctionExpression(_) | Argument::ArrowFunctionExpression(_));
        if is_function && rest.is_empty() {
            return None;
        }
        let kind = match self.kind(of.as_expression()?, scope)? {
            Kind::Unknown if is_list(rest) => Kind::Open,
            kind => kind,
        };
        let mut given = self.given(properties, rest.get(1..).unwrap_or_default(), scope);
        given.retain(|(_, drawn)| !drawn.is_empty());
        Some(match kind {
            Kind::Unknown => Vec::new(),
            Kind::Open => given.into_iter().flat_map(|(_, drawn)| drawn).collect(),
            Kind::Component(draws) => fill(draws, &given),
        })
    }

    /// What an element is of; none where the first argument is nothing that elements are of.
    fn kind(&self, of: &'a Expression<'a>, scope: Scope<'a>) -> Option<Kind> {
        match of.get_inner_expression() {
            Expression::StringLiteral(tag) => is_tag(&tag.value).then_some(Kind::Open),
            Expression::TemplateLiteral(tag) => {
                is_tag(tag.single_quasi()?.as_str()).then_some(Kind::Open)
            }
            Expression::StaticMemberExpression(member)
                if OPEN.contains(&member.property.name.as_str()) =>
            {
                Some(Kind::Open)
            }
            // A component that is used once may stand where it is used.
            of @ (Expression::Identifier(_)
            | Expression::StaticMemberExpression(_)
            | Expression::FunctionExpression(_)
            | Expression::ArrowFunctionExpression(_)) => {
                Some(self.component(of, scope).map_or(Kind::Unknown, Kind::Component))
            }
            // What takes a reference for what it refers to: `f(g(Chart))`.
            Expression::CallExpression(call) => match call.arguments.as_slice() {
                [Argument::Identifier(_)] => {
                    let inner = call.arguments[0].as_expression()?;
                    Some(Kind::Component(self.component(inner, scope)?))
                }
                _ => None,
            },
            _ => None,
        }
    }

    /// What an element is given to stand inside of it, by slot.
    fn given(
        &self,
        properties: Option<&'a ObjectExpression<'a>>,
        rest: &'a [Argument<'a>],
        scope: Scope<'a>,
    ) -> Given {
        let mut children = Vec::new();
        let mut slots: Given = Vec::new();
        for property in properties.iter().flat_map(|properties| &properties.properties) {
            match property {
                ObjectPropertyKind::ObjectProperty(one)
                    if one.key.is_specific_static_name("children") =>
                {
                    children.extend(self.drawn(&one.value, scope));
                }
                // All that a component is given, passed on.
                ObjectPropertyKind::SpreadProperty(spread) => {
                    if self.is_given(&spread.argument, scope) {
                        children.push(Drawn::Slot(CHILDREN.to_owned()));
                    }
                }
                ObjectPropertyKind::ObjectProperty(_) => {}
            }
        }
        for argument in rest {
            match argument {
                Argument::ObjectExpression(object) => {
                    for property in &object.properties {
                        if let ObjectPropertyKind::ObjectProperty(one) = property
                            && let Some(name) = one.key.static_name()
                        {
                            slots.push((name.into_owned(), self.slot(&one.value, scope)));
                        }
                    }
                }
                argument => {
                    let value = argument.as_expression();
                    children.extend(value.into_iter().flat_map(|one| self.drawn(one, scope)));
                }
            }
        }
        slots.push((CHILDREN.to_owned(), children));
        slots
    }

    /// What a slot's function returns: `() => […]`, or `f(() => […])`.
    fn slot(&self, value: &'a Expression<'a>, scope: Scope<'a>) -> Vec<Drawn> {
        let function = match value.get_inner_expression() {
            Expression::CallExpression(call) => {
                call.arguments.first().and_then(Argument::as_expression)
            }
            value => Some(value),
        };
        function.and_then(returned).map_or_else(Vec::new, |value| self.drawn(value, scope))
    }

    /// Whether a value is what the component is given to put inside.
    fn is_children(&self, value: &'a Expression<'a>, scope: Scope<'a>) -> bool {
        let Some(depth) = scope.depth.checked_sub(1) else { return false };
        let scope = Scope { depth, ..scope };
        match value.get_inner_expression() {
            Expression::Identifier(name) => {
                if let Some(("children", of)) = self.values.picked(name) {
                    return self.is_given(of, scope);
                }
                let symbol = self.values.symbol(name);
                let is_it = |local: &BindingPattern<'_>| match local {
                    BindingPattern::BindingIdentifier(local) => Some(local.symbol_id()) == symbol,
                    _ => false,
                };
                matches!(scope.parameter(0), Some(BindingPattern::ObjectPattern(pattern))
                if pattern.properties.iter().any(|property| {
                    property.key.is_specific_static_name("children") && is_it(&property.value)
                }))
            }
            Expression::StaticMemberExpression(member) => {
                member.property.name == "children" && self.is_given(&member.object, scope)
            }
            _ => false,
        }
    }

    /// Whether a value is all that the component is given, or made of it: `children` with the others.
    fn is_given(&self, value: &'a Expression<'a>, scope: Scope<'a>) -> bool {
        let Some(depth) = scope.depth.checked_sub(1) else { return false };
        let scope = Scope { depth, ..scope };
        match value.get_inner_expression() {
            Expression::Identifier(name) => {
                let symbol = self.values.symbol(name);
                let is_parameter = match scope.parameter(0) {
                    Some(BindingPattern::BindingIdentifier(local)) => {
                        Some(local.symbol_id()) == symbol
                    }
                    Some(BindingPattern::ObjectPattern(pattern)) => {
                        symbol.is_some() && rest_with_children(pattern) == symbol
                    }
                    _ => false,
                };
                is_parameter
                    || self.values.rest_of(name).is_some_and(|of| self.is_given(of, scope))
                    || matches!(self.values.value(name), Some(Value::Expression(of))
                        if self.is_given(of, scope))
            }
            Expression::StaticMemberExpression(member) => {
                member.property.name == "props"
                    && matches!(member.object, Expression::ThisExpression(_))
            }
            // Hooks that add what themes and defaults say.
            Expression::CallExpression(call) => call.arguments.iter().any(|argument| {
                let value = argument.as_expression();
                value.is_some_and(|value| match value.get_inner_expression() {
                    Expression::ObjectExpression(object) => {
                        object.properties.iter().any(|property| match property {
                            ObjectPropertyKind::ObjectProperty(one) => {
                                self.is_given(&one.value, scope)
                            }
                            ObjectPropertyKind::SpreadProperty(spread) => {
                                self.is_given(&spread.argument, scope)
                            }
                        })
                    }
                    value => self.is_given(value, scope),
                })
            }),
            Expression::ObjectExpression(object) => {
                property(object, "children").is_none()
                    && object.properties.iter().any(|property| {
                        matches!(property, ObjectPropertyKind::SpreadProperty(spread)
                            if self.is_given(&spread.argument, scope))
                    })
            }
            _ => false,
        }
    }
}

/// The slot that a call draws: `f(x.$slots, "name")`.
fn slot_of<'a>(call: &'a CallExpression<'a>) -> Option<&'a str> {
    let [first, second, ..] = call.arguments.as_slice() else { return None };
    let Argument::StaticMemberExpression(member) = first else { return None };
    if member.property.name != "$slots" {
        return None;
    }
    match second {
        Argument::StringLiteral(name) => Some(name.value.as_str()),
        Argument::TemplateLiteral(name) => Some(name.single_quasi()?.as_str()),
        _ => None,
    }
}

/// Whether an element is said to be a list of others: children, and a compiler's flag for lists.
fn is_list(rest: &[Argument<'_>]) -> bool {
    matches!(rest, [_, Argument::ArrayExpression(_), Argument::NumericLiteral(flag), ..]
        if LISTS.contains(&flag.value))
}

/// Whether a text is the name of an element.
fn is_tag(text: &str) -> bool {
    let mut bytes = text.bytes();
    let is_part = |byte: u8| byte.is_ascii_lowercase() || byte.is_ascii_digit() || byte == b'-';
    bytes.next().is_some_and(|byte| byte.is_ascii_lowercase())
        && bytes.all(is_part)
        && text.len() < 40
}
