//! Every byte has an owner: sums, and the bundler's own figures as a second source.

use std::{collections::BTreeMap, fs};

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
fn rows_add_up_to_the_bytes_on_disk(#[values(0, 1)] sample: usize) {
    let build = SAMPLES[sample];
    let files = json(&demo(), &["attribute", build, "--by", "file"]);
    for row in files["rows"].as_array().unwrap() {
        let path = demo().join(build).join(row["name"].as_str().unwrap());
        assert_eq!(sizes(row)[0], fs::metadata(&path).unwrap().len(), "{}", path.display());
    }
    let on_disk: u64 = fs::read_dir(demo().join(build))
        .unwrap()
        .map(|entry| entry.unwrap())
        .filter(|entry| {
            let name = entry.file_name().into_string().unwrap();
            !name.ends_with(".map") && name != "metafile.json"
        })
        .map(|entry| entry.metadata().unwrap().len())
        .sum();
    assert_eq!(sizes(&files["total"])[0], on_disk);
    for by in ["package", "module", "file"] {
        let answer = json(&demo(), &["attribute", build, "--by", by]);
        assert_eq!(sum(&answer["rows"]), sizes(&files["total"]), "{by}");
        assert_eq!(sizes(&answer["total"]), sizes(&files["total"]), "{by}");
    }
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
    assert_eq!(rows, BTreeMap::from([("(own)", 6), ("p", 9), ("(unattributed)", 15)]));
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
    let own = json(folder.path(), &["attribute", "--in", "own"]);
    let names: Vec<_> = own["rows"].as_array().unwrap().iter().map(|row| &row["name"]).collect();
    assert_eq!(names, ["@kelpwick/ui", "(own)"]);
    let third = json(folder.path(), &["attribute", "--in", "third-party", "--measure", "emitted"]);
    assert_eq!(sizes(&third["total"])[0], 9);
}

#[test]
fn the_same_build_elsewhere_gives_the_same_answer() {
    let files = |folder: Folder| {
        folder
            .with("out/index.html", "<script type=module src=/js/a-5NBG7WKQ.js></script>")
            .with("out/js/a-5NBG7WKQ.js", "import\"./b-TRTXGIQN.js\";a()")
            .with("out/js/a-5NBG7WKQ.js.map", map(&[(22, "../../src/a.js")]))
            .with("out/js/b-TRTXGIQN.js", "b()")
            .with("out/js/b-TRTXGIQN.js.map", map(&[(0, "../../node_modules/p/b.js")]))
    };
    let (one, other) = (files(Folder::new()), files(Folder::new()));
    for command in ["survey", "attribute"] {
        let said = uvlet(one.path(), &[command, "out", "--format", "json"]).out;
        assert!(said.len() > 500);
        let full = other.path().join("out");
        assert_eq!(
            said,
            uvlet(one.path(), &[command, full.to_str().unwrap(), "--format", "json"]).out
        );
    }
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
