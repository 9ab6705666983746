//! Modules, packages, entries, and what opens what.

use serde::{Deserialize, Serialize};

use crate::ids::{FileId, ModuleId, PackageId};

/// One source file, or virtual module, as the bundler saw it.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Module {
    /// Normalised path; see [`path`](crate::path).
    pub path: String,
    /// The loaders, scheme, query or virtual mark that its name lost, where there were any: the name
    /// as somebody wrote it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub written: Option<String>,
    /// The installed package it belongs to.
    pub package: Option<PackageId>,
    /// Installed code, or code that its map marks as third-party; packages declared own are not.
    pub third_party: bool,
    /// Loaded from elsewhere: a node of the graph without bytes.
    #[serde(default, skip_serializing_if = "is_false")]
    pub external: bool,
    /// In which kind of module it is written, where that is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub format: Option<ModuleFormat>,
    /// UTF-8 bytes of the source text before bundling.
    pub source_bytes: Option<u64>,
    /// BLAKE3 hash of the source text, as 32 hexadecimal digits of its first half, where the text is
    /// at hand.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub source_digest: Option<String>,
    /// The module that the bundler merged it into one function with, and named the function after.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub merged_into: Option<ModuleId>,
    /// Older sources that the package's own source map names in its place, where it has one.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub older_sources: Vec<String>,
    /// Names that it exports, where the bundler says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exports: Option<Vec<String>>,
    /// Which of them the program uses, where the bundler says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub used: Option<Used>,
    /// Which of them were taken out, where the bundler says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dropped: Option<Vec<String>>,
    /// It must be kept for what it does as it is evaluated: as the bundler says, else as its package
    /// declares.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side_effects: Option<bool>,
    /// What the bundler says of why it could not be optimised.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub bailouts: Vec<String>,
    /// Views that plugins have on it, and what is said of each.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub facets: Vec<Facet>,
}

fn is_false(flag: &bool) -> bool {
    !flag
}

/// In which kind of module a source is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum ModuleFormat {
    /// With `import` and `export`.
    Es,
    /// With `require` and `exports`.
    CommonJs,
    /// JSON.
    Json,
    /// CSS, or what is compiled to it.
    Style,
}

/// A plugin's view on a module, such as `?commonjs-exports`: a module of its own to the bundler.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Facet {
    /// The name, as the bundler writes it.
    pub name: String,
    /// Names that the view exports.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exports: Option<Vec<String>>,
}

/// Which exports of a module the program uses.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
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
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Edge {
    /// Who asks.
    pub from: ModuleId,
    /// For whom.
    pub to: ModuleId,
    /// How.
    pub kind: EdgeKind,
    /// The specifier as written.
    pub request: Option<String>,
    /// The names that are taken of it; `None` where it may be any, or is not known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub names: Option<Vec<String>>,
    /// How the edge is known.
    pub basis: EdgeBasis,
}

/// How an edge is known, the best first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum EdgeBasis {
    /// The bundler says so.
    Said,
    /// Read in the source, and resolved among the modules of the build.
    Read,
    /// Read in the source; it leads past modules that left no byte, to what gives the names that are
    /// taken and is loaded wherever the asking module is.
    Inferred,
}

/// Something that a module asks for and that could not be told: a request past modules that left no
/// byte, or for something that is not in the build.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct UnresolvedRequest {
    /// Who asks.
    pub from: ModuleId,
    /// The specifier as written.
    pub request: String,
    /// How.
    pub kind: EdgeKind,
}

/// How a module asks for another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
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
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Package {
    /// Its npm name, with the scope.
    pub name: String,
    /// The name that its `package.json` has, where it is installed under another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub alias_of: Option<String>,
    /// The place it is installed at, as far as it is known from paths.
    pub place: String,
    /// Its version.
    pub version: Option<String>,
    /// Declared own: an in-house package.
    pub own: bool,
    /// What its `package.json` says of side effects, where that is at hand.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side_effects: Option<SideEffects>,
}

/// What a package declares of its modules (`sideEffects` of `package.json`).
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum SideEffects {
    /// Nothing, so that every module may do something.
    Undeclared,
    /// No module does anything but give its exports.
    None,
    /// Only modules that these globs match do.
    In(Vec<String>),
}

/// How an entry was found.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Origin {
    /// The bundler names it.
    Bundler,
    /// A page loads it.
    Page,
    /// A framework lists it as a route.
    Framework,
    /// The `package.json` of a library offers it.
    Package,
    /// A module that nothing else loads.
    Inferred,
    /// A worker's first script.
    Worker,
}

/// What a page starts from.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Entry {
    /// Name; globs match it and the aliases.
    pub name: String,
    /// Other names.
    pub aliases: Vec<String>,
    /// The HTML pages that start it.
    pub pages: Vec<String>,
    /// Paths that a visitor types, or their patterns.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub routes: Vec<String>,
    /// How it was found.
    pub origin: Origin,
    /// What it asks for before its code can run, in order.
    pub requested: Vec<FileId>,
    /// What it fetches later without being asked by code: prefetch, print styles.
    pub later: Vec<FileId>,
    /// The modules that it starts with: as the bundler says, else those of its own scripts that no
    /// other module there asks for.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub roots: Vec<ModuleId>,
    /// The bundler says the roots.
    #[serde(default, skip_serializing_if = "is_false")]
    pub has_said_roots: bool,
    /// For which browsers it is.
    #[serde(default, skip_serializing_if = "Edition::is_usual")]
    pub edition: Edition,
}

/// For which browsers an entry is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Edition {
    /// For today's.
    #[default]
    Usual,
    /// For those that know no modules, which alone fetch it.
    Legacy,
}

impl Edition {
    fn is_usual(&self) -> bool {
        *self == Self::Usual
    }
}

/// A dynamic load that cannot be followed: what it asks for is put together as the code runs, or is
/// not in the folder.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Unresolved {
    /// The file that holds the call.
    pub file: FileId,
    /// The module that holds the call, where its position is known.
    pub module: Option<ModuleId>,
    /// The specifier as written, if it is a text.
    pub request: Option<String>,
}

/// When code asks for a dynamic load.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
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

/// How a dynamic load is asked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum LoadKind {
    /// `import()`, and what stands for it in older formats.
    Import,
    /// A worker's first script.
    Worker,
}

/// What an `import()` or a worker opens: files that arrive only when that call runs.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct DynamicLoad {
    /// The file that holds the call.
    pub file: FileId,
    /// The module that holds the call, where its position is known.
    pub module: Option<ModuleId>,
    /// How it is asked for.
    pub kind: LoadKind,
    /// When the call runs, as far as the code shows it.
    pub when: When,
    /// The specifier as written.
    pub request: String,
    /// The files asked for, in order.
    pub files: Vec<FileId>,
    /// The routes that need it, as a router's table in the code says.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub routes: Vec<String>,
}
