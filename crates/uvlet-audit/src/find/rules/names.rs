//! Names that stand in texts of pages and scripts, and what may be put together of their pieces.

use std::collections::HashSet;

/// Names in some texts.
#[derive(Default)]
pub struct Names {
    /// What stands between blanks, quotes and angle brackets, and words of letters, digits, `-` and `_`.
    all: HashSet<String>,
    /// Pieces that something may follow, and such that something may stand before.
    heads: HashSet<String>,
    tails: HashSet<String>,
    /// Joints that texts are put together with, and what ends a text, so that a joint may come behind.
    joints: HashSet<String>,
    ends: HashSet<String>,
}

/// Whether a name stands in texts.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stands {
    /// In no text, nor can it be put together of pieces that stand there.
    Nowhere,
    /// It may be put together.
    Perhaps,
    /// As it is.
    Written,
}

/// Letters of the shortest piece that names are taken to begin or end with where no joint ends it.
const SHORTEST: usize = 2;

impl Names {
    /// Adds the names of a text; a script puts names together, too.
    pub fn add(&mut self, text: &str, is_script: bool) {
        let raw = |c: char| c.is_whitespace() || matches!(c, '"' | '\'' | '`' | '<' | '>');
        for one in text.split(raw).filter(|one| !one.is_empty() && one.len() < 200) {
            if one.bytes().any(|byte| !is_word(byte)) {
                self.all.insert(one.to_owned());
            }
        }
        let bytes = text.as_bytes();
        let mut at = 0;
        while at < bytes.len() {
            if !is_word(bytes[at]) {
                at += 1;
                continue;
            }
            let end = (at..bytes.len()).find(|&end| !is_word(bytes[end])).unwrap_or(bytes.len());
            let word = &text[at..end];
            let (before, behind) = (&text[..at], &text[end..]);
            at = end;
            if !is_script {
                self.all.insert(word.to_owned());
                continue;
            }
            let is_open = ends_open(behind);
            let is_tail = begins_open(before);
            if is_joint(word) {
                if is_open || is_tail || is_alone(before, behind) {
                    self.joints.insert(word.to_owned());
                }
            } else {
                if is_open || word.ends_with(JOINTS) {
                    self.heads.insert(word.to_owned());
                }
                if is_tail || word.starts_with(JOINTS) {
                    self.tails.insert(word.to_owned());
                }
                if behind.starts_with(is_quote) || is_open {
                    self.ends.insert(word.to_owned());
                }
                self.all.insert(word.to_owned());
            }
        }
    }

    /// Whether a name stands there.
    pub fn stands(&self, name: &str) -> Stands {
        let is_written = self.all.contains(name) || {
            // A name for data is read by another form of it.
            let data = name.strip_prefix("data-");
            data.is_some_and(|rest| self.all.contains(&camel(rest)))
        };
        if is_written {
            return Stands::Written;
        }
        let cuts = name.char_indices().map(|(at, _)| at).filter(|at| *at > 0);
        let mut perhaps = false;
        for at in cuts {
            let (head, tail) = name.split_at(at);
            let is_edge = head.ends_with(JOINTS)
                || tail.starts_with(JOINTS)
                || tail.starts_with(|c: char| c.is_ascii_digit() || c.is_ascii_uppercase());
            let may_head = self.heads.contains(head)
                && (head.ends_with(JOINTS) || (is_edge && head.len() >= SHORTEST));
            let may_tail = self.tails.contains(tail)
                && (tail.starts_with(JOINTS) || (is_edge && tail.len() >= SHORTEST));
            let is_joined = self.joints.iter().any(|joint| {
                tail.strip_prefix(joint.as_str()).is_some_and(|rest| !rest.is_empty())
                    && self.ends.contains(head)
            });
            perhaps |= may_head || may_tail || is_joined;
        }
        if perhaps { Stands::Perhaps } else { Stands::Nowhere }
    }
}

const JOINTS: [char; 4] = ['-', '_', ':', '/'];

fn is_word(byte: u8) -> bool {
    byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b'_') || byte >= 0x80
}

fn is_joint(word: &str) -> bool {
    word.chars().all(|c| matches!(c, '-' | '_'))
}

fn is_quote(c: char) -> bool {
    matches!(c, '"' | '\'' | '`')
}

/// Whether something may be added behind: `"a" + b`, `` `a${b}` ``, `"a".concat(b)`.
fn ends_open(behind: &str) -> bool {
    if behind.starts_with("${") {
        return true;
    }
    let Some(rest) = behind.strip_prefix(is_quote) else { return false };
    let rest = rest.trim_start();
    rest.starts_with('+') || rest.starts_with(".concat(")
}

/// Whether something may stand before: `a + "b"`, `` `${a}b` ``, `a.concat("b")`.
fn begins_open(before: &str) -> bool {
    if before.ends_with('}') {
        return true;
    }
    let Some(rest) = before.strip_suffix(is_quote) else { return false };
    let rest = rest.trim_end();
    rest.ends_with('+') || rest.ends_with(".concat(")
}

/// The whole of a text, as in `join("-")`.
fn is_alone(before: &str, behind: &str) -> bool {
    before.ends_with(is_quote) && behind.starts_with(is_quote)
}

fn camel(name: &str) -> String {
    let mut parts = name.split('-');
    let mut camel = parts.next().unwrap_or_default().to_owned();
    for part in parts {
        let mut chars = part.chars();
        camel.extend(chars.next().map(|c| c.to_ascii_uppercase()));
        camel.push_str(chars.as_str());
    }
    camel
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Names, Stands};

    #[rstest]
    #[case("<a class='quay low md:w-1/2'>", "md:w-1/2", Stands::Written)]
    #[case("x.dataset.tideLevel", "data-tide-level", Stands::Written)]
    #[case("e.className='quay'", "quay", Stands::Written)]
    #[case("e.className='quay'", "quay-low", Stands::Nowhere)]
    #[case("e.className='quay-'+low", "quay-high", Stands::Perhaps)]
    #[case("e.className=`quay-${low}`", "quay-high", Stands::Perhaps)]
    #[case("e.className=`${quay}-low`", "sea-low", Stands::Perhaps)]
    #[case("f('quay',[a,b].join('-'))", "quay-high", Stands::Perhaps)]
    #[case("f('quay');g(`${a}-${b}`)", "quay-high", Stands::Perhaps)]
    #[case("f('col'+n)", "col12", Stands::Perhaps)]
    #[case("f('col'+n)", "column", Stands::Nowhere)]
    #[case("f('icon'+Kind)", "iconLarge", Stands::Perhaps)]
    fn where_names_stand(#[case] text: &str, #[case] name: &str, #[case] expected: Stands) {
        let mut names = Names::default();
        names.add(text, !text.starts_with('<'));
        assert_eq!(names.stands(name), expected);
    }
}
