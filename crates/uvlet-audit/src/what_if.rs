//! What would be won if modules were loaded later, taken out, or left to another host, without a rebuild.
//!
//! The graph is changed as the steps say, each entry is followed again, and what it starts with is put
//! together from the emitted text of the modules that stay, and really encoded. The bundler's own glue
//! stays where it is, but for the wrapper right before a module that leaves, which goes with it; and a
//! startup that held no `import()` before gains the bundler's loading helper.

mod assemble;
mod follow;
mod habits;
mod plan_text;
mod predict;
mod suggest;
mod touch;

use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    Bundler, CellId, Entry, FileId, ModuleId, Record, Texts,
    sizes::{Coding, Measure, Sizes},
};

use crate::{
    graph::Reach,
    lens::{CellSet, Lens},
    nearest::remedy,
    selector::{self, Selector, SelectorError},
    why::{Network, subject::Subject},
};

use assemble::Assembly;
use follow::{Followed, Plan};
pub(crate) use habits::loading_helper;
use habits::splits;
pub use plan_text::{PlanText, plan_text};
use predict::{Move, Predicted, predict};
pub use suggest::{Means, Suggestion, Suggestions, confirm, suggest};

/// What is changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Change {
    /// Static imports of it become `import()`.
    Defer,
    /// It is taken out.
    Without,
    /// It is loaded from elsewhere.
    External,
    /// Who takes names from it, a file that hands them on, takes them from where they are declared.
    Bypass,
    /// It is put into a file of its own.
    Gather,
    /// It grows or shrinks to a size.
    Resize,
    /// Its contents change.
    Touch,
}

impl Change {
    /// What it is about is elsewhere then.
    fn takes_away(self) -> bool {
        matches!(self, Self::Defer | Self::Without | Self::External)
    }

    /// The word for it on a command line.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Defer => "defer",
            Self::Without => "without",
            Self::External => "external",
            Self::Bypass => "bypass",
            Self::Gather => "gather",
            Self::Resize => "resize",
            Self::Touch => "touch",
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
    /// Of what is deferred, the modules whose imports alone are; all where none are named.
    pub from: Option<Subject>,
    /// What a gathered file is called.
    pub name: String,
    /// The size that something grows or shrinks to, as emitted.
    pub bytes: u64,
}

impl Step {
    /// A change of a subject.
    #[must_use]
    pub fn new(change: Change, subject: Subject) -> Self {
        Self { change, subject, from: None, name: String::new(), bytes: 0 }
    }

    /// As it is typed.
    #[must_use]
    pub fn typed(&self) -> String {
        let (change, subject) = (self.change.name(), quoted(&self.subject.text));
        match (self.change, &self.from) {
            (Change::Gather, _) => {
                format!("--gather {}", quoted(&format!("{}={}", self.name, self.subject.text)))
            }
            (Change::Resize, _) => {
                format!("--resize {}", quoted(&format!("{}={} B", self.subject.text, self.bytes)))
            }
            (_, Some(from)) => {
                let text = format!("{} from {}", self.subject.text, from.text);
                format!("--{change} {}", quoted(&text))
            }
            _ => format!("--{change} {subject}"),
        }
    }
}

/// In quotes for a POSIX shell, where it needs them.
fn quoted(text: &str) -> String {
    let is_plain =
        |c: char| c.is_ascii_alphanumeric() || matches!(c, '/' | '.' | '-' | '_' | '@' | '=' | ':');
    match !text.is_empty() && text.chars().all(is_plain) {
        true => text.to_owned(),
        false => format!("'{}'", text.replace('\'', "'\\''")),
    }
}

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WhatIf {
    /// The steps as they are typed.
    pub steps: Vec<String>,
    /// The entry that wins most first.
    pub entries: Vec<EntryRow>,
    /// `assembled` where texts were put together and encoded, `shares` where traced shares were summed.
    pub basis: &'static str,
    /// Modules that are elsewhere then, the heaviest first.
    pub moved: Vec<Moved>,
    /// Chunks that were not there before.
    pub new_chunks: Vec<String>,
    /// Files that are there no more.
    pub vanished_files: Vec<String>,
    /// Visits in the order asked for, each with what it adds to those before.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub visits: Vec<VisitRow>,
    /// What the prediction does not know.
    pub doubts: Vec<Doubt>,
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
    /// The entry that is visited.
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

/// Something that the prediction does not know.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
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
    /// A visit of nothing.
    #[error("--visits {name}: no entry is called that, {remedy}")]
    Visit {
        /// As written.
        name: String,
        /// What to do.
        remedy: String,
    },
    /// What is weighed means nothing.
    #[error("--in: {0}")]
    Within(String),
    /// What is weighed cannot be read.
    #[error("--in: {0}")]
    Selector(#[from] SelectorError),
    /// Nobody knows who asks for whom.
    #[error(
        "who asks for whom is not known of this build, so that what would follow cannot be told"
    )]
    NoEdges,
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
            let found = selector::select(selector, lens)?;
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
    let asked: Vec<usize> =
        visits.iter().map(|name| visited(record, name)).collect::<Result<_, _>>()?;
    let assembly = Assembly::new(record, texts, sizer, codings);
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
    let visits = asked.into_iter().map(|at| {
        let now = lens.reach[at].startup.iter().copied();
        let later = predicted.reach[at].startup.iter().copied();
        VisitRow {
            entry: record.entries[at].name.clone(),
            before: before.part(now.filter(|file| seen.insert(*file)), codings),
            after: after.part(later.filter(|file| seen_then.insert(*file)), codings),
        }
    });
    let visits = visits.collect();
    let doubts = doubts(record, &plan, steps, &assembly, &predicted.moved);
    Ok(WhatIf {
        steps: steps.iter().map(Step::typed).collect(),
        entries,
        basis: if assembly.has_texts() { "assembled" } else { "shares" },
        moved: rows(lens, predicted.moved),
        new_chunks: predicted.new,
        vanished_files: predicted.vanished,
        visits,
        doubts,
    })
}

/// The record of a build as it would be, with what entries load of it: what budgets are held against.
///
/// # Errors
/// When a step would leave nothing of an entry, or no edge is known.
pub fn as_it_would_be(
    lens: &Lens<'_>,
    steps: &[Step],
    texts: &dyn Texts,
    sizer: &dyn Sizer,
    codings: &[Coding],
) -> Result<(Record, Vec<Reach>), WhatIfError> {
    let record = lens.record;
    let assembly = Assembly::new(record, texts, sizer, codings);
    let network = Network::of(record);
    let plan = Plan::new(record, &network, steps, texts);
    let Predicted { record, reach, .. } = predicted(lens, &plan, steps, &assembly)?;
    Ok((record, reach))
}

fn predicted(
    lens: &Lens<'_>,
    plan: &Plan<'_>,
    steps: &[Step],
    assembly: &Assembly<'_>,
) -> Result<Predicted, WhatIfError> {
    let record = lens.record;
    let asks_for_edges =
        |step: &Step| !matches!(step.change, Change::Gather | Change::Resize | Change::Touch);
    if record.edges.is_empty() && steps.iter().any(asks_for_edges) {
        return Err(WhatIfError::NoEdges);
    }
    for step in steps.iter().filter(|step| asks_for_edges(step)) {
        let is_its = |id: &ModuleId| step.subject.has(*id);
        let begins = record.entries.iter().find(|entry| entry.roots.iter().any(is_its));
        if let Some(entry) = begins {
            return Err(WhatIfError::Root {
                change: step.change.name(),
                subject: step.subject.text.clone(),
                entry: entry.name.clone(),
            });
        }
    }
    let followed: Vec<Followed> = record.entries.iter().map(|entry| plan.follow(entry)).collect();
    Ok(predict(lens, plan, steps, &followed, assembly))
}

/// The entry of a name, or that serves a route.
fn visited(record: &Record, name: &str) -> Result<usize, WhatIfError> {
    let goes_by = |entry: &Entry| {
        let names = entry.aliases.iter().chain(&entry.routes).chain([&entry.name]);
        let bare = |one: &str| one.trim_matches('/').to_owned();
        names.into_iter().any(|one| one == name || bare(one) == bare(name))
    };
    record.entries.iter().position(goes_by).ok_or_else(|| WhatIfError::Visit {
        name: name.to_owned(),
        remedy: remedy(name, record.entries.iter().map(|entry| entry.name.as_str())),
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

fn doubts(
    record: &Record,
    plan: &Plan<'_>,
    steps: &[Step],
    assembly: &Assembly<'_>,
    moved: &[Move],
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
                "the build loads nothing on demand yet: what the bundler needs for that is taken from its habit, {helper}"
            ),
        );
    }
    if defers && !splits(record) {
        say(
            "no-splitting",
            "esbuild puts what is loaded on demand into the same file unless it is asked to split; this is told as if it were, for this alone".to_owned(),
        );
    }
    let gathers = steps.iter().any(|step| step.change == Change::Gather);
    if gathers && matches!(record.bundler, Some(Bundler::Webpack | Bundler::Rspack)) {
        say(
            "gathered-apart",
            "modules that are merged into one function now are wrapped one by one where several entries share their file: 1% to 3.5% more was seen in real builds".to_owned(),
        );
    }
    for id in plan.unknown_barrels() {
        say(
            "no-barrel",
            format!(
                "{} does more than hand on names, or it is not known what it hands on: who asks for it still does",
                record.module(id).path
            ),
        );
    }
    let are_moved: BTreeSet<ModuleId> = moved.iter().map(|one| one.module).collect();
    for step in steps.iter().filter(|step| step.change.takes_away()) {
        let is_moved = step.subject.modules.iter().any(|id| are_moved.contains(id));
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
