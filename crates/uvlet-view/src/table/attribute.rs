//! Whose bytes they are: the heaviest in a sentence, then the table, which adds up.

use crate::words::{
    places::{in_place, twice},
    used::state,
};
use std::{collections::HashSet, ops::Range};
use uvlet_audit::parts::marks::State;

use uvlet_audit::ask::attribute::{Attribution, By, Row, RowKind};
use uvlet_record::{Basis, Record, sizes::Measure};

use super::grid::{Column, fits, lay_out};
use crate::screen::{Screen, bold, count, measures_said, wrapped};
use crate::{
    name::{fitted, plain},
    units::share,
};

/// The basis that marks its numbers.
const ESTIMATED: &str = "estimated";

/// Shows an attribution; at most `top` rows, and one for the rest.
#[must_use]
pub fn attribute(
    answer: &Attribution,
    record: &Record,
    screen: &Screen,
    top: Option<usize>,
) -> String {
    let Rows { sentence, mut heads, lines, further } =
        rows(answer, screen, top, |name| plain(name).into_owned());
    // Where removal was asked for, it is what a narrow screen keeps.
    if answer.rows.first().is_some_and(|row| row.removal.is_some()) {
        let others = heads.iter_mut().skip(3).take(2);
        others.for_each(|head| head.optional = true);
    }
    let mut text = bold(&wrapped(&sentence, screen.columns(), 0));
    text.push_str("\n\n");
    for table in tables(heads, lines, further, screen.columns()) {
        text.push_str(&table);
        text.push('\n');
    }
    text.push_str(&wrapped(&footnote(answer, record, screen), screen.columns(), 0));
    text.push('\n');
    text
}

/// An attribution as rows of cells, for any form that has columns.
pub(crate) struct Rows {
    /// The heaviest, in words.
    pub sentence: String,
    pub heads: Vec<Column>,
    /// The rows shown, the rest in one, the total.
    pub lines: Vec<Vec<String>>,
    /// The columns of further measures.
    pub further: Range<usize>,
}

/// Makes the rows; `named` makes names of rows harmless in the form that they are for.
pub(crate) fn rows(
    answer: &Attribution,
    screen: &Screen,
    top: Option<usize>,
    named: impl Fn(&str) -> String,
) -> Rows {
    let (measure, unit) = (screen.measure, screen.units.symbol());
    let total = answer.total.sizes.get(measure);
    let what = answer.by.name();
    let (shown, rest) = cut(answer, measure, top);
    let numbers = numbers(&shown, rest, screen);
    let removals = removals(&shown, screen);
    let also: Vec<Vec<String>> =
        screen.also.iter().map(|&m| column(answer, &shown, rest.is_some(), m, screen)).collect();
    let sized = |measure| Column::number(format!("{measure}, {unit}"));
    let mut heads = vec![Column::name(what), sized(measure)];
    // Beside the measure that it is in.
    heads.extend(removals.as_ref().map(|_| Column::number(format!("if removed, {unit}"))));
    heads.push(Column::number("share"));
    let shows_state = answer.by == By::Export;
    heads.push(Column::word(if shows_state { "state" } else { "basis" }));
    let further = heads.len()..heads.len() + also.len();
    heads.extend(screen.also.iter().copied().map(sized));
    let shows_chunks = !matches!(answer.by, By::File | By::Chunk | By::Kind);
    heads.extend(shows_chunks.then(|| Column::extra("chunks")));
    let mut lines: Vec<Vec<String>> = Vec::with_capacity(shown.len() + 2);
    let mut line = |name: String, number: &str, bytes: u64, basis: &str, chunks: String| {
        let at = lines.len();
        let mut cells = vec![name, number.to_owned()];
        cells.extend(removals.as_ref().map(|cells| cells.get(at).cloned().unwrap_or_default()));
        cells.extend([share(bytes, total), basis.to_owned()]);
        cells.extend(also.iter().filter_map(|column| column.get(at).cloned()));
        cells.extend(shows_chunks.then_some(chunks));
        lines.push(cells);
    };
    let twice = twice(answer.rows.iter().map(|row| row.name.as_str()));
    for (row, number) in shown.iter().zip(&numbers) {
        let name = named(&name(row, &twice));
        let basis = basis(row, measure);
        let number = if basis == ESTIMATED { &format!("≈{number}") } else { number };
        let basis = if shows_state { row.state.map(state).unwrap_or_default() } else { basis };
        line(name, number, row.sizes.get(measure), basis, chunks(row));
    }
    if let (Some((count, bytes)), Some(number)) = (rest, numbers.get(shown.len())) {
        let mut others = answer.rows.iter().skip(shown.len());
        let is_estimated = others.any(|row| basis(row, measure) == ESTIMATED);
        let number = if is_estimated { &format!("≈{number}") } else { number };
        line(format!("(the other {count})"), number, bytes, "", String::new());
    }
    line("total".to_owned(), &screen.units.number(total), total, "", String::new());
    Rows { sentence: sentence(answer, screen), heads, lines, further }
}

/// One table, or one with the further measures below it where they do not fit beside the rest.
fn tables(
    mut heads: Vec<Column>,
    mut lines: Vec<Vec<String>>,
    further: Range<usize>,
    columns: usize,
) -> Vec<String> {
    if further.is_empty() || fits(&heads, &lines, columns) {
        return vec![lay_out(&heads, &lines, columns)];
    }
    let name = heads[..1].to_vec();
    let below: Vec<Column> = name.into_iter().chain(heads.drain(further.clone())).collect();
    let cut = |line: &mut Vec<String>| -> Vec<String> {
        let name = line[..1].to_vec();
        name.into_iter().chain(line.drain(further.clone())).collect()
    };
    let lines_below: Vec<Vec<String>> = lines.iter_mut().map(cut).collect();
    vec![lay_out(&heads, &lines, columns), lay_out(&below, &lines_below, columns)]
}

/// The rows that are shown, and how many others there are with how many bytes.
fn cut(
    answer: &Attribution,
    measure: Measure,
    top: Option<usize>,
) -> (Vec<&Row>, Option<(usize, u64)>) {
    let shown = match top {
        // One row more takes no more room than a row for the rest.
        Some(top) if answer.rows.len() > top.saturating_add(1) => top,
        _ => answer.rows.len(),
    };
    let (shown, rest) = answer.rows.split_at(shown);
    let bytes = rest.iter().map(|row| row.sizes.get(measure)).sum();
    (shown.iter().collect(), (!rest.is_empty()).then_some((rest.len(), bytes)))
}

/// The numbers of the rows shown, and of that for the rest. Each is rounded by itself; the total is
/// exact.
fn numbers(shown: &[&Row], rest: Option<(usize, u64)>, screen: &Screen) -> Vec<String> {
    let of_rows = shown.iter().map(|row| row.sizes.get(screen.measure));
    of_rows.chain(rest.map(|(_, bytes)| bytes)).map(|bytes| screen.units.number(bytes)).collect()
}

/// What the files of the rows shown would lose without them, if that was asked.
fn removals(shown: &[&Row], screen: &Screen) -> Option<Vec<String>> {
    shown.first()?.removal?;
    let said = |row: &&Row| {
        let Some(removal) = row.removal else { return String::new() };
        let saved = match screen.measure {
            Measure::Emitted => i64::try_from(row.sizes.emitted).ok(),
            Measure::Coded(coding) => {
                removal.if_removed.and_then(|saved| saved.get(coding).copied())
            }
        };
        saved.map_or("unknown".to_owned(), |saved| {
            let sign = if saved < 0 { "-" } else { "" };
            format!("{sign}{}", screen.units.number(saved.unsigned_abs()))
        })
    };
    Some(shown.iter().map(said).collect())
}

/// A further measure of the rows shown, of the rest if there is one, and of the total. What is
/// estimated is marked, as the basis beside it is that of the table's own measure.
fn column(
    answer: &Attribution,
    shown: &[&Row],
    has_rest: bool,
    measure: Measure,
    screen: &Screen,
) -> Vec<String> {
    let total = answer.total.sizes.get(measure);
    let mut bytes: Vec<u64> = shown.iter().map(|row| row.sizes.get(measure)).collect();
    if has_rest {
        bytes.push(total - bytes.iter().sum::<u64>());
    }
    let mut cells: Vec<String> = bytes.iter().map(|&bytes| screen.units.number(bytes)).collect();
    let is_estimated = |rows: &[&Row]| rows.iter().any(|row| basis(row, measure) == ESTIMATED);
    let others: Vec<&Row> = answer.rows.iter().skip(shown.len()).collect();
    let parts = shown.iter().map(std::slice::from_ref).chain([&others[..]]);
    for (cell, rows) in cells.iter_mut().zip(parts) {
        if is_estimated(rows) {
            *cell = format!("≈{cell}");
        }
    }
    cells.push(screen.units.number(total));
    cells
}

/// A row's name: a package with its version, what stands in several places with the place, and what
/// only looks like a remainder in quotes.
fn name(row: &Row, twice: &HashSet<&str>) -> String {
    let poses = row.row.is_named() && row.name.starts_with('(') && row.name.ends_with(')');
    let name = if poses { format!("\"{}\"", row.name) } else { row.name.clone() };
    if !matches!(row.row, RowKind::Package | RowKind::Module) {
        return name;
    }
    let version = row.version.as_ref().filter(|_| row.row == RowKind::Package);
    let version = version.map(|version| format!(" {version}")).unwrap_or_default();
    let place = in_place(row.row, &row.name, row.place.as_deref(), twice);
    format!("{name}{version}{place}")
}

/// The heaviest row in words, whatever it is.
fn sentence(answer: &Attribution, screen: &Screen) -> String {
    let measure = screen.measure;
    let size = |bytes: u64| screen.units.size(bytes);
    let total = answer.total.sizes.get(measure);
    let within = answer.within.as_ref().map(|text| plain(text).into_owned());
    let within = within.as_deref().unwrap_or("everything");
    let heaviest = answer.rows.iter().max_by_key(|row| row.sizes.get(measure));
    let Some(heaviest) = heaviest.filter(|_| answer.total.sizes.emitted > 0) else {
        return match answer.unseen_percent {
            0 => format!("This build holds nothing of {within}: 0 B."),
            percent => format!(
                "No bytes of this build are known to be in {within}; {percent}% of the script bytes are unattributed."
            ),
        };
    };
    if answer.by == By::Export {
        return exports(answer, within, &format!("{} ({measure})", size(total)));
    }
    let bytes = heaviest.sizes.get(measure);
    let share = share(bytes, total);
    let name = name(heaviest, &twice(answer.rows.iter().map(|row| row.name.as_str())));
    let name = plain(&name);
    let of = format!("{} of {} ({measure}), {share} of {within}", size(bytes), size(total));
    let of_what = match heaviest.row {
        RowKind::Own => "Own code".to_owned(),
        RowKind::ThirdParty => "Third-party code of no known package".to_owned(),
        RowKind::Glue => "The bundler's own code".to_owned(),
        RowKind::Assets => "Assets".to_owned(),
        RowKind::Unattributed => {
            return format!("No known owner for {of}.");
        }
        RowKind::Several => "What several entries load".to_owned(),
        RowKind::None => "What no entry loads".to_owned(),
        _ => name.into_owned(),
    };
    let named = answer.rows.iter().filter(|row| row.row.is_named()).count();
    match (answer.rows.len(), heaviest.row.is_named()) {
        (1, _) => format!("{of_what} is all of {within}: {} ({measure}).", size(total)),
        (_, true) if named > 1 => {
            format!("{of_what} is the heaviest of {}: {of}.", count(named, answer.by.name()))
        }
        (_, true) => format!("{of_what} is {of}."),
        (_, false) => format!("{of_what} weighs most: {of}."),
    }
}

/// How many of the exported names are left, and whether they are used.
fn exports(answer: &Attribution, within: &str, size: &str) -> String {
    let states = || answer.rows.iter().filter_map(|row| row.state);
    let all = states().count();
    if all == 0 {
        return format!("No module of {within} exports a name that can be told apart: {size}.");
    }
    let of = |state: State| states().filter(|one| *one == state).count();
    let left = all - of(State::Removed) - of(State::NotTold);
    let idle: Vec<String> =
        [(State::Unused, "unused"), (State::ForEffect, "kept for an effect alone")]
            .iter()
            .filter(|(state, _)| of(*state) > 0)
            .map(|(state, words)| format!("{} {words}", of(*state)))
            .collect();
    let idle = match idle.is_empty() {
        true if left > 0 => ", all used".to_owned(),
        true => String::new(),
        false => format!(", {}", idle.join(" and ")),
    };
    let untold = match of(State::NotTold) {
        0 => String::new(),
        number => format!("; of {number} it is not told"),
    };
    format!("{left} of {} of {within} are left{idle}{untold}: {size}.", count(all, "export"))
}

/// A coded size that is a proportional share of a file is estimated, however well the emitted bytes
/// are known.
fn basis(row: &Row, measure: Measure) -> &'static str {
    // Nothing was found out of bytes that nobody owns, nor of files that are no code.
    if matches!(row.row, RowKind::Unattributed | RowKind::Assets) {
        return "";
    }
    let basis = match measure {
        Measure::Coded(coding) if row.shared_out.contains(&coding) => Basis::Estimated,
        _ => row.basis,
    };
    basis.name()
}

fn chunks(row: &Row) -> String {
    /// A chunk's name tells little beyond this many columns, beside the row's own.
    const WIDE: usize = 22;
    match row.chunks.as_slice() {
        [] => String::new(),
        [one] => fitted(one, WIDE),
        [one, rest @ ..] => format!("{} and {} more", fitted(one, WIDE), rest.len()),
    }
}

pub(crate) fn footnote(answer: &Attribution, record: &Record, screen: &Screen) -> String {
    let mut text = format!("Sizes are {}.", measures_said(screen.measures(), record));
    let shared_out =
        |measure: Measure| answer.rows.iter().any(|row| basis(row, measure) == ESTIMATED);
    if screen.measures().any(shared_out) {
        text.push_str(" ≈ is estimated.");
    }
    if answer.rows.first().is_some_and(|row| row.removal.is_some()) {
        text.push_str(" If removed: what the row's files lose when they are encoded without it; this does not add up.");
    }
    if answer.by == By::Export {
        text.push_str(" Gone: no declaration of it is left, because the bundler removed it or inlined its value. The rest of a module is listed under its path.");
    }
    let Measure::Coded(coding) = screen.measure else { return text };
    // Rows that are whole files need no explanation, nor does what was explained before.
    let is_of_parts = matches!(answer.by, By::Package | By::Module | By::Folder);
    let names_parts = answer.rows.iter().any(|row| row.row.is_named() || row.row == RowKind::Own);
    if !is_of_parts || !names_parts || answer.rows.len() < 2 || screen.brief {
        return text;
    }
    if !coding.is_traced() {
        text.push_str(&format!(
            " A file's own size is exact; under {coding}, its rows share it in proportion to their emitted bytes (estimated)."
        ));
    } else if answer.rows.iter().any(|row| row.shared_out.contains(&coding)) {
        text.push_str(
            " A file's own size is exact; where no places are known in it, its rows share it in proportion to their emitted bytes (estimated).",
        );
    } else {
        text.push_str(&format!(
            " A row's {} size is what the streams of its files really spend on it. What repeats something earlier in its file is nearly free, so taking it out may save a little more or less.",
            screen.measure
        ));
    }
    text
}
