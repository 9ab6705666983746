//! What an entry starts with and needs only once somebody acts, with the evidence in the sources.
//!
//! Only own code is read for it, as only there an import can be changed. What a function does with the
//! functions that it is given is read where it is declared, past files that only hand names on.

use std::{
    cell::RefCell,
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{CellId, Edge, EdgeKind, ModuleId, Owner};
use uvlet_script::{
    Dialect,
    declarations::{exported_names, handed_on},
    inert::is_inert,
    later::{Given, Import, Later, Use, Waits, later},
    read,
};

use super::{Bound, Found, Ground, Part, cells_of_modules, counted, stocks};
use crate::{lens::CellSet, what_if::loading_helper};

/// Emitted bytes below which it is not worth a request of its own.
const LEAST: u64 = 500;
/// How far names are followed through files that hand them on.
const DEEPEST: usize = 8;
/// Characters of a line that are quoted before and after a use.
const BEFORE: usize = 30;
const AFTER: usize = 60;

/// Imports of one module by another that can wait.
struct Waiting {
    from: ModuleId,
    request: String,
    /// What is used, and what each use waits for.
    parts: Vec<Part>,
    /// What is waited for, in words.
    events: BTreeSet<String>,
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let entries = || record.entries.iter().enumerate().filter(|(_, entry)| !entry.roots.is_empty());
    let before: BTreeMap<usize, Vec<bool>> = entries()
        .map(|(at, entry)| (at, ground.network.reach(&entry.roots, &is_now, &|_| false)))
        .collect();
    let own: Vec<ModuleId> = (0..record.modules.len())
        .map(ModuleId::new)
        .filter(|id| !record.module(*id).third_party && record.package_of(*id).is_none())
        .filter(|id| before.values().any(|reached| reached[id.at()]))
        .collect();
    let read = |&id: &ModuleId| Some((id, Arc::new(read_later(ground, id)?)));
    let known: BTreeMap<ModuleId, Arc<Later>> =
        own.par_iter().filter_map(read).collect::<Vec<_>>().into_iter().collect();
    let cells = cells_of_modules(record, &BTreeSet::new());
    let callees = Callees { ground, known: RefCell::new(known.clone()), cells };
    // By what is asked for: who can wait for it.
    let mut waiting: BTreeMap<BTreeSet<ModuleId>, Vec<Waiting>> = BTreeMap::new();
    for (&from, later) in &known {
        let mut requests: BTreeMap<&str, Vec<&Import>> = BTreeMap::new();
        for import in &later.imports {
            requests.entry(&import.request).or_default().push(import);
        }
        for (request, imports) in requests {
            let targets: BTreeSet<ModuleId> = ground
                .network
                .asked(from)
                .filter(|edge| asks(edge, request))
                .map(|edge| edge.to)
                .collect();
            if !targets.is_empty()
                && let Some(one) = callees.waiting(from, request, &imports)
            {
                waiting.entry(targets).or_default().push(one);
            }
        }
    }
    let found = waiting.iter().filter_map(|(targets, by)| one(ground, &before, targets, by));
    found.collect()
}

fn is_now(edge: &Edge) -> bool {
    !edge.kind.is_deferred()
}

/// A request that an `import` makes.
fn asks(edge: &Edge, request: &str) -> bool {
    edge.kind == EdgeKind::Static && edge.request.as_deref() == Some(request)
}

/// The line of a text that a byte stands on, from 1, with what stands around it there.
fn quoted(text: &str, at: usize) -> (usize, String) {
    let (before, after) = text.split_at_checked(at).unwrap_or((text, ""));
    let start = before.rsplit(['\n', '\r']).next().unwrap_or_default();
    let cut = start.char_indices().rev().nth(BEFORE).map_or(0, |(at, _)| at);
    let dots = if start[..cut].trim().is_empty() { "" } else { "…" };
    let rest: String = after.lines().next().unwrap_or_default().chars().take(AFTER).collect();
    let line = before.matches('\n').count() + 1;
    (line, format!("{dots}{}{rest}", start[cut..].trim_start()))
}

fn read_later(ground: &Ground<'_>, id: ModuleId) -> Option<Later> {
    let text = ground.texts.source(id)?;
    read(&text, Dialect::Source, later).ok()
}

/// Functions that are handed functions.
struct Callees<'g> {
    ground: &'g Ground<'g>,
    known: RefCell<BTreeMap<ModuleId, Arc<Later>>>,
    cells: BTreeMap<ModuleId, Vec<CellId>>,
}

impl Callees<'_> {
    fn later(&self, id: ModuleId) -> Option<Arc<Later>> {
        if let Some(known) = self.known.borrow().get(&id) {
            return Some(Arc::clone(known));
        }
        let read = Arc::new(read_later(self.ground, id)?);
        self.known.borrow_mut().insert(id, Arc::clone(&read));
        Some(read)
    }

    /// What all uses of some imports wait for; none where one of them waits for nothing.
    fn waiting(&self, from: ModuleId, request: &str, imports: &[&Import]) -> Option<Waiting> {
        let record = self.ground.record();
        let text = self.ground.texts.source(from)?;
        let mut found = Waiting {
            from,
            request: request.to_owned(),
            parts: Vec::new(),
            events: BTreeSet::new(),
        };
        for import in imports {
            for one in &import.uses {
                let event = self.event(from, one)?;
                let (line, quoted) = quoted(&text, one.range.start);
                found.parts.push(Part {
                    name: import.local.clone(),
                    module: Some(record.module(from).path.clone()),
                    line: Some(line),
                    why: Some(format!("waits for {event}")),
                    text: quoted,
                    ..Part::default()
                });
                found.events.insert(event);
            }
        }
        Some(found)
    }

    /// What a use waits for, in words.
    fn event(&self, from: ModuleId, one: &Use) -> Option<String> {
        if !one.relies_on.iter().all(|given| self.is_handler(from, given)) {
            return None;
        }
        Some(match &one.waits {
            Waits::Nothing => return None,
            Waits::Event(name) => format!("`{name}`"),
            Waits::State(name) => format!("the state `{name}`, which is false at first"),
            Waits::Route(path) => {
                let path = path.trim_matches('/');
                let mut starts = self.ground.record().entries.iter().flat_map(|entry| {
                    entry.routes.iter().chain(&entry.aliases).chain(std::iter::once(&entry.name))
                });
                if starts.any(|start| start.trim_matches('/') == path) {
                    return None;
                }
                format!("a visit of /{path}")
            }
            Waits::Given(given) => format!("the event that `{}` gives it to", given.name),
        })
    }

    /// Whether a function that a module imports gives an argument to events alone.
    fn is_handler(&self, from: ModuleId, given: &Given) -> bool {
        let Given { request, name, place } = given;
        let asked = |edge: &&Edge| {
            let is_taken = |names: &Vec<String>| names.iter().any(|one| one == name);
            edge.request.as_ref() == Some(request) && edge.names.as_ref().is_none_or(is_taken)
        };
        self.all_are_handlers(from, &asked, name, *place, 0) == Some(true)
    }

    /// The same of a name of whatever some edges lead to; none where nothing there has the name.
    fn all_are_handlers(
        &self,
        from: ModuleId,
        follows: &dyn Fn(&&Edge) -> bool,
        name: &str,
        place: usize,
        depth: usize,
    ) -> Option<bool> {
        if depth > DEEPEST {
            return Some(false);
        }
        let mut found = None;
        for edge in self.ground.network.asked(from).filter(|edge| is_now(edge)).filter(follows) {
            match self.is_handler_of(edge.to, name, place, depth) {
                Some(true) => found = Some(true),
                Some(false) => return Some(false),
                None => {}
            }
        }
        found
    }

    fn is_handler_of(&self, id: ModuleId, name: &str, place: usize, depth: usize) -> Option<bool> {
        let Some(text) = self.ground.texts.source(id) else {
            // A file that left nothing only hands on; which names, its source alone would say.
            let has_bytes = self.cells.contains_key(&id);
            return (!has_bytes)
                .then(|| self.all_are_handlers(id, &|_| true, name, place, depth + 1))
                .flatten();
        };
        if let Some(handed) = handed_on(&text).ok().flatten() {
            let through = |request: &str, theirs: &str| {
                let follows = |edge: &&Edge| edge.request.as_deref() == Some(request);
                self.all_are_handlers(id, &follows, theirs, place, depth + 1)
            };
            return match handed.names.get(name) {
                Some((request, Some(theirs))) => through(request, theirs),
                Some((_, None)) => Some(false),
                None => handed.all.iter().find_map(|request| through(request, name)),
            };
        }
        let exports = exported_names(&text).ok()?;
        let has_name = exports.is_none_or(|names| names.iter().any(|one| one == name));
        let is_its = |(one, places): &(String, Vec<usize>)| one == name && places.contains(&place);
        has_name.then(|| self.later(id).is_some_and(|later| later.handlers.iter().any(is_its)))
    }
}

/// Own modules among some whose evaluation may do something, which would come later with them.
fn active(ground: &Ground<'_>, modules: &BTreeSet<ModuleId>) -> String {
    let record = ground.record();
    let does_something = |id: &&ModuleId| {
        let text = ground.texts.source(**id);
        !record.module(**id).third_party
            && text.is_none_or(|text| !is_inert(&text).unwrap_or(false))
    };
    let mut active = modules.iter().filter(does_something).map(|&id| &record.module(id).path);
    match active.next() {
        Some(first) => {
            let others = match active.count() {
                0 => String::new(),
                more => format!(" and of {}", counted(more, "more module")),
            };
            format!(
                "; the evaluation of {first}{others} may do something, which would come later, too"
            )
        }
        None => String::new(),
    }
}

fn one(
    ground: &Ground<'_>,
    before: &BTreeMap<usize, Vec<bool>>,
    targets: &BTreeSet<ModuleId>,
    by: &[Waiting],
) -> Option<Found> {
    let (record, lens) = (ground.record(), ground.lens);
    let waits =
        |edge: &Edge| by.iter().any(|one| edge.from == one.from && asks(edge, &one.request));
    let mut by_entry: BTreeMap<usize, CellSet> = BTreeMap::new();
    for (&at, reached) in before {
        if !by.iter().any(|one| reached[one.from.at()]) {
            continue;
        }
        let roots = &record.entries[at].roots;
        let after = ground.network.reach(roots, &|edge| is_now(edge) && !waits(edge), &|_| false);
        let startup: BTreeSet<_> = lens.reach[at].startup.iter().copied().collect();
        let cells = lens.cells(|file, owner| {
            startup.contains(&file)
                && matches!(owner, Owner::Module(id) if reached[id.at()] && !after[id.at()])
        });
        if lens.amount(&cells).emitted >= LEAST {
            by_entry.insert(at, cells);
        }
    }
    if by_entry.is_empty() {
        return None;
    }
    let cells: CellSet = by_entry.values().flat_map(CellSet::iter).collect();
    let modules: BTreeSet<ModuleId> = cells
        .iter()
        .filter_map(|id| match record.cells[id.at()].owner {
            Owner::Module(id) => Some(id),
            _ => None,
        })
        .collect();
    let request = &by.first()?.request;
    let name = |id: ModuleId| match record.package_of(id) {
        Some(package) if package.name == *request => package.name.as_str(),
        _ => record.module(id).path.as_str(),
    };
    let names: BTreeSet<&str> = targets.iter().map(|&id| name(id)).collect();
    let first = *names.first()?;
    let more = match modules.len().saturating_sub(targets.len()) {
        0 => String::new(),
        more => format!(", with {} that only it needs", counted(more, "module")),
    };
    let events: BTreeSet<&str> =
        by.iter().flat_map(|one| &one.events).map(String::as_str).collect();
    let events: Vec<&str> = events.into_iter().collect();
    let askers: Vec<&str> = by.iter().map(|one| record.module(one.from).path.as_str()).collect();
    // The entry that gains most may have nothing yet that loads on demand.
    let (&most, _) = by_entry.iter().max_by_key(|(_, cells)| lens.amount(cells).emitted)?;
    let reach = &lens.reach[most];
    let loads = record.dynamic_loads.iter().any(|load| reach.startup.contains(&load.file));
    let first_load = match loads {
        true => String::new(),
        false => format!(
            "; {} loads nothing on demand yet, and what the bundler needs for that comes with the first: {}",
            record.entries[most].name,
            loading_helper(record.bundler)
        ),
    };
    Some(Found {
        title: format!("{first} could come later{more}"),
        names: names.iter().map(|&name| name.to_owned()).collect(),
        cells,
        parts: by.iter().flat_map(|one| one.parts.iter().cloned()).collect(),
        with_wrappers: true,
        bound: Bound::AtMost,
        by_entry: Some(stocks(by_entry)),
        cause: format!(
            "{} uses it only in what waits for {}{}",
            askers.join(" and "),
            events.join(" or "),
            active(ground, &modules)
        ),
        advice: format!(
            "load it where it is used, by `import(\"{request}\")`; `uvlet what-if --defer {first}` says what that brings{first_load}"
        ),
        ..Found::default()
    })
}
