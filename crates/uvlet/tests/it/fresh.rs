//! The sample builds, made once more from their sources by the bundlers themselves.

use std::{
    collections::BTreeMap,
    env, fs,
    path::{Path, PathBuf},
    process::{Command, Output},
    sync::LazyLock,
};

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, demo, json, uvlet};

/// Folders that are made anew.
const MADE: [&str; 3] = ["node_modules", ".site", "builds"];

fn copy(from: &Path, to: &Path) {
    fs::create_dir_all(to).unwrap();
    for entry in fs::read_dir(from).unwrap().map(Result::unwrap) {
        let name = entry.file_name();
        let made = MADE.iter().any(|made| name == *made);
        if entry.file_type().unwrap().is_file() {
            fs::copy(entry.path(), to.join(name)).unwrap();
        } else if !made {
            copy(&entry.path(), &to.join(name));
        }
    }
}

fn run(folder: &Path, program: &str, arguments: &[&str]) -> String {
    let Output { status, stdout, stderr } =
        Command::new(program).current_dir(folder).args(arguments).output().unwrap();
    let [said, wrong] = [stdout, stderr].map(|text| String::from_utf8_lossy(&text).into_owned());
    assert!(status.success(), "{program} {arguments:?}: {said}{wrong}");
    said
}

/// A build's record, but for what a bundler words differently from run to run: the lists in its
/// notes on what it could not optimise.
fn record(site: &Path, build: &str) -> Value {
    // What is installed around the site is no part of its builds.
    let settings = ["--config", "../uvlet.toml"];
    let arguments = [&["record", build, "--root", build], &settings[..]].concat();
    let said = uvlet(&site.join("builds"), &arguments);
    let mut record: Value = serde_json::from_str(&said.out).unwrap();
    let mut record = record["record"].take();
    for module in record["modules"].as_array_mut().unwrap() {
        module.as_object_mut().unwrap().remove("bailouts");
    }
    for aside in record["aside"].as_array_mut().unwrap() {
        aside.as_object_mut().unwrap().remove("bytes");
    }
    record
}

/// Where two values first differ, and what stands there.
fn difference(one: &Value, other: &Value, at: String) -> Option<String> {
    match (one, other) {
        (Value::Object(ours), Value::Object(theirs)) if ours.keys().eq(theirs.keys()) => ours
            .iter()
            .find_map(|(key, value)| difference(value, &theirs[key], format!("{at}/{key}"))),
        (Value::Array(ours), Value::Array(theirs)) if ours.len() == theirs.len() => {
            let mut pairs = ours.iter().zip(theirs).enumerate();
            pairs.find_map(|(place, (one, other))| difference(one, other, format!("{at}/{place}")))
        }
        _ => (one != other).then(|| format!("{at}: {one:.300} or {other:.300}")),
    }
}

/// The sample site in a folder of its own, with what its builds need; none without npm.
static SITE: LazyLock<Option<Folder>> = LazyLock::new(|| {
    if Command::new("npm").arg("--version").output().is_err() {
        assert!(env::var_os("UVLET_FRESH").is_none(), "npm is needed to build the sample site");
        return None;
    }
    let folder = Folder::new();
    let fresh = folder.path().join("demo");
    copy(&demo(), &fresh);
    run(&fresh, "npm", &["install", "--no-audit", "--no-fund", "--prefer-offline"]);
    Some(folder)
});

/// Needs npm and its registry: without npm it is left out, but where `UVLET_FRESH` is set, as in
/// continuous integration.
#[test]
fn fresh_builds_give_the_committed_records() {
    let Some(folder) = &*SITE else { return };
    let fresh = folder.path().join("demo");
    // The sample site uses the plugin that the program hands out.
    let plugin = folder.path().join("crates/uvlet/plugin");
    fs::create_dir_all(&plugin).unwrap();
    let plugin = plugin.join("uvlet-plugin.mjs");
    let said = uvlet(folder.path(), &["plugin", "-o", plugin.to_str().unwrap()]);
    assert_eq!(said.status, 0, "{}", said.err);
    run(&fresh, "node", &["build.mjs"]);
    let mut builds = 0;
    for build in fs::read_dir(demo().join("builds")).unwrap().map(Result::unwrap) {
        let name = build.file_name().into_string().unwrap();
        // Frameworks are built apart, as they need a newer Node.js.
        if name.starts_with("sveltekit-") {
            continue;
        }
        let (committed, made) = (record(&demo(), &name), record(&fresh, &name));
        assert!(committed["modules"].as_array().unwrap().len() > 50, "{name}");
        let moved = difference(&committed, &made, String::new());
        assert_eq!(moved, None, "{name} is not what its sources give: build the demo again");
        builds += 1;
    }
    assert_eq!(builds, 13);
}

/// What mends one fault of the site: a name for it, the files of the mended site, the kind of finding.
const STEPS: [(&str, &[&str], &str); 5] = [
    ("lists", &["shared/lists.js"], "barely-used:34b14f0e"),
    (
        "ui",
        &[
            "shared/ui.js",
            "crew/weather-card.js",
            "crew/workload-plot.js",
            "timetable/tide-strip.js",
        ],
        "barrel-pull:d6508667",
    ),
    ("format", &["shared/format.js"], "whole-family:eddeb50c"),
    ("fares", &["shared/fares.js"], "kept-for-effect:9ba9ae0f"),
    ("dialog", &["booking/main.js"], "deferrable:d87ea767"),
];

/// The bundlers by which each step is built.
const BUNDLERS: [&str; 3] = ["esbuild", "vite", "webpack"];

/// The site with its faults, and with one of them mended at a time; none without npm.
static MENDED: LazyLock<Option<PathBuf>> = LazyLock::new(|| {
    let folder = SITE.as_ref()?;
    let demo = folder.path().join("steps");
    copy(&folder.path().join("demo"), &demo);
    let modules = folder.path().join("demo/node_modules");
    std::os::unix::fs::symlink(modules, demo.join("node_modules")).unwrap();
    let mut layout = fs::read_to_string(demo.join("layout.mjs")).unwrap();
    for (step, files, _) in STEPS {
        for file in files {
            let to = demo.join("site").join(step).join("src").join(file);
            fs::create_dir_all(to.parent().unwrap()).unwrap();
            fs::copy(demo.join("site/after/src").join(file), to).unwrap();
        }
        layout.push_str(&format!("layout.{step} = layout.before;\n"));
    }
    fs::write(demo.join("layout.mjs"), layout).unwrap();
    fs::create_dir_all(folder.path().join("crates/uvlet/plugin")).unwrap();
    let plugin = folder.path().join("crates/uvlet/plugin/uvlet-plugin.mjs");
    let said = uvlet(folder.path(), &["plugin", "-o", plugin.to_str().unwrap()]);
    assert_eq!(said.status, 0, "{}", said.err);
    let bundlers = BUNDLERS.iter().flat_map(|name| ["--bundler", name]);
    let arguments: Vec<&str> =
        ["build.mjs", "--into", "built"].into_iter().chain(bundlers).collect();
    run(&demo, "node", &arguments);
    Some(demo.join("built"))
});

/// What a finding promises is the most that mending it wins, and nearly all of it.
#[rstest]
fn what_is_mended_wins_what_was_said(#[values("esbuild", "vite", "webpack")] bundler: &str) {
    let Some(built) = &*MENDED else { return };
    let before = built.join(format!("{bundler}-before"));
    let answer = json(&before, &["waste", ".", "--measure", "emitted"]);
    let mut seen = 0;
    for (step, _, id) in STEPS {
        let findings = answer["findings"].as_array().unwrap();
        let Some(finding) = findings.iter().find(|finding| finding["id"] == id) else { continue };
        // Without splitting esbuild loads nothing on demand.
        if (bundler, step) == ("esbuild", "dialog") {
            continue;
        }
        let (from, to) = (starts(&before), starts(&built.join(format!("{bundler}-{step}"))));
        for (entry, said) in promised(finding) {
            let won = from[&entry] - to[&entry];
            // The runtime of the bundler differs by some bytes, and by what a first load on demand brings.
            let is_most = won * 100 <= said * 105;
            let is_near = step == "dialog" || won * 100 >= said * 90;
            assert!(is_most && is_near, "{bundler}, {step}: {entry} wins {won} of {said}");
            seen += 1;
        }
    }
    assert!(seen >= 5, "{bundler}: {seen}");
}

/// The patch for what is safe applies, builds, and wins what the finding promised where the bundler goes by
/// what packages say.
#[test]
fn what_is_patched_builds_and_wins() {
    let Some(built) = &*MENDED else { return };
    let demo = built.parent().unwrap();
    let site = demo.join(".site/before");
    copy(&built.join("vite-before"), &site.join("output"));
    let settings = demo.join("uvlet.toml");
    let settings = ["--config", settings.to_str().unwrap()];
    let ask =
        [&["waste", "output", "--root", ".", "--patch", "safe.patch"], &settings[..]].concat();
    let said = uvlet(&site, &ask);
    assert_eq!(said.status, 0, "{}", said.err);
    assert!(said.out.contains("barrel-pull:d6508667"), "{}", said.out);
    run(&site, "git", &["init", "-q", "."]);
    run(&site, "git", &["apply", "safe.patch"]);
    let package = "package.json";
    let patched = fs::read_to_string(site.join("node_modules/@kelpwick/ui").join(package)).unwrap();
    assert!(patched.contains("\"sideEffects\": [\"./src/plot-card.js\"]"), "{patched}");
    fs::write(demo.join("packages/@kelpwick/ui@0.8.0").join(package), patched).unwrap();
    run(demo, "node", &["build.mjs", "--bundler", "vite", "--into", "patched"]);
    let before = built.join("vite-before");
    let answer = json(&before, &["waste", ".", "--kind", "barrel-pull"]);
    let said = promised(&answer["findings"][0])["booking"];
    let won = starts(&before)["booking"] - starts(&demo.join("patched/vite-before"))["booking"];
    assert!(won * 100 >= said * 90 && won * 100 <= said * 110, "{won} of {said}");
}

/// Steps that say what mending does, by the name of that.
const PLANS: [(&str, &[&str]); 3] = [
    ("ui", &["--bypass", "src/shared/ui.js", "--bypass", "node_modules/@kelpwick/ui/src/index.js"]),
    (
        "format",
        &[
            "--without",
            "folder(node_modules/moorline/src/locale) except module(**/en.js) except module(**/da.js)",
        ],
    ),
    ("dialog", &["--defer", "src/booking/refund-dialog.js"]),
];

/// Each page of a real rebuild is what was predicted of it: emitted within half a percent, gzip within one.
#[rstest]
fn what_is_predicted_is_what_a_rebuild_gives(
    #[values("esbuild", "vite", "webpack")] bundler: &str,
) {
    let Some(built) = &*MENDED else { return };
    let before = built.join(format!("{bundler}-before"));
    for (step, plan) in PLANS {
        // Without splitting esbuild loads nothing on demand, which is a doubt of the answer.
        let ask = [&["what-if", ".", "--measure", "emitted,gzip"], plan].concat();
        let answer = json(&before, &ask);
        if (bundler, step) == ("esbuild", "dialog") {
            let doubts = answer["doubts"].as_array().unwrap();
            assert!(doubts.iter().any(|doubt| doubt["code"] == "no-splitting"), "{answer}");
            continue;
        }
        let real = json(&built.join(format!("{bundler}-{step}")), &["survey", "."]);
        for page in real["entries"].as_array().unwrap() {
            let rows = answer["entries"].as_array().unwrap();
            let row = rows.iter().find(|row| row["name"] == page["name"]).unwrap();
            for (measure, thousandths) in [("emitted", 5), ("gzip", 10)] {
                let is = page["startup"]["sizes"][measure].as_i64().unwrap();
                let told = row["after"]["startup"]["sizes"][measure].as_i64().unwrap();
                assert!(
                    (is - told).abs() * 1000 <= is * thousandths,
                    "{bundler}, {step}, {} {measure}: {told} for {is}",
                    page["name"]
                );
            }
        }
    }
}

/// What a module of the patterns writes, by every bundler, each in a folder of its own.
fn bundled(folder: &Folder, module: &str, function: &str) -> Vec<PathBuf> {
    let patterns = folder.path().join("demo/patterns");
    copy(&Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/patterns"), &patterns);
    let into = format!("{}-{function}", module.trim_matches(['.', '/']));
    let built = run(&patterns, "node", &["bundle.mjs", &into, module, function]);
    built.lines().map(|name| patterns.join(&into).join(name)).collect()
}

/// What each entry starts with, as emitted.
fn starts(build: &Path) -> BTreeMap<String, i64> {
    let survey = json(build, &["survey", ".", "--measure", "emitted"]);
    let entries = survey["entries"].as_array().unwrap().iter();
    let startup = |entry: &Value| entry["startup"]["sizes"]["emitted"].as_i64().unwrap();
    entries.map(|entry| (entry["name"].as_str().unwrap().to_owned(), startup(entry))).collect()
}

/// The bytes that a finding promises an entry at startup, as emitted.
fn promised(finding: &Value) -> BTreeMap<String, i64> {
    let shares = finding["by_entry"].as_array().unwrap().iter();
    let bytes = |share: &Value| share["sizes"]["emitted"].as_i64().unwrap();
    shares.map(|share| (share["entry"].as_str().unwrap().to_owned(), bytes(share))).collect()
}

/// Code that is there twice is found, and mending it wins no more than was said and most of that.
#[test]
fn what_is_there_twice_is_worth_what_is_said() {
    let Some(folder) = &*SITE else { return };
    let mended = bundled(folder, "./editions.mjs", "mended");
    for (build, mended) in bundled(folder, "./editions.mjs", "write").iter().zip(&mended) {
        let kinds = ["--kind", "twin-packages", "--kind", "copied-helper"];
        let ask = |build: &Path| json(build, &[&["waste", "."], &kinds[..]].concat());
        let answer = ask(build);
        let findings = answer["findings"].as_array().unwrap();
        let ids: Vec<&str> = findings.iter().map(|f| f["id"].as_str().unwrap()).collect();
        let kind = |id: &&str| id.split(':').next().unwrap().to_owned();
        let found: Vec<String> = ids.iter().map(kind).collect();
        // Rollup by itself does not look into packages.
        if build.ends_with("rollup") {
            assert_eq!(found, ["copied-helper"]);
            continue;
        }
        assert_eq!(found, ["twin-packages", "copied-helper"], "{}", build.display());
        let title = findings[0]["title"].as_str().unwrap();
        assert!(title.contains("src/vendor/tides.js is in tidecalc"), "{title}");
        let title = findings[1]["title"].as_str().unwrap();
        assert!(title.ends_with("written into 3 modules"), "{title}");
        let said: i64 = findings.iter().flat_map(|one| promised(one).into_values()).sum();
        let won = starts(build)["index"] - starts(mended)["index"];
        // Minifiers find shorter names for what is left.
        let is_within = won * 100 <= said * 101 && won * 10 >= said * 8;
        assert!(is_within, "{}: {won} of {said}", build.display());
        assert_eq!(ask(mended)["findings"], Value::Array(Vec::new()), "{}", mended.display());
    }
}

/// What is found is cut out of the scripts, which then say the same; nothing that is used is found.
#[test]
fn what_nothing_uses_can_be_cut_out() {
    let Some(folder) = &*SITE else { return };
    let mut found = 0;
    for build in bundled(folder, "./patterns.mjs", "write") {
        let name = build.file_name().unwrap().to_str().unwrap();
        let answer = json(&build, &["waste", ".", "--kind", "dead-declaration"]);
        let script = build.join("main.js");
        let text = fs::read(&script).unwrap();
        let mut cut = text.clone();
        let findings = answer["findings"].as_array().unwrap();
        let places = findings.iter().flat_map(|finding| finding["places"].as_array().unwrap());
        let number =
            |place: &Value, key: &str| usize::try_from(place[key].as_u64().unwrap()).unwrap();
        let mut places: Vec<_> =
            places.map(|place| (number(place, "start"), number(place, "length"))).collect();
        places.sort_unstable();
        places.dedup();
        for (start, length) in places.into_iter().rev() {
            cut.drain(start..start + length);
        }
        assert!(name.starts_with("vite") || cut.len() < text.len(), "{name}: nothing was found");
        fs::write(build.join("cut.mjs"), cut).unwrap();
        fs::write(build.join("whole.mjs"), text).unwrap();
        let whole = run(&build, "node", &["whole.mjs"]);
        assert!(whole.lines().count() > 60, "{name}: {whole}");
        assert_eq!(run(&build, "node", &["cut.mjs"]), whole, "{name}");
        // Other bundlers put values in the place of names, which then are of no use.
        if name.starts_with("esbuild") {
            let titles = findings.iter().map(|finding| finding["title"].as_str().unwrap());
            let names = titles.flat_map(|title| title.rsplit(": ").next().unwrap().split(", "));
            let names: Vec<&str> = names.collect();
            assert!(names.iter().all(|name| name.starts_with("dead")), "{name}: {names:?}");
            found += names.len();
        }
    }
    assert!(found > 75, "{found}");
}
