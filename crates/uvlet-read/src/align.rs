//! Tells modules apart that a bundler merged into one function.
//!
//! The modules stand in the function in the order of evaluation, without a mark between them, and
//! minifiers move functions that are used once to where they are used. Where sources are known,
//! words that survive minifying (strings, names of properties, regular expressions) and pairs of
//! them tell whose code it is: each word is handed to the module that makes the whole sequence
//! likeliest, where a word counts by how few modules hold it and a change of module costs something,
//! less if it is to the next one (Viterbi, "Error bounds for convolutional codes", 1967). Code
//! between two words goes with the one before. Where no source is known, the function is cut in
//! proportion to expected sizes.

use std::{
    collections::{HashMap, HashSet},
    hash::{DefaultHasher, Hash, Hasher},
};

use oxc_allocator::Allocator;
use oxc_ast::ast::{IdentifierName, JSXText, RegExpLiteral, StringLiteral, TemplateElement};
use oxc_ast_visit::Visit;
use oxc_parser::Parser;
use oxc_span::{SourceType, Span};
use uvlet_record::Used;

use crate::{emitted::is_too_deep, told::ToldModule};

/// A statement of the function, or a part of one.
pub struct Unit<'t> {
    /// Where it stands in the file.
    pub start: usize,
    /// Its text.
    pub text: &'t str,
}

impl Unit<'_> {
    fn end(&self) -> usize {
        self.start + self.text.len()
    }
}

/// What is known of a module beforehand.
pub struct Hint {
    /// Words of its source, and pairs of them.
    words: Option<HashSet<u64>>,
    /// About how much of the function it should be, in any unit.
    weight: u64,
}

impl Hint {
    /// Whether only sizes are known of it.
    pub fn is_mere_size(&self) -> bool {
        self.words.is_none()
    }

    /// From what the bundler says, and the source where it is at hand.
    pub fn new(module: &ToldModule, text: Option<String>) -> Self {
        let read = text.and_then(|text| words_of(&text, true));
        let bytes = match &read {
            Some(words) => words.code,
            None => module.bytes.unwrap_or(0),
        };
        Self {
            weight: bytes.saturating_mul(used_share(module)) / 1000,
            words: read.map(|read| signs(&read.words).map(|(_, sign)| sign).collect()),
        }
    }
}

/// Thousandths of a module that are likely kept: of many exports, those that are used and what they
/// share.
fn used_share(module: &ToldModule) -> u64 {
    let (Some(provides), Some(Used::Names(used))) = (&module.provides, &module.used) else {
        return 1000;
    };
    // What exports nothing that is used is there for what it does, and so as a whole.
    if provides.is_empty() || used.is_empty() {
        return 1000;
    }
    (1000 * used.len() as u64 / provides.len() as u64).clamp(100, 1000)
}

/// A stretch of the function, and whose it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Share {
    pub start: usize,
    pub end: usize,
    /// The module, by its place among the hints.
    pub owner: usize,
}

/// Hands the units, or parts of them, to modules, in the order of the text.
pub fn align(units: &[Unit<'_>], hints: &[Hint]) -> Vec<Share> {
    if hints.iter().all(Hint::is_mere_size) {
        let owners = by_size(units, hints).into_iter().zip(units);
        return owners
            .map(|(owner, unit)| Share { start: unit.start, end: unit.end(), owner })
            .collect();
    }
    let mut holders: HashMap<u64, Vec<u32>> = HashMap::new();
    for (at, hint) in (0_u32..).zip(hints) {
        for &sign in hint.words.iter().flatten() {
            holders.entry(sign).or_default().push(at);
        }
    }
    // What very many hold tells little, and would make the work grow with their number.
    holders.retain(|_, holders| holders.len() <= COMMON);
    let mut seen: Vec<(usize, &[u32])> = Vec::new();
    for unit in units {
        let Some(read) = words_of(unit.text, false) else { continue };
        for (at, sign) in signs(&read.words) {
            if let Some(holders) = holders.get(&sign) {
                seen.push((unit.start + at, holders));
            }
        }
    }
    let owners = likeliest(&seen, hints.len());
    shares(units, &seen, &owners)
}

/// The likeliest module of every sign. Only modules whose score is within the cost of a change to any
/// other are kept from sign to sign, as all others are best reached by such a change: work and memory
/// grow with the signs and their holders, not with signs times modules.
fn likeliest(seen: &[(usize, &[u32])], modules: usize) -> Vec<usize> {
    let mut active: Vec<(u32, f64)> = Vec::new();
    let mut steps: Vec<Vec<(u32, Move)>> = Vec::with_capacity(seen.len());
    let mut leads: Vec<u32> = Vec::with_capacity(seen.len());
    for (row, (_, holders)) in seen.iter().enumerate() {
        let (lead, best) = best(&active);
        leads.push(lead);
        // Before the first sign no module costs more than another.
        let others = if row == 0 { 0.0 } else { best - JUMP };
        let mut reached = carried(&active, others, modules);
        let weight = (float(modules as u64 + 1) / float(holders.len() as u64)).ln() + ABSENT;
        reward(&mut reached, holders, others, weight);
        let lead = reached.iter().map(|(_, score, _)| *score).fold(f64::MIN, f64::max);
        reached.retain(|(_, score, _)| *score > lead - JUMP);
        active = reached.iter().map(|&(module, score, _)| (module, score)).collect();
        steps.push(reached.into_iter().map(|(module, _, step)| (module, step)).collect());
    }
    let mut at = best(&active).0;
    let mut owners = vec![0; seen.len()];
    for row in (0..seen.len()).rev() {
        owners[row] = at as usize;
        let step = steps[row].binary_search_by_key(&at, |(module, _)| *module);
        at = match step.map_or(Move::Jump, |step| steps[row][step].1) {
            Move::Stay => at,
            Move::Next => at - 1,
            Move::Jump => leads[row],
        };
    }
    owners
}

/// What the modules that are kept come to without the sign itself: by staying, or from the one
/// before. By module; what a change from the leading one reaches as well is left out.
fn carried(active: &[(u32, f64)], others: f64, modules: usize) -> Vec<(u32, f64, Move)> {
    let mut reached: Vec<(u32, f64, Move)> = Vec::with_capacity(2 * active.len());
    for &(module, score) in active {
        match reached.last_mut() {
            Some(last) if last.0 == module => {
                if score >= last.1 {
                    *last = (module, score, Move::Stay);
                }
            }
            _ => reached.push((module, score, Move::Stay)),
        }
        if score - NEXT > others && (module as usize) + 1 < modules {
            reached.push((module + 1, score - NEXT, Move::Next));
        }
    }
    reached
}

/// Adds the weight of a sign to the modules that hold it.
fn reward(reached: &mut Vec<(u32, f64, Move)>, holders: &[u32], others: f64, weight: f64) {
    let mut merged = Vec::with_capacity(reached.len() + holders.len());
    let mut kept = reached.iter().copied().peekable();
    for &holder in holders {
        while let Some(one) = kept.next_if(|(module, ..)| *module < holder) {
            merged.push(one);
        }
        let (score, step) = match kept.next_if(|(module, ..)| *module == holder) {
            Some((_, score, step)) => (score, step),
            None => (others, Move::Jump),
        };
        merged.push((holder, score + weight, step));
    }
    merged.extend(kept);
    *reached = merged;
}

/// How the sequence came to a module.
#[derive(Clone, Copy)]
enum Move {
    Stay,
    Next,
    Jump,
}

/// What a change to any module costs, in the measure of a word's weight: about one telling word.
const JUMP: f64 = 5.0;

/// What a change to the next module costs.
const NEXT: f64 = 2.0;

/// Modules that may hold a sign which still tells them apart.
const COMMON: usize = 256;

/// What it counts against a module that it lacks a word which another one holds.
const ABSENT: f64 = 1.0;

/// The module with the best score, the first of several; the first of all where none is known yet.
fn best(active: &[(u32, f64)]) -> (u32, f64) {
    let better = |a: (u32, f64), b: (u32, f64)| if b.1 > a.1 { b } else { a };
    active.iter().copied().reduce(better).unwrap_or((0, 0.0))
}

/// Makes shares of signs with owners. A unit begins with the owner of its first sign; one without
/// signs goes with what follows.
fn shares(units: &[Unit<'_>], seen: &[(usize, &[u32])], owners: &[usize]) -> Vec<Share> {
    let mut shares: Vec<Share> = Vec::with_capacity(units.len());
    let mut next = 0;
    for unit in units {
        let mut start = unit.start;
        let first = owners.get(next).or(owners.last()).copied();
        let mut owner = first.unwrap_or(0);
        while let Some((at, _)) = seen.get(next).filter(|(at, _)| *at < unit.end()) {
            if owners[next] != owner {
                shares.push(Share { start, end: *at, owner });
                (start, owner) = (*at, owners[next]);
            }
            next += 1;
        }
        shares.push(Share { start, end: unit.end(), owner });
    }
    shares.retain(|share| share.start < share.end);
    shares
}

/// Digests of words and of pairs of neighbours, with their places.
fn signs(words: &[(usize, String)]) -> impl Iterator<Item = (usize, u64)> + '_ {
    let digest = |parts: &[&str]| {
        let mut hasher = DefaultHasher::new();
        parts.hash(&mut hasher);
        hasher.finish()
    };
    let pairs = std::iter::once(None).chain(words.iter().map(Some));
    words.iter().zip(pairs).flat_map(move |((at, word), before)| {
        let pair = before.map(|(_, before)| (*at, digest(&[before, word])));
        std::iter::once((*at, digest(&[word]))).chain(pair)
    })
}

/// Cuts the function in proportion to the weights, at the nearest ends of units.
fn by_size(units: &[Unit<'_>], hints: &[Hint]) -> Vec<usize> {
    let all: u64 = hints.iter().map(|hint| hint.weight).fold(0, u64::saturating_add).max(1);
    let length: u64 = units.iter().map(|unit| unit.text.len() as u64).sum::<u64>().max(1);
    let mut owners = Vec::with_capacity(units.len());
    let (mut at, mut passed) = (0, 0_u64);
    let mut end = hints.first().map_or(0, |hint| hint.weight);
    for unit in units {
        let middle = passed + unit.text.len() as u64 / 2;
        while at + 1 < hints.len()
            && u128::from(middle) * u128::from(all) > u128::from(end) * u128::from(length)
        {
            at += 1;
            end = end.saturating_add(hints[at].weight);
        }
        owners.push(at);
        passed += unit.text.len() as u64;
    }
    owners
}

fn float(count: u64) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "counts of one build are far below 2⁵³")]
    let float = count as f64;
    float
}

struct Read {
    /// By place in the text.
    words: Vec<(usize, String)>,
    /// Bytes of code, without comments and indentation.
    code: u64,
}

/// Words of a text that minifying keeps.
fn words_of(text: &str, is_module: bool) -> Option<Read> {
    if is_too_deep(text) {
        return None;
    }
    let allocator = Allocator::default();
    let kind = if is_module { SourceType::tsx() } else { SourceType::cjs() };
    // A part of a declaration is made one.
    let wrapped;
    let mut added = 0;
    let parsed = if is_module {
        let parsed = Parser::new(&allocator, text, kind).parse();
        if parsed.panicked {
            Parser::new(&allocator, text, SourceType::unambiguous()).parse()
        } else {
            parsed
        }
    } else {
        let parsed = Parser::new(&allocator, text, kind).parse();
        if parsed.panicked {
            wrapped = format!("{DECLARED}{text}");
            added = DECLARED.len();
            Parser::new(&allocator, &wrapped, kind).parse()
        } else {
            parsed
        }
    };
    if parsed.panicked {
        return None;
    }
    let mut words = Words { found: Vec::new(), added };
    words.visit_program(&parsed.program);
    // A template's texts are visited before what stands between them.
    words.found.sort_by_key(|&(at, _)| at);
    let comments: u64 =
        parsed.program.comments.iter().map(|comment| u64::from(comment.span.size())).sum();
    let spaces = text.lines().map(|line| line.len() - line.trim_start().len() + 1).sum::<usize>();
    let code = (text.len() as u64).saturating_sub(comments + spaces as u64);
    Some(Read { words: words.found, code })
}

const DECLARED: &str = "var ";

struct Words {
    found: Vec<(usize, String)>,
    /// Bytes that were put before the text.
    added: usize,
}

impl Words {
    fn add(&mut self, span: Span, kind: char, text: &str) {
        if text.len() > 1 {
            let at = (span.start as usize).saturating_sub(self.added);
            self.found.push((at, format!("{kind}{text}")));
        }
    }
}

impl<'a> Visit<'a> for Words {
    fn visit_string_literal(&mut self, literal: &StringLiteral<'a>) {
        self.add(literal.span, '"', &literal.value);
    }

    fn visit_template_element(&mut self, part: &TemplateElement<'a>) {
        self.add(part.span, '"', part.value.cooked.as_deref().unwrap_or(&part.value.raw));
    }

    fn visit_reg_exp_literal(&mut self, literal: &RegExpLiteral<'a>) {
        self.add(literal.span, '/', &literal.regex.pattern.text);
    }

    fn visit_identifier_name(&mut self, name: &IdentifierName<'a>) {
        self.add(name.span, '.', &name.name);
    }

    fn visit_jsx_text(&mut self, text: &JSXText<'a>) {
        self.add(text.span, '"', text.value.trim());
    }
}

#[cfg(test)]
mod tests {
    use super::words_of;

    #[test]
    fn words_stand_in_the_order_of_the_text() {
        let text = "go(`low ${e.harbour} water ${e.quay} high`, e.departure)";
        let words = words_of(text, false).unwrap().words;
        let words: Vec<&str> = words.iter().map(|(_, word)| word.as_str()).collect();
        let expected = ["\"low ", ".harbour", "\" water ", ".quay", "\" high", ".departure"];
        assert_eq!(words, expected);
    }
}
