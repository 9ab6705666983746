//! Sizes on the wire: several codings at several levels, twins, what is kept between runs, and what
//! files lose without a row.

use std::{
    fs,
    io::Write,
    path::{Path, PathBuf},
    thread,
};

use assert_cmd::Command;
use flate2::{Compression, write::GzEncoder};
use rstest::rstest;
use serde_json::Value;
use walkdir::{DirEntry, WalkDir};

use crate::support::{Folder, SAMPLES, demo, json, map, uvlet};

/// A text, and what Node's brotli made of it.
fn streams() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../uvlet-ledger/tests/streams")
}

fn ferries() -> Vec<u8> {
    fs::read(streams().join("ferries.txt")).unwrap()
}

fn sum(record: &Value, file: usize, coding: &str) -> u64 {
    let cells = record["cells"].as_array().unwrap().iter().filter(|cell| cell["file"] == file);
    cells.map(|cell| cell["bits"][coding].as_u64().unwrap()).sum()
}

#[rstest]
fn parts_are_the_file_bit_by_bit_at_every_level(
    #[values("gzip=1,br=5", "gzip=6,br=9", "gzip=9,br=11")] levels: &str,
) {
    for build in SAMPLES {
        let arguments = ["record", build, "--measure", "gzip,br", "--level", levels];
        let said = uvlet(&demo(), &arguments);
        let saved: Value = serde_json::from_str(&said.out).unwrap();
        let record = &saved["record"];
        let mut traced = 0;
        for (at, file) in record["files"].as_array().unwrap().iter().enumerate() {
            for coding in ["gzip", "br"] {
                let bytes = file["encoded"][coding].as_u64().unwrap();
                assert_eq!(sum(record, at, coding), 8 * bytes, "{build} {}", file["path"]);
                if file["runs"]["end"].as_u64() > file["runs"]["start"].as_u64() {
                    assert_eq!(file["shares"][coding], "traced");
                    traced += 1;
                }
            }
        }
        assert!(traced > 0);
        let level = |coding: &str| record["encoders"][coding]["level"].as_u64().unwrap();
        assert_eq!(format!("gzip={},br={}", level("gzip"), level("br")), levels);
    }
}

#[test]
fn a_table_has_a_column_per_measure_and_marks_what_is_estimated() {
    let said = uvlet(&demo(), &["attribute", SAMPLES[0], "--measure", "br,zstd", "--width", "100"]);
    let head = said.out.lines().find(|line| line.starts_with("package")).unwrap();
    let columns: Vec<&str> = head.split("  ").map(str::trim).filter(|c| !c.is_empty()).collect();
    assert_eq!(columns, ["package", "br, kB", "share", "basis", "zstd, kB", "chunks"]);
    let moorline = said.out.lines().find(|line| line.starts_with("moorline  ")).unwrap();
    assert!(moorline.contains("mapped") && moorline.contains("≈"), "{moorline}");
    assert!(said.out.contains("br by rust-brotli 8.0.4, level 11, and zstd by zstd 1."));
    let all = json(&demo(), &["attribute", SAMPLES[0], "--measure", "all"]);
    let total = all["total"]["sizes"].as_object().unwrap();
    assert_eq!(total.keys().collect::<Vec<_>>(), ["emitted", "gzip", "br", "zstd"]);
    for measure in total.keys() {
        let rows = all["rows"].as_array().unwrap().iter();
        let sum: u64 = rows.map(|row| row["sizes"][measure].as_u64().unwrap()).sum();
        assert_eq!(total[measure], sum);
    }
    assert_eq!(all["encoders"]["zstd"]["shares"], "proportional");
    assert_eq!(all["encoders"]["br"]["shares"], "traced");
}

/// What is compared, predicted and explained is said in every measure that is asked for.
#[rstest]
#[case(&["compare", "esbuild-before", "esbuild-after"], "As emitted: esbuild-before to esbuild-after:")]
#[case(&["what-if", "esbuild-before", "--without", "moorline"], "As emitted:\nentry ")]
#[case(&["why", "esbuild-before", "moorline"], "kB (emitted) in ")]
fn answers_are_in_all_measures(#[case] words: &[&str], #[case] expected: &str) {
    let builds = demo().join("builds");
    let said = uvlet(&builds, &[words, &["--measure", "gzip,emitted"]].concat());
    assert!(said.out.contains(expected), "{}{}", said.out, said.err);
}

/// Under `br`, a page's script is what Node made of it, or what the own encoder makes.
#[test]
fn twins_are_traced_and_damaged_ones_are_not_used() {
    let twin = fs::read(streams().join("quality-5.br")).unwrap();
    let half = ferries().len() / 2;
    let segments = [(0, "src/tide.js"), (i64::try_from(half).unwrap(), "src/quay.js")];
    let site = |twin: &[u8]| {
        Folder::new()
            .with("dist/index.html", "<script type=module src=app.js></script>")
            .with("dist/app.js", ferries())
            .with("dist/app.js.map", map(&segments))
            .with("dist/app.js.br", twin)
    };
    let size = |answer: &Value| answer["entries"][0]["startup"]["sizes"]["br"].as_u64().unwrap();
    let survey = |site: &Folder, more: &[&str]| {
        json(site.path(), &[&["survey", "dist", "--measure", "br"], more].concat())
    };
    let good = site(&twin);
    let page = size(&survey(&good, &[])) - own_size(&ferries());
    let with = survey(&good, &["--precompressed"]);
    assert_eq!(size(&with) - page, twin.len() as u64);
    assert_eq!(with["encoders"]["br"]["precompressed"], 1);
    let modules = json(
        good.path(),
        &[
            "attribute",
            "dist",
            "--by",
            "module",
            "--in",
            "scripts",
            "--measure",
            "br",
            "--precompressed",
        ],
    );
    assert_eq!(modules["encoders"]["br"]["shares"], "traced");
    assert_eq!(modules["total"]["sizes"]["br"], twin.len());
    let mut damaged = twin;
    damaged[4000] ^= 4;
    let with = survey(&site(&damaged), &["--precompressed"]);
    assert_eq!(size(&with) - page, own_size(&ferries()));
    let notices = with["notices"].as_array().unwrap();
    assert!(notices.iter().any(|notice| notice["code"] == "copy-differs"));
    assert_eq!(with["encoders"]["br"]["precompressed"], 0);
}

fn own_size(text: &[u8]) -> u64 {
    uvlet_ledger::coding::Coding::Br.encode(text, 11, &|_| {}).unwrap().len() as u64
}

#[test]
fn other_levels_and_measures_than_a_record_holds_are_refused() {
    let folder = Folder::new().with("uvlet.toml", "[level]\ngzip = 6\n");
    let build = demo().join(SAMPLES[0]);
    let build = build.to_str().unwrap();
    let at_nine = ["record", build, "--level", "gzip=9", "-o", "nine.json.gz"];
    assert_eq!(uvlet(folder.path(), &at_nine).status, 0);
    let said = uvlet(folder.path(), &["survey", "nine.json.gz"]);
    assert_eq!((said.status, said.err.lines().count()), (2, 1));
    assert!(said.err.contains("has gzip of level 9, not 6"), "{}", said.err);
    let said = uvlet(folder.path(), &["survey", "nine.json.gz", "--measure", "br"]);
    assert!(said.err.contains("`uvlet record BUILD --measure br -o FILE`"), "{}", said.err);
    let at_nine = ["survey", "nine.json.gz", "--level", "gzip=9", "--precompressed"];
    let said = uvlet(folder.path(), &at_nine);
    assert!(
        said.status == 2 && said.err.contains("write it again with --precompressed"),
        "{}",
        said.err
    );
    // All that a record holds is no question of more.
    fs::write(folder.path().join("uvlet.toml"), "").unwrap();
    let all = json(folder.path(), &["survey", "nine.json.gz", "--measure", "all"]);
    let totals = all["totals"]["sizes"].as_object().unwrap();
    assert_eq!(totals.keys().collect::<Vec<_>>(), ["emitted", "gzip"]);
    fs::write(folder.path().join("uvlet.toml"), "[level]\ngzip = 6\n").unwrap();
    let six = json(folder.path(), &["survey", build]);
    assert_eq!(six["encoders"]["gzip"]["level"], 6);
}

/// What a run says with a cache folder, which it must also say without.
fn survey_with(cache: &Path, more: &[&str]) -> String {
    let output = Command::cargo_bin("uvlet")
        .unwrap()
        .current_dir(demo())
        .env("XDG_CACHE_HOME", cache)
        .env_remove("CI")
        .args(["survey", SAMPLES[2], "--measure", "br", "--level", "br=5"])
        .args(more)
        .output()
        .unwrap();
    assert!(output.status.success() && output.stderr.is_empty());
    String::from_utf8(output.stdout).unwrap()
}

#[test]
fn what_is_kept_between_runs_never_changes_an_answer() {
    let folder = tempfile::tempdir().unwrap();
    let cache = folder.path().join("deep/down");
    let right = survey_with(&cache, &["--no-cache"]);
    assert!(!cache.exists());
    thread::scope(|scope| {
        let runs: Vec<_> = (0..4).map(|_| scope.spawn(|| survey_with(&cache, &[]))).collect();
        assert!(runs.into_iter().all(|run| run.join().unwrap() == right));
    });
    let entries = || {
        let files = WalkDir::new(cache.join("uvlet")).into_iter().map(Result::unwrap);
        files.filter(|entry| entry.file_type().is_file()).map(DirEntry::into_path)
    };
    assert!(entries().count() > 3);
    for (at, entry) in entries().enumerate() {
        let mut bytes = fs::read(&entry).unwrap();
        match at % 3 {
            0 => bytes.truncate(bytes.len() / 2),
            1 => bytes.clear(),
            _ => bytes.iter_mut().for_each(|byte| *byte ^= 0x55),
        }
        fs::write(entry, bytes).unwrap();
    }
    assert_eq!(survey_with(&cache, &[]), right);
    assert_eq!(survey_with(&cache, &[]), right);
    // Nothing can be kept where a file stands in the folder's place, or on a device that is full.
    fs::write(folder.path().join("file"), "").unwrap();
    for nowhere in [folder.path().join("file"), "/dev/full".into(), "/proc".into()] {
        assert_eq!(survey_with(&nowhere, &[]), right);
    }
}

/// Held against zlib by hand, on a text cut by hand.
#[test]
fn if_removed_is_the_files_size_less_that_without_the_row() {
    let (tide, quay) = ("let t=['spring','neap','ebb'];", "let q=t.map(x=>x+' tide at the quay');");
    let text = format!("{tide}{quay}{tide}");
    let at = |n: usize| i64::try_from(n).unwrap();
    let segments = [
        (0, "node_modules/tidecalc/a.js"),
        (at(tide.len()), "src/quay.js"),
        (at(tide.len() + quay.len()), "node_modules/tidecalc/a.js"),
    ];
    let site = Folder::new()
        .with("dist/index.html", "<script src=app.js></script>")
        .with("dist/app.js", &text)
        .with("dist/app.js.map", map(&segments));
    let size = |text: &str| {
        let mut encoder = GzEncoder::new(Vec::new(), Compression::new(9));
        encoder.write_all(text.as_bytes()).unwrap();
        i64::try_from(encoder.finish().unwrap().len()).unwrap()
    };
    let arguments = ["attribute", "dist", "--in", "scripts", "--if-removed"];
    let answer = json(site.path(), &arguments);
    let saved = |name: &str| {
        let row = answer["rows"].as_array().unwrap().iter().find(|row| row["name"] == name);
        row.unwrap()["if_removed"]["gzip"].as_i64().unwrap()
    };
    assert_eq!(saved("tidecalc"), size(&text) - size(quay));
    assert_eq!(saved("(own)"), size(&text) - size(&format!("{tide}{tide}")));
    assert_eq!(uvlet(site.path(), &["record", "dist", "--with-texts", "-o", "r.json"]).status, 0);
    let again = json(site.path(), &["attribute", "r.json", "--in", "scripts", "--if-removed"]);
    assert_eq!(again["rows"], answer["rows"]);
    assert_eq!(uvlet(site.path(), &["record", "dist", "-o", "bare.json"]).status, 0);
    let said = uvlet(site.path(), &["attribute", "bare.json", "--if-removed"]);
    assert!(said.status == 2 && said.err.contains("holds no texts"), "{}", said.err);
}
