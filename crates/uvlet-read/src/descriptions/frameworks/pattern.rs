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

/// Keeps the set of all places in the pattern where one may be, so that many optional parts cost no
/// more than the product of both lengths.
fn matches(pattern: &[Part], path: &[&str]) -> bool {
    let mut at = vec![false; pattern.len() + 1];
    enter(pattern, &mut at, 0);
    for part in path {
        let mut next = vec![false; pattern.len() + 1];
        for (place, wanted) in pattern.iter().enumerate().filter(|(place, _)| at[*place]) {
            match wanted {
                Part::Text(text) if text != part => {}
                Part::Text(_) | Part::One | Part::Perhaps => enter(pattern, &mut next, place + 1),
                Part::Rest { .. } => {
                    next[place] = true;
                    enter(pattern, &mut next, place + 1);
                }
            }
        }
        at = next;
    }
    at[pattern.len()]
}

/// Adds a place, and those beyond parts that may be left out.
fn enter(pattern: &[Part], at: &mut [bool], mut place: usize) {
    loop {
        at[place] = true;
        match pattern.get(place) {
            Some(Part::Perhaps | Part::Rest { is_optional: true }) => place += 1,
            _ => break,
        }
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
    #[case("/[...a]/x/[[...b]]", "/1/2/x", true)]
    #[case("/[...a]/x/[...b]", "/1/2/x", false)]
    fn paths_of_patterns(#[case] pattern: &str, #[case] path: &str, #[case] fits: bool) {
        assert_eq!(Pattern::new(pattern).is_match(path), fits, "{pattern} {path}");
    }
}
