//! Bytes of a build that are whole cells, and stretches that are less.

use std::collections::BTreeMap;

use uvlet_record::sizes::Amount;

use crate::{
    lens::Lens,
    parts::{cells::CellSet, prices::Prices, spans::Spans},
};

/// Bytes of a build: whole cells, and stretches that are less.
#[derive(Clone, Default)]
pub(crate) struct Stock {
    pub(crate) cells: CellSet,
    pub(crate) spans: Spans,
}

impl Stock {
    pub(crate) fn of_cells(cells: CellSet) -> Self {
        Self { cells, spans: Spans::default() }
    }

    pub(crate) fn is_empty(&self) -> bool {
        self.spans.is_empty() && self.cells.iter().next().is_none()
    }

    pub(crate) fn or(self, cells: &CellSet, spans: &Spans) -> Self {
        Self { cells: self.cells.or(cells), spans: self.spans.or(spans) }
    }

    pub(crate) fn amount(&self, lens: &Lens<'_>, prices: &Prices) -> Amount {
        let mut amount = lens.amount(&self.cells);
        amount += prices.amount(lens.record, &self.spans, &self.cells);
        amount
    }
}

pub(crate) fn stocks(by_entry: BTreeMap<usize, CellSet>) -> BTreeMap<usize, Stock> {
    by_entry.into_iter().map(|(entry, cells)| (entry, Stock::of_cells(cells))).collect()
}
