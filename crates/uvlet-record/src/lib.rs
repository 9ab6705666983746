//! The one model of a build: what was emitted, what it is made of, who needs whom, and what each
//! byte costs.
//!
//! A [`Record`] is self-contained and does not know how it came about. The unit of account is the
//! [`Cell`]: one file × one owner. [`verify`](Record::verify) holds the sums and references that
//! every question relies on.

mod build;
mod cell;
mod file;
pub mod glob;
mod graph;
pub mod path;
mod saved;
pub mod sizes;
mod texts;
mod verify;

pub use build::{
    Aside, AsideKind, Bundler, Mode, Notice, Record, SCHEMA, SavedTexts, SetAside, Target,
};
pub use cell::{Basis, Cell, CellId, Owner, Run};
pub use file::{Chunk, ChunkId, File, FileId, Form, Kind, NamedBy, Shares};
pub use graph::{
    DynamicLoad, Edge, EdgeKind, Entry, EntryId, FoundBy, Module, ModuleId, Package, PackageId,
    Unresolved, Used, When,
};
pub use saved::SavedError;
pub use texts::Texts;
pub use verify::Flaw;

/// Declares a dense index: a `u32` that only fits its own list.
macro_rules! index {
    ($(#[$doc:meta])* $name:ident) => {
        $(#[$doc])*
        #[derive(
            Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash,
            serde::Serialize, serde::Deserialize, schemars::JsonSchema)]
        #[serde(transparent)]
        pub struct $name(pub u32);

        impl $name {
            /// The index of a place in its list. Lists are bounded by the files and sources of
            /// one build, far below 2³².
            #[must_use]
            pub fn new(at: usize) -> Self {
                Self(u32::try_from(at).unwrap_or(u32::MAX))
            }

            /// The place in its list.
            #[must_use]
            pub fn at(self) -> usize {
                self.0 as usize
            }
        }
    };
}
use index;
