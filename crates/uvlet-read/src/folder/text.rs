//! A file's bytes, as they were when it was read; and those of a build that lies in a folder.

use std::{
    fs::File,
    io::{self, Read},
    ops::Deref,
};

use crate::folder::list::Listed;

/// Why a file that could be opened is not read.
#[derive(Debug, thiserror::Error)]
pub enum Unfit {
    /// It is too large.
    #[error("it is larger than 1 GiB")]
    TooLarge,
    /// It is not as long as it was listed.
    #[error("it was changed while it was read; measure again when the build has ended")]
    Changed,
    /// It is a folder, a pipe or a device, or too large.
    #[error("it is no plain file of at most 1 GiB")]
    NotPlain,
}

/// The bytes of a file as they were when it was read.
pub struct Text(Vec<u8>);

/// Bytes of the largest file that is read.
const LARGEST: u64 = 1 << 30;

impl Text {
    /// Reads a file: a copy that nobody else can change meanwhile, as a memory map could be.
    ///
    /// # Errors
    /// When it cannot be read, is larger than 1 GiB, or is no longer as long as it was listed.
    pub fn of(file: &Listed) -> io::Result<Self> {
        let wrong = |unfit: Unfit| Err(io::Error::other(unfit));
        if file.bytes > LARGEST {
            return wrong(Unfit::TooLarge);
        }
        let mut text = Vec::with_capacity(usize::try_from(file.bytes).unwrap_or(0));
        File::open(&file.disk)?.take(file.bytes + 1).read_to_end(&mut text)?;
        if text.len() as u64 != file.bytes {
            return wrong(Unfit::Changed);
        }
        Ok(Self(text))
    }

    /// The bytes themselves.
    pub fn into_bytes(self) -> Vec<u8> {
        self.0
    }
}

/// The first bytes of a file, at most so many; none of what is no plain file, which may never end.
pub fn read_start(file: &Listed, most: u64) -> Option<Vec<u8>> {
    let is_plain = std::fs::metadata(&file.disk).ok()?.is_file();
    let opened = is_plain.then(|| File::open(&file.disk).ok()).flatten()?;
    let mut start = Vec::new();
    opened.take(most).read_to_end(&mut start).ok()?;
    Some(start)
}

impl Deref for Text {
    type Target = [u8];

    fn deref(&self) -> &[u8] {
        &self.0
    }
}
