//! Rows in columns: one flexible column of names on the left, the others as wide as they need.

use crate::name::{fitted, shortened, width};
use crate::screen::bold;

/// One column.
#[derive(Clone)]
pub struct Column {
    pub heading: String,
    /// Numbers stand on the right.
    pub right: bool,
    /// May be cut when the screen is narrow.
    pub flexible: bool,
    /// Left out when the screen is too narrow for it and a readable name.
    pub optional: bool,
}

impl Column {
    pub fn name(heading: &str) -> Self {
        Self { heading: heading.to_owned(), right: false, flexible: true, optional: false }
    }

    pub fn number(heading: impl Into<String>) -> Self {
        Self { heading: heading.into(), right: true, flexible: false, optional: false }
    }

    pub fn word(heading: &str) -> Self {
        Self { heading: heading.to_owned(), right: false, flexible: false, optional: false }
    }

    pub fn extra(heading: &str) -> Self {
        Self { optional: true, ..Self::word(heading) }
    }
}

/// Space between columns.
const GAP: usize = 2;
/// A flexible column keeps at least this much.
const NARROW: usize = 11;
/// A name that is cut below this many columns can hardly be told from others.
const READABLE: usize = 28;

/// A name gives way to phrases beside it down to this much.
const NAMES: usize = 22;
/// A phrase in an optional column is cut to this much before the column is left out.
const SHORT: usize = 20;

/// Columns that give way, and down to how much.
type Way = (fn(&Column) -> bool, usize);

/// Whether rows can be laid out in so many columns with readable names, without optional columns.
pub fn fits(heads: &[Column], rows: &[Vec<String>], columns: usize) -> bool {
    let wide = |(at, head): (usize, &Column)| {
        let cells = rows.iter().filter_map(|row| Some(width(row.get(at)?)));
        let wide = cells.max().unwrap_or(0).max(width(&head.heading));
        GAP + if head.flexible { wide.min(READABLE) } else { wide }
    };
    let needed: usize = heads.iter().enumerate().filter(|(_, head)| !head.optional).map(wide).sum();
    needed <= columns + GAP
}

/// Lays out rows in at most `columns`; a cell that does not fit loses its front.
pub fn lay_out(heads: &[Column], rows: &[Vec<String>], columns: usize) -> String {
    let mut widths: Vec<usize> = heads.iter().map(|head| width(&head.heading)).collect();
    for row in rows {
        for (wide, cell) in widths.iter_mut().zip(row) {
            *wide = (*wide).max(width(cell));
        }
    }
    let needed = |(head, &wide): (&Column, &usize)| {
        GAP + match (head.flexible, head.optional) {
            (true, _) => wide.min(READABLE),
            (_, true) => wide.min(SHORT.max(width(&head.heading))),
            _ => wide,
        }
    };
    let fits = heads.iter().zip(&widths).map(needed).sum::<usize>() <= columns + GAP;
    if let Some(last) = heads.iter().rposition(|head| head.optional).filter(|_| !fits) {
        let without = |row: &Vec<String>| {
            let cells = row.iter().enumerate().filter(|(at, _)| *at != last);
            cells.map(|(_, cell)| cell.clone()).collect()
        };
        let rows: Vec<Vec<String>> = rows.iter().map(without).collect();
        let heads = heads.iter().enumerate().filter(|(at, _)| *at != last);
        let heads: Vec<Column> = heads.map(|(_, head)| head.clone()).collect();
        return lay_out(&heads, &rows, columns);
    }
    let gaps = GAP * heads.len().saturating_sub(1);
    let mut over = (widths.iter().sum::<usize>() + gaps).saturating_sub(columns);
    // Names on the left are what rows are found by: they give way first, but never wholly, and then
    // words on the right do. Numbers are never cut.
    let ways: [Way; 5] = [
        (|head| head.flexible, READABLE),
        (|head| head.flexible, NAMES),
        (|head| head.optional, SHORT),
        (|head| head.flexible, NARROW),
        (|head| !head.right && !head.flexible, NARROW),
    ];
    for (narrow, least) in ways {
        for (wide, head) in widths.iter_mut().zip(heads).rev().filter(|(_, head)| narrow(head)) {
            let spare = wide.saturating_sub(least.max(width(&head.heading))).min(over);
            *wide -= spare;
            over -= spare;
        }
    }
    let headings: Vec<String> = heads.iter().map(|head| head.heading.clone()).collect();
    let mut text = bold(line(heads, &widths, &headings).trim_end());
    text.push('\n');
    for row in rows {
        text.push_str(line(heads, &widths, row).trim_end());
        text.push('\n');
    }
    text
}

fn line(heads: &[Column], widths: &[usize], cells: &[String]) -> String {
    let mut text = String::new();
    for ((head, &wide), cell) in heads.iter().zip(widths).zip(cells) {
        if !text.is_empty() {
            text.push_str(&" ".repeat(GAP));
        }
        let cell = if head.optional { shortened(cell, wide) } else { fitted(cell, wide) };
        let space = " ".repeat(wide - width(&cell));
        if head.right {
            text.push_str(&space);
            text.push_str(&cell);
        } else {
            text.push_str(&cell);
            text.push_str(&space);
        }
    }
    text
}
