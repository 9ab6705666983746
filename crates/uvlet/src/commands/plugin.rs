//! `uvlet plugin`.

use crate::args::show::Color;
use crate::{
    failure::{Failure, Status},
    output,
};
use clap::Args;
use std::path::PathBuf;

#[derive(Debug, Args)]
pub struct Arguments {
    /// Write to this file, whole or not at all, instead of standard output.
    #[arg(short, long, value_name = "FILE")]
    pub output: Option<PathBuf>,
}

/// The plugin, as it is handed out.
const PLUGIN: &str = include_str!("../../plugin/uvlet-plugin.mjs");

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    output::write(PLUGIN, arguments.output.as_deref(), Color::Never)?;
    Ok(Status::Held)
}
