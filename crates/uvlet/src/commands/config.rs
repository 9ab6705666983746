//! `uvlet config`.

use crate::{
    cli::{Color, Config},
    config::USUAL,
    failure::{Failure, Status},
    output,
};

pub fn run(arguments: &Config) -> Result<Status, Failure> {
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
