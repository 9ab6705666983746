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
    ops::Range,
};

use uvlet_script::{
    Script,
    words::{Words, code_bytes, signs},
};

/// What is known of a module beforehand.
#[derive(Debug, Default)]
pub struct Hint {
    /// Words of its source, and pairs of them.
    words: Option<HashSet<u64>>,
    /// About how much of the function it should be, in any unit.
    weight: u64,
}

impl Hint {
    /// Of a module whose source is known; `kept` are the thousandths of it that are likely kept.
    pub fn of_source(source: &Script<'_>, kept: u64) -> Self {
        let words = signs(Words::of(source).all()).map(|(_, sign)| sign).collect();
        Self { words: Some(words), weight: code_bytes(source).saturating_mul(kept) / 1000 }
    }

    /// Of a module of which only a size is known.
    pub fn of_size(bytes: u64, kept: u64) -> Self {
        Self { words: None, weight: bytes.saturating_mul(kept) / 1000 }
    }

    /// Whether only sizes are known of it.
    pub fn is_mere_size(&self) -> bool {
        self.words.is_none()
    }
}

/// A stretch of the function, and whose it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Share {
    pub start: usize,
    pub end: usize,
    /// The module, by its place among the hints.
    pub owner: usize,
}

/// Hands the units of a script (statements of the function, or parts of them, in order), or parts of
/// these, to modules.
pub fn align(units: &[Range<usize>], words: &Words, hints: &[Hint]) -> Vec<Share> {
    if hints.iter().all(Hint::is_mere_size) {
        let owners = by_size(units, hints).into_iter().zip(units);
        return owners
            .map(|(owner, unit)| Share { start: unit.start, end: unit.end, owner })
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
        for (at, sign) in signs(words.within(unit)) {
            if let Some(holders) = holders.get(&sign) {
                seen.push((at, holders));
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
    let mut steps = Steps::default();
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
        steps.add(&reached);
    }
    let mut at = best(&active).0;
    let mut owners = vec![0; seen.len()];
    for row in (0..seen.len()).rev() {
        owners[row] = at as usize;
        at = match steps.to(row, at) {
            Move::Stay => at,
            Move::Next => at - 1,
            Move::Jump => leads[row],
        };
    }
    owners
}

/// How every module that was kept was reached, sign by sign, one behind the other.
#[derive(Default)]
struct Steps {
    modules: Vec<u32>,
    moves: Vec<Move>,
    ends: Vec<usize>,
}

impl Steps {
    fn add(&mut self, reached: &[(u32, f64, Move)]) {
        self.modules.extend(reached.iter().map(|(module, ..)| *module));
        self.moves.extend(reached.iter().map(|(.., step)| *step));
        self.ends.push(self.modules.len());
    }

    fn to(&self, row: usize, module: u32) -> Move {
        let start = row.checked_sub(1).map_or(0, |before| self.ends[before]);
        let here = start..self.ends[row];
        let at = self.modules[here.clone()].binary_search(&module);
        at.map_or(Move::Jump, |at| self.moves[here][at])
    }
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
fn shares(units: &[Range<usize>], seen: &[(usize, &[u32])], owners: &[usize]) -> Vec<Share> {
    let mut shares: Vec<Share> = Vec::with_capacity(units.len());
    let mut next = 0;
    for unit in units {
        let mut start = unit.start;
        let first = owners.get(next).or(owners.last()).copied();
        let mut owner = first.unwrap_or(0);
        while let Some((at, _)) = seen.get(next).filter(|(at, _)| *at < unit.end) {
            if owners[next] != owner {
                shares.push(Share { start, end: *at, owner });
                (start, owner) = (*at, owners[next]);
            }
            next += 1;
        }
        shares.push(Share { start, end: unit.end, owner });
    }
    shares.retain(|share| share.start < share.end);
    shares
}

/// Cuts the function in proportion to the weights, at the nearest ends of units.
fn by_size(units: &[Range<usize>], hints: &[Hint]) -> Vec<usize> {
    let all: u64 = hints.iter().map(|hint| hint.weight).fold(0, u64::saturating_add).max(1);
    let length: u64 = units.iter().map(|unit| unit.len() as u64).sum::<u64>().max(1);
    let mut owners = Vec::with_capacity(units.len());
    let (mut at, mut passed) = (0, 0_u64);
    let mut end = hints.first().map_or(0, |hint| hint.weight);
    for unit in units {
        let middle = passed + unit.len() as u64 / 2;
        while at + 1 < hints.len()
            && u128::from(middle) * u128::from(all) > u128::from(end) * u128::from(length)
        {
            at += 1;
            end = end.saturating_add(hints[at].weight);
        }
        owners.push(at);
        passed += unit.len() as u64;
    }
    owners
}

fn float(count: u64) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "counts of one build are far below 2⁵³")]
    let float = count as f64;
    float
}
