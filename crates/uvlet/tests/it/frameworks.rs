//! What frameworks write, in samples of each form: routes, held against what a browser asked for.

use std::{
    collections::{BTreeMap, BTreeSet},
    fs,
    path::{Path, PathBuf},
};

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, json, uvlet};

fn builds() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/builds")
}

fn texts(value: &Value) -> Vec<&str> {
    value.as_array().unwrap().iter().map(|text| text.as_str().unwrap()).collect()
}

/// Whether a pattern, as any of the frameworks writes it, fits a path.
fn fits(pattern: &str, path: &str) -> bool {
    let (pattern, path): (Vec<_>, Vec<_>) =
        (pattern.split('/').collect(), path.split('/').collect());
    pattern.len() == path.len()
        && pattern.iter().zip(&path).all(|(a, b)| a == b || a.starts_with([':', '[']))
}

fn is_code(path: &&str) -> bool {
    [".js", ".mjs", ".css"].iter().any(|ending| path.ends_with(ending))
}

/// The scripts and styles that a visit of a path fetches before anybody does anything.
fn fetched<'s>(survey: &'s Value, path: &str) -> BTreeSet<&'s str> {
    let entries = survey["entries"].as_array().unwrap();
    let is_its = |entry: &&Value| texts(&entry["routes"]).iter().any(|route| fits(route, path));
    let exact = entries.iter().find(|entry| texts(&entry["routes"]).contains(&path));
    let entry = exact.or_else(|| entries.iter().find(is_its));
    let opened = entry.is_none();
    let entry = entry.unwrap_or(&entries[0]);
    let mut files = texts(&entry["startup"]["files"]);
    for load in entry["deferred"]["loads"].as_array().unwrap() {
        let route = load["route"].as_str().filter(|_| opened);
        if route.is_some_and(|route| fits(route, path)) {
            files.extend(texts(&load["files"]));
        }
    }
    files.into_iter().filter(is_code).collect()
}

#[rstest]
#[case("next-app-turbopack", "Next.js", "turbopack")]
#[case("next-app-webpack", "Next.js", "webpack")]
#[case("next-pages-turbopack", "Next.js", "turbopack")]
#[case("next-export", "Next.js", "turbopack")]
#[case("sveltekit-node", "SvelteKit", "vite")]
#[case("sveltekit-static", "SvelteKit", "vite")]
#[case("nuxt-server", "Nuxt", "vite")]
#[case("astro", "Astro", "vite")]
#[case("react-router", "React Router", "vite")]
#[case("angular", "Angular", "esbuild")]
#[case("webpack-app", "", "")]
#[case("bun", "", "")]
fn a_route_fetches_what_a_browser_asks_for(
    #[case] sample: &str,
    #[case] framework: &str,
    #[case] bundler: &str,
) {
    let asked = fs::read_to_string(builds().join("requests.json")).unwrap();
    let asked: BTreeMap<String, BTreeMap<String, BTreeSet<String>>> =
        serde_json::from_str(&asked).unwrap();
    let survey = json(&builds(), &["survey", sample]);
    assert_eq!(survey["build"]["framework"].as_str().unwrap_or_default(), framework);
    assert_eq!(survey["build"]["bundler"].as_str().unwrap_or_default(), bundler);
    for (path, files) in &asked[sample] {
        let files: BTreeSet<&str> = files.iter().map(String::as_str).collect();
        assert_eq!(fetched(&survey, path), files, "{sample} {path}");
    }
}

/// A copy of a sample, to which more can be added.
fn copied(sample: &str, as_name: &str) -> Folder {
    let mut folder = Folder::new();
    let from = builds().join(sample);
    let mut open = vec![from.clone()];
    while let Some(inside) = open.pop() {
        for file in fs::read_dir(inside).unwrap().map(|file| file.unwrap().path()) {
            if file.is_dir() {
                open.push(file);
                continue;
            }
            let path = file.strip_prefix(&from).unwrap().to_str().unwrap();
            folder = folder.with(&format!("{as_name}/{path}"), fs::read(&file).unwrap());
        }
    }
    folder
}

#[test]
fn what_is_not_served_counts_in_no_total() {
    let plain = json(&builds(), &["survey", "next-app-turbopack"]);
    let folder = copied("next-app-turbopack", ".next")
        .with("package.json", r#"{"name":"harbour","scripts":{}}"#)
        .with(".next/cache/turbopack/v1/0001.sst", vec![7; 5000])
        .with(".next/server/chunks/ssr/x.js", "require('fs')")
        .with(".next/trace", "[]");
    let survey = json(folder.path(), &["survey", "."]);
    assert_eq!(survey["totals"], plain["totals"]);
    let apart: Vec<(&str, u64)> = survey["set_aside"]
        .as_array()
        .unwrap()
        .iter()
        .map(|part| (part["reason"].as_str().unwrap(), part["bytes"].as_u64().unwrap()))
        .collect();
    assert!(apart.contains(&("cache", 5000)), "{apart:?}");
    assert!(apart.iter().any(|(reason, _)| *reason == "server"), "{apart:?}");
    // A part of the output stands for all of it.
    let part = json(folder.path(), &["survey", ".next/static"]);
    assert_eq!(part["totals"], plain["totals"]);
    assert!(part["notices"].to_string().contains("whole-read"));
}

#[test]
fn a_project_with_a_frameworks_own_folder_has_one_build() {
    let folder = copied("sveltekit-node", "build")
        .with("package.json", r#"{"name":"harbour","scripts":{}}"#)
        .with(".svelte-kit/output/client/_app/immutable/entry/start.1.js", "1")
        .with(".svelte-kit/output/client/_app/immutable/entry/app.1.js", "1");
    let survey = json(folder.path(), &["survey"]);
    assert_eq!(survey["build"]["label"], "build");
    assert_eq!(survey["entries"].as_array().unwrap().len(), 4);
}

#[test]
fn a_budget_sees_what_is_lazy() {
    for (sample, selector) in [
        ("next-app-turbopack", "deferred(/reports) and scripts"),
        ("next-app-webpack", "deferred(/reports) and scripts"),
        ("next-pages-turbopack", "deferred(/reports) and styles"),
        ("sveltekit-node", "deferred(/reports) and file(**/DYtxHhxa.js)"),
        ("astro", "deferred(/contact) and scripts"),
        ("react-router", "deferred(/reports) and scripts"),
        ("webpack-app", "route(/reports) and file(**/705.*.js)"),
        ("parcel", "route(/reports) and file(Reports.*.js)"),
        ("bun", "route(/reports) and file(Reports-*.js)"),
        ("angular", "route(/reports) and scripts"),
    ] {
        let folder = copied(sample, "site").with(
            "uvlet.toml",
            format!("[build]\nfolder = \"site\"\n[budget.lazy]\nabsent = \"{selector}\"\n"),
        );
        let said = uvlet(folder.path(), &["gate"]);
        assert_eq!(said.status, 1, "{sample}: {}{}", said.out, said.err);
    }
}

#[test]
fn routes_of_one_page_are_told_apart() {
    let survey = json(&builds(), &["survey", "parcel"]);
    let visit = |route: &str| {
        let visits = survey["visits"].as_array().unwrap();
        visits.iter().find(|visit| visit["route"] == route).unwrap()
    };
    let emitted = |value: &Value| value["sizes"]["emitted"].as_u64().unwrap();
    let startup = emitted(&survey["entries"][0]["startup"]);
    let reports = visit("/reports");
    assert_eq!(emitted(reports), startup + emitted(&reports["adds"]));
    assert_eq!(reports["after"].as_array().unwrap().len(), 2);
    let told = json(&builds(), &["attribute", "parcel", "--in", "route(/reports)"]);
    assert_eq!(told["total"]["sizes"]["emitted"].as_u64(), Some(emitted(reports)));
    // A visit of it fetches what the page has not, before a step and after.
    let plan = ["what-if", "parcel", "--visits", "/,/reports", "--touch", "assets"];
    let visited = json(&builds(), &plan);
    let (first, second) = (&visited["visits"][0], &visited["visits"][1]);
    assert_eq!((&first["entry"], &second["entry"]), (&"index".into(), &"/reports".into()));
    assert_eq!(emitted(&first["before"]), startup);
    assert_eq!(emitted(&second["before"]), emitted(&reports["adds"]));
    assert_eq!(second["before"], second["after"]);
    // The page that opens it is said where an entry is asked for.
    let said = uvlet(&builds(), &["attribute", "parcel", "--in", "startup(/reports)"]);
    assert_eq!(said.status, 2);
    assert!(said.err.contains("route(/reports)"), "{}", said.err);
}

#[test]
fn tables_that_are_loaded_on_demand_stand_below_their_route() {
    let folder = Folder::new()
        .with("d/index.html", "<script type=module src=main.js></script>")
        .with(
            "d/main.js",
            r#"go([{path:"fleet",loadChildren:()=>import("./fleet.js").then(e=>e.rows)}]);"#,
        )
        .with(
            "d/fleet.js",
            r#"import"./main.js";export const rows=[
                {path:"",loadComponent:()=>import("./list.js").then(e=>e.a)},
                {path:"ships",loadChildren:()=>import("./ships.js").then(e=>e.rows)}];"#,
        )
        .with(
            "d/ships.js",
            r#"export const rows=[{path:":id",loadComponent:()=>import("./ship.js")}]"#,
        )
        .with("d/list.js", "export const a=1")
        .with("d/ship.js", "export const a=2");
    let survey = json(folder.path(), &["survey", "d"]);
    let visits: Vec<(&str, u64)> = survey["visits"]
        .as_array()
        .unwrap()
        .iter()
        .map(|visit| {
            let files = visit["adds"]["file_count"].as_u64().unwrap();
            (visit["route"].as_str().unwrap(), files)
        })
        .collect();
    assert_eq!(visits, [("/fleet", 2), ("/fleet/ships", 2), ("/fleet/ships/:id", 3)]);
}

#[test]
fn loads_by_ids_that_lead_nowhere_are_said() {
    let folder = Folder::new()
        .with("d/index.html", "<script src=a.js></script>")
        .with(
            "d/a.js",
            "(globalThis.TURBOPACK||(globalThis.TURBOPACK=[])).push([void 0,7,8,e=>{x(()=>e.A(9));\
             x(()=>e.A(10))},10,e=>{e.v(t=>Promise.resolve().then(()=>t(7)))}]);",
        )
        .with(
            "d/b.js",
            "(globalThis.TURBOPACK||(globalThis.TURBOPACK=[])).push([void 0,11,e=>{}]);",
        )
        .with(
            "uvlet.toml",
            "[build]\nfolder = \"d\"\n[budget.later]\ntotal = \"deferred(*)\"\nat_most = \"1 B\"\n",
        );
    let said = uvlet(folder.path(), &["survey", "d"]);
    assert!(said.out.contains("1 dynamic load could not be"), "{}", said.out);
    assert!(said.out.contains("built by Turbopack"), "{}", said.out);
    // What it fetches may be the script that nobody names.
    let said = uvlet(folder.path(), &["gate"]);
    assert_eq!(said.status, 2, "{}", said.out);
}

#[test]
fn what_comes_from_elsewhere_is_listed() {
    let folder = Folder::new()
        .with(
            "d/index.html",
            r#"<script src="https://cdn.harbour.example/a.js"></script><script>(()=>{
                var s=document.createElement("script");s.src="https://count.harbour.example/c?id="+q
               })()</script><link rel=stylesheet href=a.css><script type=module src=m.js></script>"#,
        )
        .with("d/a.css", "@import url(https://type.harbour.example/t.css);")
        .with("d/m.js", "on(()=>import('https://cdn.harbour.example/late.js'));e='https://x.y/z'");
    let survey = json(folder.path(), &["survey", "d"]);
    let rows: Vec<String> = survey["elsewhere"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| format!("{} {} {}", row["when"], row["url"], row["by"]).replace('"', ""))
        .collect();
    assert_eq!(
        rows,
        [
            "startup https://cdn.harbour.example/a.js index.html",
            "startup https://count.harbour.example/c?id= index.html",
            "startup https://type.harbour.example/t.css a.css",
            "later https://cdn.harbour.example/late.js m.js",
        ]
    );
    let said = uvlet(folder.path(), &["attribute", "d", "--in", "startup(index)"]);
    assert!(said.out.contains("2 more are loaded from other hosts"), "{}", said.out);
}

#[test]
fn a_library_starts_from_what_its_package_offers() {
    let folder = Folder::new()
        .with(
            "package.json",
            r#"{"name":"@kelpwick/tides","main":"./dist/index.cjs","exports":{
                ".":{"types":"./dist/index.d.ts","import":"./dist/index.mjs","require":"./dist/index.cjs"},
                "./chart":"./dist/chart.mjs"}}"#,
        )
        .with("dist/index.d.ts", "export declare const a: number")
        .with("dist/index.mjs", "import './deep-1.mjs';import 'react'")
        .with("dist/deep-1.mjs", "a()")
        .with("dist/chart.mjs", "b()")
        .with(
            "dist/index.cjs",
            "'use strict';const a=require('./part.cjs');exports.b=()=>Promise.resolve().then(\
             function(){return require('./late.cjs')})",
        )
        .with("dist/part.cjs", "exports.a=1")
        .with("dist/late.cjs", "exports.a=1");
    let survey = json(folder.path(), &["survey", "dist"]);
    let entries: Vec<String> = survey["entries"]
        .as_array()
        .unwrap()
        .iter()
        .map(|entry| {
            let files = texts(&entry["startup"]["files"]).join(" ");
            format!(
                "{}: {files} + {}",
                entry["name"].as_str().unwrap(),
                entry["deferred"]["file_count"]
            )
        })
        .collect();
    assert_eq!(
        entries,
        [
            "chart: chart.mjs + 0",
            "tides: index.mjs deep-1.mjs + 0",
            "tides (require): index.cjs part.cjs + 1"
        ]
    );
    assert_eq!(survey["entries"][0]["found_by"], "package");
    assert_eq!(survey["aside"][0]["kind"], "types");
}

#[test]
fn sources_of_packages_own_maps_are_never_own() {
    let map = r#"{"version":3,"sources":["webpack://_N_E/./src/app.js",
        "webpack://_N_E/../../src/client/index.ts","webpack://_N_E/../src/lost.ts",
        "webpack://_N_E/../shared/tide.js"],"sourcesContent":["a()","let b","c","d"],"names":[],
        "mappings":"AAAA,CCAA,CCAA,CCAA"}"#;
    let folder = Folder::new()
        .with("site/package.json", r#"{"name":"site","dependencies":{"rigging":"1"}}"#)
        .with("shared/tide.js", "d")
        .with("site/node_modules/rigging/package.json", r#"{"name":"rigging","version":"1.2.0"}"#)
        .with(
            "site/node_modules/rigging/dist/client/index.js.map",
            r#"{"version":3,"sources":["../../src/client/index.ts"],"sourcesContent":["let b"],
                "names":[],"mappings":""}"#,
        )
        .with("site/dist/index.html", "<script src=a.js></script>")
        .with("site/dist/a.js", "abcd\n//# sourceMappingURL=a.js.map")
        .with("site/dist/a.js.map", map);
    let told = json(&folder.path().join("site"), &["attribute", "dist", "--by", "module"]);
    let rows: BTreeMap<&str, &str> = told["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| (row["name"].as_str().unwrap(), row["place"].as_str().unwrap_or_default()))
        .collect();
    assert_eq!(
        rows.get("node_modules/rigging/src/client/index.ts"),
        Some(&"node_modules/rigging"),
        "{rows:?}"
    );
    let own =
        json(&folder.path().join("site"), &["attribute", "dist", "--by", "module", "--in", "own"]);
    let own: BTreeSet<&str> =
        own["rows"].as_array().unwrap().iter().map(|row| row["name"].as_str().unwrap()).collect();
    assert_eq!(own, BTreeSet::from(["src/app.js", "shared/tide.js"]));
}

#[test]
fn fonts_in_a_style_are_assets() {
    let font = "A".repeat(4000);
    let style = format!("@font-face{{src:url('data:font/woff2;base64,{font}')}}a{{color:red}}");
    let folder = Folder::new()
        .with("d/index.html", "<link rel=stylesheet href=a.css><script src=a.js></script>")
        .with("d/a.js", "a()")
        .with("d/a.css", &style);
    let told = json(folder.path(), &["attribute", "d", "--in", "styles"]);
    let assets = &told["rows"].as_array().unwrap().iter().find(|row| row["row"] == "assets");
    let data = "data:font/woff2;base64,".len() + font.len();
    assert_eq!(assets.unwrap()["sizes"]["emitted"], data);
    assert_eq!(told["total"]["sizes"]["emitted"], style.len());
}

#[test]
fn many_routes_are_a_line_each() {
    let mut folder = Folder::new().with("d/_astro/shared.js", "shared()");
    for route in 0..14 {
        let page = format!(
            "<script type=module src=/_astro/{}.js></script><p>{route}",
            if route < 2 { "shared".to_owned() } else { format!("own{route}") }
        );
        folder = folder
            .with(&format!("d/quay-{route}/index.html"), page)
            .with(&format!("d/_astro/own{route}.js"), format!("own({route})"));
    }
    let said = uvlet(folder.path(), &["survey", "d"]);
    let lines: Vec<&str> = said.out.lines().collect();
    assert!(
        lines.iter().any(|line| line.trim() == "the same code: /quay-1"
            || line.trim() == "the same code: /quay-0"),
        "{}",
        said.out
    );
    assert_eq!(lines.iter().filter(|line| line.starts_with("/quay-")).count(), 13, "{}", said.out);
    let one = uvlet(folder.path(), &["survey", "d", "--entry", "/quay-1*"]);
    assert!(one.out.contains("/quay-12: ") && !one.out.contains("/quay-2: "), "{}", one.out);
}
