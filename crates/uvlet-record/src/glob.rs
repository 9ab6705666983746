//! Globs in which only `*`, `**` and `?` are special, as real paths hold `[id]`, `{a}` and `(shop)`.

use regex::Regex;

/// A compiled glob.
#[derive(Clone, Debug)]
pub struct Glob(Regex);

/// A glob is longer than can be compiled.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[error("the glob is too long")]
pub struct TooLong;

impl Glob {
    /// Compiles a glob, which must match a whole name. `*` and `?` stop at `/` only where `paths`
    /// says that slashes divide; `**` never does, and `**/` also stands for nothing.
    ///
    /// # Errors
    /// When it is too long.
    pub fn new(text: &str, paths: bool) -> Result<Self, TooLong> {
        let (one, many) = if paths { ("[^/]", "[^/]*") } else { (".", ".*") };
        let mut pattern = String::from("(?s)^");
        let mut rest = text;
        while let Some(c) = rest.chars().next() {
            let (piece, length) = match c {
                '*' if rest.starts_with("**/") => ("(?:.*/)?".to_owned(), 3),
                '*' if rest.starts_with("**") => (".*".to_owned(), 2),
                '*' => (many.to_owned(), 1),
                '?' => (one.to_owned(), 1),
                _ => (regex::escape(&rest[..c.len_utf8()]), c.len_utf8()),
            };
            pattern.push_str(&piece);
            rest = &rest[length..];
        }
        pattern.push('$');
        Regex::new(&pattern).map(Self).map_err(|_| TooLong)
    }

    /// Whether a name is meant.
    #[must_use]
    pub fn is_match(&self, name: &str) -> bool {
        self.0.is_match(name)
    }
}

/// Whether a text is a pattern rather than a plain name.
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
    fn only_stars_and_question_marks_are_special(
        #[case] glob: &str,
        #[case] name: &str,
        #[case] paths: bool,
        #[case] matches: bool,
    ) {
        assert_eq!(super::Glob::new(glob, paths).unwrap().is_match(name), matches, "{glob} {name}");
    }
}
