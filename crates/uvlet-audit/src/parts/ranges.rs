//! Stretches that ran, from ranges that lie in one another; all in time that grows with their number.

use std::{collections::BTreeMap, ops::Range};

/// The bytes at which some UTF-16 code units of a text stand; what lies past its end ends there.
pub fn bytes_of(text: &str, mut wanted: Vec<u64>) -> BTreeMap<u64, usize> {
    wanted.sort_unstable();
    wanted.dedup();
    let mut bytes: BTreeMap<u64, usize> = BTreeMap::new();
    let mut next = wanted.into_iter().peekable();
    let mut units = 0;
    for (at, c) in text.char_indices() {
        while next.peek().is_some_and(|wanted| *wanted <= units) {
            bytes.extend(next.next().map(|wanted| (wanted, at)));
        }
        units += c.len_utf16() as u64;
    }
    bytes.extend(next.map(|wanted| (wanted, text.len())));
    bytes
}

/// What ran, in order and apart: of ranges that overlap the last one says it.
pub fn that_ran(ranges: &[(u64, u64, bool)]) -> Vec<Range<u64>> {
    let mut ends: Vec<u64> = ranges.iter().flat_map(|(start, end, _)| [*start, *end]).collect();
    ends.sort_unstable();
    ends.dedup();
    let piece = |at: u64| ends.partition_point(|end| *end < at);
    // From the last range on, each takes what is not taken yet; `next` leads past what is.
    let mut next: Vec<usize> = (0..=ends.len()).collect();
    let mut ran = vec![false; ends.len()];
    for (start, end, is_run) in ranges.iter().rev() {
        let end = piece(*end);
        let mut at = free(&mut next, piece(*start));
        while at < end {
            ran[at] = *is_run;
            next[at] = at + 1;
            at = free(&mut next, at);
        }
    }
    let pieces = ends.windows(2).zip(ran).filter(|(_, ran)| *ran);
    joined(pieces.map(|(piece, _)| piece[0]..piece[1]).collect())
}

/// The first place from one on that is not taken, with shorter ways for who asks later.
fn free(next: &mut [usize], from: usize) -> usize {
    let mut end = from;
    while next[end] != end {
        end = next[end];
    }
    let mut at = from;
    while next[at] != end && at != end {
        at = std::mem::replace(&mut next[at], end);
    }
    end
}

/// Ranges in order and apart.
pub fn joined(mut ranges: Vec<Range<u64>>) -> Vec<Range<u64>> {
    ranges.sort_by_key(|range| range.start);
    let mut joined: Vec<Range<u64>> = Vec::with_capacity(ranges.len());
    for range in ranges.into_iter().filter(|range| !range.is_empty()) {
        match joined.last_mut().filter(|last| last.end >= range.start) {
            Some(last) => last.end = last.end.max(range.end),
            None => joined.push(range),
        }
    }
    joined
}

/// What of some ranges others do not hold; both in order and apart.
pub fn without(ranges: &[Range<u64>], others: &[Range<u64>]) -> Vec<Range<u64>> {
    let mut left = Vec::new();
    let mut first = 0;
    for range in ranges {
        while others.get(first).is_some_and(|other| other.end <= range.start) {
            first += 1;
        }
        let mut at = range.start;
        for other in others[first..].iter().take_while(|other| other.start < range.end) {
            left.push(at..other.start.max(at));
            at = at.max(other.end);
        }
        left.push(at..range.end.max(at));
    }
    left.retain(|range| !range.is_empty());
    left
}

#[cfg(test)]
mod tests {
    use proptest::{collection::vec, prelude::*};

    use super::{joined, that_ran, without};

    fn bytes(ranges: &[std::ops::Range<u64>]) -> Vec<u64> {
        ranges.iter().flat_map(Clone::clone).collect()
    }

    proptest! {
        /// Against asking of every place.
        #[test]
        fn as_painted(ranges in vec((0_u64..30, 0_u64..40, any::<bool>()), 0..12)) {
            let ran = |at: &u64| {
                let last = ranges.iter().rev().find(|(start, end, _)| (*start..*end).contains(at));
                last.is_some_and(|(_, _, ran)| *ran)
            };
            let expected: Vec<u64> = (0..40).filter(ran).collect();
            prop_assert_eq!(bytes(&that_ran(&ranges)), expected);
        }

        #[test]
        fn as_sets(a in vec((0_u64..30, 0_u64..9), 0..9), b in vec((0_u64..30, 0_u64..9), 0..9)) {
            let of = |list: Vec<(u64, u64)>| joined(list.iter().map(|(at, n)| *at..at + n).collect());
            let (a, b) = (of(a), of(b));
            let others = bytes(&b);
            let expected: Vec<u64> = bytes(&a).into_iter().filter(|at| !others.contains(at)).collect();
            prop_assert_eq!(bytes(&without(&a, &b)), expected);
        }
    }
}
