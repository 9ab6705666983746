//! The words of the language: sets that take an argument, and sets that take none. Parser, help, page
//! and documents have them from here.

use strum::VariantArray;

/// A set that takes an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq, strum::IntoStaticStr, strum::VariantArray)]
#[strum(serialize_all = "kebab-case")]
#[expect(missing_docs, reason = "the words of the language explain themselves")]
pub enum Named {
    Startup,
    AtOnce,
    Deferred,
    Entry,
    Route,
    Repeats,
    Unreached,
    Group,
    Chunk,
    File,
    Kind,
    Package,
    Module,
    Folder,
}

/// A set without an argument.
#[derive(Clone, Copy, Debug, PartialEq, Eq, strum::IntoStaticStr, strum::VariantArray)]
#[strum(serialize_all = "kebab-case")]
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

/// The set of all files that hold something of another.
pub const HOLDING: &str = "holding";

/// Words that join sets, the one that binds most first.
pub const JOINS: [&str; 3] = ["and", "or", "except"];

/// A word as it is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Word {
    /// The word.
    pub text: &'static str,
    /// What stands in parentheses behind it.
    pub argument: Option<&'static str>,
}

/// Every word that stands for a set.
pub fn all() -> impl Iterator<Item = Word> + Clone {
    let plain = Plain::VARIANTS.iter().map(|set| Word { text: set.name(), argument: None });
    let named = Named::VARIANTS.iter();
    let named = named.map(|set| Word { text: set.name(), argument: Some(set.placeholder()) });
    plain.chain(named).chain([Word { text: HOLDING, argument: Some("SELECTOR") }])
}

impl Plain {
    /// The set that a word stands for.
    pub(crate) fn of(word: &str) -> Option<Self> {
        Self::VARIANTS.iter().copied().find(|set| set.name() == word)
    }

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }
}

impl Named {
    /// The set that a word stands for.
    pub(crate) fn of(word: &str) -> Option<Self> {
        Self::VARIANTS.iter().copied().find(|set| set.name() == word)
    }

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }

    /// What stands for its argument.
    fn placeholder(self) -> &'static str {
        match self {
            Self::Startup
            | Self::AtOnce
            | Self::Deferred
            | Self::Entry
            | Self::Repeats
            | Self::Unreached => "ENTRY",
            Self::Route => "ROUTE",
            Self::Group | Self::Chunk | Self::Kind | Self::Package => "NAME",
            Self::File | Self::Module | Self::Folder => "PATH",
        }
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
            | Self::Unreached => "entry",
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
