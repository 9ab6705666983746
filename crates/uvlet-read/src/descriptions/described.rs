//! The one form of all that a bundler says of its own build: modules by the bundler's names, edges
//! between them, what each file holds, entries and what is loaded on demand.
//!
//! Files are named as they stand in the output folder once [`tie`](Described::tie) has found out how
//! the bundler's paths relate to it.

use std::{collections::HashMap, ops::Range};

use uvlet_record::{
    Bundler, EdgeKind, Lack, Mode, ModeBasis, ModuleFormat, Target, TargetBasis, Used,
};

/// A module's place among those of its description.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct DescribedId(pub usize);

/// What was said.
#[derive(Debug, Default)]
pub struct Described {
    /// Who bundled.
    pub bundler: Option<Bundler>,
    /// Its version.
    pub version: Option<String>,
    /// Modules, in the order met.
    pub modules: Vec<DescribedModule>,
    /// Who asks for whom, by place in `modules`.
    pub edges: Vec<DescribedEdge>,
    /// Output files.
    pub files: Vec<DescribedFile>,
    /// Entries.
    pub entries: Vec<DescribedEntry>,
    /// What is loaded on demand, where the bundler says it outright.
    pub loads: Vec<DescribedLoad>,
    /// Production or development, and what says so.
    pub mode: Option<(Mode, ModeBasis)>,
    /// Where the build runs, and what says so.
    pub target: Option<(Target, TargetBasis)>,
    /// What it can tell, whichever bundler it is of.
    pub can: Capabilities,
    /// What the description leaves out.
    pub lacks: Vec<Lack>,
    /// Errors that the bundler reports of the build.
    pub errors: u64,
    /// The folder of its output inside the folder that is read, with a slash; empty for the whole.
    pub place: String,
}

/// What a description can tell.
#[derive(Debug, Default, Clone, Copy)]
pub struct Capabilities {
    /// The loads of every script are said, so that scripts need not be parsed for them.
    pub says_loads: bool,
    /// Names of chunks were given by somebody, and not made up by the bundler.
    pub gives_names: bool,
    /// Scripts hold their modules in a table, by the ids that are said.
    pub has_tables: bool,
}

/// One module.
#[derive(Debug, Default, Clone)]
pub struct DescribedModule {
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
    /// The module whose function it was merged into.
    pub merged_into: Option<DescribedId>,
    /// Exports that were taken out.
    pub dropped: Option<Vec<String>>,
    /// It must be kept for what it does.
    pub side_effects: Option<bool>,
    /// In which kind of module it is written.
    pub format: Option<ModuleFormat>,
    /// Where its source text stands in the description, as a JSON string.
    pub text: Option<Range<usize>>,
}

/// An edge.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct DescribedEdge {
    pub from: DescribedId,
    pub to: DescribedId,
    pub kind: EdgeKind,
    pub request: Option<String>,
    pub names: Option<Vec<String>>,
}

/// An output file.
#[derive(Debug, Default)]
pub struct DescribedFile {
    /// Its path: the bundler's, then the output folder's.
    pub path: String,
    /// Bytes when it was written.
    pub bytes: Option<u64>,
    /// Bytes per module, where the bundler counts them.
    pub counted: Option<Vec<(DescribedId, u64)>>,
    /// Sizes of the modules in it before minification, in order.
    pub rendered: Option<Vec<(DescribedId, u64)>>,
    /// The modules in it, in order.
    pub slots: Vec<Slot>,
    /// The module that it is a copy of, for an asset.
    pub source: Option<DescribedId>,
    /// The module that it stands for when another file asks for it.
    pub entry: Option<DescribedId>,
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
    pub modules: Vec<DescribedId>,
}

/// An entry.
#[derive(Debug, PartialEq, Eq)]
pub struct DescribedEntry {
    /// Its name.
    pub name: String,
    /// Its files in the order of loading.
    pub files: Vec<String>,
    /// Its first modules.
    pub roots: Vec<DescribedId>,
}

/// What an `import()` or a worker opens.
#[derive(Debug)]
pub struct DescribedLoad {
    /// The module that asks.
    pub module: DescribedId,
    /// The specifier.
    pub request: String,
    /// All files of its group.
    pub files: Vec<String>,
}

impl Described {
    /// A module by its place.
    pub fn module(&self, id: DescribedId) -> &DescribedModule {
        &self.modules[id.0]
    }

    /// Adds a module.
    pub fn add(&mut self, module: DescribedModule) -> DescribedId {
        self.modules.push(module);
        DescribedId(self.modules.len() - 1)
    }

    /// The files by path.
    pub fn by_path(&self) -> HashMap<&str, &DescribedFile> {
        self.files.iter().map(|file| (file.path.as_str(), file)).collect()
    }
}
