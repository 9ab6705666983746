//! Words of a text that minifying keeps: texts, names of properties, regular expressions.
//!
//! They tell whose code a stretch is where no map does. Only digests are kept, with the places in the
//! text; a word and its pair with the word before are two signs.

use std::{
    hash::{DefaultHasher, Hash, Hasher},
    ops::Range,
};

use oxc_ast::ast::{IdentifierName, JSXText, RegExpLiteral, StringLiteral, TemplateElement};
use oxc_ast_visit::Visit;
use oxc_span::Span;

use crate::parse::Script;

/// A word in its place.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Word {
    /// First byte.
    pub at: u32,
    digest: u64,
}

/// The words of a text, in the order of the text.
#[derive(Clone, Debug, Default)]
pub struct Words(Vec<Word>);

impl Words {
    /// All words of a script.
    #[must_use]
    pub fn of(script: &Script<'_>) -> Self {
        let mut finder = Finder(Vec::new());
        finder.visit_program(&script.program);
        // A template's texts are visited before what stands between them.
        finder.0.sort_by_key(|word| word.at);
        Self(finder.0)
    }

    /// Those that begin within these bytes.
    #[must_use]
    pub fn within(&self, range: &Range<usize>) -> &[Word] {
        let before = |end: usize| self.0.partition_point(|word| (word.at as usize) < end);
        &self.0[before(range.start)..before(range.end)]
    }

    /// All of them.
    #[must_use]
    pub fn all(&self) -> &[Word] {
        &self.0
    }
}

/// Signs of words that stand in a row: each by itself, and with the one before it.
pub fn signs(words: &[Word]) -> impl Iterator<Item = (usize, u64)> + '_ {
    let before = std::iter::once(None).chain(words.iter().map(Some));
    words.iter().zip(before).flat_map(|(word, before)| {
        let pair = before.map(|before| (word.at as usize, digest(&(before.digest, word.digest))));
        std::iter::once((word.at as usize, word.digest)).chain(pair)
    })
}

/// Bytes of code in a source, about: without comments and indentation.
#[must_use]
pub fn code_bytes(script: &Script<'_>) -> u64 {
    let comments = script.program.comments.iter();
    let comments: u64 = comments.map(|comment| u64::from(comment.span.size())).sum();
    let lines = script.text.lines();
    let spaces: usize = lines.map(|line| line.len() - line.trim_start().len() + 1).sum();
    (script.text.len() as u64).saturating_sub(comments + spaces as u64)
}

fn digest(value: &impl Hash) -> u64 {
    let mut hasher = DefaultHasher::new();
    value.hash(&mut hasher);
    hasher.finish()
}

struct Finder(Vec<Word>);

impl Finder {
    fn add(&mut self, span: Span, kind: char, text: &str) {
        if text.len() > 1 {
            self.0.push(Word { at: span.start, digest: digest(&(kind, text)) });
        }
    }
}

impl<'a> Visit<'a> for Finder {
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
    use crate::{Dialect, read, words::Words};

    #[test]
    fn words_stand_in_the_order_of_the_text() {
        let text = "go(`low ${e.harbour} water ${e.quay} high`, e.departure)";
        let words = read(text, Dialect::Emitted, |script| {
            let places = Words::of(script).0.into_iter().map(|word| word.at as usize);
            places.map(|at| text[at..].split([' ', '}', ',', ')', '`']).next()).collect::<Vec<_>>()
        });
        let words: Vec<&str> = words.unwrap().into_iter().flatten().collect();
        assert_eq!(words, ["low", "harbour", "", "quay", "", "departure"]);
    }
}
