//! Sets of bytes that are less than what one owner has in a file: what nothing uses, what never ran.
//!
//! Sets are sets of cells, so that a record whose cells are to be told apart by such a mark is cut finer:
//! each cell becomes its marked part and the rest, with positions and exact shares of their own. Such a
//! record answers like the one that it was made of, and is never saved.

use std::{collections::BTreeSet, ops::Range};

use uvlet_record::{Cell, CellId, Costs, FileId, Kind, Record, Recording, Texts};

use crate::{
    find::{exports, liveness::dead::liveness},
    parts::{
        atoms::{Layer, cut},
        marks::{Exports, Marked, Marks},
        recordings::ran,
        spans::Spans,
    },
};

/// Which marks are wanted.
#[derive(Clone, Copy, Default)]
pub struct Wanted<'a> {
    /// What nothing uses.
    pub leftovers: bool,
    /// What no recording saw run.
    pub recordings: Option<&'a [Recording]>,
    /// Each exported name by itself.
    pub exports: bool,
}

/// A mark before it is laid on cells: stretches, and the files that are known.
struct Laid {
    spans: Spans,
    known: BTreeSet<FileId>,
}

/// A record whose cells are cut where marks begin and end, with the marks. Without `costs`, bits are
/// shared out in proportion.
#[must_use]
pub fn marked(
    record: &Record,
    texts: &dyn Texts,
    costs: Option<&dyn Costs>,
    wanted: Wanted<'_>,
) -> (Record, Marks) {
    let has_texts = (0..record.files.len()).any(|at| texts.emitted(FileId::new(at)).is_some());
    let leftovers = (wanted.leftovers && has_texts).then(|| {
        let found = liveness(record, texts);
        let mut spans = Spans::default();
        for dead in &found.dead {
            dead.ranges.iter().for_each(|range| spans.add(dead.file, range.clone()));
        }
        Laid { spans: spans.joined(), known: found.followed }
    });
    let never_ran = wanted.recordings.map(|recordings| {
        let ran = ran(record, recordings, texts);
        Laid { spans: ran.never, known: ran.files.into_keys().collect() }
    });
    let exports = (wanted.exports && has_texts).then(|| exports::exported(record, texts));
    let layer = |laid: &Option<Laid>| laid.as_ref().map(Laid::layer).unwrap_or_default();
    let of_exports = exports.as_ref().map(|(layer, _)| layer.clone()).unwrap_or_default();
    let layers = [layer(&leftovers), layer(&never_ran), of_exports];
    let (fine, labels) = cut(record, &layers, costs);
    let [leftovers, never_ran] = [(0, leftovers), (1, never_ran)].map(|(mark, laid)| {
        let known = laid?.known;
        let all = || fine.cells.iter().enumerate();
        let is_code = |cell: &Cell| matches!(fine.file(cell.file).kind, Kind::Script | Kind::Style);
        let is_script = |cell: &Cell| fine.file(cell.file).kind == Kind::Script;
        // Styles have no declarations, and may well be without a recording.
        let may_be = |cell: &Cell| match mark {
            0 => is_script(cell),
            _ => is_code(cell),
        };
        Some(Marked {
            cells: all()
                .filter(|(at, _)| labels[*at][mark] > 0)
                .map(|(at, _)| CellId::new(at))
                .collect(),
            maybe: all()
                .filter(|(_, cell)| !known.contains(&cell.file) && may_be(cell))
                .map(|(at, _)| CellId::new(at))
                .collect(),
        })
    });
    let exports = exports.map(|(_, list)| Exports {
        of_cells: labels.iter().map(|[_, _, label]| label.checked_sub(1)).collect(),
        list,
    });
    (fine, Marks { leftovers, never_ran, exports })
}

impl Laid {
    fn layer(&self) -> Layer {
        let mut layer = Layer::new();
        for (file, range) in self.spans.iter() {
            let range: Range<u64> = range.clone();
            layer.entry(file).or_default().push((range, 1));
        }
        layer
    }
}
