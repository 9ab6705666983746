//! Which build, and how it is read.

use std::path::PathBuf;

use clap::Args;
use uvlet_record::{
    Target,
    sizes::{Coding, UnknownCoding},
};

use super::word::word;
use crate::cli::layout::{FOR_FEW, OF_BUILD};

/// Which build, and what helps to read it.
#[derive(Clone, Debug, Args)]
pub struct Build {
    /// The output folder, a description in it, or a record. Left out, or a project's folder: what
    /// uvlet.toml names, else the one output folder of the project.
    #[arg(value_name = "BUILD")]
    pub path: Option<PathBuf>,
    /// Read settings from this file instead of the uvlet.toml of the working folder, or of the
    /// nearest folder above it within the repository.
    #[arg(long, help_heading = OF_BUILD, value_name = "FILE")]
    pub config: Option<PathBuf>,
    /// Which app of the settings, where they have several: its folder, its own packages, its budgets.
    #[arg(long, help_heading = OF_BUILD, value_name = "NAME")]
    pub app: Option<String>,
    /// What the bundler says of the build, if not in its folder: webpack's or Rspack's stats,
    /// esbuild's metafile, Vite's manifest, or the file of the plugin.
    #[arg(long, help_heading = OF_BUILD, value_name = "FILE")]
    pub description: Option<PathBuf>,
    /// Where source maps are kept, if not beside the files.
    #[arg(long, help_heading = OF_BUILD, value_name = "DIR")]
    pub maps: Option<PathBuf>,
    /// The project's folder, for versions of packages [default: the nearest folder above the build
    /// with a package.json].
    #[arg(long, help_heading = OF_BUILD, value_name = "DIR")]
    pub root: Option<PathBuf>,
    /// Keep this build under a name, as a start to look back to with `compare --tries`.
    #[arg(long, help_heading = OF_BUILD, value_name = "NAME")]
    pub mark: Option<String>,
    /// Take the sizes of precompressed copies (app.js.gz, app.js.br) where they decode to their file.
    #[arg(long, help_heading = FOR_FEW)]
    pub precompressed: bool,
    /// Levels of the encoders, as gzip=6,br=5 [default: gzip=9,br=11,zstd=19, or what uvlet.toml
    /// says]. Sizes of different levels are not compared.
    #[arg(long = "level", help_heading = FOR_FEW, value_name = "CODING=LEVEL", value_delimiter = ',', value_parser = level)]
    pub levels: Vec<(Coding, u32)>,
    /// Encode every file anew, and keep nothing in the user's cache folder.
    #[arg(long, help_heading = FOR_FEW)]
    pub no_cache: bool,
    /// Which output to look at where the folder holds that of several targets [default: browser].
    #[arg(long, help_heading = FOR_FEW, value_parser = word::<Target>())]
    pub target: Option<Target>,
    /// Name of the build in outputs, instead of the folder's own.
    #[arg(long, help_heading = FOR_FEW, value_name = "TEXT")]
    pub label: Option<String>,
}

/// `gzip=6`.
fn level(text: &str) -> Result<(Coding, u32), String> {
    let (coding, level) = text.split_once('=').ok_or("a level is set as gzip=6")?;
    let coding: Coding = coding.trim().parse().map_err(|error: UnknownCoding| error.to_string())?;
    let levels = coding.levels();
    let level = level.trim().parse().ok().filter(|level| levels.contains(level));
    level.map(|level| (coding, level)).ok_or_else(|| {
        format!("the levels of {coding} go from {} to {}", levels.start(), levels.end())
    })
}
