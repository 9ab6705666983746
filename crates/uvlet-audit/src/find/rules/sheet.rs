//! The rules of a style, each with what must be there for it to match (CSS Syntax Module Level 3; Selectors
//! Level 4).

use std::ops::Range;

use cssparser::{ParseError, Parser, Token};

/// A rule, with the at-rules that it stands in.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Rule {
    /// Its bytes.
    pub range: Range<usize>,
    /// Per selector of its list, what must be there.
    pub selectors: Vec<Vec<Need>>,
    /// The block around it, by its place; none at the top.
    pub within: Option<usize>,
}

/// What must be there for a selector to match.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Need {
    /// A class, an id, or an attribute for data, by its name.
    Name(String),
    /// An element, by its name in small letters.
    Element(String),
    /// What any of these need.
    Any(Vec<Vec<Need>>),
}

/// The rules of a style, and the at-rules that hold some of them.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Sheet {
    /// In order.
    pub rules: Vec<Rule>,
    /// Bytes of at-rules whose blocks hold rules, outer ones before inner ones, each with the one around it.
    pub blocks: Vec<(Range<usize>, Option<usize>)>,
}

/// The block around rules, and how deep it stands.
type Around = (Option<usize>, usize);

/// Levels of blocks and functions that are looked into.
const DEEPEST: usize = 50;

/// At-rules whose blocks hold rules that match as others do.
const HOLDING: [&str; 5] = ["media", "supports", "layer", "container", "document"];

/// Functions of which any argument may match.
const ANY_OF: [&str; 4] = ["is", "where", "matches", "-webkit-any"];

/// Reads the rules of a style.
pub fn sheet(text: &str) -> Sheet {
    let mut sheet = Sheet::default();
    rules(&mut Parser::new(text), (None, 0), &mut sheet);
    sheet
}

fn rules(parser: &mut Parser<'_>, (within, depth): Around, sheet: &mut Sheet) {
    loop {
        parser.skip_whitespace();
        let start = parser.position().byte_index();
        let Ok(token) = parser.next() else { return };
        match token.clone() {
            Token::AtKeyword(name) => at_rule(parser, &name, start, (within, depth), sheet),
            Token::CDO | Token::CDC | Token::Semicolon => {}
            Token::CurlyBracketBlock => skip(parser),
            first => {
                let mut list = List { depth, ..List::default() };
                list.token(&first, parser);
                while let Ok(token) = parser.next_including_whitespace() {
                    let token = token.clone();
                    if token == Token::CurlyBracketBlock {
                        skip(parser);
                        let range = start..parser.position().byte_index();
                        sheet.rules.push(Rule { range, selectors: list.ended(), within });
                        break;
                    }
                    list.token(&token, parser);
                }
            }
        }
    }
}

fn at_rule(
    parser: &mut Parser<'_>,
    name: &str,
    start: usize,
    (within, depth): Around,
    sheet: &mut Sheet,
) {
    let holds = depth < DEEPEST && HOLDING.iter().any(|word| name.eq_ignore_ascii_case(word));
    while let Ok(token) = parser.next() {
        match token.clone() {
            Token::Semicolon => return,
            Token::CurlyBracketBlock if holds => {
                sheet.blocks.push((start..start, within));
                let at = sheet.blocks.len() - 1;
                nested(parser, |inside| rules(inside, (Some(at), depth + 1), sheet));
                sheet.blocks[at].0.end = parser.position().byte_index();
                return;
            }
            Token::CurlyBracketBlock => return skip(parser),
            _ => {}
        }
    }
}

/// Looks into the block that was just opened, and goes past its end.
fn nested(parser: &mut Parser<'_>, look: impl FnOnce(&mut Parser<'_>)) {
    let whole = parser.parse_nested_block(|inside| {
        look(inside);
        while inside.next().is_ok() {}
        Ok::<(), ParseError<()>>(())
    });
    debug_assert!(whole.is_ok(), "a block is read to its end");
}

fn skip(parser: &mut Parser<'_>) {
    nested(parser, |_| {});
}

/// A list of selectors while it is read.
#[derive(Default)]
struct List {
    done: Vec<Vec<Need>>,
    current: Vec<Need>,
    before: Before,
    depth: usize,
}

/// What stands before a name.
#[derive(Clone, Copy, Default, PartialEq, Eq)]
enum Before {
    /// A combinator, or nothing.
    #[default]
    Start,
    /// A part of the same compound.
    Part,
    Dot,
    Colon,
}

impl List {
    fn ended(mut self) -> Vec<Vec<Need>> {
        self.done.push(self.current);
        self.done
    }

    fn token(&mut self, token: &Token<'_>, parser: &mut Parser<'_>) {
        let before = std::mem::replace(&mut self.before, Before::Part);
        match token {
            Token::Comma => {
                self.done.push(std::mem::take(&mut self.current));
                self.before = Before::Start;
            }
            Token::WhiteSpace(_) | Token::Delim('>' | '+' | '~' | '|') => {
                self.before = Before::Start;
            }
            Token::Delim('.') => self.before = Before::Dot,
            Token::Colon => self.before = Before::Colon,
            Token::Ident(name) => match before {
                Before::Dot => self.current.push(Need::Name(name.to_string())),
                Before::Start => self.current.push(Need::Element(name.to_ascii_lowercase())),
                Before::Part | Before::Colon => {}
            },
            Token::IDHash(name) => self.current.push(Need::Name(name.to_string())),
            Token::Function(name) => {
                let is_any = self.depth < DEEPEST
                    && ANY_OF.iter().any(|word| name.eq_ignore_ascii_case(word));
                let mut found = None;
                nested(parser, |inside| found = is_any.then(|| list(inside, self.depth + 1)));
                self.current.extend(found.map(Need::Any));
            }
            Token::SquareBracketBlock => {
                let mut first = None;
                nested(parser, |inside| {
                    if let Ok(Token::Ident(name)) = inside.next() {
                        first = Some(name.to_string());
                    }
                });
                self.current.extend(first.filter(|name| name.starts_with("data-")).map(Need::Name));
            }
            Token::ParenthesisBlock | Token::CurlyBracketBlock => skip(parser),
            _ => {}
        }
    }
}

/// A list of selectors in a function.
fn list(parser: &mut Parser<'_>, depth: usize) -> Vec<Vec<Need>> {
    let mut list = List { depth, ..List::default() };
    parser.skip_whitespace();
    while let Ok(token) = parser.next_including_whitespace() {
        let token = token.clone();
        list.token(&token, parser);
    }
    list.ended()
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Need, sheet};

    fn shown(needs: &[Need]) -> String {
        let one = |need: &Need| match need {
            Need::Name(name) => name.clone(),
            Need::Element(name) => format!("<{name}"),
            Need::Any(lists) => {
                let lists: Vec<String> = lists.iter().map(|list| shown(list)).collect();
                format!("({})", lists.join("|"))
            }
        };
        needs.iter().map(one).collect::<Vec<_>>().join(" ")
    }

    #[rstest]
    #[case(".quay{a:b}", ".quay{a:b}=quay")]
    #[case("#a>.b+li a:hover{}", "#a>.b+li a:hover{}=a b <li <a")]
    #[case(".a,.b .c{}", ".a,.b .c{}=a,b c")]
    #[case(".a:not(.b):is(.c,.d e)::before{}", ".a:not(.b):is(.c,.d e)::before{}=a (c|d <e)")]
    #[case(".md\\:w-1\\/2{}", ".md\\:w-1\\/2{}=md:w-1/2")]
    #[case("[data-tide=low] [type=a]{}", "[data-tide=low] [type=a]{}=data-tide ")]
    #[case("@font-face{src:url(a)} @keyframes a{from{}to{}} *{}", "*{}=")]
    #[case("@media print{.a{} .b{}}.c{}", ".a{}=a .b{}=b .c{}=c")]
    #[case("@import 'a';{} .a{}", ".a{}=a")]
    #[case(".a{.b{} color:red}", ".a{.b{} color:red}=a")]
    #[case(".a{", ".a{=a")]
    fn what_rules_need(#[case] text: &str, #[case] expected: &str) {
        let rules = sheet(text).rules.into_iter().map(|rule| {
            let lists: Vec<String> = rule.selectors.iter().map(|list| shown(list)).collect();
            format!("{}={}", &text[rule.range], lists.join(","))
        });
        assert_eq!(rules.collect::<Vec<_>>().join(" ").trim(), expected.trim());
    }

    /// Blocks and functions without an end: what is too deep is gone past.
    #[rstest]
    #[case("@media a{")]
    #[case(".a:is(")]
    #[case(".a{")]
    #[case("[(")]
    fn what_nests_without_end_is_read(#[case] part: &str) {
        assert!(sheet(&part.repeat(50_000)).rules.len() <= 1);
    }
}
