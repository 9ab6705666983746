//! `uvlet`: accounts for every byte that a web application makes its visitors download.
//!
//! The program parses words, has a build read, asks one question of it, shows the answer and sets
//! the exit status. Everything else lives in the crates below it.

mod cli;
mod commands;
mod config;
mod failure;
mod output;
mod progress;
mod wording;

use std::{
    env,
    path::{Path, PathBuf},
    process::ExitCode,
};

use clap::{Parser, error::ErrorKind};
use failure::Failure;

fn main() -> ExitCode {
    let ended = match cli::Cli::try_parse() {
        Ok(cli) => match &cli.command {
            Some(command) => commands::run(command),
            None => commands::run_alone(),
        },
        Err(error) => match path_for_command(&error) {
            Some(path) => Err(Failure::PathForCommand(path)),
            None => error.exit(),
        },
    };
    match ended {
        Ok(status) => status.into(),
        Err(failure) => {
            output::complain(&failure);
            failure.status().into()
        }
    }
}

/// The path that stands where a command should.
fn path_for_command(error: &clap::Error) -> Option<PathBuf> {
    let first = env::args_os().nth(1)?;
    let is_path = error.kind() == ErrorKind::InvalidSubcommand && Path::new(&first).exists();
    is_path.then(|| first.into())
}
