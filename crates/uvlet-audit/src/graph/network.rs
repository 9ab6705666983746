//! Who imports whom, module by module, both ways round: reach, shortest ways, rings.

use std::{cmp::Reverse, collections::BinaryHeap};

use uvlet_record::{Edge, EdgeKind, ModuleId, Record};

/// The edges of a record by both of their ends.
pub struct Network<'r> {
    record: &'r Record,
    /// Where the edges of each module begin, in the record's order, and where the last ones end.
    from: Vec<usize>,
    /// Per module, the places of the edges that lead to it.
    to: Vec<Vec<usize>>,
}

/// How far it is from a module to what is looked for, the nearest first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Cost {
    /// Loads on demand on the way.
    pub deferred: u32,
    /// Steps.
    pub steps: u32,
    /// Installed modules among them.
    pub installed: u32,
}

impl<'r> Network<'r> {
    /// Of a record, whose edges are in order.
    #[must_use]
    pub fn of(record: &'r Record) -> Self {
        let starts = (0..=record.modules.len())
            .map(|at| record.edges.partition_point(|edge| edge.from.at() < at));
        let mut to = vec![Vec::new(); record.modules.len()];
        for (at, edge) in record.edges.iter().enumerate() {
            to[edge.to.at()].push(at);
        }
        Self { record, from: starts.collect(), to }
    }

    /// What a module asks for.
    pub fn asked(&self, id: ModuleId) -> impl Iterator<Item = &'r Edge> + '_ {
        self.record.edges[self.from[id.at()]..self.from[id.at() + 1]].iter()
    }

    /// The edges that lead to a module.
    pub fn askers(&self, id: ModuleId) -> impl Iterator<Item = &'r Edge> + Clone + '_ {
        let record = self.record;
        self.to[id.at()].iter().map(move |&at| &record.edges[at])
    }

    /// Which modules are reached from some over edges that are followed, past none that is taken out.
    #[must_use]
    pub fn reach(
        &self,
        from: &[ModuleId],
        follows: &dyn Fn(&Edge) -> bool,
        is_taken: &dyn Fn(ModuleId) -> bool,
    ) -> Vec<bool> {
        let mut reached = vec![false; self.record.modules.len()];
        let mut open: Vec<ModuleId> = Vec::new();
        let mut enter = |id: ModuleId, open: &mut Vec<ModuleId>| {
            if !is_taken(id) && !std::mem::replace(&mut reached[id.at()], true) {
                open.push(id);
            }
        };
        from.iter().for_each(|&id| enter(id, &mut open));
        while let Some(id) = open.pop() {
            for edge in self.asked(id).filter(|edge| follows(edge)) {
                enter(edge.to, &mut open);
            }
        }
        reached
    }

    /// What a module asks for on demand.
    pub fn deferred(&self, id: ModuleId) -> impl Iterator<Item = ModuleId> + '_ {
        self.asked(id).filter(|edge| edge.kind.is_deferred()).map(|edge| edge.to)
    }

    /// Adds what is reached from some modules over edges of a kind, with these.
    pub fn extend_reach(
        &self,
        reached: &mut [bool],
        from: &[ModuleId],
        follows: &dyn Fn(EdgeKind) -> bool,
    ) {
        let known = |id: &ModuleId| id.at() < self.record.modules.len();
        let mut open: Vec<ModuleId> = from.iter().copied().filter(known).collect();
        while let Some(id) = open.pop() {
            if !std::mem::replace(&mut reached[id.at()], true) {
                let next = self.asked(id).filter(|edge| follows(edge.kind)).map(|edge| edge.to);
                open.extend(next.filter(|to| !reached[to.at()]));
            }
        }
    }

    /// The shortest ways to some modules, from everywhere (Dijkstra's algorithm on reversed edges).
    #[must_use]
    pub fn toward(&self, targets: &[ModuleId]) -> Ways<'r> {
        let count = self.record.modules.len();
        let mut costs: Vec<Option<Cost>> = vec![None; count];
        let mut next: Vec<Option<&Edge>> = vec![None; count];
        let mut heap = BinaryHeap::new();
        for &id in targets {
            let cost = Cost { deferred: 0, steps: 0, installed: 0 };
            costs[id.at()] = Some(cost);
            heap.push(Reverse((cost, id)));
        }
        while let Some(Reverse((cost, id))) = heap.pop() {
            if costs[id.at()].is_some_and(|known| known < cost) {
                continue;
            }
            for edge in self.askers(id) {
                let cost = Cost {
                    deferred: cost.deferred + u32::from(edge.kind.is_deferred()),
                    steps: cost.steps + 1,
                    installed: cost.installed
                        + u32::from(self.record.module(edge.from).third_party),
                };
                let known = &mut costs[edge.from.at()];
                if known.is_none_or(|known| cost < known) {
                    *known = Some(cost);
                    next[edge.from.at()] = Some(edge);
                    heap.push(Reverse((cost, edge.from)));
                }
            }
        }
        Ways { costs, next }
    }
}

/// Shortest ways to what was looked for.
pub struct Ways<'r> {
    costs: Vec<Option<Cost>>,
    next: Vec<Option<&'r Edge>>,
}

impl<'r> Ways<'r> {
    /// How far it is from a module.
    #[must_use]
    pub fn cost(&self, from: ModuleId) -> Option<Cost> {
        self.costs[from.at()]
    }

    /// The modules on the way, each with the edge that leads to it.
    #[must_use]
    pub fn from(&self, root: ModuleId) -> Vec<(ModuleId, Option<&'r Edge>)> {
        let mut steps = vec![(root, None)];
        let mut at = root;
        while let Some(edge) = self.next[at.at()] {
            steps.push((edge.to, Some(edge)));
            at = edge.to;
        }
        steps
    }
}
