//! The limits that a budget can set, and what their numbers count.

use serde::Serialize;
use uvlet_record::sizes::Measure;

/// Which limit a row is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[expect(missing_docs, reason = "each is the key of the configuration")]
pub enum LimitKind {
    AtMost,
    WarnAbove,
    Absent,
    GrowAtMost,
    FilesAtMost,
}

impl LimitKind {
    /// The key of the configuration.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::AtMost => "at_most",
            Self::WarnAbove => "warn_above",
            Self::Absent => "absent",
            Self::GrowAtMost => "grow_at_most",
            Self::FilesAtMost => "files_at_most",
        }
    }
}

/// What the numbers of a limit count.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Counted {
    /// Bytes.
    Bytes(Measure),
    /// Files.
    Files,
}

impl Counted {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Bytes(measure) => measure.name(),
            Self::Files => "files",
        }
    }
}

impl Serialize for Counted {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(self.name())
    }
}

#[cfg(feature = "schema")]
impl schemars::JsonSchema for Counted {
    fn schema_name() -> std::borrow::Cow<'static, str> {
        "Counted".into()
    }

    fn json_schema(_: &mut schemars::SchemaGenerator) -> schemars::Schema {
        let names = Measure::ALL.map(Self::Bytes).into_iter().chain([Self::Files]).map(Self::name);
        schemars::json_schema!({"type": "string", "enum": names.collect::<Vec<_>>()})
    }
}

/// How much something may grow.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Growth {
    /// Bytes.
    Bytes(u64),
    /// Thousandths of a percent of what there was.
    Milli(u64),
}

impl Growth {
    /// So much of what there was.
    pub(crate) fn bytes_of(self, base: u64) -> u64 {
        match self {
            Self::Bytes(bytes) => bytes,
            Self::Milli(milli) => {
                let bytes = u128::from(base) * u128::from(milli) / 100_000;
                u64::try_from(bytes).unwrap_or(u64::MAX)
            }
        }
    }
}
