//! Precompressed copies beside the files they stand for: `app.js.gz`, `app.js.br`, `app.js.zst`.

use std::io::{self, Read};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{AsideKind, Notice, sizes::Coding};

use crate::folder::{Listed, Listing, Text};

/// A twin that decodes to its file.
#[derive(Debug)]
pub struct Twin {
    /// Index of its file among those that count.
    pub file: usize,
    /// The coding it is in.
    pub coding: Coding,
    /// Its bytes.
    pub bytes: u64,
    /// Its place among the files that stand aside.
    pub aside: usize,
}

/// The path that a precompressed copy stands for, and its coding.
pub fn stands_for(path: &str) -> Option<(&str, Coding)> {
    let (plain, ending) = path.rsplit_once('.')?;
    let coding = match ending {
        "gz" => Coding::Gzip,
        "br" => Coding::Br,
        "zst" => Coding::Zstd,
        _ => return None,
    };
    Some((plain, coding))
}

/// Decodes every twin and holds it against its file; one that says something else gets a notice.
pub fn check(listing: &Listing, notices: &mut Vec<Notice>) -> Vec<Twin> {
    let twins: Vec<(usize, &Listed)> = listing
        .aside
        .iter()
        .enumerate()
        .filter(|(_, (_, kind))| *kind == AsideKind::Precompressed)
        .map(|(at, (file, _))| (at, file))
        .collect();
    let checked: Vec<Result<Twin, Notice>> = twins
        .par_iter()
        .filter_map(|&(aside, twin)| {
            let (plain, coding) = stands_for(&twin.path)?;
            let file =
                listing.counted.binary_search_by(|(file, _)| file.path.as_str().cmp(plain)).ok()?;
            let same = decodes_to(twin, coding, &listing.counted[file].0);
            Some(if same.unwrap_or(false) {
                Ok(Twin { file, coding, bytes: twin.bytes, aside })
            } else {
                let message = format!("does not decode to {plain}: it is not used");
                Err(Notice::new("twin-differs", message, Some(&twin.path)))
            })
        })
        .collect();
    let mut good = Vec::new();
    for twin in checked {
        match twin {
            Ok(twin) => good.push(twin),
            Err(notice) => notices.push(notice),
        }
    }
    good
}

fn decodes_to(twin: &Listed, coding: Coding, file: &Listed) -> io::Result<bool> {
    is_of(&Text::of(twin)?, coding, &Text::of(file)?)
}

/// Whether a stream decodes to a text.
pub fn is_of(coded: &[u8], coding: Coding, expected: &[u8]) -> io::Result<bool> {
    let mut decoder: Box<dyn Read + '_> = match coding {
        Coding::Gzip => Box::new(flate2::read::MultiGzDecoder::new(coded)),
        Coding::Br => Box::new(brotli::Decompressor::new(coded, 1 << 16)),
        Coding::Zstd => Box::new(zstd::Decoder::new(coded)?),
    };
    // Compared as it comes, so that no stream can unpack to more than its file's size.
    let mut rest = expected;
    let mut buffer = vec![0; 1 << 16];
    loop {
        let read = decoder.read(&mut buffer)?;
        if read == 0 {
            return Ok(rest.is_empty());
        }
        match rest.strip_prefix(&buffer[..read]) {
            Some(after) => rest = after,
            None => return Ok(false),
        }
    }
}
