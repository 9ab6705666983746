//! Finds requests and exports in the tree of a source.

use std::collections::{BTreeMap, BTreeSet, HashSet};

use oxc_ast::ast::{
    Argument, ArrowFunctionExpression, AssignmentExpression, AssignmentTarget, BindingIdentifier,
    BindingPattern, CallExpression, Declaration, ExportAllDeclaration, ExportDeclaration,
    ExportDefaultDeclaration, ExportFromDeclaration, ExportNamedDeclaration, Expression, Function,
    IdentifierReference, ImportDeclaration, ImportDeclarationSpecifier, ImportExpression,
    JSXElement, JSXFragment, JSXMemberExpression, JSXMemberExpressionObject, NewExpression,
    ObjectExpression, ObjectPropertyKind, StaticMemberExpression, TSExportAssignment,
    TSImportEqualsDeclaration, TSInterfaceDeclaration, TSModuleReference, TSType,
    TSTypeAliasDeclaration, TSTypeAnnotation, TSTypeParameterInstantiation,
};
use oxc_ast_visit::{Visit, walk};
use oxc_syntax::scope::ScopeFlags;

use crate::requests::request::{Export, Kind, Request, Requests};

/// What is found so far.
#[derive(Default)]
pub struct Finder {
    pub found: Requests,
    /// Names that imports bind: the request, the name there.
    bound: BTreeMap<String, (usize, Option<String>)>,
    /// Imports that bind names, by place: they may be taken out.
    binding: Vec<usize>,
    /// Names that code uses.
    used: HashSet<String>,
    /// Names that code uses otherwise than for one of their members.
    whole: HashSet<String>,
    /// Members that are read of a name.
    members: BTreeMap<String, BTreeSet<String>>,
    /// Imports of all names as one: the request, the name that binds it, other names that are taken.
    namespaces: Vec<(usize, String, Vec<String>)>,
    /// Exports of local names: outside, inside.
    given: Vec<(String, String)>,
    /// Functions around the place that have a `require` of their own.
    shadows: usize,
}

impl Finder {
    fn ask(&mut self, specifier: &str, kind: Kind, names: Option<Vec<String>>) -> usize {
        self.found.asks.push(Request { names, ..Request::plain(specifier.to_owned(), kind) });
        self.found.asks.len() - 1
    }

    fn give(&mut self, name: &str) {
        self.found.gives.push(Export { name: name.to_owned(), from: None });
    }

    /// What was found. `is_typed` says that a compiler takes out imports which no code uses.
    pub fn finish(mut self, is_typed: bool) -> Requests {
        for (outside, inside) in std::mem::take(&mut self.given) {
            let from = self.bound.get(&inside).cloned();
            self.whole.insert(inside.clone());
            self.used.insert(inside);
            self.found.gives.push(Export { name: outside, from });
        }
        for (ask, local, others) in std::mem::take(&mut self.namespaces) {
            if !self.whole.contains(&local) {
                let members = self.members.remove(&local).unwrap_or_default();
                let names = others.into_iter().chain(members);
                self.found.asks[ask].names = Some(names.collect());
            }
        }
        for (local, (ask, name)) in &self.bound {
            if let Some(name) = name
                && !self.whole.contains(local)
                && let Some(members) = self.members.remove(local)
            {
                let members = members.into_iter().collect();
                self.found.asks[*ask].members.insert(name.clone(), members);
            }
        }
        if is_typed {
            let is_used = |at: &usize| {
                let mut names = self.bound.iter().filter(|(_, (ask, _))| ask == at);
                names.any(|(name, _)| self.used.contains(name))
            };
            let unused: HashSet<usize> =
                self.binding.iter().copied().filter(|at| !is_used(at)).collect();
            self.drop_asks(&unused);
        }
        self.found
    }

    fn drop_asks(&mut self, unused: &HashSet<usize>) {
        let mut places = vec![None; self.found.asks.len()];
        let mut kept = Vec::new();
        for (at, ask) in std::mem::take(&mut self.found.asks).into_iter().enumerate() {
            if !unused.contains(&at) {
                places[at] = Some(kept.len());
                kept.push(ask);
            }
        }
        self.found.asks = kept;
        let moved = |at: &mut usize| places[*at].map(|place| *at = place).is_some();
        self.found.gives_all_of.retain_mut(|at| moved(at));
        self.found.gives.retain_mut(|give| match &mut give.from {
            Some((at, _)) => moved(at),
            None => true,
        });
    }

    fn shadowed(&mut self, names: bool, walk: impl FnOnce(&mut Self)) {
        self.shadows += usize::from(names);
        walk(self);
        self.shadows -= usize::from(names);
    }

    fn declared(&mut self, declaration: &Declaration<'_>) {
        let mut names = Names(Vec::new());
        match declaration {
            Declaration::VariableDeclaration(variables) => {
                for variable in &variables.declarations {
                    names.visit_binding_pattern(&variable.id);
                }
            }
            Declaration::FunctionDeclaration(function) => {
                names.0.extend(function.id.iter().map(|id| id.name.to_string()));
            }
            Declaration::ClassDeclaration(class) => {
                names.0.extend(class.id.iter().map(|id| id.name.to_string()));
            }
            Declaration::TSEnumDeclaration(list) => names.0.push(list.id.name.to_string()),
            _ => {}
        }
        names.0.iter().for_each(|name| self.give(name));
    }
}

/// Names that a pattern binds.
struct Names(Vec<String>);

impl<'a> Visit<'a> for Names {
    fn visit_binding_identifier(&mut self, name: &BindingIdentifier<'a>) {
        self.0.push(name.name.to_string());
    }

    fn visit_expression(&mut self, _: &Expression<'a>) {}
}

fn names_require(parameters: &oxc_ast::ast::FormalParameters<'_>) -> bool {
    parameters.items.iter().any(|parameter| {
        matches!(&parameter.pattern, BindingPattern::BindingIdentifier(name) if name.name == "require")
    })
}

/// The text of a string, or of a template without holes.
fn text<'e>(expression: &'e Expression<'_>) -> Option<&'e str> {
    match expression.get_inner_expression() {
        Expression::StringLiteral(text) => Some(&text.value),
        Expression::TemplateLiteral(template) if template.expressions.is_empty() => {
            template.quasis.first().map(|quasi| quasi.value.raw.as_str())
        }
        _ => None,
    }
}

/// `"w.js"` of `new URL("w.js", import.meta.url)`.
fn url<'e>(expression: &'e Expression<'_>) -> Option<&'e str> {
    let Expression::NewExpression(call) = expression.get_inner_expression() else { return None };
    let is_url = matches!(&call.callee, Expression::Identifier(name) if name.name == "URL");
    let (Some(first), Some(Argument::StaticMemberExpression(base))) =
        (call.arguments.first(), call.arguments.get(1))
    else {
        return None;
    };
    let is_here = matches!(&base.object, Expression::ImportMeta(_));
    text(first.as_expression()?).filter(|_| is_url && is_here)
}

/// The name after `exports.` or `module.exports.`.
fn exported<'e>(target: &'e AssignmentTarget<'_>) -> Option<&'e str> {
    let AssignmentTarget::StaticMemberExpression(member) = target else { return None };
    let is_exports = match &member.object {
        Expression::Identifier(object) => object.name == "exports",
        Expression::StaticMemberExpression(inner) => {
            inner.property.name == "exports"
                && matches!(&inner.object, Expression::Identifier(object) if object.name == "module")
        }
        _ => false,
    };
    is_exports.then_some(member.property.name.as_str())
}

fn is_module_exports(target: &AssignmentTarget<'_>) -> bool {
    matches!(target, AssignmentTarget::StaticMemberExpression(member)
        if member.property.name == "exports"
            && matches!(&member.object, Expression::Identifier(object) if object.name == "module"))
}

impl<'a> Visit<'a> for Finder {
    fn visit_import_declaration(&mut self, import: &ImportDeclaration<'a>) {
        if import.import_kind.is_type() {
            return;
        }
        let Some(specifiers) = &import.specifiers else {
            self.ask(&import.source.value, Kind::Import, Some(Vec::new()));
            return;
        };
        let mut taken: Option<Vec<String>> = Some(Vec::new());
        let mut bound: Vec<(String, Option<String>)> = Vec::new();
        for specifier in specifiers {
            match specifier {
                ImportDeclarationSpecifier::ImportSpecifier(one) if one.import_kind.is_type() => {}
                ImportDeclarationSpecifier::ImportSpecifier(one) => {
                    let name = one.imported.name().to_string();
                    bound.push((one.local.name.to_string(), Some(name)));
                }
                ImportDeclarationSpecifier::ImportDefaultSpecifier(one) => {
                    bound.push((one.local.name.to_string(), Some("default".to_owned())));
                }
                ImportDeclarationSpecifier::ImportNamespaceSpecifier(one) => {
                    bound.push((one.local.name.to_string(), None));
                }
            }
        }
        // `import { type A } from "./a"` is taken out with its types.
        if bound.is_empty() && !specifiers.is_empty() {
            return;
        }
        let namespace =
            bound.iter().find(|(_, name)| name.is_none()).map(|(local, _)| local.clone());
        let others: Vec<String> = bound.iter().filter_map(|(_, name)| name.clone()).collect();
        for (_, name) in &bound {
            taken = taken.zip(name.clone()).map(|(mut names, name)| {
                names.push(name);
                names
            });
        }
        let at = self.ask(&import.source.value, Kind::Import, taken);
        if !bound.is_empty() {
            self.binding.push(at);
        }
        self.namespaces.extend(namespace.map(|local| (at, local, others)));
        self.bound.extend(bound.into_iter().map(|(local, name)| (local, (at, name))));
    }

    fn visit_export_all_declaration(&mut self, export: &ExportAllDeclaration<'a>) {
        if export.export_kind.is_type() {
            return;
        }
        let at = self.ask(&export.source.value, Kind::Reexport, None);
        match &export.exported {
            Some(name) => {
                let name = name.name().to_string();
                self.found.gives.push(Export { name, from: Some((at, None)) });
            }
            None => self.found.gives_all_of.push(at),
        }
    }

    fn visit_export_from_declaration(&mut self, export: &ExportFromDeclaration<'a>) {
        if export.export_kind.is_type() {
            return;
        }
        let given = export.specifiers.iter().filter(|one| !one.export_kind.is_type());
        let given: Vec<(String, String)> = given
            .map(|one| (one.exported.name().to_string(), one.local.name().to_string()))
            .collect();
        if given.is_empty() && !export.specifiers.is_empty() {
            return;
        }
        let names = given.iter().map(|(_, inside)| inside.clone()).collect();
        let at = self.ask(&export.source.value, Kind::Reexport, Some(names));
        let exports = given.into_iter();
        self.found
            .gives
            .extend(exports.map(|(name, inside)| Export { name, from: Some((at, Some(inside))) }));
    }

    fn visit_export_named_declaration(&mut self, export: &ExportNamedDeclaration<'a>) {
        if export.export_kind.is_type() {
            return;
        }
        for one in export.specifiers.iter().filter(|one| !one.export_kind.is_type()) {
            self.given.push((one.exported.name().to_string(), one.local.name().to_string()));
        }
    }

    fn visit_export_declaration(&mut self, export: &ExportDeclaration<'a>) {
        self.declared(&export.declaration);
        walk::walk_export_declaration(self, export);
    }

    fn visit_export_default_declaration(&mut self, export: &ExportDefaultDeclaration<'a>) {
        match &export.declaration {
            oxc_ast::ast::ExportDefaultDeclarationKind::Identifier(name) => {
                self.given.push(("default".to_owned(), name.name.to_string()));
            }
            _ => self.give("default"),
        }
        walk::walk_export_default_declaration(self, export);
    }

    fn visit_ts_export_assignment(&mut self, export: &TSExportAssignment<'a>) {
        self.give("default");
        walk::walk_ts_export_assignment(self, export);
    }

    fn visit_ts_import_equals_declaration(&mut self, import: &TSImportEqualsDeclaration<'a>) {
        if let TSModuleReference::ExternalModuleReference(module) = &import.module_reference
            && !import.import_kind.is_type()
        {
            let at = self.ask(&module.expression.value, Kind::Require, None);
            self.bound.insert(import.id.name.to_string(), (at, None));
            self.binding.push(at);
        }
    }

    fn visit_import_expression(&mut self, import: &ImportExpression<'a>) {
        if let Some(specifier) = text(&import.source) {
            self.ask(specifier, Kind::Dynamic, None);
        }
        walk::walk_import_expression(self, import);
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        if let Expression::Identifier(callee) = &call.callee
            && callee.name == "require"
            && self.shadows == 0
            && let [only] = call.arguments.as_slice()
            && let Some(specifier) = only.as_expression().and_then(text)
        {
            self.ask(specifier, Kind::Require, None);
        }
        walk::walk_call_expression(self, call);
    }

    fn visit_new_expression(&mut self, call: &NewExpression<'a>) {
        let first = call.arguments.first().and_then(Argument::as_expression);
        if let Expression::Identifier(callee) = &call.callee {
            let is_worker = matches!(callee.name.as_str(), "Worker" | "SharedWorker");
            if let Some(specifier) = first.and_then(url).filter(|_| is_worker) {
                self.ask(specifier, Kind::Worker, None);
                return;
            }
            if callee.name == "URL"
                && let [first, Argument::StaticMemberExpression(base)] = call.arguments.as_slice()
                && matches!(&base.object, Expression::ImportMeta(_))
                && let Some(specifier) = first.as_expression().and_then(text)
            {
                self.ask(specifier, Kind::Url, None);
            }
        }
        walk::walk_new_expression(self, call);
    }

    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        if let Some(name) = exported(&assignment.left) {
            self.give(name);
        } else if is_module_exports(&assignment.left) {
            self.give("default");
            if let Expression::ObjectExpression(object) = &assignment.right {
                self.object(object);
            }
        }
        walk::walk_assignment_expression(self, assignment);
    }

    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        let shadows = names_require(&function.params);
        self.shadowed(shadows, |finder| walk::walk_function(finder, function, flags));
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        let shadows = names_require(&arrow.params);
        self.shadowed(shadows, |finder| walk::walk_arrow_function_expression(finder, arrow));
    }

    fn visit_identifier_reference(&mut self, name: &IdentifierReference<'a>) {
        if !self.whole.contains(name.name.as_str()) {
            self.whole.insert(name.name.to_string());
            self.used.insert(name.name.to_string());
        }
    }

    fn visit_static_member_expression(&mut self, member: &StaticMemberExpression<'a>) {
        match &member.object {
            Expression::Identifier(object) => self.member(&object.name, &member.property.name),
            _ => walk::walk_static_member_expression(self, member),
        }
    }

    fn visit_jsx_member_expression(&mut self, member: &JSXMemberExpression<'a>) {
        match &member.object {
            JSXMemberExpressionObject::IdentifierReference(object) => {
                self.member(&object.name, &member.property.name);
            }
            _ => walk::walk_jsx_member_expression(self, member),
        }
    }

    fn visit_jsx_element(&mut self, element: &JSXElement<'a>) {
        self.found.has_elements = true;
        walk::walk_jsx_element(self, element);
    }

    fn visit_jsx_fragment(&mut self, fragment: &JSXFragment<'a>) {
        self.found.has_elements = true;
        walk::walk_jsx_fragment(self, fragment);
    }

    // What names a type uses no code.
    fn visit_ts_type(&mut self, _: &TSType<'a>) {}
    fn visit_ts_type_annotation(&mut self, _: &TSTypeAnnotation<'a>) {}
    fn visit_ts_type_parameter_instantiation(&mut self, _: &TSTypeParameterInstantiation<'a>) {}
    fn visit_ts_interface_declaration(&mut self, _: &TSInterfaceDeclaration<'a>) {}
    fn visit_ts_type_alias_declaration(&mut self, _: &TSTypeAliasDeclaration<'a>) {}
}

impl Finder {
    fn member(&mut self, object: &str, property: &str) {
        self.used.insert(object.to_owned());
        self.members.entry(object.to_owned()).or_default().insert(property.to_owned());
    }

    fn object(&mut self, object: &ObjectExpression<'_>) {
        for property in &object.properties {
            if let ObjectPropertyKind::ObjectProperty(property) = property
                && let Some(name) = property.key.static_name()
            {
                self.give(&name);
            }
        }
    }
}
