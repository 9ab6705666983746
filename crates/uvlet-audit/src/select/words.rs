//! The words of the language: sets that take an argument, and sets that take none.

/// A set that takes an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "the words of the language explain themselves")]
pub enum Named {
    Startup,
    AtOnce,
    Deferred,
    Entry,
    Route,
    Repeats,
    Carried,
    Group,
    Chunk,
    File,
    Kind,
    Package,
    Module,
    Folder,
}

impl Named {
    pub(crate) const ALL: [(&'static str, Self); 14] = [
        ("startup", Self::Startup),
        ("at-once", Self::AtOnce),
        ("deferred", Self::Deferred),
        ("entry", Self::Entry),
        ("route", Self::Route),
        ("repeats", Self::Repeats),
        ("carried", Self::Carried),
        ("group", Self::Group),
        ("chunk", Self::Chunk),
        ("file", Self::File),
        ("kind", Self::Kind),
        ("package", Self::Package),
        ("module", Self::Module),
        ("folder", Self::Folder),
    ];
}

/// A set without an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "the words of the language explain themselves")]
pub enum Plain {
    Everything,
    Own,
    ThirdParty,
    Glue,
    Assets,
    Unattributed,
    Scripts,
    Styles,
    Repeats,
    Leftovers,
    NeverRan,
}

impl Plain {
    pub(crate) const ALL: [(&'static str, Self); 11] = [
        ("everything", Self::Everything),
        ("own", Self::Own),
        ("third-party", Self::ThirdParty),
        ("glue", Self::Glue),
        ("assets", Self::Assets),
        ("unattributed", Self::Unattributed),
        ("scripts", Self::Scripts),
        ("styles", Self::Styles),
        ("repeats", Self::Repeats),
        ("leftovers", Self::Leftovers),
        ("never-ran", Self::NeverRan),
    ];
}

impl Plain {
    /// The words of all.
    pub fn names() -> impl Iterator<Item = &'static str> {
        Self::ALL.iter().map(|(name, _)| *name)
    }
}

impl Named {
    /// The words of all.
    pub fn names() -> impl Iterator<Item = &'static str> {
        Self::ALL.iter().map(|(name, _)| *name)
    }

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        Self::ALL.iter().find(|(_, set)| *set == self).map_or("", |(name, _)| name)
    }

    /// What one of it is called, in sentences.
    #[must_use]
    pub fn noun(self) -> &'static str {
        match self {
            Self::Startup
            | Self::AtOnce
            | Self::Deferred
            | Self::Entry
            | Self::Repeats
            | Self::Carried => "entry",
            Self::Route => "route",
            Self::Group => "group",
            Self::Chunk => "chunk",
            Self::File => "file",
            Self::Kind => "kind",
            Self::Package => "package",
            Self::Module => "module",
            Self::Folder => "folder",
        }
    }

    /// It names files, which a build must have for the question to mean anything; the others name
    /// owners, which it may well not have.
    #[must_use]
    pub fn is_of_files(self) -> bool {
        !matches!(self, Self::Package | Self::Module | Self::Folder)
    }
}

/// The kind of source maps, which stand aside.
pub const MAPS: &str = "map";
