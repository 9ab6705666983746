//! What a build is: who made it, for whom, and where it runs.

use serde::{Deserialize, Serialize};

/// A bundler whose output is read.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
#[expect(missing_docs, reason = "each is the name of the bundler")]
pub enum Bundler {
    Webpack,
    Rspack,
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
        match self {
            Self::Webpack => "webpack",
            Self::Rspack => "Rspack",
            Self::Esbuild => "esbuild",
            Self::Vite => "Vite",
            Self::Rollup => "Rollup",
            Self::Rolldown => "Rolldown",
            Self::Turbopack => "Turbopack",
            Self::Parcel => "Parcel",
            Self::Bun => "Bun",
        }
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
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
#[expect(missing_docs, reason = "each is the place itself")]
pub enum Target {
    Browser,
    Server,
    Edge,
    Worker,
}

impl Target {
    /// The word for it in options and outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Browser => "browser",
            Self::Server => "server",
            Self::Edge => "edge",
            Self::Worker => "worker",
        }
    }
}
