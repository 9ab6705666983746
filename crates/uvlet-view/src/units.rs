//! Bytes as text. The unit always stands with the number, or in the heading of its column.

use std::str::FromStr;

/// What sizes are shown in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Units {
    /// 1 kB is 1000 bytes.
    #[default]
    Kb,
    /// 1 KiB is 1024 bytes.
    Kib,
    /// Exact bytes.
    Bytes,
}

/// A word that names no units.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("unknown units `{0}`, there are kb, kib, bytes")]
pub struct UnknownUnits(pub String);

impl FromStr for Units {
    type Err = UnknownUnits;

    fn from_str(text: &str) -> Result<Self, UnknownUnits> {
        match text {
            "kb" => Ok(Self::Kb),
            "kib" => Ok(Self::Kib),
            "bytes" => Ok(Self::Bytes),
            _ => Err(UnknownUnits(text.to_owned())),
        }
    }
}

impl Units {
    /// The unit of a column.
    #[must_use]
    pub fn symbol(self) -> &'static str {
        match self {
            Self::Kb => "kB",
            Self::Kib => "KiB",
            Self::Bytes => "B",
        }
    }

    fn scale(self) -> u64 {
        match self {
            Self::Kb => 1000,
            Self::Kib => 1024,
            Self::Bytes => 1,
        }
    }

    /// A number for a column whose heading holds the unit; one that has outgrown it has its own.
    #[must_use]
    pub fn number(self, bytes: u64) -> String {
        if self == Self::Bytes {
            return grouped(bytes);
        }
        if let Some(large) = self.large(bytes) {
            return large;
        }
        match tenths(bytes, self.scale()) {
            0 if bytes > 0 => "<0.1".to_owned(),
            tenths => format!("{}.{}", tenths / 10, tenths % 10),
        }
    }

    /// Number and unit, for a sentence.
    #[must_use]
    pub fn size(self, bytes: u64) -> String {
        if self == Self::Bytes || bytes < self.scale() {
            return format!("{} B", grouped(bytes));
        }
        if let Some(large) = self.large(bytes) {
            return large;
        }
        let tenths = tenths(bytes, self.scale());
        // A limit of 170 kB reads as it was written.
        if tenths.is_multiple_of(10) && bytes.is_multiple_of(self.scale()) {
            return format!("{} {}", tenths / 10, self.symbol());
        }
        format!("{}.{} {}", tenths / 10, tenths % 10, self.symbol())
    }

    /// What no longer reads well in the unit: `1.24 MB`.
    fn large(self, bytes: u64) -> Option<String> {
        let units = match self {
            Self::Kb => ["MB", "GB"],
            Self::Kib => ["MiB", "GiB"],
            Self::Bytes => return None,
        };
        if tenths(bytes, self.scale()) < 9995 {
            return None;
        }
        let mut scale = self.scale() * self.scale();
        let mut unit = units[0];
        if hundredths(bytes, scale) >= 99_950 {
            (scale, unit) = (scale * self.scale(), units[1]);
        }
        let hundredths = hundredths(bytes, scale);
        let (whole, part) = (hundredths / 100, hundredths % 100);
        // A limit of 2 MB reads as it was written.
        match bytes.is_multiple_of(scale) {
            true => Some(format!("{} {unit}", grouped(whole))),
            false => Some(format!("{}.{part:02} {unit}", grouped(whole))),
        }
    }
}

fn tenths(bytes: u64, scale: u64) -> u64 {
    parts(bytes, scale, 10)
}

fn hundredths(bytes: u64, scale: u64) -> u64 {
    parts(bytes, scale, 100)
}

/// Bytes in parts of a unit, rounded to the nearest.
fn parts(bytes: u64, scale: u64, parts: u128) -> u64 {
    let rounded = (u128::from(bytes) * parts + u128::from(scale) / 2) / u128::from(scale);
    u64::try_from(rounded).unwrap_or(u64::MAX)
}

/// Digits in groups of three.
#[must_use]
pub fn grouped(number: u64) -> String {
    let digits = number.to_string();
    let mut text = String::with_capacity(digits.len() + digits.len() / 3);
    for (at, digit) in digits.chars().enumerate() {
        if at > 0 && (digits.len() - at).is_multiple_of(3) {
            text.push(',');
        }
        text.push(digit);
    }
    text
}

/// A part of a whole in per cent, one digit behind the point; nothing of nothing is 0.
#[must_use]
pub fn share(part: u64, whole: u64) -> String {
    if whole == 0 {
        return "0.0%".to_owned();
    }
    let permille = (u128::from(part) * 1000 + u128::from(whole) / 2) / u128::from(whole);
    if permille == 0 && part > 0 {
        return "<0.1%".to_owned();
    }
    format!("{}.{}%", permille / 10, permille % 10)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Units, share};

    #[rstest]
    #[case(Units::Kb, 0, "0 B", "0.0")]
    #[case(Units::Kb, 40, "40 B", "<0.1")]
    #[case(Units::Kb, 170_000, "170 kB", "170.0")]
    #[case(Units::Kb, 12_449, "12.4 kB", "12.4")]
    #[case(Units::Kb, 8_561, "8.6 kB", "8.6")]
    #[case(Units::Kb, 999_449, "999.4 kB", "999.4")]
    #[case(Units::Kb, 999_950, "1.00 MB", "1.00 MB")]
    #[case(Units::Kb, 1_234_567, "1.23 MB", "1.23 MB")]
    #[case(Units::Kb, 2_000_000, "2 MB", "2 MB")]
    #[case(Units::Kb, 1_500_000_000_000, "1,500 GB", "1,500 GB")]
    #[case(Units::Kib, 1536, "1.5 KiB", "1.5")]
    #[case(Units::Bytes, 1_234_567, "1,234,567 B", "1,234,567")]
    fn sizes(#[case] units: Units, #[case] bytes: u64, #[case] size: &str, #[case] number: &str) {
        assert_eq!(units.size(bytes), size);
        assert_eq!(units.number(bytes), number);
    }

    #[test]
    fn shares() {
        assert_eq!(
            [share(1, 3), share(0, 0), share(1, 10_000), share(5, 5)],
            ["33.3%", "0.0%", "<0.1%", "100.0%"]
        );
    }
}
