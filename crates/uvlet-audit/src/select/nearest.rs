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

/// `did you mean a or b?` where something is close, else a list of what there is.
pub fn remedy<'a>(wrong: &str, names: impl Iterator<Item = &'a str> + Clone) -> String {
    let close = nearest(wrong, names.clone());
    if !close.is_empty() {
        return format!("did you mean {}?", close.join(" or "));
    }
    let mut all: Vec<&str> = names.collect();
    all.sort_unstable();
    all.dedup();
    match all.len() {
        0 => "there are none".to_owned(),
        1..=8 => format!("there are {}", all.join(", ")),
        more => format!("there are {} and {} more", all[..8].join(", "), more - 8),
    }
}
