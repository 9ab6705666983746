//! `uvlet plugin`.

use crate::{
    cli::{Color, Plugin},
    failure::{Failure, Status},
    output,
};

/// The plugin, as it is handed out.
const PLUGIN: &str = include_str!("../../plugin/uvlet-plugin.mjs");

pub fn run(arguments: &Plugin) -> Result<Status, Failure> {
    output::write(PLUGIN, arguments.output.as_deref(), Color::Never)?;
    Ok(Status::Held)
}
