//! Two builds side by side.

use std::path::PathBuf;

use assert_cmd::Command;
use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, demo, json, map, uvlet};

fn builds() -> PathBuf {
    demo().join("builds")
}

fn moved(row: &Value, measure: &str) -> i64 {
    let of = |side: &str| row[side][measure].as_i64().unwrap_or(0);
    of("after") - of("before")
}

#[rstest]
fn rows_add_up_to_the_difference(
    #[values("esbuild", "rollup", "vite", "webpack", "rspack", "sveltekit")] bundler: &str,
) {
    let (before, after) = (format!("{bundler}-before"), format!("{bundler}-after"));
    let compared = json(&builds(), &["compare", &before, &after, "--measure", "all"]);
    for measure in ["emitted", "gzip", "br", "zstd"] {
        let whole = moved(
            &serde_json::json!({"before": compared["before"]["sizes"], "after": compared["after"]["sizes"]}),
            measure,
        );
        for list in ["packages", "modules"] {
            let rows = compared[list].as_array().unwrap();
            assert_eq!(rows.iter().map(|row| moved(row, measure)).sum::<i64>(), whole, "{list}");
        }
    }
    let row = |name: &str| {
        let rows = compared["packages"].as_array().unwrap();
        rows.iter().find(|row| row["name"] == name).unwrap_or_else(|| panic!("{name}")).clone()
    };
    // Every fault that was mended is a row with the right sign.
    for package in ["moorline", "ropework", "fairlead-bus"] {
        assert!(moved(&row(package), "emitted") < 0, "{package}");
    }
    let gone: Vec<&str> = compared["waste"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|row| row["after"].is_null())
        .map(|row| row["id"].as_str().unwrap())
        .collect();
    assert!(gone.contains(&"whole-family:eddeb50c") && gone.contains(&"several-versions:592b98ce"));
    let said = uvlet(&builds(), &["compare", &before, &after]).out.replace('\n', " ");
    assert!(said.contains("starts with") && said.contains("most of it by moorline"), "{said}");
}

#[test]
fn a_build_against_itself_is_quiet() {
    for build in ["esbuild-after", "webpack-before", "sveltekit-after"] {
        let compared = json(&builds(), &["compare", build, build]);
        for list in ["packages", "modules", "waste"] {
            assert_eq!(compared[list], serde_json::json!([]), "{build} {list}");
        }
        let chunks = compared["chunks"].as_array().unwrap();
        assert!(chunks.iter().all(|chunk| chunk["change"] == "same"));
        let entries = compared["entries"].as_array().unwrap();
        assert!(entries.iter().all(|entry| entry["return_visit"]["file_count"] == 0));
        let said = uvlet(&builds(), &["compare", build, build]).out;
        assert!(said.starts_with("Nothing moved: every file is the same."), "{said}");
    }
}

/// A page with a script, and a shared script that it loads.
fn build(shared: &str, text: &str, version: &str) -> Folder {
    Folder::new()
        .with("package.json", "{}")
        .with(
            "node_modules/hull/package.json",
            format!(r#"{{"name":"hull","version":"{version}"}}"#),
        )
        .with("d/index.html", "<script type=module src=main-0a1b2c3d.js></script>")
        .with(
            "d/main-0a1b2c3d.js",
            format!("import'./{shared}';own\n//# sourceMappingURL=main-0a1b2c3d.js.map"),
        )
        .with("d/main-0a1b2c3d.js.map", map(&[(0, "../src/main.js")]))
        .with(&format!("d/{shared}"), format!("{text}\n//# sourceMappingURL={shared}.map"))
        .with(&format!("d/{shared}.map"), map(&[(0, "../node_modules/hull/i.js")]))
}

#[test]
fn a_hash_alone_is_told_from_an_edit() {
    let before = build("shared-11aa22bb.js", "hull(1)", "1.0.0");
    let after = build("shared-33cc44dd.js", "hull(1)", "1.0.0");
    let compared = json(before.path(), &["compare", "d", after.path().join("d").to_str().unwrap()]);
    let chunks = compared["chunks"].as_array().unwrap();
    assert!(chunks.iter().all(|chunk| !chunk["before"].is_null() && !chunk["after"].is_null()));
    let main = chunks.iter().find(|chunk| chunk["after"] == "index").unwrap();
    assert_eq!(
        (&main["change"], &main["because"]),
        (&"changed".into(), &"a file that it names is called otherwise".into())
    );
    // What is called otherwise is fetched again.
    let visit = &compared["entries"][0]["return_visit"];
    assert_eq!(visit["files"], serde_json::json!(["main-0a1b2c3d.js", "shared-33cc44dd.js"]));
}

#[test]
fn a_version_is_one_row_and_a_new_package_says_who_asks() {
    let before = build("shared-11aa22bb.js", "hull(1)", "1.0.0");
    let after = build("shared-33cc44dd.js", "hull(12345)", "2.0.0");
    let after = after.path().join("d");
    let compared = json(before.path(), &["compare", "d", after.to_str().unwrap()]);
    let row = compared["packages"].as_array().unwrap().iter().find(|row| row["name"] == "hull");
    let row = row.unwrap();
    assert_eq!(row["cause"], "version");
    assert_eq!(row["versions"], serde_json::json!({"before": ["1.0.0"], "after": ["2.0.0"]}));
    assert_eq!(moved(row, "emitted"), 4);
    let said = uvlet(before.path(), &["compare", "d", after.to_str().unwrap()]).out;
    assert!(said.contains("1.0.0 → 2.0.0"), "{said}");
    let back = json(&builds(), &["compare", "esbuild-after", "esbuild-before"]);
    let rows = back["modules"].as_array().unwrap();
    let locale = |row: &&Value| row["name"].as_str().unwrap().ends_with("locale/fr.js");
    assert_eq!(rows.iter().find(locale).unwrap()["cause"], "new");
}

#[test]
fn what_cannot_be_subtracted_is_refused() {
    let server = Folder::new().with("d/a.js", "import 'fs';");
    let said =
        uvlet(&builds(), &["compare", "esbuild-after", server.path().join("d").to_str().unwrap()]);
    // Alone, server output is what there is.
    assert_eq!((said.status, said.err.lines().count()), (2, 1), "{}", said.err);
    assert!(said.err.contains("never subtracted"), "{}", said.err);
    let folder = Folder::new();
    let record = folder.path().join("six.json");
    let record = record.to_str().unwrap();
    assert_eq!(
        uvlet(&builds(), &["record", "esbuild-after", "--level", "gzip=6", "-o", record]).status,
        0
    );
    let said = uvlet(&builds(), &["compare", record, "esbuild-after"]);
    assert_eq!((said.status, said.err.lines().count()), (2, 1), "{}", said.err);
    assert!(said.err.contains("level 6") && said.err.contains("level 9"), "{}", said.err);
    // Two bundlers are compared, and it is said.
    let said = uvlet(&builds(), &["compare", "esbuild-after", "vite-after"]).out;
    assert!(said.starts_with("Built by esbuild before and by Vite after"), "{said}");
}

#[test]
fn every_form_holds_the_verdict() {
    let asked = ["compare", "esbuild-before", "esbuild-after"];
    let csv = uvlet(&builds(), &[&asked[..], &["--format", "csv"]].concat()).out;
    assert!(csv.lines().any(|line| line.starts_with("package,moorline,")), "{csv}");
    let markdown = uvlet(&builds(), &[&asked[..], &["--format", "markdown"]].concat()).out;
    assert!(markdown.starts_with("**booking starts with 9.7 kB less"), "{markdown}");
    let within = json(&builds(), &[&asked[..], &["--in", "startup(booking)"]].concat());
    let survey = json(&builds(), &["survey", "esbuild-after"]);
    assert_eq!(within["after"]["sizes"], survey["entries"][0]["startup"]["sizes"]);
}

/// The program with a cache of its own, as outside of continuous integration.
fn alone(folder: &Folder, arguments: &[&str]) -> (Option<i32>, String) {
    let output = Command::cargo_bin("uvlet")
        .unwrap()
        .current_dir(folder.path())
        .env("XDG_CACHE_HOME", folder.path().join("cache"))
        .env_remove("CI")
        .args(arguments)
        .output()
        .unwrap();
    (output.status.code(), String::from_utf8(output.stdout).unwrap().replace('\n', " "))
}

#[test]
fn the_build_before_is_remembered() {
    let kept = |folder: &Folder| folder.path().join("cache/uvlet/builds").is_dir();
    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", "start();".repeat(100));
    let survey = ["survey", "dist", "--measure", "emitted"];
    let last = ["compare", "--last", "dist", "--measure", "emitted"];
    alone(&folder, &["survey", "dist", "--no-cache"]);
    assert!(!kept(&folder));
    assert_eq!(alone(&folder, &last).0, Some(2));
    for _ in 0..2 {
        assert!(!alone(&folder, &survey).1.contains("Since the build"));
    }
    assert!(kept(&folder));
    let folder = folder.with("dist/a.js", "start();".repeat(90));
    for _ in 0..2 {
        let (_, said) = alone(&folder, &survey);
        assert!(said.contains("index starts with 80 B less (emitted)"), "{said}");
    }
    let (status, said) = alone(&folder, &last);
    assert_eq!(status, Some(0));
    assert!(said.starts_with("index starts with 80 B less"), "{said}");
    // Another folder is another story.
    let folder = folder.with("other/index.html", "<p>").with("other/a.js", "start()");
    assert!(!alone(&folder, &["survey", "other"]).1.contains("Since the build"));
}

#[test]
fn owners_that_only_became_known_moved_nothing() {
    let script = format!("start([{}])", "1,".repeat(400));
    let map = r#"{"version":3,"sources":["../node_modules/hull/index.js"],"mappings":"AAAA"}"#;
    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", &script);
    let survey = ["survey", "dist", "--measure", "emitted"];
    alone(&folder, &survey);
    let mapped = format!("{script}\n//# sourceMappingURL=a.js.map");
    let folder = folder.with("dist/a.js", &mapped).with("dist/a.js.map", map);
    let (_, said) = alone(&folder, &survey);
    assert!(said.contains("index starts with 30 B more (emitted)"), "{said}");
    assert!(!said.contains("most of it"), "{said}");
}

#[test]
fn tries_are_told_back_to_the_one_that_has_a_name() {
    let mut folder = Folder::new().with("dist/index.html", "<script src=a.js></script>");
    let survey = ["survey", "dist", "--measure", "emitted"];
    let tries = ["compare", "--tries", "dist", "--measure", "emitted"];
    for (count, more) in [(50, None), (100, Some("before the diet")), (90, None), (95, None)] {
        folder = folder.with("dist/a.js", "start();".repeat(count));
        let mark = more.map(|name| ["--mark", name]);
        let line = [&survey[..], mark.as_ref().map_or(&[], |mark| &mark[..])].concat();
        assert_eq!(alone(&folder, &line).0, Some(0));
    }
    let (status, said) = alone(&folder, &tries);
    assert_eq!(status, Some(0));
    let expected =
        "index starts with 40 B less (emitted) than in “before the diet”, over 3 builds.";
    assert!(said.starts_with(expected), "{said}");
    assert!(said.contains("index −80 B, mostly (unattributed)"), "{said}");
    // A mark is one build's, and outlives that it is looked at again.
    folder = folder.with("dist/a.js", "start();".repeat(100));
    alone(&folder, &survey);
    folder = folder.with("dist/a.js", "start();".repeat(95));
    let (_, said) = alone(&folder, &tries);
    assert!(said.contains("than in “before the diet”, over 2 builds."), "{said}");
    alone(&folder, &[&survey[..], &["--mark", "before the diet"]].concat());
    folder = folder.with("dist/a.js", "start();".repeat(94));
    let (_, said) = alone(&folder, &tries);
    assert!(said.starts_with("index starts with 8 B less (emitted) than in “before"), "{said}");
    assert_eq!(alone(&folder, &["survey", "dist", "--mark", "two\nlines"]).0, Some(2));
    // Builds that are named need none of this.
    let named = ["compare", "dist", "dist", "dist", "--measure", "emitted"];
    let (_, said) = alone(&folder, &named);
    assert!(said.starts_with("index starts with as much as in “dist”."), "{said}");
}

#[test]
fn what_left_for_another_host_is_no_gain() {
    let folder = Folder::new()
        .with("old/index.html", "<script src=a.js></script><script src=big.js></script>")
        .with("old/a.js", "start()")
        .with("old/big.js", "tide();".repeat(50))
        .with(
            "new/index.html",
            "<script src=a.js></script><script src=https://cdn.kelpwick.example/big.js></script>",
        )
        .with("new/a.js", "start()");
    let said = uvlet(folder.path(), &["compare", "old", "new"]).out.replace('\n', " ");
    assert!(
        said.contains("in none of these sizes: new https://cdn.kelpwick.example/big.js."),
        "{said}"
    );
    let moved = &json(folder.path(), &["compare", "new", "old"])["elsewhere"];
    assert_eq!(moved.as_array().unwrap().len(), 1);
    assert_eq!((&moved[0]["change"], &moved[0]["when"]), (&"gone".into(), &"startup".into()));
}

#[test]
fn what_is_gathered_says_where_it_went() {
    // Three packages in a script each, then in one.
    let page = |scripts: &[&str]| -> String {
        scripts.iter().map(|name| format!("<script src={name}.js></script>")).collect()
    };
    let place = |package: &str| format!("../node_modules/{package}/i.js");
    let mut folder = Folder::new()
        .with("old/index.html", page(&["hull", "mast", "keel"]))
        .with("new/index.html", page(&["fleet"]));
    for (package, text) in [("hull", "hull(1234567)"), ("mast", "mast(1)"), ("keel", "keel(1)")] {
        folder = folder
            .with(&format!("old/{package}.js"), text)
            .with(&format!("old/{package}.js.map"), map(&[(0, &place(package))]));
    }
    let (hull, mast, keel) = (place("hull"), place("mast"), place("keel"));
    let folder = folder
        .with("new/fleet.js", "hull(1234567)mast(1)keel(1)")
        .with("new/fleet.js.map", map(&[(0, &hull), (13, &mast), (20, &keel)]));
    let rows = |from: &str, to: &str| {
        let compared = json(folder.path(), &["compare", from, to, "--measure", "emitted"]);
        let chunks = compared["chunks"].as_array().unwrap().clone();
        let said = |row: &Value| {
            format!("{} {} {} {}", row["before"], row["after"], row["change"], row["because"])
        };
        chunks.iter().map(said).collect::<Vec<_>>().join("\n").replace('"', "")
    };
    let gathered = rows("old", "new");
    // The last script of a page is its entry's own.
    for package in ["hull", "mast"] {
        assert!(gathered.contains(&format!("{package} null gone merged into index")), "{gathered}");
        let parted = rows("new", "old");
        assert!(parted.contains(&format!("null {package} new split from index")), "{parted}");
    }
}
