//! Turns whatever a bundler left behind into one record. All knowledge of formats lives here.
//!
//! [`open`] is the way in. One module per kind of input reads it; `naming`, `accounts`, `connect` and
//! `entries` put what they found together.

mod accounts;
mod align;
mod bodies;
mod coder;
mod connect;
mod describe;
mod emitted;
mod entries;
mod examine;
mod folder;
mod hashes;
mod html;
mod judge;
mod locks;
mod look;
mod names;
mod naming;
mod older;
mod open;
mod packages;
pub mod project;
mod registry;
mod resolve;
mod said;
mod saved;
mod sourcemaps;
mod styles;
mod targets;
mod texts;
mod told;
mod twins;
mod wire;

pub use coder::{Cache, Coder, Progress};
pub use open::{Options, ReadError, open, open_with_texts};
pub use told::plugin::PluginFile;
