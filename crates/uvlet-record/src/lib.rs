//! The one model of a build: what was emitted, what it is made of, who needs whom, and what each
//! byte costs.
//!
//! A [`Record`] is self-contained and does not know how it came about. The unit of account is the
//! [`Cell`]: one file × one owner. [`verify`](Record::verify) holds the sums and references that
//! every question relies on.

mod build;
mod cell;
pub mod fault;
mod file;
mod files;
pub mod glob;
mod graph;
mod ids;
mod notice;
pub mod path;
mod recording;
mod saved;
mod saved_texts;
pub mod sizes;
mod terms;
mod texts;
mod verify;

pub use build::{Aside, AsideKind, Framework, Reason, Record, SCHEMA, SetAside};
pub use cell::{Basis, Cell, Owner, Run};
pub use file::{Chunk, Elsewhere, File, Format, Kind, NamedBy, Shares};
pub use files::{FileList, FileSet, IdSet, Placed};
pub use graph::{
    DynamicLoad, Edge, EdgeBasis, EdgeKind, Edition, Entry, Facet, LoadKind, Module, ModuleFormat,
    Origin, Package, SideEffects, Unresolved, UnresolvedRequest, Used, When,
};
pub use ids::{CellId, ChunkId, EntryId, FileId, ModuleId, PackageId};
pub use notice::{Lack, Notice, OtherName, Remark, Setting};
pub use recording::{LogPage, LogRequest, Recording, Seen};
pub use saved::SavedError;
pub use saved_texts::{SavedMap, SavedSection, SavedTexts};
pub use terms::{Bundler, Mode, ModeBasis, Target, TargetBasis};
pub use texts::{Costs, Place, Project, Segment, Texts, segments};
pub use verify::Flaw;
