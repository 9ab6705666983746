//! Who needs whom: modules and their imports, files and their loads, what each entry reaches of them.

pub(crate) mod barrels;
pub(crate) mod cut;
pub mod few;
pub(crate) mod network;
pub mod own_paths;
pub mod reach;
pub mod visits;
