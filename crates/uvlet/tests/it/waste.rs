//! What files that only hand on draw into pages that use none of their names.

use rstest::rstest;
use serde_json::json as value;

use crate::support::{Folder, json, map, uvlet};

/// A page that takes a button of a package, whose index hands on a chart, too.
fn folder(index: &str, page: &str) -> Folder {
    let modules = [
        ("../src/page.js", 20),
        ("../node_modules/deckhouse/button.js", 30),
        ("../node_modules/deckhouse/chart.js", 3000),
        ("../node_modules/deckhouse/scale.js", 500),
    ];
    let mut segments = Vec::new();
    let mut at = 0;
    let mut text = String::new();
    for (name, length) in modules {
        segments.push((at, name));
        at += length;
        text.push_str(&format!("a(`{}`);", "x".repeat(usize::try_from(length).unwrap() - 6)));
    }
    let asks = |list: &[(&str, &str)]| -> Vec<serde_json::Value> {
        let one = |(path, original): &(&str, &str)| value!({"path": path, "kind": "import-statement", "original": original});
        list.iter().map(one).collect()
    };
    let package = "node_modules/deckhouse";
    let inside = |name: &str| format!("{package}/{name}");
    let (button, chart, scale) = (inside("button.js"), inside("chart.js"), inside("scale.js"));
    let metafile = value!({
        "inputs": {
            "src/page.js": {"bytes": page.len(), "imports": asks(&[(&inside("index.js"), "deckhouse")])},
            inside("index.js"): {"bytes": index.len(), "imports": asks(&[(&button, "./button.js"), (&chart, "./chart.js")])},
            button.clone(): {"bytes": 30, "imports": []},
            chart.clone(): {"bytes": 3000, "imports": asks(&[(&scale, "./scale.js")])},
            scale.clone(): {"bytes": 500, "imports": []},
        },
        "outputs": {"dist/page.js": {
            "bytes": text.len(), "entryPoint": "src/page.js", "imports": [], "exports": [],
            "inputs": {
                "src/page.js": {"bytesInOutput": 20}, button: {"bytesInOutput": 30},
                chart: {"bytesInOutput": 3000}, scale: {"bytesInOutput": 500},
            },
        }},
    });
    let button_text = "export const button = 1;";
    let chart_text = "import './scale.js'; export const chart = 2;";
    let mut with_sources: serde_json::Value = serde_json::from_str(&map(&segments)).unwrap();
    with_sources["sourcesContent"] =
        value!([page, button_text, chart_text, "export const scale = 3;"]);
    Folder::new()
        .with("package.json", "{}")
        .with("dist/index.html", "<script type=module src=page.js></script>")
        .with("dist/page.js", &text)
        .with("dist/page.js.map", with_sources.to_string())
        .with("dist/meta.json", metafile.to_string())
        .with(
            "node_modules/deckhouse/package.json",
            r#"{"name": "deckhouse", "version": "1.0.0", "exports": "./index.js"}"#,
        )
        .with("node_modules/deckhouse/index.js", index)
}

const INDEX: &str = "export { button } from './button.js';\nexport { chart } from './chart.js';\n";
const PAGE: &str = "import { button } from 'deckhouse'; button();";

#[rstest]
#[case::unused(INDEX, PAGE, Some(3500))]
#[case::renamed(
    "export { button as b } from './button.js'; export { chart as c } from './chart.js';",
    "import { b } from 'deckhouse';",
    Some(3500)
)]
#[case::imported_first(
    "import { button } from './button.js'; import { chart } from './chart.js'; export { button, chart };",
    PAGE,
    Some(3500)
)]
#[case::all_of_each("export * from './button.js'; export * from './chart.js';", PAGE, Some(3500))]
#[case::used(INDEX, "import { button, chart } from 'deckhouse';", None)]
#[case::as_an_object(INDEX, "import * as deck from 'deckhouse'; deck[name]();", None)]
#[case::for_what_it_does("import './chart.js'; export { button } from './button.js';", PAGE, None)]
#[case::does_more(
    "export { button } from './button.js'; export { chart } from './chart.js'; start();",
    PAGE,
    None
)]
fn a_file_that_hands_on(#[case] index: &str, #[case] page: &str, #[case] expected: Option<u64>) {
    let folder = folder(index, page);
    let answer = json(folder.path(), &["waste", "dist", "--kind", "barrel-pull"]);
    let findings = answer["findings"].as_array().unwrap();
    let drawn = findings.first().map(|finding| {
        assert_eq!(finding["where"][0], "node_modules/deckhouse/index.js");
        finding["by_entry"][0]["sizes"]["emitted"].as_u64().unwrap()
    });
    assert_eq!(drawn, expected, "{answer}");
}

/// With maps alone a file of one's own that only hands on has left no byte: what it draws in is told, and
/// what going past it would save, where the file itself is at hand.
#[rstest]
#[case::at_hand(true, "import { button } from './ui'; button();", true)]
#[case::not_at_hand(false, "import { button } from './ui'; button();", false)]
#[case::used(true, "import { button, chart } from './ui'; button(chart);", false)]
#[case::imported_beside(
    true,
    "import { button } from './ui'; import './ui/parts/chart.js';",
    false
)]
fn an_own_file_that_left_no_byte(
    #[case] is_at_hand: bool,
    #[case] page: &str,
    #[case] is_found: bool,
) {
    let text = format!(
        "{}{}{}\n//# sourceMappingURL=page.js.map",
        "p".repeat(20),
        "b".repeat(30),
        "c".repeat(3000)
    );
    let map = value!({
        "version": 3,
        "sources": ["../src/page.js", "../src/ui/button.js", "../src/ui/parts/chart.js"],
        "sourcesContent": [page, "export const button = 1;", "window.charts = 1; export const chart = 2;"],
        "names": [],
        "mappings": "AAAA,oBCAA,8BCAA",
    });
    let mut folder = Folder::new()
        .with("package.json", "{}")
        .with("dist/index.html", "<script type=module src=page.js></script>")
        .with("dist/page.js", text)
        .with("dist/page.js.map", map.to_string());
    if is_at_hand {
        folder = folder
            .with(
                "src/ui/index.js",
                "export { button } from './button.js'; export * from './parts';",
            )
            .with("src/ui/parts/index.js", "export { chart } from './chart.js';");
    }
    let answer = json(folder.path(), &["waste", "dist", "--kind", "barrel-pull"]);
    let findings = answer["findings"].as_array().unwrap();
    let drawn = findings.first().map(|finding| {
        assert_eq!(finding["where"][0], "src/ui/index.js");
        finding["by_entry"][0]["sizes"]["emitted"].as_u64().unwrap()
    });
    assert_eq!(drawn, is_found.then_some(3000), "{answer}");
    if is_found {
        let then = json(folder.path(), &["what-if", "dist", "--bypass", "src/ui/index.js"]);
        let startup =
            |when: &str| then["entries"][0][when]["startup"]["sizes"]["emitted"].as_u64().unwrap();
        assert!(startup("before") - startup("after") >= 3000, "{then}");
        let why = uvlet(folder.path(), &["why", "dist", "chart.js"]);
        let line = why.out.replace('\n', " ");
        assert!(line.contains("src/ui/parts/index.js re-exports it"), "{}", why.out);
    }
}

/// What is safe by construction, and nothing else: the diff is what `git apply` takes.
#[test]
fn a_patch_holds_what_changes_no_behaviour() {
    let folder = folder(
        "export { button } from './button.js'; export { chart } from './chart.js';",
        "import { button } from 'deckhouse'; button();",
    )
    .with("uvlet.toml", "[build]\nown = [\"deckhouse\"]\n")
    .with(
        "node_modules/deckhouse/index.js",
        "export { button } from './button.js';\nexport { chart } from './chart.js';\n",
    )
    .with("node_modules/deckhouse/button.js", "export const button = 1;\n")
    .with("node_modules/deckhouse/chart.js", "import './scale.js';\nexport const chart = 2;\n")
    .with("node_modules/deckhouse/scale.js", "globalThis.scale = 3;\n")
    .with("node_modules/deckhouse/look.css", "p { margin: 0 }\n")
    .with(
        "node_modules/deckhouse/package.json",
        "{\n  \"name\": \"deckhouse\",\n  \"version\": \"1.0.0\"\n}\n",
    );
    let said = uvlet(folder.path(), &["waste", "dist", "--patch", "safe.patch"]);
    assert_eq!(said.status, 0, "{}", said.err);
    let patch = folder.read("safe.patch");
    // A file that is imported for what it does keeps its importer in the list.
    let line = "+  \"sideEffects\": [\"./chart.js\", \"./scale.js\", \"**/*.css\"],";
    assert!(patch.contains(line), "{patch}");
    assert!(patch.starts_with("barrel-pull:"), "{patch}");
    let applied = std::process::Command::new("git")
        .current_dir(folder.path())
        .args(["apply", "safe.patch"])
        .output()
        .unwrap();
    assert!(applied.status.success(), "{}", String::from_utf8_lossy(&applied.stderr));
    let package: serde_json::Value =
        serde_json::from_str(&folder.read("node_modules/deckhouse/package.json")).unwrap();
    assert_eq!(package["sideEffects"][0], "./chart.js");
    // What is declared already, and what is not in-house, stays as it is.
    let again = uvlet(folder.path(), &["waste", "dist", "--patch", "again.patch"]);
    assert!(again.out.contains("no finding can be mended"), "{}", again.out);
    assert_eq!(folder.read("again.patch"), "");
}

/// Rules that nothing can match, by what stands in pages and scripts.
#[rstest]
#[case::written("<p class='quay'>", "e.className='low'", &[".never{color:red}"])]
#[case::put_together("<p class='quay'>", "e.className='nev'+er+'low'", &[".never{color:red}"])]
#[case::by_a_joint("<p class='quay low'>", "e.className='never'", &[])]
#[case::by_pieces("<p class='quay low'>", "e.className=`${a}er`+'ne'", &[".never{color:red}"])]
#[case::none_of_it("<p>", "go()", &[".quay{margin:0}", "@media print{.low{margin:1px}}", ".never{color:red}"])]
fn rules_that_match_nothing(#[case] page: &str, #[case] script: &str, #[case] gone: &[&str]) {
    let style = "p{margin:0}.quay{margin:0}@media print{.low{margin:1px}}.never{color:red}";
    let links = "<link rel=stylesheet href=a.css><script src=a.js></script>";
    let folder = Folder::new()
        .with("dist/index.html", format!("{links}{page}"))
        .with("dist/a.js", script)
        .with("dist/a.css", style);
    let waste = ["waste", "dist", "--kind", "unused-rules"];
    let answer = json(folder.path(), &waste);
    let places: Vec<&serde_json::Value> = answer["findings"]
        .as_array()
        .unwrap()
        .iter()
        .flat_map(|finding| finding["places"].as_array().unwrap())
        .collect();
    let at = |value: &serde_json::Value| usize::try_from(value.as_u64().unwrap()).unwrap();
    let found: String = places
        .iter()
        .map(|place| {
            let start = at(&place["start"]);
            &style[start..start + at(&place["length"])]
        })
        .collect();
    assert_eq!(found, gone.concat());
}

/// Where the page is not in the folder it may say anything.
#[test]
fn rules_without_their_page_are_not_judged() {
    let folder = Folder::new()
        .with("dist/a.js", "import './a.css'; export {}")
        .with("dist/a.css", ".never{color:red}");
    let answer = json(folder.path(), &["waste", "dist", "--kind", "unused-rules"]);
    assert_eq!(answer["findings"], value!([]));
    assert_eq!(answer["judged"][0]["bytes"], 0, "{}", answer["judged"]);
}

/// Scripts of other hosts may name anything, and a script that no load leads to may be one that a page loads.
#[test]
fn what_names_classes_and_is_not_seen() {
    let page = "<link rel=stylesheet href=a.css><script src=a.js></script>\
                <script src=https://cdn.kelpwick.example/x.js></script>";
    let folder = Folder::new()
        .with("dist/index.html", page)
        .with("dist/a.js", "load(name)")
        .with("dist/b.js", "e.className='quay'")
        .with("dist/a.css", ".never{color:red}.quay{margin:0}");
    let answer = json(folder.path(), &["waste", "dist", "--kind", "unused-rules"]);
    let found = &answer["findings"][0];
    assert_eq!(found["recoverable"]["emitted"], ".never{color:red}".len());
    let cause = found["cause"].as_str().unwrap();
    assert!(cause.ends_with("what cdn.kelpwick.example serves was not seen"), "{cause}");
}
