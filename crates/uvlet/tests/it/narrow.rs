//! Few names of what comes whole: found, and predicted to the byte where one text stands line by line.

use rstest::rstest;
use serde_json::Value;

use crate::support::{Folder, json, uvlet};

/// A library in one file: a name a line, two of them made of others.
const QUAY: &str = "function tide() { return 1; }
function reef() { return tide() + 2; }
function fog() { return 'thick over the harbour all morning'; }
function swell() { return fog() + ' and a swell from the west'; }
exports.reef = reef;
exports.swell = swell;
exports.bow = function () { return 3; };
exports.stern = function () { return exports.bow(); };
exports.keel = function () { return 'a long keel of old oak'; };
exports.mast = function () { return 'a mast of larch, twice as long'; };";

/// The same as an object of own code.
const KIT: &str = "function tide() { return 1; }
function reef() { return tide() + 2; }
function swell() { return 'a swell from the west, all day long'; }
function bow() { return 3; }
function keel() { return 'a long keel of old oak'; }
export default { reef, swell, bow, keel };";

/// A page whose script holds a line of its own and a library, as they stand.
fn page(main: &str, library: (&str, &str)) -> Folder {
    with_more(main, library, &[])
}

/// The same with more modules of a line each.
fn with_more(main: &str, library: (&str, &str), more: &[(&str, &str)]) -> Folder {
    let lines = library.1.lines().count();
    let mut sources = vec!["../src/main.js".to_owned(), format!("../{}", library.0)];
    sources.extend(more.iter().map(|(path, _)| format!("../{path}")));
    let texts: Vec<&str> =
        [main, library.1].into_iter().chain(more.iter().map(|one| one.1)).collect();
    // Line by line; the first of the other modules goes back to the first line of its source.
    let mut mappings = format!("AAAA;ACAA{}", ";AACA".repeat(lines - 1));
    for at in 0..more.len() {
        let back = if at == 0 { vlq(1 - i64::try_from(lines).unwrap()) } else { 'A' };
        mappings.push_str(&format!(";AC{back}A"));
    }
    let map = serde_json::json!({
        "version": 3, "sources": sources, "sourcesContent": texts, "mappings": mappings,
    });
    Folder::new()
        .with("package.json", "{}")
        .with("dist/index.html", "<script type=module src=a.js></script>")
        .with(
            "dist/a.js",
            [&[main, library.1][..], &more.iter().map(|one| one.1).collect::<Vec<_>>()]
                .concat()
                .join("\n"),
        )
        .with("dist/a.js.map", map.to_string())
        .with(
            "node_modules/quay/package.json",
            r#"{"name": "quay", "main": "quay.js", "description": "Tides\n  at a quay"}"#,
        )
        .with("node_modules/quay/quay.js", QUAY)
}

/// A number of up to 15 as a source map writes it.
fn vlq(number: i64) -> char {
    let digits = b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdef";
    let place = number.unsigned_abs() * 2 + u64::from(number < 0);
    char::from(digits[usize::try_from(place).unwrap()])
}

fn found(folder: &Folder) -> Vec<Value> {
    let waste = ["waste", "dist", "--kind", "barely-used"];
    json(folder.path(), &waste)["findings"].as_array().unwrap().clone()
}

fn startup(folder: &Folder, step: &[&str]) -> (u64, u64) {
    let answer = json(folder.path(), &[&["what-if", "dist"], step].concat());
    let of =
        |when: &str| answer["entries"][0][when]["startup"]["sizes"]["emitted"].as_u64().unwrap();
    (of("before"), of("after"))
}

const QUAY_PATH: &str = "node_modules/quay/quay.js";

/// Lines that a name is not made of go, with their line ends.
fn without(text: &str, kept: &[usize]) -> u64 {
    let gone = text.lines().enumerate().filter(|(at, _)| !kept.contains(at));
    gone.map(|(_, line)| line.len() as u64 + 1).sum()
}

#[rstest]
#[case::named("import { reef } from 'quay'; reef();")]
#[case::the_object("import quay from 'quay'; quay.reef();")]
#[case::a_namespace("import * as quay from 'quay'; quay.reef();")]
fn a_name_of_a_library(#[case] main: &str) {
    let folder = page(main, (QUAY_PATH, QUAY));
    // Nobody knows how to get less of it.
    assert_eq!(found(&folder), Vec::<Value>::new());
    let folder = folder.with("node_modules/quay/lib/reef.js", "module.exports = () => 3;");
    let findings = found(&folder);
    assert_eq!(findings.len(), 1, "{findings:?}");
    assert_eq!(findings[0]["title"], "1 of 6 names of quay is used: reef");
    let advice = findings[0]["advice"].as_str().unwrap();
    assert!(advice.contains("`quay/lib/reef`: 1 file"), "{advice}");
    // The last line ends the file.
    let gone = without(QUAY, &[0, 1, 4]) - 1;
    assert_eq!(findings[0]["recoverable"]["emitted"], gone);
    let (before, after) = startup(&folder, &["--narrow", "quay"]);
    assert_eq!(before - after, gone);
}

/// What one name needs of another is kept: `stern` reads `bow` of the object.
#[test]
fn names_that_need_others() {
    let folder = page("import quay from 'quay'; quay.stern();", (QUAY_PATH, QUAY));
    let (before, after) = startup(&folder, &["--narrow", "quay"]);
    assert_eq!(before - after, without(QUAY, &[6, 7]) - 1);
}

#[test]
fn an_object_of_own_code() {
    let folder = page("import kit from './kit'; kit.reef();", ("src/kit.js", KIT));
    let findings = found(&folder);
    assert_eq!(findings.len(), 1, "{findings:?}");
    assert_eq!(findings[0]["title"], "1 of 4 names of src/kit.js is used: reef");
    let (before, after) = startup(&folder, &["--narrow", "src/kit.js"]);
    assert_eq!(before - after, findings[0]["recoverable"]["emitted"].as_u64().unwrap());
}

#[rstest]
#[case::as_a_whole("import quay from 'quay'; each(quay);", "a module uses it as a whole")]
#[case::unknown("import quay from 'quay'; quay.rudder();", "`rudder` is read of it")]
#[case::on_demand(
    "import('quay').then(quay => quay.reef());",
    "not imported by `import` of one file"
)]
fn what_cannot_be_narrowed(#[case] main: &str, #[case] why: &str) {
    let folder = page(main, (QUAY_PATH, QUAY));
    let said = uvlet(folder.path(), &["what-if", "dist", "--narrow", "quay"]);
    assert_eq!(said.status, 2, "{}", said.out);
    assert!(said.err.contains(why), "{}", said.err);
}

/// A library whose names are exported one by one is told apart by bundlers already.
#[test]
fn names_that_are_apart() {
    let library = "export const reef = () => 1;\nexport const swell = () => 2;";
    let folder = page("import { reef } from 'quay'; reef();", (QUAY_PATH, library));
    let answer = json(folder.path(), &["what-if", "dist", "--narrow", "quay"]);
    let doubts = answer["doubts"].to_string();
    assert!(doubts.contains("saves nothing"), "{doubts}");
}

/// People meet names that they never chose.
#[test]
fn what_a_package_says_of_itself() {
    let folder = page("import { reef } from 'quay'; reef();", (QUAY_PATH, QUAY));
    let answer = json(folder.path(), &["why", "dist", "quay"]);
    assert_eq!(answer["description"], "Tides at a quay");
    let said = uvlet(folder.path(), &["why", "dist", "quay"]);
    assert!(said.out.contains("Its package.json says: “Tides at a quay”"), "{}", said.out);
}

/// What only the others need goes along, and what somebody asks for by its own path stays.
#[test]
fn what_others_need_goes_along() {
    let library = QUAY.replace("{ return 3; }", "{ return require('rope').knot(); }");
    let more = [
        ("node_modules/rope/rope.js", "exports.knot = () => 'a knot in a long rope';"),
        ("node_modules/quay/lib/fog.js", "module.exports = () => 'thick over the harbour';"),
        ("src/other.js", "import fog from 'quay/lib/fog'; fog();"),
    ];
    let main = "import './other'; import quay from 'quay'; quay.reef();";
    let folder = with_more(main, (QUAY_PATH, &library), &more)
        .with("node_modules/quay/lib/fog.js", more[1].1)
        .with("node_modules/rope/package.json", r#"{"name": "rope", "main": "rope.js"}"#)
        .with("node_modules/rope/rope.js", more[0].1);
    let (before, after) = startup(&folder, &["--narrow", "quay"]);
    // The module's line end is of nobody.
    let rope = more[0].1.len() as u64;
    assert_eq!(before - after, without(&library, &[0, 1, 4]) + rope + 1);
}
