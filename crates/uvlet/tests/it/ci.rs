//! The job that the documentation gives as a shell script, on the sample site.

use std::{env, path::Path, process::Command};

use crate::support::{
    forge::{Forge, Manner},
    uvlet,
};

/// The first fenced block of shell in a document.
fn script(text: &str) -> String {
    let (_, rest) = text.split_once("```sh\n").unwrap();
    rest.split_once("\n```").unwrap().0.to_owned()
}

#[test]
fn the_documented_job_judges_posts_and_keeps_a_record() {
    let folder = tempfile::tempdir().unwrap();
    let site = folder.path().join("site");
    let kept = ["demo", "--into", site.to_str().unwrap()];
    assert_eq!(uvlet(folder.path(), &kept).status, 0);
    let script = script(include_str!("../../../../docs/ci.md"));
    let forge = Forge::start(Manner::Well, &[]);
    let programs = Path::new(env!("CARGO_BIN_EXE_uvlet")).parent().unwrap();
    let path = format!("{}:{}", programs.display(), env::var("PATH").unwrap());
    let run = |reference: &str, branch: &str| {
        let variables = [
            ("PATH", path.as_str()),
            ("XDG_CACHE_HOME", env!("CARGO_TARGET_TMPDIR")),
            ("GITHUB_ACTIONS", "true"),
            ("GITHUB_API_URL", &forge.address),
            ("GITHUB_REPOSITORY", "kelpwick/site"),
            ("GITHUB_REF", reference),
            ("GITHUB_SHA", "abc"),
            ("GITHUB_TOKEN", "t"),
            ("BRANCH", branch),
        ];
        let mut shell = Command::new("sh");
        shell.current_dir(&site).args(["-c", &script]).env_clear().envs(variables);
        let output = shell.output().unwrap();
        (output.status.code(), String::from_utf8_lossy(&output.stdout).into_owned())
    };
    // The main branch leaves a record, and the next pull request is held against it.
    let (status, said) = run("refs/heads/main", "main");
    assert_eq!(status, Some(0), "{said}");
    assert!(said.contains("no baseline; pass --against BUILD"), "{said}");
    let settings = std::fs::read_to_string(site.join("uvlet.toml")).unwrap();
    let worse = settings.replace("esbuild-after", "esbuild-before");
    std::fs::write(site.join("uvlet.toml"), worse).unwrap();
    let (status, said) = run("refs/pull/3/merge", "charts");
    assert_eq!(status, Some(1), "{said}");
    assert!(said.contains("Grew: ") && said.contains("pull request 3 is posted"), "{said}");
    let kept = forge.kept.lock().unwrap();
    assert!(kept.comments[0].contains("**Broken: esbuild-before breaks"), "{}", kept.comments[0]);
    let states: Vec<_> = kept.statuses.iter().map(|status| &status["state"]).collect();
    assert_eq!(states, ["success", "failure"]);
}
