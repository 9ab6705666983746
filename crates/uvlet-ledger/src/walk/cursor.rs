//! A place in the generated text, by byte and by UTF-16 column.

/// A place in the text, known as byte and as (line, UTF-16 column) at once.
pub(super) struct Cursor<'t> {
    text: &'t [u8],
    line: u32,
    column: u32,
    pub(super) byte: usize,
    /// Where the current line ends: its line feed, or the end of the text.
    line_end: usize,
    /// Up to here the text is ASCII, so that byte and column move alike. Known ahead, it makes most
    /// steps an addition, on lines that hold other characters too.
    ascii_end: usize,
}

pub(super) enum Seek {
    Reached,
    Overshot,
    Passed,
}

impl<'t> Cursor<'t> {
    pub(super) fn new(text: &'t [u8]) -> Self {
        let (line_end, ascii_end) = (find_line_end(text, 0), find_ascii_end(text, 0));
        Self { text, line: 0, column: 0, byte: 0, line_end, ascii_end }
    }

    /// Moves forward to a place; the caller keeps places in order.
    #[inline]
    pub(super) fn seek(&mut self, line: u32, column: u32) -> Seek {
        if line != self.line && !self.next_line(line) {
            return if line < self.line { Seek::Passed } else { Seek::Overshot };
        }
        if column < self.column {
            return Seek::Passed;
        }
        let ahead = self.byte + (column - self.column) as usize;
        if ahead <= self.ascii_end.min(self.line_end) {
            self.byte = ahead;
            self.column = column;
            return Seek::Reached;
        }
        self.step(column)
    }

    /// Moves to the start of a line further down, if there is one.
    fn next_line(&mut self, line: u32) -> bool {
        while self.line < line {
            if self.line_end >= self.text.len() {
                self.byte = self.text.len();
                return false;
            }
            self.byte = self.line_end + 1;
            self.line_end = find_line_end(self.text, self.byte);
            self.line += 1;
            self.column = 0;
        }
        if self.ascii_end < self.byte {
            self.ascii_end = find_ascii_end(self.text, self.byte);
        }
        self.line == line
    }

    /// Moves character by character, over some that are not ASCII.
    fn step(&mut self, column: u32) -> Seek {
        while self.column < column {
            if self.byte >= self.line_end {
                return Seek::Overshot;
            }
            // A lead byte tells the length in UTF-8 and in UTF-16; stray bytes count as one each.
            let (bytes, units) = match self.text[self.byte] {
                0xF0.. => (4, 2),
                0xE0..0xF0 => (3, 1),
                0xC0..0xE0 => (2, 1),
                _ => (1, 1),
            };
            self.byte = (self.byte + bytes).min(self.line_end);
            self.column += units;
        }
        self.ascii_end = find_ascii_end(self.text, self.byte);
        Seek::Reached
    }
}

/// The first byte from `at` on that is not ASCII, or the end; eight bytes at a time.
fn find_ascii_end(text: &[u8], mut at: usize) -> usize {
    const HIGH: u64 = 0x8080_8080_8080_8080;
    while let Some(&chunk) = text[at..].first_chunk::<8>() {
        let high = u64::from_le_bytes(chunk) & HIGH;
        if high != 0 {
            return at + high.trailing_zeros() as usize / 8;
        }
        at += 8;
    }
    text[at..].iter().position(|byte| !byte.is_ascii()).map_or(text.len(), |offset| at + offset)
}

fn find_line_end(text: &[u8], from: usize) -> usize {
    memchr::memchr(b'\n', &text[from..]).map_or(text.len(), |at| from + at)
}
