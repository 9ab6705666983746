//! Module tables in every form, and what stands around them.

use rstest::rstest;
use uvlet_record::{Basis, EdgeKind};

use uvlet_script::{Dialect, read};

use crate::assemble::module_spans::{Contents, ModuleSpan, SourceOf, of_table};
use crate::descriptions::described::{
    Described, DescribedEdge, DescribedFile, DescribedId, DescribedModule, Slot,
};

/// Modules `a`, `b`, … with the ids 1, 2, …; two letters are modules merged into one.
fn build(slots: &[&str]) -> (DescribedFile, Described) {
    let mut described = Described::default();
    let mut file = DescribedFile::default();
    for (at, slot) in slots.iter().enumerate() {
        let mut modules = Vec::new();
        for name in slot.chars() {
            let raw = name.to_string();
            modules.push(described.add(DescribedModule {
                raw,
                bytes: Some(100),
                ..DescribedModule::default()
            }));
        }
        file.slots.push(Slot { id: Some((at + 1).to_string()), modules });
    }
    (file, described)
}

fn spans(
    text: &str,
    file: &DescribedFile,
    described: &Described,
    source_of: &SourceOf<'_>,
) -> Vec<ModuleSpan> {
    let contents = Contents { described, file, source_of };
    let spans = read(text, Dialect::Emitted, |script| of_table(script, contents));
    spans.unwrap().unwrap().list
}

/// The text of each module, in order; `·` is the bundler's own.
fn parts(text: &str, file: &DescribedFile, described: &Described) -> Vec<String> {
    let bodies = spans(text, file, described, &|_| None);
    let ends = bodies.iter().skip(1).map(|body| body.start).chain([text.len()]);
    bodies
        .iter()
        .zip(ends)
        .filter_map(|(body, end)| {
            let name = &described.module(body.module?).raw;
            Some(format!("{name}:{}", &text[body.start..end]))
        })
        .collect()
}

#[rstest]
#[case::shorthand("(self.w=self.w||[]).push([[7],{1(e,t,n){sail()},2(e){tide()}}]);")]
#[case::functions(
    "(self.w=self.w||[]).push([[7],{1:function(e,t,n){sail()},2:function(e){tide()}}]);"
)]
#[case::arrows("(self.w=self.w||[]).push([[7],{1:(e,t,n)=>{sail()},2:e=>{tide()}},r=>r(1)]);")]
#[case::quoted("(self.w=self.w||[]).push([[7],{\"1\":(e,t,n)=>{sail()},\"2\":e=>{tide()}}]);")]
#[case::array("(self.w=self.w||[]).push([[7],[,function(e,t,n){sail()},function(e){tide()}]]);")]
#[case::commonjs("exports.ids=[7];exports.modules={1:(e,t,n)=>{sail()},2:e=>{tide()}};")]
#[case::bootstrap(
    "(()=>{var e={1(e,t,n){sail()},2(e){tide()}},t={};function n(r){var o=t[r]={exports:{}};return e[r](o,o.exports,n),o.exports}n.o=1,n(1)})();"
)]
#[case::links(
    "(self.w=self.w||[]).push([[7],{1(e,t,n){\"use strict\";n.r(t),n.d(t,{a:()=>r});var o=n(2);sail()},2(e){tide()}}]);"
)]
fn module_tables(#[case] text: &str) {
    let (file, described) = build(&["a", "b"]);
    assert_eq!(parts(text, &file, &described), ["a:sail()", "b:tide()"]);
}

#[test]
fn evaluated_bodies() {
    let (file, described) = build(&["a"]);
    let text = "var m={1:(e,t,n)=>{eval(\"sail()\\n//# sourceURL=webpack://a\")}};";
    assert_eq!(parts(text, &file, &described), ["a:eval(\"sail()\\n//# sourceURL=webpack://a\")"]);
}

#[test]
fn an_entry_stands_bare_behind_the_runtime() {
    let (file, described) = build(&["a", "b"]);
    let text = "(()=>{var e={2(e){tide()}},t={};function n(r){var o=t[r]={exports:{}};return e[r](o,o.exports,n),o.exports}n.g=1,(()=>{n.f.j=()=>{}})(),(()=>{\"use strict\";n(2),sail()})()})();";
    assert_eq!(parts(text, &file, &described), ["b:tide()", "a:sail()"]);
}

#[test]
fn a_require_of_commonjs_is_its_own_code() {
    let (file, mut described) = build(&["a", "b"]);
    let edge = DescribedEdge {
        from: DescribedId(0),
        to: DescribedId(1),
        kind: EdgeKind::Require,
        request: None,
        names: None,
    };
    described.edges.push(edge);
    let text = "(self.w=self.w||[]).push([[7],{1(e,t,n){var o=n(2);sail(o)},2(e){tide()}}]);";
    assert_eq!(parts(text, &file, &described), ["a:var o=n(2);sail(o)", "b:tide()"]);
}

#[test]
fn headings_of_unminified_code() {
    let (file, described) = build(&["ab", "c"]);
    let text = "(self.w=self.w||[]).push([[7],{1:(e,t,n)=>{\n;// a\nsail()\n// EXTERNAL MODULE: c\nvar c = n(2);\n;// b\ntide()\n},2:e=>{}}]);";
    assert_eq!(parts(text, &file, &described), ["a:;// a\nsail()\n", "b:;// b\ntide()\n"]);
    let bodies = spans(text, &file, &described, &|_| None);
    assert!(bodies.iter().all(|body| body.basis == Basis::Located));
}

#[test]
fn merged_modules_by_their_words_wherever_they_were_moved() {
    let (file, described) = build(&["abc"]);
    let text = "(self.w=self.w||[]).push([[7],{1(e,t,n){const r=\"low water\",o={harbour:1,quay:2};go({departure:\"nine\",crossing:()=>{e.harbour=e.quay}}),e.departure(r)}}]);";
    let sources = [
        "export const a = \"low water\"",
        "export const b = {harbour: 1, quay: 2}; b.harbour = b.quay",
        "go({departure: \"nine\", crossing: f}); x.departure(a)",
    ];
    let texts = |id: DescribedId| Some(sources[id.0].to_owned());
    let bodies = spans(text, &file, &described, &texts);
    let owner = |word: &str| {
        let at = text.find(word).unwrap();
        let body = bodies.iter().rev().find(|body| body.start <= at).unwrap();
        body.module.map(|module| described.module(module).raw.as_str())
    };
    let words = ["low water", "quay:2", "nine", "departure(r)"];
    assert_eq!(words.map(owner), [Some("a"), Some("b"), Some("c"), Some("c")]);
}
