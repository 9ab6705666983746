//! What components draw: the elements that their functions return on the first screen.

use std::{cell::Cell, collections::HashSet};

use oxc_ast::ast::{
    Argument, ArrowFunctionBody, BindingPattern, Class, ClassElement, Expression, FormalParameters,
    FunctionBody, ObjectExpression, Statement,
};
use oxc_semantic::Semantic;
use oxc_span::{GetSpan, Span};

use super::{
    drawn::{CHILDREN, Drawn, passed_on},
    values::{Value, Values, called_name, property},
};

/// Functions and elements that are followed one inside another.
const DEEPEST: usize = 60;

/// Steps that are taken for one script; a page's first screen takes hundreds.
const STEPS: usize = 200_000;

/// The components of a script.
pub(super) struct Components<'e, 'a> {
    pub values: Values<'e, 'a>,
    /// First bytes of dynamic loads.
    loads: &'e HashSet<u32>,
    steps: Cell<usize>,
}

/// The function that is looked at: what it is given.
#[derive(Clone, Copy)]
pub(super) struct Scope<'a> {
    pub parameters: Option<&'a FormalParameters<'a>>,
    pub depth: usize,
}

/// Whether a statement leaves the function.
enum Flow<'a> {
    /// It goes on behind it.
    On,
    /// It returns that.
    Returns(Option<&'a Expression<'a>>),
    /// It may or may not, or something else leaves.
    Unknown,
}

impl<'e, 'a> Components<'e, 'a> {
    pub fn of(semantic: &'e Semantic<'a>, loads: &'e HashSet<u32>) -> Self {
        Self { values: Values::of(semantic), loads, steps: Cell::new(STEPS) }
    }

    /// Goes one level deeper, as long as there is any sense in it.
    fn deeper(&self, scope: Scope<'a>) -> Option<Scope<'a>> {
        self.steps.set(self.steps.get().checked_sub(1)?);
        Some(Scope { depth: scope.depth.checked_sub(1)?, ..scope })
    }

    /// What a component draws by itself; none for what is no component.
    pub fn component(&self, value: &'a Expression<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        let scope = self.deeper(scope)?;
        let value = value.get_inner_expression();
        if let Some((request, name)) = self.values.imported(value) {
            let (request, name) = (request.to_owned(), name.to_owned());
            return Some(vec![Drawn::Imported { request, name, given: passed_on() }]);
        }
        match value {
            Expression::Identifier(name) => self.of_value(self.values.value(name)?, scope),
            Expression::FunctionExpression(function) => {
                self.function(Some(&function.params), function.body.as_deref()?, scope)
            }
            Expression::ArrowFunctionExpression(arrow) => match &arrow.body {
                ArrowFunctionBody::FunctionBody(body) => {
                    self.function(Some(&arrow.params), body, scope)
                }
                body => {
                    let scope = Scope { parameters: Some(&arrow.params), ..scope };
                    Some(self.drawn(body.as_expression()?, scope))
                }
            },
            Expression::ClassExpression(class) => self.class(class, scope),
            Expression::ObjectExpression(object) => self.object(object, scope),
            Expression::CallExpression(call) => {
                if let Some(load) = self.load(call.span, call.arguments.first()?) {
                    return Some(vec![load]);
                }
                let first = call.arguments.first()?.as_expression()?;
                let rendered = call.arguments.get(1).and_then(|second| self.render(second, scope));
                match (called_name(call), first.get_inner_expression()) {
                    (Some("memo" | "forwardRef" | "observer" | "markRaw"), _)
                    | (_, Expression::ObjectExpression(_)) => {
                        let mut draws = self.component(first, scope).unwrap_or_default();
                        draws.extend(rendered.unwrap_or_default());
                        Some(draws)
                    }
                    // What compilers of single-file components put together.
                    _ => {
                        let rendered = rendered?;
                        let mut draws = self.component(first, scope).unwrap_or_default();
                        draws.extend(rendered);
                        Some(draws)
                    }
                }
            }
            _ => None,
        }
    }

    /// What a component draws that a name stands for.
    pub fn of_value(&self, value: Value<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        match value {
            Value::Function(function) => {
                self.function(Some(&function.params), function.body.as_deref()?, scope)
            }
            Value::Class(class) => self.class(class, scope),
            Value::Expression(value) => self.component(value, scope),
        }
    }

    /// `[["render", f], …]`.
    fn render(&self, rows: &'a Argument<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        let Argument::ArrayExpression(rows) = rows else { return None };
        rows.elements.iter().find_map(|row| {
            let Expression::ArrayExpression(row) = row.as_expression()? else { return None };
            let [name, value] = row.elements.as_slice() else { return None };
            let is_render = match name.as_expression()? {
                Expression::StringLiteral(name) => name.value == "render",
                Expression::TemplateLiteral(name) => {
                    name.single_quasi().is_some_and(|name| name == "render")
                }
                _ => false,
            };
            is_render.then(|| self.component(value.as_expression()?, scope))?
        })
    }

    /// A component that loads: what is called with a function, or an object with one, that makes one load.
    fn load(&self, around: Span, first: &'a Argument<'a>) -> Option<Drawn> {
        let loader = match first {
            Argument::ObjectExpression(object) => property(object, "loader")?,
            first => first.as_expression()?,
        };
        let (Expression::ArrowFunctionExpression(_) | Expression::FunctionExpression(_)) =
            loader.get_inner_expression()
        else {
            return None;
        };
        let span = loader.span();
        let mut inside = self.loads.iter().filter(|at| span.start <= **at && **at < span.end);
        let (&at, None) = (inside.next()?, inside.next()) else { return None };
        debug_assert!(around.start <= at, "a loader stands in its call");
        // One of several functions inside, or a condition, may keep the load from being made.
        self.is_plain(loader, at).then(|| {
            let name = taken_of(loader).unwrap_or("default").to_owned();
            Drawn::Load { at, name, given: passed_on() }
        })
    }

    /// Whether a function makes a load as soon as it is called: it is what it returns, through wrappers
    /// that are given it.
    fn is_plain(&self, function: &'a Expression<'a>, at: u32) -> bool {
        let Some(mut value) = returned(function) else { return false };
        loop {
            value = value.get_inner_expression();
            let span = value.span();
            if !(span.start <= at && at < span.end) {
                return false;
            }
            match value {
                Expression::ImportExpression(_) | Expression::AwaitExpression(_) => return true,
                Expression::CallExpression(call) => {
                    let holds = |span: Span| span.start <= at && at < span.end;
                    if call.span.start == at {
                        return true;
                    }
                    if holds(call.callee.span()) {
                        let Expression::StaticMemberExpression(member) = &call.callee else {
                            return false;
                        };
                        value = &member.object;
                        continue;
                    }
                    let first = call.arguments.first().and_then(Argument::as_expression);
                    let wrapped = first.filter(|first| holds(first.span())).and_then(returned);
                    let Some(wrapped) = wrapped else { return false };
                    value = wrapped;
                }
                _ => return false,
            }
        }
    }

    fn class(&self, class: &'a Class<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        class.body.body.iter().find_map(|element| match element {
            ClassElement::MethodDefinition(method)
                if method.key.is_specific_static_name("render") =>
            {
                self.function(None, method.value.body.as_deref()?, scope)
            }
            _ => None,
        })
    }

    fn object(&self, object: &'a ObjectExpression<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        // Components of a framework's own that draw what they are given.
        let is_own = ["__isSuspense", "__isKeepAlive"];
        if is_own.iter().any(|mark| property(object, mark).is_some()) {
            return Some(vec![Drawn::Slot(CHILDREN.to_owned())]);
        }
        let mut methods =
            ["setup", "render"].into_iter().filter_map(|name| property(object, name)).peekable();
        methods.peek()?;
        Some(methods.filter_map(|method| self.component(method, scope)).flatten().collect())
    }

    fn function(
        &self,
        parameters: Option<&'a FormalParameters<'a>>,
        body: &'a FunctionBody<'a>,
        scope: Scope<'a>,
    ) -> Option<Vec<Drawn>> {
        let scope = Scope { parameters, ..scope };
        match self.leaves(&body.statements, scope) {
            Flow::Returns(Some(value)) => match value.get_inner_expression() {
                // A set-up returns the function that draws.
                Expression::ArrowFunctionExpression(_) | Expression::FunctionExpression(_) => {
                    self.component(value, scope)
                }
                value => Some(self.drawn(value, scope)),
            },
            Flow::Returns(None) | Flow::On | Flow::Unknown => Some(Vec::new()),
        }
    }

    /// What statements return on the first screen.
    fn leaves(&self, statements: &'a [Statement<'a>], scope: Scope<'a>) -> Flow<'a> {
        for statement in statements {
            match self.leaves_by(statement, scope) {
                Flow::On => {}
                flow => return flow,
            }
        }
        Flow::On
    }

    fn leaves_by(&self, statement: &'a Statement<'a>, scope: Scope<'a>) -> Flow<'a> {
        let Some(scope) = self.deeper(scope) else { return Flow::Unknown };
        match statement {
            Statement::ReturnStatement(one) => Flow::Returns(one.argument.as_ref()),
            Statement::BlockStatement(block) => self.leaves(&block.body, scope),
            Statement::IfStatement(one) => {
                let other = || match &one.alternate {
                    Some(other) => self.leaves_by(other, scope),
                    None => Flow::On,
                };
                match self.values.known(&one.test, DEEPEST) {
                    Some(known) if known.is_true() => self.leaves_by(&one.consequent, scope),
                    Some(_) => other(),
                    None => match (self.leaves_by(&one.consequent, scope), other()) {
                        (Flow::On, Flow::On) => Flow::On,
                        _ => Flow::Unknown,
                    },
                }
            }
            Statement::ExpressionStatement(_)
            | Statement::VariableDeclaration(_)
            | Statement::FunctionDeclaration(_)
            | Statement::ClassDeclaration(_)
            | Statement::EmptyStatement(_) => Flow::On,
            _ => Flow::Unknown,
        }
    }
}

impl<'a> Scope<'a> {
    /// Where nothing is known of what is given.
    pub fn outermost() -> Self {
        Self { parameters: None, depth: DEEPEST }
    }

    /// The parameter of a place, if it is a plain name.
    pub fn parameter(&self, place: usize) -> Option<&'a BindingPattern<'a>> {
        self.parameters?.items.get(place).map(|parameter| &parameter.pattern)
    }
}

/// What a function returns, if it does nothing else.
pub(super) fn returned<'a>(function: &'a Expression<'a>) -> Option<&'a Expression<'a>> {
    let body = match function.get_inner_expression() {
        Expression::FunctionExpression(function) => function.body.as_deref()?,
        Expression::ArrowFunctionExpression(arrow) => match &arrow.body {
            ArrowFunctionBody::FunctionBody(body) => body,
            body => return body.as_expression(),
        },
        _ => return None,
    };
    match body.statements.as_slice() {
        [Statement::ReturnStatement(one)] => one.argument.as_ref(),
        _ => None,
    }
}

/// The export that a loader takes: `Help` of `import(…).then(m => ({ default: m.Help }))`.
fn taken_of<'a>(loader: &'a Expression<'a>) -> Option<&'a str> {
    let mut value = returned(loader)?;
    loop {
        let Expression::CallExpression(call) = value.get_inner_expression() else { return None };
        if called_name(call) != Some("then") {
            value = returned(call.arguments.first()?.as_expression()?)?;
            continue;
        }
        let taken = returned(call.arguments.first()?.as_expression()?)?.get_inner_expression();
        let taken = match taken {
            Expression::ObjectExpression(object) => property(object, "default")?,
            taken => taken,
        };
        return match taken.get_inner_expression() {
            Expression::StaticMemberExpression(member) => Some(member.property.name.as_str()),
            _ => None,
        };
    }
}
