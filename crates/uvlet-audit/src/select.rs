//! The language that names sets of bytes, and what its names mean in a record.

mod byteless;
pub mod evaluate;
pub mod groups;
mod named;
pub mod nearest;
pub mod overlap;
mod parse;
pub mod selection;
pub mod selector;
pub mod subject;
pub mod words;

#[cfg(test)]
mod tests;
