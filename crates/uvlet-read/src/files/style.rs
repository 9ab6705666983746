//! What a style asks for: `@import`, `url()` and `image-set()`, in order (CSS Values and Units,
//! section "Resource locators").
//!
//! Of alternatives a browser takes one: of the sources of a font the first that it can read, of an
//! `image-set()` the one that fits the screen. The first stands for them, the others may be asked
//! for. A font whose `unicode-range` leaves out ASCII is fetched only for texts that need it.

use std::ops::Range;

use cssparser::{ParseError, Parser, Token};

/// URLs of a style.
#[derive(Debug, Default, PartialEq, Eq)]
pub struct StyleUrls {
    /// Asked for when the style is used.
    pub needed: Vec<String>,
    /// Alternatives, and fonts for other scripts than Latin.
    pub perhaps: Vec<String>,
}

/// URLs of a style text in the order written.
pub fn urls(text: &str) -> StyleUrls {
    let mut urls = StyleUrls::default();
    collect(&mut Parser::new(text), &mut urls);
    urls
}

/// Where fonts and pictures stand in a style as `data:` URLs (RFC 2397), in order.
pub fn inlined(text: &str) -> Vec<Range<usize>> {
    const MEDIA: [&str; 4] = ["font/", "image/", "application/font", "application/x-font"];
    let mut found: Vec<Range<usize>> = Vec::new();
    for at in memchr::memmem::find_iter(text.as_bytes(), b"data:") {
        let start = at + 5;
        let is_inside = found.last().is_some_and(|last| at < last.end);
        if is_inside || !MEDIA.iter().any(|media| text[start..].starts_with(media)) {
            continue;
        }
        let before = text[..at].trim_end_matches(['"', '\'', ' ']);
        let ends_at = match text[before.len()..at].trim_start().chars().next() {
            Some(quote) => text[start..].find(quote),
            None => text[start..].find(')'),
        };
        let tail = before.get(before.len().saturating_sub(4)..).unwrap_or_default();
        if let (true, Some(length)) = (tail.eq_ignore_ascii_case("url("), ends_at) {
            found.push(at..start + length);
        }
    }
    found
}

/// Other styles that a style imports, in the order written.
pub fn imports(text: &str) -> Vec<String> {
    let mut parser = Parser::new(text);
    let mut imports = Vec::new();
    let mut is_import = false;
    while let Ok(token) = parser.next() {
        let token = token.clone();
        match token {
            Token::AtKeyword(name) => {
                is_import =
                    ["import", "use", "forward"].iter().any(|word| name.eq_ignore_ascii_case(word));
                continue;
            }
            Token::UnquotedUrl(url) | Token::QuotedString(url) if is_import => {
                imports.push(url.to_string());
            }
            Token::Function(name) if is_import && name.eq_ignore_ascii_case("url") => {
                inside(&mut parser, |block| imports.extend(first_string(block)));
            }
            _ => {}
        }
        is_import = false;
    }
    imports
}

fn collect(parser: &mut Parser<'_>, urls: &mut StyleUrls) {
    let mut at_rule = String::new();
    while let Ok(token) = parser.next() {
        let token = token.clone();
        match token {
            Token::AtKeyword(name) => {
                at_rule = name.to_ascii_lowercase();
                continue;
            }
            Token::UnquotedUrl(url) => urls.needed.push(url.to_string()),
            Token::QuotedString(url) if at_rule == "import" => urls.needed.push(url.to_string()),
            Token::Function(name) => {
                let name = name.to_ascii_lowercase();
                inside(parser, |block| match name.as_str() {
                    "url" => urls.needed.extend(first_string(block)),
                    "image-set" | "-webkit-image-set" => {
                        let mut all = Vec::new();
                        alternatives(block, true, &mut all);
                        urls.take(all);
                    }
                    _ => collect(block, urls),
                });
            }
            Token::CurlyBracketBlock if at_rule == "font-face" => {
                inside(parser, |block| font_face(block, urls));
            }
            Token::CurlyBracketBlock | Token::SquareBracketBlock | Token::ParenthesisBlock => {
                inside(parser, |block| collect(block, urls));
            }
            Token::Semicolon => {}
            // The words of an at-rule's own prelude.
            _ => continue,
        }
        at_rule.clear();
    }
}

/// Parses a block. Its own errors end only that block: styles recover, and so does this.
fn inside(parser: &mut Parser<'_>, mut read: impl FnMut(&mut Parser<'_>)) {
    let _ = parser.parse_nested_block(|block| -> Result<(), ParseError<()>> {
        read(block);
        Ok(())
    });
}

fn first_string(parser: &mut Parser<'_>) -> Option<String> {
    parser.expect_string().ok().map(ToString::to_string)
}

/// All URLs of a list of alternatives, of which the first stands for all.
fn alternatives(parser: &mut Parser<'_>, strings: bool, all: &mut Vec<String>) {
    while let Ok(token) = parser.next() {
        match token.clone() {
            Token::UnquotedUrl(url) => all.push(url.to_string()),
            Token::QuotedString(url) if strings => all.push(url.to_string()),
            Token::Function(name) => {
                let is_url = name.eq_ignore_ascii_case("url");
                inside(parser, |block| {
                    if is_url {
                        all.extend(first_string(block))
                    }
                });
            }
            _ => {}
        }
    }
}

/// The sources of a font, and whether it has the letters that every page needs. Of several `src`
/// declarations the last one counts, of its sources the first in a format that browsers of today
/// load; older formats stand before and behind for others.
fn font_face(parser: &mut Parser<'_>, urls: &mut StyleUrls) {
    let mut declarations: Vec<Vec<String>> = Vec::new();
    let mut latin = true;
    let mut property = String::new();
    while let Ok(token) = parser.next() {
        match token.clone() {
            Token::Ident(name) if property.is_empty() => {
                property = name.to_ascii_lowercase();
                if property == "src" {
                    declarations.push(Vec::new());
                }
            }
            Token::Semicolon => property.clear(),
            Token::Colon if property == "unicode-range" => {
                let start = parser.position();
                // The range's own syntax is no list of tokens: it is read as written.
                while !matches!(parser.next(), Ok(Token::Semicolon) | Err(_)) {}
                latin = covers_ascii(parser.slice_from(start));
                property.clear();
            }
            Token::UnquotedUrl(url) if property == "src" => {
                declarations.last_mut().into_iter().for_each(|list| list.push(url.to_string()));
            }
            Token::Function(name) if property == "src" => {
                let is_url = name.eq_ignore_ascii_case("url");
                inside(parser, |block| {
                    if let (true, Some(list)) = (is_url, declarations.last_mut()) {
                        list.extend(first_string(block));
                    }
                });
            }
            _ => {}
        }
    }
    let chosen = declarations.iter().rev().find_map(|list| list.iter().find(|url| is_current(url)));
    let chosen = chosen.or_else(|| declarations.last()?.first()).cloned();
    let rest = declarations.into_iter().flatten().filter(|url| Some(url) != chosen.as_ref());
    urls.perhaps.extend(rest);
    if latin {
        urls.needed.extend(chosen);
    } else {
        urls.perhaps.extend(chosen);
    }
}

/// Whether browsers of today load a font of this format, by its ending.
fn is_current(url: &str) -> bool {
    let path = url.split(['?', '#']).next().unwrap_or(url).to_ascii_lowercase();
    !path.ends_with(".eot") && !path.ends_with(".svg")
}

/// Whether a `unicode-range` holds the letter `a`.
fn covers_ascii(ranges: &str) -> bool {
    const LETTER: u32 = 'a' as u32;
    ranges.split(',').any(|range| {
        let range = range.trim().trim_end_matches(';').trim().to_ascii_lowercase();
        let Some(range) = range.strip_prefix("u+") else { return false };
        let (low, high) = range.split_once('-').unwrap_or((range, range));
        let number = |text: &str, digit: &str| u32::from_str_radix(&text.replace('?', digit), 16);
        matches!((number(low, "0"), number(high, "f")), (Ok(low), Ok(high)) if (low..=high).contains(&LETTER))
    })
}

impl StyleUrls {
    fn take(&mut self, alternatives: Vec<String>) {
        let mut alternatives = alternatives.into_iter();
        self.needed.extend(alternatives.next());
        self.perhaps.extend(alternatives);
    }
}

#[cfg(test)]
mod tests {
    #[test]
    fn urls_in_the_order_written() {
        let text = r#"@import "a.css" screen; @import url(b.css);
            @font-face{font-family:X;src:url("x.woff2")format("woff2"),url(x.woff);unicode-range:U+0000-00FF,U+131}
            @font-face{font-family:X;src:url(y.woff2);unicode-range:U+4??, U+1F00-1FFF}
            @media print{.a{background:url( 'i.png' )} .b{content:"no.png"}}
            .c{background:image-set("s.png" 1x, url(t.png) type("image/png") 2x)} .d{color:var(--x, url(u.svg))"#;
        let urls = super::urls(text);
        assert_eq!(urls.needed, ["a.css", "b.css", "x.woff2", "i.png", "s.png", "u.svg"]);
        assert_eq!(urls.perhaps, ["x.woff", "y.woff2", "t.png"]);
    }

    #[test]
    fn of_several_sources_the_last_declaration_counts() {
        let text = "@font-face{src:url(f.eot);src:url(f.eot?#iefix) format('embedded-opentype'),url(f.woff2) format('woff2'),url(f.svg#f)}";
        let urls = super::urls(text);
        assert_eq!(urls.needed, ["f.woff2"]);
        assert_eq!(urls.perhaps, ["f.eot", "f.eot?#iefix", "f.svg#f"]);
    }
}
