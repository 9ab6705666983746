//! A record of two scripts and a style, small enough to count by hand.
//!
//! ```text
//! a.js   own 10, p 20, glue 5     startup of one
//! b.js   own  3, p  7             startup of one and two
//! a.css  unattributed 4           startup of one, in the chunk a
//! i.png  asset 2                  deferred of two
//! ```

use proptest::prelude::*;
use rstest::rstest;
use uvlet_record::{OtherName, Record};

use super::{
    evaluate::{items, select},
    nearest::Known,
    selection::Renamed,
    selector::{Selector, Wrong},
    words::Named,
};
use crate::lens::Lens;

fn record() -> Record {
    let file = |path: &str, kind: &str, emitted: u64, cells: [u32; 2], loads: &[u32]| {
        serde_json::json!({"path": path, "kind": kind, "digest": "", "emitted": emitted, "format": "other",
            "loads": loads, "cells": {"start": cells[0], "end": cells[1]}, "runs": {"start": 0, "end": 0}})
    };
    let cell = |file: u32, owner: serde_json::Value, emitted: u64| serde_json::json!({"file": file, "owner": owner, "emitted": emitted, "basis": "mapped"});
    let entry = |name: &str, asks: &[u32], later: &[u32]| {
        serde_json::json!({"name": name, "aliases": [format!("{name}-page")], "pages": [], "origin": "page",
            "requested": asks, "later": later})
    };
    let module = |path: &str, package: Option<u32>| serde_json::json!({"path": path, "package": package, "third_party": package.is_some(), "source_bytes": null});
    let own = serde_json::json!({"module": 1});
    let theirs = serde_json::json!({"module": 0});
    let record = serde_json::json!({
        "schema": 4, "label": "tiny", "bundler": null, "bundler_version": null, "mode": "unclear",
        "mode_evidence": [], "target": "browser", "target_basis": "", "set_aside": [], "encoders": {}, "precompressed": {},
        "files": [
            file("a.css", "style", 4, [0, 1], &[]), file("a.js", "script", 35, [1, 4], &[2]),
            file("b.js", "script", 10, [4, 6], &[]), file("i.png", "image", 2, [6, 7], &[]),
        ],
        "cells": [
            cell(0, "unattributed".into(), 4), cell(1, own.clone(), 10), cell(1, theirs.clone(), 20),
            cell(1, "glue".into(), 5), cell(2, own, 3), cell(2, theirs, 7), cell(3, "asset".into(), 2),
        ],
        "runs": [],
        "modules": [module("node_modules/@s/p/i.js", Some(0)), module("src/[id]/m.js", None)],
        "packages": [{"name": "@s/p", "place": "node_modules/@s/p", "version": null, "own": false}],
        "chunks": [{"name": "a", "stem": "a", "named_by": "entry", "script": 1, "styles": [0]}, {"name": "b", "stem": "408", "named_by": "contents", "script": 2, "styles": []}],
        "entries": [entry("one", &[1, 0], &[]), entry("two", &[2], &[3])],
        "dynamic_loads": [], "aside": [], "notices": [],
    });
    let record: Record = serde_json::from_value(record).unwrap();
    record.verify().unwrap();
    record
}

fn weight(text: &str) -> u64 {
    let record = record();
    let lens = Lens::new(&record);
    let selector: Selector = text.parse().unwrap_or_else(|error| panic!("{error:?}"));
    lens.amount(&select(&selector, &lens).unwrap().cells).emitted
}

#[rstest]
#[case("everything", 51)]
#[case("own", 13)]
#[case("third-party", 27)]
#[case("glue", 5)]
#[case("assets", 2)]
#[case("unattributed", 4)]
#[case("scripts", 45)]
#[case("styles", 4)]
#[case("startup(one)", 49)]
#[case("startup(two)", 10)]
#[case("startup(*)", 49)]
#[case("startup(two-page)", 10)]
#[case("deferred(two)", 2)]
#[case("entry(two)", 12)]
#[case("chunk(a)", 39)]
#[case("file(*.js)", 45)]
#[case("kind(style)", 4)]
#[case("package(@s/*)", 27)]
#[case("package(nothing)", 0)]
#[case("module(src/[id]/*)", 13)]
#[case("module(src/*)", 0)]
#[case("module(i.png)", 2)]
#[case("folder(src)", 13)]
#[case("holding(glue)", 39)]
#[case("startup(one) and third-party", 27)]
#[case("startup(*) and own or styles", 17)]
#[case("(own or glue) and chunk(b)", 3)]
#[case("everything except own or glue", 33)]
#[case("everything except own except glue", 33)]
#[case("chunk(\"a\") except package('@s/p')", 19)]
fn sets(#[case] text: &str, #[case] bytes: u64) {
    assert_eq!(weight(text), bytes, "{text}");
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
