//! Small texts with maps written by hand, each for one rule of ownership.

use rstest::rstest;

use super::{Shape, Span, Statement, WalkError, walk};
use crate::sourcemap::SourceMap;

fn map_text(mappings: &str) -> String {
    format!(r#"{{"version":3,"sources":["a","b"],"names":[],"mappings":"{mappings}"}}"#)
}

/// The owner of each byte as a letter, `.` for nobody.
fn owners(text: &str, mappings: &str, shape: &Shape) -> String {
    let map = map_text(mappings);
    let walked = walk(text.as_bytes(), &SourceMap::parse(&map).unwrap(), shape).unwrap();
    letters(&walked.spans, text.len())
}

fn letters(spans: &[Span], length: usize) -> String {
    let mut letters = String::new();
    for (at, span) in spans.iter().enumerate() {
        let end = spans.get(at + 1).map_or(length, |next| next.start);
        letters.extend((span.start..end).map(|_| match span.source {
            Some(0) => 'a',
            Some(1) => 'b',
            Some(_) => '?',
            None => '.',
        }));
    }
    letters
}

#[rstest]
#[case::text_before_the_first_segment_is_nobodys("xxaa", "EAAA", "..aa")]
#[case::carried_over_lines_without_segments("aa\na\nbb", "AAAA;;ACAA", "aaaaabb")]
#[case::one_field_ends_ownership("aa..bb", "AAAA,E,ECAA", "aa..bb")]
#[case::last_segment_at_a_place_wins("aabb", "AAAA,EAAA,ACAA", "aabb")]
#[case::last_at_a_place_may_restore("aaaa", "AAAA,ECAA,ADAA", "aaaa")]
#[case::columns_are_utf16_units("é😀bb", "AAAA,GCAA", "aaaaaabb")]
#[case::empty_mappings("xy", "", "..")]
fn ownership(#[case] text: &str, #[case] mappings: &str, #[case] expected: &str) {
    assert_eq!(owners(text, mappings, &Shape::default()), expected);
}

/// `import"x";A();export{A};\n//c` with a segment only on `A`: lists and the tail are nobody's.
#[test]
fn lists_and_the_tail_of_a_file_are_nobodys() {
    let text = "A();import\"x\";B();export{A};\n/*c*/";
    let statement = |start: usize, end: usize, list| Statement { range: start..end, list };
    let shape = Shape {
        statements: vec![
            statement(0, 4, false),
            statement(4, 14, true),
            statement(14, 18, false),
            statement(18, 28, true),
        ],
        comment: Some(29),
    };
    assert_eq!(owners(text, "AAAA,cCAA", &shape), "aaaa..........bbbb................");
    // A list that holds a segment of its own keeps its owner.
    assert_eq!(owners(text, "AAAA,ICAA,UAAA", &shape), "aaaabbbbbbbbbbbbbb................");
}

#[test]
fn sections_shift_lines_columns_and_sources() {
    let text = "aa..b\nb?";
    let map = r#"{"version":3,"sections":[
        {"offset":{"line":0,"column":0},"map":{"version":3,"sources":["a"],"mappings":"AAAA"}},
        {"offset":{"line":0,"column":2},"map":{"version":3,"sources":["b","c"],"mappings":"EAAA;CCAA"}}]}"#;
    let walked = walk(text.as_bytes(), &SourceMap::parse(map).unwrap(), &Shape::default()).unwrap();
    assert_eq!(letters(&walked.spans, text.len()), "aa..bbb?");
}

#[rstest]
#[case("AA*A", WalkError::Mapping { line: 1, column: 0 })]
#[case("AAA", WalkError::Mapping { line: 1, column: 0 })]
#[case("AAAAAA", WalkError::Mapping { line: 1, column: 0 })]
#[case("GAAA,DAAA", WalkError::Backwards { line: 1, column: 2 })]
#[case("CAAA,HAAA", WalkError::Backwards { line: 1, column: 0 })]
#[case("AEAA", WalkError::Source { line: 1, column: 0 })]
#[case("CAAA,ADAA", WalkError::Source { line: 1, column: 1 })]
#[case(";;;AAAA", WalkError::Misfit { overshoots: 1, segments: 1 })]
#[case("yBAAA", WalkError::Misfit { overshoots: 1, segments: 1 })]
fn damage_is_located(#[case] mappings: &str, #[case] expected: WalkError) {
    let map = map_text(mappings);
    let error = walk(b"0123456789", &SourceMap::parse(&map).unwrap(), &Shape::default());
    assert_eq!(error.unwrap_err(), expected, "{mappings}");
}
