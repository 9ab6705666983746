//! The kinds of findings, and what each must see of a byte to judge it.

use serde::Serialize;
use strum::VariantArray;

/// What is found.
#[derive(
    Clone,
    Copy,
    Debug,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Serialize,
    strum::EnumMessage,
    strum::IntoStaticStr,
    strum::VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
#[strum(serialize_all = "kebab-case")]
pub enum Kind {
    /// One module in several scripts or styles.
    CopiedModule,
    /// The same code in several scripts, told by their texts.
    CopiedText,
    /// One package in several installs.
    SeveralVersions,
    /// Two packages, or two editions of one, that hold mostly the same code.
    TwinPackages,
    /// One function written into many modules.
    CopiedHelper,
    /// A folder of many siblings that are all included.
    WholeFamily,
    /// Code at startup that nothing in the entry reaches.
    UnreachedInEntry,
    /// Code for developers or for servers.
    WrongEnvironment,
    /// A CommonJS package, or an object that holds all names, that comes whole for a few of them.
    BarelyUsed,
    /// Modules that a file which only hands on names draws into an entry that uses none of them.
    BarrelPull,
    /// What waits for somebody to act, and is there at startup.
    Deferrable,
    /// Declarations that nothing uses.
    DeadDeclaration,
    /// Declarations that nothing uses, but whose evaluation may do something.
    KeptForEffect,
    /// Rules of styles that match nothing that is written anywhere.
    UnusedRules,
}

impl Kind {
    /// Every kind there is.
    pub const ALL: &'static [Self] = Self::VARIANTS;

    /// Its bytes stay in the build: they could only come at another time.
    #[must_use]
    pub fn stays(self) -> bool {
        self == Self::Deferrable
    }

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }
}

/// A word that is no kind of finding.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct UnknownKind(pub String);

impl std::str::FromStr for Kind {
    type Err = UnknownKind;

    fn from_str(text: &str) -> Result<Self, UnknownKind> {
        let kind = Self::ALL.iter().copied().find(|kind| kind.name() == text);
        kind.ok_or_else(|| UnknownKind(text.to_owned()))
    }
}

/// What must be seen of a byte to judge it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Need {
    /// Whose it is, and not by an estimate.
    Owners,
    /// Who imports whom.
    Edges,
    /// The emitted text.
    Texts,
    /// The source text of its module.
    Sources,
    /// Every page that loads it.
    Pages,
}

impl Kind {
    /// What must be seen of a byte to judge it.
    #[must_use]
    pub fn needs(self) -> &'static [Need] {
        use Need::{Edges, Owners, Pages, Sources, Texts};
        match self {
            Self::CopiedModule | Self::SeveralVersions => &[Owners],
            Self::WholeFamily | Self::UnreachedInEntry => &[Owners, Edges],
            Self::TwinPackages | Self::CopiedHelper | Self::WrongEnvironment => &[Owners, Texts],
            Self::CopiedText => &[Texts],
            Self::UnusedRules => &[Texts, Pages],
            Self::BarelyUsed | Self::BarrelPull | Self::Deferrable => &[Owners, Edges, Sources],
            Self::DeadDeclaration | Self::KeptForEffect => &[Owners, Texts, Sources],
        }
    }

    /// Tells whether nothing of it is found in a build of which no texts are known.
    #[must_use]
    pub fn is_found_in_texts(self) -> bool {
        let is_text = |need: &Need| matches!(need, Need::Texts | Need::Sources);
        self != Self::WrongEnvironment && self.needs().iter().any(is_text)
    }

    /// Tells whether it is about styles as well as scripts.
    #[must_use]
    pub fn is_of_styles(self) -> bool {
        matches!(self, Self::CopiedModule | Self::UnreachedInEntry | Self::UnusedRules)
    }

    /// Tells whether it is about scripts.
    #[must_use]
    pub fn is_of_scripts(self) -> bool {
        self != Self::UnusedRules
    }
}
