//! What a reader should know of budgets and waivers besides the verdict, as data.

use strum::IntoStaticStr;
use uvlet_record::{OtherName, sizes::Measure};

use crate::select::selection::Missing;

/// What there is to know; the name of each is its stable code.
#[derive(Clone, Debug, PartialEq, Eq, IntoStaticStr)]
#[strum(serialize_all = "kebab-case")]
pub enum GateRemark {
    /// Code loads more as it starts than a budget over its startup counts.
    AtOnce {
        /// The budget.
        budget: String,
        /// The entry.
        entry: String,
        /// Bytes that are loaded at once.
        bytes: u64,
        /// What they are counted in.
        measure: Measure,
    },
    /// A budget names a chunk by a name that does not last.
    ChunkRenamed {
        /// The budget.
        budget: String,
        /// What kind of name that is.
        by: OtherName,
        /// The name.
        name: String,
        /// The name that lasts.
        lasting: String,
    },
    /// A waiver of something that breaks no limit.
    WaiverUnused {
        /// What it is about.
        about: String,
        /// A name in it that the build does not have, and names that are close.
        missing: Option<Missing>,
    },
}

impl GateRemark {
    /// The stable word for it.
    #[must_use]
    pub fn code(&self) -> &'static str {
        self.into()
    }
}
