//! How a build is read.

use std::path::PathBuf;

use uvlet_record::Target;

use crate::coded::coder::Coder;

/// How to read a build.
#[derive(Clone, Debug, Default)]
pub struct Options {
    /// Name of the build for people; else the folder's own.
    pub label: Option<String>,
    /// What the bundler says of the build, if it is not in the folder.
    pub description: Option<PathBuf>,
    /// Where source maps are kept that are not in the folder.
    pub maps: Option<PathBuf>,
    /// The project's folder, for versions of packages.
    pub root: Option<PathBuf>,
    /// URL under which the files will stand.
    pub base: Option<String>,
    /// Globs over names of packages that count as own code.
    pub own: Vec<String>,
    /// Take the sizes of precompressed copies where there are good ones.
    pub precompressed: bool,
    /// Look into the sources, too: who asks for whom where no bundler says it, digests.
    pub sources: bool,
    /// How coded sizes are taken.
    pub coder: Coder,
    /// Which target's output is looked at where there are several; the browser's if not said.
    pub target: Option<Target>,
}
