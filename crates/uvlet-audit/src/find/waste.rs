//! What could be removed: code that is there more than once, or for nobody.
//!
//! Every kind of finding is a file here and a line in [`ALL`]. A finding names bytes; findings overlap,
//! so that what they come to together is the union, never the sum.

use std::{
    collections::BTreeMap,
    panic::{AssertUnwindSafe, catch_unwind},
    sync::OnceLock,
};

use uvlet_record::{
    Basis, Cell, CellId, Costs, FileId, Record, Texts,
    sizes::{Amount, Measure, Sizes},
};

use crate::{
    find::{
        context::Ground,
        finding::{EntryShare, Finding, Found, NeverRan, Span, Together},
        judged::{self, Judged},
        kind::Kind,
        kinds::ALL,
        patch,
    },
    graph::{barrels::Sight, network::Network},
    lens::Lens,
    parts::{
        byte_set::Stock, cells::CellSet, prices::Prices, recordings::Ran, spans::Spans,
        wrappers::wrappers,
    },
    select::overlap::apart,
};

/// The answer.
#[derive(Debug)]
pub struct Waste {
    /// What could leave startup of each entry, all findings together, the most first.
    pub at_startup: Vec<EntryShare>,
    /// Of that, what could leave the build, and not only load on demand.
    pub removable_at_startup: Vec<EntryShare>,
    /// What could go from the build, all findings together.
    pub recoverable: Sizes,
    /// What the findings save together of which that was predicted.
    pub together: Option<Together>,
    /// The one that saves most at startup first.
    pub findings: Vec<Finding>,
    /// What each kind could judge: of the rest, that nothing was found says nothing.
    pub judged: Vec<Judged>,
    /// Emitted bytes of styles that no kind could judge, as no map says what they are made of.
    pub unjudged_styles: u64,
    prices: Prices,
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
    let kinds: Vec<Kind> = Kind::ALL.iter().copied().filter(is_wanted).collect();
    let mut judged = judged::judged(lens, aids.texts, &kinds);
    let all_found = find_all(&ground, wanted, &mut judged);
    // Stretches of an entry may end elsewhere than those of the whole.
    let spans = all_found.iter().flat_map(|(_, found, by_entry)| {
        by_entry.values().map(|stock| &stock.spans).chain([&found.spans])
    });
    let prices = Prices::new(record, aids.costs, spans);
    let mut findings = Vec::new();
    let mut union: BTreeMap<usize, Stock> = BTreeMap::new();
    let mut removable: BTreeMap<usize, Stock> = BTreeMap::new();
    let mut all = Stock::default();
    for (kind, found, by_entry) in all_found {
        let mut finding = finding(&ground, &prices, kind, found, &by_entry);
        if let Some((ran, recordings)) = aids.ran
            && matches!(kind, Kind::Deferrable | Kind::DeadDeclaration)
            && let Some(percent) = never_ran(record, &finding, ran)
        {
            finding.never_ran = Some(NeverRan { percent, recordings });
        }
        let most = finding.by_entry.iter().map(|share| share.sizes.get(measure)).max();
        if finding.recoverable.get(measure).max(most.unwrap_or(0)) < wanted.min {
            continue;
        }
        if !kind.stays() {
            all = all.or(&finding.cells, &finding.spans);
        }
        for (entry, stock) in by_entry {
            let mut unions = vec![&mut union];
            unions.extend((!kind.stays()).then_some(&mut removable));
            for union in unions {
                let known = union.remove(&entry).unwrap_or_default();
                union.insert(entry, known.or(&stock.cells, &stock.spans));
            }
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
    let removable_at_startup = shares(&ground, &prices, &removable, measure);
    let recoverable = all.amount(lens, &prices).sizes();
    let unjudged_styles = judged::unjudged_styles(lens);
    Waste {
        at_startup,
        removable_at_startup,
        recoverable,
        together: None,
        findings,
        judged,
        unjudged_styles,
        prices,
    }
}

/// A finding of a kind, with what each entry would start without.
type OfKind = (Kind, Found, BTreeMap<usize, Stock>);

/// What each wanted kind finds; one that fails is said to have judged nothing.
fn find_all(ground: &Ground<'_>, wanted: &Wanted, judged: &mut [Judged]) -> Vec<OfKind> {
    let record = ground.record();
    let is_wanted = |kind: &Kind| wanted.kinds.is_empty() || wanted.kinds.contains(kind);
    let is_estimated = |(_, cell): &(usize, &Cell)| cell.basis == Basis::Estimated;
    let estimated = record.cells.iter().enumerate().filter(is_estimated);
    let estimated: CellSet = estimated.map(|(at, _)| CellId::new(at)).collect();
    let mut all_found: Vec<OfKind> = Vec::new();
    for (kind, find) in ALL.into_iter().filter(|(kind, _)| is_wanted(kind)) {
        // A fault of one kind leaves the others their answers.
        let of_kind = catch_unwind(AssertUnwindSafe(|| find(ground)));
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
                found.spans = found.spans.or(&wrappers(record, &found.cells));
            }
            let by_entry = by_entry(ground, &mut found, wanted.within.as_ref());
            all_found.push((kind, found, by_entry));
        }
    }
    all_found
}

/// Bytes that a finding saves at least to be worth a paragraph: 500, or a hundredth of the largest startup.
#[must_use]
pub fn least_told(lens: &Lens<'_>, measure: Measure) -> u64 {
    const MOST: u64 = 500;
    let startups = lens.reach.iter().map(|reach| lens.weight(reach.startup.iter().copied()));
    startups.map(|one| one.bytes(measure)).max().map_or(MOST, |most| MOST.min(most / 100))
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
        about: found.about,
        paths: names,
        bound: found.bound,
        recoverable: whole.amount(lens, prices).sizes(),
        at: by_entry.first().map(|share| share.entry.clone()),
        by_entry,
        never_ran: None,
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
