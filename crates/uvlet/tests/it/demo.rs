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
