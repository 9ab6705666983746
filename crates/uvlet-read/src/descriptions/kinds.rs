//! Kinds of descriptions, and which of them a file is.

use std::collections::BTreeSet;

use uvlet_record::AsideKind;

use crate::{
    descriptions::{
        asset_manifest,
        described::Described,
        description::{Description, DescriptionError, without_mark},
        esbuild, outline, plugin, vite, webpack,
    },
    folder::{
        list::Listed,
        text::{Text, read_start},
    },
};

/// Every kind there is.
pub const ALL: [&dyn Description; 5] = [
    &webpack::Stats,
    &esbuild::Metafile,
    &plugin::Plugin,
    &vite::Manifest,
    &asset_manifest::AssetManifest,
];

/// The kind of description that an aside file is.
pub fn of_kind(kind: AsideKind) -> Option<&'static dyn Description> {
    ALL.into_iter().find(|description| description.kind() == kind)
}

/// What a JSON file describes instead of being shipped: a build, a source map, a record. `paths` are
/// the files of the folder.
pub fn sniff(file: &Listed, paths: &BTreeSet<String>) -> Option<AsideKind> {
    look(file, paths).0
}

/// Bytes that mostly settle what a file is, of which there may be hundreds of megabytes.
pub(crate) const START: u64 = 1 << 20;

/// What a file describes, with its text if all of it had to be read for that.
pub(crate) fn look(file: &Listed, paths: &BTreeSet<String>) -> (Option<AsideKind>, Option<Text>) {
    if file.bytes > START
        && let Some(start) = read_start(file, START)
        && let Some(kind) = outline_of(&start, paths).settled
    {
        return (Some(kind), None);
    }
    let Ok(text) = Text::of(file) else { return (None, None) };
    let found = outline_of(&text, paths);
    (found.settled.or(found.likely), Some(text))
}

/// Reads a description of a kind that was found out from its content.
///
/// # Errors
/// When it is damaged, or of another kind after all.
pub fn read(file: &Listed, kind: AsideKind) -> Result<Vec<Described>, DescriptionError> {
    let text = Text::of(file).map_err(|error| DescriptionError::Io(error.kind().to_string()))?;
    read_text(&text, kind)
}

/// Reads the text of a description.
///
/// # Errors
/// As [`read`].
pub fn read_text(text: &[u8], kind: AsideKind) -> Result<Vec<Described>, DescriptionError> {
    let json = std::str::from_utf8(without_mark(text)).map_err(|error| {
        DescriptionError::Damaged(format!("is not UTF-8 at byte {}", error.valid_up_to()))
    })?;
    of_kind(kind).ok_or(DescriptionError::Foreign)?.read(json)
}

fn outline_of(text: &[u8], paths: &BTreeSet<String>) -> outline::Kinds {
    let kind_of = |kind: &'static dyn Description| kind.kind();
    outline::kinds(
        without_mark(text),
        &|outline| ALL.into_iter().find(|kind| kind.is(outline)).map(kind_of),
        &|outline, key| ALL.into_iter().find(|kind| kind.would_be(outline, key)).map(kind_of),
        &|outline| ALL.into_iter().find(|kind| kind.is_all_in_all(outline, paths)).map(kind_of),
    )
}
