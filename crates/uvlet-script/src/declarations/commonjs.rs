//! What a CommonJS module gives out, and which names of an import are read.

use std::collections::{BTreeMap, BTreeSet};

use oxc_ast::ast::{
    Argument, AssignmentExpression, AssignmentTarget, CallExpression, Expression,
    ObjectPropertyKind,
};
use oxc_ast_visit::{Visit, walk};

use crate::{
    declarations::{
        node::{NodeKind, Use},
        whole::of_script,
    },
    parse::{Dialect, Unparsed, read},
};

/// Names that a CommonJS module gives out, each with the specifier of the module that it is, where it is
/// one as a whole; none where they are not written out.
///
/// # Errors
/// When it cannot be parsed.
pub fn given_out(text: &str) -> Result<Option<BTreeMap<String, Option<String>>>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let mut finder = Finder { names: BTreeMap::new(), is_open: false };
        finder.visit_program(&script.program);
        (!finder.is_open && !finder.names.is_empty()).then_some(finder.names)
    })
}

struct Finder {
    names: BTreeMap<String, Option<String>>,
    /// Something is given out under a name that is not written out.
    is_open: bool,
}

/// The specifier of `require("x")`.
fn required(value: &Expression<'_>) -> Option<String> {
    let Expression::CallExpression(call) = value.get_inner_expression() else { return None };
    let is_require = matches!(&call.callee, Expression::Identifier(name) if name.name == "require");
    match call.arguments.as_slice() {
        [Argument::StringLiteral(text)] if is_require => Some(text.value.to_string()),
        _ => None,
    }
}

/// `exports`, or `module.exports`.
fn is_exports(expression: &Expression<'_>) -> bool {
    match expression.get_inner_expression() {
        Expression::Identifier(name) => name.name == "exports",
        Expression::StaticMemberExpression(member) => {
            member.property.name == "exports"
                && matches!(&member.object, Expression::Identifier(name) if name.name == "module")
        }
        _ => false,
    }
}

impl<'a> Visit<'a> for Finder {
    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        match &assignment.left {
            AssignmentTarget::StaticMemberExpression(member) if is_exports(&member.object) => {
                self.names.insert(member.property.name.to_string(), required(&assignment.right));
            }
            AssignmentTarget::ComputedMemberExpression(member) if is_exports(&member.object) => {
                self.is_open = true;
            }
            AssignmentTarget::StaticMemberExpression(member)
                if member.property.name == "exports"
                    && matches!(&member.object, Expression::Identifier(name) if name.name == "module") =>
            {
                match assignment.right.get_inner_expression() {
                    Expression::ObjectExpression(object) => {
                        for property in &object.properties {
                            match property {
                                ObjectPropertyKind::ObjectProperty(property) => {
                                    match property.key.static_name() {
                                        Some(name) => {
                                            let value = required(&property.value);
                                            self.names.insert(name.to_string(), value);
                                        }
                                        None => self.is_open = true,
                                    }
                                }
                                ObjectPropertyKind::SpreadProperty(_) => self.is_open = true,
                            }
                        }
                    }
                    _ => self.is_open = true,
                }
            }
            _ => {}
        }
        walk::walk_assignment_expression(self, assignment);
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        // Helpers and `Object.assign` may give out anything.
        let hands = call.arguments.iter().filter_map(Argument::as_expression).any(is_exports);
        let is_mark = matches!(call.arguments.get(1), Some(Argument::StringLiteral(name)) if name.value == "__esModule");
        self.is_open |= hands && !is_mark;
        walk::walk_call_expression(self, call);
    }
}

/// The names that a source reads of what it imports, by specifier; none where it may be any.
///
/// # Errors
/// When it cannot be parsed.
pub fn names_read(text: &str) -> Result<BTreeMap<String, Option<BTreeSet<String>>>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let declared = of_script(script, true);
        let mut read: BTreeMap<String, Option<BTreeSet<String>>> = BTreeMap::new();
        let uses = declared.nodes.iter().flat_map(|node| &node.uses).chain(&declared.roots);
        let uses: Vec<&Use> = uses.collect();
        let is_handed_on =
            |at: usize| declared.exports.iter().any(|(_, used)| *used == Use::Node(at));
        for (at, node) in declared.nodes.iter().enumerate() {
            let NodeKind::Import { request, name } = &node.kind else { continue };
            let names = read.entry(request.clone()).or_insert_with(|| Some(BTreeSet::new()));
            let is_object = matches!(name.as_deref(), None | Some("default"));
            if let (Some(name), false) = (name, is_object) {
                names.iter_mut().for_each(|names| {
                    names.insert(name.clone());
                });
                continue;
            }
            for used in &uses {
                match used {
                    Use::MemberOf(of, key) | Use::CalledOf(of, key) if *of == at => {
                        names.iter_mut().for_each(|names| {
                            names.insert(key.clone());
                        });
                    }
                    Use::All(of) if *of == at => *names = None,
                    _ => {}
                }
            }
            if is_handed_on(at) {
                *names = None;
            }
        }
        read
    })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{given_out, names_read};

    #[rstest]
    #[case("exports.a = require('./a'); exports.b = 1;", Some("a:./a b:"))]
    #[case("module.exports = { a: require('./a'), b: function () {} };", Some("a:./a b:"))]
    #[case(
        "Object.defineProperty(exports, '__esModule', { value: true }); exports.a = 1;",
        Some("a:")
    )]
    #[case("module.exports = require('./lib');", None)]
    #[case("module.exports = { ...require('./lib'), a: 1 };", None)]
    #[case("Object.assign(exports, require('./lib')); exports.a = 1;", None)]
    #[case("for (const k in lib) exports[k] = lib[k]; exports.a = 1;", None)]
    fn what_is_given_out(#[case] text: &str, #[case] expected: Option<&str>) {
        let names = given_out(text).unwrap().map(|names| {
            let one = |(name, from): (&String, &Option<String>)| {
                format!("{name}:{}", from.as_deref().unwrap_or_default())
            };
            names.iter().map(one).collect::<Vec<_>>().join(" ")
        });
        assert_eq!(names.as_deref(), expected, "{text}");
    }

    #[rstest]
    #[case("import x from 'lib'; x.a(); export const b = x.b;", Some("a b"))]
    #[case("import { a, b as c } from 'lib'; a(c);", Some("a b"))]
    #[case("import * as x from 'lib'; x.a.b();", Some("a"))]
    #[case("import x, { b } from 'lib'; x.a;", Some("a b"))]
    #[case("import x from 'lib'; export { x };", None)]
    #[case("import x from 'lib'; const y = x; y.a();", None)]
    #[case("import x from 'lib'; x[name]();", None)]
    #[case("import x from 'lib'; const { a } = x;", None)]
    fn what_is_read(#[case] text: &str, #[case] expected: Option<&str>) {
        let read = names_read(text).unwrap().remove("lib").unwrap();
        let names = read.map(|names| names.into_iter().collect::<Vec<_>>().join(" "));
        assert_eq!(names.as_deref(), expected, "{text}");
    }
}
