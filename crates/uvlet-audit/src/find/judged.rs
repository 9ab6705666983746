//! How much of a build a kind of finding could judge: that nothing was found says something only of what
//! was looked at.
//!
//! Each kind says what it must see of a byte: whose it is, who imports whom, the emitted text, the source
//! text. The bytes that offer all of that are what it judged. Glue is always seen.

use std::collections::{BTreeMap, BTreeSet};

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use serde::Serialize;
use uvlet_record::{Basis, FileId, Kind as FileKind, ModuleId, Owner, Texts};

use crate::{
    find::{
        context::has_pages,
        kind::{Kind, Need},
    },
    lens::Lens,
};

/// What a kind of finding could judge.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Judged {
    /// The kind.
    pub kind: Kind,
    /// Emitted bytes that it could judge.
    pub bytes: u64,
    /// Emitted bytes of the scripts, and of styles with a map where the kind is about them, too.
    pub of: u64,
    /// What it must see.
    pub needs: Vec<Need>,
    /// What of that is missing for some bytes.
    pub lacks: Vec<Need>,
    /// It ended with a fault of this program, so that nothing is known of it.
    pub has_failed: bool,
}

impl Judged {
    /// Tells whether at least some share of the bytes was judged, in thousandths of a percent.
    #[must_use]
    pub fn is_at_least(&self, share: u64) -> bool {
        u128::from(self.bytes) * 100_000 >= u128::from(self.of) * u128::from(share)
    }

    /// Hundredths of the bytes that were judged, rounded down; all where there are none.
    #[must_use]
    pub fn percent(&self) -> u64 {
        (u128::from(self.bytes) * 100)
            .checked_div(u128::from(self.of))
            .and_then(|percent| u64::try_from(percent).ok())
            .unwrap_or(100)
    }
}

/// Styles of which at least something is owned: most bundlers write no maps for styles, which then are told
/// of apart.
fn mapped_styles(lens: &Lens<'_>) -> Vec<bool> {
    let record = lens.record;
    let is_mapped = |at: usize| {
        let mut cells = record.cells_of(FileId::new(at)).iter();
        record.files[at].kind == FileKind::Style
            && cells.any(|cell| matches!(cell.owner, Owner::Module(_)))
    };
    (0..record.files.len()).map(is_mapped).collect()
}

/// Emitted bytes of styles that no kind can judge.
pub fn unjudged_styles(lens: &Lens<'_>) -> u64 {
    let mapped = mapped_styles(lens);
    let styles = lens.record.files.iter().zip(mapped);
    let unmapped = styles.filter(|(file, mapped)| file.kind == FileKind::Style && !mapped);
    unmapped.map(|(file, _)| file.emitted).sum()
}

/// Says of each kind what it could judge.
pub fn judged(lens: &Lens<'_>, texts: &dyn Texts, kinds: &[Kind]) -> Vec<Judged> {
    let record = lens.record;
    let needs: BTreeSet<Need> = kinds.iter().flat_map(|kind| kind.needs()).copied().collect();
    let with_text: Vec<bool> = (0..record.files.len())
        .into_par_iter()
        .map(|at| needs.contains(&Need::Texts) && texts.emitted(FileId::new(at)).is_some())
        .collect();
    let with_source: Vec<bool> = (0..record.modules.len())
        .into_par_iter()
        .map(|at| needs.contains(&Need::Sources) && texts.source(ModuleId::new(at)).is_some())
        .collect();
    let is_own = |at: &usize| !record.modules[*at].third_party;
    let has_own_sources = (0..record.modules.len()).filter(is_own).any(|at| with_source[at]);
    let sees = |kind: Kind, need: Need, file: FileId, owner: Owner, basis: Basis| match owner {
        _ if need == Need::Pages => has_pages(lens, file),
        Owner::Unattributed => need == Need::Texts && with_text[file.at()],
        Owner::Module(id) => match need {
            Need::Owners => basis != Basis::Estimated,
            Need::Edges => !record.edges.is_empty(),
            Need::Texts => with_text[file.at()],
            // An import can only be deferred in own code, whatever it imports.
            Need::Sources if kind == Kind::Deferrable && record.module(id).third_party => {
                has_own_sources
            }
            Need::Sources | Need::Pages => with_source[id.at()],
        },
        _ => true,
    };
    let mapped = mapped_styles(lens);
    let mut found: Vec<Judged> = Vec::new();
    for &kind in kinds {
        let (mut bytes, mut of) = (0, 0);
        let mut missing: BTreeMap<Need, u64> = BTreeMap::new();
        for cell in &record.cells {
            let is_meant = match record.file(cell.file).kind {
                FileKind::Script => kind.is_of_scripts(),
                // Rules are read in the emitted text, whosever they are.
                FileKind::Style => {
                    kind.is_of_styles() && (mapped[cell.file.at()] || !kind.is_of_scripts())
                }
                _ => false,
            };
            if !is_meant {
                continue;
            }
            let emitted = cell.amount.emitted;
            of += emitted;
            let needs = kind.needs().iter().copied();
            let unseen: Vec<Need> = needs
                .filter(|need| !sees(kind, *need, cell.file, cell.owner, cell.basis))
                .collect();
            if unseen.is_empty() {
                bytes += emitted;
            }
            unseen.into_iter().for_each(|need| *missing.entry(need).or_default() += emitted);
        }
        found.push(Judged {
            kind,
            bytes,
            of,
            needs: kind.needs().to_vec(),
            // A few bytes that nobody owns are in every build.
            lacks: missing
                .into_iter()
                .filter(|(_, at)| at * 100 > of)
                .map(|(need, _)| need)
                .collect(),
            has_failed: false,
        });
    }
    found
}
