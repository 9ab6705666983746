//! What a bundler says of its own build, whichever bundler it is.
//!
//! The readers below turn their format into one form: modules by the bundler's names, edges between
//! them, what each file holds, entries and what is opened on demand. Files are named as they stand
//! in the output folder once [`Told::tie`] has found out how the bundler's paths relate to it.

mod esbuild;
pub mod plugin;
mod vite;
mod webpack;

use std::{
    collections::{BTreeMap, HashMap},
    ops::Range,
    path::Path,
};

use uvlet_record::{AsideKind, Bundler, EdgeKind, Mode, Target, Used};

use crate::folder::{Listed, Text};

/// What was said.
#[derive(Debug, Default)]
pub struct Told {
    /// Who bundled.
    pub bundler: Option<Bundler>,
    /// Its version.
    pub version: Option<String>,
    /// Modules, in the order met.
    pub modules: Vec<ToldModule>,
    /// Who asks for whom, by place in `modules`.
    pub edges: Vec<ToldEdge>,
    /// Output files.
    pub files: Vec<ToldFile>,
    /// Entries.
    pub entries: Vec<ToldEntry>,
    /// What is opened on demand, where the bundler says it outright.
    pub openings: Vec<ToldOpening>,
    /// Production or development, and what says so.
    pub mode: Option<(Mode, String)>,
    /// Where the build runs, and what says so.
    pub target: Option<(Target, String)>,
    /// The loads of every script are said, so that scripts need not be parsed for them.
    pub connected: bool,
    /// What the description leaves out and what would add it, for people.
    pub lacks: Vec<String>,
    /// Errors that the bundler reports of the build.
    pub errors: u64,
    /// The folder of its output inside the folder that is read, with a slash; empty for the whole.
    pub place: String,
}

/// One module.
#[derive(Debug, Default, Clone)]
pub struct ToldModule {
    /// The bundler's name, relative to the project.
    pub raw: String,
    /// The same before it was made relative to the output, where it is a path.
    pub source: Option<String>,
    /// Bytes of its source as bundled.
    pub bytes: Option<u64>,
    /// Exported names.
    pub provides: Option<Vec<String>>,
    /// Exports that the program uses.
    pub used: Option<Used>,
    /// Why it could not be optimised.
    pub bailouts: Vec<String>,
    /// Loaded from elsewhere.
    pub external: bool,
    /// Written with `require` and `exports`.
    pub commonjs: bool,
    /// Where its source text stands in the description, as a JSON string.
    pub text: Option<Range<usize>>,
}

/// An edge.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct ToldEdge {
    pub from: usize,
    pub to: usize,
    pub kind: EdgeKind,
    pub request: Option<String>,
}

/// An output file.
#[derive(Debug, Default)]
pub struct ToldFile {
    /// Its path: the bundler's, then the output folder's.
    pub path: String,
    /// Bytes when it was written.
    pub bytes: Option<u64>,
    /// Bytes per module, where the bundler counts them.
    pub counted: Option<Vec<(usize, u64)>>,
    /// Sizes of the modules in it before minification, in order.
    pub rendered: Option<Vec<(usize, u64)>>,
    /// The modules in it, in order.
    pub slots: Vec<Slot>,
    /// The module that it is a copy of, for an asset.
    pub source: Option<usize>,
    /// The module that it stands for when another file asks for it.
    pub entry: Option<usize>,
    /// Other files that its code may ask for.
    pub names: Vec<String>,
    /// Files that it statically loads.
    pub loads: Vec<String>,
    /// Files that it asks for on demand.
    pub opens: Vec<String>,
    /// Styles that belong to it.
    pub styles: Vec<String>,
    /// Ids of its chunks.
    pub ids: Vec<String>,
    /// Name of its chunk.
    pub name: Option<String>,
}

/// A module of a chunk, with those merged into it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Slot {
    /// Its key in the module table.
    pub id: Option<String>,
    /// What stands there, in the order of evaluation.
    pub modules: Vec<usize>,
}

/// An entry.
#[derive(Debug, PartialEq, Eq)]
pub struct ToldEntry {
    /// Its name.
    pub name: String,
    /// Its files in the order of loading.
    pub files: Vec<String>,
    /// Its first modules.
    pub roots: Vec<usize>,
}

/// What an `import()` or a worker opens.
#[derive(Debug)]
pub struct ToldOpening {
    /// The module that asks.
    pub module: usize,
    /// The specifier.
    pub request: String,
    /// All files of its group.
    pub files: Vec<String>,
}

/// Why a description cannot be used.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum Untold {
    /// It cannot be read at all.
    #[error("cannot be read ({0})")]
    Io(String),
    /// Its JSON is damaged.
    #[error("{0}: write it again")]
    Damaged(String),
    /// It is JSON of something else.
    #[error(
        "is no stats, metafile, manifest or plugin file of a bundler: name the JSON file that it wrote"
    )]
    Foreign,
    /// Its form is newer than this program.
    #[error(
        "is of form {form}, newer than {known}, which this version reads: update uvlet, or print its plugin anew"
    )]
    Newer {
        /// The file's form.
        form: u32,
        /// The newest form that is known.
        known: u32,
    },
    /// It names no script at all.
    #[error(
        "names no script: write it again with `assets: true, chunks: true, entrypoints: true, modules: true`"
    )]
    Empty,
    /// None of its scripts is in the folder.
    #[error(
        "is of another build: none of its {0} scripts is in the folder; build again, or name the right file with --description"
    )]
    Elsewhere(usize),
}

/// Reads a description of a kind that was found out from its content.
///
/// # Errors
/// When it is damaged, or of another kind after all.
pub fn read(file: &Listed, kind: AsideKind) -> Result<Vec<Told>, Untold> {
    let text = Text::of(file).map_err(|error| Untold::Io(error.kind().to_string()))?;
    let json = std::str::from_utf8(without_mark(&text)).map_err(|error| {
        Untold::Damaged(format!("is not UTF-8 at byte {}", error.valid_up_to()))
    })?;
    match kind {
        AsideKind::Stats => webpack::read(json),
        AsideKind::Metafile => esbuild::read(json).map(|told| vec![told]),
        AsideKind::Plugin => plugin::read(json).map(|told| vec![told]),
        AsideKind::Manifest => vite::read(json).map(|told| vec![told]),
        _ => Err(Untold::Foreign),
    }
}

/// A text without the mark that some editors put before UTF-8.
pub fn without_mark(text: &[u8]) -> &[u8] {
    text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text)
}

/// What the JSON reader complains of, with line and column.
pub fn damaged(error: &serde_json::Error) -> Untold {
    let full = error.to_string();
    let message = full.rsplit_once(" at line ").map_or(full.as_str(), |(text, _)| text);
    let what = if error.is_eof() { "ends too early" } else { "is damaged" };
    Untold::Damaged(format!(
        "{what} at line {} column {} ({message})",
        error.line(),
        error.column()
    ))
}

/// How the bundler's paths relate to the output folder's.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
enum Shift {
    /// They are the same.
    None,
    /// The bundler's paths begin with this, as esbuild's, which are relative to where it ran.
    Strip(String),
    /// The folder's paths begin with this: it holds more than one output.
    Add(String),
}

impl Shift {
    fn apply(&self, path: &str) -> Option<String> {
        match self {
            Self::None => Some(path.to_owned()),
            Self::Strip(prefix) => path.strip_prefix(prefix.as_str()).map(str::to_owned),
            Self::Add(prefix) => Some(format!("{prefix}{path}")),
        }
    }
}

impl Told {
    /// Names every file as it stands in the output folder, given the paths there.
    ///
    /// # Errors
    /// When none of the scripts that it speaks of is there.
    pub fn tie<'p>(&mut self, paths: impl Iterator<Item = &'p str>) -> Result<(), Untold> {
        let mut by_name: HashMap<&str, Vec<&str>> = HashMap::new();
        for path in paths {
            by_name.entry(file_name(path)).or_default().push(path);
        }
        let mut votes: BTreeMap<Shift, usize> = BTreeMap::new();
        let scripts = self.files.iter().filter(|file| is_script(&file.path));
        for file in scripts.clone() {
            for path in by_name.get(file_name(&file.path)).into_iter().flatten() {
                let told = file.path.as_str();
                let shift = if *path == told {
                    Shift::None
                } else if let Some(prefix) = told.strip_suffix(path).filter(|p| p.ends_with('/')) {
                    Shift::Strip(prefix.to_owned())
                } else if let Some(prefix) = path.strip_suffix(told).filter(|p| p.ends_with('/')) {
                    Shift::Add(prefix.to_owned())
                } else {
                    continue;
                };
                *votes.entry(shift).or_default() += 1;
            }
        }
        // Among equals the first, which changes least.
        let best = votes.iter().rev().max_by_key(|&(_, &votes)| votes).map(|(shift, _)| shift);
        let Some(shift) = best.cloned() else {
            return Err(match scripts.count() {
                0 => Untold::Empty,
                scripts => Untold::Elsewhere(scripts),
            });
        };
        if let Shift::Strip(prefix) = &shift {
            self.rebase(prefix);
        }
        if let Shift::Add(prefix) = &shift {
            self.place.clone_from(prefix);
        }
        let moved = |path: &mut String| {
            if let Some(new) = shift.apply(path) {
                *path = new;
            }
        };
        for file in &mut self.files {
            moved(&mut file.path);
            let lists = [&mut file.names, &mut file.styles, &mut file.loads, &mut file.opens];
            lists.into_iter().flatten().for_each(moved);
        }
        self.entries.iter_mut().flat_map(|entry| &mut entry.files).for_each(moved);
        self.openings.iter_mut().flat_map(|opening| &mut opening.files).for_each(moved);
        Ok(())
    }

    /// Names modules from the output folder, which stands at `prefix` of where the bundler ran: a
    /// source map there would name them so.
    fn rebase(&mut self, prefix: &str) {
        // Nobody's folder is named at such length, and every module's name grows by it.
        if prefix.len() > 4096 {
            return;
        }
        let folders: Vec<&str> = prefix.split('/').filter(|part| !part.is_empty()).collect();
        for module in &mut self.modules {
            let raw = module.raw.as_str();
            if raw.contains([':', '\0']) || raw.starts_with('/') || module.external {
                continue;
            }
            let parts: Vec<&str> = raw.split('/').collect();
            let common = folders.iter().zip(&parts).take_while(|(a, b)| a == b).count();
            let up = "../".repeat(folders.len() - common);
            let rebased = format!("{up}{}", parts[common..].join("/"));
            let raw = std::mem::replace(&mut module.raw, rebased);
            module.source.get_or_insert(raw);
        }
    }

    /// The files by path.
    pub fn by_path(&self) -> HashMap<&str, &ToldFile> {
        self.files.iter().map(|file| (file.path.as_str(), file)).collect()
    }
}

fn file_name(path: &str) -> &str {
    path.rsplit('/').next().unwrap_or(path)
}

/// Whether a visitor runs it or is shown by it.
pub fn is_code(path: &str) -> bool {
    is_script(path) || Path::new(path).extension().is_some_and(|ending| ending == "css")
}

fn is_script(path: &str) -> bool {
    Path::new(path)
        .extension()
        .is_some_and(|ending| ending == "js" || ending == "mjs" || ending == "cjs")
}
