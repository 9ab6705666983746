//! Tells modules apart that a bundler merged into one function.
//!
//! The modules stand in the function in the order of evaluation, without a mark between them. Where
//! their sources are known, words that survive minifying (strings, names of properties, regular
//! expressions) tell which statement comes from which module: of all ways to hand the statements, in
//! order, to the modules, in order, the one is taken whose words agree best, each word weighing the
//! more the fewer modules hold it (dynamic programming over statements × modules). What holds no
//! word, or all of it where sources are unknown, is shared out in proportion to expected sizes. A
//! statement may also go to a module out of order, for half of what its words count.

use std::collections::{HashMap, HashSet};

use oxc_allocator::Allocator;
use oxc_ast::ast::{
    IdentifierName, JSXText, RegExpLiteral, StringLiteral, TemplateElement,
};
use oxc_ast_visit::Visit;
use oxc_parser::Parser;
use oxc_span::SourceType;
use uvlet_record::Used;

use crate::{
    emitted::{DEEPEST, nesting},
    told::ToldModule,
};

/// A part of the function.
pub struct Unit<'t> {
    /// Its text.
    pub text: &'t str,
}

/// What is known of a module beforehand.
pub struct Hint {
    /// Words of its source.
    words: Option<HashSet<String>>,
    /// About how much of the function it should be, in any unit.
    weight: u64,
}

impl Hint {
    /// From what the bundler says, and the source where it is at hand.
    pub fn new(module: &ToldModule, text: Option<String>) -> Self {
        let read = text.and_then(|text| words_of(&text, true));
        let bytes = match &read {
            Some(words) => words.code,
            None => module.bytes.unwrap_or(0),
        };
        Self { weight: bytes * used_share(module) / 1000, words: read.map(|read| read.words.into_iter().collect()) }
    }
}

/// Thousandths of a module that are likely kept: of many exports, those that are used and what they
/// share.
fn used_share(module: &ToldModule) -> u64 {
    let (Some(provides), Some(Used::Names(used))) = (&module.provides, &module.used) else {
        return 1000;
    };
    if provides.is_empty() {
        return 1000;
    }
    (1000 * used.len() as u64 / provides.len() as u64).clamp(100, 1000)
}

/// Hands every unit to a module.
pub fn align(units: &[Unit<'_>], hints: &[Hint]) -> Vec<usize> {
    let by_size = by_size(units, hints);
    let mut holders: HashMap<&str, Vec<usize>> = HashMap::new();
    for (at, hint) in hints.iter().enumerate() {
        for word in hint.words.iter().flatten() {
            holders.entry(word).or_default().push(at);
        }
    }
    if holders.is_empty() {
        return by_size;
    }
    let columns = hints.len();
    // Best sums for the units so far, by the module that the order has reached, and the steps there.
    let mut best = vec![0.0_f64; columns];
    let mut steps: Vec<Step> = Vec::with_capacity(units.len() * columns);
    for (row, unit) in units.iter().enumerate() {
        let mut scores = vec![0.0_f64; columns];
        if let Some(read) = words_of(unit.text, false) {
            for word in read.words {
                for (&holder, weight) in holders
                    .get(word.as_str())
                    .into_iter()
                    .flat_map(|holders| holders.iter().zip(std::iter::repeat(weight(holders.len()))))
                {
                    scores[holder] += weight;
                }
            }
        }
        let mut likeliest = 0;
        for column in 0..columns {
            if scores[column] > scores[likeliest] {
                likeliest = column;
            }
        }
        let elsewhere = STRAY * scores[likeliest];
        // Where words leave it open, expected sizes decide.
        scores[by_size[row]] += TIE;
        let mut lead = 0_usize;
        for column in 0..columns {
            if best[column] > best[lead] {
                lead = column;
            }
            let strays = elsewhere > scores[column];
            let from = u32::try_from(lead).unwrap_or(u32::MAX);
            let owner = u32::try_from(if strays { likeliest } else { column }).unwrap_or(u32::MAX);
            steps.push(Step { from, owner });
            scores[column] = scores[column].max(elsewhere) + best[lead];
        }
        best = scores;
    }
    let mut at = 0;
    for column in 0..columns {
        if best[column] >= best[at] {
            at = column;
        }
    }
    let mut owners = vec![0; units.len()];
    for row in (0..units.len()).rev() {
        let step = &steps[row * columns + at];
        owners[row] = step.owner as usize;
        at = step.from as usize;
    }
    owners
}

/// One unit, once the order has reached a module.
struct Step {
    /// The module that the order had reached before.
    from: u32,
    /// Who gets the unit.
    owner: u32,
}

/// What words count that stand out of order: minifiers move a function that is used once to where it
/// is used.
const STRAY: f64 = 0.5;

/// What agreement with the expected sizes weighs against words.
const TIE: f64 = 0.01;

/// A word that only one module holds settles the matter; one that many hold says little.
fn weight(holders: usize) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "a weight needs no more")]
    let holders = holders as f64;
    1.0 / (holders * holders)
}

/// Cuts the function in proportion to the weights, at the nearest ends of units.
fn by_size(units: &[Unit<'_>], hints: &[Hint]) -> Vec<usize> {
    let all: u64 = hints.iter().map(|hint| hint.weight).sum::<u64>().max(1);
    let length: u64 = units.iter().map(|unit| unit.text.len() as u64).sum::<u64>().max(1);
    let mut owners = Vec::with_capacity(units.len());
    let (mut at, mut passed) = (0, 0_u64);
    let mut end = hints.first().map_or(0, |hint| hint.weight);
    for unit in units {
        let middle = passed + unit.text.len() as u64 / 2;
        while at + 1 < hints.len() && u128::from(middle) * u128::from(all) > u128::from(end) * u128::from(length) {
            at += 1;
            end += hints[at].weight;
        }
        owners.push(at);
        passed += unit.text.len() as u64;
    }
    owners
}

struct Read {
    words: Vec<String>,
    /// Bytes of code, without comments and indentation.
    code: u64,
}

/// Words of a text that minifying keeps.
fn words_of(text: &str, is_module: bool) -> Option<Read> {
    if nesting(text) > DEEPEST {
        return None;
    }
    let allocator = Allocator::default();
    let kind = if is_module { SourceType::tsx() } else { SourceType::cjs() };
    // A part of a sequence or declaration is made a statement.
    let wrapped;
    let parsed = if is_module {
        let parsed = Parser::new(&allocator, text, kind).parse();
        if parsed.panicked { Parser::new(&allocator, text, SourceType::unambiguous()).parse() } else { parsed }
    } else {
        let parsed = Parser::new(&allocator, text, kind).parse();
        if parsed.panicked {
            wrapped = format!("var {text}");
            Parser::new(&allocator, &wrapped, kind).parse()
        } else {
            parsed
        }
    };
    if parsed.panicked {
        return None;
    }
    let mut words = Words(Vec::new());
    words.visit_program(&parsed.program);
    let comments: u64 =
        parsed.program.comments.iter().map(|comment| u64::from(comment.span.size())).sum();
    let spaces = text.lines().map(|line| line.len() - line.trim_start().len() + 1).sum::<usize>();
    let code = (text.len() as u64).saturating_sub(comments + spaces as u64);
    Some(Read { words: words.0, code })
}

struct Words(Vec<String>);

impl Words {
    fn add(&mut self, kind: char, text: &str) {
        if text.len() > 1 {
            self.0.push(format!("{kind}{text}"));
        }
    }
}

impl<'a> Visit<'a> for Words {
    fn visit_string_literal(&mut self, literal: &StringLiteral<'a>) {
        self.add('"', &literal.value);
    }

    fn visit_template_element(&mut self, part: &TemplateElement<'a>) {
        self.add('"', part.value.cooked.as_deref().unwrap_or(&part.value.raw));
    }

    fn visit_reg_exp_literal(&mut self, literal: &RegExpLiteral<'a>) {
        self.add('/', &literal.regex.pattern.text);
    }

    fn visit_identifier_name(&mut self, name: &IdentifierName<'a>) {
        self.add('.', &name.name);
    }

    fn visit_jsx_text(&mut self, text: &JSXText<'a>) {
        self.add('"', text.value.trim());
    }
}
