//! How much of a build a kind of finding could judge.

use uvlet_audit::find::{judged::Judged, kind::Need};

/// What of a build a kind could judge, and why not all.
#[must_use]
pub fn checked(judged: &Judged) -> String {
    let kind = judged.kind.name();
    if judged.has_failed {
        return format!("{kind} could not be judged: it ended with a fault of uvlet");
    }
    let bytes = match (judged.kind.is_of_scripts(), judged.kind.is_of_styles()) {
        (true, true) => "script and mapped style bytes",
        (true, false) => "script bytes",
        (false, _) => "style bytes",
    };
    format!("{kind} checked {}% of the {bytes}{}", judged.percent(), missing(&judged.lacks))
}

/// What was missing, behind a colon.
#[must_use]
pub fn missing(lacks: &[Need]) -> String {
    // What has no owner has no source and no imports either.
    let first = match lacks {
        [] => return String::new(),
        [Need::Owners, ..] => "no source maps",
        [Need::Edges, ..] => "it is not known which module imports which",
        [Need::Texts, ..] => "no texts of the emitted files",
        [Need::Sources, ..] => "no source texts",
        [Need::Pages, ..] => "pages that load the rest are not in the folder",
    };
    format!(": {first}")
}
