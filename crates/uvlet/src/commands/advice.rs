//! What to do next: how bytes that nobody owns get owners, and which question follows an answer.

use std::path::{Path, PathBuf};

use uvlet_audit::{
    attribute::{Attribution, By, RowKind},
    gate::{BudgetRow, Gate, Verdict},
    selector::Selector,
    survey::Survey,
};
use uvlet_read::project;
use uvlet_record::{Bundler, Kind, Owner, Record, sizes::Measure};

/// Bytes without an owner get owners by a source map; says which command or setting of the bundler
/// writes some, if so much of the answer has none that it matters.
pub fn owners(answer: &Attribution, record: &Record, build: &Path) -> Option<String> {
    let nobodys: u64 = answer
        .rows
        .iter()
        .filter(|row| row.row == RowKind::Unattributed)
        .map(|row| row.sizes.emitted)
        .sum();
    if nobodys.saturating_mul(20) < answer.total.sizes.emitted || nobodys == 0 {
        return None;
    }
    let in_code = record.cells.iter().any(|cell| {
        cell.owner == Owner::Unattributed && record.file(cell.file).kind == Kind::Script
    });
    if !in_code {
        return None;
    }
    let project = project::root_of(build);
    let bundlers = match record.bundler {
        Some(bundler) => vec![bundler],
        None => project.as_deref().map(project::bundlers_of).unwrap_or_default(),
    };
    // Vite builds with Rollup or Rolldown, and is the one that is configured.
    let bundlers = match bundlers.contains(&Bundler::Vite) {
        true => vec![Bundler::Vite],
        false => bundlers,
    };
    let all = [Bundler::Vite, Bundler::Webpack, Bundler::Rspack, Bundler::Esbuild, Bundler::Rollup];
    let known = if bundlers.is_empty() { &all[..] } else { &bundlers[..] };
    let ways: Vec<String> = known.iter().map(|bundler| way(*bundler)).collect();
    Some(format!(
        "Source maps say whose bytes they are. Build once more with them, then ask again:\n{}",
        ways.concat()
    ))
}

fn way(bundler: Bundler) -> String {
    let name = bundler.name();
    let command = match bundler {
        Bundler::Vite => "npx vite build --sourcemap",
        Bundler::Webpack => "npx webpack --mode production --devtool source-map",
        Bundler::Rspack => "npx rspack build --mode production --devtool source-map",
        Bundler::Esbuild => "the same esbuild command with --sourcemap, or --metafile=meta.json",
        Bundler::Rollup => "npx rollup -c --sourcemap",
        Bundler::Rolldown => "npx rolldown -c --sourcemap",
        Bundler::Turbopack => "productionBrowserSourceMaps: true in the configuration of Next.js",
        Bundler::Parcel => "npx parcel build (without --no-source-maps)",
        Bundler::Bun => "the same bun command with --sourcemap=linked",
    };
    format!("  {name:<8}  {command}\n")
}

/// The question that follows a survey: whose bytes the heaviest entry waits for.
pub fn after_survey(survey: &Survey, measure: Measure, build: &Path) -> Option<String> {
    let heaviest = survey.entries.iter().max_by_key(|entry| entry.startup.sizes.get(measure))?;
    line(build, "", &format!("startup({})", heaviest.name))
}

/// The question that follows an attribution by package: which modules the heaviest one is made of.
pub fn after_attribution(answer: &Attribution, build: &Path) -> Option<String> {
    let heaviest = answer.rows.iter().find(|row| row.row == RowKind::Package)?;
    let next = line(build, " --by module", &format!("package({})", heaviest.name));
    next.filter(|_| answer.by == By::Package)
}

/// Where nobody is known to own most of what breaks a promise, how that is told.
pub fn owners_of_gate(gate: &Gate, builds: &[(Option<String>, PathBuf)]) -> Option<String> {
    let is_nobodys = |row: &&BudgetRow| {
        matches!(row.verdict, Verdict::Broken | Verdict::Undecided)
            && row.heaviest.first().is_some_and(|heavy| heavy.row == RowKind::Unattributed)
    };
    let row = gate.budgets.iter().find(is_nobodys)?;
    let (_, build) = builds.iter().find(|(app, _)| *app == row.app)?;
    Some(format!(
        "Whose bytes these are no source map says; `uvlet attribute {}` says how your bundler writes some.",
        build.display()
    ))
}

/// The question that follows a broken promise: whose bytes it is about.
pub fn after_gate(gate: &Gate, builds: &[(Option<String>, PathBuf)]) -> Option<String> {
    let row = gate.budgets.iter().find(|row| row.verdict == Verdict::Broken)?;
    let (_, build) = builds.iter().find(|(app, _)| *app == row.app)?;
    line(build, "", &row.selector)
}

/// A line to be pasted into a shell; none where quoting would be needed inside quotes, or where a name
/// is none that a selector can hold.
fn line(build: &Path, options: &str, selector: &str) -> Option<String> {
    let build = build.display().to_string();
    let is_plain = |text: &str| !text.contains(|c: char| c == '\'' || c.is_control());
    if !is_plain(&build) || !is_plain(selector) || selector.parse::<Selector>().is_err() {
        return None;
    }
    let is_bare = build.chars().all(|c| c.is_alphanumeric() || "/._-+@%,:=".contains(c));
    let build = if is_bare { build } else { format!("'{build}'") };
    Some(format!("Next: uvlet attribute {build}{options} --in '{selector}'"))
}
