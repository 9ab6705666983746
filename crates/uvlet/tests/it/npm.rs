//! The npm packages: packed from the built program, installed in an empty project, and run.

use std::{
    env,
    path::Path,
    process::{Command, Output},
};

use crate::support::{Folder, demo};

fn run(folder: &Path, program: &str, arguments: &[&str]) -> Output {
    Command::new(program).current_dir(folder).args(arguments).output().unwrap()
}

fn text(bytes: &[u8]) -> String {
    String::from_utf8_lossy(bytes).into_owned()
}

/// The platform as Node.js names it.
fn platform() -> String {
    let os = match env::consts::OS {
        "macos" => "darwin",
        "windows" => "win32",
        os => os,
    };
    let cpu = if env::consts::ARCH == "aarch64" { "arm64" } else { "x64" };
    format!("{os}-{cpu}")
}

/// Needs npm: without it, it is left out, but where `UVLET_FRESH` is set, as in continuous integration.
#[test]
fn the_packages_hold_a_program_that_runs() {
    if Command::new("npm").arg("--version").output().is_err() {
        assert!(env::var_os("UVLET_FRESH").is_none(), "npm is needed to pack the program");
        return;
    }
    let folder = Folder::new().with("other", "a stand-in").with("app/package.json", "{}");
    let root = demo().join("..");
    let pack = root.join("npm/pack.mjs");
    let own = platform();
    let other = if own == "win32-arm64" { "linux-x64" } else { "win32-arm64" };
    let programs = [
        format!("{own}={}", env!("CARGO_BIN_EXE_uvlet")),
        format!("{other}={}", folder.path().join("other").display()),
    ];
    let words = [pack.to_str().unwrap(), "--into", "tarballs", &programs[0], &programs[1]];
    let packed = run(folder.path(), "node", &words);
    assert!(packed.status.success(), "{}", text(&packed.stderr));
    let app = folder.path().join("app");
    let tarball = |name: &str| format!("../tarballs/uvlet-{name}{}.tgz", env!("CARGO_PKG_VERSION"));
    let (main, program) = (tarball(""), tarball(&format!("{own}-")));
    assert!(folder.path().join("app").join(tarball(&format!("{other}-"))).is_file());
    let installed =
        run(&app, "npm", &["install", "--offline", "--no-audit", "--no-fund", &program, &main]);
    assert!(installed.status.success(), "{}", text(&installed.stderr));
    let survey = demo().join("builds/esbuild-after");
    let script = "node_modules/.bin/uvlet";
    let said = run(&app, script, &["survey", survey.to_str().unwrap()]);
    assert!(text(&said.stdout).starts_with("Before it runs, timetable downloads"));
    // The exit status is the program's own.
    let said = run(&app, script, &["survey", "nowhere"]);
    assert_eq!(said.status.code(), Some(2));
    #[cfg(unix)]
    {
        // Who ends the launcher ends the program, here waiting for a pipe that nobody writes to.
        let waits = "\"$1\" survey /dev/stdin < <(sleep 60) & one=$!; sleep 2; kill $one; wait $one; \
                     pgrep -f '^[^ ]*uvlet survey /dev/stdin'";
        let said = run(&app, "timeout", &["20", "bash", "-c", waits, "-", script]);
        assert_eq!(text(&said.stdout), "", "the program goes on");
    }
    let file = if own.starts_with("win32") { "uvlet.exe" } else { "uvlet" };
    let program_of = app.join(format!("node_modules/@uvlet/{own}/{file}"));
    std::fs::write(&program_of, "").unwrap();
    let said = run(&app, script, &["gate", "."]);
    assert_eq!(said.status.code(), Some(2));
    assert!(text(&said.stderr).contains("is not a whole program"), "{}", text(&said.stderr));
    let folder_of = |name: &str| app.join("node_modules/uvlet").join(name);
    assert!(folder_of("man/uvlet.1").is_file() && folder_of("completions/_uvlet").is_file());
    std::fs::remove_dir_all(app.join("node_modules/@uvlet")).unwrap();
    let said = run(&app, script, &["survey", "."]);
    assert_eq!((said.status.code(), text(&said.stdout)), (Some(2), String::new()));
    let expected = format!(
        "uvlet: the package @uvlet/{own} is not installed; install uvlet again with optional packages\n"
    );
    assert_eq!(text(&said.stderr), expected);
}
