//! One question a file: a record goes in, an answer in plain data comes out.

mod addresses;
pub mod attribute;
pub mod compare;
pub mod coverage;
pub mod declaration;
pub mod doubts;
mod functions;
pub mod gate;
pub mod plan_text;
pub mod propose;
pub mod report;
pub mod requests;
pub mod suggest;
pub mod survey;
pub mod tries;
pub mod what_if;
pub mod why;
