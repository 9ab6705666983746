//! Promises held and broken, and what the exit status says.

use rstest::rstest;

use crate::support::{Folder, SAMPLES, demo, json, uvlet};

#[rstest]
#[case(SAMPLES[0], 1, "BROKEN")]
#[case(SAMPLES[1], 0, "HELD")]
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
            "a at_most broken 18 8",
            "a warn_above warned 18 16",
            "b warn_above warned 3 1",
            "b at_most held 3 0"
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
fn nearly_broken_still_holds() {
    let toml = "[budget.all]\ntotal = \"everything\"\nwarn_above = \"2 B\"\n";
    let said = uvlet(build().with("uvlet.toml", toml).path(), &["gate", "dist"]);
    assert_eq!(said.status, 0);
    assert!(said.out.contains("near") && said.out.starts_with("HELD"), "{}", said.out);
}

#[test]
fn forbidding_a_package_that_is_not_there_is_kept_and_said() {
    let toml = "[budget.no-plots]\ntotal = \"package(burgee-plot)\"\nat_most = \"0 B\"\n";
    let said = uvlet(build().with("uvlet.toml", toml).path(), &["gate", "dist"]);
    assert_eq!(said.status, 0);
    assert!(said.out.contains("`burgee-plot`, which this build does not hold"), "{}", said.out);
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
#[case::entry(
    "[budget.a]\ntotal = \"startup(idnex)\"\nat_most = \"1 kB\"\n",
    "no entry is called `idnex`, did you mean index?"
)]
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
