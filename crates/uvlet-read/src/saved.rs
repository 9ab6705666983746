//! A record in place of a build: plain, or compressed with gzip or zstd, told by its first bytes.

use std::{
    fs::File,
    io::{self, Read},
    path::Path,
};

use uvlet_record::{Record, SavedError};

use crate::ReadError;

/// Bytes that a record may unpack to: far above any build's, far below what fills a machine.
const LARGEST: u64 = 2 << 30;

/// Reads the record in a file.
///
/// # Errors
/// When the file cannot be read, unpacks to too much, or holds no usable record.
pub fn read(path: &Path) -> Result<Record, ReadError> {
    let failed = |source| ReadError::Io { path: path.to_owned(), source };
    let mut file = File::open(path).map_err(failed)?;
    let mut start = [0; 4];
    let known = file.read(&mut start).map_err(failed)?;
    let whole = io::Cursor::new(start[..known].to_vec()).chain(file);
    let decoded: Box<dyn Read> = match start {
        [0x1f, 0x8b, ..] => Box::new(flate2::read::MultiGzDecoder::new(whole)),
        [0x28, 0xb5, 0x2f, 0xfd] => Box::new(zstd::Decoder::new(whole).map_err(failed)?),
        _ => Box::new(whole),
    };
    let saved = |source| ReadError::Saved { path: path.to_owned(), source };
    let not_one = |reason: &str| saved(SavedError::Form(reason.to_owned()));
    let mut bytes = Vec::new();
    decoded.take(LARGEST + 1).read_to_end(&mut bytes).map_err(failed)?;
    if bytes.len() as u64 > LARGEST {
        return Err(not_one("it unpacks to more than 2 GiB"));
    }
    let text = String::from_utf8(bytes).map_err(|_| not_one("it is not UTF-8 text"))?;
    Record::from_json(&text).map_err(saved)
}
