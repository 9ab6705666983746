//! The rows of the answer, and what they are grouped by.

use serde::Serialize;
use uvlet_record::{
    Basis, CellId,
    sizes::{Coded, Coding, Measure, Sizes},
};

use crate::parts::marks::State;

/// What rows stand for.
#[derive(
    Clone,
    Copy,
    Debug,
    PartialEq,
    Eq,
    Serialize,
    strum::EnumMessage,
    strum::IntoStaticStr,
    strum::VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
#[strum(serialize_all = "lowercase")]
pub enum By {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// A folder of own sources, or the place of a package.
    Folder,
    /// An emitted script with its styles.
    Chunk,
    /// An emitted file.
    File,
    /// An entry; what several load is one row.
    Entry,
    /// A kind of file.
    Kind,
    /// A group of uvlet.toml; what is in none stands by its package.
    Group,
    /// A name that a module exports, with whether it is used; the rest of a module is one row.
    Export,
}

impl By {
    /// The word for it in options and headings.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }
}

/// The order of rows.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Sort {
    /// Heaviest first, in this measure.
    Heaviest(Measure),
    /// By name.
    Name,
}

/// The answer. Rows add up to the total exactly, in every measure.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Attribution {
    /// What the rows stand for.
    pub by: By,
    /// The selector that the rows are taken from, if there was one.
    #[serde(rename = "in")]
    pub within: Option<String>,
    /// Heaviest first.
    pub rows: Vec<Row>,
    /// All rows together.
    pub total: Total,
    /// Where nothing was found: percent of the build's script bytes that have no known owner.
    #[serde(skip)]
    pub unseen_percent: u64,
}

/// All rows together.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Total {
    /// Their sizes.
    pub sizes: Sizes,
}

/// What a row is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
#[expect(missing_docs, reason = "each names what a row is")]
pub enum RowKind {
    Package,
    Module,
    Folder,
    Chunk,
    File,
    Entry,
    Kind,
    Group,
    Export,
    Function,
    /// Own code that is no package.
    Own,
    /// Installed code of no package that could be told.
    ThirdParty,
    Glue,
    Assets,
    Unattributed,
    /// Files that more than one entry loads.
    Several,
    /// Files that no entry loads.
    None,
}

impl RowKind {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Package => "package",
            Self::Module => "module",
            Self::Folder => "folder",
            Self::Chunk => "chunk",
            Self::File => "file",
            Self::Entry => "entry",
            Self::Kind => "kind",
            Self::Group => "group",
            Self::Export => "export",
            Self::Function => "function",
            Self::Own => "own",
            Self::ThirdParty => "third-party",
            Self::Glue => "glue",
            Self::Assets => "assets",
            Self::Unattributed => "unattributed",
            Self::Several => "several",
            Self::None => "none",
        }
    }

    /// It stands for what its name says, and not for a remainder of some sort.
    #[must_use]
    pub fn is_named(self) -> bool {
        use RowKind::{Chunk, Entry, Export, File, Folder, Group, Kind, Module, Package};
        matches!(self, Package | Module | Folder | Chunk | File | Entry | Kind | Group | Export)
    }
}

/// One package, module or file, or what is none.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Row {
    /// What it is.
    pub row: RowKind,
    /// Its name; of what has none a word in parentheses.
    pub name: String,
    /// Version of the package.
    pub version: Option<String>,
    /// Place that the package is installed at.
    pub place: Option<String>,
    /// Its sizes.
    pub sizes: Sizes,
    /// Bytes of its modules before bundling; unknown if any part is.
    pub source: Option<u64>,
    /// How the emitted bytes were found: that of the weakest part.
    pub basis: Basis,
    /// Codings in which some of it is a proportional share of a file.
    #[serde(skip)]
    pub shared_out: Vec<Coding>,
    /// Chunks that hold any of it.
    pub chunks: Vec<String>,
    /// Of an exported name, whether it is used: `used`, `unused`, `kept for an effect`, `removed`, or `not
    /// told` where its text was not followed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub state: Option<State>,
    /// What its files would lose without it, for the rows that this was asked of.
    #[serde(flatten, skip_serializing_if = "Option::is_none")]
    pub removal: Option<Removal>,
    /// Its cells.
    #[serde(skip)]
    pub cells: Vec<CellId>,
}

/// What files would lose without a row.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Removal {
    /// Bytes that its files are smaller without it, per coding that was asked for; unknown where its
    /// places or the files' texts are not at hand. Rarely a file grows: then it is below zero.
    pub if_removed: Option<Coded<i64>>,
}
