//! At which level a server compresses, told by what came.

use uvlet_record::{FileId, Texts, sizes::Coding};

/// Levels that servers are set to, the usual one first.
const GZIP: [u32; 5] = [6, 9, 5, 4, 1];
const BR: [u32; 6] = [4, 5, 11, 6, 3, 1];
const ZSTD: [u32; 4] = [3, 19, 10, 1];

/// Bytes of a text in a coding at a level.
pub type SizeAt<'s> = dyn Fn(&[u8], Coding, u32) -> Option<u64> + 's;

/// The level of a coding whose sizes for some files are the nearest to what was sent.
#[must_use]
pub fn level(
    texts: &dyn Texts,
    files: &[(FileId, u64)],
    coding: Coding,
    size_at: &SizeAt<'_>,
) -> Option<u32> {
    let known = files.iter().map(|(id, sent)| Some((texts.emitted(*id)?, *sent)));
    let known: Vec<_> = known.collect::<Option<_>>()?;
    let levels = match coding {
        Coding::Gzip => &GZIP[..],
        Coding::Br => &BR[..],
        Coding::Zstd => &ZSTD[..],
    };
    let off = |level: u32| -> Option<u64> {
        known.iter().map(|(text, sent)| Some(size_at(text, coding, level)?.abs_diff(*sent))).sum()
    };
    // Of levels that are as near the usual one, which stands first.
    let found = levels.iter().filter_map(|&level| Some((off(level)?, level)));
    let (off, level) = found.min_by_key(|(off, _)| *off)?;
    let sent: u64 = known.iter().map(|(_, sent)| sent).sum();
    // Further off than that it is another encoder, or another text.
    (off * 20 <= sent).then_some(level)
}
