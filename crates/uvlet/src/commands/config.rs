//! `uvlet config`.

use crate::args::show::Color;
use crate::{
    config::USUAL,
    failure::{Failure, Status},
    output,
};
use clap::Args;
use std::path::PathBuf;

#[derive(Debug, Args)]
pub struct Arguments {
    /// Write them to this new file.
    #[arg(long, value_name = "FILE")]
    pub into: Option<PathBuf>,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let Some(path) = arguments.into.as_deref() else {
        output::write(USUAL, None, Color::Never)?;
        return Ok(Status::Held);
    };
    if path.exists() {
        let said = format!("{}: is there already; name another file", path.display());
        return Err(Failure::Usage(said));
    }
    output::replace(path, USUAL.as_bytes())?;
    let said = format!(
        "{} is written: every setting, as a comment. Next: uvlet propose\n",
        path.display()
    );
    output::write(&said, None, arguments.color)?;
    Ok(Status::Held)
}
