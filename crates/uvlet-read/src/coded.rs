//! What every file costs on the wire: encoded in each coding that is taken, or by its precompressed
//! copy.
//!
//! Encoding is most of the work of a read, and one large script would leave cores idle at the end:
//! the costliest is first in line.

pub(crate) mod cache;
pub(crate) mod coder;
pub(crate) mod precompressed;

use std::{cmp::Reverse, io};

use rayon::iter::{ParallelBridge, ParallelIterator};
use uvlet_record::{
    Kind,
    sizes::{Coded, Coding},
};

use crate::folder::{
    list::{Listed, Listing},
    text::Text,
};
pub use cache::Cache;
pub use coder::{Coder, Progress};
pub use precompressed::{PrecompressedCopy, check as precompressed_copies};

/// A file on the wire.
#[derive(Debug, Default)]
pub struct CodedFile {
    /// Bytes in the coding.
    pub bytes: u64,
    /// The stream, of files that several may own parts of.
    pub stream: Option<Vec<u8>>,
}

/// Formats that are compressed already: servers send them as they are.
const COMPRESSED: [&str; 13] = [
    "woff2", "woff", "png", "jpg", "jpeg", "gif", "avif", "webp", "mp4", "webm", "zip", "gz", "br",
];

/// Every counted file in every coding that is taken, in order; `copies` stand for their files.
///
/// # Errors
/// When a file cannot be read any more or an encoder fails: no size must be made of that.
pub fn all(
    listing: &Listing,
    copies: &[PrecompressedCopy],
    coder: &Coder,
) -> Result<Vec<Coded<CodedFile>>, Failed> {
    let mut files: Vec<Coded<CodedFile>> = Vec::new();
    files.resize_with(listing.counted.len(), Coded::default);
    let mut jobs: Vec<(u64, usize, Coding)> = Vec::new();
    for (at, (file, _)) in listing.counted.iter().enumerate() {
        for &coding in coder.levels.keys() {
            if is_compressed(file) {
                files[at].set(coding, CodedFile { bytes: file.bytes, stream: None });
            } else {
                let bytes = usize::try_from(file.bytes).unwrap_or(usize::MAX);
                jobs.push((coder.cost(bytes, coding), at, coding));
            }
        }
    }
    for copy in copies {
        let stream = Text::of(&listing.aside[copy.aside].0).ok();
        let stream = stream.filter(|_| is_shared(listing, copy.file, copy.coding));
        let stream = stream.map(|text| text.to_vec());
        files[copy.file].set(copy.coding, CodedFile { bytes: copy.bytes, stream });
    }
    jobs.retain(|&(_, at, coding)| files[at].get(coding).is_none());
    jobs.sort_unstable_by_key(|&(cost, at, coding)| (Reverse(cost), at, coding));
    coder.progress.expect(jobs.iter().map(|(cost, ..)| cost).sum());
    let encoded = |(_, at, coding): (u64, usize, Coding)| {
        let file = &listing.counted[at].0;
        let failed = |source| Failed { path: file.path.clone(), coding, source };
        let text = Text::of(file).map_err(failed)?;
        let stream = coder.encode(&text, coding).map_err(failed)?;
        let bytes = stream.len() as u64;
        let stream = is_shared(listing, at, coding).then_some(stream);
        Ok((at, coding, CodedFile { bytes, stream }))
    };
    let done: Result<Vec<(usize, Coding, CodedFile)>, Failed> =
        jobs.into_iter().par_bridge().map(encoded).collect();
    for (at, coding, coded) in done? {
        files[at].set(coding, coded);
    }
    Ok(files)
}

/// A file that could not be encoded.
#[derive(Debug)]
pub struct Failed {
    /// The file.
    pub path: String,
    /// The coding.
    pub coding: Coding,
    /// What the system or the encoder says.
    pub source: io::Error,
}

/// Whether several may own parts of a file's stream that can be described.
fn is_shared(listing: &Listing, file: usize, coding: Coding) -> bool {
    let kind = listing.counted[file].1;
    (!kind.is_asset() || kind == Kind::Page) && coding.is_traced()
}

fn is_compressed(file: &Listed) -> bool {
    let extension = file.path.rsplit('.').next().unwrap_or_default().to_ascii_lowercase();
    COMPRESSED.contains(&extension.as_str())
}
