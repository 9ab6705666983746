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
