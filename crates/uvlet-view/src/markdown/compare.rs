//! What changed between two builds.

use uvlet_audit::ask::compare::Comparison;
use uvlet_record::Record;

use super::cells::{code, sentence, table};
use crate::{
    screen::{Screen, in_measure, measures_said},
    table::{
        compare as moves,
        compare::{Lines, Rows as CompareRows},
    },
};

/// What moved between two builds: the verdict, then one fold with the causes and one with entries.
#[must_use]
pub fn compare(
    answer: &Comparison,
    record: &Record,
    screen: &Screen,
    rows: &CompareRows,
) -> String {
    let mut text = String::new();
    if let Some(warning) = moves::warning(answer) {
        text.push_str(&format!("**{}**\n\n", sentence(&warning)));
    }
    text.push_str(&format!("**{}**\n\n", sentence(&moves::sentence(answer, screen))));
    text.push_str(&format!("{}\n\n", sentence(&moves::whole(answer, screen))));
    for other in screen.others() {
        let said = format!("{}: {}", in_measure(other.measure), moves::whole(answer, &other));
        text.push_str(&format!("{}\n\n", sentence(&said)));
    }
    if let Some(said) = moves::elsewhere(answer) {
        text.push_str(&format!("{}\n\n", sentence(&said)));
    }
    let Lines { heads, lines } = moves::lines(answer, screen, rows);
    if !lines.is_empty() {
        let heads: Vec<(&str, bool)> =
            heads.iter().map(|head| (head.heading.as_str(), head.right)).collect();
        let lines = lines.into_iter().map(|mut cells| {
            cells[0] = code(&cells[0]);
            for cell in &mut cells[1..] {
                *cell = sentence(cell);
            }
            cells
        });
        text.push_str("<details><summary>What moved</summary>\n\n");
        text.push_str(&table(&heads, lines));
        text.push_str("\n</details>\n\n");
    }
    let size = |sizes: &uvlet_record::sizes::Sizes| screen.units.size(sizes.get(screen.measure));
    let visits = answer.entries.iter().map(|row| {
        let startup = |loads: &Option<uvlet_audit::ask::compare::entries::Loads>| {
            loads.as_ref().map_or_else(|| "–".to_owned(), |loads| size(&loads.startup.sizes))
        };
        let again = row.return_visit.as_ref().map(|visit| size(&visit.sizes));
        let again = again.unwrap_or_else(|| "–".to_owned());
        vec![code(&row.name), startup(&row.before), startup(&row.after), again]
    });
    let heads = [("entry", false), ("startup from", true), ("to", true), ("fetched again", true)];
    text.push_str("<details><summary>Entries</summary>\n\n");
    text.push_str(&table(&heads, visits));
    text.push_str("\n</details>\n\n");
    let sizes = format!("Sizes are {}.", measures_said(screen.measures(), record));
    text.push_str(&format!("{}\n", sentence(&sizes)));
    text
}
