//! What a deflate stream (RFC 1951) spends on each stretch of its text, bit by bit.
//!
//! The stream is decoded without rebuilding the text, which is known: only the tokens' lengths in
//! bits and in bytes matter. A literal's bits are its byte's; a match's bits (length, distance and
//! extra bits) are spread evenly over the bytes that it copies; what a block costs besides (header,
//! code tables, end-of-block, padding) is spread over its bytes in proportion to their own bits. So
//! every place of the text has a cumulative cost, and a stretch costs the difference of the whole
//! parts at its ends: stretches add up to the stream exactly, however the text is cut.

mod bits;
mod huffman;

use bits::Bits;
use huffman::Code;

/// What stands around a deflate stream.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Container {
    /// Nothing.
    Raw,
    /// RFC 1950.
    Zlib,
    /// RFC 1952; several members may follow each other.
    Gzip,
}

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
pub enum DeflateError {
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

/// Charges a stream to consecutive stretches of its text, given by their ends (bytes, not
/// decreasing, the last one being the text's length). The stretches and the container together are
/// exactly 8 × the stream's bytes.
///
/// # Errors
/// When the stream is damaged, or of another text.
pub fn charge(stream: &[u8], container: Container, ends: &[u64]) -> Result<Charges, DeflateError> {
    let mut walk = Walk {
        bits: Bits::new(stream),
        ends,
        next: 0,
        position: 0,
        spent: 0,
        stretches: Vec::with_capacity(ends.len()),
        container: 0,
        block: Block::default(),
    };
    loop {
        walk.header(container)?;
        while !walk.block()? {}
        walk.trailer(container)?;
        if container != Container::Gzip || walk.bits.is_at_end() {
            break;
        }
    }
    walk.container += walk.bits.rest();
    walk.finish()
}

/// The tokens of one block, as far as they matter.
#[derive(Default)]
struct Block {
    /// Bits of tokens so far.
    bits: u64,
    /// Cumulative bits of tokens at the ends of stretches that fell into this block, in parts of a
    /// bit: 2⁻²⁰.
    marks: Vec<u128>,
}

/// Parts of a bit, so that a match is spread evenly over its bytes.
const PARTS: u32 = 20;

struct Walk<'s> {
    bits: Bits<'s>,
    ends: &'s [u64],
    /// The first stretch whose end is not passed.
    next: usize,
    /// Bytes of text so far.
    position: u64,
    /// Whole bits of all blocks before this one.
    spent: u64,
    stretches: Vec<u64>,
    container: u64,
    block: Block,
}

impl Walk<'_> {
    fn header(&mut self, container: Container) -> Result<(), DeflateError> {
        let before = self.bits.position();
        match container {
            Container::Raw => {}
            Container::Zlib => {
                self.bits.take(16)?;
            }
            Container::Gzip => {
                if self.bits.take(16)? != 0x8B1F {
                    return Err(DeflateError::Invalid("no gzip member", before));
                }
                self.bits.take(8)?;
                let flags = self.bits.take(8)?;
                self.bits.take(24)?;
                self.bits.take(24)?;
                if flags & 4 != 0 {
                    for _ in 0..self.bits.take(16)? {
                        self.bits.take(8)?;
                    }
                }
                for flag in [8, 16] {
                    if flags & flag != 0 {
                        while self.bits.take(8)? != 0 {}
                    }
                }
                if flags & 2 != 0 {
                    self.bits.take(16)?;
                }
            }
        }
        self.container += self.bits.position() - before;
        Ok(())
    }

    fn trailer(&mut self, container: Container) -> Result<(), DeflateError> {
        let before = self.bits.position();
        let checks = match container {
            Container::Raw => 0,
            Container::Zlib => 2,
            Container::Gzip => 4,
        };
        for _ in 0..checks {
            self.bits.take(16)?;
        }
        self.container += self.bits.position() - before;
        Ok(())
    }

    /// Reads one block; returns whether it was the last one.
    fn block(&mut self) -> Result<bool, DeflateError> {
        let (start, first_byte) = (self.bits.position(), self.position);
        self.block.bits = 0;
        let is_last = self.bits.take(1)? == 1;
        match self.bits.take(2)? {
            0 => self.stored()?,
            1 => {
                let (literals, distances) = huffman::fixed();
                self.compressed(&literals, &distances)?;
            }
            2 => {
                let (literals, distances) = huffman::dynamic(&mut self.bits)?;
                self.compressed(&literals, &distances)?;
            }
            _ => return Err(DeflateError::Invalid("an unknown kind of block", start)),
        }
        if is_last {
            self.bits.align();
        }
        self.close(self.bits.position() - start, self.position > first_byte);
        Ok(is_last)
    }

    fn stored(&mut self) -> Result<(), DeflateError> {
        self.bits.align();
        let length = self.bits.take(16)?;
        if length ^ self.bits.take(16)? != 0xFFFF {
            return Err(DeflateError::Invalid(
                "a stored block of no certain length",
                self.bits.position(),
            ));
        }
        self.bits.skip_bytes(length)?;
        // Each byte is a token of its own.
        if length > 0 {
            self.token(8 * length, length);
        }
        Ok(())
    }

    fn compressed(&mut self, literals: &Code, distances: &Code) -> Result<(), DeflateError> {
        loop {
            let start = self.bits.position();
            let symbol = literals.read(&mut self.bits)?;
            match symbol {
                0..256 => self.token(self.bits.position() - start, 1),
                256 => return Ok(()),
                257..=285 => {
                    let (base, extra) = LENGTHS[usize::from(symbol - 257)];
                    let length = u64::from(base) + self.bits.take(extra)?;
                    let distance = distances.read(&mut self.bits)?;
                    if distance > 29 {
                        return Err(DeflateError::Invalid("an unknown distance", start));
                    }
                    self.bits.take(u32::from(distance / 2).saturating_sub(1))?;
                    self.token(self.bits.position() - start, length);
                }
                _ => return Err(DeflateError::Invalid("an unknown length", start)),
            }
        }
    }

    /// Takes note of a token, and of the stretches that end within it.
    #[inline]
    fn token(&mut self, bits: u64, bytes: u64) {
        let after = self.position + bytes;
        while let Some(&end) = self.ends.get(self.next).filter(|&&end| end <= after) {
            // A stretch that ended before this token has a mark already.
            let inside = u128::from(end.saturating_sub(self.position));
            let part = ((u128::from(bits) * inside) << PARTS) / u128::from(bytes);
            self.block.marks.push((u128::from(self.block.bits) << PARTS) + part);
            self.next += 1;
        }
        self.block.bits += bits;
        self.position = after;
    }

    /// Spreads a block's bits: `all` of them over what its tokens have.
    fn close(&mut self, all: u64, has_text: bool) {
        if !has_text {
            self.container += all;
            return;
        }
        for mark in self.block.marks.drain(..) {
            let at = mark * u128::from(all) / (u128::from(self.block.bits) << PARTS);
            // A part of the block's bits is no more than they are.
            let until = self.spent + u64::try_from(at).unwrap_or(all);
            self.stretches.push(until);
        }
        self.spent += all;
    }

    fn finish(mut self) -> Result<Charges, DeflateError> {
        let text = self.ends.last().copied().unwrap_or(0);
        // Stretches of an empty text end before any token.
        while self.ends.get(self.next).is_some_and(|&end| end <= self.position) {
            self.stretches.push(self.spent);
            self.next += 1;
        }
        if self.position != text || self.next < self.ends.len() {
            return Err(DeflateError::Length { stream: self.position, text });
        }
        let mut before = 0;
        for cumulative in &mut self.stretches {
            (*cumulative, before) = (*cumulative - before, *cumulative);
        }
        Ok(Charges { stretches: self.stretches, container: self.container })
    }
}

/// Base lengths and extra bits of the length symbols from 257 on (RFC 1951, section 3.2.5).
const LENGTHS: [(u16, u32); 29] = [
    (3, 0),
    (4, 0),
    (5, 0),
    (6, 0),
    (7, 0),
    (8, 0),
    (9, 0),
    (10, 0),
    (11, 1),
    (13, 1),
    (15, 1),
    (17, 1),
    (19, 2),
    (23, 2),
    (27, 2),
    (31, 2),
    (35, 3),
    (43, 3),
    (51, 3),
    (59, 3),
    (67, 4),
    (83, 4),
    (99, 4),
    (115, 4),
    (131, 5),
    (163, 5),
    (195, 5),
    (227, 5),
    (258, 0),
];

#[cfg(test)]
mod tests;
