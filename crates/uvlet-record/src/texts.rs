//! Where texts come from that a record itself need not hold.

use std::borrow::Cow;

use crate::{FileId, SavedTexts};

/// Texts of a build, for the questions that need them.
pub trait Texts: Sync {
    /// The emitted text of a file; none where it is not at hand.
    fn emitted(&self, file: FileId) -> Option<Cow<'_, [u8]>>;
}

impl Texts for SavedTexts {
    fn emitted(&self, file: FileId) -> Option<Cow<'_, [u8]>> {
        let text = self.emitted.get(file.at())?.as_ref()?;
        Some(Cow::Borrowed(text.as_bytes()))
    }
}
