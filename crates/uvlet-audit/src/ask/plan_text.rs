//! A plan as lines of the bundler's configuration.

use std::collections::BTreeSet;

use uvlet_record::{Bundler, ModuleId, Record};

use crate::{
    bundlers::{GatherRule, Profile},
    predict::step::{Change, Step},
};

/// What can be said, and what cannot.
#[derive(Debug, Default, PartialEq, Eq)]
pub struct PlanText {
    /// Lines of configuration.
    pub lines: Vec<String>,
    /// Steps that it cannot say.
    pub besides: Vec<Besides>,
}

/// A step that configuration cannot say.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Besides {
    /// The source is to be edited.
    Edit {
        /// What the step names.
        what: String,
        /// What it does.
        change: Change,
    },
    /// It is no whole package, and other hosts are named by package.
    NoName {
        /// What the step names.
        what: String,
    },
    /// The bundler has no rule that puts modules into a file.
    NoRule {
        /// The file's name.
        rule: String,
        /// The bundler.
        bundler: Option<Bundler>,
    },
}

/// Writes a plan for the bundler that was found.
#[must_use]
pub fn plan_text(record: &Record, steps: &[Step]) -> PlanText {
    let mut text = PlanText::default();
    let gathers: Vec<&Step> = steps.iter().filter(|step| step.change == Change::Gather).collect();
    if !gathers.is_empty() {
        gather(record, &gathers, &mut text);
    }
    let mut externals: BTreeSet<&str> = BTreeSet::new();
    for step in steps.iter().filter(|step| step.change == Change::External) {
        let Meant { packages, paths } = meant(record, &step.subject.modules);
        // Names of packages are what code asks for; a part of one, or own code, has no such name.
        if !paths.is_empty() || packages.is_empty() {
            text.besides.push(Besides::NoName { what: step.subject.text.clone() });
        }
        externals.extend(packages);
    }
    if !externals.is_empty() {
        let list: Vec<String> = externals.iter().map(|name| format!("{name:?}")).collect();
        let list = list.join(", ");
        let [before, behind] = Profile::of(record.bundler).externals;
        text.lines.push(format!("{before}{list}{behind}"));
    }
    for step in steps {
        if matches!(step.change, Change::Defer | Change::Without | Change::Bypass | Change::Narrow)
        {
            let what = step.subject.text.clone();
            text.besides.push(Besides::Edit { what, change: step.change });
        }
    }
    text
}

/// Rules that put modules into files of their own; the first that matches holds.
fn gather(record: &Record, rules: &[&Step], text: &mut PlanText) {
    let tests: Vec<(String, String)> =
        rules.iter().map(|step| (step.name.clone(), test(record, &step.subject.modules))).collect();
    match Profile::of(record.bundler).gather {
        GatherRule::CacheGroups => {
            text.lines
                .push("optimization: { splitChunks: { chunks: \"all\", cacheGroups: {".to_owned());
            for (at, (name, test)) in tests.iter().enumerate() {
                let priority = tests.len() - at;
                text.lines.push(format!(
                    "  {name:?}: {{ name: {name:?}, test: {test}, priority: {priority}, enforce: true }},"
                ));
            }
            text.lines.push("} } },".to_owned());
        }
        GatherRule::Groups { open, close } => {
            text.lines.push(open.to_owned());
            for (at, (name, test)) in tests.iter().enumerate() {
                let priority = tests.len() - at;
                text.lines
                    .push(format!("  {{ name: {name:?}, test: {test}, priority: {priority} }},"));
            }
            text.lines.push(close.to_owned());
        }
        GatherRule::Function => {
            text.lines.push("output: { manualChunks(id) {".to_owned());
            for (name, test) in &tests {
                text.lines.push(format!("  if ({test}.test(id)) return {name:?};"));
            }
            text.lines.push("} },".to_owned());
        }
        GatherRule::None => {
            let bundler = record.bundler;
            let without = tests.into_iter().map(|(rule, _)| Besides::NoRule { rule, bundler });
            text.besides.extend(without);
        }
    }
}

/// Packages that are meant as a whole, and paths of the modules that are in none.
struct Meant<'r> {
    packages: BTreeSet<&'r str>,
    paths: BTreeSet<&'r str>,
}

/// What some modules are.
fn meant<'r>(record: &'r Record, modules: &[ModuleId]) -> Meant<'r> {
    let wanted: BTreeSet<ModuleId> = modules.iter().copied().collect();
    let has_bytes: BTreeSet<ModuleId> = record
        .cells
        .iter()
        .filter_map(|cell| match cell.owner {
            uvlet_record::Owner::Module(id) if cell.amount.emitted > 0 => Some(id),
            _ => None,
        })
        .collect();
    let is_whole = |name: &str| {
        has_bytes.iter().all(|id| {
            record.package_of(*id).is_none_or(|package| package.name != name) || wanted.contains(id)
        })
    };
    let mut packages: BTreeSet<&str> = BTreeSet::new();
    let mut paths: BTreeSet<&str> = BTreeSet::new();
    for &id in &wanted {
        let name = record.package_of(id).map(|package| package.name.as_str());
        match name.filter(|name| packages.contains(name) || is_whole(name)) {
            Some(name) => packages.insert(name),
            None => paths.insert(record.module(id).path.as_str()),
        };
    }
    Meant { packages, paths }
}

/// A regular expression for the paths of some modules: by package where a package is meant as a whole.
fn test(record: &Record, modules: &[ModuleId]) -> String {
    let Meant { packages, paths } = meant(record, modules);
    let escaped = |text: &str| {
        let mut found = String::new();
        for c in text.chars() {
            match c {
                '/' => found.push_str("[\\\\/]"),
                c if c.is_alphanumeric() || matches!(c, '-' | '_' | '@') => found.push(c),
                c => found.extend(['\\', c]),
            }
        }
        found
    };
    let mut parts: Vec<String> = Vec::new();
    if !packages.is_empty() {
        let names: Vec<String> = packages.into_iter().map(escaped).collect();
        parts.push(format!("node_modules[\\\\/]({})[\\\\/]", names.join("|")));
    }
    parts.extend(paths.into_iter().map(|path| format!("{}$", escaped(path))));
    format!("/{}/", parts.join("|"))
}
