//! Looks into the files and reads the bundler's description: all that goes beside encoding, for the
//! target that is asked for.

use std::{
    collections::{BTreeMap, BTreeSet},
    path::Path,
};

use globset::GlobSet;
use uvlet_record::{Edge, Kind, Notice, SetAside, Target, sizes::Coded};

use crate::{
    Options, ReadError,
    describe::{self, Said},
    examine::{Examined, Examiner},
    folder::Listing,
    naming::{self, Names},
    resolve::Resolver,
    said,
    sourcemaps::MapSources,
    targets,
    told::Told,
    wire::Packed,
};

/// What is in the files of one target, before it is put together.
pub struct Looked {
    /// The folder without the output for other targets.
    pub listing: Listing,
    /// What each of its files holds.
    pub examined: Vec<Examined>,
    /// What the bundler says.
    pub told: Option<Told>,
    /// Modules and packages.
    pub names: Names,
    /// Who needs whom.
    pub edges: Vec<Edge>,
    /// Output for other targets.
    pub set_aside: Vec<SetAside>,
    /// What should be known besides.
    pub notices: Vec<Notice>,
}

/// Looks into the files and reads the bundler's description: all that goes beside encoding.
pub fn look(
    path: &Path,
    mut listing: Listing,
    options: &Options,
    own: &GlobSet,
) -> Result<Looked, ReadError> {
    let wanted = options.target.unwrap_or(Target::Browser);
    let found = describe::find(&listing, options.description.as_deref(), wanted);
    let mut described = found.map_err(|(place, source)| {
        let place = if options.description.is_some() { place.into() } else { path.join(place) };
        ReadError::Stats { path: place, source }
    })?;
    let told = described.told.take();
    let mut notices = std::mem::take(&mut listing.notices);
    notices.append(&mut described.notices);
    let mut examined = {
        let maps = options.maps.as_deref();
        let sources = MapSources { listing: &listing, maps, texts: options.texts };
        let texts =
            said::Sources::new(told.as_ref(), described.source.take(), options.root.as_deref());
        let text = |module| texts.text(module);
        Examiner::new(&listing, sources, told.as_ref(), &text).examine()
    };
    let targets = &described.targets;
    let set_aside = set_aside(path, options, targets, &mut listing, &mut examined, &mut notices)?;
    for file in &mut examined {
        notices.append(&mut file.notices);
    }
    let paths: Vec<&str> = listing.counted.iter().map(|(file, _)| file.path.as_str()).collect();
    let names = naming::names(&examined, told.as_ref(), &paths, options.root.as_deref(), own);
    let edges = told.as_ref().map(|told| naming::edges(told, &names)).unwrap_or_default();
    Ok(Looked { listing, examined, told, names, edges, set_aside, notices })
}

impl Looked {
    /// Takes in what the files of the whole folder cost on the wire.
    pub fn with(mut self, whole: &Listing, packed: Vec<Coded<Packed>>) -> Self {
        let mut kept = self.listing.counted.iter().zip(&mut self.examined).peekable();
        for ((file, _), packed) in whole.counted.iter().zip(packed) {
            if let Some((_, examined)) = kept.next_if(|((kept, _), _)| kept.path == file.path) {
                examined.packed = packed;
            }
        }
        self
    }
}

/// Where the folder holds output for several targets, keeps that of the one asked for: the
/// browser's, unless there is none.
fn set_aside(
    path: &Path,
    options: &Options,
    said: &[Said],
    listing: &mut Listing,
    examined: &mut Vec<Examined>,
    notices: &mut Vec<Notice>,
) -> Result<Vec<SetAside>, ReadError> {
    let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
    let resolver = Resolver::new(paths, options.base.as_deref());
    let targets = targets::of_files(listing, examined, &resolver, said);
    // Pictures and data alone are no output of their own.
    let is_code = |at: usize| matches!(listing.counted[at].1, Kind::Script | Kind::Page);
    let there: BTreeSet<Target> =
        targets.iter().enumerate().filter(|(at, _)| is_code(*at)).map(|(_, t)| *t).collect();
    let wanted = match (options.target, there.first()) {
        (Some(target), _) if there.contains(&target) => target,
        (Some(target), _) => return Err(ReadError::NoTarget { path: path.to_owned(), target }),
        (None, first) => first.copied().unwrap_or(Target::Browser),
    };
    if there.len() < 2 {
        return Ok(Vec::new());
    }
    let mut aside: BTreeMap<Target, SetAside> = BTreeMap::new();
    for (at, (file, _)) in listing.counted.iter().enumerate() {
        let target = targets[at];
        if target != wanted {
            let part = SetAside { target, file_count: 0, bytes: 0 };
            let part = aside.entry(target).or_insert(part);
            part.file_count += 1;
            part.bytes += file.bytes;
        }
    }
    let mut kept = targets.iter().map(|&target| target == wanted);
    listing.counted.retain(|_| kept.next().unwrap_or(true));
    let mut kept = targets.iter().map(|&target| target == wanted);
    examined.retain(|_| kept.next().unwrap_or(true));
    for SetAside { target, file_count, bytes } in aside.values() {
        let name = target.name();
        let message = format!(
            "{} of {name} output ({bytes} B emitted) set aside, in no total; --target {name} looks there",
            if file_count == &1 { "1 file".to_owned() } else { format!("{file_count} files") },
        );
        notices.push(Notice::new("target-set-aside", message, None));
    }
    Ok(aside.into_values().collect())
}
