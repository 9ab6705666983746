//! Builds after each other, a line each.

use uvlet_audit::ask::tries::Try;
use uvlet_record::{Record, sizes::Measure};

use super::{
    compare::lines::signed,
    grid::{Column, lay_out},
};
use crate::{
    name::plain,
    screen::{Screen, bold, measures_said, wrapped},
};

/// Entries that have a column, the heaviest of the last build.
const ENTRIES: usize = 3;

/// Shows builds after each other.
#[must_use]
pub fn tries(answer: &[Try], record: &Record, screen: &Screen) -> String {
    let columns = screen.columns();
    let mut text = format!("{}\n\n", bold(&wrapped(&sentence(answer, screen), columns, 0)));
    let (heads, lines) = lines(answer, screen);
    text.push_str(&lay_out(&heads, &lines, columns));
    let said = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("\n{}\n", wrapped(&said, columns, 0)));
    text
}

/// What became of the heaviest startup, from the first build to the last.
pub(crate) fn sentence(answer: &[Try], screen: &Screen) -> String {
    let [first, .., last] = answer else {
        return "No other build of this folder is known to compare with.".to_owned();
    };
    let Some(start) = last.entries.first() else {
        return "No entry is known of the last build.".to_owned();
    };
    let name = plain(&start.entry);
    let now = start.sizes.get(screen.measure);
    match size_of(first, &start.entry, screen.measure) {
        None => format!("{name} is new since “{}”.", plain(&first.label)),
        Some(was) if was == now => {
            format!("{name} starts with as much as in “{}”.", plain(&first.label))
        }
        Some(was) => format!(
            "{name} starts with {} {} ({}) than in “{}”, over {} builds.",
            screen.units.size(was.abs_diff(now)),
            if now > was { "more" } else { "less" },
            screen.measure,
            plain(&first.label),
            answer.len()
        ),
    }
}

fn size_of(one: &Try, entry: &str, measure: Measure) -> Option<u64> {
    one.entries.iter().find(|start| start.entry == entry).map(|start| start.sizes.get(measure))
}

/// A line per build: what its heaviest entries start with, and what moved since the one before.
pub(crate) fn lines(answer: &[Try], screen: &Screen) -> (Vec<Column>, Vec<Vec<String>>) {
    let entries: Vec<&str> = answer
        .last()
        .into_iter()
        .flat_map(|last| last.entries.iter().take(ENTRIES))
        .map(|start| start.entry.as_str())
        .collect();
    let mut heads = vec![Column::name("build")];
    heads.extend(entries.iter().map(|entry| Column::number(plain(entry))));
    heads.push(Column::extra("since the one before"));
    let lines = answer.iter().map(|one| {
        let sizes = entries.iter().map(|entry| match size_of(one, entry, screen.measure) {
            Some(bytes) => screen.units.size(bytes),
            None => "–".to_owned(),
        });
        let moved = one.moved.as_ref().map(|moved| {
            let by = signed(moved.by, screen.units);
            let mostly = moved.mostly.as_ref().map(|mover| {
                let about = if mover.is_estimated { "≈" } else { "" };
                format!(", mostly {about}{}", plain(&mover.name))
            });
            format!("{} {by}{}", plain(&moved.entry), mostly.unwrap_or_default())
        });
        let label = [plain(&one.label).into_owned()].into_iter();
        label.chain(sizes).chain([moved.unwrap_or_default()]).collect()
    });
    (heads, lines.collect())
}
