//! Texts of a build that was read from its folder.

use std::{borrow::Cow, fs, path::PathBuf};

use uvlet_record::{FileId, Texts};

/// The emitted files where they lie, in the order of the record's.
#[derive(Debug, Default)]
pub struct FolderTexts(pub Vec<PathBuf>);

impl Texts for FolderTexts {
    fn emitted(&self, file: FileId) -> Option<Cow<'_, [u8]>> {
        fs::read(self.0.get(file.at())?).ok().map(Cow::Owned)
    }
}
