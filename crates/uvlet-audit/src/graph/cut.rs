//! Requests that go with a set of modules: those that lead to it, wherever else they lead.

use std::collections::HashSet;

use uvlet_record::{Edge, ModuleId, Record};

use crate::{
    graph::network::Network,
    select::subject::{Subject, SubjectKind},
};

/// Requests that go with a subject: those that lead to it, wherever else they lead. A bundler that says
/// at once where a handed-on name comes from leads past the module that hands it on.
pub(crate) struct Cut<'r> {
    requests: HashSet<(ModuleId, &'r str)>,
}

impl<'r> Cut<'r> {
    pub(crate) fn of(record: &'r Record, network: &Network<'r>, subject: &Subject) -> Self {
        let to = subject.modules.iter().flat_map(|&id| network.askers(id));
        let to = to.filter(|edge| !subject.has(edge.from));
        let mut requests: HashSet<(ModuleId, &str)> =
            to.filter_map(|edge| Some((edge.from, edge.request.as_deref()?))).collect();
        if subject.kind == SubjectKind::Package {
            let name = subject.text.rsplit_once('@').map_or("", |(name, _)| name);
            let is_its = |request: &str| {
                [subject.text.as_str(), name].into_iter().filter(|name| !name.is_empty()).any(
                    |name| {
                        request
                            .strip_prefix(name)
                            .is_some_and(|rest| rest.is_empty() || rest.starts_with('/'))
                    },
                )
            };
            let edges = record.edges.iter().filter(|edge| !subject.has(edge.from));
            let asked = edges.filter_map(|edge| Some((edge.from, edge.request.as_deref()?)));
            requests.extend(asked.filter(|(_, request)| is_its(request)));
        }
        Self { requests }
    }

    pub(crate) fn has(&self, edge: &Edge) -> bool {
        edge.request.as_deref().is_some_and(|request| self.requests.contains(&(edge.from, request)))
    }
}
