//! What the bars of entries are made of.

use uvlet_audit::ask::survey::{EntryRow, Startup};

use crate::{
    bar::PARTS,
    screen::{Screen, styled},
};

/// The parts that occur, each with its pattern.
pub(super) fn legend(entries: &[&EntryRow], screen: &Screen) -> String {
    let mut sums = [0; PARTS.len()];
    for entry in entries {
        for (sum, bytes) in sums.iter_mut().zip(parts(entry, screen)) {
            *sum += bytes;
        }
    }
    let mut text = String::new();
    let mut used = 0;
    for (part, _) in PARTS.iter().zip(sums).filter(|(_, sum)| *sum > 0) {
        let wide = 2 + 1 + part.word.len();
        let gap = if used == 0 { 0 } else { 2 };
        if used + gap + wide > screen.columns() {
            text.push('\n');
            used = wide;
        } else {
            text.push_str(&" ".repeat(gap));
            used += gap + wide;
        }
        text.push_str(&styled(part.style, &part.pattern.to_string().repeat(2)));
        text.push_str(&format!(" {}", part.word));
    }
    text
}

/// Bytes of an entry in the order of [`PARTS`].
pub(super) fn parts(entry: &EntryRow, screen: &Screen) -> [u64; PARTS.len()] {
    let Startup { own, third_party, glue, assets, unattributed, .. } = &entry.startup;
    let parts = [own, third_party, glue, assets, unattributed, &entry.deferred.sizes];
    parts.map(|sizes| sizes.get(screen.measure))
}
