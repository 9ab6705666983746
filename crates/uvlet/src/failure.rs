//! Why no answer was given, as one line for a person; and the exit status of every outcome.

use std::{io, path::PathBuf, process::ExitCode};

use uvlet_audit::{gate::GateError, selector::SelectorError};
use uvlet_read::ReadError;

use crate::config::ConfigError;

/// How a run ended.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Status {
    /// Done, and every budget held.
    Held,
    /// A budget is broken.
    Broken,
    /// No answer can be given.
    NoAnswer,
}

impl From<Status> for ExitCode {
    fn from(status: Status) -> Self {
        match status {
            Status::Held => Self::SUCCESS,
            Status::Broken => Self::from(1),
            Status::NoAnswer => Self::from(2),
        }
    }
}

/// Why no answer was given.
#[derive(Debug, thiserror::Error)]
pub enum Failure {
    #[error(transparent)]
    Read(#[from] ReadError),
    #[error(transparent)]
    Config(#[from] ConfigError),
    #[error(transparent)]
    Selector(#[from] SelectorError),
    #[error("{config}: {error}")]
    Gate { config: PathBuf, error: GateError },
    #[error("--in `{selector}`: {message}")]
    In { selector: String, message: String },
    #[error("{measure} sizes are not taken by this version; there are {taken}")]
    Measure { measure: String, taken: String },
    #[error("{}", .0)]
    Usage(String),
    #[error("{}: cannot be written: {source}", path.display())]
    Write { path: PathBuf, source: io::Error },
    #[error("the output cannot be written: {0}")]
    Output(io::Error),
}

impl Failure {
    /// The exit status: a failure is never mistaken for a broken budget.
    pub fn status(&self) -> Status {
        Status::NoAnswer
    }
}
