//! Waste with its findings in words.

use serde::Serialize;
use uvlet_audit::find::{
    self,
    finding::{Accepted, Bound, EntryShare, Span},
    judged::Judged,
    kind::Kind,
};
use uvlet_record::sizes::Sizes;

use crate::words::findings::{advice, awaited, cause, part_text, title};

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Waste<'a> {
    /// What could go at startup of each entry, all findings together, the most first.
    at_startup: &'a [EntryShare],
    /// Of that, what could leave the build, and not only load on demand.
    removable_at_startup: &'a [EntryShare],
    /// What could go from the build, all findings together.
    recoverable: Sizes,
    /// What the entry that gains most would start without if all findings were fixed of which that was
    /// predicted.
    predicted_together: Option<&'a EntryShare>,
    /// The one that saves most at startup first.
    findings: Vec<Finding<'a>>,
    /// What each kind could judge: of the rest, that nothing was found says nothing.
    judged: &'a [Judged],
    /// Emitted bytes of styles that no kind could judge, as no map says what they are made of.
    unjudged_styles: u64,
}

/// One finding.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Finding<'a> {
    /// Its kind with eight digits that last from build to build.
    id: &'a str,
    /// What it is.
    kind: Kind,
    /// One line.
    title: String,
    /// Paths of modules, or places of packages.
    #[serde(rename = "where")]
    paths: &'a [String],
    /// How sure the saving is.
    bound: Bound,
    /// What could go from the build.
    recoverable: Sizes,
    /// The entry that gains most at startup; none where none does.
    at: Option<&'a str>,
    /// What could go at startup of each entry that gains, the most first.
    by_entry: &'a [EntryShare],
    /// What it comes from.
    cause: String,
    /// What to do.
    advice: String,
    /// What the entry that gains most would start without, by a prediction, where one was made.
    #[serde(skip_serializing_if = "Option::is_none")]
    predicted: Option<&'a EntryShare>,
    /// The waiver that accepts it, if it is no larger than that allows and the day has not passed.
    waived: Option<&'a Accepted>,
    /// Of what is less than a module, each part, the largest first.
    parts: Vec<Part<'a>>,
    /// Where it stands in emitted files, where positions are known.
    places: &'a [Span],
}

/// What a finding stands on: a declaration, or a use of a name.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Part<'a> {
    /// Its name in the source.
    name: &'a str,
    /// The module that it comes from.
    module: Option<&'a str>,
    /// Of a use, the line in the source, from 1.
    #[serde(skip_serializing_if = "Option::is_none")]
    line: Option<usize>,
    /// Of a use, what it waits for.
    #[serde(skip_serializing_if = "Option::is_none")]
    why: Option<String>,
    /// The bytes of a declaration in the emitted file.
    emitted: u64,
    /// The start of its text there; of a use, the text around it in the source.
    text: String,
}

impl<'a> From<&'a find::waste::Waste> for Waste<'a> {
    fn from(waste: &'a find::waste::Waste) -> Self {
        Self {
            at_startup: &waste.at_startup,
            removable_at_startup: &waste.removable_at_startup,
            recoverable: waste.recoverable,
            predicted_together: waste.together.as_ref().map(|together| &together.share),
            findings: waste.findings.iter().map(Finding::from).collect(),
            judged: &waste.judged,
            unjudged_styles: waste.unjudged_styles,
        }
    }
}

impl<'a> From<&'a find::finding::Finding> for Finding<'a> {
    fn from(finding: &'a find::finding::Finding) -> Self {
        Self {
            id: &finding.id,
            kind: finding.kind,
            title: title(&finding.about),
            paths: &finding.paths,
            bound: finding.bound,
            recoverable: finding.recoverable,
            at: finding.at.as_deref(),
            by_entry: &finding.by_entry,
            cause: cause(finding),
            advice: advice(&finding.about),
            predicted: finding.predicted.as_ref(),
            waived: finding.waived.as_ref(),
            parts: finding.parts.iter().map(Part::from).collect(),
            places: &finding.places,
        }
    }
}

impl<'a> From<&'a find::finding::Part> for Part<'a> {
    fn from(part: &'a find::finding::Part) -> Self {
        Self {
            name: &part.name,
            module: part.module.as_deref(),
            line: part.line,
            why: part.waits_for.as_ref().map(|event| format!("waits for {}", awaited(event))),
            emitted: part.emitted,
            text: part_text(&part.text),
        }
    }
}
