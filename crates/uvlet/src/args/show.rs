//! Where an answer goes, and how it is laid out.

use std::path::PathBuf;

use clap::{Args, ValueEnum};
use uvlet_view::{Units, form::Form};

use super::word::one_of;
use crate::cli::layout::OF_ANSWER;

/// How to show the answer.
#[derive(Debug, Args)]
pub struct Show {
    /// Form of the output.
    #[arg(long, help_heading = OF_ANSWER, value_parser = one_of(Form::OF_ROWS), default_value = "table")]
    pub format: Form,
    #[command(flatten)]
    pub page: Page,
}

/// Where and how it is laid out.
#[derive(Debug, Args)]
pub struct Page {
    /// kb: 1 kB is 1000 bytes; kib: 1 KiB is 1024 bytes; bytes: exact.
    #[arg(long, help_heading = OF_ANSWER, value_name = "UNITS", default_value = "kb")]
    pub units: Units,
    /// Write to this file, whole or not at all, instead of standard output.
    #[arg(short, long, help_heading = OF_ANSWER, value_name = "FILE")]
    pub output: Option<PathBuf>,
    /// Lay tables out in so many columns [default: the terminal's, 80 where there is none].
    #[arg(long, help_heading = OF_ANSWER, value_name = "COLUMNS")]
    pub width: Option<usize>,
    /// Colour the output.
    #[arg(long, help_heading = OF_ANSWER, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
    /// How sizes are meant was said before.
    #[arg(skip)]
    pub brief: bool,
}

/// When to colour.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Color {
    /// On a terminal, unless NO_COLOR is set.
    Auto,
    /// Always.
    Always,
    /// Never.
    Never,
}
