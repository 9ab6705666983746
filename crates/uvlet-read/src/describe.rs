//! Which description of the build belongs to the folder, and how well the two agree.
//!
//! A folder may hold several descriptions, of its own build or of others. The one is taken that
//! fits the target asked for and says most. The disk wins wherever both give a size.

use std::{collections::HashMap, path::Path};

use uvlet_record::{AsideKind, Kind, Notice, Target};

use crate::{
    folder::{Listed, Listing, Text, described_by},
    told::{self, Told, Untold},
};

/// What belongs to the folder, with what a reader should know of it.
#[derive(Default)]
pub struct Described {
    /// What the bundler says.
    pub told: Option<Told>,
    /// The description's place, for reading texts out of it.
    pub source: Option<Listed>,
    /// Every build of the folder whose target is said.
    pub targets: Vec<Said>,
    /// Where it disagrees with the folder.
    pub notices: Vec<Notice>,
}

/// A build that says where it runs.
pub struct Said {
    pub target: Target,
    /// The folder of its output, with a slash; empty for the whole.
    pub place: String,
    /// Its files.
    pub files: Vec<String>,
}

/// Kinds of descriptions.
pub const KINDS: [AsideKind; 4] =
    [AsideKind::Stats, AsideKind::Metafile, AsideKind::Plugin, AsideKind::Manifest];

/// Files that a notice names.
const NAMED: usize = 3;

/// A description that fits the folder.
struct Candidate {
    told: Told,
    file: Listed,
    /// How much its kind can tell.
    richness: usize,
}

/// Finds and reads the description: the one named, else those in the folder. One of another target
/// than the one that is looked at is not used.
///
/// # Errors
/// With the description's place, when the one named is unusable, or when none that was found in
/// the folder is of this build.
pub fn find(
    listing: &Listing,
    named: Option<&Path>,
    target: Option<Target>,
) -> Result<Described, (String, Untold)> {
    let mut described = Described::default();
    let candidates = match named {
        Some(path) => vec![name(path, listing)?],
        None => found(listing),
    };
    let mut fitting: Vec<Candidate> = Vec::new();
    let mut elsewhere: Vec<(String, Untold)> = Vec::new();
    for (file, kind) in candidates {
        let builds = match told::read(&file, kind) {
            Ok(builds) => builds,
            Err(wrong) if named.is_some() => return Err((file.path, wrong)),
            Err(wrong) => {
                let notice = Notice::new("stats-damaged", wrong.to_string(), Some(&file.path));
                described.notices.push(notice);
                continue;
            }
        };
        for mut told in builds {
            let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
            if let Err(wrong) = told.tie(paths) {
                elsewhere.push((file.path.clone(), wrong));
                continue;
            }
            if let Some((target, _)) = told.target {
                let files = told.files.iter().map(|file| file.path.clone()).collect();
                described.targets.push(Said { target, place: told.place.clone(), files });
            }
            let richness = match kind {
                AsideKind::Stats | AsideKind::Plugin => 2,
                AsideKind::Metafile => 1,
                _ => 0,
            };
            fitting.push(Candidate { told, file: file.clone(), richness });
        }
    }
    let wanted = target.unwrap_or_else(|| wanted(listing, &fitting, named.is_some()));
    let is_found = !fitting.is_empty();
    fitting.retain(|one| one.told.target.as_ref().is_none_or(|(target, _)| *target == wanted));
    let best = fitting.into_iter().rev().max_by_key(|one| (one.richness, one.told.files.len()));
    let Some(Candidate { told, file, .. }) = best else {
        if is_found {
            return Ok(described);
        }
        // One that names no script describes nothing that could be elsewhere.
        let empty = |(_, wrong): &(String, Untold)| *wrong == Untold::Empty;
        let (empty, stale): (Vec<_>, Vec<_>) = elsewhere.into_iter().partition(empty);
        if let Some(stale) = stale.into_iter().next() {
            return Err(stale);
        }
        for (path, wrong) in empty {
            if named.is_some() {
                return Err((path, wrong));
            }
            let notice = Notice::new("stats-short", wrong.to_string(), Some(&path));
            described.notices.push(notice);
        }
        return Ok(described);
    };
    for (path, _) in elsewhere.iter().filter(|(path, _)| *path != file.path) {
        let message = "describes another build, and is not used";
        described.notices.push(Notice::new("stats-elsewhere", message, Some(path)));
    }
    described.notices.extend(differences(&told, listing, &file.path));
    described.told = Some(told);
    described.source = Some(file);
    Ok(described)
}

/// Which target is looked at where none is asked for: the browser's, if anything shows that there is
/// one, else what the descriptions say.
fn wanted(listing: &Listing, fitting: &[Candidate], is_named: bool) -> Target {
    let said = || fitting.iter().filter_map(|one| one.told.target.as_ref().map(|(t, _)| *t));
    let elsewhere = |path: &str| {
        fitting.iter().any(|one| {
            let other = one.told.target.as_ref().is_some_and(|(t, _)| *t != Target::Browser);
            other && !one.told.place.is_empty() && path.starts_with(&one.told.place)
        })
    };
    let mut pages = listing.counted.iter().filter(|(_, kind)| *kind == Kind::Page);
    match said().min() {
        Some(target) if is_named => target,
        _ if pages.any(|(page, _)| !elsewhere(&page.path)) => Target::Browser,
        said => said.unwrap_or(Target::Browser),
    }
}

fn name(path: &Path, listing: &Listing) -> Result<(Listed, AsideKind), (String, Untold)> {
    let shown = path.display().to_string();
    let failed = |error: std::io::Error| {
        let text = error.to_string();
        let reason = text.split(" (os error").next().unwrap_or_default().to_lowercase();
        (shown.clone(), Untold::Io(reason))
    };
    let metadata = std::fs::metadata(path).map_err(failed)?;
    if metadata.is_dir() {
        return Err((shown, Untold::Foreign));
    }
    let file = Listed { path: shown.clone(), disk: path.to_owned(), bytes: metadata.len() };
    let text = Text::of(&file).map_err(failed)?;
    let paths = listing.counted.iter().map(|(file, _)| file.path.clone()).collect();
    match described_by(&text, &paths) {
        Some(kind) if KINDS.contains(&kind) => Ok((file, kind)),
        _ => match serde_json::from_slice::<serde::de::IgnoredAny>(told::without_mark(&text)) {
            Err(error) => Err((shown, told::damaged(&error))),
            Ok(_) => Err((shown, Untold::Foreign)),
        },
    }
}

fn found(listing: &Listing) -> Vec<(Listed, AsideKind)> {
    let found = listing.aside.iter().filter(|(_, kind)| KINDS.contains(kind));
    found.map(|(file, kind)| (file.clone(), *kind)).collect()
}

fn differences(told: &Told, listing: &Listing, place: &str) -> Vec<Notice> {
    let mut notices = Vec::new();
    let mut say = |code: &str, message: String| {
        notices.push(Notice::new(code, message, Some(place)));
    };
    let on_disk: HashMap<&str, u64> =
        listing.counted.iter().map(|(file, _)| (file.path.as_str(), file.bytes)).collect();
    let aside = |path: &str| listing.aside_at(path).is_some();
    let missing: Vec<&str> = told
        .files
        .iter()
        .map(|file| file.path.as_str())
        .filter(|path| told::is_code(path) && !on_disk.contains_key(path) && !aside(path))
        .collect();
    if !missing.is_empty() {
        let message = format!("names files that the folder does not hold: {}", some(&missing));
        say("stats-missing", message);
    }
    let (mut off, mut by) = (Vec::new(), 0_u64);
    for file in &told.files {
        if let (Some(said), Some(&is)) = (file.bytes, on_disk.get(file.path.as_str()))
            && said != is
        {
            off.push(file.path.as_str());
            by = by.saturating_add(said.abs_diff(is));
        }
    }
    if !off.is_empty() {
        let message =
            format!("is off by {by} B from the sizes on disk, which count: {}", some(&off));
        say("stats-off", message);
    }
    if !told.lacks.is_empty() {
        let message = format!("leaves out {}", told.lacks.join("; "));
        say("stats-short", message);
    }
    if told.errors > 0 {
        let message = format!("reports {} of the build: it may be incomplete", count(told.errors));
        say("build-errors", message);
    }
    notices
}

fn count(errors: u64) -> String {
    if errors == 1 { "an error".to_owned() } else { format!("{errors} errors") }
}

fn some(paths: &[&str]) -> String {
    let shown: Vec<&str> = paths.iter().take(NAMED).copied().collect();
    match paths.len() - shown.len() {
        0 => shown.join(", "),
        more => format!("{} and {more} more", shown.join(", ")),
    }
}
