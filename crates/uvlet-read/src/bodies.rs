//! Takes a webpack-like chunk without a source map apart: which stretch of it is which module.
//!
//! A chunk holds a table of module functions, `{KEY(e,t,n){…},…}`, keyed by the ids that the stats
//! name; a function's span is its module's. What follows the table is the runtime, and behind it an
//! entry module may stand bare, without a function. Modules that were merged into one function are
//! told apart by [`align`](crate::align).

use std::{
    cell::Cell,
    collections::{HashMap, HashSet},
    ops::Range,
};

use oxc_allocator::Allocator;
use oxc_ast::ast::{
    Argument, ArrayExpression, ArrayExpressionElement, ArrowFunctionBody, AssignmentTarget,
    BindingPattern, CallExpression, Expression, FunctionBody, ObjectExpression, ObjectPropertyKind,
    Program, PropertyKey, Statement,
};
use oxc_ast_visit::{Visit, walk};
use oxc_parser::Parser;
use oxc_span::{GetSpan, SourceType, Span};
use uvlet_record::{Basis, EdgeKind};

use crate::{
    align::{self, Hint, Share, Unit},
    emitted::{DEEPEST, nesting},
    told::{Slot, Told, ToldFile},
};

/// A stretch of the chunk, to the beginning of the next.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Body {
    /// First byte.
    pub start: usize,
    /// The module among those that the bundler names; none for the bundler's own code.
    pub module: Option<usize>,
    /// How it was found.
    pub basis: Basis,
}

/// Gives the source text of a module, where there is one.
pub type Texts<'t> = dyn Fn(usize) -> Option<String> + Sync + 't;

/// A chunk taken apart.
#[derive(Debug, Default)]
pub struct Parts {
    /// Stretches that cover it.
    pub bodies: Vec<Body>,
    /// Merged modules in it could be told apart by their sizes only.
    pub by_size: bool,
}

/// Takes a chunk apart; `None` where it holds no module that the bundler names for it.
pub fn take_apart(text: &str, file: &ToldFile, told: &Told, texts: &Texts<'_>) -> Option<Parts> {
    if file.slots.is_empty() || nesting(text) > DEEPEST {
        return None;
    }
    let allocator = Allocator::default();
    let parsed = Parser::new(&allocator, text, SourceType::unambiguous()).parse();
    if parsed.panicked {
        return None;
    }
    let by_id: HashMap<&str, &Slot> =
        file.slots.iter().filter_map(|slot| Some((slot.id.as_deref()?, slot))).collect();
    // A CommonJS module's own `require` calls are its code, an ES module's imports are made by the
    // bundler.
    let requires: HashSet<usize> = told
        .edges
        .iter()
        .filter(|edge| edge.kind == EdgeKind::Require)
        .map(|edge| edge.from)
        .collect();
    let mut finder = Finder { by_id: &by_id, requires: &requires, table: Vec::new(), found: None };
    finder.visit_program(&parsed.program);
    let table = finder.table;
    let chunk = Chunk { text, told, texts, by_size: Cell::new(false) };
    let mut stretches: Vec<Stretch> = Vec::new();
    for row in &table {
        chunk.stretch(row.body, &row.units, row.slot, &mut stretches);
    }
    // Modules that stand in no table stand bare, behind the runtime.
    let bare: Vec<&Slot> =
        file.slots.iter().filter(|slot| !table.iter().any(|row| row.slot == *slot)).collect();
    if !bare.is_empty() {
        let units = bare_units(&parsed.program, finder.found);
        let modules = bare.iter().flat_map(|slot| slot.modules.iter().copied()).collect();
        if let (Some(first), Some(last)) = (units.first(), units.last()) {
            let body = Span::new(first.start, last.end);
            chunk.stretch(body, &units, &Slot { id: None, modules }, &mut stretches);
        }
    }
    if stretches.is_empty() {
        return None;
    }
    stretches.sort_by_key(|stretch| stretch.range.start);
    Some(Parts { bodies: filled(&stretches, text.len()), by_size: chunk.by_size.get() })
}

/// A stretch with an end.
struct Stretch {
    range: Range<usize>,
    module: usize,
    basis: Basis,
}

/// Fills what is between the stretches with the bundler's own code.
fn filled(stretches: &[Stretch], length: usize) -> Vec<Body> {
    let glue = |start| Body { start, module: None, basis: Basis::Spanned };
    let mut bodies = Vec::with_capacity(2 * stretches.len() + 1);
    let mut end = 0;
    for Stretch { range, module, basis } in stretches {
        if range.start < end {
            continue;
        }
        if range.start > end || (end == 0 && bodies.is_empty() && range.start > 0) {
            bodies.push(glue(end));
        }
        bodies.push(Body { start: range.start, module: Some(*module), basis: *basis });
        end = range.end;
    }
    if end < length || bodies.is_empty() {
        bodies.push(glue(end));
    }
    bodies
}

struct Chunk<'c> {
    text: &'c str,
    told: &'c Told,
    texts: &'c Texts<'c>,
    by_size: Cell<bool>,
}

impl Chunk<'_> {
    /// The stretches of one function's body, or of bare code.
    fn stretch(&self, body: Span, units: &[Span], slot: &Slot, stretches: &mut Vec<Stretch>) {
        let whole = range(body);
        match slot.modules.as_slice() {
            [] => {}
            [_] => {
                let whole = |unit: &Span| {
                    let range = range(*unit);
                    Share { start: range.start, end: range.end, owner: 0 }
                };
                let shares: Vec<Share> = units.iter().map(whole).collect();
                self.place(&shares, &slot.modules, Basis::Spanned, stretches);
            }
            modules => match self.by_headings(&whole, modules) {
                Some(mut parts) => stretches.append(&mut parts),
                None => self.aligned(units, modules, stretches),
            },
        }
    }

    /// Code that was not minified says in a comment above each merged module which one it is:
    /// `;// ./src/a.js`, in older versions `// CONCATENATED MODULE: ./src/a.js`.
    fn by_headings(&self, whole: &Range<usize>, modules: &[usize]) -> Option<Vec<Stretch>> {
        let by_name: HashMap<&str, usize> = modules
            .iter()
            .map(|&module| (self.told.modules[module].raw.as_str(), module))
            .collect();
        let text = &self.text[whole.clone()];
        let mut starts: Vec<(usize, Option<usize>)> = Vec::new();
        for (at, _) in text.match_indices("// ") {
            let line_start = text[..at].rfind('\n').map_or(0, |at| at + 1);
            let line = text[at + 3..].split('\n').next().unwrap_or_default();
            let name = line.trim().trim_start_matches("CONCATENATED MODULE: ");
            let is_heading = text[line_start..at].trim().trim_end_matches(';').is_empty();
            let module = by_name.get(name).copied();
            // Imports and exports that the bundler writes have headings too.
            let is_link = ["EXTERNAL MODULE:", "NAMESPACE OBJECT:", "EXPORTS"]
                .iter()
                .any(|w| name.starts_with(w));
            if is_heading && (is_link || module.is_some()) {
                starts.push((whole.start + line_start, module));
            }
        }
        let named = starts.iter().filter(|(_, module)| module.is_some()).count();
        if named * 2 < modules.len() {
            return None;
        }
        let ends = starts.iter().skip(1).map(|&(start, _)| start).chain([whole.end]);
        let parts = starts.iter().zip(ends).filter_map(|(&(start, module), end)| {
            Some(Stretch { range: start..end, module: module?, basis: Basis::Spanned })
        });
        Some(parts.filter(|part| !part.range.is_empty()).collect())
    }

    /// CommonJS modules that were merged stand in wrappers before all others, the last to be
    /// evaluated first.
    fn aligned(&self, units: &[Span], modules: &[usize], stretches: &mut Vec<Stretch>) {
        let (wrapped, bare): (Vec<Span>, Vec<Span>) =
            units.iter().partition(|unit| is_wrapped(&self.text[range(**unit)]));
        let (mut commonjs, others): (Vec<usize>, Vec<usize>) =
            modules.iter().partition(|&&module| self.told.modules[module].commonjs);
        if wrapped.is_empty() || commonjs.is_empty() || others.is_empty() {
            return self.in_order(units, modules, stretches);
        }
        commonjs.reverse();
        self.in_order(&wrapped, &commonjs, stretches);
        self.in_order(&bare, &others, stretches);
    }

    fn in_order(&self, spans: &[Span], modules: &[usize], stretches: &mut Vec<Stretch>) {
        let units: Vec<Unit<'_>> = spans
            .iter()
            .map(|span| Unit { start: span.start as usize, text: &self.text[range(*span)] })
            .collect();
        let hints: Vec<Hint> = modules
            .iter()
            .map(|&module| Hint::new(&self.told.modules[module], (self.texts)(module)))
            .collect();
        if hints.len() > 1 && hints.iter().all(Hint::is_mere_size) {
            self.by_size.set(true);
        }
        let shares = align::align(&units, &hints);
        self.place(&shares, modules, Basis::Estimated, stretches);
    }

    /// Makes stretches of shares. A joint between two is their module's, where it is the same.
    fn place(
        &self,
        shares: &[Share],
        modules: &[usize],
        basis: Basis,
        stretches: &mut Vec<Stretch>,
    ) {
        let mut first = 0;
        for (at, share) in shares.iter().enumerate() {
            let joined = shares.get(at + 1).is_some_and(|next| {
                next.owner == share.owner && is_joint(&self.text[share.end..next.start])
            });
            if joined {
                continue;
            }
            let range = shares[first].start..share.end;
            stretches.push(Stretch { range, module: modules[share.owner], basis });
            first = at + 1;
        }
    }
}

/// `a=n.cw((e,t)=>{…})`, a module with its own `module` and `exports` inside a merged function.
fn is_wrapped(text: &str) -> bool {
    let value = text.split_once('=').map_or("", |(_, value)| value.trim_start());
    let object = value.trim_start_matches(|c: char| c.is_alphanumeric() || c == '_' || c == '$');
    object.starts_with(".cw(")
}

/// Whether only punctuation, space or comments stand there, and no link that was left out.
fn is_joint(text: &str) -> bool {
    let rest = text.trim_matches(|c: char| c.is_whitespace() || c == ';' || c == ',');
    rest.is_empty() || rest.starts_with("//") || rest.starts_with("/*")
}

fn range(span: Span) -> Range<usize> {
    span.start as usize..span.end as usize
}

/// A module function in the table.
struct Row<'s> {
    slot: &'s Slot,
    /// What stands between its brackets.
    body: Span,
    /// The parts of its body that are not the bundler's.
    units: Vec<Span>,
}

/// Finds the module table: the outermost literal of functions whose keys are mostly known ids.
struct Finder<'s> {
    by_id: &'s HashMap<&'s str, &'s Slot>,
    /// Modules with `require` calls of their own.
    requires: &'s HashSet<usize>,
    table: Vec<Row<'s>>,
    found: Option<Span>,
}

impl<'s> Finder<'s> {
    fn take<'a, 'e>(
        &mut self,
        span: Span,
        entries: impl Iterator<Item = Option<(String, &'e Expression<'a>)>>,
    ) -> bool
    where
        'a: 'e,
    {
        let mut rows = Vec::new();
        let mut strangers = 0;
        for entry in entries {
            let Some((key, value)) = entry else { return false };
            let inner = value.get_inner_expression();
            if !matches!(
                inner,
                Expression::FunctionExpression(_) | Expression::ArrowFunctionExpression(_)
            ) {
                return false;
            }
            match self.by_id.get(key.as_str()) {
                Some(slot) => {
                    let keeps = slot.modules.iter().any(|module| self.requires.contains(module));
                    rows.push(row(slot, inner, keeps));
                }
                None => strangers += 1,
            }
        }
        if rows.is_empty() || rows.len() < strangers {
            return false;
        }
        self.table.append(&mut rows);
        self.found.get_or_insert(span);
        true
    }
}

impl<'a> Visit<'a> for Finder<'_> {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let entries = object.properties.iter().map(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                let key = match &property.key {
                    PropertyKey::NumericLiteral(id) => id.value.to_string(),
                    PropertyKey::StringLiteral(id) => id.value.to_string(),
                    PropertyKey::StaticIdentifier(id) => id.name.to_string(),
                    _ => return None,
                };
                Some((key, &property.value))
            }
            ObjectPropertyKind::SpreadProperty(_) => None,
        });
        if !self.take(object.span, entries) {
            walk::walk_object_expression(self, object);
        }
    }

    fn visit_array_expression(&mut self, array: &ArrayExpression<'a>) {
        let entries = array
            .elements
            .iter()
            .enumerate()
            .filter(|(_, element)| !matches!(element, ArrayExpressionElement::Elision(_)))
            .map(|(at, element)| Some((at.to_string(), element.as_expression()?)));
        if !self.take(array.span, entries) {
            walk::walk_array_expression(self, array);
        }
    }
}

/// The statements of a function; none of an arrow that is a mere expression.
fn function_body<'e, 'a>(value: &'e Expression<'a>) -> Option<&'e FunctionBody<'a>> {
    match value.get_inner_expression() {
        Expression::FunctionExpression(function) => function.body.as_deref(),
        Expression::ArrowFunctionExpression(arrow) => match &arrow.body {
            ArrowFunctionBody::FunctionBody(body) => Some(body),
            _ => None,
        },
        _ => None,
    }
}

/// A row of the table. `keeps` tells that `require` calls are the module's own.
fn row<'s>(slot: &'s Slot, function: &Expression<'_>, keeps: bool) -> Row<'s> {
    let Some(body) = function_body(function) else {
        return Row { slot, body: function.span(), units: vec![function.span()] };
    };
    let within = Span::new(body.span.start + 1, body.span.end.saturating_sub(1));
    let require = third_parameter(function).filter(|_| !keeps);
    Row { slot, body: within, units: units_of(body, require) }
}

/// The name that a module function gives the require function.
fn third_parameter<'e>(function: &'e Expression<'_>) -> Option<&'e str> {
    let parameters = match function {
        Expression::FunctionExpression(function) => &function.params,
        Expression::ArrowFunctionExpression(arrow) => &arrow.params,
        _ => return None,
    };
    match &parameters.items.get(2)?.pattern {
        BindingPattern::BindingIdentifier(name) => Some(name.name.as_str()),
        _ => None,
    }
}

/// The parts of a function that can belong to different modules: its statements, with declarations
/// and sequences taken apart, as minifiers join them. What the bundler writes for an ES module's
/// imports and exports, by way of the require function, is left out.
fn units_of(body: &FunctionBody<'_>, require: Option<&str>) -> Vec<Span> {
    // A minified body may stand in one more function, called at once.
    if let [Statement::ExpressionStatement(only)] = body.statements.as_slice()
        && let Some(inner) = called_at_once(&only.expression)
    {
        return units_of(inner, require);
    }
    let parts = body.statements.iter().flat_map(split);
    parts.flat_map(|(span, value)| own_parts(span, value, require)).collect()
}

/// What of a part is the module's: all of it, but of a link only what a minifier put in the place of
/// an exported name that is used once.
fn own_parts(span: Span, value: Option<&Expression<'_>>, require: Option<&str>) -> Vec<Span> {
    match value {
        Some(Expression::CallExpression(call)) if is_link(call, require) => {
            call.arguments.iter().flat_map(inlined).collect()
        }
        _ => vec![span],
    }
}

/// `n.d(t,{…})`, `n.r(t)`, `n(7)`, `n.n(o)`: a module's exports and imports as the bundler writes
/// them.
fn is_link(call: &CallExpression<'_>, require: Option<&str>) -> bool {
    let Some(require) = require else { return false };
    match &call.callee {
        Expression::Identifier(callee) => {
            let is_id = |argument: &Argument<'_>| {
                matches!(argument, Argument::NumericLiteral(_) | Argument::StringLiteral(_))
            };
            callee.name == require && call.arguments.len() == 1 && is_id(&call.arguments[0])
        }
        Expression::StaticMemberExpression(member) => {
            matches!(&member.object, Expression::Identifier(object) if object.name == require)
                && matches!(member.property.name.as_str(), "d" | "r" | "n")
        }
        _ => false,
    }
}

/// The values of a link that are more than names.
fn inlined(argument: &Argument<'_>) -> Vec<Span> {
    let body = |value: &Expression<'_>| match value {
        Expression::ArrowFunctionExpression(arrow) => arrow.body.span(),
        value => value.span(),
    };
    let values: Vec<Span> = match argument {
        Argument::ObjectExpression(names) => names
            .properties
            .iter()
            .map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property) => body(&property.value),
                ObjectPropertyKind::SpreadProperty(spread) => spread.span,
            })
            .collect(),
        Argument::ArrayExpression(names) => {
            names.elements.iter().filter_map(|element| element.as_expression()).map(body).collect()
        }
        argument => vec![argument.span()],
    };
    values.into_iter().filter(|span| span.size() >= SMALL).collect()
}

/// Bytes below which a value is taken for a name.
const SMALL: u32 = 24;

/// The parts of a statement, with the value of each where it has one.
fn split<'e, 'a>(statement: &'e Statement<'a>) -> Vec<(Span, Option<&'e Expression<'a>>)> {
    match statement {
        Statement::VariableDeclaration(variables) => {
            let parts = variables.declarations.iter();
            let mut parts: Vec<_> = parts.map(|part| (part.span, part.init.as_ref())).collect();
            if let Some((first, _)) = parts.first_mut() {
                first.start = variables.span.start;
            }
            parts
        }
        Statement::ExpressionStatement(statement) => match &statement.expression {
            Expression::SequenceExpression(sequence) => {
                sequence.expressions.iter().map(|part| (part.span(), Some(part))).collect()
            }
            expression => vec![(statement.span, Some(expression))],
        },
        _ => vec![(statement.span(), None)],
    }
}

/// The body of `(() => {…})()` and the like.
fn called_at_once<'e, 'a>(expression: &'e Expression<'a>) -> Option<&'e FunctionBody<'a>> {
    match expression.get_inner_expression() {
        Expression::CallExpression(call) if call.arguments.is_empty() => {
            function_body(&call.callee)
        }
        Expression::UnaryExpression(unary) => called_at_once(&unary.argument),
        _ => None,
    }
}

/// What stands behind the runtime in the function around the table, or in the whole script where
/// there is no table.
fn bare_units(program: &Program<'_>, table: Option<Span>) -> Vec<Span> {
    let mut statements: &[Statement<'_>] = &program.body;
    loop {
        let around = statements.iter().find(|statement| match table {
            Some(table) => statement.span().contains_inclusive(table),
            None => statements.len() == 1,
        });
        let inner = match around {
            Some(Statement::ExpressionStatement(statement)) => {
                called_at_once(&statement.expression)
            }
            _ => None,
        };
        let Some(inner) = inner else { break };
        statements = &inner.statements;
    }
    let first = table.map_or(0, |table| {
        let at = statements.iter().position(|s| s.span().contains_inclusive(table));
        at.unwrap_or(0)
    });
    let behind = &statements[first..];
    let require = behind.iter().find_map(require_name);
    // A table that is handed to a runtime elsewhere is all there is.
    if table.is_some() && require.is_none() {
        return Vec::new();
    }
    let mut units: Vec<(Span, bool)> = Vec::new();
    for statement in behind {
        let is_require = matches!(statement, Statement::FunctionDeclaration(function)
            if function.id.as_ref().map(|id| id.name.as_str()) == require.as_deref());
        let runs = |expression: &Expression<'_>| {
            require.as_deref().is_some_and(|name| extends(expression, name))
        };
        match statement {
            Statement::ExpressionStatement(statement) => match &statement.expression {
                Expression::SequenceExpression(sequence) => {
                    units.extend(sequence.expressions.iter().map(|part| (part.span(), runs(part))));
                }
                expression => units.push((statement.span, runs(expression))),
            },
            _ => {
                let holds_table =
                    |span: &Span| table.is_some_and(|table| span.contains_inclusive(table));
                units.extend(
                    split(statement)
                        .into_iter()
                        .flat_map(|(span, value)| own_parts(span, value, require.as_deref()))
                        .map(|span| (span, is_require || holds_table(&span))),
                );
            }
        }
    }
    // The runtime ends with the last part that gives the require function something; without a
    // require function there is no runtime.
    let end = units.iter().rposition(|(_, runs)| *runs).map_or(0, |at| at + 1);
    let spans: Vec<Span> = units[end..].iter().map(|(span, _)| *span).collect();
    match (spans.as_slice(), behind.last()) {
        // An entry that stands in a function of its own.
        ([only], Some(Statement::ExpressionStatement(statement))) => {
            let last = match &statement.expression {
                Expression::SequenceExpression(sequence) => sequence.expressions.last(),
                expression => Some(expression),
            };
            match last.and_then(called_at_once) {
                Some(body) if only.contains_inclusive(body.span) => {
                    units_of(body, require.as_deref())
                }
                _ => spans,
            }
        }
        _ => spans,
    }
}

/// The name of the runtime's require function, if this declares it: the one that makes a module's
/// `exports` object.
fn require_name(statement: &Statement<'_>) -> Option<String> {
    let Statement::FunctionDeclaration(function) = statement else { return None };
    let mut finder = MakesExports(false);
    finder.visit_function_body(function.body.as_deref()?);
    let name = function.id.as_ref()?.name.to_string();
    finder.0.then_some(name)
}

struct MakesExports(bool);

impl<'a> Visit<'a> for MakesExports {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        self.0 |= object.properties.iter().any(|property| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                property.key.is_specific_static_name("exports")
                    && matches!(&property.value, Expression::ObjectExpression(object) if object.properties.is_empty())
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        });
    }
}

/// Whether an expression gives the require function a property, by itself or in a function that is
/// called at once.
fn extends(expression: &Expression<'_>, require: &str) -> bool {
    match expression.get_inner_expression() {
        Expression::AssignmentExpression(assignment) => {
            let target = match &assignment.left {
                AssignmentTarget::StaticMemberExpression(member) => is_of(&member.object, require),
                _ => false,
            };
            target || extends(&assignment.right, require)
        }
        Expression::SequenceExpression(sequence) => {
            sequence.expressions.iter().any(|part| extends(part, require))
        }
        expression => called_at_once(expression).is_some_and(|body| {
            body.statements.iter().any(|statement| match statement {
                Statement::ExpressionStatement(statement) => {
                    extends(&statement.expression, require)
                }
                Statement::VariableDeclaration(variables) => variables
                    .declarations
                    .iter()
                    .filter(|variable| matches!(variable.id, BindingPattern::BindingIdentifier(_)))
                    .filter_map(|variable| variable.init.as_ref())
                    .any(|init| extends(init, require)),
                _ => false,
            })
        }),
    }
}

/// Whether an expression is the require function, or a property of it.
fn is_of(object: &Expression<'_>, require: &str) -> bool {
    match object {
        Expression::Identifier(object) => object.name == require,
        Expression::StaticMemberExpression(member) => is_of(&member.object, require),
        _ => false,
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use uvlet_record::{Basis, EdgeKind};

    use super::take_apart;
    use crate::told::{Slot, Told, ToldEdge, ToldFile, ToldModule};

    /// Modules `a`, `b`, … with the ids 1, 2, …; two letters are modules merged into one.
    fn build(slots: &[&str]) -> (ToldFile, Told) {
        let mut told = Told::default();
        let mut file = ToldFile::default();
        for (at, slot) in slots.iter().enumerate() {
            let mut modules = Vec::new();
            for name in slot.chars() {
                modules.push(told.modules.len());
                let raw = name.to_string();
                told.modules.push(ToldModule { raw, bytes: Some(100), ..ToldModule::default() });
            }
            file.slots.push(Slot { id: Some((at + 1).to_string()), modules });
        }
        (file, told)
    }

    /// The text of each module, in order; `·` is the bundler's own.
    fn parts(text: &str, file: &ToldFile, told: &Told) -> Vec<String> {
        let bodies = take_apart(text, file, told, &|_| None).unwrap().bodies;
        let ends = bodies.iter().skip(1).map(|body| body.start).chain([text.len()]);
        bodies
            .iter()
            .zip(ends)
            .filter_map(|(body, end)| {
                let name = &told.modules[body.module?].raw;
                Some(format!("{name}:{}", &text[body.start..end]))
            })
            .collect()
    }

    #[rstest]
    #[case::shorthand("(self.w=self.w||[]).push([[7],{1(e,t,n){sail()},2(e){tide()}}]);")]
    #[case::functions(
        "(self.w=self.w||[]).push([[7],{1:function(e,t,n){sail()},2:function(e){tide()}}]);"
    )]
    #[case::arrows("(self.w=self.w||[]).push([[7],{1:(e,t,n)=>{sail()},2:e=>{tide()}},r=>r(1)]);")]
    #[case::quoted("(self.w=self.w||[]).push([[7],{\"1\":(e,t,n)=>{sail()},\"2\":e=>{tide()}}]);")]
    #[case::array(
        "(self.w=self.w||[]).push([[7],[,function(e,t,n){sail()},function(e){tide()}]]);"
    )]
    #[case::commonjs("exports.ids=[7];exports.modules={1:(e,t,n)=>{sail()},2:e=>{tide()}};")]
    #[case::bootstrap(
        "(()=>{var e={1(e,t,n){sail()},2(e){tide()}},t={};function n(r){var o=t[r]={exports:{}};return e[r](o,o.exports,n),o.exports}n.o=1,n(1)})();"
    )]
    #[case::links(
        "(self.w=self.w||[]).push([[7],{1(e,t,n){\"use strict\";n.r(t),n.d(t,{a:()=>r});var o=n(2);sail()},2(e){tide()}}]);"
    )]
    fn module_tables(#[case] text: &str) {
        let (file, told) = build(&["a", "b"]);
        assert_eq!(parts(text, &file, &told), ["a:sail()", "b:tide()"]);
    }

    #[test]
    fn evaluated_bodies() {
        let (file, told) = build(&["a"]);
        let text = "var m={1:(e,t,n)=>{eval(\"sail()\\n//# sourceURL=webpack://a\")}};";
        assert_eq!(parts(text, &file, &told), ["a:eval(\"sail()\\n//# sourceURL=webpack://a\")"]);
    }

    #[test]
    fn an_entry_stands_bare_behind_the_runtime() {
        let (file, told) = build(&["a", "b"]);
        let text = "(()=>{var e={2(e){tide()}},t={};function n(r){var o=t[r]={exports:{}};return e[r](o,o.exports,n),o.exports}n.g=1,(()=>{n.f.j=()=>{}})(),(()=>{\"use strict\";n(2),sail()})()})();";
        assert_eq!(parts(text, &file, &told), ["b:tide()", "a:sail()"]);
    }

    #[test]
    fn a_require_of_commonjs_is_its_own_code() {
        let (file, mut told) = build(&["a", "b"]);
        let edge = ToldEdge { from: 0, to: 1, kind: EdgeKind::Require, request: None };
        told.edges.push(edge);
        let text = "(self.w=self.w||[]).push([[7],{1(e,t,n){var o=n(2);sail(o)},2(e){tide()}}]);";
        assert_eq!(parts(text, &file, &told), ["a:var o=n(2);sail(o)", "b:tide()"]);
    }

    #[test]
    fn headings_of_unminified_code() {
        let (file, told) = build(&["ab", "c"]);
        let text = "(self.w=self.w||[]).push([[7],{1:(e,t,n)=>{\n;// a\nsail()\n// EXTERNAL MODULE: c\nvar c = n(2);\n;// b\ntide()\n},2:e=>{}}]);";
        assert_eq!(parts(text, &file, &told), ["a:;// a\nsail()\n", "b:;// b\ntide()\n"]);
        let bodies = take_apart(text, &file, &told, &|_| None).unwrap().bodies;
        assert!(bodies.iter().all(|body| body.basis == Basis::Spanned));
    }

    #[test]
    fn merged_modules_by_their_words_wherever_they_were_moved() {
        let (file, told) = build(&["abc"]);
        let text = "(self.w=self.w||[]).push([[7],{1(e,t,n){const r=\"low water\",o={harbour:1,quay:2};go({departure:\"nine\",crossing:()=>{e.harbour=e.quay}}),e.departure(r)}}]);";
        let sources = [
            "export const a = \"low water\"",
            "export const b = {harbour: 1, quay: 2}; b.harbour = b.quay",
            "go({departure: \"nine\", crossing: f}); x.departure(a)",
        ];
        let texts = |at: usize| Some(sources[at].to_owned());
        let bodies = take_apart(text, &file, &told, &texts).unwrap().bodies;
        let owner = |word: &str| {
            let at = text.find(word).unwrap();
            let body = bodies.iter().rev().find(|body| body.start <= at).unwrap();
            body.module.map(|module| told.modules[module].raw.as_str())
        };
        let words = ["low water", "quay:2", "nine", "departure(r)"];
        assert_eq!(words.map(owner), [Some("a"), Some("b"), Some("c"), Some("c")]);
    }
}
