//! What to do next: which question follows an answer.

use std::path::{Path, PathBuf};
use uvlet_view::words::quote;

use uvlet_audit::{
    ask::{
        attribute::{Attribution, By, RowKind},
        gate::{
            reason::Reason,
            verdict::{BudgetRow, Gate, Verdict},
        },
        survey::Survey,
    },
    select::selector::Selector,
};
use uvlet_record::sizes::Measure;

/// The question that follows a survey: whose bytes the heaviest entry waits for.
pub fn after_survey(survey: &Survey, measure: Measure, build: &Path) -> Option<String> {
    let heaviest = survey.entries.iter().max_by_key(|entry| entry.startup.sizes.get(measure))?;
    line(build, "", &format!("startup({})", heaviest.name))
}

/// The question that follows an attribution by package: why the heaviest one is there.
pub fn after_attribution(answer: &Attribution, build: &Path) -> Option<String> {
    let heaviest = answer.rows.iter().find(|row| row.row == RowKind::Package)?;
    let next = next("why", build, &quote::shell(&heaviest.name));
    next.filter(|_| answer.by == By::Package)
}

/// A command on the same build that asks what people mostly ask next.
pub fn next(command: &str, build: &Path, more: &str) -> Option<String> {
    let path = build.display().to_string();
    let is_plain = |text: &str| !text.contains(char::is_control);
    let line = format!("Next: uvlet {command} {} {more}", quote::shell(&path));
    (is_plain(&path) && is_plain(more)).then(|| line.trim_end().to_owned())
}

/// What follows once something was changed and built again; of a record nothing does.
pub fn after_change(build: &Path) -> Option<String> {
    let next = next("compare --tries", build, "").filter(|_| build.is_dir())?;
    Some(next.replacen("Next:", "Next, once it is built again:", 1))
}

/// How bytes get owners, where that keeps a budget from being judged, or most of what breaks one has none.
pub fn owners_of_gate(gate: &Gate, builds: &[(Option<String>, PathBuf)]) -> Option<String> {
    let is_unseen = |row: &&BudgetRow| {
        let is_open = row.verdict == Verdict::Undecided
            && row.because.iter().any(|reason| matches!(reason, Reason::NotJudged(_)));
        let is_about = matches!(row.verdict, Verdict::Broken | Verdict::Undecided)
            && row.heaviest.first().is_some_and(|heavy| heavy.row == RowKind::Unattributed);
        is_open || is_about
    };
    let row = gate.budgets.iter().find(is_unseen)?;
    let (_, build) = builds.iter().find(|(app, _)| *app == row.app)?;
    Some(format!(
        "Source maps would say whose bytes these are; `uvlet attribute {}` says how your build writes them.",
        quote::shell(&build.display().to_string())
    ))
}

/// The question that follows a broken budget: whose bytes it is about.
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
    let build = quote::shell(&build);
    Some(format!("Next: uvlet attribute {build}{options} --in '{selector}'"))
}
