//! Which module asks for which: as the bundler says, else as the sources do.
//!
//! Where a bundler says it, sources add the names that are taken. Where none does, every source is
//! parsed and what it asks for is looked for among the modules of the build; what leads past modules
//! that left no byte is followed by the names that are taken ([`vanished`]).

pub(crate) mod bare;
pub(crate) mod graph;
pub(crate) mod installed;
pub(crate) mod placement;
pub(crate) mod places;
pub(crate) mod resolve;
pub(crate) mod sources;
pub(crate) mod vanished;

use std::{
    collections::{BTreeMap, BTreeSet},
    path::Path,
};

use placement::Placement;
use rayon::iter::{IntoParallelIterator, ParallelIterator};
use resolve::{Meant, Resolver};
use sources::SourceFacts;
use uvlet_record::{Edge, EdgeBasis, EdgeKind, ModuleId, Record, Texts};
use uvlet_script::requests::Request;

use crate::{
    assemble::{
        edges::{
            graph::{Graph, Names},
            vanished::requests::Vanished,
        },
        modules::Modules,
        numbers::Numbers,
    },
    descriptions::described::Described,
};

/// The bundler's edges between modules of the record. They are taken over, as there may be a million;
/// only those of dynamic loads stay in the description, too.
pub fn said(described: &mut Described, modules: &Modules) -> Vec<Edge> {
    let all = std::mem::take(&mut described.edges);
    let dynamic = all.iter().filter(|edge| edge.kind == EdgeKind::Dynamic).cloned();
    described.edges = dynamic.collect();
    let edges = all.into_iter().filter_map(|edge| {
        let (from, to) = (modules.module(edge.from)?, modules.module(edge.to)?);
        let (kind, request, names) = (edge.kind, edge.request, edge.names);
        Some(Edge { from, to, kind, request, names, basis: EdgeBasis::Said })
    });
    let mut edges: Vec<Edge> = edges.filter(|edge| edge.from != edge.to).collect();
    edges.sort_unstable();
    edges.dedup();
    edges
}

/// Looks into the sources of the modules: digests, formats, and who asks for whom. How modules are
/// numbered then, if some were put among them.
pub fn look_into_sources(
    record: &mut Record,
    texts: &dyn Texts,
    root: Option<&Path>,
) -> Option<Numbers> {
    let facts = sources::read(record, texts);
    if facts.iter().all(Option::is_none) {
        return None;
    }
    sources::describe(record, &facts);
    if record.has_said_edges() {
        by_request(&mut record.edges, &facts);
        if record.edges.iter().all(|edge| edge.request.is_some()) {
            return None;
        }
    }
    let resolver = Resolver::new(record, &facts, root);
    let of_module = |at: usize| {
        let from = ModuleId::new(at);
        let asks = facts[at].iter().flat_map(|facts| &facts.requests.asks);
        let asks = asks.map(|ask| (ask, resolver.resolve(from, ask))).collect::<Vec<_>>();
        (from, asks)
    };
    let asked: Vec<(ModuleId, Vec<(&Request, Meant)>)> =
        (0..record.modules.len()).into_par_iter().map(of_module).collect();
    let mut found = Graph::default();
    for (from, asks) in &asked {
        found.elements(*from, &resolver, facts[from.at()].as_ref());
        for (ask, meant) in asks {
            found.direct(*from, ask, meant);
        }
    }
    if record.has_said_edges() {
        let names = found.names();
        annotate(&mut record.edges, &names);
        let package = |id: ModuleId| record.package_of(id).map(|package| package.name.clone());
        let packages: Vec<Option<String>> =
            (0..record.modules.len()).map(|at| package(ModuleId::new(at))).collect();
        by_package(&mut record.edges, &asked, &packages);
        return None;
    }
    let placement = Placement::of(record);
    let vanished = Vanished { record, facts: &facts, resolver: &resolver, placement: &placement };
    let handing = vanished.follow(&asked, &mut found);
    drop(asked);
    drop(resolver);
    let numbers = handing.add_to(record, &mut found, root);
    let Graph { edges, unresolved } = found;
    record.edges = edges.into_iter().filter(|edge| edge.from != edge.to).collect();
    record.unresolved_requests = unresolved.into_iter().collect();
    lead_to_packages(record);
    Some(numbers)
}

/// Ties requests for packages that could not be told to the package's index among its modules, else to
/// those that no other one of it asks for: what lay between left no trace, as where a package's own map
/// names older sources.
fn lead_to_packages(record: &mut Record) {
    let mut of_package: BTreeMap<&str, Vec<ModuleId>> = BTreeMap::new();
    let mut places: BTreeMap<&str, BTreeSet<&str>> = BTreeMap::new();
    for id in (0..record.modules.len()).map(ModuleId::new) {
        if let Some(package) = record.package_of(id) {
            of_package.entry(&package.name).or_default().push(id);
            places.entry(&package.name).or_default().insert(&package.place);
        }
    }
    let package = |id: ModuleId| record.module(id).package;
    let asked: BTreeSet<ModuleId> = record
        .edges
        .iter()
        .filter(|edge| package(edge.from) == package(edge.to))
        .map(|edge| edge.to)
        .collect();
    let mut told = BTreeSet::new();
    let mut edges = BTreeSet::new();
    for (at, lost) in record.unresolved_requests.iter().enumerate() {
        let name = lost.request.as_str();
        let is_one = places.get(name).is_some_and(|places| places.len() == 1);
        let Some(modules) = of_package.get(name).filter(|_| is_one) else { continue };
        if package(lost.from) == package(modules[0]) {
            continue;
        }
        let indices = modules.iter().copied().filter(|id| is_index(&record.module(*id).path));
        let depth = |id: &ModuleId| record.module(*id).path.matches('/').count();
        let heads: Vec<ModuleId> = match indices.min_by_key(depth) {
            Some(index) => vec![index],
            None => modules.iter().copied().filter(|id| !asked.contains(id)).collect(),
        };
        for to in heads {
            told.insert(at);
            let (from, kind, request) = (lost.from, lost.kind, Some(lost.request.clone()));
            let basis = EdgeBasis::Inferred;
            edges.insert(Edge { from, to, kind, request, names: None, basis });
        }
    }
    let mut at = 0;
    record.unresolved_requests.retain(|_| {
        at += 1;
        !told.contains(&(at - 1))
    });
    record.edges.extend(edges);
    record.edges.sort_unstable();
    record.edges.dedup();
}

fn is_index(path: &str) -> bool {
    let name = path.rsplit('/').next().unwrap_or(path);
    name.split('.').next() == Some("index")
}

/// Adds to what the bundler says the names that are taken by the same request.
fn by_request(edges: &mut [Edge], facts: &[Option<SourceFacts>]) {
    for edge in edges.iter_mut().filter(|edge| !edge.kind.is_deferred()) {
        let asks = facts[edge.from.at()].iter().flat_map(|facts| &facts.requests.asks);
        let is_it = |ask: &&Request| Some(&ask.specifier) == edge.request.as_ref();
        let mut asks = asks.filter(is_it).peekable();
        if edge.names.is_some() || asks.peek().is_none() {
            continue;
        }
        let names: Option<Vec<&[String]>> = asks.map(|ask| ask.names.as_deref()).collect();
        edge.names = names.map(|names| {
            let names: BTreeSet<String> = names.concat().into_iter().collect();
            names.into_iter().collect()
        });
    }
    edges.sort_unstable();
}

/// Adds to what the bundler says the request and the names as the source has them.
fn annotate(edges: &mut [Edge], names: &Names) {
    for edge in edges.iter_mut().filter(|edge| !edge.kind.is_deferred()) {
        if let Some((request, names)) = names.get(&(edge.from, edge.to)) {
            edge.names = edge.names.take().or_else(|| names.clone());
            edge.request = edge.request.take().or_else(|| request.clone());
        }
    }
    edges.sort_unstable();
}

/// Adds the request and the names of bare requests that could not be told, where a module has one edge
/// to that package and one such request.
fn by_package(
    edges: &mut [Edge],
    asked: &[(ModuleId, Vec<(&Request, Meant)>)],
    packages: &[Option<String>],
) {
    let mut open: BTreeMap<(ModuleId, &str), Vec<&Request>> = BTreeMap::new();
    for (from, asks) in asked {
        let lost = asks.iter().filter(|(_, meant)| !matches!(meant, Meant::Module(_)));
        for (ask, _) in lost.filter(|(ask, _)| !ask.specifier.starts_with(['.', '/'])) {
            open.entry((*from, ask.specifier.as_str())).or_default().push(ask);
        }
    }
    let mut counts: BTreeMap<(ModuleId, &str), usize> = BTreeMap::new();
    let package = |edge: &Edge| packages[edge.to.at()].as_deref();
    for edge in edges.iter() {
        if let Some(name) = package(edge) {
            *counts.entry((edge.from, name)).or_default() += 1;
        }
    }
    for edge in edges.iter_mut().filter(|edge| edge.names.is_none() && edge.request.is_none()) {
        let Some(name) = packages[edge.to.at()].as_deref() else { continue };
        if let (Some([ask]), Some(1)) =
            (open.get(&(edge.from, name)).map(Vec::as_slice), counts.get(&(edge.from, name)))
        {
            edge.request = Some(ask.specifier.clone());
            edge.names.clone_from(&ask.names);
        }
    }
    edges.sort_unstable();
}
