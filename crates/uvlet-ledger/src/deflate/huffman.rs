//! Prefix codes (RFC 1951, section 3.2.2) and how blocks describe theirs (sections 3.2.6 and 3.2.7).

use super::{DeflateError, bits::Bits};

/// Bits that are looked up at once: codes of this length or less, which are nearly all.
const FAST: u32 = 10;

/// A code, for reading.
pub struct Code {
    /// By the next bits: symbol × 16 + length; 0 where the code is longer.
    fast: Vec<u16>,
    /// Number of codes per length.
    counts: [u16; 16],
    /// Symbols by length, then by value.
    symbols: Vec<u16>,
}

impl Code {
    /// From the length of each symbol's code; 0 for symbols without one.
    fn new(lengths: &[u8]) -> Option<Self> {
        let mut counts = [0_u16; 16];
        for &length in lengths {
            counts[usize::from(length)] += 1;
        }
        counts[0] = 0;
        let mut free = 1_i32;
        for &count in &counts[1..] {
            free = 2 * free - i32::from(count);
            if free < 0 {
                return None;
            }
        }
        let mut starts = [0_u16; 17];
        let mut first = [0_u16; 17];
        for length in 1..16 {
            starts[length + 1] = starts[length] + counts[length];
            first[length + 1] = (first[length] + counts[length]) << 1;
        }
        let mut symbols = vec![0; usize::from(starts[16])];
        let mut fast = vec![0; 1 << FAST];
        for (symbol, &length) in (0_u16..).zip(lengths).filter(|(_, length)| **length > 0) {
            let at = usize::from(length);
            symbols[usize::from(starts[at])] = symbol;
            starts[at] += 1;
            let code = first[at];
            first[at] += 1;
            if u32::from(length) <= FAST {
                // Codes are packed beginning with their most significant bit.
                let reversed = code.reverse_bits() >> (16 - length);
                let step = 1 << length;
                for slot in (usize::from(reversed)..1 << FAST).step_by(step) {
                    fast[slot] = symbol << 4 | u16::from(length);
                }
            }
        }
        Some(Self { fast, counts, symbols })
    }

    #[inline]
    pub fn read(&self, bits: &mut Bits<'_>) -> Result<u16, DeflateError> {
        let ahead = bits.peek();
        let found = self.fast[(ahead & ((1 << FAST) - 1)) as usize];
        if found != 0 {
            bits.take(u32::from(found & 15))?;
            return Ok(found >> 4);
        }
        self.read_long(ahead, bits)
    }

    /// Bit by bit, as canonical codes can be: by the first code and symbol of each length.
    #[cold]
    fn read_long(&self, ahead: u64, bits: &mut Bits<'_>) -> Result<u16, DeflateError> {
        let (mut code, mut first, mut index) = (0_i64, 0_i64, 0_i64);
        for (length, &count) in (1_u32..).zip(&self.counts[1..]) {
            code |= i64::from(ahead >> (length - 1) & 1 == 1);
            let count = i64::from(count);
            if code - count < first {
                bits.take(length)?;
                let at = usize::try_from(index + code - first).unwrap_or(usize::MAX);
                let symbol = self.symbols.get(at).copied();
                return symbol.ok_or(DeflateError::Invalid("an unknown code", bits.position()));
            }
            index += count;
            first = (first + count) << 1;
            code <<= 1;
        }
        Err(DeflateError::Invalid("an unknown code", bits.position()))
    }
}

/// The codes that need no description.
pub fn fixed() -> (Code, Code) {
    let mut lengths = [8_u8; 288];
    lengths[144..256].fill(9);
    lengths[256..280].fill(7);
    let empty = || Code { fast: vec![0; 1 << FAST], counts: [0; 16], symbols: Vec::new() };
    (Code::new(&lengths).unwrap_or_else(empty), Code::new(&[5; 30]).unwrap_or_else(empty))
}

/// Order in which the lengths of the code lengths' own code stand.
const ORDER: [usize; 19] = [16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15];

/// The codes that a block describes.
pub fn dynamic(bits: &mut Bits<'_>) -> Result<(Code, Code), DeflateError> {
    let start = bits.position();
    let invalid = || DeflateError::Invalid("a code that cannot be", start);
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
