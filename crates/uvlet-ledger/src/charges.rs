//! What a coded stream spends on each stretch of its text, whatever the coding.
//!
//! A decoder hands in token after token, with its bits and the bytes of text that it stands for; what
//! a block of the stream costs besides (headers, code tables, padding) is spread over the block's
//! bytes in proportion to their own bits. So every place of the text has a cumulative cost, and a
//! stretch costs the difference of the whole parts at its ends: stretches add up to the stream
//! exactly, however the text is cut.

pub(crate) mod bits;
pub(crate) mod code;

/// What a stream spends.
#[derive(Debug, PartialEq, Eq)]
pub struct Charges {
    /// Bits per stretch, in order.
    pub stretches: Vec<u64>,
    /// Bits of the container's header and trailer, and of blocks without text.
    pub container: u64,
}

/// Why a stream cannot be charged.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum StreamError {
    /// The stream ends early.
    #[error("the stream ends early")]
    Truncated,
    /// It breaks the format's rules.
    #[error("{0} at bit {1}")]
    Invalid(&'static str, u64),
    /// It holds more or less text than the stretches.
    #[error("the stream holds {stream} bytes of text, not {text}")]
    Length {
        /// Bytes in the stream.
        stream: u64,
        /// Bytes in the stretches.
        text: u64,
    },
}

/// Parts of a bit, as a power of two, so that a token's bits can be spread over its bytes.
const PARTS: u32 = 20;

/// Bits in parts of a bit.
#[derive(Clone, Copy, Debug, Default)]
pub(crate) struct Parts(u64);

impl Parts {
    #[inline]
    pub fn of_bits(bits: u64) -> Self {
        Self(bits << PARTS)
    }

    /// What one of `bytes` bytes has of these bits.
    #[inline]
    pub fn per_byte(bits: u64, bytes: u64) -> Self {
        Self((bits << PARTS) / bytes.max(1))
    }

    #[inline]
    pub fn and(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

/// The account of a stream that is being read.
pub(crate) struct Tally<'e> {
    ends: &'e [u64],
    /// The first stretch whose end is not passed.
    next: usize,
    /// That end, at hand: nearly all tokens end before it.
    next_end: u64,
    /// Bytes of text so far.
    position: u64,
    /// Whole bits of all blocks before this one.
    spent: u64,
    stretches: Vec<u64>,
    container: u64,
    /// What the tokens of this block cost so far.
    block: u64,
    /// Where this block's text began.
    block_start: u64,
    /// Cumulative cost of tokens at the ends of stretches that fell into this block.
    marks: Vec<u64>,
}

impl<'e> Tally<'e> {
    /// Of stretches that end there: bytes, not decreasing, the last one being the text's length.
    pub fn new(ends: &'e [u64]) -> Self {
        Self {
            ends,
            next: 0,
            next_end: ends.first().copied().unwrap_or(u64::MAX),
            position: 0,
            spent: 0,
            stretches: Vec::with_capacity(ends.len()),
            container: 0,
            block: 0,
            block_start: 0,
            marks: Vec::new(),
        }
    }

    /// Bytes of text so far.
    #[inline]
    pub fn position(&self) -> u64 {
        self.position
    }

    /// Takes note of bits that are no block's.
    pub fn container(&mut self, bits: u64) {
        self.container += bits;
    }

    /// Takes note of a token that stands for `bytes` bytes, at least one, and of the stretches that
    /// end within it.
    #[inline]
    pub fn token(&mut self, cost: Parts, bytes: u64) {
        let after = self.position + bytes;
        if self.next_end <= after {
            self.mark(cost, bytes);
        }
        self.block += cost.0;
        self.position = after;
    }

    /// Takes note of the stretches that end within a token.
    #[cold]
    fn mark(&mut self, cost: Parts, bytes: u64) {
        while self.next_end <= self.position + bytes {
            // A stretch that ended before this token has a mark already.
            let inside = u128::from(self.next_end.saturating_sub(self.position));
            let part = u128::from(cost.0) * inside / u128::from(bytes);
            self.marks.push(self.block + u64::try_from(part).unwrap_or(cost.0));
            self.next += 1;
            self.next_end = self.ends.get(self.next).copied().unwrap_or(u64::MAX);
        }
    }

    /// Ends a block that takes `all` bits: spreads them over what its tokens have.
    pub fn close(&mut self, all: u64) {
        if self.position == self.block_start {
            self.container += all;
            return;
        }
        let first = self.next - self.marks.len();
        let bytes = u128::from(self.position - self.block_start);
        for (end, mark) in self.ends[first..].iter().zip(self.marks.drain(..)) {
            let at = match self.block {
                // Tokens that cost no bits, as of a text of one character: by bytes.
                0 => u128::from(end - self.block_start) * u128::from(all) / bytes,
                block => u128::from(mark) * u128::from(all) / u128::from(block),
            };
            // A part of the block's bits is no more than they are.
            self.stretches.push(self.spent + u64::try_from(at).unwrap_or(all));
        }
        self.spent += all;
        self.block = 0;
        self.block_start = self.position;
    }

    /// What was spent on each stretch.
    pub fn finish(mut self) -> Result<Charges, StreamError> {
        let text = self.ends.last().copied().unwrap_or(0);
        // Stretches of an empty text end before any token.
        while self.ends.get(self.next).is_some_and(|&end| end <= self.position) {
            self.stretches.push(self.spent);
            self.next += 1;
        }
        if self.position != text || self.next < self.ends.len() {
            return Err(StreamError::Length { stream: self.position, text });
        }
        let mut before = 0;
        for cumulative in &mut self.stretches {
            (*cumulative, before) = (*cumulative - before, *cumulative);
        }
        Ok(Charges { stretches: self.stretches, container: self.container })
    }
}
