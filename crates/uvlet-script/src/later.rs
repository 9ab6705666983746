//! Which imports a source needs only once somebody acts, with the evidence in its text.
//!
//! An import can wait if each of its uses stands where nothing arrives before somebody has acted: in a
//! function that is given to an event, behind a condition that is false until such a function has run, or
//! in a row of a router's table. That a use stands in some function is no evidence, as most functions run
//! at once; every use that is not shown to wait is taken to be needed.

pub(crate) mod barriers;
pub(crate) mod events;
pub(crate) mod startup;
pub(crate) mod states;
pub(crate) mod tree;
pub(crate) mod uses;

use barriers::Barriers;
use oxc_ast::ast::{
    Declaration, ImportDeclarationSpecifier as Specifier, ModuleExportName, Statement,
};
use oxc_semantic::{NodeId, SemanticBuilder};
use oxc_syntax::symbol::SymbolId;
use startup::Startup;
use tree::Tree;
pub use uses::{Given, Import, Use, Waits};

use crate::{parse::Script, span::range};

/// What a source shows of what can wait.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Later {
    /// Imports that have a use; of the others nothing is said.
    pub imports: Vec<Import>,
    /// Parameters of exported functions that go to events alone: the name outside, the places.
    pub handlers: Vec<(String, Vec<usize>)>,
}

/// A name that an import binds.
struct Binding {
    symbol: SymbolId,
    request: String,
    name: Option<String>,
    local: String,
}

/// Reads a source.
#[must_use]
pub fn later(script: &Script<'_>) -> Later {
    let semantic = SemanticBuilder::new().with_build_nodes(true).build(&script.program).semantic;
    let tree = Tree { semantic: &semantic };
    let bindings = bindings(&script.program.body);
    let imports =
        bindings.iter().map(|one| (one.symbol, (one.request.clone(), one.name.clone()))).collect();
    let uses: Vec<Vec<NodeId>> = bindings.iter().map(|one| tree.references(one.symbol)).collect();
    let parameters: Vec<(String, Vec<SymbolId>)> =
        script.program.body.iter().flat_map(|statement| parameters(tree, statement)).collect();
    let names: Vec<SymbolId> =
        parameters.iter().flat_map(|(_, symbols)| symbols.iter().copied()).collect();
    let mut startup = Startup::new(Barriers::new(tree, imports), &names, &uses.concat());
    let mut found = Later::default();
    for (binding, uses) in bindings.into_iter().zip(uses) {
        if uses.is_empty() {
            continue;
        }
        let uses = uses.into_iter().map(|id| {
            let (waits, relies_on) = startup.waits(id);
            Use { range: range(tree.span(id)), waits, relies_on }
        });
        let uses = uses.collect();
        let Binding { request, name, local, .. } = binding;
        found.imports.push(Import { request, name, local, uses });
    }
    for (name, parameters) in parameters {
        let is_handler = |symbol: &SymbolId| {
            let (waits, relies_on) = startup.waits_named(*symbol);
            matches!(waits, Waits::Event(_)) && relies_on.is_empty()
        };
        let places = parameters.iter().enumerate().filter(|(_, symbol)| is_handler(symbol));
        let places: Vec<usize> = places.map(|(place, _)| place).collect();
        if !places.is_empty() {
            found.handlers.push((name, places));
        }
    }
    found
}

fn bindings(body: &[Statement<'_>]) -> Vec<Binding> {
    let mut found = Vec::new();
    for statement in body {
        let Statement::ImportDeclaration(import) = statement else { continue };
        if import.import_kind.is_type() {
            continue;
        }
        for specifier in import.specifiers.iter().flatten() {
            let (local, name) = match specifier {
                Specifier::ImportSpecifier(one) if one.import_kind.is_type() => continue,
                Specifier::ImportSpecifier(one) => {
                    (&one.local, Some(one.imported.name().to_string()))
                }
                Specifier::ImportDefaultSpecifier(one) => (&one.local, Some("default".to_owned())),
                Specifier::ImportNamespaceSpecifier(one) => (&one.local, None),
            };
            found.push(Binding {
                symbol: local.symbol_id(),
                request: import.source.value.to_string(),
                name,
                local: local.name.to_string(),
            });
        }
    }
    found
}

/// The functions that a statement exports, with their leading parameters that are plain names.
fn parameters(tree: Tree<'_, '_>, statement: &Statement<'_>) -> Vec<(String, Vec<SymbolId>)> {
    let mut exported: Vec<(String, SymbolId)> = Vec::new();
    match statement {
        Statement::ExportDeclaration(export) => match &export.declaration {
            Declaration::FunctionDeclaration(function) => exported
                .extend(function.id.as_ref().map(|id| (id.name.to_string(), id.symbol_id()))),
            Declaration::VariableDeclaration(variables) => {
                exported.extend(variables.declarations.iter().filter_map(|variable| {
                    let name = variable.id.get_binding_identifier()?;
                    Some((name.name.to_string(), name.symbol_id()))
                }));
            }
            _ => {}
        },
        Statement::ExportNamedDeclaration(export) => {
            exported.extend(export.specifiers.iter().filter_map(|specifier| {
                let ModuleExportName::IdentifierReference(local) = &specifier.local else {
                    return None;
                };
                Some((specifier.exported.name().to_string(), tree.symbol(local)?))
            }));
        }
        _ => {}
    }
    let parameters = |(name, function)| {
        let places = (0..).map_while(|place| tree.parameter(function, place));
        (name, places.collect())
    };
    exported.into_iter().map(parameters).collect()
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Given, Later, Waits, later};
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
    #[case::closed_from_within(
        "function C() { const [open, set] = useState(false); return <p onClick={() => set(true)}>{open && <Help onClose={() => set(false)}>{help()}</Help>}{open && <Panel onClose={() => set(true)}/>}</p> }",
        Waits::State("open".to_owned())
    )]
    #[case::handlers_named_first(
        "function C() { const [open, set] = useState(false); const show = () => set(true); const close = () => set(false); return <p onClick={show}>{open && <Help onClose={close}>{help()}</Help>}</p> }",
        Waits::State("open".to_owned())
    )]
    #[case::closed_as_it_starts(
        "function C() { const [open, set] = useState(false); useEffect(() => set(false), []); return <p onClick={() => set(true)}>{open && help()}</p> }",
        Waits::State("open".to_owned())
    )]
    #[case::own_hook(
        "function useOpen() { const [open, set] = useState(false); const show = () => set(true); return { open, show, hide: () => set(false) } } \
        function C() { const { open, show, hide } = useOpen(); return <p onClick={show}>{open && <Help onClose={hide}>{help()}</Help>}</p> }",
        Waits::State("open".to_owned())
    )]
    #[case::own_hook_as_pair(
        "const useOpen = () => { const [open, set] = useState(false); return [open, () => set(true)] as const }; \
        function C() { const [open, show] = useOpen(); return <p onClick={show}>{open && help()}</p> }",
        Waits::State("open".to_owned())
    )]
    #[case::each_other(
        "function f() { g() } function g() { f(); help() } q.onclick = g",
        event("onclick")
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
    #[case("function f() { g() } function g() { f(); help() } q.onclick = g; f()")]
    #[case(
        "function C() { const [a, setA] = useState(false); const [b, setB] = useState(false); useEffect(() => setA(true)); return <p>{a && <i ref={() => setB(true)}/>}{b && help()}</p> }"
    )]
    #[case(
        "function useOpen() { const [open, set] = useState(false); return { open, show: () => set(true) } } \
        function C() { const { open, show } = useOpen(); useEffect(show, []); return open && help() }"
    )]
    #[case(
        "function useOpen() { const [open, set] = useState(false); return { open, show: () => set(true) } } \
        function C() { const all = useOpen(); const { open } = useOpen(); all.show(); return open && help() }"
    )]
    fn what_may_run_at_once(#[case] body: &str) {
        let found = waits(body);
        assert!(found.contains(&Waits::Nothing), "{body}: {found:?}");
    }

    /// A chain of functions and a chain of states, each of which opens the next, as long as they come.
    #[test]
    fn long_chains_are_followed_without_depth() {
        let number = 20_000;
        let calls: String =
            (1..number).map(|at| format!("const f{at} = () => f{}();", at - 1)).collect();
        let body = format!("const f0 = () => help();{calls}q.onclick = f{}", number - 1);
        // Evidence is not followed for ever; that nothing falls is what counts here.
        assert_eq!(waits(&body), [Waits::Nothing]);
        let states: String = (1..number)
            .map(|at| format!("const [s{at}, t{at}] = useState(false); s{at} && t{}(1);", at - 1))
            .collect();
        let text = "const [s0, t0] = useState(false);";
        let body = format!("{text}{states}t{}(1); s0 && help()", number - 1);
        assert_eq!(waits(&body), [Waits::Nothing]);
        let body = format!("{text}{states}q.onclick = () => t{}(1); s0 && help()", number - 1);
        assert_eq!(waits(&body), [Waits::Nothing]);
    }

    #[test]
    fn what_others_do_with_a_function_is_asked_of_them() {
        let found = waits("import { button } from './ui'; button('?', () => help());");
        let given = Given { request: "./ui".to_owned(), name: "button".to_owned(), place: 1 };
        assert_eq!(found[0], Waits::Given(given));
        let theirs = of(
            "const h = (a, b) => b; export const button = (label, onClick, act) => { act(); return h('b', { onClick }) }; \
            function both(on) { q.onclick = on; on() } export { both };",
        );
        assert_eq!(theirs.handlers, [("button".to_owned(), vec![1])]);
    }
}
