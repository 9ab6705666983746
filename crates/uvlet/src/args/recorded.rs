//! What a browser recorded.

use clap::Args;

/// Recordings of a browser, besides the build.
#[derive(Debug, Default, Args)]
pub struct Recorded {
    /// A recording of a browser, as LABEL=FILE or FILE, which tells what `never-ran` is; may be given
    /// several times.
    #[arg(long, value_name = "RECORDING")]
    pub coverage: Vec<String>,
}
