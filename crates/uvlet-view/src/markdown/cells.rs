//! Names, sentences and tables in Markdown.

use crate::name::plain;

/// A name in a code span.
pub(super) fn code(name: &str) -> String {
    format!("`{}`", harmless(name))
}

/// Text from outside that keeps to its place: no cell, span or element ends or begins in it.
pub(super) fn harmless(text: &str) -> String {
    plain(text).replace('`', "ˋ").replace('|', "¦").replace('<', "‹").replace('>', "›")
}

/// A sentence that holds names from outside: one paragraph in which nothing is a mark, a link or a
/// reference, and nobody is mentioned. Marks are escaped, and what links itself gets a joiner, which
/// nobody sees.
pub(super) fn sentence(text: &str) -> String {
    const JOINER: char = '\u{2060}';
    let text = harmless(text);
    let mut safe = String::with_capacity(text.len() + 16);
    let mut before = ' ';
    for c in text.chars() {
        match c {
            '\\' | '*' | '_' | '[' | ']' | '~' | '&' | '!' => safe.extend(['\\', c]),
            // `https://…`, `www.…`, `a@b`, `#1` and `GH-1` link by themselves.
            '/' if before == '/' || before == ':' => safe.extend([JOINER, c]),
            '.' if before == 'w' || before == 'W' => safe.extend([JOINER, c]),
            '@' | '#' => safe.extend([c, JOINER]),
            _ => safe.push(c),
        }
        before = c;
    }
    safe
}

/// Rows of cells; numbers stand on the right.
pub(super) fn table(heads: &[(&str, bool)], rows: impl Iterator<Item = Vec<String>>) -> String {
    let line = |cells: Vec<String>| format!("| {} |\n", cells.join(" | "));
    let mut text = line(heads.iter().map(|(head, _)| (*head).to_owned()).collect());
    text.push_str(&line(
        heads.iter().map(|(_, right)| if *right { "---:" } else { "---" }.to_owned()).collect(),
    ));
    for row in rows {
        text.push_str(&line(row));
    }
    text
}
