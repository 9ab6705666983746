//! The words of `uvlet gate`.

use std::path::PathBuf;

use clap::Args;
use uvlet_view::{form::Form, table::Shown};

use crate::args::{build::Build, recorded::Recorded, show::Page, word::word};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// Hold growth against this build: an output folder or a record.
    #[arg(long, value_name = "BUILD")]
    pub against: Option<PathBuf>,
    /// Where that build is not there, growth is not judged, instead of an error.
    #[arg(long, requires = "against")]
    pub against_optional: bool,
    /// Judge these budgets alone, as they are called in the settings.
    #[arg(long, value_name = "NAME", value_delimiter = ',')]
    pub only: Vec<String>,
    /// Judge with another limit than the settings say, as in 'start.at_most=150 kB'; may be given
    /// several times.
    #[arg(long = "try", value_name = "NAME.LIMIT=VALUE")]
    pub tried: Vec<String>,
    /// Judge as if these steps of what-if were done, as in '--defer src/dialog.js'.
    #[arg(long = "if", value_name = "STEPS", allow_hyphen_values = true)]
    pub plan: Option<String>,
    #[command(flatten)]
    pub recorded: Recorded,
    /// Write the verdict to a file as well, in one of the forms junit, sarif, markdown, json and csv;
    /// may be given several times.
    #[arg(long, value_name = "FORM=FILE", value_parser = written)]
    pub write: Vec<(Form, PathBuf)>,
    /// The day that waivers are held against, as 2027-03-31 [default: today, in UTC].
    #[arg(long, value_name = "DATE")]
    pub today: Option<jiff::civil::Date>,
    /// Which limits to list: those that tell something, only those that fail, or all with what is
    /// left of each.
    #[arg(long = "show", value_parser = word::<Shown>(), default_value = "telling")]
    pub listed: Shown,
    /// Show every setting that counts, with the file and line that it comes from, and judge nothing.
    #[arg(long)]
    pub show_settings: bool,
    /// Print nothing: the exit status tells, and the files of --write.
    #[arg(short, long)]
    pub quiet: bool,
    /// Form of the output.
    #[arg(long, value_parser = word::<Form>(), default_value = "table")]
    pub format: Form,
    #[command(flatten)]
    pub page: Page,
}

/// `junit=FILE`.
fn written(text: &str) -> Result<(Form, PathBuf), String> {
    let names = || Form::OF_FILES.iter().map(|form| form.name()).collect::<Vec<_>>().join(", ");
    let (form, path) = text.split_once('=').ok_or("write it like junit=FILE")?;
    let known = Form::OF_FILES.iter().find(|known| known.name() == form);
    let known = known.ok_or_else(|| format!("the forms are {}", names()))?;
    match path {
        "" => Err(format!("name a file, as in {form}=FILE")),
        path => Ok((*known, path.into())),
    }
}
