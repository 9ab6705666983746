//! All that was read of a folder, before a record is made of it.

use std::path::Path;

use uvlet_record::{Edge, Notice, Reason, Remark, SetAside, Target, glob::Glob, sizes::Coded};

use crate::{
    assemble::{
        edges,
        inspect::{Inspected, Inspector},
        modules::{Modules, Naming},
        site::Site,
        targets::Targets,
    },
    coded::CodedFile,
    descriptions::{self, described::Described, frameworks::framework::Output},
    error::ReadError,
    files::source_map::MapSources,
    folder::{list::Listing, urls::Urls},
    options::Options,
};

/// All that is known before it is known what files cost.
pub(super) struct Read {
    pub(super) found: descriptions::Found,
    /// The description that is taken, by its place among the candidates.
    pub(super) chosen: Option<usize>,
    /// The files that are looked at.
    pub(super) listing: Listing,
    /// What each of them holds.
    pub(super) inspected: Vec<Inspected>,
    pub(super) targets: Targets,
    pub(super) set_aside: Vec<SetAside>,
    pub(super) modules: Modules,
    /// Edges that the bundler says.
    pub(super) edges: Vec<Edge>,
    /// What a framework says of it.
    pub(super) site: Option<Site>,
    pub(super) notices: Vec<Notice>,
}

impl Read {
    pub(super) fn of(
        path: &Path,
        whole: &Listing,
        options: &Options,
        own: &[Glob],
        output: Option<Box<dyn Output>>,
    ) -> Result<Self, ReadError> {
        let (mut found, mut inspected) = inspected(path, whole, options)?;
        if let Some(output) = &output {
            for ((file, _), inspected) in whole.counted.iter().zip(&mut inspected) {
                inspected.written_by(output.writes(&file.path));
            }
        }
        let mut notices = found.notices.clone();
        let mut listing = whole.clone();
        let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
        let urls = Urls::new(paths, options.base.as_deref());
        let candidates = &found.candidates;
        let no_target = |target| ReadError::NoTarget { path: path.into(), target };
        let targets = match &output {
            Some(output) => Targets::of_framework(&listing, output.about().name, options.target),
            None => Targets::decide(&listing, &inspected, &urls, candidates, options.target),
        };
        let targets = targets.map_err(no_target)?;
        let set_aside = targets.keep(&mut listing, &mut inspected);
        notices.extend(set_aside.iter().filter_map(|part| {
            let SetAside { target, reason, file_count, bytes } = *part;
            let target = target.filter(|_| reason == Reason::OtherTarget)?;
            Some(Notice::of_build(Remark::TargetSetAside { target, file_count, bytes }))
        }));
        let chosen = found.choose(targets.chosen, &listing, &mut notices);
        for file in &mut inspected {
            notices.append(&mut file.notices);
        }
        let described = chosen.map(|at| &candidates[at].described);
        let paths: Vec<&str> = listing.counted.iter().map(|(file, _)| file.path.as_str()).collect();
        let root = options.root.as_deref();
        let naming = Naming { inspected: &inspected, described, paths: &paths, root, own };
        let modules = naming.modules();
        let described = chosen.map(|at| &mut found.candidates[at].described);
        let edges = described.map(|described| edges::said(described, &modules));
        let edges = edges.unwrap_or_default();
        let output = output.filter(|_| targets.chosen == Target::Browser);
        let site = output.map(|output| Site::read(output, &listing, &inspected));
        Ok(Self {
            found,
            chosen,
            listing,
            inspected,
            targets,
            set_aside,
            modules,
            edges,
            site,
            notices,
        })
    }

    /// Takes in what the files of the whole folder cost on the wire.
    pub(super) fn take(&mut self, whole: &Listing, coded: Vec<Coded<CodedFile>>) {
        let mut kept = self.listing.counted.iter().zip(&mut self.inspected).peekable();
        for ((file, _), coded) in whole.counted.iter().zip(coded) {
            if let Some((_, inspected)) = kept.next_if(|((kept, _), _)| kept.path == file.path) {
                inspected.coded = coded;
            }
        }
    }

    pub(super) fn described(&self) -> Option<&Described> {
        self.chosen.map(|at| &self.found.candidates[at].described)
    }

    pub(super) fn paths(&self) -> impl Iterator<Item = &str> {
        self.listing.counted.iter().map(|(file, _)| file.path.as_str())
    }
}

/// Reads descriptions, and looks into the files with them.
fn inspected(
    path: &Path,
    listing: &Listing,
    options: &Options,
) -> Result<(descriptions::Found, Vec<Inspected>), ReadError> {
    let found = descriptions::find(listing, options.description.as_deref());
    let found = found.map_err(|(place, source)| {
        let place = if options.description.is_some() { place.into() } else { path.join(place) };
        ReadError::Description { path: place, source }
    })?;
    let maps = MapSources { listing, maps: options.maps.as_deref() };
    let root = options.root.as_deref();
    let inspected = Inspector::new(listing, maps, &found.candidates, root).inspect();
    Ok((found, inspected))
}
