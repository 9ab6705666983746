//! A record of two scripts and a style, small enough to count by hand.
//!
//! ```text
//! a.js   own 10, p 20, glue 5     startup of one
//! b.js   own  3, p  7             startup of one and two
//! a.css  unattributed 4           startup of one, in the chunk a
//! i.png  asset 2                  deferred of two
//! ```

use std::collections::{BTreeMap, BTreeSet};

use proptest::prelude::*;
use rstest::rstest;
use serde::Deserialize;
use uvlet_record::{CellId, OtherName, Record};

use super::{
    evaluate::{items, select},
    groups::with_groups,
    nearest::Known,
    selection::Renamed,
    selector::{Selector, Wrong},
    words::{self, Named},
};
use crate::lens::Lens;

/// The record, and what selectors name in it, which the page's own test reads, too.
const CASES: &str = include_str!("cases.json");

#[derive(Deserialize)]
struct Cases {
    record: Record,
    groups: BTreeMap<String, String>,
    cases: Vec<(String, Option<Vec<usize>>)>,
}

fn record() -> Record {
    let Cases { mut record, .. } = serde_json::from_str(CASES).unwrap();
    record.verify().unwrap();
    // Where no edges are told, the style may be made of anything; and any version may be meant.
    record.edges.clear();
    record.packages[0].version = None;
    record
}

#[test]
fn a_selector_names_the_cells_that_the_cases_say() {
    let Cases { record, groups, cases } = serde_json::from_str(CASES).unwrap();
    let group = |(name, text): (String, String)| (name, text.parse::<Selector>().unwrap());
    let groups: Vec<(String, Selector)> = groups.into_iter().map(group).collect();
    let lens = with_groups(Lens::new(&record), &groups).unwrap();
    let mut unsaid: BTreeSet<&str> = words::all().map(|word| word.text).collect();
    for (text, expected) in cases {
        unsaid.retain(|word| expected.is_none() || !text.contains(word));
        let selection = text.parse::<Selector>().and_then(|selector| select(&selector, &lens));
        let found =
            selection.ok().filter(|found| found.lack().is_none() && found.missing.is_empty());
        let found = found.map(|found| found.cells.iter().map(CellId::at).collect());
        assert_eq!(found, expected, "{text}");
    }
    // What is looked for in texts alone has no cells in a record without them.
    assert_eq!(unsaid, BTreeSet::from(["leftovers", "never-ran"]));
}

fn weight(text: &str) -> u64 {
    let record = record();
    let lens = Lens::new(&record);
    let selector: Selector = text.parse().unwrap_or_else(|error| panic!("{error:?}"));
    lens.amount(&select(&selector, &lens).unwrap().cells).emitted
}

#[rstest]
#[case("", 1, Wrong::NoSet)]
#[case("own own", 5, Wrong::NoJoin)]
#[case("own and (glue", 14, Wrong::OpenParenthesis)]
#[case("startup", 8, Wrong::NoArgument("startup".to_owned()))]
#[case("own(x)", 4, Wrong::Argument("own".to_owned()))]
#[case("chunk()", 7, Wrong::NoName)]
#[case("file(\"a)", 6, Wrong::OpenQuote)]
#[case("own or sytles", 8, Wrong::UnknownSet("sytles".to_owned(), near("styles")))]
fn parse_errors_point_at_the_column(
    #[case] text: &str,
    #[case] column: usize,
    #[case] wrong: Wrong,
) {
    let error = text.parse::<Selector>().unwrap_err();
    assert_eq!((error.column, error.wrong), (column, wrong), "{text}");
}

fn near(name: &str) -> Known {
    Known::Near(vec![name.to_owned()])
}

/// What nobody owns, the 4 bytes of the style, may be anybody's.
#[rstest]
#[case("own", 13, 17)]
#[case("package(nothing)", 0, 4)]
#[case("package(@s/p) and scripts", 27, 27)]
#[case("package(@s/p@1)", 0, 31)]
#[case("everything except own", 34, 38)]
#[case("everything except package(nothing)", 47, 51)]
#[case("assets", 2, 2)]
#[case("unattributed", 4, 4)]
#[case("startup(one) and glue", 5, 9)]
#[case("holding(package(nothing))", 0, 39)]
fn what_is_certain_and_what_may_be(#[case] text: &str, #[case] least: u64, #[case] most: u64) {
    let record = record();
    let lens = Lens::new(&record);
    let found = select(&text.parse().unwrap(), &lens).unwrap();
    let weighed = [&found.least, &found.most].map(|cells| lens.amount(cells).emitted);
    assert_eq!(weighed, [least, most], "{text}");
}

#[rstest]
#[case("startup(tow)", Named::Startup, "tow", Some("two"))]
#[case("chunk(c)", Named::Chunk, "c", None)]
#[case("file(src/**)", Named::File, "src/**", None)]
#[case("kind(scripts)", Named::Kind, "scripts", Some("script"))]
#[case("package(@s/q)", Named::Package, "@s/q", Some("@s/p"))]
fn names_that_are_missing(
    #[case] text: &str,
    #[case] set: Named,
    #[case] name: &str,
    #[case] near: Option<&str>,
) {
    let record = record();
    let found = select(&text.parse().unwrap(), &Lens::new(&record)).unwrap();
    assert_eq!(found.missing.len(), 1);
    let missing = &found.missing[0];
    assert_eq!((missing.set, missing.name.as_str()), (set, name));
    assert_eq!(missing.near.first().map(String::as_str), near);
}

#[test]
fn a_chunk_goes_by_any_name_that_means_it() {
    let record = record();
    let found = select(&"chunk(408)".parse().unwrap(), &Lens::new(&record)).unwrap();
    let by = OtherName::Stem;
    assert_eq!(found.renamed, [Renamed { by, name: "408".to_owned(), lasting: "b".to_owned() }]);
}

#[test]
fn items_are_matches_filtered_one_by_one() {
    let record = record();
    let lens = Lens::new(&record);
    let weigh = |text: &str| -> Vec<(String, u64)> {
        let (items, _) = items(&text.parse().unwrap(), &lens).unwrap();
        items.into_iter().map(|item| (item.name, lens.amount(&item.sets.cells).emitted)).collect()
    };
    assert_eq!(weigh("chunk(*) except glue and scripts"), [("a".into(), 34), ("b".into(), 10)]);
    assert_eq!(weigh("startup(*) and third-party"), [("one".into(), 27), ("two".into(), 7)]);
    assert_eq!(weigh("module(**)").len(), 3);
    for refused in ["own", "chunk(*) or own", "holding(own)"] {
        assert!(items(&refused.parse().unwrap(), &lens).is_err(), "{refused}");
    }
}

#[test]
fn too_many_parentheses_are_refused() {
    let deep = format!("{}own{}", "(".repeat(100_000), ")".repeat(100_000));
    assert_eq!(deep.parse::<Selector>().unwrap_err().wrong, Wrong::TooDeep);
}

#[test]
fn long_chains_are_no_deep_trees() {
    for word in ["or", "and", "except"] {
        let long = vec!["own"; 100_000].join(&format!(" {word} "));
        assert_eq!(weight(&long), if word == "except" { 0 } else { 13 });
    }
}

fn selector() -> impl Strategy<Value = String> {
    let set = prop::sample::select(vec![
        "own",
        "third-party",
        "glue",
        "scripts",
        "styles",
        "assets",
        "unattributed",
        "everything",
        "startup(one)",
        "startup(two)",
        "deferred(*)",
        "chunk(b)",
        "package(*)",
        "file(a*)",
    ]);
    set.prop_map(str::to_owned).prop_recursive(3, 12, 2, |inner| {
        let word = prop::sample::select(vec!["and", "or", "except"]);
        (inner.clone(), word, inner).prop_map(|(a, word, b)| format!("(({a}) {word} ({b}))"))
    })
}

proptest! {
    #[test]
    fn the_laws_of_sets(a in selector(), b in selector(), c in selector()) {
        let w = |text: String| weight(&text);
        // Each byte counts once, however sets overlap.
        prop_assert_eq!(w(format!("{a} or {b}")) + w(format!("{a} and {b}")), w(a.clone()) + w(b.clone()));
        prop_assert_eq!(w(format!("{a} except {b}")) + w(format!("{a} and {b}")), w(a.clone()));
        prop_assert_eq!(w(format!("{a} and ({b} or {c})")), w(format!("{a} and {b} or {a} and {c}")));
        prop_assert_eq!(
            w(format!("everything except {a} or {b}")),
            w(format!("(everything except {a}) and (everything except {b})"))
        );
    }
}
