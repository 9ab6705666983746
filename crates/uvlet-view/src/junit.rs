//! The gate as JUnit XML, in its common form: a suite for the build, a case for every limit.

use maud::{Markup, PreEscaped, html};
use uvlet_audit::ask::gate::verdict::{BudgetRow, Gate, GateReason, Verdict};

use crate::{screen::Screen, table::gate::sentence, words::reasons::of_gate};

/// Writes the gate as a report of tests.
#[must_use]
pub fn gate(gate: &Gate, label: &str, screen: &Screen) -> String {
    let tests = gate.reasons.len() + gate.budgets.len();
    let counted = |verdicts: &[Verdict]| {
        gate.budgets.iter().filter(|row| verdicts.contains(&row.verdict)).count()
    };
    let failures = gate.reasons.len() + counted(&[Verdict::Broken]);
    let errors = counted(&[Verdict::Undecided]);
    let skipped = counted(&[Verdict::Unjudged, Verdict::Waived]);
    let report = html! {
        (PreEscaped("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"))
        testsuites name="uvlet gate" tests=(tests) failures=(failures) errors=(errors) {
            testsuite name=(plain(&format!("uvlet gate {label}"))) tests=(tests) failures=(failures)
                errors=(errors) skipped=(skipped) {
                @for reason in &gate.reasons { (reason_case(reason)) }
                @for row in &gate.budgets { (case(row, screen)) }
            }
        }
    };
    report.into_string() + "\n"
}

fn reason_case(reason: &GateReason) -> Markup {
    html! {
        testcase name=(reason.reason.code()) classname=(reason.reason.code()) {
            failure type=(reason.reason.code()) message=(plain(&of_gate(reason))) {}
        }
    }
}

fn case(row: &BudgetRow, screen: &Screen) -> Markup {
    let said = plain(&sentence(row, screen));
    let kind = row.limit_kind.name();
    let item = row.item.as_deref().map(|item| format!(" {item}")).unwrap_or_default();
    let app = row.app.as_ref().map(|app| format!("{app}/")).unwrap_or_default();
    html! {
        testcase name=(plain(&format!("{}{item} {kind}", row.name)))
            classname=(plain(&format!("{app}{}", row.name))) {
            @match row.verdict {
                Verdict::Broken => { failure type=(kind) message=(said) {} }
                Verdict::Undecided => { error type=(kind) message=(said) {} }
                Verdict::Unjudged | Verdict::Waived => { skipped message=(said) {} }
                Verdict::Warned => { system-out { (said) } }
                Verdict::Met => {}
            }
        }
    }
}

/// A text without the characters that no XML document may hold (XML 1.0, section 2.2).
fn plain(text: &str) -> String {
    let is_allowed = |c: &char| matches!(c, '\t' | '\n' | '\r' | ' '..='\u{d7ff}' | '\u{e000}'..='\u{fffd}' | '\u{10000}'..);
    text.chars().filter(is_allowed).collect()
}
