//! The step that narrows what comes whole to the names that a program reads of it.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{ModuleId, Texts};

use crate::{
    graph::{
        few::{Few, Whole, Wide},
        network::Network,
    },
    lens::Lens,
    predict::step::{Change, Rest, Step},
    select::{overlap::cells_of_modules, subject::Subject},
};

/// The step for a package, with all its installs, or for a module of own code.
///
/// # Errors
/// When it is not told which names are read, or what they are made of.
pub fn narrow(lens: &Lens<'_>, texts: &dyn Texts, subject: Subject) -> Result<Step, Wide> {
    let record = lens.record;
    let network = Network::of(record);
    let few = Few::new(record, &network, texts, cells_of_modules(record, &BTreeSet::new()));
    let mut wholes: BTreeMap<Whole, Vec<ModuleId>> = few.wholes();
    let meant: BTreeSet<Whole> = subject.modules.iter().map(|id| few.whole_of(*id)).collect();
    wholes.retain(|whole, _| meant.contains(whole));
    let mut rest = Rest::default();
    let mut first = None;
    let mut is_told = false;
    for (whole, ids) in wholes {
        match few.narrow(whole, &ids, 1) {
            Ok(narrow) => {
                is_told = true;
                rest.modules.extend(narrow.gone);
                rest.spans = rest.spans.or(&narrow.spans);
            }
            Err(Wide::Apart) => (is_told, rest.is_apart) = (true, true),
            Err(wide) => _ = first.get_or_insert(wide),
        }
    }
    match is_told {
        true => Ok(Step { rest, ..Step::new(Change::Narrow, subject) }),
        false => Err(first.unwrap_or(Wide::NotAsked)),
    }
}
