//! ES modules, and `import()` wherever it stands; with the wrappers that fetch along what a module
//! needs, as Vite writes them.

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{
        Argument, ArrayExpressionElement, AssignmentExpression, AssignmentTarget, CallExpression,
        Expression, ImportExpression, Program, Statement as Syntax,
    },
};

use super::{
    constants::{constant, names_chunk, strings},
    format::{Found, ScriptFormat, Walk},
};

/// Modules of the language itself.
#[derive(Default)]
pub struct Es {
    /// The file list that a preload wrapper's index lists point into.
    along_table: Vec<String>,
}

impl ScriptFormat for Es {
    fn format(&self) -> Format {
        Format::Es
    }

    fn recognises(&self, script: &Script<'_>) -> bool {
        script.is_module
    }

    fn program(&mut self, program: &Program<'_>, found: &mut Found) {
        for statement in &program.body {
            let source = match statement {
                Syntax::ImportDeclaration(import) => Some(&import.source),
                Syntax::ExportAllDeclaration(export) => Some(&export.source),
                Syntax::ExportFromDeclaration(export) => Some(&export.source),
                _ => None,
            };
            if let Some(source) = source {
                found.load(&source.value);
            }
        }
    }

    fn import(&mut self, import: &ImportExpression<'_>, found: &mut Found) -> Walk {
        if let Some(request) = constant(&import.source) {
            found.imports.push(found.asked(request, import.span));
            return Walk::On;
        }
        // The runtime's own way to a chunk, whose name is made elsewhere.
        if !names_chunk(&import.source) {
            found.unknown.push(u64::from(import.span.start));
        }
        Walk::Inside
    }

    /// `m.f = ["a.js", "a.css"]`: the table of a preload wrapper, written before its first use.
    fn assignment(&mut self, assignment: &AssignmentExpression<'_>, _: &mut Found) -> Walk {
        if let AssignmentTarget::StaticMemberExpression(member) = &assignment.left
            && member.property.name == "f"
            && let Expression::ArrayExpression(list) = &assignment.right
            && let Some(table) = strings(list)
        {
            self.along_table = table;
            return Walk::On;
        }
        Walk::Inside
    }

    /// The files that a preload wrapper's second argument names: a list of names, or a call with a
    /// list of indices into the script's table.
    fn fetched_along(&self, call: &CallExpression<'_>) -> Option<Vec<String>> {
        match call.arguments.get(1)? {
            Argument::ArrayExpression(list) => strings(list).filter(|list| !list.is_empty()),
            Argument::CallExpression(call) => {
                let Some(Argument::ArrayExpression(list)) = call.arguments.first() else {
                    return None;
                };
                let names = list.elements.iter().map(|element| match element {
                    ArrayExpressionElement::NumericLiteral(number) => {
                        let index = number.value.to_string().parse::<usize>().ok()?;
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
