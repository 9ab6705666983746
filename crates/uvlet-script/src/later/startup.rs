//! What may happen at startup: the least set of functions called and states become true.
//!
//! Nothing is in the set at first. A function comes in when some use of its name is reached with every
//! barrier around it open, a state when some write of it is; each that comes in may open barriers, until
//! nothing changes. What is not in the set waits. An answer is only read when the set is complete, so
//! that none rests on what was assumed while another was being found out.
//!
//! A function that is given to an imported one is taken to wait; which of these an answer relies on is
//! part of the answer, as only whoever knows the other module can tell.

use std::collections::{HashMap, HashSet, VecDeque};

use oxc_semantic::NodeId;
use oxc_syntax::symbol::SymbolId;

use super::barriers::{BarrierId, Barriers, Condition, Reason};
use crate::later::uses::{Given, Waits};

/// Names that the evidence for one use is followed through.
const MOST: usize = 1000;

/// A place where a condition is met once code arrives there.
type Trigger = Option<BarrierId>;

pub struct Startup<'e, 'a> {
    pub barriers: Barriers<'e, 'a>,
    /// By condition, the places that meet it.
    triggers: HashMap<Condition, Vec<Trigger>>,
    /// By condition, others of which each meets it.
    follows: HashMap<Condition, Vec<Condition>>,
    /// Met whatever happens.
    given: Vec<Condition>,
    met: HashSet<Condition>,
}

impl<'e, 'a> Startup<'e, 'a> {
    /// Finds what may happen at startup as far as these uses depend on it.
    pub fn new(barriers: Barriers<'e, 'a>, names: &[SymbolId], uses: &[NodeId]) -> Self {
        let mut startup = Self {
            barriers,
            triggers: HashMap::new(),
            follows: HashMap::new(),
            given: Vec::new(),
            met: HashSet::new(),
        };
        let mut open: Vec<Condition> = names.iter().copied().map(Condition::Called).collect();
        for &id in uses {
            startup.barriers.before_use(id);
        }
        let mut looked_at = 0;
        loop {
            for barrier in &startup.barriers.all[looked_at..] {
                if let Reason::Until(condition) = &barrier.reason {
                    open.push(condition.clone());
                }
            }
            looked_at = startup.barriers.all.len();
            let Some(condition) = open.pop() else { break };
            if !startup.triggers.contains_key(&condition) {
                startup.add(condition, &mut open);
            }
        }
        startup.solve();
        startup
    }

    /// Finds what meets a condition.
    fn add(&mut self, condition: Condition, open: &mut Vec<Condition>) {
        let tree = self.barriers.tree;
        let mut before = |places: Vec<NodeId>| -> Vec<Trigger> {
            places.into_iter().map(|id| self.barriers.before_use(id)).collect()
        };
        let triggers = match &condition {
            Condition::Called(symbol) => {
                let references = tree.references(*symbol);
                let is_open = references.is_empty()
                    || tree.semantic.scoping().symbol_is_mutated(*symbol)
                    || tree.is_exported(*symbol);
                (!is_open).then(|| before(references))
            }
            Condition::True(state) => tree.writes(*state).map(before),
            Condition::Returned(hook, key) => tree.results(*hook).map(|results| {
                let taken = results.into_iter().filter(|(one, _)| one == key);
                let names: Vec<Condition> =
                    taken.map(|(_, name)| Condition::Called(name)).collect();
                open.extend(names.iter().cloned());
                self.follows.insert(condition.clone(), names);
                Vec::new()
            }),
        };
        if triggers.is_none() {
            self.given.push(condition.clone());
        }
        self.triggers.insert(condition, triggers.unwrap_or_default());
    }

    fn solve(&mut self) {
        let all = &self.barriers.all;
        let mut inside: Vec<Vec<BarrierId>> = vec![Vec::new(); all.len()];
        let mut by_condition: HashMap<&Condition, Vec<BarrierId>> = HashMap::new();
        for (id, barrier) in all.iter().enumerate() {
            if let Some(outer) = barrier.outer {
                inside[outer].push(id);
            }
            if let Reason::Until(condition) = &barrier.reason {
                by_condition.entry(condition).or_default().push(id);
            }
        }
        let mut open: Vec<&Condition> = self.given.iter().collect();
        let mut behind: Vec<Vec<&Condition>> = vec![Vec::new(); all.len()];
        for (condition, triggers) in &self.triggers {
            for trigger in triggers {
                match trigger {
                    Some(barrier) => behind[*barrier].push(condition),
                    None => open.push(condition),
                }
            }
        }
        let mut followed: HashMap<&Condition, Vec<&Condition>> = HashMap::new();
        for (condition, others) in &self.follows {
            for other in others {
                followed.entry(other).or_default().push(condition);
            }
        }
        let mut met: HashSet<&Condition> = HashSet::new();
        let mut passed = vec![false; all.len()];
        while let Some(condition) = open.pop() {
            if !met.insert(condition) {
                continue;
            }
            open.extend(followed.get(condition).into_iter().flatten());
            let mut reached: Vec<BarrierId> =
                by_condition.get(condition).cloned().unwrap_or_default();
            while let Some(id) = reached.pop() {
                let barrier = &all[id];
                let is_open = matches!(&barrier.reason, Reason::Until(one) if met.contains(one));
                if passed[id] || !is_open || barrier.outer.is_some_and(|outer| !passed[outer]) {
                    continue;
                }
                passed[id] = true;
                open.extend(&behind[id]);
                reached.extend(&inside[id]);
            }
        }
        self.met = met.into_iter().cloned().collect();
    }

    /// The barrier that holds code back: one that no other module has a say in, if there is one.
    fn closed(&self, mut at: Option<BarrierId>) -> Option<&Reason> {
        let mut given = None;
        while let Some(id) = at {
            let barrier = &self.barriers.all[id];
            match &barrier.reason {
                Reason::Until(condition) if self.met.contains(condition) => {}
                Reason::Given(_) => given = given.or(Some(&barrier.reason)),
                reason => return Some(reason),
            }
            at = barrier.outer;
        }
        given
    }

    /// What a use waits for, and what that relies on.
    pub fn waits(&mut self, reference: NodeId) -> (Waits, Vec<Given>) {
        let before = self.barriers.before_use(reference);
        self.waits_behind([before])
    }

    /// What all calls of a function wait for.
    pub fn waits_named(&self, symbol: SymbolId) -> (Waits, Vec<Given>) {
        let condition = Condition::Called(symbol);
        if self.met.contains(&condition) {
            return (Waits::Nothing, Vec::new());
        }
        self.waits_behind(self.triggers.get(&condition).into_iter().flatten().copied())
    }

    /// The first reason that stands by itself, breadth first, and all that the answer relies on.
    fn waits_behind(&self, places: impl IntoIterator<Item = Trigger>) -> (Waits, Vec<Given>) {
        let nothing = (Waits::Nothing, Vec::new());
        let mut open: VecDeque<Trigger> = places.into_iter().collect();
        let mut seen: HashSet<&Condition> = HashSet::new();
        let mut waits: Option<Waits> = None;
        let mut relies_on = Vec::new();
        let scoping = self.barriers.tree.semantic.scoping();
        while let Some(place) = open.pop_front() {
            let (found, condition) = match self.closed(place) {
                None => return nothing,
                Some(Reason::Event(name)) => (Some(Waits::Event(name.clone())), None),
                Some(Reason::Route(path)) => (Some(Waits::Route(path.clone())), None),
                Some(Reason::Given(given)) => {
                    if !relies_on.contains(given) {
                        relies_on.push(given.clone());
                    }
                    (Some(Waits::Given(given.clone())), None)
                }
                Some(Reason::Until(condition)) => match condition {
                    Condition::True(state) => {
                        let name = scoping.symbol_name(*state).to_owned();
                        (Some(Waits::State(name)), Some(condition))
                    }
                    _ => (None, Some(condition)),
                },
            };
            waits = waits.or(found);
            let Some(condition) = condition.filter(|one| seen.insert(one)) else { continue };
            if seen.len() > MOST {
                return nothing;
            }
            open.extend(self.triggers.get(condition).into_iter().flatten());
            let others = self.follows.get(condition).into_iter().flatten();
            for other in others.filter(|one| seen.insert(one)) {
                open.extend(self.triggers.get(other).into_iter().flatten());
            }
        }
        waits.map_or(nothing, |waits| (waits, relies_on))
    }
}
