//! Apps as people build them: a React app with a component kit, a Vue app with another, a Next.js shop
//! and two plain pages by webpack, each of twenty and more well-known packages at locked versions.

use std::{
    env, fs,
    path::{Path, PathBuf},
    process::Command,
    sync::LazyLock,
};

use rstest::rstest;
use serde_json::Value;

use crate::{
    report::browser,
    support::{Folder, json, uvlet},
};

fn real() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/real")
}

/// All apps, unpacked.
static APPS: LazyLock<Folder> = LazyLock::new(|| {
    let folder = Folder::new();
    for app in ["react-kit", "vue-kit", "next-shop", "web-tools"] {
        let packed = fs::File::open(real().join(format!("{app}.tar.zst"))).unwrap();
        let packed = zstd::Decoder::new(packed).unwrap();
        tar::Archive::new(packed).unpack(folder.path()).unwrap();
    }
    folder
});

/// What is packed was built from the lock file that stands beside it.
#[rstest]
fn packed_of_its_lock(#[values("react-kit", "vue-kit", "next-shop", "web-tools")] app: &str) {
    let lock = fs::read_to_string(real().join(app).join("package-lock.json")).unwrap();
    let packed = APPS.read(&format!("{app}/package-lock.json"));
    assert!(packed == lock, "the lock of {app} changed: tests/real/pack.sh {app} builds it again");
}

fn gzip(sizes: &Value) -> u64 {
    sizes["gzip"].as_u64().unwrap_or(0)
}

/// Every command ends well, sums are the bytes on disk, and no saving is larger than the build.
#[rstest]
fn every_command_answers(#[values("react-kit", "vue-kit", "next-shop", "web-tools")] app: &str) {
    let desk = Folder::new();
    let build = APPS.path().join(app).join("dist");
    let build = build.to_str().unwrap();
    let survey = json(desk.path(), &["survey", build]);
    let whole = gzip(&survey["totals"]["sizes"]);
    for by in ["package", "module", "file", "chunk"] {
        let answer = json(desk.path(), &["attribute", build, "--by", by]);
        let rows = answer["rows"].as_array().unwrap().iter();
        let sum: u64 = rows.map(|row| gzip(&row["sizes"])).sum();
        assert_eq!(sum, gzip(&answer["total"]["sizes"]), "{app} by {by}");
    }
    let waste = json(desk.path(), &["waste", build, "--top", "0"]);
    for finding in waste["findings"].as_array().unwrap() {
        let by_entry = finding["by_entry"].as_array().unwrap().iter();
        let most = by_entry.map(|share| gzip(&share["sizes"])).max().unwrap_or(0);
        assert!(most.max(gzip(&finding["recoverable"])) <= whole, "{app}: {finding}");
    }
    let judged = waste["judged"].as_array().unwrap().iter();
    let seen = judged
        .filter(|one| one["bytes"].as_u64().unwrap() * 100 >= one["of"].as_u64().unwrap() * 95);
    assert!(seen.count() >= 8, "{app}: {}", waste["judged"]);
    let quiet: [&[&str]; 5] = [
        &["what-if", build, "--suggest"],
        &["report", build, "-o", "page.html"],
        &["why", build, "lodash"],
        &["propose", build],
        &["gate", build],
    ];
    for arguments in quiet {
        let said = uvlet(desk.path(), arguments);
        let may_fail = arguments[0] == "why";
        assert!(said.status == 0 || may_fail, "{arguments:?}: {}{}", said.out, said.err);
    }
    uvlet(desk.path(), &["record", build, "--with-texts", "-o", "record.json.zst"]);
    let again = json(desk.path(), &["waste", "record.json.zst", "--top", "0"]);
    assert_eq!(again["findings"], waste["findings"], "{app}");
    let same = json(desk.path(), &["compare", "record.json.zst", build]);
    let chunks = same["chunks"].as_array().unwrap();
    assert!(chunks.iter().all(|chunk| chunk["change"] == "same"), "{app}");
    assert!(same["waste"].as_array().unwrap().is_empty(), "{app}: {}", same["waste"]);
}

/// A kind says of itself what it says with all others: those whose bytes take wrappers with them.
#[rstest]
#[case("react-kit", "deferrable")]
#[case("vue-kit", "kept-for-effect")]
#[case("next-shop", "deferrable")]
#[case("web-tools", "copied-helper")]
fn kinds_share_nothing(#[case] app: &str, #[case] kind: &str) {
    let build = format!("{app}/dist");
    let all = json(APPS.path(), &["waste", &build, "--top", "0"]);
    let all = all["findings"].as_array().unwrap();
    let of_all: Vec<&Value> = all.iter().filter(|finding| finding["kind"] == kind).collect();
    let alone = json(APPS.path(), &["waste", &build, "--top", "0", "--kind", kind]);
    let alone: Vec<&Value> = alone["findings"].as_array().unwrap().iter().collect();
    assert!(!alone.is_empty(), "{app} {kind}");
    assert_eq!(alone, of_all, "{app} {kind}");
}

/// Needs a browser and npm, as the tests of the page do.
#[test]
fn pages_run_without_what_is_dead() {
    let Some(browser) = browser() else { return };
    let folder = Folder::new()
        .with("package.json", "{}")
        .with("run.test.mjs", fs::read(real().join("run.test.mjs")).unwrap());
    let run = |program: &str, arguments: &[&str]| {
        let output = Command::new(program)
            .current_dir(folder.path())
            .args(arguments)
            .env("CHROMIUM", &browser)
            .env("UVLET", assert_cmd::cargo::cargo_bin("uvlet"))
            .env("REAL", APPS.path())
            .output()
            .unwrap();
        let said = [output.stdout, output.stderr].concat();
        assert!(output.status.success(), "{program}: {}", String::from_utf8_lossy(&said));
    };
    run("npm", &["install", "--no-audit", "--no-fund", "--prefer-offline", "playwright-core@1"]);
    run("node", &["--test", "run.test.mjs"]);
}
