//! What lies in an output folder: its files and their kinds, hashes in their names, their texts, and
//! the file that a URL means.

pub mod hashes;
pub(crate) mod list;
pub(crate) mod text;
pub(crate) mod urls;

pub use list::{list, paths, unreadable};
