//! A record in place of a build: plain, or compressed with gzip or zstd, described by its first bytes.

use std::{
    fs::{self, File},
    io::{self, Read},
    path::Path,
};

use uvlet_record::{Record, SavedError};

use crate::error::ReadError;

/// Bytes that a record may unpack to: far above any build's, far below what fills a machine.
const LARGEST: u64 = 2 << 30;
/// No record of a build unpacks to so many times its bytes; what does is made to fill memory.
const DENSEST: u64 = 200;
/// Below this density is not looked at.
const SMALL: u64 = 64 << 20;

/// Reads the record in a file.
///
/// # Errors
/// When the file cannot be read, unpacks to too much, or holds no usable record.
pub fn read(path: &Path) -> Result<Record, ReadError> {
    let failed = |source| ReadError::Io { path: path.to_owned(), source };
    // A shell's own pipe ends; one that lies in a folder may have nobody who writes to it.
    let is_file = fs::metadata(path).map_err(failed)?.is_file();
    if !is_file && !path.starts_with("/dev") && !path.starts_with("/proc") {
        return Err(ReadError::Saved { path: path.to_owned(), source: SavedError::NotPlain });
    }
    let mut file = File::open(path).map_err(failed)?;
    let coded = file.metadata().map_err(failed)?.len();
    let largest = coded.saturating_mul(DENSEST).clamp(SMALL, LARGEST);
    // A pipe may hand them over one by one.
    let mut start = Vec::new();
    (&mut file).take(4).read_to_end(&mut start).map_err(failed)?;
    let form: [u8; 4] = std::array::from_fn(|at| start.get(at).copied().unwrap_or(0));
    let whole = io::Cursor::new(start).chain(file);
    let decoded: Box<dyn Read> = match form {
        [0x1f, 0x8b, ..] => Box::new(flate2::read::MultiGzDecoder::new(whole)),
        [0x28, 0xb5, 0x2f, 0xfd] => Box::new(zstd::Decoder::new(whole).map_err(failed)?),
        _ => Box::new(whole),
    };
    let saved = |source| ReadError::Saved { path: path.to_owned(), source };
    let mut bytes = Vec::new();
    decoded.take(largest + 1).read_to_end(&mut bytes).map_err(failed)?;
    if bytes.len() as u64 > largest {
        return Err(saved(SavedError::TooLarge));
    }
    let text = String::from_utf8(bytes).map_err(|_| saved(SavedError::NotText))?;
    Record::from_json(&text).map_err(saved)
}
