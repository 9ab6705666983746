//! What breaks a gate, leaves a limit undecided, or is to be known of a row, as data.

use jiff::civil::Date;
use uvlet_record::ModeBasis;

use crate::{
    ask::gate::budget::Place,
    find::judged::Judged,
    select::{
        selection::{Missing, Unmarked},
        words::Named,
    },
};

/// What breaks a gate, leaves a limit undecided, or explains how a row stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Reason {
    /// The build is one for development; why it is taken for one.
    DevelopmentBuild(Option<ModeBasis>),
    /// The build could not be read, and why.
    NotRead(String),
    /// Too little could be judged to find all of a kind.
    NotJudged(Judged),
    /// These source maps lie beside the files.
    Maps(Vec<String>),
    /// The selector names what the build does not have.
    NameMissing {
        /// Where the selector stands.
        place: Place,
        /// What is missing.
        missing: Missing,
    },
    /// The selector speaks of a mark that is not known of the build.
    NotMarked(Unmarked),
    /// Nothing matches a pattern.
    NoMatch {
        /// The set.
        set: Named,
        /// The pattern.
        name: String,
    },
    /// What brings in what must not be there: an entry, and the chain from it.
    BroughtIn {
        /// The entry.
        entry: String,
        /// Paths of own modules and names of packages.
        chain: Vec<String>,
    },
    /// Files hold bytes without an owner.
    Unattributed {
        /// Each file with its bytes, the most first.
        files: Vec<(String, u64)>,
        /// All of them are styles, of which no map tells anything.
        are_styles: bool,
    },
    /// It grew by anything between the two, as not all bytes of both builds have a known owner.
    GrewBetween {
        /// Bytes at least.
        least: i128,
        /// Bytes at most.
        most: i128,
    },
    /// Sizes are only estimated in these files.
    Estimated(Vec<String>),
    /// A load on demand that cannot be followed may ask for these files.
    LoadsLeadNowhere(Vec<String>),
    /// It is not known of these files what nothing uses, or never ran.
    NotFollowed(Vec<String>),
    /// The versions of these packages are not known.
    VersionUnknown(Vec<String>),
    /// There is no build to hold growth against.
    NoBase,
    /// It is requested in the last round, once what names it has arrived.
    Late {
        /// The file.
        file: String,
        /// The file that names it.
        by: String,
    },
    /// Rounds are of the startup of one entry, and this is not one.
    NoOneStartup,
    /// The build before has nothing of that name.
    New {
        /// Its growth is limited by a percentage, which is of nothing.
        of_percentage: bool,
    },
    /// A waiver ended.
    WaiverEnded {
        /// What it is about.
        waiver: String,
        /// The last day that it held.
        until: Date,
    },
    /// A finding exceeds its waiver.
    FindingOverWaiver {
        /// The finding.
        id: String,
        /// Bytes that there are.
        is: u64,
        /// Bytes that the waiver allows.
        ceiling: u64,
    },
    /// A limit exceeds its waiver.
    OverWaiver,
    /// It is accepted.
    Waived {
        /// The finding that is, where it is one.
        finding: Option<String>,
        /// The last day.
        until: Date,
        /// Days that are left after today.
        days_left: i32,
        /// Why.
        reason: String,
    },
    /// A waiver may hold, or may not.
    WaiverUndecided,
}

impl Reason {
    /// A stable word.
    #[must_use]
    pub fn code(&self) -> &'static str {
        match self {
            Self::DevelopmentBuild(_) => "development-build",
            Self::NotRead(_) => "not-read",
            Self::NotJudged(_) => "not-judged",
            Self::Maps(_) => "maps",
            Self::NameMissing { .. } => "name-missing",
            Self::NotMarked(_) => "not-marked",
            Self::NoMatch { .. } => "no-match",
            Self::BroughtIn { .. } => "brought-in",
            Self::Unattributed { .. } | Self::GrewBetween { .. } => "unattributed",
            Self::Estimated(_) => "estimated",
            Self::LoadsLeadNowhere(_) => "loads-lead-nowhere",
            Self::NotFollowed(_) => "not-followed",
            Self::VersionUnknown(_) => "version-unknown",
            Self::NoBase => "no-base",
            Self::NoOneStartup => "no-one-startup",
            Self::Late { .. } => "late",
            Self::New { .. } => "new",
            Self::WaiverEnded { .. } => "waiver-ended",
            Self::FindingOverWaiver { .. } | Self::OverWaiver => "over-waiver",
            Self::Waived { .. } => "waived",
            Self::WaiverUndecided => "waiver-undecided",
        }
    }
}
