//! Which route a dynamic load opens, as the table of a router in the code says.
//!
//! A row is an object that gives a `path` and stands around the call, as in
//! `{path:"/reports",component:()=>import("./r.js")}`, or names a variable that holds the call, as in
//! `jsx(Route,{path:"/reports",element:jsx(Reports,{})})` with `Reports=lazy(()=>import("./r.js"))`. Rows
//! inside `children` are joined to their parents' paths, and need what these load.

use std::collections::{BTreeMap, BTreeSet, HashMap, HashSet};

use uvlet_script::{
    ScopeFlags,
    ast::{
        ArrowFunctionBody, ArrowFunctionExpression, AssignmentExpression, AssignmentTarget,
        BindingIdentifier, BindingPattern, CallExpression, Expression, Function, FunctionBody,
        IdentifierReference, ImportExpression, ObjectExpression, ObjectPropertyKind, Program,
        PropertyKey, VariableDeclarator,
    },
    visit::{Visit, walk},
};

use super::constants::constant;

/// What is known of one call.
#[derive(Debug, Default, Clone, PartialEq, Eq)]
pub struct Routed {
    /// The routes that need it.
    pub routes: Vec<String>,
    /// The key of the object property that holds it.
    pub key: Option<String>,
}

/// What tables say of the calls that begin at some bytes.
pub fn routed(program: &Program<'_>, calls: &HashSet<u32>) -> HashMap<u32, Routed> {
    let mut finder = Finder {
        wanted: calls,
        scopes: vec![Scope::default()],
        scope: vec![0],
        holders: Vec::new(),
        rows: Vec::new(),
        row: None,
        keys: Vec::new(),
        calls: Vec::new(),
        named: Vec::new(),
    };
    finder.visit_program(program);
    finder.routed()
}

/// Properties of a row that hold what loads its page.
const LOADERS: [&str; 7] =
    ["lazy", "component", "Component", "loadComponent", "loadChildren", "getComponent", "loader"];

/// The names that a function declares.
#[derive(Default)]
struct Scope<'a> {
    parent: usize,
    declared: HashSet<&'a str>,
    /// The calls inside what a name is given.
    calls: HashMap<&'a str, Vec<u32>>,
}

/// A row of a router's table.
struct Row {
    path: String,
    /// The row around it.
    parent: Option<usize>,
}

struct Finder<'w, 'a> {
    wanted: &'w HashSet<u32>,
    scopes: Vec<Scope<'a>>,
    /// Functions that are open around the place.
    scope: Vec<usize>,
    /// Variables whose values are open around the place.
    holders: Vec<(usize, &'a str)>,
    rows: Vec<Row>,
    /// The row that is open around the place.
    row: Option<usize>,
    keys: Vec<String>,
    /// Where calls stand: in which row, under which key.
    calls: Vec<(u32, Option<usize>, Option<String>)>,
    /// Names that rows mention, and the scope that they are looked up from.
    named: Vec<(usize, &'a str, usize)>,
}

impl<'a> Finder<'_, 'a> {
    fn here(&self) -> usize {
        self.scope.last().copied().unwrap_or(0)
    }

    fn call(&mut self, at: u32) {
        if !self.wanted.contains(&at) {
            return;
        }
        self.calls.push((at, self.row, self.keys.last().cloned()));
        for &(scope, name) in &self.holders {
            self.scopes[scope].calls.entry(name).or_default().push(at);
        }
    }

    /// Walks a function. What a component does once it is there is no part of the row or the variable
    /// around it: only a function that does nothing else, or that a row names for loading, is.
    fn within(&mut self, body: Option<&FunctionBody<'a>>, walk: impl FnOnce(&mut Self)) {
        let loads = self.keys.last().is_some_and(|key| LOADERS.contains(&key.as_str()));
        let handles = self.keys.last().is_some_and(|key| {
            key.strip_prefix("on").is_some_and(|rest| rest.starts_with(char::is_uppercase))
        });
        let is_short = body.is_none_or(|body| body.statements.len() < 2);
        let is_open = !handles && (is_short || loads);
        let outside = (!is_open).then(|| (self.row.take(), std::mem::take(&mut self.holders)));
        self.scopes.push(Scope { parent: self.here(), ..Scope::default() });
        self.scope.push(self.scopes.len() - 1);
        walk(self);
        self.scope.pop();
        if let Some(outside) = outside {
            (self.row, self.holders) = outside;
        }
    }

    fn holding(&mut self, name: &'a str, walk: impl FnOnce(&mut Self)) {
        self.holders.push((self.here(), name));
        walk(self);
        self.holders.pop();
    }

    fn row(&mut self, object: &ObjectExpression<'a>, path: &str) {
        self.rows.push(Row { path: path.to_owned(), parent: self.row });
        let before = self.row.replace(self.rows.len() - 1);
        walk::walk_object_expression(self, object);
        self.row = before;
    }

    /// The calls behind a name.
    fn calls_of(&self, name: &str, mut scope: usize) -> &[u32] {
        loop {
            let here = &self.scopes[scope];
            if here.declared.contains(name) || scope == 0 {
                return here.calls.get(name).map_or(&[], Vec::as_slice);
            }
            scope = here.parent;
        }
    }

    fn routed(self) -> HashMap<u32, Routed> {
        // Per row, its own calls.
        let mut own: BTreeMap<usize, BTreeSet<u32>> = BTreeMap::new();
        for &(at, row, _) in &self.calls {
            if let Some(row) = row {
                own.entry(row).or_default().insert(at);
            }
        }
        for &(row, name, scope) in &self.named {
            own.entry(row).or_default().extend(self.calls_of(name, scope));
        }
        let mut found: HashMap<u32, Routed> = HashMap::new();
        for (at, _, key) in &self.calls {
            found.entry(*at).or_default().key.clone_from(key);
        }
        for row in own.keys() {
            let mut chain = vec![*row];
            while let Some(parent) = self.rows[*chain.last().unwrap_or(row)].parent {
                chain.push(parent);
            }
            let paths = chain.iter().rev().map(|row| self.rows[*row].path.as_str());
            let route = joined(paths);
            for at in chain.iter().filter_map(|row| own.get(row)).flatten() {
                found.entry(*at).or_default().routes.push(route.clone());
            }
        }
        for routed in found.values_mut() {
            routed.routes.sort();
            routed.routes.dedup();
        }
        found
    }
}

/// Paths of nested rows, of which one that begins with a slash stands for itself.
fn joined<'p>(paths: impl Iterator<Item = &'p str>) -> String {
    let mut route = String::new();
    for path in paths {
        if path.starts_with('/') {
            route.clear();
        }
        let path = path.trim_matches('/');
        if !path.is_empty() {
            route.push('/');
            route.push_str(path);
        }
    }
    if route.is_empty() { "/".to_owned() } else { route }
}

/// A path that a visitor could type, or a pattern of such.
fn is_route(path: &str) -> bool {
    let is_file = path.rsplit('/').next().is_some_and(|name| {
        name.rsplit_once('.').is_some_and(|(stem, ending)| {
            !stem.is_empty() && (1..=4).contains(&ending.len()) && !ending.contains(['*', ')'])
        })
    });
    path.len() < 512
        && !is_file
        && !path.starts_with('.')
        && !path.contains(char::is_whitespace)
        && !path.contains("//")
        && !path.contains(['<', '>', '"', '{', '\\', '#'])
        || path == "/"
}

impl<'a> Visit<'a> for Finder<'_, 'a> {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let path = object.properties.iter().find_map(|property| match property {
            ObjectPropertyKind::ObjectProperty(property)
                if property.key.is_specific_static_name("path") =>
            {
                constant(&property.value)
            }
            _ => None,
        });
        // A row without a path of its own, such as an index, is its parent's.
        match path.filter(|path| is_route(path)) {
            Some(path) => self.row(object, &path),
            None => walk::walk_object_expression(self, object),
        }
    }

    fn visit_object_property(&mut self, property: &uvlet_script::ast::ObjectProperty<'a>) {
        let key = match &property.key {
            PropertyKey::StaticIdentifier(name) => Some(name.name.to_string()),
            PropertyKey::StringLiteral(name) => Some(name.value.to_string()),
            _ => None,
        };
        let is_keyed = key.is_some();
        self.keys.extend(key);
        walk::walk_object_property(self, property);
        if is_keyed {
            self.keys.pop();
        }
    }

    fn visit_import_expression(&mut self, import: &ImportExpression<'a>) {
        self.call(import.span.start);
        walk::walk_import_expression(self, import);
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        self.call(call.span.start);
        walk::walk_call_expression(self, call);
    }

    fn visit_identifier_reference(&mut self, name: &IdentifierReference<'a>) {
        if let Some(row) = self.row {
            self.named.push((row, name.name.as_str(), self.here()));
        }
    }

    fn visit_binding_identifier(&mut self, name: &BindingIdentifier<'a>) {
        let here = self.here();
        self.scopes[here].declared.insert(name.name.as_str());
    }

    fn visit_variable_declarator(&mut self, variable: &VariableDeclarator<'a>) {
        match &variable.id {
            BindingPattern::BindingIdentifier(name) => {
                let name = name.name.as_str();
                self.holding(name, |finder| walk::walk_variable_declarator(finder, variable));
            }
            _ => walk::walk_variable_declarator(self, variable),
        }
    }

    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        match &assignment.left {
            AssignmentTarget::AssignmentTargetIdentifier(name)
                if !matches!(assignment.right, Expression::Identifier(_)) =>
            {
                let name = name.name.as_str();
                self.holding(name, |finder| walk::walk_assignment_expression(finder, assignment));
            }
            _ => walk::walk_assignment_expression(self, assignment),
        }
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        // A function's own name is its surroundings'; what stands inside holds nothing for others.
        if let Some(name) = &function.id {
            self.visit_binding_identifier(name);
        }
        let body = function.body.as_deref();
        self.within(body, |finder| walk::walk_function(finder, function, flags));
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        let body = match &arrow.body {
            ArrowFunctionBody::FunctionBody(body) => Some(&**body),
            _ => None,
        };
        self.within(body, |finder| walk::walk_arrow_function_expression(finder, arrow));
    }
}

#[cfg(test)]
mod tests {
    use std::collections::HashSet;

    use rstest::rstest;
    use uvlet_script::{Dialect, ast::ImportExpression, read, visit::Visit};

    use super::routed;

    struct Imports(Vec<u32>);

    impl<'a> Visit<'a> for Imports {
        fn visit_import_expression(&mut self, import: &ImportExpression<'a>) {
            self.0.push(import.span.start);
        }
    }

    #[rstest]
    #[case::around("x=[{path:'/a',component:()=>import('a')}]", &["/a"])]
    #[case::template("x=[{path:`b/:id`,lazy:()=>import('a')}]", &["/b/:id"])]
    #[case::named("const A=lazy(()=>import('a'));jsx(R,{path:'/a',element:jsx(A,{})})", &["/a"])]
    #[case::declared_later("function f(){return jsx(R,{path:'/a',element:jsx(A,{})})}var A=lazy(()=>import('a'))", &["/a"])]
    #[case::shadowed("const A=lazy(()=>import('a'));function f(A){return jsx(R,{path:'/a',element:jsx(A,{})})}", &[])]
    #[case::nested("x={path:'/a',component:L,children:[{path:'b',lazy:()=>import('a')}]};var L=1", &["/a/b"])]
    #[case::parents("x={path:'a',lazy:()=>import('a'),children:[{path:'',component:()=>1},{path:'b',lazy:L}]};var L=()=>import('b')", &["/a", "/a/b"])]
    #[case::async_function("x={path:'/a',lazy:async()=>{let m=await import('a');return m}}", &["/a"])]
    #[case::what_a_page_does("x={path:'/',component:{setup(){let c=a(()=>import('a'));return c}}}", &[])]
    #[case::what_a_page_handles("const H=()=>jsx(B,{onClick:()=>import('a')});x={path:'/',element:jsx(H,{})}", &[])]
    #[case::a_file("x={path:'/a.json',load:()=>import('a')}", &[])]
    #[case::no_table("x={a:()=>import('a')}", &[])]
    fn tables(#[case] text: &str, #[case] routes: &[&str]) {
        let found = read(text, Dialect::Emitted, |script| {
            let mut imports = Imports(Vec::new());
            imports.visit_program(&script.program);
            let calls: HashSet<u32> = imports.0.iter().copied().collect();
            let routed = routed(&script.program, &calls);
            imports.0.first().map(|at| routed[at].routes.clone()).unwrap_or_default()
        });
        assert_eq!(found.unwrap(), routes, "{text}");
    }
}
