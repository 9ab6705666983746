//! Words that several commands take: which build, in which measures, in which form.

pub(crate) mod build;
pub(crate) mod measures;
pub(crate) mod recorded;
pub(crate) mod show;
pub(crate) mod steps;
pub(crate) mod word;
