//! Places of a syntax tree as places of its text.

use std::ops::Range;

use oxc_span::Span;

/// The bytes that a part of a tree stands at.
#[must_use]
pub fn range(span: Span) -> Range<usize> {
    span.start as usize..span.end as usize
}
