//! Finds what need not be there. Each kind of finding is a file, and a line in [`kinds`].

pub mod about;
mod alike;
mod barely;
mod barrel;
mod context;
mod copied;
mod copied_text;
mod dead;
mod environment;
mod exports;
mod family;
pub mod finding;
mod handlers;
mod helpers;
pub mod judged;
pub mod kind;
mod kinds;
mod later;
pub(crate) mod liveness;
pub mod marks;
pub mod patch;
mod rules;
mod unreached;
mod versions;
pub mod waste;

#[cfg(test)]
mod tests;
