//! Bits of a stream, least significant first.

use super::StreamError;

/// A reader with up to 64 bits at hand: most tokens are read without a look at the stream.
pub struct Bits<'s> {
    stream: &'s [u8],
    /// The next byte to be taken in.
    next: usize,
    held: u64,
    count: u32,
}

impl<'s> Bits<'s> {
    pub fn new(stream: &'s [u8]) -> Self {
        Self { stream, next: 0, held: 0, count: 0 }
    }

    /// Bits read so far.
    #[inline]
    pub fn position(&self) -> u64 {
        8 * self.next as u64 - u64::from(self.count)
    }

    pub fn is_at_end(&self) -> bool {
        self.next == self.stream.len() && self.count < 8
    }

    /// Bits that are left.
    pub fn rest(&self) -> u64 {
        8 * self.stream.len() as u64 - self.position()
    }

    #[inline]
    fn refill(&mut self) {
        if let Some(&chunk) = self.stream[self.next..].first_chunk::<8>() {
            self.held |= u64::from_le_bytes(chunk) << self.count;
            let bytes = (63 - self.count) / 8;
            self.next += bytes as usize;
            self.count += 8 * bytes;
            // What was taken in beyond whole bytes is read again later.
            self.held &= if self.count >= 64 { u64::MAX } else { (1 << self.count) - 1 };
            return;
        }
        while self.count <= 56
            && let Some(&byte) = self.stream.get(self.next)
        {
            self.held |= u64::from(byte) << self.count;
            self.next += 1;
            self.count += 8;
        }
    }

    /// The next 15 bits without taking them; those past the end are zero.
    #[inline]
    pub fn peek(&mut self) -> u64 {
        if self.count < 15 {
            self.refill();
        }
        self.held & 0x7FFF
    }

    /// Takes up to 24 bits.
    #[inline]
    pub fn take(&mut self, bits: u32) -> Result<u64, StreamError> {
        if self.count < bits {
            self.refill();
            if self.count < bits {
                return Err(StreamError::Truncated);
            }
        }
        let value = self.held & ((1 << bits) - 1);
        self.held >>= bits;
        self.count -= bits;
        Ok(value)
    }

    /// Moves to the beginning of the next byte.
    pub fn align(&mut self) {
        let odd = self.count % 8;
        self.held >>= odd;
        self.count -= odd;
    }

    /// Passes over whole bytes, from the beginning of one.
    pub fn skip_bytes(&mut self, bytes: u64) -> Result<(), StreamError> {
        let at = self.position() / 8 + bytes;
        if at > self.stream.len() as u64 {
            return Err(StreamError::Truncated);
        }
        self.next = usize::try_from(at).map_err(|_| StreamError::Truncated)?;
        (self.held, self.count) = (0, 0);
        Ok(())
    }
}
