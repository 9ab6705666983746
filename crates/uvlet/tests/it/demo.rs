//! The walk through the commands on the packed sample builds.

use std::fs;

use crate::support::{Folder, demo, uvlet};

#[test]
fn shows_each_command_before_its_output() {
    let folder = Folder::new();
    let said = uvlet(folder.path(), &["demo"]);
    assert_eq!(said.status, 0, "{}", said.err);
    let commands: Vec<&str> = said.out.lines().filter(|line| line.starts_with("$ ")).collect();
    assert_eq!(commands.len(), 13);
    assert!(said.out.contains("uvlet-kelpwick.html is written"), "{}", said.out);
    let verdicts: Vec<&str> =
        said.out.lines().filter(|line| line.starts_with("(exit status")).collect();
    assert_eq!(verdicts, ["(exit status 1)", "(exit status 0)"]);
    assert_eq!(fs::read_dir(folder.path()).unwrap().count(), 0, "it leaves nothing behind");
}

#[test]
fn keeps_the_builds_where_it_is_told_and_overwrites_nothing() {
    let folder = Folder::new();
    assert_eq!(uvlet(folder.path(), &["demo", "--into", "kelpwick"]).status, 0);
    let kept = folder.path().join("kelpwick");
    for file in ["uvlet.toml", "esbuild-before/booking.html"] {
        let packed = fs::read(kept.join(file)).unwrap();
        let committed =
            fs::read(demo().join(file)).or_else(|_| fs::read(demo().join("builds").join(file)));
        assert_eq!(packed, committed.unwrap(), "{file}");
    }
    assert!(kept.join("uvlet-kelpwick.html").is_file());
    // The configuration names a folder, so that no build need be named.
    assert_eq!(uvlet(&kept, &["gate"]).status, 0);
    let again = uvlet(folder.path(), &["demo", "--into", "kelpwick"]);
    assert_eq!(again.status, 2);
    assert!(again.err.contains("is not empty"), "{}", again.err);
}

/// On a terminal each answer ends with the next question, which can be asked as it stands.
#[test]
fn each_answer_leads_to_the_next() {
    // Of Debian's bsdutils; without it there is no terminal to ask at.
    if std::process::Command::new("script").arg("--version").output().is_err() {
        return;
    }
    let folder = Folder::new();
    let into = folder.path().join("site");
    uvlet(folder.path(), &["demo", "--into", "site"]);
    let program = assert_cmd::cargo::cargo_bin("uvlet");
    let at_terminal = |line: &str| {
        let typed = line.replacen("uvlet", program.to_str().unwrap(), 1);
        let output = std::process::Command::new("script")
            .args(["-q", "-e", "-c", &typed, "/dev/null"])
            .current_dir(&into)
            .env_remove("CI")
            .env("XDG_CACHE_HOME", folder.path().join("cache"))
            .output();
        let output = output.unwrap();
        (output.status.code(), String::from_utf8_lossy(&output.stdout).into_owned())
    };
    for build in ["esbuild-before", "vite-after"] {
        let mut asked = Vec::new();
        let mut line = format!("uvlet survey {build}");
        for _ in 0..8 {
            let (status, said) = at_terminal(&line);
            // A broken budget is an answer.
            let is_gate = line.starts_with("uvlet gate");
            assert!(status == Some(0) || is_gate && status == Some(1), "{line}: {said}");
            asked.push(line.split(' ').nth(1).unwrap().to_owned());
            let Some((_, next)) = said.rsplit_once("Next").filter(|_| !is_gate) else { break };
            line = next.split_once(": ").unwrap().1.lines().next().unwrap().trim().to_owned();
            if asked.contains(&line.split(' ').nth(1).unwrap().to_owned()) {
                break;
            }
        }
        assert!(
            asked.starts_with(&["survey", "attribute", "why", "waste"].map(str::to_owned)),
            "{asked:?}"
        );
        assert!(asked.len() >= 5, "{asked:?}");
    }
    let (_, said) = at_terminal("uvlet compare esbuild-before esbuild-after");
    assert!(said.contains("Next: uvlet propose esbuild-after"), "{said}");
}
