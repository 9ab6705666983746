//! What need not be there: code that is there more than once, or for nobody.
//!
//! Every kind of finding is a file here and a line in [`ALL`]. A finding names bytes; findings overlap,
//! so that what they come to together is the union, never the sum.

mod alike;
mod barely;
mod barrel;
mod carried;
mod copied;
mod copied_text;
mod dead;
mod environment;
mod family;
mod helpers;
mod judged;
mod later;
pub mod patch;
mod versions;
mod wrappers;

use std::{
    collections::{BTreeMap, BTreeSet},
    panic::{AssertUnwindSafe, catch_unwind},
    sync::OnceLock,
};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use serde::Serialize;
use uvlet_record::{
    Basis, Cell, CellId, Costs, FileId, LoadKind, ModuleId, Owner, Record, Texts,
    sizes::{Amount, Measure, Sizes},
};

use uvlet_script::{Dialect, read, shapes::Shapes};

pub use carried::carried;
pub use copied::{repeats, repeats_of};

use crate::{
    barrels::Sight,
    coverage::Ran,
    lens::{CellSet, Lens},
    liveness::{Liveness, liveness},
    spans::{Prices, Spans},
    why::Network,
};
pub use judged::{Judged, Need, checked, missing};
pub(crate) use wrappers::wrappers;

/// What is found.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Kind {
    /// One module in several scripts or styles.
    CopiedModule,
    /// The same code in several scripts, told by their texts alone.
    CopiedText,
    /// One package in several installs.
    SeveralVersions,
    /// Two packages, or two editions of one, that hold mostly the same code.
    LookalikePackages,
    /// One function written into many modules.
    CopiedHelper,
    /// A folder of many siblings that one index draws in.
    WholeFamily,
    /// Code at startup that nothing in the entry reaches.
    CarriedAlong,
    /// Code for developers or for servers.
    WrongEnvironment,
    /// A CommonJS package that comes whole for a few of its names.
    BarelyUsed,
    /// Modules that a file which only hands on names draws into an entry that uses none of them.
    BarrelPull,
    /// What waits for somebody to act, and is there at startup.
    Deferrable,
    /// Declarations that nothing uses.
    DeadDeclaration,
    /// Declarations that nothing uses and whose evaluation may do something.
    KeptForEffect,
}

impl Kind {
    /// Every kind there is.
    pub const ALL: [Self; 13] = [
        Self::CopiedModule,
        Self::CopiedText,
        Self::SeveralVersions,
        Self::LookalikePackages,
        Self::CopiedHelper,
        Self::WholeFamily,
        Self::CarriedAlong,
        Self::WrongEnvironment,
        Self::BarelyUsed,
        Self::BarrelPull,
        Self::Deferrable,
        Self::DeadDeclaration,
        Self::KeptForEffect,
    ];

    /// Its bytes stay in the build: they could only come at another time.
    #[must_use]
    pub fn stays(self) -> bool {
        self == Self::Deferrable
    }

    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::CopiedModule => "copied-module",
            Self::CopiedText => "copied-text",
            Self::SeveralVersions => "several-versions",
            Self::LookalikePackages => "lookalike-packages",
            Self::CopiedHelper => "copied-helper",
            Self::WholeFamily => "whole-family",
            Self::CarriedAlong => "carried-along",
            Self::WrongEnvironment => "wrong-environment",
            Self::BarelyUsed => "barely-used",
            Self::BarrelPull => "barrel-pull",
            Self::Deferrable => "deferrable",
            Self::DeadDeclaration => "dead-declaration",
            Self::KeptForEffect => "kept-for-effect",
        }
    }
}

/// Something that is no kind of finding.
#[derive(Debug, thiserror::Error)]
#[error("there is no kind `{name}`, {}", crate::nearest::remedy(.name, Kind::ALL.iter().map(|kind| kind.name())))]
pub struct UnknownKind {
    name: String,
}

impl std::str::FromStr for Kind {
    type Err = UnknownKind;

    fn from_str(text: &str) -> Result<Self, UnknownKind> {
        let kind = Self::ALL.into_iter().find(|kind| kind.name() == text);
        kind.ok_or_else(|| UnknownKind { name: text.to_owned() })
    }
}

/// A way to find.
type Find = fn(&Ground<'_>) -> Vec<Found>;

/// The ways to find, one per kind.
const ALL: [(Kind, Find); 13] = [
    (Kind::CopiedModule, copied::find),
    (Kind::CopiedText, copied_text::find),
    (Kind::SeveralVersions, versions::find),
    (Kind::LookalikePackages, alike::find),
    (Kind::CopiedHelper, helpers::find),
    (Kind::WholeFamily, family::find),
    (Kind::CarriedAlong, carried::find),
    (Kind::WrongEnvironment, environment::find),
    (Kind::BarelyUsed, barely::find),
    (Kind::BarrelPull, barrel::find),
    (Kind::Deferrable, later::find),
    (Kind::DeadDeclaration, dead::find),
    (Kind::KeptForEffect, dead::find_kept),
];

/// Parts that a finding lists at most.
const PARTS: usize = 1000;

/// What is looked at.
pub struct Ground<'a> {
    /// The record.
    pub lens: &'a Lens<'a>,
    /// Emitted texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// Languages that are wanted; none are named where all may be.
    pub languages: &'a [String],
    network: Network<'a>,
    apart: BTreeSet<FileId>,
    liveness: OnceLock<Liveness>,
    shapes: OnceLock<Vec<(FileId, Shapes)>>,
}

/// A finding as it is made.
#[derive(Default)]
struct Found {
    title: String,
    /// What tells it from all others, in whatever build: paths of modules, or names of packages.
    names: BTreeSet<String>,
    cells: CellSet,
    /// What is less than a cell.
    spans: Spans,
    parts: Vec<Part>,
    bound: Bound,
    /// The bundler's wrappers around what goes would go with it.
    with_wrappers: bool,
    /// What an entry would start without; none where that is the cells in its startup.
    by_entry: Option<BTreeMap<usize, Stock>>,
    cause: String,
    advice: String,
}

/// How sure a saving is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Bound {
    /// These bytes, neither more nor fewer.
    Exact,
    /// These bytes, or fewer.
    #[default]
    AtMost,
}

impl Bound {
    /// The word for it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Exact => "exact",
            Self::AtMost => "at most",
        }
    }
}

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Waste {
    /// What could go at startup of each entry, all findings together, the most first.
    pub at_startup: Vec<EntryShare>,
    /// What could go from the build, all findings together.
    pub recoverable: Sizes,
    /// The one that saves most at startup first.
    pub findings: Vec<Finding>,
    /// What each kind could judge: of the rest, that nothing was found says nothing.
    pub judged: Vec<Judged>,
    /// Emitted bytes of styles that no kind could judge, as no map says what they are made of.
    pub unjudged_styles: u64,
    #[serde(skip)]
    prices: Prices,
}

/// One finding.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Finding {
    /// Its kind with eight digits that last from build to build.
    pub id: String,
    /// What it is.
    pub kind: Kind,
    /// One line.
    pub title: String,
    /// Paths of modules, or places of packages.
    #[serde(rename = "where")]
    pub paths: Vec<String>,
    /// How sure the saving is.
    pub bound: Bound,
    /// What could go from the build.
    pub recoverable: Sizes,
    /// The entry that gains most at startup; none where none does.
    pub at: Option<String>,
    /// What could go at startup of each entry that gains, the most first.
    pub by_entry: Vec<EntryShare>,
    /// What it comes from.
    pub cause: String,
    /// What to do.
    pub advice: String,
    /// What the entry that gains most would start without, by a prediction, where one was asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub predicted: Option<EntryShare>,
    /// The waiver that accepts it, if it is no larger than that allows and the day has not passed.
    pub waived: Option<Accepted>,
    /// Of what is less than a module, each part, the largest first.
    pub parts: Vec<Part>,
    /// Where it stands in emitted files, where positions are known.
    pub places: Vec<Span>,
    /// The bytes themselves: whole cells, and stretches that are less.
    #[serde(skip)]
    pub cells: CellSet,
    /// Stretches.
    #[serde(skip)]
    pub spans: Spans,
}

/// What a finding stands on: a declaration, or a use of a name.
#[derive(Clone, Debug, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Part {
    /// Its name in the source.
    pub name: String,
    /// The module that it comes from.
    pub module: Option<String>,
    /// Of a use, the line in the source, from 1.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line: Option<usize>,
    /// Of a use, what it waits for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub why: Option<String>,
    /// The bytes of a declaration in the emitted file.
    pub emitted: u64,
    /// The start of its text there; of a use, the text around it in the source.
    pub text: String,
}

/// For how long a finding is accepted, and why.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Accepted {
    /// The last day, in UTC.
    pub until: String,
    /// Why.
    pub reason: String,
}

/// What an entry would start without.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct EntryShare {
    /// The entry.
    pub entry: String,
    /// The bytes.
    pub sizes: Sizes,
}

/// A stretch of an emitted file.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Span {
    /// The file.
    pub file: String,
    /// First byte.
    pub start: u64,
    /// Bytes.
    pub length: u64,
}

/// Which findings are asked for.
#[derive(Clone, Debug, Default)]
pub struct Wanted {
    /// Of these kinds; of all where none is named.
    pub kinds: Vec<Kind>,
    /// Only what is among these bytes.
    pub within: Option<CellSet>,
    /// Findings that save less, in the measure, are left out.
    pub min: u64,
}

/// What findings are made from besides the record.
#[derive(Clone, Copy)]
pub struct Aids<'a> {
    /// Texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// What stretches of files cost; without, bits are shared out in proportion.
    pub costs: Option<&'a dyn Costs>,
    /// Languages that are wanted; none are named where all may be.
    pub languages: &'a [String],
    /// What ran in recordings of a browser, and their number.
    pub ran: Option<(&'a Ran, usize)>,
}

/// Finds what need not be there; sizes are ordered in a measure.
#[must_use]
pub fn waste(lens: &Lens<'_>, aids: Aids<'_>, wanted: &Wanted, measure: Measure) -> Waste {
    let record = lens.record;
    let ground = Ground {
        lens,
        texts: aids.texts,
        languages: aids.languages,
        network: Network::of(record),
        apart: apart(record),
        liveness: OnceLock::new(),
        shapes: OnceLock::new(),
    };
    let is_wanted = |kind: &Kind| wanted.kinds.is_empty() || wanted.kinds.contains(kind);
    let kinds: Vec<Kind> = Kind::ALL.into_iter().filter(is_wanted).collect();
    let mut judged = judged::judged(lens, aids.texts, &kinds);
    let is_estimated = |(_, cell): &(usize, &Cell)| cell.basis == Basis::Estimated;
    let estimated = record.cells.iter().enumerate().filter(is_estimated);
    let estimated: CellSet = estimated.map(|(at, _)| CellId::new(at)).collect();
    let mut all_found: Vec<(Kind, Found, BTreeMap<usize, Stock>)> = Vec::new();
    for (kind, find) in ALL.into_iter().filter(|(kind, _)| is_wanted(kind)) {
        // A fault of one kind leaves the others their answers.
        let of_kind = catch_unwind(AssertUnwindSafe(|| find(&ground)));
        let Ok(of_kind) = of_kind else {
            let its = judged.iter_mut().filter(|one| one.kind == kind);
            its.for_each(|one| (one.bytes, one.has_failed) = (0, true));
            continue;
        };
        for mut found in of_kind {
            // What is shared out by estimate may be of others.
            found.cells = found.cells.except(&estimated);
            for stock in found.by_entry.iter_mut().flat_map(BTreeMap::values_mut) {
                stock.cells = std::mem::take(&mut stock.cells).except(&estimated);
            }
            if let Some(within) = &wanted.within {
                found.cells = found.cells.and(within);
                found.spans = found.spans.within(record, within);
            }
            if found.with_wrappers {
                found.spans = wrappers(record, &found.cells);
            }
            let by_entry = by_entry(&ground, &mut found, wanted.within.as_ref());
            all_found.push((kind, found, by_entry));
        }
    }
    // Stretches of an entry may end elsewhere than those of the whole.
    let spans = all_found.iter().flat_map(|(_, found, by_entry)| {
        by_entry.values().map(|stock| &stock.spans).chain([&found.spans])
    });
    let prices = Prices::new(record, aids.costs, spans);
    let mut findings = Vec::new();
    let mut union: BTreeMap<usize, Stock> = BTreeMap::new();
    let mut all = Stock::default();
    for (kind, found, by_entry) in all_found {
        let mut finding = finding(&ground, &prices, kind, found, &by_entry);
        if let Some((ran, recordings)) = aids.ran
            && matches!(kind, Kind::Deferrable | Kind::DeadDeclaration)
            && let Some(percent) = never_ran(record, &finding, ran)
        {
            let recordings = counted(recordings, "recording");
            finding.cause.push_str(&format!("; {percent}% of it never ran in {recordings}"));
        }
        let most = finding.by_entry.iter().map(|share| share.sizes.get(measure)).max();
        if finding.recoverable.get(measure).max(most.unwrap_or(0)) < wanted.min {
            continue;
        }
        if !kind.stays() {
            all = all.or(&finding.cells, &finding.spans);
        }
        for (entry, stock) in by_entry {
            let known = union.remove(&entry).unwrap_or_default();
            union.insert(entry, known.or(&stock.cells, &stock.spans));
        }
        findings.push(finding);
    }
    findings.retain(|finding| {
        finding.kind == Kind::WrongEnvironment
            || !finding.by_entry.is_empty()
            || !finding.spans.is_empty()
            || finding.cells.iter().next().is_some()
    });
    let gain = |finding: &Finding| {
        let startup = finding.by_entry.first().map_or(0, |share| share.sizes.get(measure));
        (startup, finding.recoverable.get(measure))
    };
    findings.sort_by(|a, b| gain(b).cmp(&gain(a)).then_with(|| a.id.cmp(&b.id)));
    let at_startup = shares(&ground, &prices, &union, measure);
    let recoverable = all.amount(lens, &prices).sizes();
    let unjudged_styles = judged::unjudged_styles(lens);
    Waste { at_startup, recoverable, findings, judged, unjudged_styles, prices }
}

impl Waste {
    /// What some findings come to together: cells, and what stretches of them cost besides.
    pub(crate) fn together(&self, lens: &Lens<'_>, findings: &[Finding]) -> (CellSet, Amount) {
        let cells: CellSet = findings.iter().flat_map(|finding| finding.cells.iter()).collect();
        let joined = findings.iter().fold(Spans::default(), |all, one| all.or(&one.spans));
        let besides = self.prices.amount(lens.record, &joined, &cells);
        (cells, besides)
    }
}

/// Bytes of a build: whole cells, and stretches that are less.
#[derive(Clone, Default)]
struct Stock {
    cells: CellSet,
    spans: Spans,
}

impl Stock {
    fn of_cells(cells: CellSet) -> Self {
        Self { cells, spans: Spans::default() }
    }

    fn is_empty(&self) -> bool {
        self.spans.is_empty() && self.cells.iter().next().is_none()
    }

    fn or(self, cells: &CellSet, spans: &Spans) -> Self {
        Self { cells: self.cells.or(cells), spans: self.spans.or(spans) }
    }

    fn amount(&self, lens: &Lens<'_>, prices: &Prices) -> Amount {
        let mut amount = lens.amount(&self.cells);
        amount += prices.amount(lens.record, &self.spans, &self.cells);
        amount
    }
}

fn stocks(by_entry: BTreeMap<usize, CellSet>) -> BTreeMap<usize, Stock> {
    by_entry.into_iter().map(|(entry, cells)| (entry, Stock::of_cells(cells))).collect()
}

/// Files that are copies on purpose: for old browsers, and for workers, which share nothing.
fn apart(record: &Record) -> BTreeSet<FileId> {
    let is_legacy = |name: &str| name.ends_with("(legacy)");
    let requested = |legacy: bool| -> BTreeSet<FileId> {
        let entries = record.entries.iter().filter(|entry| is_legacy(&entry.name) == legacy);
        entries.flat_map(|entry| record.closure(&entry.requested)).collect()
    };
    let (old, new) = (requested(true), requested(false));
    let loads = |kind: LoadKind| -> BTreeSet<FileId> {
        let loads = record.dynamic_loads.iter().filter(|load| load.kind == kind);
        loads.flat_map(|load| record.closure(&load.files)).collect()
    };
    let (workers, pages) = (loads(LoadKind::Worker), loads(LoadKind::Import));
    let apart = old.union(&workers).copied();
    apart.filter(|file| !new.contains(file) && !pages.contains(file)).collect()
}

/// What each entry would start without.
fn by_entry(
    ground: &Ground<'_>,
    found: &mut Found,
    within: Option<&CellSet>,
) -> BTreeMap<usize, Stock> {
    let lens = ground.lens;
    if let Some(known) = found.by_entry.take() {
        let with_wrappers = found.with_wrappers;
        let cut = |(entry, Stock { cells, spans }): (usize, Stock)| {
            let (cells, spans) = match within {
                Some(within) => (cells.and(within), spans.within(lens.record, within)),
                None => (cells, spans),
            };
            let spans = if with_wrappers { wrappers(lens.record, &cells) } else { spans };
            (entry, Stock { cells, spans })
        };
        let kept = known.into_iter().map(cut);
        return kept.filter(|(_, stock)| !stock.is_empty()).collect();
    }
    let mut shares = BTreeMap::new();
    for (entry, reach) in lens.reach.iter().enumerate() {
        let cells = found.cells.clone().and(&lens.files(reach.startup.iter().copied()));
        let spans = found.spans.of(|file| reach.startup.contains(&file));
        if !spans.is_empty() || cells.iter().next().is_some() {
            shares.insert(entry, Stock { cells, spans });
        }
    }
    shares
}

fn shares(
    ground: &Ground<'_>,
    prices: &Prices,
    by_entry: &BTreeMap<usize, Stock>,
    measure: Measure,
) -> Vec<EntryShare> {
    let lens = ground.lens;
    let share = |(&entry, stock): (&usize, &Stock)| EntryShare {
        entry: lens.record.entries[entry].name.clone(),
        sizes: stock.amount(lens, prices).sizes(),
    };
    let mut shares: Vec<EntryShare> = by_entry.iter().map(share).collect();
    shares.sort_by(|a, b| {
        b.sizes.get(measure).cmp(&a.sizes.get(measure)).then_with(|| a.entry.cmp(&b.entry))
    });
    shares
}

fn finding(
    ground: &Ground<'_>,
    prices: &Prices,
    kind: Kind,
    found: Found,
    by_entry: &BTreeMap<usize, Stock>,
) -> Finding {
    let lens = ground.lens;
    let names: Vec<String> = found.names.into_iter().collect();
    let digest = blake3::hash(names.join("\n").as_bytes()).to_hex();
    let by_entry = shares(ground, prices, by_entry, Measure::Emitted);
    let whole = Stock { cells: found.cells, spans: found.spans };
    Finding {
        id: format!("{}:{}", kind.name(), &digest[..8]),
        kind,
        title: found.title,
        paths: names,
        bound: found.bound,
        recoverable: whole.amount(lens, prices).sizes(),
        at: by_entry.first().map(|share| share.entry.clone()),
        by_entry,
        cause: found.cause,
        advice: found.advice,
        predicted: None,
        waived: None,
        parts: found.parts,
        places: places(lens.record, &whole),
        cells: whole.cells,
        spans: whole.spans,
    }
}

/// Hundredths of it that no recording saw run; none where not all of it was recorded. What stands at the
/// top of a module runs with it, even where nobody calls it.
fn never_ran(record: &Record, finding: &Finding, ran: &Ran) -> Option<u64> {
    let (mut all, mut unseen) = (0, 0);
    for place in &finding.places {
        let file = record.files.iter().position(|file| file.path == place.file)?;
        let file = FileId::new(file);
        ran.files.get(&file)?;
        let end = place.start + place.length;
        all += place.length;
        let within = ran.never.in_file(file).iter();
        unseen += within
            .map(|range| range.end.min(end).saturating_sub(range.start.max(place.start)))
            .sum::<u64>();
    }
    (all > 0).then(|| unseen * 100 / all)
}

/// Where it stands, in the order of files.
fn places(record: &Record, stock: &Stock) -> Vec<Span> {
    let runs = record.runs.iter().filter(|run| stock.cells.has(run.cell));
    let whole = runs.map(|run| Span {
        file: record.file(record.cells[run.cell.at()].file).path.clone(),
        start: run.start,
        length: run.length,
    });
    let parts = stock.spans.iter().map(|(file, range)| Span {
        file: record.file(file).path.clone(),
        start: range.start,
        length: range.end - range.start,
    });
    whole.chain(parts).collect()
}

/// The edits that findings allow which change no behaviour.
#[must_use]
pub fn patches(
    record: &Record,
    texts: &dyn Texts,
    findings: &[Finding],
    project: &dyn patch::Project,
) -> Vec<patch::Edit> {
    let network = Network::of(record);
    patch::patch(Sight { record, network: &network, texts }, findings, project)
}

impl Ground<'_> {
    fn record(&self) -> &Record {
        self.lens.record
    }

    fn sight(&self) -> Sight<'_> {
        Sight { record: self.record(), network: &self.network, texts: self.texts }
    }

    fn liveness(&self) -> &Liveness {
        self.liveness.get_or_init(|| liveness(self.record(), self.texts))
    }

    /// What scripts look like, by file; of those that stand apart nothing is said.
    fn shapes(&self) -> &[(FileId, Shapes)] {
        self.shapes.get_or_init(|| {
            let files = (0..self.record().files.len()).map(FileId::new);
            let scripts = files.filter(|&id| {
                self.record().file(id).kind == uvlet_record::Kind::Script
                    && !self.apart.contains(&id)
            });
            let scripts: Vec<FileId> = scripts.collect();
            let shapes = |&id: &FileId| {
                let text = self.texts.emitted(id)?;
                let text = std::str::from_utf8(&text).ok()?;
                Some((id, read(text, Dialect::Emitted, Shapes::of).ok()?))
            };
            scripts.par_iter().filter_map(shapes).collect()
        })
    }
}

/// The cells of modules outside files that stand apart.
fn cells_of_modules(record: &Record, apart: &BTreeSet<FileId>) -> BTreeMap<ModuleId, Vec<CellId>> {
    let mut found: BTreeMap<ModuleId, Vec<CellId>> = BTreeMap::new();
    for (at, cell) in record.cells.iter().enumerate() {
        if let Owner::Module(id) = cell.owner
            && cell.amount.emitted > 0
            && !apart.contains(&cell.file)
        {
            found.entry(id).or_default().push(CellId::new(at));
        }
    }
    found
}

/// The module that a byte of a file belongs to.
fn module_at(record: &Record, file: FileId, at: u64) -> Option<ModuleId> {
    let runs = &record.runs[record.file(file).runs.clone()];
    let before = runs.partition_point(|run| run.start <= at);
    let run = runs.get(before.checked_sub(1)?).filter(|run| at < run.start + run.length)?;
    match record.cells[run.cell.at()] {
        Cell { owner: Owner::Module(id), basis, .. } if basis != Basis::Estimated => Some(id),
        _ => None,
    }
}

/// `3 modules`, `1 module`.
fn counted(number: usize, noun: &str) -> String {
    if number == 1 { format!("1 {noun}") } else { format!("{number} {noun}s") }
}
