//! Exceptions to promises: up to a ceiling, until a day, for a reason.

use rstest::rstest;

use crate::support::{Folder, demo, json, uvlet};

/// A script of 100 bytes, a limit of 50, and a waiver.
fn folder(waiver: &str) -> Folder {
    let text = format!(
        "measure = \"emitted\"\n[budget.scripts]\neach = \"chunk(*)\"\nat_most = \"50 B\"\n\
         [[waiver]]\nbudget = \"scripts\"\nreason = \"split planned\"\nuntil = 2027-03-31\n{waiver}\n"
    );
    Folder::new()
        .with("uvlet.toml", text)
        .with("dist/index.html", "<script src=a.js></script><script src=b.js></script>")
        .with("dist/a.js", "a".repeat(100))
        .with("dist/b.js", "b")
}

#[rstest]
#[case("at_most = '100 B'", "2027-03-30", "waived", 0)]
#[case("at_most = '100 B'", "2027-03-31", "waived", 0)]
#[case("at_most = '100 B'", "2027-04-01", "broken", 1)]
#[case("at_most = '101 B'", "2027-03-31", "waived", 0)]
// Even an exception has a ceiling.
#[case("at_most = '99 B'", "2027-03-31", "broken", 1)]
#[case("at_most = '100 B'\nwhere = 'chunk(a)'", "2027-03-31", "waived", 0)]
#[case("at_most = '100 B'\nwhere = 'chunk(index)'", "2027-03-31", "broken", 1)]
fn a_waiver(#[case] text: &str, #[case] day: &str, #[case] verdict: &str, #[case] status: i32) {
    let folder = folder(text);
    let arguments = ["gate", "dist", "--today", day];
    assert_eq!(uvlet(folder.path(), &arguments).status, status);
    let answer = json(folder.path(), &arguments);
    let row = answer["budgets"].as_array().unwrap().iter().find(|row| row["item"] == "a").unwrap();
    assert_eq!(row["verdict"], verdict, "{row}");
    assert_eq!(answer["verdict"], if status == 0 { "met" } else { "broken" });
}

#[test]
fn a_waiver_tells_its_end_and_an_idle_one_is_named() {
    let folder = folder("at_most = '100 B'");
    let said =
        |day: &str| uvlet(folder.path(), &["gate", "dist", "--today", day, "--width", "300"]).out;
    assert!(said("2027-03-29").contains("(2 days left): split"), "{}", said("2027-03-29"));
    assert!(said("2027-04-01").contains("ended on 2027-03-31"), "{}", said("2027-04-01"));
    let folder = folder.with("dist/a.js", "a");
    let said = uvlet(folder.path(), &["gate", "dist"]);
    assert!(
        said.status == 0 && said.out.contains("waiver of scripts no longer applies"),
        "{}",
        said.out
    );
}

#[rstest]
#[case("at_most = '100 B'\nwhere = 'package(x) or chunk(a)'", "one set of names")]
#[case("where = 'chunk(a)'", "has a ceiling")]
#[case("grow_at_most = '1 B'", "no `grow_at_most` that this could waive")]
#[case("at_most = '1 B'\nfinding = 'copied-module:00000000'", "one `budget`, or one `finding`")]
#[case("at_most = '1 B'\nunti = 2027-01-01", "until")]
fn a_waiver_that_means_nothing_is_refused(#[case] text: &str, #[case] expected: &str) {
    let said = uvlet(folder(text).path(), &["gate", "dist"]);
    assert_eq!(said.status, 2);
    assert!(
        said.err.starts_with("uvlet: uvlet.toml:") && said.err.contains(expected),
        "{}",
        said.err
    );
}

#[rstest]
#[case("17 kB", "met", 0)]
// What exceeds the ceiling counts, and no more.
#[case("16 kB", "met", 478)]
#[case("4 kB", "broken", 12_478)]
fn a_finding_is_accepted_up_to_a_size(
    #[case] ceiling: &str,
    #[case] verdict: &str,
    #[case] excess: u64,
) {
    let folder = Folder::new().with(
        "uvlet.toml",
        format!(
            "[budget.copies]\nwaste = \"copied-module\"\nat_most = \"25 kB\"\nwarn_above = \"1 kB\"\n[[waiver]]\n\
             finding = \"copied-module:9601eadf\"\nat_most = \"{ceiling}\"\nreason = \"r\"\nuntil = 2027-06-30\n"
        ),
    );
    let build = demo().join("builds/esbuild-before");
    let answer = json(folder.path(), &["gate", build.to_str().unwrap(), "--today", "2027-06-30"]);
    assert_eq!(answer["verdict"], verdict, "{answer}");
    let code = if excess == 0 { "waived" } else { "over-waiver" };
    let all = json(folder.path(), &["waste", build.to_str().unwrap(), "--kind", "copied-module"]);
    let of = |value: &serde_json::Value| value["recoverable"]["gzip"].as_u64().unwrap();
    let findings = all["findings"].as_array().unwrap();
    let waived = findings.iter().find(|one| one["id"] == "copied-module:9601eadf").unwrap();
    let others = of(&all) - of(waived);
    let is = answer["budgets"][0]["is"].as_u64().unwrap();
    assert!(is.abs_diff(others + excess) <= 2, "{is} {others} {}", of(waived));
    // Every limit of the budget says what it leaves out.
    for row in answer["budgets"].as_array().unwrap() {
        assert_eq!(row["because"][0]["code"], code, "{row}");
    }
}

#[test]
fn the_verdict_in_files_for_machines() {
    let folder = folder("at_most = '100 B'").with("dist/b.js", "b".repeat(51));
    let arguments = [
        "gate",
        "dist",
        "--today",
        "2027-03-31",
        "--write",
        "junit=j.xml",
        "--write",
        "json=nowhere/x.json",
        "--write",
        "sarif=s.sarif",
        "--write",
        "markdown=m.md",
    ];
    // A file that cannot be written is said, and keeps no other from being written.
    let said = uvlet(folder.path(), &arguments);
    assert_eq!(said.status, 2, "{}{}", said.out, said.err);
    assert!(said.err.starts_with("uvlet: nowhere/x.json"), "{}", said.err);
    assert!(folder.read("m.md").starts_with("<!-- uvlet gate dist -->\n**Met"));

    let folder = folder
        .with("dist/more.html", "<script src=d.js></script>")
        .with("dist/d.js", "d".repeat(200));
    assert_eq!(uvlet(folder.path(), &arguments).status, 1);
    let report = quick_junit::Report::deserialize_from_str(&folder.read("j.xml")).unwrap();
    assert_eq!((report.failures, report.errors), (1, 0));
    let suite = &report.test_suites[0];
    let is_skipped = |case: &&quick_junit::TestCase| {
        matches!(case.status, quick_junit::TestCaseStatus::Skipped { .. })
    };
    assert_eq!((suite.failures, suite.test_cases.iter().filter(is_skipped).count()), (1, 2));

    let log: serde_json::Value = serde_json::from_str(&folder.read("s.sarif")).unwrap();
    assert_eq!(log["version"], "2.1.0");
    let run = &log["runs"][0];
    let rules = run["tool"]["driver"]["rules"].as_array().unwrap();
    let results = run["results"].as_array().unwrap();
    assert_eq!(results.len(), 3, "{log}");
    assert_eq!(results.iter().filter(|result| result["level"] == "error").count(), 1);
    assert_eq!(
        results.iter().filter(|one| one["suppressions"][0]["kind"] == "external").count(),
        2
    );
    let settings = folder.read("uvlet.toml");
    for result in results {
        assert!(rules.iter().any(|rule| rule["id"] == result["ruleId"]), "{result}");
        let region = &result["locations"][0]["physicalLocation"]["region"];
        let at = |key: &str| usize::try_from(region[key].as_u64().unwrap()).unwrap() - 1;
        let line = settings.lines().nth(at("startLine")).unwrap();
        assert!(line[at("startColumn")..].starts_with("\"chunk(*)\""), "{line}");
    }
}

#[test]
fn a_waiver_makes_no_verdict_of_a_name_that_is_not_there() {
    let toml = "measure = \"emitted\"\n[budget.start]\ntotal = \"startup(idnex)\"\nat_most = \"1 B\"\n\
                [[waiver]]\nbudget = \"start\"\nat_most = \"1 kB\"\nreason = \"r\"\nuntil = 2027-03-31\n";
    let folder = folder("at_most = '1 kB'").with("uvlet.toml", toml);
    let said = uvlet(folder.path(), &["gate", "dist", "--today", "2027-03-31"]);
    assert_eq!(said.status, 2, "{}", said.out);
    assert!(said.out.starts_with("UNDECIDED") && said.out.contains("index"), "{}", said.out);
}
