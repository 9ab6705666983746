//! `uvlet`: accounts for every byte that a web application makes its visitors download.
//!
//! The program parses words, has a build read, asks one question of it, shows the answer and sets
//! the exit status. Everything else lives in the crates below it.

mod advice;
mod apps;
mod args;
mod choose;
mod cli;
mod commands;
mod config;
mod failure;
mod kept;
mod maps;
mod output;
mod progress;
mod reading;
mod recordings;
mod show;
mod wording;

use std::{
    env,
    num::NonZero,
    panic,
    path::{Path, PathBuf},
    process::ExitCode,
    sync::Mutex,
    thread,
};

use clap::error::ErrorKind;
use failure::Failure;

fn main() -> ExitCode {
    start_threads();
    // A fault of a part that others do without is told by whoever asked for the part.
    static FAULT: Mutex<Option<String>> = Mutex::new(None);
    panic::set_hook(Box::new(|fault| {
        if let Ok(mut known) = FAULT.lock() {
            *known = fault.location().map(|place| format!("{}:{}", place.file(), place.line()));
        }
    }));
    panic::catch_unwind(run).unwrap_or_else(|_| {
        let place = FAULT.lock().ok().and_then(|known| known.clone()).unwrap_or_default();
        output::complain(&Failure::Fault(place));
        Failure::Fault(String::new()).status().into()
    })
}

/// Starts as many threads as there are cores, or as a variable says, but not thousands. Where none are to
/// be had, this one does all.
fn start_threads() {
    let cores = thread::available_parallelism().map_or(1, NonZero::get);
    let asked = env::var("RAYON_NUM_THREADS").ok().and_then(|number| number.parse().ok());
    let number = asked.filter(|asked| *asked > 0).unwrap_or(cores).min(cores.saturating_mul(4));
    if rayon::ThreadPoolBuilder::new().num_threads(number).build_global().is_err() {
        let alone = rayon::ThreadPoolBuilder::new().num_threads(1).use_current_thread();
        // It only fails where there is a pool already, which can be used.
        let _ = alone.build_global();
    }
}

fn run() -> ExitCode {
    let ended = match cli::Cli::of_arguments() {
        Ok(cli) => match &cli.command {
            Some(command) => cli::run(command),
            None => cli::run_alone(),
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
