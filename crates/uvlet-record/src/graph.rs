//! Modules, packages, entries, and what opens what.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use crate::{FileId, index};

index!(
    /// Index into `Record::modules`.
    ModuleId
);
index!(
    /// Index into `Record::packages`.
    PackageId
);
index!(
    /// Index into `Record::entries`.
    EntryId
);

/// One source file, or virtual module, as the bundler saw it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct Module {
    /// Normalised path; see [`path`](crate::path).
    pub path: String,
    /// The installed package it belongs to.
    pub package: Option<PackageId>,
    /// Installed code, or code that its map marks as third-party; packages declared own are not.
    pub third_party: bool,
    /// UTF-8 bytes of the source text before bundling.
    pub source_bytes: Option<u64>,
    /// Loaded from elsewhere: a node of the graph without bytes.
    #[serde(default, skip_serializing_if = "is_false")]
    pub external: bool,
    /// Older sources that the package's own source map names in its place, where it has one.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<String>,
    /// Names that it exports, where the bundler says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exports: Option<Vec<String>>,
    /// Which of them the program uses, where the bundler says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub used: Option<Used>,
    /// What the bundler says of why it could not be optimised.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub bailouts: Vec<String>,
}

fn is_false(flag: &bool) -> bool {
    !flag
}

/// Which exports of a module the program uses.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum Used {
    /// All of them, or it cannot be told which.
    All,
    /// None: the module is there for what it does.
    Nothing,
    /// These.
    Names(Vec<String>),
}

/// One module asks for another.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema)]
pub struct Edge {
    /// Who asks.
    pub from: ModuleId,
    /// For whom.
    pub to: ModuleId,
    /// How.
    pub kind: EdgeKind,
    /// The specifier as written.
    pub request: Option<String>,
}

/// How a module asks for another.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema,
)]
#[serde(rename_all = "lowercase")]
pub enum EdgeKind {
    /// `import` of a module.
    Static,
    /// `export … from`.
    Reexport,
    /// `require()` and what works like it.
    Require,
    /// `import()`.
    Dynamic,
    /// `new Worker()`.
    Worker,
    /// A style's `@import`, or a script's import of a style.
    Style,
    /// `new URL()`, or a style's `url()`.
    Url,
}

impl EdgeKind {
    /// What is asked for arrives only once that code has run.
    #[must_use]
    pub fn is_deferred(self) -> bool {
        matches!(self, Self::Dynamic | Self::Worker)
    }
}

/// An installed package.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema)]
pub struct Package {
    /// Its npm name, with the scope.
    pub name: String,
    /// The place it is installed at, as far as it is known from paths.
    pub place: String,
    /// Its version.
    pub version: Option<String>,
    /// Declared own: an in-house package.
    pub own: bool,
}

/// How an entry was found.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum FoundBy {
    /// The bundler names it.
    Bundler,
    /// A page loads it.
    Page,
    /// A module that nothing else loads.
    Inferred,
    /// A worker's first script.
    Worker,
}

/// What a page starts from.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct Entry {
    /// Name; globs match it and the aliases.
    pub name: String,
    /// Other names.
    pub aliases: Vec<String>,
    /// The HTML pages that start it.
    pub pages: Vec<String>,
    /// How it was found.
    pub found_by: FoundBy,
    /// What it asks for before its code can run, in order.
    pub files: Vec<FileId>,
    /// What it fetches later without being asked by code: prefetch, print styles.
    pub prefetched: Vec<FileId>,
    /// The modules that it starts with, where the bundler says.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub roots: Vec<ModuleId>,
}

/// A dynamic load that cannot be followed: what it asks for is put together as the code runs, or is
/// not in the folder.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema)]
pub struct Unresolved {
    /// The file that holds the call.
    pub file: FileId,
    /// The module that holds the call, where its position is known.
    pub module: Option<ModuleId>,
    /// The specifier as written, if it is a text.
    pub request: Option<String>,
}

/// When code asks for a dynamic load.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema,
)]
#[serde(rename_all = "kebab-case")]
pub enum When {
    /// As its module is evaluated: at top level, or in a function that is called from there.
    AtOnce,
    /// When something else happens first.
    Later,
}

impl When {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::AtOnce => "at once",
            Self::Later => "later",
        }
    }
}

/// What an `import()` or a worker opens: files that arrive only when that call runs.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct DynamicLoad {
    /// The file that holds the call.
    pub file: FileId,
    /// The module that holds the call, where its position is known.
    pub module: Option<ModuleId>,
    /// `import()` or a worker.
    pub kind: EdgeKind,
    /// When the call runs, as far as the code shows it.
    pub when: When,
    /// The specifier as written.
    pub request: String,
    /// The files asked for, in order.
    pub files: Vec<FileId>,
}
