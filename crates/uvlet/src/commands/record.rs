//! `uvlet record`.

use std::{
    io::{self, Write},
    path::Path,
};

use flate2::{Compression, write::GzEncoder};

use uvlet_view::json;

use super::{Opened, Wanted, measures, open, settings};
use crate::{
    cli::{Color, Format, Record},
    failure::{Failure, Status},
    output,
};

/// Level of zstd for a record: twice as small as gzip's, in less time.
const ZSTD_LEVEL: i32 = 15;

pub fn run(arguments: &Record) -> Result<Status, Failure> {
    let form = arguments.output.as_deref().map(form_of).transpose()?;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { mut record, texts, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: Format::Json,
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
enum Form {
    Plain,
    Gzip,
    Zstd,
}

/// The form that a file's ending asks for; told before a large build is read.
fn form_of(path: &Path) -> Result<Form, Failure> {
    let name = path.file_name().unwrap_or_default().to_string_lossy();
    let forms = [(".json", Form::Plain), (".json.gz", Form::Gzip), (".json.zst", Form::Zstd)];
    let found = forms.into_iter().find(|(ending, _)| name.ends_with(ending));
    found.map(|(_, form)| form).ok_or_else(|| {
        Failure::Usage(format!("{}: a record ends in .json, .json.gz or .json.zst", path.display()))
    })
}

fn pack(form: Form, text: &[u8]) -> io::Result<Vec<u8>> {
    match form {
        Form::Plain => Ok(text.to_owned()),
        Form::Gzip => {
            let mut encoder = GzEncoder::new(Vec::new(), Compression::best());
            encoder.write_all(text)?;
            encoder.finish()
        }
        Form::Zstd => zstd::encode_all(text, ZSTD_LEVEL),
    }
}
