//! What an emitted script loads: its static imports, what it opens on demand, its workers, and the
//! files whose names it holds. Found by parsing the script, so that text in strings and comments
//! is never mistaken for a load.

mod at_once;
mod nesting;
mod shapes;

pub use nesting::{is_too_deep, narrow};

use std::{collections::HashSet, ops::Range};

use oxc_allocator::Allocator;
use oxc_ast::ast::{
    Argument, ArrayExpressionElement, ArrowFunctionExpression, AssignmentExpression,
    AssignmentTarget, CallExpression, ConditionalExpression, Expression, Function, IfStatement,
    ImportExpression, LogicalExpression, NewExpression, ObjectExpression, ObjectProperty, Program,
    Statement as Syntax, StringLiteral, TemplateLiteral, TryStatement, VariableDeclarator,
};
use oxc_ast_visit::{Visit, walk};
use oxc_parser::Parser;
use oxc_span::{GetSpan, SourceType, Span};
use oxc_syntax::scope::ScopeFlags;
use uvlet_ledger::walk::Statement;
use uvlet_record::Form;

use shapes::{WorkerUrl, constant, is_evaluated, names_chunk, node_require, script_named, strings};

use crate::{
    bodies::function_body,
    registry::{Registry, chunk_request},
};

/// What was found in a script.
#[derive(Debug)]
pub struct Emitted {
    /// How the script is put together.
    pub form: Form,
    /// Specifiers of static loads in the order written, once each.
    pub loads: Vec<String>,
    /// What is opened on demand, in the order written.
    pub openings: Vec<Opened>,
    /// Places of `import()` calls whose specifier is put together as the code runs.
    pub unknown: Vec<u64>,
    /// URLs of worker scripts.
    pub workers: Vec<Opened>,
    /// Names of files of the folder that stand in strings.
    pub names: Vec<String>,
    /// What it says of chunks, where it is part of a registry of modules.
    pub registry: Registry,
    /// Chunks of the registry that it opens on demand, by id.
    pub chunk_requests: Vec<Opened>,
    /// Modules that only Node.js has, of those it requires as it starts.
    pub node_requires: Vec<String>,
    /// Module bodies stand in strings that are evaluated, as webpack writes them for developers.
    pub evaluates: bool,
    /// The top-level statements.
    pub statements: Vec<Statement>,
}

/// One `import()` or worker.
#[derive(Debug, PartialEq, Eq)]
pub struct Opened {
    /// The specifier as written.
    pub request: String,
    /// First byte of the call.
    pub at: u64,
    /// Files that a preload wrapper fetches along with it, as it names them.
    pub along: Vec<String>,
    /// The call is reached as the script runs.
    pub at_once: bool,
}

/// Why a script could not be read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("does not parse at byte {at}: {message}")]
pub struct Unreadable {
    /// First byte of the trouble.
    pub at: u64,
    /// What the parser says.
    pub message: String,
}

/// Reads a script. `is_file` tells whether a file name (without folders) is one of the folder's.
///
/// # Errors
/// When the text is not JavaScript.
pub fn read(text: &str, is_file: &dyn Fn(&str) -> bool) -> Result<Emitted, Unreadable> {
    if is_too_deep(text) {
        let message = "it nests deeper than a parser can follow".to_owned();
        return Err(Unreadable { at: 0, message });
    }
    let allocator = Allocator::default();
    let parsed = Parser::new(&allocator, text, SourceType::unambiguous()).parse();
    if parsed.panicked {
        let first = parsed.diagnostics.first();
        let at = first.and_then(|e| e.labels.first()).map_or(0, |label| label.offset() as u64);
        let message = first.map_or_else(String::new, |error| error.message.to_string());
        return Err(Unreadable { at, message });
    }
    let mut finder = Finder::new(is_file);
    finder.visit_program(&parsed.program);
    finder.mark_at_once(&parsed.program);
    let has_module_syntax = parsed.module_record.has_module_syntax;
    let form = match (has_module_syntax, finder.registry.registers) {
        (true, _) => Form::Es,
        (false, true) => Form::Registry,
        (false, false) => Form::Classic,
    };
    Ok(Emitted {
        form,
        loads: finder.loads,
        openings: finder.openings,
        unknown: finder.unknown,
        workers: finder.workers,
        names: finder.names,
        registry: finder.registry,
        chunk_requests: finder.chunk_requests,
        node_requires: finder.node_requires,
        evaluates: finder.evaluates,
        statements: statements(&parsed.program),
    })
}

fn range(span: Span) -> Range<usize> {
    span.start as usize..span.end as usize
}

fn statements(program: &Program<'_>) -> Vec<Statement> {
    let directives = program.directives.iter().map(|directive| (directive.span, false));
    let body = program.body.iter().map(|statement| {
        let list = matches!(
            statement,
            Syntax::ImportDeclaration(_)
                | Syntax::ExportAllDeclaration(_)
                | Syntax::ExportNamedDeclaration(_)
                | Syntax::ExportFromDeclaration(_)
        );
        (statement.span(), list)
    });
    directives.chain(body).map(|(span, list)| Statement { range: range(span), list }).collect()
}

struct Finder<'f> {
    is_file: &'f dyn Fn(&str) -> bool,
    loads: Vec<String>,
    loaded: HashSet<String>,
    openings: Vec<Opened>,
    unknown: Vec<u64>,
    workers: Vec<Opened>,
    names: Vec<String>,
    /// The file list that a preload wrapper's index lists point into.
    along_table: Vec<String>,
    registry: Registry,
    chunk_requests: Vec<Opened>,
    node_requires: Vec<String>,
    evaluates: bool,
    /// The script registers itself with System.
    is_system: bool,
    /// Functions that are open around the place.
    functions: usize,
    /// Conditions that are open around the place.
    branches: usize,
}

impl<'f> Finder<'f> {
    fn new(is_file: &'f dyn Fn(&str) -> bool) -> Self {
        Self {
            is_file,
            loads: Vec::new(),
            loaded: HashSet::new(),
            openings: Vec::new(),
            unknown: Vec::new(),
            workers: Vec::new(),
            names: Vec::new(),
            along_table: Vec::new(),
            registry: Registry::default(),
            chunk_requests: Vec::new(),
            node_requires: Vec::new(),
            evaluates: false,
            is_system: false,
            functions: 0,
            branches: 0,
        }
    }

    fn opened(&self, request: String, span: Span) -> Opened {
        let at = u64::from(span.start);
        Opened { request, at, along: Vec::new(), at_once: self.functions == 0 }
    }

    /// Finds out which loads inside functions are asked for at once all the same.
    fn mark_at_once(&mut self, program: &Program<'_>) {
        let lists = || [&self.openings, &self.workers, &self.chunk_requests].into_iter().flatten();
        let place = |opened: &Opened| u32::try_from(opened.at).unwrap_or(u32::MAX);
        let unknown: HashSet<u32> = lists().filter(|one| !one.at_once).map(place).collect();
        if unknown.is_empty() {
            return;
        }
        let found = at_once::at_once(program, &unknown, self.registry.runtime);
        for list in [&mut self.openings, &mut self.workers, &mut self.chunk_requests] {
            list.iter_mut().for_each(|opened| opened.at_once |= found.contains(&place(opened)));
        }
    }

    fn load(&mut self, specifier: &str) {
        if self.loaded.insert(specifier.to_owned()) {
            self.loads.push(specifier.to_owned());
        }
    }

    /// Loads of older kinds of modules: `System.register([…],…)` and `c.import("…")` in it,
    /// `define([…],…)` and `require([…],…)` of AMD.
    fn module_call(&mut self, call: &CallExpression<'_>) {
        let lists = || {
            call.arguments.iter().take(2).find_map(|argument| match argument {
                Argument::ArrayExpression(list) => strings(list),
                _ => None,
            })
        };
        match &call.callee {
            Expression::StaticMemberExpression(member) => {
                let Expression::Identifier(object) = &member.object else { return };
                match (object.name.as_str(), member.property.name.as_str()) {
                    ("System", "register") => {
                        self.is_system = true;
                        lists().into_iter().flatten().for_each(|load| self.load(&load));
                    }
                    (_, "import") if self.is_system => {
                        if let [Argument::StringLiteral(text)] = call.arguments.as_slice() {
                            self.openings.push(self.opened(text.value.to_string(), call.span));
                        }
                    }
                    _ => {}
                }
            }
            Expression::Identifier(name) if name.name == "define" => {
                let relative = |load: &String| load.starts_with('.');
                let loads = lists().into_iter().flatten().filter(relative);
                loads.for_each(|load| self.load(&script_named(&load)));
            }
            Expression::Identifier(name)
                if matches!(name.name.as_str(), "require" | "requirejs") =>
            {
                let first = matches!(call.arguments.first(), Some(Argument::ArrayExpression(_)));
                for load in lists().into_iter().flatten().filter(|_| first) {
                    if load.starts_with('.') {
                        self.openings.push(self.opened(script_named(&load), call.span));
                    }
                }
            }
            _ => {}
        }
    }

    fn name(&mut self, text: &str) {
        let plain = text.split(['?', '#']).next().unwrap_or(text);
        let file = plain.rsplit('/').next().unwrap_or(plain);
        if file.len() < 256 && file.contains('.') && (self.is_file)(file) {
            self.names.push(text.to_owned());
        }
    }

    /// The files that a preload wrapper's second argument names: a list of names, or a call with
    /// a list of indices into the script's table.
    fn along(&self, argument: &Argument<'_>) -> Option<Vec<String>> {
        match argument {
            Argument::ArrayExpression(list) => strings(list).filter(|list| !list.is_empty()),
            Argument::CallExpression(call) => {
                let Some(Argument::ArrayExpression(list)) = call.arguments.first() else {
                    return None;
                };
                let names = list.elements.iter().map(|element| match element {
                    ArrayExpressionElement::NumericLiteral(number) => {
                        let index = format!("{}", number.value).parse::<usize>().ok()?;
                        self.along_table.get(index).cloned()
                    }
                    _ => None,
                });
                names.collect()
            }
            _ => None,
        }
    }
}

impl<'a> Visit<'a> for Finder<'_> {
    fn visit_program(&mut self, program: &Program<'a>) {
        for statement in &program.body {
            let source = match statement {
                Syntax::ImportDeclaration(import) => Some(&import.source),
                Syntax::ExportAllDeclaration(export) => Some(&export.source),
                Syntax::ExportFromDeclaration(export) => Some(&export.source),
                _ => None,
            };
            if let Some(source) = source {
                self.load(&source.value);
            }
        }
        walk::walk_program(self, program);
    }

    fn visit_import_expression(&mut self, import: &ImportExpression<'a>) {
        match constant(&import.source) {
            Some(request) => {
                self.openings.push(self.opened(request, import.span));
            }
            None => {
                // The runtime's own way to a chunk, whose name is made elsewhere.
                if !names_chunk(&import.source) {
                    self.unknown.push(u64::from(import.span.start));
                }
                walk::walk_import_expression(self, import);
            }
        }
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        if let Expression::Identifier(callee) = &call.callee
            && callee.name == "importScripts"
        {
            for argument in &call.arguments {
                if let Argument::StringLiteral(url) = argument {
                    // It takes URLs, where a bare word is a file and not a package.
                    let is_word = !url.value.starts_with(['.', '/']) && !url.value.contains(':');
                    self.load(&format!("{}{}", if is_word { "./" } else { "" }, url.value));
                }
            }
        }
        self.module_call(call);
        self.registry.note_call(call);
        if let Some(request) = chunk_request(call, "e") {
            self.chunk_requests.push(self.opened(request, call.span));
        }
        // Elsewhere it may be what browsers never get to.
        if self.functions == 0 && self.branches == 0 {
            self.node_requires.extend(node_require(call));
        }
        let along = match call.arguments.as_slice() {
            [_, second, ..] => self.along(second),
            _ => None,
        };
        let before = self.openings.len();
        walk::walk_call_expression(self, call);
        if let Some(along) = along
            && let Some(opening) = self.openings.get_mut(before)
            && opening.along.is_empty()
        {
            opening.along = along;
        }
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        self.functions += 1;
        walk::walk_function(self, function, flags);
        self.functions -= 1;
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        self.functions += 1;
        walk::walk_arrow_function_expression(self, arrow);
        self.functions -= 1;
    }

    fn visit_if_statement(&mut self, statement: &IfStatement<'a>) {
        self.branches += 1;
        walk::walk_if_statement(self, statement);
        self.branches -= 1;
    }

    fn visit_conditional_expression(&mut self, expression: &ConditionalExpression<'a>) {
        self.branches += 1;
        walk::walk_conditional_expression(self, expression);
        self.branches -= 1;
    }

    fn visit_logical_expression(&mut self, expression: &LogicalExpression<'a>) {
        self.branches += 1;
        walk::walk_logical_expression(self, expression);
        self.branches -= 1;
    }

    fn visit_try_statement(&mut self, statement: &TryStatement<'a>) {
        self.branches += 1;
        walk::walk_try_statement(self, statement);
        self.branches -= 1;
    }

    fn visit_variable_declarator(&mut self, variable: &VariableDeclarator<'a>) {
        self.registry.note_variable(variable);
        walk::walk_variable_declarator(self, variable);
    }

    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        self.registry.note_object(object);
        walk::walk_object_expression(self, object);
    }

    fn visit_object_property(&mut self, property: &ObjectProperty<'a>) {
        self.evaluates |= is_evaluated(function_body(&property.value));
        walk::walk_object_property(self, property);
    }

    fn visit_new_expression(&mut self, call: &NewExpression<'a>) {
        if let Expression::Identifier(callee) = &call.callee
            && matches!(callee.name.as_str(), "Worker" | "SharedWorker")
            && let Some(first) = call.arguments.first()
        {
            let mut found = WorkerUrl::default();
            found.visit_argument(first);
            if let Some(id) = found.chunk {
                self.chunk_requests.push(self.opened(id, call.span));
                return;
            }
            if let Some(request) = found.text {
                self.workers.push(self.opened(request, call.span));
                return;
            }
        }
        walk::walk_new_expression(self, call);
    }

    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        // `m.f = ["a.js", "a.css"]`: the table of a preload wrapper, written before its first use.
        if let AssignmentTarget::StaticMemberExpression(member) = &assignment.left
            && member.property.name == "f"
            && let Expression::ArrayExpression(list) = &assignment.right
            && let Some(table) = strings(list)
        {
            self.along_table = table;
            return;
        }
        // `e.exports = require("fs")`: how a bundler hands a module of the platform on.
        if let AssignmentTarget::StaticMemberExpression(member) = &assignment.left
            && member.property.name == "exports"
            && let Expression::CallExpression(call) = &assignment.right
            && self.functions > 0
        {
            self.node_requires.extend(node_require(call));
        }
        self.registry.note_assignment(assignment);
        walk::walk_assignment_expression(self, assignment);
    }

    fn visit_string_literal(&mut self, text: &StringLiteral<'a>) {
        self.name(&text.value);
    }

    fn visit_template_literal(&mut self, template: &TemplateLiteral<'a>) {
        for quasi in &template.quasis {
            self.name(&quasi.value.raw);
        }
        walk::walk_template_literal(self, template);
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use uvlet_record::Form;

    use super::read;

    #[test]
    fn loads_openings_and_workers() {
        let text = r#"import"./b.js";import{x as y}from"./a.js";export*from"tide";export{y}from"./a.js";
            const deps=(i,m=deps,d=(m.f||(m.f=["assets/l.js","assets/l.css","assets/q.js"])))=>i.map(i=>d[i]);
            // import("./comment.js")
            const s='import("./string.js")';
            w(()=>import(`./l.js`),deps([0,1]));w(async()=>{const{z}=await import("./q.js");return z},["q.css"]);
            import("./r.js").then(go);import(unknown);
            new Worker(new URL("w.js",import.meta.url),{type:"module"});
            img.src="/assets/pic.png?v=1";other="nothing.png";"#;
        let found = read(text, &|name| name == "pic.png").unwrap();
        assert_eq!(found.form, Form::Es);
        assert_eq!(found.loads, ["./b.js", "./a.js", "tide"]);
        let openings: Vec<_> =
            found.openings.iter().map(|o| (o.request.as_str(), o.along.join(" "))).collect();
        assert_eq!(
            openings,
            [
                ("./l.js", "assets/l.js assets/l.css".to_owned()),
                ("./q.js", "q.css".to_owned()),
                ("./r.js", String::new())
            ]
        );
        let at = usize::try_from(found.openings[2].at).unwrap();
        assert!(text[at..].starts_with("import(\"./r.js\")"));
        assert_eq!(found.workers[0].request, "w.js");
        assert_eq!(found.names, ["/assets/pic.png?v=1"]);
        let lists: Vec<_> = found.statements.iter().map(|statement| statement.list).collect();
        assert_eq!(lists[..4], [true, true, true, true]);
        assert!(lists[4..].iter().all(|list| !list));
    }

    #[rstest]
    #[case::body(
        "(()=>{var m={'./a.js'(e,t,n){eval('{a()\\n//# sourceURL=webpack:///./a.js?\\n}')}}})()",
        true
    )]
    #[case::trusted(
        "x={'./a.js':(e,t,n)=>{eval(n.ts('a()//# sourceURL=webpack-internal:///./a.js\\n'))}}",
        false
    )]
    #[case::trusted_on_a_line(
        "x={'./a.js':(e,t,n)=>{eval(n.ts('a()\\n//# sourceURL=webpack-internal:///./a.js\\n'))}}",
        true
    )]
    #[case::a_template_compiler(
        "x={compile(s){return Function(s+'\\n//# sourceURL=t['+i+']')}}",
        false
    )]
    #[case::a_loader("x={load(s){eval(s)}};y='//# sourceURL=webpack:///z'", false)]
    #[case::a_method_of_that_name("x={go(s){s.eval('a\\n//# sourceURL=webpack:///z')}}", false)]
    fn evaluated_module_bodies(#[case] text: &str, #[case] evaluates: bool) {
        assert_eq!(read(text, &|_| false).unwrap().evaluates, evaluates, "{text}");
    }

    #[rstest]
    #[case("require('fs')", true)]
    #[case("if(node){var f=require('fs')}", false)]
    #[case("node&&require('fs')", false)]
    #[case("try{require('fs')}catch(e){}", false)]
    #[case("const f=()=>require('fs')", false)]
    #[case("m={1:e=>{e.exports=require('fs')}}", true)]
    fn what_only_node_has(#[case] text: &str, #[case] is_required: bool) {
        assert_eq!(
            !read(text, &|_| false).unwrap().node_requires.is_empty(),
            is_required,
            "{text}"
        );
    }

    #[test]
    fn forms_and_damage() {
        let registry = "(self.w=self.w||[]).push([[7],{12:(e,t,n)=>{}}]);";
        assert_eq!(read(registry, &|_| false).unwrap().form, Form::Registry);
        assert_eq!(read("with(a){b()}", &|_| false).unwrap().form, Form::Classic);
        assert_eq!(read("let a = ;", &|_| false).unwrap_err().at, 8);
    }
}
