//! Who needs whom: modules and their imports, files and their loads, what each entry reaches of them.

pub(crate) mod barrels;
pub(crate) mod cut;
pub(crate) mod network;
pub mod reach;
pub mod visits;
