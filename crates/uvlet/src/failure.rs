//! Why no answer was given, as one line for a person; and the exit status of every outcome.

use std::{io, path::PathBuf, process::ExitCode};
use uvlet_record::fault;
use uvlet_view::words::errors;
use uvlet_view::words::quote;

use uvlet_audit::{
    ask::{compare::sides::CompareError, gate::GateError},
    select::selector::SelectorError,
};
#[cfg(feature = "post")]
use uvlet_forge::PostError;
use uvlet_read::ReadError;
use uvlet_record::sizes::{Coding, Measure};

use crate::{config::ConfigError, wording};

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
    #[error("{}", wording::read_error(.0))]
    Read(#[from] ReadError),
    #[error(transparent)]
    Config(#[from] ConfigError),
    #[error("{}", errors::selector(.0))]
    Selector(SelectorError),
    #[error("{config}: {}", errors::gate(error))]
    Gate { config: PathBuf, error: Box<GateError> },
    #[error("{}; builds of one target, measured alike, are compared", errors::compare(.0))]
    Compare(CompareError),
    #[error("--in `{selector}`: {message}")]
    In { selector: String, message: String },
    #[error("{}: holds {taken} and no {measure}; `uvlet record BUILD --measure {measure} -o FILE` makes a record that does", path.display())]
    Measure { path: PathBuf, measure: Measure, taken: String },
    #[error("{}: has {coding} of level {held}, not {asked}, and sizes of different levels are not compared; write it again with --level {coding}={asked}", path.display())]
    Level { path: PathBuf, coding: Coding, held: u32, asked: u32 },
    #[error("{}: was made without the sizes of precompressed copies; write it again with --precompressed", .0.display())]
    NoPrecompressed(PathBuf),
    #[error("{}: holds no texts, which {needs} needs; name the build's folder, or make the record with --with-texts", .path.display())]
    NoTexts { path: PathBuf, needs: &'static str },
    #[error("{path} is a path and no command; `uvlet survey {}` measures it", quote::shell(&.0.display().to_string()), path = .0.display())]
    PathForCommand(PathBuf),
    #[error("{}: is a project without an output folder; build it, then name the folder that the bundler wrote", .0.display())]
    NotBuilt(PathBuf),
    #[error("{}: is a project with several output folders: {}; name one of them", project.display(), listed(outputs))]
    SeveralOutputs { project: PathBuf, outputs: Vec<PathBuf> },
    #[error("{}", .0)]
    Usage(String),
    #[error("{}: cannot be written: {}", path.display(), fault::reason(source))]
    Write { path: PathBuf, source: io::Error },
    #[cfg(feature = "post")]
    #[error("{what} is not posted: {error}")]
    Post { what: String, error: PostError },
    #[error(
        "a fault of uvlet ended it at {0}; please report it with the command and, if you can, the build"
    )]
    Fault(String),
    #[error("the output cannot be written: {0}")]
    Output(io::Error),
}

fn listed(paths: &[PathBuf]) -> String {
    let paths: Vec<String> = paths.iter().map(|path| path.display().to_string()).collect();
    paths.join(", ")
}

impl Failure {
    /// The exit status: a failure is never mistaken for a broken budget.
    pub fn status(&self) -> Status {
        Status::NoAnswer
    }
}

impl From<SelectorError> for Failure {
    fn from(error: SelectorError) -> Self {
        Self::Selector(error)
    }
}

impl From<CompareError> for Failure {
    fn from(error: CompareError) -> Self {
        Self::Compare(error)
    }
}
