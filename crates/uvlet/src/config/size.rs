//! Sizes as people write them: `170 kB`, `170KB`, `1.5 MiB`, `2000 B`, `0`.

/// Why a value is not one that its key takes, and how it would be right.
#[derive(Debug, PartialEq, Eq, thiserror::Error)]
pub enum ValueError {
    #[error("`{0}` is no size; {EXAMPLE}")]
    Size(String),
    #[error("`{0}` has no unit; {EXAMPLE}")]
    NoUnit(String),
    #[error("unknown unit `{0}`; {EXAMPLE}")]
    UnknownUnit(String),
    #[error("`{0}` is no whole number of bytes; {EXAMPLE}")]
    Fraction(String),
    #[error("`{0}` is too large; {EXAMPLE}")]
    TooLarge(String),
    #[error("`{0}` is no growth; write it like `2 kB` or `1.5%`")]
    Growth(String),
    #[error("`{0}` is no share; write it like `95%`")]
    Share(String),
    #[error("takes a whole number of files")]
    FileCount,
}

const EXAMPLE: &str = "write it like `170 kB`, `1.5 MiB` or `2000 B`";

/// Bytes of a size.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn parse(text: &str) -> Result<u64, ValueError> {
    let wrong = || ValueError::Size(text.to_owned());
    let trimmed = text.trim();
    let split = trimmed.find(|c: char| !c.is_ascii_digit() && c != '.').unwrap_or(trimmed.len());
    let (number, unit) = trimmed.split_at(split);
    let scale: u128 = match unit.trim() {
        "B" => 1,
        "kB" | "KB" => 1000,
        "MB" => 1_000_000,
        "KiB" => 1024,
        "MiB" => 1024 * 1024,
        "" if number.is_empty() => return Err(wrong()),
        // Nothing is nothing in every unit.
        "" if number.bytes().all(|digit| digit == b'0') => 1,
        "" => return Err(ValueError::NoUnit(text.to_owned())),
        other => return Err(ValueError::UnknownUnit(other.to_owned())),
    };
    let (whole, part) = number.split_once('.').unwrap_or((number, ""));
    // Digits are added up as integers: a limit must not move by a rounding of ours.
    let digits: u128 = format!("{whole}{part}").parse().map_err(|_| wrong())?;
    let divisor =
        10_u128.checked_pow(u32::try_from(part.len()).map_err(|_| wrong())?).ok_or_else(wrong)?;
    let scaled = digits.checked_mul(scale).ok_or_else(wrong)?;
    if scaled % divisor != 0 {
        return Err(ValueError::Fraction(text.to_owned()));
    }
    u64::try_from(scaled / divisor).map_err(|_| ValueError::TooLarge(text.to_owned()))
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::parse;

    #[rstest]
    #[case("170 kB", 170_000)]
    #[case("1.5 MiB", 1_572_864)]
    #[case("90KiB", 92_160)]
    #[case("0 B", 0)]
    #[case("0", 0)]
    #[case("150KB", 150_000)]
    #[case("150 KB", 150_000)]
    #[case("1.5MB", 1_500_000)]
    #[case("1 MiB", 1_048_576)]
    #[case("0.001 kB", 1)]
    fn accepted(#[case] text: &str, #[case] bytes: u64) {
        assert_eq!(parse(text), Ok(bytes), "{text}");
    }

    #[rstest]
    #[case("")]
    #[case("170")]
    #[case("170 kb")]
    #[case("150k")]
    #[case("kB")]
    #[case("-1 kB")]
    #[case("1.2.3 kB")]
    #[case("0.5 B")]
    #[case("99999999999999999999 MB")]
    #[case("999999999999999999999999999999999999999999 B")]
    fn refused(#[case] text: &str) {
        assert!(parse(text).is_err(), "{text}");
    }
}
