//! Globs in which only `*`, `**` and `?` are special, as real paths hold `[id]`, `{a}` and `(shop)`.
//!
//! A name is matched by keeping the set of all places in the pattern where one may be, so that a hostile
//! pattern costs the product of both lengths and never more.

/// A glob, taken apart.
#[derive(Clone, Debug)]
pub struct Glob {
    /// What any name begins with.
    prefix: String,
    /// What follows it.
    rest: Vec<Piece>,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Piece {
    Char(char),
    /// One character; not `/` where slashes divide.
    One {
        slashes: bool,
    },
    /// Any number of them.
    Many {
        slashes: bool,
    },
    /// Whole folders, or none: may be passed by together with [`Piece::Folders`], which follows it.
    Maybe,
    /// Anything that ends with `/`.
    Folders,
}

impl Glob {
    /// Takes a glob apart, which must match a whole name. `*` and `?` stop at `/` only where `paths`
    /// says that slashes divide; `**` never does, and `**/` also stands for nothing.
    #[must_use]
    pub fn new(text: &str, paths: bool) -> Self {
        let start = text.find(['*', '?']).unwrap_or(text.len());
        let (prefix, mut left) = text.split_at(start);
        let mut rest = Vec::new();
        while let Some(c) = left.chars().next() {
            let length = match c {
                '*' if left.starts_with("**/") => {
                    rest.extend([Piece::Maybe, Piece::Folders]);
                    3
                }
                '*' if left.starts_with("**") => {
                    rest.push(Piece::Many { slashes: true });
                    2
                }
                '*' => {
                    rest.push(Piece::Many { slashes: !paths });
                    1
                }
                '?' => {
                    rest.push(Piece::One { slashes: !paths });
                    1
                }
                c => {
                    rest.push(Piece::Char(c));
                    c.len_utf8()
                }
            };
            left = &left[length..];
        }
        rest.dedup_by(|next, last| next == last && matches!(last, Piece::Many { .. }));
        Self { prefix: prefix.to_owned(), rest }
    }

    /// Tells whether a name matches.
    #[must_use]
    pub fn is_match(&self, name: &str) -> bool {
        let Some(name) = name.strip_prefix(&self.prefix) else { return false };
        match self.rest.as_slice() {
            [] => return name.is_empty(),
            [Piece::Many { slashes: true }] => return true,
            _ => {}
        }
        let mut at = vec![false; self.rest.len() + 1];
        self.enter(&mut at, 0);
        for c in name.chars() {
            let mut next = vec![false; self.rest.len() + 1];
            for (place, piece) in self.rest.iter().enumerate().filter(|(place, _)| at[*place]) {
                match *piece {
                    Piece::Char(wanted) if wanted == c => self.enter(&mut next, place + 1),
                    Piece::One { slashes } if slashes || c != '/' => {
                        self.enter(&mut next, place + 1);
                    }
                    Piece::Many { slashes } if slashes || c != '/' => self.enter(&mut next, place),
                    Piece::Folders => {
                        next[place] = true;
                        if c == '/' {
                            self.enter(&mut next, place + 1);
                        }
                    }
                    _ => {}
                }
            }
            at = next;
        }
        at[self.rest.len()]
    }

    /// Adds a place, and those beyond pieces that may match nothing.
    fn enter(&self, at: &mut [bool], mut place: usize) {
        while !std::mem::replace(&mut at[place], true) {
            match self.rest.get(place) {
                Some(Piece::Many { .. }) => place += 1,
                Some(Piece::Maybe) => {
                    at[place + 1] = true;
                    place += 2;
                }
                _ => break,
            }
        }
    }
}

/// Tells whether a text is a pattern rather than a plain name.
#[must_use]
pub fn is_pattern(text: &str) -> bool {
    text.contains(['*', '?'])
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    #[rstest]
    #[case("app/[id]/(shop)/*.js", "app/[id]/(shop)/a.js", true, true)]
    #[case("src/*", "src/a/b.js", true, false)]
    #[case("src/**", "src/a/b.js", true, true)]
    #[case("**.js", "src/a/b.js", true, true)]
    #[case("src/**/b.js", "src/b.js", true, true)]
    #[case("src/**/b.js", "src/a/c/b.js", true, true)]
    #[case("src/?.js", "src//.js", true, false)]
    #[case("@scope/*", "@scope/a", false, true)]
    #[case("*", "@scope/a", false, true)]
    #[case("{a,b}", "a", false, false)]
    #[case("a.c", "abc", false, false)]
    #[case("a?c!", "abc!", false, true)]
    #[case("a/**/*/b", "a/x/b", true, true)]
    #[case("a/**/*/b", "a/b", true, false)]
    #[case("**/**/a*a", "b/aa", true, true)]
    #[case("***", "a/b", true, true)]
    #[case("", "a", true, false)]
    fn only_stars_and_question_marks_are_special(
        #[case] glob: &str,
        #[case] name: &str,
        #[case] paths: bool,
        #[case] matches: bool,
    ) {
        assert_eq!(super::Glob::new(glob, paths).is_match(name), matches, "{glob} {name}");
    }
}
