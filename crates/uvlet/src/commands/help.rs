//! `uvlet completions` and `uvlet manual`: the command line, told to shells and to `man`.

use crate::args::show::Color;
use clap::Args;
use clap_complete::Shell;
use std::fs;
use std::path::PathBuf;

use clap::Command;

use crate::{
    failure::{Failure, Status},
    output,
};

#[derive(Debug, Args)]
pub struct Completions {
    /// The shell.
    #[arg(value_enum)]
    pub shell: Shell,
}

#[derive(Debug, Args)]
pub struct Manual {
    /// The folder, which is made if it is not there.
    #[arg(long, value_name = "DIR")]
    pub into: PathBuf,
}

/// What a line without a command gets.
pub fn usage(program: &mut Command) -> Result<Status, Failure> {
    let help = program.render_help().to_string();
    output::say(&help);
    Ok(Status::NoAnswer)
}

pub fn completions(arguments: &Completions, mut program: Command) -> Result<Status, Failure> {
    let mut text = Vec::new();
    clap_complete::generate(arguments.shell, &mut program, "uvlet", &mut text);
    output::write(&String::from_utf8_lossy(&text), None, Color::Never)?;
    Ok(Status::Held)
}

pub fn manual(arguments: &Manual, program: Command) -> Result<Status, Failure> {
    let failed = |source| Failure::Write { path: arguments.into.clone(), source };
    fs::create_dir_all(&arguments.into).map_err(failed)?;
    clap_mangen::generate_to(program, &arguments.into).map_err(failed)?;
    Ok(Status::Held)
}
