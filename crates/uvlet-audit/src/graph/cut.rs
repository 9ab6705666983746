//! Requests that go with a set of modules: those that are for it, wherever they lead.

use std::collections::HashSet;

use uvlet_record::{Edge, ModuleId, Record};

use crate::{
    graph::network::Network,
    select::subject::{Subject, SubjectKind},
};

/// Requests that go with a subject: those for a package, for a file of it, and those that lead nowhere else.
/// A bundler that says at once where a re-exported name comes from leads past the module that re-exports
/// it, so that one request may lead to many modules, of which the others stay.
pub(crate) struct Cut<'r> {
    requests: HashSet<(ModuleId, &'r str)>,
}

impl<'r> Cut<'r> {
    pub(crate) fn of(record: &'r Record, network: &Network<'r>, subject: &Subject) -> Self {
        let to = subject.modules.iter().flat_map(|&id| network.askers(id));
        let to = to.filter(|edge| !subject.has(edge.from));
        let asked: HashSet<(ModuleId, &str)> =
            to.filter_map(|edge| Some((edge.from, edge.request.as_deref()?))).collect();
        let mut others: HashSet<(ModuleId, &str)> = HashSet::new();
        for &(from, _) in &asked {
            for edge in network.asked(from).filter(|edge| !subject.has(edge.to)) {
                others.extend(edge.request.as_deref().map(|request| (from, request)));
            }
        }
        let paths: HashSet<&str> =
            subject.modules.iter().map(|&id| stem(&record.module(id).path)).collect();
        let is_for_it = |&(from, request): &(ModuleId, &str)| {
            !others.contains(&(from, request))
                || means(&record.module(from).path, request)
                    .is_some_and(|path| paths.contains(stem(&path)))
        };
        let mut requests: HashSet<(ModuleId, &str)> = asked.into_iter().filter(is_for_it).collect();
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

/// The path that a relative request means, without resolving it.
fn means(from: &str, request: &str) -> Option<String> {
    if !request.starts_with('.') {
        return None;
    }
    let mut parts: Vec<&str> = from.split('/').collect();
    parts.pop();
    for part in request.split('/') {
        match part {
            "." | "" => {}
            ".." => {
                parts.pop()?;
            }
            part => parts.push(part),
        }
    }
    Some(parts.join("/"))
}

/// A path as requests write it: without its ending, a folder for its index.
fn stem(path: &str) -> &str {
    let (folder, name) = path.rsplit_once('/').unwrap_or(("", path));
    let name = name.split_once('.').map_or(name, |(name, _)| name);
    match name {
        "index" if !folder.is_empty() => folder,
        name => &path[..path.len() - path.rsplit('/').next().map_or(0, str::len) + name.len()],
    }
}
