//! Imports between modules while they are put together.

use std::collections::BTreeMap;
use std::collections::BTreeSet;

use uvlet_record::{Edge, EdgeBasis, EdgeKind, ModuleFormat, ModuleId, Record, UnresolvedRequest};
use uvlet_script::requests::{Kind, Request};

use crate::assemble::{
    edges::{
        resolve::{Meant, Resolver},
        sources::SourceFacts,
    },
    numbers::Numbers,
};

/// Edges while they are found.
#[derive(Default)]
pub struct Graph {
    pub(crate) edges: BTreeSet<Edge>,
    pub(crate) unresolved: BTreeSet<UnresolvedRequest>,
}

impl Graph {
    /// What a request leads to by itself.
    pub(crate) fn direct(&mut self, from: ModuleId, ask: &Request, meant: &Meant) {
        if let Meant::Module(to) = meant {
            self.add(from, *to, ask, ask.names.clone(), EdgeBasis::Read);
        }
    }

    /// A request's edge to a module.
    pub(crate) fn add(
        &mut self,
        from: ModuleId,
        to: ModuleId,
        ask: &Request,
        names: Option<Vec<String>>,
        basis: EdgeBasis,
    ) {
        let (kind, request) = (kind(ask.kind), Some(ask.specifier.clone()));
        self.edges.insert(Edge { from, to, kind, request, names, basis });
    }

    pub(crate) fn unresolved(&mut self, from: ModuleId, ask: &Request) {
        // Libraries ask for one of two editions, of which builds for visitors hold the other.
        if ask.specifier.contains(".development.") {
            return;
        }
        let (request, kind) = (ask.specifier.clone(), kind(ask.kind));
        self.unresolved.insert(UnresolvedRequest { from, request, kind });
    }

    /// Numbers modules anew.
    pub(crate) fn renumber(&mut self, numbers: &Numbers) {
        let edges = std::mem::take(&mut self.edges).into_iter();
        let now = |edge: Edge| {
            let (from, to) = (numbers.now(edge.from), numbers.now(edge.to));
            Edge { from, to, ..edge }
        };
        self.edges = edges.map(now).collect();
        let lost = std::mem::take(&mut self.unresolved).into_iter();
        let now = |lost: UnresolvedRequest| {
            let from = numbers.now(lost.from);
            UnresolvedRequest { from, ..lost }
        };
        self.unresolved = lost.map(now).collect();
    }

    /// A compiler turns elements into calls of a library that it imports itself.
    pub(crate) fn elements(
        &mut self,
        from: ModuleId,
        resolver: &Resolver<'_>,
        facts: Option<&SourceFacts>,
    ) {
        let facts = facts.filter(|facts| facts.requests.has_elements);
        let of_elements = facts
            .and_then(|facts| resolver.elements(from, facts.requests.elements_from.as_deref()));
        if let Some(to) = of_elements.or_else(|| resolver.of_component(from)) {
            let specifier = resolver.path(to).to_owned();
            let ask = Request::plain(specifier, Kind::Import);
            self.add(from, to, &ask, None, EdgeBasis::Read);
        }
    }

    /// The names that are taken of each module, by who takes them.
    pub(crate) fn names(self) -> Names {
        let mut names = Names::new();
        for edge in self.edges {
            let entry = names.entry((edge.from, edge.to));
            entry
                .and_modify(|(_, names)| {
                    let both = names.take().zip(edge.names.clone());
                    *names = both.map(|(mut names, more)| {
                        names.extend(more);
                        names.sort();
                        names.dedup();
                        names
                    });
                })
                .or_insert((edge.request, edge.names));
        }
        names
    }
}

/// Whether a module is a style.
pub(crate) fn is_style(record: &Record, id: ModuleId) -> bool {
    record.module(id).format == Some(ModuleFormat::Style)
}

/// Requests by asking and asked module, with the names that they take.
pub(crate) type Names = BTreeMap<(ModuleId, ModuleId), (Option<String>, Option<Vec<String>>)>;

pub(crate) fn kind(kind: Kind) -> EdgeKind {
    match kind {
        Kind::Import => EdgeKind::Static,
        Kind::Reexport => EdgeKind::Reexport,
        Kind::Require => EdgeKind::Require,
        Kind::Dynamic => EdgeKind::Dynamic,
        Kind::Worker => EdgeKind::Worker,
        Kind::Url => EdgeKind::Url,
        Kind::Style => EdgeKind::Style,
    }
}
