//! Origins of emitted text, held against another decoder of source maps.
#![expect(clippy::unwrap_used, reason = "a test ends where something is not there")]

use std::{fs, path::Path};

use oxc_sourcemap::SourceMap as Other;
use uvlet_ledger::{sourcemap::SourceMap, walk::origins};

/// Line from 0 and column in UTF-16 code units of a byte.
fn place(text: &str, byte: usize) -> (u32, u32) {
    let before = &text[..byte];
    let line = before.matches('\n').count();
    let column = before.rsplit('\n').next().unwrap().encode_utf16().count();
    (u32::try_from(line).unwrap(), u32::try_from(column).unwrap())
}

#[test]
fn places_in_sources_are_those_of_another_decoder() {
    let builds = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/builds");
    let mut compared = 0;
    for build in ["esbuild-before", "webpack-before", "rollup-before"] {
        for entry in fs::read_dir(builds.join(build)).unwrap().flatten() {
            let map = entry.path().with_extension("js.map");
            if entry.path().extension().is_none_or(|ending| ending != "js") || !map.exists() {
                continue;
            }
            compared += compare(
                &fs::read_to_string(entry.path()).unwrap(),
                &fs::read_to_string(map).unwrap(),
            );
        }
    }
    assert!(compared > 1000, "{compared} places were compared");
}

fn compare(text: &str, json: &str) -> usize {
    let ours = origins(text.as_bytes(), &SourceMap::parse(json).unwrap()).unwrap();
    let other = Other::from_json_string(json).unwrap();
    let tokens: Vec<_> = other.get_tokens().collect();
    let mut seed = 7_u64;
    let mut compared = 0;
    for _ in 0..200 {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        let byte = usize::try_from(seed >> 33).unwrap() % text.len();
        if !text.is_char_boundary(byte) {
            continue;
        }
        let mine = ours.iter().rfind(|origin| origin.start <= byte).and_then(|o| o.source);
        let mine = mine.map(|place| (place.source, place.line, place.column));
        // The last segment written at or before the place.
        let (line, column) = place(text, byte);
        let token = tokens.iter().rfind(|t| (t.get_dst_line(), t.get_dst_col()) <= (line, column));
        let theirs =
            token.and_then(|t| Some((t.get_source_id()?, t.get_src_line(), t.get_src_col())));
        assert_eq!(mine, theirs, "byte {byte}, line {line} column {column}");
        compared += 1;
    }
    compared
}
