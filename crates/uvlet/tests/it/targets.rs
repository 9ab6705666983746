//! What kind of build it is, and where it runs: what is no mark of it changes nothing.

use rstest::rstest;
use serde_json::{Value, json as value};

use crate::support::{Folder, json, uvlet};

/// Stats of a build of one script for a target that the runtime shows.
fn stats(script: &str, runtime: &str) -> String {
    value!({
        "assets": [{"name": script, "size": 1}],
        "chunks": [{"id": 1, "files": [script], "names": ["main"], "origins": []}],
        "entrypoints": {"main": {"chunks": [1], "assets": [{"name": script}]}},
        "modules": [{"name": format!("webpack/runtime/{runtime}"), "moduleType": "runtime"}],
    })
    .to_string()
}

#[rstest]
#[case::template_compiler("var s='//# sourceURL=t['+i+']';Function(s)")]
#[case::serialiser("var r=eval('require')('fs');a.eval(b)")]
#[case::retrieval("retrieval('//# sourceURL=webpack:///x')")]
#[case::a_frame_in_a_text("a='/*!****!*\\\\\\n  !*** ./src/a.js ***!'")]
#[case::both_worlds("if(typeof process=='object'){var fs=require('fs'),p=require('path')}a()")]
#[case::umd(
    "!function(e,t){'object'==typeof exports?module.exports=t(require('stream')):e.x=t(e.y)}(this,(e)=>e)"
)]
fn published_scripts_of_a_page_are_a_browsers(#[case] script: &str) {
    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", script)
        .with("uvlet.toml", "[budget.all]\ntotal = \"everything\"\nat_most = \"1 MB\"\n");
    let build = json(folder.path(), &["survey", "dist"])["build"].clone();
    assert_ne!(build["mode"], "development", "{build}");
    assert_eq!(build["target"], "browser", "{build}");
    assert_eq!(uvlet(folder.path(), &["gate", "dist"]).status, 0);
}

/// A part of a survey: target, files that count, entries, what is set aside.
fn told(survey: &Value) -> (String, u64, Vec<String>, Vec<u64>) {
    let entries = survey["entries"].as_array().unwrap().iter();
    let aside = survey["set_aside"].as_array().unwrap().iter();
    (
        survey["build"]["target"].as_str().unwrap().to_owned(),
        survey["totals"]["file_count"].as_u64().unwrap(),
        entries.map(|entry| entry["name"].as_str().unwrap().to_owned()).collect(),
        aside.map(|part| part["file_count"].as_u64().unwrap()).collect(),
    )
}

#[test]
fn a_description_claims_the_files_that_it_names_and_no_others() {
    let folder = Folder::new()
        .with("dist/index.html", "<script src=main.js></script>")
        .with("dist/main.js", "m()")
        .with("dist/stats.json", stats("main.js", "jsonp chunk loading"))
        .with("dist/server/entry.js", "import 'node:fs'");
    let survey = json(folder.path(), &["survey", "dist"]);
    assert_eq!(told(&survey), ("browser".into(), 2, vec!["main".into()], vec![1]));
}

#[test]
fn a_description_of_another_target_is_not_used() {
    let folder = Folder::new()
        .with("dist/client/index.html", "<script src=c.js></script>")
        .with("dist/client/c.js", "c()")
        .with("dist/server/entry.js", "import 'node:fs'")
        .with("dist/server/stats.json", stats("entry.js", "require chunk loading"));
    let survey = json(folder.path(), &["survey", "dist"]);
    assert_eq!(told(&survey), ("browser".into(), 2, vec!["client".into()], vec![1]));
    assert_eq!(survey["build"]["bundler"], Value::Null);
    let server = json(folder.path(), &["survey", "dist", "--target", "server"]);
    assert_eq!(told(&server), ("server".into(), 1, vec!["main".into()], vec![2]));
    assert_eq!(server["build"]["bundler"], "webpack");
}

#[test]
fn own_packages_are_declared_for_records_too() {
    let map = crate::support::map(&[(0, "../src/a.js"), (4, "../node_modules/@kelpwick/ui/i.js")]);
    let folder = Folder::new()
        .with("dist/a.js", "a();ours()")
        .with("dist/a.js.map", map)
        .with("uvlet.toml", "[build]\nown = [\"@kelpwick/*\"]\nbase = \"https://cdn.example/\"\n");
    let path = folder.path();
    let saved = ["record", "dist", "-o", "r.json", "--config", "none.toml"];
    std::fs::write(path.join("none.toml"), "").unwrap();
    assert_eq!(uvlet(path, &saved).status, 0);
    let own = json(path, &["attribute", "r.json", "--in", "own"]);
    assert_eq!(own["total"]["sizes"]["emitted"], 10);
    let notices = own["notices"].as_array().unwrap();
    assert!(notices.iter().any(|notice| notice["code"] == "setting-unused"), "{notices:?}");
}
