//! Predictions without a rebuild: what they add up to, and what is refused.

use rstest::rstest;
use serde_json::Value;

use crate::support::{demo, json, uvlet};

const BUILD: &str = "builds/esbuild-before";

fn entry<'a>(answer: &'a Value, name: &str) -> &'a Value {
    answer["entries"].as_array().unwrap().iter().find(|row| row["name"] == name).unwrap()
}

fn bytes(row: &Value, when: &str, part: &str, measure: &str) -> i64 {
    row[when][part]["sizes"][measure].as_i64().unwrap()
}

#[test]
fn what_is_deferred_is_later_and_not_gone() {
    let answer = json(&demo(), &["what-if", BUILD, "--defer", "src/booking/refund-dialog.js"]);
    let booking = entry(&answer, "booking");
    let moved: i64 = answer["moved"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| row["sizes"]["emitted"].as_i64().unwrap())
        .sum();
    let by = |part: &str| {
        bytes(booking, "after", part, "emitted") - bytes(booking, "before", part, "emitted")
    };
    // With it goes what the bundler put before it.
    let is_about = |bytes: i64| bytes >= moved && bytes * 98 <= moved * 100;
    assert!(
        moved > 1000 && is_about(-by("startup")) && is_about(by("deferred")),
        "{moved} {answer}"
    );
    let files = |when: &str| booking[when]["deferred"]["file_count"].as_i64().unwrap();
    assert_eq!(files("after"), files("before") + 1);
    // Pages that do not show it are as they were, and fetch nothing again.
    let crew = entry(&answer, "crew");
    assert_eq!(crew["before"], crew["after"]);
    assert_eq!(crew["return_visit"]["file_count"], 0);
    assert_eq!(answer["basis"], "assembled");
    assert_eq!(answer["doubts"][0]["code"], "loading-helper");
}

/// What is taken out leaves with all that only it asks for: the same as `why` says, but encoded anew.
#[rstest]
#[case("burgee-plot")]
#[case("folder(node_modules/moorline/src/locale)")]
#[case("src/shared/fares.js")]
fn what_is_taken_out_leaves_as_why_says(#[case] subject: &str) {
    let answer = json(&demo(), &["what-if", BUILD, "--without", subject]);
    let why = json(&demo(), &["why", BUILD, subject]);
    let rows = why["at_startup"].as_array().unwrap();
    assert!(!rows.is_empty());
    for row in rows {
        let predicted = entry(&answer, row["entry"].as_str().unwrap());
        let won = |measure: &str| {
            bytes(predicted, "before", "startup", measure)
                - bytes(predicted, "after", "startup", measure)
        };
        // The bundler's wrappers around it go with it.
        let said = row["sizes"]["emitted"].as_i64().unwrap();
        assert!(won("emitted") >= said && won("emitted") * 98 <= said * 100, "{said} {predicted}");
        // What others copied from it in the stream is spelt out then.
        assert!(won("gzip") > 0 && won("gzip") <= row["sizes"]["gzip"].as_i64().unwrap() * 11 / 10);
    }
}

#[test]
fn a_record_without_texts_answers_by_shares() {
    let folder = tempfile::tempdir().unwrap();
    let saved = folder.path().join("r.json.zst");
    let saved = saved.to_str().unwrap();
    assert_eq!(uvlet(&demo(), &["record", BUILD, "-o", saved]).status, 0);
    let steps = ["--without", "burgee-plot"];
    let by_texts = json(&demo(), &[&["what-if", BUILD], &steps[..]].concat());
    let by_shares = json(&demo(), &[&["what-if", saved], &steps[..]].concat());
    assert_eq!(by_shares["basis"], "shares");
    let startup =
        |answer: &Value, measure: &str| bytes(entry(answer, "crew"), "after", "startup", measure);
    assert_eq!(startup(&by_texts, "emitted"), startup(&by_shares, "emitted"));
    let (exact, rough) = (startup(&by_texts, "gzip"), startup(&by_shares, "gzip"));
    assert!((exact - rough).abs() * 50 < exact, "{exact} {rough}");
    let said = uvlet(&demo(), &[&["what-if", saved], &steps[..]].concat()).out;
    assert!(said.contains("≈ ") && said.contains("doubt: texts are not at hand"), "{said}");
}

#[rstest]
#[case(&[], "name a step")]
#[case(&["--defer", "src/booking/main.js"], "booking begins there")]
#[case(&["--without", "burgee-plto"], "did you mean burgee-plot?")]
#[case(&["--external", "startup(nowhere)"], "no entry is called")]
fn what_means_nothing_is_refused(#[case] steps: &[&str], #[case] expected: &str) {
    let said = uvlet(&demo(), &[&["what-if", BUILD], steps].concat());
    assert_eq!((said.status, said.out.as_str()), (2, ""));
    assert!(said.err.contains(expected) && said.err.lines().count() == 1, "{}", said.err);
}

#[test]
fn the_first_line_is_the_answer() {
    let said =
        uvlet(&demo(), &["what-if", BUILD, "--external", "burgee-plot", "--width", "200"]).out;
    let first = said.lines().next().unwrap();
    assert!(first.starts_with("crew would start with 4.6 kB less (gzip, 23.4 kB now)"), "{first}");
    assert!(said.contains("doubt: burgee-plot is fetched from elsewhere then"), "{said}");
    let said =
        uvlet(&demo(), &["what-if", "builds/esbuild-after", "--defer", "refund-dialog.js"]).out;
    assert!(said.starts_with("No entry would start with less."), "{said}");
}
