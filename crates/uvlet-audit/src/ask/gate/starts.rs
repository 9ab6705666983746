//! What entries start with, to be shown beside a verdict.

use uvlet_record::sizes::Measure;

use crate::{
    ask::attribute::{By, Sort, attribute},
    lens::Lens,
};

/// What an entry starts with.
#[derive(Clone, Debug)]
pub struct EntryStart {
    /// The entry.
    pub entry: String,
    /// What the bytes are counted in.
    pub measure: Measure,
    /// What arrives before its code can run.
    pub bytes: u64,
    /// The same in the build before.
    pub base: Option<u64>,
    /// Whose bytes they are, heaviest first.
    pub parts: Vec<(String, u64)>,
}

/// What entries start with, the heaviest first; nothing in a measure that was not taken.
#[must_use]
pub fn starts(lens: &Lens<'_>, base: Option<&Lens<'_>>, measure: Measure) -> Vec<EntryStart> {
    let holds = |lens: &Lens<'_>| lens.record.measures().any(|held| held == measure);
    if !holds(lens) {
        return Vec::new();
    }
    let startup = |lens: &Lens<'_>, at: usize| {
        let cells = lens.files(lens.reach[at].startup.iter().copied());
        (lens.amount(&cells).bytes(measure), cells)
    };
    let mut folds = Vec::new();
    for (at, entry) in lens.record.entries.iter().enumerate() {
        let (bytes, cells) = startup(lens, at);
        let base = base.filter(|base| holds(base)).and_then(|base| {
            let then = base.record.entries.iter().position(|one| one.name == entry.name)?;
            Some(startup(base, then).0)
        });
        let rows = attribute(lens, By::Package, &cells, None, Sort::Heaviest(measure)).rows;
        let parts = rows.into_iter().map(|row| (row.name, row.sizes.get(measure)));
        let parts = parts.filter(|(_, bytes)| *bytes > 0).collect();
        folds.push(EntryStart { entry: entry.name.clone(), measure, bytes, base, parts });
    }
    folds.sort_by(|a, b| b.bytes.cmp(&a.bytes).then_with(|| a.entry.cmp(&b.entry)));
    folds
}
