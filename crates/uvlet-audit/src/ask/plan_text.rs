//! A plan as lines of the bundler's configuration.

use std::collections::BTreeSet;

use uvlet_record::{Bundler, ModuleId, Record};

use crate::predict::step::{Change, Step};

/// What can be said, and what cannot.
#[derive(Debug, Default, PartialEq, Eq)]
pub struct PlanText {
    /// Lines of configuration.
    pub lines: Vec<String>,
    /// Steps that it cannot say, with what to do instead.
    pub besides: Vec<String>,
}

/// Writes a plan for the bundler that was found.
#[must_use]
pub fn plan_text(record: &Record, steps: &[Step]) -> PlanText {
    let mut text = PlanText::default();
    let gathers: Vec<&Step> = steps.iter().filter(|step| step.change == Change::Gather).collect();
    if !gathers.is_empty() {
        gather(record, &gathers, &mut text);
    }
    let externals: BTreeSet<&str> = steps
        .iter()
        .filter(|step| step.change == Change::External)
        .map(|step| step.subject.text.as_str())
        .collect();
    if !externals.is_empty() {
        let list: Vec<String> = externals.iter().map(|name| format!("{name:?}")).collect();
        let list = list.join(", ");
        text.lines.push(match record.bundler {
            Some(Bundler::Webpack | Bundler::Rspack) => format!("externals: [{list}],"),
            Some(Bundler::Esbuild) => format!("external: [{list}],"),
            Some(Bundler::Vite) => {
                format!("build: {{ rolldownOptions: {{ external: [{list}] }} }},")
            }
            _ => format!("external: [{list}],"),
        });
    }
    for step in steps {
        let what = &step.subject.text;
        text.besides.extend(match step.change {
            Change::Defer => Some(format!("{what}: its imports become import() in the source")),
            Change::Without => Some(format!("{what}: its imports are taken out of the source")),
            Change::Bypass => Some(format!(
                "{what}: who imports from it imports from the modules that declare the names"
            )),
            Change::Resize | Change::Touch | Change::Gather | Change::External => None,
        });
    }
    text
}

/// Rules that put modules into files of their own; the first that matches holds.
fn gather(record: &Record, rules: &[&Step], text: &mut PlanText) {
    let tests: Vec<(String, String)> =
        rules.iter().map(|step| (step.name.clone(), test(record, &step.subject.modules))).collect();
    match record.bundler {
        Some(Bundler::Webpack | Bundler::Rspack) => {
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
        Some(Bundler::Vite) => {
            text.lines.push(
                "build: { rolldownOptions: { output: { codeSplitting: { groups: [".to_owned(),
            );
            groups(&tests, text);
            text.lines.push("] } } } },".to_owned());
        }
        Some(Bundler::Rolldown) => {
            text.lines.push("output: { codeSplitting: { groups: [".to_owned());
            groups(&tests, text);
            text.lines.push("] } },".to_owned());
        }
        Some(Bundler::Rollup) => {
            text.lines.push("output: { manualChunks(id) {".to_owned());
            for (name, test) in &tests {
                text.lines.push(format!("  if ({test}.test(id)) return {name:?};"));
            }
            text.lines.push("} },".to_owned());
        }
        other => {
            let name = other.map_or("the bundler", Bundler::name);
            text.besides.extend(tests.iter().map(|(rule, _)| {
                format!("{rule}: {name} has no rule that puts modules into a file; an entry point of their own does")
            }));
        }
    }
}

fn groups(tests: &[(String, String)], text: &mut PlanText) {
    for (at, (name, test)) in tests.iter().enumerate() {
        let priority = tests.len() - at;
        text.lines.push(format!("  {{ name: {name:?}, test: {test}, priority: {priority} }},"));
    }
}

/// A regular expression for the paths of some modules: by package where a package is meant as a whole.
fn test(record: &Record, modules: &[ModuleId]) -> String {
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
