//! What pages load: small folders, each for a rule.

use std::fmt::Write;

use rstest::rstest;

use crate::support::{Folder, json};

/// Writes `path: text` lines as files and tells entries as `name: startup files | deferred count`,
/// then what is unplaced and aside.
fn told(files: &str) -> String {
    let mut folder = Folder::new();
    for line in files.lines().map(str::trim).filter(|line| !line.is_empty()) {
        let (path, text) = line.split_once(": ").unwrap_or((line.trim_end_matches(':'), ""));
        // Latin-1, where a text says so.
        let bytes = match text.contains("\\u{e4}") {
            true => text.replace("\\u{e4}", "\u{e4}").chars().map(|c| c as u8).collect(),
            false => text.as_bytes().to_vec(),
        };
        folder = folder.with(&format!("dist/{path}"), bytes);
    }
    let survey = json(folder.path(), &["survey", "dist"]);
    let words = |value: &serde_json::Value, key: Option<&str>| {
        let items = value.as_array().unwrap().iter();
        let texts =
            items.map(|item| key.map_or(item, |key| &item[key]).as_str().unwrap().to_owned());
        texts.collect::<Vec<_>>().join(" ")
    };
    let mut told = String::new();
    for entry in survey["entries"].as_array().unwrap() {
        let aliases = words(&entry["aliases"], None);
        let startup = words(&entry["startup"]["files"], None);
        let deferred = &entry["deferred"]["file_count"];
        let name = entry["name"].as_str().unwrap();
        let aliases = if aliases.is_empty() { aliases } else { format!(" ({aliases})") };
        write!(told, "{name}{aliases}: {startup} | {deferred}; ").unwrap();
    }
    for (word, list) in [
        ("unplaced", words(&survey["unplaced"], None)),
        ("aside", words(&survey["aside"], Some("path"))),
    ] {
        if !list.is_empty() {
            write!(told, "{word} {list}; ").unwrap();
        }
    }
    told.trim_end_matches("; ").to_owned()
}

#[rstest]
#[case::page_order_then_breadth_first(
    "index.html: <link rel=modulepreload href=/c.js><link rel=stylesheet href=/a.css><script type=module src=/a.js></script>
     a.js: import './b.js'; import './c.js';
     b.js: export * from './d.js'
     c.js: export const c = 1
     d.js: export const d = 1
     a.css: .a{}",
    "index: index.html c.js a.css a.js b.js d.js | 0"
)]
#[case::on_demand_minus_startup(
    "index.html: <script type=module src=a.js></script>
     a.js: import './s.js'; import('./l.js')
     l.js: import './s.js'; import './t.js'; import(`./m.js`)
     m.js: export {}
     s.js: export {}
     t.js: export {}",
    "index: index.html a.js s.js | 3"
)]
#[case::classic_scripts(
    "shop/index.html: <script src=../v.js></script><script defer src=../a.js></script>
     a.js: a()
     v.js: v()",
    "shop: shop/index.html v.js a.js | 0"
)]
#[case::entries_inferred(
    "a-5NBG7WKQ.js: import './chunk-TRTXGIQN.js'; import('./lazy-B6YPUIGZ.js')
     a-BG2F7POY.css: .a{}
     b-JH3QS4GJ.js: import './chunk-TRTXGIQN.js'
     chunk-TRTXGIQN.js: export {}
     lazy-B6YPUIGZ.js: export {}",
    "a: a-5NBG7WKQ.js a-BG2F7POY.css chunk-TRTXGIQN.js | 1; b: b-JH3QS4GJ.js chunk-TRTXGIQN.js | 0"
)]
#[case::equal_pages_are_one_entry(
    "index.html: <script type=module src=a.js></script>
     about.html: <script type=module src=./a.js></script>
     a.js: a()",
    "about (index): about.html a.js | 0"
)]
#[case::legacy_prefetch_print_and_alternate(
    "index.html: <link rel=prefetch href=later.js><link rel=stylesheet media=print href=p.css><link rel='alternate stylesheet' href=alt.css><script nomodule src=old.js></script><script type=module src=a.js></script>
     a.js: a()
     old.js: o()
     later.js: l()
     p.css: .p{}
     alt.css: .x{}",
    "index: index.html a.js | 3; index (legacy): index.html old.js | 0"
)]
#[case::import_maps_and_base(
    "shop/index.html: <base href=/static/><script type=importmap>{\"imports\":{\"tide\":\"/static/t.js\"}}</script><script type=module>import 'tide'; import './m.js'; import('tide')</script>
     static/t.js: import 'tide'
     static/m.js: m()",
    "shop: shop/index.html static/t.js static/m.js | 0"
)]
#[case::assets_of_pages_styles_and_scripts(
    "index.html: <link rel=icon href=i.ico><img src=p.png srcset='p.png 1x, p2.png 2x'><style>.a{background:url(bg.png)}</style><script type=module src=a.js></script>
     a.js: import('./l.js'); x = new URL('n.wasm', import.meta.url); y = '/assets/s.png?v=1'
     l.js: import './l2.js'
     l2.js: z = `./t.json`
     i.ico: i
     p.png: p
     p2.png: p
     bg.png: b
     n.wasm: n
     assets/s.png: s
     t.json: []
     u.png: nobody",
    "index: index.html p.png bg.png a.js | 7; unplaced u.png"
)]
#[case::fonts_take_the_first_source(
    "index.html: <link rel=stylesheet href=a.css><script src=a.js></script>
     a.css: @import 'b.css'; @font-face{src:url(f.woff2) format('woff2'),url(f.woff);unicode-range:U+0-FF} @font-face{src:url(g.woff2);unicode-range:U+400-4FF}
     b.css: .b{}
     a.js: a()
     f.woff2: f
     f.woff: f
     g.woff2: g",
    "index: index.html a.css a.js b.css f.woff2 | 2"
)]
#[case::preload_wrappers_bring_styles(
    "index.html: <script type=module src=/assets/a.js></script>
     assets/a.js: const d=(i,m=d,f=(m.f||(m.f=['assets/l.js','assets/l2.css'])))=>i.map(i=>f[i]); w(()=>import('./l.js'),d([0,1]))
     assets/l.js: l()
     assets/l2.css: .l{}
     assets/other.css: .o{}",
    "index: index.html assets/a.js | 2; unplaced assets/other.css"
)]
#[case::a_drawing_swallows_nothing(
    "index.html: <svg><title/><style/></svg><link rel=stylesheet href=a.css><script src=a.js></script>
     a.css: .a{}
     a.js: a()",
    "index: index.html a.css a.js | 0"
)]
#[case::a_base_without_a_slash(
    "shop/index.html: <base href=/static/x><script src=a.js></script>
     static/a.js: a()",
    "shop: shop/index.html static/a.js | 0"
)]
#[case::an_old_encoding(
    "index.html: <title>F\\u{e4}hre</title><script src=a.js></script>
     a.js: a()",
    "index: index.html a.js | 0"
)]
#[case::fonts_of_today(
    "index.html: <link rel=stylesheet href=a.css><script src=a.js></script>
     a.css: @font-face{src:url(f.eot);src:url(f.eot?#iefix),url(f.woff2)}
     a.js: a()
     f.eot: e
     f.woff2: w",
    "index: index.html a.css a.js f.woff2 | 1"
)]
#[case::prefixes_of_import_maps(
    "index.html: <script type=importmap>{\"imports\":{\"tide/\":\"/t/\",\"gone\":null}}</script><script type=module src=a.js></script>
     a.js: import 'tide/low.js'
     t/low.js: t()",
    "index: index.html a.js t/low.js | 0"
)]
#[case::pictures_that_come_into_view(
    "index.html: <img loading=lazy src=p.png><img srcset='q.png 1x,r.png 2x'><script type=application/x-javascript src=a.js></script>
     a.js: a()
     p.png: p
     q.png: q
     r.png: r",
    "index: index.html a.js | 3"
)]
#[case::runtime_and_vendors_without_a_page(
    "main.js: (()=>{var m={26981:(e,t)=>{t.a=1}};var e={};e.O=(a,b,c)=>{};e.u=i=>i+'.js'})();(self.w=self.w||[]).push([[1],{9:e=>{}},e=>{'use strict';var t=t=>e(e.s=t);e.O(0,[216],(()=>(t(26981),t(9))));e.O()}])
     vendors.js: (self.w=self.w||[]).push([[216],{57147:e=>{}}])",
    "main: vendors.js main.js | 0"
)]
#[case::names_of_chunks_are_made_as_the_runtime_makes_them(
    "main.js: (()=>{var m={1:e=>{}},r={};r.u=e=>'js/'+{7:'account'}[e]+'.js';r.e=e=>{};on('go',()=>r.e(7).then(r.bind(r,70)))})()
     js/account.js: a()
     js/account-settings.js: s()",
    "account-settings: js/account-settings.js | 0; main: main.js | 1"
)]
#[case::system_modules(
    "index.html: <script src=a.js></script>
     a.js: System.register(['./b.js'],function(e,c){return{execute:function(){c.import('./l.js')}}})
     b.js: System.register([],function(){})
     l.js: System.register([],function(){})",
    "index: index.html a.js b.js | 1"
)]
#[case::amd_modules(
    "index.html: <script src=a.js></script>
     a.js: define(['require','./b','tide'],function(r,b){on(function(){require(['./l'],go)})})
     b.js: define([],function(){})
     l.js: define([],function(){})",
    "index: index.html a.js b.js | 1"
)]
#[case::chunks_that_are_es_modules(
    "index.html: <script type=module src=main.mjs></script>
     main.mjs: import*as v from'./vendors.mjs';var m={1:e=>{}},n={};n.u=e=>e+'.mjs';n.f={j:(e,t)=>import('./'+n.u(e))};on(()=>n.e(7))
     vendors.mjs: export const __webpack_ids__=['5'],__webpack_modules__={}
     7.mjs: export const __webpack_ids__=['7'],__webpack_modules__={}",
    "index: index.html main.mjs vendors.mjs | 1"
)]
#[case::workers_are_deferred(
    "index.html: <script type=module src=a.js></script>
     a.js: new Worker(new URL('w.js', import.meta.url), {type:'module'})
     w.js: import './w2.js'; importScripts('w3.js')
     w2.js: w()
     w3.js: w()",
    "index: index.html a.js | 3"
)]
#[case::registries_without_pages(
    "runtime.js: (()=>{var r={};r.O=(a,b,c)=>{};r.u=e=>e+'.'+{7:'abcdefgh'}[e]+'.js';r.e=e=>{}})()
     main.js: (self.w=self.w||[]).push([[1],{10(e,t,n){n.e(7).then(n.bind(n,70))}},r=>{r.O(0,[5],()=>r(10))}])
     main.css: .m{}
     5.js: (self.w=self.w||[]).push([[5],{50(e){}}])
     7.abcdefgh.js: (self.w=self.w||[]).push([[7],{70(e){}}])
     9.js: (self.w=self.w||[]).push([[9],{90(e){}}])",
    "main: runtime.js 5.js main.js main.css | 1; unplaced 9.js"
)]
#[case::runtime_inside_the_entry(
    "main.js: (()=>{var r={};r.O=(a,b,c)=>{};r.O(void 0,[5],()=>r(10))})()
     5.js: (self.w=self.w||[]).push([[5],{50(e){}}])",
    "main: 5.js main.js | 0"
)]
#[case::server_output_is_set_aside(
    "client/index.html: <script type=module src=/assets/a.js></script>
     client/assets/a.js: a()
     server/entry.js: import 'node:fs'; import './chunks/s.js'
     server/chunks/s.js: s()
     server/chunks/t.js: t()",
    "client: client/index.html client/assets/a.js | 0"
)]
#[case::a_page_makes_a_script_a_browsers(
    "index.html: <script src=a.js></script>
     a.js: if (node) { var fs = require('fs') }",
    "index: index.html a.js | 0"
)]
#[case::a_branch_for_node_makes_no_server(
    "a.js: function read() { if (node) return require('fs') }
     b.js: b()",
    "a: a.js | 0; b: b.js | 0"
)]
#[case::a_platform_module_handed_on_does(
    "a.js: (()=>{var m={1:e=>{e.exports=require('fs')}}})()
     b.js: b()",
    "b: b.js | 0"
)]
#[case::descriptions_and_twins_stand_aside(
    "index.html: <script src=a.js></script>
     a.js: a()
     a.js.gz: not really
     a.js.LICENSE.txt: MIT
     .vite/x.json: {\"inputs\":{},\"outputs\":{}}
     stats.json: {\"assets\":[],\"chunks\":[]}
     gone.js.br: no such file",
    "index: index.html a.js | 0; unplaced gone.js.br; aside .vite/x.json a.js.LICENSE.txt a.js.gz stats.json"
)]
#[case::what_nobody_loads(
    "index.html: <script src=a.js></script>
     a.js: a()
     sw.js: s()
     a.js.map: {\"version\":3,\"sources\":[],\"mappings\":\"\"}
     meta.json: {\"inputs\":{},\"outputs\":{}}
     data.json: {\"inputs\":{}}",
    "index: index.html a.js | 0; unplaced data.json sw.js; aside a.js.map meta.json"
)]
fn rules(#[case] files: &str, #[case] expected: &str) {
    assert_eq!(told(files), expected);
}

#[test]
fn chunks_go_by_what_they_hold() {
    let map = |source: &str| crate::support::map(&[(0, source)]);
    let folder = Folder::new()
        .with("dist/index.html", "<script type=module src=index-5NBG7WKQ.js></script>")
        .with("dist/index-5NBG7WKQ.js", "import './ports-TRTXGIQN.js'; import './408-BG2F7POY.js'; import('./index-JH3QS4GJ.js')")
        .with("dist/index-5NBG7WKQ.js.map", map("../src/main.js"))
        .with("dist/ports-TRTXGIQN.js", "p1")
        .with("dist/ports-TRTXGIQN.js.map", map("../src/shared/ports.js"))
        .with("dist/408-BG2F7POY.js", "plot")
        .with("dist/408-BG2F7POY.js.map", map("../node_modules/burgee-plot/i.js"))
        .with("dist/index-JH3QS4GJ.js", "lazyplot")
        .with("dist/index-JH3QS4GJ.js.map", map("../node_modules/burgee-plot/j.js"))
        .with("dist/409-B6YPUIGZ.js", "unknown()");
    let survey = json(folder.path(), &["survey", "dist"]);
    let names: Vec<_> = survey["chunks"]
        .as_array()
        .unwrap()
        .iter()
        .map(|chunk| {
            format!("{} {}", chunk["name"].as_str().unwrap(), chunk["files"][0].as_str().unwrap())
        })
        .collect();
    let mut names = names;
    names.sort();
    assert_eq!(
        names,
        [
            "409 409-B6YPUIGZ.js",
            "index index-5NBG7WKQ.js",
            "mostly-burgee-plot index-JH3QS4GJ.js",
            "mostly-burgee-plot.2 408-BG2F7POY.js",
            "mostly-shared ports-TRTXGIQN.js",
        ]
    );
    // The file's own name means the chunk, too.
    let by_stem = json(folder.path(), &["attribute", "dist", "--in", "chunk(408)"]);
    assert_eq!(by_stem["total"]["sizes"]["emitted"], 4);
}

#[test]
fn server_output_is_looked_at_when_asked_for() {
    let folder = Folder::new()
        .with("dist/index.html", "<script type=module src=a.js></script>")
        .with("dist/a.js", "a()")
        .with("dist/server/b.js", "import 'fs';");
    let survey = json(folder.path(), &["survey", "dist"]);
    assert_eq!(survey["build"]["target"], "browser");
    assert_eq!(
        survey["set_aside"],
        serde_json::json!([{"target": "server", "reason": "server", "file_count": 1, "bytes": 12}])
    );
    assert_eq!(survey["totals"]["file_count"], 2);
    let server = json(folder.path(), &["survey", "dist", "--target", "server"]);
    assert_eq!(server["build"]["target"], "server");
    assert_eq!(server["totals"]["sizes"]["emitted"], 12);
}

#[test]
fn good_twins_are_used_when_asked_for_and_others_never() {
    let text = "the ferry leaves at dawn ".repeat(40);
    let mut stored = flate2::write::GzEncoder::new(Vec::new(), flate2::Compression::none());
    std::io::Write::write_all(&mut stored, text.as_bytes()).unwrap();
    let stored = stored.finish().unwrap();
    let folder = Folder::new()
        .with("dist/a.js", &text)
        .with("dist/a.js.gz", &stored)
        .with("dist/b.js", &text)
        .with("dist/b.js.gz", &stored[..stored.len() - 9]);
    let gzip = |arguments: &[&str]| {
        let answer =
            json(folder.path(), &[&["attribute", "dist", "--by", "file"], arguments].concat());
        let rows = answer["rows"].as_array().unwrap().iter();
        let sizes: Vec<u64> = rows.map(|row| row["sizes"]["gzip"].as_u64().unwrap()).collect();
        (sizes, answer["encoders"]["gzip"]["precompressed"].as_u64().unwrap())
    };
    let (plain, none) = gzip(&[]);
    assert!(none == 0 && plain[0] == plain[1] && plain[0] < 100, "{plain:?}");
    assert_eq!(gzip(&["--precompressed"]), (vec![stored.len() as u64, plain[1]], 1));
}

#[test]
fn startup_splits_twice_and_both_add_up() {
    let survey = json(&crate::support::demo(), &["survey", crate::support::SAMPLES[1]]);
    let entries = survey["entries"].as_array().unwrap();
    let names: Vec<_> = entries.iter().map(|entry| entry["name"].as_str().unwrap()).collect();
    assert_eq!(names, ["booking", "crew", "timetable"]);
    for startup in entries.iter().map(|entry| &entry["startup"]) {
        for measure in ["emitted", "gzip"] {
            let sum = |keys: &[&str]| {
                keys.iter().map(|key| startup[key][measure].as_u64().unwrap()).sum::<u64>()
            };
            let all = startup["sizes"][measure].as_u64().unwrap();
            assert_eq!(sum(&["own", "third_party", "glue", "assets", "unattributed"]), all);
            assert_eq!(sum(&["exclusive", "shared"]), all);
        }
    }
    assert_eq!(entries[0]["deferred"]["file_count"], 2);
}

/// What a page holds of code may be anybody's.
#[test]
fn code_that_stands_in_a_page_has_no_owner() {
    let page = "<style>.a{}</style><script>theirs()</script><script type=application/json>{}</script><script src=a.js></script>";
    let folder = Folder::new()
        .with("dist/index.html", page)
        .with("dist/a.js", "a()")
        .with("dist/a.js.map", crate::support::map(&[(0, "../src/a.js")]))
        .with("uvlet.toml", "[budget.ban]\nabsent = \"package(ropework)\"\n");
    let answer =
        json(folder.path(), &["attribute", "dist", "--in", "unattributed", "--by", "file"]);
    assert_eq!(answer["total"]["sizes"]["emitted"], 12);
    assert_eq!(crate::support::uvlet(folder.path(), &["gate", "dist"]).status, 2);
    let survey = json(folder.path(), &["survey", "dist"]);
    let startup = &survey["entries"][0]["startup"];
    assert_eq!(startup["unattributed"]["emitted"], 12);
    assert_eq!(startup["assets"]["emitted"], page.len() - 12);
}

/// Pages that start the same are one entry wherever they are counted.
#[test]
fn an_alias_page_has_its_entry() {
    let page = "<script src=/a.js></script>";
    let folder = Folder::new()
        .with("dist/index.html", page)
        .with("dist/about.html", page)
        .with("dist/a.js", "a()");
    let answer = json(folder.path(), &["attribute", "dist", "--by", "entry"]);
    assert_eq!(answer["rows"].as_array().unwrap().len(), 1, "{answer}");
}
