//! What a brotli stream (RFC 7932) spends on each stretch of its text, bit by bit.
//!
//! As with deflate, the text is known and need not be rebuilt; here it also tells the contexts of
//! literals. A literal's bits are its byte's; the length of an insertion is spread over what is
//! inserted; command, length and distance of a copy over the bytes that it copies, from before or from
//! the format's own dictionary (a last command that copies nothing is its literals'). Headers, code
//! tables, context maps, block switches and padding are the meta-block's
//! ([`charges`](crate::charges)).

mod blocks;
mod codes;

use brotli_decompressor::{
    dictionary::{
        kBrotliDictionary, kBrotliDictionaryOffsetsByLength, kBrotliDictionarySizeBitsByLength,
    },
    transform::{TransformDictionaryWord, kNumTransforms},
};

use crate::charges::{Charges, Parts, StreamError, Tally, bits::Bits, code::Code};
use blocks::Blocks;

/// Charges a stream to consecutive stretches of its `text`, given by their ends (bytes, not
/// decreasing, the last one being the text's length). The stretches and what is left for the
/// container (the window's size, empty blocks) are exactly 8 × the stream's bytes.
///
/// # Errors
/// When the stream is damaged, or of another text, so far as that shows in its lengths.
pub fn charge(stream: &[u8], text: &[u8], ends: &[u64]) -> Result<Charges, StreamError> {
    let mut walk = Walk {
        bits: Bits::new(stream),
        text,
        tally: Tally::new(ends),
        window: 0,
        recent: [4, 11, 15, 16],
    };
    walk.window()?;
    while !walk.meta_block()? {}
    walk.tally.container(walk.bits.rest());
    walk.tally.finish()
}

struct Walk<'s> {
    bits: Bits<'s>,
    text: &'s [u8],
    tally: Tally<'s>,
    /// Bytes that a copy may reach back.
    window: u64,
    /// The last four distances, the latest first.
    recent: [u64; 4],
}

/// What a meta-block's commands are written in.
struct Alphabets {
    literal_blocks: Blocks,
    command_blocks: Blocks,
    distance_blocks: Blocks,
    postfix: u32,
    direct: u64,
    /// Per literal block type, how a context is made.
    modes: Vec<u64>,
    literal_map: Vec<u8>,
    distance_map: Vec<u8>,
    literals: Vec<Code>,
    commands: Vec<Code>,
    distances: Vec<Code>,
}

impl Alphabets {
    /// RFC 7932, section 9.2, from the block types on.
    fn read(bits: &mut Bits<'_>) -> Result<Self, StreamError> {
        let literal_blocks = Blocks::read(bits)?;
        let command_blocks = Blocks::read(bits)?;
        let distance_blocks = Blocks::read(bits)?;
        let postfix = u32::try_from(bits.take(2)?).unwrap_or(0);
        let direct = bits.take(4)? << postfix;
        let modes = (0..literal_blocks.types).map(|_| bits.take(2)).collect::<Result<_, _>>()?;
        let (literal_trees, literal_map) = codes::context_map(bits, 64 * literal_blocks.types)?;
        let (distance_trees, distance_map) = codes::context_map(bits, 4 * distance_blocks.types)?;
        let mut codes = |count: usize, alphabet| {
            (0..count).map(|_| codes::prefix_code(bits, alphabet)).collect::<Result<Vec<_>, _>>()
        };
        let literals = codes(literal_trees, 256)?;
        let commands = codes(command_blocks.types, 704)?;
        let symbols = 16 + direct + (48 << postfix);
        let distances = codes(distance_trees, usize::try_from(symbols).unwrap_or(0))?;
        Ok(Self {
            literal_blocks,
            command_blocks,
            distance_blocks,
            postfix,
            direct,
            modes,
            literal_map,
            distance_map,
            literals,
            commands,
            distances,
        })
    }
}

impl Walk<'_> {
    /// RFC 7932, section 9.1.
    fn window(&mut self) -> Result<(), StreamError> {
        let bits = match self.bits.take(1)? {
            0 => 16,
            _ => match self.bits.take(3)? {
                0 => match self.bits.take(3)? {
                    0 => 17,
                    1 => return Err(StreamError::Invalid("a window of no known size", 0)),
                    small => 8 + small,
                },
                large => 17 + large,
            },
        };
        self.window = (1 << bits) - 16;
        self.tally.container(self.bits.position());
        Ok(())
    }

    /// Reads one meta-block; returns whether it was the last one.
    fn meta_block(&mut self) -> Result<bool, StreamError> {
        let start = self.bits.position();
        let is_last = self.bits.take(1)? == 1;
        let is_empty = is_last && self.bits.take(1)? == 1;
        if !is_empty {
            self.filled(is_last)?;
        }
        if is_last {
            self.bits.align();
        }
        self.tally.close(self.bits.position() - start);
        Ok(is_last)
    }

    fn filled(&mut self, is_last: bool) -> Result<(), StreamError> {
        let nibbles = u32::try_from(self.bits.take(2)?).unwrap_or(0) + 4;
        if nibbles == 7 {
            return self.metadata();
        }
        let length = self.bits.take(4 * nibbles)? + 1;
        let end = self.tally.position() + length;
        if end > self.text.len() as u64 {
            return Err(StreamError::Length { stream: end, text: self.text.len() as u64 });
        }
        if !is_last && self.bits.take(1)? == 1 {
            self.bits.align();
            self.bits.skip_bytes(length)?;
            self.tally.token(Parts::of_bits(8 * length), length);
            return Ok(());
        }
        let mut alphabets = Alphabets::read(&mut self.bits)?;
        while self.tally.position() < end {
            self.command(&mut alphabets, end)?;
        }
        Ok(())
    }

    /// Bytes that are for the reader of the stream, not for that of the text.
    fn metadata(&mut self) -> Result<(), StreamError> {
        self.bits.take(1)?;
        let bytes = u32::try_from(self.bits.take(2)?).unwrap_or(0);
        let length = if bytes == 0 { 0 } else { self.bits.take(8 * bytes)? + 1 };
        self.bits.align();
        self.bits.skip_bytes(length)
    }

    /// RFC 7932, section 10: literals, and then a copy unless they end the meta-block.
    fn command(&mut self, alphabets: &mut Alphabets, end: u64) -> Result<(), StreamError> {
        let bits = &mut self.bits;
        let kind = alphabets.command_blocks.next(bits)?;
        let start = bits.position();
        let symbol = usize::from(alphabets.commands[kind].read(bits)?);
        let (insert_class, copy_class) = CELLS[symbol >> 6];
        let (base, extra) = INSERTED[insert_class + (symbol >> 3 & 7)];
        let inserted = base + bits.take(extra)?;
        let (base, copy_extra) = COPIED[copy_class + (symbol & 7)];
        let copied = base + bits.take(copy_extra)?;
        let command = bits.position() - start;
        if inserted > end - self.tally.position() {
            return Err(StreamError::Invalid("more literals than text", start));
        }
        let copies = self.tally.position() + inserted < end;
        let length = if copies { u64::from(extra) } else { command };
        self.literals(alphabets, inserted, Parts::per_byte(length, inserted))?;
        if !copies {
            return Ok(());
        }
        let reach = self.window.min(self.tally.position());
        // The first two cells repeat the last distance without saying so.
        let (distance, distance_bits) =
            if symbol < 128 { (self.recent[0], 0) } else { self.distance(alphabets, copied)? };
        let length =
            if distance > reach { self.word(copied, distance - reach - 1)? } else { copied };
        if length > end - self.tally.position() {
            return Err(StreamError::Invalid("a copy of more than the text", start));
        }
        if length > 0 {
            let cost = command - u64::from(extra) + distance_bits;
            self.tally.token(Parts::of_bits(cost), length);
        }
        Ok(())
    }

    fn literals(
        &mut self,
        alphabets: &mut Alphabets,
        count: u64,
        length: Parts,
    ) -> Result<(), StreamError> {
        // A position is within the text, which is in memory.
        let first = usize::try_from(self.tally.position()).unwrap_or(usize::MAX);
        let before = |at: usize, back: usize| {
            at.checked_sub(back).and_then(|at| self.text.get(at)).copied().unwrap_or(0)
        };
        let (mut last, mut second) = (before(first, 1), before(first, 2));
        let inserted = usize::try_from(count).unwrap_or(0);
        let text = self.text.get(first..first + inserted).unwrap_or_default();
        for &byte in text {
            let kind = alphabets.literal_blocks.next(&mut self.bits)?;
            let context = codes::context(alphabets.modes[kind], last, second);
            let tree = alphabets.literal_map[64 * kind + context];
            let code = &alphabets.literals[usize::from(tree)];
            let (_, own) = code.read_measured(&mut self.bits)?;
            self.tally.token(Parts::of_bits(own.into()).and(length), 1);
            (second, last) = (last, byte);
        }
        Ok(())
    }

    /// A distance (RFC 7932, section 4) and the bits that it takes.
    fn distance(
        &mut self,
        alphabets: &mut Alphabets,
        copied: u64,
    ) -> Result<(u64, u64), StreamError> {
        let kind = alphabets.distance_blocks.next(&mut self.bits)?;
        let context = usize::try_from(copied - 2).unwrap_or(3).min(3);
        let tree = alphabets.distance_map[4 * kind + context];
        let start = self.bits.position();
        let symbol = u64::from(alphabets.distances[usize::from(tree)].read(&mut self.bits)?);
        let distance = match symbol {
            0 => return Ok((self.recent[0], self.bits.position() - start)),
            1..=3 => self.recent[usize::try_from(symbol).unwrap_or(0)],
            4..=15 => {
                let step = symbol - 4;
                let from = self.recent[usize::from(step >= 6)];
                let by = (step % 6) / 2 + 1;
                let near = if step % 2 == 0 { from.checked_sub(by) } else { Some(from + by) };
                near.unwrap_or(0)
            }
            _ if symbol < 16 + alphabets.direct => symbol - 15,
            _ => {
                let code = symbol - alphabets.direct - 16;
                let low = code & ((1 << alphabets.postfix) - 1);
                let high = code >> alphabets.postfix;
                let extra = u32::try_from(1 + (high >> 1)).unwrap_or(0);
                let offset = ((2 + (high & 1)) << extra) - 4;
                ((offset + self.bits.take(extra)?) << alphabets.postfix)
                    + low
                    + alphabets.direct
                    + 1
            }
        };
        if distance == 0 {
            return Err(StreamError::Invalid("a distance of nothing", start));
        }
        if distance <= self.window.min(self.tally.position()) {
            self.recent.rotate_right(1);
            self.recent[0] = distance;
        }
        Ok((distance, self.bits.position() - start))
    }

    /// Bytes that a word of the format's dictionary comes to (RFC 7932, section 8).
    fn word(&self, length: u64, id: u64) -> Result<u64, StreamError> {
        let unknown = || StreamError::Invalid("an unknown word", self.bits.position());
        let class = usize::try_from(length).map_err(|_| unknown())?;
        let size = *kBrotliDictionarySizeBitsByLength.get(class).ok_or_else(unknown)?;
        if size == 0 {
            return Err(unknown());
        }
        let transform = i32::try_from(id >> size).map_err(|_| unknown())?;
        if transform >= kNumTransforms {
            return Err(unknown());
        }
        let index = usize::try_from(id & ((1 << size) - 1)).map_err(|_| unknown())?;
        let start = kBrotliDictionaryOffsetsByLength[class] as usize + index * class;
        let word = kBrotliDictionary.get(start..start + class).ok_or_else(unknown)?;
        let length = i32::try_from(length).map_err(|_| unknown())?;
        // The longest word with the longest prefix and suffix takes less than half of it.
        let mut made = [0; 96];
        let bytes = TransformDictionaryWord(&mut made, word, length, transform);
        u64::try_from(bytes).map_err(|_| unknown())
    }
}

/// Per 64 command symbols: the first codes of the insertion's and the copy's length (RFC 7932,
/// section 5).
const CELLS: [(usize, usize); 11] =
    [(0, 0), (0, 8), (0, 0), (0, 8), (8, 0), (8, 8), (0, 16), (16, 0), (8, 16), (16, 8), (16, 16)];

/// Base and extra bits of the codes of an insertion's length.
const INSERTED: [(u64, u32); 24] = [
    (0, 0),
    (1, 0),
    (2, 0),
    (3, 0),
    (4, 0),
    (5, 0),
    (6, 1),
    (8, 1),
    (10, 2),
    (14, 2),
    (18, 3),
    (26, 3),
    (34, 4),
    (50, 4),
    (66, 5),
    (98, 5),
    (130, 6),
    (194, 7),
    (322, 8),
    (578, 9),
    (1090, 10),
    (2114, 12),
    (6210, 14),
    (22594, 24),
];

/// Base and extra bits of the codes of a copy's length.
const COPIED: [(u64, u32); 24] = [
    (2, 0),
    (3, 0),
    (4, 0),
    (5, 0),
    (6, 0),
    (7, 0),
    (8, 0),
    (9, 0),
    (10, 1),
    (12, 1),
    (14, 2),
    (18, 2),
    (22, 3),
    (30, 3),
    (38, 4),
    (54, 4),
    (70, 5),
    (102, 5),
    (134, 6),
    (198, 7),
    (326, 8),
    (582, 9),
    (1094, 10),
    (2118, 24),
];

#[cfg(test)]
mod tests;
