//! Pieces of files: cells and sets of them, stretches that are less than a cell, marks, what any of these cost.

pub(crate) mod atoms;
pub(crate) mod byte_set;
pub mod cells;
pub(crate) mod lines;
pub mod marks;
pub(crate) mod names;
pub(crate) mod prices;
pub(crate) mod ranges;
pub mod recorded_files;
pub mod recordings;
pub mod removal;
pub mod sets;
pub(crate) mod spans;
pub(crate) mod wrappers;
