//! Globs in which only `*`, `**` and `?` are special, as real paths hold `[id]` and `{a}`.

use globset::{GlobBuilder, GlobMatcher};

/// Compiles a glob. `*` and `?` stop at `/` only where `paths` says that slashes divide.
///
/// # Errors
/// What is wrong with it.
pub fn compile(text: &str, paths: bool) -> Result<GlobMatcher, String> {
    let mut escaped = String::with_capacity(text.len());
    for c in text.chars() {
        if matches!(c, '[' | ']' | '{' | '}' | '!') {
            escaped.extend(['[', c, ']']);
        } else {
            escaped.push(c);
        }
    }
    // A lone `!` in brackets would mean "not".
    let escaped = escaped.replace("[!]", "!");
    GlobBuilder::new(&escaped)
        .literal_separator(paths)
        .backslash_escape(false)
        .build()
        .map(|glob| glob.compile_matcher())
        .map_err(|error| error.kind().to_string())
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    #[rstest]
    #[case("app/[id]/(shop)/*.js", "app/[id]/(shop)/a.js", true, true)]
    #[case("src/*", "src/a/b.js", true, false)]
    #[case("src/**", "src/a/b.js", true, true)]
    #[case("@scope/*", "@scope/a", false, true)]
    #[case("*", "@scope/a", false, true)]
    #[case("{a,b}", "a", false, false)]
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
