//! Which file can be asked for when.

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, demo, json, uvlet};

/// A page with a hint, a chain of imports, an import of a style, a circle, and code that loads at once.
fn site(hints: &str) -> Folder {
    let page =
        format!("<link rel=stylesheet href=a.css><script type=module src=a.js></script>{hints}");
    Folder::new()
        .with("dist/index.html", page)
        .with("dist/a.css", "@import 'b.css';p{margin:0}")
        .with("dist/b.css", "b{margin:0}")
        .with("dist/a.js", "import './b.js';import './c.js';import('./e.js');")
        .with("dist/b.js", "export const b=1;")
        .with("dist/c.js", "import './d.js';import './a.js';export const c=1;")
        .with("dist/d.js", "export const d=1;")
        .with("dist/e.js", "import './f.js';export const e=1;")
        .with("dist/f.js", "export const f=1;")
}

fn entry(folder: &Folder) -> Value {
    json(folder.path(), &["survey", "dist"])["entries"][0].clone()
}

fn requests(entry: &Value) -> Vec<String> {
    let requests = entry["startup"]["requests"].as_array().unwrap().iter();
    let shown = requests.map(|one| {
        let hint = if one["hint"] == true { ", a hint" } else { "" };
        let by = one["by"].as_str().unwrap_or("nobody");
        format!("{} {} by {by}{hint}", one["round"], one["path"].as_str().unwrap())
    });
    shown.collect()
}

#[test]
fn files_are_asked_for_once_what_names_them_is_there() {
    let folder = site("<link rel=modulepreload href=b.js>");
    let entry = entry(&folder);
    let expected = [
        "1 index.html by nobody",
        "2 a.css by index.html",
        "2 a.js by index.html",
        "2 b.js by index.html, a hint",
        "3 b.css by a.css",
        "3 c.js by a.js",
        "4 d.js by c.js",
    ];
    assert_eq!(requests(&entry), expected);
    assert_eq!(entry["startup"]["rounds"], 4);
    // A module runs once all that it imports is there.
    assert_eq!(entry["at_once_rounds"], 6);
    let said = uvlet(folder.path(), &["survey", "dist"]);
    let out = said.out.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(out.contains("at startup in 4 rounds"), "{out}");
    assert!(out.contains("d.js in round 4, named by c.js"), "{out}");
}

/// What pages name ahead comes with what they name anyway.
#[test]
fn hints_save_rounds() {
    let all = ["b.js", "c.js", "d.js"].map(|path| format!("<link rel=modulepreload href={path}>"));
    let folder = site(&all.concat());
    let entry = entry(&folder);
    // The style's import is named by nothing else.
    assert_eq!(entry["startup"]["rounds"], 3);
    let late = requests(&entry).into_iter().filter(|one| one.starts_with('3'));
    assert_eq!(late.collect::<Vec<_>>(), ["3 b.css by a.css"]);
}

/// As Chromium asked for the files of these pages, whose protocol names who asked: the style's picture is last.
#[rstest]
#[case("vite-after", "booking", 3)]
#[case("webpack-after", "booking", 3)]
#[case("esbuild-after", "booking", 3)]
fn rounds_of_sample_pages(#[case] build: &str, #[case] name: &str, #[case] rounds: usize) {
    let survey = json(&demo().join("builds"), &["survey", build]);
    let entry = survey["entries"].as_array().unwrap().iter().find(|one| one["name"] == name);
    assert_eq!(entry.unwrap()["startup"]["rounds"], rounds);
}

/// A limit on rounds is of one startup: where there are several, each has its own.
#[rstest]
#[case("each = \"startup(*)\"", 4, 0, "met")]
#[case("each = \"startup(*)\"", 3, 1, "broken")]
#[case("total = \"startup(index)\"", 3, 1, "broken")]
#[case("total = \"startup(index) and scripts\"", 4, 2, "undecided")]
fn rounds_are_held(
    #[case] of: &str,
    #[case] most: usize,
    #[case] status: i32,
    #[case] verdict: &str,
) {
    let folder = site("<link rel=modulepreload href=b.js>")
        .with("uvlet.toml", format!("[budget.waits]\n{of}\nrounds_at_most = {most}\n"));
    let said = uvlet(folder.path(), &["gate", "dist"]);
    assert_eq!(said.status, status, "{}{}", said.out, said.err);
    let row = uvlet(folder.path(), &["gate", "dist", "--format", "json"]);
    let row = serde_json::from_str::<Value>(&row.out).unwrap()["budgets"][0].clone();
    assert_eq!(row["verdict"], verdict, "{row}");
    assert_eq!(row["measure"], "rounds");
    if verdict == "broken" {
        assert!(said.out.contains("4 rounds"), "{}", said.out);
    }
}

#[rstest]
#[case("each = \"chunk(*)\"")]
#[case("waste = \"deferrable\"")]
fn rounds_of_nothing_else(#[case] of: &str) {
    let folder = site("").with("uvlet.toml", format!("[budget.b]\n{of}\nrounds_at_most = 2\n"));
    let said = uvlet(folder.path(), &["gate", "dist"]);
    assert_eq!(said.status, 2, "{}", said.out);
    assert!(said.err.contains("`rounds_at_most` is of startups"), "{}", said.err);
}
