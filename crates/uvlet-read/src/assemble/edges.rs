//! Which module asks for which: as the bundler says, else as the sources do.

use std::path::Path;

use uvlet_record::{Edge, EdgeBasis, Record, Texts};

use super::modules::Modules;
use crate::descriptions::Described;

/// The bundler's edges between modules of the record.
pub fn said(described: &Described, modules: &Modules) -> Vec<Edge> {
    let edges = described.edges.iter().filter_map(|edge| {
        let (from, to) = (modules.module(edge.from)?, modules.module(edge.to)?);
        let (request, names) = (edge.request.clone(), edge.names.clone());
        let basis = EdgeBasis::Said;
        Some(Edge { from, to, kind: edge.kind, request, names, basis })
    });
    let mut edges: Vec<Edge> = edges.filter(|edge| edge.from != edge.to).collect();
    edges.sort_unstable();
    edges.dedup();
    edges
}

/// Looks into the sources of the modules.
pub fn look_into_sources(_record: &mut Record, _texts: &dyn Texts, _root: Option<&Path>) {}
