//! What findings are about, as data: the view has their sentences.

use crate::bundlers::{Loading, Sharing};
use std::collections::BTreeSet;

use uvlet_record::Kind as FileKind;
pub use uvlet_script::declarations::Effect;

/// What a finding found, what it comes from, and what the advice depends on.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum About {
    /// One module in several scripts or styles.
    CopiedModule {
        /// Number of modules.
        modules: usize,
        /// The package or folder that they are of.
        kin: String,
        /// Paths of the files.
        files: Vec<String>,
        /// What the files are.
        of: FileKind,
        /// Some page loads several of the files together.
        in_one_visit: bool,
        /// How the bundler is told to share.
        sharing: Sharing,
    },
    /// The same code in two scripts.
    CopiedText {
        /// The script in which it stays.
        kept: String,
        /// The script that repeats it.
        again: String,
        /// Number of stretches.
        parts: usize,
    },
    /// One package in several installs.
    SeveralVersions {
        /// The package.
        name: String,
        /// Its versions, where they are known.
        versions: BTreeSet<String>,
        /// Each install, the newest first.
        installs: Vec<Install>,
    },
    /// Two packages, or two editions of one, that hold mostly the same code.
    TwinPackages {
        /// Hundredths of the smaller one that the other has, too.
        share: usize,
        /// The one that could go, and the one that could serve both.
        twins: [Twin; 2],
        /// Modules of the first.
        modules: usize,
        /// Both are packages, and the second holds far more than what is alike.
        is_part: bool,
    },
    /// One function written into many modules.
    CopiedHelper {
        /// Names of functions, where the sources tell them.
        names: Vec<String>,
        /// Number of functions.
        functions: usize,
        /// Number of modules.
        modules: usize,
        /// Some of the modules are own code.
        is_own: bool,
    },
    /// A folder of many siblings that one index imports.
    WholeFamily {
        /// What the files are.
        family: Family,
        /// Their folder.
        folder: String,
        /// Their number.
        files: usize,
        /// The module that imports them, where it left a byte.
        index: Option<String>,
        /// Whether the settings say which languages are wanted.
        languages_wanted: bool,
    },
    /// Code at startup that nothing in the entry reaches.
    UnreachedInEntry {
        /// The file.
        file: String,
        /// The entries that load it.
        entries: Vec<String>,
        /// The package or folder that most of the code is.
        mostly: String,
    },
    /// Code for developers or for servers.
    WrongEnvironment(Environment),
    /// What comes whole, of whose names the program uses few.
    BarelyUsed {
        /// The package, or the module of own code.
        of: String,
        /// Names that are used.
        used: Vec<String>,
        /// Number of names that it has.
        names: usize,
        /// Number of its modules.
        modules: usize,
        /// It is an object in an ES module; else code in CommonJS form.
        is_module: bool,
        /// How a program would get less of it.
        smaller: Smaller,
    },
    /// Rules of styles that match nothing.
    UnusedRules {
        /// The package, the module, or the chunk.
        of: String,
        /// It is a package.
        is_installed: bool,
        /// Number of rules that match nothing.
        rules: usize,
        /// Number of all its rules.
        all: usize,
        /// Of those, how many may match names that are put together as the page runs.
        perhaps: usize,
        /// The entries that load them.
        entries: Vec<String>,
        /// Hosts that these load something from, which is not seen.
        unseen: Vec<String>,
    },
    /// Modules that a re-exporting file pulls into entries that use none of them.
    BarrelPull {
        /// The file.
        barrel: String,
        /// Number of modules.
        modules: usize,
        /// The entries.
        entries: Vec<String>,
        /// The package that most of it is; none where that is own code.
        mostly: Option<String>,
    },
    /// What waits for somebody to act, and is there at startup.
    Deferrable(Deferrable),
    /// Declarations that nothing uses.
    DeadDeclaration {
        /// The declarations.
        declared: Declared,
        /// Why they are there all the same.
        why: DeadCause,
        /// What the bundler says of a module of theirs.
        bailout: Option<String>,
        /// A comment in their source says that what they call has no effect.
        is_believed: bool,
        /// They are an installed package's, which nobody here writes.
        is_installed: bool,
    },
    /// Declarations that nothing uses and whose evaluation may do something.
    KeptForEffect {
        /// The declarations.
        declared: Declared,
        /// What their evaluation does that may have an effect.
        effects: BTreeSet<Effect>,
        /// They are an installed package's, which nobody here writes.
        is_installed: bool,
    },
}

/// An install of a package.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Install {
    /// Where it is.
    pub place: String,
    /// Its version.
    pub version: Option<String>,
    /// The module outside it that imports it, the nearest to an entry.
    pub asked_by: Option<String>,
}

/// One of two packages that hold mostly the same code.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Twin {
    /// Its name, or the path of an own module.
    pub name: String,
    /// Which edition of the package it is, where both are of one.
    pub edition: Option<Edition>,
    /// A module outside it that imports it.
    pub asked_by: Option<String>,
}

impl Twin {
    /// What lasts of it from build to build.
    #[must_use]
    pub fn called(&self) -> String {
        match self.edition {
            Some(Edition::Es) => format!("{} in ES modules", self.name),
            Some(Edition::CommonJs) => format!("{} in CommonJS form", self.name),
            None => self.name.clone(),
        }
    }
}

/// How an edition of a package is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Edition {
    /// In ES modules.
    Es,
    /// In CommonJS form.
    CommonJs,
}

/// What the siblings of a folder are.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "each names what the files are")]
pub enum Family {
    Languages,
    Icons,
    Themes,
    Fallbacks,
    Grammars,
    Texts,
}

/// Code that is not for visitors.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Environment {
    /// A package in its development edition.
    Development(Package),
    /// A package that stands in for what Node.js has.
    StandIn(Package),
    /// A package for servers.
    Server(Package),
    /// A switch that the build did not set.
    Switch {
        /// The variable.
        variable: String,
        /// How often scripts ask for it.
        places: usize,
        /// The first script that does.
        first: String,
    },
}

/// A package, with who imports it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Package {
    /// Its name.
    pub name: String,
    /// A module outside it that imports it.
    pub asked_by: Option<String>,
}

/// Imports that could wait.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Deferrable {
    /// What could be loaded later.
    pub what: String,
    /// Other modules that only it needs.
    pub others: usize,
    /// The modules that import it.
    pub askers: Vec<String>,
    /// What its uses wait for.
    pub events: BTreeSet<Awaited>,
    /// Own modules among it whose evaluation may do something: the first, and how many more.
    pub active: Option<(String, usize)>,
    /// How it is imported.
    pub request: String,
    /// The entry that gains most, if it loads nothing on demand yet, and what the first load brings.
    pub first_load: Option<(String, Loading)>,
}

/// What the use of an import waits for.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Awaited {
    /// An event of this name.
    Event(String),
    /// A state that is false at first.
    State(String),
    /// A visit of a route.
    Route(String),
    /// An event that a function of this name gives it to.
    Given(String),
}

/// Declarations of one package or module.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Declared {
    /// The package, or the path of an own module.
    pub of: String,
    /// Number of declarations.
    pub number: usize,
    /// Their names, each once, the largest first.
    pub names: Vec<String>,
}

/// Why a declaration that nothing uses is there.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DeadCause {
    /// They are members of an object that stands for a module.
    Members,
    /// Statements that only add to them.
    AddedTo,
    /// Other scripts import them and do not use them.
    Imported,
    /// Only they use each other.
    Unseen,
}

/// How a program would get less of what comes whole.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Smaller {
    /// The package has files for its names.
    OwnPaths {
        /// What the first name would be imported by.
        request: String,
        /// Files that the names need.
        files: usize,
    },
    /// The package exports each name by itself, and loading it does nothing.
    Names,
    /// It is own code, which could.
    OwnExports,
    /// The project is not at hand, to say.
    Unknown,
}
