//! What was not looked at is never called clean.

use serde_json::Value;

use crate::support::{Folder, demo, json, map, uvlet};

/// Some two kilobytes of code with names that begin alike.
fn library(prefix: &str) -> String {
    let function = |at: usize| {
        format!(
            "function {prefix}{at}(a,b){{if(a>{at}){{return b.list.map(function(x){{return x+\"{at}\"}})}}var c=a*{at}+b.size;return c>3?c:{prefix}{}(c,b)}}",
            (at + 1) % 30
        )
    };
    (0..30).map(function).collect()
}

/// Two scripts of a page without source maps, with one library under other names.
fn without_maps() -> Folder {
    Folder::new()
        .with("dist/index.html", "<script src=a.js></script><script src=b.js></script>")
        .with("dist/a.js", format!("{}console.log(f1(2,window))", library("f")))
        .with("dist/b.js", format!("var own=1;{}own+=q2(1,document)", library("q")))
}

#[test]
fn the_same_code_is_found_without_owners() {
    let folder = without_maps();
    let waste = json(folder.path(), &["waste", "dist", "--measure", "emitted"]);
    let found = &waste["findings"][0];
    assert_eq!(found["kind"], "copied-text");
    let bytes = found["recoverable"]["emitted"].as_u64().unwrap();
    let whole = u64::try_from(library("f").len()).unwrap();
    assert!(bytes <= whole && bytes * 10 >= whole * 9, "{bytes} of {whole}");
    assert_eq!(waste["findings"].as_array().unwrap().len(), 1);
}

#[test]
fn kinds_say_what_they_could_judge() {
    let folder = without_maps();
    let waste = json(folder.path(), &["waste", "dist"]);
    for judged in waste["judged"].as_array().unwrap() {
        // There are no styles, of which all was looked at.
        let is_seen = judged["kind"] == "copied-text" || judged["of"] == 0;
        let lacks: Vec<&Value> = judged["lacks"].as_array().unwrap().iter().collect();
        assert_eq!(judged["bytes"] == judged["of"], is_seen, "{judged}");
        assert_eq!(lacks.first().is_some_and(|first| *first == "owners"), !is_seen, "{judged}");
    }
    let said = uvlet(folder.path(), &["waste", "dist", "--kind", "deferrable"]);
    assert!(
        said.out
            .replace('\n', " ")
            .contains("could check only 0% of the script bytes: no source maps")
    );
    assert!(said.out.contains("npx vite build --sourcemap"), "{}", said.out);
}

#[test]
fn budgets_on_what_was_not_seen_are_neither_written_nor_met() {
    let folder = without_maps();
    let said = uvlet(folder.path(), &["propose", "dist"]);
    assert!(said.out.contains("no budget for copied-module"), "{}", said.out);
    assert!(!folder.read("uvlet.toml").contains("waste = \"deferrable\""));
    assert_eq!(uvlet(folder.path(), &["gate"]).status, 0);
    let budget = "[budget.later]\nwaste = \"deferrable\"\nat_most = \"0 B\"\n";
    let folder = folder.with("own.toml", budget);
    let gate = ["gate", "dist", "--config", "own.toml"];
    let said = uvlet(folder.path(), &gate);
    assert!(said.status == 2 && said.out.contains("deferrable checked 0%"), "{}", said.out);
    let folder = folder.with("own.toml", format!("[gate]\njudged_at_least = \"0%\"\n{budget}"));
    assert_eq!(uvlet(folder.path(), &gate).status, 0);
}

#[test]
fn a_record_without_texts_says_what_it_cannot_be_asked() {
    let folder = Folder::new();
    let build = demo().join("builds/esbuild-before");
    let build = build.to_str().unwrap();
    uvlet(folder.path(), &["record", build, "-o", "bare.json"]);
    let waste = json(folder.path(), &["waste", "bare.json"]);
    let judged = waste["judged"].as_array().unwrap();
    let dead = judged.iter().find(|one| one["kind"] == "dead-declaration").unwrap();
    // The bundler's own bytes are always seen.
    let share = dead["bytes"].as_u64().unwrap() * 100 / dead["of"].as_u64().unwrap();
    assert!(share < 5, "{dead}");
    assert_eq!(dead["lacks"], serde_json::json!(["texts", "sources"]));
    // What only one side can tell is not compared.
    let same = json(folder.path(), &["compare", "bare.json", build]);
    assert!(same["waste"].as_array().unwrap().is_empty(), "{}", same["waste"]);
    let kinds = same["not_compared"].as_array().unwrap();
    assert!(kinds.contains(&"dead-declaration".into()) && !kinds.contains(&"copied-module".into()));
}

#[test]
fn maps_that_were_added_are_no_change() {
    let text = "tide();".repeat(40);
    let folder = Folder::new()
        .with("old/index.html", "<script src=a.js></script>")
        .with("old/a.js", &text)
        .with("new/index.html", "<script src=a.js></script>")
        .with("new/a.js", format!("{text}more()"))
        .with("new/a.js.map", map(&[(0, "../src/a.js"), (70, "../node_modules/tide/i.js")]));
    let said = uvlet(folder.path(), &["compare", "old", "new", "--measure", "emitted"]);
    let text = said.out.replace('\n', " ");
    assert!(
        text.starts_with("Owners are known of 0% of the script bytes before and of 100% after")
    );
    assert!(!text.contains("most of it by"), "{}", said.out);
}
