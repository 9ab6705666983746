//! One parse, on a stack that holds it.
//!
//! A parser recurses as deep as its text nests, and so does whoever walks the tree. How deep that is
//! at most is counted on tokens before ([`nesting`](crate::nesting)); what does not fit on the stack
//! of any thread gets a thread of its own with a stack to measure.

use std::{ops::Range, thread};

use oxc_allocator::Allocator;
use oxc_ast::ast::{Program, Statement as Syntax};
use oxc_parser::Parser;
use oxc_span::{GetSpan, SourceType};

use crate::{nesting::nesting, span::range};

/// Levels of nesting that are followed. No bundler writes a hundredth of it.
const DEEPEST: usize = 100_000;

/// Bytes of stack that a level takes at most, parsed and walked by code that is not optimised.
const LEVEL: usize = 5 << 10;

/// Levels that fit on the stack of any thread (2 MiB where nothing else is said), beside what runs
/// there already.
const SHALLOW: usize = 200;

/// In which language a text is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Dialect {
    /// What a bundler emits: JavaScript, a module if it has a module's statements, else a script.
    Emitted,
    /// A source as somebody wrote it: an ES module, with types and JSX where they stand; older
    /// scripts too.
    Source,
}

/// A text with its tree.
#[derive(Debug)]
pub struct Script<'a> {
    /// The text.
    pub text: &'a str,
    /// The tree.
    pub program: Program<'a>,
    /// It holds `import`, `export` or `import.meta`.
    pub is_module: bool,
}

/// A top-level statement, or a directive.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Statement {
    /// Its bytes.
    pub range: Range<usize>,
    /// It is an import or export list.
    pub is_list: bool,
}

/// Why a text could not be read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum Unparsed {
    /// It is not of the language.
    #[error("does not parse at byte {at}: {message}")]
    Syntax {
        /// First byte of the trouble.
        at: u64,
        /// What the parser says.
        message: String,
    },
    /// It nests deeper than can be followed.
    #[error("nests deeper than a parser can follow")]
    Depth,
}

/// Parses a text and hands the tree to `work`.
///
/// # Errors
/// When the text does not parse, or nests too deep for the memory that there is.
pub fn read<T: Send>(
    text: &str,
    dialect: Dialect,
    work: impl FnOnce(&Script<'_>) -> T + Send,
) -> Result<T, Unparsed> {
    let levels = nesting(text);
    if levels <= SHALLOW {
        return parse(text, dialect, work);
    }
    if levels > DEEPEST {
        return Err(Unparsed::Depth);
    }
    thread::scope(|scope| {
        let stack = thread::Builder::new().stack_size(LEVEL * (levels + SHALLOW));
        // Where there is no memory for it, the text cannot be followed either.
        let thread = stack.spawn_scoped(scope, || parse(text, dialect, work));
        let thread = thread.map_err(|_| Unparsed::Depth)?;
        thread.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic))
    })
}

fn parse<T>(
    text: &str,
    dialect: Dialect,
    work: impl FnOnce(&Script<'_>) -> T,
) -> Result<T, Unparsed> {
    let allocator = Allocator::default();
    let types: &[SourceType] = match dialect {
        Dialect::Emitted => &[SourceType::unambiguous()],
        // Most sources are read by the first; angle brackets of older casts by the second, and what
        // only scripts may say by the last.
        Dialect::Source => &[SourceType::tsx(), SourceType::ts(), SourceType::unambiguous()],
    };
    let mut first_error = None;
    for &kind in types {
        let parsed = Parser::new(&allocator, text, kind).parse();
        if !parsed.panicked {
            let is_module = parsed.module_record.has_module_syntax;
            return Ok(work(&Script { text, program: parsed.program, is_module }));
        }
        first_error.get_or_insert_with(|| {
            let first = parsed.diagnostics.first();
            let at = first.and_then(|e| e.labels.first()).map_or(0, |label| label.offset() as u64);
            let message = first.map_or_else(String::new, |error| error.message.to_string());
            Unparsed::Syntax { at, message }
        });
    }
    Err(first_error.unwrap_or(Unparsed::Depth))
}

impl Script<'_> {
    /// The top-level statements in order, directives first.
    #[must_use]
    pub fn statements(&self) -> Vec<Statement> {
        let directives = self.program.directives.iter().map(|directive| (directive.span, false));
        let body = self.program.body.iter().map(|statement| {
            let is_list = matches!(
                statement,
                Syntax::ImportDeclaration(_)
                    | Syntax::ExportAllDeclaration(_)
                    | Syntax::ExportNamedDeclaration(_)
                    | Syntax::ExportFromDeclaration(_)
            );
            (statement.span(), is_list)
        });
        let all = directives.chain(body);
        all.map(|(span, is_list)| Statement { range: range(span), is_list }).collect()
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{DEEPEST, Dialect, Unparsed, read};

    #[rstest]
    #[case::sums("1+", "1")]
    #[case::brackets("[", "1")]
    #[case::arrows("a=>", "1")]
    #[case::conditions("if(a)", "b()")]
    #[case::templates("`${", "1")]
    #[case::choices("a?b:", "c")]
    fn what_nests_deep_is_read_on_any_stack(
        #[case] open: &'static str,
        #[case] inner: &'static str,
    ) {
        let close = match open {
            "[" => "]",
            "`${" => "}`",
            _ => "",
        };
        let text = |levels: usize| open.repeat(levels) + inner + &close.repeat(levels);
        let small = std::thread::Builder::new().stack_size(2 << 20);
        let ended = small.spawn(move || {
            let read = |levels| read(&text(levels), Dialect::Emitted, |s| s.program.body.len());
            (read(10_000), read(DEEPEST + 1))
        });
        assert_eq!(ended.unwrap().join().unwrap(), (Ok(1), Err(Unparsed::Depth)), "{open}");
    }

    #[rstest]
    #[case("let a: number = <number>b")]
    #[case("export const a = <p>tide</p>")]
    #[case("with (a) { b() }")]
    #[case("import type { T } from './t'; enum E { A }")]
    fn sources_of_every_kind_are_read(#[case] text: &str) {
        assert!(read(text, Dialect::Source, |_| ()).is_ok(), "{text}");
    }

    #[test]
    fn damage_has_a_place() {
        let damaged = read("let a = ;", Dialect::Emitted, |_| ());
        assert!(matches!(damaged, Err(Unparsed::Syntax { at: 8, .. })), "{damaged:?}");
    }
}
