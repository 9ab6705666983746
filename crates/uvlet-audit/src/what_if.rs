//! What would be won if modules were loaded later, taken out, or left to another host, without a rebuild.
//!
//! The graph is changed as the steps say, each entry is followed again, and what it starts with is put
//! together from the emitted text of the modules that stay, and really encoded. The bundler's own glue
//! stays where it is.

mod assemble;
mod follow;
mod habits;

use std::collections::{BTreeMap, BTreeSet};

use schemars::JsonSchema;
use serde::Serialize;
use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    CellId, FileId, ModuleId, Owner, Record, Texts,
    sizes::{Coding, Sizes},
};

use crate::{
    lens::{CellSet, Lens},
    why::subject::Subject,
};

use assemble::Assembly;
use follow::{Followed, Plan};
pub(crate) use habits::loading_helper;

/// What is changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Change {
    /// Static imports of it become `import()`.
    Defer,
    /// It is taken out.
    Without,
    /// It is loaded from elsewhere.
    External,
}

impl Change {
    /// The word for it on a command line.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Defer => "defer",
            Self::Without => "without",
            Self::External => "external",
        }
    }
}

/// One change.
#[derive(Debug)]
pub struct Step {
    /// What is done.
    pub change: Change,
    /// To what.
    pub subject: Subject,
}

/// The answer.
#[derive(Debug, Serialize, JsonSchema)]
pub struct WhatIf {
    /// The steps as they are typed.
    pub steps: Vec<String>,
    /// The entry that wins most first.
    pub entries: Vec<EntryRow>,
    /// `assembled` where texts were put together and encoded, `shares` where traced shares were summed.
    pub basis: &'static str,
    /// Modules that are elsewhere then, the heaviest first.
    pub moved: Vec<Moved>,
    /// What the prediction does not know.
    pub doubts: Vec<Doubt>,
}

/// An entry, as it is and as it would be.
#[derive(Debug, Serialize, JsonSchema)]
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

/// What an entry loads.
#[derive(Clone, Debug, Serialize, JsonSchema)]
pub struct Loads {
    /// Before its own code can run.
    pub startup: Part,
    /// On demand.
    pub deferred: Part,
}

/// Some files.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, JsonSchema)]
pub struct Part {
    /// Their sizes.
    pub sizes: Sizes,
    /// Their number.
    pub file_count: usize,
}

/// A module that is elsewhere then.
#[derive(Debug, Serialize, JsonSchema)]
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

/// Something that the prediction does not know.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, JsonSchema)]
pub struct Doubt {
    /// A stable word.
    pub code: &'static str,
    /// One sentence.
    pub message: String,
}

/// Why there is no answer.
#[derive(Debug, thiserror::Error)]
pub enum WhatIfError {
    /// It is where an entry begins.
    #[error("--{change} {subject}: {entry} begins there, so that nothing would be left of it")]
    Root {
        /// The step.
        change: &'static str,
        /// What was named.
        subject: String,
        /// The entry.
        entry: String,
    },
    /// Nobody knows who asks for whom.
    #[error(
        "who asks for whom is not known of this build, so that what would follow cannot be told"
    )]
    NoEdges,
}

/// Predicts what some steps do, one after the other. The codings are those that `sizer` takes at the
/// record's levels.
///
/// # Errors
/// When a step would leave nothing of an entry, or no edge is known.
pub fn what_if(
    lens: &Lens<'_>,
    steps: &[Step],
    texts: &dyn Texts,
    sizer: &dyn Sizer,
    codings: &[Coding],
) -> Result<WhatIf, WhatIfError> {
    let record = lens.record;
    if record.edges.is_empty() {
        return Err(WhatIfError::NoEdges);
    }
    for Step { change, subject } in steps {
        let begins =
            record.entries.iter().find(|entry| entry.roots.iter().any(|&id| subject.has(id)));
        if let Some(entry) = begins {
            return Err(WhatIfError::Root {
                change: change.name(),
                subject: subject.text.clone(),
                entry: entry.name.clone(),
            });
        }
    }
    let plan = Plan::new(record, steps);
    let followed: Vec<Followed> = record.entries.iter().map(|entry| plan.follow(entry)).collect();
    let assembly = Assembly::new(record, texts, sizer, codings);
    let mut entries = Vec::new();
    let mut moved: BTreeMap<ModuleId, (BTreeSet<FileId>, bool)> = BTreeMap::new();
    for ((entry, reach), follow) in record.entries.iter().zip(&lens.reach).zip(&followed) {
        let mut startup = Part::default();
        let mut startup_before = Part::default();
        let mut return_visit = Part::default();
        for &file in &reach.startup {
            let leaving = leaving(record, file, |id| follow.leaves_startup(id));
            for id in &leaving {
                if let Owner::Module(module) = record.cells[id.at()].owner {
                    let (files, stays) = moved.entry(module).or_default();
                    files.insert(file);
                    *stays |= follow.is_later(module);
                }
            }
            let whole = assembly.whole(file);
            add(&mut startup_before, whole, 1);
            let is_edited = !leaving.is_empty() || plan.edits(record, file);
            let after = if leaving.is_empty() { whole } else { assembly.without(file, &leaving) };
            if after.emitted > 0 {
                add(&mut startup, after, 1);
                if is_edited {
                    add(&mut return_visit, after, 1);
                }
            }
        }
        let mut deferred = Part::default();
        let mut deferred_before = Part::default();
        for &file in &reach.deferred {
            let leaving =
                leaving(record, file, |id| !follow.is_needed(id) && follow.was_needed(id));
            let whole = assembly.whole(file);
            add(&mut deferred_before, whole, 1);
            let after = if leaving.is_empty() { whole } else { assembly.without(file, &leaving) };
            if after.emitted > 0 {
                add(&mut deferred, after, 1);
            }
        }
        // What leaves startup and can come later is a file of its own for each thing that is deferred.
        for chunk in plan.chunks(&followed, follow) {
            let cells: Vec<CellId> = reach
                .startup
                .iter()
                .flat_map(|&file| leaving(record, file, |id| chunk.contains(&id)))
                .collect();
            if !cells.is_empty() {
                add(&mut deferred, assembly.alone(&cells), 1);
            }
        }
        entries.push(EntryRow {
            name: entry.name.clone(),
            before: Loads { startup: startup_before, deferred: deferred_before },
            after: Loads { startup, deferred },
            return_visit,
        });
    }
    entries.sort_by(|a, b| {
        let won = |row: &EntryRow| {
            let bytes = |part: &Part| i128::from(part.sizes.emitted);
            bytes(&row.before.startup) - bytes(&row.after.startup)
        };
        won(b).cmp(&won(a)).then_with(|| a.name.cmp(&b.name))
    });
    let doubts = doubts(record, &plan, steps, &assembly, &moved);
    Ok(WhatIf {
        steps: steps
            .iter()
            .map(|step| format!("--{} {}", step.change.name(), step.subject.text))
            .collect(),
        entries,
        basis: if assembly.has_texts() { "assembled" } else { "shares" },
        moved: rows(lens, &plan, moved),
        doubts,
    })
}

fn add(part: &mut Part, sizes: Sizes, files: usize) {
    for measure in sizes.measures() {
        let sum = part.sizes.get(measure).saturating_add(sizes.get(measure));
        part.sizes.set(measure, sum);
    }
    part.file_count += files;
}

/// The cells of a file whose modules pass a test.
fn leaving(record: &Record, file: FileId, test: impl Fn(ModuleId) -> bool) -> Vec<CellId> {
    let cells = record.file(file).cells.clone();
    let cells = cells.map(CellId::new);
    cells
        .filter(|id| {
            let cell = &record.cells[id.at()];
            cell.amount.emitted > 0 && matches!(cell.owner, Owner::Module(module) if test(module))
        })
        .collect()
}

fn rows(
    lens: &Lens<'_>,
    plan: &Plan<'_>,
    moved: BTreeMap<ModuleId, (BTreeSet<FileId>, bool)>,
) -> Vec<Moved> {
    let record = lens.record;
    let mut rows: Vec<Moved> = Vec::new();
    for (module, (files, is_later)) in moved {
        for file in files {
            let cells: CellSet = leaving(record, file, |id| id == module).into_iter().collect();
            let from =
                lens.chunk_of(file).map_or(record.file(file).path.as_str(), |chunk| &chunk.name);
            rows.push(Moved {
                module: record.module(module).path.clone(),
                from: from.to_owned(),
                to: is_later.then(|| plan.name_of(module)),
                sizes: lens.amount(&cells).sizes(),
            });
        }
    }
    rows.sort_by(|a, b| {
        let key = |row: &Moved| {
            (std::cmp::Reverse(row.sizes.emitted), row.module.clone(), row.from.clone())
        };
        key(a).cmp(&key(b))
    });
    rows
}

fn doubts(
    record: &Record,
    plan: &Plan<'_>,
    steps: &[Step],
    assembly: &Assembly<'_>,
    moved: &BTreeMap<ModuleId, (BTreeSet<FileId>, bool)>,
) -> Vec<Doubt> {
    let mut doubts = Vec::new();
    let mut say = |code: &'static str, message: String| doubts.push(Doubt { code, message });
    let defers = steps.iter().any(|step| step.change == Change::Defer);
    let has_loads = !record.dynamic_loads.is_empty();
    if defers && !has_loads {
        let helper = loading_helper(record.bundler);
        say(
            "loading-helper",
            format!(
                "the build loads nothing on demand yet: what the bundler needs for that, {helper}, is not counted"
            ),
        );
    }
    for step in steps {
        let is_moved = step.subject.modules.iter().any(|id| moved.contains_key(id));
        if !is_moved && step.subject.cells.iter().next().is_some() {
            let text = &step.subject.text;
            let message = match step.change {
                Change::Defer => format!(
                    "{text} is not at startup of any entry by imports that could be deferred"
                ),
                _ => format!("{text} is at startup of no entry"),
            };
            say("nothing-moves", message);
        }
        if step.change == Change::External {
            let bytes: u64 =
                step.subject.cells.iter().map(|id| record.cells[id.at()].amount.emitted).sum();
            say(
                "elsewhere",
                format!(
                    "{} is fetched from elsewhere then: {bytes} B as emitted here, which are no gain for who has not got it",
                    step.subject.text
                ),
            );
        }
    }
    if !assembly.has_texts() {
        say(
            "no-texts",
            "texts are not at hand: shares of streams are summed, which may be off by 1%"
                .to_owned(),
        );
    }
    if plan.has_inferred() {
        say(
            "edges",
            "who asks for whom is read from the sources in part, and may lack some".to_owned(),
        );
    }
    if !record.unresolved_requests.is_empty() {
        let number = record.unresolved_requests.len();
        say("requests", format!("{number} requests of sources could not be followed"));
    }
    doubts.sort();
    doubts
}
