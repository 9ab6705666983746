//! JavaScript and TypeScript as text, and the only door to the parser.
//!
//! [`read`] parses a text once and hands the tree to whoever looks at it, on a stack that is large
//! enough for it; what nests too deep for any stack is an error and no crash. The other modules look
//! at a tree: what a source asks for ([`requests`]), what runs at once ([`at_once`]), what is
//! drawn first ([`drawing`]), which words
//! survive minifying ([`words`]).
//!
//! ```
//! let statements = uvlet_script::read("let a = 1; b()", uvlet_script::Dialect::Emitted, |script| {
//!     script.program.body.len()
//! });
//! assert_eq!(statements, Ok(2));
//! ```

pub mod at_once;
pub mod declarations;
pub mod drawing;
pub mod functions;
pub mod inert;
pub mod later;
pub mod members;
mod nesting;
mod parse;
pub mod requests;
pub mod shapes;
pub mod span;
pub mod words;

pub use oxc_ast::ast;
pub use oxc_ast_visit as visit;
pub use oxc_span::{GetSpan, Span};
pub use oxc_syntax::{operator, scope::ScopeFlags};
pub use parse::{Dialect, Script, Statement, Unparsed, read};
