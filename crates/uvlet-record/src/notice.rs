//! What a reader of the numbers should know besides, as data: whoever shows it finds the words.

use serde::{Deserialize, Serialize};
use strum::IntoStaticStr;

use crate::terms::Target;

/// Something that a reader should know; it never changes an exit status.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Notice {
    /// What it is.
    #[serde(flatten)]
    pub remark: Remark,
    /// The path it is about.
    #[serde(rename = "where")]
    pub place: Option<String>,
}

impl Notice {
    /// About a path.
    #[must_use]
    pub fn at(place: &str, remark: Remark) -> Self {
        Self { remark, place: Some(place.to_owned()) }
    }

    /// About the build as a whole.
    #[must_use]
    pub fn of_build(remark: Remark) -> Self {
        Self { remark, place: None }
    }
}

/// What there is to know; the name of each is its stable code.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, IntoStaticStr)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "code", rename_all = "kebab-case")]
#[strum(serialize_all = "kebab-case")]
pub enum Remark {
    /// The bundler reports errors of the build.
    BuildErrors {
        /// How many.
        count: u64,
    },
    /// The build was looked for, and this is the only one.
    BuildFound {
        /// Where it is.
        folder: String,
    },
    /// The whole output is read, where a part of it was named.
    WholeRead {
        /// Its folder.
        folder: String,
    },
    /// A precompressed copy decodes to something else than its file.
    CopyDiffers {
        /// The file.
        file: String,
    },
    /// Of what a selector speaks of, something is asked of other hosts and is in no size.
    Elsewhere {
        /// How many requests.
        count: usize,
        /// The first of them.
        url: String,
    },
    /// No page names what it starts from.
    EntriesInferred {
        /// The entries that were taken instead.
        names: Vec<String>,
    },
    /// A file asks for something that is not in the folder.
    FileMissing {
        /// The URL or specifier.
        asked: String,
    },
    /// Only lengths from before minification are known of a file's modules.
    LengthsBeforeMinification,
    /// A link, which is not followed.
    Link,
    /// A file's source map cannot be used.
    MapDamaged {
        /// The file.
        file: String,
        /// What is wrong.
        reason: String,
        /// Bytes of the file.
        bytes: u64,
    },
    /// A file names a source map that is not there.
    MapMissing {
        /// The map.
        map: String,
        /// Bytes of the file.
        bytes: u64,
        /// What the bundler says of the file stands in for it.
        is_described: bool,
    },
    /// Modules merged into one function are told apart by their sizes.
    MergedBySize,
    /// A script is not UTF-8.
    NotUtf8 {
        /// The first byte that is not.
        at: u64,
    },
    /// The folder is part of a build.
    PartOfBuild {
        /// The whole.
        whole: String,
    },
    /// A script cannot be parsed.
    ScriptUnparsed {
        /// Why.
        reason: String,
    },
    /// A setting that changes nothing of a record.
    SettingUnused {
        /// Which.
        setting: Setting,
    },
    /// A description cannot be read.
    StatsDamaged {
        /// Why.
        reason: String,
    },
    /// A description is of another build.
    StatsElsewhere,
    /// A description names files that are not there.
    StatsMissing {
        /// The first few.
        files: Vec<String>,
        /// How many in all.
        count: usize,
    },
    /// A description gives other sizes than the disk.
    StatsOff {
        /// By how many bytes in all.
        bytes: u64,
        /// The first few files.
        files: Vec<String>,
        /// How many in all.
        count: usize,
    },
    /// A description leaves something out.
    StatsShort {
        /// What, and which of the bundler's options adds it.
        lacks: Vec<Lack>,
    },
    /// A description names no script.
    StatsWithoutScripts,
    /// Output for another target stands beside.
    TargetSetAside {
        /// Where it runs.
        target: Target,
        /// Number of files.
        file_count: usize,
        /// Their emitted bytes.
        bytes: u64,
    },
    /// A file cannot be read.
    Unreadable {
        /// What the system says.
        reason: String,
    },
}

impl Remark {
    /// Its stable code.
    #[must_use]
    pub fn code(&self) -> &'static str {
        self.into()
    }
}

/// A name of a chunk that does not last.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum OtherName {
    /// The bundler's name for it.
    Given,
    /// The stem of its file.
    Stem,
    /// The bundler's number for it.
    Id,
}

/// A setting of a read.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Setting {
    /// What the bundler says of the build.
    Description,
    /// Where source maps are kept.
    Maps,
    /// The project's folder.
    Root,
    /// The URL under which the files will stand.
    Base,
}

/// What a description of a build may leave out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Lack {
    /// The emitted files.
    Assets,
    /// What starts.
    Entries,
    /// Chunks and what opens them.
    Chunks,
    /// What opens a chunk.
    Origins,
    /// Modules.
    Modules,
    /// Names of modules.
    ModuleNames,
    /// Why a module is there.
    Reasons,
    /// Modules merged into others.
    MergedModules,
    /// Modules without a chunk of their own, which are those merged into others.
    OrphanModules,
    /// Some modules.
    SomeModules,
}
