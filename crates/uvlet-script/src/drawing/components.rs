//! What components draw: the elements that their functions return on the first screen.

use std::{cell::Cell, collections::HashSet};

use oxc_ast::ast::{
    Argument, ArrowFunctionBody, BindingPattern, CallExpression, Class, ClassElement, Expression,
    FormalParameters, FunctionBody, ObjectExpression, Statement,
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

/// Elements that are given styles.
const TAGS: [&str; 26] = [
    "a", "article", "aside", "button", "div", "fieldset", "footer", "form", "h1", "h2", "h3", "h4",
    "header", "label", "li", "main", "nav", "ol", "p", "section", "span", "table", "td", "th",
    "tr", "ul",
];

/// What a router says where it stands in another.
const IN_ANOTHER: &str = "<Router> inside another <Router>";

/// Bytes of a router, at most.
const LARGEST: u32 = 6000;

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
            Expression::TaggedTemplateExpression(styled) => self.styled(&styled.tag, scope),
            Expression::Identifier(name) => match self.values.value(name) {
                Some(value) => self.of_value(value, scope),
                // One of several that a function returns.
                None => {
                    let (key, of) = self.values.picked(name)?;
                    let Expression::CallExpression(call) = of.get_inner_expression() else {
                        return None;
                    };
                    let made = self.returned_by(call)?.get_inner_expression();
                    let Expression::ObjectExpression(made) = made else { return None };
                    self.component(property(made, key)?, scope)
                }
            },
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
                let load = call.arguments.first().and_then(|first| self.load(call.span, first));
                if let Some(load) = load {
                    return Some(vec![load]);
                }
                let is_curried = matches!(&call.callee, Expression::CallExpression(_));
                let styled = is_curried.then(|| self.styled(&call.callee, scope)).flatten();
                if let Some(drawn) = styled.or_else(|| self.made(call, scope)) {
                    return Some(drawn);
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

    /// What a function of this script returns, which a call calls, if it returns one thing.
    fn returned_by(&self, call: &'a CallExpression<'a>) -> Option<&'a Expression<'a>> {
        let Expression::Identifier(name) = call.callee.get_inner_expression() else { return None };
        let body = match self.values.value(name)? {
            Value::Function(function) => function.body.as_deref()?,
            Value::Expression(Expression::FunctionExpression(function)) => {
                function.body.as_deref()?
            }
            Value::Expression(Expression::ArrowFunctionExpression(arrow)) => match &arrow.body {
                ArrowFunctionBody::FunctionBody(body) => body,
                body => return body.as_expression(),
            },
            _ => return None,
        };
        let mut paths = Paths::default();
        let goes_on = self.follow(&body.statements, &mut paths, Scope::outermost());
        match (paths.returned.as_slice(), goes_on) {
            ([Some(value)], false) => Some(value),
            _ => None,
        }
    }

    /// A component that a function of this script makes.
    fn made(&self, call: &'a CallExpression<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        let made = self.returned_by(call)?;
        // An element is none.
        let is_component = matches!(
            made.get_inner_expression(),
            Expression::CallExpression(_)
                | Expression::FunctionExpression(_)
                | Expression::ArrowFunctionExpression(_)
                | Expression::Identifier(_)
        );
        self.component(made, scope).filter(|_| is_component)
    }

    /// An element or a component with styles, `f("div",…)(…)`, `f.div` and a text: it draws what that does.
    fn styled(&self, of: &'a Expression<'a>, scope: Scope<'a>) -> Option<Vec<Drawn>> {
        let all = || vec![Drawn::Slot(CHILDREN.to_owned())];
        match of.get_inner_expression() {
            Expression::StaticMemberExpression(member) => {
                TAGS.contains(&member.property.name.as_str()).then(all)
            }
            Expression::CallExpression(call) => match call.arguments.first()? {
                Argument::StringLiteral(tag) => TAGS.contains(&tag.value.as_str()).then(all),
                Argument::TemplateLiteral(tag) => {
                    TAGS.contains(&tag.single_quasi()?.as_str()).then(all)
                }
                base @ (Argument::Identifier(_) | Argument::StaticMemberExpression(_)) => {
                    self.component(base.as_expression()?, scope)
                }
                Argument::ObjectExpression(_) if called_name(call) == Some("withConfig") => {
                    let Expression::StaticMemberExpression(member) = &call.callee else {
                        return None;
                    };
                    self.styled(&member.object, scope)
                }
                _ => None,
            },
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
        debug_assert!(around.start <= at, "a loader is part of its call");
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
        let mut paths = Paths::default();
        if self.follow(&body.statements, &mut paths, scope) {
            paths.returned.push(None);
        }
        let drawn = paths.returned.iter().map(|returned| match returned {
            // A set-up returns the function that draws.
            Some(value) => match value.get_inner_expression() {
                value @ (Expression::ArrowFunctionExpression(_)
                | Expression::FunctionExpression(_)) => {
                    self.component(value, scope).unwrap_or_default()
                }
                value => self.drawn(value, scope),
            },
            None => Vec::new(),
        });
        let drawn = drawn.reduce(in_both).unwrap_or_default();
        // It draws nothing where it stands in another of its kind, which is a mistake.
        let text = || self.values.semantic.source_text();
        let is_router = || {
            let span = body.span;
            text()[span.start as usize..span.end as usize].contains(IN_ANOTHER)
        };
        match drawn.is_empty() && body.span.size() < LARGEST && is_router() {
            true => Some(vec![Drawn::Slot(CHILDREN.to_owned())]),
            false => Some(drawn),
        }
    }

    /// Follows statements on the first screen; returns whether what stands behind them is reached.
    fn follow(
        &self,
        statements: &'a [Statement<'a>],
        paths: &mut Paths<'a>,
        scope: Scope<'a>,
    ) -> bool {
        statements.iter().all(|statement| self.follow_one(statement, paths, scope))
    }

    fn follow_one(
        &self,
        statement: &'a Statement<'a>,
        paths: &mut Paths<'a>,
        scope: Scope<'a>,
    ) -> bool {
        let Some(scope) = self.deeper(scope) else {
            paths.returned.push(None);
            return false;
        };
        match statement {
            Statement::ReturnStatement(one) => {
                paths.returned.push(one.argument.as_ref());
                false
            }
            // What fails draws nothing that could be told.
            Statement::ThrowStatement(_) => false,
            Statement::BlockStatement(block) => self.follow(&block.body, paths, scope),
            Statement::IfStatement(one) => {
                let known = self.values.known(&one.test, DEEPEST).map(|known| known.is_true());
                let goes_on =
                    known != Some(false) && self.follow_one(&one.consequent, paths, scope);
                let other = match &one.alternate {
                    Some(other) => known != Some(true) && self.follow_one(other, paths, scope),
                    None => known != Some(true),
                };
                goes_on || other
            }
            Statement::ExpressionStatement(_)
            | Statement::VariableDeclaration(_)
            | Statement::FunctionDeclaration(_)
            | Statement::ClassDeclaration(_)
            | Statement::EmptyStatement(_) => true,
            _ => {
                paths.returned.push(None);
                true
            }
        }
    }
}

/// What a function may return on the first screen; nothing where it returns what cannot be told.
#[derive(Default)]
struct Paths<'a> {
    returned: Vec<Option<&'a Expression<'a>>>,
}

/// What is drawn either way.
pub(super) fn in_both(mut one: Vec<Drawn>, other: Vec<Drawn>) -> Vec<Drawn> {
    one.retain(|drawn| other.contains(drawn));
    one
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
