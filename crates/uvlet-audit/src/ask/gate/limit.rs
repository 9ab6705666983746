//! The limits that a budget can set, and what their numbers count.

use std::collections::BTreeMap;

use serde::Serialize;
use strum::VariantArray;
use uvlet_record::sizes::Measure;

/// Which limit a row is about. The word of each is the key of the configuration.
#[derive(
    Clone,
    Copy,
    Debug,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Serialize,
    strum::IntoStaticStr,
    strum::VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
#[expect(missing_docs, reason = "each is the key of the configuration")]
pub enum LimitKind {
    AtMost,
    WarnAbove,
    Absent,
    GrowAtMost,
    FilesAtMost,
    RoundsAtMost,
}

/// How the ceiling of a limit is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Written {
    /// As a size.
    Size,
    /// As a size, or a share of what there was.
    Growth,
    /// As a whole number.
    Number,
    /// Not at all: the scope is the limit.
    Never,
}

impl LimitKind {
    /// The key of the configuration.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }

    /// How its ceiling is written.
    #[must_use]
    pub fn written(self) -> Written {
        match self {
            Self::AtMost | Self::WarnAbove => Written::Size,
            Self::GrowAtMost => Written::Growth,
            Self::FilesAtMost | Self::RoundsAtMost => Written::Number,
            Self::Absent => Written::Never,
        }
    }

    /// Those that a budget may set.
    pub fn set() -> impl Iterator<Item = Self> + Clone {
        let all = Self::VARIANTS.iter().copied();
        all.filter(|kind| kind.written() != Written::Never)
    }

    /// Those that a waiver may raise: a warning needs none.
    pub fn waivable() -> impl Iterator<Item = Self> + Clone {
        Self::set().filter(|kind| *kind != Self::WarnAbove)
    }
}

/// The ceilings of a budget or of a waiver, by kind of limit.
pub type Limits = BTreeMap<LimitKind, Ceiling>;

/// What the numbers of a limit count.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Counted {
    /// Bytes.
    Bytes(Measure),
    /// Files.
    Files,
    /// Rounds of requests.
    Rounds,
}

impl Counted {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Bytes(measure) => measure.name(),
            Self::Files => "files",
            Self::Rounds => "rounds",
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
        let names = Measure::ALL.map(Self::Bytes).into_iter().chain([Self::Files, Self::Rounds]);
        let names = names.map(Self::name);
        schemars::json_schema!({"type": "string", "enum": names.collect::<Vec<_>>()})
    }
}

/// Where a limit ends.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Ceiling {
    /// So many, or so many more.
    Number(u64),
    /// Thousandths of a percent of what there was.
    Milli(u64),
}

impl Ceiling {
    /// In what the limit counts, where there was so much before.
    pub fn of(self, base: u64) -> u64 {
        match self {
            Self::Number(number) => number,
            Self::Milli(milli) => {
                let number = u128::from(base) * u128::from(milli) / 100_000;
                u64::try_from(number).unwrap_or(u64::MAX)
            }
        }
    }
}
