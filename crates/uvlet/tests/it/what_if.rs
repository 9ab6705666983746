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
#[case(&["--suggest", "--defer", "burgee-plot"], "--suggest tries steps by itself")]
#[case(&["--gather", "burgee-plot"], "is not NAME=SELECTOR")]
#[case(&["--gather", "a=package(nothing)"], "no package is called")]
#[case(&["--gather", "kit-*=own"], "`*` makes one file per package")]
#[case(&["--defer", "moorline", "--as-config", "--format", "json"], "drop --format")]
#[case(&["--resize", "moorline=big"], "--resize moorline=big")]
#[case(&["--defer", "burgee-plot", "--visits", "harbour"], "no entry or route is called that")]
#[case(&["--defer", "burgee-plot from nowhere.js"], "no package or module is called")]
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

#[test]
fn a_plan_is_written_with_names_that_bundlers_know() {
    let told = uvlet(
        &demo(),
        &[
            &["what-if", "builds/vite-before", "--as-config", "--gather"][..],
            &["kit-*=package(moorline) or package(tidecalc)", "--external", "package(tide*)"],
            &["--external", "folder(node_modules/moorline/src/locale)"],
        ]
        .concat(),
    );
    let said = told.out;
    assert!(said.contains(r#"name: "kit-moorline", test: /node_modules[\\/](moorline)"#), "{said}");
    assert!(said.contains(r#"name: "kit-tidecalc""#), "{said}");
    assert!(said.contains(r#"external: ["tidecalc"]"#), "{said}");
    assert!(said.contains("locale): only whole packages can be listed"), "{said}");
}

#[test]
fn what_is_gathered_is_one_file_that_visits_share() {
    let steps = ["--gather", "installed=third-party", "--visits", "timetable,booking"];
    let answer = json(&demo(), &[&["what-if", BUILD], &steps[..]].concat());
    assert_eq!(answer["new_chunks"], serde_json::json!(["installed"]));
    let visits = answer["visits"].as_array().unwrap();
    let adds = |at: usize, when: &str| visits[at][when]["sizes"]["emitted"].as_i64().unwrap();
    // The first page carries all that any page needs; the second one finds it in the cache.
    assert!(adds(0, "after") > adds(0, "before"), "{visits:?}");
    assert!(adds(1, "after") < adds(1, "before") / 2, "{visits:?}");
    let alone = json(&demo(), &["attribute", BUILD, "--in", "third-party", "--by", "module"]);
    let modules = alone["rows"].as_array().unwrap().len();
    let moved: std::collections::BTreeSet<&str> = answer["moved"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| row["module"].as_str().unwrap())
        .collect();
    assert!(moved.len() * 10 > modules * 9, "{} of {modules}", moved.len());
}

/// A change of contents renames its file, and so whatever names that.
#[rstest]
#[case("builds/vite-after", "src/booking/main.js", &["booking"])]
#[case("builds/vite-after", "src/shared/page.js", &["booking", "crew", "timetable"])]
#[case("builds/webpack-before", "src/crew/week.js", &["crew"])]
fn what_is_touched_is_fetched_again(
    #[case] build: &str,
    #[case] what: &str,
    #[case] expected: &[&str],
) {
    let answer = json(&demo(), &["what-if", build, "--touch", what]);
    let rows = answer["entries"].as_array().unwrap();
    let mut again: Vec<&str> = rows
        .iter()
        .filter(|row| row["return_visit"]["file_count"] != 0)
        .map(|row| row["name"].as_str().unwrap())
        .collect();
    again.sort_unstable();
    assert_eq!(again, expected);
    assert!(rows.iter().all(|row| row["before"] == row["after"]));
    let said = uvlet(&demo(), &["what-if", build, "--touch", what]).out;
    assert!(said.starts_with("A returning visitor fetches again"), "{said}");
}

#[test]
fn what_grows_grows_in_every_page_that_holds_it() {
    let size = |page: &str, what: &str| {
        let within = format!("startup({page}) and {what}");
        let told = json(&demo(), &["attribute", BUILD, "--in", &within]);
        told["total"]["sizes"]["emitted"].as_i64().unwrap()
    };
    let answer = json(&demo(), &["what-if", BUILD, "--resize", "tidecalc=0 B"]);
    for page in ["booking", "timetable"] {
        let row = entry(&answer, page);
        let by =
            bytes(row, "after", "startup", "emitted") - bytes(row, "before", "startup", "emitted");
        assert_eq!(by, -size(page, "package(tidecalc)"));
    }
}

#[test]
fn what_is_suggested_wins_what_it_says() {
    let answer = json(&demo(), &["what-if", "builds/vite-before", "--suggest"]);
    let each = answer["each"].as_array().unwrap();
    let changes = each.iter().map(|one| {
        let step = one["step"].as_str().unwrap().replace('\'', "");
        let steps: Vec<&str> = step.split(' ').collect();
        let told = json(&demo(), &[&["what-if", "builds/vite-before"], &steps[..]].concat());
        let row = entry(&told, one["entry"].as_str().unwrap());
        let won = bytes(row, "before", "startup", "gzip") - bytes(row, "after", "startup", "gzip");
        assert_eq!(one["saved"]["gzip"], won);
        steps[0].to_owned()
    });
    // The languages of a package, files that hand on more than is used, few names of a library, and a dialog.
    assert_eq!(changes.collect::<Vec<_>>(), ["--without", "--bypass", "--narrow", "--defer"]);
    assert_eq!(answer["together"].as_array().unwrap().len(), 5);
    // Nothing is left to suggest where it was done.
    let done = json(&demo(), &["what-if", "builds/vite-after", "--suggest"]);
    assert_eq!((&done["each"], &done["prediction"]), (&serde_json::json!([]), &Value::Null));
}

#[test]
fn budgets_are_judged_as_if_a_plan_were_done() {
    let folder = crate::support::Folder::new().with(
        "uvlet.toml",
        "[budget.start]\ntotal = \"startup(booking)\"\nat_most = \"22 kB\"\n\
         [budget.plots]\nabsent = \"startup(booking) and package(burgee-plot)\"\n",
    );
    let build = demo().join(BUILD);
    let gate =
        |plan: &[&str]| uvlet(folder.path(), &[&["gate", build.to_str().unwrap()], plan].concat());
    assert_eq!(gate(&[]).status, 1);
    let bypass = "--bypass src/shared/ui.js --bypass 'node_modules/@kelpwick/ui/src/index.js'";
    let said = gate(&["--if", bypass]);
    assert_eq!(said.status, 0, "{}", said.out);
    assert!(
        said.out.starts_with("MET") && said.out.contains("if changed by --bypass"),
        "{}",
        said.out
    );
    assert_eq!(gate(&["--if", "--without fogbell-log"]).status, 1);
    let said = gate(&["--if", "'--without"]);
    assert_eq!((said.status, said.out.as_str()), (2, ""));
    assert!(said.err.contains("a quote is not closed"), "{}", said.err);
}

/// Whatever is taken out, or asked for in rings, the parts of each file add up and nothing fails.
#[rstest]
#[case(&["--without", "third-party"])]
#[case(&["--without", "own except module(src/booking/main.js) except module(src/crew/main.js) except module(src/timetable/main.js)"])]
#[case(&["--gather", "nothing=package(moorline) and own"])]
#[case(&["--defer", "third-party", "--gather", "rest=own"])]
#[case(&["--defer", "src/shared/store.js", "--bypass", "src/shared/ui.js", "--external", "tidecalc"])]
fn large_plans_are_defined(#[case] steps: &[&str]) {
    for build in [
        "builds/esbuild-before",
        "builds/vite-after",
        "builds/webpack-after",
        "builds/rollup-before",
    ] {
        let answer = json(&demo(), &[&["what-if", build], steps].concat());
        for row in answer["entries"].as_array().unwrap() {
            for when in ["before", "after"] {
                assert!(bytes(row, when, "startup", "emitted") > 0, "{build} {row}");
            }
        }
    }
}

#[test]
fn findings_are_confirmed_by_predictions() {
    let build = "builds/vite-before";
    let answer = json(&demo(), &["waste", build, "--confirm"]);
    let findings = answer["findings"].as_array().unwrap();
    let of = |kind: &str| findings.iter().find(|finding| finding["kind"] == kind).unwrap();
    let told = json(&demo(), &["what-if", build, "--defer", "src/booking/refund-dialog.js"]);
    let row = entry(&told, "booking");
    let won = bytes(row, "before", "startup", "gzip") - bytes(row, "after", "startup", "gzip");
    assert_eq!(of("deferrable")["predicted"]["sizes"]["gzip"], won);
    assert!(of("barrel-pull")["predicted"]["sizes"]["gzip"].as_i64().unwrap() > 2000);
    assert!(of("several-versions").get("predicted").is_none());
}

#[test]
fn only_what_is_named_is_weighed() {
    let steps = ["--without", "burgee-plot"];
    let ask = |within: &[&str]| json(&demo(), &[&["what-if", BUILD], &steps[..], within].concat());
    let own = ask(&["--in", "own"]);
    let (all, plots) = (ask(&[]), ask(&["--in", "package(burgee-plot)"]));
    let part =
        |answer: &Value, when: &str| bytes(entry(answer, "crew"), when, "startup", "emitted");
    assert_eq!(part(&own, "before"), part(&own, "after"));
    assert_eq!(part(&plots, "after"), 0);
    let won = part(&all, "before") - part(&all, "after");
    assert!(won >= part(&plots, "before") && won * 95 <= part(&plots, "before") * 100, "{won}");
    let said = uvlet(&demo(), &[&["what-if", BUILD], &steps[..], &["--in", "startup(x)"]].concat());
    assert!(said.status == 2 && said.err.contains("no entry is called"), "{}", said.err);
}
