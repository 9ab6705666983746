//! Patterns of routes, in the notations of the frameworks: `/ports/[id]`, `/ports/:id`, `/docs/[...rest]`,
//! `/docs/*`, and groups in parentheses that no visitor types.

/// A pattern, part by part.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Pattern(Vec<Part>);

#[derive(Debug, Clone, PartialEq, Eq)]
enum Part {
    Text(String),
    /// One part, whatever it is.
    One,
    /// At most one part.
    Perhaps,
    /// All that is left, at least one part unless it is optional.
    Rest {
        is_optional: bool,
    },
}

impl Pattern {
    /// Reads a pattern.
    pub fn new(text: &str) -> Self {
        let parts = text.split('/').filter(|part| !part.is_empty());
        Self(parts.filter(|part| !is_group(part)).map(Part::of).collect())
    }

    /// Whether a path is of it.
    pub fn is_match(&self, path: &str) -> bool {
        let parts: Vec<&str> = path.split('/').filter(|part| !part.is_empty()).collect();
        matches(&self.0, &parts)
    }

    /// Of several that fit, the greatest says most of the path.
    pub fn rank(&self) -> (usize, usize) {
        let texts = self.0.iter().filter(|part| matches!(part, Part::Text(_))).count();
        let ones = self.0.iter().filter(|part| matches!(part, Part::One)).count();
        (texts, ones)
    }

    /// It stands for one path alone.
    pub fn is_plain(&self) -> bool {
        self.0.iter().all(|part| matches!(part, Part::Text(_)))
    }
}

impl Part {
    fn of(text: &str) -> Self {
        if text.starts_with("[[...") {
            return Self::Rest { is_optional: true };
        }
        if text.starts_with("[...") || text.starts_with('*') || text.contains("(.*)") {
            return Self::Rest { is_optional: text.starts_with('*') || text.ends_with("(.*)*") };
        }
        if text.starts_with("[[") || (text.starts_with(':') && text.ends_with('?')) {
            return Self::Perhaps;
        }
        // SvelteKit and others allow text beside a hole; it is not looked at.
        if text.contains('[') || text.starts_with(':') {
            return Self::One;
        }
        Self::Text(text.to_owned())
    }
}

fn is_group(part: &str) -> bool {
    part.starts_with('(') && part.ends_with(')')
}

fn matches(pattern: &[Part], path: &[&str]) -> bool {
    match (pattern.split_first(), path.split_first()) {
        (None, None) => true,
        (None, Some(_)) => false,
        (Some((Part::Rest { is_optional }, rest)), _) => {
            let least = usize::from(!is_optional);
            (least..=path.len()).any(|taken| matches(rest, &path[taken..]))
        }
        (Some((Part::Perhaps, rest)), one) => {
            matches(rest, path) || one.is_some_and(|(_, left)| matches(rest, left))
        }
        (Some((Part::One, rest)), Some((_, left))) => matches(rest, left),
        (Some((Part::Text(text), rest)), Some((part, left))) => text == part && matches(rest, left),
        (Some((Part::One | Part::Text(_), _)), None) => false,
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::Pattern;

    #[rstest]
    #[case("/", "/", true)]
    #[case("/reports", "/reports", true)]
    #[case("/ports/[id]", "/ports/hol", true)]
    #[case("/ports/:id()", "/ports/hol", true)]
    #[case("/ports/[id]", "/ports", false)]
    #[case("/(shop)/cart", "/cart", true)]
    #[case("/docs/[...rest]", "/docs/a/b", true)]
    #[case("/docs/[...rest]", "/docs", false)]
    #[case("/docs/[[...rest]]", "/docs", true)]
    #[case("/[[lang]]/about", "/about", true)]
    #[case("/[[lang]]/about", "/de/about", true)]
    #[case("/:lang?/about", "/about", true)]
    #[case("/files/*", "/files/a/b", true)]
    fn paths_of_patterns(#[case] pattern: &str, #[case] path: &str, #[case] fits: bool) {
        assert_eq!(Pattern::new(pattern).is_match(path), fits, "{pattern} {path}");
    }
}
