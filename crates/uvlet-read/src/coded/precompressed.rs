//! Precompressed copies beside the files they stand for: `app.js.gz`, `app.js.br`, `app.js.zst`.

use std::io::{self, Read};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{AsideKind, Notice, Remark, sizes::Coding};

use crate::folder::{
    list::{Listed, Listing, precompressed},
    text::Text,
};

/// A copy that decodes to its file.
#[derive(Debug)]
pub struct PrecompressedCopy {
    /// Index of its file among those that count.
    pub file: usize,
    /// The coding it is in.
    pub coding: Coding,
    /// Its bytes.
    pub bytes: u64,
    /// Its place among the files that stand aside.
    pub aside: usize,
}

/// Decodes every copy and holds it against its file; one that says something else gets a notice.
pub fn check(listing: &Listing, notices: &mut Vec<Notice>) -> Vec<PrecompressedCopy> {
    let copies: Vec<(usize, &Listed)> = listing
        .aside
        .iter()
        .enumerate()
        .filter(|(_, (_, kind))| *kind == AsideKind::Precompressed)
        .map(|(at, (file, _))| (at, file))
        .collect();
    let checked: Vec<Result<PrecompressedCopy, Notice>> = copies
        .par_iter()
        .filter_map(|&(aside, copy)| {
            let (plain, coding) = precompressed(&copy.path)?;
            let file =
                listing.counted.binary_search_by(|(file, _)| file.path.as_str().cmp(plain)).ok()?;
            let same = decodes_to(copy, coding, &listing.counted[file].0);
            Some(if same.unwrap_or(false) {
                Ok(PrecompressedCopy { file, coding, bytes: copy.bytes, aside })
            } else {
                let remark = Remark::CopyDiffers { file: plain.to_owned() };
                Err(Notice::at(&copy.path, remark))
            })
        })
        .collect();
    let mut good = Vec::new();
    for copy in checked {
        match copy {
            Ok(copy) => good.push(copy),
            Err(notice) => notices.push(notice),
        }
    }
    good
}

fn decodes_to(copy: &Listed, coding: Coding, file: &Listed) -> io::Result<bool> {
    is_of(&Text::of(copy)?, coding, &Text::of(file)?)
}

/// Whether a stream decodes to a text.
pub fn is_of(coded: &[u8], coding: Coding, expected: &[u8]) -> io::Result<bool> {
    let mut decoder = coding.decoder(coded)?;
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
