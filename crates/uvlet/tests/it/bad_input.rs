//! Bad input: one clear line and status 2, or a notice and the rest.

use std::{
    fs,
    io::Read,
    process::{Command, Stdio},
};

use rstest::rstest;

use crate::support::{Folder, SAMPLES, demo, json, map, uvlet};

#[rstest]
#[case(&["survey", "nowhere"], "nowhere: cannot be read: no such file or directory")]
#[case(&["survey", "file"], "name an output folder, or what `uvlet record` wrote")]
#[case(&["survey", "empty"], "holds no script, style or page")]
#[case(&["survey"], "no build is named")]
#[case(&["gate", "dist"], "uvlet.toml: there is no such file")]
#[case(&["gate", "dist", "--config", "none.toml"], "none.toml: cannot be read")]
#[case(&["attribute", "dist", "--in", "startup(bokking)"], "no entry is called `bokking`, did you mean booking?")]
#[case(&["attribute", "dist", "--in", "thirdparty"], "column 1: there is no set `thirdparty`, did you mean third-party?")]
#[case(&["attribute", "dist", "--in", "own and"], "column 8: expected a set")]
#[case(&["attribute", "dist", "--in", "package(tidecak)"], "no package is called `tidecak`, there are none")]
#[case(&["survey", "dist", "--description", "nowhere.json"], "nowhere.json: cannot be read")]
#[case(&["survey", "dist", "-o", "nowhere/x.txt"], "nowhere/x.txt: cannot be written")]
fn one_line_and_status_2(#[case] arguments: &[&str], #[case] message: &str) {
    let folder = Folder::new()
        .with("file", "")
        .with("empty/picture.png", "")
        .with("dist/booking.html", "<script src=a.js></script>")
        .with("dist/a.js", "a()");
    let said = uvlet(folder.path(), arguments);
    assert_eq!((said.status, said.out.as_str()), (2, ""), "{}", said.err);
    assert_eq!(said.err.lines().count(), 1, "{}", said.err);
    assert!(said.err.contains(message), "{}", said.err);
}

#[test]
fn a_failed_answer_leaves_the_old_file_whole() {
    let folder = Folder::new().with("dist/a.js", "a()").with("out.json", "old");
    let said = uvlet(folder.path(), &["attribute", "dist", "--in", "chunk(z)", "-o", "out.json"]);
    assert_eq!(said.status, 2);
    assert_eq!(fs::read(folder.path().join("out.json")).unwrap(), b"old");
    assert_eq!(
        uvlet(folder.path(), &["survey", "dist", "-o", "out.json", "--color", "always"]).status,
        0
    );
    let written = fs::read_to_string(folder.path().join("out.json")).unwrap();
    assert!(written.starts_with("Before it runs") && !written.contains('\x1b'), "{written}");
    assert_eq!(fs::read_dir(folder.path()).unwrap().count(), 2, "a temporary file is left");
}

#[test]
fn scripts_that_are_none_are_reported_and_the_rest_is_measured() {
    let folder = Folder::new()
        .with(
            "dist/index.html",
            "<script src=a.js></script><script src=b.js></script><script src=gone.js></script>",
        )
        .with("dist/a.js", "let a = ;")
        .with("dist/b.js", b"b(\"\xff\")")
        .with("dist/zero.css", "")
        .with("dist/deep.js", "[".repeat(20_000));
    let survey = json(folder.path(), &["survey", "dist"]);
    let mut codes: Vec<_> = survey["notices"]
        .as_array()
        .unwrap()
        .iter()
        .map(|notice| notice["code"].as_str().unwrap())
        .collect();
    codes.dedup();
    assert_eq!(codes, ["file-missing", "not-utf8", "script-unparsed"]);
    assert_eq!(survey["entries"][0]["startup"]["file_count"], 3);
    assert_eq!(survey["totals"]["file_count"], 5);
}

#[rstest]
#[case::sums("1+")]
#[case::brackets_in_texts("(\")\"+")]
#[case::heads("if(1)")]
#[case::calls("a()")]
fn scripts_that_nest_without_end_are_reported(#[case] part: &str) {
    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script><script src=b.js></script>")
        .with("dist/a.js", part.repeat(200_000))
        .with("dist/b.js", "b()");
    let survey = json(folder.path(), &["survey", "dist", "--measure", "emitted"]);
    assert_eq!(survey["notices"][0]["code"], "script-unparsed");
    assert_eq!(survey["entries"][0]["startup"]["file_count"], 3);
}

#[test]
fn a_closed_pipe_ends_quietly() {
    let mut child = Command::new(env!("CARGO_BIN_EXE_uvlet"))
        .current_dir(demo())
        .args(["attribute", SAMPLES[0], "--by", "module", "--format", "json"])
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    drop(child.stdout.take());
    let mut complaint = String::new();
    child.stderr.take().unwrap().read_to_string(&mut complaint).unwrap();
    assert_eq!((child.wait().unwrap().code(), complaint.as_str()), (Some(0), ""));
}

#[test]
fn hostile_names_reach_no_terminal() {
    let map = map(&[(0, "../src/\u{1b}]0;owned\u{7}\u{202e}x.js")]);
    let folder = Folder::new().with("dist/a.js", "a()").with("dist/a.js.map", map);
    let said = uvlet(folder.path(), &["attribute", "dist", "--by", "module"]);
    assert!(
        said.out.contains("\\u{1b}") && !said.out.contains(['\x1b', '\x07', '\u{202e}']),
        "{}",
        said.out
    );
}

#[cfg(unix)]
#[test]
fn odd_files_are_counted_or_named() {
    use std::os::unix::{ffi::OsStrExt, fs::symlink};

    let folder = Folder::new()
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", "a()");
    let dist = folder.path().join("dist");
    symlink("nowhere", dist.join("broken.js")).unwrap();
    symlink(".", dist.join("loop")).unwrap();
    fs::write(dist.join(std::ffi::OsStr::from_bytes(b"caf\xe9.png")), "p").unwrap();
    let large = fs::File::create(dist.join("film.mp4")).unwrap();
    large.set_len(300 << 20).unwrap();
    let survey = json(folder.path(), &["survey", "dist"]);
    assert_eq!(survey["unplaced"], serde_json::json!(["caf%E9.png", "film.mp4"]));
    assert_eq!(survey["totals"]["file_count"], 4);
    let links: Vec<_> = survey["notices"]
        .as_array()
        .unwrap()
        .iter()
        .map(|notice| (&notice["code"], &notice["where"]))
        .collect();
    assert_eq!(links.len(), 2, "{links:?}");
    assert!(links.iter().all(|(code, _)| *code == "link"), "{links:?}");
    // A folder that is a link itself is read, since it was named.
    symlink("dist", folder.path().join("current")).unwrap();
    assert_eq!(json(folder.path(), &["survey", "current"])["totals"], survey["totals"]);
}

#[test]
fn thousands_of_files_are_answered() {
    let mut folder = Folder::new();
    for at in 0..2000 {
        folder =
            folder.with(&format!("dist/part{at}.js"), format!("import('./part{}.js')", at + 1));
    }
    let survey = json(folder.with("dist/part2000.js", "last()").path(), &["survey", "dist"]);
    assert_eq!(survey["entries"][0]["name"], "part0");
    assert_eq!(survey["entries"][0]["deferred"]["file_count"], 2000);
}

#[cfg(target_os = "linux")]
#[test]
fn a_full_disk_is_one_line() {
    let said = uvlet(&demo(), &["survey", SAMPLES[0], "-o", "/dev/full"]);
    assert_eq!((said.status, said.err.lines().count()), (2, 1), "{}", said.err);
    assert!(said.err.contains("/dev/full: cannot be written"), "{}", said.err);
    assert_eq!(uvlet(&demo(), &["record", SAMPLES[0], "-o", "."]).status, 2);
}

#[test]
fn a_small_file_cannot_unpack_to_fill_memory() {
    let text = format!(
        "{{\"uvlet\":{{\"schema\":2,\"version\":\"0\",\"command\":\"record\"}},\"record\":[{}0]}}",
        "0,".repeat(40 << 20)
    );
    let packed = zstd::encode_all(text.as_bytes(), 3).unwrap();
    assert!(packed.len() < 100_000);
    let folder = Folder::new().with("r.json.zst", packed);
    let said = uvlet(folder.path(), &["survey", "r.json.zst"]);
    assert_eq!(said.status, 2);
    assert!(said.err.contains("unpacks to far more than"), "{}", said.err);
}

#[cfg(unix)]
#[test]
fn answers_keep_links_and_modes() {
    use std::os::unix::fs::{PermissionsExt, symlink};

    let folder = Folder::new().with("dist/a.js", "a()").with("kept/out.txt", "old");
    let target = folder.path().join("kept/out.txt");
    fs::set_permissions(&target, fs::Permissions::from_mode(0o600)).unwrap();
    symlink("kept/out.txt", folder.path().join("out.txt")).unwrap();
    assert_eq!(uvlet(folder.path(), &["survey", "dist", "-o", "out.txt"]).status, 0);
    assert!(fs::symlink_metadata(folder.path().join("out.txt")).unwrap().is_symlink());
    assert_eq!(fs::metadata(&target).unwrap().permissions().mode() & 0o777, 0o600);
    assert!(fs::read_to_string(&target).unwrap().starts_with("Before it runs"));
}

#[cfg(unix)]
#[rstest]
#[case::a_file("note.md")]
#[case::a_folder("notes/gate.md")]
fn links_of_a_checkout_lead_no_answer_out_of_it(#[case] path: &str) {
    use std::os::unix::fs::symlink;

    let elsewhere = Folder::new().with("note.md", "mine");
    let folder = Folder::new()
        .with("dist/a.js", "a()")
        .with("uvlet.toml", "[budget.all]\ntotal = \"everything\"\nat_most = \"1 kB\"\n");
    symlink(elsewhere.path().join("note.md"), folder.path().join("note.md")).unwrap();
    symlink(elsewhere.path(), folder.path().join("notes")).unwrap();
    let write = format!("markdown={path}");
    for words in [&["survey", "dist", "-o", path][..], &["gate", "dist", "--write", &write]] {
        let said = uvlet(folder.path(), words);
        assert_eq!(said.status, 2, "{}", said.out);
        assert!(said.err.contains("a link leads out of this folder"), "{}", said.err);
    }
    assert_eq!(elsewhere.read("note.md"), "mine");
    assert!(!elsewhere.path().join("gate.md").exists());
    let whole = elsewhere.path().join("note.md");
    let named = ["survey", "dist", "-o", whole.to_str().unwrap()];
    assert_eq!(uvlet(folder.path(), &named).status, 0);
}

#[cfg(target_os = "linux")]
#[rstest]
#[case("uvlet survey dist >&-", 2)]
#[case("uvlet survey dist >/dev/null", 0)]
#[case("uvlet survey dist -o /dev/stdout | grep -q Before", 0)]
#[case("uvlet gate dist --config pipe", 2)]
#[case("uvlet attribute dist --top 18446744073709551615 --width 4000000000", 0)]
#[case(
    "head -c 1 r.json.gz >part; (cat part; sleep 0.2; tail -c +2 r.json.gz) | uvlet survey /dev/stdin",
    0
)]
fn odd_streams_end_as_they_should(#[case] line: &str, #[case] status: i32) {
    let folder = Folder::new().with("dist/a.js", "a()");
    assert_eq!(uvlet(folder.path(), &["record", "dist", "-o", "r.json.gz"]).status, 0);
    let program = std::path::Path::new(env!("CARGO_BIN_EXE_uvlet")).parent().unwrap().to_owned();
    let path = std::env::var("PATH").unwrap();
    let output = Command::new("sh")
        .current_dir(folder.path())
        .env("PATH", format!("{}:{path}", program.display()))
        .args(["-c", &format!("mkfifo pipe; {line}")])
        .output()
        .unwrap();
    assert_eq!(output.status.code(), Some(status), "{}", String::from_utf8_lossy(&output.stderr));
}

#[cfg(unix)]
#[test]
fn names_that_are_no_text_do_not_become_one() {
    use std::os::unix::ffi::OsStrExt;

    let folder = Folder::new().with("dist/a%FF.js", "a()");
    fs::write(folder.path().join("dist").join(std::ffi::OsStr::from_bytes(b"a\xff.js")), "b2()")
        .unwrap();
    assert_eq!(json(folder.path(), &["survey", "dist"])["totals"]["sizes"]["emitted"], 7);
}

/// A package may be called like a row that is none.
#[test]
fn no_name_poses_as_a_built_in_row() {
    let sources = [(0, "../src/(shop)/page.js"), (9, "../node_modules/(own)/i.js")];
    let folder =
        Folder::new().with("dist/a.js", "ownown();theirs()").with("dist/a.js.map", map(&sources));
    let answer = json(folder.path(), &["attribute", "dist", "--measure", "emitted"]);
    let rows: Vec<(&str, &str)> = answer["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| (row["row"].as_str().unwrap(), row["name"].as_str().unwrap()))
        .collect();
    assert_eq!(rows, [("own", "(own)"), ("package", "(own)"), ("glue", "(glue)")]);
    let table = uvlet(folder.path(), &["attribute", "dist", "--measure", "emitted"]).out;
    assert!(table.contains("\n\"(own)\" ") && table.starts_with("Own code weighs most"), "{table}");
    let modules =
        uvlet(folder.path(), &["attribute", "dist", "--by", "module", "--measure", "emitted"]).out;
    assert!(modules.starts_with("src/(shop)/page.js is the heaviest of 2 modules"), "{modules}");
}

/// A source deeper than any folder of a disk is.
#[test]
fn a_source_of_very_many_folders_is_read() {
    let deep = format!("../{}x.js", "a/".repeat(20_000));
    let folder = Folder::new()
        .with("package.json", "{}")
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", "tide();")
        .with("dist/a.js.map", map(&[(0, &deep)]));
    let said = uvlet(folder.path(), &["survey", "dist", "--root", "."]);
    assert_eq!(said.status, 0, "{}", said.err);
}

/// What sources request may be no path at all.
#[test]
fn requests_that_are_no_paths_are_read() {
    let deep = format!("lost/{}b", "a/".repeat(3_000));
    let odd = [
        r"tide\\x",
        r"tide/..\\y",
        r"./a\\b",
        "raw!lost/q?x#y",
        "lost/../../../z",
        "@/x/../..",
        "@s",
        "lost//d/",
        "lost/./e",
        "@a/b/../c",
        r"lost\0/z",
        deep.as_str(),
    ];
    let asked: Vec<String> = (0..)
        .zip(odd)
        .map(|(at, odd)| format!("import {{ quay{at} }} from '{odd}'; quay{at}();"))
        .collect();
    let given: Vec<String> =
        (0..odd.len()).map(|at| format!("export const quay{at} = 1;")).collect();
    let map = serde_json::json!({
        "version": 3,
        "sources": ["../src/main.js", "../node_modules/tide/deep/x.js", r"../src/a\b/q.js"],
        "sourcesContent": [asked.join("\n"), given.join("\n"), "export const quay2 = 1;"],
        "mappings": "AAAA,CCAA,CCAA",
    });
    let folder = Folder::new()
        .with("package.json", "{}")
        .with("dist/index.html", "<script src=a.js></script>")
        .with("dist/a.js", "xyz\n//# sourceMappingURL=a.js.map")
        .with("dist/a.js.map", map.to_string());
    for root in [&["--root", "."][..], &[]] {
        let said = uvlet(folder.path(), &[&["record", "dist"], root].concat());
        assert_eq!(said.status, 0, "{}", said.err);
        assert!(said.out.contains("tide/deep/x.js"), "{}", said.out);
    }
}
