//! A build held against a browser's network log.

use rstest::rstest;
use serde_json::{Value, json as value};

use crate::support::{Folder, demo, json, map, uvlet};

const LOG: &str = "recordings/visit.har";

#[test]
fn a_visit_of_the_site_is_as_foretold() {
    let build = "builds/vite-after";
    let answer = json(&demo(), &["requests", build, LOG]);
    let pages = answer["pages"].as_array().unwrap();
    let names: Vec<&str> = pages.iter().map(|page| page["entry"].as_str().unwrap()).collect();
    assert_eq!(names, ["timetable", "booking", "crew"]);
    // What the log itself says was sent, added up without the program.
    let log = std::fs::read_to_string(demo().join(LOG)).unwrap();
    let log: Value = serde_json::from_str(&log).unwrap();
    let sent: i64 = log["log"]["entries"]
        .as_array()
        .unwrap()
        .iter()
        .map(|entry| entry["response"]["bodySize"].as_i64().unwrap().max(0))
        .sum();
    let told: i64 = pages.iter().map(|page| page["sent"].as_i64().unwrap()).sum();
    assert_eq!(told, sent);
    let survey = json(&demo(), &["survey", build]);
    for page in pages {
        assert_eq!((&page["not_foretold"], &page["not_asked"]), (&value!([]), &value!([])));
        let entries = survey["entries"].as_array().unwrap();
        let entry = entries.iter().find(|entry| entry["name"] == page["entry"]).unwrap();
        assert_eq!(page["as_foretold"], entry["startup"]["file_count"]);
        assert_eq!(page["codings"][0]["coding"], "gzip");
    }
    let must = uvlet(&demo(), &["requests", build, LOG, "--must-match"]);
    assert_eq!(must.status, 0, "{}", must.out);
    assert!(must.out.starts_with("All 3 pages requested exactly the predicted"), "{}", must.out);
    // Of another build, the scripts are others.
    let other = uvlet(&demo(), &["requests", "builds/vite-before", LOG, "--must-match"]);
    assert_eq!(other.status, 1, "{}", other.out);
    assert!(other.out.contains("the log is of another build"), "{}", other.out);
}

/// A build of two pages with a script each, and one for both.
fn folder() -> Folder {
    let script =
        |name: &str| format!("{}\n//# sourceMappingURL={name}.map", "abcdefgh();".repeat(120));
    Folder::new()
        .with(
            "dist/index.html",
            "<script type=module src=a-1a2b3c4d.js></script><script src=shared.js></script>",
        )
        .with(
            "dist/tides.html",
            "<script type=module src=b-9f8e7d6c.js></script><script src=shared.js></script>",
        )
        .with("dist/a-1a2b3c4d.js", script("a-1a2b3c4d.js"))
        .with("dist/b-9f8e7d6c.js", script("b-9f8e7d6c.js"))
        .with("dist/shared.js", script("shared.js"))
        .with("dist/a-1a2b3c4d.js.map", map(&[(0, "../src/a.js")]))
        .with("dist/b-9f8e7d6c.js.map", map(&[(0, "../src/b.js")]))
        .with("dist/shared.js.map", map(&[(0, "../src/shared.js")]))
}

fn asked(url: &str, kept: &str, coding: &str, at: u32) -> Value {
    value!({
        "pageref": "p", "startedDateTime": format!("2026-01-01T00:00:0{at}.000Z"),
        "request": {"url": url},
        "response": {"status": 200, "content": {"size": 0}, "bodySize": 700, "headers": [
            {"name": "Cache-Control", "value": kept}, {"name": "Content-Encoding", "value": coding}]},
    })
}

fn log(entries: &[Value]) -> String {
    let page = value!({"id": "p", "startedDateTime": "2026-01-01T00:00:00.000Z", "pageTimings": {"onLoad": 2000}});
    value!({"log": {"version": "1.2", "pages": [page], "entries": entries}}).to_string()
}

#[test]
fn what_differs_and_what_the_server_should_mend() {
    let at = |path: &str| format!("https://kelpwick.example/app/{path}");
    let log = log(&[
        asked(&at("index.html"), "no-cache", "gzip", 0),
        asked(&at("a-1a2b3c4d.js"), "max-age=60", "", 1),
        asked(&at("b-9f8e7d6c.js?x=1"), "max-age=31536000", "gzip", 1),
        asked("https://maps.example/tiles.js", "no-store", "br", 3),
    ]);
    let folder = folder().with("visit.har", log);
    let answer = json(folder.path(), &["requests", "dist", "visit.har"]);
    let [page] = answer["pages"].as_array().unwrap().as_slice() else { panic!("{answer}") };
    assert_eq!(page["entry"], "index");
    assert_eq!(page["not_foretold"], value!(["b-9f8e7d6c.js"]));
    assert_eq!(page["not_asked"], value!(["shared.js"]));
    let remarks = answer["remarks"].as_array().unwrap();
    let remarks: Vec<String> = remarks
        .iter()
        .map(|one| format!("{} {}", one["code"].as_str().unwrap(), one["path"].as_str().unwrap()))
        .collect();
    assert_eq!(remarks, ["not-compressed a-1a2b3c4d.js", "short-life a-1a2b3c4d.js"]);
    assert_eq!(answer["elsewhere"][0]["host"], "maps.example");
    let said = uvlet(folder.path(), &["requests", "dist", "visit.har", "--must-match"]);
    assert_eq!(said.status, 1);
    let first = said.out.split('.').next().unwrap();
    assert!(first.starts_with("index requested 1 unpredicted file (b-9f8e7d6c"), "{}", said.out);
}

#[rstest]
#[case("", "is no network log")]
#[case("{\"log\": {\"entries\": []}}", "holds no request")]
#[case("{\"log\": {\"entries\": [{\"request\"", "is no network log")]
#[case("[1, 2]", "is no network log")]
fn what_is_no_log_is_one_line(#[case] text: &str, #[case] expected: &str) {
    let folder = folder().with("visit.har", text);
    let said = uvlet(folder.path(), &["requests", "dist", "visit.har"]);
    assert_eq!((said.status, said.out.as_str()), (2, ""));
    assert!(said.err.contains(expected) && said.err.lines().count() == 1, "{}", said.err);
}
