//! The answer and its rows.

use serde::Serialize;
use uvlet_record::{EdgeBasis, EdgeKind, sizes::Sizes};

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Why {
    /// What was asked about.
    pub subject: String,
    /// What it is: `package`, `module` or `selector`.
    pub subject_kind: &'static str,
    /// What its package says of itself, where that is at hand.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub description: Option<String>,
    /// Its own bytes, wherever they are.
    pub sizes: Sizes,
    /// How many modules it is.
    pub modules: usize,
    /// The shortest chain from each entry that fetches it, entries at startup first.
    pub chains: Vec<Chain>,
    /// The modules outside it that ask for it, the nearest to an entry first.
    pub importers: Vec<Importer>,
    /// What no entry reaches any more without it.
    pub leaves_with_it: Leaving,
    /// The same of what each entry downloads at startup, the most first.
    pub at_startup: Vec<LeavingAtStartup>,
    /// What it asks for that stays, since others ask for it too; the heaviest first.
    pub stays: Vec<Staying>,
    /// The files that hold its bytes.
    pub lies_in: Vec<Place>,
    /// How the edges are known, and how many requests could not be told.
    pub edges: Edges,
}

/// A chain of modules from an entry to the subject.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Chain {
    /// The entry.
    pub entry: String,
    /// Whether it comes at startup of it.
    pub when: Moment,
    /// From the entry's first module on; none where no chain is known.
    pub steps: Vec<Step>,
    /// No importer of the first module is known: it may have left no byte, or the bundler may be told to begin there.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub has_lost_start: bool,
}

/// When an entry fetches it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Moment {
    /// Before its own code can run.
    Startup,
    /// On demand.
    Deferred,
}

/// A module on the way.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Step {
    /// Its path.
    pub module: String,
    /// Its package, if it is installed.
    pub package: Option<String>,
    /// How the step before asks for it; none for the first.
    pub by: Option<EdgeKind>,
    /// The names that are taken of it, where they are known.
    pub names: Option<Vec<String>>,
}

/// A module that asks for the subject.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Importer {
    /// Its path.
    pub module: String,
    /// Its package, if it is installed.
    pub package: Option<String>,
    /// How it asks.
    pub by: Vec<EdgeKind>,
    /// The names that it takes, where they are known.
    pub names: Option<Vec<String>>,
}

/// What leaves with the subject, itself among it.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Leaving {
    /// Its bytes.
    pub sizes: Sizes,
    /// Number of modules.
    pub modules: usize,
    /// Packages that leave as a whole, by name.
    pub packages: Vec<String>,
}

/// What leaves an entry's startup.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct LeavingAtStartup {
    /// The entry.
    pub entry: String,
    /// The bytes that it would start without.
    pub sizes: Sizes,
    /// Number of modules.
    pub modules: usize,
}

/// What the subject asks for and others do too.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Staying {
    /// A package, or a folder of own code.
    pub name: String,
    /// Its bytes that the subject reaches.
    pub sizes: Sizes,
    /// A module outside that asks for it.
    pub held_by: Option<String>,
}

/// A file that holds some of the subject.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Place {
    /// Its path.
    pub file: String,
    /// The subject's bytes in it.
    pub sizes: Sizes,
    /// Entries that load it at startup.
    pub startup_of: Vec<String>,
    /// Entries that load it on demand.
    pub deferred_of: Vec<String>,
}

/// How edges are known.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Edges {
    /// The weakest way in which one is known; none where there are none.
    pub basis: Option<EdgeBasis>,
    /// Requests that could not be told.
    pub unresolved: usize,
}
