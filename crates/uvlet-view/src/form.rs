//! The forms that an answer can be put in.

/// Form of an output.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, strum::EnumMessage, strum::IntoStaticStr, strum::VariantArray,
)]
#[strum(serialize_all = "lowercase")]
pub enum Form {
    /// For a person.
    Table,
    /// For a program; holds every measure that was taken.
    Json,
    /// For a spreadsheet; exact bytes in every measure that was taken.
    Csv,
    /// For a pull request or a job summary.
    Markdown,
    /// JUnit XML: a case for every limit.
    Junit,
    /// SARIF 2.1.0: a result for every limit that is not held.
    Sarif,
}

impl Form {
    /// Those of answers that are rows.
    pub const OF_ROWS: &'static [Self] = &[Self::Table, Self::Json, Self::Csv, Self::Markdown];
    /// Those of answers that are no rows.
    pub const OF_WORDS: &'static [Self] = &[Self::Table, Self::Json, Self::Markdown];
    /// Those that a verdict can be written to files in.
    pub const OF_FILES: &'static [Self] =
        &[Self::Junit, Self::Sarif, Self::Markdown, Self::Json, Self::Csv];

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }

    /// A program reads it.
    #[must_use]
    pub fn is_for_programs(self) -> bool {
        matches!(self, Self::Json | Self::Csv)
    }
}
