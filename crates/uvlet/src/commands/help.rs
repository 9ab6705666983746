//! `uvlet completions` and `uvlet manual`: the command line, told to shells and to `man`.

use std::fs;

use clap::CommandFactory;

use crate::{
    cli::{Cli, Color, Completions, Manual},
    failure::{Failure, Status},
    output,
};

/// What a line without a command gets.
pub fn usage() -> Result<Status, Failure> {
    let help = Cli::command().render_help().to_string();
    output::say(&help);
    Ok(Status::NoAnswer)
}

pub fn completions(arguments: &Completions) -> Result<Status, Failure> {
    let mut text = Vec::new();
    clap_complete::generate(arguments.shell, &mut Cli::command(), "uvlet", &mut text);
    output::write(&String::from_utf8_lossy(&text), None, Color::Never)?;
    Ok(Status::Held)
}

pub fn manual(arguments: &Manual) -> Result<Status, Failure> {
    let failed = |source| Failure::Write { path: arguments.into.clone(), source };
    fs::create_dir_all(&arguments.into).map_err(failed)?;
    clap_mangen::generate_to(Cli::command(), &arguments.into).map_err(failed)?;
    Ok(Status::Held)
}
