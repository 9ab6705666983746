//! Records in place of builds.

use std::fs;

use rstest::rstest;

use crate::support::{Folder, SAMPLES, demo, json, map, uvlet};

#[rstest]
#[case("build.json")]
#[case("build.json.gz")]
#[case("build.json.zst")]
fn a_record_answers_like_its_build(#[case] name: &str) {
    let folder = Folder::new();
    let saved = folder.path().join(name);
    let saved = saved.to_str().unwrap();
    for sample in SAMPLES {
        assert_eq!(uvlet(&demo(), &["record", sample, "-o", saved]).status, 0);
        for command in [
            &["survey"][..],
            &["survey", "--format", "json"],
            &[
                "attribute",
                "--by",
                "module",
                "--in",
                "startup(booking) except own",
                "--format",
                "csv",
            ],
            &["attribute", "--by", "chunk", "--format", "markdown"],
            &["gate", "--format", "json"],
        ] {
            let of = |build: &str| {
                let said = uvlet(&demo(), &[&command[..1], &[build], &command[1..]].concat());
                (said.status, said.out, said.err)
            };
            assert_eq!(of(sample), of(saved), "{command:?}");
        }
    }
}

#[test]
fn records_of_one_build_from_two_places_are_the_same_bytes() {
    let build = |folder: Folder, name: &str| {
        folder.with(&format!("{name}/out/a.js"), "a();b()").with(
            &format!("{name}/out/a.js.map"),
            map(&[(0, "../src/a.js"), (4, "../node_modules/b/i.js")]),
        )
    };
    let folder = build(build(Folder::new(), "one"), "two/deep");
    let record = |path: &str| uvlet(folder.path(), &["record", path]).out;
    assert!(record("one/out").len() > 500);
    assert_eq!(record("one/out"), record("two/deep/out"));
}

#[test]
fn texts_are_kept_only_when_asked_for() {
    let text = r#"{"version":3,"sources":["../src/a.js"],"sourcesContent":["the source"],"mappings":"AAAA"}"#;
    let folder = Folder::new().with("out/a.js", "emitted()").with("out/a.js.map", text);
    let plain = uvlet(folder.path(), &["record", "out"]).out;
    assert!(!plain.contains("emitted()") && !plain.contains("the source"));
    let full = uvlet(folder.path(), &["record", "out", "--with-texts"]).out;
    assert!(full.contains("emitted()") && full.contains("the source"));
}

#[rstest]
#[case(
    "newer.json",
    r#"{"uvlet":{"schema":9,"version":"9","command":"record"},"record":{"what":"ever"}}"#,
    "is a record of schema 9, this program reads 5; update uvlet"
)]
#[case(
    "older.json",
    r#"{"uvlet":{"schema":1,"version":"0","command":"record"},"record":{"what":"ever"}}"#,
    "is a record of schema 1, this program reads 5; write it again"
)]
#[case("none.json", r#"{"a":1}"#, "is not a record: missing field `uvlet`")]
#[case("cut.json", r#"{"uvlet":{"schema":1"#, "is not a record: EOF while parsing")]
#[case("cut.json.gz", "\u{1f}\u{8b}\u{8}", "newer")]
fn what_is_no_record_is_one_line(#[case] name: &str, #[case] text: &str, #[case] message: &str) {
    let folder = Folder::new().with(name, text);
    let said = uvlet(folder.path(), &["survey", name]);
    assert_eq!(
        (said.status, said.out.as_str(), said.err.lines().count()),
        (2, "", 1),
        "{}",
        said.err
    );
    assert!(name.ends_with("gz") || said.err.contains(message), "{}", said.err);
}

#[test]
fn a_record_that_breaks_its_rules_is_refused() {
    let folder = Folder::new().with("out/a.js", "a()");
    let record = uvlet(folder.path(), &["record", "out"]).out;
    for (from, to) in [
        ("\"emitted\":3", "\"emitted\":4"),
        ("\"file\":0", "\"file\":7"),
        ("\"requested\":[0]", "\"requested\":[9]"),
        ("\"cells\":{\"start\":0,\"end\":1}", "\"cells\":{\"start\":1,\"end\":0}"),
    ] {
        let broken = record.replacen(from, to, 1);
        assert_ne!(broken, record, "{from}");
        fs::write(folder.path().join("r.json"), broken).unwrap();
        let said = uvlet(folder.path(), &["attribute", "r.json"]);
        assert!(
            said.status == 2 && said.err.contains("damaged record"),
            "{from}: {}{}",
            said.out,
            said.err
        );
    }
    assert_eq!(json(folder.path(), &["survey", "out"])["totals"]["file_count"], 1);
}
