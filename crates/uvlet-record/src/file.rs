//! Emitted files and the chunks they form.

use std::ops::Range;

use serde::{Deserialize, Serialize};

use crate::{
    graph::When,
    ids::{FileId, ModuleId},
    sizes::Coded,
};

/// What a counted file is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Kind {
    /// JavaScript.
    Script,
    /// CSS.
    Style,
    /// HTML.
    Page,
    /// Pictures, moving ones too.
    Image,
    /// Typefaces.
    Font,
    /// WebAssembly.
    Wasm,
    /// Anything else.
    Data,
}

impl Kind {
    /// Every kind, in the order in which outputs list them.
    pub const ALL: [Self; 7] =
        [Self::Script, Self::Style, Self::Page, Self::Image, Self::Font, Self::Wasm, Self::Data];

    /// The word for it in selectors and outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Script => "script",
            Self::Style => "style",
            Self::Page => "page",
            Self::Image => "image",
            Self::Font => "font",
            Self::Wasm => "wasm",
            Self::Data => "data",
        }
    }

    /// Files of this kind are assets: owned as a whole, never own nor third-party.
    #[must_use]
    pub fn is_asset(self) -> bool {
        !matches!(self, Self::Script | Self::Style)
    }
}

/// How a file's text is put together.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Format {
    /// An ES module.
    Es,
    /// A script that hands a table of modules to a runtime, as webpack and Rspack write it.
    Registry,
    /// A list of ids and functions that is handed to Turbopack's runtime.
    Turbopack,
    /// Modules of which some register themselves with Parcel's runtime.
    Parcel,
    /// CommonJS, of which files ask for each other by `require()`.
    CommonJs,
    /// `System.register`.
    System,
    /// `define` of AMD.
    Amd,
    /// Any other script.
    #[default]
    Classic,
    /// A style.
    Style,
    /// Anything else.
    Other,
}

/// How a file's coded size is shared out.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Shares {
    /// In proportion to emitted bytes.
    #[default]
    Proportional,
    /// By what the coded stream spends on each byte.
    Traced,
}

impl Shares {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Proportional => "proportional",
            Self::Traced => "traced",
        }
    }
}

/// One emitted file that counts.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct File {
    /// Path in the output folder, with forward slashes.
    pub path: String,
    /// What it is.
    pub kind: Kind,
    /// BLAKE3 hash of the bytes, as 32 hexadecimal digits of its first half.
    pub digest: String,
    /// Bytes as they stand.
    pub emitted: u64,
    /// Bytes on the wire.
    #[serde(default)]
    pub encoded: Coded<u64>,
    /// How the bits of each coding are shared out over the cells.
    #[serde(default)]
    pub shares: Coded<Shares>,
    /// How the text is put together.
    pub format: Format,
    /// The module an asset is made of, where that is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub source: Option<ModuleId>,
    /// Files that this one needs before it can run or be shown, as written.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub loads: Vec<FileId>,
    /// Files that it names and may ask for later, such as images, as written.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub asset_loads: Vec<FileId>,
    /// Specifiers it loads from elsewhere, as written.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub externals: Vec<String>,
    /// What it asks of other hosts.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub elsewhere: Vec<Elsewhere>,
    /// Its cells.
    pub cells: Range<usize>,
    /// Its runs; empty where no positions are known.
    pub runs: Range<usize>,
}

/// An emitted script with the styles that belong to it: the unit a browser fetches.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Chunk {
    /// The name that outputs and selectors use; it outlives the build.
    pub name: String,
    /// The stem of the file's name without the hash.
    pub stem: String,
    /// The bundler's own name for it, if it has one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bundler_name: Option<String>,
    /// The bundler's ids for it, which change from build to build.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ids: Vec<String>,
    /// The module whose dynamic load opens it, where there is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opened_for: Option<ModuleId>,
    /// What its name was taken from.
    pub named_by: NamedBy,
    /// The script; a style that belongs to none is a chunk without.
    pub script: Option<FileId>,
    /// The styles.
    pub styles: Vec<FileId>,
}

/// What the lasting name of a chunk was taken from, the best first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum NamedBy {
    /// The entry whose own chunk it is.
    Entry,
    /// Somebody, in the bundler's configuration or in a comment at the `import()`.
    Given,
    /// The module whose dynamic load opens it.
    Module,
    /// What it mostly holds.
    Contents,
    /// Its file, as nothing else is known.
    File,
}

impl Chunk {
    /// The script and the styles.
    pub fn files(&self) -> impl Iterator<Item = FileId> + '_ {
        self.script.into_iter().chain(self.styles.iter().copied())
    }
}

/// Something that is asked of another host.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Elsewhere {
    /// The URL as written; what is put behind it as code runs is left out.
    pub url: String,
    /// When it is asked for, once the file is there.
    pub when: When,
}
