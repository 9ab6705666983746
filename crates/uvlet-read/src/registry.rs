//! Scripts that hand a table of modules to a runtime, as webpack and Rspack write them.
//!
//! A chunk says its ids where it registers itself: `(self["x"]=self["x"]||[]).push([[ids],{…},r=>…])`.
//! What must be there before its own code runs stands in the start-up call of its last function,
//! `r.O(0,[ids],…)`; what it opens later are calls `n.e(id)`. The runtime turns ids into file names
//! by the functions `u` (scripts) and `miniCssF` (styles).

use std::collections::BTreeMap;

use oxc_ast::ast::{
    Argument, ArrayExpression, ArrayExpressionElement, AssignmentExpression, AssignmentTarget,
    CallExpression, Expression, ObjectExpression, ObjectPropertyKind, PropertyKey,
};
use oxc_ast_visit::Visit;
use uvlet_record::{File, FileId, Kind};

/// What one script says of chunks.
#[derive(Debug, Default, Clone, PartialEq, Eq)]
pub struct Registry {
    /// Ids of the chunks in this script.
    pub ids: Vec<String>,
    /// It registers a module table.
    pub registers: bool,
    /// Code of its own runs once it and the start-up chunks are there.
    pub starts: bool,
    /// Ids of chunks that must be there before its own code runs.
    pub startup: Vec<String>,
    /// The runtime stands in this script.
    pub runtime: bool,
    /// What the runtime's name function adds for an id, for scripts.
    pub scripts: Vec<(String, String)>,
    /// The same for styles.
    pub styles: Vec<(String, String)>,
}

impl Registry {
    /// Takes note of a call, if it is one of those above.
    pub fn note_call(&mut self, call: &CallExpression<'_>) {
        let Expression::StaticMemberExpression(callee) = &call.callee else { return };
        match (callee.property.name.as_str(), call.arguments.as_slice()) {
            ("push", [Argument::ArrayExpression(pushed)]) => {
                let [ArrayExpressionElement::ArrayExpression(ids), table, rest @ ..] =
                    pushed.elements.as_slice()
                else {
                    return;
                };
                let is_table = matches!(
                    table,
                    ArrayExpressionElement::ObjectExpression(_)
                        | ArrayExpressionElement::ArrayExpression(_)
                );
                if let (true, Some(ids)) = (is_table, chunk_ids(ids)) {
                    self.registers = true;
                    self.ids.extend(ids);
                    self.starts |= !rest.is_empty();
                }
            }
            // Only a whole list of ids beside a function is the start-up call of the runtime.
            (
                "O",
                [
                    _,
                    Argument::ArrayExpression(ids),
                    Argument::ArrowFunctionExpression(_) | Argument::FunctionExpression(_),
                    ..,
                ],
            ) => {
                if let Some(ids) = chunk_ids(ids) {
                    self.starts = true;
                    self.startup.extend(ids);
                }
            }
            _ => {}
        }
    }

    /// Takes note of an assignment to the runtime's functions.
    pub fn note_assignment(&mut self, assignment: &AssignmentExpression<'_>) {
        let AssignmentTarget::StaticMemberExpression(member) = &assignment.left else { return };
        let list = match member.property.name.as_str() {
            "u" => &mut self.scripts,
            "miniCssF" => &mut self.styles,
            "O" => {
                self.runtime |= is_function(&assignment.right);
                return;
            }
            _ => return,
        };
        if !is_function(&assignment.right) {
            return;
        }
        self.runtime = true;
        let mut tables = Tables(Vec::new());
        tables.visit_expression(&assignment.right);
        list.append(&mut tables.0);
    }
}

/// The id in `n.e(id)`, or in `n.u(id)` of a worker's URL.
pub fn chunk_request(call: &CallExpression<'_>, function: &str) -> Option<String> {
    let Expression::StaticMemberExpression(callee) = &call.callee else { return None };
    if callee.property.name != function {
        return None;
    }
    match call.arguments.as_slice() {
        [Argument::NumericLiteral(id)] => Some(id.value.to_string()),
        [Argument::StringLiteral(id)] => Some(id.value.to_string()),
        _ => None,
    }
}

fn is_function(expression: &Expression<'_>) -> bool {
    matches!(expression, Expression::ArrowFunctionExpression(_) | Expression::FunctionExpression(_))
}

fn chunk_ids(list: &ArrayExpression<'_>) -> Option<Vec<String>> {
    let ids = list.elements.iter().map(|element| match element {
        ArrayExpressionElement::NumericLiteral(id) => Some(id.value.to_string()),
        ArrayExpressionElement::StringLiteral(id) => Some(id.value.to_string()),
        _ => None,
    });
    ids.collect()
}

/// Object literals from ids to texts inside a name function.
struct Tables(Vec<(String, String)>);

impl<'a> Visit<'a> for Tables {
    fn visit_object_expression(&mut self, table: &ObjectExpression<'a>) {
        for property in &table.properties {
            let ObjectPropertyKind::ObjectProperty(property) = property else { continue };
            let key = match &property.key {
                PropertyKey::NumericLiteral(id) => id.value.to_string(),
                PropertyKey::StringLiteral(id) => id.value.to_string(),
                PropertyKey::StaticIdentifier(id) => id.name.to_string(),
                _ => continue,
            };
            if let Expression::StringLiteral(text) = &property.value {
                self.0.push((key, text.value.to_string()));
            }
        }
    }
}

/// Files by chunk id, over all scripts of a build.
#[derive(Debug, Default)]
pub struct Chunks {
    files: BTreeMap<String, Vec<FileId>>,
    /// Scripts that hold only a runtime.
    pub runtimes: Vec<FileId>,
}

impl Chunks {
    /// Ties ids to files: by what scripts register, else by the runtime's name functions.
    pub fn find(files: &[File], registries: &[Option<&Registry>]) -> Self {
        let mut chunks = Self::default();
        for (at, registry) in registries.iter().enumerate() {
            let Some(registry) = registry else { continue };
            for id in &registry.ids {
                chunks.add(id, FileId::new(at));
            }
            if registry.runtime && !registry.starts && !registry.registers {
                chunks.runtimes.push(FileId::new(at));
            }
        }
        for registry in registries.iter().flatten() {
            for (kind, names) in
                [(Kind::Script, &registry.scripts), (Kind::Style, &registry.styles)]
            {
                for (id, text) in names {
                    // Short texts are names of chunks rather than hashes, and stand in many paths.
                    let named = files.iter().position(|file| {
                        file.kind == kind && text.len() >= 6 && file.path.contains(text.as_str())
                    });
                    if let Some(at) = named {
                        chunks.add(id, FileId::new(at));
                    }
                }
            }
        }
        chunks
    }

    fn add(&mut self, id: &str, file: FileId) {
        let files = self.files.entry(id.to_owned()).or_default();
        if !files.contains(&file) {
            files.push(file);
        }
    }

    /// The files of a chunk.
    pub fn files(&self, id: &str) -> &[FileId] {
        self.files.get(id).map_or(&[], Vec::as_slice)
    }
}
