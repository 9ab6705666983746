//! `uvlet record`.

use crate::args::build::Build;
use crate::args::measures::MeasureChoice;
use crate::args::show::Color;
use crate::reading::Opened;
use crate::reading::Wanted;
use crate::reading::measures;
use crate::reading::open;
use crate::reading::settings;
use clap::Args;
use std::path::PathBuf;
use std::{
    io::{self, Write},
    path::Path,
};
use uvlet_view::form::Form;

use flate2::{Compression, write::GzEncoder};

use uvlet_view::json;

use crate::{
    failure::{Failure, Status},
    output,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    #[command(flatten)]
    pub measure: MeasureChoice,
    /// Keep emitted and source texts in the record.
    #[arg(long)]
    pub with_texts: bool,
    /// Write to this file, whole or not at all.
    #[arg(short, long, value_name = "FILE")]
    pub output: Option<PathBuf>,
}

/// Level of zstd for a record: twice as small as gzip's, in less time.
const ZSTD_LEVEL: i32 = 15;

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let form = arguments.output.as_deref().map(form_of).transpose()?;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { mut record, texts, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: Form::Json,
        sources: true,
    })?;
    if arguments.with_texts && record.texts.is_none() {
        record.texts = Some(texts.save(&record));
    }
    let text =
        record.to_json(env!("CARGO_PKG_VERSION")).map_err(|error| Failure::Output(error.into()))?;
    let text = json::spelt(&text);
    match (&arguments.output, form) {
        (Some(path), Some(form)) => {
            let packed = pack(form, text.as_bytes());
            let failed = |source| Failure::Write { path: path.clone(), source };
            output::replace(path, &packed.map_err(failed)?)?;
        }
        _ => output::write(&text, None, Color::Never)?,
    }
    Ok(Status::Held)
}

/// How a record is packed.
#[derive(Clone, Copy)]
enum Packing {
    Plain,
    Gzip,
    Zstd,
}

/// The form that a file's ending asks for; told before a large build is read.
fn form_of(path: &Path) -> Result<Packing, Failure> {
    let name = path.file_name().unwrap_or_default().to_string_lossy();
    let forms =
        [(".json", Packing::Plain), (".json.gz", Packing::Gzip), (".json.zst", Packing::Zstd)];
    let found = forms.into_iter().find(|(ending, _)| name.ends_with(ending));
    found.map(|(_, form)| form).ok_or_else(|| {
        Failure::Usage(format!("{}: a record ends in .json, .json.gz or .json.zst", path.display()))
    })
}

fn pack(form: Packing, text: &[u8]) -> io::Result<Vec<u8>> {
    match form {
        Packing::Plain => Ok(text.to_owned()),
        Packing::Gzip => {
            let mut encoder = GzEncoder::new(Vec::new(), Compression::best());
            encoder.write_all(text)?;
            encoder.finish()
        }
        Packing::Zstd => zstd::encode_all(text, ZSTD_LEVEL),
    }
}
