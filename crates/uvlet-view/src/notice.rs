//! What a reader should know besides the answer, in words.

use serde::Serialize;

/// A notice with its sentence.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Notice {
    /// A stable word for the kind of notice.
    pub code: &'static str,
    /// One sentence for people.
    pub message: String,
    /// The path it is about.
    #[serde(rename = "where")]
    pub place: Option<String>,
}
