//! What would be: the graph as steps change it, files cut as bundlers cut them, put together and encoded.

pub(crate) mod assemble;
mod build;
pub(crate) mod cascade;
mod cut;
mod draft;
pub(crate) mod follow;
pub mod narrow;
pub mod outcome;
pub mod step;
