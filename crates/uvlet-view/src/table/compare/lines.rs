//! What moved, a line each, with the cause.

use uvlet_audit::ask::compare::{
    Comparison,
    causes::Cause,
    chunks::{ChunkChange, ChunkRow},
    rows::{ModuleRow, Row},
    sides::change,
};
use uvlet_record::sizes::Sizes;

use crate::{
    name::plain,
    screen::{Screen, count},
    table::grid::Column,
    units::Units,
    words,
};

/// What rows stand for.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, strum::EnumMessage, strum::IntoStaticStr, strum::VariantArray,
)]
#[strum(serialize_all = "lowercase")]
pub enum CompareBy {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// An emitted script with its styles.
    Chunk,
}

/// Which rows are shown.
#[derive(Clone, Copy, Debug)]
pub struct Rows {
    /// What they stand for.
    pub by: CompareBy,
    /// Rows that moved less are left to the last.
    pub min: u64,
    /// So many, and one for the rest.
    pub top: Option<usize>,
}

/// Rows in columns.
pub(crate) struct Lines {
    pub(crate) heads: Vec<Column>,
    pub(crate) lines: Vec<Vec<String>>,
}

/// One row before it is laid out.
struct One {
    name: String,
    before: Option<Sizes>,
    after: Option<Sizes>,
    because: String,
    is_estimated: bool,
}

/// The causes, which add up to the difference of the totals.
pub(crate) fn lines(answer: &Comparison, screen: &Screen, rows: &Rows) -> Lines {
    let measure = screen.measure;
    let all: Vec<One> = match rows.by {
        CompareBy::Package => answer.packages.iter().map(package).collect(),
        CompareBy::Module => answer.modules.iter().map(module).collect(),
        CompareBy::Chunk => {
            let changed = answer.chunks.iter().filter(|row| row.change != ChunkChange::Same);
            changed.map(chunk).collect()
        }
    };
    let by = |one: &One| change(one.before.as_ref(), one.after.as_ref(), measure);
    let is_shown = |one: &&One| by(one).unsigned_abs() >= rows.min;
    let shown: Vec<&One> =
        all.iter().filter(is_shown).take(rows.top.unwrap_or(usize::MAX)).collect();
    let rest: i64 = all.iter().map(by).sum::<i64>() - shown.iter().map(|one| by(one)).sum::<i64>();
    let hidden = all.len() - shown.len();
    let size = |sizes: Option<&Sizes>| {
        sizes.map_or_else(|| "–".to_owned(), |sizes| screen.units.size(sizes.get(measure)))
    };
    let mut lines: Vec<Vec<String>> = shown
        .into_iter()
        .map(|one| {
            let about = if one.is_estimated { "≈" } else { "" };
            let moved = screen.measures().map(|measure| {
                let by = change(one.before.as_ref(), one.after.as_ref(), measure);
                format!("{about}{}", signed(by, screen.units))
            });
            let sizes = [size(one.before.as_ref()), size(one.after.as_ref())];
            let cells = [one.name.clone()].into_iter().chain(sizes).chain(moved);
            cells.chain([one.because.clone()]).collect()
        })
        .collect();
    if hidden > 0 {
        let mut cells = vec![String::new(); 5 + screen.also.len()];
        cells[0] = format!("(the other {hidden})");
        cells[3] = signed(rest, screen.units);
        lines.push(cells);
    }
    let name = match rows.by {
        CompareBy::Package => "package",
        CompareBy::Module => "module",
        CompareBy::Chunk => "chunk",
    };
    let mut heads = vec![
        Column::name(name),
        Column::number(format!("from, {measure}")),
        Column::number("to"),
        Column::number("moved"),
    ];
    heads.extend(screen.also.iter().map(|measure| Column::number(format!("moved, {measure}"))));
    heads.push(Column::extra("because"));
    Lines { heads, lines }
}

fn package(row: &Row) -> One {
    let because = match (row.cause, &row.versions) {
        (Cause::Version, Some(versions)) => {
            format!("{} → {}", versions.before.join(", "), versions.after.join(", "))
        }
        (Cause::New, _) => match &row.asked_by {
            Some(asker) => format!("new, for {asker}"),
            None => words::changes::cause(Cause::New).to_owned(),
        },
        (Cause::Copies, _) => {
            let copies = usize::try_from(row.modules.copies.unsigned_abs()).unwrap_or(usize::MAX);
            let copies = count(copies, "copy");
            format!("{copies} {}", if row.modules.copies < 0 { "fewer" } else { "more" })
        }
        (Cause::Modules, _) => {
            let ways = [(row.modules.new, "new"), (row.modules.gone, "gone")];
            let said = ways.iter().filter(|(number, _)| *number > 0);
            let said: Vec<_> =
                said.map(|(number, way)| format!("{} {way}", count(*number, "module"))).collect();
            said.join(", ")
        }
        (Cause::Edited, _) => format!("{} edited", count(row.modules.edited, "module")),
        (cause, _) => words::changes::cause(cause).to_owned(),
    };
    One {
        name: plain(&row.name).into_owned(),
        before: row.before,
        after: row.after,
        because: plain(&because).into_owned(),
        is_estimated: row.estimated,
    }
}

fn module(row: &ModuleRow) -> One {
    One {
        name: plain(&row.name).into_owned(),
        before: row.before,
        after: row.after,
        because: words::changes::cause(row.cause).to_owned(),
        is_estimated: row.estimated,
    }
}

fn chunk(row: &ChunkRow) -> One {
    let (before, after) = (row.before.as_deref(), row.after.as_deref());
    let name = match (before, after) {
        (Some(a), Some(b)) if a != b => format!("{} (was {})", plain(b), plain(a)),
        (_, Some(name)) | (Some(name), None) => plain(name).into_owned(),
        (None, None) => String::new(),
    };
    let because = row.because.as_ref().map(words::changes::because);
    let because = because.unwrap_or_else(|| row.change.name().to_owned());
    let because = plain(&because).into_owned();
    let (before, after) = (row.sizes_before, row.sizes_after);
    One { name, before, after, because, is_estimated: false }
}

/// A size with its sign: `+3.1 kB`, `−12 B`.
pub(crate) fn signed(bytes: i64, units: Units) -> String {
    let size = units.size(bytes.unsigned_abs());
    match bytes.signum() {
        1 => format!("+{size}"),
        -1 => format!("−{size}"),
        _ => "±0".to_owned(),
    }
}
