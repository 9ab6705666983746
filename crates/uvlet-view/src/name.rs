//! Names come from outside: what would steer a terminal is shown instead of obeyed, and what is too
//! long is cut where it tells least.

use std::borrow::Cow;

use unicode_width::UnicodeWidthStr;

/// A name without control, bidi and invisible characters; these stand as `\u{…}`.
pub fn plain(name: &str) -> Cow<'_, str> {
    if !name.chars().any(is_hostile) {
        return Cow::Borrowed(name);
    }
    let mut text = String::with_capacity(name.len() + 8);
    for c in name.chars() {
        if is_hostile(c) {
            text.extend(c.escape_unicode());
        } else {
            text.push(c);
        }
    }
    Cow::Owned(text)
}

/// Whether a character steers a terminal, or hides what is written.
pub(crate) fn is_hostile(c: char) -> bool {
    c.is_control()
        || matches!(c, '\u{ad}' | '\u{61c}' | '\u{feff}' | '\u{200b}'..='\u{200f}'
            | '\u{2028}'..='\u{202e}' | '\u{2060}'..='\u{206f}' | '\u{e0000}'..='\u{e007f}')
}

/// Columns that a text takes.
pub fn width(text: &str) -> usize {
    text.width()
}

/// A plain name in at most `columns`: the front goes first, as the end of a path tells it apart.
pub fn fitted(name: &str, columns: usize) -> String {
    let name = plain(name);
    if width(&name) <= columns {
        return name.into_owned();
    }
    let mut kept = 0;
    let mut start = name.len();
    for (at, c) in name.char_indices().rev() {
        kept += width(c.encode_utf8(&mut [0; 4]));
        if kept + 1 > columns {
            break;
        }
        start = at;
    }
    format!("…{}", &name[start..])
}

/// A plain phrase in at most `columns`: its middle goes, as it begins with what it says and ends with a
/// name.
pub fn shortened(phrase: &str, columns: usize) -> String {
    let phrase = plain(phrase);
    if width(&phrase) <= columns {
        return phrase.into_owned();
    }
    let (mut kept, mut end) = (0, 0);
    for (at, c) in phrase.char_indices() {
        kept += width(c.encode_utf8(&mut [0; 4]));
        if kept > columns / 2 {
            break;
        }
        end = at + c.len_utf8();
    }
    let start = &phrase[..end];
    format!("{start}{}", fitted(&phrase, columns - width(start)))
}

#[cfg(test)]
mod tests {
    use super::{fitted, plain, shortened, width};

    #[test]
    fn long_phrases_lose_their_middle() {
        assert_eq!(shortened("new, for src/pages/plot.jsx", 20), "new, for s…/plot.jsx");
        assert_eq!(width(&shortened("船船船船船船", 7)), 7);
        assert_eq!(shortened("gone", 4), "gone");
    }

    #[test]
    fn steering_characters_are_shown() {
        assert_eq!(plain("a\x1b]52;c;x\x07\u{202e}b"), "a\\u{1b}]52;c;x\\u{7}\\u{202e}b");
        assert_eq!(plain("src/é.js"), "src/é.js");
    }

    #[test]
    fn long_names_lose_their_front() {
        assert_eq!(fitted("src/pages/booking.js", 12), "…/booking.js");
        assert_eq!(width(&fitted("船船船船船船", 7)), 7);
    }
}
