//! How one budget is judged: what its selection weighs at least and at most, and what keeps a limit
//! between the two from being decided.

use std::collections::{BTreeSet, HashSet};

use uvlet_record::{AsideKind, CellId, FileId, Kind, ModuleId, Owner, sizes::Measure};

use crate::{
    ask::{
        attribute::{By, RowKind, Sort, attribute},
        gate::{
            bench::{Judge, Unwaived},
            budget::{Budget, Scope, limits},
            limit::{Counted, LimitKind},
            reason::Reason,
            remark::GateRemark,
            verdict::{BudgetRow, Heavy, Verdict},
        },
    },
    find::judged,
    graph::network::Network,
    lens::{Bounds, Estimates},
    parts::{cells::CellSet, sets::Sets},
    select::{
        evaluate,
        selection::{Item, Missing, Renamed, Selection},
        selector::SelectorError,
    },
};

/// Contributors that are named.
const HEAVIEST: usize = 5;

/// Sources that are named.
const SOURCES: usize = 10;

/// What a limit is held against.
struct Subject {
    item: Option<String>,
    sets: Sets,
    /// Bytes of what is less than a cell.
    besides: u64,
    /// Why it cannot be judged, whatever it weighs.
    obstacles: Vec<Reason>,
}

impl Judge<'_, '_> {
    pub(crate) fn budget(&mut self, budget: &Budget) -> Result<(), SelectorError> {
        match &budget.scope {
            Scope::Total(selector) | Scope::Absent(selector) if selector.is_of_maps() => {
                self.maps(budget);
            }
            Scope::Total(selector) | Scope::Absent(selector) => {
                let found = evaluate::select(selector, self.lens)?;
                let obstacles = self.obstacles(budget, &found);
                self.remark(budget, &found);
                let Selection { cells, least, most, .. } = found;
                let sets = Sets { cells, least, most };
                self.grow(budget, None, &sets)?;
                self.hold(budget, Subject { item: None, sets, besides: 0, obstacles });
            }
            Scope::Waste(kind) => {
                let Unwaived { cells, besides, reasons, judged } =
                    self.unwaived(self.lens, self.aids.texts, *kind, budget.measure);
                let obstacles = self.lack_of_sight(budget, &judged, &cells, besides);
                let sources = self.sources(&cells, budget.measure);
                let before = self.rows.len();
                let sets = Sets::certain(cells);
                self.grow(budget, None, &sets)?;
                self.hold(budget, Subject { item: None, sets, besides, obstacles });
                for row in &mut self.rows[before..] {
                    row.because.extend(reasons.iter().cloned());
                    row.sources.clone_from(&sources);
                }
            }
            Scope::Each(selector) => {
                let (items, found) = evaluate::items(selector, self.lens)?;
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
                    let Item { name, sets } = item;
                    let (item, obstacles) = (Some(name), obstacles.clone());
                    self.grow(budget, item.as_deref(), &sets)?;
                    self.hold(budget, Subject { item, sets, besides: 0, obstacles });
                }
            }
        }
        Ok(())
    }

    /// What keeps a budget on findings from being judged: too little was seen to find all of them, and
    /// what was found breaks no limit yet.
    fn lack_of_sight(
        &self,
        budget: &Budget,
        judged: &[judged::Judged],
        cells: &CellSet,
        besides: u64,
    ) -> Vec<Reason> {
        let found = self.lens.amount(cells).bytes(budget.measure).saturating_add(besides);
        let is_broken = budget.limit(LimitKind::AtMost).is_some_and(|most| found > most);
        let unseen = |one: &&judged::Judged| !one.is_at_least(self.strictness.judged_at_least);
        judged
            .iter()
            .filter(|_| !is_broken)
            .filter(unseen)
            .cloned()
            .map(Reason::NotJudged)
            .collect()
    }

    /// Paths of the heaviest modules.
    fn sources(&self, cells: &CellSet, measure: Measure) -> Vec<String> {
        let rows = attribute(self.lens, By::Module, cells, None, Sort::Heaviest(measure)).rows;
        let modules = rows.into_iter().filter(|row| row.row == RowKind::Module);
        modules.map(|row| row.name).take(SOURCES).collect()
    }

    /// Source maps that lie beside the files, which count nowhere else.
    fn maps(&mut self, budget: &Budget) {
        let aside = self.lens.record.aside.iter().filter(|aside| aside.kind == AsideKind::Map);
        let mut maps: Vec<(u64, &str)> =
            aside.map(|aside| (aside.bytes, aside.path.as_str())).collect();
        maps.sort_by_key(|&(bytes, path)| (std::cmp::Reverse(bytes), path));
        let bytes: u64 = maps.iter().map(|(bytes, _)| bytes).sum();
        let names: Vec<&str> = maps.iter().map(|(_, path)| *path).collect();
        for (limit_kind, allowed) in limits(budget) {
            let limit = allowed.unwrap_or(0);
            let is = match limit_kind {
                LimitKind::FilesAtMost => maps.len() as u64,
                _ => bytes,
            };
            let verdict = match limit_kind {
                _ if is <= limit => Verdict::Met,
                LimitKind::WarnAbove => Verdict::Warned,
                _ => Verdict::Broken,
            };
            let named = || Reason::Maps(names.iter().map(|&name| name.to_owned()).collect());
            let row = budget.row(limit_kind, None);
            self.rows.push(BudgetRow {
                measure: match row.measure {
                    Counted::Bytes(_) => Counted::Bytes(Measure::Emitted),
                    counted => counted,
                },
                allowed,
                is: Some(is),
                over_by: is.saturating_sub(limit),
                least: is,
                most: is,
                verdict,
                because: (verdict != Verdict::Met).then(named).into_iter().collect(),
                ..row
            });
        }
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
        let missing = in_way.map(|missing| Reason::NameMissing {
            place: budget.place.clone(),
            missing: missing.clone(),
        });
        missing.chain(found.unmarked.iter().copied().map(Reason::NotMarked)).collect()
    }

    fn remark(&mut self, budget: &Budget, found: &Selection) {
        let name = &budget.name;
        for Renamed { by, name: chunk, lasting } in &found.renamed {
            let (budget, name, lasting) = (name.clone(), chunk.clone(), lasting.clone());
            self.remarks.push(GateRemark::ChunkRenamed { budget, by: *by, name, lasting });
        }
        for &at in &found.startup_of {
            let entry = &self.lens.record.entries[at];
            let cells = self.lens.files(self.lens.reach[at].at_once.iter());
            let bytes = self.lens.amount(&cells).bytes(budget.measure);
            if bytes > 0 {
                let (budget, measure) = (name.clone(), budget.measure);
                let entry = entry.name.clone();
                self.remarks.push(GateRemark::AtOnce { budget, entry, bytes, measure });
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
            let unmatched = missing
                .iter()
                .map(|missing| Reason::NoMatch { set: missing.set, name: missing.name.clone() });
            because.extend(unmatched);
        }
        for (limit_kind, allowed) in limits(budget) {
            let judged = Standing { verdict, is: None, over_by: 0, because: because.clone() };
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
        let Subject { item, sets: Sets { cells, least, most }, besides, obstacles } = subject;
        // Whether anything is there at all is a question of emitted bytes.
        let is_ban = matches!(budget.scope, Scope::Absent(_));
        let measure = if is_ban { Measure::Emitted } else { budget.measure };
        let mut bounds = self.lens.bounds(&least, &most, measure, estimates);
        if bounds.nobodys <= self.strictness.allow_unattributed {
            bounds.most -= bounds.nobodys.min(bounds.most - bounds.least);
            bounds.nobodys = 0;
        }
        bounds.least += besides;
        bounds.most += besides;
        let is = self.lens.amount(&cells).bytes(measure) + besides;
        let heaviest: Vec<Heavy> =
            attribute(self.lens, By::Package, &cells, None, Sort::Heaviest(measure))
                .rows
                .into_iter()
                .filter(|row| row.sizes.get(measure) > 0)
                .take(HEAVIEST)
                .map(|row| Heavy { row: row.row, name: row.name, sizes: row.sizes })
                .collect();
        let doubts = self.doubts(&least, &most, &bounds, measure);
        self.hold_rounds(budget, item.as_deref(), (&cells, &obstacles));
        for (limit_kind, allowed) in limits(budget) {
            let limit = allowed.unwrap_or(0);
            if limit_kind == LimitKind::RoundsAtMost {
                continue;
            }
            let files;
            let (bounds, is) = match limit_kind {
                LimitKind::FilesAtMost => {
                    // What may be left out of the bytes is left out here.
                    let counts = |id: &CellId| {
                        let owner = self.lens.record.cells[id.at()].owner;
                        bounds.nobodys > 0 || owner != Owner::Unattributed || least.has(*id)
                    };
                    let most: CellSet = most.iter().filter(counts).collect();
                    let (least, most) = (self.files(&least), self.files(&most));
                    files = Bounds { least, most, nobodys: 0, doubted: Vec::new() };
                    (&files, self.files(&cells))
                }
                _ => (&bounds, is),
            };
            let exceeded = match limit_kind {
                LimitKind::WarnAbove => Verdict::Warned,
                LimitKind::AtMost
                | LimitKind::Absent
                | LimitKind::GrowAtMost
                | LimitKind::FilesAtMost
                | LimitKind::RoundsAtMost => Verdict::Broken,
            };
            let judged = if !obstacles.is_empty() {
                Standing::open(limit_kind, obstacles.clone())
            } else if bounds.least > limit {
                let over_by = is.max(bounds.least) - limit;
                let because = if is_ban { self.brought_in(&least) } else { Vec::new() };
                Standing { verdict: exceeded, is: Some(is), over_by, because }
            } else if bounds.most <= limit {
                Standing { verdict: Verdict::Met, is: Some(is), over_by: 0, because: Vec::new() }
            } else {
                Standing::open(limit_kind, doubts.clone())
            };
            let row = Row { item: item.clone(), limit_kind, allowed, heaviest: heaviest.clone() };
            self.row(budget, row, bounds, judged);
        }
    }

    /// Number of files that hold any of it.
    fn files(&self, cells: &CellSet) -> u64 {
        let files: HashSet<FileId> =
            cells.iter().map(|id| self.lens.record.cells[id.at()].file).collect();
        files.len() as u64
    }

    /// The shortest chain that brings in what must not be there.
    fn brought_in(&self, cells: &CellSet) -> Vec<Reason> {
        let record = self.lens.record;
        let owners = cells.iter().map(|id| record.cells[id.at()].owner);
        let modules: BTreeSet<ModuleId> = owners
            .filter_map(|owner| match owner {
                Owner::Module(id) => Some(id),
                _ => None,
            })
            .collect();
        let modules: Vec<ModuleId> = modules.into_iter().collect();
        let ways = Network::of(record).toward(&modules);
        let roots = record.entries.iter().flat_map(|entry| {
            entry.roots.iter().filter_map(|&root| Some((ways.cost(root)?, root, &entry.name)))
        });
        let Some((_, root, entry)) = roots.min_by_key(|(cost, root, _)| (*cost, *root)) else {
            return Vec::new();
        };
        let steps = ways.from(root);
        let mut names: Vec<&str> = Vec::new();
        for &(id, _) in &steps {
            // Steps of one package are one.
            let name = match record.package_of(id).filter(|package| !package.own) {
                Some(package) => package.name.as_str(),
                None => record.module(id).path.as_str(),
            };
            if names.last() != Some(&name) {
                names.push(name);
            }
        }
        let chain = names.into_iter().map(str::to_owned).collect();
        vec![Reason::BroughtIn { entry: entry.clone(), chain }]
    }

    fn row(&mut self, budget: &Budget, row: Row, bounds: &Bounds, judged: Standing) {
        self.rows.push(BudgetRow {
            allowed: row.allowed,
            is: judged.is,
            over_by: judged.over_by,
            least: bounds.least,
            most: bounds.most,
            verdict: judged.verdict,
            because: judged.because,
            heaviest: row.heaviest,
            ..budget.row(row.limit_kind, row.item.as_deref())
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
        let mut unmarked = BTreeSet::new();
        for id in most.iter().filter(|id| !least.has(*id)) {
            let cell = &record.cells[id.at()];
            let path = record.file(cell.file).path.as_str();
            if self.lens.marks.may_carry(id) {
                unmarked.insert(path);
            }
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
        let paths = |files: BTreeSet<&str>| files.into_iter().map(str::to_owned).collect();
        let mut reasons = Vec::new();
        if !nobodys.is_empty() && bounds.nobodys > 0 {
            reasons.push(Reason::Unattributed {
                files: nobodys.into_iter().map(|(bytes, path)| (path.to_owned(), bytes)).collect(),
                are_styles: are_styles && self.lens.style_modules().is_none(),
            });
        }
        if !bounds.doubted.is_empty() {
            let doubted = bounds.doubted.iter().map(|&file| record.file(file).path.clone());
            reasons.push(Reason::Estimated(doubted.collect()));
        }
        if !unplaced.is_empty() {
            reasons.push(Reason::LoadsLeadNowhere(paths(unplaced)));
        }
        if !unmarked.is_empty() {
            reasons.push(Reason::NotFollowed(paths(unmarked)));
        }
        if !versions.is_empty() {
            reasons.push(Reason::VersionUnknown(paths(versions)));
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
struct Standing {
    verdict: Verdict,
    is: Option<u64>,
    over_by: u64,
    because: Vec<Reason>,
}

impl Standing {
    /// A limit that cannot be judged; one that only warns breaks nothing by that.
    fn open(limit_kind: LimitKind, because: Vec<Reason>) -> Self {
        let verdict = match limit_kind {
            LimitKind::WarnAbove => Verdict::Unjudged,
            LimitKind::AtMost
            | LimitKind::Absent
            | LimitKind::GrowAtMost
            | LimitKind::FilesAtMost
            | LimitKind::RoundsAtMost => Verdict::Undecided,
        };
        Self { verdict, is: None, over_by: 0, because }
    }
}
