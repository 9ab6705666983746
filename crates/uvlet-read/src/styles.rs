//! What a style asks for: `@import`, `url()` and the strings of `image-set()`, in order
//! (CSS Values and Units, section "Resource locators").

use cssparser::{Parser, Token};

/// URLs of a style text in the order written.
pub fn urls(text: &str) -> Vec<String> {
    let mut urls = Vec::new();
    collect(&mut Parser::new(text), false, &mut urls);
    urls
}

fn collect(parser: &mut Parser<'_>, strings_are_urls: bool, urls: &mut Vec<String>) {
    let mut after_import = false;
    while let Ok(token) = parser.next() {
        let importing = std::mem::take(&mut after_import);
        let inner = match token {
            Token::AtKeyword(name) => {
                after_import = name.eq_ignore_ascii_case("import");
                continue;
            }
            Token::UnquotedUrl(url) => {
                urls.push(url.to_string());
                continue;
            }
            Token::QuotedString(url) if importing || strings_are_urls => {
                urls.push(url.to_string());
                continue;
            }
            Token::Function(name) => {
                name.eq_ignore_ascii_case("url")
                    || name.eq_ignore_ascii_case("image-set")
                    || name.eq_ignore_ascii_case("-webkit-image-set")
            }
            Token::CurlyBracketBlock | Token::SquareBracketBlock | Token::ParenthesisBlock => false,
            _ => continue,
        };
        // The block's own errors end only that block: styles recover, and so does this.
        let _ = parser.parse_nested_block(|block| -> Result<(), cssparser::ParseError<()>> {
            collect(block, inner, urls);
            Ok(())
        });
    }
}

#[cfg(test)]
mod tests {
    #[test]
    fn urls_in_the_order_written() {
        let text = r#"@import "a.css" screen; @import url(b.css);
            @font-face{font-family:X;src:url("x.woff2")format("woff2"),url(x.woff)}
            @media print{.a{background:url( 'i.png' )} .b{content:"no.png"}}
            .c{background:image-set("s.png" 1x, url(t.png) 2x)} .d{color:var(--x, url(u.svg))"#;
        assert_eq!(
            super::urls(text),
            ["a.css", "b.css", "x.woff2", "x.woff", "i.png", "s.png", "t.png", "u.svg"]
        );
    }
}
