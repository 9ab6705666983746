//! `uvlet recorder`.

use crate::{
    cli::{Color, Recorder},
    failure::{Failure, Status},
    output,
};

/// The plugin, as it is handed out.
const PLUGIN: &str = include_str!("../../recorder/uvlet-recorder.mjs");

pub fn run(arguments: &Recorder) -> Result<Status, Failure> {
    output::write(PLUGIN, arguments.output.as_deref(), Color::Never)?;
    Ok(Status::Held)
}
