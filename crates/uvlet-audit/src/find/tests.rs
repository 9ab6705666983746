//! Findings: of every kind a build that has it, one that nearly has, and one that has not.

use rstest::rstest;
use uvlet_record::{Record, sizes::Measure};

use super::{
    finding::Finding,
    kind::Kind,
    waste::{Aids, Wanted, waste},
};
use crate::{lens::Lens, small::Small};

/// A module of a package.
const TIDE: &str = "node_modules/tide/i.js";

const LIBRARY: &str = "export function tide(h,m){let level=h*2.1;for(let i=0;i<m;i++)level+=Math.sin(i)*h;return level>9?9:level}";

fn found(record: &Record, kind: Kind) -> Vec<Finding> {
    let lens = Lens::new(record);
    let texts = record.texts.as_ref().unwrap();
    let aids = Aids { texts, costs: None, languages: &[], ran: None };
    let wanted = Wanted { kinds: vec![kind], ..Wanted::default() };
    waste(&lens, aids, &wanted, Measure::Emitted).findings
}

/// Emitted bytes of the build and of the first entry's startup that one finding of a kind names.
fn bytes(record: &Record, kind: Kind) -> Option<(u64, u64)> {
    let found = found(record, kind);
    assert!(found.len() < 2, "{found:#?}");
    let finding = found.first()?;
    let startup = finding.by_entry.first().map_or(0, |share| share.sizes.get(Measure::Emitted));
    Some((finding.recoverable.get(Measure::Emitted), startup))
}

/// A page and a second file, with a module in each.
fn two_files(first: &[(&str, &str)], second: &[(&str, &str)]) -> Small {
    Small::default()
        .file("main.js", &[&[("src/main.js", "go();")], first].concat())
        .file("more.js", &[&[("src/more.js", "go();")], second].concat())
}

#[rstest]
#[case::both_at_startup(&["main.js", "more.js"], TIDE, Some((8, 8)))]
#[case::one_at_each_of_two_entries(&["main.js"], TIDE, Some((8, 0)))]
#[case::another_module(&["main.js", "more.js"], "node_modules/tide/j.js", None)]
#[case::halves_of_one_source(&["main.js", "more.js"], "node_modules/tide/i.js?half", None)]
fn a_module_in_two_scripts(
    #[case] startup: &[&str],
    #[case] second: &str,
    #[case] expected: Option<(u64, u64)>,
) {
    let build = two_files(&[(TIDE, "tide(1);")], &[(second, "tide(1);")]);
    let build = build.entry("a", startup, "src/main.js").entry("b", &["more.js"], "src/more.js");
    assert_eq!(bytes(&build.build(), Kind::CopiedModule), expected);
}

#[rstest]
#[case::two_versions("node_modules/buoy/node_modules/tide/i.js", Some((9, 9)))]
#[case::of_two_names("node_modules/buoy/node_modules/tides/i.js", None)]
#[case::one_install_in_two_files("node_modules/tide/other.js", None)]
fn a_package_installed_twice(#[case] second: &str, #[case] expected: Option<(u64, u64)>) {
    let build = two_files(&[(TIDE, "tide(1);")], &[(second, "older(1);")])
        .version("node_modules/tide", "2.0.0")
        .entry("a", &["main.js", "more.js"], "src/main.js");
    let build = match second.starts_with("node_modules/buoy/") {
        true => build.version(second.trim_end_matches("/i.js"), "1.0.0"),
        false => build,
    };
    assert_eq!(bytes(&build.build(), Kind::SeveralVersions), expected);
}

#[rstest]
#[case::languages("node_modules/tide/locale/", &["da", "de", "fr", "it", "nl", "pl", "pt-BR", "sv"], true)]
#[case::too_few("node_modules/tide/locale/", &["da", "de", "fr", "it", "nl", "pl", "sv"], false)]
#[case::polyfills_of_a_version("node_modules/tide/modules/", &["es.array.at", "es.map", "es.set", "es.math.cbrt", "es.json", "es.symbol", "es.weak-map", "es.promise"], false)]
#[case::short_names_that_are_none("node_modules/tide/src/", &["tab-bar", "tab-nav", "tab-pane", "tabs", "use-bar", "use-nav", "bar-row", "nav-row"], false)]
#[case::parts_of_a_library("node_modules/tide/parts/", &["curve", "level", "chart", "moon", "table", "harbour", "index2", "wave"], false)]
#[case::that_own_code_lists("src/locale/", &["da", "de", "fr", "it", "nl", "pl", "pt-BR", "sv"], false)]
fn a_folder_of_languages(#[case] folder: &str, #[case] names: &[&str], #[case] expected: bool) {
    let parent = folder.trim_end_matches('/').rsplit_once('/').unwrap().0;
    let index = format!("{parent}/index.js");
    let paths: Vec<String> = names.iter().map(|name| format!("{folder}{name}.js")).collect();
    let mut modules = vec![("src/main.js", "go();"), (index.as_str(), "all();")];
    modules.extend(paths.iter().map(|path| (path.as_str(), "words();")));
    let mut build =
        Small::default().file("main.js", &modules).import("src/main.js", &index, "./it");
    for path in &paths {
        build = build.import(&index, path, "./it");
    }
    let record = build.entry("a", &["main.js"], "src/main.js").build();
    let (amount, startup) = bytes(&record, Kind::WholeFamily).unwrap_or_default();
    assert_eq!((amount > 0, startup), (expected, amount));
}

#[rstest]
#[case::by_their_own_paths(true, false)]
#[case::by_the_index_alone(false, true)]
fn icons_that_are_imported(#[case] is_each: bool, #[case] expected: bool) {
    let paths: Vec<String> = (0..8).map(|at| format!("node_modules/tide/icons/{at}.js")).collect();
    let index = "node_modules/tide/icons.js";
    let mut modules = vec![("src/main.js", "go();"), (index, "export * from './0.js'")];
    modules.extend(paths.iter().map(|path| (path.as_str(), "draw();")));
    let build = Small::default().file("main.js", &modules).import_name("src/main.js", index, "Ebb");
    let build = paths.iter().fold(build, |build, path| {
        let build = build.import_name(index, path, "default");
        if is_each { build.import_name("src/main.js", path, "default") } else { build }
    });
    let record = build.entry("a", &["main.js"], "src/main.js").build();
    assert_eq!(bytes(&record, Kind::WholeFamily).is_some(), expected);
}

#[rstest]
#[case::nobody_imports_it(&[], Some((8, 8)))]
#[case::a_chain_reaches_it(&[("src/main.js", "src/more.js"), ("src/more.js", TIDE)], None)]
#[case::only_what_another_entry_has_does(&[("src/more.js", TIDE)], Some((8, 8)))]
fn what_an_entry_downloads_for_others(
    #[case] edges: &[(&str, &str)],
    #[case] expected: Option<(u64, u64)>,
) {
    let mut build = Small::default()
        .file("main.js", &[("src/main.js", "go();")])
        .file("other.js", &[("src/other.js", "go();"), ("src/more.js", "more();")])
        .file("shared.js", &[(TIDE, "tide(1);")]);
    for (from, to) in [("src/other.js", "src/more.js"), ("src/other.js", TIDE)].iter().chain(edges)
    {
        build = build.import(from, to, "./it");
    }
    let build = build.entry("a", &["main.js", "shared.js"], "src/main.js").entry(
        "b",
        &["other.js", "shared.js"],
        "src/other.js",
    );
    assert_eq!(bytes(&build.build(), Kind::UnreachedInEntry), expected);
}

#[rstest]
#[case::development_edition("node_modules/tide/cjs/tide.development.js", "tide();", true)]
#[case::folder_of_that_name("node_modules/tide/development/tide.js", "tide();", false)]
#[case::stand_in("node_modules/stream-browserify/index.js", "tide();", true)]
#[case::own_file_of_that_name("src/stream-browserify/index.js", "tide();", false)]
#[case::for_servers("node_modules/express/index.js", "tide();", true)]
#[case::switch_left_in(TIDE, "if(process.env.NODE_ENV!=='production')check();", true)]
#[case::another_switch_in_own_code("src/api.js", "fetch(process.env.TIDE_URL)", true)]
#[case::another_switch_in_a_library(TIDE, "fetch(process.env.TIDE_URL)", false)]
#[case::one_that_is_asked_for_first(
    "src/api.js",
    "typeof process<'u'&&go(process.env.TIDE_URL)",
    false
)]
#[case::one_in_a_text("src/api.js", "say('process.env.TIDE_URL')", false)]
#[case::switch_of_another(TIDE, "if(env.NODE_ENV!=='production')check();", false)]
fn code_that_is_not_for_visitors(#[case] path: &str, #[case] text: &str, #[case] expected: bool) {
    let build = Small::default()
        .file("main.js", &[("src/main.js", "go();"), (path, text)])
        .import("src/main.js", path, "./it")
        .entry("a", &["main.js"], "src/main.js");
    assert_eq!(!found(&build.build(), Kind::WrongEnvironment).is_empty(), expected);
}

/// A function under another name, and one that does another thing.
#[rstest]
#[case::three_copies(&["tide", "level", "height"], 3, true)]
#[case::two_copies(&["tide", "level"], 2, false)]
#[case::three_that_differ(&["tide", "level", "height"], 1, false)]
fn one_function_in_many_modules(
    #[case] names: &[&str],
    #[case] alike: usize,
    #[case] expected: bool,
) {
    let text = |at: usize, name: &str| {
        let step = if at < alike { "+=2*i".to_owned() } else { format!("-={at}*i*i") };
        let body = format!(
            "let r=[],s=0;for(let i=0;i<a.length;i++){{s{step};r.push([a[i],s,b?b[i]:null]);}}if(b&&b.length>a.length)for(let j=a.length;j<b.length;j++)r.push([null,s,b[j]]);return r.filter(x=>x[0]!==null||x[2]!==null)"
        );
        format!("export function {name}(a,b){{{body}}}\n")
    };
    let texts: Vec<(String, String)> = names
        .iter()
        .enumerate()
        .map(|(at, name)| (format!("src/{name}.js"), text(at, name)))
        .collect();
    let mut modules = vec![("src/main.js", "go();\n")];
    modules.extend(texts.iter().map(|(path, text)| (path.as_str(), text.as_str())));
    let build = Small::default().file("main.js", &modules).entry("a", &["main.js"], "src/main.js");
    assert_eq!(!found(&build.build(), Kind::CopiedHelper).is_empty(), expected);
}

/// Functions of which no two are alike.
fn library(name: &str, times: usize) -> String {
    let function = |at: usize| {
        let rest = format!("{name}{at}*{at}+q[{at}]-Math.max({name}{at},p.length%{at}1)");
        format!(
            "function {name}{at}(p,q){{if(p>{at})return p-q[{at}%3];let r={rest};return r.map(x=>x+{at})}}\n"
        )
    };
    (0..times).map(function).collect()
}

/// Functions that are like none of the other library.
fn other_library(times: usize) -> String {
    let function = |at: usize| {
        format!(
            "function c{at}(p){{for(const k of p)switch(k.kind){{case {at}:throw k;default:yes(k?.a??{at},[k,{at}])}}}}\n"
        )
    };
    (0..times).map(function).collect()
}

#[rstest]
#[case::without_owners("", &library("b", 40), true)]
#[case::too_little("", &library("b", 4), false)]
#[case::that_have_owners(TIDE, &library("b", 40), false)]
#[case::another_text("", LIBRARY, false)]
fn one_text_in_two_scripts(#[case] owner: &str, #[case] second: &str, #[case] expected: bool) {
    let first = library("a", if second.len() < 1000 { 4 } else { 40 });
    let build = two_files(&[(owner, &first)], &[(owner, second)]);
    let build = build.entry("a", &["main.js", "more.js"], "src/main.js");
    assert_eq!(!found(&build.build(), Kind::CopiedText).is_empty(), expected);
}

#[rstest]
#[case::fork_of_a_package("node_modules/tide-fork/i.js", library("b", 40), true)]
#[case::copied_into_own_code("src/vendor/tide.js", library("b", 40), true)]
#[case::a_few_lines_of_it("node_modules/tide-fork/i.js", library("b", 5) + &other_library(40), false)]
#[case::own_code_that_is_like_own_code("src/vendor/tide.js", String::new(), false)]
fn two_packages_that_are_alike(
    #[case] other: &str,
    #[case] second: String,
    #[case] expected: bool,
) {
    let first = library("a", 40);
    let own = if second.is_empty() { "src/tide.js" } else { TIDE };
    let second = if second.is_empty() { first.clone() } else { second };
    let modules = [("src/main.js", "go();\n"), (own, &first), (other, &second)];
    let build = Small::default().file("main.js", &modules).entry("a", &["main.js"], "src/main.js");
    assert_eq!(!found(&build.build(), Kind::TwinPackages).is_empty(), expected);
}

#[rstest]
#[case::handlers_alone("import{tide}from'tide';b.addEventListener('click',()=>tide(1));", true)]
#[case::as_it_starts(
    "import{tide}from'tide';tide(1);b.addEventListener('click',()=>tide(1));",
    false
)]
#[case::handed_to_somebody("import{tide}from'tide';each(tide);", false)]
fn what_waits_for_somebody_to_act(#[case] main: &str, #[case] expected: bool) {
    let build = Small::default()
        .file("main.js", &[("src/main.js", main), (TIDE, &LIBRARY.repeat(6))])
        .import("src/main.js", TIDE, "tide")
        .entry("a", &["main.js"], "src/main.js");
    let record = build.build();
    assert_eq!(!found(&record, Kind::Deferrable).is_empty(), expected);
}

/// Two names that one package is installed under.
#[test]
fn a_package_under_another_name_is_the_same() {
    let mut record = two_files(&[(TIDE, "tide(1);")], &[("node_modules/tide2/i.js", "older(1);")])
        .version("node_modules/tide", "2.0.0")
        .version("node_modules/tide2", "1.0.0")
        .entry("a", &["main.js", "more.js"], "src/main.js")
        .build();
    assert_eq!(bytes(&record, Kind::SeveralVersions), None);
    record.packages[1].alias_of = Some("tide".to_owned());
    assert_eq!(bytes(&record, Kind::SeveralVersions), Some((9, 9)));
}

/// A tool cuts one source in halves, which are no copies of each other.
#[test]
fn halves_of_a_source_are_no_copies() {
    let build = two_files(&[("src/page.js", "half();")], &[("src/page.js", "another(1);")]);
    let mut record = build.entry("a", &["main.js", "more.js"], "src/main.js").build();
    let at = record.modules.iter().position(|module| module.path == "src/page.js").unwrap();
    assert!(bytes(&record, Kind::CopiedModule).is_some());
    record.modules[at].facets.push(uvlet_record::Facet { name: "half".to_owned(), exports: None });
    assert_eq!(bytes(&record, Kind::CopiedModule), None);
}
