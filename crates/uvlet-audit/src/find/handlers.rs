//! What the uses of an import wait for, with the evidence in the sources: functions that are handed functions
//! are followed to where they are declared, past files that only re-export.

use std::{
    cell::RefCell,
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};

use uvlet_record::{CellId, Edge, ModuleId};
use uvlet_script::{
    Dialect,
    declarations::{exported_names, handed_on},
    later::{Given, Import, Later, Use, Waits, later},
    read,
};

use crate::find::{
    about::Awaited,
    context::Ground,
    finding::{Part, PartText},
};

/// How far names are followed through files that hand them on.
const DEEPEST: usize = 8;

/// Characters of a line that are quoted before and after a use.
const BEFORE: usize = 30;

const AFTER: usize = 60;

pub(crate) fn is_now(edge: &Edge) -> bool {
    !edge.kind.is_deferred()
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

pub(crate) fn read_later(ground: &Ground<'_>, id: ModuleId) -> Option<Later> {
    let text = ground.texts.source(id)?;
    read(&text, Dialect::Source, later).ok()
}

/// Imports of one module by another that can wait.
pub(crate) struct Waiting {
    pub(crate) from: ModuleId,
    pub(crate) request: String,
    /// What is used, and what each use waits for.
    pub(crate) parts: Vec<Part>,
    /// What is waited for.
    pub(crate) events: BTreeSet<Awaited>,
}

/// Functions that are handed functions.
pub(crate) struct Callees<'g> {
    pub(crate) ground: &'g Ground<'g>,
    pub(crate) known: RefCell<BTreeMap<ModuleId, Arc<Later>>>,
    pub(crate) cells: BTreeMap<ModuleId, Vec<CellId>>,
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
    pub(crate) fn waiting(
        &self,
        from: ModuleId,
        request: &str,
        imports: &[&Import],
    ) -> Option<Waiting> {
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
                    waits_for: Some(event.clone()),
                    text: PartText::Excerpt(quoted),
                    ..Part::default()
                });
                found.events.insert(event);
            }
        }
        Some(found)
    }

    /// What a use waits for.
    fn event(&self, from: ModuleId, one: &Use) -> Option<Awaited> {
        if !one.relies_on.iter().all(|given| self.is_handler(from, given)) {
            return None;
        }
        Some(match &one.waits {
            Waits::Nothing => return None,
            Waits::Event(name) => Awaited::Event(name.clone()),
            Waits::State(name) => Awaited::State(name.clone()),
            Waits::Route(path) => {
                let path = path.trim_matches('/');
                let mut starts = self.ground.record().entries.iter().flat_map(|entry| {
                    entry.routes.iter().chain(&entry.aliases).chain(std::iter::once(&entry.name))
                });
                if starts.any(|start| start.trim_matches('/') == path) {
                    return None;
                }
                Awaited::Route(path.to_owned())
            }
            Waits::Given(given) => Awaited::Given(given.name.clone()),
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
