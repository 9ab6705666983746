//! Where bytes of a source stand, as source maps say it.

/// Line and column in UTF-16 code units, both from 0.
pub type At = (u32, u32);

/// Where lines of a text begin. Line ends are those of ECMA-426: what JavaScript takes for one.
pub struct Lines<'t> {
    text: &'t str,
    starts: Vec<usize>,
}

impl<'t> Lines<'t> {
    pub fn new(text: &'t str) -> Self {
        let mut starts = vec![0];
        let mut before = ' ';
        for (at, c) in text.char_indices() {
            if matches!(c, '\n' | '\r' | '\u{2028}' | '\u{2029}') {
                let end = at + c.len_utf8();
                match (before, c) {
                    ('\r', '\n') => starts.pop(),
                    _ => None,
                };
                starts.push(end);
            }
            before = c;
        }
        Self { text, starts }
    }

    /// Line and column in UTF-16 code units, from 0.
    pub fn place(&self, at: usize) -> At {
        let line = self.starts.partition_point(|start| *start <= at).saturating_sub(1);
        let before = self.text.get(self.starts[line]..at).unwrap_or_default();
        let column = before.encode_utf16().count();
        (u32::try_from(line).unwrap_or(u32::MAX), u32::try_from(column).unwrap_or(u32::MAX))
    }
}
