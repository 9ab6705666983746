//! Which descriptions of a build belong to a folder, and how well one agrees with it.
//!
//! A folder may hold several, of its own builds or of others. Those that fit are candidates; which
//! one is taken follows from the target that is looked at. The disk wins wherever both give a size.

use crate::descriptions::kinds::read_text;
use std::{collections::HashMap, path::Path};
use uvlet_record::fault;

use uvlet_record::{AsideKind, Notice, Remark, Target};

use crate::{
    descriptions::{
        described::Described,
        description::{DescriptionError, damaged, is_code, without_mark},
        kinds::{look, of_kind, read},
    },
    folder::{
        list::{Listed, Listing},
        text::Text,
    },
};

/// A description that fits the folder.
pub struct Candidate {
    /// What it says.
    pub described: Described,
    /// Where it is.
    pub file: Listed,
    /// How much its kind can tell.
    richness: u8,
    /// It was asked for by name.
    pub is_named: bool,
}

impl Candidate {
    /// Of several, the greatest tells most.
    pub fn rank(&self) -> (u8, usize) {
        (self.richness, self.described.files.len())
    }

    /// The target that it says.
    pub fn target(&self) -> Option<Target> {
        self.described.target.as_ref().map(|(target, _)| *target)
    }
}

/// Descriptions in or of a folder.
#[derive(Default)]
pub struct Found {
    /// Those that fit, the last one first among equals.
    pub candidates: Vec<Candidate>,
    /// Those of other builds, and those that name no script.
    elsewhere: Vec<String>,
    /// What should be known of them.
    pub notices: Vec<Notice>,
}

/// Files that a notice names.
const NAMED: usize = 3;

/// Finds and reads descriptions: the one named, else those in the folder.
///
/// # Errors
/// With the description's place, when the one named is unusable, or when none that was found in
/// the folder is of this build.
pub fn find(listing: &Listing, named: Option<&Path>) -> Result<Found, (String, DescriptionError)> {
    let mut found = Found::default();
    let files = match named {
        Some(path) => vec![named_file(path, listing)?],
        None => in_folder(listing),
    };
    let mut elsewhere: Vec<(String, DescriptionError)> = Vec::new();
    for (file, kind, text) in files {
        let read = match text {
            Some(text) => read_text(&text, kind),
            None => read(&file, kind),
        };
        let builds = match read {
            Ok(builds) => builds,
            Err(wrong) if named.is_some() => return Err((file.path, wrong)),
            Err(wrong) => {
                let remark = Remark::StatsDamaged { reason: wrong.to_string() };
                found.notices.push(Notice::at(&file.path, remark));
                continue;
            }
        };
        let richness = of_kind(kind).map_or(0, |description| description.richness());
        for mut described in builds {
            let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
            match described.tie(paths) {
                Ok(()) => {
                    let (file, is_named) = (file.clone(), named.is_some());
                    found.candidates.push(Candidate { described, file, richness, is_named });
                }
                Err(wrong) => elsewhere.push((file.path.clone(), wrong)),
            }
        }
    }
    if found.candidates.is_empty() {
        // One that names no script describes nothing that could be elsewhere.
        let is_empty = |(_, wrong): &(String, DescriptionError)| *wrong == DescriptionError::Empty;
        let (empty, stale): (Vec<_>, Vec<_>) = elsewhere.into_iter().partition(is_empty);
        if let Some(wrong) = stale.into_iter().next() {
            return Err(wrong);
        }
        for (path, wrong) in empty {
            if named.is_some() {
                return Err((path, wrong));
            }
            found.notices.push(Notice::at(&path, Remark::StatsWithoutScripts));
        }
        return Ok(found);
    }
    found.elsewhere = elsewhere.into_iter().map(|(path, _)| path).collect();
    // The first of equals is found last.
    found.candidates.reverse();
    Ok(found)
}

impl Found {
    /// The description that tells most of the files that are kept, by its place among the candidates;
    /// one of another target is not used. Notices say where it disagrees with the folder.
    pub fn choose(
        &self,
        target: Target,
        kept: &Listing,
        notices: &mut Vec<Notice>,
    ) -> Option<usize> {
        let fits = |one: &Candidate| {
            one.target().is_none_or(|said| said == target)
                && one.described.files.iter().any(|file| kept.counted_at(&file.path).is_some())
        };
        let fitting = self.candidates.iter().enumerate().filter(|(_, one)| fits(one));
        let (at, chosen) = fitting.max_by_key(|(_, one)| one.rank())?;
        let others = self.elsewhere.iter().filter(|path| **path != chosen.file.path);
        notices.extend(others.map(|path| Notice::at(path, Remark::StatsElsewhere)));
        notices.extend(differences(&chosen.described, kept, &chosen.file.path));
        Some(at)
    }
}

/// A description's file and kind, with its text if that was read.
type File = (Listed, AsideKind, Option<Text>);

fn named_file(path: &Path, listing: &Listing) -> Result<File, (String, DescriptionError)> {
    let shown = path.display().to_string();
    let failed =
        |error: std::io::Error| (shown.clone(), DescriptionError::Io(fault::reason(&error)));
    let metadata = std::fs::metadata(path).map_err(failed)?;
    if metadata.is_dir() {
        return Err((shown, DescriptionError::Foreign));
    }
    let file = Listed { path: shown.clone(), disk: path.to_owned(), bytes: metadata.len() };
    let paths = listing.counted.iter().map(|(file, _)| file.path.clone()).collect();
    let (kind, text) = look(&file, &paths);
    if let Some(kind) = kind.filter(|kind| of_kind(*kind).is_some()) {
        return Ok((file, kind, text));
    }
    let text = text.map_or_else(|| Text::of(&file).map_err(failed), Ok)?;
    match serde_json::from_slice::<serde::de::IgnoredAny>(without_mark(&text)) {
        Err(error) => Err((shown, damaged(&error))),
        Ok(_) => Err((shown, DescriptionError::Foreign)),
    }
}

fn in_folder(listing: &Listing) -> Vec<File> {
    let found = listing.aside.iter().filter(|(_, kind)| of_kind(*kind).is_some());
    found.map(|(file, kind)| (file.clone(), *kind, None)).collect()
}

/// Where a description disagrees with the folder, and what it leaves out.
fn differences(described: &Described, listing: &Listing, place: &str) -> Vec<Notice> {
    let mut notices = Vec::new();
    let mut say = |remark: Remark| notices.push(Notice::at(place, remark));
    let on_disk: HashMap<&str, u64> =
        listing.counted.iter().map(|(file, _)| (file.path.as_str(), file.bytes)).collect();
    let aside = |path: &str| listing.aside_at(path).is_some();
    let paths = described.files.iter().map(|file| file.path.as_str());
    let missing: Vec<&str> =
        paths.filter(|path| is_code(path) && !on_disk.contains_key(path) && !aside(path)).collect();
    let first = |paths: &[&str]| paths.iter().take(NAMED).map(|path| (*path).to_owned()).collect();
    if !missing.is_empty() {
        say(Remark::StatsMissing { files: first(&missing), count: missing.len() });
    }
    let (mut off, mut bytes) = (Vec::new(), 0_u64);
    for file in &described.files {
        if let (Some(said), Some(&is)) = (file.bytes, on_disk.get(file.path.as_str()))
            && said != is
        {
            off.push(file.path.as_str());
            bytes = bytes.saturating_add(said.abs_diff(is));
        }
    }
    if !off.is_empty() {
        say(Remark::StatsOff { bytes, files: first(&off), count: off.len() });
    }
    if !described.lacks.is_empty() {
        say(Remark::StatsShort { lacks: described.lacks.clone() });
    }
    if described.errors > 0 {
        say(Remark::BuildErrors { count: described.errors });
    }
    notices
}
