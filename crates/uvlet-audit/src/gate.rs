//! Holds budgets: what was promised, what is, and whose bytes make the difference.
//!
//! A limit is judged only as far as the build is known: it is broken if even the least that the
//! selection can weigh is over it, held if even the most is within, and undecided between.

use std::collections::{BTreeSet, HashSet};

use schemars::JsonSchema;
use serde::Serialize;
use uvlet_record::{
    FileId, Kind, Mode, Notice, Owner,
    sizes::{Measure, Sizes},
};

use crate::{
    attribute::{By, RowKind, Sort, attribute},
    lens::{Bounds, CellSet, Estimates, Lens},
    selector::{self, Missing, Selection, Selector, SelectorError},
};

/// A promise about a set of bytes.
#[derive(Clone, Debug)]
pub struct Budget {
    /// Its name.
    pub name: String,
    /// What it is about.
    pub scope: Scope,
    /// Where that stands in the file of settings: line and column, from 1.
    pub place: (usize, usize),
    /// Bytes that must not be exceeded.
    pub at_most: Option<u64>,
    /// Bytes above which a warning is given.
    pub warn_above: Option<u64>,
    /// What the bytes are counted in.
    pub measure: Measure,
}

/// What a budget is about.
#[derive(Clone, Debug)]
pub enum Scope {
    /// The selection as a whole, each byte once.
    Total(Selector),
    /// Each match of the selector's first set on its own.
    Each(Selector),
    /// Nothing of the selection may be there.
    Absent(Selector),
}

impl Scope {
    fn selector(&self) -> &Selector {
        match self {
            Self::Total(selector) | Self::Each(selector) | Self::Absent(selector) => selector,
        }
    }
}

/// How strictly budgets are held.
#[derive(Clone, Copy, Debug, Default)]
pub struct Strictness {
    /// A development build is taken.
    pub allow_development: bool,
    /// Estimates are taken as they stand.
    pub allow_estimated: bool,
    /// Bytes that nobody owns and that are not held against a budget.
    pub allow_unattributed: u64,
}

/// The answer.
#[derive(Debug, Serialize, JsonSchema)]
pub struct Gate {
    /// `broken` if any budget is, or if anything else breaks it.
    pub verdict: Verdict,
    /// What breaks it besides budgets.
    pub reasons: Vec<Reason>,
    /// One row per item and limit: broken first, then undecided, warned, unjudged, held.
    pub budgets: Vec<BudgetRow>,
    /// What should be known of how budgets were understood.
    #[serde(skip)]
    pub notices: Vec<Notice>,
}

/// What breaks a gate, or leaves a limit undecided.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, JsonSchema)]
pub struct Reason {
    /// A stable word.
    pub code: String,
    /// One sentence.
    pub message: String,
}

/// How it stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, JsonSchema)]
#[serde(rename_all = "lowercase")]
pub enum Verdict {
    /// A limit is exceeded.
    Broken,
    /// What is known does not tell.
    Undecided,
    /// A warning limit is exceeded.
    Warned,
    /// There is nothing to judge.
    Unjudged,
    /// Within its limits.
    Held,
}

impl Verdict {
    /// The word for it in outputs.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Broken => "broken",
            Self::Undecided => "undecided",
            Self::Warned => "warned",
            Self::Unjudged => "unjudged",
            Self::Held => "held",
        }
    }
}

/// Which limit a row is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
#[expect(missing_docs, reason = "each is the key of the configuration")]
pub enum LimitKind {
    AtMost,
    WarnAbove,
    Absent,
}

impl LimitKind {
    /// The key of the configuration.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::AtMost => "at_most",
            Self::WarnAbove => "warn_above",
            Self::Absent => "absent",
        }
    }
}

/// One limit of one item.
#[derive(Debug, Serialize, JsonSchema)]
pub struct BudgetRow {
    /// The app, where there are several.
    pub app: Option<String>,
    /// The budget.
    pub name: String,
    /// The match of an `each`.
    pub item: Option<String>,
    /// The selector as written.
    pub selector: String,
    /// Which limit.
    pub limit_kind: LimitKind,
    /// What the numbers count.
    pub measure: Measure,
    /// The same in the build that it is held against.
    pub base: Option<u64>,
    /// The limit in bytes.
    pub allowed: Option<u64>,
    /// What there is, in bytes; unknown where that decides nothing.
    pub is: Option<u64>,
    /// Bytes beyond the limit; 0 if held.
    pub over_by: u64,
    /// Bytes that there are at least.
    pub least: u64,
    /// Bytes that there are at most, as far as can be told.
    pub most: u64,
    /// How it stands.
    pub verdict: Verdict,
    /// Why it is undecided or unjudged.
    pub because: Vec<Reason>,
    /// The heaviest contributors, at most five.
    pub heaviest: Vec<Heavy>,
}

/// One contributor.
#[derive(Clone, Debug, Serialize, JsonSchema)]
pub struct Heavy {
    /// What it is.
    pub row: RowKind,
    /// Package, or `(own)` and the like.
    pub name: String,
    /// What it has in the selection.
    pub sizes: Sizes,
}

/// Contributors that are named.
const HEAVIEST: usize = 5;
/// Files that a reason names.
const NAMED: usize = 3;

/// A budget whose selector cannot be evaluated.
#[derive(Debug, thiserror::Error)]
#[error("budget `{budget}`: {source}")]
pub struct GateError {
    /// The budget.
    pub budget: String,
    /// What is wrong with its selector.
    pub source: SelectorError,
}

/// Holds every budget against a build. A development build breaks the gate, as its sizes are not
/// those that visitors get, unless it is allowed.
///
/// # Errors
/// When a selector cannot be evaluated.
pub fn gate(
    lens: &Lens<'_>,
    budgets: &[Budget],
    strictness: Strictness,
) -> Result<Gate, GateError> {
    let record = lens.record;
    let mut reasons = Vec::new();
    if record.mode == Mode::Development && !strictness.allow_development {
        let evidence = record.mode_evidence.first().map_or("", String::as_str);
        let message = format!(
            "this is a development build ({evidence}); its sizes are not what visitors get"
        );
        reasons.push(Reason { code: "development-build".to_owned(), message });
    }
    let mut judge = Judge { lens, strictness, rows: Vec::new(), notices: Vec::new() };
    for budget in budgets {
        judge.budget(budget).map_err(|source| GateError { budget: budget.name.clone(), source })?;
    }
    let Judge { mut rows, notices, .. } = judge;
    rows.sort_by(|a, b| {
        (a.verdict, std::cmp::Reverse(a.over_by), &a.name, &a.item, a.limit_kind).cmp(&(
            b.verdict,
            std::cmp::Reverse(b.over_by),
            &b.name,
            &b.item,
            b.limit_kind,
        ))
    });
    let any = |verdict| rows.iter().any(|row| row.verdict == verdict);
    let verdict = if !reasons.is_empty() || any(Verdict::Broken) {
        Verdict::Broken
    } else if any(Verdict::Undecided) {
        Verdict::Undecided
    } else if rows.iter().all(|row| row.verdict == Verdict::Unjudged) {
        Verdict::Unjudged
    } else {
        Verdict::Held
    };
    Ok(Gate { verdict, reasons, budgets: rows, notices })
}

struct Judge<'l, 'r> {
    lens: &'l Lens<'r>,
    strictness: Strictness,
    rows: Vec<BudgetRow>,
    notices: Vec<Notice>,
}

/// What a limit is held against.
struct Subject {
    item: Option<String>,
    cells: CellSet,
    least: CellSet,
    most: CellSet,
    /// Why it cannot be judged, whatever it weighs.
    obstacles: Vec<Reason>,
}

impl Judge<'_, '_> {
    fn budget(&mut self, budget: &Budget) -> Result<(), SelectorError> {
        match &budget.scope {
            Scope::Total(selector) | Scope::Absent(selector) => {
                let found = selector::select(selector, self.lens)?;
                let obstacles = self.obstacles(budget, &found);
                self.remark(budget, &found);
                let Selection { cells, least, most, .. } = found;
                self.hold(budget, Subject { item: None, cells, least, most, obstacles });
            }
            Scope::Each(selector) => {
                let (items, found) = selector::items(selector, self.lens)?;
                let obstacles = self.obstacles(budget, &found);
                self.remark(budget, &found);
                if items.is_empty() {
                    let verdict = match obstacles.is_empty() {
                        true => Verdict::Unjudged,
                        false => Verdict::Undecided,
                    };
                    self.nothing(budget, verdict, &found.missing, obstacles);
                    return Ok(());
                }
                for item in items {
                    let selector::Item { name, cells, least, most } = item;
                    let (item, obstacles) = (Some(name), obstacles.clone());
                    self.hold(budget, Subject { item, cells, least, most, obstacles });
                }
            }
        }
        Ok(())
    }

    /// Names that make a budget undecided: of files that are not there, and of owners that are not
    /// there while one of nearly that name is.
    fn obstacles(&self, budget: &Budget, found: &Selection) -> Vec<Reason> {
        let is_each = matches!(budget.scope, Scope::Each(_));
        let is_ban = matches!(budget.scope, Scope::Absent(_));
        let in_way = found.missing.iter().filter(|missing| match missing.set.is_of_files() {
            true => !(is_each && missing.is_pattern),
            false => !is_ban && !missing.is_pattern && !missing.near.is_empty(),
        });
        let (line, column) = budget.place;
        let said = |missing: &Missing| Reason {
            code: "name-missing".to_owned(),
            message: format!("line {line}, column {column}: {}", missing.said()),
        };
        in_way.map(said).collect()
    }

    fn remark(&mut self, budget: &Budget, found: &Selection) {
        let name = &budget.name;
        for remark in &found.remarks {
            let message = format!("budget `{name}`: {remark}");
            self.notices.push(Notice::new("chunk-renamed", message, None));
        }
        for &at in &found.startup_of {
            let entry = &self.lens.record.entries[at];
            let cells = self.lens.files(self.lens.reach[at].at_once.iter().copied());
            let bytes = self.lens.amount(&cells).bytes(budget.measure);
            if bytes > 0 {
                let message = format!(
                    "budget `{name}` counts what {0} needs to start; its code asks for {bytes} B ({1}) more at once, which at-once({0}) counts too",
                    entry.name, budget.measure
                );
                self.notices.push(Notice::new("at-once", message, None));
            }
        }
    }

    /// The rows of a budget without anything to weigh.
    fn nothing(
        &mut self,
        budget: &Budget,
        verdict: Verdict,
        missing: &[Missing],
        mut because: Vec<Reason>,
    ) {
        if because.is_empty() {
            let said = missing.iter().map(|missing| Reason {
                code: "no-match".to_owned(),
                message: format!("no {} matches `{}`", missing.set.noun(), missing.name),
            });
            because.extend(said);
        }
        for (limit_kind, allowed) in limits(budget) {
            let judged = Judged { verdict, is: None, over_by: 0, because: because.clone() };
            let bounds = Bounds { least: 0, most: 0, nobodys: 0, doubted: Vec::new() };
            let row = Row { item: None, limit_kind, allowed, heaviest: Vec::new() };
            self.row(budget, row, &bounds, judged);
        }
    }

    fn hold(&mut self, budget: &Budget, subject: Subject) {
        let estimates = match self.strictness.allow_estimated {
            true => Estimates::AreTaken,
            false => Estimates::AreDoubted,
        };
        let Subject { item, cells, least, most, obstacles } = subject;
        // Whether anything is there at all is a question of emitted bytes.
        let is_ban = matches!(budget.scope, Scope::Absent(_));
        let measure = if is_ban { Measure::Emitted } else { budget.measure };
        let mut bounds = self.lens.bounds(&least, &most, measure, estimates);
        if bounds.nobodys <= self.strictness.allow_unattributed {
            bounds.most -= bounds.nobodys.min(bounds.most - bounds.least);
            bounds.nobodys = 0;
        }
        let is = self.lens.amount(&cells).bytes(measure);
        let heaviest: Vec<Heavy> =
            attribute(self.lens, By::Package, &cells, None, Sort::Heaviest(measure))
                .rows
                .into_iter()
                .filter(|row| row.sizes.get(measure) > 0)
                .take(HEAVIEST)
                .map(|row| Heavy { row: row.row, name: row.name, sizes: row.sizes })
                .collect();
        let doubts = self.doubts(&least, &most, &bounds, measure);
        for (limit_kind, allowed) in limits(budget) {
            let limit = allowed.unwrap_or(0);
            let exceeded = match limit_kind {
                LimitKind::WarnAbove => Verdict::Warned,
                LimitKind::AtMost | LimitKind::Absent => Verdict::Broken,
            };
            let judged = if !obstacles.is_empty() {
                Judged::open(limit_kind, obstacles.clone())
            } else if bounds.least > limit {
                let over_by = is.max(bounds.least) - limit;
                Judged { verdict: exceeded, is: Some(is), over_by, because: Vec::new() }
            } else if bounds.most <= limit {
                Judged { verdict: Verdict::Held, is: Some(is), over_by: 0, because: Vec::new() }
            } else {
                Judged::open(limit_kind, doubts.clone())
            };
            let row = Row { item: item.clone(), limit_kind, allowed, heaviest: heaviest.clone() };
            self.row(budget, row, &bounds, judged);
        }
    }

    fn row(&mut self, budget: &Budget, row: Row, bounds: &Bounds, judged: Judged) {
        let is_ban = row.limit_kind == LimitKind::Absent;
        self.rows.push(BudgetRow {
            app: None,
            name: budget.name.clone(),
            item: row.item,
            selector: budget.scope.selector().text().to_owned(),
            limit_kind: row.limit_kind,
            measure: if is_ban { Measure::Emitted } else { budget.measure },
            base: None,
            allowed: row.allowed,
            is: judged.is,
            over_by: judged.over_by,
            least: bounds.least,
            most: bounds.most,
            verdict: judged.verdict,
            because: judged.because,
            heaviest: row.heaviest,
        });
    }

    /// What keeps a limit between the bounds from being judged.
    fn doubts(
        &self,
        least: &CellSet,
        most: &CellSet,
        bounds: &Bounds,
        measure: Measure,
    ) -> Vec<Reason> {
        let record = self.lens.record;
        let mut nobodys: Vec<(u64, &str)> = Vec::new();
        let mut are_styles = true;
        let unplaced_code: HashSet<FileId> = self.lens.unplaced_code().collect();
        let (mut unplaced, mut versions) = (BTreeSet::new(), BTreeSet::new());
        for id in most.iter().filter(|id| !least.has(*id)) {
            let cell = &record.cells[id.at()];
            let path = record.file(cell.file).path.as_str();
            match cell.owner {
                Owner::Unattributed => {
                    are_styles &= record.file(cell.file).kind == Kind::Style;
                    nobodys.push((cell.amount.bytes(measure), path));
                }
                _ if unplaced_code.contains(&cell.file) => {
                    unplaced.insert(path);
                }
                Owner::Module(module) => {
                    versions.extend(record.package_of(module).map(|package| package.name.as_str()));
                }
                _ => {}
            }
        }
        nobodys.sort_by_key(|&(bytes, path)| (std::cmp::Reverse(bytes), path));
        let nobodys: Vec<String> =
            nobodys.into_iter().map(|(bytes, path)| format!("{path} ({bytes} B)")).collect();
        let doubted: Vec<&str> =
            bounds.doubted.iter().map(|&file| record.file(file).path.as_str()).collect();
        let unplaced: Vec<&str> = unplaced.into_iter().collect();
        let versions: Vec<&str> = versions.into_iter().collect();
        let mut reasons = Vec::new();
        let mut say = |code: &str, message: String| {
            reasons.push(Reason { code: code.to_owned(), message });
        };
        if !nobodys.is_empty() && bounds.nobodys > 0 {
            // Bundlers write few maps for styles, and packages rarely hide in them.
            let hint = match are_styles && self.lens.style_modules().is_none() {
                true => ", which `and scripts` leaves out",
                false => "",
            };
            say("unattributed", format!("nobody is known to own {}{hint}", some(&nobodys)));
        }
        if !doubted.is_empty() {
            say("estimated", format!("sizes are only estimated in {}", some(&doubted)));
        }
        if !unplaced.is_empty() {
            let files = some(&unplaced);
            say(
                "loads-lead-nowhere",
                format!("a load on demand cannot be followed, and may ask for {files}"),
            );
        }
        if !versions.is_empty() {
            say("version-unknown", format!("the version is not known of {}", some(&versions)));
        }
        reasons
    }
}

/// A row before it is judged.
struct Row {
    item: Option<String>,
    limit_kind: LimitKind,
    allowed: Option<u64>,
    heaviest: Vec<Heavy>,
}

/// How a limit stands.
struct Judged {
    verdict: Verdict,
    is: Option<u64>,
    over_by: u64,
    because: Vec<Reason>,
}

impl Judged {
    /// A limit that cannot be judged; one that only warns breaks nothing by that.
    fn open(limit_kind: LimitKind, because: Vec<Reason>) -> Self {
        let verdict = match limit_kind {
            LimitKind::WarnAbove => Verdict::Unjudged,
            LimitKind::AtMost | LimitKind::Absent => Verdict::Undecided,
        };
        Self { verdict, is: None, over_by: 0, because }
    }
}

fn limits(budget: &Budget) -> impl Iterator<Item = (LimitKind, Option<u64>)> + use<> {
    let is_ban = matches!(budget.scope, Scope::Absent(_));
    let limits = [
        (LimitKind::AtMost, budget.at_most),
        (LimitKind::WarnAbove, budget.warn_above),
        (LimitKind::Absent, is_ban.then_some(0)),
    ];
    limits.into_iter().filter(|(_, limit)| limit.is_some())
}

/// The first few of a list, and how many more there are.
fn some<T: AsRef<str>>(names: &[T]) -> String {
    let shown: Vec<&str> = names.iter().take(NAMED).map(AsRef::as_ref).collect();
    match names.len() - shown.len() {
        0 => shown.join(", "),
        more => format!("{} and {more} more", shown.join(", ")),
    }
}
