//! Which imports a source needs only once somebody acts, with the evidence in its text.
//!
//! An import can wait if each of its uses stands where nothing arrives before somebody has acted: in a
//! function that is given to an event, behind a condition that is false until such a function has run, or
//! in a row of a router's table. That a use stands in some function is no evidence, as most functions run
//! at once; every use that is not shown to wait is taken to be needed.

mod finder;

use std::{collections::HashMap, ops::Range};

use oxc_ast::ast::Statement;
use oxc_semantic::SemanticBuilder;
use oxc_syntax::symbol::SymbolId;

use crate::{Script, range};
use finder::Finder;

/// An import of which some name is used.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Import {
    /// The specifier as written.
    pub request: String,
    /// The name there; none where all are imported as one object.
    pub name: Option<String>,
    /// Its name here.
    pub local: String,
    /// Each use.
    pub uses: Vec<Use>,
}

/// A use of an import.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Use {
    /// Where it stands.
    pub range: Range<usize>,
    /// What it waits for.
    pub waits: Waits,
}

/// What a use waits for.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Waits {
    /// Nothing, as far as can be shown.
    Nothing,
    /// An event of this name.
    Event(String),
    /// Whatever an imported function does with the functions that it is given.
    Given {
        /// The specifier that the function is imported from.
        request: String,
        /// Its name there.
        name: String,
        /// The place of the argument.
        place: usize,
    },
    /// A state of this name that is false at first, and true only after an event.
    State(String),
    /// A visit of this route.
    Route(String),
}

/// What a source shows of what can wait.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Later {
    /// Imports that have a use; of the others nothing is said.
    pub imports: Vec<Import>,
    /// Parameters of exported functions that go to events alone: the name outside, the places.
    pub handlers: Vec<(String, Vec<usize>)>,
}

/// Reads a source.
#[must_use]
pub fn later(script: &Script<'_>) -> Later {
    let semantic = SemanticBuilder::new().with_build_nodes(true).build(&script.program).semantic;
    let mut finder = Finder { semantic: &semantic, imports: HashMap::new(), known: HashMap::new() };
    let mut found = Later::default();
    let mut bound: Vec<(SymbolId, String, Option<String>, String)> = Vec::new();
    for statement in &script.program.body {
        let Statement::ImportDeclaration(import) = statement else { continue };
        if import.import_kind.is_type() {
            continue;
        }
        for specifier in import.specifiers.iter().flatten() {
            use oxc_ast::ast::ImportDeclarationSpecifier as Specifier;
            let (local, name) = match specifier {
                Specifier::ImportSpecifier(one) if one.import_kind.is_type() => continue,
                Specifier::ImportSpecifier(one) => {
                    (&one.local, Some(one.imported.name().to_string()))
                }
                Specifier::ImportDefaultSpecifier(one) => (&one.local, Some("default".to_owned())),
                Specifier::ImportNamespaceSpecifier(one) => (&one.local, None),
            };
            let request = import.source.value.to_string();
            bound.push((local.symbol_id(), request, name, local.name.to_string()));
        }
    }
    for (symbol, request, name, _) in &bound {
        finder.imports.insert(*symbol, (request.clone(), name.clone()));
    }
    for (symbol, request, name, local) in bound {
        let references = semantic.scoping().get_resolved_references(symbol);
        let uses: Vec<Use> = references
            .filter(|reference| !reference.is_type())
            .map(|reference| {
                let place = range(semantic.reference_span(reference));
                Use { range: place, waits: finder.waits(reference.node_id()) }
            })
            .collect();
        if !uses.is_empty() {
            found.imports.push(Import { request, name, local, uses });
        }
    }
    for statement in &script.program.body {
        found.handlers.extend(finder.handlers(statement));
    }
    found
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Later, Waits, later};
    use crate::{Dialect, read};

    fn of(text: &str) -> Later {
        read(text, Dialect::Source, later).unwrap()
    }

    /// What the uses of `help` wait for, in the order written.
    fn waits(body: &str) -> Vec<Waits> {
        let text = format!("import {{ help }} from './help';\n{body}");
        let found = of(&text);
        found.imports.into_iter().flat_map(|import| import.uses).map(|one| one.waits).collect()
    }

    fn event(name: &str) -> Waits {
        Waits::Event(name.to_owned())
    }

    #[rstest]
    #[case::element("const C = () => <button onClick={() => help()}>?</button>", event("onClick"))]
    #[case::input("const C = () => <input onChange={() => help()}/>", event("onChange"))]
    #[case::itself("const C = () => <button onClick={help}>?</button>", event("onClick"))]
    #[case::listener("q.addEventListener('click', async () => { await help() })", event("click"))]
    #[case::member("q.onclick = function () { help() }", event("onclick"))]
    #[case::property("h('button', { onClick: () => help() })", event("onClick"))]
    #[case::by_name(
        "function open() { [1].map(() => help()) } q.onsubmit = open",
        event("onsubmit")
    )]
    #[case::two_names(
        "const a = () => help(); const b = () => a(); q.onclick = () => b()",
        event("onclick")
    )]
    #[case::kept(
        "function C() { const a = useCallback(() => help(), []); return <i onClick={a}/> }",
        event("onClick")
    )]
    #[case::own_function(
        "const on = (act) => h('b', { onClick: act }); on(() => help())",
        event("onClick")
    )]
    #[case::state(
        "function C() { const [open, set] = useState(false); return <p onClick={() => set(true)}>{open && <help/>}{open && help()}</p> }",
        Waits::State("open".to_owned())
    )]
    #[case::early_return(
        "function C() { const [at, set] = useState(null); const act = () => set(1); if (!at) return <b onClick={act}/>; return help() }",
        Waits::State("at".to_owned())
    )]
    #[case::ref_value(
        "const open = ref(false); q.onclick = () => { open.value = true }; const C = () => open.value ? help() : null",
        Waits::State("open".to_owned())
    )]
    #[case::route("const routes = [{ path: '/tides', component: help }]", Waits::Route("/tides".to_owned()))]
    #[case::element_route("const r = <Route path='crew' element={help}/>", Waits::Route("crew".to_owned()))]
    fn what_is_shown_to_wait(#[case] body: &str, #[case] expected: Waits) {
        assert_eq!(waits(body), [expected], "{body}");
    }

    #[rstest]
    #[case("help()")]
    #[case("const C = () => <p>{help()}</p>")]
    #[case("addEventListener('load', () => help())")]
    #[case("document.addEventListener('DOMContentLoaded', help)")]
    #[case("const C = () => <Map onReady={() => help()}/>")]
    #[case("const C = () => <Field onChange={() => help()}/>")]
    #[case("h(Field, { onInput: () => help() })")]
    #[case("function open() { help() } q.onclick = open; open()")]
    #[case("export function open() { help() } q.onclick = open")]
    #[case("let open = () => help(); open = 1; q.onclick = open")]
    #[case("function C() { const [open, set] = useState(true); return open && help() }")]
    #[case(
        "function C() { const [open, set] = useState(false); useEffect(() => set(true), []); return open && help() }"
    )]
    #[case(
        "function C() { const [open, set] = useState(false); return <P set={set}>{open && help()}</P> }"
    )]
    #[case("function C() { const [open, set] = useState(false); return open || help() }")]
    #[case("function C({ open }) { return open && help() }")]
    #[case("const routes = [{ path: '/', component: help }]")]
    #[case("const routes = [{ path: '*', component: help }]")]
    #[case("new Promise(() => help()); setTimeout(() => help(), 9)")]
    #[case("class C { onClick() { help() } }")]
    fn what_may_run_at_once(#[case] body: &str) {
        let found = waits(body);
        assert!(found.contains(&Waits::Nothing), "{body}: {found:?}");
    }

    #[test]
    fn what_others_do_with_a_function_is_asked_of_them() {
        let found = waits("import { button } from './ui'; button('?', () => help());");
        let given =
            Waits::Given { request: "./ui".to_owned(), name: "button".to_owned(), place: 1 };
        assert_eq!(found[0], given);
        let theirs = of(
            "const h = (a, b) => b; export const button = (label, onClick, act) => { act(); return h('b', { onClick }) }; \
            function both(on) { q.onclick = on; on() } export { both };",
        );
        assert_eq!(theirs.handlers, [("button".to_owned(), vec![1])]);
    }
}
