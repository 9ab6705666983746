//! Turns whatever a bundler left behind into one record. All knowledge of formats lives here.
//!
//! [`open`] is the way in. The rooms stand in the order in which data passes: what lies in the
//! folder, what each file says by itself, how scripts are put together, what tools say of the build,
//! what the project says; then one record is assembled of all that, with what it costs on the wire.

mod assemble;
mod coded;
mod descriptions;
mod error;
mod files;
mod folder;
mod formats;
pub mod har;
mod open;
mod options;
pub mod project;
pub mod recordings;
mod saved;

pub use assemble::TracedCosts;
pub use coded::{Cache, Coder, Progress};
pub use descriptions::{DescriptionError, plugin::PluginFile};
pub use error::ReadError;
pub use open::open;
pub use options::Options;
