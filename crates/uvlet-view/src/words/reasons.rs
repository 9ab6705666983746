//! Why a gate is broken, or how a limit stands.

use uvlet_audit::ask::gate::{budget::Place, reason::Reason, verdict::GateReason};

use super::{bases, errors, judged, some};

/// Files that a reason names.
const NAMED: usize = 3;

/// What breaks a gate besides budgets.
#[must_use]
pub fn of_gate(GateReason { app, reason }: &GateReason) -> String {
    match app {
        Some(app) => format!("{app}: {}", sentence(reason)),
        None => sentence(reason),
    }
}

/// One reason.
#[must_use]
pub fn sentence(reason: &Reason) -> String {
    match reason {
        Reason::DevelopmentBuild(evidence) => format!(
            "this is a development build ({}); its sizes are not what visitors get",
            evidence.as_ref().map(bases::of_mode).unwrap_or_default()
        ),
        Reason::NotRead(why) => why.clone(),
        Reason::NotJudged(judged) => judged::checked(judged),
        Reason::Maps(paths) => format!("Maps: {}", some(paths, NAMED)),
        Reason::NameMissing { place: Place { file, line, column }, missing } => {
            format!("{file}, line {line}, column {column}: {}", errors::missing(missing))
        }
        Reason::NotMarked(mark) => errors::unmarked(*mark).to_owned(),
        Reason::NoMatch { set, name } => format!("no {} matches `{name}`", errors::noun(*set)),
        Reason::BroughtIn { entry, chain } => {
            format!("{entry} brings it in: {}", chain.join(" → "))
        }
        Reason::Unattributed { files, are_styles } => {
            // Bundlers write few maps for styles, and packages rarely hide in them.
            let hint = if *are_styles { ", which `and scripts` leaves out" } else { "" };
            let files: Vec<String> =
                files.iter().map(|(path, bytes)| format!("{path} ({bytes} B)")).collect();
            format!("no known owner: {}{hint}", some(&files, NAMED))
        }
        Reason::GrewBetween { least, most } => format!(
            "it grew by anything from {least} B to {most} B, as not all bytes of both builds have an owner \
             that is known"
        ),
        Reason::Estimated(files) => format!("sizes are only estimated in {}", some(files, NAMED)),
        Reason::LoadsLeadNowhere(files) => {
            format!("an unresolved import() may load {}", some(files, NAMED))
        }
        Reason::NotFollowed(files) => {
            format!("what nothing uses, or never ran, is not known of {}", some(files, NAMED))
        }
        Reason::VersionUnknown(packages) => {
            format!("the version is not known of {}", some(packages, NAMED))
        }
        Reason::NoBase => "no baseline; pass --against BUILD".to_owned(),
        Reason::Late { file, by } => format!("the last one requests {file}, which {by} names"),
        Reason::NoOneStartup => {
            "rounds are those of one entry's startup; set each = \"startup(*)\"".to_owned()
        }
        Reason::New { of_percentage: true } => {
            "it is new; percentage growth is undefined".to_owned()
        }
        Reason::New { of_percentage: false } => "it is new".to_owned(),
        Reason::WaiverEnded { waiver, until } => {
            format!("the waiver of {waiver} ended on {until}")
        }
        Reason::FindingOverWaiver { id, is, ceiling } => {
            format!("of {id} there are {is} B, over the {ceiling} B of its waiver")
        }
        Reason::OverWaiver => "also over its waiver".to_owned(),
        Reason::Waived { finding, until, days_left, reason } => {
            let left = match days_left {
                0 => "its last day".to_owned(),
                1 => "1 day left".to_owned(),
                days => format!("{days} days left"),
            };
            let waived = format!("until {until} ({left}): {reason}");
            match finding {
                Some(id) => format!("without {id}, waived {waived}"),
                None => waived,
            }
        }
        Reason::WaiverUndecided => "its waiver may hold, or may not".to_owned(),
    }
}
