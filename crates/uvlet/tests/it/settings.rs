//! Settings over several files and for several apps, and where each comes from.

use rstest::rstest;

use crate::support::{Folder, json, uvlet};

/// A page with a script of 20 bytes, below the root of a repository.
fn repository() -> Folder {
    Folder::new()
        .with(".git/HEAD", "")
        .with("app/dist/index.html", "<script src=a.js></script>")
        .with("app/dist/a.js", "a".repeat(20))
        .with("shared.toml", SHARED)
}

const SHARED: &str = "measure = \"emitted\"\n[build]\nown = [\"@a/*\"]\n\
    [budget.scripts]\ntotal = \"scripts\"\nat_most = \"10 B\"\nwarn_above = \"5 B\"\n\
    [budget.all]\ntotal = \"everything\"\nat_most = \"1 B\"\n";

/// Name, limit and verdict of every row.
fn rows(folder: &Folder, from: &str, arguments: &[&str]) -> Vec<String> {
    let answer = json(&folder.path().join(from), &[&["gate"], arguments].concat());
    let text = |row: &serde_json::Value| {
        let words = ["app", "name", "limit_kind", "verdict"].map(|key| row[key].as_str());
        words.into_iter().flatten().collect::<Vec<_>>().join(" ")
    };
    answer["budgets"].as_array().unwrap().iter().map(text).collect()
}

#[test]
fn a_file_adds_to_what_it_extends() {
    let own = "extends = \"../shared.toml\"\n[build]\nown = [\"@b/*\"]\n\
        [budget.scripts]\nat_most = \"20 B\"\n[budget.all]\noff = true\n";
    let folder = repository().with("app/uvlet.toml", own);
    let held = ["scripts warn_above warned", "scripts at_most met"];
    assert_eq!(rows(&folder, "app", &["dist"]), held);
    let said = uvlet(&folder.path().join("app"), &["gate", "--show-settings"]).out;
    let place = |key: &str| {
        let line = said.lines().find(|line| line.starts_with(key)).unwrap_or_default();
        line.split_whitespace().last().unwrap_or_default().to_owned()
    };
    let places = ["build.own[1]", "build.own[2]", "budget.scripts.total", "budget.scripts.at_most"]
        .map(place);
    assert_eq!(places, ["../shared.toml:3", "uvlet.toml:3", "../shared.toml:5", "uvlet.toml:5"]);
    assert!(said.contains("measure = \"emitted\"") && !said.contains("budget.all.total"), "{said}");
    let tried = ["--show-settings", "--try", "scripts.at_most=7 B"];
    let said = uvlet(&folder.path().join("app"), &[&["gate"], &tried[..]].concat()).out;
    assert!(said.contains("budget.scripts.at_most = \"7 B\"") && said.contains("--try"), "{said}");
}

#[rstest]
#[case::circle(
    "extends = \"x.toml\"",
    "x.toml:1:11: extends itself: uvlet.toml → x.toml → uvlet.toml"
)]
#[case::missing("extends = \"none.toml\"", "x.toml:1:11: none.toml cannot be read: no such file")]
#[case::no_text("extends = 1", "x.toml:1:11: `extends` takes a text")]
#[case::typo(
    "[budgte.a]",
    "x.toml:1:2: unknown key `budgte` in the file, did you mean budget or build?"
)]
#[case::two_scopes("[budget.s]\neach = \"chunk(*)\"", "budget `s` has both `total` and `each`")]
fn what_is_wrong_is_said_with_its_file(#[case] extended: &str, #[case] expected: &str) {
    let extended = match extended.contains("x.toml") {
        true => "extends = \"uvlet.toml\"",
        false => extended,
    };
    let folder = repository()
        .with(
            "uvlet.toml",
            "extends = \"x.toml\"\n[budget.s]\ntotal = \"scripts\"\nat_most = \"1 B\"\n",
        )
        .with("x.toml", extended);
    let said = uvlet(folder.path(), &["gate", "app/dist"]);
    assert_eq!((said.status, said.out.as_str()), (2, ""));
    assert!(said.err.contains(expected) && said.err.lines().count() == 1, "{}", said.err);
}

#[test]
fn the_same_file_by_two_ways_counts_once() {
    let two = "extends = [\"a.toml\", \"b.toml\"]\n";
    let folder = repository()
        .with("uvlet.toml", two)
        .with("a.toml", "extends = \"shared.toml\"\n[budget.scripts]\nat_most = \"30 B\"\n")
        .with("b.toml", "extends = \"./shared.toml\"\n[budget.all]\nat_most = \"1 kB\"\n");
    let expected = ["scripts warn_above warned", "all at_most met", "scripts at_most met"];
    assert_eq!(rows(&folder, "", &["app/dist"]), expected);
}

#[test]
fn settings_are_found_up_to_the_root_of_the_repository() {
    let outer = "[budget.outer]\ntotal = \"scripts\"\nat_most = \"1 B\"\n";
    let folder = Folder::new()
        .with("uvlet.toml", outer)
        .with("repo/.git/HEAD", "")
        .with("repo/deep/er/dist/a.js", "a");
    let deep = folder.path().join("repo/deep/er");
    let said = uvlet(&deep, &["gate", "dist"]);
    assert!(
        said.status == 2 && said.err.contains("uvlet.toml: there is no such file"),
        "{}",
        said.err
    );
    let folder = folder.with("repo/uvlet.toml", outer.replace("outer", "inner"));
    assert_eq!(rows(&folder, "repo/deep/er", &["dist"]), ["inner at_most broken"]);
}

#[test]
fn the_apps_of_a_repository_are_judged_in_one_run() {
    let apps = "extends = \"shared.toml\"\n[app.shop]\nfolder = \"app/dist\"\n\
        [app.shop.budget.all]\noff = true\n\
        [app.crew.build]\nfolder = \"crew\"\n[app.crew.budget.scripts]\nat_most = \"99 B\"\n\
        [app.crew.budget.drift]\ntotal = \"scripts\"\ngrow_at_most = \"0 B\"\n\
        [[waiver]]\nbudget = \"all\"\nat_most = \"1 kB\"\nreason = \"r\"\nuntil = 2099-01-01\n";
    let folder = repository()
        .with("uvlet.toml", apps)
        .with("crew/index.html", "<script src=c.js></script>")
        .with("crew/c.js", "c".repeat(30))
        .with("base/crew/index.html", "<script src=c.js></script>")
        .with("base/crew/c.js", "c".repeat(29));
    let expected = [
        "shop scripts at_most broken",
        "crew scripts warn_above warned",
        "shop scripts warn_above warned",
        "crew all at_most waived",
        "crew drift grow_at_most unjudged",
        "crew scripts at_most met",
    ];
    assert_eq!(rows(&folder, "", &[]), expected);
    let against = ["--against", "base", "--against-optional", "--only", "drift"];
    assert_eq!(rows(&folder, "", &against), ["crew drift grow_at_most broken"]);
    // One that is not built leaves its promises open, and the others are judged.
    let folder = folder.with("uvlet.toml", apps.replace("\"crew\"", "\"none\""));
    let said = uvlet(folder.path(), &["gate"]);
    let told = "crew/all: cannot be judged: none: cannot be read";
    assert!(said.status == 1 && said.out.contains(told), "{}", said.out);
    assert_eq!(rows(&folder, "", &["--app", "shop"]).len(), 2);
    let said = uvlet(folder.path(), &["gate", "--app", "shpo"]);
    assert!(said.status == 2 && said.err.contains("did you mean shop?"), "{}", said.err);
}

#[test]
fn every_setting_of_the_written_file_can_be_set() {
    let folder =
        repository().with("dist/index.html", "<script src=a.js></script>").with("dist/a.js", "a");
    let said = uvlet(folder.path(), &["config", "--into", "uvlet.toml"]);
    assert_eq!(said.status, 0, "{}", said.err);
    assert_eq!(uvlet(folder.path(), &["config", "--into", "uvlet.toml"]).status, 2);
    let text = folder.read("uvlet.toml");
    assert_eq!(uvlet(folder.path(), &["survey", "dist"]).status, 0);
    let is_setting = |line: &&str| line.starts_with('#') && !line.starts_with("# ");
    assert!(text.lines().filter(is_setting).count() > 40);
    let set: Vec<&str> =
        text.lines().map(|line| if is_setting(&line) { &line[1..] } else { line }).collect();
    let set = set.join("\n").replace("shared-budgets.toml", "shared.toml");
    let folder = folder.with("uvlet.toml", set);
    let said = uvlet(folder.path(), &["gate", "--show-settings", "--app", "shop"]);
    assert!(
        said.status == 0 && said.out.contains("budget.start.at_most = \"190 kB\""),
        "{}",
        said.err
    );
}

/// What the reader refuses, an editor marks: they know the same keys in every table.
#[rstest]
#[case("", "")]
#[case("[app.shop]", "/properties/app/additionalProperties")]
#[case("[build]", "/properties/build")]
#[case("[level]", "/properties/level")]
#[case("[gate]", "/properties/gate")]
#[case("[budget.start]", "/properties/budget/additionalProperties")]
#[case(
    "[app.shop.budget.start]",
    "/properties/app/additionalProperties/properties/budget/additionalProperties"
)]
#[case("[[waiver]]", "/properties/waiver/items")]
fn editors_know_the_keys_that_the_reader_takes(#[case] table: &str, #[case] pointer: &str) {
    let folder = Folder::new().with("dist/a.js", "a");
    let schema = uvlet(folder.path(), &["config", "--schema"]).out;
    let schema: serde_json::Value = serde_json::from_str(&schema).unwrap();
    let place = schema.pointer(pointer).unwrap();
    assert_eq!(place["additionalProperties"], false, "{place}");
    let takes = |key: &str| {
        let text = format!("{table}\n{key} = {{}}\n");
        std::fs::write(folder.path().join("uvlet.toml"), text).unwrap();
        let said = uvlet(folder.path(), &["gate", "dist"]);
        !said.err.contains(&format!("unknown key `{key}`"))
    };
    for key in place["properties"].as_object().unwrap().keys() {
        assert!(takes(key), "{key}");
    }
    assert!(!takes("colour"));
}

/// One byte less, as much, and one byte more than what there is, for every kind of limit.
#[rstest]
#[case("at_most", "scripts", "20 B", "21 B", "19 B")]
#[case("warn_above", "scripts", "20 B", "21 B", "19 B")]
#[case("files_at_most", "scripts", "1", "2", "0")]
#[case("grow_at_most", "scripts", "15 B", "16 B", "14 B")]
// 15 bytes on 5 are three times as much.
#[case("grow_at_most", "scripts", "300%", "300.1%", "299.999%")]
#[case("at_most", "kind(map)", "3 B", "4 B", "2 B")]
#[case("files_at_most", "kind(map)", "1", "2", "0")]
fn a_limit_is_held_to_the_byte(
    #[case] limit: &str,
    #[case] total: &str,
    #[case] exact: &str,
    #[case] more: &str,
    #[case] less: &str,
) {
    let exceeded = if limit == "warn_above" { "warned" } else { "broken" };
    let folder = repository().with("app/dist/a.js.map", "{}\n").with("base/b.js", "bbbbb");
    for (allowed, verdict) in [(less, exceeded), (exact, "met"), (more, "met")] {
        let value = match limit {
            "files_at_most" => allowed.to_owned(),
            _ => format!("\"{allowed}\""),
        };
        let toml =
            format!("measure = \"emitted\"\n[budget.b]\ntotal = \"{total}\"\n{limit} = {value}\n");
        std::fs::write(folder.path().join("uvlet.toml"), toml).unwrap();
        let answer = json(folder.path(), &["gate", "app/dist", "--against", "base"]);
        let row = &answer["budgets"][0];
        assert_eq!(row["verdict"], verdict, "{allowed}: {row}");
        assert_eq!(row["over_by"].as_u64().unwrap() > 0, verdict != "met", "{row}");
    }
}

#[test]
fn maps_are_reached_by_their_own_name_alone() {
    let toml = |total: &str| format!("[budget.b]\nabsent = \"{total}\"\n");
    let folder =
        repository().with("app/dist/a.js.map", "{}\n").with("uvlet.toml", toml("kind(map)"));
    let said = uvlet(folder.path(), &["gate", "app/dist"]);
    assert!(said.status == 1 && said.out.contains("3 B emitted found"), "{}", said.out);
    let folder = folder.with("uvlet.toml", toml("kind(map) or styles"));
    let said = uvlet(folder.path(), &["gate", "app/dist"]);
    assert!(said.status == 2 && said.out.contains("maps count in"), "{}", said.out);
    let folder = folder.with("uvlet.toml", toml("kind(*) and kind(image)"));
    assert_eq!(uvlet(folder.path(), &["gate", "app/dist"]).status, 0);
}
