//! What a browser recorded, tied to whose bytes it was.

use rstest::rstest;
use serde_json::{Value, json as value};

use crate::support::{Folder, demo, json, map, uvlet};

/// `aé😀();` is the page's own: 7 UTF-16 code units, 10 bytes; `lib();` a package's.
const TEXT: &str = "aé😀();lib();";

fn folder() -> Folder {
    let segments = [(0, "../src/a.js"), (7, "../node_modules/tidecalc/i.js")];
    Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", TEXT)
        .with("dist/a.js.map", map(&segments))
}

fn script(url: &str, ranges: &[(u64, u64, u64)]) -> Value {
    let one = |(start, end, count): &(u64, u64, u64)| value!({"ranges": [{"startOffset": start, "endOffset": end, "count": count}]});
    value!({"result": [{"url": url, "functions": ranges.iter().map(one).collect::<Vec<_>>()}]})
}

/// Emitted bytes of a row: ran at load, ran later, never ran.
fn row(answer: &Value, name: &str) -> [u64; 3] {
    let rows = answer["rows"].as_array().unwrap();
    let row = rows.iter().find(|row| row["name"] == name).unwrap();
    ["ran_at_load", "ran_later", "never_ran"].map(|part| row[part]["emitted"].as_u64().unwrap())
}

const URL: &str = "https://kelpwick.example/a.js?v=1";

#[test]
fn the_innermost_range_says_what_ran_in_bytes() {
    // The whole ran; the package's call did not, but for its last character.
    let load = script(URL, &[(7, 13, 0), (0, 13, 1), (12, 13, 1)]);
    let later = script(URL, &[(0, 13, 1), (7, 9, 1), (9, 13, 0)]);
    let folder = folder().with("a.json", load.to_string()).with("b.json", later.to_string());
    let answer = json(folder.path(), &["coverage", "dist", "load=a.json", "b.json"]);
    assert_eq!(answer["recordings"], value!(["load", "b"]));
    assert_eq!(row(&answer, "(own)"), [10, 0, 0]);
    assert_eq!(row(&answer, "tidecalc"), [1, 2, 3]);
    let file = &answer["files"][0];
    assert_eq!(file["never_ran"]["emitted"], 3);
    // In a coding the three are all of it, each rounded up.
    let gzip = |part: &str| file[part]["gzip"].as_u64().unwrap();
    let whole = json(folder.path(), &["attribute", "dist", "--by", "file", "--in", "file(a.js)"]);
    let whole = whole["total"]["sizes"]["gzip"].as_u64().unwrap();
    let sum = gzip("ran_at_load") + gzip("ran_later") + gzip("never_ran");
    // The stream's own head and end are nobody's.
    assert!(sum <= whole + 3 && sum + 24 >= whole, "{sum} {whole}");
    let said = uvlet(
        folder.path(),
        &["coverage", "dist", "load=a.json", "b.json", "--measure", "emitted"],
    );
    let first = "Of 16 B (emitted) that index fetches before it runs and that was recorded, 3 B never ran in 2 recordings: tidecalc 3 B.";
    assert!(said.out.replace('\n', " ").starts_with(first), "{}", said.out);
}

#[test]
fn what_browsers_export_is_read_by_its_text() {
    let export = value!([
        {"url": "https://cdn.example/x/other-name/a.js", "ranges": [{"start": 0, "end": 7}], "text": TEXT},
        {"url": "https://elsewhere.example/lib.js", "ranges": [], "text": "lib()"},
    ]);
    let folder = folder().with("a.json", export.to_string());
    let answer = json(folder.path(), &["coverage", "dist", "a.json"]);
    assert_eq!((row(&answer, "(own)"), row(&answer, "tidecalc")), ([10, 0, 0], [0, 0, 6]));
    assert_eq!(answer["unmatched"][0]["url"], "https://elsewhere.example/lib.js");
}

#[rstest]
#[case::past_the_end(script(URL, &[(0, 13, 1), (12, 99, 0)]).to_string(), "1 B never ran")]
fn recordings_that_fit_in_part(#[case] recording: String, #[case] expected: &str) {
    let folder = folder().with("a.json", recording);
    let said = uvlet(
        folder.path(),
        &["coverage", "dist", "a.json", "--measure", "emitted", "--width", "300"],
    );
    assert!(said.status == 0 && said.out.contains(expected), "{}{}", said.out, said.err);
}

/// Whatever these told would be of another build.
#[rstest]
#[case::of_another_build(script(URL, &[(0, 99, 1)]).to_string(), "is another")]
#[case::nothing(value!({"result": []}).to_string(), "no script or style in it is a file of this build")]
fn recordings_of_another_build_are_refused(
    #[case] recording: String,
    #[case] expected: &str,
    #[values(&["coverage", "dist", "a.json"], &["waste", "dist", "--coverage", "a.json"],
        &["attribute", "dist", "--in", "never-ran", "--coverage", "a.json"])]
    arguments: &[&str],
) {
    let folder = folder().with("a.json", recording);
    let said = uvlet(folder.path(), arguments);
    assert_eq!((said.status, said.out.as_str()), (2, ""), "{}", said.err);
    assert!(said.err.contains(expected) && said.err.lines().count() == 1, "{}", said.err);
}

#[rstest]
#[case("{\"result\": [", "a.json: is no recording of a browser: EOF")]
#[case("{\"log\": {}}", "a.json: is no recording of a browser")]
fn no_recording_is_refused(#[case] text: &str, #[case] expected: &str) {
    let folder = folder().with("a.json", text);
    for (file, expected) in
        [("a.json", expected), ("none.json", "none.json: cannot be read: no such file")]
    {
        let said = uvlet(folder.path(), &["coverage", "dist", file]);
        assert_eq!((said.status, said.out.as_str()), (2, ""));
        assert!(said.err.contains(expected) && said.err.lines().count() == 1, "{}", said.err);
    }
}

/// A second, naive count over the raw data of the sample site's recordings.
#[test]
fn the_sample_site() {
    let build = "builds/esbuild-before";
    let files = ["load", "click"].map(|name| format!("recordings/{name}.json"));
    let answer = json(&demo(), &["coverage", build, &files[0], &files[1]]);
    let mut ran: Vec<bool> = Vec::new();
    let mut path = String::new();
    for file in &files {
        let text = std::fs::read_to_string(demo().join(file)).unwrap();
        let recording: Value = serde_json::from_str(&text).unwrap();
        for script in recording["result"].as_array().unwrap() {
            let url = script["url"].as_str().unwrap();
            let Some(name) = url.rsplit('/').next().filter(|name| name.ends_with(".js")) else {
                continue;
            };
            path = name.to_owned();
            let text = std::fs::read_to_string(demo().join(build).join(name)).unwrap();
            let bytes: Vec<_> = text
                .char_indices()
                .flat_map(|(at, c)| vec![at..at + c.len_utf8(); c.len_utf16()])
                .collect();
            ran.resize(text.len(), false);
            for (unit, bytes) in bytes.into_iter().enumerate() {
                // The smallest range around a code unit is the innermost.
                let ranges = script["functions"].as_array().unwrap().iter();
                let ranges = ranges.flat_map(|function| function["ranges"].as_array().unwrap());
                let at = |range: &Value, key: &str| {
                    usize::try_from(range[key].as_u64().unwrap()).unwrap()
                };
                let around = ranges.filter(|range| {
                    (at(range, "startOffset")..at(range, "endOffset")).contains(&unit)
                });
                let inner =
                    around.min_by_key(|range| at(range, "endOffset") - at(range, "startOffset"));
                if inner.is_some_and(|range| range["count"].as_u64().unwrap() > 0) {
                    ran[bytes].fill(true);
                }
            }
        }
    }
    let never = ran.iter().enumerate().filter(|(_, ran)| !**ran).count() as u64;
    let file = answer["files"]
        .as_array()
        .unwrap()
        .iter()
        .find(|file| file["path"] == path.as_str())
        .unwrap();
    let reported = file["never_ran"]["emitted"].as_u64().unwrap();
    assert_eq!(reported, never);
    assert!(never > 10_000, "{never}");
    let rows = answer["rows"].as_array().unwrap().iter();
    let sum: u64 = rows.map(|row| row["never_ran"]["emitted"].as_u64().unwrap()).sum();
    assert_eq!(sum, reported);
}

/// Functions share out all that was recorded, and what never ran of it.
#[test]
fn functions_add_up_to_their_scripts() {
    let ask = |by: &str| {
        let build = "builds/esbuild-before";
        json(&demo(), &["coverage", build, "load=recordings/load.json", "--by", by])
    };
    let sums = |answer: &Value| {
        let rows = answer["rows"].as_array().unwrap();
        ["sizes", "ran_at_load", "never_ran"]
            .map(|part| rows.iter().map(|row| row[part]["emitted"].as_u64().unwrap()).sum::<u64>())
    };
    let functions = ask("function");
    assert_eq!(sums(&functions), sums(&ask("package")));
    let rows = functions["rows"].as_array().unwrap();
    assert!(rows.len() > 150, "{}", rows.len());
    // One that nobody called, by its place and name in the source.
    let idle =
        rows.iter().find(|row| row["name"] == "src/booking/refund-dialog.js:6 openRefundDialog");
    let idle = idle.unwrap();
    assert!(idle["never_ran"]["emitted"].as_u64().unwrap() > 300, "{idle}");
}

/// What the protocol says of the rules of a style, counted once more without the program.
#[test]
fn rules_that_no_page_used() {
    let recorded = std::fs::read_to_string(demo().join("recordings/styles.json")).unwrap();
    let recorded: Value = serde_json::from_str(&recorded).unwrap();
    let used: u64 = recorded["ruleUsage"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|rule| rule["used"] == true)
        .map(|rule| rule["endOffset"].as_u64().unwrap() - rule["startOffset"].as_u64().unwrap())
        .sum();
    let answer = json(&demo(), &["coverage", "builds/esbuild-before", "recordings/styles.json"]);
    let [file] = answer["files"].as_array().unwrap().as_slice() else { panic!("{answer}") };
    let text = std::fs::read_to_string(
        demo().join("builds/esbuild-before").join(file["path"].as_str().unwrap()),
    );
    let text = text.unwrap();
    assert!(text.is_ascii());
    assert_eq!(file["ran_at_load"]["emitted"], used);
    assert_eq!(file["never_ran"]["emitted"], text.len() as u64 - used);
}
