//! Whether budgets are met, and what each entry starts with.

use uvlet_audit::ask::gate::{starts::EntryStart, verdict::Gate};
use uvlet_record::Record;

use super::cells::{code, harmless, sentence, table};
use crate::{
    screen::{Screen, count},
    table::{
        gate as promises,
        gate::{Shown, Standing},
    },
    words::{
        places::{in_place, twice},
        reasons::of_gate,
    },
};

/// One fold per entry, with whose bytes it starts with.
#[must_use]
pub fn folds(entries: &[EntryStart], screen: &Screen) -> String {
    const ENTRIES: usize = 20;
    const PARTS: usize = 12;
    let mut text = String::from("\n");
    for EntryStart { entry, measure, bytes, base, parts, .. } in entries.iter().take(ENTRIES) {
        let size = |bytes: u64| screen.units.size(bytes);
        let moved = match base {
            Some(base) if base < bytes => format!(", {} more than before", size(bytes - base)),
            Some(base) if base > bytes => format!(", {} less than before", size(base - bytes)),
            Some(_) => ", as before".to_owned(),
            None => String::new(),
        };
        let name = sentence(entry);
        let startup = size(*bytes);
        text.push_str(&format!(
            "<details><summary>{name} starts with {startup} {measure}{moved}</summary>\n\n"
        ));
        let twice = twice(parts.iter().map(|part| part.name.as_str()));
        let shown = parts.iter().take(PARTS).map(|part| {
            let place = in_place(part.row, &part.name, part.place.as_deref(), &twice);
            vec![code(&format!("{}{place}", part.name)), size(part.bytes)]
        });
        let others: u64 = parts.iter().skip(PARTS).map(|part| part.bytes).sum();
        let more = parts.len().saturating_sub(PARTS);
        let rest = (more > 0).then(|| vec![format!("{more} more"), size(others)]);
        text.push_str(&table(&[("what", false), (measure.name(), true)], shown.chain(rest)));
        text.push_str("\n</details>\n\n");
    }
    match entries.len().saturating_sub(ENTRIES) {
        0 => text,
        more => format!("{text}{} more.\n", count(more, "entry")),
    }
}

/// What no reader sees and a program finds a comment again by.
fn mark(label: &str) -> String {
    let label = harmless(label).replace("--", "‐‐");
    format!("<!-- uvlet gate {label} -->\n")
}

/// The entries that start with more than before, by whom, and who brought that in.
fn growth(entries: &[EntryStart], screen: &Screen) -> String {
    const ENTRIES: usize = 3;
    const NAMES: usize = 3;
    let more_of = |start: &EntryStart| start.bytes.saturating_sub(start.base.unwrap_or(u64::MAX));
    let mut grown: Vec<&EntryStart> = entries.iter().filter(|start| more_of(start) > 0).collect();
    grown.sort_by_key(|start| std::cmp::Reverse(more_of(start)));
    let mut text = String::new();
    for start in grown.iter().take(ENTRIES) {
        let size = |bytes: u64| screen.units.size(bytes);
        let named = start.grown.iter().take(NAMES).map(|one| {
            let by = format!("{} by {}", code(&one.name), size(one.by));
            match (&one.brought_in_by, one.is_new) {
                (Some(path), _) => format!("{by}, new and brought in by {}", code(path)),
                (None, true) => format!("{by}, new"),
                (None, false) => by,
            }
        });
        let named: Vec<String> = named.collect();
        let (name, more) = (sentence(&start.entry), size(more_of(start)));
        let by = if named.is_empty() { String::new() } else { format!(": {}", named.join("; ")) };
        text.push_str(&format!(
            "- {name} starts with {more} ({}) more than before{by}.\n",
            start.measure
        ));
    }
    match grown.len().saturating_sub(ENTRIES) {
        0 if text.is_empty() => text,
        0 => text + "\n",
        more => format!("{text}- {} more grew.\n\n", count(more, "entry")),
    }
}

/// The verdict as a sentence, what grew, then the promises that tell something.
#[must_use]
pub fn gate(
    (gate, entries): (&Gate, &[EntryStart]),
    label: &str,
    record: &Record,
    screen: &Screen,
    shown: Shown,
) -> String {
    let capital = |word: &str| {
        let (first, rest) = word.split_at(1);
        format!("{}{rest}", first.to_uppercase())
    };
    let verdict = sentence(&promises::headline(gate, label, capital));
    let mut text = format!("{}**{verdict}**\n\n{}", mark(label), growth(entries, screen));
    for reason in &gate.reasons {
        text.push_str(&format!("- {}\n", sentence(&of_gate(reason))));
    }
    for Standing { verdict, listed, counted, note } in promises::standing(gate, shown) {
        let word = verdict.name();
        for row in listed {
            text.push_str(&format!("- {word}: {}\n", sentence(&promises::sentence(row, screen))));
        }
        if counted > 0 {
            text.push_str(&format!("- {word}: {}{note}\n", count(counted, "limit")));
        }
    }
    if let Some(said) = promises::sizes_said(gate, record) {
        text.push_str(&format!("\n{}\n", sentence(&said)));
    }
    text
}
