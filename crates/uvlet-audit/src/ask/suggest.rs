//! What is worth trying: the changes that the code itself offers, each tried, and the best of them together.

use std::panic::{AssertUnwindSafe, catch_unwind};

use uvlet_ledger::coding::Sizer;
use uvlet_record::{
    Texts,
    sizes::{Coding, Measure, Sizes},
};

use crate::{
    ask::what_if::{Asked, EntryRow, WhatIf, what_if},
    find::{
        about::{About, Family, Smaller},
        finding::{EntryShare, Finding, Together},
        judged::Judged,
        kind::Kind,
        waste::{Aids, Wanted, Waste, least_told, waste},
    },
    lens::Lens,
    predict::{
        narrow::narrow,
        outcome::as_it_would_be,
        step::{Change, Planned, Step},
    },
    select::subject::Subject,
};

/// Changes that are shown.
const SHOWN: usize = 10;

/// Changes that are put together at most.
const TOGETHER: usize = 5;

/// Findings that are predicted whatever they save.
const RANKED: usize = 3;

/// Bytes at startup below which a finding is not predicted unasked.
const LEAST: u64 = 1000;

/// The answer.
#[derive(Debug)]
pub struct Suggestions {
    /// Each by itself, what wins most at startup of one entry first.
    pub each: Vec<Suggestion>,
    /// The steps that win most together.
    pub together: Vec<Planned>,
    /// What these come to; none where nothing is won.
    pub prediction: Option<WhatIf>,
    /// What of the build the tried kinds of findings could judge.
    pub judged: Vec<Judged>,
}

/// A change that is worth trying.
#[derive(Debug)]
pub struct Suggestion {
    /// The steps.
    pub steps: Vec<Planned>,
    /// The finding that it mends.
    pub finding: String,
    /// The entry that wins most.
    pub entry: String,
    /// What that starts without.
    pub saved: Sizes,
}

/// A step before it is tried.
struct Candidate {
    change: Change,
    what: Vec<String>,
    finding: String,
}

impl Candidate {
    /// The step that mends a finding, where one does.
    fn of(finding: &Finding) -> Option<Self> {
        let (change, what) = match (&finding.about, finding.kind) {
            (_, Kind::Deferrable) => (Change::Defer, finding.paths.clone()),
            (_, Kind::BarrelPull) => (Change::Bypass, finding.paths.clone()),
            (_, Kind::BarelyUsed) => (Change::Narrow, finding.paths.clone()),
            // Where the settings say which languages are wanted, the folder is not to go as a whole.
            (
                About::WholeFamily {
                    family: Family::Languages,
                    folder,
                    languages_wanted: false,
                    ..
                },
                _,
            ) => (Change::Without, vec![format!("folder({folder})")]),
            _ => return None,
        };
        Some(Self { change, what, finding: finding.id.clone() })
    }

    fn steps(&self, lens: &Lens<'_>, texts: &dyn Texts) -> Option<Vec<Step>> {
        let step = |text: &String| {
            let subject = Subject::find(text, lens).ok()?;
            match self.change {
                Change::Narrow => narrow(lens, texts, subject).ok(),
                change => Some(Step::new(change, subject)),
            }
        };
        self.what.iter().map(step).collect()
    }
}

/// What is tried with.
#[derive(Clone, Copy)]
pub struct Means<'a> {
    /// Texts, in which all of it is found.
    pub texts: &'a dyn Texts,
    /// How sizes are taken.
    pub sizer: &'a dyn Sizer,
    /// In which codings.
    pub codings: &'a [Coding],
    /// By what they are ordered.
    pub measure: Measure,
}

/// Tries what findings offer: what waits for somebody to act is deferred, never what the first screen
/// shows; files that hand on more than is used are gone past; of what comes whole, the names that are read
/// stay; languages that are all included are taken out.
#[must_use]
pub fn suggest(lens: &Lens<'_>, means: Means<'_>) -> Suggestions {
    let Means { texts, sizer, codings, measure } = means;
    let kinds = vec![Kind::Deferrable, Kind::BarrelPull, Kind::BarelyUsed, Kind::WholeFamily];
    let wanted = Wanted { kinds, ..Wanted::default() };
    let aids = Aids { texts, costs: None, languages: &[], ran: None };
    let found = waste(lens, aids, &wanted, Measure::Emitted);
    let mut candidates: Vec<(i64, Candidate)> = Vec::new();
    for candidate in found.findings.iter().filter_map(Candidate::of) {
        if let Some(Won { most: won, .. }) =
            won(lens, means, &[&candidate]).filter(|won| won.most > 0)
        {
            candidates.push((won, candidate));
        }
    }
    // A file that hands on to another is gone past with that one.
    let barrels: Vec<String> = found
        .findings
        .iter()
        .filter(|finding| finding.kind == Kind::BarrelPull)
        .flat_map(|finding| finding.paths.iter().cloned())
        .collect();
    for path in outer_barrels(lens, &barrels) {
        let mut what = barrels.clone();
        what.push(path);
        let finding = found.findings.iter().find(|one| one.kind == Kind::BarrelPull);
        let finding = finding.map(|one| one.id.clone()).unwrap_or_default();
        let candidate = Candidate { change: Change::Bypass, what, finding };
        if let Some(Won { most: won, .. }) =
            won(lens, means, &[&candidate]).filter(|won| won.most > 0)
        {
            candidates.push((won, candidate));
        }
    }
    candidates.sort_by(|a, b| b.0.cmp(&a.0).then_with(|| a.1.what.cmp(&b.1.what)));
    candidates.truncate(SHOWN);
    let mut together: Vec<&Candidate> = Vec::new();
    let mut best = 0;
    while together.len() < TOGETHER {
        let rest = candidates.iter().map(|(_, one)| one);
        let rest = rest.filter(|one| !together.iter().any(|known| std::ptr::eq(*known, *one)));
        let tried = rest.filter_map(|one| {
            let set: Vec<&Candidate> = together.iter().copied().chain([one]).collect();
            Some((won(lens, means, &set)?.of_all, one))
        });
        let Some((won, one)) = tried.max_by_key(|(won, one)| (*won, std::cmp::Reverse(&one.what)))
        else {
            break;
        };
        if won <= best {
            break;
        }
        best = won;
        together.push(one);
    }
    let all = |set: &[&Candidate]| -> Option<Vec<Step>> {
        let steps: Option<Vec<Vec<Step>>> = set.iter().map(|one| one.steps(lens, texts)).collect();
        steps.map(|steps| steps.into_iter().flatten().collect())
    };
    let predict = |set: &[&Candidate]| {
        what_if(lens, &all(set)?, Asked::default(), texts, sizer, codings).ok()
    };
    let mut each: Vec<Suggestion> = candidates
        .iter()
        .filter_map(|(_, one)| {
            let predicted = predict(&[one])?;
            let first = predicted.entries.first()?;
            Some(Suggestion {
                steps: predicted.steps.clone(),
                finding: one.finding.clone(),
                entry: first.name.clone(),
                saved: saved(first),
            })
        })
        .collect();
    each.sort_by_key(|one| std::cmp::Reverse(one.saved.get(measure)));
    let prediction = (!together.is_empty()).then(|| predict(&together)).flatten();
    let together = prediction.as_ref().map(|one| one.steps.clone()).unwrap_or_default();
    Suggestions { each, together, prediction, judged: found.judged }
}

/// Of which findings it is predicted what mending them really saves.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Predict {
    /// Of every one that a step says how to mend.
    All,
    /// Of the largest, until the next one cannot save as much as those before it.
    Largest,
}

/// Predicts what mending findings really saves, of those that a step says how to mend, and what they save
/// together; what saves most comes first then, a prediction before a bound.
pub fn confirm(lens: &Lens<'_>, means: Means<'_>, waste: &mut Waste, which: Predict) {
    let Means { texts, sizer, codings, measure } = means;
    // A fault of a prediction leaves the findings as they are.
    let predict = |steps: &[Step]| {
        let predicted = catch_unwind(AssertUnwindSafe(|| {
            what_if(lens, steps, Asked::default(), texts, sizer, codings)
        }));
        let predicted = predicted.ok()?.ok()?;
        let first = predicted.entries.first()?;
        Some(EntryShare { entry: first.name.clone(), sizes: saved(first) })
    };
    let bound =
        |finding: &Finding| finding.by_entry.first().map_or(0, |share| share.sizes.get(measure));
    let least = least_told(lens, measure).max(LEAST);
    let mut steps: Vec<Step> = Vec::new();
    let (mut number, mut smallest) = (0, u64::MAX);
    for finding in &mut waste.findings {
        let is_next = number < TOGETHER && bound(finding) >= least;
        let may_save_more = number < RANKED || bound(finding) > smallest;
        if which == Predict::Largest && !(is_next && may_save_more) {
            continue;
        }
        let candidate = Candidate::of(finding).filter(|_| !is_bound_at_best(finding));
        let Some(mut candidate) = candidate else { continue };
        if candidate.change == Change::Bypass {
            candidate.what.extend(outer_barrels(lens, &finding.paths));
        }
        let Some(its) = candidate.steps(lens, texts) else { continue };
        finding.predicted = predict(&its);
        let won = finding.predicted.as_ref().map_or(0, |share| share.sizes.get(measure));
        if won > 0 {
            number += 1;
            smallest = smallest.min(won);
            steps.extend(its);
        }
    }
    waste.together = match number {
        0 => None,
        findings => predict(&steps).map(|share| Together { share, findings }),
    };
    let gain = |finding: &Finding| {
        let startup = finding.predicted.as_ref().map(|share| share.sizes.get(measure));
        (startup.unwrap_or_else(|| bound(finding)), finding.recoverable.get(measure))
    };
    waste.findings.sort_by(|a, b| gain(b).cmp(&gain(a)).then_with(|| a.id.cmp(&b.id)));
}

/// Files of their own bring wrappers that no prediction knows: what is bounded is all that can be said.
fn is_bound_at_best(finding: &Finding) -> bool {
    let About::BarelyUsed { smaller, .. } = &finding.about else { return false };
    matches!(smaller, Smaller::OwnPaths { .. } | Smaller::Unknown)
}

/// What an entry starts without; nothing where it starts with more.
fn saved(row: &EntryRow) -> Sizes {
    let (before, after) = (&row.before.startup.sizes, &row.after.startup.sizes);
    let mut saved = Sizes::default();
    for measure in before.measures() {
        saved.set(measure, before.get(measure).saturating_sub(after.get(measure)));
    }
    saved
}

/// Files that left nothing and ask for one that hands on.
fn outer_barrels(lens: &Lens<'_>, barrels: &[String]) -> Vec<String> {
    let record = lens.record;
    let mut outer: Vec<String> = record
        .edges
        .iter()
        .filter(|edge| barrels.contains(&record.module(edge.to).path))
        .map(|edge| record.module(edge.from))
        .filter(|module| !barrels.contains(&module.path))
        .map(|module| module.path.clone())
        .collect();
    outer.sort();
    outer.dedup();
    // Only a file that is all names leaves nothing.
    outer.retain(|path| {
        Subject::find(path, lens).is_ok_and(|subject| lens.amount(&subject.cells).emitted == 0)
    });
    outer
}

/// Emitted bytes that entries start without.
struct Won {
    /// The one that wins most.
    most: i64,
    /// All of them.
    of_all: i64,
}

/// What steps win; none where one means nothing.
fn won(lens: &Lens<'_>, means: Means<'_>, set: &[&Candidate]) -> Option<Won> {
    let mut steps = Vec::new();
    for one in set {
        steps.extend(one.steps(lens, means.texts)?);
    }
    let (record, reach) = as_it_would_be(lens, &steps, means.texts, means.sizer, &[]).ok()?;
    let before = lens
        .reach
        .iter()
        .map(|reach| reach.startup.iter().map(|&file| lens.record.file(file).emitted).sum::<u64>());
    let after =
        reach.iter().map(|reach| reach.startup.iter().map(|&file| record.file(file).emitted).sum());
    let signed = |bytes: u64| i64::try_from(bytes).unwrap_or(i64::MAX);
    let won = before.zip(after).map(|(before, after): (u64, u64)| signed(before) - signed(after));
    let won: Vec<i64> = won.collect();
    Some(Won { most: won.iter().copied().max()?, of_all: won.iter().sum() })
}
