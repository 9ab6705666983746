//! Cells and runs: who owns how much of which file, and where.

use crate::ids::CellId;
use serde::{Deserialize, Serialize};

use crate::{
    ids::{FileId, ModuleId},
    sizes::Amount,
};

/// Whose bytes they are.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Owner {
    /// A module's.
    Module(ModuleId),
    /// A whole file that is neither script nor style.
    Asset,
    /// The bundler's own: runtime, wrappers, banners, map comments.
    Glue,
    /// Nobody could be found.
    Unattributed,
}

/// How a number came about, best first: the weakest of several parts is the greatest.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Basis {
    /// By the source map, or because the file is one owner's altogether.
    Mapped,
    /// The bundler's own figure.
    Reported,
    /// The span of the module's function in the emitted code.
    Located,
    /// Shared out in proportion.
    Estimated,
}

impl Basis {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Mapped => "mapped",
            Self::Reported => "reported",
            Self::Located => "located",
            Self::Estimated => "estimated",
        }
    }
}

/// The unit of account: what one owner has in one file.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Cell {
    /// The file.
    pub file: FileId,
    /// The owner; each stands once per file.
    pub owner: Owner,
    /// How much.
    #[serde(flatten)]
    pub amount: Amount,
    /// How the emitted bytes were found.
    pub basis: Basis,
}

/// A stretch of a file's text that belongs to one cell, in bytes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Run {
    /// First byte.
    pub start: u64,
    /// Bytes.
    pub length: u64,
    /// The cell.
    pub cell: CellId,
}
