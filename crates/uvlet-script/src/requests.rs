//! What a source asks for: its imports, with the names that it takes; and the names that it gives.
//!
//! Read from the source alone (ECMA-262, section "Modules"; CommonJS as Node.js documents it). What a
//! compiler of TypeScript takes out again is left out: imports of types, and of names that no code
//! uses. `require` counts wherever the name is not some function's own.

pub(crate) mod finder;
pub(crate) mod request;

use finder::Finder;
use oxc_ast_visit::Visit;
pub use request::{Export, Kind, Request, Requests};

use crate::{parse::Script, span::range};

/// Reads a source. `is_typed` says that a compiler takes out imports which no code uses.
#[must_use]
pub fn requests(script: &Script<'_>, is_typed: bool) -> Requests {
    let mut finder = Finder::default();
    finder.visit_program(&script.program);
    finder.found.is_module = script.is_module;
    finder.found.elements_from = script.program.comments.iter().find_map(|comment| {
        let text = script.text.get(range(comment.span))?;
        let (_, rest) = text.split_once("@jsxImportSource")?;
        rest.split_whitespace().next().map(str::to_owned)
    });
    finder.finish(is_typed)
}

#[cfg(test)]
mod tests {
    use super::{Kind, Requests, requests};
    use crate::{Dialect, read};

    fn of(text: &str, is_typed: bool) -> Requests {
        read(text, Dialect::Source, |script| requests(script, is_typed)).unwrap()
    }

    #[test]
    fn imports_with_the_names_they_take() {
        let found = of(
            r#"import "./setup"; import a, { b as c } from "a"; import * as d from "d"; import type { T } from "t";
            export { e, f as default } from "./e"; export * from "./all"; export { c as g };
            const lazy = () => import(`./lazy`); const h = require("./h"); new Worker(new URL("./w.js", import.meta.url));
            function inner(require) { require("./no") } export const [i, { j: k }] = x; d(); import * as m from "m"; m.n(<m.P/>);"#,
            false,
        );
        let asks: Vec<_> = found
            .asks
            .iter()
            .map(|ask| (ask.specifier.as_str(), ask.kind, ask.names.as_ref().map(|n| n.join(" "))))
            .collect();
        let names = |text: &str| Some(text.to_owned());
        let expected = [
            ("./setup", Kind::Import, names("")),
            ("a", Kind::Import, names("default b")),
            ("d", Kind::Import, None),
            ("./e", Kind::Reexport, names("e f")),
            ("./all", Kind::Reexport, None),
            ("./lazy", Kind::Dynamic, None),
            ("./h", Kind::Require, None),
            ("./w.js", Kind::Worker, None),
            ("m", Kind::Import, names("P n")),
        ];
        assert_eq!(asks, expected);
        let gives: Vec<_> = found
            .gives
            .iter()
            .map(|give| (give.name.as_str(), give.from.as_ref().map(|(at, _)| *at)))
            .collect();
        let expected =
            [("e", Some(3)), ("default", Some(3)), ("i", None), ("k", None), ("g", Some(1))];
        assert_eq!(gives, expected);
        assert_eq!(found.gives_all_of, [4]);
    }

    #[test]
    fn what_a_compiler_takes_out_is_no_request() {
        let text = "import { T } from './t'; import { v } from './v'; import './side'; import w, { type U } from './w'; \
            let a: T = v; const b = a as T; export { w }";
        let asks = |is_typed| of(text, is_typed).asks.into_iter().map(|ask| ask.specifier);
        assert_eq!(asks(true).collect::<Vec<_>>(), ["./v", "./side", "./w"]);
        assert_eq!(asks(false).collect::<Vec<_>>(), ["./t", "./v", "./side", "./w"]);
    }

    #[test]
    fn commonjs_gives_what_it_assigns() {
        let found = of(
            "exports.a = 1; module.exports.b = require('./b'); module.exports = { c, 'd': 2 }",
            false,
        );
        let gives: Vec<_> = found.gives.iter().map(|give| give.name.as_str()).collect();
        assert_eq!(gives, ["a", "b", "default", "c", "d"]);
        assert!(!found.is_module);
    }
}
