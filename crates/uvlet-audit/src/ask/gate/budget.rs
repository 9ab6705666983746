//! Budgets as they are promised: a scope, and limits on it.

use serde::Serialize;
use uvlet_record::sizes::Measure;

use crate::{
    ask::gate::limit::{Ceiling, LimitKind, Limits},
    find::kind,
    select::selector::Selector,
};

/// Where something stands in the files of settings.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Place {
    /// The file, as it was named.
    pub file: String,
    /// From 1.
    pub line: usize,
    /// In characters, from 1.
    pub column: usize,
}

/// A promise about a set of bytes.
#[derive(Clone, Debug)]
pub struct Budget {
    /// Its name.
    pub name: String,
    /// What it is about.
    pub scope: Scope,
    /// Where that stands.
    pub place: Place,
    /// The limits that it sets.
    pub limits: Limits,
    /// What the bytes are counted in.
    pub measure: Measure,
}

impl Budget {
    /// A limit that one build alone is held against.
    #[must_use]
    pub fn limit(&self, kind: LimitKind) -> Option<u64> {
        match self.limits.get(&kind)? {
            Ceiling::Number(number) => Some(*number),
            Ceiling::Milli(_) => None,
        }
    }
}

/// What a budget is about.
#[derive(Clone, Debug)]
pub enum Scope {
    /// The selection as a whole, each byte once.
    Total(Selector),
    /// Each match of the selector's first set on its own.
    Each(Selector),
    /// Nothing of the selection may be there.
    Absent(Selector),
    /// What findings of a kind come to together.
    Waste(kind::Kind),
}

impl Scope {
    /// What it speaks of, in words.
    pub(crate) fn text(&self) -> &str {
        match self {
            Self::Total(selector) | Self::Each(selector) | Self::Absent(selector) => {
                selector.text()
            }
            Self::Waste(kind) => kind.name(),
        }
    }

    /// The selector, where it is about one.
    #[must_use]
    pub fn selector(&self) -> Option<&Selector> {
        match self {
            Self::Total(selector) | Self::Each(selector) | Self::Absent(selector) => Some(selector),
            Self::Waste(_) => None,
        }
    }

    /// Whether it can only be judged, or said, with who asks for whom.
    #[must_use]
    pub fn asks_for_edges(&self) -> bool {
        matches!(self, Self::Absent(_) | Self::Waste(_))
    }
}

/// How strictly budgets are held.
#[derive(Clone, Copy, Debug)]
pub struct Strictness {
    /// A development build is taken.
    pub allow_development: bool,
    /// Estimates are taken as they stand.
    pub allow_estimated: bool,
    /// Bytes that nobody owns and that are not held against a budget.
    pub allow_unattributed: u64,
    /// Share of the bytes that a kind of finding must have judged for a budget on it, in thousandths of a
    /// percent.
    pub judged_at_least: u64,
}

impl Default for Strictness {
    fn default() -> Self {
        Self {
            allow_development: false,
            allow_estimated: false,
            allow_unattributed: 0,
            judged_at_least: 95_000,
        }
    }
}

/// Limits that one build alone is held against.
pub(crate) fn limits(budget: &Budget) -> impl Iterator<Item = (LimitKind, Option<u64>)> + use<> {
    let is_ban = matches!(budget.scope, Scope::Absent(_));
    let limits =
        [LimitKind::AtMost, LimitKind::WarnAbove, LimitKind::FilesAtMost, LimitKind::RoundsAtMost]
            .map(|kind| (kind, budget.limit(kind)));
    limits
        .into_iter()
        .chain([(LimitKind::Absent, is_ban.then_some(0))])
        .filter(|(_, limit)| limit.is_some())
}
