//! What a startup costs in time: which file can be asked for when.

pub mod rounds;
