//! Measures and amounts: bytes as they stand, bits on the wire.

use std::{fmt, ops::AddAssign, str::FromStr};

use serde::{Deserialize, Deserializer, Serialize, Serializer, de::Error};
pub use uvlet_ledger::coding::{Coding, UnknownCoding};

/// What a size is counted in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Measure {
    /// Bytes of the file as it stands in the output folder.
    Emitted,
    /// Bytes on the wire under a content coding.
    Coded(Coding),
}

impl Measure {
    /// Every measure, in the order in which outputs list them.
    pub const ALL: [Self; 4] = [
        Self::Emitted,
        Self::Coded(Coding::Gzip),
        Self::Coded(Coding::Br),
        Self::Coded(Coding::Zstd),
    ];

    /// The word for it in options, configuration and outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Emitted => "emitted",
            Self::Coded(coding) => coding.name(),
        }
    }
}

impl Measure {
    /// The coding, unless bytes are counted as they stand.
    #[must_use]
    pub fn coding(self) -> Option<Coding> {
        match self {
            Self::Emitted => None,
            Self::Coded(coding) => Some(coding),
        }
    }
}

impl Serialize for Measure {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(self.name())
    }
}

impl<'de> Deserialize<'de> for Measure {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        String::deserialize(deserializer)?.parse().map_err(D::Error::custom)
    }
}

#[cfg(feature = "schema")]
impl schemars::JsonSchema for Measure {
    fn schema_name() -> std::borrow::Cow<'static, str> {
        "Measure".into()
    }

    fn json_schema(_: &mut schemars::SchemaGenerator) -> schemars::Schema {
        schemars::json_schema!({ "type": "string", "enum": Self::ALL.map(Self::name) })
    }
}

impl fmt::Display for Measure {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.name())
    }
}

/// A word that names no measure.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("unknown measure `{0}`, there are emitted, gzip, br, zstd")]
pub struct UnknownMeasure(pub String);

impl FromStr for Measure {
    type Err = UnknownMeasure;

    fn from_str(text: &str) -> Result<Self, UnknownMeasure> {
        // The coding's full name, as its own standard says it.
        let name = if text == "brotli" { "br" } else { text };
        let known = Self::ALL.into_iter().find(|measure| measure.name() == name);
        known.ok_or_else(|| UnknownMeasure(text.to_owned()))
    }
}

/// One value per coding; a coding that was not taken has none.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Coded<T> {
    /// Under gzip.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub gzip: Option<T>,
    /// Under brotli.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub br: Option<T>,
    /// Under zstd.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub zstd: Option<T>,
}

impl<T> Default for Coded<T> {
    fn default() -> Self {
        Self { gzip: None, br: None, zstd: None }
    }
}

impl<T> Coded<T> {
    /// The value under a coding.
    #[must_use]
    pub fn get(&self, coding: Coding) -> Option<&T> {
        match coding {
            Coding::Gzip => self.gzip.as_ref(),
            Coding::Br => self.br.as_ref(),
            Coding::Zstd => self.zstd.as_ref(),
        }
    }

    /// Sets the value under a coding.
    pub fn set(&mut self, coding: Coding, value: T) {
        let slot = match coding {
            Coding::Gzip => &mut self.gzip,
            Coding::Br => &mut self.br,
            Coding::Zstd => &mut self.zstd,
        };
        *slot = Some(value);
    }

    /// The codings that have a value, in order.
    pub fn codings(&self) -> impl Iterator<Item = Coding> + '_ {
        Coding::ALL.into_iter().filter(|&c| self.get(c).is_some())
    }
}

/// An exact amount: emitted bytes, and bits per coding that was taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Amount {
    /// Bytes as they stand in the output folder.
    pub emitted: u64,
    /// Bits on the wire.
    #[serde(default)]
    pub bits: Coded<u64>,
}

impl Amount {
    /// The amount in the measure's own whole unit: bytes for emitted, bits for a coding.
    #[must_use]
    pub fn units(&self, measure: Measure) -> u64 {
        match measure {
            Measure::Emitted => self.emitted,
            Measure::Coded(coding) => self.bits.get(coding).copied().unwrap_or(0),
        }
    }

    /// Adds bits in a coding.
    pub fn add_bits(&mut self, coding: Coding, bits: u64) {
        let before = self.bits.get(coding).copied().unwrap_or(0);
        // Only a made-up record comes near the limit; it must not end the program.
        self.bits.set(coding, before.saturating_add(bits));
    }

    /// Bytes; the bits of a coding are rounded up once.
    #[must_use]
    pub fn bytes(&self, measure: Measure) -> u64 {
        match measure {
            Measure::Emitted => self.emitted,
            Measure::Coded(_) => self.units(measure).div_ceil(8),
        }
    }

    /// The amount as whole bytes in every measure that was taken.
    #[must_use]
    pub fn sizes(&self) -> Sizes {
        let mut sizes = Sizes { emitted: self.emitted, coded: Coded::default() };
        for coding in self.bits.codings() {
            sizes.coded.set(coding, self.bytes(Measure::Coded(coding)));
        }
        sizes
    }
}

impl AddAssign for Amount {
    fn add_assign(&mut self, other: Self) {
        self.emitted = self.emitted.saturating_add(other.emitted);
        for coding in other.bits.codings() {
            self.add_bits(coding, other.bits.get(coding).copied().unwrap_or(0));
        }
    }
}

/// Whole bytes in every measure that was taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Sizes {
    /// Bytes as they stand in the output folder.
    pub emitted: u64,
    /// Bytes on the wire.
    #[serde(flatten)]
    pub coded: Coded<u64>,
}

impl Sizes {
    /// Bytes in one measure; 0 if it was not taken.
    #[must_use]
    pub fn get(&self, measure: Measure) -> u64 {
        match measure {
            Measure::Emitted => self.emitted,
            Measure::Coded(coding) => self.coded.get(coding).copied().unwrap_or(0),
        }
    }

    /// Sets the bytes in one measure.
    pub fn set(&mut self, measure: Measure, bytes: u64) {
        match measure {
            Measure::Emitted => self.emitted = bytes,
            Measure::Coded(coding) => self.coded.set(coding, bytes),
        }
    }

    /// The measures that were taken, in order.
    pub fn measures(&self) -> impl Iterator<Item = Measure> + '_ {
        std::iter::once(Measure::Emitted).chain(self.coded.codings().map(Measure::Coded))
    }
}
