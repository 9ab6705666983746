//! Whose bytes they are: the heaviest in a sentence, then the table, which adds up.

use uvlet_audit::attribute::{Attribution, By, Row};
use uvlet_record::{Basis, Record, sizes::Measure};

use super::{
    Screen, bold, count,
    grid::{Column, lay_out},
    wrapped,
};
use crate::{
    name::{fitted, plain},
    units::share,
};

/// Shows an attribution; at most `top` rows, and one for the rest.
#[must_use]
pub fn attribute(
    answer: &Attribution,
    record: &Record,
    screen: &Screen,
    top: Option<usize>,
) -> String {
    let measure = screen.measure;
    let total = answer.total.sizes.get(measure);
    let what = answer.by.name();
    let (shown, rest) = cut(answer, measure, top);
    let numbers = numbers(&shown, rest, answer, screen);
    let heaviest = sentence(answer, &shown, &numbers, screen);
    let mut text = bold(&wrapped(&heaviest, screen.columns(), 0));
    text.push('\n');
    let of_packages = answer.by == By::Package;
    let mut heads = vec![
        Column::name(what),
        Column::number(format!("{measure}, {}", screen.units.symbol())),
        Column::number("share"),
        Column::word("basis"),
    ];
    let shows_chunks = !matches!(answer.by, By::File | By::Chunk | By::Kind);
    if shows_chunks {
        heads.push(Column::extra("chunks"));
    }
    let mut lines: Vec<Vec<String>> = Vec::with_capacity(shown.len() + 2);
    for (row, number) in shown.iter().zip(&numbers) {
        let name = if of_packages { package(row, &answer.rows) } else { row.name.clone() };
        let share = share(row.sizes.get(measure), total);
        let basis = basis(row, measure).to_owned();
        lines.push(vec![plain(&name).into_owned(), number.clone(), share, basis, chunks(row)]);
    }
    let blank = String::new;
    if let (Some((count, bytes)), Some(number)) = (rest, numbers.get(shown.len())) {
        let name = format!("(the other {count})");
        lines.push(vec![name, number.clone(), share(bytes, total), blank(), blank()]);
    }
    let number = screen.units.number(total);
    lines.push(vec!["total".to_owned(), number, share(total, total), blank(), blank()]);
    text.push('\n');
    text.push_str(&lay_out(&heads, &lines, screen.columns()));
    text.push('\n');
    text.push_str(&wrapped(&footnote(answer, record, screen), screen.columns(), 0));
    text.push('\n');
    text
}

/// The rows that are shown, and how many others there are with how many bytes.
pub(crate) fn cut(
    answer: &Attribution,
    measure: Measure,
    top: Option<usize>,
) -> (Vec<&Row>, Option<(usize, u64)>) {
    let shown = match top {
        // One row more takes no more room than a row for the rest.
        Some(top) if answer.rows.len() > top + 1 => top,
        _ => answer.rows.len(),
    };
    let (shown, rest) = answer.rows.split_at(shown);
    let bytes = rest.iter().map(|row| row.sizes.get(measure)).sum();
    (shown.iter().collect(), (!rest.is_empty()).then_some((rest.len(), bytes)))
}

/// The numbers of the rows shown, and of that for the rest.
pub(crate) fn numbers(
    shown: &[&Row],
    rest: Option<(usize, u64)>,
    answer: &Attribution,
    screen: &Screen,
) -> Vec<String> {
    let of_rows = shown.iter().map(|row| row.sizes.get(screen.measure));
    let bytes: Vec<u64> = of_rows.chain(rest.map(|(_, bytes)| bytes)).collect();
    screen.units.column(&bytes, answer.total.sizes.get(screen.measure))
}

/// A package with its version; one that stands in several places with that place.
pub(crate) fn package(row: &Row, rows: &[Row]) -> String {
    let version = row.version.as_ref().map(|version| format!(" {version}")).unwrap_or_default();
    let twice = rows.iter().filter(|other| other.name == row.name).count() > 1;
    let place = row.place.as_ref().filter(|_| twice).map(|place| {
        let above = place.strip_suffix(&format!("/node_modules/{}", row.name));
        let host = above.map(|above| above.strip_prefix("node_modules/").unwrap_or(above));
        host.map_or_else(String::new, |host| format!(" (in {host})"))
    });
    format!("{}{version}{}", row.name, place.unwrap_or_default())
}

/// The heaviest row in words, with the number that it has in the table.
pub(crate) fn sentence(
    answer: &Attribution,
    shown: &[&Row],
    numbers: &[String],
    screen: &Screen,
) -> String {
    let measure = screen.measure;
    let what = answer.by.name();
    let size = |row: &Row| {
        let bytes = row.sizes.get(measure);
        let said = screen.units.size(bytes);
        let symbol = screen.units.symbol();
        let in_table = shown.iter().zip(numbers).find(|(shown, _)| std::ptr::eq(**shown, row));
        match in_table {
            Some((_, number)) if said.ends_with(&format!(" {symbol}")) => {
                format!("{number} {symbol}")
            }
            _ => said,
        }
    };
    let total = answer.total.sizes.get(measure);
    let within =
        answer.within.as_ref().map_or("everything".to_owned(), |text| plain(text).into_owned());
    let real: Vec<&Row> = answer.rows.iter().filter(|row| !row.name.starts_with('(')).collect();
    match real.iter().max_by_key(|row| row.sizes.get(measure)) {
        Some(row) => format!(
            "{} is the heaviest of {}: {} of {} ({measure}), {} of {within}.",
            plain(&row.name),
            count(real.len(), what),
            size(row),
            screen.units.size(total),
            share(row.sizes.get(measure), total),
        ),
        None => {
            format!("No {what} is known in {within}: {} ({measure}).", screen.units.size(total))
        }
    }
}

/// A coded size that is a proportional share of a file is estimated, however well the emitted bytes
/// are known.
pub(crate) fn basis(row: &Row, measure: Measure) -> &'static str {
    // Nothing was found out of bytes that nobody owns.
    if row.name == "(unattributed)" {
        return "";
    }
    let basis = match measure {
        Measure::Coded(coding) if row.shared_out.contains(&coding) => Basis::Estimated,
        _ => row.basis,
    };
    match basis {
        Basis::Mapped => "mapped",
        Basis::Counted => "counted",
        Basis::Spanned => "spanned",
        Basis::Estimated => "estimated",
    }
}

pub(crate) fn chunks(row: &Row) -> String {
    /// A chunk's name tells little beyond this many columns, beside the row's own.
    const WIDE: usize = 16;
    match row.chunks.as_slice() {
        [] => String::new(),
        [one] => fitted(one, WIDE),
        [one, rest @ ..] => format!("{} and {} more", fitted(one, WIDE), rest.len()),
    }
}

pub(crate) fn footnote(answer: &Attribution, record: &Record, screen: &Screen) -> String {
    let mut text = format!("Sizes are {}.", screen.measure_said(record));
    let Measure::Coded(coding) = screen.measure else { return text };
    if answer.rows.iter().any(|row| row.shared_out.contains(&coding)) {
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
