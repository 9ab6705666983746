//! Looks into the files and reads the bundler's description: all that goes beside encoding, for the
//! target that is asked for.

use std::{
    collections::{BTreeMap, BTreeSet},
    path::Path,
};

use uvlet_record::{Edge, Kind, Notice, SetAside, Target, glob::Glob, sizes::Coded};

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
    /// Where the build runs, and what says so.
    pub target: (Target, String),
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
    own: &[Glob],
) -> Result<Looked, ReadError> {
    let found = describe::find(&listing, options.description.as_deref(), options.target);
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
    let mut kept = Kept { path, options, listing: &mut listing, examined: &mut examined };
    let (target, set_aside) = kept.target(&described.targets, told.as_ref(), &mut notices)?;
    // What only speaks of output that was set aside says nothing of what is left.
    let told =
        told.filter(|told| told.files.iter().any(|file| listing.counted_at(&file.path).is_some()));
    for file in &mut examined {
        notices.append(&mut file.notices);
    }
    let paths: Vec<&str> = listing.counted.iter().map(|(file, _)| file.path.as_str()).collect();
    let names = naming::names(&examined, told.as_ref(), &paths, options.root.as_deref(), own);
    let edges = told.as_ref().map(|told| naming::edges(told, &names)).unwrap_or_default();
    Ok(Looked { listing, examined, told, names, edges, target, set_aside, notices })
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

/// The files that are looked at.
struct Kept<'a> {
    path: &'a Path,
    options: &'a Options,
    listing: &'a mut Listing,
    examined: &'a mut Vec<Examined>,
}

impl Kept<'_> {
    /// Decides where the build runs, and keeps only what runs there: of several targets the one
    /// asked for, else the browser's unless there is none.
    fn target(
        &mut self,
        said: &[Said],
        told: Option<&Told>,
        notices: &mut Vec<Notice>,
    ) -> Result<((Target, String), Vec<SetAside>), ReadError> {
        let paths = self.listing.counted.iter().map(|(file, _)| file.path.as_str());
        let resolver = Resolver::new(paths, self.options.base.as_deref());
        let targets = targets::of_files(self.listing, self.examined, &resolver, said);
        // Pictures and data alone are no output of their own.
        let is_code = |at: usize| matches!(self.listing.counted[at].1, Kind::Script | Kind::Page);
        let found = targets.of_file.iter().enumerate();
        let there: BTreeSet<Target> =
            found.filter(|(at, _)| is_code(*at)).map(|(_, target)| *target).collect();
        let wanted = match (self.options.target, there.first()) {
            (Some(target), _) if there.contains(&target) => target,
            (Some(target), _) => {
                return Err(ReadError::NoTarget { path: self.path.to_owned(), target });
            }
            (None, first) => first.copied().unwrap_or(Target::Browser),
        };
        let said = told.and_then(|told| told.target.clone()).filter(|(said, _)| *said == wanted);
        let basis = said.unwrap_or_else(|| (wanted, targets.basis(wanted)));
        if there.len() < 2 {
            return Ok((basis, Vec::new()));
        }
        let set_aside = self.keep(&targets.of_file, wanted);
        for SetAside { target, file_count, bytes } in &set_aside {
            let name = target.name();
            let message = format!(
                "{} of {name} output ({bytes} B emitted) set aside, in no total; --target {name} looks there",
                if file_count == &1 { "1 file".to_owned() } else { format!("{file_count} files") },
            );
            notices.push(Notice::new("target-set-aside", message, None));
        }
        Ok((basis, set_aside))
    }

    fn keep(&mut self, targets: &[Target], wanted: Target) -> Vec<SetAside> {
        let mut aside: BTreeMap<Target, SetAside> = BTreeMap::new();
        for ((file, _), &target) in self.listing.counted.iter().zip(targets) {
            if target != wanted {
                let part = SetAside { target, file_count: 0, bytes: 0 };
                let part = aside.entry(target).or_insert(part);
                part.file_count += 1;
                part.bytes += file.bytes;
            }
        }
        let mut kept = targets.iter().map(|&target| target == wanted);
        self.listing.counted.retain(|_| kept.next().unwrap_or(true));
        let mut kept = targets.iter().map(|&target| target == wanted);
        self.examined.retain(|_| kept.next().unwrap_or(true));
        aside.into_values().collect()
    }
}
