//! From text to tree, by recursive descent.

use std::{ops::Range, str::FromStr};

use crate::select::{
    nearest::Known,
    selector::{Selector, SelectorError, Tree, Wrong},
    words::{self, HOLDING, Named, Plain},
};

/// Parentheses within parentheses that are still read; more is no selector that a person wrote.
const DEEPEST: usize = 100;

impl FromStr for Selector {
    type Err = SelectorError;

    fn from_str(text: &str) -> Result<Self, SelectorError> {
        let mut parser = Parser { text, at: 0, depth: 0 };
        let tree = parser.expression()?;
        if parser.peek().is_some() {
            return Err(parser.error(Wrong::NoJoin));
        }
        Ok(Self { text: text.trim().to_owned(), tree })
    }
}

/// The parts under what joins them; one alone is itself.
fn joined(mut parts: Vec<Tree>, join: fn(Vec<Tree>) -> Tree) -> Tree {
    match parts.pop() {
        Some(only) if parts.is_empty() => only,
        last => {
            parts.extend(last);
            join(parts)
        }
    }
}

struct Parser<'t> {
    text: &'t str,
    at: usize,
    depth: usize,
}

impl<'t> Parser<'t> {
    fn expression(&mut self) -> Result<Tree, SelectorError> {
        self.depth += 1;
        if self.depth > DEEPEST {
            return Err(self.error(Wrong::TooDeep));
        }
        let mut parts = vec![self.union()?];
        while self.keyword("except") {
            parts.push(self.union()?);
        }
        self.depth -= 1;
        Ok(joined(parts, Tree::Except))
    }

    fn union(&mut self) -> Result<Tree, SelectorError> {
        let mut parts = vec![self.intersection()?];
        while self.keyword("or") {
            parts.push(self.intersection()?);
        }
        Ok(joined(parts, Tree::Or))
    }

    fn intersection(&mut self) -> Result<Tree, SelectorError> {
        let mut parts = vec![self.atom()?];
        while self.keyword("and") {
            parts.push(self.atom()?);
        }
        Ok(joined(parts, Tree::And))
    }

    fn atom(&mut self) -> Result<Tree, SelectorError> {
        if self.peek() == Some('(') {
            self.at += 1;
            let inner = self.expression()?;
            self.close()?;
            return Ok(inner);
        }
        let start = self.at;
        let word = self.word();
        if word.is_empty() {
            return Err(self.error(Wrong::NoSet));
        }
        let has_argument = self.text[self.at..].trim_start().starts_with('(');
        if word == HOLDING && has_argument {
            self.peek();
            self.at += 1;
            let inner = self.expression()?;
            self.close()?;
            return Ok(Tree::Holding(Box::new(inner)));
        }
        let plain = Plain::of(word);
        if let Some(set) = Named::of(word).filter(|_| plain.is_none() || has_argument) {
            if !has_argument {
                return Err(self.error(Wrong::NoArgument(word.to_owned())));
            }
            let (argument, at) = self.argument()?;
            return Ok(Tree::Named { set, argument, at });
        }
        if let Some(set) = plain {
            if has_argument {
                return Err(self.error(Wrong::Argument(word.to_owned())));
            }
            return Ok(Tree::Plain(set));
        }
        let names = words::all().map(|word| word.text);
        let unknown = Wrong::UnknownSet(word.to_owned(), Known::of(word, names));
        Err(SelectorError::new(self.text, start, unknown))
    }

    /// What stands in parentheses: quoted, or up to the parenthesis that closes the first, so that
    /// paths like `app/(shop)/page.js` need no quotes.
    fn argument(&mut self) -> Result<(String, Range<usize>), SelectorError> {
        self.peek();
        self.at += 1;
        if let Some(quote @ ('"' | '\'')) = self.peek() {
            let start = self.at + 1;
            let Some(length) = self.text[start..].find(quote) else {
                return Err(self.error(Wrong::OpenQuote));
            };
            self.at = start + length + 1;
            self.close()?;
            return Ok((self.text[start..start + length].to_owned(), start..start + length));
        }
        let start = self.at;
        let mut open = 1;
        for (offset, c) in self.text[start..].char_indices() {
            match c {
                '(' => open += 1,
                ')' => open -= 1,
                _ => {}
            }
            if open == 0 {
                let argument = self.text[start..start + offset].trim();
                if argument.is_empty() {
                    return Err(self.error(Wrong::NoName));
                }
                self.at = start + offset + 1;
                return Ok((argument.to_owned(), start..start + offset));
            }
        }
        self.at = self.text.len();
        Err(self.error(Wrong::OpenParenthesis))
    }

    fn close(&mut self) -> Result<(), SelectorError> {
        if self.peek() == Some(')') {
            self.at += 1;
            return Ok(());
        }
        Err(self.error(Wrong::OpenParenthesis))
    }

    /// The next character that is not white space.
    fn peek(&mut self) -> Option<char> {
        let rest = &self.text[self.at..];
        self.at += rest.len() - rest.trim_start().len();
        self.text[self.at..].chars().next()
    }

    fn word(&mut self) -> &'t str {
        self.peek();
        let rest = &self.text[self.at..];
        let end = rest.find(|c: char| !c.is_alphanumeric() && c != '-' && c != '_');
        let word = &rest[..end.unwrap_or(rest.len())];
        self.at += word.len();
        word
    }

    fn keyword(&mut self, keyword: &str) -> bool {
        let before = self.at;
        if self.word() == keyword {
            return true;
        }
        self.at = before;
        false
    }

    fn error(&self, wrong: Wrong) -> SelectorError {
        SelectorError::new(self.text, self.at, wrong)
    }
}
