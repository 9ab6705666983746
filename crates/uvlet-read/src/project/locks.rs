//! Versions from the lock file under the project's folder, for packages whose own `package.json` is
//! not there: of npm (`package-lock.json`, versions 1 to 3), pnpm and Yarn (classic and newer).
//!
//! npm's lock names places. The others name packages, so a version is taken only where there is one
//! of a name, or where the package or project around it asks for a range that the lock resolves.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    path::Path,
};

use super::{read_file, source_names::Installed};
use serde::Deserialize;

/// Bytes of a lock file that are read: those of very large projects have a tenth of it.
const LONGEST: u64 = 64 << 20;

/// Bytes of the longest line of a lock file of Yarn that is parsed; real ones have hundreds.
const LONGEST_LINE: usize = 32 << 10;

/// What a lock file says.
#[derive(Debug, Default)]
pub struct Locked {
    by_place: HashMap<String, String>,
    by_name: HashMap<String, BTreeSet<String>>,
    /// Versions by name and range, as asked for.
    resolved: HashMap<(String, String), String>,
    /// Ranges that packages ask for, by asking and asked name.
    asks: HashMap<(String, String), String>,
}

impl Locked {
    /// Reads the project's lock file; what is damaged or not there says nothing.
    pub fn under(root: &Path) -> Self {
        let text = |name: &str| String::from_utf8(read_file(&root.join(name), LONGEST)?).ok();
        let npm = text("package-lock.json").or_else(|| text("npm-shrinkwrap.json"));
        if let Some(locked) = npm.as_deref().and_then(npm_lock) {
            return locked;
        }
        if let Some(locked) = text("pnpm-lock.yaml").as_deref().and_then(pnpm_lock) {
            return locked;
        }
        let manifest = text("package.json").unwrap_or_default();
        text("yarn.lock").and_then(|lock| yarn_lock(&lock, &manifest)).unwrap_or_default()
    }

    /// The version of a package at its place.
    pub fn version(&self, installed: &Installed) -> Option<String> {
        if let Some(version) = self.by_place.get(&installed.place) {
            return Some(version.clone());
        }
        let versions = self.by_name.get(&installed.name)?;
        if versions.len() == 1 {
            return versions.first().cloned();
        }
        let around = installed.place.strip_suffix(&format!("node_modules/{}", installed.name))?;
        let parent = around.trim_end_matches('/').rsplit("node_modules/").next()?;
        let range = self.asks.get(&(parent.to_owned(), installed.name.clone()))?;
        self.resolved.get(&(installed.name.clone(), range.clone())).cloned()
    }

    fn add(&mut self, name: &str, version: &str) {
        self.by_name.entry(name.to_owned()).or_default().insert(version.to_owned());
    }
}

#[derive(Deserialize)]
struct NpmLock {
    /// By place, in versions 2 and 3.
    #[serde(default)]
    packages: BTreeMap<String, NpmPackage>,
    /// By name and nested, in version 1.
    #[serde(default)]
    dependencies: BTreeMap<String, NpmDependency>,
}

#[derive(Deserialize)]
struct NpmPackage {
    version: Option<String>,
}

#[derive(Deserialize)]
struct NpmDependency {
    version: String,
    #[serde(default)]
    dependencies: BTreeMap<String, NpmDependency>,
}

fn npm_lock(text: &str) -> Option<Locked> {
    let lock: NpmLock = serde_json::from_str(text).ok()?;
    let mut locked = Locked::default();
    for (place, package) in lock.packages {
        // A place is from the project's folder; paths keep what follows the first folder of packages.
        let place = place.find("node_modules/").map(|at| place[at..].to_owned());
        if let (Some(place), Some(version)) = (place, package.version) {
            locked.by_place.entry(place).or_insert(version);
        }
    }
    if locked.by_place.is_empty() {
        nested(&lock.dependencies, "", &mut locked.by_place);
    }
    Some(locked)
}

fn nested(
    dependencies: &BTreeMap<String, NpmDependency>,
    around: &str,
    places: &mut HashMap<String, String>,
) {
    for (name, dependency) in dependencies {
        let place = format!("{around}node_modules/{name}");
        nested(&dependency.dependencies, &format!("{place}/"), places);
        places.insert(place, dependency.version.clone());
    }
}

/// The keys of the table `packages`, as pnpm's own writer indents and quotes them.
fn pnpm_packages(text: &str) -> impl Iterator<Item = &str> {
    let table = text.lines().skip_while(|line| line.trim_end() != "packages:").skip(1);
    let table = table.take_while(|line| line.is_empty() || line.starts_with(' '));
    table.filter_map(|line| {
        let line = line.strip_prefix("  ").filter(|line| !line.starts_with(' '))?.trim_end();
        // A key of over 128 characters stands alone, after a question mark.
        let key = line.strip_prefix("? ").or_else(|| line.strip_suffix(": {}"));
        let key = key.or_else(|| line.strip_suffix(':'))?;
        Some(key.trim_matches(['\'', '"']))
    })
}

fn pnpm_lock(text: &str) -> Option<Locked> {
    let mut locked = Locked::default();
    for key in pnpm_packages(text) {
        // `@s/q@1.2.3(peer@1.0.0)` today, `/@s/q@1.2.3` and `/@s/q/1.2.3_peer@1.0.0` in older versions.
        let plain = key.trim_start_matches('/').split('(').next().unwrap_or_default();
        let parts =
            plain.rsplit_once('@').filter(|(name, _)| !name.is_empty() && !name.contains('_'));
        if let Some((name, version)) = parts.or_else(|| plain.rsplit_once('/')) {
            locked.add(name, version.split('_').next().unwrap_or(version));
        }
    }
    Some(locked)
}

#[derive(Deserialize, Default)]
#[serde(rename_all = "camelCase", default)]
struct Manifest {
    dependencies: BTreeMap<String, String>,
    dev_dependencies: BTreeMap<String, String>,
}

fn yarn_lock(text: &str, manifest: &str) -> Option<Locked> {
    // The parser's time grows with the square of a line's length.
    if text.lines().any(|line| line.len() > LONGEST_LINE) {
        return None;
    }
    let lock = yarn_lock_parser::parse_str(text).ok()?;
    let manifest: Manifest = serde_json::from_str(manifest).unwrap_or_default();
    let mut locked = Locked::default();
    // Newer versions write `npm:` before a range in one place and not in the other.
    let plain = |range: &str| range.strip_prefix("npm:").unwrap_or(range).to_owned();
    for entry in &lock.entries {
        locked.add(entry.name, entry.version);
        for (name, range) in &entry.descriptors {
            let key = ((*name).to_owned(), plain(range));
            locked.resolved.insert(key, entry.version.to_owned());
        }
        for (name, range) in &entry.dependencies {
            let key = (entry.name.to_owned(), (*name).to_owned());
            locked.asks.insert(key, plain(range));
        }
    }
    // The project's own folder stands around what is installed at the top.
    for (name, range) in manifest.dependencies.iter().chain(&manifest.dev_dependencies) {
        locked.asks.insert((String::new(), name.clone()), plain(range));
    }
    Some(locked)
}

#[cfg(test)]
mod tests {
    use crate::project::source_names::Installed;
    use rstest::rstest;

    use super::{Locked, npm_lock, pnpm_lock, yarn_lock};

    const NPM: &str = r#"{"lockfileVersion":3,"packages":{"":{"version":"1.0.0"},"node_modules/tide":{"version":"3.0.4"},
        "apps/site/node_modules/a/node_modules/tide":{"version":"2.1.0"}}}"#;
    const OLD_NPM: &str = r#"{"lockfileVersion":1,"dependencies":{"tide":{"version":"3.0.4"},
        "a":{"version":"1.0.0","dependencies":{"tide":{"version":"2.1.0"}}}}}"#;
    const YARN: &str = "# THIS IS AN AUTOGENERATED FILE. DO NOT EDIT THIS FILE DIRECTLY.\n# yarn lockfile v1\n\n\na@^1.0.0:\n  version \"1.0.0\"\n  resolved \"https://registry.example/a.tgz#0\"\n  dependencies:\n    tide \"^2.0.0\"\n\ntide@^2.0.0:\n  version \"2.1.0\"\n  resolved \"https://registry.example/t.tgz#0\"\n\ntide@^3.0.0:\n  version \"3.0.4\"\n  resolved \"https://registry.example/t.tgz#1\"\n";
    const NEW_YARN: &str = "# This file is generated by running \"yarn install\" inside your project.\n# Manual changes might be lost - proceed with caution!\n\n__metadata:\n  version: 8\n  cacheKey: 10c0\n\n\"a@npm:^1.0.0\":\n  version: 1.0.0\n  resolution: \"a@npm:1.0.0\"\n  dependencies:\n    tide: \"npm:^2.0.0\"\n  languageName: node\n  linkType: hard\n\n\"tide@npm:^2.0.0\":\n  version: 2.1.0\n  resolution: \"tide@npm:2.1.0\"\n  languageName: node\n  linkType: hard\n\n\"tide@npm:^3.0.0\":\n  version: 3.0.4\n  resolution: \"tide@npm:3.0.4\"\n  languageName: node\n  linkType: hard\n";
    const MANIFEST: &str = r#"{"dependencies":{"tide":"^3.0.0","a":"^1.0.0"}}"#;

    #[rstest]
    #[case::npm(npm_lock(NPM))]
    #[case::old_npm(npm_lock(OLD_NPM))]
    #[case::yarn(yarn_lock(YARN, MANIFEST))]
    #[case::new_yarn(yarn_lock(NEW_YARN, MANIFEST))]
    fn versions_by_place(#[case] locked: Option<Locked>) {
        let locked = locked.unwrap();
        let version = |place: &str| {
            let place = place.to_owned();
            locked.version(&Installed {
                name: "tide".to_owned(),
                place,
                above: String::new(),
                version: None,
            })
        };
        assert_eq!(version("node_modules/tide").as_deref(), Some("3.0.4"));
        assert_eq!(version("node_modules/a/node_modules/tide").as_deref(), Some("2.1.0"));
    }

    #[rstest]
    #[case(
        "lockfileVersion: '9.0'\npackages:\n  '@s/q@1.2.3(r@2.0.0)':\n    resolution: {integrity: x}\n"
    )]
    #[case("lockfileVersion: '6.0'\npackages:\n  /@s/q@1.2.3:\n    dev: false\n")]
    #[case("lockfileVersion: 5.4\npackages:\n  /@s/q/1.2.3_r@2.0.0:\n    dev: false\n")]
    fn pnpm_names_packages(#[case] text: &str) {
        let place = "node_modules/@s/q".to_owned();
        let installed =
            Installed { name: "@s/q".to_owned(), place, above: String::new(), version: None };
        assert_eq!(
            pnpm_lock(text).unwrap().version(&installed).as_deref(),
            Some("1.2.3"),
            "{text}"
        );
    }
}
