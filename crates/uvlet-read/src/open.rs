//! Decides what a path holds: a folder, a description of one, or a record.

use std::{
    collections::BTreeSet,
    path::{Path, PathBuf},
};

use uvlet_record::{Kind, Notice, Record, Remark, Setting, Texts, glob::Glob};

use crate::{
    assemble,
    descriptions::{self, description::DescriptionError, frameworks},
    error::ReadError,
    folder::{self, list::Listed},
    options::Options,
    project, saved,
};

/// Reads the build at `path`, and says where its texts are: in the folder, or in the record if it was
/// saved with them.
///
/// # Errors
/// When nothing can be answered of it; what is merely damaged becomes a notice in the record.
pub fn open(path: &Path, options: &Options) -> Result<(Record, Box<dyn Texts>), ReadError> {
    let io_error = |source| ReadError::Io { path: path.to_owned(), source };
    let metadata = std::fs::metadata(path).map_err(io_error)?;
    if metadata.is_file() && is_description(path, metadata.len()) {
        return beside(path, options);
    }
    if !metadata.is_dir() {
        return open_saved(path, options);
    }
    std::fs::read_dir(path).map_err(io_error)?;
    let own = globs(&options.own);
    if path.canonicalize().is_ok_and(|full| full.iter().any(|part| part == "node_modules")) {
        return Err(ReadError::Installed(path.to_owned()));
    }
    let output = frameworks::find(path);
    // The whole output, where a part of it was named.
    let whole = output.as_ref().map(|output| output.about().root.clone());
    let is_part = whole.as_ref().is_some_and(|whole| is_around(whole, path));
    let path = whole.as_deref().unwrap_or(path);
    let root = options.root.clone().or_else(|| project::root_of(path));
    let options = &Options { root, ..options.clone() };
    let (mut record, texts) = assemble::of_folder(path, options, &own, output)?;
    if is_part {
        let folder = path.file_name().unwrap_or(path.as_os_str()).to_string_lossy().into_owned();
        record.notices.push(Notice::of_build(Remark::WholeRead { folder }));
        record.notices.sort();
    }
    let counts = |kind| matches!(kind, Kind::Script | Kind::Style | Kind::Page);
    if !record.files.iter().any(|file| counts(file.kind)) {
        return Err(ReadError::NothingCounted(path.to_owned()));
    }
    record.verify().map_err(|flaw| ReadError::Flaw { path: path.to_owned(), flaw })?;
    Ok((record, Box::new(texts)))
}

fn open_saved(path: &Path, options: &Options) -> Result<(Record, Box<dyn Texts>), ReadError> {
    let mut record = saved::read(path)?;
    if let Some(target) = options.target.filter(|&target| target != record.target) {
        return Err(ReadError::NoTarget { path: path.to_owned(), target });
    }
    declare_own(&mut record, &globs(&options.own));
    record.notices.extend(unused(options));
    record.notices.sort();
    record.label = options.label.clone().unwrap_or(record.label);
    let texts = record.texts.clone().unwrap_or_default();
    Ok((record, Box::new(texts)))
}

fn is_around(whole: &Path, part: &Path) -> bool {
    let full = whole.canonicalize().ok().zip(part.canonicalize().ok());
    full.is_some_and(|(whole, part)| whole != part && part.starts_with(&whole))
}

fn is_description(path: &Path, bytes: u64) -> bool {
    let file = Listed { path: String::new(), disk: path.to_owned(), bytes };
    // A manifest is known by the files beside it, or in the folder around.
    let here = path.parent().filter(|here| !here.as_os_str().is_empty()).unwrap_or(Path::new("."));
    let around = if here.ends_with(".vite") { here.join("..") } else { here.to_owned() };
    let may_be_manifest = path.to_string_lossy().ends_with("manifest.json");
    let paths = if may_be_manifest { folder::paths(&around) } else { BTreeSet::new() };
    let kind = descriptions::sniff(&file, &paths);
    kind.and_then(descriptions::of_kind).is_some()
}

/// A description in place of the folder: the build is in its own folder, or in the one around it,
/// as with Vite's `.vite/manifest.json`.
fn beside(path: &Path, options: &Options) -> Result<(Record, Box<dyn Texts>), ReadError> {
    let options = Options { description: Some(path.to_owned()), ..options.clone() };
    let here = path.parent().filter(|here| !here.as_os_str().is_empty());
    let here = here.unwrap_or(Path::new("."));
    let above = here.file_name().and_then(|_| here.parent()).filter(|_| here.ends_with(".vite"));
    match open(above.unwrap_or(here), &options) {
        Err(
            ReadError::Description { source: DescriptionError::Elsewhere(_), .. }
            | ReadError::NothingCounted(_),
        ) => Err(ReadError::DescriptionAlone(path.to_owned())),
        read => read,
    }
}

fn globs(texts: &[String]) -> Vec<Glob> {
    texts.iter().map(|text| Glob::new(text, false)).collect()
}

/// Packages that are declared own count so in a record, too.
fn declare_own(record: &mut Record, own: &[Glob]) {
    for package in &mut record.packages {
        package.own |= own.iter().any(|glob| glob.is_match(&package.name));
    }
    for module in &mut record.modules {
        if let Some(package) = module.package {
            module.third_party &= !record.packages[package.at()].own;
        }
    }
}

/// What was asked for and changes nothing of a build that was read before.
fn unused(options: &Options) -> impl Iterator<Item = Notice> {
    let is_set = |path: &Option<PathBuf>| path.is_some();
    let asked = [
        (is_set(&options.description), Setting::Description),
        (is_set(&options.maps), Setting::Maps),
        (is_set(&options.root), Setting::Root),
        (options.base.is_some(), Setting::Base),
    ];
    let asked = asked.into_iter().filter(|(is_asked, _)| *is_asked);
    asked.map(|(_, setting)| Notice::of_build(Remark::SettingUnused { setting }))
}
