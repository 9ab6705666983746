//! How meta-blocks describe their codes (RFC 7932, sections 3.4 and 3.5), and which context picks one
//! (section 7).

use crate::charges::{StreamError, bits::Bits, code::Code};

/// A number from 1 to 256.
pub fn few(bits: &mut Bits<'_>) -> Result<usize, StreamError> {
    if bits.take(1)? == 0 {
        return Ok(1);
    }
    let extra = u32::try_from(bits.take(3)?).unwrap_or(0);
    Ok(1 + (1 << extra) + usize::try_from(bits.take(extra)?).unwrap_or(0))
}

/// A prefix code over `alphabet` symbols, at most 704.
pub fn prefix_code(bits: &mut Bits<'_>, alphabet: usize) -> Result<Code, StreamError> {
    let start = bits.position();
    let invalid = || StreamError::Invalid("a code that cannot be", start);
    let skipped = bits.take(2)?;
    let mut lengths = vec![0_u8; alphabet];
    if skipped == 1 {
        let count = usize::try_from(bits.take(2)?).unwrap_or(0) + 1;
        let mut symbols = [0; 4];
        for symbol in &mut symbols[..count] {
            let found = bits.take((alphabet - 1).checked_ilog2().map_or(0, |log| log + 1))?;
            *symbol = usize::try_from(found).unwrap_or(usize::MAX);
            if *symbol >= alphabet {
                return Err(invalid());
            }
        }
        let of_each: &[u8] = match count {
            1 => return u16::try_from(symbols[0]).map(Code::of_one).map_err(|_| invalid()),
            2 => &[1, 1],
            3 => &[1, 2, 2],
            _ if bits.take(1)? == 1 => &[1, 2, 3, 3],
            _ => &[2, 2, 2, 2],
        };
        for (&symbol, &length) in symbols.iter().zip(of_each) {
            lengths[symbol] = length;
        }
        return Code::new(&lengths).ok_or_else(invalid);
    }
    let code = code_of_lengths(bits, usize::try_from(skipped).unwrap_or(0))?;
    let (mut at, mut space, mut last) = (0, 1_u32 << 15, 8);
    // Symbol and number of the repetition before this one, which a further one goes on with.
    let mut repeated = (0, 0);
    while at < alphabet && space > 0 {
        let symbol = u8::try_from(code.read(bits)?).map_err(|_| invalid())?;
        if symbol < 16 {
            lengths[at] = symbol;
            at += 1;
            repeated = (0, 0);
            if symbol > 0 {
                last = symbol;
                space = space.checked_sub(1 << (15 - symbol)).ok_or_else(invalid)?;
            }
            continue;
        }
        let (length, extra) = if symbol == 16 { (last, 2) } else { (0, 3) };
        let before = if repeated.0 == symbol { repeated.1 } else { 0 };
        let more = usize::try_from(bits.take(extra)?).unwrap_or(0);
        let now = if before > 0 { (before - 2) << extra } else { 0 } + 3 + more;
        repeated = (symbol, now);
        for _ in before..now {
            *lengths.get_mut(at).ok_or_else(invalid)? = length;
            at += 1;
            if length > 0 {
                space = space.checked_sub(1 << (15 - length)).ok_or_else(invalid)?;
            }
        }
    }
    of_lengths(&lengths).ok_or_else(invalid)
}

/// The code in which the lengths of another's codes are written.
fn code_of_lengths(bits: &mut Bits<'_>, skipped: usize) -> Result<Code, StreamError> {
    const ORDER: [usize; 18] = [1, 2, 3, 4, 0, 5, 17, 6, 16, 7, 8, 9, 10, 11, 12, 13, 14, 15];
    let mut lengths = [0_u8; 18];
    let mut space = 32_u32;
    for &at in &ORDER[skipped..] {
        if space == 0 {
            break;
        }
        let length = match bits.take(2)? {
            0 => 0,
            1 => 4,
            2 => 3,
            _ if bits.take(1)? == 0 => 2,
            _ if bits.take(1)? == 0 => 1,
            _ => 5,
        };
        lengths[at] = length;
        if length > 0 {
            space = space.saturating_sub(32 >> length);
        }
    }
    let invalid = StreamError::Invalid("a code that cannot be", bits.position());
    of_lengths(&lengths).ok_or(invalid)
}

/// A code of which one symbol alone has a length takes no bits.
fn of_lengths(lengths: &[u8]) -> Option<Code> {
    let mut used = lengths.iter().zip(0_u16..).filter(|(length, _)| **length > 0);
    match (used.next(), used.next()) {
        (Some((_, only)), None) => Some(Code::of_one(only)),
        (None, _) => None,
        _ => Code::new(lengths),
    }
}

/// The number of trees, and the tree of each of `contexts` contexts.
pub fn context_map(bits: &mut Bits<'_>, contexts: usize) -> Result<(usize, Vec<u8>), StreamError> {
    let trees = few(bits)?;
    if trees == 1 {
        return Ok((1, vec![0; contexts]));
    }
    let runs = match bits.take(1)? {
        0 => 0,
        _ => usize::try_from(bits.take(4)?).unwrap_or(0) + 1,
    };
    let code = prefix_code(bits, trees + runs)?;
    let mut map = Vec::with_capacity(contexts);
    while map.len() < contexts {
        match usize::from(code.read(bits)?) {
            0 => map.push(0),
            run if run <= runs => {
                let extra = u32::try_from(run).unwrap_or(0);
                let zeros = (1 << run) + usize::try_from(bits.take(extra)?).unwrap_or(0);
                map.resize(map.len() + zeros, 0);
            }
            value => map.push(u8::try_from(value - runs).unwrap_or(0)),
        }
    }
    if map.len() > contexts {
        return Err(StreamError::Invalid("a context map that is too long", bits.position()));
    }
    if bits.take(1)? == 1 {
        let mut recent: Vec<u8> = (0..=u8::MAX).collect();
        for tree in &mut map {
            let moved = recent.remove(usize::from(*tree));
            recent.insert(0, moved);
            *tree = moved;
        }
    }
    if map.iter().any(|&tree| usize::from(tree) >= trees) {
        return Err(StreamError::Invalid("a context of no tree", bits.position()));
    }
    Ok((trees, map))
}

/// The context of a literal: 0 to 63, by the two bytes before it.
#[inline]
pub fn context(mode: u64, last: u8, second: u8) -> usize {
    let context = match mode {
        0 => last & 0x3F,
        1 => last >> 2,
        2 => BY_LAST[usize::from(last)] | BY_SECOND[usize::from(second)],
        _ => magnitude(last) << 3 | magnitude(second),
    };
    usize::from(context)
}

/// For text in UTF-8: what the last byte says.
const BY_LAST: [u8; 256] = by_last();
/// And the one before it.
const BY_SECOND: [u8; 256] = by_second();

const fn by_last() -> [u8; 256] {
    let mut table = [0; 256];
    let mut byte = 0_u8;
    loop {
        table[byte as usize] = match byte {
            b'\t' | b'\n' | b'\r' => 4,
            b' ' => 8,
            b'"' | b'\'' => 16,
            b'%' => 20,
            b'(' | b'<' | b'[' | b'{' => 24,
            b')' | b'>' | b']' | b'}' => 28,
            b',' | b':' | b';' => 32,
            b'.' => 36,
            b'=' => 40,
            b'0'..=b'9' => 44,
            b'A' | b'E' | b'I' | b'O' | b'U' => 48,
            b'A'..=b'Z' => 52,
            b'a' | b'e' | b'i' | b'o' | b'u' => 56,
            b'a'..=b'z' => 60,
            b'!'..=b'~' => 12,
            0x80..=0xBF => byte & 1,
            0xC0..=0xFF => 2 + (byte & 1),
            _ => 0,
        };
        if byte == u8::MAX {
            return table;
        }
        byte += 1;
    }
}

const fn by_second() -> [u8; 256] {
    let mut table = [0; 256];
    let mut byte = 0_u8;
    loop {
        table[byte as usize] = match byte {
            b'0'..=b'9' | b'A'..=b'Z' | 0xE0..=0xFF => 2,
            b'a'..=b'z' => 3,
            b'!'..=b'~' => 1,
            _ => 0,
        };
        if byte == u8::MAX {
            return table;
        }
        byte += 1;
    }
}

/// For numbers with a sign: how far from zero.
fn magnitude(byte: u8) -> u8 {
    match byte {
        0 => 0,
        1..=15 => 1,
        16..=63 => 2,
        64..=127 => 3,
        128..=191 => 4,
        192..=239 => 5,
        240..=254 => 6,
        255 => 7,
    }
}
