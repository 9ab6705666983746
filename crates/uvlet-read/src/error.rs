//! Why no record can be made, as data: whoever shows it adds what to do.

use std::{io, path::PathBuf};
use uvlet_record::fault;

use uvlet_record::{Flaw, SavedError, Target, sizes::Coding};

use crate::descriptions::description::DescriptionError;

/// Why no record can be made.
#[derive(Debug, thiserror::Error)]
pub enum ReadError {
    /// There is nothing at the path, or it cannot be listed.
    #[error("{}: cannot be read: {}", path.display(), fault::reason(source))]
    Io {
        /// The path.
        path: PathBuf,
        /// What the system says.
        source: io::Error,
    },
    /// A file that holds no record which could stand for a build.
    #[error("{}: {source}", path.display())]
    Saved {
        /// The file.
        path: PathBuf,
        /// What is wrong with it.
        source: SavedError,
    },
    /// What the bundler says of the build cannot be used.
    #[error("{}: {source}", path.display())]
    Description {
        /// The file.
        path: PathBuf,
        /// What is wrong with it.
        source: DescriptionError,
    },
    /// A description of a build whose files are not beside it.
    #[error("{}: its scripts are not beside it", .0.display())]
    DescriptionAlone(PathBuf),
    /// The folder holds sources instead of what a bundler makes of them.
    #[error("{}: holds sources, such as {example}, and no build", path.display())]
    Sources {
        /// The path.
        path: PathBuf,
        /// One of them.
        example: String,
    },
    /// The files of an installed package.
    #[error("{}: is inside node_modules, where packages are installed", .0.display())]
    Installed(PathBuf),
    /// The folder holds nothing that a visitor would download as code.
    #[error("{}: holds no script, style or page", .0.display())]
    NothingCounted(PathBuf),
    /// A file could not be encoded: a size made of that would be a lie.
    #[error("{}: cannot be encoded in {coding}: {source}", path.display())]
    Encode {
        /// The file.
        path: PathBuf,
        /// The coding.
        coding: Coding,
        /// What the encoder says.
        source: io::Error,
    },
    /// The target that was asked for is not there.
    #[error("{}: holds no output for the {}", path.display(), target.name())]
    NoTarget {
        /// The path.
        path: PathBuf,
        /// The target.
        target: Target,
    },
    /// The record breaks its own rules: a fault of this program.
    #[error("{}: the accounts do not add up ({flaw})", path.display())]
    Flaw {
        /// The path.
        path: PathBuf,
        /// The rule.
        flaw: Flaw,
    },
}
