//! Canonical prefix codes, as deflate (RFC 1951, section 3.2.2) and brotli (RFC 7932, section 3.2) have
//! them.

use super::{StreamError, bits::Bits};

/// Bits that are looked up at once: codes of this length or less, which are nearly all.
const FAST: u32 = 10;

/// Not to be found by so few bits.
const LONGER: u16 = u16::MAX;

/// A code, for reading.
pub struct Code {
    /// By the next bits: symbol × 16 + length; [`LONGER`] where the code is longer.
    fast: Box<[u16; 1 << FAST]>,
    /// Number of codes per length.
    counts: [u16; 16],
    /// Symbols by length, then by value.
    symbols: Vec<u16>,
}

impl Code {
    /// From the length of each symbol's code; 0 for symbols without one.
    pub fn new(lengths: &[u8]) -> Option<Self> {
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
        let mut fast = Box::new([LONGER; 1 << FAST]);
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

    /// The one symbol there is, which takes no bits.
    pub fn of_one(symbol: u16) -> Self {
        Self { fast: Box::new([symbol << 4; 1 << FAST]), counts: [0; 16], symbols: Vec::new() }
    }

    /// No symbol at all.
    pub fn empty() -> Self {
        Self { fast: Box::new([LONGER; 1 << FAST]), counts: [0; 16], symbols: Vec::new() }
    }

    /// Reads a symbol.
    #[inline]
    pub fn read(&self, bits: &mut Bits<'_>) -> Result<u16, StreamError> {
        self.read_measured(bits).map(|(symbol, _)| symbol)
    }

    /// Reads a symbol, and says how many bits it took.
    #[inline]
    pub fn read_measured(&self, bits: &mut Bits<'_>) -> Result<(u16, u32), StreamError> {
        let ahead = bits.peek();
        let found = self.fast[(ahead & ((1 << FAST) - 1)) as usize];
        if found != LONGER {
            let length = u32::from(found & 15);
            bits.take(length)?;
            return Ok((found >> 4, length));
        }
        let before = bits.position();
        let symbol = self.read_long(ahead, bits)?;
        Ok((symbol, u32::try_from(bits.position() - before).unwrap_or(0)))
    }

    /// Bit by bit, as canonical codes can be: by the first code and symbol of each length.
    #[cold]
    fn read_long(&self, ahead: u64, bits: &mut Bits<'_>) -> Result<u16, StreamError> {
        let (mut code, mut first, mut index) = (0_i64, 0_i64, 0_i64);
        for (length, &count) in (1_u32..).zip(&self.counts[1..]) {
            code |= i64::from(ahead >> (length - 1) & 1 == 1);
            let count = i64::from(count);
            if code - count < first {
                bits.take(length)?;
                let at = usize::try_from(index + code - first).unwrap_or(usize::MAX);
                let symbol = self.symbols.get(at).copied();
                return symbol.ok_or(StreamError::Invalid("an unknown code", bits.position()));
            }
            index += count;
            first = (first + count) << 1;
            code <<= 1;
        }
        Err(StreamError::Invalid("an unknown code", bits.position()))
    }
}
