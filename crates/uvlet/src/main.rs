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

use std::process::ExitCode;

use clap::Parser;

fn main() -> ExitCode {
    let cli = cli::Cli::parse();
    match commands::run(&cli.command) {
        Ok(status) => status.into(),
        Err(failure) => {
            output::complain(&failure);
            failure.status().into()
        }
    }
}
