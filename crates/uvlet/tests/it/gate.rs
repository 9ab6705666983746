//! Budgets held and broken, and what the exit status says.

use rstest::rstest;

use crate::support::{Folder, SAMPLES, demo, json, map, uvlet};

#[rstest]
#[case(SAMPLES[0], 1, "BROKEN")]
#[case(SAMPLES[1], 0, "MET")]
fn the_samples(#[case] build: &str, #[case] status: i32, #[case] first: &str) {
    let said = uvlet(&demo(), &["gate", build]);
    assert_eq!(said.status, status, "{}", said.err);
    assert!(said.out.starts_with(first), "{}", said.out);
}

fn build() -> Folder {
    Folder::new()
        .with("dist/index.html", "<script type=module src=a.js></script>")
        .with("dist/a.js", "import'./b.js';a()")
        .with("dist/b.js", "b()")
}

#[test]
fn one_row_per_item_and_limit() {
    let folder = build().with(
        "uvlet.toml",
        "[budget.scripts]\neach = \"chunk(*)\"\nat_most = \"10 B\"\nwarn_above = \"2 B\"\nmeasure = \"emitted\"\n",
    );
    let answer = json(folder.path(), &["gate", "dist"]);
    assert_eq!(answer["verdict"], "broken");
    let rows: Vec<String> = answer["budgets"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| {
            let text = |key: &str| row[key].as_str().unwrap().to_owned();
            let (is, over) = (&row["is"], &row["over_by"]);
            format!("{} {} {} {is} {over}", text("item"), text("limit_kind"), text("verdict"))
        })
        .collect();
    assert_eq!(
        rows,
        [
            "index at_most broken 18 8",
            "index warn_above warned 18 16",
            "b warn_above warned 3 1",
            "b at_most met 3 0"
        ]
    );
}

#[test]
fn a_budget_in_br_is_judged_by_what_the_streams_spend() {
    let toml =
        "[budget.plots]\ntotal = \"package(burgee-plot)\"\nat_most = \"9 kB\"\nmeasure = \"br\"\n";
    let folder = Folder::new().with("uvlet.toml", toml);
    let build = demo().join(SAMPLES[0]);
    let build = build.to_str().unwrap();
    let held = json(folder.path(), &["gate", build]);
    let within = ["attribute", build, "--in", "package(burgee-plot)", "--measure", "br"];
    let whole = json(folder.path(), &within)["total"]["sizes"]["br"].clone();
    assert_eq!((&held["verdict"], &held["budgets"][0]["is"]), (&"broken".into(), &whole));
    assert_eq!(held["encoders"]["br"]["shares"], "traced");
    let said = uvlet(folder.path(), &["gate", build]).out;
    assert!(said.contains("Sizes are br by rust-brotli 8.0.4, level 11."), "{said}");
}

#[test]
fn a_warning_is_said_and_counted() {
    let toml = "[budget.all]\ntotal = \"everything\"\nat_most = \"1 kB\"\nwarn_above = \"2 B\"\n";
    let folder = build().with("uvlet.toml", toml);
    let said = uvlet(folder.path(), &["gate", "dist"]);
    assert_eq!(said.status, 0);
    assert!(said.out.starts_with("MET with 1 warning: dist meets 2 of 2 limits."), "{}", said.out);
    assert!(said.out.contains("over its warning line of 2 B"), "{}", said.out);
    let all = uvlet(folder.path(), &["gate", "dist", "--show", "all"]).out;
    assert!(all.contains("below its 1 kB"), "{all}");
    let folder = folder.with("uvlet.toml", toml.replace("1 kB", "3 B"));
    let all = uvlet(folder.path(), &["gate", "dist", "--show", "all"]).out;
    assert!(all.contains("over its 3 B") && all.contains("over its warning line"), "{all}");
}

/// Two scripts of which one has a map: what is in the other may be anything.
fn partly_mapped() -> Folder {
    Folder::new()
        .with("dist/index.html", "<script type=module src=a.js></script>")
        .with("dist/a.js", "import'./b.js';own()")
        .with("dist/a.js.map", map(&[(0, "../src/a.js"), (15, "../node_modules/tidecalc/i.js")]))
        .with("dist/b.js", "theirs()")
}

/// Verdict of the only limit, exit status, and the bounds.
fn judged(folder: Folder, budget: &str) -> (String, i32, [u64; 2]) {
    let toml = format!("[budget.one]\nmeasure = \"emitted\"\n{budget}");
    let folder = folder.with("uvlet.toml", toml);
    let said = uvlet(folder.path(), &["gate", "dist", "--format", "json"]);
    let answer: serde_json::Value = serde_json::from_str(&said.out).unwrap_or_default();
    let row = &answer["budgets"][0];
    let bounds = ["least", "most"].map(|key| row[key].as_u64().unwrap_or(0));
    (row["verdict"].as_str().unwrap_or(&said.err).to_owned(), said.status, bounds)
}

#[rstest]
#[case::nobody_knows("total = \"package(ropework)\"\nat_most = \"0 B\"", "undecided", 2, [0, 8])]
#[case::banned("absent = \"package(ropework)\"", "undecided", 2, [0, 8])]
#[case::there_for_certain("absent = \"package(tidecalc)\"", "broken", 1, [5, 13])]
#[case::over_at_least("total = \"third-party and startup(*)\"\nat_most = \"4 B\"", "broken", 1, [5, 13])]
#[case::within_at_most("total = \"third-party and startup(*)\"\nat_most = \"13 B\"", "met", 0, [5, 13])]
#[case::between("total = \"third-party and startup(*)\"\nat_most = \"9 B\"", "undecided", 2, [5, 13])]
#[case::of_files("total = \"startup(index)\"\nat_most = \"1 kB\"", "met", 0, [66, 66])]
#[case::taken_all_the_same(
    "absent = \"package(ropework)\"\n[gate]\nallow_unattributed = \"8 B\"", "met", 0, [0, 0]
)]
#[case::misspelt("total = \"package(tidecacl)\"\nat_most = \"1 kB\"", "undecided", 2, [0, 8])]
#[case::misspelt_each("each = \"package(tidecacl)\"\nat_most = \"1 kB\"", "undecided", 2, [0, 8])]
#[case::not_near("total = \"package(ropework)\"\nat_most = \"1 kB\"", "met", 0, [0, 8])]
#[case::no_match("each = \"package(rope*)\"\nat_most = \"0 B\"", "unjudged", 0, [0, 0])]
#[case::no_page("total = \"startup(idnex)\"\nat_most = \"1 kB\"", "undecided", 2, [0, 0])]
#[case::warns_only("total = \"third-party\"\nwarn_above = \"9 B\"", "unjudged", 0, [5, 13])]
fn what_is_not_known_is_not_held(
    #[case] budget: &str,
    #[case] verdict: &str,
    #[case] status: i32,
    #[case] bounds: [u64; 2],
) {
    assert_eq!(judged(partly_mapped(), budget), (verdict.to_owned(), status, bounds), "{budget}");
}

#[test]
fn a_misspelt_page_is_told_with_its_place_and_the_others_are_judged() {
    let toml = "[budget.a]\ntotal = \"startup(idnex)\"\nat_most = \"1 kB\"\n[budget.b]\ntotal = \"everything\"\nat_most = \"1 B\"\n";
    let said = uvlet(build().with("uvlet.toml", toml).path(), &["gate", "dist"]);
    assert_eq!(said.status, 1);
    assert!(said.out.contains("broken     b: "), "{}", said.out);
    let flat = said.out.split_whitespace().collect::<Vec<_>>().join(" ");
    let told = "undecided a: cannot be judged: uvlet.toml, line 2, column 9: no entry is called `idnex`, did you mean index?";
    assert!(flat.contains(told), "{flat}");
}

/// What bundlers write themselves, without a map, is nobody's package; a style may hold one, unless the
/// ban is on scripts.
#[test]
fn the_usual_rest_without_maps_leaves_a_ban_decided() {
    let folder = Folder::new()
        .with(
            "dist/index.html",
            "<link rel=stylesheet href=a.css><script type=module src=a.js></script>",
        )
        .with("dist/a.css", ".a{}")
        .with("dist/a.js", "import'./preload-helper-C1x2y3z4.js';own()")
        .with("dist/a.js.map", map(&[(0, "../src/a.js")]))
        .with(
            "dist/preload-helper-C1x2y3z4.js",
            "export const p=e=>e;addEventListener('vite:preloadError',p)",
        );
    let judge = |selector: &str| {
        let toml = format!("[budget.ban]\nabsent = \"{selector}\"\n");
        std::fs::write(folder.path().join("uvlet.toml"), toml).unwrap();
        uvlet(folder.path(), &["gate", "dist"])
    };
    assert_eq!(judge("package(ropework) and scripts").status, 0);
    let open = judge("package(ropework)");
    assert_eq!(open.status, 2);
    let flat = open.out.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(flat.contains("owner: a.css (4 B), which `and scripts` leaves out"), "{flat}");
}

#[test]
fn a_correct_ban_is_quiet() {
    let toml = "[budget.no-plots]\nabsent = \"package(burgee-plot)\"\n";
    let folder = build()
        .with("dist/a.js.map", map(&[(0, "../src/a.js")]))
        .with("dist/b.js.map", map(&[(0, "../src/b.js")]));
    let said = uvlet(folder.with("uvlet.toml", toml).path(), &["gate", "dist"]);
    assert_eq!(said.status, 0, "{}", said.out);
    assert!(!said.out.contains("burgee") && !said.out.contains("note:"), "{}", said.out);
}

/// The sample site with its faults mended, by every bundler: nothing is left undecided.
#[rstest]
fn healthy_builds_are_decided(
    #[values("esbuild", "rollup", "rspack", "vite", "webpack")] bundler: &str,
) {
    let [before, after] = ["before", "after"].map(|state| format!("builds/{bundler}-{state}"));
    let answer = json(&demo(), &["gate", &after, "--against", &before]);
    let rows = answer["budgets"].as_array().unwrap();
    let verdicts: Vec<&str> = rows.iter().map(|row| row["verdict"].as_str().unwrap()).collect();
    assert!(
        verdicts.len() > 10 && verdicts.iter().all(|v| ["met", "warned", "waived"].contains(v))
    );
    assert_eq!(answer["verdict"], "met");
}

#[test]
fn what_comes_at_once_is_said_beside_a_startup_budget() {
    let folder = Folder::new()
        .with("dist/index.html", "<script type=module src=a.js></script>")
        .with("dist/a.js", "import('./big.js')")
        .with("dist/big.js", "b".repeat(5000))
        .with("uvlet.toml", "measure = \"emitted\"\n[budget.start]\ntotal = \"startup(index)\"\nat_most = \"1 kB\"\n[budget.now]\ntotal = \"at-once(index)\"\nat_most = \"1 kB\"\n");
    let answer = json(folder.path(), &["gate", "dist"]);
    assert_eq!(answer["budgets"][0]["name"], "now");
    assert_eq!(answer["budgets"][0]["is"], 5056);
    assert_eq!(answer["notices"][0]["code"], "at-once");
    let survey = json(folder.path(), &["survey", "dist"]);
    let at_once = &survey["entries"][0]["at_once"];
    assert_eq!((&at_once["file_count"], &at_once["sizes"]["emitted"]), (&3.into(), &5056.into()));
    assert_eq!(survey["entries"][0]["deferred"]["loads"][0]["when"], "at-once");
    let first = uvlet(folder.path(), &["survey", "dist", "--measure", "emitted"]).out;
    assert!(
        first.starts_with(
            "Before it runs, index downloads 56 B (emitted) in 2 files, plus 5 kB immediately"
        ),
        "{first}"
    );
}

#[rstest]
#[case::unknown_key(
    "[budget.a]\ntotal = \"own\"\nat_mots = \"1 kB\"\n",
    "uvlet.toml:3:1: unknown key `at_mots` in [budget.a], did you mean at_most?"
)]
#[case::limit(
    "[budget.a]\ntotal = \"own\"\nat_most = \"lots\"\n",
    "uvlet.toml:3:11: `at_most`: unknown unit `lots`"
)]
#[case::measure("measure = \"zip\"\n", "uvlet.toml:1:11: `measure`: unknown measure `zip`")]
#[case::selector(
    "[budget.a]\ntotal = \"startup(index\"\nat_most = \"1 kB\"\n",
    "uvlet.toml:2:9: `total`: selector `startup(index` column 14: expected `)`"
)]
#[case::warn_above(
    "[budget.a]\ntotal = \"own\"\nat_most = \"1 kB\"\nwarn_above = \"2 kB\"\n",
    "uvlet.toml:4:14: `warn_above` is over `at_most`"
)]
#[case::ban_with_a_limit("[budget.a]\nabsent = \"own\"\nat_most = \"1 kB\"\n", "takes no limit")]
#[case::both(
    "[budget.a]\ntotal = \"own\"\neach = \"chunk(*)\"\nat_most = \"1 kB\"\n",
    "has both `total` and `each`"
)]
#[case::each_or("[budget.a]\neach = \"chunk(*) or own\"\nat_most = \"1 kB\"\n", "not `or`")]
#[case::no_limit("[budget.a]\ntotal = \"own\"\n", "has no limit")]
#[case::no_budget("", "holds no budget")]
#[case::toml("[budget\n", "uvlet.toml:1:")]
#[case::level("[level]\ngzip = 12\n", "uvlet.toml:2:8: `gzip` takes a whole number from 0 to 9")]
fn a_wrong_configuration_is_one_line_and_no_verdict(#[case] toml: &str, #[case] message: &str) {
    let said = uvlet(build().with("uvlet.toml", toml).path(), &["gate", "dist"]);
    assert_eq!((said.status, said.out.as_str()), (2, ""), "{}", said.err);
    assert_eq!(said.err.lines().count(), 1, "{}", said.err);
    assert!(said.err.contains(message), "{}", said.err);
}

/// A package's script of so many bytes, with its map, under a name.
fn with_package(folder: Folder, place: &str, package: &str, count: i64) -> Folder {
    let text = "tide(1);".repeat(usize::try_from(count).unwrap());
    let source = format!("../node_modules/{package}/index.js");
    let segments: Vec<(i64, &str)> = (0..count).map(|n| (n * 8, source.as_str())).collect();
    folder.with(&format!("{place}.js"), text).with(&format!("{place}.js.map"), map(&segments))
}

fn grown(settings: &str, arguments: &[&str]) -> (i32, serde_json::Value) {
    let toml = format!("measure = \"emitted\"\n[budget.g]\n{settings}\n");
    let mut folder = Folder::new()
        .with("uvlet.toml", toml)
        .with("old/index.html", "<script src=a.js></script>")
        .with("new/index.html", "<script src=a.js></script>")
        .with("new/more.html", "<script src=b.js></script>");
    folder = with_package(folder, "old/a", "ropework", 100);
    folder = with_package(folder, "new/a", "ropework", 150);
    folder = with_package(folder, "new/b", "fairlead", 30);
    let mut all = vec!["gate", "new"];
    all.extend(arguments);
    let status = uvlet(folder.path(), &all).status;
    let answer = match status {
        2 => serde_json::Value::Null,
        _ => json(folder.path(), &all),
    };
    (status, answer)
}

#[rstest]
#[case("total = \"package(ropework)\"\ngrow_at_most = \"400 B\"", "met", 400)]
#[case("total = \"package(ropework)\"\ngrow_at_most = \"399 B\"", "broken", 400)]
#[case("total = \"package(ropework)\"\ngrow_at_most = \"50%\"", "met", 400)]
#[case("total = \"package(ropework)\"\ngrow_at_most = \"49.9%\"", "broken", 400)]
// What is new counts from nothing; a percentage of nothing is no limit.
#[case("total = \"package(fairlead)\"\ngrow_at_most = \"239 B\"", "broken", 240)]
#[case("total = \"package(fairlead)\"\ngrow_at_most = \"240 B\"", "met", 240)]
#[case("total = \"package(fairlead)\"\ngrow_at_most = \"10%\"", "unjudged", 240)]
fn growth(#[case] settings: &str, #[case] verdict: &str, #[case] is: i64) {
    let (_, answer) = grown(settings, &["--against", "old"]);
    let row = &answer["budgets"][0];
    assert_eq!(row["verdict"], verdict, "{row}");
    assert_eq!(row["limit_kind"], "grow_at_most");
    let of = |key: &str| row[key].as_i64().unwrap_or(0);
    assert_eq!(of("is") - of("base"), is, "{row}");
    let grew = row["grew"][0]["by"].as_i64().unwrap_or(0);
    assert_eq!(grew, if verdict == "broken" { is } else { 0 }, "{row}");
}

#[test]
fn growth_without_a_build_before() {
    let settings = "total = \"startup(*)\"\ngrow_at_most = \"1 B\"";
    let (status, answer) = grown(settings, &[]);
    assert_eq!((status, answer["budgets"][0]["verdict"].as_str()), (0, Some("unjudged")));
    assert_eq!(grown(settings, &["--against", "nowhere"]).0, 2);
    let (status, answer) = grown(settings, &["--against", "nowhere", "--against-optional"]);
    assert_eq!((status, answer["budgets"][0]["verdict"].as_str()), (0, Some("unjudged")));
    assert_eq!(grown(settings, &["--against", "old"]).0, 1);
}

#[rstest]
#[case(1, "broken")]
#[case(2, "met")]
#[case(3, "met")]
fn files_are_counted(#[case] limit: u32, #[case] verdict: &str) {
    let folder = build().with(
        "uvlet.toml",
        format!("[budget.requests]\ntotal = \"startup(*) and scripts\"\nfiles_at_most = {limit}\n"),
    );
    let row = &json(folder.path(), &["gate", "dist"])["budgets"][0];
    assert_eq!((&row["verdict"], &row["measure"]), (&verdict.into(), &"files".into()));
    assert_eq!((row["is"].as_u64(), row["allowed"].as_u64()), (Some(2), Some(limit.into())));
}

#[test]
fn some_budgets_alone() {
    let toml = "measure = \"emitted\"\n[budget.one]\ntotal = \"startup(*)\"\nat_most = \"1 B\"\n\
                [budget.two]\ntotal = \"startup(*)\"\nat_most = \"1 kB\"\n";
    let folder = build().with("uvlet.toml", toml);
    assert_eq!(uvlet(folder.path(), &["gate", "dist"]).status, 1);
    assert_eq!(uvlet(folder.path(), &["gate", "dist", "--only", "two"]).status, 0);
    let tried = |limit: &str| uvlet(folder.path(), &["gate", "dist", "--try", limit]);
    assert_eq!(tried("one.at_most=1 kB").status, 0);
    assert_eq!(tried("two.files_at_most=1").status, 1);
    for (limit, remedy) in [("tow.at_most=1 kB", "two"), ("two.at_mots=1 kB", "at_most")] {
        let said = tried(limit);
        assert!(said.status == 2 && said.err.contains(remedy), "{}", said.err);
    }
    let said = uvlet(folder.path(), &["gate", "dist", "--only", "tow"]);
    assert!(said.status == 2 && said.err.contains("did you mean two"), "{}", said.err);
}

/// What a change brought in comes before all limits, with the own module that imports it: from what the
/// bundler said, and from the sources in maps alone.
#[rstest]
fn a_comment_begins_with_what_grew_and_who_brought_it_in(#[values(true, false)] described: bool) {
    let mut folder = Folder::new();
    for build in ["esbuild-before", "esbuild-after"] {
        for file in std::fs::read_dir(demo().join("builds").join(build)).unwrap() {
            let (path, name) = file.map(|file| (file.path(), file.file_name())).unwrap();
            let to = format!("{build}/{}", name.to_str().unwrap());
            if described || path.extension().is_none_or(|end| end != "json") {
                folder = folder.with(&to, std::fs::read(path).unwrap());
            }
        }
    }
    let settings = demo().join("uvlet.toml");
    let judged = |build: &str, base: &str| {
        let against = ["gate", build, "--against", base, "--format", "markdown", "--config"];
        uvlet(folder.path(), &[&against[..], &[settings.to_str().unwrap()]].concat()).out
    };
    let said = judged("esbuild-before", "esbuild-after");
    let first = said.lines().find(|line| line.starts_with("- ")).unwrap();
    for part in [
        "booking starts with 9.7 kB (gzip) more than before",
        "`burgee-plot` by 2.7 kB, new and brought in by `node_modules/@kelpwick/ui/src/plot-card.js`",
    ] {
        assert!(first.contains(part), "{first}");
    }
    let turned = judged("esbuild-after", "esbuild-before");
    assert!(!turned.contains("more than before"), "{turned}");
}
