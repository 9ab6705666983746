//! What would be won if modules were loaded later, taken out, or left to another host, without a rebuild.
//!
//! The graph is changed as the steps say, each entry is followed again, and what it starts with is put
//! together from the emitted text of the modules that stay, and really encoded. The bundler's own glue
//! stays where it is, but for the wrapper right before a module that leaves, which goes with it; and a
//! startup that held no `import()` before gains the bundler's loading helper.

use crate::graph::visits::Visit;
use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    CellId, Entry, FileId, Record, Texts,
    sizes::{Coding, Measure, Sizes},
};

use crate::{
    ask::doubts::{Doubt, doubts},
    graph::{network::Network, reach::Reach},
    lens::Lens,
    parts::cells::CellSet,
    predict::{
        assemble::Assembly,
        cascade::Move,
        follow::Plan,
        outcome::{WhatIfError, predicted},
        step::{Planned, Step},
    },
    select::{evaluate, nearest::Known, selector::Selector},
};

/// The answer.
#[derive(Debug)]
pub struct WhatIf {
    /// The steps.
    pub steps: Vec<Planned>,
    /// The entry that wins most first.
    pub entries: Vec<EntryRow>,
    /// How sizes were found.
    pub basis: Basis,
    /// Modules that are elsewhere then, the heaviest first.
    pub moved: Vec<Moved>,
    /// Chunks that were not there before.
    pub new_chunks: Vec<String>,
    /// Files that are there no more.
    pub vanished_files: Vec<String>,
    /// Visits in the order asked for, each with what it adds to those before.
    pub visits: Vec<VisitRow>,
    /// What the prediction does not know.
    pub doubts: Vec<Doubt>,
}

/// How sizes of a prediction were found.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Basis {
    /// Texts were put together and encoded.
    Assembled,
    /// Traced shares were summed.
    Shares,
}

/// An entry, as it is and as it would be.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryRow {
    /// Its name.
    pub name: String,
    /// As it is.
    pub before: Loads,
    /// As it would be.
    pub after: Loads,
    /// What somebody fetches again once the change is rolled out who has its files in the cache.
    pub return_visit: Part,
}

/// A visit after others.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct VisitRow {
    /// The entry that is visited, or the route.
    pub entry: String,
    /// What it fetches before its code can run that no visit before it fetched, as the build is.
    pub before: Part,
    /// The same, as it would be.
    pub after: Part,
}

/// What an entry loads.
#[derive(Clone, Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Loads {
    /// Before its own code can run.
    pub startup: Part,
    /// On demand.
    pub deferred: Part,
}

/// Some files.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Part {
    /// Their sizes.
    pub sizes: Sizes,
    /// Their number.
    pub file_count: usize,
}

/// A module that is elsewhere then.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Moved {
    /// Its path.
    pub module: String,
    /// The chunk that it leaves.
    pub from: String,
    /// What it is in then: a new chunk, by what it holds; none where it is in no file any more.
    pub to: Option<String>,
    /// Its sizes as they are.
    pub sizes: Sizes,
}

/// What is asked besides the steps.
#[derive(Clone, Copy, Default)]
pub struct Asked<'a> {
    /// Entries that are visited in this order.
    pub visits: &'a [String],
    /// Only what a selector names is weighed.
    pub within: Option<&'a Selector>,
}

/// A build as it is, or as it would be, with the cells that are weighed; all where none are named.
struct Half<'h> {
    record: &'h Record,
    within: Option<CellSet>,
}

impl<'h> Half<'h> {
    fn new(lens: &Lens<'h>, within: Option<&Selector>) -> Result<Self, WhatIfError> {
        let cells = |selector: &Selector| -> Result<CellSet, WhatIfError> {
            let found = evaluate::select(selector, lens)?;
            match found.lack() {
                Some(message) => Err(WhatIfError::Within(message)),
                None => Ok(found.cells),
            }
        };
        Ok(Self { record: lens.record, within: within.map(cells).transpose()? })
    }

    /// What some files weigh.
    fn part(&self, files: impl Iterator<Item = FileId>, codings: &[Coding]) -> Part {
        let mut part = Part::default();
        codings.iter().for_each(|&coding| part.sizes.set(Measure::Coded(coding), 0));
        let mut inside = self.record.zero();
        for id in files {
            let file = self.record.file(id);
            if let Some(within) = &self.within {
                let cells = file.cells.clone().map(CellId::new).filter(|cell| within.has(*cell));
                let mut is_any = false;
                for cell in cells {
                    let amount = self.record.cells[cell.at()].amount;
                    is_any |= amount.emitted > 0;
                    inside += amount;
                }
                part.file_count += usize::from(is_any);
            } else if file.emitted > 0 {
                let mut sizes = Sizes { emitted: file.emitted, ..Sizes::default() };
                for &coding in codings {
                    let bytes = file.encoded.get(coding).copied();
                    bytes.into_iter().for_each(|bytes| sizes.set(Measure::Coded(coding), bytes));
                }
                add(&mut part, sizes);
                part.file_count += 1;
            }
        }
        if self.within.is_some() {
            part.sizes = inside.sizes();
        }
        part
    }

    fn loads(&self, reach: &Reach, codings: &[Coding]) -> Loads {
        Loads {
            startup: self.part(reach.startup.iter().copied(), codings),
            deferred: self.part(reach.deferred.iter(), codings),
        }
    }
}

/// Predicts what some steps do. The codings are those that `sizer` takes at the record's levels.
///
/// # Errors
/// When a step would leave nothing of an entry, or no edge is known.
pub fn what_if(
    lens: &Lens<'_>,
    steps: &[Step],
    asked: Asked<'_>,
    texts: &dyn Texts,
    sizer: &dyn Sizer,
    codings: &[Coding],
) -> Result<WhatIf, WhatIfError> {
    let Asked { visits, within } = asked;
    let record = lens.record;
    let before = Half::new(lens, within)?;
    let asked: Vec<Visited> =
        visits.iter().map(|name| visited(lens, name)).collect::<Result<_, _>>()?;
    let assembly = Assembly::new(record, texts, sizer, codings).without(steps);
    let network = Network::of(record);
    let plan = Plan::new(record, &network, steps, texts);
    let predicted = predicted(lens, &plan, steps, &assembly)?;
    let then = Lens::with_reach(&predicted.record, predicted.reach.clone());
    let after = Half::new(&then, within)?;
    let mut entries = Vec::new();
    for (at, entry) in record.entries.iter().enumerate() {
        let reach = &predicted.reach[at];
        let fetched = reach.startup.iter().copied();
        let fetched = fetched.filter(|file| predicted.changed.contains(file));
        entries.push(EntryRow {
            name: entry.name.clone(),
            before: before.loads(&lens.reach[at], codings),
            after: after.loads(reach, codings),
            return_visit: after.part(fetched, codings),
        });
    }
    entries.sort_by(|a, b| {
        let won = |row: &EntryRow| {
            let bytes = |part: &Part| i128::from(part.sizes.emitted);
            bytes(&row.before.startup) - bytes(&row.after.startup)
        };
        let fetched = |row: &EntryRow| row.return_visit.sizes.emitted;
        won(b).cmp(&won(a)).then(fetched(b).cmp(&fetched(a))).then_with(|| a.name.cmp(&b.name))
    });
    let (mut seen, mut seen_then) = (BTreeSet::new(), BTreeSet::new());
    let visits = asked.into_iter().map(|visit| {
        let now = visit.files(lens).into_iter();
        let later = visit.files(&then).into_iter();
        VisitRow {
            before: before.part(now.filter(|file| seen.insert(*file)), codings),
            after: after.part(later.filter(|file| seen_then.insert(*file)), codings),
            entry: visit.route.unwrap_or_else(|| record.entries[visit.entry].name.clone()),
        }
    });
    let visits = visits.collect();
    let doubts = doubts(record, &plan, steps, &assembly, &predicted.moved);
    Ok(WhatIf {
        steps: steps.iter().map(Step::planned).collect(),
        entries,
        basis: if assembly.has_texts() { Basis::Assembled } else { Basis::Shares },
        moved: rows(lens, predicted.moved),
        new_chunks: predicted.new,
        vanished_files: predicted.vanished,
        visits,
        doubts,
    })
}

/// A visit of an entry, or of a route that it serves.
struct Visited {
    entry: usize,
    /// The route, where it loads more than the entry does.
    route: Option<String>,
}

impl Visited {
    /// What it fetches before it can be seen, in order.
    fn files(&self, lens: &Lens<'_>) -> Vec<FileId> {
        let is_it =
            |visit: &&Visit| visit.entry == self.entry && Some(&visit.route) == self.route.as_ref();
        let adds = lens.visits.iter().find(is_it).map(|visit| visit.adds.as_slice());
        let startup = &lens.reach[self.entry].startup;
        startup.iter().chain(adds.unwrap_or_default()).copied().collect()
    }
}

/// The entry of a name, or the route: of several entries that serve it, the first.
fn visited(lens: &Lens<'_>, name: &str) -> Result<Visited, WhatIfError> {
    let record = lens.record;
    // `/` is the page `index`.
    let bare = |one: &str| match one.trim_matches('/') {
        "index" => String::new(),
        other => other.to_owned(),
    };
    let entry = |is_it: &dyn Fn(&str) -> bool| {
        let names = |entry: &Entry| {
            let mut names = entry.aliases.iter().chain(&entry.routes).chain([&entry.name]);
            names.any(|one| is_it(one))
        };
        let entry = record.entries.iter().position(names)?;
        Some(Visited { entry, route: None })
    };
    let route = || {
        let visit = lens.visits.iter().find(|visit| bare(&visit.route) == bare(name))?;
        Some(Visited { entry: visit.entry, route: Some(visit.route.clone()) })
    };
    let found = entry(&|one| one == name).or_else(route);
    let found = found.or_else(|| entry(&|one| bare(one) == bare(name)));
    found.ok_or_else(|| {
        let names = record.entries.iter().map(|entry| &entry.name);
        let names = names.chain(lens.visits.iter().map(|visit| &visit.route));
        WhatIfError::Visit {
            name: name.to_owned(),
            known: Known::of(name, names.map(String::as_str)),
        }
    })
}

fn add(part: &mut Part, sizes: Sizes) {
    for measure in sizes.measures() {
        let sum = part.sizes.get(measure).saturating_add(sizes.get(measure));
        part.sizes.set(measure, sum);
    }
}

fn rows(lens: &Lens<'_>, moved: Vec<Move>) -> Vec<Moved> {
    let record = lens.record;
    let row = |one: Move| Moved {
        module: record.module(one.module).path.clone(),
        from: lens
            .chunk_of(one.from)
            .map_or(record.file(one.from).path.as_str(), |chunk| &chunk.name)
            .to_owned(),
        to: one.to,
        sizes: one.amount.sizes(),
    };
    let mut rows: Vec<Moved> = moved.into_iter().map(row).collect();
    rows.sort_by(|a, b| {
        let key = |row: &Moved| {
            (std::cmp::Reverse(row.sizes.emitted), row.module.clone(), row.from.clone())
        };
        key(a).cmp(&key(b))
    });
    rows
}
