use std::collections::HashSet;

use rstest::rstest;

use super::{Drawn, drawing};
use crate::{Dialect, read};

/// The dynamic loads that a script draws as it runs, by the names of their files.
fn drawn(text: &str) -> Vec<String> {
    let loads: HashSet<u32> =
        text.match_indices("import(").map(|(at, _)| u32::try_from(at).unwrap()).collect();
    let drawing = read(text, Dialect::Emitted, |script| drawing(script, &loads, false)).unwrap();
    let names = drawing.at_start.iter().filter_map(|drawn| {
        let Drawn::Load { at, .. } = drawn else { return None };
        text[*at as usize..].split('"').nth(1).map(str::to_owned)
    });
    names.collect()
}

/// A page of React as bundlers write it, with what its component does before it returns, and returns.
fn react(before: &str, returned: &str) -> String {
    format!(
        r#"import {{a as R}} from "./react.js";
        var L=(0,R.lazy)(()=>import("l")),W=R.lazy(()=>x(()=>import("w").then(e=>({{default:e.W}})),[]));
        function Box({{children:e}}){{return(0,R.jsx)("main",{{children:e}})}}
        function Shut({{open:o,children:e}}){{return o?(0,R.jsx)("div",{{children:e}}):null}}
        function Pass({{theme:t,...r}}){{return t?R.jsx("b",{{...r}}):R.jsx("i",{{...r}})}}
        function Themed(p){{let{{className:c,...r}}=use({{props:p,name:"T"}});return R.jsx(Styled,{{c,...r}})}}
        var Styled=st("div",{{name:"S"}})(({{theme:t}})=>({{}}));
        function make(){{return R.forwardRef((p,r)=>R.jsx("div",{{ref:r,...p}}))}}var Made=make();
        function Gate(p){{return p.ready?p.children:null}}
        function App(p){{{before};return {returned}}}
        (0,R.createRoot)(d).render((0,R.jsx)(R.StrictMode,{{children:(0,R.jsx)(App,{{}})}}));"#
    )
}

#[rstest]
#[case::plainly("", "R.jsx(L,{})", &["l"])]
#[case::by_a_component_where_it_is_used("", "R.jsx(function(){return R.jsx(L,{})},{})", &["l"])]
#[case::inside_elements("", r#"R.jsxs("div",{children:[R.jsx(R.Suspense,{fallback:"…",children:R.jsx(L,{})}),R.jsx(W,{})]})"#, &["l", "w"])]
#[case::inside_a_component_that_draws_it("", "R.jsx(Box,{children:R.jsx(L,{})})", &["l"])]
#[case::inside_one_that_may_not("", "R.jsx(Shut,{open:p.o,children:R.jsx(L,{})})", &[])]
#[case::inside_one_that_is_not_known("", "R.jsx(Q,{children:R.jsx(L,{})})", &[])]
#[case::behind_a_state_that_is_false("let[o,s]=R.useState(!1)", "R.jsxs(Box,{children:[o&&R.jsx(L,{}),R.jsx(W,{})]})", &["w"])]
#[case::behind_a_state_that_is_true("let[o,s]=R.useState(!0)", "R.jsx(Box,{children:o&&R.jsx(L,{})})", &["l"])]
#[case::of_two_the_first_one("let[t,s]=R.useState(`home`)", "t===`home`?R.jsx(L,{}):R.jsx(W,{})", &["l"])]
#[case::behind_an_early_return("let[o,s]=R.useState();if(o)return R.jsx(W,{})", "R.jsx(L,{})", &["l"])]
#[case::behind_one_that_may_come("if(p.o)return null", "R.jsx(L,{})", &[])]
#[case::what_a_property_says("", "p.o?R.jsx(L,{}):R.jsx(W,{})", &[])]
#[case::in_a_list("", "R.jsx(Box,{children:p.list.map(e=>R.jsx(L,{}))})", &[])]
#[case::named_first("let e=R.jsx(L,{})", "R.jsx(Box,{children:e})", &["l"])]
#[case::as_classic_children("", r#"R.createElement("div",null,"a",R.createElement(L,null))"#, &["l"])]
#[case::either_way("", "R.jsx(Box,{children:p.o?R.jsx(Box,{children:R.jsx(L,{})}):R.jsx(L,{})})", &["l"])]
#[case::through_all_that_is_given("", "R.jsx(Pass,{children:R.jsx(L,{})})", &["l"])]
#[case::through_what_a_hook_makes_of_it("", "R.jsx(Themed,{children:R.jsx(L,{})})", &["l"])]
#[case::through_an_element_with_styles("", "R.jsx(Styled,{children:R.jsx(L,{})})", &["l"])]
#[case::through_a_component_that_is_made("", "R.jsx(Made,{children:R.jsx(L,{})})", &["l"])]
#[case::through_one_that_waits("", "R.jsx(Gate,{children:R.jsx(L,{})})", &[])]
#[case::in_a_function_given_away("", r#"R.jsx("button",{onClick:()=>R.jsx(L,{})})"#, &[])]
#[case::as_a_property("", r#"R.jsx("div",{title:R.jsx(L,{})})"#, &[])]
fn what_react_draws_first(#[case] before: &str, #[case] returned: &str, #[case] expected: &[&str]) {
    assert_eq!(drawn(&react(before, returned)), expected);
}

/// A page of Vue as bundlers write it, with what is set up, and drawn.
fn vue(set_up: &str, drawn: &str) -> String {
    format!(
        r##"import {{a as D,b as A,c as ref,d as V,e as E,f as B,g as un,h as W,i as C,j as S}} from "./vue.js";
        var Sus={{name:"Suspense",__isSuspense:!0,process(){{}}}},Lay=X({{}},[["render",function(e,t){{return V(),E("main",null,[S(e.$slots,"default")])}}]]);
        C(D({{__name:"App",setup(e){{let L=A(()=>import("l"));{set_up};return(e,n)=>{drawn}}}}})).use(q()).mount("#app")"##
    )
}

#[rstest]
#[case::plainly("", "(V(),B(un(L)))", &["l"])]
#[case::in_a_list_of_elements("", r#"(V(),E(F,null,[G("h1"),B(un(L),{a:1})],64))"#, &["l"])]
#[case::behind_a_state("let o=ref(!1)", r#"(V(),E("main",null,[o.value?(V(),B(un(L),{key:0})):K("",!0)]))"#, &[])]
#[case::in_a_slot_that_is_drawn("", "(V(),B(Lay,null,{default:W(()=>[B(un(L))]),_:1}))", &["l"])]
#[case::in_a_slot_that_is_not("", "(V(),B(Lay,null,{aside:W(()=>[B(un(L))]),_:1}))", &[])]
#[case::in_a_slot_of_somebody("", "(V(),B(Other,null,{default:W(()=>[B(un(L))]),_:1}))", &[])]
#[case::in_suspense("", "(V(),B(Sus,null,{default:W(()=>[B(un(L))]),_:1}))", &["l"])]
fn what_vue_draws_first(
    #[case] set_up: &str,
    #[case] drawn_first: &str,
    #[case] expected: &[&str],
) {
    assert_eq!(drawn(&vue(set_up, drawn_first)), expected);
}
