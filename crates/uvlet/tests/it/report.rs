//! The page: its file, its figures, and the page in a real browser.

use std::{
    env, fs,
    path::{Path, PathBuf},
    process::Command,
};

use crate::support::{Folder, demo, json, map, uvlet};

const MODULES: usize = 40;
const SCRIPTS: usize = 500;

/// A browser and npm, which the tests of the page need; else none. Where `UVLET_FRESH` is set, as in
/// continuous integration, they have to be there.
pub fn browser() -> Option<PathBuf> {
    let folders = env::var_os("PATH").unwrap_or_default();
    let found =
        |name: &str| env::split_paths(&folders).map(|at| at.join(name)).find(|at| at.is_file());
    let browser = found("chromium").or_else(|| found("chromium-browser"));
    let is_ready = browser.is_some() && found("npm").is_some();
    assert!(is_ready || env::var_os("UVLET_FRESH").is_none(), "chromium and npm are needed");
    browser.filter(|_| is_ready)
}

/// Names that are no text where nobody takes care.
fn hostile() -> Folder {
    let long = format!("../src/{}.js", "n".repeat(10_000));
    let names = [
        "../src/<img src=x onerror=alert(1)>.js",
        "../node_modules/</script><script>alert(2)<!--/i.js",
        "../node_modules/a\"'`{{x}}/i.js",
        "../src/\u{202e}evil\u{2066}.js",
        "../src/😀.js",
        &long,
    ];
    let segments: Vec<(i64, &str)> = (0..).step_by(5).zip(names).collect();
    Folder::new()
        .with("hostile/a.js", "x0();".repeat(names.len()))
        .with("hostile/a.js.map", map(&segments))
        .with("hostile/index.html", "<script src=a.js></script>")
}

/// 20,000 modules in 500 scripts.
fn huge(mut folder: Folder) -> Folder {
    let mut page = String::new();
    for script in 0..SCRIPTS {
        let names: Vec<String> = (0..MODULES)
            .map(|module| match module % 2 {
                0 => format!("../src/part{script}/m{module}.js"),
                _ => format!("../node_modules/p{}/part{script}/m{module}.js", script / 5),
            })
            .collect();
        let segments: Vec<(i64, &str)> =
            (0..).step_by(5).zip(names.iter().map(String::as_str)).collect();
        folder = folder
            .with(&format!("huge/s{script}.js"), "x0();".repeat(MODULES))
            .with(&format!("huge/s{script}.js.map"), map(&segments));
        page.push_str(&format!("<script src=s{script}.js></script>"));
    }
    folder.with("huge/index.html", page)
}

fn made(folder: &Path, from: &Path, arguments: &[&str], name: &str) -> String {
    let file = folder.join(name).to_str().unwrap().to_owned();
    let said = uvlet(from, &[&["report"], arguments, &["-o", &file]].concat());
    assert_eq!(said.status, 0, "{}", said.err);
    assert!(said.out.contains("is written") || arguments.contains(&"--figure"), "{}", said.out);
    file
}

#[test]
fn the_page_in_a_browser() {
    let Some(browser) = browser() else { return };
    let folder = huge(hostile());
    let root = folder.path();
    let page = made(root, &demo(), &["builds/esbuild-before"], "page.html");
    let against = ["builds/esbuild-after", "--against", "builds/esbuild-before"];
    let compared = made(root, &demo(), &against, "compared.html");
    let small = fs::metadata(&page).unwrap().len();
    assert!(small < 400_000, "{small}");
    let variables = [
        ("CHROMIUM", browser.to_str().unwrap().to_owned()),
        ("PAGE", page),
        ("COMPARED", compared),
        ("HOSTILE", made(root, root, &["hostile"], "hostile.html")),
        ("HUGE", made(root, root, &["huge", "--measure", "emitted"], "huge.html")),
        ("UVLET", env!("CARGO_BIN_EXE_uvlet").to_owned()),
        ("SITE", demo().to_str().unwrap().to_owned()),
    ];
    let run = |program: &str, arguments: &[&str]| {
        let mut command = Command::new(program);
        let output =
            command.current_dir(root).args(arguments).envs(variables.clone()).output().unwrap();
        let said = [output.stdout, output.stderr].concat();
        assert!(output.status.success(), "{program}: {}", String::from_utf8_lossy(&said));
    };
    fs::write(root.join("package.json"), "{}").unwrap();
    let test = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/page/page.test.mjs");
    fs::copy(test, root.join("page.test.mjs")).unwrap();
    let packages = ["playwright-core@1", "axe-core@4"];
    run(
        "npm",
        &[&["install", "--no-audit", "--no-fund", "--prefer-offline"], &packages[..]].concat(),
    );
    run("node", &["--test", "page.test.mjs"]);
}

/// The script's own rules, which need no browser.
#[test]
fn selectors_of_the_page() {
    let test = Path::new(env!("CARGO_MANIFEST_DIR")).join("../uvlet-view/page/select.test.mjs");
    let Ok(output) = Command::new("node").arg("--test").arg(test).output() else { return };
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stdout));
}

#[test]
fn figures_are_drawings_with_texts() {
    let folder = Folder::new();
    let figure = |arguments: &[&str], name: &str| {
        let file = made(folder.path(), &demo(), arguments, name);
        fs::read_to_string(file).unwrap()
    };
    let strata = figure(&["builds/esbuild-before", "--figure", "strata"], "strata.svg");
    for text in [
        "<title id=\"title\">",
        "<desc id=\"desc\">",
        ">timetable</text>",
        ">moorline</text>",
        "25.9 kB",
    ] {
        assert!(strata.contains(text), "{text}");
    }
    let against =
        ["builds/esbuild-after", "--against", "builds/esbuild-before", "--figure", "causes"];
    let causes = figure(&against, "causes.svg");
    assert!(causes.contains(">moorline</text>") && causes.contains("24.8 kB less"), "{causes}");
    let said = uvlet(&demo(), &["report", "builds/esbuild-after", "--figure", "causes"]);
    assert!(said.status == 2 && said.err.contains("--against"), "{}", said.err);
}

#[test]
fn the_page_is_named_after_the_build() {
    let folder = Folder::new()
        .with("my build/a.js", "a()")
        .with("my build/index.html", "<script src=a.js></script>");
    let said = uvlet(folder.path(), &["report", "my build"]);
    assert_eq!(said.status, 0, "{}", said.err);
    let page = folder.read("uvlet-my-build.html");
    assert!(page.contains("default-src 'none'") && page.contains("uvlet survey 'my build'"));
}

/// What never ran is a strip in the segments of the recorded entry, and said in words.
#[test]
fn what_never_ran_is_shaded() {
    let folder = Folder::new();
    let page = folder.path().join("page.html");
    let file = page.to_str().unwrap();
    let build = "builds/esbuild-before";
    let recorded =
        ["--coverage", "load=recordings/load.json", "--coverage", "click=recordings/click.json"];
    let said = uvlet(&demo(), &[&["report", build, "-o", file], &recorded[..]].concat());
    assert_eq!(said.status, 0, "{}", said.err);
    let html = folder.read("page.html");
    let told = json(
        &demo(),
        &["coverage", build, "load=recordings/load.json", "click=recordings/click.json"],
    );
    let idle =
        told["rows"].as_array().unwrap().iter().find(|row| row["name"] == "burgee-plot").unwrap();
    let kilo = idle["never_ran"]["gzip"].as_f64().unwrap() / 1000.0;
    assert!(html.contains(&format!("{kilo:.1} kB of it never ran")), "{kilo}");
    assert!(html.contains("never ran in 2 recordings"));
    let strips = html.matches("<i class=\"never\"").count();
    assert!(strips > 8, "{strips}");
    // Without recordings nothing is said of it.
    let said = uvlet(&demo(), &["report", build, "-o", file]);
    assert_eq!(said.status, 0, "{}", said.err);
    assert!(!folder.read("page.html").contains("never ran"));
}
