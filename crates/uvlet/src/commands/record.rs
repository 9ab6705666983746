//! `uvlet record`.

use std::{io::Write, path::Path};

use flate2::{Compression, write::GzEncoder};

use super::open_with;
use crate::{
    cli::{Color, Record},
    failure::{Failure, Status},
    output,
};

/// Level of zstd for a record: twice as small as gzip's, in less time.
const ZSTD_LEVEL: i32 = 15;

pub fn run(arguments: &Record) -> Result<Status, Failure> {
    let (_, record) = open_with(&arguments.build, arguments.with_texts)?;
    let text =
        record.to_json(env!("CARGO_PKG_VERSION")).map_err(|error| Failure::Output(error.into()))?;
    match &arguments.output {
        None => output::write(&text, None, Color::Never)?,
        Some(path) => output::replace(path, &packed(path, text.as_bytes())?)?,
    }
    Ok(Status::Held)
}

/// The bytes of the file, by its ending.
fn packed(path: &Path, text: &[u8]) -> Result<Vec<u8>, Failure> {
    let name = path.file_name().unwrap_or_default().to_string_lossy();
    let failed = |source| Failure::Write { path: path.to_owned(), source };
    if name.ends_with(".json.gz") {
        let mut encoder = GzEncoder::new(Vec::new(), Compression::best());
        encoder.write_all(text).map_err(failed)?;
        encoder.finish().map_err(failed)
    } else if name.ends_with(".json.zst") {
        zstd::encode_all(text, ZSTD_LEVEL).map_err(failed)
    } else if name.ends_with(".json") {
        Ok(text.to_owned())
    } else {
        Err(Failure::Usage(format!(
            "{}: a record ends in .json, .json.gz or .json.zst",
            path.display()
        )))
    }
}
