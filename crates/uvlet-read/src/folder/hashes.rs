//! Content hashes in file names: the pattern is found once for the build, then applied to all.
//!
//! A hash may hold `-` and `_` and even begin with one, so a single name cannot be judged safely.
//! Over many files of one kind, the separator and length that most of them share give it away.

use std::collections::BTreeMap;

/// Where a build puts the hash: after a separator, at the end of the stem, with a fixed length.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
struct Pattern {
    /// `None` where the hash is the whole stem.
    separator: Option<char>,
    length: usize,
}

/// Strips content hashes from file names of one build.
#[derive(Debug, Default)]
pub struct Hashes {
    /// Patterns per extension, the commonest first; all have its length.
    patterns: BTreeMap<String, Vec<Pattern>>,
}

/// Lengths that a hash may have.
const LENGTHS: std::ops::RangeInclusive<usize> = 5..=64;
/// Lengths that bundlers cut hashes to by default, which settle a doubt.
const USUAL: [usize; 5] = [8, 20, 16, 10, 32];

impl Hashes {
    /// Finds the pattern for each extension among the names. The pattern of the build as a whole
    /// is preferred: an extension with one file could be cut in several ways.
    pub fn find<'a>(paths: impl Iterator<Item = &'a str>) -> Self {
        let mut by_extension: BTreeMap<&str, Counts<'_>> = BTreeMap::new();
        let mut overall = Counts::default();
        for path in paths {
            let (stem, extension) = split(path);
            by_extension.entry(extension).or_default().add(stem);
            overall.add(stem);
        }
        let preferred = overall.patterns(None).and_then(|patterns| patterns.first().copied());
        let patterns = by_extension.into_iter().filter_map(|(extension, counts)| {
            Some((extension.to_owned(), counts.patterns(preferred)?))
        });
        Self { patterns: patterns.collect() }
    }

    /// The stem of a path's file name without its hash, and the hash.
    pub fn split<'p>(&self, path: &'p str) -> (&'p str, Option<&'p str>) {
        let (stem, extension) = split(path);
        if let Some((name, hash)) = shared_by_esbuild(stem) {
            return (name, Some(hash));
        }
        for pattern in self.patterns.get(extension).into_iter().flatten() {
            if let Some((name, hash)) = pattern.split(stem)
                && !is_word(hash)
            {
                return (name, Some(hash));
            }
        }
        (stem, None)
    }
}

impl Pattern {
    fn split(self, stem: &str) -> Option<(&str, &str)> {
        let at = stem.len().checked_sub(self.length)?;
        let (name, hash) = (stem.get(..at)?, stem.get(at..)?);
        if !hash.chars().all(|c| c.is_ascii_alphanumeric() || c == '-' || c == '_') {
            return None;
        }
        match self.separator {
            Some(separator) => Some((name.strip_suffix(separator)?, hash)),
            None => name.is_empty().then_some(("", hash)),
        }
    }
}

/// The stem and extension of a path's file name; `.min` and the like stay with the stem.
fn split(path: &str) -> (&str, &str) {
    let name = path.rsplit('/').next().unwrap_or(path);
    name.rsplit_once('.').unwrap_or((name, ""))
}

/// How many stems end in something random, per pattern.
#[derive(Default)]
struct Counts<'a> {
    stems: Vec<&'a str>,
    found: BTreeMap<Pattern, usize>,
}

impl<'a> Counts<'a> {
    fn add(&mut self, stem: &'a str) {
        self.stems.push(stem);
        let is_separator = |c: &(usize, char)| matches!(c.1, '-' | '.' | '_');
        let cuts = stem.char_indices().filter(is_separator).map(|(at, c)| (Some(c), at + 1));
        for (separator, start) in cuts.chain([(None, 0)]) {
            let hash = &stem[start..];
            if LENGTHS.contains(&hash.len()) && is_random(hash) {
                *self.found.entry(Pattern { separator, length: hash.len() }).or_default() += 1;
            }
        }
    }

    /// The pattern that most stems follow, with the others of its length, if half of the stems
    /// follow one of them: a build may name entries `name.HASH` and chunks by the hash alone. Among
    /// equals: the preferred one, a cut at a separator, a usual length, the shorter hash.
    fn patterns(&self, preferred: Option<Pattern>) -> Option<Vec<Pattern>> {
        let rank = |(pattern, count): (&Pattern, &usize)| {
            let usual = USUAL.iter().position(|&length| length == pattern.length);
            (
                *count,
                Some(*pattern) == preferred,
                pattern.separator.is_some(),
                std::cmp::Reverse(usual.unwrap_or(USUAL.len())),
                std::cmp::Reverse(pattern.length),
            )
        };
        let no_pattern = (&Pattern { separator: None, length: 0 }, &0);
        let (best, _) = self.found.iter().max_by_key(|&found| rank(found)).unwrap_or(no_pattern);
        let alike = self.found.iter().filter(|(pattern, _)| pattern.length == best.length);
        let count: usize = alike.clone().map(|(_, count)| count).sum();
        let mut patterns: Vec<Pattern> = alike.map(|(pattern, _)| *pattern).collect();
        patterns.sort_by_key(|pattern| *pattern != *best);
        // Of few files none may look random enough by itself; they follow the build's pattern.
        if count * 2 < self.stems.len() && count < 8 {
            let follow = |pattern: &Pattern| {
                let fits =
                    |stem: &&&str| pattern.split(stem).is_some_and(|(_, hash)| !is_word(hash));
                self.stems.iter().filter(fits).count() * 2 >= self.stems.len()
            };
            return preferred.filter(follow).map(|pattern| vec![pattern]);
        }
        Some(patterns)
    }
}

/// Whether files are called as esbuild calls what several entries share, and no such file otherwise: the
/// hash of another bundler looks so once in 256.
pub fn are_shared_by_esbuild<'p>(paths: impl Iterator<Item = &'p str>) -> bool {
    let mut stems = paths.filter_map(|path| {
        let (stem, extension) = split(path);
        (extension == "js" && stem.starts_with("chunk-")).then_some(stem)
    });
    let mut is_any = false;
    stems.all(|stem| {
        is_any = true;
        shared_by_esbuild(stem).is_some()
    }) && is_any
}

/// esbuild calls what several entries share `chunk-` and a hash in base 32, beside entries that have none.
fn shared_by_esbuild(stem: &str) -> Option<(&str, &str)> {
    let (name, hash) = stem.rsplit_once('-')?;
    let is_hash = hash.len() == 8 && hash.bytes().all(|b| matches!(b, b'A'..=b'Z' | b'2'..=b'7'));
    (name == "chunk" && is_hash).then_some((name, hash))
}

/// Lower-case letters alone make a word, not a hash: of eight characters out of 64, one in 1,400
/// would marks so by chance.
fn is_word(text: &str) -> bool {
    text.chars().all(|c| c.is_ascii_lowercase() || c == '-' || c == '_')
}

/// Whether a text looks drawn at random: digits between letters, or letters that no word has.
fn is_random(text: &str) -> bool {
    if !text.chars().all(|c| c.is_ascii_alphanumeric() || c == '-' || c == '_') {
        return false;
    }
    let letters = text.chars().filter(char::is_ascii_alphabetic).count();
    let digits = text.chars().filter(char::is_ascii_digit).count();
    let upper = text.chars().filter(char::is_ascii_uppercase).count();
    if letters == 0 {
        return false;
    }
    if digits > 0 {
        // `step2` and `v12` are names: digits after one run of lower-case letters.
        let after_word = text.trim_start_matches(|c: char| c.is_ascii_lowercase());
        return digits >= 2 && !after_word.chars().all(|c| c.is_ascii_digit())
            || upper > 0
            || text.starts_with(|c: char| c.is_ascii_digit());
    }
    // All capitals, or capitals inside that begin no new word (`CUCuuYab`).
    upper == letters
        || text.as_bytes().windows(2).filter(|w| w.iter().all(u8::is_ascii_uppercase)).count() > 1
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::Hashes;

    #[rstest]
    #[case::esbuild(&["booking-M6NEMVEU.js", "chunk-GHJKLMNP.js", "user-settings.js"],
        &["booking", "chunk", "user-settings"])]
    #[case::rollup(&["shop-CUC-uu1Y.js", "Dialog-_Q1BTy4h.js", "index-BwGq8j2a.js", "date-picker.js"],
        &["shop", "Dialog", "index", "date-picker"])]
    #[case::webpack(&["main.0a1b2c3d4e5f60718293.js", "408.9f8e7d6c5b4a39281706.js"], &["main", "408"])]
    #[case::whole_name(&["0a1b2c3d4e5f6071.js", "9f8e7d6c5b4a3928.js"], &["", ""])]
    #[case::mixed(&["index.8af89c915969506c.js", "js/1553bacd53ecb420.js", "js/788eb026cfe965c2.js"], &["index", "", ""])]
    #[case::few_styles(&["a-sSG4zXwi.js", "b-DSZQPyG0.js", "d-CN4KUr_n.js", "e-D5J6wcBC.js", "one-DtUNrmg_.css", "two-CjcnHwjL.css", "c-DhzmkAbc.css"],
        &["a", "b", "d", "e", "one", "two", "c"])]
    #[case::one_style(&["b-RCDS7OG5.js", "chunk-BZNJQ2RX.js", "b-LGMGADHI.css"], &["b", "chunk", "b"])]
    #[case::shared(&["home.js", "report.js", "extra.js", "chunk-WEX43NPQ.js"], &["home", "report", "extra", "chunk"])]
    #[case::one_file(&["user-page-AbC1x345.js"], &["user-page"])]
    #[case::none(&["app.js", "vendor-react.js", "chapter12.js", "step-two.js"],
        &["app", "vendor-react", "chapter12", "step-two"])]
    fn names_without_hashes(#[case] files: &[&str], #[case] names: &[&str]) {
        let hashes = Hashes::find(files.iter().copied());
        let found: Vec<_> = files.iter().map(|file| hashes.split(file).0).collect();
        assert_eq!(found, names);
    }
}
