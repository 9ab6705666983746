//! The steps of a plan as they are typed, and what configuration cannot say of them.

use uvlet_audit::{
    ask::plan_text::Besides,
    predict::step::{Change, Planned},
};
use uvlet_record::Bundler;

/// A step as it is typed.
#[must_use]
pub fn typed(step: &Planned) -> String {
    let (change, subject) = (step.change.name(), &step.subject);
    let text = match (step.change, &step.from) {
        (Change::Gather, _) => format!("{}={subject}", step.name),
        (Change::Resize, _) => format!("{subject}={} B", step.bytes),
        (_, Some(from)) => format!("{subject} from {from}"),
        _ => subject.clone(),
    };
    format!("--{change} {}", quoted(&text))
}

/// Steps as they are typed, in one line.
#[must_use]
pub fn typed_all(steps: &[Planned]) -> String {
    steps.iter().map(typed).collect::<Vec<_>>().join(" ")
}

/// In quotes for a POSIX shell, where it needs them.
fn quoted(text: &str) -> String {
    let is_plain =
        |c: char| c.is_ascii_alphanumeric() || matches!(c, '/' | '.' | '-' | '_' | '@' | '=' | ':');
    match !text.is_empty() && text.chars().all(is_plain) {
        true => text.to_owned(),
        false => format!("'{}'", text.replace('\'', "'\\''")),
    }
}

/// What is to be done where configuration cannot say a step.
#[must_use]
pub fn besides(step: &Besides) -> String {
    match step {
        Besides::Edit { what, change: Change::Defer } => {
            format!("{what}: its imports become import() in the source")
        }
        Besides::Edit { what, change: Change::Without } => {
            format!("{what}: its imports are taken out of the source")
        }
        Besides::Edit { what, change: Change::Narrow } => {
            format!("{what}: each name that is used is imported by its own path")
        }
        Besides::Edit { what, .. } => {
            format!("{what}: who imports from it imports from the modules that declare the names")
        }
        Besides::NoName { what } => {
            format!("{what}: only whole packages can be listed as externals")
        }
        Besides::NoRule { rule, bundler } => {
            let name = bundler.map_or("the bundler", Bundler::name);
            format!(
                "{rule}: {name} has no rule that puts modules into a file; an entry point of their own does"
            )
        }
    }
}
