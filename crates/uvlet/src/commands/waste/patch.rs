//! `uvlet waste --patch FILE`: edits as a unified diff.

use std::path::{Path, PathBuf};

use similar::TextDiff;
use uvlet_audit::find::patch::{Edit, Project};
use uvlet_read::project;
use uvlet_view::words::findings::does;
use walkdir::WalkDir;

/// Files larger than that are no sources that somebody wrote.
const LONGEST: u64 = 4 << 20;

/// A project's folder.
pub struct Disk {
    /// The folder that paths are from.
    pub root: PathBuf,
}

impl Project for Disk {
    fn read(&self, path: &str) -> Option<String> {
        // Nothing outside the folder is opened.
        let is_plain = !path.split('/').any(|part| part == "..") && !path.starts_with('/');
        let bytes =
            is_plain.then(|| project::read_file(&self.root.join(path), LONGEST)).flatten()?;
        String::from_utf8(bytes).ok()
    }

    fn list(&self, folder: &str) -> Vec<String> {
        let start = self.root.join(folder);
        let is_other = |entry: &walkdir::DirEntry| {
            entry.depth() > 0 && entry.file_name().to_string_lossy() == "node_modules"
        };
        let walk = WalkDir::new(&start).sort_by_file_name();
        let files = walk.into_iter().filter_entry(|entry| !is_other(entry)).filter_map(Result::ok);
        files
            .filter(|entry| entry.file_type().is_file())
            .filter_map(|entry| {
                let inside = entry.path().strip_prefix(&self.root).ok()?;
                Some(Path::new(inside).to_string_lossy().replace('\\', "/"))
            })
            .collect()
    }
}

/// Edits as `git apply` takes them; what each mends stands before it.
pub fn diff(edits: &[Edit]) -> String {
    let mut text = String::new();
    for edit in edits {
        let path = &edit.path;
        text.push_str(&format!("{}: {}\n", edit.findings.join(", "), does(&edit.what)));
        let diff = TextDiff::from_lines(&edit.before, &edit.after);
        let unified = diff
            .unified_diff()
            .context_radius(3)
            .header(&format!("a/{path}"), &format!("b/{path}"))
            .to_string();
        text.push_str(&format!("diff --git a/{path} b/{path}\n{unified}"));
    }
    text
}
