//! Blocks: which of several codes holds, and for how many symbols (RFC 7932, section 6).

use super::codes;
use crate::charges::{StreamError, bits::Bits, code::Code};

/// The blocks of one category: literals, commands or distances.
pub struct Blocks {
    /// Number of block types, at most 256.
    pub types: usize,
    type_code: Code,
    count_code: Code,
    current: usize,
    before: usize,
    /// Symbols until the next block.
    left: u64,
}

impl Blocks {
    pub fn read(bits: &mut Bits<'_>) -> Result<Self, StreamError> {
        let types = codes::few(bits)?;
        let (type_code, count_code) = match types {
            1 => (Code::empty(), Code::empty()),
            _ => (codes::prefix_code(bits, types + 2)?, codes::prefix_code(bits, COUNTS.len())?),
        };
        let left = if types == 1 { u64::MAX } else { count(bits, &count_code)? };
        Ok(Self { types, type_code, count_code, current: 0, before: 1, left })
    }

    /// The block type of the next symbol.
    #[inline]
    pub fn next(&mut self, bits: &mut Bits<'_>) -> Result<usize, StreamError> {
        if self.left == 0 {
            self.switch(bits)?;
        }
        self.left -= 1;
        Ok(self.current)
    }

    #[cold]
    fn switch(&mut self, bits: &mut Bits<'_>) -> Result<(), StreamError> {
        let next = match self.type_code.read(bits)? {
            0 => self.before,
            1 => (self.current + 1) % self.types,
            code => usize::from(code) - 2,
        };
        (self.before, self.current) = (self.current, next);
        self.left = count(bits, &self.count_code)?;
        Ok(())
    }
}

fn count(bits: &mut Bits<'_>, code: &Code) -> Result<u64, StreamError> {
    let symbol = code.read(bits)?;
    let invalid = StreamError::Invalid("an unknown count", bits.position());
    let &(base, extra) = COUNTS.get(usize::from(symbol)).ok_or(invalid)?;
    Ok(base + bits.take(extra)?)
}

/// Base and extra bits of the codes of a block's number of symbols.
const COUNTS: [(u64, u32); 26] = [
    (1, 2),
    (5, 2),
    (9, 2),
    (13, 2),
    (17, 3),
    (25, 3),
    (33, 3),
    (41, 3),
    (49, 4),
    (65, 4),
    (81, 4),
    (97, 4),
    (113, 5),
    (145, 5),
    (177, 5),
    (209, 5),
    (241, 6),
    (305, 6),
    (369, 7),
    (497, 8),
    (753, 9),
    (1265, 10),
    (2289, 11),
    (4337, 12),
    (8433, 13),
    (16625, 24),
];
