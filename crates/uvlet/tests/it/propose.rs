//! First budgets, and limits brought up to the build.

use std::fs;

use rstest::rstest;

use crate::support::{Folder, demo, json, map, uvlet};

/// A folder with a copy of a demo build under `dist`.
fn with_build(name: &str) -> Folder {
    let mut folder = Folder::new();
    for file in fs::read_dir(demo().join("builds").join(name)).unwrap() {
        let path = file.unwrap().path();
        if path.is_dir() {
            continue;
        }
        let to = format!("dist/{}", path.file_name().unwrap().to_str().unwrap());
        folder = folder.with(&to, fs::read(path).unwrap());
    }
    folder
}

#[rstest]
fn what_is_proposed_holds(#[values("esbuild", "rollup", "webpack")] bundler: &str) {
    let folder = with_build(&format!("{bundler}-before"));
    let said = uvlet(folder.path(), &["propose", "dist"]);
    assert!(said.out.starts_with("uvlet.toml is written"), "{}{}", said.out, said.err);
    let first = folder.read("uvlet.toml");
    let held = json(folder.path(), &["gate"]);
    assert_eq!(held["verdict"], "met");
    assert!(held["budgets"].as_array().unwrap().len() >= 9, "entries, chunks and five kinds");
    // No limit is so wide that a page could grow by a tenth unnoticed.
    for row in held["budgets"].as_array().unwrap() {
        let of = |key: &str| row[key].as_f64().unwrap();
        if row["selector"].as_str().is_some_and(|what| what.starts_with("startup")) {
            let share = of("allowed") / of("is");
            assert!((1.05..1.06).contains(&share), "{row}");
        }
    }
    let again = uvlet(folder.path(), &["propose"]);
    assert_eq!(again.out, "uvlet.toml stays as it is.\n");
    assert_eq!(folder.read("uvlet.toml"), first);
}

const WIDE: &str = "total = \"everything\"\nat_most = \"900 kB\"\n";
const INLINE: &str = "{ total = \"everything\", at_most = \"900 kB\" }";

/// What is said to be lowered is lowered where it holds, and all else stands as it was.
#[rstest]
#[case::here(format!("[budget.base]\n{WIDE}"), &[], "base from 900 kB to 76.9 kB\n")]
#[case::extended("extends = \"wide.toml\"\n".to_owned(), &[], "to 76.9 kB here, on top of wide.toml")]
#[case::of_an_app(format!("[app.quay.budget.base]\n{WIDE}"), &["--app", "quay"], "to 76.9 kB\n")]
#[case::of_all_apps(format!("[budget.base]\n{WIDE}[app.quay]\n"), &["--app", "quay"], "for quay alone")]
#[case::inline(format!("[budget]\nbase = {INLINE}\n"), &[], "to 76.9 kB\n")]
#[case::all_inline(format!("budget = {{ base = {INLINE} }}\n"), &[], "to 76.9 kB\n")]
#[case::carriage_returns(format!("[budget.base]\n{WIDE}").replace('\n', "\r\n"), &[], "to 76.9 kB\n")]
#[case::a_mark(format!("\u{feff}[budget.base]\n{WIDE}"), &[], "to 76.9 kB\n")]
fn limits_are_moved_wherever_they_stand(
    #[case] settings: String,
    #[case] app: &[&str],
    #[case] expected: &str,
    #[values(("--tighten", "900 kB"), ("--loosen", "10 kB"))] (way, limit): (&str, &str),
) {
    let settings = settings.replace("900 kB", limit);
    let extended = format!("[budget.base]\n{WIDE}").replace("900 kB", limit);
    let folder =
        with_build("esbuild-before").with("wide.toml", &extended).with("uvlet.toml", &settings);
    let added = uvlet(folder.path(), &[&["propose", "dist"], app].concat());
    assert!(added.out.contains("added booking-startup"), "{}{}", added.out, added.err);
    // What stood there stands as it was, and what was added is judged.
    let kept = |text: &str| text.matches(limit).count();
    assert_eq!(kept(&folder.read("uvlet.toml")), kept(&settings));
    let said = uvlet(folder.path(), &[&["propose", "dist", way], app].concat());
    assert!(said.out.contains(&expected.replace("900 kB", limit)), "{}{}", said.out, said.err);
    let written = folder.read("uvlet.toml");
    let judged = json(folder.path(), &[&["gate", "dist"], app].concat());
    assert_eq!(judged["verdict"], "met", "{judged}");
    let rows = judged["budgets"].as_array().unwrap();
    assert!(rows.len() > 9, "{judged}");
    let base = rows.iter().find(|row| row["name"] == "base").unwrap();
    assert_eq!(base["allowed"].as_u64(), Some(76_900));
    let ends = |text: &str| (text.starts_with('\u{feff}'), text.contains("\r\n"));
    assert_eq!(ends(&written), ends(&settings));
    assert_eq!(written.matches('\r').count(), written.matches("\r\n").count());
    assert_eq!(folder.read("wide.toml"), extended);
    let again = uvlet(folder.path(), &[&["propose", "dist", way], app].concat());
    assert_eq!(again.out, "uvlet.toml stays as it is.\n");
    assert_eq!(folder.read("uvlet.toml"), written);
}

/// Without a name every app gets its budgets; one that cannot be read is said, and holds up no other.
#[test]
fn every_app_gets_its_budgets() {
    let apps = "[app.quay]\nfolder = \"dist\"\n\n[app.pier]\nfolder = \"pier\"\n";
    let folder = with_build("esbuild-before")
        .with("uvlet.toml", apps)
        .with("pier/index.html", "<script src=a.js></script>")
        .with("pier/a.js", "start()");
    let said = uvlet(folder.path(), &["propose"]);
    assert_eq!(said.status, 0, "{}", said.err);
    assert!(said.out.contains("  quay: added booking-startup: "), "{}", said.out);
    assert!(said.out.contains("  pier: added index-startup: "), "{}", said.out);
    assert_eq!(json(folder.path(), &["gate"])["verdict"], "met");
    let folder = folder.with("uvlet.toml", format!("{apps}[app.jetty]\nfolder = \"gone\"\n"));
    let said = uvlet(folder.path(), &["propose"]);
    assert_eq!(said.status, 2);
    assert!(said.err.contains("gone"), "{}", said.err);
    assert!(folder.read("uvlet.toml").contains("[app.pier.budget.index-startup]"));
}

/// In a folder below that of the settings, those settings are written, and no others made beside the build.
#[test]
fn settings_of_a_folder_above_are_the_ones_that_are_written() {
    let folder = with_build("esbuild-before")
        .with("uvlet.toml", format!("[budget.base]\n{WIDE}"))
        .with(".git/HEAD", "ref: refs/heads/main")
        .with("site/readme.md", "");
    let below = folder.path().join("site");
    let said = uvlet(&below, &["propose", "../dist", "--tighten"]);
    assert!(said.out.starts_with("../uvlet.toml is written"), "{}{}", said.out, said.err);
    assert!(said.out.contains("lowered base from 900 kB to 76.9 kB\n"), "{}", said.out);
    assert!(!below.join("uvlet.toml").exists());
    assert_eq!(uvlet(&below, &["gate", "../dist"]).status, 0);
}

#[test]
fn one_more_package_breaks_what_was_proposed() {
    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", "start()");
    uvlet(folder.path(), &["propose", "dist"]);
    assert_eq!(uvlet(folder.path(), &["gate"]).status, 0);
    let text = (0..40).map(|n| format!("tide{n}({n});")).collect::<String>();
    let source = "../node_modules/moorline/index.js";
    let segments: Vec<(i64, &str)> =
        text.match_indices("tide").map(|(at, _)| (i64::try_from(at).unwrap(), source)).collect();
    let folder = folder
        .with("dist/a.js", format!("{text}\n//# sourceMappingURL=a.js.map"))
        .with("dist/a.js.map", map(&segments))
        .with("node_modules/moorline/package.json", r#"{"name":"moorline","version":"2.1.0"}"#);
    let said = uvlet(folder.path(), &["gate"]);
    assert_eq!(said.status, 1);
    assert!(said.out.starts_with("BROKEN") && said.out.contains("moorline"), "{}", said.out);
}

const SETTINGS: &str = "# Ours.\n\n[budget.booking]\nat_most = \"LIMIT\"   # agreed in May\ntotal = 'startup(booking)'\nmeasure = \"emitted\"\n";

#[test]
fn comments_order_and_promises_stay() {
    let settings = |limit: &str| SETTINGS.replace("LIMIT", limit);
    let folder = with_build("esbuild-before").with("uvlet.toml", settings("160 kB"));
    let dry = uvlet(folder.path(), &["propose", "dist", "--tighten", "--dry-run"]).out;
    assert!(dry.starts_with("uvlet.toml would change"), "{dry}");
    assert!(dry.contains("lowered booking from 160 kB to "), "{dry}");
    assert_eq!(folder.read("uvlet.toml"), settings("160 kB"));
    uvlet(folder.path(), &["propose", "dist"]);
    assert!(folder.read("uvlet.toml").starts_with(&settings("160 kB")));

    let folder = folder.with("uvlet.toml", settings("1 kB"));
    let said = uvlet(folder.path(), &["propose", "dist"]).out;
    assert!(said.contains("booking is broken") && said.contains("--loosen"), "{said}");
    assert!(folder.read("uvlet.toml").starts_with(&settings("1 kB")));
    let said = uvlet(folder.path(), &["propose", "dist", "--loosen"]).out;
    let limit =
        said.lines().find_map(|line| line.trim().strip_prefix("raised booking from 1 kB to "));
    let limit = limit.unwrap_or_else(|| panic!("{said}"));
    assert!(folder.read("uvlet.toml").starts_with(&settings(limit)));
    assert_eq!(uvlet(folder.path(), &["gate", "dist"]).status, 0);
}
