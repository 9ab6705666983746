//! One declaration: whether it is used and by what, in a sentence, then its texts.

use uvlet_audit::ask::declaration::WhyDeclaration;
use uvlet_audit::parts::marks::State;
use uvlet_record::Record;

use crate::name::plain;
use crate::screen::{Screen, bold, count, dim, measures_said, wrapped};

/// Users that are shown.
const LISTED: usize = 8;
/// Lines of a text that are shown.
const LINES: usize = 12;

/// Shows what is known of a declaration.
#[must_use]
pub fn declaration(answer: &WhyDeclaration, record: &Record, screen: &Screen) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n", bold(&wrapped(&sentence(answer, screen), columns, 0)));
    if !answer.used_by.is_empty() {
        text.push_str(&format!("\n{}\n", bold("Used by:")));
        for user in answer.used_by.iter().take(LISTED) {
            text.push_str(&format!("{}\n", wrapped(&format!("  {}", plain(user)), columns, 4)));
        }
        if let Some(more) = answer.used_by.len().checked_sub(LISTED).filter(|more| *more > 0) {
            text.push_str(&dim(&format!("  and {more} more; --format json lists them\n")));
        }
    }
    if let Some(source) = &answer.source {
        text.push_str(&format!("\n{}\n", bold(&format!("Source, from line {}:", source.line))));
        text.push_str(&excerpt(&source.text, columns));
    }
    if let (Some(emitted), Some(place)) = (&answer.emitted, answer.places.first()) {
        let at = format!("As emitted, from byte {} of {}:", place.start, plain(&place.file));
        text.push_str(&format!("\n{}\n", bold(&wrapped(&at, columns, 0))));
        text.push_str(&excerpt(emitted, columns));
    }
    let said = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

/// The answer.
pub(crate) fn sentence(answer: &WhyDeclaration, screen: &Screen) -> String {
    let subject = plain(&answer.subject);
    let size = screen.units.size(answer.sizes.get(screen.measure));
    let measure = screen.measure;
    let users = match (answer.used_by.len(), answer.used_by_running_code) {
        (0, false) => String::new(),
        (0, true) => " by code that runs as its module does".to_owned(),
        (users, false) => format!(" by {}", count(users, "declaration")),
        (users, true) => {
            format!(" by {} and code that runs as its module does", count(users, "declaration"))
        }
    };
    match answer.state {
        State::Removed => format!(
            "{subject} is removed: the bundler dropped it, or put its value where it is used."
        ),
        State::NotTold => format!(
            "It is not told whether {subject} is used: the emitted text of its module was not followed."
        ),
        State::Unused if users.is_empty() => {
            format!("{subject} is unused: {size} ({measure}) for nothing.")
        }
        State::Unused => format!(
            "{subject} is unused: {size} ({measure}) for nothing. {} that uses it is unused, too.",
            count(answer.used_by.len(), "declaration")
        ),
        State::Used => format!("{subject} is used{users}: {size} ({measure})."),
        State::ForEffect => format!(
            "{subject} is kept for an effect: {size} ({measure}) that nothing uses, and that may do something as it is evaluated."
        ),
    }
}

/// The first lines of a text, each cut to the screen.
fn excerpt(text: &str, columns: usize) -> String {
    let mut shown = String::new();
    let lines: Vec<&str> = text.lines().collect();
    for line in lines.iter().take(LINES) {
        let line = plain(&line.replace('\t', "  ")).into_owned();
        let kept: String = line.chars().take(columns.saturating_sub(3)).collect();
        let dots = if kept.len() < line.len() { "…" } else { "" };
        shown.push_str(&format!("  {}{dots}\n", dim(&kept)));
    }
    if lines.len() > LINES {
        shown.push_str(&dim("  …\n"));
    }
    shown
}
