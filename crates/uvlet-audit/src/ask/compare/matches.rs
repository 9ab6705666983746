//! Pairs of chunks: by their lasting names, then by what they hold.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Chunk, Owner, Record};

/// Emitted bytes of a chunk by the paths of its modules.
type Contents<'r> = BTreeMap<&'r str, u64>;

/// Pairs of chunks, by place: those of one name that share contents, then by the greatest overlap.
pub(crate) fn matched(before: &Record, after: &Record) -> Vec<(usize, usize)> {
    let old: Vec<_> = before.chunks.iter().map(|chunk| contents(before, chunk)).collect();
    let new: Vec<_> = after.chunks.iter().map(|chunk| contents(after, chunk)).collect();
    let mut pairs = Vec::new();
    let (mut free_old, mut free_new) = (vec![true; old.len()], vec![true; new.len()]);
    // The same bytes are the same chunk, and so is what goes by the same name and holds some of it.
    let mut by_digest: BTreeMap<Vec<&str>, Vec<usize>> = BTreeMap::new();
    for (at, chunk) in before.chunks.iter().enumerate() {
        by_digest.entry(digests(before, chunk)).or_default().push(at);
    }
    let by_name: BTreeMap<&str, usize> =
        before.chunks.iter().enumerate().map(|(at, chunk)| (chunk.name.as_str(), at)).collect();
    let mut take = |a: usize, b: usize, free_old: &mut Vec<bool>, free_new: &mut Vec<bool>| {
        if free_old[a] && free_new[b] {
            (free_old[a], free_new[b]) = (false, false);
            pairs.push((a, b));
        }
    };
    for (at, chunk) in after.chunks.iter().enumerate() {
        let same = by_digest.get(&digests(after, chunk)).into_iter().flatten();
        let by_name = |at: &&usize| before.chunks[**at].name == chunk.name;
        let found = same.clone().find(by_name).or_else(|| same.clone().find(|at| free_old[**at]));
        if let Some(&was) = found {
            take(was, at, &mut free_old, &mut free_new);
        }
    }
    for (at, chunk) in after.chunks.iter().enumerate() {
        if let Some(&was) = by_name.get(chunk.name.as_str())
            && (overlap(&old[was], &new[at]) > 0 || old[was].is_empty() || new[at].is_empty())
        {
            take(was, at, &mut free_old, &mut free_new);
        }
    }
    // By contents: at least half of either.
    let mut holders: BTreeMap<&str, Vec<usize>> = BTreeMap::new();
    for (at, contents) in old.iter().enumerate().filter(|(at, _)| free_old[*at]) {
        for path in contents.keys() {
            holders.entry(path).or_default().push(at);
        }
    }
    let mut candidates: BTreeMap<(usize, usize), u64> = BTreeMap::new();
    for (at, contents) in new.iter().enumerate().filter(|(at, _)| free_new[*at]) {
        for (path, bytes) in contents {
            for &was in holders.get(path).into_iter().flatten() {
                *candidates.entry((was, at)).or_default() += (*bytes).min(old[was][path]);
            }
        }
    }
    let weight = |contents: &Contents<'_>| contents.values().sum::<u64>();
    let mut best: Vec<(u64, usize, usize)> = candidates
        .into_iter()
        .filter(|((a, b), shared)| 2 * shared >= weight(&old[*a]).min(weight(&new[*b])))
        .map(|((a, b), shared)| (shared, a, b))
        .collect();
    best.sort_by(|a, b| b.0.cmp(&a.0).then_with(|| (a.1, a.2).cmp(&(b.1, b.2))));
    for (_, a, b) in best {
        take(a, b, &mut free_old, &mut free_new);
    }
    pairs
}

/// The chunk of another build that holds most of one, and at least half.
pub(crate) fn holder<'o>((record, chunk): (&Record, &Chunk), other: &'o Record) -> Option<&'o str> {
    let contents = contents(record, chunk);
    let whole: u64 = contents.values().sum();
    let shared = |candidate: &Chunk| -> u64 {
        let cells = candidate.files().flat_map(|file| other.cells_of(file));
        let modules: BTreeSet<&str> = cells
            .filter_map(|cell| match cell.owner {
                Owner::Module(id) => Some(other.module(id).path.as_str()),
                _ => None,
            })
            .collect();
        contents.iter().filter(|(path, _)| modules.contains(*path)).map(|(_, bytes)| bytes).sum()
    };
    let best = other.chunks.iter().map(|candidate| (shared(candidate), &candidate.name)).max()?;
    (best.0 > 0 && 2 * best.0 >= whole).then_some(best.1.as_str())
}

fn overlap(a: &Contents<'_>, b: &Contents<'_>) -> u64 {
    a.iter().filter_map(|(path, bytes)| Some((*bytes).min(*b.get(path)?))).sum()
}

pub(crate) fn contents<'r>(record: &'r Record, chunk: &Chunk) -> Contents<'r> {
    let mut contents = Contents::new();
    for cell in chunk.files().flat_map(|file| record.cells_of(file)) {
        if let Owner::Module(id) = cell.owner {
            *contents.entry(&record.module(id).path).or_default() += cell.amount.emitted;
        }
    }
    contents
}

pub(crate) fn digests<'r>(record: &'r Record, chunk: &Chunk) -> Vec<&'r str> {
    chunk.files().map(|file| record.file(file).digest.as_str()).collect()
}
