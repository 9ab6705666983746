//! Which dynamic loads are asked for as soon as a script runs.
//!
//! A call is reached at once if it stands at the top level of its module, or in a function that is
//! called from there: by name, where it stands, or through the wrapper that preloads what a chunk
//! needs. Functions that are handed to others (a router, a component, an event) are not followed.

use std::collections::{HashMap, HashSet};

use oxc_ast::ast::{
    Argument, ArrayExpressionElement, ArrowFunctionExpression, AssignmentExpression,
    AssignmentTarget, BindingIdentifier, BindingPattern, CallExpression, Class, ClassElement,
    Expression, Function, ImportExpression, MethodDefinitionKind, NewExpression, ObjectExpression,
    ObjectPropertyKind, Program, PropertyKey, VariableDeclarator,
};
use oxc_ast_visit::{Visit, walk};
use oxc_syntax::scope::ScopeFlags;

use crate::functions::unnested;

/// A function, by its first byte; the script itself is [`SCRIPT`].
type Place = u32;

/// No function begins there: the code of the script itself, and of the modules in its table.
const SCRIPT: Place = u32::MAX;

/// Of the calls that begin at these bytes, those that are reached at once, and those that a function is
/// given. `tables` says that object
/// literals of functions are tables of modules.
#[must_use]
#[expect(clippy::implicit_hasher, reason = "no other hasher is in use")]
pub fn at_once(program: &Program<'_>, calls: &HashSet<u32>, tables: bool) -> AtOnce {
    let mut finder = Finder::new(calls, tables);
    finder.visit_program(program);
    let reached = finder.reached();
    let at_once = finder.loads.iter().filter(|(place, _)| reached.contains(place));
    let wrapped = finder.loads.iter().filter(|(place, _)| finder.is_wrapped(*place));
    AtOnce {
        reached: at_once.map(|(_, at)| *at).collect(),
        wrapped: wrapped.map(|(_, at)| *at).collect(),
    }
}

/// What is known of when calls are made.
#[derive(Debug, Default)]
pub struct AtOnce {
    /// First bytes of those that are reached at once.
    pub reached: HashSet<u32>,
    /// First bytes of those in a function that another is given, as a component that loads is made.
    pub wrapped: HashSet<u32>,
}

/// The functions that run at once, by their first byte.
#[derive(Debug)]
pub struct Places(HashSet<Place>);

impl Places {
    /// Those of a script; of tables as in [`at_once`].
    #[must_use]
    pub fn reached(program: &Program<'_>, tables: bool) -> Self {
        let none = HashSet::new();
        let mut finder = Finder::new(&none, tables);
        finder.visit_program(program);
        Self(finder.reached())
    }

    /// Whether the function that begins there is one of them.
    #[must_use]
    pub fn has(&self, start: u32) -> bool {
        self.0.contains(&start)
    }
}

/// The names that a function declares, with the functions that they stand for.
struct Scope<'a> {
    parent: Place,
    names: HashMap<&'a str, Vec<Place>>,
}

struct Finder<'w, 'a> {
    wanted: &'w HashSet<u32>,
    tables: bool,
    /// Functions that are open around the place.
    around: Vec<Place>,
    scopes: HashMap<Place, Scope<'a>>,
    /// Who calls which function where it stands.
    calls: Vec<(Place, Place)>,
    /// Who calls which name.
    named_calls: Vec<(Place, &'a str)>,
    /// Where which name is given which function.
    assigned: Vec<(Place, &'a str, Place)>,
    loads: Vec<(Place, u32)>,
    /// Functions that another is given first, or as the loader among what it is given.
    given: HashSet<Place>,
}

impl<'w, 'a> Finder<'w, 'a> {
    fn new(wanted: &'w HashSet<u32>, tables: bool) -> Self {
        Self {
            wanted,
            tables,
            around: vec![SCRIPT],
            scopes: HashMap::from([(SCRIPT, Scope { parent: SCRIPT, names: HashMap::new() })]),
            calls: Vec::new(),
            named_calls: Vec::new(),
            assigned: Vec::new(),
            loads: Vec::new(),
            given: HashSet::new(),
        }
    }

    /// Whether a place is in a function that another is given.
    fn is_wrapped(&self, mut place: Place) -> bool {
        while place != SCRIPT {
            if self.given.contains(&place) {
                return true;
            }
            place = self.scopes.get(&place).map_or(SCRIPT, |scope| scope.parent);
        }
        false
    }

    fn here(&self) -> Place {
        self.around.last().copied().unwrap_or(SCRIPT)
    }

    fn declare(&mut self, name: &'a str, functions: Vec<Place>) {
        let here = self.here();
        if let Some(scope) = self.scopes.get_mut(&here) {
            scope.names.entry(name).or_default().extend(functions);
        }
    }

    fn within(&mut self, function: Place, walk: impl FnOnce(&mut Self)) {
        let scope = Scope { parent: self.here(), names: HashMap::new() };
        self.scopes.insert(function, scope);
        self.around.push(function);
        walk(self);
        self.around.pop();
    }

    fn load(&mut self, at: u32) {
        if self.wanted.contains(&at) {
            self.loads.push((self.here(), at));
        }
    }

    fn called(&mut self, callee: &Expression<'a>) {
        match callee.get_inner_expression() {
            Expression::Identifier(name) => {
                self.named_calls.push((self.here(), name.name.as_str()));
            }
            Expression::SequenceExpression(sequence) => {
                if let Some(last) = sequence.expressions.last() {
                    self.called(last);
                }
            }
            Expression::StaticMemberExpression(member)
                if matches!(member.property.name.as_str(), "call" | "apply") =>
            {
                self.called(&member.object);
            }
            callee => {
                let here = self.here();
                self.calls.extend(function(callee).map(|function| (here, function)));
            }
        }
    }

    /// The functions of a module table run as their modules are evaluated, like the script itself.
    fn table<'e>(&mut self, values: impl Iterator<Item = Option<&'e Expression<'a>>>) -> bool
    where
        'a: 'e,
    {
        let rows: Option<Vec<Place>> = values.map(|value| function(value?)).collect();
        let rows = rows.filter(|rows| !rows.is_empty());
        self.calls.extend(rows.iter().flatten().map(|row| (SCRIPT, *row)));
        rows.is_some()
    }

    /// `push([[ids],{…},e=>{…}])`, or a flat list, `push([script,7,e=>{…},8,9,e=>{…}])`.
    fn pushed(&mut self, call: &CallExpression<'a>) {
        let [Argument::ArrayExpression(pushed)] = call.arguments.as_slice() else { return };
        if let [script, rest @ ..] = pushed.elements.as_slice()
            && !matches!(script, ArrayExpressionElement::NumericLiteral(_))
        {
            let mut rows = rest.iter().flat_map(unnested);
            if matches!(rows.next(), Some(ArrayExpressionElement::NumericLiteral(_))) {
                let rows = rows.filter_map(|row| function(row.as_expression()?));
                self.calls.extend(rows.map(|row| (SCRIPT, row)));
            }
        }
        let [ArrayExpressionElement::ArrayExpression(_), table, rest @ ..] =
            pushed.elements.as_slice()
        else {
            return;
        };
        let is_table = match table {
            ArrayExpressionElement::ObjectExpression(table) => self.table(values(table)),
            ArrayExpressionElement::ArrayExpression(table) => {
                let rows = table.elements.iter();
                let rows = rows.filter(|row| !matches!(row, ArrayExpressionElement::Elision(_)));
                self.table(rows.map(|row| row.as_expression()))
            }
            _ => false,
        };
        let starts = rest.iter().filter_map(|start| function(start.as_expression()?));
        self.calls.extend(starts.filter(|_| is_table).map(|start| (SCRIPT, start)));
    }

    /// The functions that a name stands for where it is written.
    fn meant(&self, mut place: Place, name: &str) -> &[Place] {
        loop {
            let Some(scope) = self.scopes.get(&place) else { return &[] };
            if let Some(functions) = scope.names.get(name) {
                return functions;
            }
            if place == SCRIPT {
                return &[];
            }
            place = scope.parent;
        }
    }

    fn reached(&mut self) -> HashSet<Place> {
        for (place, name, function) in std::mem::take(&mut self.assigned) {
            let mut at = place;
            while at != SCRIPT && !self.scopes.get(&at).is_some_and(|s| s.names.contains_key(name))
            {
                at = self.scopes.get(&at).map_or(SCRIPT, |scope| scope.parent);
            }
            if let Some(scope) = self.scopes.get_mut(&at) {
                scope.names.entry(name).or_default().push(function);
            }
        }
        let mut calls: HashMap<Place, Vec<Place>> = HashMap::new();
        for &(caller, function) in &self.calls {
            calls.entry(caller).or_default().push(function);
        }
        for &(caller, name) in &self.named_calls {
            calls.entry(caller).or_default().extend(self.meant(caller, name));
        }
        let mut reached = HashSet::from([SCRIPT]);
        let mut open = vec![SCRIPT];
        while let Some(place) = open.pop() {
            let next = calls.get(&place).into_iter().flatten();
            open.extend(next.filter(|function| reached.insert(**function)));
        }
        reached
    }
}

/// A function that is written out.
fn function(value: &Expression<'_>) -> Option<Place> {
    match value.get_inner_expression() {
        Expression::FunctionExpression(function) => Some(function.span.start),
        Expression::ArrowFunctionExpression(arrow) => Some(arrow.span.start),
        _ => None,
    }
}

/// The functions that run when a value is called: it, or what its wrapper was given.
fn functions(value: &Expression<'_>) -> Vec<Place> {
    let inner = value.get_inner_expression();
    let Expression::CallExpression(call) = inner else {
        return function(inner).into_iter().collect();
    };
    let given = call.arguments.iter().filter_map(Argument::as_expression);
    given
        .flat_map(|given| match given.get_inner_expression() {
            Expression::ObjectExpression(object) => {
                values(object).filter_map(|v| function(v?)).collect()
            }
            given => function(given).into_iter().collect::<Vec<_>>(),
        })
        .collect()
}

fn values<'e, 'a>(
    object: &'e ObjectExpression<'a>,
) -> impl Iterator<Item = Option<&'e Expression<'a>>> {
    object.properties.iter().map(|property| match property {
        ObjectPropertyKind::ObjectProperty(property) => Some(&property.value),
        ObjectPropertyKind::SpreadProperty(_) => None,
    })
}

/// Whether an argument is the list of what a preload wrapper fetches along with a chunk.
fn is_list(argument: &Argument<'_>) -> bool {
    match argument {
        Argument::ArrayExpression(_) => true,
        Argument::CallExpression(call) => {
            matches!(call.arguments.as_slice(), [Argument::ArrayExpression(_)])
        }
        Argument::UnaryExpression(unary) => unary.operator.as_str() == "void",
        _ => false,
    }
}

impl<'a> Visit<'a> for Finder<'_, 'a> {
    fn visit_binding_identifier(&mut self, name: &BindingIdentifier<'a>) {
        self.declare(name.name.as_str(), Vec::new());
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        if let Some(name) = function.id.as_ref().filter(|_| function.is_declaration()) {
            self.declare(name.name.as_str(), vec![function.span.start]);
        }
        self.within(function.span.start, |finder| walk::walk_function(finder, function, flags));
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        self.within(arrow.span.start, |finder| {
            walk::walk_arrow_function_expression(finder, arrow);
        });
    }

    fn visit_class(&mut self, class: &Class<'a>) {
        let constructors = class.body.body.iter().filter_map(|element| match element {
            ClassElement::MethodDefinition(method)
                if method.kind == MethodDefinitionKind::Constructor =>
            {
                Some(method.value.span.start)
            }
            _ => None,
        });
        if let Some(name) = &class.id {
            self.declare(name.name.as_str(), constructors.collect());
        }
        walk::walk_class(self, class);
    }

    fn visit_variable_declarator(&mut self, variable: &VariableDeclarator<'a>) {
        if let (BindingPattern::BindingIdentifier(name), Some(value)) =
            (&variable.id, &variable.init)
        {
            self.declare(name.name.as_str(), functions(value));
        }
        walk::walk_variable_declarator(self, variable);
    }

    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        self.load(assignment.span.start);
        if let AssignmentTarget::AssignmentTargetIdentifier(name) = &assignment.left {
            let here = self.here();
            let given = functions(&assignment.right);
            let name = name.name.as_str();
            self.assigned.extend(given.into_iter().map(|function| (here, name, function)));
        }
        walk::walk_assignment_expression(self, assignment);
    }

    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let is_keyed = object.properties.iter().all(|property| {
            matches!(property, ObjectPropertyKind::ObjectProperty(property) if matches!(
                property.key,
                PropertyKey::NumericLiteral(_) | PropertyKey::StringLiteral(_)))
        });
        if self.tables && is_keyed {
            self.table(values(object));
        }
        walk::walk_object_expression(self, object);
    }

    fn visit_new_expression(&mut self, call: &NewExpression<'a>) {
        self.load(call.span.start);
        self.called(&call.callee);
        walk::walk_new_expression(self, call);
    }

    fn visit_import_expression(&mut self, import: &ImportExpression<'a>) {
        self.load(import.span.start);
        walk::walk_import_expression(self, import);
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        self.load(call.span.start);
        self.called(&call.callee);
        self.pushed(call);
        if let [first, second, ..] = call.arguments.as_slice()
            && is_list(second)
        {
            let here = self.here();
            let wrapped = first.as_expression().and_then(function);
            self.calls.extend(wrapped.map(|function| (here, function)));
        } else {
            let first = call.arguments.first().and_then(Argument::as_expression);
            let loader = first.and_then(|first| match first.get_inner_expression() {
                Expression::ObjectExpression(object) => {
                    let mut loaders =
                        object.properties.iter().filter_map(|property| match property {
                            ObjectPropertyKind::ObjectProperty(one)
                                if one.key.is_specific_static_name("loader") =>
                            {
                                function(&one.value)
                            }
                            _ => None,
                        });
                    loaders.next()
                }
                first => function(first),
            });
            // What is called on a promise is given what came.
            let is_chained = matches!(&call.callee, Expression::StaticMemberExpression(member)
                if matches!(member.property.name.as_str(), "then" | "catch" | "finally"));
            self.given.extend(loader.filter(|_| !is_chained));
        }
        walk::walk_call_expression(self, call);
    }
}

#[cfg(test)]
mod tests {
    use std::collections::HashSet;

    use oxc_ast_visit::Visit;
    use rstest::rstest;

    use crate::{Dialect, read};

    /// All `import()` of a script, by place.
    #[derive(Default)]
    struct Imports(HashSet<u32>);

    impl<'a> Visit<'a> for Imports {
        fn visit_import_expression(&mut self, import: &oxc_ast::ast::ImportExpression<'a>) {
            self.0.insert(import.span.start);
        }
    }

    #[rstest]
    #[case::top_level("import('now')", true)]
    #[case::awaited("const a = await import('now')", true)]
    #[case::called_where_it_stands("(async()=>{await import('now')})()", true)]
    #[case::by_name("b();function a(){import('now')}const b=()=>a()", true)]
    #[case::assigned("let a;a=()=>import('now');(0,a)()", true)]
    #[case::through_the_wrapper("w(()=>import('now'),d([0,1]),import.meta.url).then(go)", true)]
    #[case::a_commonjs_module("var a=c((e,t)=>{t.exports=import('now')});a()", true)]
    #[case::constructed("class A{constructor(){import('now')}}new A", true)]
    #[case::table("(self.w=self.w||[]).push([[1],{7(e,t,n){import('now')}}])", true)]
    #[case::flat_table("(self.t||=[]).push([s,7,8,(e,t,n)=>{import('now')}])", true)]
    #[case::handed_on("const a=lazy(()=>import('later'))", false)]
    #[case::a_lazy_wrapper("lazy(()=>w(()=>import('later'),[]))", false)]
    #[case::event("on('click',async()=>{await import('later')})", false)]
    #[case::never_called("function a(){import('later')}", false)]
    #[case::another_of_that_name(
        "function a(){}function b(a){a()}b();{const c=function a(){import('later')}}",
        false
    )]
    #[case::method("const a={open(){import('later')}};a.open()", false)]
    fn loads(#[case] text: &str, #[case] now: bool) {
        let found = read(text, Dialect::Emitted, |script| {
            let mut imports = Imports::default();
            imports.visit_program(&script.program);
            assert_eq!(imports.0.len(), 1, "{text}");
            super::at_once(&script.program, &imports.0, false).reached.len()
        });
        assert_eq!(found, Ok(usize::from(now)), "{text}");
    }
}
