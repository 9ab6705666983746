//! Who owns each byte of a generated text: one walk over the text and the `mappings` together.
//!
//! No table of segments is built. A cursor of (byte, UTF-16 column) moves along the text while the
//! mappings are decoded, so the cost is one pass over each and memory grows only with the number
//! of spans, which is far below that of segments. Rules: a segment owns the text up to the next
//! one, across line breaks and lines without segments; of several at one place the last one wins;
//! a one-field segment ends ownership (ECMA-426, section "Mappings structure").

mod cursor;

use std::ops::Range;

use cursor::{Cursor, Seek};

use crate::{
    sourcemap::{Section, SourceMap},
    vlq,
};

/// A stretch of the generated text that begins at a byte and ends where the next span begins.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Span {
    /// First byte.
    pub start: usize,
    /// The owning source, counted over all sections of the map; `None` for text of no source.
    pub source: Option<u32>,
}

/// A top-level statement of the generated text, or a directive.
#[derive(Clone, Debug)]
pub struct Statement {
    /// Its bytes.
    pub range: Range<usize>,
    /// It is an import or export list, which a bundler writes itself.
    pub list: bool,
}

/// What the walk must know of the generated text's form.
#[derive(Clone, Debug, Default)]
pub struct Shape {
    /// The top-level statements in order; empty for a style or for text that does not parse.
    pub statements: Vec<Statement>,
    /// Where the closing `sourceMappingURL` comment begins, if there is one.
    pub comment: Option<usize>,
}

/// The spans of a text, first at byte 0, and how far the map was from fitting.
#[derive(Debug, PartialEq, Eq)]
pub struct Walked {
    /// Spans in order; neighbours differ in their source.
    pub spans: Vec<Span>,
    /// Segments that point past the end of their line; they own from that line's end on.
    pub overshoots: u64,
}

/// Why a map cannot be walked. Lines count from 1 and columns from 0, both in the generated text.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum WalkError {
    /// A byte that is no mapping.
    #[error("damaged mapping at generated line {line} column {column}")]
    Mapping {
        /// Generated line.
        line: u32,
        /// Generated column.
        column: u32,
    },
    /// A segment that stands before the one written before it.
    #[error("mappings run backwards at generated line {line} column {column}")]
    Backwards {
        /// Generated line.
        line: u32,
        /// Generated column.
        column: u32,
    },
    /// A source index outside the list.
    #[error("mapping names a source that is not listed at generated line {line} column {column}")]
    Source {
        /// Generated line.
        line: u32,
        /// Generated column.
        column: u32,
    },
    /// So many segments miss the text that the map must belong to another one.
    #[error(
        "{overshoots} of {segments} mappings point outside the file: the map is another file's"
    )]
    Misfit {
        /// Segments past the end of their line or of the text.
        overshoots: u64,
        /// All segments.
        segments: u64,
    },
}

/// One in so many segments may miss the text. Minifiers of styles leave some behind the end of a
/// line, which harms nobody; with a map of another text most of them miss.
const MISFIT_SHARE: u64 = 3;

/// A segment of a map as it is written, with its place in the text.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Origin {
    /// First byte in the generated text.
    pub start: usize,
    /// Where it comes from; none for a segment that names no source.
    pub source: Option<Original>,
}

/// A place in a source.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Original {
    /// The source, counted over all sections of the map.
    pub source: u32,
    /// Line, from 0.
    pub line: u32,
    /// Column in UTF-16 code units, from 0.
    pub column: u32,
}

/// Walks `text` with its map.
///
/// At the end of a file the carry rule stops: import and export lists that hold no segment, all
/// text after the last top-level statement that holds one, and the closing comment are nobody's.
///
/// # Errors
/// When the mappings are damaged, run backwards, name unlisted sources, or do not fit the text.
pub fn walk(text: &[u8], map: &SourceMap<'_>, shape: &Shape) -> Result<Walked, WalkError> {
    let mut owners = Owners {
        spans: vec![Span { start: 0, source: None }],
        touched: vec![false; shape.statements.len()],
        statements: &shape.statements,
        statement: 0,
    };
    let overshoots = segments(text, map, |start, original| {
        owners.own(start, original.map(|original| original.source));
    })?;
    let nobodys = unowned(text.len(), shape, &owners.touched);
    let spans = carve(&owners.spans, &nobodys, text.len());
    Ok(Walked { spans, overshoots })
}

/// Every segment of a map as it is written, in order: for questions about a place in a source, which
/// spans of owners are too coarse for.
///
/// # Errors
/// As [`walk`].
pub fn origins(text: &[u8], map: &SourceMap<'_>) -> Result<Vec<Origin>, WalkError> {
    let mut found = Vec::new();
    segments(text, map, |start, source| found.push(Origin { start, source }))?;
    Ok(found)
}

/// Hands over every segment with the byte that it begins at; returns how many pointed past the end of
/// their line.
fn segments(
    text: &[u8],
    map: &SourceMap<'_>,
    take: impl FnMut(usize, Option<Original>),
) -> Result<u64, WalkError> {
    let mut decoder = Decoder { cursor: Cursor::new(text), take, overshoots: 0, segments: 0 };
    let mut first_source = 0;
    for section in &map.sections {
        decoder.section(section, first_source)?;
        first_source += u32::try_from(section.sources.len()).unwrap_or(u32::MAX);
    }
    let Decoder { overshoots, segments, .. } = decoder;
    if overshoots * MISFIT_SHARE > segments {
        return Err(WalkError::Misfit { overshoots, segments });
    }
    Ok(overshoots)
}

struct Decoder<'t, F> {
    cursor: Cursor<'t>,
    take: F,
    overshoots: u64,
    segments: u64,
}

impl<F: FnMut(usize, Option<Original>)> Decoder<'_, F> {
    fn section(&mut self, section: &Section<'_>, first_source: u32) -> Result<(), WalkError> {
        let digits = section.mappings.as_bytes();
        let source_count = i64::try_from(section.sources.len()).unwrap_or(i64::MAX);
        let mut line = section.line;
        let mut column = i64::from(section.column);
        let mut source = 0_i64;
        let (mut original_line, mut original_column) = (0_i64, 0_i64);
        if section.line > 0 || section.column > 0 {
            self.place(line, column)?;
            (self.take)(self.cursor.byte, None);
        }
        let mut at = 0;
        while let Some(&digit) = digits.get(at) {
            match digit {
                b';' => {
                    line = line.saturating_add(1);
                    column = 0;
                    at += 1;
                }
                b',' => at += 1,
                _ => {
                    let damaged =
                        |column| WalkError::Mapping { line: line + 1, column: clamp(column) };
                    column += vlq::read(digits, &mut at).ok_or(damaged(column))?;
                    if column < 0 {
                        return Err(WalkError::Backwards { line: line + 1, column: 0 });
                    }
                    self.segments += 1;
                    let original = if ends(digits, at) {
                        None
                    } else {
                        source += vlq::read(digits, &mut at).ok_or(damaged(column))?;
                        original_line += vlq::read(digits, &mut at).ok_or(damaged(column))?;
                        original_column += vlq::read(digits, &mut at).ok_or(damaged(column))?;
                        if !ends(digits, at) {
                            vlq::read(digits, &mut at).ok_or(damaged(column))?;
                        }
                        if !ends(digits, at) {
                            return Err(damaged(column));
                        }
                        if !(0..source_count).contains(&source) {
                            return Err(WalkError::Source {
                                line: line + 1,
                                column: clamp(column),
                            });
                        }
                        Some(Original {
                            source: first_source + clamp(source),
                            line: clamp(original_line),
                            column: clamp(original_column),
                        })
                    };
                    self.place(line, column)?;
                    (self.take)(self.cursor.byte, original);
                }
            }
        }
        Ok(())
    }

    /// Moves the cursor to a place of the generated text.
    fn place(&mut self, line: u32, column: i64) -> Result<(), WalkError> {
        let column = clamp(column);
        match self.cursor.seek(line, column) {
            Seek::Reached => Ok(()),
            Seek::Overshot => {
                self.overshoots += 1;
                Ok(())
            }
            Seek::Passed => Err(WalkError::Backwards { line: line + 1, column }),
        }
    }
}

/// Who owns the text so far.
struct Owners<'t> {
    spans: Vec<Span>,
    /// Which statements hold a segment of a source.
    touched: Vec<bool>,
    statements: &'t [Statement],
    statement: usize,
}

impl Owners<'_> {
    /// Gives the text from a byte on to `source`.
    #[inline]
    fn own(&mut self, start: usize, source: Option<u32>) {
        if source.is_some() {
            while self.statements.get(self.statement).is_some_and(|s| s.range.end <= start) {
                self.statement += 1;
            }
            if self.statements.get(self.statement).is_some_and(|s| s.range.contains(&start)) {
                self.touched[self.statement] = true;
            }
        }
        append(&mut self.spans, Span { start, source });
    }
}

/// Adds a span, so that neighbours differ and the last one at a place wins.
#[inline]
fn append(spans: &mut Vec<Span>, span: Span) {
    // Most segments go on with the source they follow.
    if spans.last().is_some_and(|last| last.source == span.source) {
        return;
    }
    if spans.last().is_some_and(|last| last.start == span.start) {
        spans.pop();
    }
    if spans.last().is_none_or(|last| last.source != span.source) {
        spans.push(span);
    }
}

fn ends(digits: &[u8], at: usize) -> bool {
    matches!(digits.get(at), None | Some(b',' | b';'))
}

fn clamp(value: i64) -> u32 {
    u32::try_from(value.max(0)).unwrap_or(u32::MAX)
}

/// Byte ranges at the end of the text, and of lists, that the carry rule must not reach.
fn unowned(length: usize, shape: &Shape, touched: &[bool]) -> Vec<Range<usize>> {
    let mut ranges = Vec::new();
    let mut end = shape.comment.unwrap_or(length);
    if let Some(last) = touched.iter().rposition(|&touched| touched) {
        end = end.min(shape.statements[last].range.end);
    }
    for (statement, &touched) in shape.statements.iter().zip(touched) {
        if statement.list && !touched && statement.range.end <= end {
            ranges.push(statement.range.clone());
        }
    }
    if end < length {
        ranges.push(end..length);
    }
    ranges
}

/// Takes ranges (in order, apart from each other) out of the spans and makes them nobody's.
fn carve(spans: &[Span], ranges: &[Range<usize>], length: usize) -> Vec<Span> {
    let mut carved: Vec<Span> = Vec::with_capacity(spans.len() + 2 * ranges.len());
    let mut ranges = ranges.iter().peekable();
    for (at, span) in spans.iter().enumerate() {
        let end = spans.get(at + 1).map_or(length, |next| next.start);
        let mut start = span.start;
        while let Some(range) = ranges.peek() {
            if range.start >= end {
                break;
            }
            if range.start > start {
                append(&mut carved, Span { start, source: span.source });
            }
            append(&mut carved, Span { start: start.max(range.start), source: None });
            start = range.end.min(end);
            if range.end > end {
                break;
            }
            ranges.next();
        }
        if start < end {
            append(&mut carved, Span { start, source: span.source });
        }
    }
    if carved.is_empty() {
        carved.push(Span { start: 0, source: None });
    }
    carved
}

#[cfg(test)]
mod tests;
