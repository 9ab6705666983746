//! Source texts of modules that a description names: in the description itself, else under the
//! project's folder.

use std::{
    ops::Range,
    path::{Path, PathBuf},
};

use crate::{
    descriptions::{
        described::{Described, DescribedId, DescribedModule},
        find::Candidate,
    },
    folder::text::Text,
    project::read_file,
};

/// Bytes of a source that are read.
const LONGEST: u64 = 64 << 20;

/// Where the source of a module is.
#[derive(Clone, Debug)]
pub enum SourcePlace {
    /// In the description, as a JSON string.
    InDescription(Range<usize>),
    /// Under the project's folder.
    InProject(String),
}

/// Where the sources of one description are.
pub struct DescribedSources<'d> {
    described: &'d Described,
    text: Option<Text>,
    root: Option<PathBuf>,
}

impl<'d> DescribedSources<'d> {
    pub fn of(candidate: &'d Candidate, root: Option<&Path>) -> Self {
        let described = &candidate.described;
        let holds = described.modules.iter().any(|module| module.text.is_some());
        let text = holds.then(|| Text::of(&candidate.file).ok()).flatten();
        Self { described, text, root: root.map(Path::to_owned) }
    }

    /// The text of a module, by its place among those that the description names.
    pub fn text(&self, id: DescribedId) -> Option<String> {
        match place(self.described.module(id))? {
            SourcePlace::InDescription(range) => {
                serde_json::from_slice(self.text.as_ref()?.get(range)?).ok()
            }
            SourcePlace::InProject(path) => {
                let file = self.root.as_ref()?.join(path);
                String::from_utf8(read_file(&file, LONGEST)?).ok()
            }
        }
    }
}

/// Where the source of a module that a description names may be.
pub fn place(module: &DescribedModule) -> Option<SourcePlace> {
    if let Some(range) = &module.text {
        return Some(SourcePlace::InDescription(range.clone()));
    }
    let name = module.source.as_ref().unwrap_or(&module.raw);
    let path = name.rsplit('!').next()?.split('?').next()?;
    let is_inside = !path.starts_with('/') && !path.split('/').any(|part| part == "..");
    is_inside.then(|| SourcePlace::InProject(path.to_owned()))
}
