//! The one model of a build: what was emitted, what it is made of, who needs whom, and what each
//! byte costs.
//!
//! A [`Record`] is self-contained and does not know how it came about. The unit of account is the
//! [`Cell`]: one file × one owner. [`verify`](Record::verify) holds the sums and references that
//! every question relies on.

mod build;
mod cell;
mod file;
mod files;
pub mod glob;
mod graph;
mod notice;
pub mod path;
mod recording;
mod saved;
pub mod sizes;
mod texts;
mod verify;

pub use build::{
    Aside, AsideKind, Bundler, Framework, Mode, Reason, Record, SCHEMA, SetAside, Target,
};
pub use cell::{Basis, Cell, CellId, Owner, Run};
pub use file::{Chunk, ChunkId, Elsewhere, File, FileId, Format, Kind, NamedBy, Shares};
pub use files::{FileList, FileSet, IdSet, Placed};
pub use graph::{
    DynamicLoad, Edge, EdgeBasis, EdgeKind, Entry, EntryId, Facet, LoadKind, Module, ModuleFormat,
    ModuleId, Origin, Package, PackageId, SideEffects, Unresolved, UnresolvedRequest, Used, When,
};
pub use notice::{Lack, Notice, OtherName, Remark, Setting};
pub use recording::{LogPage, LogRequest, Recording, Seen};
pub use saved::SavedError;
pub use texts::{Costs, Place, SavedMap, SavedSection, SavedTexts, Segment, Texts, segments};
pub use verify::Flaw;

/// Declares a dense index that only fits its own list.
macro_rules! index {
    ($(#[$doc:meta])* $name:ident) => {
        $(#[$doc])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
        #[serde(transparent)]
        pub struct $name(pub usize);

        impl $name {
            /// The index of a place in its list.
            #[must_use]
            pub fn new(at: usize) -> Self {
                Self(at)
            }

            /// The place in its list.
            #[must_use]
            pub fn at(self) -> usize {
                self.0
            }
        }
    };
}
use index;
