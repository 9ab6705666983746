//! Sources whose evaluation does nothing but make what they export, and their imports as they can be
//! rewritten.

use std::ops::Range;

use oxc_ast::ast::{
    ExportDefaultDeclarationKind, Expression, ImportDeclaration, ImportDeclarationSpecifier,
    Statement,
};
use oxc_span::GetSpan;

use crate::{
    declarations::declared_in_source,
    parse::{Dialect, Unparsed, read},
    span::range,
};

/// Whether evaluating a source does nothing that others could see. What cannot be told may do something.
///
/// # Errors
/// When it cannot be parsed.
pub fn is_inert(text: &str) -> Result<bool, Unparsed> {
    let declared = declared_in_source(text)?;
    if declared.iter().any(|one| one.effect.is_some()) {
        return Ok(false);
    }
    read(text, Dialect::Source, |script| {
        script.is_module && script.program.body.iter().all(|statement| does_nothing(statement))
    })
}

/// Declarations are judged by what they declare.
fn does_nothing(statement: &Statement<'_>) -> bool {
    match statement {
        // An import without names is there for what it does.
        Statement::ImportDeclaration(import) => import.specifiers.is_some(),
        Statement::ExportDefaultDeclaration(export) => match &export.declaration {
            ExportDefaultDeclarationKind::FunctionDeclaration(_) => true,
            ExportDefaultDeclarationKind::Identifier(_) => true,
            value => value.as_expression().is_some_and(|value| {
                matches!(
                    value.get_inner_expression(),
                    Expression::ArrowFunctionExpression(_)
                        | Expression::FunctionExpression(_)
                        | Expression::StringLiteral(_)
                        | Expression::NumericLiteral(_)
                        | Expression::BooleanLiteral(_)
                        | Expression::NullLiteral(_)
                )
            }),
        },
        Statement::FunctionDeclaration(_)
        | Statement::ClassDeclaration(_)
        | Statement::EmptyStatement(_)
        | Statement::TSTypeAliasDeclaration(_)
        | Statement::TSInterfaceDeclaration(_)
        | Statement::ExportAllDeclaration(_)
        | Statement::ExportNamedDeclaration(_)
        | Statement::ExportFromDeclaration(_) => true,
        // A pattern reads properties, of which some may be getters.
        Statement::VariableDeclaration(variables) => {
            variables.declarations.iter().all(|one| one.id.get_binding_identifier().is_some())
        }
        Statement::ExportDeclaration(export) => match &export.declaration {
            oxc_ast::ast::Declaration::VariableDeclaration(variables) => {
                variables.declarations.iter().all(|one| one.id.get_binding_identifier().is_some())
            }
            oxc_ast::ast::Declaration::FunctionDeclaration(_)
            | oxc_ast::ast::Declaration::ClassDeclaration(_)
            | oxc_ast::ast::Declaration::TSTypeAliasDeclaration(_)
            | oxc_ast::ast::Declaration::TSInterfaceDeclaration(_) => true,
            _ => false,
        },
        _ => false,
    }
}

/// An import of names.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Import {
    /// Its bytes, the semicolon among them.
    pub range: Range<usize>,
    /// The specifier as written.
    pub request: String,
    /// The names there, with those here.
    pub names: Vec<(String, String)>,
    /// The quote around the specifier.
    pub quote: char,
}

/// The imports of a source that take nothing but names, by `import { … }`.
///
/// # Errors
/// When it cannot be parsed.
pub fn imports(text: &str) -> Result<Vec<Import>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let imports = script.program.body.iter().filter_map(|statement| match statement {
            Statement::ImportDeclaration(import) => named(text, import),
            _ => None,
        });
        imports.collect()
    })
}

fn named(text: &str, import: &ImportDeclaration<'_>) -> Option<Import> {
    if import.import_kind.is_type() || import.with_clause.is_some() {
        return None;
    }
    let specifiers = import.specifiers.as_ref()?;
    let name = |specifier: &ImportDeclarationSpecifier<'_>| match specifier {
        ImportDeclarationSpecifier::ImportSpecifier(one) if !one.import_kind.is_type() => {
            Some((one.imported.name().to_string(), one.local.name.to_string()))
        }
        _ => None,
    };
    let names: Option<Vec<(String, String)>> = specifiers.iter().map(name).collect();
    Some(Import {
        range: range(import.span),
        request: import.source.value.to_string(),
        names: names.filter(|names| !names.is_empty())?,
        quote: text.get(range(import.source.span()))?.chars().next()?,
    })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{imports, is_inert};

    #[rstest]
    #[case(
        "import { a } from './a'; export const b = (x) => a(x); export default function c() {}",
        true
    )]
    #[case(
        "export class Tide { low = 1; static rise() {} } export { x as y } from './x'; export * from './z'",
        true
    )]
    #[case("import './base.css'; export const a = 1", false)]
    #[case("export const a = make()", false)]
    #[case("export const a = /*#__PURE__*/ make()", true)]
    #[case("register(a); export const a = 1", false)]
    #[case("export const { a } = b", false)]
    #[case("module.exports = { a: 1 }", false)]
    #[case("export class A { static { go() } }", false)]
    #[case("export default make()", false)]
    #[case("globalThis.a = 1; export {}", false)]
    fn what_does_nothing(#[case] text: &str, #[case] expected: bool) {
        assert_eq!(is_inert(text), Ok(expected), "{text}");
    }

    #[test]
    fn imports_of_names_alone() {
        let found = imports(
            "import { a, b as c } from './x';\nimport d from './y'; import * as e from './z'; import type { T } from './t'; import './s'",
        );
        let [one] = found.unwrap().try_into().unwrap();
        assert_eq!((one.range, one.request.as_str(), one.quote), (0..32, "./x", '\''));
        assert_eq!(one.names, [("a".into(), "a".into()), ("b".into(), "c".into())]);
    }
}
