//! The words of `uvlet compare`.

use std::path::PathBuf;

use clap::Args;
use uvlet_view::table::CompareBy;

use crate::args::{build::Build, measures::MeasureChoice, show::Show, word::word};

#[derive(Debug, Args)]
pub struct Arguments {
    /// The earlier build: an output folder or a record.
    #[arg(value_name = "BEFORE", required_unless_present_any = ["last", "tries"])]
    pub before: Option<PathBuf>,
    /// The earlier build is the last one of the same folder that Uvlet looked at and that differs;
    /// the one argument is the later build then.
    #[arg(long, conflicts_with = "path")]
    pub last: bool,
    /// A line for each build of the folder that was looked at, back to one that was given a name with
    /// --mark; the one argument is the build of now.
    #[arg(long, conflicts_with_all = ["path", "last", "by", "within", "min", "top"])]
    pub tries: bool,
    #[command(flatten)]
    pub build: Build,
    /// Later builds still: each gets a line, with what moved since the one before.
    #[arg(value_name = "MORE", conflicts_with_all = ["last", "tries", "mark", "by", "within", "min", "top"])]
    pub more: Vec<PathBuf>,
    /// What a row stands for.
    #[arg(long, value_parser = word::<CompareBy>(), default_value = "package")]
    pub by: CompareBy,
    /// Only the bytes that this selector names in each build.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// Leave out rows that moved less, as in '100 B'.
    #[arg(long, value_name = "SIZE")]
    pub min: Option<String>,
    /// Show the first N rows, and one row for the rest; 0 shows all.
    #[arg(long, value_name = "N", default_value_t = 20)]
    pub top: usize,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}
