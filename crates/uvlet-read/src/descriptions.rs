//! What a tool says of a build that it made.
//!
//! A new kind is a file here and a line in [`kinds`]: it tells its own form by the keys of the JSON,
//! reads it into the one form of [`Described`], and says how much it can tell. Nothing else matches
//! on who wrote it.

pub(crate) mod asset_manifest;
pub(crate) mod described;
pub(crate) mod description;
pub(crate) mod esbuild;
pub(crate) mod find;
pub mod frameworks;
pub(crate) mod kinds;
pub(crate) mod outline;
pub mod plugin;
pub(crate) mod tie;
pub(crate) mod vite;
pub(crate) mod webpack;

pub use description::DescriptionError;
pub use find::{Found, find};
pub use kinds::{of_kind, sniff};
