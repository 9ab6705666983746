//! Asks one question of one record and answers in plain data: no printing, no files, no colour.
//!
//! [`lens::Lens`] holds a record together with what every question derives from it, and
//! [`selector`] names sets of bytes. One module per question stands above them.

pub mod attribute;
mod barrels;
pub mod compare;
pub mod coverage;
pub mod gate;
pub mod graph;
pub mod lens;
pub mod liveness;
pub mod marks;
mod names;
pub mod nearest;
pub mod propose;
pub mod removal;
pub mod requests;
pub mod selector;
pub mod spans;
pub mod survey;
pub mod visits;
pub mod waste;
pub mod what_if;
pub mod why;
