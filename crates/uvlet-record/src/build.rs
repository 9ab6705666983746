//! The record itself and what it says of the build as a whole.

use std::{borrow::Cow, collections::BTreeMap};

use serde::{Deserialize, Serialize};
use uvlet_ledger::coding::Encoder;

use crate::{
    cell::{Cell, Owner, Run},
    file::{Chunk, File, Kind, Shares},
    graph::{DynamicLoad, Edge, EdgeBasis, Entry, Module, Package, Unresolved, UnresolvedRequest},
    ids::{FileId, ModuleId},
    notice::Notice,
    saved_texts::SavedTexts,
    sizes::{Amount, Coded, Coding, Measure},
    terms::{Bundler, Mode, ModeBasis, Target, TargetBasis},
};

/// Version of the record's JSON form.
pub const SCHEMA: u32 = 5;

/// One build, accounted for.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Record {
    /// Version of this form.
    pub schema: u32,
    /// A name for people; never an absolute path.
    pub label: String,
    /// Who bundled, where that is known.
    pub bundler: Option<Bundler>,
    /// The bundler's version, where it says so.
    pub bundler_version: Option<String>,
    /// The framework whose output it is, where that is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub framework: Option<Framework>,
    /// Production or development.
    pub mode: Mode,
    /// What the mode was judged by.
    pub mode_evidence: Vec<ModeBasis>,
    /// Where the build is meant to run.
    pub target: Target,
    /// What the target was judged by.
    pub target_basis: TargetBasis,
    /// What stood beside this build, is served to nobody who visits it, and is in no total.
    pub set_aside: Vec<SetAside>,
    /// The encoder behind each coded measure; its keys are the codings that were taken.
    pub encoders: BTreeMap<Coding, Encoder>,
    /// How many files were measured by their precompressed twin instead.
    pub precompressed: Coded<u64>,
    /// The files that count, by path.
    pub files: Vec<File>,
    /// Owners per file, in the order of `files`.
    pub cells: Vec<Cell>,
    /// Positions, in the order of `files` and of the text.
    pub runs: Vec<Run>,
    /// Modules by path and package.
    pub modules: Vec<Module>,
    /// Packages by name and place.
    pub packages: Vec<Package>,
    /// Chunks by name.
    pub chunks: Vec<Chunk>,
    /// Entries by name.
    pub entries: Vec<Entry>,
    /// What is opened on demand.
    pub dynamic_loads: Vec<DynamicLoad>,
    /// Dynamic loads that lead nowhere.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub unresolved: Vec<Unresolved>,
    /// Which module asks for which, in order: as the bundler says, else as the sources do.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub edges: Vec<Edge>,
    /// What modules ask for and no module could be told for, in order, where edges are parsed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub unresolved_requests: Vec<UnresolvedRequest>,
    /// Files that count in no total.
    pub aside: Vec<Aside>,
    /// What a reader should be told.
    pub notices: Vec<Notice>,
    /// The texts themselves, if they were asked for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub texts: Option<SavedTexts>,
}

impl Record {
    /// Percent of the emitted script bytes that have no known owner, rounded down.
    #[must_use]
    pub fn unattributed_percent(&self) -> u64 {
        let (mut all, mut unattributed) = (0_u64, 0_u64);
        for cell in self.cells.iter().filter(|cell| self.file(cell.file).kind == Kind::Script) {
            all = all.saturating_add(cell.amount.emitted);
            if cell.owner == Owner::Unattributed {
                unattributed = unattributed.saturating_add(cell.amount.emitted);
            }
        }
        unattributed.saturating_mul(100).checked_div(all).unwrap_or(0)
    }

    /// The modules that an entry surely begins with: those that the bundler names; else its own, where it
    /// has any, since a package's module that nothing asks for hangs on one that left no byte.
    #[must_use]
    pub fn first_modules(&self, entry: &Entry) -> Vec<ModuleId> {
        let is_own = |id: &ModuleId| !self.module(*id).third_party;
        let is_sure = entry.has_said_roots || !entry.roots.iter().any(is_own);
        entry.roots.iter().copied().filter(|id| is_sure || is_own(id)).collect()
    }

    /// An amount of nothing that holds a zero for each measure taken.
    #[must_use]
    pub fn zero(&self) -> Amount {
        let mut bits = Coded::default();
        for &coding in self.encoders.keys() {
            bits.set(coding, 0);
        }
        Amount { emitted: 0, bits }
    }

    /// The measures that the record holds, in order.
    pub fn measures(&self) -> impl Iterator<Item = Measure> + '_ {
        std::iter::once(Measure::Emitted).chain(self.encoders.keys().map(|&c| Measure::Coded(c)))
    }

    /// A file by its index.
    #[must_use]
    pub fn file(&self, id: FileId) -> &File {
        &self.files[id.at()]
    }

    /// A module by its index.
    #[must_use]
    pub fn module(&self, id: ModuleId) -> &Module {
        &self.modules[id.at()]
    }

    /// The package of a module.
    #[must_use]
    pub fn package_of(&self, id: ModuleId) -> Option<&Package> {
        self.module(id).package.map(|package| &self.packages[package.at()])
    }

    /// Where a module lies, from the project's folder: its path, with the place that its package is
    /// installed at where the path does not hold it.
    #[must_use]
    pub fn location_of(&self, id: ModuleId) -> Cow<'_, str> {
        let path = self.module(id).path.as_str();
        let Some(package) = self.package_of(id) else { return path.into() };
        if path.starts_with(&package.place) {
            return path.into();
        }
        let inside = path.rsplit_once("node_modules/").map_or("", |(_, inside)| inside);
        let inside = inside.strip_prefix(&package.name).unwrap_or("");
        format!("{}{inside}", package.place).into()
    }

    /// Some files and all that they statically load, in the order of request: these first, then loads
    /// breadth-first as written.
    #[must_use]
    pub fn closure(&self, files: &[FileId]) -> Vec<FileId> {
        let mut seen = vec![false; self.files.len()];
        self.closure_beyond(files, &mut seen)
    }

    /// What some files and their static loads add to what was seen, in the order of request.
    #[must_use]
    pub fn closure_beyond(&self, files: &[FileId], seen: &mut [bool]) -> Vec<FileId> {
        let mut is_new = |file: &FileId| !std::mem::replace(&mut seen[file.at()], true);
        let mut found: Vec<FileId> = files.iter().copied().filter(&mut is_new).collect();
        let mut next = 0;
        while let Some(&file) = found.get(next) {
            found.extend(self.file(file).loads.iter().copied().filter(&mut is_new));
            next += 1;
        }
        found
    }

    /// Whether the bundler says who asks for whom. Edges that are parsed may lack some, so that what
    /// they do not reach is not taken for unreached.
    #[must_use]
    pub fn has_said_edges(&self) -> bool {
        self.edges.iter().any(|edge| edge.basis == EdgeBasis::Said)
    }

    /// The cells of a file.
    #[must_use]
    pub fn cells_of(&self, id: FileId) -> &[Cell] {
        let range = &self.file(id).cells;
        &self.cells[range.clone()]
    }

    /// Whether a file's bits under a coding are traced to their owners; so are those of a file that
    /// is one owner's.
    #[must_use]
    pub fn is_traced(&self, id: FileId, coding: Coding) -> bool {
        self.cells_of(id).len() < 2 || self.file(id).shares.get(coding) == Some(&Shares::Traced)
    }

    /// How coded sizes are shared out, over all files.
    #[must_use]
    pub fn shares(&self, coding: Coding) -> Shares {
        let mut files = (0..self.files.len()).map(FileId::new);
        match files.all(|id| self.is_traced(id, coding)) {
            true => Shares::Traced,
            false => Shares::Proportional,
        }
    }

    /// What a module belongs to, for people: its package, or the folder of an own one.
    #[must_use]
    pub fn kin_of(&self, id: ModuleId) -> &str {
        match self.package_of(id) {
            Some(package) => &package.name,
            None => {
                let path = self.module(id).path.as_str();
                let folder = path.rsplit_once('/').map_or("own", |(folder, _)| folder);
                folder.strip_prefix("src/").unwrap_or(folder)
            }
        }
    }

    /// What a chunk holds, by kin, heaviest first.
    #[must_use]
    pub fn kin_in(&self, chunk: &Chunk) -> Vec<&str> {
        self.kin_of_files(chunk.files())
    }

    /// What some files hold, by kin, heaviest first.
    #[must_use]
    pub fn kin_of_files(&self, files: impl Iterator<Item = FileId>) -> Vec<&str> {
        let mut weights: BTreeMap<&str, u64> = BTreeMap::new();
        for cell in files.flat_map(|id| self.cells_of(id)) {
            if let Owner::Module(id) = cell.owner {
                *weights.entry(self.kin_of(id)).or_default() += cell.amount.emitted;
            }
        }
        let mut kin: Vec<(&str, u64)> = weights.into_iter().collect();
        kin.sort_by_key(|&(_, weight)| std::cmp::Reverse(weight));
        kin.into_iter().map(|(kin, _)| kin).collect()
    }

    /// Whether installed code owns a cell.
    #[must_use]
    pub fn is_third_party(&self, owner: Owner) -> bool {
        matches!(owner, Owner::Module(id) if self.module(id).third_party)
    }
}

/// What stands in the folder and is not what a visitor of this target gets.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SetAside {
    /// Where it runs, if it runs anywhere.
    pub target: Option<Target>,
    /// Why it does not count.
    pub reason: Reason,
    /// Number of files.
    pub file_count: usize,
    /// Their emitted bytes.
    pub bytes: u64,
}

/// Why files that are not served do not count.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Reason {
    /// Output for another target.
    OtherTarget,
    /// What a tool keeps to build faster, or a server to answer faster.
    Cache,
    /// What a framework notes of its own build.
    BuildData,
    /// The same output once more, before it was put where it is served from.
    Copy,
}

impl Reason {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::OtherTarget => "other target",
            Self::Cache => "cache",
            Self::BuildData => "build data",
            Self::Copy => "copy",
        }
    }
}

/// The framework around a build.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Framework {
    /// Its name.
    pub name: String,
    /// Its version, where its output says so.
    pub version: Option<String>,
}

/// A file that is listed and counts in no total.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Aside {
    /// Path in the output folder.
    pub path: String,
    /// Why it does not count.
    pub kind: AsideKind,
    /// Its bytes.
    pub bytes: u64,
}

/// Why a file does not count.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum AsideKind {
    /// A source map.
    Map,
    /// A precompressed copy of another file.
    Precompressed,
    /// Licence texts that a minifier split off.
    Licence,
    /// Webpack-style stats.
    Stats,
    /// esbuild's metafile.
    Metafile,
    /// Vite's build manifest.
    Manifest,
    /// The list of files that webpack apps write for servers.
    #[serde(rename = "asset manifest")]
    AssetManifest,
    /// What the plugin of this program wrote.
    Plugin,
    /// A record of this program.
    Record,
    /// What a framework says of its build.
    Framework,
    /// Declarations of types.
    Types,
}

impl AsideKind {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Map => "map",
            Self::Precompressed => "precompressed",
            Self::Licence => "licence",
            Self::Stats => "stats",
            Self::Metafile => "metafile",
            Self::Manifest => "manifest",
            Self::AssetManifest => "asset manifest",
            Self::Plugin => "plugin",
            Self::Record => "record",
            Self::Framework => "framework data",
            Self::Types => "type declaration",
        }
    }
}
