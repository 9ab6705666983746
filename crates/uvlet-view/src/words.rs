//! The sentences of answers: findings, causes, doubts, reasons and errors are data in the rooms below, and
//! are put into words here and nowhere else.

pub mod bases;
pub mod changes;
pub mod doubts;
pub mod errors;
pub mod findings;
pub mod judged;
pub mod maps;
pub mod places;
pub mod quote;
pub mod reasons;
pub mod remarks;
pub mod steps;
pub mod used;

/// `3 modules`, `1 module`.
fn counted(number: usize, noun: &str) -> String {
    if number == 1 { format!("1 {noun}") } else { format!("{number} {noun}s") }
}

/// The first few of a list, and how many more there are.
fn some<T: AsRef<str>>(names: &[T], most: usize) -> String {
    let shown: Vec<&str> = names.iter().take(most).map(AsRef::as_ref).collect();
    match names.len() - shown.len() {
        0 => shown.join(", "),
        more => format!("{} and {more} more", shown.join(", ")),
    }
}
