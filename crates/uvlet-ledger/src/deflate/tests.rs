//! Held against a second decoder: naive, bit by bit, and in floating point.

use std::io::Write;

use flate2::{
    Compression,
    write::{DeflateEncoder, GzEncoder, ZlibEncoder},
};
use proptest::prelude::*;
use rstest::rstest;

use super::{Container, charge};
use crate::charges::{Charges, StreamError};

fn packed(text: &[u8], container: Container, level: u32) -> Vec<u8> {
    let level = Compression::new(level);
    match container {
        Container::Raw => {
            let mut encoder = DeflateEncoder::new(Vec::new(), level);
            encoder.write_all(text).unwrap();
            encoder.finish().unwrap()
        }
        Container::Zlib => {
            let mut encoder = ZlibEncoder::new(Vec::new(), level);
            encoder.write_all(text).unwrap();
            encoder.finish().unwrap()
        }
        Container::Gzip => {
            let mut encoder = GzEncoder::new(Vec::new(), level);
            encoder.write_all(text).unwrap();
            encoder.finish().unwrap()
        }
    }
}

/// The text of a raw stream, and what it spends on each byte: as plainly as the standard's words go.
struct Naive<'s> {
    stream: &'s [u8],
    at: usize,
    text: Vec<u8>,
    costs: Vec<f64>,
}

impl Naive<'_> {
    fn bit(&mut self) -> usize {
        let bit = self.stream[self.at / 8] >> (self.at % 8) & 1;
        self.at += 1;
        bit.into()
    }

    fn bits(&mut self, count: usize) -> usize {
        (0..count).map(|shift| self.bit() << shift).sum()
    }

    /// Reads bits until they are a code; codes are lists of (length, code, symbol).
    fn symbol(&mut self, codes: &[(usize, usize, usize)]) -> usize {
        let (mut length, mut code) = (0, 0);
        loop {
            code = code << 1 | self.bit();
            length += 1;
            if let Some(found) = codes.iter().find(|(l, c, _)| (*l, *c) == (length, code)) {
                return found.2;
            }
        }
    }

    fn codes(lengths: &[usize]) -> Vec<(usize, usize, usize)> {
        let mut codes = Vec::new();
        let mut code = 0;
        for length in 1..16 {
            for (symbol, _) in lengths.iter().enumerate().filter(|(_, l)| **l == length) {
                codes.push((length, code, symbol));
                code += 1;
            }
            code <<= 1;
        }
        codes
    }

    fn tables(&mut self) -> (Vec<usize>, Vec<usize>) {
        let (literals, distances, count) = (self.bits(5) + 257, self.bits(5) + 1, self.bits(4) + 4);
        let mut own = [0; 19];
        for at in
            [16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15].iter().take(count)
        {
            own[*at] = self.bits(3);
        }
        let code = Self::codes(&own);
        let mut lengths: Vec<usize> = Vec::new();
        while lengths.len() < literals + distances {
            let (value, times) = match self.symbol(&code) {
                16 => (*lengths.last().unwrap(), 3 + self.bits(2)),
                17 => (0, 3 + self.bits(3)),
                18 => (0, 11 + self.bits(7)),
                length => (length, 1),
            };
            lengths.extend(std::iter::repeat_n(value, times));
        }
        let distances = lengths.split_off(literals);
        (lengths, distances)
    }

    fn block(&mut self) -> bool {
        let (start, first) = (self.at, self.text.len());
        let last = self.bit() == 1;
        match self.bits(2) {
            0 => {
                self.at = self.at.div_ceil(8) * 8;
                let length = self.bits(16);
                self.bits(16);
                for _ in 0..length {
                    let byte = self.bits(8);
                    self.text.push(u8::try_from(byte).unwrap());
                    self.costs.push(8.0);
                }
            }
            kind => {
                let (literals, distances) = if kind == 2 {
                    self.tables()
                } else {
                    let length = |symbol| match symbol {
                        144..256 => 9,
                        256..280 => 7,
                        _ => 8,
                    };
                    ((0..288).map(length).collect(), vec![5; 30])
                };
                let (literals, distances) = (Self::codes(&literals), Self::codes(&distances));
                loop {
                    let before = self.at;
                    let symbol = self.symbol(&literals);
                    if symbol == 256 {
                        break;
                    }
                    if symbol < 256 {
                        self.text.push(u8::try_from(symbol).unwrap());
                        self.costs.push((self.at - before) as f64);
                        continue;
                    }
                    // Lengths and distances grow by a power of two every few symbols.
                    let step = symbol - 257;
                    let length = match step {
                        0..8 => 3 + step,
                        28 => 258,
                        _ => {
                            let extra = step / 4 - 1;
                            3 + ((4 + step % 4) << extra) + self.bits(extra)
                        }
                    };
                    let step = self.symbol(&distances);
                    let distance = match step {
                        0..4 => 1 + step,
                        _ => {
                            let extra = step / 2 - 1;
                            1 + ((2 + step % 2) << extra) + self.bits(extra)
                        }
                    };
                    let cost = (self.at - before) as f64 / length as f64;
                    for _ in 0..length {
                        self.text.push(self.text[self.text.len() - distance]);
                        self.costs.push(cost);
                    }
                }
            }
        }
        if last {
            self.at = self.at.div_ceil(8) * 8;
        }
        let tokens: f64 = self.costs[first..].iter().sum();
        for cost in &mut self.costs[first..] {
            *cost *= (self.at - start) as f64 / tokens;
        }
        last
    }
}

/// Texts like code: words that come again, and noise that does not.
fn texts() -> impl Strategy<Value = Vec<u8>> {
    let words = prop::collection::vec(
        prop::sample::select(vec![
            "function ",
            "ferry",
            "(e,t)",
            "{return ",
            "tide.high",
            "};",
            "\"quay\"",
            "é",
            "0",
            "=>",
        ]),
        0..400,
    );
    let noise = prop::collection::vec(any::<u8>(), 0..600);
    (words, noise, any::<bool>()).prop_map(|(words, noise, mixed)| {
        let mut text = words.concat().into_bytes();
        if mixed {
            text.extend(&noise);
            text.extend(words.concat().as_bytes());
        }
        text
    })
}

/// Holds a raw stream's charges against the naive decoder's.
fn hold(stream: &[u8], text: &[u8], cuts: impl Iterator<Item = usize>) {
    let mut naive = Naive { stream, at: 0, text: Vec::new(), costs: Vec::new() };
    while !naive.block() {}
    assert!(naive.text == text);
    let mut cuts: Vec<usize> = cuts.map(|cut| cut % (text.len() + 1)).collect();
    cuts.sort_unstable();
    cuts.push(text.len());
    let ends: Vec<u64> = cuts.iter().map(|&cut| cut as u64).collect();
    let Charges { stretches, container } = charge(stream, Container::Raw, &ends).unwrap();
    assert_eq!(stretches.iter().sum::<u64>() + container, 8 * stream.len() as u64);
    let mut start = 0;
    for (end, bits) in cuts.into_iter().zip(&stretches) {
        let exact: f64 = naive.costs[start..end].iter().sum();
        assert!((*bits as f64 - exact).abs() <= 1.0 + 1e-6, "{bits} bits, exactly {exact}");
        start = end;
    }
}

const FERRIES: &[u8] = include_bytes!("../../tests/streams/ferries.txt");

/// By stock zlib, by a second encoder, and by the fork of zlib that is in Node.
#[rstest]
fn code_costs_what_the_naive_decoder_says(#[values(1, 6, 9)] level: u8) {
    let cuts = || (0..200).map(|at| at * 151);
    hold(&packed(FERRIES, Container::Raw, level.into()), FERRIES, cuts());
    hold(&miniz_oxide::deflate::compress_to_vec(FERRIES, level), FERRIES, cuts());
    let nodes = include_bytes!("../../tests/streams/level-6.gz");
    hold(&nodes[10..nodes.len() - 8], FERRIES, cuts());
}

proptest! {
    #[test]
    fn stretches_cost_what_the_naive_decoder_says(
        text in texts(),
        cuts in prop::collection::vec(0_usize..2000, 0..12),
        level in 0_u8..10,
    ) {
        hold(&packed(&text, Container::Raw, level.into()), &text, cuts.iter().copied());
        hold(&miniz_oxide::deflate::compress_to_vec(&text, level), &text, cuts.into_iter());
    }

    #[test]
    fn any_cut_adds_up_in_every_container(text in texts(), cut in 0_usize..4000, level in 1_u32..10) {
        let cut = (cut % (text.len() + 1)) as u64;
        let all = text.len() as u64;
        for (container, around) in [(Container::Raw, 0), (Container::Zlib, 48), (Container::Gzip, 144)] {
            let stream = packed(&text, container, level);
            let two = charge(&stream, container, &[cut, all]).unwrap();
            let one = charge(&stream, container, &[all]).unwrap();
            prop_assert_eq!(two.stretches[0] + two.stretches[1], one.stretches[0]);
            prop_assert_eq!(one.stretches[0] + one.container, 8 * stream.len() as u64);
            if !text.is_empty() {
                prop_assert_eq!(one.container, around);
            }
        }
    }

    #[test]
    fn damage_is_an_error_or_an_answer(text in texts(), at in 0_usize..3000, bit in 0_u8..8) {
        let mut stream = packed(&text, Container::Gzip, 9);
        let at = at % stream.len();
        stream[at] ^= 1 << bit;
        if let Ok(charges) = charge(&stream, Container::Gzip, &[text.len() as u64]) {
            prop_assert_eq!(charges.stretches[0] + charges.container, 8 * stream.len() as u64);
        }
        stream.truncate(at);
        prop_assert!(charge(&stream, Container::Gzip, &[text.len() as u64]).is_err());
    }
}

#[test]
fn a_stream_of_another_text_is_refused() {
    let stream = packed(b"nine o'clock", Container::Gzip, 9);
    let error = charge(&stream, Container::Gzip, &[5]).unwrap_err();
    assert_eq!(error, StreamError::Length { stream: 12, text: 5 });
    let two = [stream.clone(), stream].concat();
    assert_eq!(charge(&two, Container::Gzip, &[12, 24]).unwrap().stretches.len(), 2);
}
