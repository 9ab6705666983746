//! No analysis of a program falls, however deep it nests and however long its chains of names are: each
//! recursion is as deep as the text nests, which the stack is measured for, and names are followed by
//! work lists.

#![expect(clippy::unwrap_used, reason = "a test that cannot go on fails there")]

use std::{collections::HashSet, hint::black_box};

use rstest::rstest;
use uvlet_script::{
    Dialect,
    at_once::at_once,
    declarations::{declared, declared_in_source, exported_names, handed_on, own_exports},
    inert::{imports, is_inert},
    later::later,
    members::{members, names_read},
    read,
    requests::requests,
    shapes::Shapes,
    words::code_bytes,
};

/// Levels of nesting; chains of names are four times as long.
const LEVELS: usize = 500;

/// Every public analysis of a text; that it ends is what counts, and that the text was read at all.
fn analyse(text: &str) {
    let calls: HashSet<u32> = (0..u32::try_from(text.len()).unwrap()).step_by(97).collect();
    for dialect in [Dialect::Emitted, Dialect::Source] {
        let seen = read(text, dialect, |script| {
            black_box(at_once(&script.program, &calls, true));
            black_box(requests(script, true));
            black_box(later(script));
            black_box(Shapes::of(script));
            code_bytes(script)
        });
        assert!(seen.is_ok(), "{seen:?}");
    }
    declared(text, true).unwrap();
    declared(text, false).unwrap();
    declared_in_source(text).unwrap();
    exported_names(text).unwrap();
    own_exports(text).unwrap();
    handed_on(text).unwrap();
    members(text).unwrap();
    names_read(text).unwrap();
    imports(text).unwrap();
    is_inert(text).unwrap();
}

#[rstest]
#[case::arrays("[", "1", "]")]
#[case::calls("f(", "1", ")")]
#[case::arrows("()=>(", "1", ")")]
#[case::functions("function(){return ", "1", "}")]
#[case::objects("{a:", "1", "}")]
#[case::conditions("a?b:(", "1", ")")]
#[case::handlers("h('b',{onClick:()=>", "1", "})")]
#[case::kept("useCallback(", "()=>1", ")")]
#[case::negations("!(", "1", ")")]
#[case::classes("class extends(", "Object", "){}")]
#[case::templates("`${", "1", "}`")]
#[case::guards("open&&(", "1", ")")]
fn deep(#[case] begin: &str, #[case] middle: &str, #[case] end: &str) {
    let value = format!("{}{middle}{}", begin.repeat(LEVELS), end.repeat(LEVELS));
    analyse(&format!(
        "import x from 'x';const [open,set]=useState(false);const a=({value});x(a,open)"
    ));
}

#[rstest]
#[case::blocks("{", "}")]
#[case::tests("if(a){", "}")]
#[case::loops("for(;;){", "}")]
#[case::tries("try{", "}catch{}")]
#[case::functions("function f(){", "}")]
fn deep_statements(#[case] begin: &str, #[case] end: &str) {
    analyse(&format!("{}a(){}", begin.repeat(LEVELS), end.repeat(LEVELS)));
}

/// A chain of names, each of which leads to the one before.
#[rstest]
#[case::functions("function f0(){return import('x')}", "function f#(){return f@()}", "f$()")]
#[case::arrows("const f0=()=>help();", "const f#=()=>f@();", "q.onclick=f$")]
#[case::aliases("const f0={a:1};", "const f#=f@;", "f$.a()")]
#[case::classes("class f0{}", "class f#extends f@{}", "new f$")]
#[case::members("const f0={a:1};", "const f#={a:f@};", "f$.a")]
#[case::assigned("function f0(){}", "f0.a#=function(){return f0.a@};", "f0.a$()")]
#[case::pure("const f0=/*#__PURE__*/h();", "const f#=/*#__PURE__*/h(f@);", "g(f$)")]
#[case::states(
    "const [s0,t0]=useState(false);",
    "const [s#,t#]=useState(false);s#&&t@(1);",
    "q.onclick=()=>t$(1);s0&&f0"
)]
#[case::hooks(
    "const f0=()=>{const [o,s]=useState(false);return {o,s}};",
    "const f#=()=>{const {o,s}=f@();return {o,s}};",
    "const {o,s}=f$();o&&g(s)"
)]
#[case::exports("export const f0=1;", "export{f0 as f#};", "f0;$")]
fn long_chains(#[case] first: &str, #[case] link: &str, #[case] last: &str) {
    let number = LEVELS * 4;
    let mut text = first.to_owned();
    for at in 1..number {
        let link = link.replace("f#extends", "f# extends");
        text.push_str(&link.replace('#', &at.to_string()).replace('@', &(at - 1).to_string()));
    }
    text.push_str(&last.replace('$', &(number - 1).to_string()));
    analyse(&text);
}

/// Long lists of one level.
#[rstest]
#[case::sums("a", "+a")]
#[case::members("a", ".a")]
#[case::chained("a", ".f()")]
#[case::either("a", "||a")]
#[case::both("open", "&&open")]
#[case::commas("a", ",a")]
#[case::choices("a", "?a:a")]
fn wide(#[case] first: &str, #[case] next: &str) {
    let text = format!("const [open,set]=useState(false);x=({first}{})", next.repeat(LEVELS));
    analyse(&text);
}
