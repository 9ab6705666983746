//! What is found in scripts of every format.

use rstest::rstest;
use uvlet_record::Format;

use super::ScriptFacts;

fn read(text: &str, is_file: &(dyn Fn(&str) -> bool + Sync)) -> ScriptFacts {
    super::read(text, is_file, |_, _| ()).unwrap().0
}

#[test]
fn loads_openings_and_workers() {
    let text = r#"import"./b.js";import{x as y}from"./a.js";export*from"tide";export{y}from"./a.js";
        const deps=(i,m=deps,d=(m.f||(m.f=["assets/l.js","assets/l.css","assets/q.js"])))=>i.map(i=>d[i]);
        // import("./comment.js")
        const s='import("./string.js")';
        w(()=>import(`./l.js`),deps([0,1]));w(async()=>{const{z}=await import("./q.js");return z},["q.css"]);
        import("./r.js").then(go);import(unknown);
        new Worker(new URL("w.js",import.meta.url),{type:"module"});
        img.src="/assets/pic.png?v=1";other="nothing.png";"#;
    let found = read(text, &|name| name == "pic.png");
    assert_eq!(found.format, Format::Es);
    assert_eq!(found.found.loads, ["./b.js", "./a.js", "tide"]);
    let openings: Vec<_> =
        found.found.imports.iter().map(|o| (o.request.as_str(), o.along.join(" "))).collect();
    assert_eq!(
        openings,
        [
            ("./l.js", "assets/l.js assets/l.css".to_owned()),
            ("./q.js", "q.css".to_owned()),
            ("./r.js", String::new())
        ]
    );
    let at = usize::try_from(found.found.imports[2].at).unwrap();
    assert!(text[at..].starts_with("import(\"./r.js\")"));
    assert_eq!(found.found.workers[0].request, "w.js");
    assert_eq!(found.found.assets, ["/assets/pic.png?v=1"]);
    let lists: Vec<_> = found.statements.iter().map(|statement| statement.is_list).collect();
    assert_eq!(lists[..4], [true, true, true, true]);
    assert!(lists[4..].iter().all(|list| !list));
}

#[rstest]
#[case::body(
    "(()=>{var m={'./a.js'(e,t,n){eval('{a()\\n//# sourceURL=webpack:///./a.js?\\n}')}}})()",
    true
)]
#[case::trusted(
    "x={'./a.js':(e,t,n)=>{eval(n.ts('a()//# sourceURL=webpack-internal:///./a.js\\n'))}}",
    false
)]
#[case::trusted_on_a_line(
    "x={'./a.js':(e,t,n)=>{eval(n.ts('a()\\n//# sourceURL=webpack-internal:///./a.js\\n'))}}",
    true
)]
#[case::a_template_compiler(
    "x={compile(s){return Function(s+'\\n//# sourceURL=t['+i+']')}}",
    false
)]
#[case::a_loader("x={load(s){eval(s)}};y='//# sourceURL=webpack:///z'", false)]
#[case::a_method_of_that_name("x={go(s){s.eval('a\\n//# sourceURL=webpack:///z')}}", false)]
fn evaluated_module_bodies(#[case] text: &str, #[case] evaluates: bool) {
    assert_eq!(read(text, &|_| false).marks.evaluates, evaluates, "{text}");
}

#[rstest]
#[case("require('fs')", true)]
#[case("if(node){var f=require('fs')}", false)]
#[case("node&&require('fs')", false)]
#[case("try{require('fs')}catch(e){}", false)]
#[case("const f=()=>require('fs')", false)]
#[case("m={1:e=>{e.exports=require('fs')}}", true)]
fn what_only_node_has(#[case] text: &str, #[case] is_required: bool) {
    assert_eq!(!read(text, &|_| false).marks.node_requires.is_empty(), is_required, "{text}");
}

#[rstest]
#[case("(self.w=self.w||[]).push([[7],{12:(e,t,n)=>{}}]);", Format::Registry)]
#[case("System.register(['./a.js'],function(e){return{execute(){}}})", Format::System)]
#[case("define(['./a'],function(a){})", Format::Amd)]
#[case("with(a){b()}", Format::Classic)]
#[case("export default 1", Format::Es)]
fn formats_are_recognised(#[case] text: &str, #[case] format: Format) {
    assert_eq!(read(text, &|_| false).format, format, "{text}");
}
