//! Texts that a record was saved with.

use serde::{Deserialize, Serialize};

use crate::ids::ModuleId;

/// Texts that a record was saved with.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SavedTexts {
    /// Per file: the emitted text of scripts, styles and pages.
    pub emitted: Vec<Option<String>>,
    /// Per file: its source map.
    #[serde(default)]
    pub maps: Vec<Option<SavedMap>>,
    /// Per module: the source text.
    pub sources: Vec<Option<String>>,
}

/// A source map, with modules in the place of sources.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SavedMap {
    /// Its parts, in the order of the emitted text.
    pub sections: Vec<SavedSection>,
}

/// A part of a map.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SavedSection {
    /// Emitted line that it begins on, from 0.
    pub line: u32,
    /// Emitted column that it begins at, in UTF-16 code units, from 0.
    pub column: u32,
    /// Per source: its module, if it is one.
    pub modules: Vec<Option<ModuleId>>,
    /// The mappings (ECMA-426, section "Mappings structure").
    pub mappings: String,
}
