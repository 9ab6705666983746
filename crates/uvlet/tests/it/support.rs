//! Folders to run the program in, and its answers.

pub mod forge;

use std::{
    fs,
    path::{Path, PathBuf},
};

use assert_cmd::Command;
use serde_json::Value;
use tempfile::TempDir;

/// A temporary folder with files.
pub struct Folder(TempDir);

impl Folder {
    pub fn new() -> Self {
        Self(tempfile::tempdir().unwrap())
    }

    pub fn path(&self) -> &Path {
        self.0.path()
    }

    pub fn read(&self, path: &str) -> String {
        fs::read_to_string(self.path().join(path)).unwrap()
    }

    /// Writes a file below the folder.
    pub fn with(self, path: &str, text: impl AsRef<[u8]>) -> Self {
        let full = self.path().join(path);
        fs::create_dir_all(full.parent().unwrap()).unwrap();
        fs::write(full, text).unwrap();
        self
    }
}

/// What the program said.
pub struct Said {
    pub status: i32,
    pub out: String,
    pub err: String,
}

/// Runs the program in a folder, without settings from outside.
pub fn uvlet(folder: &Path, arguments: &[&str]) -> Said {
    let output = Command::cargo_bin("uvlet")
        .unwrap()
        .current_dir(folder)
        .env("XDG_CACHE_HOME", env!("CARGO_TARGET_TMPDIR"))
        // Earlier runs of the tests are not the build before.
        .env("CI", "true")
        .env_remove("NO_COLOR")
        .env_remove("CLICOLOR_FORCE")
        .args(arguments)
        .output()
        .unwrap();
    Said {
        status: output.status.code().expect("ended by itself"),
        out: String::from_utf8(output.stdout).unwrap(),
        err: String::from_utf8(output.stderr).unwrap(),
    }
}

/// The JSON answer to a command that succeeds.
pub fn json(folder: &Path, arguments: &[&str]) -> Value {
    let said = uvlet(folder, &[arguments, &["--format", "json"]].concat());
    assert!(said.status < 2, "{arguments:?} failed: {}", said.err);
    serde_json::from_str(&said.out).unwrap()
}

/// The folder of the sample site.
pub fn demo() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")
}

/// The sample builds, as paths from the folder of the sample site.
pub const SAMPLES: [&str; 8] = [
    "builds/esbuild-before",
    "builds/esbuild-after",
    "builds/vite-before",
    "builds/vite-after",
    "builds/webpack-before",
    "builds/webpack-after",
    "builds/rspack-before",
    "builds/rspack-after",
];

/// A source map for a text of one line: from each column on, the text is that source's.
pub fn map(segments: &[(i64, &str)]) -> String {
    let mut sources: Vec<&str> = Vec::new();
    let mut mappings = String::new();
    let (mut column, mut source) = (0, 0);
    for &(at, name) in segments {
        let index = sources.iter().position(|known| *known == name).unwrap_or_else(|| {
            sources.push(name);
            sources.len() - 1
        });
        let index = i64::try_from(index).unwrap();
        let fields = [at - column, index - source, 0, 0];
        mappings.extend(fields.map(vlq));
        mappings.push(',');
        (column, source) = (at, index);
    }
    serde_json::json!({"version": 3, "sources": sources, "names": [], "mappings": mappings})
        .to_string()
}

fn vlq(value: i64) -> String {
    const DIGITS: &[u8] = b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    let mut rest = usize::try_from(value.abs()).unwrap() << 1 | usize::from(value < 0);
    let mut text = String::new();
    loop {
        let more = usize::from(rest > 31) << 5;
        text.push(char::from(DIGITS[rest & 31 | more]));
        rest >>= 5;
        if more == 0 {
            return text;
        }
    }
}
