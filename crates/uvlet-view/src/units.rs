//! Bytes as text. The unit always stands with the number, or in the heading of its column.

use std::str::FromStr;

use uvlet_ledger::shares::apportion;

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

impl FromStr for Units {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        match text {
            "kb" => Ok(Self::Kb),
            "kib" => Ok(Self::Kib),
            "bytes" => Ok(Self::Bytes),
            _ => Err(format!("unknown units `{text}`, there are kb, kib, bytes")),
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

    /// The number alone, for a column whose heading holds the unit.
    #[must_use]
    pub fn number(self, bytes: u64) -> String {
        if self == Self::Bytes {
            return grouped(bytes);
        }
        shown(tenths(bytes, self.scale()), bytes)
    }

    /// The numbers of a column whose rows are all of a total: rounded together by largest
    /// remainder, so that what is shown adds up to the total as it is shown.
    #[must_use]
    pub fn column(self, rows: &[u64], total: u64) -> Vec<String> {
        if self == Self::Bytes {
            return rows.iter().map(|&bytes| grouped(bytes)).collect();
        }
        let parts = apportion(tenths(total, self.scale()), rows);
        parts.into_iter().zip(rows).map(|(tenths, &bytes)| shown(tenths, bytes)).collect()
    }

    /// Number and unit, for a sentence.
    #[must_use]
    pub fn size(self, bytes: u64) -> String {
        if self == Self::Bytes || bytes < self.scale() {
            return format!("{} B", grouped(bytes));
        }
        let tenths = tenths(bytes, self.scale());
        // A limit of 170 kB reads as it was written.
        if tenths.is_multiple_of(10) && bytes.is_multiple_of(self.scale()) {
            return format!("{} {}", grouped(tenths / 10), self.symbol());
        }
        format!("{}.{} {}", grouped(tenths / 10), tenths % 10, self.symbol())
    }
}

fn shown(tenths: u64, bytes: u64) -> String {
    if tenths == 0 && bytes > 0 {
        return "<0.1".to_owned();
    }
    format!("{}.{}", grouped(tenths / 10), tenths % 10)
}

fn tenths(bytes: u64, scale: u64) -> u64 {
    let rounded = (u128::from(bytes) * 10 + u128::from(scale) / 2) / u128::from(scale);
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
    #[case(Units::Kb, 1_234_567, "1,234.6 kB", "1,234.6")]
    #[case(Units::Kib, 1536, "1.5 KiB", "1.5")]
    #[case(Units::Bytes, 1_234_567, "1,234,567 B", "1,234,567")]
    fn sizes(#[case] units: Units, #[case] bytes: u64, #[case] size: &str, #[case] number: &str) {
        assert_eq!(units.size(bytes), size);
        assert_eq!(units.number(bytes), number);
    }

    #[test]
    fn columns_add_up_as_they_are_shown() {
        // Rounded one by one, the rows would read 0.1 + 0.1 + 0.1 of 0.4.
        assert_eq!(Units::Kb.column(&[140, 130, 130], 400), ["0.2", "0.1", "0.1"]);
        assert_eq!(Units::Kb.column(&[1000, 3], 1003), ["1.0", "<0.1"]);
        assert_eq!(Units::Bytes.column(&[1000, 3], 1003), ["1,000", "3"]);
    }

    #[test]
    fn shares() {
        assert_eq!(
            [share(1, 3), share(0, 0), share(1, 10_000), share(5, 5)],
            ["33.3%", "0.0%", "<0.1%", "100.0%"]
        );
    }
}
