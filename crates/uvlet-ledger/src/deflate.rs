//! What a deflate stream (RFC 1951) spends on each stretch of its text, bit by bit.
//!
//! The stream is decoded without rebuilding the text, which is known: only the tokens' lengths in
//! bits and in bytes matter. A literal's bits are its byte's; a match's bits (length, distance and
//! extra bits) are spread evenly over the bytes that it copies. Header, code tables, end-of-block and
//! padding are the block's ([`charges`](crate::charges)).

mod codes;

use crate::charges::{Charges, Parts, StreamError, Tally, bits::Bits, code::Code};

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

/// Charges a stream to consecutive stretches of its text, given by their ends (bytes, not
/// decreasing, the last one being the text's length). The stretches and the container together are
/// exactly 8 × the stream's bytes.
///
/// # Errors
/// When the stream is damaged, or of another text.
pub fn charge(stream: &[u8], container: Container, ends: &[u64]) -> Result<Charges, StreamError> {
    let mut walk = Walk { bits: Bits::new(stream), tally: Tally::new(ends) };
    loop {
        walk.header(container)?;
        while !walk.block()? {}
        walk.trailer(container)?;
        if container != Container::Gzip || walk.bits.is_at_end() {
            break;
        }
    }
    walk.tally.container(walk.bits.rest());
    walk.tally.finish()
}

struct Walk<'s> {
    bits: Bits<'s>,
    tally: Tally<'s>,
}

impl Walk<'_> {
    fn header(&mut self, container: Container) -> Result<(), StreamError> {
        let before = self.bits.position();
        match container {
            Container::Raw => {}
            Container::Zlib => {
                self.bits.take(16)?;
            }
            Container::Gzip => {
                if self.bits.take(16)? != 0x8B1F {
                    return Err(StreamError::Invalid("no gzip member", before));
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
        self.tally.container(self.bits.position() - before);
        Ok(())
    }

    fn trailer(&mut self, container: Container) -> Result<(), StreamError> {
        let before = self.bits.position();
        let checks = match container {
            Container::Raw => 0,
            Container::Zlib => 2,
            Container::Gzip => 4,
        };
        for _ in 0..checks {
            self.bits.take(16)?;
        }
        self.tally.container(self.bits.position() - before);
        Ok(())
    }

    /// Reads one block; returns whether it was the last one.
    fn block(&mut self) -> Result<bool, StreamError> {
        let start = self.bits.position();
        let is_last = self.bits.take(1)? == 1;
        match self.bits.take(2)? {
            0 => self.stored()?,
            1 => {
                let (literals, distances) = codes::fixed();
                self.compressed(&literals, &distances)?;
            }
            2 => {
                let (literals, distances) = codes::dynamic(&mut self.bits)?;
                self.compressed(&literals, &distances)?;
            }
            _ => return Err(StreamError::Invalid("an unknown kind of block", start)),
        }
        if is_last {
            self.bits.align();
        }
        self.tally.close(self.bits.position() - start);
        Ok(is_last)
    }

    fn stored(&mut self) -> Result<(), StreamError> {
        self.bits.align();
        let length = self.bits.take(16)?;
        if length ^ self.bits.take(16)? != 0xFFFF {
            return Err(StreamError::Invalid(
                "a stored block of no certain length",
                self.bits.position(),
            ));
        }
        self.bits.skip_bytes(length)?;
        // Each byte is a token of its own.
        if length > 0 {
            self.tally.token(Parts::of_bits(8 * length), length);
        }
        Ok(())
    }

    fn compressed(&mut self, literals: &Code, distances: &Code) -> Result<(), StreamError> {
        loop {
            let (symbol, length) = literals.read_measured(&mut self.bits)?;
            if symbol < 256 {
                self.tally.token(Parts::of_bits(length.into()), 1);
                continue;
            }
            let start = self.bits.position() - u64::from(length);
            match symbol {
                256 => return Ok(()),
                257..=285 => {
                    let (base, extra) = LENGTHS[usize::from(symbol - 257)];
                    let length = u64::from(base) + self.bits.take(extra)?;
                    let distance = distances.read(&mut self.bits)?;
                    if distance > 29 {
                        return Err(StreamError::Invalid("an unknown distance", start));
                    }
                    self.bits.take(u32::from(distance / 2).saturating_sub(1))?;
                    self.token(start, length);
                }
                _ => return Err(StreamError::Invalid("an unknown length", start)),
            }
        }
    }

    #[inline]
    fn token(&mut self, start: u64, bytes: u64) {
        self.tally.token(Parts::of_bits(self.bits.position() - start), bytes);
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
