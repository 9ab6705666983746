//! What sizes are counted in.

use std::str::FromStr;

use clap::Args;
use uvlet_record::sizes::{Measure, UnknownMeasure};

use crate::cli::layout::OF_ANSWER;

#[derive(Debug, Args)]
pub struct MeasureChoice {
    /// What sizes are counted in: emitted, gzip, br, zstd, several of them as gzip,br, or all. The
    /// first orders the table [default: gzip, or what uvlet.toml says].
    #[arg(long = "measure", help_heading = OF_ANSWER, value_name = "MEASURES", value_delimiter = ',')]
    pub measures: Vec<Asked>,
}

/// A word of `--measure`.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Asked {
    /// Every measure.
    All,
    /// This one.
    One(Measure),
}

impl FromStr for Asked {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        match text {
            "all" => Ok(Self::All),
            _ => match text.parse() {
                Ok(measure) => Ok(Self::One(measure)),
                Err(error @ UnknownMeasure(_)) => Err(format!("{error}, and all")),
            },
        }
    }
}
