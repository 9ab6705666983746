//! Which build is meant: the one named, else the configuration's, else the one output folder of the
//! project that is here.

use std::path::{Path, PathBuf};

use uvlet_read::project;
use uvlet_record::{Kind, Notice, Record, Remark};

use crate::{config::Config, failure::Failure};

/// The build that is read.
pub struct Chosen {
    pub path: PathBuf,
    /// It was found in a project's folder.
    pub is_found: bool,
}

/// Chooses the build.
pub fn build(named: Option<&Path>, config: Option<&Config>) -> Result<Chosen, Failure> {
    let configured = config.and_then(|config| config.folder.clone());
    let apps = config.map(|config| config.apps.as_slice()).unwrap_or_default();
    if named.is_none() && configured.is_none() && !apps.is_empty() {
        let names: Vec<&str> = apps.iter().filter_map(|app| app.app.as_deref()).collect();
        let message =
            format!("the settings have the apps {}; name one with --app", names.join(", "));
        return Err(Failure::Usage(message));
    }
    let project = match named {
        Some(path) if path.is_dir() && project::is_project(path) => path,
        Some(path) => return Ok(Chosen { path: path.to_owned(), is_found: false }),
        None if configured.is_some() => Path::new("."),
        None if project::is_project(Path::new(".")) => Path::new("."),
        None => {
            return Err(Failure::Usage(
                "no build is named; name its output folder, or set `folder` under [build] in uvlet.toml".to_owned(),
            ));
        }
    };
    let is_its = config.is_some_and(|config| same_folder(&config.path, project));
    if let Some(path) = configured.filter(|_| named.is_none() || is_its) {
        return Ok(Chosen { path, is_found: false });
    }
    let mut outputs = project::outputs(project);
    // As a person would type it.
    for output in &mut outputs {
        if let Ok(short) = output.strip_prefix(".") {
            *output = short.to_owned();
        }
    }
    match outputs.as_slice() {
        [] => Err(Failure::NotBuilt(project.to_owned())),
        [path] => Ok(Chosen { path: path.clone(), is_found: true }),
        _ => Err(Failure::SeveralOutputs { project: project.to_owned(), outputs }),
    }
}

fn same_folder(config: &Path, project: &Path) -> bool {
    let folder = match config.parent() {
        Some(folder) if !folder.as_os_str().is_empty() => folder,
        _ => Path::new("."),
    };
    let full = |path: &Path| path.canonicalize().ok();
    full(folder).is_some_and(|folder| Some(folder) == full(project))
}

/// What should be known of the choice.
pub fn remarks(path: &Path, is_found: bool, record: &Record) -> Vec<Notice> {
    let mut remarks = Vec::new();
    if is_found {
        let folder = path.display().to_string();
        remarks.push(Notice::of_build(Remark::BuildFound { folder }));
    }
    let has_pages = record.files.iter().any(|file| file.kind == Kind::Page);
    if let Some(whole) = project::whole_of(path).filter(|_| path.is_dir() && !has_pages) {
        let whole = whole.display().to_string();
        remarks.push(Notice::at(&record.label, Remark::PartOfBuild { whole }));
    }
    remarks
}
