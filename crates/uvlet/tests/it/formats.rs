//! Hostile names in every format, and the command line itself.

use rstest::rstest;

use crate::support::{Folder, SAMPLES, demo, map, uvlet};

const NAMES: [&str; 13] = [
    "=1+1.js",
    "@someone.js",
    "a|b`c`.js",
    "</script><b>.js",
    "esc\u{1b}[31m\u{7}.js",
    "rtl\u{202e}sj.js",
    "quote\",\"cell.js",
    "-- drop *all* [x](y).js",
    "@sum(1).js",
    "a;=1+1.js",
    "::error::x.js",
    "a ##vso[task.y]1.js",
    "&#64;you www.x.example #1.js",
];

fn hostile() -> Folder {
    let long = "l".repeat(5000);
    let names = NAMES.iter().map(|name| format!("../{name}")).chain([format!("../src/{long}.js")]);
    let sources: Vec<String> = names.collect();
    let segments: Vec<(i64, &str)> = sources
        .iter()
        .enumerate()
        .map(|(at, name)| (i64::try_from(at).unwrap(), name.as_str()))
        .collect();
    Folder::new().with("dist/a.js", "12345678901234").with("dist/a.js.map", map(&segments))
}

fn shown(format: &str) -> String {
    let folder = hostile();
    let said = uvlet(
        folder.path(),
        &["attribute", "dist", "--by", "module", "--format", format, "--top", "0"],
    );
    assert_eq!(said.status, 0, "{}", said.err);
    said.out
}

/// Without a command the build of the project is surveyed; where there is no project, help is shown.
#[test]
fn a_line_without_a_command() {
    let said = uvlet(Folder::new().path(), &[]);
    assert_eq!((said.status, said.out.as_str()), (2, ""));
    assert!(said.err.contains("Usage"), "{}", said.err);
    let project = Folder::new()
        .with("package.json", r#"{"name":"site","devDependencies":{"vite":"8"}}"#)
        .with("src/a.js", "a()")
        .with("dist/index.html", "<script type=module src=assets/a.js></script>")
        .with("dist/assets/a.js", "a()");
    for arguments in [&[][..], &["survey"], &["survey", "."]] {
        let said = uvlet(project.path(), arguments);
        assert_eq!(said.status, 0, "{}", said.err);
        assert!(said.out.starts_with("Before it runs, index downloads"), "{}", said.out);
        assert!(said.out.contains("dist is measured, the one output folder"), "{}", said.out);
    }
    let hint = uvlet(project.path(), &["dist"]);
    assert_eq!(hint.status, 2);
    assert!(hint.err.contains("`uvlet survey dist` measures it"), "{}", hint.err);
    let part = uvlet(project.path(), &["survey", "dist/assets"]).out;
    let part = part.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(part.contains("`uvlet survey dist` measures all of it"), "{part}");
    let owners = uvlet(project.path(), &["attribute"]).out;
    assert!(
        owners.contains("npx vite build --sourcemap") && !owners.contains("webpack"),
        "{owners}"
    );
    let two = project.with("build/b.js", "b()");
    let said = uvlet(two.path(), &["survey"]);
    assert!(said.err.contains("several output folders: dist, build; name one"), "{}", said.err);
}

#[rstest]
#[case("site/src", "holds sources, such as App.tsx, and no build")]
#[case("site/node_modules/tidecalc", "is inside node_modules")]
#[case("site", "is a project without an output folder; build it")]
fn what_no_bundler_wrote_is_refused(#[case] path: &str, #[case] message: &str) {
    let folder = Folder::new()
        .with("site/package.json", r#"{"name":"site"}"#)
        .with("site/src/App.tsx", "export {}")
        .with("site/node_modules/tidecalc/index.js", "module.exports = 1");
    let said = uvlet(folder.path(), &["survey", path]);
    assert_eq!((said.status, said.err.lines().count()), (2, 1));
    assert!(said.err.contains(message), "{}", said.err);
}

#[test]
fn json_holds_names_as_they_are() {
    let text = shown("json");
    assert!(!text.contains('\u{202e}'), "{text}");
    let answer: serde_json::Value = serde_json::from_str(&text).unwrap();
    let rows: Vec<&str> = answer["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| row["name"].as_str().unwrap())
        .collect();
    for name in NAMES {
        assert!(rows.contains(&name), "{name:?}");
    }
}

#[test]
fn tables_steer_no_terminal_and_keep_their_width() {
    let table = shown("table");
    assert!(!table.contains(['\x1b', '\x07', '\u{202e}']), "{table}");
    assert!(table.lines().all(|line| line.chars().count() <= 80), "{table}");
    assert!(!table.contains("::error"), "{table}");
}

#[rstest]
fn nothing_commands_a_ci_system(#[values("table", "json", "csv", "markdown")] format: &str) {
    let said = shown(format);
    assert!(!said.contains("##vso["), "{said}");
}

/// What is passed on names no folder of the machine that made it.
#[test]
fn nothing_of_the_machine_leaves_it() {
    let build = demo().join("builds/esbuild-before");
    let (build, config) = (build.to_str().unwrap(), demo().join("uvlet.toml"));
    let settings = ["--config", config.to_str().unwrap()];
    let folder = Folder::new();
    let forms = ["markdown", "sarif", "junit", "json"];
    let writes: Vec<String> = forms.iter().map(|form| format!("{form}=gate.{form}")).collect();
    let writes = writes.iter().flat_map(|write| ["--write", write]);
    let gate: Vec<&str> = ["gate", build].into_iter().chain(settings).chain(writes).collect();
    assert_eq!(uvlet(folder.path(), &gate).status, 1);
    let mut files: Vec<String> = forms.iter().map(|form| format!("gate.{form}")).collect();
    let others: [(&str, &[&str]); 5] = [
        ("page.html", &["report", build]),
        ("strata.svg", &["report", build, "--figure", "strata"]),
        ("record.json", &["record", build]),
        ("waste.md", &["waste", build, "--format", "markdown"]),
        ("why.md", &["why", build, "burgee-plot", "--format", "markdown"]),
    ];
    for (file, words) in others {
        let said = uvlet(folder.path(), &[words, &settings, &["-o", file]].concat());
        assert_eq!(said.status, 0, "{}", said.err);
        files.push(file.to_owned());
    }
    let machine = demo().canonicalize().unwrap();
    let named = [demo(), machine].map(|path| path.to_str().unwrap().to_owned());
    for file in files {
        let text = folder.read(&file);
        assert!(
            !named.iter().any(|name| text.contains(name)),
            "{file} names this machine's folders"
        );
    }
}

#[test]
fn csv_cells_are_no_formulas_and_stay_whole() {
    let table = shown("csv");
    let heads = table.lines().next().unwrap().split(',').count();
    let mut reader = csv::Reader::from_reader(table.as_bytes());
    let rows: Vec<csv::StringRecord> = reader.records().map(|row| row.unwrap()).collect();
    assert_eq!(rows.len(), 15);
    for row in &rows {
        assert_eq!(row.len(), heads);
        assert!(row.iter().all(|cell| !cell.starts_with(['=', '+', '-', '\t'])), "{row:?}");
    }
    let named = |name: &str| rows.iter().any(|row| &row[1] == name);
    assert!(named("quote\",'=1+1.js") || named("quote\",\"cell.js"));
    // A scope is no function, and a table that is joined by it needs it as it is.
    assert!(named("@someone.js") && named("'@sum(1).js") && named("a;'=1+1.js"));
}

#[test]
fn csv_lines_say_the_encoders_behind_their_sizes() {
    let table = uvlet(&demo(), &["survey", SAMPLES[1], "--format", "csv", "--measure", "br"]).out;
    let mut reader = csv::Reader::from_reader(table.as_bytes());
    let heads = reader.headers().unwrap().clone();
    let at = |name: &str| heads.iter().position(|head| head == name).unwrap();
    let first = reader.records().next().unwrap().unwrap();
    assert!(first[at("encoders")].contains("br by rust-brotli 8.0.4, level 11"));
    let [br, gzip] = ["br", "gzip"].map(|name| first[at(name)].parse::<u64>().unwrap());
    assert!(0 < br && br < gzip);
}

#[test]
fn markdown_names_stay_in_their_spans() {
    let text = shown("markdown");
    let rows: Vec<&str> = text.lines().filter(|line| line.starts_with("| `")).collect();
    assert_eq!(rows.len(), 15);
    for row in rows {
        assert_eq!((row.matches('`').count(), row.matches('|').count()), (2, 5), "{row}");
        assert!(["</", "<b", "\x1b", "\u{202e}"].iter().all(|bad| !row.contains(bad)), "{row}");
    }
    let first = text.lines().next().unwrap();
    assert!(!first.contains("@s") && !first.contains('<'), "{first}");
}

/// Names of own choosing stand in sentences too: an entry is called after its page.
#[test]
fn markdown_sentences_mention_nobody() {
    let folder = Folder::new()
        .with(
            "dist/@someone <b> *x* &#64;you \\[y](z) www.x.example #1.html",
            "<script src=a.js></script>",
        )
        .with("dist/a.js", "a()");
    let text = uvlet(folder.path(), &["survey", "dist", "--format", "markdown"]).out;
    assert!(!text.contains("@someone <") && !text.contains("<b>"), "{text}");
    let outside_code: String = text.split('`').step_by(2).collect();
    for live in ["@someone", " &#", "\\[y]", "www.x", "#1"] {
        assert!(!outside_code.contains(live), "{live} in {outside_code}");
    }
}

#[rstest]
#[case(40)]
#[case(60)]
#[case(80)]
#[case(120)]
#[case(200)]
fn tables_keep_to_the_terminals_width(#[case] width: usize) {
    for arguments in [
        &["survey", SAMPLES[1]][..],
        &["survey", SAMPLES[2]],
        &["attribute", SAMPLES[0], "--by", "module"],
        &["attribute", SAMPLES[2], "--by", "folder"],
        &["survey", SAMPLES[3], "--measure", "all"],
        &["attribute", SAMPLES[0], "--measure", "all", "--if-removed", "--top", "4"],
        &["gate", SAMPLES[0]],
    ] {
        // Numbers are never cut, and so many of them need more room than that.
        if width < 60 && arguments.contains(&"all") {
            continue;
        }
        let columns = width.to_string();
        let said = uvlet(&demo(), &[arguments, &["--width", &columns]].concat());
        let longest = said.out.lines().map(|line| line.chars().count()).max().unwrap();
        assert!(longest <= width, "{arguments:?} is {longest} wide:\n{}", said.out);
    }
}

#[rstest]
#[case(&["survey", "builds/vite-after"])]
#[case(&["survey", "builds/vite-after", "--measure", "emitted", "--units", "kib"])]
#[case(&["attribute", "builds/vite-after", "--by", "entry", "--sort", "name", "--label", "main"])]
#[case(&["attribute", "builds/vite-after", "--in", "holding(own) and scripts", "--top", "0"])]
#[case(&["attribute", "builds/vite-after", "--measure", "br", "--measure", "gzip", "--level", "br=3,gzip=6"])]
#[case(&["gate", "builds/vite-after", "--config", "uvlet.toml"])]
#[case(&["completions", "zsh"])]
#[case(&["help", "gate"])]
#[case(&["--version"])]
fn valid_command_lines(#[case] arguments: &[&str]) {
    let said = uvlet(&demo(), arguments);
    assert_eq!((said.status, said.err.as_str()), (0, ""), "{arguments:?}");
    assert!(!said.out.is_empty());
}

#[rstest]
#[case(&["survye"], "a similar subcommand exists: 'survey'")]
#[case(&["survey", "x", "--mesure", "gzip"], "a similar argument exists: '--measure'")]
#[case(&["survey", "x", "--measure", "zip"], "unknown measure `zip`, there are emitted, gzip, br, zstd")]
#[case(&["survey", "x", "--level", "br=12"], "the levels of br go from 0 to 11")]
#[case(&["survey", "x", "--level", "6"], "a level is set as gzip=6")]
#[case(&["survey", "x", "--units", "mb"], "unknown units `mb`, there are kb, kib, bytes")]
#[case(&["attribute", "x", "--by", "pakage"], "a similar value exists: 'package'")]
#[case(&["attribute", "x", "--top", "many"], "invalid value 'many'")]
#[case(&["record", "x", "-o", "r.txt"], "a record ends in .json, .json.gz or .json.zst")]
#[case(&["manual"], "--into")]
fn invalid_command_lines(#[case] arguments: &[&str], #[case] message: &str) {
    let said = uvlet(&demo(), arguments);
    assert_eq!((said.status, said.out.as_str()), (2, ""), "{arguments:?}");
    assert!(said.err.contains(message), "{}", said.err);
}
