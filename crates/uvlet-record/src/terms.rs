//! What a build is: who made it, for whom, and where it runs.

use serde::{Deserialize, Serialize};

/// A bundler whose output is read.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, strum::IntoStaticStr)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
#[expect(missing_docs, reason = "each is the name of the bundler")]
pub enum Bundler {
    #[strum(serialize = "webpack")]
    Webpack,
    Rspack,
    #[strum(serialize = "esbuild")]
    Esbuild,
    Vite,
    Rollup,
    Rolldown,
    Turbopack,
    Parcel,
    Bun,
}

impl Bundler {
    /// Its name, as it writes it itself.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }
}

/// What kind of build it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Mode {
    /// Made for visitors.
    Production,
    /// Made for developers: there is a positive mark of it.
    Development,
    /// Neither is certain.
    Unclear,
}

/// Where a build is meant to run.
#[derive(
    Clone,
    Copy,
    Debug,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Serialize,
    Deserialize,
    strum::EnumMessage,
    strum::IntoStaticStr,
    strum::VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
#[strum(serialize_all = "lowercase")]
pub enum Target {
    /// What visitors download.
    Browser,
    /// What runs on Node.js.
    Server,
    /// What runs on servers near the visitor, without Node.js.
    Edge,
    /// What runs in a worker of its own.
    Worker,
}

impl Target {
    /// The word for it in options and outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }
}

/// What a build's mode is judged by.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "mark", rename_all = "kebab-case")]
pub enum ModeBasis {
    /// A file evaluates module bodies from strings.
    Evaluates {
        /// The file.
        file: String,
    },
    /// A module reloads the page when a source is saved.
    LiveReload {
        /// The module.
        module: String,
    },
    /// A library's edition for developers is bundled.
    DevelopmentEdition {
        /// The module.
        module: String,
    },
    /// The bundler says it.
    Declared,
    /// The share of white space in the code.
    WhiteSpace {
        /// White space in a thousand bytes.
        per_mille: u64,
        /// It is as little as minified code has.
        is_minified: bool,
    },
    /// There is no code to judge.
    NoCode,
}

/// What a build's target is judged by.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "mark", rename_all = "kebab-case")]
pub enum TargetBasis {
    /// A page loads its scripts.
    Page,
    /// It imports what only Node.js has.
    Imports {
        /// The module of Node.js.
        module: String,
    },
    /// It imports nothing at startup that only Node.js has.
    NoNodeImport,
    /// Of several outputs this one is read.
    Output,
    /// The framework says what is served to whom.
    Framework {
        /// The framework.
        name: String,
    },
    /// The bundler says it.
    Declared,
    /// The runtime loads chunks by script tags.
    ScriptTags,
    /// The runtime loads chunks by reading files.
    ReadsFiles,
}
