//! The JSON forms: schemas that are current, and strict readers that a changed key fails.

use std::{env, fs, path::Path};

use rstest::rstest;
use serde::{Deserialize, de::DeserializeOwned};
use uvlet_audit::ask::{attribute::Attribution, declaration::WhyDeclaration, why::Why};
use uvlet_read::PluginFile;
use uvlet_record::Record;
use uvlet_view::json::{
    compare::Comparison, coverage::Coverage, gate::Gate, requests::Requests, survey::Survey,
    waste::Waste, what_if::WhatIf,
};

use crate::support::{SAMPLES, demo, json, uvlet};

/// `UVLET_WRITE_SCHEMAS=1 cargo test schemas` writes them anew.
#[rstest]
#[case("survey", uvlet_view::json::schema::<Survey<'static>>())]
#[case("attribute", uvlet_view::json::schema::<Attribution>())]
#[case("gate", uvlet_view::json::schema::<Gate<'static>>())]
#[case("why", uvlet_view::json::schema::<Why>())]
#[case("why-declaration", uvlet_view::json::schema::<WhyDeclaration>())]
#[case("waste", uvlet_view::json::schema::<Waste<'static>>())]
#[case("compare", uvlet_view::json::schema::<Comparison<'static>>())]
#[case("coverage", uvlet_view::json::schema::<Coverage<'static>>())]
#[case("requests", uvlet_view::json::schema::<Requests<'static>>())]
#[case("what-if", uvlet_view::json::schema::<WhatIf<'static>>())]
#[case("record", uvlet_view::json::plain_schema::<Record>())]
#[case("plugin", uvlet_view::json::plain_schema::<PluginFile>())]
fn schemas_are_current(#[case] name: &str, #[case] schema: String) {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join(format!("../../docs/schema/{name}.json"));
    if env::var_os("UVLET_WRITE_SCHEMAS").is_some() {
        fs::create_dir_all(path.parent().unwrap()).unwrap();
        fs::write(&path, &schema).unwrap();
    }
    let is_current = fs::read_to_string(&path).unwrap() == schema;
    assert!(is_current, "docs/schema/{name}.json is not; run with UVLET_WRITE_SCHEMAS=1");
}

/// The survey once more, declared from its description: an added, lost or renamed key fails here.
mod strict {
    #![expect(dead_code, reason = "what is declared is what is tested")]

    use super::Deserialize;

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    pub struct Survey {
        uvlet: About,
        encoders: Encoders,
        notices: Vec<Notice>,
        build: Build,
        entries: Vec<Entry>,
        visits: Vec<Visit>,
        elsewhere: Vec<Elsewhere>,
        chunks: Vec<Chunk>,
        kinds: Vec<Kind>,
        totals: Files,
        set_aside: Vec<SetAside>,
        aside: Vec<Aside>,
        unplaced: Vec<String>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    pub struct Attribution {
        uvlet: About,
        encoders: Encoders,
        notices: Vec<Notice>,
        by: String,
        r#in: Option<String>,
        rows: Vec<Row>,
        total: Total,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    pub struct Gate {
        uvlet: About,
        encoders: Encoders,
        notices: Vec<Notice>,
        verdict: String,
        reasons: Vec<Reason>,
        budgets: Vec<Budget>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct About {
        schema: u32,
        version: String,
        command: String,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Encoders {
        gzip: Encoder,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Encoder {
        name: String,
        level: u32,
        shares: String,
        precompressed: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Notice {
        code: String,
        message: String,
        r#where: Option<String>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Build {
        label: String,
        bundler: Option<String>,
        bundler_version: Option<String>,
        framework: Option<String>,
        framework_version: Option<String>,
        mode: String,
        mode_evidence: Vec<String>,
        target: String,
        target_basis: String,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Sizes {
        emitted: u64,
        gzip: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Files {
        sizes: Sizes,
        file_count: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Total {
        sizes: Sizes,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Entry {
        name: String,
        aliases: Vec<String>,
        routes: Vec<String>,
        pages: Vec<String>,
        found_by: String,
        startup: Startup,
        at_once: Files,
        at_once_rounds: u64,
        deferred: Deferred,
        carried: Option<Sizes>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Visit {
        route: String,
        entry: String,
        sizes: Sizes,
        file_count: u64,
        adds: Files,
        after: Vec<After>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct After {
        route: String,
        sizes: Sizes,
        file_count: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Elsewhere {
        url: String,
        by: String,
        entries: Vec<String>,
        when: String,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Deferred {
        sizes: Sizes,
        file_count: u64,
        loads: Vec<Load>,
        unlisted: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Load {
        request: String,
        route: Option<String>,
        by: Option<String>,
        when: String,
        sizes: Sizes,
        files: Vec<String>,
        mostly: Option<String>,
        others: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Startup {
        sizes: Sizes,
        file_count: u64,
        files: Vec<String>,
        rounds: u64,
        requests: Vec<Request>,
        own: Sizes,
        third_party: Sizes,
        glue: Sizes,
        assets: Sizes,
        unattributed: Sizes,
        exclusive: Sizes,
        shared: Sizes,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Request {
        path: String,
        round: u64,
        by: Option<String>,
        hint: bool,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Chunk {
        name: String,
        holds: Option<Holds>,
        files: Vec<String>,
        sizes: Sizes,
        startup_of: Vec<String>,
        deferred_of: Vec<String>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Holds {
        heaviest: String,
        more: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Kind {
        kind: String,
        sizes: Sizes,
        file_count: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct SetAside {
        target: String,
        reason: String,
        file_count: u64,
        bytes: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Aside {
        path: String,
        kind: String,
        bytes: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Row {
        row: String,
        name: String,
        version: Option<String>,
        place: Option<String>,
        sizes: Sizes,
        source: Option<u64>,
        basis: String,
        chunks: Vec<String>,
        /// Only where it was asked for.
        #[serde(default)]
        if_removed: Option<Saved>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Saved {
        gzip: i64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Reason {
        code: String,
        message: String,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Budget {
        app: Option<String>,
        name: String,
        item: Option<String>,
        selector: String,
        limit_kind: String,
        measure: String,
        base: Option<u64>,
        allowed: Option<u64>,
        is: Option<u64>,
        over_by: u64,
        least: u64,
        most: u64,
        verdict: String,
        because: Vec<Reason>,
        heaviest: Vec<Heavy>,
        grew: Vec<Grew>,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Grew {
        name: String,
        by: u64,
    }

    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Heavy {
        row: String,
        name: String,
        sizes: Sizes,
    }
}

fn reads<T: DeserializeOwned>(text: &str) -> serde_json::Result<()> {
    serde_json::from_str::<T>(text).map(|_| ())
}

#[rstest]
#[case("survey", reads::<strict::Survey>)]
#[case("attribute", reads::<strict::Attribution>)]
#[case("gate", reads::<strict::Gate>)]
fn outputs_hold_the_described_keys(
    #[case] command: &str,
    #[case] read: fn(&str) -> serde_json::Result<()>,
) {
    for sample in SAMPLES {
        let said = uvlet(&demo(), &[command, sample, "--format", "json"]);
        read(&said.out).unwrap_or_else(|error| panic!("{command} {sample}: {error}"));
        if command == "attribute" {
            let said = uvlet(&demo(), &[command, sample, "--if-removed", "--format", "json"]);
            assert!(said.out.contains("\"if_removed\"") && read(&said.out).is_ok());
        }
    }
}

/// Keys by where they stand, as they are described; an added, lost or renamed one fails here.
#[rstest]
#[case(&["why", "esbuild-before", "package(moorline)"], &[
    ("", "at_startup chains edges encoders importers leaves_with_it lies_in modules notices sizes stays subject subject_kind uvlet"),
    ("/chains", "entry steps when"),
    ("/chains/0/steps", "by module names package"),
    ("/importers", "by module names package"),
    ("/lies_in", "deferred_of file sizes startup_of"),
])]
#[case(&["waste", "esbuild-before"], &[
    ("", "at_startup encoders findings judged notices predicted_together recoverable removable_at_startup unjudged_styles uvlet"),
    ("/findings", "advice at bound by_entry cause id kind parts places predicted recoverable title waived where"),
    ("/findings/0/by_entry", "entry sizes"),
    ("/judged", "bytes has_failed kind lacks needs of"),
])]
#[case(&["compare", "esbuild-before", "esbuild-after", "--by", "module"], &[
    ("", "after before chunks elsewhere encoders entries modules not_compared notices owners_known packages uvlet waste"),
    ("/entries", "after before name return_visit"),
    ("/packages", "after asked_by before cause estimated modules name row versions"),
    ("/modules", "after before cause estimated name row"),
    ("/chunks", "after because before change sizes_after sizes_before"),
    ("/waste", "after before id title"),
])]
fn answers_hold_the_described_keys(#[case] arguments: &[&str], #[case] described: &[(&str, &str)]) {
    let answer = json(&demo().join("builds"), arguments);
    for (place, keys) in described {
        let value = answer.pointer(place).unwrap_or_else(|| panic!("{place}"));
        let value = value.get(0).unwrap_or(value);
        let found: Vec<&str> = value.as_object().unwrap().keys().map(String::as_str).collect();
        let mut sorted = found.clone();
        sorted.sort_unstable();
        assert_eq!(sorted.join(" "), *keys, "{place}");
    }
}
