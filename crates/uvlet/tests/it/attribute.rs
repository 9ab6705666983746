//! Every byte has an owner: sums, and the bundler's own figures as a second source.

use std::{collections::BTreeMap, fs, path::Path};

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, SAMPLES, demo, json, map, uvlet};

fn sizes(row: &Value) -> [u64; 2] {
    ["emitted", "gzip"].map(|measure| row["sizes"][measure].as_u64().unwrap())
}

fn sum(rows: &Value) -> [u64; 2] {
    let rows = rows.as_array().unwrap();
    rows.iter().map(sizes).fold([0, 0], |sum, row| [sum[0] + row[0], sum[1] + row[1]])
}

#[rstest]
fn rows_add_up_to_the_bytes_on_disk(#[values(0, 1, 2, 3, 4, 5, 6, 7)] sample: usize) {
    let build = SAMPLES[sample];
    let files = json(&demo(), &["attribute", build, "--by", "file"]);
    for row in files["rows"].as_array().unwrap() {
        let path = demo().join(build).join(row["name"].as_str().unwrap());
        assert_eq!(sizes(row)[0], fs::metadata(&path).unwrap().len(), "{}", path.display());
    }
    let on_disk = bytes_below(&demo().join(build));
    assert_eq!(sizes(&files["total"])[0], on_disk);
    for by in ["package", "module", "file"] {
        let answer = json(&demo(), &["attribute", build, "--by", by]);
        assert_eq!(sum(&answer["rows"]), sizes(&files["total"]), "{by}");
        assert_eq!(sizes(&answer["total"]), sizes(&files["total"]), "{by}");
    }
}

/// Bytes of all files that are shipped.
fn bytes_below(folder: &Path) -> u64 {
    let entries = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap());
    entries
        .map(|entry| {
            let path = entry.path();
            let name = entry.file_name().into_string().unwrap();
            match path.is_dir() {
                true if name == ".vite" => 0,
                true => bytes_below(&path),
                false if name.ends_with(".map") => 0,
                false
                    if matches!(
                        name.as_str(),
                        "metafile.json" | "stats.json" | "uvlet-build.json"
                    ) =>
                {
                    0
                }
                false => entry.metadata().unwrap().len(),
            }
        })
        .sum()
}

/// esbuild counts the bytes of each input in its output while it prints them: a source that shares
/// nothing with the walk over the map.
#[rstest]
fn modules_agree_with_the_bundlers_own_count(#[values(0, 1)] sample: usize) {
    let build = SAMPLES[sample];
    let answer = json(&demo(), &["attribute", build, "--by", "module"]);
    let ours: BTreeMap<&str, u64> = answer["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| (row["name"].as_str().unwrap(), sizes(row)[0]))
        .collect();
    let metafile = fs::read(demo().join(build).join("metafile.json")).unwrap();
    let metafile: Value = serde_json::from_slice(&metafile).unwrap();
    let mut theirs: BTreeMap<&str, u64> = BTreeMap::new();
    for output in metafile["outputs"].as_object().unwrap().values() {
        for (input, counted) in output["inputs"].as_object().unwrap() {
            *theirs.entry(input).or_default() += counted["bytesInOutput"].as_u64().unwrap();
        }
    }
    let compared: Vec<_> =
        theirs.iter().filter_map(|(path, n)| Some((path, *n, *ours.get(path)?))).collect();
    assert!(compared.len() > 130, "only {} modules have the same name", compared.len());
    for (path, theirs, ours) in compared {
        assert!(ours.abs_diff(theirs) <= 64, "{path}: {ours}, the bundler counts {theirs}");
    }
}

#[test]
fn a_damaged_map_costs_only_its_own_file() {
    let script = "own();theirs();";
    let good = map(&[(0, "../src/a.js"), (6, "../node_modules/p/i.js")]);
    let folder = Folder::new()
        .with("dist/a.js", script)
        .with("dist/a.js.map", &good)
        .with("dist/b.js", script)
        .with("dist/b.js.map", &good[..good.len() / 2]);
    let answer = json(folder.path(), &["attribute", "dist"]);
    let rows: BTreeMap<&str, u64> = answer["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| (row["name"].as_str().unwrap(), sizes(row)[0]))
        .collect();
    // The coded file's header is nobody's, so there is a row of glue without text.
    let expected = [("(own)", 6), ("p", 9), ("(unattributed)", 15), ("(glue)", 0)];
    assert_eq!(rows, BTreeMap::from(expected));
    let notice = &answer["notices"][1];
    assert_eq!(notice["code"], "map-damaged");
    assert_eq!(notice["where"], "b.js.map");
    assert!(notice["message"].as_str().unwrap().contains("at line 1 column"), "{notice}");
}

#[test]
fn declared_own_packages_count_as_own_and_keep_their_row() {
    let folder = Folder::new()
        .with("dist/a.js", "own();ours();theirs();")
        .with(
            "dist/a.js.map",
            map(&[
                (0, "../src/a.js"),
                (6, "../node_modules/@kelpwick/ui/i.js"),
                (13, "../node_modules/p/i.js"),
            ]),
        )
        .with("uvlet.toml", "[build]\nfolder = \"dist\"\nown = [\"@kelpwick/*\"]\n");
    let own = json(folder.path(), &["attribute", "--in", "own", "--measure", "emitted"]);
    let names: Vec<_> = own["rows"].as_array().unwrap().iter().map(|row| &row["name"]).collect();
    assert_eq!(names, ["@kelpwick/ui", "(own)"]);
    let third = json(folder.path(), &["attribute", "--in", "third-party", "--measure", "emitted"]);
    assert_eq!(sizes(&third["total"])[0], 9);
}

#[test]
fn the_same_build_elsewhere_gives_the_same_answer() {
    let files = |root: &str, prefix: &str| {
        let page = format!("<script type=module src={prefix}/js/a-5NBG7WKQ.js></script>");
        Folder::new()
            .with(&format!("{root}/out/index.html"), page)
            .with(&format!("{root}/out/js/a-5NBG7WKQ.js"), "import\"./b-TRTXGIQN.js\";a()")
            .with(&format!("{root}/out/js/a-5NBG7WKQ.js.map"), map(&[(22, "../../src/a.js")]))
            .with(&format!("{root}/out/js/b-TRTXGIQN.js"), "b()")
            .with(
                &format!("{root}/out/js/b-TRTXGIQN.js.map"),
                map(&[(0, "../../node_modules/p/b.js")]),
            )
    };
    let here = files(".", "");
    for command in ["survey", "attribute"] {
        let said = uvlet(here.path(), &[command, "out", "--format", "json"]).out;
        for root in ["deep/er/still", "an other"] {
            let there = files(root, "");
            let full = there.path().join(root).join("out");
            let elsewhere =
                uvlet(here.path(), &[command, full.to_str().unwrap(), "--format", "json"]);
            assert_eq!(said, elsewhere.out, "{root}");
        }
    }
    // Only the page itself weighs more where its URLs are longer.
    let startup = |folder: &Folder| {
        let survey = json(folder.path(), &["survey", "out"]);
        let startup = survey["entries"][0]["startup"].clone();
        (
            startup["files"].clone(),
            startup["own"].clone(),
            startup["third_party"].clone(),
            survey["notices"].clone(),
        )
    };
    assert_eq!(startup(&here), startup(&files(".", "https://cdn.kelpwick.example/v1/app")));
}

#[test]
fn a_long_table_ends_in_a_row_for_the_rest() {
    let said = uvlet(
        &demo(),
        &["attribute", SAMPLES[0], "--by", "module", "--top", "3", "--units", "bytes"],
    );
    let rows: Vec<&str> =
        said.out.lines().skip_while(|line| !line.starts_with("module")).skip(1).take(5).collect();
    let number = |row: &str| {
        let end = row.find("  ").unwrap();
        let text = row[end..].split_whitespace().next().unwrap().replace(',', "");
        text.parse::<u64>().unwrap()
    };
    let numbers: Vec<u64> = rows.iter().map(|row| number(row)).collect();
    assert!(rows[3].starts_with("(the other "), "{}", rows[3]);
    assert!(rows[4].starts_with("total"), "{}", rows[4]);
    assert_eq!(numbers[..4].iter().sum::<u64>(), numbers[4]);
}

/// Bytes by row, without those of glue.
fn rows(folder: &Folder, arguments: &[&str]) -> BTreeMap<String, u64> {
    let answer = json(folder.path(), arguments);
    let rows = answer["rows"].as_array().unwrap().iter();
    rows.map(|row| (row["name"].as_str().unwrap().to_owned(), sizes(row)[0])).collect()
}

#[test]
fn maps_inline_elsewhere_indexed_and_with_ignored_sources() {
    let plain = map(&[(0, "../src/a.js")]);
    let data = format!("data:application/json,{}", plain.replace('"', "%22"));
    let indexed = r#"{"version":3,"sections":[{"offset":{"line":0,"column":0},"map":{"version":3,
        "sources":["../src/c.js"],"mappings":"AAAA"}},{"offset":{"line":1,"column":0},"map":{"version":3,
        "sources":["../lib/theirs.js"],"ignoreList":[0],"mappings":"AAAA"}}]}"#;
    let folder = Folder::new()
        .with("dist/a.js", format!("a();\n//# sourceMappingURL={data}"))
        .with("dist/b-5NBG7WKQ.js", "b1();\n//# sourceMappingURL=https://maps.example/x/b.js.map")
        .with("dist/c.js", "c12();\ntheirs();")
        .with("dist/c.js.map", indexed)
        .with("maps/b.js.map", map(&[(0, "../src/b.js")]))
        .with("dist/a.css", ".a{}/*# sourceMappingURL=a.css.map */")
        .with("dist/a.css.map", map(&[(0, "../src/a.css")]));
    let found = rows(&folder, &["attribute", "dist", "--by", "module", "--maps", "maps"]);
    let owned = |name: &str| found.get(name).copied().unwrap_or(0);
    assert_eq!([owned("src/a.js"), owned("src/b.js"), owned("src/a.css")], [4, 5, 4]);
    assert_eq!([owned("src/c.js"), owned("lib/theirs.js")], [7, 9]);
    let packages = rows(&folder, &["attribute", "dist", "--maps", "maps"]);
    assert_eq!((packages["(own)"], packages["(third-party)"]), (20, 9));
}

#[test]
fn versions_places_and_workspaces_come_from_the_project() {
    let folder = Folder::new()
        .with("package.json", r#"{"name": "site"}"#)
        .with("node_modules/p/package.json", r#"{"version": "1.2.3"}"#)
        .with("node_modules/q/node_modules/p/package.json", r#"{"version": "0.9.0"}"#)
        .with("packages/ui/package.json", r#"{"name": "@kelpwick/ui", "version": "2.0.0"}"#)
        .with("dist/a.js", "own();p1();p09();ui();s();")
        .with(
            "dist/a.js.map",
            map(&[
                (0, "../src/a.js"),
                (6, "../node_modules/p/i.js"),
                (11, "../node_modules/q/node_modules/p/i.js"),
                (17, "../packages/ui/src/deep/x.js"),
                (22, "../node_modules/.pnpm/s@3.0.0-rc.1_r@1.0.0/node_modules/s/i.js"),
            ]),
        );
    let answer = json(folder.path(), &["attribute", "dist", "--root", "."]);
    let told: Vec<String> = answer["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| {
            let text = |key: &str| row[key].as_str().unwrap_or("-").to_owned();
            format!("{} {} {} {}", text("name"), text("version"), text("place"), sizes(row)[0])
        })
        .collect();
    let mut sorted = told.clone();
    sorted.sort();
    assert_eq!(
        sorted,
        [
            "(glue) - - 0",
            "(own) - - 6",
            "@kelpwick/ui 2.0.0 packages/ui 5",
            "p 0.9.0 node_modules/q/node_modules/p 6",
            "p 1.2.3 node_modules/p 5",
            "s 3.0.0-rc.1 node_modules/.pnpm/s@3.0.0-rc.1_r@1.0.0/node_modules/s 4",
        ]
    );
    assert_eq!(rows(&folder, &["attribute", "dist", "--root", ".", "--in", "own"]).len(), 2);
}
