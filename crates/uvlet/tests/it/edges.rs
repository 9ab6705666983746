//! Who asks for whom: what sources say, held against what bundlers say of the same builds.

use std::{collections::BTreeSet, fs, path::Path};

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, demo, uvlet};

fn record(folder: &Path, arguments: &[&str]) -> Value {
    let said = uvlet(folder, &[&["record"], arguments].concat());
    assert_eq!(said.status, 0, "{}", said.err);
    serde_json::from_str::<Value>(&said.out).unwrap()["record"].take()
}

fn list<'r>(record: &'r Value, key: &str) -> &'r [Value] {
    record[key].as_array().map_or(&[], Vec::as_slice)
}

fn path(record: &Value, module: &Value) -> String {
    let at = usize::try_from(module.as_u64().unwrap()).unwrap();
    record["modules"][at]["path"].as_str().unwrap().to_owned()
}

/// Edges of these bases, by paths.
fn all_edges(record: &Value, bases: &[&str]) -> BTreeSet<(String, String)> {
    let is_code = |edge: &&Value| !matches!(edge["kind"].as_str(), Some("style" | "url"));
    let edges = list(record, "edges").iter().filter(is_code);
    let edges = edges.filter(|edge| bases.contains(&edge["basis"].as_str().unwrap()));
    edges.map(|edge| (path(record, &edge["from"]), path(record, &edge["to"]))).collect()
}

/// Modules that have bytes, by path.
fn with_bytes(record: &Value) -> BTreeSet<String> {
    let cells = list(record, "cells").iter().filter(|cell| cell["emitted"].as_u64() > Some(0));
    let owners = cells.filter_map(|cell| cell["owner"].get("module"));
    owners.map(|module| path(record, module)).collect()
}

/// Edges of these bases between modules that have bytes.
fn edges(record: &Value, bases: &[&str]) -> BTreeSet<(String, String)> {
    let there = with_bytes(record);
    let all = all_edges(record, bases).into_iter();
    all.filter(|(from, to)| there.contains(from) && there.contains(to)).collect()
}

/// The same, where modules without bytes are looked through.
fn led(record: &Value, bases: &[&str]) -> BTreeSet<(String, String)> {
    let (there, all) = (with_bytes(record), all_edges(record, bases));
    let mut found = BTreeSet::new();
    for from in &there {
        let (mut open, mut seen) = (vec![from], BTreeSet::new());
        while let Some(at) = open.pop() {
            for (_, to) in all.iter().filter(|(from, to)| from == at && seen.insert(to.clone())) {
                match there.contains(to) {
                    true => _ = found.insert((from.clone(), to.clone())),
                    false => open.push(to),
                }
            }
        }
    }
    found
}

/// A sample build without what its bundler says of it.
fn undescribed(sample: &str) -> Folder {
    let mut folder = Folder::new();
    let from = demo().join("builds").join(sample);
    for entry in walkdir::WalkDir::new(&from).into_iter().flatten() {
        let inside = entry.path().strip_prefix(&from).unwrap().to_str().unwrap();
        let is_description = ["stats.json", "metafile.json", "uvlet-build.json", "manifest.json"]
            .iter()
            .any(|name| inside.ends_with(name));
        if entry.file_type().is_file() && !is_description {
            folder = folder.with(&format!("out/{inside}"), fs::read(entry.path()).unwrap());
        }
    }
    folder
}

#[rstest]
#[case("esbuild-before")]
#[case("rollup-after")]
#[case("vite-before")]
#[case("webpack-after")]
#[case("rspack-before")]
fn sources_say_what_the_bundler_says(#[case] sample: &str) {
    let said = record(&demo(), &[&format!("builds/{sample}")]);
    let folder = undescribed(sample);
    let parsed = record(folder.path(), &["out"]);
    let found = led(&parsed, &["read", "inferred"]);
    let all = edges(&said, &["said"]);
    assert!(all.len() > 20, "{all:?}");
    // What is not found is said: nothing is left out in silence.
    let open: BTreeSet<(String, String)> = list(&parsed, "unresolved_requests")
        .iter()
        .map(|open| (path(&parsed, &open["from"]), open["request"].as_str().unwrap().to_owned()))
        .collect();
    let is_open = |from: &str, to: &str| {
        let edges = list(&said, "edges").iter();
        let mut these =
            edges.filter(|e| path(&said, &e["from"]) == from && path(&said, &e["to"]) == to);
        these.any(|edge| {
            let request = edge["request"].as_str().unwrap_or_default();
            request.contains('!') || open.contains(&(from.to_owned(), request.to_owned()))
        })
    };
    // A bundler may say at once where a name comes from that a module in between hands on.
    let is_handed_on = |from: &str, to: &str| {
        found.iter().any(|(a, b)| a == from && found.contains(&(b.clone(), to.to_owned())))
    };
    let missing: Vec<_> = all
        .difference(&found)
        .filter(|(from, to)| !is_open(from, to) && !is_handed_on(from, to))
        .collect();
    assert!(missing.is_empty(), "{missing:?}");
    // A bundler may have taken out again what a source asks for; nothing else is made up.
    let direct = edges(&parsed, &["read"]);
    let wrong: Vec<_> = direct.difference(&all).collect();
    assert!(wrong.len() * 50 <= direct.len(), "{wrong:?}");
}

/// A script of so many modules, each of one byte, with their sources in its map.
fn script(sources: &[(&str, &str)]) -> Folder {
    script_of(sources, sources.len())
}

/// The same, where only the first modules left a byte.
fn script_of(sources: &[(&str, &str)], count: usize) -> Folder {
    let names: Vec<_> = sources.iter().map(|(name, _)| format!("../{name}")).collect();
    let texts: Vec<_> = sources.iter().map(|(_, text)| *text).collect();
    let mappings = format!("AAAA{}", ",CCAA".repeat(count - 1));
    let map = serde_json::json!({
        "version": 3, "sources": names, "sourcesContent": texts, "mappings": mappings,
    });
    let text = "x".repeat(count) + "\n//# sourceMappingURL=a.js.map";
    Folder::new().with("out/a.js", text).with("out/a.js.map", map.to_string())
}

/// Edges as `from > to`, by paths, in order.
fn drawn(record: &Value, basis: &str) -> Vec<String> {
    edges(record, &[basis]).into_iter().map(|(from, to)| format!("{from} > {to}")).collect()
}

#[test]
fn an_entry_does_not_begin_at_what_a_file_without_bytes_imports() {
    let folder = script_of(
        &[
            ("src/main.js", "import * as scales from 'vend/scale.js'; scales"),
            ("node_modules/scale/linear.js", "export const linear = 1"),
            ("node_modules/vend/scale.js", "export * from 'scale/linear.js'"),
        ],
        2,
    )
    .with("out/index.html", "<script type=module src=a.js></script>");
    let record = record(folder.path(), &["out"]);
    let roots = list(&list(&record, "entries")[0], "roots");
    let roots: Vec<String> = roots.iter().map(|root| path(&record, root)).collect();
    assert_eq!(roots, ["src/main.js"]);
}

#[test]
fn a_file_that_only_hands_on_is_looked_through() {
    let folder = script(&[
        (
            "src/page.ts",
            "import { Quay, type T } from './harbour'; import tide from '@/tide'; new Quay(tide)",
        ),
        ("src/harbour/quay.ts", "export class Quay {}"),
        ("src/harbour/pier.ts", "export class Pier {}"),
        ("src/tide/index.ts", "export default 1; import './harbour-lights'"),
    ]);
    let record = record(folder.path(), &["out"]);
    assert_eq!(drawn(&record, "read"), ["src/page.ts > src/tide/index.ts"]);
    // It becomes a module, called as it is asked for, since its ending is not known.
    let between: Vec<String> = list(&record, "edges")
        .iter()
        .map(|edge| format!("{} > {}", path(&record, &edge["from"]), path(&record, &edge["to"])))
        .filter(|edge| edge.contains("harbour/"))
        .collect();
    assert_eq!(
        between,
        ["src/harbour/index > src/harbour/quay.ts", "src/page.ts > src/harbour/index"]
    );
    let edge = list(&record, "edges").iter().find(|edge| edge["request"] == "./harbour").unwrap();
    assert_eq!(edge["names"][0], "Quay");
}

#[test]
fn files_of_packages_that_left_no_byte_are_modules() {
    let folder = script(&[
        (
            "src/page.ts",
            "import { low } from 'tide'; import { linear } from 'vend/scale'; low(linear)",
        ),
        ("node_modules/tide/lib/low.js", "export const low = 1"),
        ("node_modules/tide/lib/flood.js", "export const flood = watch()"),
        ("node_modules/scale/linear.js", "export const linear = 1"),
    ])
    .with("out/index.html", "<script type=module src=a.js></script>")
    .with("package.json", "{\"name\":\"site\"}")
    .with("src/page.ts", "")
    .with("node_modules/tide/package.json", r#"{"name":"tide","module":"index.js"}"#)
    .with(
        "node_modules/tide/index.js",
        "export { low } from './lib/low.js'; export * from './lib/flood.js'",
    )
    .with("node_modules/tide/lib/low.js", "")
    .with("node_modules/tide/lib/flood.js", "")
    .with("node_modules/vend/package.json", r#"{"name":"vend","version":"3.1.0"}"#)
    .with("node_modules/vend/scale.js", "export * from 'scale/linear.js'")
    .with("node_modules/scale/package.json", r#"{"name":"scale"}"#)
    .with("node_modules/scale/linear.js", "");
    // What a package does not call free of effects comes along with what is taken of it.
    let record = record(folder.path(), &["out"]);
    let along = list(&record, "edges").iter().find(|edge| edge["request"] == "./lib/flood.js");
    let along = along.map(|edge| (path(&record, &edge["from"]), &edge["names"]));
    assert_eq!(along, Some(("node_modules/tide/index.js".into(), &serde_json::json!([]))));
    // A package that left no byte can be taken out, with what only it leads to.
    let vend = list(&record, "packages").iter().find(|package| package["name"] == "vend").unwrap();
    assert_eq!(vend["version"], "3.1.0");
    for (package, kept) in [("vend", 3), ("tide", 2)] {
        let without = format!("package({package})");
        let asked =
            ["what-if", "out", "--without", &without, "--measure", "emitted", "--format", "json"];
        let said = uvlet(folder.path(), &asked);
        let answer: Value = serde_json::from_str(&said.out).unwrap();
        assert_eq!(list(&answer, "moved").len(), 4 - kept, "{} {}", said.out, said.err);
    }
}

#[test]
fn a_list_of_exports_that_left_a_comment_keeps_what_is_taken_of_it() {
    let index = "/* licence */ export { fall } from './fall.js'; export { low } from './low.js'; export { rise } from './rise.js'";
    let folder = script(&[
        ("src/page.ts", "import { low } from 'tide'; import './chart'; low()"),
        ("src/chart.ts", "import { fall, rise } from 'tide'; fall()"),
        ("node_modules/tide/index.js", index),
        ("node_modules/tide/fall.js", "export const fall = () => 1"),
        ("node_modules/tide/low.js", "export const low = () => 1"),
    ])
    .with("out/index.html", "<script type=module src=a.js></script>")
    .with("package.json", "{\"name\":\"site\"}")
    .with("src/page.ts", "")
    .with("node_modules/tide/package.json", r#"{"name":"tide","sideEffects":false}"#)
    .with("node_modules/tide/index.js", index)
    .with("node_modules/tide/rise.js", "export const rise = () => 1");
    // One name of two is shaken, and tells nothing of the others.
    let asked =
        ["what-if", "out", "--without", "src/chart.ts", "--measure", "emitted", "--format", "json"];
    let said = uvlet(folder.path(), &asked);
    let answer: Value = serde_json::from_str(&said.out).unwrap();
    let moved = list(&answer, "moved").iter().map(|moved| moved["module"].as_str().unwrap());
    assert_eq!(
        moved.collect::<BTreeSet<_>>(),
        BTreeSet::from(["node_modules/tide/fall.js", "src/chart.ts"])
    );
}

#[test]
fn a_package_that_is_built_of_sources_of_its_own_is_led_into() {
    // Its map names sources that are not installed with it, and of which none gives what is taken.
    let folder = script(&[
        ("src/page.ts", "import { Quay } from 'tide'; new Quay()"),
        ("node_modules/tide/src/core/quay.core.ts", "export default class {}"),
        ("node_modules/tide/src/press/index.ts", "export const press = 1"),
        ("node_modules/tide/src/plugin.ts", "import { low } from 'scale'; low()"),
        ("node_modules/scale/src/gesture/index.ts", "export const gesture = 1"),
        ("node_modules/scale/src/low.ts", "export const low = 1"),
    ])
    .with("out/index.html", "<script type=module src=a.js></script>")
    .with("package.json", "{\"name\":\"site\"}")
    .with("src/page.ts", "")
    .with("node_modules/tide/package.json", r#"{"name":"tide","module":"dist/tide.js"}"#)
    .with("node_modules/tide/dist/tide.js", "class Q {} export { Q as Quay }")
    .with("node_modules/scale/package.json", r#"{"name":"scale","module":"dist/scale.js"}"#)
    .with("node_modules/scale/dist/scale.js", "export * from './low.js'")
    .with("node_modules/scale/dist/low.js", "export const low = 1");
    let record = record(folder.path(), &["out"]);
    let led = led(&record, &["read", "inferred"]);
    let to = |from: &str| -> Vec<&str> {
        let led = led.iter().filter(|(asking, _)| asking == from);
        led.map(|(_, to)| to.strip_prefix("node_modules/").unwrap_or(to)).collect()
    };
    let parts = ["tide/src/core/quay.core.ts", "tide/src/plugin.ts", "tide/src/press/index.ts"];
    assert_eq!(to("src/page.ts"), parts);
    // Packages are looked for around where sources would lie; the index of a part is not that of the whole,
    // and stays with what is taken.
    let parts = ["scale/src/gesture/index.ts", "scale/src/low.ts"];
    assert_eq!(to("node_modules/tide/src/plugin.ts"), parts);
    let is_direct = |edge: &&Value| path(&record, &edge["from"]).ends_with("plugin.ts");
    let direct = list(&record, "edges").iter().filter(is_direct);
    let direct: Vec<String> = direct.map(|edge| path(&record, &edge["to"])).collect();
    assert_eq!(direct, ["node_modules/scale/dist/scale.js"]);
}

#[test]
fn requests_of_every_kind_are_resolved() {
    let folder = script(&[
        (
            "src/a.tsx",
            "import './b.js'; import c from 'pkg/c'; export const a = <p/>; const d = () => import('~/pages/d'); import type { T } from './t'; new Worker(new URL('./w.ts', import.meta.url))",
        ),
        ("src/b.ts", "require('old'); function f(require) { require('./t') }"),
        ("src/pages/d.vue", "<script>import { low } from 'tide'</script>"),
        ("src/t.ts", "export type T = 1"),
        ("src/w.ts", "import tide from 'tide/high'; tide()"),
        ("node_modules/pkg/lib/c.mjs", "import low from 'tide'; export default low"),
        ("node_modules/pkg/node_modules/tide/index.js", "module.exports = 1"),
        ("node_modules/tide/index.js", "export { low } from './low'"),
        ("node_modules/tide/low.js", "export const low = 1"),
        ("node_modules/tide/high.js", "export default 2"),
        ("node_modules/old/index.js", "exports.a = require('fs')"),
        ("node_modules/react/jsx-runtime.js", "exports.jsx = 1"),
    ]);
    let record = record(folder.path(), &["out"]);
    let expected = [
        "node_modules/pkg/lib/c.mjs > node_modules/pkg/node_modules/tide/index.js",
        "node_modules/tide/index.js > node_modules/tide/low.js",
        "src/a.tsx > node_modules/react/jsx-runtime.js",
        "src/a.tsx > src/b.ts",
        "src/a.tsx > src/pages/d.vue",
        "src/a.tsx > src/w.ts",
        "src/b.ts > node_modules/old/index.js",
        "src/pages/d.vue > node_modules/tide/index.js",
        "src/w.ts > node_modules/tide/high.js",
    ];
    let found: Vec<String> = drawn(&record, "read");
    // A compiler takes `c` out again, which no code uses.
    assert_eq!(found, expected);
    assert_eq!(list(&record, "unresolved_requests"), [] as [Value; 0]);
    let formats = |path: &str| {
        let module = list(&record, "modules").iter().find(|module| module["path"] == path).unwrap();
        module["format"].as_str().unwrap_or_default().to_owned()
    };
    assert_eq!(
        (formats("src/w.ts"), formats("node_modules/old/index.js")),
        ("es".into(), "commonjs".into())
    );
}

#[test]
fn what_is_installed_is_resolved_as_its_package_says() {
    let folder = script(&[
        ("src/page.ts", "import { low } from 'tide'; import 'tide/setup'; low()"),
        ("node_modules/tide/lib/browser.js", "setup()"),
        ("node_modules/tide/lib/low.js", "export const low = 1"),
    ])
        .with("package.json", "{\"name\":\"site\"}")
        .with("src/page.ts", "")
        .with(
            "node_modules/tide/package.json",
            r#"{"name":"tide","version":"3.0.4","sideEffects":["./lib/browser.js"],
                "exports":{".":{"import":"./index.js"},"./setup":{"browser":"./lib/browser.js","default":"./lib/node.js"}}}"#,
        )
        .with("node_modules/tide/index.js", "export * from './lib/low.js'")
        .with("node_modules/tide/lib/low.js", "export const low = 1")
        .with("node_modules/tide/lib/browser.js", "setup()");
    let record = record(folder.path(), &["out"]);
    assert_eq!(drawn(&record, "read"), ["src/page.ts > node_modules/tide/lib/browser.js"]);
    let ends = |edge: &Value| (path(&record, &edge["from"]), path(&record, &edge["to"]));
    let [index, low] = ["index.js", "lib/low.js"].map(|name| format!("node_modules/tide/{name}"));
    let all: Vec<_> = list(&record, "edges").iter().map(ends).collect();
    assert!(all.contains(&("src/page.ts".into(), index.clone())), "{all:?}");
    assert!(all.contains(&(index, low)), "{all:?}");
    let effects = |path: &str| {
        let module = list(&record, "modules").iter().find(|module| module["path"] == path).unwrap();
        module["side_effects"].as_bool()
    };
    let [low, browser] =
        ["low", "browser"].map(|name| effects(&format!("node_modules/tide/lib/{name}.js")));
    assert_eq!((low, browser), (Some(false), Some(true)));
}
