//! What code looks like once names are taken off it, so that two texts of one source are told to be that.
//!
//! Minifiers rename what a script declares, and keep its structure, its texts, and the names of
//! properties. [`Shapes::marks`] are a sample of the structure that is alike wherever the code is, by
//! winnowing (Schleimer, Wilkerson and Aiken, "Winnowing: local algorithms for document fingerprinting",
//! 2003); [`Shapes::helpers`] are functions that depend on nothing around them, each with a digest that
//! is equal only where they do the same.

use std::{
    collections::HashMap,
    hash::{DefaultHasher, Hash, Hasher},
    ops::Range,
};

use oxc_ast::{
    AstKind,
    ast::{
        ArrowFunctionExpression, BindingIdentifier, Function, IdentifierReference, MethodDefinition,
    },
};
use oxc_ast_visit::{Visit, walk};
use oxc_semantic::{Scoping, SemanticBuilder};
use oxc_span::{GetSpan, Span};
use oxc_syntax::{scope::ScopeFlags, symbol::SymbolId};

use crate::{parse::Script, span::range};

/// The end of what a step began; it tells lists of different lengths apart.
const END: u64 = 0;
/// Steps of structure that make one mark: about two statements of minified code.
const GRAM: usize = 24;
/// Of so many marks in a row at least one is kept.
const WINDOW: usize = 8;
/// Bytes of a function below which it is no helper worth a word, and beyond which it is a wrapper.
const HELPER: Range<usize> = 80..6000;
/// Letters of a name of a property that a minifier may have made up.
const MADE_UP: usize = 2;

/// A step of structure, or a mark of several, at its first byte.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Mark {
    /// First byte.
    pub at: usize,
    /// What it looks like.
    pub digest: u64,
}

/// A function that depends on nothing around it but on others of the kind.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Helper {
    /// Its bytes.
    pub range: Range<usize>,
    /// What it does, whatever the names in it are.
    pub digest: u64,
    /// First byte of its name where that is declared, if it has one.
    pub head: Option<usize>,
}

/// What a script looks like.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Shapes {
    /// Its structure, step by step.
    pub steps: Vec<Mark>,
    /// Functions that could stand anywhere, in the order of the text.
    pub helpers: Vec<Helper>,
}

impl Shapes {
    /// Looks at a script.
    #[must_use]
    pub fn of(script: &Script<'_>) -> Self {
        let semantic = SemanticBuilder::new().build(&script.program).semantic;
        let scoping = semantic.scoping();
        let mut finder = Finder {
            scoping,
            steps: Vec::new(),
            functions: Vec::new(),
            by_symbol: HashMap::new(),
            open: Vec::new(),
            awaited: None,
            is_method: false,
        };
        finder.visit_program(&script.program);
        let Finder { steps, functions, by_symbol, .. } = finder;
        let settled = settle(&functions, &by_symbol);
        let mut helpers: Vec<Helper> = Vec::new();
        for (function, digest) in functions.iter().zip(&settled) {
            if let Some(digest) = digest
                && HELPER.contains(&(function.span.size() as usize))
                && !function.is_method
            {
                let head = function.symbol.map(|symbol| scoping.symbol_span(symbol).start as usize);
                helpers.push(Helper { range: range(function.span), digest: *digest, head });
            }
        }
        helpers.sort_by_key(|helper| helper.range.start);
        let steps = steps.into_iter().filter(|step| step.digest != END).map(Step::mark);
        Self { steps: steps.collect(), helpers }
    }

    /// The marks of code that stands at these steps in a row: a sample of all its stretches.
    #[must_use]
    pub fn marks(steps: &[Mark]) -> Vec<Mark> {
        let grams: Vec<Mark> = steps
            .windows(GRAM)
            .map(|gram| {
                let digests: Vec<u64> = gram.iter().map(|step| step.digest).collect();
                Mark { at: gram[0].at, digest: digest(&digests) }
            })
            .collect();
        let mut marks: Vec<Mark> = grams
            .windows(WINDOW)
            .filter_map(|window| window.iter().min_by_key(|mark| (mark.digest, mark.at)).copied())
            .collect();
        marks.dedup();
        marks
    }
}

fn digest(value: &impl Hash) -> u64 {
    let mut hasher = DefaultHasher::new();
    value.hash(&mut hasher);
    hasher.finish()
}

/// A step with what it names.
#[derive(Clone, Copy)]
struct Step {
    at: usize,
    digest: u64,
    names: Option<Named>,
}

/// What a name stands for.
#[derive(Clone, Copy)]
enum Named {
    /// Something that the script declares.
    Declared(SymbolId),
    /// Something of the host's, by its name.
    Host(u64),
}

impl Step {
    fn mark(self) -> Mark {
        Mark { at: self.at, digest: self.digest }
    }
}

/// A function as it is found.
struct Found {
    span: Span,
    symbol: Option<SymbolId>,
    is_method: bool,
    /// What it is made of, where it is of a size to be a helper.
    steps: Vec<Step>,
    /// What it names that it does not declare.
    outside: Vec<SymbolId>,
    /// It asks who it is called on, or what it is called with.
    is_bound: bool,
}

/// What each function does, by what it is made of and by what the functions do that it calls. None
/// where it depends on what stands around it, or calls itself through others.
fn settle(functions: &[Found], by_symbol: &HashMap<SymbolId, usize>) -> Vec<Option<u64>> {
    let mut settled: Vec<Option<u64>> = vec![None; functions.len()];
    let mut callers: Vec<Vec<usize>> = vec![Vec::new(); functions.len()];
    let mut unsettled: Vec<usize> = vec![0; functions.len()];
    for (at, function) in functions.iter().enumerate() {
        for symbol in &function.outside {
            unsettled[at] += 1;
            if let Some(&called) = by_symbol.get(symbol) {
                callers[called].push(at);
            }
        }
    }
    // Those that call none first, so that each is looked at once.
    let mut ready: Vec<usize> = (0..functions.len()).filter(|&at| unsettled[at] == 0).collect();
    while let Some(at) = ready.pop() {
        let function = &functions[at];
        if function.steps.is_empty() || function.is_bound {
            continue;
        }
        let outside = function.outside.iter();
        let outside = outside.filter_map(|symbol| Some((*symbol, settled[by_symbol[symbol]]?)));
        settled[at] = Some(shape(function, &outside.collect()));
        for &caller in &callers[at] {
            unsettled[caller] -= 1;
            if unsettled[caller] == 0 {
                ready.push(caller);
            }
        }
    }
    settled
}

fn shape(function: &Found, outside: &HashMap<SymbolId, u64>) -> u64 {
    let mut inside: HashMap<SymbolId, usize> = HashMap::new();
    let mut hasher = DefaultHasher::new();
    for step in &function.steps {
        step.digest.hash(&mut hasher);
        match step.names {
            Some(Named::Declared(symbol)) if function.symbol == Some(symbol) => {
                "itself".hash(&mut hasher)
            }
            Some(Named::Declared(symbol)) => match outside.get(&symbol) {
                Some(digest) => ("outside", digest).hash(&mut hasher),
                None => {
                    let next = inside.len();
                    inside.entry(symbol).or_insert(next).hash(&mut hasher);
                }
            },
            Some(Named::Host(name)) => ("host", name).hash(&mut hasher),
            None => {}
        }
    }
    hasher.finish()
}

struct Finder<'s> {
    scoping: &'s Scoping,
    steps: Vec<Step>,
    functions: Vec<Found>,
    /// The function that a name stands for.
    by_symbol: HashMap<SymbolId, usize>,
    /// Functions around the place: whether each is an arrow, and whether it asks who it is called on.
    open: Vec<(bool, bool)>,
    /// A name that the next function is given.
    awaited: Option<(Span, SymbolId)>,
    is_method: bool,
}

impl Finder<'_> {
    fn step(&mut self, span: Span, digest: u64, names: Option<Named>) {
        self.steps.push(Step { at: span.start as usize, digest, names });
    }

    /// `this` and the like: of the innermost function that is no arrow.
    fn bind(&mut self) {
        for (is_arrow, is_bound) in self.open.iter_mut().rev() {
            *is_bound = true;
            if !*is_arrow {
                break;
            }
        }
    }

    /// What stands in a function, once it has been walked; an arrow has no `id`.
    fn function(
        &mut self,
        span: Span,
        is_arrow: bool,
        id: Option<SymbolId>,
        walk: impl FnOnce(&mut Self),
    ) {
        let is_method = std::mem::take(&mut self.is_method);
        let given = self.awaited.take().filter(|(value, _)| *value == span);
        let symbol = id.or(given.map(|(_, symbol)| symbol));
        let first = self.steps.len();
        self.open.push((is_arrow, false));
        walk(self);
        let is_bound = self.open.pop().is_some_and(|(_, is_bound)| is_bound);
        let is_wanted = HELPER.contains(&(span.size() as usize));
        let steps = if is_wanted { self.steps[first..].to_vec() } else { Vec::new() };
        let is_inside = |symbol: SymbolId| {
            let declared = self.scoping.symbol_span(symbol);
            declared.start >= span.start && declared.end <= span.end
        };
        let mut outside: Vec<SymbolId> = steps
            .iter()
            .filter_map(|step| match step.names {
                Some(Named::Declared(of)) if !is_inside(of) && symbol != Some(of) => Some(of),
                _ => None,
            })
            .collect();
        outside.sort_unstable();
        outside.dedup();
        // A name that is given several values stands for none of them.
        if let Some(symbol) = symbol.filter(|&symbol| !self.scoping.symbol_is_mutated(symbol)) {
            self.by_symbol.insert(symbol, self.functions.len());
        }
        self.functions.push(Found { span, symbol, is_method, steps, outside, is_bound });
    }
}

impl<'a> Visit<'a> for Finder<'_> {
    fn enter_node(&mut self, kind: AstKind<'a>) {
        let span = kind.span();
        let ty = kind.ty() as u8;
        let text = match kind {
            AstKind::IdentifierReference(_)
            | AstKind::BindingIdentifier(_)
            | AstKind::ParenthesizedExpression(_) => return,
            AstKind::ThisExpression(_) | AstKind::Super(_) | AstKind::NewTarget(_) => {
                self.bind();
                0
            }
            AstKind::IdentifierName(name) if name.name.len() > MADE_UP => {
                digest(&name.name.as_str())
            }
            AstKind::StringLiteral(literal) => digest(&literal.value.as_str()),
            AstKind::TemplateElement(part) => digest(&part.value.raw.as_str()),
            AstKind::NumericLiteral(literal) => literal.value.to_bits(),
            AstKind::BooleanLiteral(literal) => u64::from(literal.value),
            AstKind::RegExpLiteral(literal) => digest(&literal.raw.as_deref().unwrap_or_default()),
            AstKind::ForStatement(node) => {
                let parts = [node.init.is_some(), node.test.is_some(), node.update.is_some()];
                digest(&parts)
            }
            AstKind::BinaryExpression(node) => node.operator as u64,
            AstKind::LogicalExpression(node) => node.operator as u64,
            AstKind::UnaryExpression(node) => node.operator as u64,
            AstKind::AssignmentExpression(node) => node.operator as u64,
            AstKind::UpdateExpression(node) => node.operator as u64 * 2 + u64::from(node.prefix),
            AstKind::Function(node) => u64::from(node.r#async) * 2 + u64::from(node.generator),
            AstKind::ArrowFunctionExpression(node) => u64::from(node.r#async),
            AstKind::ObjectProperty(node) => {
                node.kind as u64 * 4 + u64::from(node.computed) * 2 + u64::from(node.method)
            }
            _ => 0,
        };
        self.step(span, digest(&(ty, text)), None);
    }

    fn leave_node(&mut self, kind: AstKind<'a>) {
        self.step(kind.span(), END, None);
    }

    fn visit_identifier_reference(&mut self, name: &IdentifierReference<'a>) {
        let symbol = self.scoping.get_reference(name.reference_id()).symbol_id();
        let names = match symbol {
            Some(symbol) => Named::Declared(symbol),
            None => Named::Host(digest(&name.name.as_str())),
        };
        let text = match names {
            Named::Declared(_) => digest(&"name"),
            Named::Host(name) => name,
        };
        self.step(name.span, text, Some(names));
        if name.name == "arguments" && self.open.last().is_some_and(|(is_arrow, _)| *is_arrow) {
            self.bind();
        }
    }

    fn visit_binding_identifier(&mut self, name: &BindingIdentifier<'a>) {
        self.step(name.span, digest(&"name"), Some(Named::Declared(name.symbol_id())));
    }

    fn visit_method_definition(&mut self, method: &MethodDefinition<'a>) {
        self.is_method = true;
        walk::walk_method_definition(self, method);
        self.is_method = false;
    }

    fn visit_variable_declarator(&mut self, variable: &oxc_ast::ast::VariableDeclarator<'a>) {
        if let (Some(name), Some(value)) = (variable.id.get_binding_identifier(), &variable.init) {
            let value = value.get_inner_expression().span();
            self.awaited = Some((value, name.symbol_id()));
        }
        walk::walk_variable_declarator(self, variable);
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        let id = function.id.as_ref().map(BindingIdentifier::symbol_id);
        self.function(function.span, false, id, |finder| {
            walk::walk_function(finder, function, flags)
        });
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        self.function(arrow.span, true, None, |finder| {
            walk::walk_arrow_function_expression(finder, arrow);
        });
    }
}

#[cfg(test)]
mod tests {
    use super::Shapes;
    use crate::{Dialect, read};

    fn helpers(text: &str) -> Vec<u64> {
        let found = read(text, Dialect::Emitted, |script| Shapes::of(script).helpers);
        found.unwrap().into_iter().map(|helper| helper.digest).collect()
    }

    /// A function of the tests, with what stands around it.
    fn rest(names: [&str; 3], call: &str, around: &str) -> String {
        let [a, b, c] = names;
        format!(
            "{around}function {a}({b}){{let {c}={{}};for(const k of Object.keys({b}))if(k!=='berth'){{{c}[k]={call}}}return {c}}}"
        )
    }

    #[test]
    fn functions_are_alike_by_what_they_do_and_not_by_names() {
        let own = rest(["f", "x", "y"], "x[k]", "");
        let renamed = rest(["g", "u", "v"], "u[k]", "");
        assert_eq!(helpers(&own), helpers(&renamed));
        assert_eq!(helpers(&own).len(), 1);
        let other = rest(["f", "x", "y"], "y[k]", "");
        assert_ne!(helpers(&own), helpers(&other), "another of its own names");
        let host = rest(["f", "x", "y"], "Math.abs(x[k])", "");
        let elsewhere = rest(["f", "x", "y"], "Number.abs(x[k])", "");
        assert_ne!(helpers(&host), helpers(&elsewhere), "another of the host's names");
    }

    #[test]
    fn what_depends_on_its_place_is_no_helper() {
        let state = rest(["f", "x", "y"], "tide", "let tide=navigator.low;tide++;");
        assert_eq!(helpers(&state), []);
        let bound = rest(["f", "x", "y"], "this.tide", "");
        assert_eq!(helpers(&bound), []);
        // Another function it may call: it does what that one does.
        let call =
            |body: &str| rest(["f", "x", "y"], "g(x[k])", &format!("function g(e){{{body}}}"));
        let body =
            "const low=e.low,high=e.high;return low<high?high.toFixed(low):low.toFixed(high)+'m'";
        let other = body.replace("'m'", "'ft'");
        assert_eq!(helpers(&call(body)).len(), 2);
        assert_ne!(helpers(&call(body))[1], helpers(&call(&other))[1]);
    }
}
