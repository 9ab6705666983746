//! How a script is put together: what it loads, what it asks for on demand, where its modules stand.
//!
//! A format is a file here and a line in [`all`]. The script is parsed once and walked once; every
//! format looks on and takes note of what it knows, so that text in strings and comments is never
//! mistaken for a load. Which module stands where, where no map says so, is told by [`registry`] and
//! [`merged`].

pub(crate) mod amd;
pub(crate) mod classic;
pub(crate) mod commonjs;
pub(crate) mod constants;
pub(crate) mod es;
pub(crate) mod file_names;
pub(crate) mod format;
pub mod merged;
pub(crate) mod parcel;
pub mod registry;
pub(crate) mod routes;
pub(crate) mod system;
pub(crate) mod turbopack;

use uvlet_record::Format;
use uvlet_script::{
    Dialect, ScopeFlags, Script, Statement, Unparsed,
    ast::{
        ArrowFunctionExpression, AssignmentExpression, CallExpression, ConditionalExpression,
        Function, IfStatement, ImportExpression, LogicalExpression, NewExpression,
        ObjectExpression, ObjectProperty, Program, StringLiteral, TemplateLiteral, TryStatement,
        VariableDeclarator,
    },
    visit::{Visit, walk},
};

use crate::files::marks::CodeMarks;

pub use format::{Chunks, Found, ScriptFormat, Walk};

/// How many formats there are.
const FORMATS: usize = 8;

/// The formats, the most telling first: a script is of the first that recognises it.
fn all() -> [Box<dyn ScriptFormat>; FORMATS] {
    [
        Box::<parcel::Parcel>::default(),
        Box::<es::Es>::default(),
        Box::<turbopack::Turbopack>::default(),
        Box::<registry::Registry>::default(),
        Box::<system::System>::default(),
        Box::<amd::Amd>::default(),
        Box::<commonjs::CommonJs>::default(),
        Box::<classic::Classic>::default(),
    ]
}

/// What a script says by itself.
#[derive(Debug)]
pub struct ScriptFacts {
    /// How it is put together.
    pub format: Format,
    /// What it loads and asks for.
    pub found: Found,
    /// What it says of chunks, where it is part of a registry of modules.
    pub chunks: Chunks,
    /// What tells how it was made and where it runs.
    pub marks: CodeMarks,
    /// Its top-level statements.
    pub statements: Vec<Statement>,
}

/// Parses a script, finds what it says, and hands the tree on to `more`. `is_file` tells whether a
/// file name (without folders) is one of the folder's.
///
/// # Errors
/// When the text is not JavaScript, or nests too deep.
pub fn read<T: Send>(
    text: &str,
    is_file: &(dyn Fn(&str) -> bool + Sync),
    more: impl FnOnce(&Script<'_>, &ScriptFacts) -> T + Send,
) -> Result<(ScriptFacts, T), Unparsed> {
    uvlet_script::read(text, Dialect::Emitted, |script| {
        let facts = facts(script, is_file);
        let more = more(script, &facts);
        (facts, more)
    })
}

fn facts(script: &Script<'_>, is_file: &dyn Fn(&str) -> bool) -> ScriptFacts {
    let statements = script.statements();
    let end = statements.last().map_or(0, |statement| statement.range.end);
    let marks = CodeMarks::of(script.text.as_bytes().get(..end).unwrap_or_default());
    let mut walker = Walker { formats: all(), found: Found::default(), marks, is_file };
    walker.visit_program(&script.program);
    let Walker { formats, mut found, marks, .. } = walker;
    let of = formats.iter().find(|format| format.recognises(script));
    let format = of.map_or(Format::Classic, |format| format.format());
    let mut chunks = Chunks::default();
    for format in formats {
        format.finish(&mut chunks);
    }
    found.mark_at_once(script, chunks.runtime);
    found.mark_routes(&script.program);
    ScriptFacts { format, found, chunks, marks, statements }
}

struct Walker<'f> {
    formats: [Box<dyn ScriptFormat>; FORMATS],
    found: Found,
    marks: CodeMarks,
    is_file: &'f dyn Fn(&str) -> bool,
}

impl Walker<'_> {
    fn name(&mut self, text: &str) {
        let plain = text.split(['?', '#']).next().unwrap_or(text);
        let file = plain.rsplit('/').next().unwrap_or(plain);
        if file.len() < 256 && file.contains('.') && (self.is_file)(file) {
            self.found.assets.push(text.to_owned());
        }
    }

    /// Whether all formats want what stands inside to be walked.
    fn all(&mut self, mut look: impl FnMut(&mut dyn ScriptFormat, &mut Found) -> Walk) -> bool {
        let mut inside = true;
        // Each looks, whatever the others want.
        for format in &mut self.formats {
            inside &= look(format.as_mut(), &mut self.found) == Walk::Inside;
        }
        inside
    }

    fn in_branch(&mut self, walk: impl FnOnce(&mut Self)) {
        self.found.branches += 1;
        walk(self);
        self.found.branches -= 1;
    }
}

impl<'a> Visit<'a> for Walker<'_> {
    fn visit_program(&mut self, program: &Program<'a>) {
        self.formats.iter_mut().for_each(|format| format.program(program, &mut self.found));
        walk::walk_program(self, program);
    }

    fn visit_import_expression(&mut self, import: &ImportExpression<'a>) {
        let is_known = self.formats.iter().any(|format| format.knows_import(import));
        if is_known || self.all(|format, found| format.import(import, found)) {
            walk::walk_import_expression(self, import);
        }
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        self.marks.call(call, self.found.is_sure_to_run());
        self.formats.iter_mut().for_each(|format| format.call(call, &mut self.found));
        let along = self.formats.iter().find_map(|format| format.fetched_along(call));
        let before = self.found.imports.len();
        walk::walk_call_expression(self, call);
        if let Some(along) = along
            && let Some(import) = self.found.imports.get_mut(before)
            && import.along.is_empty()
        {
            import.along = along;
        }
    }

    fn visit_new_expression(&mut self, call: &NewExpression<'a>) {
        if self.all(|format, found| format.construct(call, found)) {
            walk::walk_new_expression(self, call);
        }
    }

    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        self.marks.assignment(assignment, self.found.is_in_function());
        if self.all(|format, found| format.assignment(assignment, found)) {
            walk::walk_assignment_expression(self, assignment);
        }
    }

    fn visit_variable_declarator(&mut self, variable: &VariableDeclarator<'a>) {
        self.formats.iter_mut().for_each(|format| format.variable(variable, &mut self.found));
        walk::walk_variable_declarator(self, variable);
    }

    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        self.formats.iter_mut().for_each(|format| format.object(object, &mut self.found));
        walk::walk_object_expression(self, object);
    }

    fn visit_object_property(&mut self, property: &ObjectProperty<'a>) {
        self.marks.property(property);
        walk::walk_object_property(self, property);
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        self.found.functions += 1;
        walk::walk_function(self, function, flags);
        self.found.functions -= 1;
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        self.found.functions += 1;
        walk::walk_arrow_function_expression(self, arrow);
        self.found.functions -= 1;
    }

    fn visit_if_statement(&mut self, statement: &IfStatement<'a>) {
        self.in_branch(|walker| walk::walk_if_statement(walker, statement));
    }

    fn visit_conditional_expression(&mut self, expression: &ConditionalExpression<'a>) {
        self.in_branch(|walker| walk::walk_conditional_expression(walker, expression));
    }

    fn visit_logical_expression(&mut self, expression: &LogicalExpression<'a>) {
        self.in_branch(|walker| walk::walk_logical_expression(walker, expression));
    }

    fn visit_try_statement(&mut self, statement: &TryStatement<'a>) {
        self.in_branch(|walker| walk::walk_try_statement(walker, statement));
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
mod tests;
