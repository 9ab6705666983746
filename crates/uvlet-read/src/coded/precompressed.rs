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
    gives(coding.decoder(&Text::of(copy)?)?, &Text::of(file)?)
}

/// Whether a stream decodes to a text, and no byte follows it: without its last byte it would be broken.
pub fn is_just(coded: &[u8], coding: Coding, expected: &[u8]) -> bool {
    let is_it = |stream| {
        let decoder = coding.decoder_of_first(stream);
        decoder.and_then(|decoder| gives(decoder, expected)).unwrap_or(false)
    };
    is_it(coded) && coded.split_last().is_some_and(|(_, shorter)| !is_it(shorter))
}

/// Whether a decoder gives a text and nothing more.
fn gives(mut decoder: Box<dyn Read + '_>, expected: &[u8]) -> io::Result<bool> {
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

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use uvlet_record::sizes::Coding;

    use super::is_just;

    #[rstest]
    fn bytes_behind_a_stream_are_seen(
        #[values(Coding::Gzip, Coding::Br, Coding::Zstd)] coding: Coding,
        #[values(&b"tide"[..], &b""[..])] more: &[u8],
    ) {
        let text = b"the tide comes in, the tide goes out".repeat(50);
        let stream = coding.encode(&text, coding.level(), &|_| {}).unwrap();
        assert!(is_just(&stream, coding, &text));
        assert!(!is_just(&stream, coding, &text[1..]));
        // Something else, or an empty stream.
        let more = match more {
            b"" => coding.encode(b"", coding.level(), &|_| {}).unwrap(),
            more => more.to_vec(),
        };
        assert!(!is_just(&[&stream[..], &more].concat(), coding, &text));
    }
}
