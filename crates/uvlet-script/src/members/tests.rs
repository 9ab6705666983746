use std::collections::BTreeSet;

use rstest::rstest;

use super::{members, names_read};

fn names(list: &str) -> BTreeSet<String> {
    list.split_whitespace().map(str::to_owned).collect()
}

/// Of these words, those that are left of a source where one member is read.
const WORDS: [&str; 5] = ["tide", "quay", "reef", "Wrap", "loop"];

#[rstest]
#[case::assigned(
    "function tide() {} function quay() {} exports.a = tide; exports.b = quay;",
    "tide"
)]
#[case::literal(
    "function tide() {} function quay() {} module.exports = { a: tide, b: quay };",
    "tide"
)]
#[case::default(
    "function tide() {} function quay() {} export default { a: tide, b: quay };",
    "tide"
)]
#[case::made_by_a_function(
    "(function () { var _ = make();
     function make() { function fog(x) { return new Wrap(x); } function Wrap() {}
     function tide() { return reef(); } function reef() {} function quay() { return fog.tide(); }
     fog.a = tide; fog.b = quay; fog.prototype.c = quay; loop(fog); function loop() {} return fog; }
     (module.exports = _)._ = _; }.call(this))",
    "tide reef"
)]
#[case::a_factory(
    "(function (all, make) { typeof exports === 'object' ? module.exports = make() : 0; })
     (this, function () { function reef() {} reef.a = tide; reef.b = quay;
     function tide() { return reef.c(); } reef.c = loop; function loop() {} function quay() {}
     return reef; });",
    "tide loop"
)]
#[case::exports_as_an_argument(
    "(function (make) { make(exports); })(function (e) { e.a = tide; e.b = quay;
     function tide() {} function quay() {} });",
    "tide"
)]
#[case::assigned_together(
    "function reef() { Wrap(); } Object.assign(reef, { a: tide, b: quay }); function tide() {}
     function quay() { return reef.a(); } export default reef;",
    "tide"
)]
#[case::helpers(
    "var all = {}; define(all, { a: () => tide, b: () => quay }); module.exports = Wrap(all);
     function define() {} function Wrap() {} function tide() {} function quay() {}",
    "tide"
)]
#[case::prototypes(
    "function Wrap() {} Wrap.prototype.x = tide; function tide() {} exports.a = Wrap;
     exports.b = quay; function quay() {}",
    "tide Wrap"
)]
fn what_one_member_is_made_of(#[case] text: &str, #[case] expected: &str) {
    let members = members(text).unwrap().unwrap();
    assert!(members.has("a") && members.has("b"), "{text}");
    let rest = members.without_others(&names("a"));
    let mut left = text.to_owned();
    for range in rest.gone.iter().rev() {
        left.replace_range(range.clone(), "");
    }
    let stays = |word: &&str| left.contains(&format!("{word}("));
    let stays: BTreeSet<&str> = WORDS.into_iter().filter(stays).collect();
    assert_eq!(stays, expected.split(' ').collect(), "{left}");
}

#[rstest]
#[case("exports.a = require('./a'); exports.b = require('./b');", "a", "./a:*")]
#[case("import f from './f'; export default { a: f.tide, b: f };", "a", "./f:tide")]
#[case("import f from './f'; export default { a: f.tide, b: f };", "a b", "./f:*")]
fn whom_they_ask(#[case] text: &str, #[case] used: &str, #[case] asked: &str) {
    let rest = members(text).unwrap().unwrap().without_others(&names(used));
    let one = |(request, names): (&String, &Option<BTreeSet<String>>)| {
        let names = names.as_ref().map_or_else(
            || "*".to_owned(),
            |names| names.iter().cloned().collect::<Vec<_>>().join(","),
        );
        format!("{request}:{names}")
    };
    assert_eq!(rest.requests.iter().map(one).collect::<Vec<_>>().join(" "), asked);
}

#[rstest]
#[case("module.exports = { ...require('./lib'), a: 1 };")]
#[case("Object.assign(exports, require('./lib')); exports.a = 1;")]
#[case("for (const k in lib) exports[k] = lib[k]; exports.a = 1;")]
#[case("exports.a = 1; __exportStar(require('./lib'), exports);")]
fn members_that_are_not_written_out(#[case] text: &str) {
    assert!(members(text).unwrap().is_none(), "{text}");
}

#[rstest]
#[case("import x from 'lib'; x.a(); export const b = x.b;", "default:a,b")]
#[case("import { a, b as c } from 'lib'; a(c);", "named:a,b")]
#[case("import * as x from 'lib'; x.a.b();", "namespace:a")]
#[case("import x, { b } from 'lib'; x.a;", "named:b default:a")]
#[case("import x from 'lib'; export { x };", "default:*")]
#[case("import x from 'lib'; const y = x; y.a();", "default:*")]
#[case("import x from 'lib'; x[name]();", "default:*")]
#[case("import * as x from 'lib'; const { a } = x;", "namespace:*")]
fn what_is_read(#[case] text: &str, #[case] expected: &str) {
    let read = names_read(text).unwrap().remove("lib").unwrap();
    let list = |names: BTreeSet<String>| names.into_iter().collect::<Vec<_>>().join(",");
    let of = |names: Option<BTreeSet<String>>| names.map_or_else(|| "*".to_owned(), list);
    let said = [
        ("named", list(read.named)),
        ("default", of(read.of_default)),
        ("namespace", of(read.of_namespace)),
    ];
    let said = said.into_iter().filter(|(_, names)| !names.is_empty());
    let said: Vec<String> = said.map(|(kind, names)| format!("{kind}:{names}")).collect();
    assert_eq!(said.join(" "), expected);
}
