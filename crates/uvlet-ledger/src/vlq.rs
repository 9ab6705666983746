//! Base64 variable-length quantities as source maps write them (ECMA-426, section "Base64 VLQ").

/// Value of each base64 digit, or 255 for a byte that is none. A table keeps the inner loop free
/// of branches on the alphabet's ranges.
const DIGITS: [u8; 256] = digits();

const fn digits() -> [u8; 256] {
    let alphabet = b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    let mut table = [255; 256];
    let mut at = 0_u8;
    while at < 64 {
        table[alphabet[at as usize] as usize] = at;
        at += 1;
    }
    table
}

/// Reads one quantity at `*at` and moves past it. `None` for a byte outside the alphabet, a
/// quantity cut short, or one beyond 32 bits.
#[inline]
pub fn read(digits: &[u8], at: &mut usize) -> Option<i64> {
    let first = DIGITS[*digits.get(*at)? as usize];
    // Most quantities are one digit: real maps move by small steps.
    if first < 32 {
        *at += 1;
        let value = i64::from(first >> 1);
        return Some(if first & 1 == 1 { -value } else { value });
    }
    read_long(digits, at)
}

fn read_long(digits: &[u8], at: &mut usize) -> Option<i64> {
    let mut value = 0_i64;
    let mut shift = 0;
    loop {
        let digit = DIGITS[*digits.get(*at)? as usize];
        if digit == 255 || shift > 30 {
            return None;
        }
        *at += 1;
        value |= i64::from(digit & 31) << shift;
        shift += 5;
        if digit & 32 == 0 {
            break;
        }
    }
    let magnitude = value >> 1;
    (magnitude <= 1 << 31).then_some(if value & 1 == 1 { -magnitude } else { magnitude })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    #[rstest]
    #[case("A", 0)]
    #[case("C", 1)]
    #[case("D", -1)]
    #[case("gB", 16)]
    #[case("hB", -16)]
    #[case("+/////D", 2_147_483_647)]
    fn reads_known_quantities(#[case] text: &str, #[case] value: i64) {
        let mut at = 0;
        assert_eq!(super::read(text.as_bytes(), &mut at), Some(value), "{text}");
        assert_eq!(at, text.len());
    }

    #[rstest]
    #[case("")]
    #[case("g")]
    #[case("*")]
    #[case("g*")]
    #[case("gggggggggggB")]
    fn refuses_what_is_none(#[case] text: &str) {
        assert_eq!(super::read(text.as_bytes(), &mut 0), None, "{text}");
    }
}
