//! Chunks: scripts with the styles that belong to them.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{Chunk, DynamicLoad, File, FileId, Kind, NamedBy};

use crate::assemble::{loads::once_each, modules::Modules};
use crate::{
    descriptions::described::Described,
    folder::{hashes::Hashes, urls::folder_of},
};

/// Chunks without names yet: each script with the styles that belong to it, and styles that belong
/// to none.
pub fn chunks(
    files: &[File],
    loads: &[DynamicLoad],
    stem_styles: &dyn Fn(FileId) -> Vec<FileId>,
) -> Vec<Chunk> {
    let chunk = |script, styles| Chunk {
        name: String::new(),
        stem: String::new(),
        bundler_name: None,
        ids: Vec::new(),
        opened_for: None,
        named_by: NamedBy::File,
        script,
        styles,
    };
    let of_kind = |kind| {
        let ids = (0..files.len()).map(FileId::new);
        ids.filter(move |id| files[id.at()].kind == kind)
    };
    let mut chunks: Vec<Chunk> = Vec::new();
    let mut placed: BTreeSet<FileId> = BTreeSet::new();
    let mut of_script: BTreeMap<FileId, usize> = BTreeMap::new();
    for id in of_kind(Kind::Script) {
        let mut styles = stem_styles(id);
        styles.retain(|&style| placed.insert(style));
        of_script.insert(id, chunks.len());
        chunks.push(chunk(Some(id), styles));
    }
    // A style that only a dynamic load ties to a script belongs to the first by path.
    let mut opened: Vec<(FileId, FileId)> = loads
        .iter()
        .filter_map(|load| Some((load.files.first()?, &load.files)))
        .flat_map(|(&first, files)| files.iter().map(move |&file| (first, file)))
        .filter(|(_, file)| files[file.at()].kind == Kind::Style)
        .collect();
    opened.sort();
    for (script, style) in opened {
        if let Some(&at) = of_script.get(&script)
            && placed.insert(style)
        {
            chunks[at].styles.push(style);
        }
    }
    chunks.extend(
        of_kind(Kind::Style).filter(|&id| placed.insert(id)).map(|id| chunk(None, vec![id])),
    );
    chunks
}

/// Styles that belong to a script: as the bundler says, else those that share folder and stem with
/// it, as some bundlers write no other link.
pub fn styles_of(
    files: &[File],
    hashes: &Hashes,
    described: Option<&Described>,
) -> BTreeMap<FileId, Vec<FileId>> {
    let mut styles = styles_by_stem(files, hashes);
    // Not every bundler says whose a style is.
    let described =
        described.filter(|described| described.files.iter().any(|file| !file.styles.is_empty()));
    let by_path = described.map(Described::by_path).unwrap_or_default();
    let ids: BTreeMap<&str, FileId> =
        files.iter().enumerate().map(|(at, file)| (file.path.as_str(), FileId::new(at))).collect();
    for (at, file) in files.iter().enumerate() {
        if let Some(said) = by_path.get(file.path.as_str()) {
            let own = said.styles.iter().filter_map(|path| ids.get(path.as_str()).copied());
            styles.insert(FileId::new(at), once_each(own.collect()));
        }
    }
    styles
}

fn styles_by_stem(files: &[File], hashes: &Hashes) -> BTreeMap<FileId, Vec<FileId>> {
    let key = |file: &File| {
        let stem = hashes.split(&file.path).0.to_owned();
        (folder_of(&file.path).to_owned(), stem)
    };
    let mut scripts: BTreeMap<(String, String), Vec<FileId>> = BTreeMap::new();
    for (at, file) in files.iter().enumerate().filter(|(_, file)| file.kind == Kind::Script) {
        scripts.entry(key(file)).or_default().push(FileId::new(at));
    }
    let mut styles: BTreeMap<FileId, Vec<FileId>> = BTreeMap::new();
    for (at, file) in files.iter().enumerate().filter(|(_, file)| file.kind == Kind::Style) {
        // Several scripts of one stem leave it open whose style it is.
        if let Some([script]) = scripts.get(&key(file)).map(Vec::as_slice) {
            styles.entry(*script).or_default().push(FileId::new(at));
        }
    }
    styles
}

/// Gives chunks the bundler's names and ids.
pub fn name(described: &Described, modules: &Modules, files: &[File], chunks: &mut [Chunk]) {
    let by_path = described.by_path();
    for chunk in chunks {
        let lead = chunk.files().next();
        if let Some(said) = lead.and_then(|id| by_path.get(files[id.at()].path.as_str())) {
            chunk.bundler_name.clone_from(&said.name);
            chunk.ids.clone_from(&said.ids);
            chunk.opened_for = said.entry.and_then(|module| modules.module(module));
        }
    }
}
