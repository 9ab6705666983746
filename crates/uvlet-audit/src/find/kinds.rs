//! The ways to find, one per kind.

use crate::find::{
    alike, barely, barrel, context::Ground, copied, copied_text, dead, environment, family,
    finding::Found, helpers, kind::Kind, later, rules, unreached, versions,
};

/// A way to find.
type Find = fn(&Ground<'_>) -> Vec<Found>;

/// The ways to find, one per kind.
pub(crate) const ALL: [(Kind, Find); 14] = [
    (Kind::CopiedModule, copied::find),
    (Kind::CopiedText, copied_text::find),
    (Kind::SeveralVersions, versions::find),
    (Kind::TwinPackages, alike::find),
    (Kind::CopiedHelper, helpers::find),
    (Kind::WholeFamily, family::find),
    (Kind::UnreachedInEntry, unreached::find),
    (Kind::WrongEnvironment, environment::find),
    (Kind::BarelyUsed, barely::find),
    (Kind::BarrelPull, barrel::find),
    (Kind::Deferrable, later::find),
    (Kind::DeadDeclaration, dead::find),
    (Kind::KeptForEffect, dead::find_kept),
    (Kind::UnusedRules, rules::find),
];
