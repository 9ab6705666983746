//! Held against a second decoder, which rebuilds the text from the stream alone: plain lists of codes,
//! bit by bit, costs per byte in floating point.

use brotli_decompressor::{
    dictionary::{
        kBrotliDictionary, kBrotliDictionaryOffsetsByLength, kBrotliDictionarySizeBitsByLength,
    },
    transform::TransformDictionaryWord,
};
use proptest::prelude::*;
use rstest::rstest;

use super::{CELLS, COPIED, INSERTED, charge, codes::context};
use crate::{
    charges::{Charges, StreamError},
    coding::Coding,
};

type Codes = Vec<(usize, usize, usize)>;

struct Naive<'s> {
    stream: &'s [u8],
    at: usize,
    text: Vec<u8>,
    costs: Vec<f64>,
}

/// Current and previous type, symbols left, and the codes of types and counts.
struct Category {
    types: usize,
    now: usize,
    before: usize,
    left: usize,
    codes: (Codes, Codes),
}

impl Naive<'_> {
    fn bits(&mut self, count: usize) -> usize {
        let mut value = 0;
        for shift in 0..count {
            value |= usize::from(self.stream[self.at / 8] >> (self.at % 8) & 1) << shift;
            self.at += 1;
        }
        value
    }

    fn align(&mut self) {
        self.at = self.at.div_ceil(8) * 8;
    }

    fn symbol(&mut self, codes: &Codes) -> usize {
        if let [(_, _, only)] = codes[..] {
            return only;
        }
        let (mut length, mut code) = (0, 0);
        loop {
            code = code << 1 | self.bits(1);
            length += 1;
            if let Some(found) = codes.iter().find(|(l, c, _)| (*l, *c) == (length, code)) {
                return found.2;
            }
        }
    }

    fn canonical(lengths: &[usize]) -> Codes {
        let (mut codes, mut code) = (Vec::new(), 0);
        for length in 1..16 {
            for symbol in (0..lengths.len()).filter(|&s| lengths[s] == length) {
                codes.push((length, code, symbol));
                code += 1;
            }
            code <<= 1;
        }
        codes
    }

    fn code(&mut self, alphabet: usize) -> Codes {
        let skipped = self.bits(2);
        let mut lengths = vec![0; alphabet];
        if skipped == 1 {
            let width = (0..).find(|&w| alphabet <= 1 << w).unwrap();
            let count = self.bits(2) + 1;
            let symbols: Vec<usize> = (0..count).map(|_| self.bits(width)).collect();
            let of_each = match count {
                1 => return vec![(0, 0, symbols[0])],
                2 => vec![1, 1],
                3 => vec![1, 2, 2],
                _ => [vec![2, 2, 2, 2], vec![1, 2, 3, 3]][self.bits(1)].clone(),
            };
            for (symbol, length) in symbols.into_iter().zip(of_each) {
                lengths[symbol] = length;
            }
            return Self::canonical(&lengths);
        }
        let mut own = vec![0; 18];
        let order = [1, 2, 3, 4, 0, 5, 17, 6, 16, 7, 8, 9, 10, 11, 12, 13, 14, 15];
        for &at in &order[skipped..] {
            if own.iter().map(|&l| if l > 0 { 32 >> l } else { 0 }).sum::<usize>() >= 32 {
                break;
            }
            // As the standard lists them, first bit last: 00, 10, 01, 011, 0111, 1111.
            own[at] = match (self.bits(1), self.bits(1)) {
                (0, 0) => 0,
                (0, 1) => 3,
                (1, 0) => 4,
                _ => match self.bits(1) {
                    0 => 2,
                    _ => [1, 5][self.bits(1)],
                },
            };
        }
        let own = Self::canonical(&own);
        let (mut at, mut last) = (0, 8);
        let mut run: Option<(usize, usize)> = None;
        while at < alphabet
            && lengths.iter().map(|&l| if l > 0 { 32768 >> l } else { 0 }).sum::<usize>() < 32768
        {
            match self.symbol(&own) {
                symbol @ 16.. => {
                    let extra = symbol - 14;
                    let (length, more) = (if symbol == 16 { last } else { 0 }, self.bits(extra));
                    let (done, all) = match run {
                        Some((same, done)) if same == symbol => {
                            (done, ((done - 2) << extra) + 3 + more)
                        }
                        _ => (0, 3 + more),
                    };
                    for _ in done..all {
                        lengths[at] = length;
                        at += 1;
                    }
                    run = Some((symbol, all));
                }
                length => {
                    lengths[at] = length;
                    at += 1;
                    run = None;
                    if length > 0 {
                        last = length;
                    }
                }
            }
        }
        Self::canonical(&lengths)
    }

    fn few(&mut self) -> usize {
        if self.bits(1) == 0 {
            return 1;
        }
        let extra = self.bits(3);
        1 + (1 << extra) + self.bits(extra)
    }

    fn count(&mut self, codes: &Codes) -> usize {
        let widths =
            [2, 2, 2, 2, 3, 3, 3, 3, 4, 4, 4, 4, 5, 5, 5, 5, 6, 6, 7, 8, 9, 10, 11, 12, 13, 24];
        let symbol = self.symbol(codes);
        // Each count goes on where the one before it ends.
        let base: usize = 1 + widths[..symbol].iter().map(|width| 1 << width).sum::<usize>();
        base + self.bits(widths[symbol])
    }

    fn category(&mut self) -> Category {
        let types = self.few();
        if types == 1 {
            let codes = (Vec::new(), Vec::new());
            return Category { types, now: 0, before: 1, left: usize::MAX, codes };
        }
        let codes = (self.code(types + 2), self.code(26));
        let left = self.count(&codes.1);
        Category { types, now: 0, before: 1, left, codes }
    }

    fn next(&mut self, category: &mut Category) -> usize {
        if category.left == 0 {
            let next = match self.symbol(&category.codes.0) {
                0 => category.before,
                1 => (category.now + 1) % category.types,
                code => code - 2,
            };
            category.before = category.now;
            category.now = next;
            category.left = self.count(&category.codes.1);
        }
        category.left -= 1;
        category.now
    }

    fn map(&mut self, contexts: usize) -> (usize, Vec<usize>) {
        let trees = self.few();
        if trees == 1 {
            return (1, vec![0; contexts]);
        }
        let runs = if self.bits(1) == 1 { self.bits(4) + 1 } else { 0 };
        let codes = self.code(trees + runs);
        let mut map = Vec::new();
        while map.len() < contexts {
            match self.symbol(&codes) {
                0 => map.push(0),
                run if run <= runs => {
                    let zeros = (1 << run) + self.bits(run);
                    map.extend(vec![0; zeros]);
                }
                value => map.push(value - runs),
            }
        }
        if self.bits(1) == 1 {
            let mut front: Vec<usize> = (0..256).collect();
            for value in &mut map {
                let at = *value;
                *value = front[at];
                front[..=at].rotate_right(1);
            }
        }
        (trees, map)
    }

    fn decode(&mut self) {
        let window = match self.bits(1) {
            0 => 16,
            _ => match self.bits(3) {
                0 => match self.bits(3) {
                    0 => 17,
                    small => 8 + small,
                },
                large => 17 + large,
            },
        };
        let mut ring = vec![16_usize, 15, 11, 4];
        loop {
            let (start, first) = (self.at, self.text.len());
            let last = self.bits(1) == 1;
            if !(last && self.bits(1) == 1) {
                self.meta_block(last, (1 << window) - 16, &mut ring);
            }
            if last {
                self.align();
            }
            let tokens: f64 = self.costs[first..].iter().sum();
            for cost in &mut self.costs[first..] {
                *cost *= (self.at - start) as f64 / tokens;
            }
            if last {
                return;
            }
        }
    }

    fn meta_block(&mut self, last: bool, window: usize, ring: &mut Vec<usize>) {
        let nibbles = self.bits(2);
        if nibbles == 3 {
            self.bits(1);
            let bytes = self.bits(2);
            let skipped = if bytes > 0 { self.bits(8 * bytes) + 1 } else { 0 };
            self.align();
            self.at += 8 * skipped;
            return;
        }
        let length = self.bits(4 * (nibbles + 4)) + 1;
        let end = self.text.len() + length;
        if !last && self.bits(1) == 1 {
            self.align();
            for _ in 0..length {
                let byte = self.bits(8);
                self.text.push(u8::try_from(byte).unwrap());
                self.costs.push(8.0);
            }
            return;
        }
        let mut kinds = [self.category(), self.category(), self.category()];
        let postfix = self.bits(2);
        let direct = self.bits(4) << postfix;
        let modes: Vec<usize> = (0..kinds[0].types).map(|_| self.bits(2)).collect();
        let (literal_trees, literal_map) = self.map(64 * kinds[0].types);
        let (distance_trees, distance_map) = self.map(4 * kinds[2].types);
        let literals: Vec<Codes> = (0..literal_trees).map(|_| self.code(256)).collect();
        let commands: Vec<Codes> = (0..kinds[1].types).map(|_| self.code(704)).collect();
        let distances: Vec<Codes> =
            (0..distance_trees).map(|_| self.code(16 + direct + (48 << postfix))).collect();
        while self.text.len() < end {
            let kind = self.next(&mut kinds[1]);
            let before = self.at;
            let symbol = self.symbol(&commands[kind]);
            let (insert, copy) = CELLS[symbol / 64];
            let (base, extra) = INSERTED[insert + symbol / 8 % 8];
            let insert_bits = whole(extra);
            let inserted = whole(base) + self.bits(insert_bits);
            let (base, extra) = COPIED[copy + symbol % 8];
            let copied = whole(base) + self.bits(whole(extra));
            let mut cost = (self.at - before) as f64;
            let copies = self.text.len() + inserted < end;
            let on_literals = if copies { insert_bits as f64 } else { cost };
            cost -= on_literals;
            for _ in 0..inserted {
                let kind = self.next(&mut kinds[0]);
                let back = |n: usize| self.text.iter().rev().nth(n).copied().unwrap_or(0);
                let at = 64 * kind + context(modes[kind] as u64, back(0), back(1));
                let before = self.at;
                let byte = self.symbol(&literals[literal_map[at]]);
                self.text.push(u8::try_from(byte).unwrap());
                self.costs.push((self.at - before) as f64 + on_literals / inserted as f64);
            }
            if !copies {
                return;
            }
            let (distance, is_new) = if symbol < 128 {
                (ring[3], false)
            } else {
                let kind = self.next(&mut kinds[2]);
                let before = self.at;
                let symbol = self.symbol(&distances[distance_map[4 * kind + (copied - 2).min(3)]]);
                let distance = match symbol {
                    0..4 => ring[3 - symbol],
                    4..10 => ring[3] + [2, 4, 1, 5, 0, 6][symbol - 4] - 3,
                    10..16 => ring[2] + [2, 4, 1, 5, 0, 6][symbol - 10] - 3,
                    _ if symbol < 16 + direct => symbol - 15,
                    _ => {
                        let code = symbol - direct - 16;
                        let (high, low) = (code >> postfix, code % (1 << postfix));
                        let width = 1 + high / 2;
                        let offset = ((2 + high % 2) << width) - 4 + self.bits(width);
                        (offset << postfix) + low + direct + 1
                    }
                };
                cost += (self.at - before) as f64;
                (distance, symbol != 0)
            };
            let reach = window.min(self.text.len());
            let made: Vec<u8> = if distance <= reach {
                if is_new {
                    ring.remove(0);
                    ring.push(distance);
                }
                (0..copied).map(|n| self.text[self.text.len() - distance + n % distance]).collect()
            } else {
                let id = distance - reach - 1;
                let size = kBrotliDictionarySizeBitsByLength[copied];
                let index = id % (1 << size);
                let at = kBrotliDictionaryOffsetsByLength[copied] as usize + index * copied;
                let mut made = vec![0; 100];
                let [length, transform] = [copied, id >> size].map(|n| i32::try_from(n).unwrap());
                let word = &kBrotliDictionary[at..at + copied];
                let bytes = TransformDictionaryWord(&mut made, word, length, transform);
                made.truncate(usize::try_from(bytes).unwrap());
                made
            };
            self.costs.extend(vec![cost / made.len() as f64; made.len()]);
            self.text.extend(made);
        }
    }
}

fn whole(number: impl TryInto<usize>) -> usize {
    number.try_into().ok().unwrap()
}

/// Costs per byte by the naive decoder, which must find the text.
fn naive(stream: &[u8], text: &[u8]) -> Vec<f64> {
    let mut naive = Naive { stream, at: 0, text: Vec::new(), costs: Vec::new() };
    naive.decode();
    assert!(naive.text == text);
    naive.costs
}

fn hold(stream: &[u8], text: &[u8], cuts: impl Iterator<Item = usize>) {
    let costs = naive(stream, text);
    let mut ends: Vec<u64> = cuts.map(|cut| (cut % (text.len() + 1)) as u64).collect();
    ends.sort_unstable();
    ends.push(text.len() as u64);
    let Charges { stretches, container } = charge(stream, text, &ends).unwrap();
    assert_eq!(stretches.iter().sum::<u64>() + container, 8 * stream.len() as u64);
    let mut start = 0;
    for (&end, &bits) in ends.iter().zip(&stretches) {
        let exact: f64 = costs[start..whole(end)].iter().sum();
        assert!((bits as f64 - exact).abs() <= 1.0 + 1e-3, "{bits} bits, exactly {exact}");
        start = whole(end);
    }
}

const FERRIES: &[u8] = include_bytes!("../../tests/streams/ferries.txt");

#[rstest]
#[case::much_modelled(include_bytes!("../../tests/streams/quality-11.br"))]
#[case::plainly(include_bytes!("../../tests/streams/quality-5.br"))]
#[case::in_a_small_window(include_bytes!("../../tests/streams/direct-distances.br"))]
fn streams_of_another_encoder_cost_what_the_naive_decoder_says(#[case] stream: &[u8]) {
    hold(stream, FERRIES, (0..200).map(|at| at * 151));
}

#[rstest]
fn streams_of_the_own_encoder_cost_what_the_naive_decoder_says(
    #[values(0, 1, 2, 5, 9, 10, 11)] level: u32,
) {
    let text = [FERRIES, "Öresund → Ærø, ".repeat(40).as_bytes(), &FERRIES[..9000]].concat();
    let stream = Coding::Br.encode(&text, level, &|_| {}).unwrap();
    hold(&stream, &text, (0..300).map(|at| at * 97));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    #[test]
    fn so_do_random_texts(
        words in prop::collection::vec(
            prop::sample::select(vec!["function ", "ferry", "(e,t)", " the tide", "};", "é", "0", "\n"]),
            0..300,
        ),
        noise in prop::collection::vec(any::<u8>(), 0..600),
        cuts in prop::collection::vec(0_usize..3000, 0..12),
        level in 0_u32..12,
    ) {
        let text = [words.concat().as_bytes(), &noise, words.concat().as_bytes()].concat();
        hold(&Coding::Br.encode(&text, level, &|_| {}).unwrap(), &text, cuts.into_iter());
    }

    #[test]
    fn damage_is_an_error_or_an_answer(at in 0_usize..9000, bit in 0_u8..8, level in 0_u32..12) {
        let text = &FERRIES[..6000];
        let mut stream = Coding::Br.encode(text, level, &|_| {}).unwrap();
        let at = at % stream.len();
        stream[at] ^= 1 << bit;
        if let Ok(charges) = charge(&stream, text, &[text.len() as u64]) {
            prop_assert_eq!(charges.stretches[0] + charges.container, 8 * stream.len() as u64);
        }
        stream[at] ^= 1 << bit;
        stream.truncate(at);
        prop_assert!(charge(&stream, text, &[text.len() as u64]).is_err());
    }
}

#[test]
fn a_stream_of_another_text_is_refused() {
    let stream = Coding::Br.encode(b"nine o'clock", 11, &|_| {}).unwrap();
    let error = charge(&stream, b"noon", &[4]).unwrap_err();
    assert_eq!(error, StreamError::Length { stream: 12, text: 4 });
}
