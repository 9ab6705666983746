//! `uvlet config`.

use crate::args::show::Color;
use crate::{
    config::{FILE, USUAL, keys},
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
    /// The JSON Schema of the settings instead, by which editors complete and check them.
    #[arg(long)]
    pub schema: bool,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let schema = format!("{:#}\n", keys::schema());
    let text = if arguments.schema { &schema } else { USUAL };
    let Some(path) = arguments.into.as_deref() else {
        output::write(text, None, Color::Never)?;
        return Ok(Status::Held);
    };
    if path.exists() {
        let said = format!("{}: is there already; name another file", path.display());
        return Err(Failure::Usage(said));
    }
    output::replace(path, text.as_bytes())?;
    let name = path.file_name().unwrap_or_default().to_string_lossy();
    let said = match arguments.schema {
        true => format!(
            "the schema of settings. Editors find it by a first line in {FILE}:\n#:schema ./{name}"
        ),
        false => "every setting, as a comment. Next: uvlet propose".to_owned(),
    };
    let said = format!("{} is written: {said}\n", path.display());
    output::write(&said, None, arguments.color)?;
    Ok(Status::Held)
}
