//! What a script declares at the level of its modules, who of that uses whom, and what may be cut.
//!
//! The level of modules is the top of an ES module, and the bodies of functions that run as the script
//! does: called where they stand, or rows of a bundler's table. Names are resolved by scope; what stands
//! inside a declaration is used by it, what stands elsewhere is used by code that runs.

pub(crate) mod attach;
pub(crate) mod collect;
pub(crate) mod collector;
pub(crate) mod effects;
pub(crate) mod getters;
pub(crate) mod layout;
pub(crate) mod node;
pub(crate) mod opaque;
pub(crate) mod uses;
pub(crate) mod whole;

pub use node::{Declared, Node, NodeKind, SourceDeclaration, Use};
use std::collections::{BTreeMap, BTreeSet};

use oxc_semantic::SemanticBuilder;

use crate::{
    declarations::whole::of_script,
    parse::{Dialect, Unparsed, read},
};

pub use effects::Effect;
pub use layout::Layout;

/// Reads what a script declares. `is_module` says that its top is a module's, whatever it holds.
///
/// # Errors
/// When it cannot be parsed.
pub fn declared(text: &str, is_module: bool) -> Result<Declared, Unparsed> {
    read(text, Dialect::Emitted, |script| of_script(script, is_module))
}

/// Reads what a source declares at its top.
///
/// # Errors
/// When it cannot be parsed.
pub fn declared_in_source(text: &str) -> Result<Vec<SourceDeclaration>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let semantic =
            SemanticBuilder::new().with_build_nodes(true).build(&script.program).semantic;
        let collected = collect::collect(script, &semantic, true);
        collected.in_source()
    })
}

/// What a file that only hands on hands on: the names that others see, each with the specifier and the
/// name there (none for all of it as one object); and the specifiers of which all is handed on.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct HandedOn {
    /// By the name that others see.
    pub names: BTreeMap<String, (String, Option<String>)>,
    /// `export *`.
    pub all: BTreeSet<String>,
    /// What is imported for what it does.
    pub bare: BTreeSet<String>,
}

/// Reads a source that does nothing but import and export; none where it does anything else.
///
/// # Errors
/// When it cannot be parsed.
pub fn handed_on(text: &str) -> Result<Option<HandedOn>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let is_list = script.statements().iter().all(|statement| statement.is_list);
        let declared = of_script(script, true);
        let imports = |node: &Node| matches!(node.kind, NodeKind::Import { .. });
        let is_mere = is_list && declared.nodes.iter().all(imports);
        is_mere.then(|| given_on(&declared)).flatten()
    })
}

/// What a source re-exports, whatever else it does.
///
/// # Errors
/// When it cannot be parsed.
pub fn re_exported(text: &str) -> Result<Option<HandedOn>, Unparsed> {
    read(text, Dialect::Source, |script| given_on(&of_script(script, true)))
}

fn given_on(declared: &Declared) -> Option<HandedOn> {
    let mut handed = HandedOn {
        all: declared.hands_on.iter().cloned().collect(),
        bare: declared.bare.iter().cloned().collect(),
        ..HandedOn::default()
    };
    for (exported, used) in &declared.exports {
        let Use::Node(node) = used else { continue };
        if let NodeKind::Import { request, name } = &declared.nodes[*node].kind {
            handed.names.insert(exported.clone(), (request.clone(), name.clone()));
        }
    }
    (!handed.names.is_empty() || !handed.all.is_empty()).then_some(handed)
}

/// What a source exports of its own: the name outside with the name inside; none inside where a value
/// without a name is exported.
///
/// # Errors
/// When it cannot be parsed.
pub fn own_exports(text: &str) -> Result<Vec<(String, Option<String>)>, Unparsed> {
    use oxc_ast::ast::{ExportDefaultDeclarationKind as Default, Statement};
    read(text, Dialect::Source, |script| {
        let declared = of_script(script, true);
        let mut found: Vec<(String, Option<String>)> = Vec::new();
        for (outside, used) in &declared.exports {
            let (Use::Node(node) | Use::All(node)) = used else { continue };
            let node = &declared.nodes[*node];
            if !matches!(node.kind, NodeKind::Import { .. }) {
                found.push((outside.clone(), Some(node.name.clone())));
            }
        }
        for statement in &script.program.body {
            let Statement::ExportDefaultDeclaration(default) = statement else { continue };
            let inside = match &default.declaration {
                Default::FunctionDeclaration(function) => function.id.as_ref().map(|id| id.name),
                Default::ClassDeclaration(class) => class.id.as_ref().map(|id| id.name),
                Default::Identifier(name) => Some(name.name),
                _ => None,
            };
            found.retain(|(outside, _)| outside != "default");
            found.push(("default".to_owned(), inside.map(|name| name.to_string())));
        }
        found.sort();
        found.dedup();
        found
    })
}

/// The names that a source exports; none where it hands on all of another, which may be any.
///
/// # Errors
/// When it cannot be parsed.
pub fn exported_names(text: &str) -> Result<Option<Vec<String>>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let declared = of_script(script, true);
        if !declared.hands_on.is_empty() {
            return None;
        }
        let mut names: Vec<String> = declared.exports.into_iter().map(|(name, _)| name).collect();
        let is_default = |statement: &oxc_ast::ast::Statement<'_>| {
            matches!(statement, oxc_ast::ast::Statement::ExportDefaultDeclaration(_))
        };
        if script.program.body.iter().any(is_default) {
            names.push("default".to_owned());
        }
        Some(names)
    })
}
