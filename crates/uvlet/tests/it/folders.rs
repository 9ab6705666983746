//! What lies in a folder: what is shipped and what describes it, told by form; installs told apart.

use std::collections::BTreeMap;

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, json, map, uvlet};

fn page() -> Folder {
    Folder::new().with("dist/index.html", "<script src=a.js></script>").with("dist/a.js", "a()")
}

/// Files aside, and the codes of notices.
fn aside(folder: &Folder) -> (Vec<String>, Vec<String>) {
    let survey = json(folder.path(), &["survey", "dist"]);
    let texts = |list: &Value, key: &str| -> Vec<String> {
        let items = list.as_array().unwrap().iter();
        items.map(|item| item[key].as_str().unwrap().to_owned()).collect()
    };
    (texts(&survey["aside"], "path"), texts(&survey["notices"], "code"))
}

#[rstest]
#[case::one_key("data.json", r#"{"mappings":{"a":1}}"#, false)]
#[case::lists("data.json", r#"{"inputs":[1],"outputs":[]}"#, false)]
#[case::files_elsewhere("data.json", r#"{"x":{"file":"pic.webp","src":"x"}}"#, false)]
#[case::a_games_map("level1.map", "#####\n#..#", false)]
#[case::a_map_by_form("chunk.map", r#"{"version":3,"sources":[],"mappings":""}"#, true)]
#[case::a_damaged_map_beside_its_script("a.js.map", r#"{"mappings":"AAA"#, true)]
#[case::a_leaf_first(
    "manifest.json",
    r#"{"_leaf.js":{"file":"a.js"},"src/a.js":{"file":"a.js","src":"src/a.js","isEntry":true}}"#,
    true
)]
#[case::a_mark_first(
    "stats.json",
    "\u{feff}{\"assets\":[{\"name\":\"a.js\"}],\"chunks\":[]}",
    true
)]
fn descriptions_are_told_by_form(#[case] name: &str, #[case] text: &str, #[case] is_aside: bool) {
    let (aside, _) = aside(&page().with(&format!("dist/{name}"), text));
    assert_eq!(aside == [name], is_aside, "{aside:?}");
}

fn rows(folder: &Folder, arguments: &[&str]) -> BTreeMap<String, u64> {
    let answer = json(folder.path(), arguments);
    let rows = answer["rows"].as_array().unwrap().iter();
    rows.map(|row| {
        let text = |key: &str| row[key].as_str().unwrap_or("-").to_owned();
        let bytes = row["sizes"]["emitted"].as_u64().unwrap();
        (format!("{} {} {}", text("row"), text("name"), text("place")), bytes)
    })
    .collect()
}

#[test]
fn two_installs_of_a_package_stay_two() {
    let sources = [
        (0, "../node_modules/p/i.js"),
        (3, "../../../node_modules/p/i.js"),
        (7, "../packages/kit/node_modules/dayjs/i.js"),
        (12, "../node_modules/dayjs/i.js"),
    ];
    let folder = Folder::new()
        .with("dist/a.js", "p();p2();day1();d2()")
        .with("dist/a.js.map", map(&sources));
    let packages = rows(&folder, &["attribute", "dist"]);
    let named: Vec<&String> = packages.keys().filter(|row| row.starts_with("package")).collect();
    assert_eq!(
        named,
        [
            "package dayjs node_modules/dayjs",
            "package dayjs packages/kit/node_modules/dayjs",
            "package p ../../../node_modules/p",
            "package p ../node_modules/p",
        ]
    );
    // Every folder of a table is one that a selector takes.
    for (row, bytes) in rows(&folder, &["attribute", "dist", "--by", "folder"]) {
        let mut words = row.split(' ');
        if let (Some("folder"), Some(place)) = (words.next(), words.next()) {
            let within = format!("folder({place})");
            let inside = json(folder.path(), &["attribute", "dist", "--in", &within]);
            assert_eq!(inside["total"]["sizes"]["emitted"], bytes, "{place}");
        }
    }
}

#[test]
fn virtual_modules_are_modules_and_the_bundlers_helpers_glue() {
    let sources = [
        (0, "\0virtual:routes"),
        (4, "../\0vite/preload-helper.js"),
        (8, "webpack://site/./vite/plugin.js"),
        (12, "../node_modules/.prisma/client/index.js"),
    ];
    let folder =
        Folder::new().with("dist/a.js", "vr()pp()vp()pr()").with("dist/a.js.map", map(&sources));
    let modules = rows(&folder, &["attribute", "dist", "--by", "module"]);
    assert_eq!(modules["module virtual:routes -"], 4);
    assert_eq!(modules["glue (glue) -"], 4);
    assert_eq!(modules["module vite/plugin.js -"], 4);
    assert_eq!(rows(&folder, &["attribute", "dist"])["third-party (third-party) -"], 4);
}

#[test]
fn a_map_that_is_missing_or_another_files_is_told_with_what_it_costs() {
    let folder = page()
        .with("dist/b.js", "b();\n//# sourceMappingURL=b.js.map")
        .with("dist/c.js", "c()")
        .with(
            "dist/c.js.map",
            map(&[(0, "../src/c.js"), (90, "../src/d.js"), (99, "../src/c.js")]),
        );
    let said = uvlet(folder.path(), &["survey", "dist"]).out;
    let flat = said.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(
        flat.contains(
            "b.js: names the source map b.js.map, which is missing: its 34 B have no owner"
        ),
        "{flat}"
    );
    assert!(flat.contains("the map is another file's: the 3 B of c.js have no owner"), "{flat}");
}

#[test]
fn names_of_entries_and_chunks_are_each_given_once() {
    let folder = Folder::new()
        .with("dist/shop.html", "<script src=a.js></script>")
        .with("dist/shop/index.html", "<script src=../x/a.js></script>")
        .with("dist/a.js", "a()")
        .with("dist/x/a.js", "x()")
        .with("dist/a.2.js", "b()");
    let survey = json(folder.path(), &["survey", "dist"]);
    let names = |key: &str| -> Vec<String> {
        let list = survey[key].as_array().unwrap().iter();
        let mut names: Vec<String> =
            list.map(|item| item["name"].as_str().unwrap().to_owned()).collect();
        names.sort();
        names
    };
    assert_eq!(names("entries"), ["shop", "shop/index"]);
    assert_eq!(names("chunks"), ["a.2", "shop", "shop/index"]);
}

/// Some equal characters with two owners cost brotli next to nothing, and add up all the same.
#[test]
fn what_costs_no_bits_is_shared_by_bytes() {
    let folder = Folder::new()
        .with("dist/a.js", ";;;;;;")
        .with("dist/a.js.map", map(&[(0, "../src/a.js"), (3, "../src/b.js")]));
    let answer = json(folder.path(), &["attribute", "dist", "--by", "module", "--measure", "br"]);
    let rows = answer["rows"].as_array().unwrap().iter();
    let sum: u64 = rows.map(|row| row["sizes"]["br"].as_u64().unwrap()).sum();
    assert_eq!(answer["total"]["sizes"]["br"], sum);
}

/// A record cannot hide cells from one table and show them in another.
#[rstest]
#[case::orphans(
    r#""cells":{"start":0,"end":1},"runs":{"start":0,"end":0}"#,
    r#""cells":{"start":0,"end":1},"runs":{"start":0,"end":0}"#,
    r#""cells":[{"file":0,"owner":"unattributed""#,
    r#""cells":[{"file":0,"owner":"glue","emitted":1000000,"bits":{},"basis":"mapped"},{"file":0,"owner":"unattributed""#
)]
#[case::two_of_a_name(
    r#""name":"a","aliases""#,
    r#""name":"a","aliases""#,
    r#""pages":[]"#,
    r#""pages":["no.html"]"#
)]
fn forged_records_are_refused(
    #[case] from: &str,
    #[case] to: &str,
    #[case] more: &str,
    #[case] forged: &str,
) {
    let folder = Folder::new().with("out/a.js", "a()");
    let record = uvlet(folder.path(), &["record", "out"]).out;
    let broken = record.replacen(from, to, 1).replacen(more, forged, 1);
    assert_ne!(record, broken);
    let said = uvlet(folder.with("r.json", broken).path(), &["attribute", "r.json"]);
    assert!(said.status == 2 && said.err.contains("damaged record"), "{}{}", said.out, said.err);
}
