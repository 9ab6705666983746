//! Globs in which only `*`, `**` and `?` are special, as real paths hold `[id]`, `{a}` and `(shop)`.

use regex::Regex;

/// Compiles a glob, which must match a whole name. `*` and `?` stop at `/` only where `paths` says
/// that slashes divide; `**` never does, and `**/` also stands for nothing.
///
/// # Errors
/// What is wrong with it: only that it is too long.
pub fn compile(text: &str, paths: bool) -> Result<Regex, String> {
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
    Regex::new(&pattern).map_err(|_| "the glob is too long".to_owned())
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
        assert_eq!(super::compile(glob, paths).unwrap().is_match(name), matches, "{glob} {name}");
    }
}
