//! Why something is in a build, and what of it is there twice or for nobody.

use std::collections::BTreeSet;

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, demo, json, map, uvlet};

fn builds() -> std::path::PathBuf {
    demo().join("builds")
}

fn steps(chain: &Value) -> Vec<&str> {
    chain["steps"].as_array().unwrap().iter().map(|step| step["module"].as_str().unwrap()).collect()
}

#[test]
fn what_was_not_seen_is_not_said_to_be_missing() {
    let folder = Folder::new()
        .with("d/index.html", "<script src=a.js></script>")
        .with("d/a.js", "console.log(1)");
    for line in [
        &["why", "d", "moorline"][..],
        &["what-if", "d", "--without", "moorline"],
        &["attribute", "d", "--in", "package(moorline)"],
    ] {
        let said = uvlet(folder.path(), line);
        assert_eq!(said.status, 2);
        assert!(said.err.contains("100% of the script bytes are unattributed"), "{}", said.err);
    }
    let said = uvlet(folder.path(), &["attribute", "d", "--in", "third-party"]).out;
    assert!(said.starts_with("No bytes of this build are known to be in third-party"), "{said}");
    // Where all owners are known there is nothing to add.
    let said = uvlet(&demo(), &["why", "builds/esbuild-after", "moorlin-x"]).err;
    assert!(!said.contains("unattributed"), "{said}");
}

#[test]
fn the_chain_that_drags_the_chart_drawer_into_a_page_without_charts() {
    let why = json(&builds(), &["why", "esbuild-before", "burgee-plot", "--from", "booking"]);
    let chain = &why["chains"][0];
    assert_eq!((&chain["entry"], &chain["when"]), (&"booking".into(), &"startup".into()));
    assert_eq!(
        steps(chain),
        [
            "src/booking/main.js",
            "src/shared/ui.js",
            "node_modules/@kelpwick/ui/src/index.js",
            "node_modules/@kelpwick/ui/src/plot-card.js",
            "node_modules/burgee-plot/src/index.js",
        ]
    );
    let said = uvlet(&builds(), &["why", "esbuild-before", "burgee-plot"]).out;
    assert!(
        said.starts_with("burgee-plot is in the startup of booking, crew and timetable, because")
    );
    // Once it is mended, only the pages that draw have it.
    let why = json(&builds(), &["why", "esbuild-after", "burgee-plot"]);
    let entries: BTreeSet<&str> = why["chains"]
        .as_array()
        .unwrap()
        .iter()
        .map(|chain| chain["entry"].as_str().unwrap())
        .collect();
    assert!(!entries.contains("booking"), "{entries:?}");
}

#[test]
fn what_loads_later_is_told_by_the_call_that_loads_it() {
    for build in ["esbuild-after", "vite-after", "webpack-after", "rspack-after", "rollup-after"] {
        let why = json(&builds(), &["why", build, "booking/refund-dialog.js"]);
        assert_eq!(why["chains"][0]["when"], "deferred", "{build}");
        let last = why["chains"][0]["steps"].as_array().unwrap().last().unwrap().clone();
        assert_eq!((&last["by"], &why["at_startup"]), (&"dynamic".into(), &serde_json::json!([])));
    }
}

#[rstest]
#[case("index.js", "may be any of node_modules/")]
#[case("moorlin", "no package or module is called `moorlin`, did you mean moorline?")]
#[case("chunk(nowhere)", "no chunk is called `nowhere`")]
#[case("moorline@9", "no package or module is called `moorline@9`")]
fn what_is_not_there_or_several_is_one_line(#[case] target: &str, #[case] message: &str) {
    let said = uvlet(&builds(), &["why", "esbuild-before", target]);
    assert_eq!((said.status, said.out.as_str(), said.err.lines().count()), (2, "", 1));
    assert!(said.err.contains(message), "{}", said.err);
}

#[test]
fn without_edges_it_is_told_by_the_file() {
    let folder = Folder::new()
        .with("d/index.html", "<script src=a.js></script>")
        .with("d/a.js", "abcd\n//# sourceMappingURL=a.js.map")
        .with("d/a.js.map", map(&[(0, "../src/a.js"), (2, "../node_modules/hull/i.js")]));
    let said = uvlet(folder.path(), &["why", "d", "hull"]).out;
    assert!(said.contains("it is in a.js"), "{said}");
    assert!(said.contains("No import graph is available"), "{said}");
    // The build may be left out where the project has one.
    let folder = Folder::new()
        .with("package.json", r#"{"name":"quay","scripts":{}}"#)
        .with("dist/a.js", "abcd\n//# sourceMappingURL=a.js.map")
        .with("dist/a.js.map", map(&[(0, "../src/a.js"), (2, "../node_modules/hull/i.js")]));
    assert_eq!(uvlet(folder.path(), &["why", "hull"]).status, 0);
}

/// Ids of findings, by kind.
fn found(build: &str, kind: &str) -> Vec<String> {
    let waste = json(&builds(), &["waste", build, "--kind", kind]);
    let ids = waste["findings"].as_array().unwrap().iter();
    let mut ids: Vec<String> = ids.map(|f| f["id"].as_str().unwrap().to_owned()).collect();
    ids.sort();
    ids
}

#[rstest]
#[case("esbuild-before", 19)]
#[case("webpack-before", 19)]
#[case("rspack-before", 19)]
// Only the style of all pages.
#[case("rollup-before", 1)]
#[case("vite-before", 0)]
#[case("sveltekit-before", 0)]
fn every_fault_of_the_site_is_found(#[case] build: &str, #[case] copies: usize) {
    assert_eq!(found(build, "whole-family"), ["whole-family:eddeb50c"]);
    assert_eq!(found(build, "several-versions"), ["several-versions:592b98ce"]);
    assert_eq!(found(build, "copied-module").len(), copies);
    assert_eq!(found(build, "wrong-environment"), Vec::<String>::new());
    assert_eq!(found(build, "barely-used"), ["barely-used:34b14f0e"]);
    // A declaration whose call may do something; webpack and Rspack leave no statement of it.
    let kept = found(build, "kept-for-effect");
    let is_packed = build.starts_with("webpack") || build.starts_with("rspack");
    let fares = match build.starts_with("sveltekit") {
        true => "kept-for-effect:7b47531e",
        false => "kept-for-effect:9ba9ae0f",
    };
    assert_eq!(kept.contains(&fares.to_owned()), !is_packed, "{kept:?}");
    // What a person sets off in a source that is no script is not followed.
    let later = found(build, "deferrable");
    let is_script = !build.starts_with("sveltekit");
    assert_eq!(later.contains(&"deferrable:d87ea767".to_owned()), is_script, "{later:?}");
    // webpack and Rspack leave out what the card does not use.
    let drawn = found(build, "barrel-pull");
    let draws = is_script && !is_packed;
    assert_eq!(drawn.contains(&"barrel-pull:d6508667".to_owned()), draws, "{drawn:?}");
    let dead = found(build, "dead-declaration");
    assert_eq!(dead.is_empty(), !build.starts_with("esbuild"), "{dead:?}");
    let waste = json(&builds(), &["waste", build, "--kind", "several-versions"]);
    let cause = waste["findings"][0]["cause"].as_str().unwrap();
    assert!(cause.contains("node_modules/halyard-forms/src/form.js"), "{cause}");
}

/// What is left once the faults are mended.
#[rstest]
// The style of all pages is in each page's own.
// Two checks that nobody uses stay in the object of all checks.
#[case("esbuild-after", &["copied-module:9cb98a3c", "dead-declaration:a3711835"])]
// So are rules of it that one page does not use.
#[case("rollup-after", &["copied-module:9cb98a3c", "unused-rules:9cb98a3c"])]
#[case("vite-after", &["unused-rules:11272684", "unused-rules:4c21b17b", "unused-rules:aab3f390"])]
// The framework's own expressions that are made and not used.
#[case("sveltekit-after", &["kept-for-effect:bcebc7b0"])]
// Small modules that two or three pages share are left where they are: each time in every chunk.
// So is what they make by `new` for names that only one of the pages uses.
#[case("webpack-after", &["copied-module:058ab0e8", "copied-module:0fb0ce38", "copied-module:454a3d50", "copied-module:d79dd9e6", "kept-for-effect:722dba61"])]
#[case("rspack-after", &["copied-module:058ab0e8", "copied-module:0fb0ce38", "copied-module:454a3d50", "copied-module:d79dd9e6", "kept-for-effect:47847949", "kept-for-effect:722dba61"])]
fn nothing_is_found_that_is_no_fault(#[case] build: &str, #[case] left: &[&str]) {
    let waste = json(&builds(), &["waste", build]);
    let mut ids: Vec<&str> =
        waste["findings"].as_array().unwrap().iter().map(|f| f["id"].as_str().unwrap()).collect();
    ids.sort_unstable();
    assert_eq!(ids, left);
}

/// What a finding stands on: the lines of the source, the chain to it, the bytes.
#[test]
fn evidence_quotes_the_sources_and_the_chain() {
    let ask = |id: &str| {
        let said =
            uvlet(&builds(), &["waste", "esbuild-before", "--evidence", id, "--width", "120"]);
        assert_eq!(said.status, 0, "{}", said.err);
        said.out
    };
    let later = ask("deferrable:d87ea767");
    assert!(later.contains("src/booking/main.js:15  openRefundDialog waits for"), "{later}");
    assert!(later.contains("() => openRefundDialog(trip.get())"), "{later}");
    let drawn = ask("barrel-pull:d6508667");
    let chain: Vec<&str> = drawn.lines().skip_while(|line| !line.starts_with("booking")).collect();
    assert!(chain[1].contains("src/booking/main.js"), "{drawn}");
    assert!(chain.iter().any(|line| line.contains("src/shared/ui.js")), "{drawn}");
    let wrong = uvlet(&builds(), &["waste", "esbuild-before", "--evidence", "deferrable:00000000"]);
    assert!(wrong.status == 2 && wrong.err.contains("there is no such finding"), "{}", wrong.err);
}

/// What a bundler says that it used is never called unused, and what it says that it dropped is used by
/// nobody, though its code may be there for an effect.
#[rstest]
#[case("webpack-before")]
#[case("webpack-after")]
#[case("rspack-after")]
#[case("rollup-before")]
#[case("vite-after")]
fn bundlers_own_words_on_names_agree(#[case] build: &str) {
    let record = uvlet(&builds(), &["record", build]).out;
    let record: Value = serde_json::from_str(&record).unwrap();
    let list = json(&builds(), &["attribute", build, "--by", "export"]);
    let rows = list["rows"].as_array().unwrap();
    let state = |module: &str, name: &str| {
        let wanted = format!("{module}#{name}");
        rows.iter()
            .find(|row| row["name"] == wanted.as_str())
            .map(|row| row["state"].as_str().unwrap())
    };
    let (mut used, mut dropped) = (0, 0);
    for module in record["record"]["modules"].as_array().unwrap() {
        let path = module["path"].as_str().unwrap();
        for name in module["used"]["names"].as_array().into_iter().flatten() {
            let Some(state) = state(path, name.as_str().unwrap()) else { continue };
            assert_ne!(state, "unused", "{path}#{name} is used, as the bundler says");
            used += 1;
        }
        for name in module["dropped"].as_array().into_iter().flatten() {
            let Some(state) = state(path, name.as_str().unwrap()) else { continue };
            assert_ne!(state, "used", "{path}#{name} was dropped, as the bundler says");
            dropped += 1;
        }
    }
    assert!(used > 50 || dropped > 5, "{used} used, {dropped} dropped");
}

/// Whether a declaration is used, by which others, and what is left of it.
#[rstest]
#[case("esbuild-before", "checks/matches.js#matches", "unused", 0)]
#[case("vite-before", "checks/matches.js#matches", "removed", 0)]
#[case("esbuild-before", "halyard-forms/src/form.js#form", "used", 3)]
// What uses it was put where it is used.
#[case("webpack-after", "halyard-forms/src/form.js#form", "used", 0)]
#[case("esbuild-before", "src/shared/fares.js#archivedFares", "kept for an effect", 0)]
fn one_declaration_is_told_of(
    #[case] build: &str,
    #[case] what: &str,
    #[case] state: &str,
    #[case] users: usize,
) {
    let told = json(&builds(), &["why", build, what]);
    assert_eq!((&told["state"], told["used_by"].as_array().unwrap().len()), (&state.into(), users));
    let places = told["places"].as_array().unwrap();
    let bytes: u64 = places.iter().map(|place| place["length"].as_u64().unwrap()).sum();
    assert_eq!(told["sizes"]["emitted"], bytes);
    assert_eq!(bytes == 0, state == "removed");
    // The list of exports says the same, with what was put into it of other modules.
    let list = json(&builds(), &["attribute", build, "--by", "export"]);
    let row = list["rows"].as_array().unwrap().iter().find(|row| row["name"] == told["subject"]);
    match row {
        Some(row) => {
            assert_eq!((&row["state"], &row["sizes"]["emitted"]), (&state.into(), &bytes.into()))
        }
        None => assert_eq!(state, "removed"),
    }
}

#[test]
fn copies_in_one_visit_are_told_from_copies_in_the_cache() {
    let source = |name: &str| format!("../src/{name}.js");
    let script = |own: &str| map(&[(0, source(own).as_str()), (2, "../src/shared.js")]);
    let folder = Folder::new()
        .with("d/one.html", "<script src=a.js></script><script src=b.js></script>")
        .with("d/two.html", "<script src=c.js></script>")
        .with("d/a.js", "aash\n//# sourceMappingURL=a.js.map")
        .with("d/b.js", "bbshshsh\n//# sourceMappingURL=b.js.map")
        .with("d/c.js", "ccsh\n//# sourceMappingURL=c.js.map")
        .with("d/a.js.map", script("a"))
        .with("d/b.js.map", script("b"))
        .with("d/c.js.map", script("c"));
    let waste = json(folder.path(), &["waste", "d"]);
    let [finding] = waste["findings"].as_array().unwrap().as_slice() else { panic!("{waste}") };
    // The heaviest copy stays in the build; the first that a page loads stays on that page.
    let [visit] = finding["by_entry"].as_array().unwrap().as_slice() else { panic!("{finding}") };
    assert_eq!((&visit["entry"], &visit["sizes"]["emitted"]), (&"one".into(), &6.into()));
    assert_eq!(finding["recoverable"]["emitted"], 2 + 2);
    for (selector, bytes) in [("repeats", 4), ("repeats(one)", 6), ("repeats(two)", 0)] {
        let told = json(folder.path(), &["attribute", "d", "--in", selector]);
        assert_eq!(told["total"]["sizes"]["emitted"], bytes, "{selector}");
    }
}

#[test]
fn what_a_page_carries_along_is_in_the_survey_and_in_budgets() {
    let here = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/builds");
    let survey = json(&here, &["survey", "shared-chunk"]);
    let carried = |entry: usize| survey["entries"][entry]["carried"]["emitted"].as_u64();
    assert_eq!(carried(0), Some(0));
    assert!(carried(1).unwrap() > 0);
    let told = json(&here, &["attribute", "shared-chunk", "--in", "unreached(b)"]);
    assert_eq!(told["total"]["sizes"]["emitted"].as_u64(), carried(1));
    // Where nobody says who asks for whom, a budget on it is not held.
    let folder = Folder::new()
        .with("d/index.html", "<script src=a.js></script>")
        .with("d/a.js", "a()")
        .with(
            "uvlet.toml",
            "[build]\nfolder = \"d\"\n[budget.c]\ntotal = \"unreached(*)\"\nat_most = \"1 B\"\n",
        );
    assert_eq!(uvlet(folder.path(), &["gate"]).status, 2);
}

#[test]
fn budgets_on_findings_and_bans_that_name_the_chain() {
    let settings = "[budget.once]\nwaste = \"several-versions\"\nat_most = \"0 B\"\n\
                    [budget.no-charts]\nabsent = \"startup(booking) and package(burgee-plot)\"\n";
    let folder = Folder::new().with("uvlet.toml", settings);
    let gate =
        |build: &str| uvlet(folder.path(), &["gate", builds().join(build).to_str().unwrap()]);
    let said = gate("esbuild-before");
    assert_eq!(said.status, 1, "{}", said.err);
    assert!(said.out.contains("booking brings it in: src/booking/main.js"), "{}", said.out);
    assert!(said.out.contains("fairlead-bus"), "{}", said.out);
    assert_eq!(gate("esbuild-after").status, 0);
    let folder = Folder::new()
        .with("uvlet.toml", "[budget.a]\nwaste = \"copied-modul\"\nat_most = \"1 B\"\n");
    let said = uvlet(folder.path(), &["gate", builds().join("esbuild-after").to_str().unwrap()]);
    assert!(
        said.err.contains("did you mean copied-module or copied-helper or copied-text?"),
        "{}",
        said.err
    );
}

#[test]
fn wanted_languages_are_left_out_of_a_family() {
    let folder = Folder::new().with("uvlet.toml", "languages = [\"en\", \"da\"]\n");
    let build = builds().join("esbuild-before");
    let family = |here: &std::path::Path| {
        let asked = ["waste", build.to_str().unwrap(), "--kind", "whole-family"];
        json(here, &asked)["findings"][0].clone()
    };
    let (known, all) = (family(folder.path()), family(&builds()));
    let emitted = |finding: &Value| finding["recoverable"]["emitted"].as_u64().unwrap();
    assert_eq!((&known["bound"], &all["bound"]), (&"exact".into(), &"at-most".into()));
    let two = json(
        &builds(),
        &[
            "attribute",
            "esbuild-before",
            "--in",
            "module(**/locale/en.js) or module(**/locale/da.js)",
        ],
    );
    assert_eq!(emitted(&all) - emitted(&known), two["total"]["sizes"]["emitted"].as_u64().unwrap());
}

#[test]
fn groups_are_rows_and_sets() {
    let settings = "[group]\nplotting = \"package(burgee-plot) or folder(src/crew)\"\n\
                    [budget.plots]\neach = \"group(*)\"\nat_most = \"1 kB\"\n";
    let folder = Folder::new().with("uvlet.toml", settings);
    let build = builds().join("esbuild-before");
    let build = build.to_str().unwrap();
    let by_group = json(folder.path(), &["attribute", build, "--by", "group"]);
    let rows = by_group["rows"].as_array().unwrap();
    let group = rows.iter().find(|row| row["row"] == "group").unwrap();
    let parts = "package(burgee-plot) or folder(src/crew)";
    let parts = json(folder.path(), &["attribute", build, "--in", parts]);
    assert_eq!(group["sizes"]["emitted"], parts["total"]["sizes"]["emitted"]);
    let sum: u64 = rows.iter().map(|row| row["sizes"]["emitted"].as_u64().unwrap()).sum();
    assert_eq!(Some(sum), by_group["total"]["sizes"]["emitted"].as_u64());
    assert_eq!(uvlet(folder.path(), &["gate", build]).status, 1);
    let nested = Folder::new().with("uvlet.toml", "[group]\na = \"own\"\nb = \"group(a)\"\n");
    let said = uvlet(nested.path(), &["survey", build]);
    assert!(said.err.contains("uvlet.toml:3:5"), "{}", said.err);
}
