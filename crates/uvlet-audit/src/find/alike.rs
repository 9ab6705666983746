//! Two packages that hold mostly the same code: editions of one library, forks, copies in own folders.
//!
//! Scripts are compared by samples of their structure ([`uvlet_script::shapes`]), which names do not
//! change. What a pair shares is told by the smaller of the two: the share of its samples that the other
//! has (containment, Broder, "On the resemblance and containment of documents", 1997).

use std::collections::{BTreeMap, BTreeSet, HashMap, HashSet};

use uvlet_record::{ModuleFormat, ModuleId};
use uvlet_script::shapes::{Mark, Shapes};

use crate::{
    find::{
        about::{About, Edition, Twin},
        context::{Ground, module_at},
        finding::{Bound, Found},
    },
    select::overlap::cells_of_modules,
};

/// Samples from which on a likeness says something: about a kilobyte of minified code.
const MARKS: usize = 30;

/// Hundredths of the smaller one that must be alike.
const ALIKE: usize = 60;

/// Samples that more of them hold are how everybody writes, or what one compiler writes everywhere.
const COMMON: usize = 6;

/// What is compared: an install of a package in one of its editions, or a module of own code.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
enum Side {
    Package(uvlet_record::PackageId, Option<Edition>),
    Own(ModuleId),
}

/// Two that are alike: the one to go, and the one that could stay.
struct Pair {
    /// Hundredths of the samples of the one to go that the other has.
    share: usize,
    small: Side,
    large: Side,
}

impl Pair {
    fn is_edition(&self) -> bool {
        matches!((self.small, self.large), (Side::Package(one, _), Side::Package(other, _)) if one == other)
    }

    fn is_of_two_packages(&self) -> bool {
        matches!((self.small, self.large), (Side::Package(one, _), Side::Package(other, _)) if one != other)
    }
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let mut steps: BTreeMap<ModuleId, Vec<Mark>> = BTreeMap::new();
    let mut known: HashSet<ModuleId> = HashSet::new();
    for (file, shapes) in ground.shapes() {
        let mut here: BTreeMap<ModuleId, Vec<Mark>> = BTreeMap::new();
        for step in &shapes.steps {
            if let Some(module) = module_at(record, *file, step.at as u64) {
                here.entry(module).or_default().push(*step);
            }
        }
        // A module that stands in several files is looked at once.
        here.retain(|module, _| !known.contains(module));
        known.extend(here.keys());
        steps.extend(here);
    }
    let mut marks: BTreeMap<Side, HashSet<u64>> = BTreeMap::new();
    let mut modules: BTreeMap<Side, Vec<ModuleId>> = BTreeMap::new();
    for (module, steps) in &steps {
        let side = side(ground, *module);
        let digests = Shapes::marks(steps).into_iter().map(|mark| mark.digest);
        marks.entry(side).or_default().extend(digests);
        modules.entry(side).or_default().push(*module);
    }
    marks.retain(|_, marks| marks.len() >= MARKS);
    let mut holders: HashMap<u64, Vec<Side>> = HashMap::new();
    for (side, marks) in &marks {
        marks.iter().for_each(|mark| holders.entry(*mark).or_default().push(*side));
    }
    let mut shared: BTreeMap<(Side, Side), usize> = BTreeMap::new();
    for holders in holders.values().filter(|holders| holders.len() <= COMMON) {
        for (at, &one) in holders.iter().enumerate() {
            for &other in &holders[at + 1..] {
                if may_be_alike(ground, one, other) {
                    *shared.entry((one.min(other), one.max(other))).or_default() += 1;
                }
            }
        }
    }
    let cells = cells_of_modules(record, &ground.apart);
    let mut pairs: Vec<Pair> = Vec::new();
    for ((one, other), shared) in shared {
        let (small, large) = match marks[&one].len() <= marks[&other].len() {
            true => (one, other),
            false => (other, one),
        };
        let share = |side: Side| shared * 100 / marks[&side].len();
        // A copy in own code is the one to go, however large it is.
        let (small, large) = match large {
            Side::Own(_) if share(large) >= ALIKE => (large, small),
            _ => (small, large),
        };
        if share(small) >= ALIKE {
            pairs.push(Pair { share: share(small), small, large });
        }
    }
    // What is like several others could go once.
    pairs.sort_by_key(|pair| (std::cmp::Reverse(pair.share), pair.small, pair.large));
    let mut told: BTreeSet<Side> = BTreeSet::new();
    let mut found = Vec::new();
    for pair in pairs {
        if told.contains(&pair.large) || !told.insert(pair.small) {
            continue;
        }
        let of_small = &modules[&pair.small];
        let twins =
            [pair.small, pair.large].map(|side| twin(ground, side, pair.is_edition(), &modules));
        let is_part =
            pair.is_of_two_packages() && marks[&pair.large].len() >= marks[&pair.small].len() * 2;
        found.push(Found {
            names: twins.iter().map(Twin::called).collect(),
            cells: of_small
                .iter()
                .flat_map(|id| cells.get(id).into_iter().flatten())
                .copied()
                .collect(),
            with_wrappers: true,
            bound: Bound::AtMost,
            ..Found::of(About::TwinPackages {
                share: pair.share,
                twins,
                modules: of_small.len(),
                is_part,
            })
        });
    }
    found
}

fn side(ground: &Ground<'_>, id: ModuleId) -> Side {
    let module = ground.record().module(id);
    match module.package.filter(|_| module.third_party) {
        Some(package) => Side::Package(
            package,
            match module.format {
                Some(ModuleFormat::Es) => Some(Edition::Es),
                Some(ModuleFormat::CommonJs) => Some(Edition::CommonJs),
                _ => None,
            },
        ),
        None => Side::Own(id),
    }
}

/// Versions of one package are told of elsewhere, and own modules that are alike are no packages.
fn may_be_alike(ground: &Ground<'_>, one: Side, other: Side) -> bool {
    let packages = &ground.record().packages;
    match (one, other) {
        (Side::Own(_), Side::Own(_)) => false,
        (Side::Package(one, mine), Side::Package(other, theirs)) => match one == other {
            true => mine.is_some() && theirs.is_some() && mine != theirs,
            false => packages[one.at()].name != packages[other.at()].name,
        },
        _ => true,
    }
}

/// One of a pair, with a module outside it that imports it.
fn twin(
    ground: &Ground<'_>,
    side: Side,
    is_edition: bool,
    modules: &BTreeMap<Side, Vec<ModuleId>>,
) -> Twin {
    let record = ground.record();
    let (name, edition) = match side {
        Side::Own(id) => (&record.module(id).path, None),
        Side::Package(package, edition) => (&record.packages[package.at()].name, edition),
    };
    let is_inside = |id: ModuleId| match side {
        Side::Package(package, _) if !is_edition => record.module(id).package == Some(package),
        _ => self::side(ground, id) == side,
    };
    let askers = modules[&side].iter().flat_map(|&id| ground.network.askers(id));
    let outside = askers.map(|edge| edge.from).filter(|id| !is_inside(*id));
    Twin {
        name: name.clone(),
        edition: edition.filter(|_| is_edition),
        asked_by: ground.first_of(outside),
    }
}
