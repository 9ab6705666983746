//! Scripts that hand a table of modules to a runtime, as webpack and Rspack write them.
//!
//! A chunk says its ids where it registers itself: `(self["x"]=self["x"]||[]).push([[ids],{…},r=>…])`.
//! What must be there before its own code runs stands in the start-up call of its last function,
//! `r.O(0,[ids],…)`; what it opens later are calls `n.e(id)`. The runtime turns ids into file names
//! by the functions `u` (scripts) and `miniCssF` (styles).

mod names;

use std::collections::{BTreeMap, BTreeSet, HashMap};

use oxc_ast::ast::{
    Argument, ArrayExpression, ArrayExpressionElement, AssignmentExpression, AssignmentTarget,
    BindingPattern, CallExpression, Expression, ObjectExpression, ObjectPropertyKind, PropertyKey,
    VariableDeclarator,
};
use oxc_ast_visit::Visit;
use uvlet_record::{File, FileId, Kind};

pub use names::Name;

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
    /// Modules stand in this script, whoever registers them.
    pub has_table: bool,
    /// How the runtime names the script of a chunk.
    pub scripts: Option<Name>,
    /// How the runtime names the style of a chunk.
    pub styles: Option<Name>,
    /// Ids of the chunks that have a style, where the runtime lists them.
    pub styled: BTreeSet<String>,
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
            ("O", [_, Argument::ArrayExpression(ids), start, ..])
                if start.as_expression().is_some_and(is_function) =>
            {
                if let Some(ids) = chunk_ids(ids) {
                    self.starts = true;
                    self.startup.extend(ids);
                }
            }
            _ => {}
        }
    }

    /// Takes note of a variable, if it holds the ids of a chunk that is an ES module:
    /// `export const __webpack_ids__=["7"]`.
    pub fn note_variable(&mut self, variable: &VariableDeclarator<'_>) {
        if let (BindingPattern::BindingIdentifier(name), Some(Expression::ArrayExpression(ids))) =
            (&variable.id, &variable.init)
            && name.name.contains("webpack_ids")
        {
            self.ids.extend(chunk_ids(ids).into_iter().flatten());
        }
    }

    /// Takes note of an object, if it is a table of modules.
    pub fn note_object(&mut self, object: &ObjectExpression<'_>) {
        let is_row = |property: &ObjectPropertyKind<'_>| match property {
            ObjectPropertyKind::ObjectProperty(property) => {
                let is_keyed = matches!(
                    property.key,
                    PropertyKey::NumericLiteral(_) | PropertyKey::StringLiteral(_)
                );
                is_keyed && is_function(&property.value)
            }
            ObjectPropertyKind::SpreadProperty(_) => false,
        };
        self.has_table |= !object.properties.is_empty() && object.properties.iter().all(is_row);
    }

    /// Takes note of an assignment to the runtime's functions.
    pub fn note_assignment(&mut self, assignment: &AssignmentExpression<'_>) {
        let AssignmentTarget::StaticMemberExpression(member) = &assignment.left else { return };
        if !is_function(&assignment.right) {
            return;
        }
        match member.property.name.as_str() {
            "u" => self.scripts = Some(Name::of(&assignment.right)),
            "miniCssF" => self.styles = Some(Name::of(&assignment.right)),
            "miniCss" => {
                let mut flags = Flags(BTreeSet::new());
                flags.visit_expression(&assignment.right);
                self.styled.extend(flags.0);
                return;
            }
            "O" => {}
            _ => return,
        }
        self.runtime = true;
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
    matches!(
        expression.get_inner_expression(),
        Expression::ArrowFunctionExpression(_) | Expression::FunctionExpression(_)
    )
}

fn chunk_ids(list: &ArrayExpression<'_>) -> Option<Vec<String>> {
    let ids = list.elements.iter().map(|element| match element {
        ArrayExpressionElement::NumericLiteral(id) => Some(id.value.to_string()),
        ArrayExpressionElement::StringLiteral(id) => Some(id.value.to_string()),
        _ => None,
    });
    ids.collect()
}

/// Keys of object literals that hold nothing but ones: the chunks that something is true of.
struct Flags(BTreeSet<String>);

impl<'a> Visit<'a> for Flags {
    fn visit_object_expression(&mut self, object: &ObjectExpression<'a>) {
        let keys: Option<Vec<String>> = object
            .properties
            .iter()
            .map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property)
                    if matches!(property.value, Expression::NumericLiteral(_)) =>
                {
                    names::key(&property.key)
                }
                _ => None,
            })
            .collect();
        self.0.extend(keys.into_iter().flatten());
    }
}

/// Bytes below which a script that only a runtime shows in is taken for that alone.
const RUNTIME: u64 = 16_000;

/// Files by chunk id, over all scripts of a build.
#[derive(Debug, Default)]
pub struct Chunks {
    files: BTreeMap<String, Vec<FileId>>,
    /// Scripts that hold only a runtime.
    pub runtimes: Vec<FileId>,
}

impl Chunks {
    /// Ties ids to files: by what scripts register, and by the names that the runtime makes. `asked`
    /// are the ids that any script asks for.
    pub fn find<'i>(
        files: &[File],
        registries: &[Option<&Registry>],
        asked: impl Iterator<Item = &'i str>,
    ) -> Self {
        let mut chunks = Self::default();
        let mut ids: BTreeSet<&str> = asked.collect();
        for (at, registry) in registries.iter().enumerate() {
            let Some(registry) = registry else { continue };
            for id in &registry.ids {
                chunks.add(id, FileId::new(at));
            }
            ids.extend(registry.ids.iter().chain(&registry.startup).map(String::as_str));
            let names = registry.scripts.iter().chain(&registry.styles);
            ids.extend(names.flat_map(Name::ids));
            let is_bare = !registry.has_table && files[at].emitted < RUNTIME;
            if registry.runtime && !registry.starts && !registry.registers && is_bare {
                chunks.runtimes.push(FileId::new(at));
            }
        }
        let mut by_name: HashMap<&str, Vec<usize>> = HashMap::new();
        for (at, file) in files.iter().enumerate() {
            let name = file.path.rsplit('/').next().unwrap_or(&file.path);
            by_name.entry(name).or_default().push(at);
        }
        let file_of = |path: &str, kind: Kind| {
            let name = path.rsplit('/').next().unwrap_or(path);
            let ends = |at: &&usize| {
                let file = &files[**at];
                let before = file.path.strip_suffix(path);
                file.kind == kind && before.is_some_and(|b| b.is_empty() || b.ends_with('/'))
            };
            by_name.get(name)?.iter().find(ends).map(|&at| FileId::new(at))
        };
        for registry in registries.iter().flatten() {
            for &id in &ids {
                let script = registry.scripts.as_ref().and_then(|name| name.of_chunk(id));
                let is_styled = registry.styled.is_empty() || registry.styled.contains(id);
                let style = registry.styles.as_ref().filter(|_| is_styled);
                let style = style.and_then(|name| name.of_chunk(id));
                let found = [(script, Kind::Script), (style, Kind::Style)];
                for (path, kind) in found {
                    if let Some(file) = path.and_then(|path| file_of(&path, kind)) {
                        chunks.add(id, file);
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
