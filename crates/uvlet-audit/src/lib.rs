//! Asks one question of one record and answers in plain data: no printing, no files, no colour.
//!
//! The rooms stand on each other, and each uses only those below it: [`graph`] (who imports whom),
//! [`parts`] (pieces of files and what they cost), [`lens`] (a record with what every question derives from
//! it), [`select`] (the language that names sets of bytes), [`predict`] (what would be), [`time`] (which file
//! can be asked for when), [`find`] (waste),
//! [`ask`] (one question a file). What is known of bundlers stands in [`bundlers`].

pub mod ask;
pub mod bundlers;
pub mod find;
pub mod graph;
pub mod lens;
pub mod parts;
pub mod predict;
pub mod select;
#[cfg(test)]
mod small;
pub mod time;
