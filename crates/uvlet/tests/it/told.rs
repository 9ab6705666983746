//! What bundlers say of themselves, held against the files that they wrote.

use std::{collections::BTreeMap, fs, path::Path};

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, SAMPLES, demo, json, uvlet};

fn read(path: &Path) -> Value {
    serde_json::from_slice(&fs::read(path).unwrap()).unwrap()
}

fn texts(list: &Value) -> Vec<String> {
    let texts = list.as_array().into_iter().flatten();
    texts.map(|text| text.as_str().unwrap().to_owned()).collect()
}

/// A copy of a sample, of the files that pass.
fn copy(sample: &str, keep: impl Fn(&str) -> bool) -> Folder {
    let mut folder = Folder::new();
    for entry in fs::read_dir(demo().join(sample)).unwrap() {
        let path = entry.unwrap().path();
        let name = path.file_name().unwrap().to_str().unwrap().to_owned();
        if path.is_file() && keep(&name) {
            folder = folder.with(&format!("dist/{name}"), fs::read(&path).unwrap());
        }
    }
    folder
}

/// What a file, by its key, statically imports.
type Next = fn(&Value, &str) -> Vec<String>;

/// Startup as the bundler itself lists it, but for pages and pictures; the second value tells
/// whether the order is the bundler's too.
fn listed(build: &Path, entry: &str) -> (Vec<String>, bool) {
    if let Ok(text) = fs::read(build.join("stats.json")) {
        let stats: Value = serde_json::from_slice(&text).unwrap();
        let assets = stats["entrypoints"][entry]["assets"].as_array().unwrap().clone();
        return (assets.iter().map(|asset| asset["name"].as_str().unwrap().into()).collect(), true);
    }
    let (files, next): (Value, Next) = if build.join("metafile.json").exists() {
        (read(&build.join("metafile.json"))["outputs"].clone(), |outputs, file| {
            let imports = outputs[file]["imports"].as_array().into_iter().flatten();
            let wanted = imports.filter(|import| import["kind"] == "import-statement");
            let style = outputs[file]["cssBundle"].as_str().map(str::to_owned);
            wanted.map(|i| i["path"].as_str().unwrap().into()).chain(style).collect()
        })
    } else {
        (read(&build.join(".vite/manifest.json")), |files, key| texts(&files[key]["imports"]))
    };
    let is_entry = |(key, file): &(&String, &Value)| {
        file["entryPoint"] == format!("src/{entry}/main.js") || **key == format!("{entry}.html")
    };
    let mut keys = vec![files.as_object().unwrap().iter().find(is_entry).unwrap().0.clone()];
    let mut at = 0;
    while at < keys.len() {
        let more = next(&files, &keys[at]);
        keys.extend(more.into_iter().filter(|key| !keys.contains(key)).collect::<Vec<_>>());
        at += 1;
    }
    let mut listed: Vec<String> = Vec::new();
    for key in &keys {
        let file = files[key]["file"].as_str().unwrap_or(key);
        listed.push(file.trim_start_matches("dist/").to_owned());
        listed.extend(texts(&files[key]["css"]));
    }
    (listed, false)
}

#[rstest]
#[case(0, "esbuild", None)]
#[case(1, "esbuild", None)]
#[case(2, "vite", Some("8.3.8"))]
#[case(3, "vite", Some("8.3.8"))]
#[case(4, "webpack", Some("5.112.2"))]
#[case(5, "webpack", Some("5.112.2"))]
#[case(6, "rspack", Some("2.3.2"))]
#[case(7, "rspack", Some("2.3.2"))]
fn names_the_bundler_and_starts_what_it_lists(
    #[case] sample: usize,
    #[case] bundler: &str,
    #[case] version: Option<&str>,
) {
    let answer = json(&demo(), &["survey", SAMPLES[sample]]);
    assert_eq!(answer["build"]["bundler"], bundler);
    assert_eq!(answer["build"]["bundler_version"].as_str(), version);
    assert_eq!(answer["build"]["mode"], "production");
    let entries = answer["entries"].as_array().unwrap();
    let names: Vec<&str> = entries.iter().map(|entry| entry["name"].as_str().unwrap()).collect();
    assert_eq!(names, ["booking", "crew", "timetable"]);
    for entry in entries {
        let name = entry["name"].as_str().unwrap();
        let (mut expected, ordered) = listed(&demo().join(SAMPLES[sample]), name);
        let mut files = texts(&entry["startup"]["files"]);
        files.retain(|file| file.ends_with(".js") || file.ends_with(".css"));
        if !ordered {
            expected.sort();
            files.sort();
        }
        assert_eq!(files, expected, "{name}");
    }
}

/// webpack lists the chunk that only `a` opens among the children of the chunk that `b` shares.
#[test]
fn a_shared_chunk_opens_nothing_for_an_entry_that_does_not_reach_the_call() {
    let build = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/builds/shared-chunk");
    let stats = read(&build.join("stats.json"));
    let chunks = stats["chunks"].as_array().unwrap();
    let shared = chunks.iter().find(|chunk| chunk["names"][0] == "common").unwrap();
    assert_eq!(shared["children"].as_array().unwrap().len(), 1);
    let answer = json(&build, &["survey", "."]);
    let deferred: BTreeMap<&str, u64> = answer["entries"]
        .as_array()
        .unwrap()
        .iter()
        .map(|entry| {
            let count = entry["deferred"]["file_count"].as_u64().unwrap();
            (entry["name"].as_str().unwrap(), count)
        })
        .collect();
    assert_eq!(deferred, BTreeMap::from([("a", 1), ("b", 0)]));
}

type Rows = BTreeMap<String, (u64, String)>;

fn rows(folder: &Path, build: &str, by: &str, more: &[&str]) -> Rows {
    let answer = json(folder, &[&["attribute", build, "--by", by], more].concat());
    let rows = answer["rows"].as_array().unwrap().iter();
    rows.map(|row| {
        let bytes = row["sizes"]["emitted"].as_u64().unwrap();
        let place = row["place"].as_str().unwrap_or_default();
        let name = format!("{} {place}", row["name"].as_str().unwrap());
        (name, (bytes, row["basis"].as_str().unwrap_or_default().to_owned()))
    })
    .collect()
}

fn total(rows: &Rows) -> u64 {
    rows.values().map(|(bytes, _)| bytes).sum()
}

#[test]
fn four_bundlers_agree_in_the_names_of_packages() {
    for state in ["before", "after"] {
        let names = |bundler: &str| {
            let build = format!("builds/{bundler}-{state}");
            let rows = rows(&demo(), &build, "package", &[]);
            let mut names: Vec<String> = rows.into_keys().collect();
            names.retain(|name| !name.starts_with('('));
            names
        };
        let first = names("esbuild");
        assert_eq!(first.len(), if state == "before" { 13 } else { 12 }, "{first:?}");
        for bundler in ["vite", "webpack", "rspack"] {
            assert_eq!(names(bundler), first, "{bundler}, {state}");
        }
    }
}

/// Without maps, the spans of module functions must come out as the map says, modules merged into
/// one function a little less so.
#[rstest]
#[case(5)]
#[case(7)]
fn chunks_taken_apart_agree_with_their_maps(#[case] sample: usize) {
    let bare = copy(SAMPLES[sample], |name| !name.ends_with(".map"));
    let mapped = rows(&demo(), SAMPLES[sample], "module", &["--in", "scripts"]);
    let spanned = rows(bare.path(), "dist", "module", &["--in", "scripts"]);
    assert_eq!(total(&mapped), total(&spanned));
    let (mut seen, mut off) = (0, 0_u64);
    for (name, (bytes, _)) in spanned.iter().filter(|(_, (_, basis))| basis == "located") {
        let by_map = mapped.get(name).map_or(0, |(bytes, _)| *bytes);
        // These modules are small: a wrapper's bytes are a few percent of them.
        if by_map > 0 && !name.starts_with('(') {
            assert!(bytes.abs_diff(by_map) <= 64, "{name}: {bytes}, by map {by_map}");
            (seen, off) = (seen + by_map, off + bytes.abs_diff(by_map));
        }
    }
    assert!(seen > 10_000, "{seen} bytes are spanned");
    assert!(off * 40 < seen, "off by {off} of {seen}");
}

/// With the sources at hand, modules merged into one function are told apart by their words.
#[test]
fn merged_modules_are_found_by_the_words_of_their_sources() {
    let site = Folder::new();
    let add = |from: &Path, to: &str| {
        for file in walkdir::WalkDir::new(from).into_iter().map(Result::unwrap) {
            if file.file_type().is_file() {
                let inside = file.path().strip_prefix(from).unwrap().to_str().unwrap();
                let full = site.path().join(to).join(inside);
                fs::create_dir_all(full.parent().unwrap()).unwrap();
                fs::copy(file.path(), full).unwrap();
            }
        }
    };
    add(&demo().join("site/before"), "");
    for package in fs::read_dir(demo().join("packages")).unwrap().map(Result::unwrap) {
        let folder = package.file_name().into_string().unwrap();
        match folder.split_once('@') {
            Some(("fairlead-bus", "1.4.2")) => {
                add(&package.path(), "node_modules/halyard-forms/node_modules/fairlead-bus");
            }
            Some((name, _)) if !name.is_empty() => {
                add(&package.path(), &format!("node_modules/{name}"));
            }
            _ => add(&package.path().join("ui@0.8.0"), "node_modules/@kelpwick/ui"),
        }
    }
    let root = site.path().to_str().unwrap();
    let by_map = rows(&demo(), "builds/webpack-before", "package", &[]);
    let by_words = rows(&demo(), "builds/webpack-before-no-maps", "package", &["--root", root]);
    let heavy = by_map.iter().filter(|(name, (bytes, _))| {
        bytes * 100 > total(&by_map) && !name.starts_with("(a") && !name.starts_with("(g")
    });
    for (name, (bytes, _)) in heavy {
        let (estimated, basis) = &by_words[name];
        assert_eq!(basis, "estimated", "{name}");
        assert!(estimated.abs_diff(*bytes) * 10 < *bytes, "{name}: {estimated}, by map {bytes}");
    }
}

#[rstest]
#[case(0)]
#[case(1)]
fn a_metafile_counts_what_maps_show(#[case] sample: usize) {
    let bare = copy(SAMPLES[sample], |name| !name.ends_with(".map"));
    let mapped = rows(&demo(), SAMPLES[sample], "module", &[]);
    let counted = rows(bare.path(), "dist", "module", &[]);
    assert_eq!(total(&counted), total(&mapped));
    for (name, (bytes, basis)) in counted.iter().filter(|(_, (_, basis))| basis == "reported") {
        let by_map = mapped.get(name).map_or(0, |(bytes, _)| *bytes);
        assert!(bytes.abs_diff(by_map) <= 64, "{name}: {bytes} {basis}, by map {by_map}");
    }
    assert!(counted.values().filter(|(_, basis)| basis == "reported").count() > 100);
}

#[test]
fn a_development_build_is_announced_and_breaks_the_gate() {
    let build = "builds/webpack-before-development";
    let said = uvlet(&demo(), &["survey", build]);
    let first: String = said.out.lines().take(2).collect();
    assert!(first.contains("DEVELOPMENT BUILD"), "{}", said.out);
    let promise = "[budget.all]\ntotal = \"everything\"\nat_most = \"9 MB\"\n";
    let folder = Folder::new()
        .with("strict.toml", promise)
        .with("lenient.toml", format!("[gate]\nallow_development = true\n{promise}"));
    let gate = |config: &str| {
        let config = folder.path().join(config);
        json(&demo(), &["gate", build, "--config", config.to_str().unwrap()])
    };
    let strict = gate("strict.toml");
    assert_eq!(strict["verdict"], "broken");
    assert_eq!(strict["reasons"][0]["code"], "development-build");
    assert_eq!(strict["budgets"][0]["verdict"], "met");
    assert_eq!(gate("lenient.toml")["verdict"], "met");
}

#[test]
fn an_unminified_build_is_unclear_and_breaks_nothing() {
    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with(
            "dist/a.js",
            "function sail ( where ) {\n    return go ( where ) ;\n}\n\nsail ( 1 ) ;\n",
        )
        .with("uvlet.toml", "[budget.all]\ntotal = \"everything\"\nat_most = \"1 kB\"\n");
    assert_eq!(json(folder.path(), &["survey", "dist"])["build"]["mode"], "unclear");
    assert_eq!(uvlet(folder.path(), &["gate", "dist"]).status, 0);
}

#[rstest]
#[case("{\"assets\":[{\"name\":\"a.js\"}],\"chunks\":[", "ends too early at line 1 column")]
#[case("{\"ferries\":3}", "is no stats, metafile, manifest or plugin file")]
#[case("ferries", "is damaged at line 1 column 2")]
#[case(
    "{\"assets\":[{\"name\":\"z.js\"}],\"chunks\":[]}",
    "is of another build: none of its 1 scripts"
)]
#[case("{\"assets\":[],\"chunks\":[]}", "names no script")]
#[case("{\"inputs\":{\"a\":{\"bytes\":1", "ends too early")]
#[case("{\"inputs\":{},\"outputs\":{\"dist/z.js\":{\"bytes\":1}}}", "is of another build")]
fn an_unusable_description_is_one_line(#[case] text: &str, #[case] expected: &str) {
    let folder = Folder::new().with("dist/a.js", "a();").with("told.json", text);
    let said = uvlet(folder.path(), &["survey", "dist", "--description", "told.json"]);
    assert_eq!((said.status, said.out.as_str()), (2, ""));
    assert_eq!(said.err.lines().count(), 1, "{}", said.err);
    assert!(said.err.starts_with("uvlet: told.json: "), "{}", said.err);
    assert!(said.err.contains(expected), "{}", said.err);
}

#[test]
fn disagreements_with_the_folder_are_told() {
    let stats = r#"{"assets":[{"name":"a.js","size":4},{"name":"gone.js","size":9}],"modules":[]}"#;
    let folder = Folder::new()
        .with("dist/a.js", "a();\n")
        .with("dist/damaged.json", "{\"assets\":[],\"chunks\":[")
        .with("dist/stats.json", stats);
    let answer = json(folder.path(), &["survey", "dist"]);
    let codes: Vec<&str> = answer["notices"]
        .as_array()
        .unwrap()
        .iter()
        .map(|notice| notice["code"].as_str().unwrap())
        .collect();
    assert_eq!(answer["build"]["bundler"], "webpack");
    for code in ["stats-damaged", "stats-missing", "stats-off", "stats-short"] {
        assert!(codes.contains(&code), "{code} in {codes:?}");
    }
}

/// Rollup and Vite with the plugin: the sizes are the maps' either way.
#[rstest]
#[case("rollup-before", "rollup", "4.68.7")]
#[case("rollup-after", "rollup", "4.68.7")]
#[case("vite-before", "vite", "8.3.8")]
fn the_plugin_adds_edges_and_names_to_the_same_sizes(
    #[case] build: &str,
    #[case] bundler: &str,
    #[case] version: &str,
) {
    let build = format!("builds/{build}");
    let answer = json(&demo(), &["survey", &build]);
    assert_eq!(answer["build"]["bundler"], bundler);
    assert_eq!(answer["build"]["bundler_version"], version);
    assert_eq!(answer["entries"].as_array().unwrap().len(), 3);
    let record: Value = serde_json::from_str(&uvlet(&demo(), &["record", &build]).out).unwrap();
    let record = &record["record"];
    assert!(record["edges"].as_array().unwrap().len() > 100);
    assert!(record["modules"].as_array().unwrap().iter().any(|m| m["used"].is_object()));
    let folder = Folder::new();
    let (with, without) = (folder.path().join("with"), folder.path().join("without"));
    for (to, keep) in [(&with, ""), (&without, ".json")] {
        for file in walkdir::WalkDir::new(demo().join(&build)).into_iter().map(Result::unwrap) {
            let inside = file.path().strip_prefix(demo().join(&build)).unwrap();
            let name = inside.to_str().unwrap();
            if file.file_type().is_file() && (keep.is_empty() || !name.ends_with(keep)) {
                fs::create_dir_all(to.join(inside).parent().unwrap()).unwrap();
                fs::copy(file.path(), to.join(inside)).unwrap();
            }
        }
    }
    // A script without a map, the bundler's own, is glue only where the plugin says so.
    let modules = |build: &str| {
        let mut rows = rows(folder.path(), build, "module", &["--in", "scripts"]);
        rows.retain(|name, _| !name.starts_with('('));
        rows
    };
    assert_eq!(modules("with"), modules("without"));
}

#[test]
fn lengths_from_before_minification_give_shares() {
    let bare = copy("builds/rollup-before", |name| !name.ends_with(".map"));
    let mapped = rows(&demo(), "builds/rollup-before", "package", &["--in", "scripts"]);
    let estimated = rows(bare.path(), "dist", "package", &["--in", "scripts"]);
    assert_eq!(total(&estimated), total(&mapped));
    let (bytes, basis) = &estimated["moorline node_modules/moorline"];
    assert_eq!(basis, "estimated");
    let (by_map, _) = mapped["moorline node_modules/moorline"];
    assert!(bytes.abs_diff(by_map) * 5 < by_map, "{bytes}, by map {by_map}");
}

#[rstest]
#[case(&[], "browser", "client/", &[("server", 1)])]
#[case(&["--target", "server"], "server", "server/", &[("browser", 17)])]
fn each_target_is_a_build_of_its_own(
    #[case] options: &[&str],
    #[case] target: &str,
    #[case] folder: &str,
    #[case] aside: &[(&str, u64)],
) {
    let build = "builds/vite-after-two-targets";
    let answer = json(&demo(), &[&["survey", build], options].concat());
    assert_eq!(answer["build"]["target"], target);
    for entry in answer["entries"].as_array().unwrap() {
        let files = texts(&entry["startup"]["files"]);
        assert!(files.iter().all(|file| file.starts_with(folder)), "{files:?}");
    }
    let set_aside: Vec<(&str, u64)> = answer["set_aside"]
        .as_array()
        .unwrap()
        .iter()
        .map(|part| (part["target"].as_str().unwrap(), part["file_count"].as_u64().unwrap()))
        .collect();
    assert_eq!(set_aside, aside);
    let missing = uvlet(&demo(), &["survey", build, "--target", "edge"]);
    assert_eq!(missing.status, 2);
    assert!(missing.err.contains("holds no output for the edge"), "{}", missing.err);
}
