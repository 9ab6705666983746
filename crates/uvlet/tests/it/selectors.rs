//! Selectors against a second way: the rows by module of each file, added up by hand.

use std::collections::{BTreeMap, BTreeSet};
use uvlet_audit::select::words::{self, Word};

use rstest::rstest;
use serde_json::Value;

use crate::support::{SAMPLES, demo, json};

/// A build taken apart with the plainest questions only: emitted bytes per (file, row by module).
struct Apart {
    cells: BTreeMap<(String, String), u64>,
    kinds: BTreeMap<String, String>,
    startup: BTreeMap<String, BTreeSet<String>>,
    own: BTreeSet<String>,
}

fn text(value: &Value) -> String {
    value.as_str().unwrap().to_owned()
}

fn rows(arguments: &[&str]) -> Vec<(String, u64)> {
    let answer = json(&demo(), arguments);
    let rows = answer["rows"].as_array().unwrap().iter();
    rows.map(|row| (text(&row["name"]), row["sizes"]["emitted"].as_u64().unwrap())).collect()
}

impl Apart {
    fn of(sample: &str) -> Self {
        let mut cells = BTreeMap::new();
        let mut kinds = BTreeMap::new();
        for (file, _) in rows(&["attribute", sample, "--by", "file"]) {
            let only = format!("file(\"{file}\")");
            for (module, bytes) in rows(&["attribute", sample, "--by", "module", "--in", &only]) {
                cells.insert((file.clone(), module), bytes);
            }
            kinds.insert(file.clone(), file.rsplit('.').next().unwrap().to_owned());
        }
        let survey = json(&demo(), &["survey", sample]);
        let entries = survey["entries"].as_array().unwrap().iter();
        let startup = entries.map(|entry| {
            let files = entry["startup"]["files"].as_array().unwrap().iter().map(text);
            (text(&entry["name"]), files.collect())
        });
        let is_own = |module: &str| {
            !module.starts_with('(')
                && (!module.contains("node_modules/") || module.contains("/@kelpwick/"))
                && module.contains('/')
        };
        let own = cells.keys().map(|(_, module)| module.clone()).filter(|m| is_own(m)).collect();
        Self { kinds, startup: startup.collect(), own, cells }
    }

    fn sum(&self, test: &dyn Fn(&str, &str) -> bool) -> u64 {
        self.cells.iter().filter(|((file, module), _)| test(file, module)).map(|(_, n)| n).sum()
    }

    fn code(&self, file: &str) -> bool {
        matches!(self.kinds[file].as_str(), "js" | "css")
    }

    fn in_startup(&self, entry: &str, file: &str) -> bool {
        self.startup[entry].contains(file)
    }
}

type Test = fn(&Apart, &str, &str) -> bool;

fn own(apart: &Apart, file: &str, module: &str) -> bool {
    apart.code(file) && apart.own.contains(module)
}

fn third(apart: &Apart, file: &str, module: &str) -> bool {
    apart.code(file) && !module.starts_with('(') && !apart.own.contains(module)
}

fn of(module: &str, package: &str) -> bool {
    module.rsplit("node_modules/").next().is_some_and(|rest| {
        module.contains("node_modules/") && rest.starts_with(&format!("{package}/"))
    })
}

const SELECTORS: [(&str, Test); 30] = [
    ("everything", |_, _, _| true),
    ("own", own),
    ("third-party", third),
    ("glue", |_, _, m| m == "(glue)"),
    ("unattributed", |_, _, m| m == "(unattributed)"),
    ("assets", |a, f, _| !a.code(f)),
    ("scripts", |a, f, _| a.kinds[f] == "js"),
    ("styles", |a, f, _| a.kinds[f] == "css"),
    ("kind(page)", |a, f, _| a.kinds[f] == "html"),
    ("kind(image)", |a, f, _| a.kinds[f] == "svg"),
    ("startup(booking)", |a, f, _| a.in_startup("booking", f)),
    ("startup(crew)", |a, f, _| a.in_startup("crew", f)),
    ("startup(*)", |a, f, _| a.startup.values().any(|files| files.contains(f))),
    ("startup(*) and third-party", |a, f, m| {
        third(a, f, m) && a.startup.values().any(|files| files.contains(f))
    }),
    ("startup(booking) and startup(crew)", |a, f, _| {
        a.in_startup("booking", f) && a.in_startup("crew", f)
    }),
    ("startup(booking) except startup(crew)", |a, f, _| {
        a.in_startup("booking", f) && !a.in_startup("crew", f)
    }),
    ("startup(timetable) except own or glue", |a, f, m| {
        a.in_startup("timetable", f) && !own(a, f, m) && m != "(glue)"
    }),
    ("package(moorline)", |a, f, m| a.code(f) && of(m, "moorline")),
    ("package(@kelpwick/ui) and startup(booking)", |a, f, m| {
        of(m, "@kelpwick/ui") && a.in_startup("booking", f)
    }),
    ("package(fairlead-bus)", |a, f, m| a.code(f) && of(m, "fairlead-bus")),
    ("package(nobody)", |_, _, _| false),
    ("module(src/shared/*)", |_, _, m| m.starts_with("src/shared/")),
    ("module(**)", |_, _, m| !m.starts_with('(')),
    ("folder(src)", |_, _, m| m.starts_with("src/")),
    ("folder(node_modules/moorline/src/locale)", |_, _, m| {
        m.starts_with("node_modules/moorline/src/locale/")
    }),
    ("folder(src) or package(ropework)", |a, f, m| {
        m.starts_with("src/") || (a.code(f) && of(m, "ropework"))
    }),
    ("scripts except third-party except own", |a, f, m| {
        a.kinds[f] == "js" && !third(a, f, m) && !own(a, f, m)
    }),
    ("(own or third-party) and styles", |a, f, m| {
        a.kinds[f] == "css" && (own(a, f, m) || third(a, f, m))
    }),
    ("file(**.css) or kind(page)", |a, f, _| matches!(a.kinds[f].as_str(), "css" | "html")),
    ("everything except everything", |_, _, _| false),
];

#[rstest]
fn totals_are_what_the_rows_add_up_to(#[values(0, 1, 2, 3, 4, 5, 6, 7)] sample: usize) {
    let sample = SAMPLES[sample];
    let apart = Apart::of(sample);
    let budgets: String = SELECTORS
        .iter()
        .enumerate()
        .map(|(at, (selector, _))| {
            format!("[budget.s{at:02}]\ntotal = '{selector}'\nat_most = \"9 MB\"\nmeasure = \"emitted\"\n")
        })
        .collect();
    let config = tempfile::NamedTempFile::new().unwrap();
    let own = "[build]\nown = [\"@kelpwick/*\"]\n";
    std::fs::write(config.path(), format!("{own}{budgets}")).unwrap();
    let gate = json(&demo(), &["gate", sample, "--config", config.path().to_str().unwrap()]);
    let mut is: Vec<(String, u64)> = gate["budgets"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| (text(&row["selector"]), row["is"].as_u64().unwrap()))
        .collect();
    is.sort();
    let mut expected: Vec<(String, u64)> = SELECTORS
        .iter()
        .map(|(selector, test)| ((*selector).to_owned(), apart.sum(&|f, m| test(&apart, f, m))))
        .collect();
    expected.sort();
    assert_eq!(is, expected);
}

#[rstest]
fn the_five_owners_are_everything(#[values(0, 1, 2, 3, 4, 5, 6, 7)] sample: usize) {
    let total = |selector: &str| {
        let answer =
            json(&demo(), &["attribute", SAMPLES[sample], "--by", "kind", "--in", selector]);
        ["emitted", "gzip"].map(|measure| answer["total"]["sizes"][measure].as_u64().unwrap())
    };
    let owners = ["own", "third-party", "glue", "assets", "unattributed"].map(total);
    let everything = total("everything");
    assert_eq!(owners.iter().map(|[emitted, _]| emitted).sum::<u64>(), everything[0]);
    // A coded selection is rounded up once, each on its own: five may read up to four bytes more.
    let gzip: u64 = owners.iter().map(|[_, gzip]| gzip).sum();
    assert!((everything[1]..=everything[1] + 4).contains(&gzip), "{gzip} of {}", everything[1]);
}

#[test]
fn the_docs_name_every_set() {
    let docs = include_str!("../../../../docs/selectors.md");
    for Word { text, argument } in words::all() {
        let written = match argument {
            Some("SELECTOR") => format!("`{text}(SELECTOR)`"),
            Some(_) => format!("`{text}(…)`"),
            None => format!("`{text}`"),
        };
        assert!(docs.contains(&written), "{written}");
    }
}
