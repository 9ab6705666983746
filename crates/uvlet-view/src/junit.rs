//! The gate as JUnit XML, in its common form: a suite for the build, a case for every limit.

use quick_junit::{NonSuccessKind, Report, SerializeError, TestCase, TestCaseStatus, TestSuite};
use uvlet_audit::gate::{Gate, Verdict};

use crate::table::{Screen, gate::sentence};

/// The gate as a report of tests.
///
/// # Errors
/// When the report cannot be spelt as XML.
pub fn gate(gate: &Gate, label: &str, screen: &Screen) -> Result<String, SerializeError> {
    let mut suite = TestSuite::new(format!("uvlet gate {label}"));
    for reason in &gate.reasons {
        let mut status = TestCaseStatus::non_success(NonSuccessKind::Failure);
        status.set_type(reason.code.as_str()).set_message(reason.message.as_str());
        suite.add_test_case(TestCase::new(reason.code.as_str(), status));
    }
    for row in &gate.budgets {
        let said = sentence(row, screen);
        let mut status = match row.verdict {
            Verdict::Broken => TestCaseStatus::non_success(NonSuccessKind::Failure),
            Verdict::Undecided => TestCaseStatus::non_success(NonSuccessKind::Error),
            Verdict::Unjudged | Verdict::Waived => TestCaseStatus::skipped(),
            Verdict::Warned | Verdict::Held => TestCaseStatus::success(),
        };
        status.set_message(said.as_str());
        if matches!(row.verdict, Verdict::Broken | Verdict::Undecided) {
            status.set_type(row.limit_kind.name());
        }
        let item = row.item.as_deref().map(|item| format!(" {item}")).unwrap_or_default();
        let name = format!("{}{item} {}", row.name, row.limit_kind.name());
        let mut case = TestCase::new(name, status);
        let app = row.app.as_ref().map(|app| format!("{app}/")).unwrap_or_default();
        case.set_classname(format!("{app}{}", row.name));
        if row.verdict == Verdict::Warned {
            case.set_system_out(said.as_str());
        }
        suite.add_test_case(case);
    }
    let mut report = Report::new("uvlet gate");
    report.add_test_suite(suite);
    report.to_string()
}
