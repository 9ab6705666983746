//! How blocks describe their codes (RFC 1951, sections 3.2.6 and 3.2.7).

use crate::charges::{StreamError, bits::Bits, code::Code};

/// The codes that need no description.
pub fn fixed() -> (Code, Code) {
    let mut lengths = [8_u8; 288];
    lengths[144..256].fill(9);
    lengths[256..280].fill(7);
    let code = |lengths: &[u8]| Code::new(lengths).unwrap_or_else(Code::empty);
    (code(&lengths), code(&[5; 30]))
}

/// Order in which the lengths of the code lengths' own code stand.
const ORDER: [usize; 19] = [16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15];

/// The codes that a block describes.
pub fn dynamic(bits: &mut Bits<'_>) -> Result<(Code, Code), StreamError> {
    let start = bits.position();
    let invalid = || StreamError::Invalid("a code that cannot be", start);
    let literals = usize::try_from(bits.take(5)?).map_err(|_| invalid())? + 257;
    let distances = usize::try_from(bits.take(5)?).map_err(|_| invalid())? + 1;
    let count = usize::try_from(bits.take(4)?).map_err(|_| invalid())? + 4;
    let mut lengths = [0_u8; 19];
    for &at in &ORDER[..count] {
        lengths[at] = u8::try_from(bits.take(3)?).map_err(|_| invalid())?;
    }
    let code = Code::new(&lengths).ok_or_else(invalid)?;
    let mut lengths: Vec<u8> = Vec::with_capacity(literals + distances);
    while lengths.len() < literals + distances {
        let (value, times) = match code.read(bits)? {
            16 => (lengths.last().copied().ok_or_else(invalid)?, 3 + bits.take(2)?),
            17 => (0, 3 + bits.take(3)?),
            18 => (0, 11 + bits.take(7)?),
            length => (u8::try_from(length).map_err(|_| invalid())?, 1),
        };
        for _ in 0..times {
            lengths.push(value);
        }
    }
    if lengths.len() > literals + distances {
        return Err(invalid());
    }
    let (literals, distances) = lengths.split_at(literals);
    Ok((Code::new(literals).ok_or_else(invalid)?, Code::new(distances).ok_or_else(invalid)?))
}
