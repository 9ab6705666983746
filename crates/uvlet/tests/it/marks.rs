//! Sets that are less than modules: what nothing uses, what never ran.

use serde_json::Value;

use crate::support::{Folder, demo, json, uvlet};

const BUILD: &str = "builds/esbuild-before";
const RECORDED: [&str; 4] =
    ["--coverage", "load=recordings/load.json", "--coverage", "click=recordings/click.json"];

fn total(within: &str, measure: &str) -> u64 {
    let ask = ["attribute", BUILD, "--by", "module", "--in", within, "--measure", "all"];
    let answer = json(&demo(), &[&ask[..], &RECORDED].concat());
    let sum = |row: &Value| row["sizes"][measure].as_u64().unwrap();
    let rows: u64 = answer["rows"].as_array().unwrap().iter().map(sum).sum();
    assert_eq!(rows, sum(&answer["total"]), "{within}");
    rows
}

#[test]
fn marked_bytes_and_the_others_are_all() {
    for measure in ["emitted", "gzip", "br", "zstd"] {
        for mark in ["never-ran", "leftovers"] {
            let all = total("startup(booking) and scripts", measure);
            let marked = total(&format!("startup(booking) and scripts and {mark}"), measure);
            let others = total(&format!("startup(booking) and scripts except {mark}"), measure);
            assert!(marked > 0, "{mark}");
            // In a coding each part is rounded up by itself.
            let rounded = u64::from(measure != "emitted");
            assert!(
                marked + others - all <= rounded,
                "{mark} {measure}: {marked}, {others}, {all}"
            );
        }
    }
}

#[test]
fn marks_are_what_other_commands_say() {
    let ask = ["coverage", BUILD, "load=recordings/load.json", "click=recordings/click.json"];
    let ran = json(&demo(), &ask);
    let never = &ran["entries"][0]["startup"]["never_ran"];
    let waste = json(&demo(), &["waste", BUILD, "--kind", "dead-declaration"]);
    for measure in ["emitted", "gzip"] {
        let told = total("startup(booking) and scripts and never-ran", measure);
        // Bits of a coding are brought to whole ones cell by cell here, and stretch by stretch there.
        let rounded = if measure == "emitted" { 0 } else { 3 };
        assert!(told.abs_diff(never[measure].as_u64().unwrap()) <= rounded, "{told} {never}");
        let dead = waste["recoverable"][measure].as_u64().unwrap();
        assert!(total("leftovers", measure).abs_diff(dead) <= rounded, "{dead}");
    }
}

#[test]
fn without_what_tells_them_marks_are_not_judged() {
    let folder = Folder::new().with(
        "uvlet.toml",
        "[budget.unused]\ntotal = \"leftovers\"\nat_most = \"200 B\"\n\
         [budget.idle]\ntotal = \"startup(booking) and scripts and never-ran\"\nat_most = \"8 kB\"\n",
    );
    let build = demo().join(BUILD);
    let build = build.to_str().unwrap();
    let recorded: Vec<String> = RECORDED
        .iter()
        .map(|one| one.replace("recordings", demo().join("recordings").to_str().unwrap()))
        .collect();
    let recorded: Vec<&str> = recorded.iter().map(String::as_str).collect();
    let verdicts = |build: &str, more: &[&str]| {
        let gate = json(folder.path(), &[&["gate", build], more].concat());
        let rows = gate["budgets"].as_array().unwrap().iter();
        let mut rows: Vec<String> = rows
            .map(|row| {
                format!("{} {}", row["name"].as_str().unwrap(), row["verdict"].as_str().unwrap())
            })
            .collect();
        rows.sort();
        rows
    };
    let record = |name: &str, more: &[&str]| {
        let said = uvlet(folder.path(), &[&["record", build, "-o", name], more].concat());
        assert_eq!(said.status, 0, "{}", said.err);
    };
    record("bare.json", &[]);
    record("whole.json", &["--with-texts"]);
    let held = ["idle met", "unused met"];
    assert_eq!(verdicts(build, &recorded), held);
    assert_eq!(verdicts("whole.json", &recorded), held);
    let status = |arguments: &[&str]| uvlet(folder.path(), arguments).status;
    assert_eq!(status(&["gate", build]), 2, "no recording tells what never ran");
    assert_eq!(status(&["gate", "bare.json"]), 2, "no text tells what nothing uses");
    let said = uvlet(folder.path(), &["attribute", "bare.json", "--in", "leftovers"]);
    assert!(said.status == 2 && said.err.contains("--with-texts"), "{}", said.err);
    let said = uvlet(folder.path(), &["attribute", build, "--in", "never-ran"]);
    assert!(said.status == 2 && said.err.contains("--coverage"), "{}", said.err);
}
