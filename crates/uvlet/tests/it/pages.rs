//! What pages load: small folders, each for a rule.

use std::fmt::Write;

use rstest::rstest;

use crate::support::{Folder, json};

/// Writes `path: text` lines as files and tells entries as `name: startup files | deferred count`,
/// then what is unplaced and aside.
fn told(files: &str) -> String {
    let mut folder = Folder::new();
    for line in files.lines().map(str::trim).filter(|line| !line.is_empty()) {
        let (path, text) = line.split_once(": ").unwrap_or((line.trim_end_matches(':'), ""));
        folder = folder.with(&format!("dist/{path}"), text);
    }
    let survey = json(folder.path(), &["survey", "dist"]);
    let words = |value: &serde_json::Value, key: Option<&str>| {
        let items = value.as_array().unwrap().iter();
        let texts =
            items.map(|item| key.map_or(item, |key| &item[key]).as_str().unwrap().to_owned());
        texts.collect::<Vec<_>>().join(" ")
    };
    let mut told = String::new();
    for entry in survey["entries"].as_array().unwrap() {
        let aliases = words(&entry["aliases"], None);
        let startup = words(&entry["startup"]["files"], None);
        let deferred = &entry["deferred"]["file_count"];
        let name = entry["name"].as_str().unwrap();
        let aliases = if aliases.is_empty() { aliases } else { format!(" ({aliases})") };
        write!(told, "{name}{aliases}: {startup} | {deferred}; ").unwrap();
    }
    for (word, list) in [
        ("unplaced", words(&survey["unplaced"], None)),
        ("aside", words(&survey["aside"], Some("path"))),
    ] {
        if !list.is_empty() {
            write!(told, "{word} {list}; ").unwrap();
        }
    }
    told.trim_end_matches("; ").to_owned()
}

#[rstest]
#[case::page_order_then_breadth_first(
    "index.html: <link rel=modulepreload href=/c.js><link rel=stylesheet href=/a.css><script type=module src=/a.js></script>
     a.js: import './b.js'; import './c.js';
     b.js: export * from './d.js'
     c.js: export const c = 1
     d.js: export const d = 1
     a.css: .a{}",
    "index: index.html c.js a.css a.js b.js d.js | 0"
)]
#[case::on_demand_minus_startup(
    "index.html: <script type=module src=a.js></script>
     a.js: import './s.js'; import('./l.js')
     l.js: import './s.js'; import './t.js'; import(`./m.js`)
     m.js: export {}
     s.js: export {}
     t.js: export {}",
    "index: index.html a.js s.js | 3"
)]
#[case::classic_scripts(
    "shop/index.html: <script src=../v.js></script><script defer src=../a.js></script>
     a.js: a()
     v.js: v()",
    "shop: shop/index.html v.js a.js | 0"
)]
#[case::entries_inferred(
    "a-5NBG7WKQ.js: import './chunk-TRTXGIQN.js'; import('./lazy-B6YPUIGZ.js')
     a-BG2F7POY.css: .a{}
     b-JH3QS4GJ.js: import './chunk-TRTXGIQN.js'
     chunk-TRTXGIQN.js: export {}
     lazy-B6YPUIGZ.js: export {}",
    "a: a-5NBG7WKQ.js a-BG2F7POY.css chunk-TRTXGIQN.js | 1; b: b-JH3QS4GJ.js chunk-TRTXGIQN.js | 0"
)]
#[case::equal_pages_are_one_entry(
    "index.html: <script type=module src=a.js></script>
     about.html: <script type=module src=./a.js></script>
     a.js: a()",
    "about (index): about.html a.js | 0"
)]
#[case::what_nobody_loads(
    "index.html: <script src=a.js></script>
     a.js: a()
     sw.js: s()
     a.js.map: {\"version\":3,\"sources\":[],\"mappings\":\"\"}
     meta.json: {\"inputs\":{},\"outputs\":{}}
     data.json: {\"inputs\":{}}",
    "index: index.html a.js | 0; unplaced data.json sw.js; aside a.js.map meta.json"
)]
fn rules(#[case] files: &str, #[case] expected: &str) {
    assert_eq!(told(files), expected);
}

#[test]
fn startup_splits_twice_and_both_add_up() {
    let survey = json(&crate::support::demo(), &["survey", crate::support::SAMPLES[1]]);
    let entries = survey["entries"].as_array().unwrap();
    let names: Vec<_> = entries.iter().map(|entry| entry["name"].as_str().unwrap()).collect();
    assert_eq!(names, ["booking", "crew", "timetable"]);
    for startup in entries.iter().map(|entry| &entry["startup"]) {
        for measure in ["emitted", "gzip"] {
            let sum = |keys: &[&str]| {
                keys.iter().map(|key| startup[key][measure].as_u64().unwrap()).sum::<u64>()
            };
            let all = startup["sizes"][measure].as_u64().unwrap();
            assert_eq!(sum(&["own", "third_party", "glue", "assets", "unattributed"]), all);
            assert_eq!(sum(&["alone", "shared"]), all);
        }
    }
    assert_eq!(entries[0]["deferred"]["file_count"], 2);
}
