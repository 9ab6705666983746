//! The names that a misspelt one most likely meant.

/// Up to three of `names` that are close to `wrong`, best first.
pub fn nearest<'a>(wrong: &str, names: impl Iterator<Item = &'a str>) -> Vec<&'a str> {
    let folded = wrong.to_lowercase();
    let mut close: Vec<(f64, &str)> = names
        .map(|name| (likeness(&folded, &name.to_lowercase()), name))
        .filter(|&(likeness, _)| likeness > 0.65)
        .collect();
    close.sort_by(|a, b| b.0.total_cmp(&a.0).then(a.1.cmp(b.1)));
    close.dedup();
    close.into_iter().take(3).map(|(_, name)| name).collect()
}

/// A common beginning counts, and so do swapped letters, which weigh much in short names.
fn likeness(wrong: &str, name: &str) -> f64 {
    let swapped = strsim::normalized_damerau_levenshtein(wrong, name);
    swapped.max(strsim::jaro_winkler(wrong, name) - 0.05)
}

/// What there is where a name means nothing: names that are close to it, else all of them.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Known {
    /// These are close.
    Near(Vec<String>),
    /// None is; the first of all, in order, and how many more there are.
    All(Vec<String>, usize),
}

impl Known {
    /// Names that are listed.
    const LISTED: usize = 8;

    /// What there is instead of a name.
    pub fn of<'a>(wrong: &str, names: impl Iterator<Item = &'a str> + Clone) -> Self {
        let owned = |names: &[&str]| names.iter().map(|&name| name.to_owned()).collect();
        let close = nearest(wrong, names.clone());
        if !close.is_empty() {
            return Self::Near(owned(&close));
        }
        let mut all: Vec<&str> = names.collect();
        all.sort_unstable();
        all.dedup();
        let shown = all.len().min(Self::LISTED);
        Self::All(owned(&all[..shown]), all.len() - shown)
    }
}
