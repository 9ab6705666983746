//! One file per command: its words, and how it has the build read, asks and shows.

pub(crate) mod attribute;
pub(crate) mod compare;
pub(crate) mod config;
pub(crate) mod coverage;
pub(crate) mod demo;
pub(crate) mod gate;
pub(crate) mod help;
pub(crate) mod plugin;
#[cfg(feature = "post")]
pub(crate) mod post;
pub(crate) mod propose;
pub(crate) mod record;
pub(crate) mod report;
pub(crate) mod requests;
pub(crate) mod survey;
pub(crate) mod waste;
pub(crate) mod what_if;
pub(crate) mod why;
