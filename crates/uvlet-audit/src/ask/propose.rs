//! First budgets for a build: what it is now, with some headroom, as limits that read well.

use std::collections::BTreeSet;

use uvlet_record::{FileId, sizes::Measure};

use crate::{
    find::{
        judged::Judged,
        kind::Kind,
        waste::{Aids, Wanted, waste},
    },
    lens::Lens,
};

/// Entries that get a budget each; of more, one limit holds for all.
const ENTRIES: usize = 12;

/// Waste of fewer bytes, or of less than a hundredth of the largest startup, is nobody's concern.
const LEAST: u64 = 500;

/// A budget that would hold.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Proposal {
    /// A name for it.
    pub name: String,
    /// The key that says what it is about: `total`, `each` or `waste`.
    pub key: &'static str,
    /// The selector, or the kind of findings.
    pub what: String,
    /// Bytes that there are.
    pub is: u64,
    /// Bytes that there may be.
    pub at_most: u64,
}

/// How much a limit stands above what there is, in thousandths of a percent.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Headroom(pub u64);

impl Headroom {
    /// A limit above so many bytes that reads well: three digits, or two of less than a kilobyte.
    #[must_use]
    pub fn above(self, bytes: u64) -> u64 {
        if bytes == 0 {
            return 0;
        }
        let with = u128::from(bytes) + (u128::from(bytes) * u128::from(self.0)).div_ceil(100_000);
        let with = u64::try_from(with).unwrap_or(u64::MAX);
        let step = match with {
            0..1_000 => 10,
            1_000..100_000 => 100,
            100_000..1_000_000 => 1_000,
            _ => 10_000,
        };
        with.div_ceil(step).saturating_mul(step)
    }
}

/// What is proposed, and what is not.
#[derive(Debug, Default)]
pub struct Proposals {
    /// Budgets that the build meets.
    pub budgets: Vec<Proposal>,
    /// The lowest limit on waste that is worth holding.
    pub least_waste: u64,
    /// Kinds of findings of which too little could be judged for a budget.
    pub unjudged: Vec<Judged>,
}

/// Proposes budgets that a build meets: startup of every entry, the heaviest chunk, and what waste there
/// is, as far as that could be judged.
#[must_use]
pub fn propose(
    lens: &Lens<'_>,
    aids: Aids<'_>,
    measure: Measure,
    headroom: Headroom,
    judged_at_least: u64,
) -> Proposals {
    let record = lens.record;
    let weigh = |files: &[FileId]| lens.amount(&lens.files(files.iter().copied())).bytes(measure);
    let mut proposals = Vec::new();
    let most = lens.reach.iter().map(|reach| weigh(&reach.startup)).max().unwrap_or(0);
    let least = Headroom(0).above(LEAST.max(most / 100));
    let mut add = |name: String, key: &'static str, what: String, is: u64| {
        // A library's next release moves its leftovers by some bytes.
        let at_most = headroom.above(is).max(if key == "waste" { least } else { 0 });
        proposals.push(Proposal { name, key, what, is, at_most });
    };
    let startups = record.entries.iter().zip(&lens.reach);
    if record.entries.len() > ENTRIES {
        let most = startups.map(|(_, reach)| weigh(&reach.startup)).max().unwrap_or(0);
        add("startup".to_owned(), "each", "startup(*)".to_owned(), most);
    } else {
        for (entry, reach) in startups {
            let what = format!("startup({})", quoted(&entry.name));
            add(format!("{}-startup", slug(&entry.name)), "total", what, weigh(&reach.startup));
        }
    }
    let chunks = record.chunks.iter().map(|chunk| weigh(&chunk.files().collect::<Vec<_>>()));
    if let Some(most) = chunks.max() {
        add("one-chunk".to_owned(), "each", "chunk(*)".to_owned(), most);
    }
    let mut unjudged = Vec::new();
    // What may be there for good is nothing to hold a build on.
    let wanted = |kind: &Kind| !matches!(kind, Kind::KeptForEffect | Kind::UnusedRules);
    for kind in Kind::ALL.iter().copied().filter(wanted) {
        let wanted = Wanted { kinds: vec![kind], ..Wanted::default() };
        let found = waste(lens, aids, &wanted, measure);
        if let Some(judged) = found.judged.iter().find(|one| !one.is_at_least(judged_at_least)) {
            unjudged.push(judged.clone());
            continue;
        }
        let (cells, besides) = found.together(lens, &found.findings);
        let is = lens.amount(&cells).bytes(measure) + besides.bytes(measure);
        add(kind.name().to_owned(), "waste", kind.name().to_owned(), is);
    }
    let mut taken = BTreeSet::new();
    for proposal in &mut proposals {
        let mut name = proposal.name.clone();
        let mut number = 2;
        while !taken.insert(name.clone()) {
            name = format!("{}-{number}", proposal.name);
            number += 1;
        }
        proposal.name = name;
    }
    Proposals { budgets: proposals, least_waste: least, unjudged }
}

/// A name as a selector takes it: what would end the argument too early, or mean a pattern, in quotes.
fn quoted(name: &str) -> String {
    let mut depth = 0_i64;
    let is_balanced = name.chars().all(|c| {
        depth += i64::from(c == '(') - i64::from(c == ')');
        depth >= 0
    });
    match is_balanced && depth == 0 && !name.starts_with(['"', '\'']) && name.trim() == name {
        true => name.to_owned(),
        false if name.contains('"') => format!("'{name}'"),
        false => format!("\"{name}\""),
    }
}

/// A name as a key of a file of settings, without quotes.
fn slug(name: &str) -> String {
    let plain: String = name
        .chars()
        .map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' })
        .collect();
    let parts: Vec<&str> = plain.split('-').filter(|part| !part.is_empty()).collect();
    if parts.is_empty() { "root".to_owned() } else { parts.join("-") }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::{Headroom, quoted, slug};

    #[rstest]
    #[case(0, 5000, 0)]
    #[case(1, 5000, 10)]
    #[case(951, 5000, 1000)]
    #[case(23_710, 5000, 24_900)]
    #[case(144_900, 5000, 153_000)]
    #[case(1_451_561, 5000, 1_530_000)]
    #[case(24_900, 0, 24_900)]
    fn limits_read_well_and_are_never_below(
        #[case] bytes: u64,
        #[case] headroom: u64,
        #[case] limit: u64,
    ) {
        assert_eq!(Headroom(headroom).above(bytes), limit);
        assert!(limit >= bytes);
    }

    #[rstest]
    #[case("/ports/[id]", "/ports/[id]", "ports-id")]
    #[case("/", "/", "root")]
    #[case("/ (legacy)", "/ (legacy)", "legacy")]
    #[case("a)b", "\"a)b\"", "a-b")]
    fn names(#[case] name: &str, #[case] as_argument: &str, #[case] as_key: &str) {
        assert_eq!((quoted(name).as_str(), slug(name).as_str()), (as_argument, as_key));
    }
}
